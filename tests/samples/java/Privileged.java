// What runs while the class comes into being, by way of an object that the library runs there.
import java.security.AccessController;
import java.security.PrivilegedAction;
import java.util.ArrayList;
import java.util.List;

final class TideSettings {  // entity: static-holder TideSettings eager language
  private static boolean loud;
  private static String mark;

  static {
    AccessController.doPrivileged(new PrivilegedAction<Object>() {
      @Override
      public Object run() {
        mark = System.getProperty("tide.mark", "low");
        loud = Boolean.parseBoolean(System.getProperty("tide.loud", "false")); // near: thread.unguarded-state
        return null;
      }
    });
  }

  static boolean isLoud() {
    return loud;
  }

  static String mark() {
    return mark;
  }

  static void begin() {
    new Thread(() -> System.out.println(isLoud() + mark())).start();
  }
}

/** Who takes out has put in before. */
final class HornListeners {  // entity: singleton HornListeners eager language
  private static final HornListeners ONE = new HornListeners();
  private List<Runnable> all;

  private HornListeners() {}

  static HornListeners one() {
    return ONE;
  }

  void add(Runnable listener) { // near: init.needs-setup
    if (all == null) all = new ArrayList<>();
    all.add(listener);
  }

  void remove(Runnable listener) {
    all.remove(listener);
  }
}

final class HornRoom {
  void listen(Runnable listener, boolean loud) {
    if (loud) {
      HornListeners.one().add(listener);
      try {
        System.out.println("horn");
      } finally {
        HornListeners.one().remove(listener);
      }
    }
  }
}

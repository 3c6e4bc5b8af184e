// Values that a class keeps of itself are no singletons, and what callers hold counts.
import java.util.Calendar;
import java.util.HashMap;
import java.util.Map;

class TideState {
  public static final TideState HIGH = new OwnState("high");  // entity: shared-instance HIGH eager language
  public static final TideState LOW = new OwnState("low");  // entity: shared-instance LOW eager language
  private int seen;

  protected TideState(String name) {
  }

  void see() {
    seen++;
  }

  private static final class OwnState extends TideState {
    OwnState(String name) {
      super(name);
    }
  }
}

class Chart {
  private static final Chart DEFAULT = new Chart("coast");  // entity: shared-instance DEFAULT eager language
  private int scale;

  public Chart(String name) {
  }

  public static Chart getDefault() {
    return DEFAULT;
  }

  public void zoom() {
    scale++;
  }
}

class Bridge {
  void open() {
    new Chart("bridge").zoom();
    Chart.getDefault().zoom();
    TideState.HIGH.see();
    TideState.LOW.see();
  }
}

class Packed {
  private static final int[] STEPS = unpack();  // harmless: STEPS
  private static final String STEPS_PACKED = "1" + "2" + "3";  // harmless: STEPS_PACKED

  private static int[] unpack() {
    return new int[STEPS_PACKED.length()];
  }

  static int[] steps() {
    return STEPS;
  }
}

class Clock {  // entity: static-holder Clock eager language
  private static final Calendar NOW = Calendar.getInstance();
  private static Map<String, Integer> marks;  // harmless: marks

  static long shift(long by) {
    return shift(NOW, by);
  }

  private static long shift(Calendar calendar, long by) {
    synchronized (calendar) {
      calendar.setTimeInMillis(by);
      return calendar.getTimeInMillis();
    }
  }

  static void set(long at) {
    synchronized (NOW) {
      NOW.setTimeInMillis(at);
    }
  }

  static int mark(String name) {
    synchronized (Clock.class) {
      fill();
      return marks.get(name);
    }
  }

  private static void fill() {
    if (marks == null) marks = new HashMap<>();
  }

  static void watch() {
    new Thread(() -> {
      shift(1);
      set(2);
      mark("noon");
    }).start();
  }
}

// What the library gives back here cannot be changed, whoever is handed it.
class Manifests {
    private static final java.util.Set<String> NOTHING = java.util.Collections.emptySet();  // harmless: NOTHING
    private static final java.util.List<String> STEADY = java.util.Collections.unmodifiableList(java.util.Arrays.asList("coal"));  // harmless: STEADY

    java.util.Set<String> of(String ship) {
        return NOTHING;
    }

    java.util.List<String> always() {
        return STEADY;
    }

    void lose(String ship) {
        of(ship).remove("coal");
    }
}

// What is complete by the time that others see it, and what only looks as if it were shared.
package port;

import java.util.HashMap;
import java.util.Map;

final class Signs {  // entity: static-holder Signs lazy lock
  private static Map<String, String> signs;  // near: thread.leaks-internals
  private static String text;
  private static String shortText;

  private Signs() {}

  // Filled where it is made, under the lock; nobody changes it later.
  static synchronized Map<String, String> all() {
    if (signs != null) return signs;
    signs = new HashMap<>();
    signs.put("a", "diver down");
    return signs;
  }

  // Two texts that stand for one answer: who finds the one empty gives both their values.
  static synchronized String text() {
    if (text == null) {
      shortText = String.join(",", all().keySet());
      text = "signs: " + shortText;
    }
    return text;
  }

  static String shortText() {
    if (shortText == null) text();  // finding: thread.mixed-guard
    return shortText;
  }
}

// A value for each thread, in a class of our own.
final class Watches extends ThreadLocal<Integer> {
  @Override
  protected Integer initialValue() { return 0; }
}

final class Rota {
  static final Watches WATCHES = new Watches();  // entity: thread-local WATCHES eager language  // near: thread.unguarded-state

  private Rota() {}

  static void end() { WATCHES.remove(); }
  static int now() { return WATCHES.get(); }
}

// What is found there is replaced; where nothing was, nothing is made.
final class Chart {  // entity: singleton Chart lazy lock
  private static Chart old;
  private int depth;

  private Chart(int depth) { this.depth = depth; }

  static void renew() {
    if (old != null) {  // near: thread.double-check-incomplete  // finding: thread.mixed-guard
      Chart fresh = new Chart(2);
      synchronized (Chart.class) {
        old = fresh;
      }
    }
  }

  static synchronized Chart get() {
    if (old == null) old = new Chart(1);
    return old;
  }

  synchronized void deepen() { depth++; }
}

// Three that its class names: others may make more.
final class Lamp {  // near: single.open-constructor
  private static final Lamp RED = new Lamp(1);  // entity: shared-instance RED eager language
  private static final Lamp GREEN = new Lamp(2);  // entity: shared-instance GREEN eager language
  private static final Lamp WHITE = new Lamp(3);  // entity: shared-instance WHITE eager language
  private int shown;

  public Lamp(int shown) { this.shown = shown; }

  static Lamp red() { return RED; }
  static Lamp green() { return GREEN; }
  static Lamp white() { return WHITE; }
  void show() { shown++; }
}

final class Mast {
  private Mast() {}

  static void begin() {
    new Thread(() -> {
      Signs.shortText();
      Signs.all().size();
      Rota.end();
      Chart.renew();
      Chart.get().deepen();
      Lamp.red().show();
    }).start();
    Signs.text();
    Rota.now();
    Chart.get();
  }
}

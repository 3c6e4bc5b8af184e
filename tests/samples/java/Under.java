import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** What its package may call is, as far as the tree goes, only called under the lock. */
final class HoldFiles {  // entity: singleton HoldFiles eager language
  private static final HoldFiles ONE = new HoldFiles();
  private final Map<String, Integer> open = new HashMap<>();

  private HoldFiles() {}

  static HoldFiles one() {
    return ONE;
  }

  synchronized void move() {
    if (anyOpen()) throw new IllegalStateException();
    open.clear();
  }

  synchronized void open(String name) {
    open.put(name, 1);
  }

  boolean anyOpen() {
    for (int count : open.values()) if (count > 0) return true; // near: thread.mixed-guard
    return false;
  }
}

/** Under its other name the list is its own lock. */
final class Frames {  // entity: static-holder Frames eager language
  private static final List<String> ROWS = new ArrayList<>();
  private static final Map<String, List<String>> LISTS = new HashMap<>();  // harmless: LISTS

  private Frames() {}

  static void enter(String row) {
    synchronized (ROWS) {
      ROWS.add(row);
    }
  }

  static void leave(String row) {
    synchronized (ROWS) {
      ROWS.remove(row);
    }
  }

  static boolean knows(String key, String row) {
    synchronized (LISTS) {
      List<String> rows = LISTS.get(key);
      if (rows == null) rows = ROWS; // near: thread.mixed-guard
      synchronized (rows) {
        return rows.contains(row);
      }
    }
  }
}

final class UnderWatch {
  void begin() {
    for (int i = 0; i < 2; i++) {
      new Thread(() -> HoldFiles.one().open("one")).start();
      new Thread(() -> HoldFiles.one().move()).start();
      new Thread(() -> Frames.enter("two")).start();
      new Thread(() -> Frames.leave("two")).start();
      new Thread(() -> Frames.knows("all", "two")).start();
    }
  }
}

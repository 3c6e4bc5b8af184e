import java.text.DecimalFormat;
import java.util.ArrayDeque;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.locks.ReentrantLock;

// What looks like a constant keeps what it works on in itself.
class Weights {  // entity: static-holder Weights eager language
  static final DecimalFormat TONNES = new DecimalFormat("0.0");

  public static String tonnes(double kilos) {
    return TONNES.format(kilos / 1000);  // finding: thread.unguarded-state
  }
}

// A constant expression has its value before anything is made (JLS 15.29).
class Tides {
  static final Tides FIRST = new Tides();  // entity: static-field FIRST eager language
  static final int NONE = Integer.MAX_VALUE;  // harmless: NONE
  int height;

  Tides() {
    height = NONE;
  }

  void rise() {
    height++;
  }
}

// The queue's own member is called by the library's name, where the lock is held.
class Notices {
  static final Notices ALL = new Notices();  // entity: static-field ALL eager language
  private final ReentrantLock lock = new ReentrantLock();
  private final Queue<String> kept = new Bounded();

  public void add(String text) {
    lock.lock();
    try {
      kept.add(text);
    } finally {
      lock.unlock();
    }
  }

  public void clear() {
    lock.lock();
    try {
      kept.clear();
    } finally {
      lock.unlock();
    }
  }

  private class Bounded extends ConcurrentLinkedQueue<String> {
    @Override
    public boolean add(String text) {
      super.add(text);
      while (kept.size() > 9) {
        kept.poll();
      }
      return true;
    }
  }
}

// A text is a value: what its members give is another one.
class Labels {  // entity: static-holder Labels eager language
  private static volatile String code = "en";

  public static void load(String language) {
    code = language;
  }

  public static String file() {
    return code.replace('@', '-') + ".lang";
  }

  public static void main(String[] arguments) {
    new Thread(() -> System.out.println(file() + Weights.tonnes(3))).start();
    load("de");
    System.out.println(Weights.tonnes(2));
    Notices.ALL.add("tide");
    new Thread(() -> Notices.ALL.clear()).start();
    Tides.FIRST.rise();
  }
}

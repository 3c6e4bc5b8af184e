// What a class's own object is asked, what a lambda returns, what a queue is given, what runs once, and what is safe by how it is made.
import com.google.common.collect.MapMaker;
import java.lang.ref.WeakReference;
import java.security.AccessController;
import java.security.PrivilegedAction;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.logging.Logger;

class Relay {  // entity: singleton Relay lazy lock
  private static final Logger log = Logger.getLogger(Relay.class.getName());  // near: init.order-within-class  // harmless: log
  private static final Object LATCH = new Object();  // harmless: LATCH
  private static Relay relay;
  private int calls;

  private Relay() {}

  String getName() {
    synchronized (LATCH) {
      return "relay" + log;
    }
  }

  static synchronized Relay get() {  // near: single.may-return-nothing  // finding: thread.lock-every-access
    if (relay != null) return relay;
    AccessController.doPrivileged((PrivilegedAction<Object>) () -> {
      System.loadLibrary("relay");
      return null;
    });
    relay = new Relay();  // finding: init.lazy-needless
    return relay;
  }

  synchronized void call() {
    ++calls;
  }
}

class RelayOffice {
  String name() {
    return Relay.get().getName();  // finding: coupling.hidden-dependency
  }
}

class RelayQueue implements Runnable {
  private static final List<Runnable> tasks = new ArrayList<>();  // entity: static-field tasks eager language

  static void runLater(Runnable task) {
    synchronized (tasks) {
      tasks.add(task);
    }
  }

  public void run() {
    while (true) {
      Runnable next;
      synchronized (tasks) {
        if (tasks.isEmpty()) continue;
        next = tasks.remove(0);
      }
      next.run();
    }
  }
}

class RelayDesk {  // entity: static-holder RelayDesk eager language
  private static boolean ringing;
  private static int rung;

  static void ring(boolean on) {
    RelayQueue.runLater(() -> change(on));
  }

  private static void change(boolean on) {
    if (on != ringing) ++rung;  // near: thread.lost-update
    ringing = on;  // near: thread.unguarded-state
  }
}

class RelaySettings {  // entity: static-holder RelaySettings eager language
  private static boolean begun;
  static int lines;
  static int speed;

  static synchronized void begin() {
    if (begun) return;
    begun = true;
    read();
  }

  private static void read() {
    lines = lines + Integer.getInteger("lines", 2);  // near: thread.lost-update
    speed = speed + 1;  // near: thread.lost-update
  }

  static int linesNow() {
    return lines + speed;  // near: thread.unguarded-state
  }
}

class RelayLines {  // entity: static-holder RelayLines eager language
  private static final Map<Thread, String> byThread = new MapMaker().weakKeys().makeMap();  // near: thread.unguarded-state
  private static final Set<String> open = java.util.Collections.newSetFromMap(new ConcurrentHashMap<>());  // near: thread.unguarded-state

  static String mine(String given) {
    Thread current = Thread.currentThread();
    String line = byThread.get(current);
    if (line != null) return line;
    byThread.put(current, given);  // near: thread.check-then-act
    open.add(given);
    return given;
  }
}

class RelayEnds {  // entity: singleton RelayEnds eager language
  private static final RelayEnds ends = new RelayEnds();
  private final Set<WeakEnd> kept = new HashSet<>();

  private RelayEnds() {}

  static void add(Object target, String name) {
    ends.enter(target, name);
  }

  private synchronized void enter(Object target, String name) {
    kept.add(new WeakEnd(target, name));
  }

  synchronized void drop(WeakEnd end) {
    kept.remove(end);
  }
}

class WeakEnd extends WeakReference<Object> {
  final String name;

  WeakEnd(Object target, String name) {
    super(target);
    this.name = name;
  }
}

class RelayMast {
  RelayMast() {
    RelayEnds.add(this, "mast");  // near: lifetime.dangling-subscriber
  }

  void close() {}
}

abstract class Tones {
  static Tones none() {
    return LineTones.EMPTY;
  }

  static Tones of(int[] pitches) {
    return new LineTones(pitches);  // near: single.second-creation
  }

  abstract int first();
}

class LineTones extends Tones {
  static final LineTones EMPTY = new LineTones(new int[0]);  // entity: shared-instance EMPTY eager language
  private final int[] pitches;
  private Tones reversed;

  LineTones(int[] pitches) {  // near: single.open-constructor
    this.pitches = pitches;
  }

  int first() {
    return pitches[0];
  }

  Tones reversed() {
    Tones result = reversed;
    if (result == null) result = reversed = Tones.of(pitches.clone());
    return result;
  }
}

class RelayCounters {  // entity: static-holder RelayCounters eager language
  private static int sent;
  private static int lost;

  static void note(boolean ok) {
    ++sent;  // finding: thread.lost-update
    if (!ok) lost = lost + 1;
  }

  static int all() {
    return sent + lost;
  }
}

// Answers each push of a button: no start of the program.
class RelayPanel implements java.awt.event.ActionListener {
  public void actionPerformed(java.awt.event.ActionEvent event) {  // near: coupling.crowded-startup
    RelaySettings.begin();
    RelayCounters.note(true);
    Relay.get().call();
    RelayEnds.add(event, "push");
    RelayLines.mine("push");
  }
}

class RelayWorks {
  void begin() {  // finding: coupling.crowded-startup
    new Thread(new RelayQueue()).start();
    for (int i = 0; i < 4; ++i) {
      new Thread(() -> {
        RelaySettings.begin();
        RelayLines.mine("line");
        RelayDesk.ring(true);
        RelayCounters.note(RelaySettings.linesNow() > 0);
        System.out.println(RelayCounters.all() + Tones.none().first() + Tones.of(new int[] {1}).first() + Relay.get().getName());
        Relay.get().call();
        new RelayMast().close();
      }).start();
    }
  }
}

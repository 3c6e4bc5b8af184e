package office;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;

// Made above what its constructor needs.
class SignalCode {  // entity: singleton SignalCode eager language
    private static final SignalCode CODE = new SignalCode();  // finding: init.order-within-class
    private static final Map<String, String> FLAGS = new HashMap<>();  // harmless: FLAGS
    private String last = "";

    private SignalCode() {
        last = FLAGS.get("north");
    }

    static SignalCode get() {
        return CODE;
    }

    void show(String flag) {
        last = flag;
    }
}

// The other way round: all is there when it is made.
class FogHorn {  // entity: singleton FogHorn eager language
    private static final List<String> TONES = new ArrayList<>();  // entity: static-field TONES eager language
    private static final FogHorn HORN = new FogHorn();
    private int blown;

    private FogHorn() {
        TONES.add("low");
    }

    static FogHorn get() {
        return HORN;
    }

    synchronized void blow() {
        blown++;
    }
}

// The lock is the caller's own.
class CargoScale {  // entity: singleton CargoScale lazy lock
    private static CargoScale scale;
    private double load;

    private CargoScale() {}

    static CargoScale get() {
        Object lock = new Object();
        synchronized (lock) {  // finding: thread.wrong-lock
            if (scale == null) {
                scale = new CargoScale();  // finding: init.lazy-needless
            }
            return scale;
        }
    }

    void weigh(double tons) {
        load = tons;
    }
}

// The slot is its own lock.
class DutyLog {  // entity: singleton DutyLog lazy lock
    private static DutyLog log = null;
    private final List<String> lines = new ArrayList<>();

    private DutyLog() {}

    static DutyLog get() {
        synchronized (log) {  // finding: thread.wrong-lock
            if (log == null) {
                log = new DutyLog();  // finding: init.lazy-needless
            }
        }
        return log;
    }

    void write(String line) {
        lines.add(line);  // finding: lifetime.grows-forever
    }
}

// Taken and given back by calls.
class QuayLights {  // entity: singleton QuayLights lazy lock
    private static final Lock LOCK = new ReentrantLock();  // harmless: LOCK
    private static QuayLights lights;
    private boolean on;

    private QuayLights() {}

    static QuayLights get() {
        LOCK.lock();
        try {
            if (lights == null) {
                lights = new QuayLights();  // finding: init.lazy-needless
            }
            return lights;
        } finally {
            LOCK.unlock();
        }
    }

    void turn() {
        on = !on;
    }
}

// Tested once only.
class TugList {  // entity: singleton TugList lazy double-check-unsound
    private static volatile TugList tugs;
    private int count;

    private TugList() {}

    static TugList get() {
        if (tugs == null) {  // finding: thread.double-check-incomplete
            synchronized (TugList.class) {
                tugs = new TugList();  // finding: init.lazy-needless
            }
        }
        return tugs;
    }

    void add() {
        count = count + 1;
    }
}

// Open to subclasses.
class Harbourmaster {  // entity: singleton Harbourmaster eager language
    private static final Harbourmaster MASTER = new Harbourmaster();
    private String name = "none";

    protected Harbourmaster() {}  // finding: single.subclassable

    static Harbourmaster get() {
        return MASTER;
    }

    void rename(String to) {
        name = to;
    }
}

// Nothing before it is opened.
class RadarPlot {  // entity: singleton RadarPlot lazy none
    private static RadarPlot plot;
    private int echoes;

    private RadarPlot() {}

    static void open() {
        plot = new RadarPlot();
    }

    static RadarPlot get() {
        return plot;  // finding: single.may-return-nothing
    }

    void echo() {
        echoes = echoes + 1;
    }
}

// Exchanged atomically.
final class Anchorage {  // entity: singleton Anchorage lazy atomic
    private static final AtomicReference<Anchorage> SLOT = new AtomicReference<>();
    private int ships;

    private Anchorage() {}

    static Anchorage get() {
        Anchorage there = SLOT.get();
        if (there == null) {
            SLOT.compareAndSet(null, new Anchorage());
            there = SLOT.get();
        }
        return there;
    }

    void drop() {
        ships = ships + 1;
    }
}

// One for each dock.
class Dock {
    private static final Map<String, Dock> DOCKS = new ConcurrentHashMap<>();  // entity: registry DOCKS eager language
    private int length;

    private Dock() {}

    static Dock of(String name) {
        return DOCKS.computeIfAbsent(name, n -> new Dock());
    }

    void lengthen() {
        length = length + 1;
    }
}

@Singleton
class CustomsDesk {  // entity: container-managed CustomsDesk
    private final Dock dock;

    CustomsDesk(Dock dock) {
        this.dock = dock;
    }
}

class Inspector {
    private final CustomsDesk desk;

    Inspector(CustomsDesk desk) {
        this.desk = desk;
    }
}

// Near misses: a new one each time, and one that it was given.
class Receipt {
    static Receipt getInstance() {
        return new Receipt();
    }
}

class Pier {
    private final Dock dock;

    Pier(Dock dock) {
        this.dock = dock;
    }

    Dock getDock() {
        return dock;
    }
}

class CurrentShift {
    private static final ThreadLocal<String> SHIFT = new ThreadLocal<>();  // entity: thread-local SHIFT eager language

    static String current() {
        return SHIFT.get();
    }

    static void enter(String shift) {
        SHIFT.set(shift);
    }
}

package office;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;

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

class CurrentShift {
    private static final ThreadLocal<String> SHIFT = new ThreadLocal<>();  // entity: thread-local SHIFT eager language

    static String current() {
        return SHIFT.get();
    }

    static void enter(String shift) {
        SHIFT.set(shift);
    }
}

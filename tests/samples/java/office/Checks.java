package office;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;

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

}

// One for each dock.
class Dock {
    private static final Map<String, Dock> DOCKS = new ConcurrentHashMap<>();  // entity: registry DOCKS eager language
    private int length;

    private Dock() {}

    static Dock of(String name) {
        return DOCKS.computeIfAbsent(name, n -> new Dock());
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

}

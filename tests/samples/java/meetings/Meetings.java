package meetings;

import java.util.HashMap;
import java.util.Map;

// Threads that are objects, and slots that are replaced whole.
class Board {  // entity: static-holder Board lazy none  // near: coupling.static-only-api
    static Map<String, String> rows = new HashMap<>();
    static final Object gate = new Object();  // harmless: gate
    static volatile int most = 4;
    private static Map<String, String> late;

    static void write(String ship) {
        rows.put(ship, "moored");  // finding: thread.unguarded-state  // near: lifetime.grows-forever
    }

    // Near miss: it is only ever overwritten, and the lock is there for something else.
    static void limit(int ships) {
        most = ships;  // near: thread.mixed-guard
    }

    static boolean full() {
        synchronized (gate) {
            return rows.size() > most;
        }
    }

    static Map<String, String> late() {
        if (late == null) {
            late = new HashMap<>();  // finding: thread.unguarded-creation
        }
        return late;
    }
}

class Watch implements Runnable {
    public void run() {
        Board.write("Tern");
        Board.late();
        Board.full();
    }
}

class Office {
    static final ThreadLocal<StringBuilder> NOTES = ThreadLocal.withInitial(StringBuilder::new);  // entity: thread-local NOTES eager language

    public static void main(String[] arguments) {
        Thread watch = new Thread(new Watch());
        watch.start();
        Board.write("Gull");
        Board.late();
        Board.limit(3);
        NOTES.get().append("open");  // near: thread.unguarded-state
    }
}

package harbour.loops;

import java.io.Serializable;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;

// The one executor of the harbour: its queue is made by its constructor, and only its own thread counts.
final class Loop implements Runnable {  // entity: singleton Loop eager language
    static final Loop INSTANCE = new Loop();  // finding: init.eager-heavy
    private final LinkedBlockingQueue<Runnable> given = new LinkedBlockingQueue<>();
    private final Thread thread = new Thread(this);
    private Queue<Runnable> later;
    private long next;

    private Loop() {
        later().add(() -> {});
    }

    boolean inEventLoop() {
        return Thread.currentThread() == thread;
    }

    private Queue<Runnable> later() {
        if (later == null) {
            later = new ArrayDeque<>();  // near: thread.unguarded-creation
        }
        return later;
    }

    private void put(Runnable task) {
        next++;  // near: thread.lost-update
        later().add(task);
    }

    void schedule(Runnable task) {
        if (inEventLoop()) {
            put(task);
        } else {
            given.add(task);
        }
    }

    void rest() {
        assert inEventLoop();
        put(() -> {});
    }

    @Override
    public void run() {
        for (int i = 0; i < 3; i++) {
            schedule(given.poll());
            rest();
        }
    }
}

final class Duty {
    void take() {
        new Thread(() -> Loop.INSTANCE.schedule(() -> {})).start();
        Loop.INSTANCE.schedule(() -> {});
    }
}

// Deserialisation makes another one, which is as good: nobody asks which it is.
final class ByLength implements Comparator<String>, Serializable {  // entity: singleton ByLength eager language  // near: single.revivable
    static final ByLength INSTANCE = new ByLength();

    private ByLength() {}

    @Override
    public int compare(String a, String b) {
        return a.length() - b.length();
    }
}

// Classes that are written inside are the class itself.
final class Sweeper {  // near: coupling.static-only-api
    private static final ConcurrentHashMap<String, Sweep> SWEEPS = new ConcurrentHashMap<>();  // entity: registry SWEEPS eager language

    private Sweeper() {}

    static void sweep(String pier) {
        SWEEPS.computeIfAbsent(pier, Sweep::new).go();
    }

    static void done(Sweep sweep) {
        SWEEPS.remove(sweep.pier);
    }

    private static final class Sweep {
        final String pier;

        Sweep(String pier) {
            this.pier = pier;
        }

        void go() {
            new Thread(() -> Sweeper.done(this)).start();
        }
    }
}

final class Caretaker {
    void tidy() {
        Sweeper.sweep("north");
    }
}

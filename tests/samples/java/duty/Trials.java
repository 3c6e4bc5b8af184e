// A lock that is only tried, and given back in the last part of a try.
package duty;

import java.util.WeakHashMap;
import java.util.concurrent.locks.ReentrantLock;

final class SlipGauge {  // entity: singleton SlipGauge eager language
    private static final SlipGauge GAUGE = new SlipGauge();
    private final ReentrantLock lock = new ReentrantLock();
    private int depth;
    private int draught;

    private SlipGauge() {
    }

    static SlipGauge gauge() {
        return GAUGE;
    }

    void set(int depth, int draught) {
        lock.lock();
        try {
            this.depth = depth;
            this.draught = draught;
        } finally {
            lock.unlock();
        }
    }

    // Near miss: whoever gives it back held it.
    int depth() {
        if (lock.tryLock()) {
            try {
                return depth;  // near: thread.mixed-guard
            } finally {
                lock.unlock();
            }
        }
        return -1;
    }

    int draught() {
        try {
            return draught;  // finding: thread.mixed-guard
        } finally {
            System.out.println("read");
        }
    }
}

// State that is its own lock is state all the same.
final class Soundings {  // entity: singleton Soundings eager language
    private static final Soundings SOUNDINGS = new Soundings();
    private final WeakHashMap<String, Integer> depths = new WeakHashMap<>();

    private Soundings() {
    }

    static Soundings soundings() {
        return SOUNDINGS;
    }

    void note(String buoy, int depth) {
        synchronized (depths) {
            depths.put(buoy, depth);
        }
    }

    int depth(String buoy) {
        return depths.get(buoy);  // finding: thread.mixed-guard
    }
}

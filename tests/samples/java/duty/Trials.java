// A lock that is only tried, and given back in the last part of a try.
package duty;

import java.util.WeakHashMap;
import java.util.concurrent.locks.ReentrantLock;

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

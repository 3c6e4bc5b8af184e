import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;

// Near miss: what is put in is taken out through a local of the same name.
class NightWork {  // entity: singleton NightWork eager language
    private static final NightWork NIGHT = new NightWork();
    private final Queue<Runnable> jobs = new ArrayDeque<>();

    private NightWork() {
    }

    static NightWork night() {
        return NIGHT;
    }

    synchronized void add(Runnable job) {
        jobs.add(job);  // near: lifetime.grows-forever
    }

    synchronized Runnable next() {
        Queue<Runnable> jobs = this.jobs;
        return jobs.poll();
    }
}

// Near miss: nobody leaves the list alone; it is emptied as a whole, by a method that is told something else.
interface Errand {
    void run();
}

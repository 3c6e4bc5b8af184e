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

// Near miss: a stack of what is being worked on is no list of subscribers.
class Reader {
    private final List<Object> open = new ArrayList<>();
    private final Deque<Object> stack = new ArrayDeque<>();

    void push(Object what) {
        stack.push(what);
    }

    Object pop() {
        return stack.pop();
    }

    void clear() {
        stack.clear();
    }

    int depth() {
        return stack.size();
    }
}

class Lists implements AutoCloseable {
    private final String name;

    Lists(String name) {
        this.name = name;
    }

    void read(Reader reader) {
        reader.push(this);  // near: lifetime.dangling-subscriber
        reader.pop();
    }

    @Override
    public void close() {
        System.out.println(name);
    }
}

// Near miss: nobody leaves the list alone; it is emptied as a whole, by a method that is told something else.
interface Errand {
    void run();
}

class Errands {
    private final List<Errand> errands = new ArrayList<>();

    void add(Errand errand) {
        errands.add(errand);
    }

    void runAll() {
        for (Errand errand : errands) {  // near: lifetime.notify-while-changing
            errand.run();
        }
    }

    void stop(String why) {
        System.out.println(why);
        errands.clear();
    }
}

// Near misses: one at most, and only so many.
class Lamps {  // entity: singleton Lamps eager language
    private static final Lamps LAMPS = new Lamps();
    private final List<String> master = new ArrayList<>();
    private final List<String> lit = new ArrayList<>();

    private Lamps() {
    }

    static Lamps lamps() {
        return LAMPS;
    }

    synchronized void name(String lamp) {
        if (master.isEmpty()) {
            master.add(lamp);  // near: lifetime.grows-forever
        }
    }

    synchronized void light(String lamp) {
        if (lit.size() < 20) {
            lit.add(lamp);  // near: lifetime.grows-forever
        }
    }
}

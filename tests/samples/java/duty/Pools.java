package duty;

import java.util.ArrayDeque;

// Hands its lines out again to whoever asks.
final class LinePool {  // entity: singleton LinePool eager language
    private static final LinePool POOL = new LinePool();
    private final ArrayDeque<Line> free = new ArrayDeque<>();

    private LinePool() {
    }

    static LinePool pool() {
        return POOL;
    }

    synchronized void push(Line line) {
        free.push(line);
    }

    synchronized Line pop() {
        return free.poll();
    }
}

final class Line implements AutoCloseable {
    private int metres;

    // Near miss: what goes back into a pool is meant to stay there.
    void giveBack() {
        LinePool.pool().push(this);  // near: lifetime.dangling-subscriber  // finding: coupling.hidden-dependency
    }

    void pay(int more) {
        metres += more;
    }

    @Override
    public void close() {
        metres = 0;
    }
}

final class Mooring {
    int moor() {
        Line line = LinePool.pool().pop();
        if (line == null) {
            return 0;
        }
        line.pay(10);
        line.giveBack();
        return 10;
    }
}

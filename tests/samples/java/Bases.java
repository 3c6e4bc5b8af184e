import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

// Near misses: the lock of the object is the same in its base, and a helper that a constructor or a fresh object's maker calls sets it up.
class PierBoard {
    protected final List<String> names = new ArrayList<>();

    protected synchronized void drop(String name) {
        dropOne(name);
    }

    protected Collection<String> dropOne(String name) {
        names.remove(name);
        return null;
    }
}

final class MainPierBoard extends PierBoard {  // entity: singleton MainPierBoard eager language
    private static final MainPierBoard BOARD = new MainPierBoard();
    private String active = "";
    private String title;

    static MainPierBoard board() {
        return BOARD;
    }

    private MainPierBoard() {
        build();
    }

    protected void build() {
        title = "piers";  // near: thread.unguarded-state
    }

    synchronized void open(String name) {
        set(name);
    }

    private void set(String name) {
        active = name;  // near: thread.mixed-guard
    }

    @Override
    protected Collection<String> dropOne(String name) {
        if (name.equals(active)) set("");
        return super.dropOne(name);
    }

    synchronized String active() {
        return active + title;
    }
}

class PierDesk {
    void open() {
        new Thread(() -> MainPierBoard.board().open("a")).start();
        new Thread(() -> MainPierBoard.board().drop("a")).start();
        System.out.println(MainPierBoard.board().active());
    }
}

// One call that looks and takes.
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

final class BerthBook {
    private static final BerthBook BOOK = new BerthBook();
    private final Map<Integer, String> ships = new ConcurrentHashMap<>();

    private BerthBook() {
    }

    static BerthBook book() {
        return BOOK;
    }

    boolean take(int berth, String ship) {
        return ships.putIfAbsent(berth, ship) == null;
    }

    void leave(int berth) {
        ships.remove(berth);
    }
}

class Pilot {
    void arrive() {
        new Thread(() -> BerthBook.book().take(4, "Sandpiper")).start();
    }
}

// Two ships find the berth free, and both take it.
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
        if (ships.containsKey(berth)) {
            return false;
        }
        ships.put(berth, ship);
        return true;
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

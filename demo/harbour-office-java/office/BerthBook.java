package office;

import java.util.Map;
import java.util.TreeMap;

/** Which ship lies at which berth. */
public final class BerthBook {
    private static BerthBook book;

    private final Map<Integer, String> berths = new TreeMap<>();

    private BerthBook() {
    }

    public static BerthBook get() {
        if (book == null) {
            book = new BerthBook();
        }
        return book;
    }

    public boolean assign(int berth, String ship) {
        return berths.putIfAbsent(berth, ship) == null;
    }

    public boolean release(int berth) {
        return berths.remove(berth) != null;
    }

    public String shipAt(int berth) {
        return berths.getOrDefault(berth, "");
    }

    public int occupied() {
        return berths.size();
    }
}

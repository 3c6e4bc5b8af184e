package office;

import java.io.IOException;
import java.util.List;
import java.util.Map;

/** The water's height, day by day. */
public final class TideTable {
    private int first = 4;

    @Deprecated
    public synchronized int height(int day) throws IOException {
        return first + day;
    }

    void raise(final int by) {
        first += by;
    }

    public <T extends Number> List<T> all(Map<String, T> named) {
        return List.copyOf(named.values());
    }

    public static TideTable make() {
        return new TideTable();
    }
}

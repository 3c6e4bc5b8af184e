// A table for each harbour.
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

final class TideTable {
    private static final Map<String, TideTable> TABLES = new ConcurrentHashMap<>();
    private final String harbour;

    private TideTable(String harbour) {
        this.harbour = harbour;
    }

    static TideTable table(String harbour) {
        return TABLES.computeIfAbsent(harbour, TideTable::new);
    }

    String harbour() {
        return harbour;
    }
}

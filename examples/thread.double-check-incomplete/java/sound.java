// Tested again inside of the lock.
final class TideTable {
    private static volatile TideTable table;

    private TideTable() {
    }

    static TideTable table() {
        if (table == null) {
            synchronized (TideTable.class) {
                if (table == null) {
                    table = new TideTable();
                }
            }
        }
        return table;
    }
}

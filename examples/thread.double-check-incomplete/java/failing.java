// The second thread waits for the lock, and then makes another one.
final class TideTable {
    private static volatile TideTable table;

    private TideTable() {
    }

    static TideTable table() {
        if (table == null) {
            synchronized (TideTable.class) {
                table = new TideTable();
            }
        }
        return table;
    }
}

// The second caller asks for another harbour, and gets the first one's table.
final class TideTable {
    private static TideTable table;
    private final String harbour;

    private TideTable(String harbour) {
        this.harbour = harbour;
    }

    static synchronized TideTable table(String harbour) {
        if (table == null) {
            table = new TideTable(harbour);
        }
        return table;
    }

    String harbour() {
        return harbour;
    }
}

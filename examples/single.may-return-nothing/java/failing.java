// Who comes before the opening is handed null.
final class TideTable {
    private static TideTable table;

    private TideTable() {
    }

    static void open() {
        table = new TideTable();
    }

    static TideTable table() {
        return table;
    }

    int height(int hour) {
        return hour % 6;
    }
}

class Pilot {
    int depth() {
        return TideTable.table().height(3);
    }
}

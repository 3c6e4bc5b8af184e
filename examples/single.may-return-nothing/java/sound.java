// It is there before anybody can ask.
final class TideTable {
    private static final TideTable TABLE = new TideTable();

    private TideTable() {
    }

    static TideTable table() {
        return TABLE;
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

final class TideTable {
    private static final TideTable TABLE = new TideTable();
    private int level = 3;

    private TideTable() {
    }

    static TideTable get() {
        return TABLE;
    }

    int rise() {
        return ++level;
    }
}

class Desk {
    private final TideTable tideTable;
    private final String name;
    private final int first;

    Desk(String name, TideTable tideTable) {
        this.tideTable = tideTable;
        this.first = tideTable.rise() + 1;
        this.name = name;
    }

    int all() {
        return first + tideTable.rise() + name.length();
    }
}

class Mast {
    private final TideTable tideTable;
    private final TideTable kept;

    Mast(TideTable tideTable) {
        this.tideTable = tideTable;
        this.kept = checked(tideTable);
    }

    static TideTable checked(TideTable table) {
        return table;
    }

    int raise() {
        return kept.rise();
    }
}

final class Harbour {
    private Harbour() {
    }

    public static void main(String[] arguments) {
        System.out.println(new Desk("first", TideTable.get()).all() + new Mast(TideTable.get()).raise());
    }
}

final class TideTable {
    private int level = 3;

    TideTable() {
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
        TideTable tideTable = new TideTable();
        System.out.println(new Desk("first", tideTable).all() + new Mast(tideTable).raise());
    }
}

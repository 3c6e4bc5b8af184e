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
    private final String name;
    private final int first = TideTable.get().rise() + 1;

    Desk(String name) {
        this.name = name;
    }

    int all() {
        return first + TideTable.get().rise() + name.length();
    }
}

class Mast {
    private final TideTable kept = checked(TideTable.get());

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
        System.out.println(new Desk("first").all() + new Mast().raise());
    }
}

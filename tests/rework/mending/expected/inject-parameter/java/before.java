final class TideTable {
    private static final TideTable TABLE = new TideTable();
    private int level = 3;

    private TideTable() {
    }

    static TideTable get() {
        return TABLE;
    }

    void raise(int by) {
        level += by;
    }

    int level() {
        return level;
    }
}

final class Harbour {
    private Harbour() {
    }

    /** Is there water enough? */
    static boolean mayEnter(int draught) {
        return mayEnter(draught, TideTable.get());
    }

    static boolean mayEnter(int draught, TideTable tideTable) {
        return tideTable.level() > draught;
    }

    static void night()
    {
        night(TideTable.get());
    }

    static void night(TideTable tideTable)
    {
        tideTable.raise(1);
        tideTable.raise(2);
    }

    public static void main(String[] arguments) {
        night();
        System.out.println(mayEnter(3));
    }
}

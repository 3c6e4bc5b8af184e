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
        return TideTable.get().level() > draught;
    }

    static void night()
    {
        TideTable.get().raise(1);
        TideTable.get().raise(2);
    }

    public static void main(String[] arguments) {
        night();
        System.out.println(mayEnter(3));
    }
}

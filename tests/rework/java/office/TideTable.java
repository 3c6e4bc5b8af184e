package office;

/** The tides of the day. */
public final class TideTable {
    private static final TideTable TABLE = new TideTable();
    private int asked;

    private TideTable() {
    }

    public static TideTable table() {
        return TABLE;
    }

    public int height(int hour) {
        asked++;
        return 3 + hour % 6;
    }

    public int asked() {
        return asked;
    }
}

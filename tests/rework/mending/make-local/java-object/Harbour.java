final class TideTable {
    private static TideTable table;

    private int first = 4;

    private TideTable() {
    }

    /** The one that there is. */
    static synchronized TideTable get() {
        if (table == null) {
            table = new TideTable();
        }
        return table;
    }

    int height(int day) {
        return first + day;
    }

    void raise(int by) {
        first += by;
    }
}

final class Desk {
    private int entered;

    int enter(int day) {
        entered++;
        TideTable.get().raise(1);
        return TideTable.get().height(day) + entered;
    }
}

final class Harbour {
    private Harbour() {
    }

    public static void main(String[] arguments) {
        Desk desk = new Desk();
        System.out.println(desk.enter(1) + desk.enter(2));
    }
}

final class TideTable {
    private int first = 4;

    TideTable() {
    }

    int height(int day) {
        return first + day;
    }

    void raise(int by) {
        first += by;
    }
}

final class Desk {
    private TideTable tideTable = new TideTable();
    private int entered;

    int enter(int day) {
        entered++;
        tideTable.raise(1);
        return tideTable.height(day) + entered;
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

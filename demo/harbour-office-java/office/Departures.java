package office;

/** Clears ships for sea. */
public class Departures {
    private int cleared;

    public boolean clear(int berth) {
        BerthBook book = BerthBook.get();
        String ship = book.shipAt(berth);
        if (ship.isEmpty()) {
            return false;
        }
        book.release(berth);
        cleared++;
        DutyLog.LOG.note(ship + " cleared");
        return true;
    }

    public int cleared() {
        return cleared;
    }
}

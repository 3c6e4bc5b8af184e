package office;

/** A stretch of berths under one name. */
public class Quay {
    private final String name;
    private final int first;
    private final int length;

    public Quay(String name, int first, int length) {
        this.name = name;
        this.first = first;
        this.length = length;
    }

    /** The berth given to the ship, or -1 when the quay is full. */
    public int moor(String ship) {
        for (int berth = first; berth < first + length; berth++) {
            if (BerthBook.get().shipAt(berth).isEmpty()) {
                BerthBook.get().assign(berth, ship);
                DutyLog.LOG.note(ship + " moored at " + name);
                return berth;
            }
        }
        return -1;
    }

    public boolean leave(int berth) {
        return BerthBook.get().release(berth);
    }

    public String name() {
        return name;
    }
}

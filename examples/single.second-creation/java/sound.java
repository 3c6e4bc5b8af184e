// The harbour master is handed the one there is.
final class BerthBook {
    private static final BerthBook BOOK = new BerthBook();
    private int moored;

    private BerthBook() {
    }

    static BerthBook book() {
        return BOOK;
    }

    synchronized void moor(int ships) {
        moored += ships;
    }
}

class HarbourMaster {
    private final BerthBook book;

    HarbourMaster(BerthBook book) {
        this.book = book;
    }

    void arrive() {
        book.moor(1);
    }
}

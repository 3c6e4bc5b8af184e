// The harbour master fills a book of his own.
final class BerthBook {
    private static final BerthBook BOOK = new BerthBook();
    private int moored;

    BerthBook() {
    }

    static BerthBook book() {
        return BOOK;
    }

    synchronized void moor(int ships) {
        moored += ships;
    }
}

class HarbourMaster {
    void arrive() {
        new BerthBook().moor(1);
    }
}

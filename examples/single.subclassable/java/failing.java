// A subclass can be made beside the one.
class BerthBook {
    private static final BerthBook BOOK = new BerthBook();
    private int moored;

    protected BerthBook() {
    }

    static BerthBook book() {
        return BOOK;
    }

    synchronized void moor(int ships) {
        moored += ships;
    }
}

class NightBook extends BerthBook {
}

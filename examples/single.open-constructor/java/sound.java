// Only the class itself makes it.
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

// Anyone can make a second book.
final class BerthBook {
    private static final BerthBook BOOK = new BerthBook();
    private int moored;

    static BerthBook book() {
        return BOOK;
    }

    synchronized void moor(int ships) {
        moored += ships;
    }
}

// The dues of the harbour, in a layer of their own.
package quays.ledgers;

public final class HarbourDues {  // entity: singleton HarbourDues eager language
    private static final HarbourDues DUES = new HarbourDues();
    private int total;

    private HarbourDues() {
    }

    public static HarbourDues dues() {
        return DUES;
    }

    public void enter(int coins) {
        total = total + coins;
    }

    public void clear() {
        total = 0;
    }

    public int total() {
        return total;
    }
}

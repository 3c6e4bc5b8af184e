package piers.ledgers;

// The fees of the pilots, in a layer of their own.
public final class PilotFees {  // entity: singleton PilotFees eager language
    private static final PilotFees FEES = new PilotFees();
    private int total;

    private PilotFees() {
    }

    public static PilotFees fees() {
        return FEES;
    }

    public synchronized void enter(int coins) {
        total += coins;
    }

    public synchronized int total() {
        return total;
    }

}

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

    public synchronized void clear() {
        total = 0;
    }

    public synchronized int total() {
        return total;
    }

    // Near miss: a layer may reach its own.
    public static int twice() {
        return FEES.total() + PilotFees.fees().total();  // near: coupling.layer-breach
    }
}

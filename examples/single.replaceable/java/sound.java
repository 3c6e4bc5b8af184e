// What is repaired is the one there is.
final class SignalMast {
    private static final SignalMast MAST = new SignalMast();
    private int flags;

    private SignalMast() {
    }

    static SignalMast mast() {
        return MAST;
    }

    synchronized void strike() {
        flags = 0;
    }
}

class Office {
    void repair() {
        SignalMast.mast().strike();
    }
}

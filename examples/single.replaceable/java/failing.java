// The office puts another mast in the slot; who kept the first goes on with it.
final class SignalMast {
    private static SignalMast mast = new SignalMast();

    SignalMast() {
    }

    static synchronized SignalMast mast() {
        return mast;
    }

    static synchronized void use(SignalMast other) {
        mast = other;
    }
}

class Office {
    void repair() {
        SignalMast.use(new SignalMast());
    }
}

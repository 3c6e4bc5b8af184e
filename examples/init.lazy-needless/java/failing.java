// A lock and a test at each access, for an object that costs nothing.
final class SignalMast {
    private static SignalMast mast;

    private SignalMast() {
    }

    static synchronized SignalMast mast() {
        if (mast == null) {
            mast = new SignalMast();
        }
        return mast;
    }
}

// The class makes it when it is first named.
final class SignalMast {
    private static final SignalMast MAST = new SignalMast();

    private SignalMast() {
    }

    static SignalMast mast() {
        return MAST;
    }
}

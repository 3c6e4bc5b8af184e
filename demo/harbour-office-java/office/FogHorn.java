package office;

/** Sounds the horn in fog; takes itself off the list when it goes. */
public class FogHorn implements SignalKeeper {
    private int blasts;

    public FogHorn() {
        SignalMast.mast().enlist(this);
    }

    @Override
    public void raised(String signal) {
        blasts += signal.equals("fog") ? 1 : 0;
    }

    public int blasts() {
        return blasts;
    }

    @Override
    public void close() {
        SignalMast.mast().dismiss(this);
    }
}

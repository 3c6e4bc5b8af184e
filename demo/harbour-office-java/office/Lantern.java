package office;

/** Lights the lantern for a night signal; stays on the mast's list for good. */
public class Lantern implements SignalKeeper {
    private boolean open = true;
    private boolean lit;
    private int late;

    public Lantern() {
        SignalMast.mast().enlist(this);
    }

    @Override
    public void raised(String signal) {
        if (!open) {
            late++;
            return;
        }
        lit = signal.equals("night");
    }

    public boolean lit() {
        return lit;
    }

    public int late() {
        return late;
    }

    @Override
    public void close() {
        open = false;
    }
}

// Waking it lists it a second time: it hears each signal twice.
import java.util.ArrayList;
import java.util.List;

final class SignalMast {
    private static final SignalMast MAST = new SignalMast();
    private final List<Display> displays = new ArrayList<>();

    private SignalMast() {
    }

    static SignalMast mast() {
        return MAST;
    }

    void attach(Display display) {
        displays.add(display);
    }

    void detach(Display display) {
        displays.remove(display);
    }
}

final class Display implements AutoCloseable {
    Display() {
        SignalMast.mast().attach(this);
    }

    void wake() {
        SignalMast.mast().attach(this);
    }

    @Override
    public void close() {
        SignalMast.mast().detach(this);
    }
}

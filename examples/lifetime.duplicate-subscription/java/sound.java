// A set holds each once.
import java.util.HashSet;
import java.util.Set;

final class SignalMast {
    private static final SignalMast MAST = new SignalMast();
    private final Set<Display> displays = new HashSet<>();

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

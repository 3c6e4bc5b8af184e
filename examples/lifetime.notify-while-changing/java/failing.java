// A display that hears 0 takes itself out of the list that is being walked.
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

    void raise(int signal) {
        for (Display display : displays) {
            display.heard(signal);
        }
    }
}

final class Display {
    void heard(int signal) {
        if (signal == 0) {
            SignalMast.mast().detach(this);
        }
    }
}

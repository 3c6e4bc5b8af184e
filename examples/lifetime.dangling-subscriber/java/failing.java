// The display is closed, and the mast still calls it.
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

    void raise(int signal) {
        for (Display display : displays) {
            display.heard(signal);
        }
    }
}

final class Display implements AutoCloseable {
    static int heardAfterEnd;
    private boolean open = true;

    Display() {
        SignalMast.mast().attach(this);
    }

    void heard(int signal) {
        if (!open) {
            heardAfterEnd++;
        }
    }

    @Override
    public void close() {
        open = false;
    }
}

class Main {
    public static void main(String[] arguments) {
        Display display = new Display();
        display.close();
        SignalMast.mast().raise(3);
        System.out.println(Display.heardAfterEnd + " signals to closed displays");
        System.exit(Display.heardAfterEnd == 0 ? 0 : 1);
    }
}

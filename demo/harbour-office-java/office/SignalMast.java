package office;

import java.util.ArrayList;
import java.util.List;

/** The mast on the office's roof. */
public final class SignalMast {
    private static final SignalMast MAST = new SignalMast();

    private final List<SignalKeeper> keepers = new ArrayList<>();

    private SignalMast() {
    }

    public static SignalMast mast() {
        return MAST;
    }

    public void enlist(SignalKeeper keeper) {
        keepers.add(keeper);
    }

    public void dismiss(SignalKeeper keeper) {
        keepers.remove(keeper);
    }

    public int hoist(String signal) {
        for (SignalKeeper keeper : keepers) {
            keeper.raised(signal);
        }
        return keepers.size();
    }
}

// Quays, mast and gauges of the harbour: what the other folders do not show in Java.
package quays;

import java.io.FileInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import quays.ledgers.HarbourDues;

// Near miss: the subclass has a slot of its own.
class Dock {  // entity: singleton Dock eager language
    protected static Dock dock = new Dock();  // near: single.slot-shared-by-subclasses
    private int gates;

    Dock() {  // finding: single.open-constructor
    }

    static Dock dock() {
        return dock;
    }

    void open() {
        gates++;
    }
}

final class DryDock extends Dock {
    protected static Dock dock = new DryDock();  // entity: shared-instance dock eager language

    static Dock dry() {
        return dock;
    }
}

// Quays, mast and gauges of the harbour: what the other folders do not show in Java.
package quays;

import java.io.FileInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import quays.ledgers.HarbourDues;

// One slot for a family of classes.
class Berth {  // entity: singleton Berth lazy lock
    protected static Berth berth;
    private int ships;

    protected Berth() {  // finding: single.subclassable
    }

    static synchronized Berth berth() {
        if (berth == null) {
            berth = new Berth();  // finding: single.slot-shared-by-subclasses init.lazy-needless
        }
        return berth;
    }

    void moor() {
        ships++;
    }
}

class DeepBerth extends Berth {
    private int depth;

    static synchronized Berth deep() {
        if (berth == null) {
            berth = new DeepBerth();
        }
        return berth;
    }

    void dredge() {
        depth++;
    }
}

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

// A lock for each look, fetched in a loop.
final class Tariff {  // entity: singleton Tariff lazy lock
    private static Tariff tariff;
    private final List<String> rows = new ArrayList<>();

    private Tariff() {
        for (int row = 0; row < 3; row++) {
            rows.add("row " + row);
        }
    }

    static synchronized Tariff tariff() {  // finding: thread.lock-every-access
        if (tariff == null) {
            tariff = new Tariff();
        }
        return tariff;
    }

    synchronized void raise(String row) {
        rows.remove(row);
    }
}

// Near miss: fetched once, before the loop.
final class Rates {  // entity: singleton Rates lazy lock
    private static Rates rates;
    private final List<String> rows = new ArrayList<>();

    private Rates() {
        for (int row = 0; row < 3; row++) {
            rows.add("rate " + row);
        }
    }

    static synchronized Rates rates() {  // near: thread.lock-every-access
        if (rates == null) {
            rates = new Rates();
        }
        return rates;
    }

    synchronized void raise(String row) {
        rows.remove(row);
    }
}

class Cashier {
    void month() {
        for (int day = 0; day < 30; day++) {
            Tariff.tariff().raise("row 1");
        }
    }

    void year() {
        Rates rates = Rates.rates();
        for (int day = 0; day < 30; day++) {
            rates.raise("rate 1");
        }
    }
}

// Opens what nothing closes.
final class EchoLog {  // entity: singleton EchoLog eager language
    private static final EchoLog LOG = new EchoLog();
    private FileInputStream in;

    private EchoLog() {
    }

    static EchoLog log() {
        return LOG;
    }

    void begin() throws IOException {
        in = new FileInputStream("echoes");  // finding: lifetime.never-released
    }

    int next() throws IOException {
        return in == null ? 0 : in.read();
    }
}

// Near miss: closed at its end.
final class WaveLog {  // entity: singleton WaveLog eager language
    private static final WaveLog LOG = new WaveLog();
    private FileInputStream in;

    private WaveLog() {
    }

    static WaveLog log() {
        return LOG;
    }

    void begin() throws IOException {
        in = new FileInputStream("waves");  // near: lifetime.never-released
    }

    int next() throws IOException {
        return in == null ? 0 : in.read();
    }

    void close() throws IOException {
        in.close();
    }
}

// Reached from everywhere.
final class Horn {  // entity: singleton Horn eager language // finding: coupling.wide-reach
    private static final Horn HORN = new Horn();
    private int blown;

    private Horn() {
    }

    static Horn horn() {
        return HORN;
    }

    void blow() {
        blown = 1;
    }
}

// Near miss: four classes.
final class Bell {  // near: coupling.wide-reach  // entity: singleton Bell eager language
    private static final Bell BELL = new Bell();
    private int rung;

    private Bell() {
    }

    static Bell bell() {
        return BELL;
    }

    void ring() {
        rung = 1;
    }
}

class NorthQuay {
    void fog() {
        Horn.horn().blow();  // finding: coupling.hidden-dependency
        Bell.bell().ring();  // finding: coupling.hidden-dependency
    }
}

class SouthQuay {
    void fog() {
        Horn.horn().blow();
        Bell.bell().ring();
    }
}

class EastQuay {
    void fog() {
        Horn.horn().blow();
        Bell.bell().ring();
    }
}

class WestQuay {
    void fog() {
        Horn.horn().blow();
    }
}

// Starts them all; near miss: only five.
class Opening {
    void open() throws IOException {  // finding: coupling.crowded-startup
        Horn.horn().blow();
        Bell.bell().ring();
        WaveLog.log().begin();  // finding: coupling.hidden-dependency
        EchoLog.log().begin();  // finding: coupling.hidden-dependency
        Berth.berth().moor();  // finding: coupling.hidden-dependency
        Dock.dock().open();  // finding: coupling.hidden-dependency
    }

    void half() throws IOException {  // near: coupling.crowded-startup
        Horn.horn().blow();
        Bell.bell().ring();
        WaveLog.log().next();
        EchoLog.log().next();
        WaveLog.log().close();
    }
}

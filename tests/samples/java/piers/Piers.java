// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
package piers;

import java.io.FileInputStream;
import java.io.IOException;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import piers.ledgers.PilotFees;

/** The only one instance is below. */
final class Anchor {  // near: single.meant-single single.subclassable  // entity: singleton Anchor lazy lock
    private static Anchor anchor;
    private int chain;

    // Near misses: nobody outside makes one, and who tries inside is refused.
    private Anchor() {  // near: single.open-constructor
        if (anchor != null) {
            throw new IllegalStateException("the anchor is there");
        }
    }

    static synchronized Anchor anchor() {
        if (anchor == null) {
            anchor = new Anchor();  // near: thread.unguarded-creation single.second-creation
        }
        return anchor;
    }

    synchronized void lower() {
        chain++;  // near: thread.lost-update thread.unguarded-state
    }
}

class Boatswain {
    private final Anchor own;

    Boatswain(Anchor anchor) {  // near: coupling.hidden-dependency
        own = anchor;
    }

    void moor() {
        own.lower();  // near: coupling.hidden-dependency
    }
}

// A circle of three; near misses: what is called later is no part of the making.
final class Crane {  // entity: singleton Crane eager language
    private static final Crane CRANE = new Crane();  // finding: init.cycle
    private int load = Winch.winch().rope();
    private int turns;

    private Crane() {
    }

    static Crane crane() {
        return CRANE;
    }

    int load() {
        return load + turns;
    }

    void turn() {
        turns++;
    }
}

final class Winch {  // entity: singleton Winch eager language
    private static final Winch WINCH = new Winch();
    private int rope;

    private Winch() {
        rope = Hook.hook().weight();  // near: coupling.hidden-dependency
    }

    static Winch winch() {
        return WINCH;
    }

    int rope() {
        return rope;
    }

    void wind() {
        rope++;
    }
}

final class Hook {  // entity: singleton Hook eager language
    private static final Hook HOOK = new Hook();
    private int weight;

    private Hook() {
        weight = Crane.crane().load();  // finding: coupling.hidden-dependency
    }

    static Hook hook() {
        return HOOK;
    }

    int weight() {
        return weight;
    }

    void swing() {
        weight++;
    }
}

// A lock for each look in a loop within a loop; near miss: the lock is in the door, and the door is outside.
final class Ropes {  // entity: singleton Ropes lazy lock
    private static Ropes ropes;
    private final List<String> coils = new ArrayList<>();

    private Ropes() {
        for (int i = 0; i < 4; i++) {
            coils.add("coil " + i);
        }
    }

    static Ropes ropes() {
        synchronized (Ropes.class) {  // finding: thread.lock-every-access
            if (ropes == null) {
                ropes = new Ropes();
            }
            return ropes;
        }
    }

    synchronized void cut(String coil) {
        coils.remove(coil);
    }
}

final class Chains {  // entity: singleton Chains lazy lock
    private static Chains chains;
    private final List<String> links = new ArrayList<>();

    private Chains() {
        for (int i = 0; i < 4; i++) {
            links.add("link " + i);
        }
    }

    static Chains chains() {
        synchronized (Chains.class) {  // near: thread.lock-every-access init.lazy-needless
            if (chains == null) {
                chains = new Chains();
            }
            return chains;
        }
    }

    synchronized void cut(String link) {
        links.remove(link);
    }
}

class Rigger {
    void week() {
        for (int day = 0; day < 7; day++) {
            for (int hour = 0; hour < 24; hour++) {
                Ropes.ropes().cut("coil 1");
            }
        }
        Chains chains = Chains.chains();
        for (int day = 0; day < 7; day++) {
            chains.cut("link 1");
        }
    }
}

// A field that two threads set; near misses: volatile and set whole, or set before the threads start.
final class Signals {  // entity: singleton Signals eager language
    private static final Signals SIGNALS = new Signals();
    private String shown = "";
    private volatile String last = "";

    private Signals() {
    }

    static Signals signals() {
        return SIGNALS;
    }

    void show(String flag) {
        shown = flag;  // finding: thread.unguarded-state
    }

    String shown() {
        return shown;
    }

    void keep(String flag) {
        last = flag;  // near: thread.unguarded-state
    }

    String last() {
        return last;
    }
}

class SignalMan {
    void work() {
        new Thread(() -> Signals.signals().show("A")).start();  // finding: coupling.hidden-dependency
        new Thread(() -> Signals.signals().keep(Signals.signals().shown())).start();
    }
}

// The wrong lock: each object's own, for what all share; near misses: the class's, and one for all.
class Keel {
    private static int laid;  // entity: static-field laid eager language
    private static int sold;  // entity: static-field sold eager language
    private static int kept;  // entity: static-field kept eager language
    private static final Object YARD = new Object();  // harmless: YARD

    synchronized void lay() {
        laid++;  // finding: thread.wrong-lock
    }

    void sell() {
        synchronized (Keel.class) {
            sold++;  // near: thread.wrong-lock thread.mixed-guard
        }
    }

    void keep() {
        synchronized (YARD) {
            kept++;  // near: thread.wrong-lock thread.mixed-guard
        }
    }

    static int sum() {
        synchronized (Keel.class) {
            synchronized (YARD) {
                return sold + kept;
            }
        }
    }

}

// Tests twice, locks once; near misses: volatile, or a value.
final class Lamp {  // entity: singleton Lamp lazy double-check
    private static volatile Lamp lamp;
    private final List<String> colours = new ArrayList<>();

    private Lamp() {
        for (int i = 0; i < 3; i++) {
            colours.add("colour " + i);
        }
    }

    static Lamp lamp() {
        if (lamp == null) {
            synchronized (Lamp.class) {
                if (lamp == null) {  // near: thread.double-check-incomplete
                    lamp = new Lamp();  // near: thread.double-check-unsound thread.unguarded-creation
                }
            }
        }
        return lamp;
    }

}

// Opens what nothing closes, behind a helper; near miss: in a try of its own.
final class Soundings {  // entity: singleton Soundings eager language
    private static final Soundings SOUNDINGS = new Soundings();
    private FileInputStream in;
    private int read;

    private Soundings() {
    }

    static Soundings soundings() {
        return SOUNDINGS;
    }

    void open(String name) throws IOException {
        in = new FileInputStream(name);  // finding: lifetime.never-released
    }

    int first(String name) throws IOException {
        try (FileInputStream one = new FileInputStream(name)) {  // near: lifetime.never-released
            return one.read();
        }
    }
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
final class Buoys {  // entity: singleton Buoys eager language
    private static final Buoys BUOYS = new Buoys();
    private int lit;

    private Buoys() {
    }

    static Buoys buoys() {
        return BUOYS;
    }

    void light() {
        lit = 1;
    }
}

final class Channel {  // entity: singleton Channel eager language
    private static final Channel CHANNEL = new Channel();
    private final Depths depths = new Depths();

    private Channel() {
    }

    static Channel channel() {
        return CHANNEL;
    }

    Buoys buoys() {
        return Buoys.buoys();
    }

    Depths depths() {
        return depths;
    }
}

class Depths {
    private int least;

    void measure() {
        least = 4;
    }
}

class Pilot {
    void steer() {
        Channel.channel().buoys().light();  // finding: coupling.hidden-dependency coupling.chained-access
        Channel.channel().depths().measure();  // near: coupling.chained-access
    }

}

// Reached from seven places; near miss: three.
final class Gong {  // entity: singleton Gong eager language
    private static final Gong GONG = new Gong();
    private int struck;

    private Gong() {
    }

    static Gong gong() {
        return GONG;
    }

    void strike() {
        struck = 1;
    }
}

final class Whistle {  // near: coupling.wide-reach  // entity: singleton Whistle eager language
    private static final Whistle WHISTLE = new Whistle();
    private int blown;

    private Whistle() {
    }

    static Whistle whistle() {
        return WHISTLE;
    }

    void blow() {
        blown = 1;
    }
}

class Pier1 {
    void fog() {
        Gong.gong().strike();  // finding: coupling.hidden-dependency
        Whistle.whistle().blow();  // finding: coupling.hidden-dependency
    }
}

// Begins the day for all; near miss: what is handed in is no reach.
class Morning {
    void begin() throws IOException {  // finding: coupling.crowded-startup
        Gong.gong().strike();
        Whistle.whistle().blow();
        Buoys.buoys().light();
        Channel.channel().depths().measure();
        Soundings.soundings().open("morning");
        Signals.signals().show("M");
        Crane.crane().turn();
    }

    void half(Gong gong, Whistle whistle, Buoys buoys, Soundings soundings, Signals signals, Crane crane) throws IOException {  // near: coupling.crowded-startup
        gong.strike();
        whistle.blow();
        buoys.light();
        soundings.open("half");
        signals.show("H");
        crane.turn();
    }
}

// Read back from storage it is the one that is there.
final class Seal implements Serializable {  // entity: singleton Seal eager language
    private static final Seal SEAL = new Seal();
    private int used;

    private Seal() {
    }

    void press() {
        used = 1;
    }

    private Object readResolve() {  // near: single.revivable
        return SEAL;
    }
}

class Start {
    public static void main(String[] arguments) throws IOException {
        new Thread(() -> new Rigger().week()).start();
        new Thread(() -> new Boatswain(Anchor.anchor()).moor()).start();
        new Thread(() -> new Keel().lay()).start();
        new Keel().lay();
        new SignalMan().work();
        new Morning().begin();
        PilotFees.fees().enter(2);
    }
}

// Guards, starts, lists and ties of a harbour on duty.
package duty;

import java.io.FileReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;

// Guarded when it is written, not when it is read.
final class TideBoard {  // entity: singleton TideBoard eager language
    private static final TideBoard BOARD = new TideBoard();
    private int level;
    private int offset;
    private final List<String> notes = new ArrayList<>();

    private TideBoard() {
    }

    static TideBoard board() {
        return BOARD;
    }

    synchronized void set(int newLevel) {
        level = newLevel;
    }

    int level() {
        return level;  // finding: thread.mixed-guard
    }

    // Near miss: a helper that is only called under the lock.
    synchronized void raise(int by) {
        move(by);  // near: thread.mixed-guard
    }

    private void move(int by) {
        offset = offset + by;
    }

    synchronized void note(String text) {
        notes.add(text);
    }

    synchronized void clear() {
        notes.clear();
    }

    // The list itself leaves from under its lock.
    synchronized List<String> notes() {
        return notes;  // finding: thread.leaks-internals
    }

    // Near miss: a copy.
    synchronized List<String> copy() {
        return new ArrayList<>(notes);  // near: thread.leaks-internals
    }
}

// Two locks for one list.
final class BerthList {  // entity: singleton BerthList eager language
    private static final BerthList LIST = new BerthList();
    private final Object adding = new Object();
    private final Object dropping = new Object();
    private final List<String> ships = new ArrayList<>();

    private BerthList() {
    }

    static BerthList list() {
        return LIST;
    }

    void add(String ship) {
        synchronized (adding) {
            ships.add(ship);
        }
    }

    void drop(String ship) {
        synchronized (dropping) {
            ships.remove(ship);  // finding: thread.mixed-guard
        }
    }
}

// A look and a change, in two steps.
final class Moorings {  // entity: singleton Moorings eager language
    private static final Moorings MOORINGS = new Moorings();
    private final Map<String, String> taken = new ConcurrentHashMap<>();
    private final Map<String, String> asked = new ConcurrentHashMap<>();

    private Moorings() {
    }

    static Moorings moorings() {
        return MOORINGS;
    }

    boolean take(String berth, String ship) {
        if (taken.containsKey(berth)) {  // finding: thread.check-then-act
            return false;
        }
        taken.put(berth, ship);
        return true;
    }

    void leave(String berth) {
        if (taken.containsKey(berth)) {  // finding: thread.check-then-act
            taken.remove(berth);
        }
    }

    // Near misses: one call that does both; both under one lock.
    void ask(String berth, String ship) {
        asked.putIfAbsent(berth, ship);  // near: thread.check-then-act
    }

    synchronized void answer(String berth) {
        if (asked.containsKey(berth)) {
            asked.remove(berth);
        }
    }
}

// A thread is started on an object that is not complete.
class EchoSounder {
    private int step;

    EchoSounder() {
        new Thread(() -> step = step + 1).start();  // finding: thread.escaping-this
        step = 2;
    }
}

class RadarSweep implements Runnable {
    private int angle;

    RadarSweep() {
        new Thread(this).start();  // finding: thread.escaping-this
        angle = 90;
    }

    public void run() {
        angle = 1;
    }
}

// Near misses: the thread is the last thing; it is started by another function.
class FogBell implements Runnable {
    private int strokes;

    FogBell() {
        strokes = 3;
        new Thread(this).start();  // near: thread.escaping-this
    }

    public void run() {
        strokes = 1;
    }
}

class TideMill implements Runnable {
    private int wheels;

    TideMill() {
        wheels = 2;
    }

    void start() {
        new Thread(this).start();
        wheels = 3;
    }

    public void run() {
        wheels = 1;
    }
}

// Each needs the other while it is made.
final class Light {  // entity: singleton Light eager language
    private static final Light LIGHT = new Light();  // finding: init.cycle
    private int height;

    private Light() {
        height = Mole.mole().length() / 2;  // finding: coupling.cycle coupling.hidden-dependency
    }

    static Light light() {
        return LIGHT;
    }

    int height() {
        return height++;
    }
}

final class Mole {  // entity: singleton Mole eager language
    private static final Mole MOLE = new Mole();
    private int length;

    private Mole() {
        length = Light.light().height() * 2;  // finding: coupling.cycle coupling.hidden-dependency
    }

    static Mole mole() {
        return MOLE;
    }

    int length() {
        return length++;
    }
}

// Asks for itself.
final class DutyBook {  // entity: singleton DutyBook lazy lock
    private static DutyBook book;
    private int entries;

    private DutyBook() {
        begin();
    }

    static synchronized DutyBook book() {
        if (book == null) {
            book = new DutyBook();
        }
        return book;
    }

    private void begin() {
        book().enter();  // finding: init.reentrant
    }

    void enter() {
        entries++;
    }
}

final class Chart {
    int depth() {
        return 4;
    }
}

// Works only after a call, and is used before it.
final class Plotter {  // entity: singleton Plotter eager language
    private static final Plotter PLOTTER = new Plotter();
    private Chart chart;
    private int uses;

    private Plotter() {
    }

    static Plotter plotter() {
        return PLOTTER;
    }

    void load(Chart loaded) {
        chart = loaded;
    }

    int depth() {
        return chart.depth();
    }
}

// Near miss: tests for it.
final class Surveyor {  // entity: singleton Surveyor eager language
    private static final Surveyor SURVEYOR = new Surveyor();
    private Chart chart;

    private Surveyor() {
    }

    static Surveyor surveyor() {
        return SURVEYOR;
    }

    void load(Chart loaded) {
        chart = loaded;
    }

    int depth() {
        return chart == null ? 0 : chart.depth();
    }
}

// Throws while it is made: on first use, and at load.
final class TideTable {  // entity: singleton TideTable lazy none
    private static TideTable table;
    private int rows;

    private TideTable() {
        if (rows == 0) {
            throw new IllegalStateException("no tides");
        }
    }

    static TideTable table() {
        if (table == null) {
            table = new TideTable();  // finding: init.may-throw thread.unguarded-creation
        }
        return table;
    }

    int rows() {
        return rows++;
    }
}

final class MoonTable {  // entity: singleton MoonTable eager language
    static final MoonTable MOONS = new MoonTable();  // finding: init.may-throw
    private int rows;

    private MoonTable() {
        read();
    }

    private void read() {
        if (rows == 0) {
            throw new IllegalStateException("no moons");
        }
    }

    int rows() {
        return rows++;
    }
}

// The failure is dropped, and told to a log at most.
final class Barograph {  // entity: singleton Barograph eager language
    private static final Barograph BAROGRAPH = new Barograph();  // finding: init.eager-heavy
    private int pressure;

    private Barograph() {
        try {
            FileReader in = new FileReader("pressure");
            in.close();
        } catch (IOException failure) {  // finding: init.failure-swallowed
        }
    }

    static Barograph barograph() {
        return BAROGRAPH;
    }

    int pressure() {
        return pressure++;
    }
}

// Near miss: it is told.
final class Thermograph {  // entity: singleton Thermograph eager language
    private static final Thermograph THERMOGRAPH = new Thermograph();  // finding: init.eager-heavy init.may-throw
    private int degrees;

    private Thermograph() {
        try {
            FileReader in = new FileReader("degrees");
            in.close();
        } catch (IOException failure) {  // near: init.failure-swallowed
            throw new IllegalStateException(failure);
        }
    }

    static Thermograph thermograph() {
        return THERMOGRAPH;
    }

    int degrees() {
        return degrees++;
    }
}

// Reads the environment.
final class NamePlate {  // entity: singleton NamePlate eager language
    private static final NamePlate PLATE = new NamePlate();
    private String name;

    private NamePlate() {
        name = System.getenv("HARBOUR");  // finding: init.reads-environment
    }

    static NamePlate plate() {
        return PLATE;
    }

    void rename(String newName) {
        name = newName;
    }
}

// Who is listed is told of each signal.
interface Keeper {
    void heard(int signal);
}

final class SignalMast {  // entity: singleton SignalMast eager language
    private static final SignalMast MAST = new SignalMast();
    private final List<Keeper> keepers = new ArrayList<>();
    private final List<Keeper> watchers = new CopyOnWriteArrayList<>();

    private SignalMast() {
    }

    static SignalMast mast() {
        return MAST;
    }

    void attach(Keeper keeper) {
        keepers.add(keeper);
    }

    void detach(Keeper keeper) {
        keepers.remove(keeper);
    }

    void watch(Keeper keeper) {
        watchers.add(keeper);
    }

    void unwatch(Keeper keeper) {
        watchers.remove(keeper);
    }

    void raise(int signal) {
        for (Keeper keeper : keepers) {  // finding: lifetime.notify-while-changing
            keeper.heard(signal);
        }
        for (Keeper watcher : watchers) {
            watcher.heard(signal);
        }
    }
}

class Lookout implements Keeper {
    private int last;

    Lookout() {
        SignalMast.mast().attach(this);  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
    }

    public void heard(int signal) {
        last = signal;
    }

    void close() {
        last = 0;
    }
}

// A function of its own is listed.
class Hornist {
    private int last;

    Hornist() {
        SignalMast.mast().watch(signal -> last = signal);  // finding: lifetime.dangling-subscriber
    }

    void close() {
        last = 0;
    }
}

// Near miss: taken out at its end. It takes itself out while the list is walked, too.
class Bosun implements Keeper {
    Bosun() {
        SignalMast.mast().attach(this);  // near: lifetime.dangling-subscriber
    }

    public void heard(int signal) {
        close();
    }

    void close() {
        SignalMast.mast().detach(this);
    }
}

// Registered by its constructor and again by a method.
class Steward implements Keeper {
    private int heard;

    Steward() {
        SignalMast.mast().attach(this);
    }

    void wake() {
        SignalMast.mast().attach(this);  // finding: lifetime.duplicate-subscription
    }

    public void heard(int signal) {
        heard++;
    }

    void close() {
        SignalMast.mast().detach(this);
    }
}

// Only ever added to, and keeps what is made for one visit.
final class Logbook {  // entity: singleton Logbook eager language
    private static final Logbook LOG = new Logbook();
    private final List<String> lines = new ArrayList<>();
    private final List<String> recent = new ArrayList<>();
    private Visit visit;

    private Logbook() {
    }

    static Logbook log() {
        return LOG;
    }

    void write(String line) {
        lines.add(line);  // finding: lifetime.grows-forever
    }

    // Near miss: given a limit.
    void keep(String line) {
        recent.add(line);  // near: lifetime.grows-forever
        if (recent.size() > 20) {  // finding: thread.check-then-act
            recent.remove(0);
        }
    }

    void begin(Visit newVisit) {
        visit = newVisit;
    }
}

class Visit {
    private final String ship;

    Visit(String ship) {
        this.ship = ship;
    }

    void enter() {
        Logbook.log().begin(this);  // finding: lifetime.captured-short-lived coupling.hidden-dependency
        Logbook.log().write(ship);
    }
}

// Used after its end.
final class Gauge {  // entity: singleton Gauge eager language
    private static final Gauge GAUGE = new Gauge();
    private int level;
    private boolean open = true;

    private Gauge() {
    }

    static Gauge gauge() {
        return GAUGE;
    }

    void close() {
        open = false;
    }

    void open() {
        open = true;
    }

    int measure() {
        level = level + 1;
        return level;
    }
}

// Circles: knows who uses it.
final class Plan {  // entity: singleton Plan eager language
    private static final Plan PLAN = new Plan();
    private int berths;

    private Plan() {
    }

    static Plan plan() {
        return PLAN;
    }

    void change(Berther berther) {
        berths++;
        berther.stop();  // finding: coupling.cycle
    }

    int berths() {
        return berths;
    }
}

class Berther {
    private int free;

    void arrive() {
        free = Plan.plan().berths();  // finding: coupling.hidden-dependency
    }

    void stop() {
        free = 0;
    }
}

// Makes its own helper that reads files; near miss: it is handed in.
class ChartStore {
    int depth(String place) throws IOException {
        FileReader in = new FileReader(place);
        return in.read();
    }
}

class Navigator {
    private final ChartStore store = new ChartStore();  // finding: coupling.fixed-collaborator

    int depth() throws IOException {
        return store.depth("roads");
    }
}

class Mate {
    private final ChartStore store;

    Mate(ChartStore store) {
        this.store = store;
    }

    int depth() throws IOException {
        return store.depth("bay");
    }
}

// Nothing to hand in.
final class Dues {  // entity: static-holder Dues eager language // finding: coupling.static-only-api
    private static int total;

    private Dues() {
    }

    static void add(int coins) {
        total = total + coins;  // finding: thread.lost-update
    }

    static int total() {
        return total;
    }
}

class Tollhouse {
    void pay() {
        Dues.add(3);  // finding: coupling.hidden-dependency
    }
}

class Treasurer {
    int count() {
        return Dues.total();
    }
}

// One object reached through another.
final class Buoyage {  // entity: singleton Buoyage eager language
    private static final Buoyage BUOYAGE = new Buoyage();
    private int laid;

    private Buoyage() {
    }

    static Buoyage buoyage() {
        return BUOYAGE;
    }

    void lay() {
        laid++;
    }
}

final class Fairway {  // entity: singleton Fairway eager language
    private static final Fairway FAIRWAY = new Fairway();
    private int depth;

    private Fairway() {
    }

    static Fairway fairway() {
        return FAIRWAY;
    }

    Buoyage buoyage() {
        return Buoyage.buoyage();
    }

    void dredge() {
        depth++;
    }
}

class Tender {
    void work() {
        Fairway.fairway().buoyage().lay();  // finding: coupling.chained-access coupling.hidden-dependency
        Fairway.fairway().dredge();
    }
}

// Passed through three functions that do nothing with it.
class Permit {
    boolean valid() {
        return true;
    }
}

class Gatehouse {
    boolean check(Permit permit) {
        return permit.valid();
    }

    boolean gate(Permit permit) {
        return check(permit);
    }

    boolean quay(Permit permit) {
        return gate(permit);
    }

    boolean pier(Permit permit) {  // finding: coupling.long-handoff
        return quay(permit);
    }
}

/** There is only one office in the harbour. */
class Office {  // finding: single.meant-single
    private int opened;

    void open() {
        opened++;
    }
}

class Day {
    int run(Chart chart) throws IOException {
        Thread other = new Thread(() -> watch());
        other.start();
        watch();
        Office first = new Office();
        Office second = new Office();
        first.open();
        second.open();
        int depth = Plotter.plotter().depth();  // finding: init.needs-setup coupling.hidden-dependency
        Plotter.plotter().load(chart);
        Surveyor.surveyor().load(chart);  // finding: coupling.hidden-dependency
        Visit visit = new Visit("Albatross");
        visit.enter();
        Gauge.gauge().close();  // finding: coupling.hidden-dependency
        depth += Gauge.gauge().measure();  // finding: lifetime.used-after-teardown
        return depth + Surveyor.surveyor().depth();
    }

    // Near miss: opened again.
    int again() {
        Gauge.gauge().close();
        Gauge.gauge().open();
        return Gauge.gauge().measure();  // near: lifetime.used-after-teardown
    }

    void watch() {
        TideBoard.board().set(3);
        TideBoard.board().raise(1);
        BerthList.list().add("Heron");
        BerthList.list().drop("Heron");
        Moorings.moorings().take("north", "Heron");  // finding: coupling.hidden-dependency
        Moorings.moorings().leave("north");
    }
}

// Quays, mast and gauges of the harbour: what the other folders do not show in Dart.
import 'dart:io';

// One is handed out, another is made beside it.
class Beacon {  // entity: singleton Beacon lazy language
  static final Beacon _one = Beacon();
  int _flashes = 0;

  Beacon();  // finding: single.open-constructor

  static Beacon get() => _one;

  void flash() {
    _flashes = 1;
  }
}

class Pier {
  void light() {
    final second = Beacon();  // finding: single.second-creation
    second.flash();
  }
}

// Near miss: nobody else can make one.
class Lantern {  // entity: singleton Lantern lazy language
  static final Lantern _one = Lantern._();
  int _lit = 0;

  Lantern._();  // near: single.open-constructor

  static Lantern get() => _one;

  void light() {
    _lit = 1;
  }
}

// Nothing before it is opened.
class RadarPlot {  // entity: singleton RadarPlot lazy single-threaded
  static RadarPlot? _plot;
  int _echoes = 0;

  RadarPlot._();

  static void open() {
    _plot = RadarPlot._();
  }

  static RadarPlot? get() {
    return _plot;  // finding: single.may-return-nothing
  }

  void echo() {
    _echoes = 1;
  }
}

void watchTheRoads() {
  RadarPlot.open();
  RadarPlot.get()?.echo();
}

// Another takes its place.
class Foghorn {  // entity: singleton Foghorn lazy language
  static Foghorn _horn = Foghorn._();
  int _blown = 0;

  Foghorn._();

  static Foghorn get() => _horn;

  static void replace(Foghorn other) {
    _horn = other;  // finding: single.replaceable
  }

  void blow() {
    _blown = 1;
  }
}

void keepTheHorn(Foghorn horn) {
  Foghorn.replace(horn);
}

// One slot for a family of classes.
class Berth {  // entity: singleton Berth lazy single-threaded
  static Berth? berth;
  int _ships = 0;

  Berth._();

  static Berth get() {
    berth ??= Berth._();  // finding: single.slot-shared-by-subclasses
    return berth!;
  }

  void moor() {
    _ships = 1;
  }
}

class DeepBerth extends Berth {
  DeepBerth() : super._();

  static void open() {
    Berth.berth = DeepBerth();  // finding: single.replaceable coupling.hidden-dependency
  }
}

// Only the first caller's name counts; near miss: kept by name.
class Plate {
  static Plate? _plate;  // entity: shared-instance _plate lazy single-threaded
  static final Map<String, Plate> _plates = {};  // entity: registry _plates lazy language
  String _name;

  Plate._(this._name);

  static Plate get(String name) {  // finding: init.arguments-ignored
    if (_plate == null) {
      _plate = Plate._(name);
    }
    return _plate!;
  }

  static Plate of(String name) {  // near: init.arguments-ignored
    return _plates.putIfAbsent(name, () => Plate._(name));
  }

  void rename(String name) {
    _name = name;
  }
}

void labelTheQuays() {
  Plate.get('north').rename('N');
  Plate.get('south').rename('S');
  Plate.of('east').rename('E');
}

// Reads a file when it is first asked for.
class TideFile {  // entity: singleton TideFile lazy language
  static final TideFile _one = TideFile._();
  List<String> _rows = [];

  TideFile._() {
    _rows = File('tides').readAsLinesSync();
  }

  static TideFile get() => _one;

  void drop() {
    _rows = [];
  }
}

// Each needs the other while it is made.
class Light {  // entity: singleton Light lazy language
  static final Light _light = Light._();  // finding: init.cycle
  int _height = 0;

  Light._() {
    _height = Mole.get().length();  // finding: coupling.cycle coupling.hidden-dependency
  }

  static Light get() => _light;

  void raise() {
    _height = _height + 1;
  }
}

class Mole {  // entity: singleton Mole lazy language
  static final Mole _mole = Mole._();
  int _span = 0;

  Mole._() {
    Light.get().raise();  // finding: coupling.cycle coupling.hidden-dependency
  }

  static Mole get() => _mole;

  int length() {
    _span = _span + 1;
    return _span;
  }
}

// Works only after a call, and is used before it; near miss: it tests.
class Chart {
  int depth() => 4;
}

class Plotter {  // entity: singleton Plotter lazy language
  static final Plotter _plotter = Plotter._();
  Chart? _chart;
  int _uses = 0;

  Plotter._();

  static Plotter get() => _plotter;

  void load(Chart loaded) {
    _chart = loaded;
  }

  int depth() {
    _uses = 1;
    return _chart!.depth();
  }
}

class Surveyor {  // entity: singleton Surveyor lazy language
  static final Surveyor _surveyor = Surveyor._();
  Chart? _chart;

  Surveyor._();

  static Surveyor get() => _surveyor;

  void load(Chart loaded) {
    _chart = loaded;
  }

  int depth() {
    return _chart == null ? 0 : _chart!.depth();
  }
}

int plotTheDay(Chart chart) {
  final depth = Plotter.get().depth();  // finding: init.needs-setup
  final other = Surveyor.get().depth();  // near: init.needs-setup
  Plotter.get().load(chart);
  Surveyor.get().load(chart);
  return depth + other;
}

// Throws while it is made.
class TideTable {  // entity: singleton TideTable lazy language
  static final TideTable _table = TideTable._();  // finding: init.may-throw
  int _rows = 0;

  TideTable._() {
    if (_rows == 0) {
      throw StateError('no tides');
    }
  }

  static TideTable get() => _table;

  int next() {
    _rows = _rows + 1;
    return _rows;
  }
}

// The failure is dropped; near miss: it is told.
class Barograph {  // entity: singleton Barograph lazy language
  static final Barograph _barograph = Barograph._();
  List<String> _rows = [];

  Barograph._() {
    try {
      _rows = File('pressure').readAsLinesSync();
    } catch (failure) {  // finding: init.failure-swallowed
    }
  }

  static Barograph get() => _barograph;

  void drop() {
    _rows = [];
  }
}

class Thermograph {  // entity: singleton Thermograph lazy language
  static final Thermograph _thermograph = Thermograph._();  // finding: init.may-throw
  List<String> _rows = [];

  Thermograph._() {
    try {
      _rows = File('degrees').readAsLinesSync();
    } catch (failure) {  // near: init.failure-swallowed
      throw StateError('no degrees');
    }
  }

  static Thermograph get() => _thermograph;

  void drop() {
    _rows = [];
  }
}

// Opens what nothing closes; near miss: closed at its end.
class EchoLog {  // entity: singleton EchoLog lazy language
  static final EchoLog _log = EchoLog._();
  RandomAccessFile? _file;

  EchoLog._();

  static EchoLog get() => _log;

  void begin() {
    _file = File('echoes').openSync();  // finding: lifetime.never-released
  }
}

class WaveLog {  // entity: singleton WaveLog lazy language
  static final WaveLog _log = WaveLog._();
  RandomAccessFile? _file;

  WaveLog._();

  static WaveLog get() => _log;

  void begin() {
    _file = File('waves').openSync();  // near: lifetime.never-released
  }

  void close() {
    _file?.closeSync();
  }
}

// Keeps what is made for one visit.
class Gate {  // entity: singleton Gate lazy language
  static final Gate _gate = Gate._();
  Visit? _visit;
  String _last = '';

  Gate._();

  static Gate get() => _gate;

  void begin(Visit visit) {
    _visit = visit;
  }

  void note(String ship) {
    _last = ship;
  }
}

class Visit {
  final String ship;

  Visit(this.ship);

  void enter() {
    Gate.get().begin(this);  // finding: lifetime.captured-short-lived coupling.hidden-dependency
    Gate.get().note(ship);  // near: lifetime.captured-short-lived
  }
}

void greet(String ship) {
  final visit = Visit(ship);
  visit.enter();
}

// Used after its end; near miss: opened again.
class Gauge {  // entity: singleton Gauge lazy language
  static final Gauge _gauge = Gauge._();
  int _level = 0;
  bool _opened = true;

  Gauge._();

  static Gauge get() => _gauge;

  void close() {
    _opened = false;
  }

  void open() {
    _opened = true;
  }

  int measure() {
    _level = _level + 1;
    return _level;
  }
}

int endOfDay() {
  Gauge.get().close();
  return Gauge.get().measure();  // finding: lifetime.used-after-teardown
}

int newDay() {
  Gauge.get().close();
  Gauge.get().open();
  return Gauge.get().measure();  // near: lifetime.used-after-teardown
}

// Knows who uses it.
class Plan {  // entity: singleton Plan lazy language
  static final Plan _plan = Plan._();
  int _berths = 0;

  Plan._();

  static Plan get() => _plan;

  void change(Berther berther) {
    _berths = 1;
    berther.stop();  // finding: coupling.cycle
  }

  int berths() => _berths;
}

class Berther {
  int _free = 0;

  void arrive() {
    _free = Plan.get().berths();  // finding: coupling.hidden-dependency
  }

  void stop() {
    _free = 0;
  }
}

// Makes its own helper that reads files; near miss: it is handed in.
class ChartStore {
  int depth(String place) => File(place).readAsLinesSync().length;
}

class Navigator {
  final ChartStore _store = ChartStore();  // finding: coupling.fixed-collaborator

  int depth() => _store.depth('roads');
}

class Mate {
  final ChartStore _store;

  Mate(this._store);  // near: coupling.fixed-collaborator

  int depth() => _store.depth('bay');
}

// Nothing to hand in.
class Stamps {  // entity: static-holder Stamps eager language // finding: coupling.static-only-api
  static int _used = 0;

  static void use() {
    _used = _used + 1;
  }

  static int count() => _used;
}

class Clerk {
  void stamp() {
    Stamps.use();  // finding: coupling.hidden-dependency
  }
}

class Auditor {
  int count() => Stamps.count();
}

// Passed through three functions that do nothing with it; near miss: looks at it on the way.
class Permit {
  bool valid() => true;
}

bool check(Permit permit) {
  return permit.valid();
}

bool atGate(Permit permit) {
  return check(permit);
}

bool atQuay(Permit permit) {
  return atGate(permit);
}

bool atPier(Permit permit) {  // finding: coupling.long-handoff
  return atQuay(permit);
}

bool atLock(Permit permit) {  // near: coupling.long-handoff
  return permit.valid() && atGate(permit);
}

// One object reached through another.
class Buoyage {  // entity: singleton Buoyage lazy language
  static final Buoyage _buoyage = Buoyage._();
  int _laid = 0;

  Buoyage._();

  static Buoyage get() => _buoyage;

  void lay() {
    _laid = 1;
  }
}

class Fairway {  // entity: singleton Fairway lazy language
  static final Fairway _fairway = Fairway._();
  int _depth = 0;

  Fairway._();

  static Fairway get() => _fairway;

  Buoyage marks() => Buoyage.get();

  void dredge() {
    _depth = 1;
  }
}

class Tender {
  void work() {
    Fairway.get().marks().lay();  // finding: coupling.chained-access coupling.hidden-dependency
    Fairway.get().dredge();  // near: coupling.chained-access
  }
}

// Reached from everywhere; near miss: four classes.
class Siren {  // entity: singleton Siren lazy language // finding: coupling.wide-reach
  static final Siren _siren = Siren._();
  int _sounded = 0;

  Siren._();

  static Siren get() => _siren;

  void sound() {
    _sounded = 1;
  }
}

class Bell {  // near: coupling.wide-reach  // entity: singleton Bell lazy language
  static final Bell _bell = Bell._();
  int _rung = 0;

  Bell._();

  static Bell get() => _bell;

  void ring() {
    _rung = 1;
  }
}

class NorthQuay {
  void fog() {
    Siren.get().sound();  // finding: coupling.hidden-dependency
    Bell.get().ring();  // finding: coupling.hidden-dependency
  }
}

class SouthQuay {
  void fog() {
    Siren.get().sound();
    Bell.get().ring();
  }
}

class EastQuay {
  void fog() {
    Siren.get().sound();
    Bell.get().ring();
  }
}

class WestQuay {
  void fog() {
    Siren.get().sound();
  }
}

class InnerQuay {
  void fog() {
    Siren.get().sound();
  }
}

// Starts them all; near miss: only five.
class Opening {
  void open() {  // finding: coupling.crowded-startup
    Beacon.get().flash();  // finding: coupling.hidden-dependency
    Siren.get().sound();
    Bell.get().ring();
    WaveLog.get().begin();  // finding: coupling.hidden-dependency
    EchoLog.get().begin();  // finding: coupling.hidden-dependency
    Berth.get().moor();
  }

  void half() {  // near: coupling.crowded-startup
    Siren.get().sound();
    Lantern.get().light();  // finding: coupling.hidden-dependency
    Barograph.get().drop();  // finding: coupling.hidden-dependency
    Thermograph.get().drop();  // finding: coupling.hidden-dependency
    Foghorn.get().blow();  // finding: coupling.hidden-dependency
  }
}

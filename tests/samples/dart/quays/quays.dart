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

bool atLock(Permit permit) {  // near: coupling.long-handoff
  return permit.valid() && atGate(permit);
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

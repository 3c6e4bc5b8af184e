// One is handed out, and a helper makes another.
class Capstan {  // entity: singleton Capstan lazy single-threaded  // finding: single.open-constructor
  static Capstan? _one = null;
  int _turns = 0;

  static Capstan capstan() {
    if (Capstan._one == null) {
      Capstan._one = Capstan();
    }
    return Capstan._one!;
  }

  void turn() {
    this._turns = 1;
  }
}

Capstan spareCapstan() {
  return Capstan();  // finding: single.second-creation
}

// Put in another's place by whoever asks for it.
class Flare {
  int _lit = 0;

  void light() {
    this._lit = 1;
  }
}

class Rocket extends Flare {
  void fly() {
    this.light();
  }
}

Flare? flareNow;  // entity: shared-instance flareNow lazy single-threaded

Flare flare() {
  if (flareNow == null) {
    flareNow = Flare();
  }
  return flareNow!;
}

Flare? wickNow;  // entity: shared-instance wickNow lazy single-threaded

Flare wick() {
  if (wickNow == null) {
    wickNow = Flare();  // near: single.replaceable
  }
  return wickNow!;
}

// A circle of three; near misses: what is called later is no part of the making.
class Crane {  // entity: singleton Crane lazy single-threaded
  static Crane? _one = null;
  int load = 0;

  Crane() {  // finding: single.open-constructor
    this.load = Winch.winch().rope;  // finding: coupling.hidden-dependency
  }

  static Crane crane() {
    if (Crane._one == null) {
      Crane._one = Crane();  // finding: init.cycle
    }
    return Crane._one!;
  }

  void turn() {
    this.load = 1;
  }
}

class Winch {  // entity: singleton Winch lazy single-threaded
  static Winch? _one = null;
  int rope = 0;

  Winch() {  // finding: single.open-constructor
    this.rope = Hook.hook().weight;  // finding: coupling.hidden-dependency
  }

  static Winch winch() {
    if (Winch._one == null) {
      Winch._one = Winch();
    }
    return Winch._one!;
  }
}

class Hook {  // entity: singleton Hook lazy single-threaded
  static Hook? _one = null;
  int weight = 0;

  Hook() {  // finding: single.open-constructor
    this.weight = Crane.crane().load;  // finding: coupling.hidden-dependency
  }

  static Hook hook() {
    if (Hook._one == null) {
      Hook._one = Hook();
    }
    return Hook._one!;
  }
}

class Tackle {
  int _blocks = 2;

  void pull() {  // near: coupling.cycle
    this._blocks = 3;
  }

  void strain(int tons) {
    if (tons < 0) {
      throw StateError('tons');
    }
    this._blocks = tons;
  }
}

class Davit {
  int _boats = 0;

  Davit() {  // near: init.cycle init.reentrant init.reads-environment
    this._boats = 0;
  }

  void lower() {
    tackle.pull();  // near: coupling.cycle  // finding: coupling.hidden-dependency
    this._boats = 1;
  }
}

final tackle = Tackle();  // near: init.cycle init.reentrant init.may-throw   // entity: shared-instance tackle lazy language
final davit = Davit();  // near: init.may-throw   // entity: shared-instance davit lazy language

// Asks for itself through a helper.
class LogBook {  // entity: singleton LogBook lazy single-threaded
  static LogBook? _one = null;
  int _lines = 0;

  LogBook() {  // finding: single.open-constructor
    greet();
  }

  static LogBook book() {
    if (LogBook._one == null) {
      LogBook._one = LogBook();
    }
    return LogBook._one!;
  }

  void write() {
    this._lines = 1;
  }
}

void greet() {
  LogBook.book().write();  // finding: init.reentrant
}

// Reads the environment while it is made; near misses: asked later, or handed in.
class Flags {
  String _home = '';

  Flags() {
    this._home = Platform.environment['HARBOUR'] ?? '';  // finding: init.reads-environment
  }

  void rename(String name) {
    this._home = name;
  }
}

final flags = Flags();  // entity: shared-instance flags lazy language

// Reads a file while the program is loaded.
class Almanac {
  late List<String> _rows;

  Almanac() {
    this._rows = File('almanac').readAsLinesSync();
  }

  void drop() {
    this._rows.removeLast();
  }
}

final almanac = Almanac();  // entity: shared-instance almanac lazy language

// Throws where it stands.
class Scale {
  int _tons = 0;

  Scale() {
    this._tons = File('scale').existsSync() ? 1 : 0;
    if (this._tons == 0) {
      throw StateError('no scale');
    }
  }

  void load() {
    this._tons = 2;
  }
}

final scale = Scale();  // finding: init.may-throw  // entity: shared-instance scale lazy language

class Stairs {
  int _steps = 0;

  Stairs() {
    this._steps = heights['stairs'] ?? 0;  // finding: coupling.hidden-dependency
  }

  void climb() {
    this._steps = heights['stairs'] ?? 0;
  }
}

final stairs = Stairs();  // entity: shared-instance stairs lazy language
final heights = <String, int>{};  // entity: global-variable heights lazy language

void raiseStairs(int by) {
  heights['stairs'] = by;
}

// The failure goes nowhere; near misses: it is told, or handed on.
class Barometer {
  int _pressure = 0;

  Barometer() {
    try {
      this._pressure = File('barometer').readAsStringSync().length;
    } catch (error) {  // finding: init.failure-swallowed
    }
  }

  void fall() {
    this._pressure = 1;
  }
}

Barometer? barometerNow;  // entity: shared-instance barometerNow lazy single-threaded

Barometer barometer() {
  if (barometerNow == null) {
    barometerNow = Barometer();
  }
  return barometerNow!;
}

class Hygrometer {
  int _damp = 0;

  Hygrometer() {
    try {
      this._damp = File('hygrometer').readAsStringSync().length;
    } catch (error) {
      throw StateError('no hygrometer');  // near: init.failure-swallowed
    }
  }

  void rise() {
    this._damp = 1;
  }
}

class Anemometer {
  int _wind = 0;

  Anemometer() {
    try {
      this._wind = File('anemometer').readAsStringSync().length;
    } catch (error) {
      stderr.writeln(error);  // near: init.failure-swallowed
      rethrow;
    }
  }

  void blow() {
    this._wind = 1;
  }
}

Hygrometer? hygrometerNow;  // entity: shared-instance hygrometerNow lazy single-threaded
Anemometer? anemometerNow;  // entity: shared-instance anemometerNow lazy single-threaded

Hygrometer hygrometer() {
  if (hygrometerNow == null) {
    hygrometerNow = Hygrometer();  // finding: init.may-throw
  }
  return hygrometerNow!;
}

Anemometer anemometer() {
  if (anemometerNow == null) {
    anemometerNow = Anemometer();  // finding: init.may-throw
  }
  return anemometerNow!;
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
class Radio {
  int _channel = 16;

  void tune(int channel) {
    this._channel = channel;
  }
}

Radio? radioNow;  // entity: shared-instance radioNow lazy single-threaded
Radio? sonarNow;  // entity: shared-instance sonarNow lazy single-threaded
Future<Radio>? radarNow;  // entity: shared-instance radarNow elsewhere none

Future<Radio> radio() async {
  if (radioNow == null) {
    final channel = await askForChannel();  // finding: thread.await-gap
    radioNow = Radio();
    radioNow!.tune(channel);
  }
  return radioNow!;
}

Future<Radio> sonar() async {
  final channel = await askForChannel();  // near: thread.await-gap
  if (sonarNow == null) {
    sonarNow = Radio();
    sonarNow!.tune(channel);
  }
  return sonarNow!;
}

Future<Radio> askForRadar() async {
  await askForChannel();
  return Radio();
}

Future<int> askForChannel() async {
  return 16;
}

// Opens what nothing closes; near misses: closed in the same function, or at the end.
class Soundings {
  RandomAccessFile? _file = null;
  int _read = 0;

  void open(String name) {
    this._file = File(name).openSync();  // finding: lifetime.never-released
  }

  void next() {
    this._read = this._file;
  }
}

class Tides {
  RandomAccessFile? _file = null;

  void open(String name) {
    this._file = File(name).openSync();  // near: lifetime.never-released
  }

  void close() {
    _file!.closeSync();
  }
}

final soundings = Soundings();  // entity: shared-instance soundings lazy language
final tides = Tides();  // entity: shared-instance tides lazy language

// Walks over the list itself, and registers whoever asks; near misses: over a copy, and with a look first.
class Bells {
  List<Ringer> _ringers = [];
  List<Player> _players = [];

  void add(Ringer ringer) {
    this._ringers.add(ringer);
  }

  void remove(Ringer ringer) {
    this._ringers.remove(ringer);
  }

  void ring() {
    for (final ringer in this._ringers) {  // finding: lifetime.notify-while-changing
      ringer.ring();
    }
  }

  void addPlayer(Player player) {
    if (!this._players.contains(player)) {
      this._players.add(player);  // near: lifetime.duplicate-subscription lifetime.grows-forever
    }
  }

  void removePlayer(Player player) {
    this._players.remove(player);
  }

  void play() {
    for (final player in List.of(this._players)) {  // near: lifetime.notify-while-changing
      player.play();
    }
  }

  int count() {
    var strokes = 0;
    for (final player in this._players) {  // near: lifetime.notify-while-changing
      strokes += player.strokes;
    }
    return strokes;
  }
}

final bells = Bells();  // entity: shared-instance bells lazy language

class Ringer {
  Ringer() {
    bells.add(this);  // finding: coupling.hidden-dependency
  }

  void again() {
    bells.add(this);  // finding: lifetime.duplicate-subscription
  }

  void close() {
    bells.remove(this);
  }

  void ring() {
    this.close();
  }
}

class Player {
  int strokes = 3;

  Player() {
    bells.addPlayer(this);  // near: lifetime.dangling-subscriber
  }

  void again() {
    bells.addPlayer(this);  // near: lifetime.duplicate-subscription
  }

  void close() {
    bells.removePlayer(this);
  }

  void play() {
    this.close();
  }
}

// Keeps the caller's object; near misses: only what it says, or for a while.
class Porter {
  Caller? _caller = null;
  String _last = '';
  List<String> _seen = [];

  void keep(Caller caller) {
    this._caller = caller;
  }

  void note(Caller caller) {
    this._last = caller.ship;
  }

  void write(Caller caller) {
    this._seen.add(caller.ship);  // near: lifetime.grows-forever
    if (this._seen.length > 9) {
      this._seen.removeAt(0);
    }
  }
}

final porter = Porter();  // entity: shared-instance porter lazy language

class Caller {
  String ship = '';

  Caller(String ship) {
    this.ship = ship;
  }

  void enter() {
    porter.keep(this);  // finding: coupling.hidden-dependency lifetime.captured-short-lived
  }

  void passBy() {
    porter.note(this);  // near: lifetime.captured-short-lived
    porter.write(this);  // near: lifetime.captured-short-lived
  }
}

void receive(String ship) {
  final caller = Caller(ship);
  caller.enter();
  caller.passBy();
}

// Nothing to hand in; near misses: no state, or one caller.
class Tickets {  // finding: coupling.static-only-api  // entity: static-holder Tickets eager language
  static int _sold = 0;

  static void sell() {
    Tickets._sold = 1;
  }

  static int count() {
    return Tickets._sold;
  }
}

class Knots {  // near: coupling.static-only-api
  static int bowline(int turns) {
    return turns + 1;
  }

  static int hitch(int turns) {
    return turns + 2;
  }
}

class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
  static int _used = 0;

  static void use() {
    Bollards._used = 1;
  }
}

class Sailor {
  int tie() {
    Bollards.use();  // finding: coupling.hidden-dependency
    Tickets.sell();  // finding: coupling.hidden-dependency
    return Knots.bowline(2);
  }
}

class Rower {
  int tie() {
    return Knots.hitch(Tickets.count());
  }
}

// Passed on by four; near misses: used on the way, or made there.
class Papers {
  bool inOrder() {
    return true;
  }
}

bool stamp(Papers papers) {
  return papers.inOrder();
}

bool clerk(Papers papers) {
  return stamp(papers);
}

bool counter(Papers papers) {
  return clerk(papers);
}

bool entrance(Papers papers) {
  return counter(papers);
}

bool door(Papers papers) {  // finding: coupling.long-handoff
  return entrance(papers);
}

class Depths {
  int _least = 0;

  void measure() {
    this._least = 4;
  }
}

class Channel {  // entity: singleton Channel lazy single-threaded  // finding: single.open-constructor
  static Channel? _one = null;
  Depths _inner = Depths();

  static Channel channel() {
    if (Channel._one == null) {
      Channel._one = Channel();
    }
    return Channel._one!;
  }

  Capstan capstan() {
    return Capstan.capstan();
  }

  Depths depths() {
    return this._inner;
  }
}

// Reached from six places; near miss: two.
class Gong {
  int _struck = 0;

  void strike() {
    this._struck = 1;
  }
}

final gong = Gong();  // finding: coupling.wide-reach  // entity: shared-instance gong lazy language
final whistle = Gong();  // near: coupling.wide-reach  // entity: shared-instance whistle lazy language

class Pier1 {
  void fog() {
    gong.strike();  // finding: coupling.hidden-dependency
    whistle.strike();  // finding: coupling.hidden-dependency
  }
}

class Pier2 {
  void fog() {
    gong.strike();
    whistle.strike();
  }
}

class Pier3 {
  void fog() {
    gong.strike();
  }
}

class Pier4 {
  void fog() {
    gong.strike();
  }
}

class Pier5 {
  void fog() {
    gong.strike();
  }
}

// One slot for a family; near miss: one for each of it.
class Raft {  // entity: singleton Raft lazy single-threaded  // finding: single.open-constructor
  static Raft? _one = null;
  int _logs = 4;

  static Raft raft() {
    if (Raft._one == null) {
      Raft._one = Raft();  // finding: single.slot-shared-by-subclasses
    }
    return Raft._one!;
  }

  void sink() {
    this._logs = 0;
  }
}

class WideRaft extends Raft {
  static void open() {
    Raft._one = WideRaft();  // finding: coupling.hidden-dependency single.replaceable
  }

  void load() {
    this.sink();
  }
}

import 'dart:io';

part 'tickets.dart';

// A factory constructor over a static final.
class BerthBook {  // entity: singleton BerthBook lazy language
  static final BerthBook _only = BerthBook._();
  final Map<String, int> _berths = {};

  factory BerthBook() => _only;
  BerthBook._();

  void assign(String ship, int berth) {
    _berths[ship] = berth;  // near: lifetime.grows-forever
  }

  int get count => _berths.length;
}

// Check and set in a factory constructor.
class PilotRoster {  // entity: singleton PilotRoster lazy single-threaded
  static PilotRoster? _roster;
  final List<String> pilots = [];

  factory PilotRoster() {
    _roster ??= PilotRoster._start();
    return _roster!;
  }

  PilotRoster._start();

  void add(String pilot) => pilots.add(pilot);  // finding: lifetime.grows-forever
}

// A getter as door.
class SignalMast {  // entity: singleton SignalMast lazy single-threaded
  static SignalMast? _mast;
  String flag = '';
  SignalMast._();

  static SignalMast get instance {
    if (_mast == null) {
      _mast = SignalMast._();
    }
    return _mast!;
  }
}

// One for each name.
class CargoScale {
  static final Map<String, CargoScale> _scales = {};  // entity: registry _scales lazy language
  int load = 0;
  factory CargoScale(String name) {
    return _scales.putIfAbsent(name, () => CargoScale._());
  }
  CargoScale._();
}

// Filled while others may run: the second caller finds it empty too.
class DutyLog {  // entity: singleton DutyLog lazy single-threaded
  static DutyLog? _log;
  final List<String> lines = [];
  DutyLog._();

  static Future<DutyLog> open() async {
    if (_log == null) {
      await File('duty.txt').readAsString();  // finding: thread.await-gap
      _log = DutyLog._();
    }
    return _log!;
  }
}

// Near misses.
class Ship {
  final String name;
  Ship(this.name);
  Ship.unknown() : name = '?';
  factory Ship.named(String name) => Ship(name);
  static const int crew = 4;  // harmless: crew
}

// One slot for a family of classes.
class Berth {  // entity: singleton Berth lazy single-threaded
  static Berth? berth;
  int _ships = 0;

  Berth._();

  static Berth get() {
    berth ??= Berth._();  // finding: single.slot-shared-by-subclasses
    return berth!;
  }

}

class DeepBerth extends Berth {
  DeepBerth() : super._();

  static void open() {
    Berth.berth = DeepBerth();  // finding: single.replaceable
  }
}

// Works only after a call, and is used before it; near miss: it tests.
class Chart {
  int depth() => 4;
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

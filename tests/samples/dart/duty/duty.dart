// Starts, lists and ties of a harbour on duty.
import 'dart:io';

// Asks for itself.
class DutyBook {  // entity: singleton DutyBook lazy language
  static final DutyBook book = DutyBook._();
  int entries = 0;

  DutyBook._() {
    begin();
  }

  static DutyBook get() => book;

  void begin() {
    DutyBook.get().enter();  // finding: init.reentrant
  }

  void enter() {
    entries++;
  }
}

// Who is listed is told of each signal.
abstract class Keeper {
  void heard(int signal);
}

class SignalMast {  // entity: singleton SignalMast lazy language
  static final SignalMast mast = SignalMast._();
  final List<Keeper> keepers = [];

  SignalMast._();

  void attach(Keeper keeper) {
    keepers.add(keeper);
  }

  void detach(Keeper keeper) {
    keepers.remove(keeper);
  }

  void raise(int signal) {
    for (final keeper in keepers) {  // finding: lifetime.notify-while-changing
      keeper.heard(signal);
    }
  }

  // Near miss: over a copy.
  void lower(int signal) {
    for (final keeper in keepers.toList()) {  // near: lifetime.notify-while-changing
      keeper.heard(signal);
    }
  }
}

class Lookout implements Keeper {
  int last = 0;

  Lookout() {
    SignalMast.mast.attach(this);  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
  }

  void heard(int signal) {
    last = signal;
  }

  void dispose() {
    last = 0;
  }
}

// Near miss: taken out at its end.
class Bosun implements Keeper {
  Bosun() {
    SignalMast.mast.attach(this);  // near: lifetime.dangling-subscriber
  }

  void heard(int signal) {
    dispose();
  }

  void dispose() {
    SignalMast.mast.detach(this);
  }
}

// Registered when it is made and again by a method.
class Steward implements Keeper {
  int last = 0;

  Steward() {
    SignalMast.mast.attach(this);
  }

  void wake() {
    SignalMast.mast.attach(this);  // finding: lifetime.duplicate-subscription
  }

  void heard(int signal) {
    last = signal;
  }

  void dispose() {
    SignalMast.mast.detach(this);
  }
}

// Only ever added to; near miss: given a limit.
class Logbook {  // entity: singleton Logbook lazy language
  static final Logbook log = Logbook._();
  final List<String> lines = [];
  final List<String> recent = [];

  Logbook._();

  void write(String line) {
    lines.add(line);  // finding: lifetime.grows-forever
  }

  void keep(String line) {
    recent.add(line);  // near: lifetime.grows-forever
    if (recent.length > 20) {
      recent.removeAt(0);
    }
  }
}

// Reads the environment.
class NamePlate {  // entity: singleton NamePlate lazy language
  static final NamePlate plate = NamePlate._();
  String? name;

  NamePlate._() {
    name = Platform.environment['HARBOUR'];  // finding: init.reads-environment
  }

  void rename(String newName) {
    name = newName;
  }
}

// The failure is dropped.
class Barograph {  // entity: singleton Barograph lazy language
  static final Barograph barograph = Barograph._();
  int pressure = 0;

  Barograph._() {
    try {
      pressure = File('pressure').readAsStringSync().length;
    } catch (failure) {  // finding: init.failure-swallowed
    }
  }

  void fall() {
    pressure = pressure - 1;
  }
}

// There is only one office in the harbour.
class Office {  // finding: single.meant-single
  int opened = 0;

  void open() {
    opened++;
  }
}

void day() {
  final first = Office();
  final second = Office();
  first.open();
  second.open();
}

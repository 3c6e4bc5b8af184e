class Tides {
  Tides._();

  static final Tides shared = Tides._();

  int _started = 0;

  void start(String day) {
    _started++;
    print('tides $_started$day');
  }
}

class Berths {
  Berths._();

  static final Berths shared = Berths._();

  int _started = 0;

  void start(String day) {
    _started++;
    print('berths $_started$day');
  }
}

class Pilots {
  Pilots._();

  static final Pilots shared = Pilots._();

  int _started = 0;

  void start(String day) {
    _started++;
    print('pilots $_started$day');
  }
}

/// Tells those who listen, in the order in which they came, that the program starts.
class _StartUp {
  final List<void Function()> _listeners = [];

  void add(void Function() listener) => _listeners.add(listener);

  void announce() {
    for (final listener in _listeners) {
      listener();
    }
  }
}

/// Opens the harbour.
void open(String day) {
  final startUp = _StartUp();
  startUp.add(() { Tides.shared.start(day); });
  startUp.add(() { Berths.shared.start(day); });
  startUp.add(() { Pilots.shared.start(''); });
  startUp.announce();
}

void main() {
  open('Monday');
}

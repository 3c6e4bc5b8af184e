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

/// Opens the harbour.
void open(String day) {
  Tides.shared.start(day);
  Berths.shared.start(day);
  Pilots.shared.start('');
}

void main() {
  open('Monday');
}

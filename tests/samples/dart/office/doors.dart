// The shift that is on, set by who begins it.
class Shift {
  static Shift? current;  // entity: shared-instance current lazy single-threaded
  final String name;

  Shift(this.name);

  static void begin(String name) {
    current = Shift(name);
  }
}

// Kept by a function in a variable of its library.
Quay? _quay;  // entity: shared-instance _quay lazy single-threaded

Quay theQuay() => _quay ??= Quay();

class Quay {
  int ships = 0;
}

// Nothing before it is opened.
class RadarPlot {  // entity: singleton RadarPlot lazy single-threaded
  static RadarPlot? _plot;
  int echoes = 0;

  RadarPlot._();

  static void open() {
    _plot = RadarPlot._();
  }

  static RadarPlot? get plot => _plot;  // finding: single.may-return-nothing
}

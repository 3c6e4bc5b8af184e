class Tides {
  static int _first = 4;

  static int height(int day) => _first + day;

  static void raise(int by) {
    _first += by;
  }

  static void forget() {
    _first = 0;
  }
}

class TidesWrapper {
  int height(int day) => Tides.height(day);
  void raise(int by) => Tides.raise(by);
}

class Pilot {
  final TidesWrapper tidesWrapper;
  final String name;

  Pilot(this.name, {required TidesWrapper tidesWrapper}) : tidesWrapper = tidesWrapper;

  bool mayEnter(int draught, int day) {
    tidesWrapper.raise(1);
    return tidesWrapper.height(day) > draught && name.isNotEmpty;
  }
}

void main() {
  print(Pilot('first', tidesWrapper: TidesWrapper()).mayEnter(3, 1));
}

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

class Pilot {
  final String name;

  Pilot(this.name);

  bool mayEnter(int draught, int day) {
    Tides.raise(1);
    return Tides.height(day) > draught && name.isNotEmpty;
  }
}

void main() {
  print(Pilot('first').mayEnter(3, 1));
}

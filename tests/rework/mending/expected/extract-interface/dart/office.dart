abstract class TideTableInterface {
  int get level;
  int height(int day);
  void raise([int by = 1]);
}

/// The water's height, day by day.
class TideTable implements TideTableInterface {
  int _first = 4;

  int get level => _first;

  int height(int day) => _first + day;

  Future<int> load(String from) async {
    return from.length;
  }

  void raise([int by = 1]) {
    _first += by;
  }

  void forget() {
    _first = 0;
  }
}

class Pilot {
  final TideTableInterface tides;

  Pilot(this.tides);

  bool mayEnter(int draught, int day) {
    tides.raise();
    return tides.height(day) > draught && tides.level > 0;
  }
}

bool deepEnough(TideTableInterface? tides, int draught) => (tides?.height(0) ?? 0) > draught;

void main() {
  final tides = TideTable();
  print(Pilot(tides).mayEnter(3, 1) && deepEnough(tides, 4));
}

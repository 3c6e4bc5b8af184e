class TideTable {
  TideTable._();

  int _first = 4;

  int height(int day) => _first + day;

  void raise(int by) {
    _first += by;
  }
}

class Desk {
  TideTable tideTable = TideTable._();
  int _entered = 0;

  int enter(int day) {
    _entered++;
    tideTable.raise(1);
    return tideTable.height(day) + _entered;
  }
}

void main() {
  final desk = Desk();
  print(desk.enter(1) + desk.enter(2));
}

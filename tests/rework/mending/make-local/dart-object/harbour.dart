class TideTable {
  TideTable._();

  static final TideTable shared = TideTable._();

  int _first = 4;

  int height(int day) => _first + day;

  void raise(int by) {
    _first += by;
  }
}

class Desk {
  int _entered = 0;

  int enter(int day) {
    _entered++;
    TideTable.shared.raise(1);
    return TideTable.shared.height(day) + _entered;
  }
}

void main() {
  final desk = Desk();
  print(desk.enter(1) + desk.enter(2));
}

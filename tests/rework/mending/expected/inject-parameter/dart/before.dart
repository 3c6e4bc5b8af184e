class TideTable {
  static final TideTable _table = TideTable._();
  int _level = 3;

  TideTable._();

  static TideTable get() => _table;

  void raise(int by) {
    _level = _level + by;
  }

  int level() => _level;
}

bool mayEnter(int draught, [TideTable? tideTable]) {
  return (tideTable ?? TideTable.get()).level() > draught;
}

void flood([TideTable? tideTable]) {
  (tideTable ?? TideTable.get()).raise(1);
}

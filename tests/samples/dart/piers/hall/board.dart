import '../ledgers/fees.dart' as ledger;

// A layer that may reach none, through the module.
class Board {
  int _shown = 0;

  void show() {
    this._shown = ledger.fees.total;  // finding: coupling.hidden-dependency coupling.layer-breach
  }
}

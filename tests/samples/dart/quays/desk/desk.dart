import '../ledgers/dues.dart';

// Near miss: a layer that may.
class Desk {
  void pay(int coins) {
    HarbourDues.get().enter(coins);  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
  }
}

// The fees of the pilots, in a layer of their own.
class PilotFees {
  int total = 0;

  void enter(int coins) {
    this.total = coins;
  }

  void clear() {
    this.total = 0;
  }
}

final fees = PilotFees();  // entity: shared-instance fees lazy language

// The fees of the pilots, in a layer of their own.
class PilotFees {
  int total = 0;

  void enter(int coins) {
    this.total = coins;
  }

}

final fees = PilotFees();  // entity: shared-instance fees lazy language

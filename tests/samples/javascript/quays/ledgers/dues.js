// The dues of the harbour, in a layer of their own.
class HarbourDues {
  constructor() {
    this.sum = 0;
  }

  enter(coins) {
    this.sum = this.sum + coins;
  }

  clear() {
    this.sum = 0;
  }

  total() {
    return this.sum;
  }
}

export const dues = new HarbourDues();  // entity: shared-instance dues eager language

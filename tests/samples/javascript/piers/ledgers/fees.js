// The fees of the pilots, in a layer of their own.
export class PilotFees {
  total = 0;

  enter(coins) {
    this.total = coins;
  }

  clear() {
    this.total = 0;
  }
}

export const fees = new PilotFees();  // entity: shared-instance fees eager language

// The fees of the pilots, in a layer of their own.
export class PilotFees {
  total: number = 0;

  enter(coins: number): void {
    this.total = coins;
  }

}

export const fees: PilotFees = new PilotFees();  // entity: shared-instance fees eager language

import * as ledger from '../ledgers/fees';

// A layer that may reach none, through the module.
export class Board {
  private shown: number = 0;

  show(): void {
    this.shown = ledger.fees.total;  // finding: coupling.hidden-dependency coupling.layer-breach
  }
}

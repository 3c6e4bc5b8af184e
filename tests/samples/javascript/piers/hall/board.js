import * as ledger from '../ledgers/fees.js';

// A layer that may reach none, through the module.
export class Board {
  shown = 0;

  show() {
    this.shown = ledger.fees.total;  // finding: coupling.hidden-dependency coupling.layer-breach
  }
}

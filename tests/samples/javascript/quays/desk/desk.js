import { dues } from "../ledgers/dues.js";

// Near miss: a layer that may.
export class Desk {
  pay(coins) {
    dues.enter(coins);  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
  }
}

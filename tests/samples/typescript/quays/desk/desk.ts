import { HarbourDues } from "../ledgers/dues";

// Near miss: a layer that may.
export class Desk {
  pay(coins: number): void {
    HarbourDues.get().enter(coins);  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
  }
}

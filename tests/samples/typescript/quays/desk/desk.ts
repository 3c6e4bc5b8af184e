import { HarbourDues } from "../ledgers/dues";

// Near miss: a layer that may.
export class Desk {
  pay(coins: number): void {
    HarbourDues.get().enter(coins);  // near: tie.layer-breach  // finding: tie.hidden-dependency
  }
}

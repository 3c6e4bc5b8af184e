import { HarbourDues } from "../ledgers/dues";

// A layer that may reach none.
export class Hall {
  show(): number {
    return HarbourDues.get().total();  // finding: coupling.layer-breach
  }
}

import { dues } from "../ledgers/dues.js";

// A layer that may reach none.
export class Hall {
  show() {
    return dues.total();  // finding: coupling.layer-breach
  }
}

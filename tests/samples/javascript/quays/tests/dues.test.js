import { dues } from "../ledgers/dues.js";

// Leaves behind what it entered.
test("adds up", () => {
  dues.enter(3);  // finding: coupling.test-leak
  dues.enter(4);
});

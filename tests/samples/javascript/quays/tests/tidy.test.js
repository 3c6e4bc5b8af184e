import { dues } from "../ledgers/dues.js";

// Near miss: puts it back.
test("adds up and clears", () => {
  dues.enter(3);  // near: coupling.test-leak
  dues.clear();
});

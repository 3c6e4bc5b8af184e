import { HarbourDues } from "../ledgers/dues";

// Near miss: puts it back.
export function addsUpAndClears(): void {
  HarbourDues.get().enter(3);  // near: coupling.test-leak
  HarbourDues.get().clear();
}

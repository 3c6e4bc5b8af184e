import { HarbourDues } from "../ledgers/dues";

// Leaves behind what it entered.
export function addsUp(): void {
  HarbourDues.get().enter(3);  // finding: coupling.test-leak
  HarbourDues.get().enter(4);
}

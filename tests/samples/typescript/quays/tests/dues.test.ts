import { HarbourDues } from "../ledgers/dues";

// Leaves behind what it entered.
export function addsUp(): void {
  HarbourDues.get().enter(3);  // finding: tie.test-leak
  HarbourDues.get().enter(4);
}

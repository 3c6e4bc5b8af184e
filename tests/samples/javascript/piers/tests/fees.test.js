import { fees } from '../ledgers/fees.js';

// Leaves behind what it set.
export function testTwice() {
  fees.total = 30;  // finding: coupling.test-leak
  if (fees.total !== 30) throw new Error('total');
}

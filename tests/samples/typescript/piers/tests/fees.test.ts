import { fees } from '../ledgers/fees';

// Leaves behind what it set.
export function testTwice(): void {
  fees.total = 30;  // finding: coupling.test-leak
  if (fees.total !== 30) throw new Error('total');
}

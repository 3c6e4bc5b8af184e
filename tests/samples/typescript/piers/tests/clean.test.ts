import { fees } from '../ledgers/fees';

// Near miss: puts back what it found.
export function testOnce(): void {
  const before = fees.total;
  fees.total = 30;  // near: coupling.test-leak
  fees.total = before;
}

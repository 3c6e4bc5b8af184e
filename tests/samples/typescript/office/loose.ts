import { horn, Quay, begin, currentShift } from './doors';
import * as doors from './doors';

// Near misses: fixed, local, made anew.
export const LIMITS = { north: 2, south: 3 } as const;  // harmless: LIMITS
export function receipt(): { number: number } {
  const made = { number: 1 };
  return made;
}

import { horn, Quay, begin, currentShift } from './doors';
import * as doors from './doors';

export function open(): string {
  begin('day');
  horn.blow();  // finding: coupling.hidden-dependency
  doors.horn.blow();
  Quay.of('north').ships = 2;  // finding: coupling.hidden-dependency
  return currentShift()?.name ?? 'none';  // finding: coupling.hidden-dependency
}

// Near misses: fixed, local, made anew.
export const LIMITS = { north: 2, south: 3 } as const;  // harmless: LIMITS
export function receipt(): { number: number } {
  const made = { number: 1 };
  return made;
}

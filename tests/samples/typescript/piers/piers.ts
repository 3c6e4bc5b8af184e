// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
import * as fs from 'fs';
import { fees } from './ledgers/fees';

export class Glow {  // entity: singleton Glow lazy single-threaded  // finding: single.open-constructor
  private static one: Glow | null = null;
  private lit: number = 0;

  static glow(open: boolean): Glow {
    if (!open) {
      throw new Error('closed');
    }
    if (!Glow.one) {
      Glow.one = new Glow();
    }
    return Glow.one;  // near: single.may-return-nothing
  }

}

export class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
  private static used: number = 0;

  static use(): void {
    Bollards.used = 1;
  }
}

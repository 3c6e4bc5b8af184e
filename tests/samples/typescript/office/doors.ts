// The shift that is on, set by who begins it.
export class Shift {
  constructor(public name: string) {}
}

let current: Shift | undefined;  // entity: shared-instance current lazy single-threaded

export function currentShift(): Shift | undefined {
  return current;  // finding: single.may-return-nothing
}

export function begin(name: string): void {
  current = new Shift(name);
}

// One for each quay.
export class Quay {
  private static readonly quays = new Map<string, Quay>();  // entity: registry quays eager language
  ships = 0;

  private constructor() {}

  static of(name: string): Quay {
    let quay = Quay.quays.get(name);
    if (!quay) {
      quay = new Quay();
      Quay.quays.set(name, quay);
    }
    return quay;
  }
}

// The second is refused.
export class Foghorn {  // entity: singleton Foghorn eager language
  private static made = false;  // entity: static-field made eager language
  blown = 0;

  constructor() {
    if (Foghorn.made) {
      throw new Error('there is one already');
    }
    Foghorn.made = true;
  }

  blow(): void {
    this.blown += 1;
  }
}

export const horn = new Foghorn();

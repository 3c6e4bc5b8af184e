export interface Keeper {
  heard(signal: number): void;
}

export class SignalMast {
  private keepers: Keeper[] = [];

  attach(keeper: Keeper): void {
    this.keepers.push(keeper);
  }

  raise(signal: number): void {
    for (const keeper of [...this.keepers]) keeper.heard(signal);
  }
}

export const mast = new SignalMast();

export class Lookout implements Keeper {
  private last = 0;

  constructor() {
    mast.attach(this);
  }

  heard(signal: number): void {
    this.last = signal;
  }

  close(): void {
    this.last = 0;
  }
}

function day(): void {
  const lookout = new Lookout();
  mast.raise(3);
  console.log(JSON.stringify(lookout));
  lookout.close();
}

day();

// Who is listed is told of each signal.
interface Keeper {
  heard(signal: number): void;
}
export class SignalMast {
  private keepers: Keeper[] = [];
  private watchers = new Set<Keeper>();
  attach(keeper: Keeper): void {
    this.keepers.push(keeper);
  }
  detach(keeper: Keeper): void {
    this.keepers.splice(this.keepers.indexOf(keeper), 1);
  }
  watch(keeper: Keeper): void {
    this.watchers.add(keeper);
  }
  unwatch(keeper: Keeper): void {
    this.watchers.delete(keeper);
  }
  raise(signal: number): void {
    for (const keeper of this.keepers) {  // finding: lifetime.notify-while-changing
      keeper.heard(signal);
    }
  }
}
export const mast = new SignalMast();  // entity: shared-instance mast eager language

export class Lookout implements Keeper {
  private last = 0;
  constructor() {
    mast.attach(this);  // finding: lifetime.dangling-subscriber  // near: coupling.hidden-dependency
  }
  heard(signal: number): void {
    this.last = signal;
  }
  dispose(): void {
    this.last = 0;
  }
}

// Near miss: taken out at its end. It takes itself out while the list is walked, too.
export class Bosun implements Keeper {
  constructor() {
    mast.attach(this);  // near: lifetime.dangling-subscriber
  }
  heard(signal: number): void {
    this.dispose();
  }
  dispose(): void {
    mast.detach(this);
  }
}

// Registered by its constructor and again by a method; near miss: a set holds each once.
export class Steward implements Keeper {
  private last = 0;
  constructor() {
    mast.attach(this);
    mast.watch(this);
  }
  wake(): void {
    mast.attach(this);  // finding: lifetime.duplicate-subscription
    mast.watch(this);
  }
  heard(signal: number): void {
    this.last = signal;
  }
  dispose(): void {
    mast.detach(this);
    mast.unwatch(this);
  }
}

// Who is listed is told of each signal.
class SignalMast {
  constructor() {
    this.keepers = [];
  }
  attach(keeper) {
    this.keepers.push(keeper);
  }
  detach(keeper) {
    this.keepers.splice(this.keepers.indexOf(keeper), 1);
  }
  raise(signal) {
    for (const keeper of this.keepers) {  // finding: lifetime.notify-while-changing
      keeper.heard(signal);
    }
  }
  // Near miss: over a copy.
  lower(signal) {
    for (const keeper of [...this.keepers]) {  // near: lifetime.notify-while-changing
      keeper.heard(signal);
    }
  }
}
export const mast = new SignalMast();  // entity: shared-instance mast eager language

export class Lookout {
  constructor() {
    this.last = 0;
    mast.attach(this);  // finding: lifetime.dangling-subscriber
  }
  heard(signal) {
    this.last = signal;
  }
  close() {
    this.last = 0;
  }
}

// A function of its own is listed.
const calls = [];  // entity: global-variable calls eager language
export class Hornist {
  constructor() {
    this.last = 0;
    calls.push((signal) => this.heard(signal));  // finding: lifetime.dangling-subscriber
  }
  heard(signal) {
    this.last = signal;
  }
  close() {
    this.last = 0;
  }
}
export function hornsDown() {
  calls.pop();
}

// Near miss: taken out at its end.
export class Bosun {
  constructor() {
    mast.attach(this);  // near: lifetime.dangling-subscriber
  }
  heard(signal) {
    this.close(signal);
  }
  close() {
    mast.detach(this);
  }
}

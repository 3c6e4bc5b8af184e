// Single instances, each made in another way.
export class BerthBook {  // entity: singleton BerthBook lazy single-threaded
  static #instance = null;

  constructor() {  // finding: single.open-constructor
    this.berths = new Map();
    this.changes = 0;
  }

  static getInstance() {
    if (!BerthBook.#instance) {
      BerthBook.#instance = new BerthBook();
    }
    return BerthBook.#instance;
  }

  assign(ship, berth) {
    this.berths.set(ship, berth);  // near: lifetime.grows-forever
    this.changes++;
  }

  count() {
    return this.changes;
  }
}

// The constructor returns the one that is there.
export class PilotRoster {  // entity: singleton PilotRoster lazy single-threaded
  constructor() {
    if (PilotRoster.instance) {
      return PilotRoster.instance;
    }
    PilotRoster.instance = this;
    this.pilots = [];
  }

  add(pilot) {
    this.pilots.push(pilot);  // finding: lifetime.grows-forever
  }
}

// A closure keeps the state.
export const tickets = (function () {
  let next = 1;  // entity: global-variable next eager language
  return {
    draw() {
      next += 1;
      return next;
    },
  };
})();

// An object of a module.
export const mast = {  // entity: singleton mast eager language
  flags: 0,
  hoist() {
    this.flags += 1;
  },
};

class Clock {
  constructor() {
    this.ticks = 0;
  }
  tick() {
    this.ticks += 1;
  }
}
export default new Clock();  // entity: shared-instance books eager language

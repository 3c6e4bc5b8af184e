// State parked on the global object, and closures that keep an instance.
class Crane {
  constructor() {
    this.lifts = 0;
  }
  lift() {
    this.lifts += 1;
  }
}

globalThis.mainCrane = new Crane();  // entity: shared-instance mainCrane eager language

const KEY = Symbol.for('office.pilots');  // harmless: KEY

export function pilots() {
  if (!globalThis[KEY]) {  // entity: global-variable [KEY] lazy single-threaded
    globalThis[KEY] = new Map();
  }
  return globalThis[KEY];
}

// A closure variable behind a function.
export const Anchorage = (function () {
  let instance;  // entity: global-variable instance lazy single-threaded
  function create() {
    return { ships: 0, drop() { this.ships += 1; } };
  }
  return {
    get() {
      if (!instance) {
        instance = create();
      }
      return instance;
    },
  };
})();

// Made above what it needs.
class TideClock {
  constructor() {
    this.offset = offsets.north;
  }
  shift(by) {
    this.offset = by;
  }
}
export const clock = new TideClock();  // entity: shared-instance clock eager language // finding: init.order-within-class
const offsets = { north: 2 };  // harmless: offsets

// Near misses.
export function receipt() {
  return { number: 1 };
}
export const LIMIT = 12;  // harmless: LIMIT
export function use() {
  mainCrane.lift();
  window.addEventListener('load', () => clock.shift(1));
}

// Near miss: a second one is refused.
let lantern = null;

export class Lantern {  // entity: singleton Lantern elsewhere none

  constructor() {  // near: single.open-constructor
    if (lantern) {
      throw new Error("there is a lantern");
    }
    lantern = this;
    this.lit = 0;
  }

  static get() {
    return lantern;
  }

  light() {
    this.lit = 1;
  }
}

// Another takes its place.
export class Foghorn {  // entity: singleton Foghorn eager language
  static horn = new Foghorn();

  constructor() {  // finding: single.open-constructor
    this.blown = 0;
  }

  static get() {
    return Foghorn.horn;
  }

  static replace(other) {
    Foghorn.horn = other;  // finding: single.replaceable
  }

  blow() {
    this.blown = 1;
  }
}

export class LoudHorn extends Foghorn {}

export function makeItLoud() {
  Foghorn.replace(new LoudHorn());
}

// One slot for a family of classes.
export class Berth {  // entity: singleton Berth lazy single-threaded
  static berth = null;

  constructor() {  // finding: single.open-constructor
    this.ships = 0;
  }

  static get() {
    if (Berth.berth === null) {
      Berth.berth = new this();  // finding: single.slot-shared-by-subclasses
    }
    return Berth.berth;
  }

  moor() {
    this.ships = 1;
  }
}

export class DeepBerth extends Berth {
  dredge() {
    this.ships = 0;
  }
}

// Only the first caller's name counts; near miss: kept by name.
let plate = null;  // entity: shared-instance plate lazy single-threaded
const buoys = new Map();  // entity: registry buoys eager language

export class Plate {
  constructor(name) {
    this.name = name;
  }

  rename(name) {
    this.name = name;
  }
}

export function plateOf(name) {  // finding: init.arguments-ignored
  if (plate === null) {
    plate = new Plate(name);
  }
  return plate;
}

export function buoyOf(name) {  // near: init.arguments-ignored
  if (!buoys.has(name)) {
    buoys.set(name, new Plate(name));
  }
  return buoys.get(name);
}

// Each needs the other while it is made.
export class Light {  // entity: singleton Light lazy single-threaded
  static #light = null;

  constructor() {  // finding: single.open-constructor
    this.height = Mole.get().length;  // finding: coupling.cycle coupling.hidden-dependency
  }

  static get() {
    if (Light.#light === null) {
      Light.#light = new Light();  // finding: init.cycle
    }
    return Light.#light;
  }
}

export class Mole {  // entity: singleton Mole lazy single-threaded
  static #mole = null;

  constructor() {  // finding: single.open-constructor
    this.length = Light.get().height;  // finding: coupling.cycle coupling.hidden-dependency
  }

  static get() {
    if (Mole.#mole === null) {
      Mole.#mole = new Mole();
    }
    return Mole.#mole;
  }
}

// Keeps what is made for one visit.
export class Gate {  // entity: singleton Gate eager language
  static #gate = new Gate();

  constructor() {  // finding: single.open-constructor
    this.visit = null;
    this.last = "";
  }

  static get() {
    return Gate.#gate;
  }

  begin(visit) {
    this.visit = visit;
  }

  note(ship) {
    this.last = ship;
  }
}

export class Visit {
  constructor(ship) {
    this.ship = ship;
  }

  enter() {
    Gate.get().begin(this);  // finding: lifetime.captured-short-lived coupling.hidden-dependency
    Gate.get().note(this.ship);  // near: lifetime.captured-short-lived
  }
}

export function greet(ship) {
  const visit = new Visit(ship);
  visit.enter();
}

// Knows who uses it.
export class Plan {  // entity: singleton Plan eager language
  static #plan = new Plan();

  constructor() {  // finding: single.open-constructor
    this.berths = 0;
    this.berther = new Berther();  // finding: coupling.cycle
  }

  static get() {
    return Plan.#plan;
  }

  change() {
    this.berths = 1;
    this.berther.stop();
  }
}

export class Berther {
  constructor() {
    this.free = 0;
  }

  arrive() {
    this.free = Plan.get().berths;  // finding: coupling.hidden-dependency
  }

  stop() {
    this.free = 0;
  }
}

// Nothing to hand in.
export class Stamps {  // entity: static-holder Stamps eager language // finding: coupling.static-only-api
  static #used = 0;

  static use() {
    Stamps.#used = Stamps.#used + 1;
  }

  static used() {
    return Stamps.#used;
  }
}

export class Clerk {
  stamp() {
    Stamps.use();  // finding: coupling.hidden-dependency
  }
}

export class Auditor {
  count() {
    return Stamps.used();
  }
}

// Reached from everywhere; near miss: four classes.
class Siren {
  constructor() {
    this.sounded = 0;
  }

  sound() {
    this.sounded = 1;
  }
}

class Bell {
  constructor() {
    this.rung = 0;
  }

  ring() {
    this.rung = 1;
  }
}

export const siren = new Siren();  // entity: shared-instance siren eager language // finding: coupling.wide-reach
export const bell = new Bell();  // near: coupling.wide-reach  // entity: shared-instance bell eager language

export class NorthQuay {
  fog() {
    siren.sound();  // finding: coupling.hidden-dependency
    bell.ring();  // finding: coupling.hidden-dependency
  }
}

export class SouthQuay {
  fog() {
    siren.sound();
    bell.ring();
  }
}

export class EastQuay {
  fog() {
    siren.sound();
    bell.ring();
  }
}

export class WestQuay {
  fog() {
    siren.sound();
  }
}

export class InnerQuay {
  fog() {
    siren.sound();
  }
}

// Quays, mast and gauges of the harbour: what the other folders do not show in JavaScript.
import * as fs from "fs";

// One is handed out, another is made beside it.
export class Beacon {  // entity: singleton Beacon eager language
  static #one = new Beacon();

  constructor() {  // finding: single.open-constructor
    this.flashes = 0;
  }

  static get() {
    return Beacon.#one;
  }

  flash() {
    this.flashes = 1;
  }
}

export class Pier {
  light() {
    const second = new Beacon();  // finding: single.second-creation
    second.flash();
  }
}

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

// Nothing before it is opened; near miss: made when it is asked for.
export class RadarPlot {  // entity: singleton RadarPlot lazy single-threaded
  static #plot = null;

  constructor() {  // finding: single.open-constructor
    this.echoes = 0;
  }

  static open() {
    RadarPlot.#plot = new RadarPlot();
  }

  static get() {
    return RadarPlot.#plot;  // finding: single.may-return-nothing
  }

  echo() {
    this.echoes = 1;
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

// Asks for itself.
export class DutyBook {  // entity: singleton DutyBook lazy single-threaded
  static #book = null;

  constructor() {  // finding: single.open-constructor
    this.entries = 0;
    this.begin();
  }

  static get() {
    if (DutyBook.#book === null) {
      DutyBook.#book = new DutyBook();
    }
    return DutyBook.#book;
  }

  begin() {
    DutyBook.get().enter();  // finding: init.reentrant
  }

  enter() {
    this.entries = this.entries + 1;
  }
}

// Opens what nothing closes; near miss: closed at its end.
export class EchoLog {  // entity: singleton EchoLog eager language
  static #log = new EchoLog();

  constructor() {  // finding: single.open-constructor
    this.file = 0;
  }

  static get() {
    return EchoLog.#log;
  }

  begin() {
    this.file = fs.openSync("echoes", "r");  // finding: lifetime.never-released
  }

  next() {
    return this.file + 1;
  }
}

export class WaveLog {  // entity: singleton WaveLog eager language
  static #log = new WaveLog();

  constructor() {  // finding: single.open-constructor
    this.file = 0;
  }

  static get() {
    return WaveLog.#log;
  }

  begin() {
    this.file = fs.openSync("waves", "r");  // near: lifetime.never-released
  }

  next() {
    return this.file + 1;
  }

  close() {
    fs.closeSync(this.file);
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

// Passed through three functions that do nothing with it.
/** @param {Permit} permit */
export function check(permit) {
  return permit.valid();
}

export function atGate(permit) {
  return check(permit);
}

export function atQuay(permit) {
  return atGate(permit);
}

export function atPier(permit) {  // finding: coupling.long-handoff
  return atQuay(permit);
}

export class Permit {
  valid() {
    return true;
  }
}

export function inspect() {
  return atPier(new Permit());
}

// One object reached through another.
export class Buoyage {  // entity: singleton Buoyage eager language
  static #buoyage = new Buoyage();

  constructor() {  // finding: single.open-constructor
    this.laid = 0;
  }

  static get() {
    return Buoyage.#buoyage;
  }

  lay() {
    this.laid = 1;
  }
}

export class Fairway {  // entity: singleton Fairway eager language
  static #fairway = new Fairway();

  constructor() {  // finding: single.open-constructor
    this.depth = 0;
  }

  static get() {
    return Fairway.#fairway;
  }

  marks() {
    return Buoyage.get();
  }

  dredge() {
    this.depth = 1;
  }
}

export class Tender {
  work() {
    Fairway.get().marks().lay();  // finding: coupling.chained-access coupling.hidden-dependency
    Fairway.get().dredge();  // near: coupling.chained-access
  }
}

// Made at load, and used by nobody.
class Spare {
  constructor() {
    this.parts = 0;
  }

  take() {
    this.parts = this.parts - 1;
  }
}

const spare = new Spare();  // entity: shared-instance spare eager language // finding: init.eager-unused

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

// Starts them all; near miss: only five.
export class Opening {
  open() {  // finding: coupling.crowded-startup
    Beacon.get().flash();  // finding: coupling.hidden-dependency
    siren.sound();
    bell.ring();
    WaveLog.get().begin();  // finding: coupling.hidden-dependency
    EchoLog.get().begin();  // finding: coupling.hidden-dependency
    Berth.get().moor();  // finding: coupling.hidden-dependency
  }

  half() {  // near: coupling.crowded-startup
    siren.sound();
    bell.ring();
    Lantern.get().light();  // finding: coupling.hidden-dependency
    plateOf("north").rename("N");  // finding: coupling.hidden-dependency
    plateOf("south").rename("S");
    buoyOf("one").rename("1");
  }
}

export function watch() {
  RadarPlot.open();
  RadarPlot.get().echo();
}

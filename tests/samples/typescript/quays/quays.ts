// Quays, mast and gauges of the harbour: what the other folders do not show in TypeScript.
import * as fs from "fs";

// One is handed out, another is made beside it.
export class Beacon {  // entity: singleton Beacon eager language
  private static readonly one = new Beacon();
  private flashes = 0;

  constructor() {  // finding: single.open-constructor
    this.flashes = 0;
  }

  static get(): Beacon {
    return Beacon.one;
  }

  flash(): void {
    this.flashes = 1;
  }
}

export class Pier {
  light(): void {
    const second = new Beacon();  // finding: single.second-creation
    second.flash();
  }
}

// Near miss: nobody else can make one.
export class Lantern {  // entity: singleton Lantern eager language
  private static readonly one = new Lantern();
  private lit = 0;

  private constructor() {  // near: single.open-constructor
    this.lit = 0;
  }

  static get(): Lantern {
    return Lantern.one;
  }

  light(): void {
    this.lit = 1;
  }
}

// Another takes its place.
export class Foghorn {  // entity: singleton Foghorn eager language
  private static horn: Foghorn = new Foghorn();
  private blown = 0;

  protected constructor() {  // finding: single.subclassable
    this.blown = 0;
  }

  static get(): Foghorn {
    return Foghorn.horn;
  }

  static replace(other: Foghorn): void {
    Foghorn.horn = other;  // finding: single.replaceable
  }

  blow(): void {
    this.blown = 1;
  }
}

export function makeItLoud(other: Foghorn): void {
  Foghorn.replace(other);
}

// One slot for a family of classes.
export class Berth {  // entity: singleton Berth lazy single-threaded  // finding: single.open-constructor
  protected static berth: Berth | undefined;
  private ships = 0;

  static get(): Berth {
    if (!Berth.berth) {
      Berth.berth = new this();  // finding: single.slot-shared-by-subclasses
    }
    return Berth.berth;
  }

  moor(): void {
    this.ships = 1;
  }
}

export class DeepBerth extends Berth {
  dredge(): void {
    this.moor();
  }
}

// Only the first caller's name counts.
export class Plate {  // entity: singleton Plate lazy single-threaded
  private static plate: Plate | undefined;

  private constructor(private name: string) {}

  static get(name: string): Plate {  // finding: init.arguments-ignored
    if (!Plate.plate) {
      Plate.plate = new Plate(name);
    }
    return Plate.plate;
  }

  rename(name: string): void {
    this.name = name;
  }
}

// Near miss: kept by name.
export class Buoy {
  private static buoys = new Map<string, Buoy>();  // entity: registry buoys eager language

  private constructor(private name: string) {}

  static get(name: string): Buoy {  // near: init.arguments-ignored
    let buoy = Buoy.buoys.get(name);
    if (!buoy) {
      buoy = new Buoy(name);
      Buoy.buoys.set(name, buoy);
    }
    return buoy;
  }

  rename(name: string): void {
    this.name = name;
  }
}

// Uses what stands further down.
export class Almanac {  // entity: singleton Almanac eager language
  static readonly one = new Almanac();  // finding: init.order-within-class
  static readonly pages = [1, 2, 3];  // harmless: pages
  private page: number;

  private constructor() {
    this.page = Almanac.pages.length;
  }

  turn(): void {
    this.page = this.page + 1;
  }
}

// Near miss: it stands above.
export class Calendar {  // entity: singleton Calendar eager language
  static readonly pages = [1, 2, 3];  // harmless: pages
  static readonly one = new Calendar();  // near: init.order-within-class
  private page: number;

  private constructor() {
    this.page = Calendar.pages.length;
  }

  turn(): void {
    this.page = this.page + 1;
  }
}

// Throws while it is made.
export class TideTable {  // entity: singleton TideTable eager language
  private static readonly table = new TideTable();  // finding: init.may-throw
  private rows = 0;

  private constructor() {
    if (this.rows === 0) {
      throw new Error("no tides");
    }
  }

  static get(): TideTable {
    return TideTable.table;
  }

  next(): number {
    this.rows = this.rows + 1;
    return this.rows;
  }
}

// Opens what nothing closes; near miss: closed at its end.
export class EchoLog {  // entity: singleton EchoLog eager language
  private static readonly log = new EchoLog();
  private file = 0;

  private constructor() {}

  static get(): EchoLog {
    return EchoLog.log;
  }

  begin(): void {
    this.file = fs.openSync("echoes", "r");  // finding: lifetime.never-released
  }

  next(): number {
    return this.file + 1;
  }
}

export class WaveLog {  // entity: singleton WaveLog eager language
  private static readonly log = new WaveLog();
  private file = 0;

  private constructor() {}

  static get(): WaveLog {
    return WaveLog.log;
  }

  begin(): void {
    this.file = fs.openSync("waves", "r");  // near: lifetime.never-released
  }

  next(): number {
    return this.file + 1;
  }

  close(): void {
    fs.closeSync(this.file);
  }
}

// Used after its end; near miss: opened again.
export class Gauge {  // entity: singleton Gauge eager language
  private static readonly gauge = new Gauge();
  private level = 0;
  private opened = true;

  private constructor() {}

  static get(): Gauge {
    return Gauge.gauge;
  }

  close(): void {
    this.opened = false;
  }

  open(): void {
    this.opened = true;
  }

  measure(): number {
    this.level = this.level + 1;
    return this.level;
  }
}

export function endOfDay(): number {
  Gauge.get().close();
  return Gauge.get().measure();  // finding: lifetime.used-after-teardown
}

export function newDay(): number {
  Gauge.get().close();
  Gauge.get().open();
  return Gauge.get().measure();  // near: lifetime.used-after-teardown
}

// Makes its own helper that reads files; near miss: it is handed in.
export class ChartStore {
  depth(place: string): number {
    return fs.readFileSync(place).length;
  }
}

export class Navigator {
  private readonly store = new ChartStore();  // finding: coupling.fixed-collaborator

  depth(): number {
    return this.store.depth("roads");
  }
}

export class Mate {
  constructor(private readonly store: ChartStore) {}  // near: coupling.fixed-collaborator

  depth(): number {
    return this.store.depth("bay");
  }
}

// One object reached through another.
export class Buoyage {  // entity: singleton Buoyage eager language
  private static readonly buoyage = new Buoyage();
  private laid = 0;

  private constructor() {}

  static get(): Buoyage {
    return Buoyage.buoyage;
  }

  lay(): void {
    this.laid = 1;
  }
}

export class Fairway {  // entity: singleton Fairway eager language
  private static readonly fairway = new Fairway();
  private depth = 0;

  private constructor() {}

  static get(): Fairway {
    return Fairway.fairway;
  }

  marks(): Buoyage {
    return Buoyage.get();
  }

  dredge(): void {
    this.depth = 1;
  }
}

export class Tender {
  work(): void {
    Fairway.get().marks().lay();  // finding: coupling.chained-access coupling.hidden-dependency
    Fairway.get().dredge();  // near: coupling.chained-access
  }
}

// Made at load, and used by nobody.
class Spare {
  private parts = 0;

  take(): void {
    this.parts = this.parts - 1;
  }
}

const spare = new Spare();  // entity: shared-instance spare eager language // finding: init.eager-unused

// Reached from everywhere; near miss: four classes.
export class Siren {  // entity: singleton Siren eager language // finding: coupling.wide-reach
  private static readonly siren = new Siren();
  private sounded = 0;

  private constructor() {}

  static get(): Siren {
    return Siren.siren;
  }

  sound(): void {
    this.sounded = 1;
  }
}

export class Bell {  // near: coupling.wide-reach  // entity: singleton Bell eager language
  private static readonly bell = new Bell();
  private rung = 0;

  private constructor() {}

  static get(): Bell {
    return Bell.bell;
  }

  ring(): void {
    this.rung = 1;
  }
}

export class NorthQuay {
  fog(): void {
    Siren.get().sound();  // finding: coupling.hidden-dependency
    Bell.get().ring();  // finding: coupling.hidden-dependency
  }
}

export class SouthQuay {
  fog(): void {
    Siren.get().sound();
    Bell.get().ring();
  }
}

export class EastQuay {
  fog(): void {
    Siren.get().sound();
    Bell.get().ring();
  }
}

export class WestQuay {
  fog(): void {
    Siren.get().sound();
  }
}

export class InnerQuay {
  fog(): void {
    Siren.get().sound();
  }
}

// Starts them all; near miss: only five.
export class Opening {
  open(): void {  // finding: coupling.crowded-startup
    Beacon.get().flash();  // finding: coupling.hidden-dependency
    Siren.get().sound();
    Bell.get().ring();
    WaveLog.get().begin();  // finding: coupling.hidden-dependency
    EchoLog.get().begin();  // finding: coupling.hidden-dependency
    Berth.get().moor();  // finding: coupling.hidden-dependency
  }

  half(): void {  // near: coupling.crowded-startup
    Siren.get().sound();
    Bell.get().ring();
    Lantern.get().light();  // finding: coupling.hidden-dependency
    Plate.get("north").rename("N");
    Plate.get("south").rename("S");
    Buoy.get("one").rename("1");  // finding: coupling.hidden-dependency
  }
}

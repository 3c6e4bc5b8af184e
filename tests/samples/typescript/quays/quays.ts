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

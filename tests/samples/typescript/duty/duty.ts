// Starts, lists and ties of a harbour on duty.
import * as fs from 'fs';

// Each needs the other while it is made.
export class Light {  // entity: singleton Light lazy single-threaded
  private static one: Light | null = null;
  private tall = 0;
  private constructor() {
    this.tall = Mole.get().length() / 2;  // finding: coupling.cycle coupling.hidden-dependency
  }
  static get(): Light {
    if (Light.one === null) {
      Light.one = new Light();  // finding: init.cycle
    }
    return Light.one;
  }
  height(): number {
    return this.tall++;
  }
}
export class Mole {  // entity: singleton Mole lazy single-threaded
  private static one: Mole | null = null;
  private long = 0;
  private constructor() {
    this.long = Light.get().height() * 2;  // finding: coupling.cycle coupling.hidden-dependency
  }
  static get(): Mole {
    if (Mole.one === null) {
      Mole.one = new Mole();
    }
    return Mole.one;
  }
  length(): number {
    return this.long++;
  }
}

// Asks for itself.
export class DutyBook {  // entity: singleton DutyBook lazy single-threaded
  private static one: DutyBook | null = null;
  private entries = 0;
  private constructor() {
    this.begin();
  }
  static get(): DutyBook {
    if (DutyBook.one === null) {
      DutyBook.one = new DutyBook();
    }
    return DutyBook.one;
  }
  private begin(): void {
    DutyBook.get().enter();  // finding: init.reentrant
  }
  enter(): void {
    this.entries++;
  }
}

// Works only after a call, and is used before it; near miss: tests for it.
export class Chart {
  depth(): number {
    return 4;
  }
}
export class Plotter {
  private chart: Chart | null = null;
  private spare: Chart | null = null;
  load(chart: Chart): void {
    this.chart = chart;
  }
  depth(): number {
    return this.chart!.depth();
  }
  keep(chart: Chart): void {
    this.spare = chart;
  }
  spareDepth(): number {
    return this.spare === null ? 0 : this.spare.depth();
  }
}
export const plotter = new Plotter();  // entity: shared-instance plotter eager language
export function soundings(): number {
  const depth = plotter.depth();  // finding: init.needs-setup
  plotter.load(new Chart());
  return depth + plotter.spareDepth();
}

// The failure is told to a log only.
class Barograph {
  pressure = 0;
  constructor() {
    try {
      this.pressure = fs.readFileSync('pressure').length;
    } catch (failure) {  // finding: init.failure-swallowed
      console.error(failure);
    }
  }
  fall(): void {
    this.pressure -= 1;
  }
}
export const barograph = new Barograph();  // entity: shared-instance barograph eager language // finding: init.eager-heavy

// Reads the environment.
class NamePlate {
  name = process.env.HARBOUR;  // finding: init.reads-environment
  rename(name: string): void {
    this.name = name;
  }
}
export const plate = new NamePlate();  // entity: shared-instance plate eager language

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
    mast.attach(this);  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
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

// Only ever added to, and keeps what is made for one visit.
export class Logbook {  // entity: singleton Logbook eager language
  private static readonly log = new Logbook();
  private lines: string[] = [];
  private visit: Visit | null = null;
  private constructor() {}
  static get(): Logbook {
    return Logbook.log;
  }
  write(line: string): void {
    this.lines.push(line);  // finding: lifetime.grows-forever
  }
  begin(visit: Visit): void {
    this.visit = visit;
  }
}
export class Visit {
  enter(): void {
    Logbook.get().begin(this);  // finding: lifetime.captured-short-lived coupling.hidden-dependency
  }
}

// Circles: knows who uses it.
export class Plan {  // entity: singleton Plan eager language
  private static readonly plan = new Plan();
  private taken = 0;
  private constructor() {}
  static get(): Plan {
    return Plan.plan;
  }
  change(berther: Berther): void {
    this.taken++;
    berther.stop();  // finding: coupling.cycle
  }
  berths(): number {
    return this.taken;
  }
}
export class Berther {
  private free = 0;
  arrive(): void {
    this.free = Plan.get().berths();  // finding: coupling.hidden-dependency
  }
  stop(): void {
    this.free = 0;
  }
}

// Nothing to hand in.
export class Dues {  // entity: static-holder Dues eager language // finding: coupling.static-only-api
  private static total = 0;
  static add(coins: number): void {
    Dues.total = Dues.total + coins;
  }
  static sum(): number {
    return Dues.total;
  }
}
export class Tollhouse {
  pay(): void {
    Dues.add(3);  // finding: coupling.hidden-dependency
  }
}
export class Treasurer {
  count(): number {
    return Dues.sum();
  }
}

// Passed through three functions that do nothing with it.
export class Permit {
  valid(): boolean {
    return true;
  }
}
function check(permit: Permit): boolean {
  return permit.valid();
}
function gate(permit: Permit): boolean {
  return check(permit);
}
function quay(permit: Permit): boolean {
  return gate(permit);
}
export function pier(permit: Permit): boolean {  // finding: coupling.long-handoff
  return quay(permit);
}

/** There is only one office in the harbour. */
export class Office {  // finding: single.meant-single
  private opened = 0;
  open(): void {
    this.opened++;
  }
}
export function day(): void {
  const first = new Office();
  const second = new Office();
  first.open();
  second.open();
  new Visit().enter();
}

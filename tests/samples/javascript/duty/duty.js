// Starts, lists and ties of a harbour on duty.
import fs from 'fs';

// Throws while it is made, at load.
class TideTable {
  constructor(text) {
    this.rows = text.length;
    if (!this.rows) {
      throw new Error('no tides');
    }
  }
  row() {
    this.rows += 1;
    return this.rows;
  }
}
export const tides = new TideTable('');  // entity: shared-instance tides eager language // finding: init.may-throw

// Near miss: throws for what it is given only, and that is a constant.
class NeapTable {
  constructor(rows) {
    if (!rows) {
      throw new Error('no neaps');
    }
    this.rows = rows;
  }
  row() {
    this.rows += 1;
    return this.rows;
  }
}
export const neaps = new NeapTable(14);  // entity: shared-instance neaps eager language

// The failure is dropped; near miss: it is told.
class Barograph {
  constructor() {
    this.pressure = 0;
    try {
      this.pressure = fs.readFileSync('pressure').length;
    } catch (failure) {  // finding: init.failure-swallowed
    }
  }
  fall() {
    this.pressure -= 1;
  }
}
export const barograph = new Barograph();  // entity: shared-instance barograph eager language // finding: init.eager-heavy

class Thermograph {
  constructor() {
    this.degrees = 0;
    try {
      this.degrees = fs.readFileSync('degrees').length;
    } catch (failure) {
      throw new Error('no degrees');
    }
  }
  fall() {
    this.degrees -= 1;
  }
}
export const thermograph = new Thermograph();  // entity: shared-instance thermograph eager language // finding: init.eager-heavy init.may-throw

// Reads the environment.
class NamePlate {
  constructor() {
    this.name = process.env.HARBOUR;  // finding: init.reads-environment
  }
  rename(name) {
    this.name = name;
  }
}
export const plate = new NamePlate();  // entity: shared-instance plate eager language

// Works only after a call, and is used before it.
class Chart {
  depth() {
    return 4;
  }
}
class Plotter {
  constructor() {
    this.chart = null;
  }
  load(chart) {
    this.chart = chart;
  }
  depth() {
    return this.chart.depth();
  }
}
export const plotter = new Plotter();  // entity: shared-instance plotter eager language
export function soundings() {
  const depth = plotter.depth();  // finding: init.needs-setup
  plotter.load(new Chart());
  return depth;
}

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
    mast.attach(this);  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
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
    calls.push((signal) => this.heard(signal));  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
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

// Registered by its constructor and again by a method.
export class Steward {
  constructor() {
    mast.attach(this);
  }
  wake() {
    mast.attach(this);  // finding: lifetime.duplicate-subscription
  }
  heard(signal) {
    this.last = signal;
  }
  close() {
    mast.detach(this);
  }
}

// Only ever added to; near miss: given a limit.
const lines = [];  // entity: global-variable lines eager language
const recent = [];  // entity: global-variable recent eager language
export function write(line) {
  lines.push(line);  // finding: lifetime.grows-forever
}
export function keep(line) {
  recent.push(line);  // near: lifetime.grows-forever
  if (recent.length > 20) {
    recent.shift();
  }
}

// Used after its end; near miss: opened again.
class Gauge {
  constructor() {
    this.level = 0;
    this.isOpen = true;
  }
  close() {
    this.isOpen = false;
  }
  open() {
    this.isOpen = true;
  }
  measure() {
    this.level += 1;
    return this.level;
  }
}
export const gauge = new Gauge();  // entity: shared-instance gauge eager language
export function evening() {
  gauge.close();
  return gauge.measure();  // finding: lifetime.used-after-teardown
}
export function morning() {
  gauge.close();
  gauge.open();
  return gauge.measure();
}

// Makes its own helper that reads files; near miss: it is handed in.
class ChartStore {
  depth(place) {
    return fs.readFileSync(place).length;
  }
}
export class Navigator {
  constructor() {
    this.store = new ChartStore();  // finding: coupling.fixed-collaborator
  }
  depth() {
    return this.store.depth('roads');
  }
}
export class Mate {
  constructor(store) {
    this.store = store;
  }
  depth() {
    return this.store.depth('bay');
  }
}

// There is only one office in the harbour.
export class Office {  // finding: single.meant-single
  open() {
    this.opened = true;
  }
}
export function day() {
  const first = new Office();
  const second = new Office();
  first.open();
  second.open();
}

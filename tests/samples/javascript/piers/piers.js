// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
import fs from 'fs';
import { fees } from './ledgers/fees.js';

// Not a singleton: each pier has one.
export class Ladder {  // near: single.meant-single
  rungs = 4;

  climb() {
    this.rungs = 3;
  }
}

// One is handed out, and a helper makes another.
export class Capstan {  // entity: singleton Capstan lazy single-threaded  // finding: single.open-constructor
  static one = null;
  turns = 0;

  static capstan() {
    if (!Capstan.one) {
      Capstan.one = new Capstan();
    }
    return Capstan.one;
  }

  turn() {
    this.turns = 1;
  }
}

export function spareCapstan() {
  return new Capstan();  // finding: single.second-creation
}

// Put in another's place by whoever asks for it.
export class Flare {
  lit = 0;

  light() {
    this.lit = 1;
  }
}

export class Rocket extends Flare {
  fly() {
    this.light();
  }
}

let flareNow = null;  // entity: shared-instance flareNow lazy single-threaded

export function flare() {
  if (!flareNow) {
    flareNow = new Flare();
  }
  return flareNow;
}

// Near misses: never set again.
const torchNow = new Flare();  // near: single.replaceable init.eager-heavy  // entity: shared-instance torchNow eager language

export function torch() {
  return torchNow;
}

let wickNow = null;  // entity: shared-instance wickNow lazy single-threaded

export function wick() {
  if (!wickNow) {
    wickNow = new Flare();  // near: single.replaceable
  }
  return wickNow;
}

// A circle of three; near misses: what is called later is no part of the making.
export class Crane {  // entity: singleton Crane lazy single-threaded
  static one = null;
  load;

  constructor() {  // finding: single.open-constructor
    this.load = Winch.winch().rope;  // finding: coupling.hidden-dependency
  }

  static crane() {
    if (!Crane.one) {
      Crane.one = new Crane();  // finding: init.cycle
    }
    return Crane.one;
  }

  turn() {
    this.load = 1;
  }
}

export class Winch {  // entity: singleton Winch lazy single-threaded
  static one = null;
  rope;

  constructor() {  // finding: single.open-constructor
    this.rope = Hook.hook().weight;  // finding: coupling.hidden-dependency
  }

  static winch() {
    if (!Winch.one) {
      Winch.one = new Winch();
    }
    return Winch.one;
  }
}

export class Hook {  // entity: singleton Hook lazy single-threaded
  static one = null;
  weight;

  constructor() {  // finding: single.open-constructor
    this.weight = Crane.crane().load;  // finding: coupling.hidden-dependency
  }

  static hook() {
    if (!Hook.one) {
      Hook.one = new Hook();
    }
    return Hook.one;
  }
}

export class Tackle {
  blocks = 2;

  pull() {  // near: coupling.cycle
    this.blocks = 3;
  }

  strain(tons) {
    if (tons < 0) {
      throw new Error('tons');
    }
    this.blocks = tons;
  }
}

export class Davit {
  boats;

  constructor() {  // near: init.cycle init.reentrant init.reads-environment
    this.boats = 0;
  }

  lower() {
    tackle.pull();  // near: coupling.cycle  // finding: coupling.hidden-dependency
    this.boats = 1;
  }
}

export const tackle = new Tackle();  // near: init.cycle init.reentrant init.may-throw init.eager-heavy  // entity: shared-instance tackle eager language
export const davit = new Davit();  // near: init.may-throw init.order-within-class  // entity: shared-instance davit eager language

// Asks for itself through a helper.
export class LogBook {  // entity: singleton LogBook lazy single-threaded
  static one = null;
  lines = 0;

  constructor() {  // finding: single.open-constructor
    greet();
  }

  static book() {
    if (!LogBook.one) {
      LogBook.one = new LogBook();
    }
    return LogBook.one;
  }

  write() {
    this.lines = 1;
  }
}

function greet() {
  LogBook.book().write();  // finding: init.reentrant
}

// Reads the environment while it is made; near misses: asked later, or handed in.
export class Flags {
  home;

  constructor() {
    this.home = process.env.HARBOUR || '';  // finding: init.reads-environment
  }

  rename(name) {
    this.home = name;
  }
}

export const flags = new Flags();  // entity: shared-instance flags eager language

// Reads a file while the program is loaded.
export class Almanac {
  rows;

  constructor() {
    this.rows = fs.readFileSync('almanac', 'utf8').split('\n');
  }

  drop() {
    this.rows.pop();
  }
}

export const almanac = new Almanac();  // finding: init.eager-heavy  // entity: shared-instance almanac eager language

// Throws where it stands.
export class Scale {
  tons;

  constructor() {
    this.tons = fs.existsSync('scale') ? 1 : 0;
    if (this.tons === 0) {
      throw new Error('no scale');
    }
  }

  load() {
    this.tons = 2;
  }
}

export const scale = new Scale();  // finding: init.may-throw  // entity: shared-instance scale eager language

// Needs what stands further down; near miss: asked for when it is there.
export class Stairs {
  steps;

  constructor() {
    this.steps = heights.get('stairs') || 0;  // finding: coupling.hidden-dependency
  }

  climb() {
    this.steps = heights.get('stairs') || 0;  // near: init.order-within-class
  }
}

export const stairs = new Stairs();  // finding: init.order-within-class  // entity: shared-instance stairs eager language
const heights = new Map();  // entity: global-variable heights eager language

export function raiseStairs(by) {
  heights.set('stairs', by);
}

// Made, and used by nobody; near misses: used by a function, or handed out.
const bench = new Flare();  // finding: init.eager-unused  // entity: shared-instance bench eager language
const stool = new Flare();  // near: init.eager-unused  // entity: shared-instance stool eager language
export const chair = new Flare();  // near: init.eager-unused  // entity: shared-instance chair eager language

export function rest() {
  stool.light();
}

// The failure goes nowhere; near misses: it is told, or handed on.
export class Barometer {
  pressure = 0;

  constructor() {
    try {
      this.pressure = fs.readFileSync('barometer').length;
    } catch {  // finding: init.failure-swallowed
    }
  }

  fall() {
    this.pressure = 1;
  }
}

let barometerNow = null;  // entity: shared-instance barometerNow lazy single-threaded

export function barometer() {
  if (!barometerNow) {
    barometerNow = new Barometer();
  }
  return barometerNow;
}

export class Hygrometer {
  damp = 0;

  constructor() {
    try {
      this.damp = fs.readFileSync('hygrometer').length;
    } catch (error) {
      throw new Error('no hygrometer');  // near: init.failure-swallowed
    }
  }

  rise() {
    this.damp = 1;
  }
}

export class Anemometer {
  wind = 0;

  constructor() {
    try {
      this.wind = fs.readFileSync('anemometer').length;
    } catch (error) {
      console.error('no anemometer', error);  // near: init.failure-swallowed
      throw error;
    }
  }

  blow() {
    this.wind = 1;
  }
}

let hygrometerNow = null;  // entity: shared-instance hygrometerNow lazy single-threaded
let anemometerNow = null;  // entity: shared-instance anemometerNow lazy single-threaded

export function hygrometer() {
  if (!hygrometerNow) {
    hygrometerNow = new Hygrometer();  // near: init.eager-heavy  // finding: init.may-throw
  }
  return hygrometerNow;
}

export function anemometer() {
  if (!anemometerNow) {
    anemometerNow = new Anemometer();  // finding: init.may-throw
  }
  return anemometerNow;
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
export class Radio {
  channel = 16;

  tune(channel) {
    this.channel = channel;
  }
}

let radioNow = null;  // entity: shared-instance radioNow lazy single-threaded
let sonarNow = null;  // entity: shared-instance sonarNow lazy single-threaded
let radarNow = null;  // entity: shared-instance radarNow lazy single-threaded

export async function radio() {
  if (radioNow === null) {
    const channel = await askForChannel();  // finding: thread.await-gap
    radioNow = new Radio();
    radioNow.tune(channel);
  }
  return radioNow;
}

export async function sonar() {
  const channel = await askForChannel();  // near: thread.await-gap
  if (sonarNow === null) {
    sonarNow = new Radio();
    sonarNow.tune(channel);
  }
  return sonarNow;
}

export async function radar() {
  if (radarNow === null) {
    radarNow = askForRadar();
  }
  return await radarNow;  // near: thread.await-gap
}

async function askForRadar() {
  await askForChannel();
  return new Radio();
}

async function askForChannel() {
  return 16;
}

// Opens what nothing closes; near misses: closed in the same function, or at the end.
export class Soundings {
  file = 0;
  read = 0;

  open(name) {
    this.file = fs.openSync(name, 'r');  // finding: lifetime.never-released
  }

  next() {
    this.read = this.file;
  }
}

export class Tides {
  file = 0;

  open(name) {
    this.file = fs.openSync(name, 'r');  // near: lifetime.never-released
  }

  close() {
    fs.closeSync(this.file);
  }
}

export const soundings = new Soundings();  // entity: shared-instance soundings eager language
export const tides = new Tides();  // entity: shared-instance tides eager language

// Walks over the list itself, and registers whoever asks; near misses: over a copy, and with a look first.
export class Bells {
  ringers = [];
  players = [];

  add(ringer) {
    this.ringers.push(ringer);
  }

  remove(ringer) {
    this.ringers.splice(this.ringers.indexOf(ringer), 1);
  }

  ring() {
    for (const ringer of this.ringers) {  // finding: lifetime.notify-while-changing
      ringer.ring();
    }
  }

  addPlayer(player) {
    if (!this.players.includes(player)) {
      this.players.push(player);  // near: lifetime.duplicate-subscription lifetime.grows-forever
    }
  }

  removePlayer(player) {
    this.players.splice(this.players.indexOf(player), 1);
  }

  play() {
    for (const player of [...this.players]) {  // near: lifetime.notify-while-changing
      player.play();
    }
  }

  count() {
    let strokes = 0;
    for (const player of this.players) {  // near: lifetime.notify-while-changing
      strokes += player.strokes;
    }
    return strokes;
  }
}

export const bells = new Bells();  // entity: shared-instance bells eager language

// Keeps the caller's object; near misses: only what it says, or for a while.
export class Porter {
  caller = null;
  last = '';
  seen = [];

  keep(caller) {
    this.caller = caller;
  }

  note(caller) {
    this.last = caller.ship;
  }

  write(caller) {
    this.seen.push(caller.ship);  // near: lifetime.grows-forever
    if (this.seen.length > 9) {
      this.seen.shift();
    }
  }
}

export const porter = new Porter();  // entity: shared-instance porter eager language

export class Caller {
  ship;

  constructor(ship) {
    this.ship = ship;
  }

  enter() {
    porter.keep(this);  // finding: coupling.hidden-dependency lifetime.captured-short-lived
  }

  passBy() {
    porter.note(this);  // near: lifetime.captured-short-lived
    porter.write(this);  // near: lifetime.captured-short-lived
  }
}

export function receive(ship) {
  const caller = new Caller(ship);
  caller.enter();
  caller.passBy();
}

// Nothing to hand in; near misses: no state, or one caller.
export class Tickets {  // finding: coupling.static-only-api  // entity: static-holder Tickets eager language
  static sold = 0;

  static sell() {
    Tickets.sold = 1;
  }

  static count() {
    return Tickets.sold;
  }
}

export class Knots {  // near: coupling.static-only-api
  static bowline(turns) {
    return turns + 1;
  }

  static hitch(turns) {
    return turns + 2;
  }
}

export class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
  static used = 0;

  static use() {
    Bollards.used = 1;
  }
}

export class Sailor {
  tie() {
    Bollards.use();  // finding: coupling.hidden-dependency
    Tickets.sell();  // finding: coupling.hidden-dependency
    return Knots.bowline(2);
  }
}

export class Rower {
  tie() {
    return Knots.hitch(Tickets.count());
  }
}

export function stamp(papers) {
  return papers.inOrder();
}

export function clerk(papers) {
  return stamp(papers);
}

export function counter(papers) {
  return clerk(papers);
}

export function entrance(papers) {
  return counter(papers);
}

export function door(papers) {  // finding: coupling.long-handoff
  return entrance(papers);
}

// Reached from six places; near miss: two.
export class Gong {
  struck = 0;

  strike() {
    this.struck = 1;
  }
}

export const gong = new Gong();  // finding: coupling.wide-reach  // entity: shared-instance gong eager language
export const whistle = new Gong();  // near: coupling.wide-reach  // entity: shared-instance whistle eager language

export class Pier1 {
  fog() {
    gong.strike();  // finding: coupling.hidden-dependency
    whistle.strike();  // finding: coupling.hidden-dependency
  }
}

export class Pier2 {
  fog() {
    gong.strike();
    whistle.strike();
  }
}

export class Pier3 {
  fog() {
    gong.strike();
  }
}

export class Pier4 {
  fog() {
    gong.strike();
  }
}

export class Pier5 {
  fog() {
    gong.strike();
  }
}

// One slot for a family; near miss: one for each of it.
export class Raft {  // entity: singleton Raft lazy single-threaded  // finding: single.open-constructor
  static one = null;
  logs = 4;

  static raft() {
    if (!Raft.one) {
      Raft.one = new this();  // finding: single.slot-shared-by-subclasses
    }
    return Raft.one;
  }

  sink() {
    this.logs = 0;
  }
}

export class WideRaft extends Raft {
  load() {
    this.sink();
  }
}

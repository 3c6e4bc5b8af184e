// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
import fs from 'fs';
import { fees } from './ledgers/fees.js';

// There must be only one.
export class TideTable {  // finding: single.meant-single
  shown = 0;

  show() {
    this.shown = 1;
  }
}

// Not a singleton: each pier has one.
export class Ladder {  // near: single.meant-single
  rungs = 4;

  climb() {
    this.rungs = 3;
  }
}

// There is only one, and the class sees to it.
export class Anchor {  // near: single.meant-single single.subclassable  // entity: singleton Anchor lazy single-threaded
  static anchorage = null;
  chain = 0;

  constructor() {  // near: single.open-constructor
    if (Anchor.anchorage) {
      throw new Error('the anchor is there');
    }
  }

  static anchor() {
    if (!Anchor.anchorage) {
      Anchor.anchorage = new Anchor();  // near: single.second-creation
    }
    return Anchor.anchorage;  // near: single.may-return-nothing
  }

  lower() {
    this.chain = 1;
  }
}

export class Boatswain {
  own;
  notes = [];  // near: coupling.fixed-collaborator

  constructor(anchor) {  // near: coupling.hidden-dependency coupling.fixed-collaborator
    this.own = anchor;
  }

  moor() {
    this.own.lower();  // near: coupling.hidden-dependency
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

// Near miss: the class makes others of its kind itself.
export class Windlass {
  static one = null;  // entity: shared-instance one lazy single-threaded
  turns = 0;

  static windlass() {
    if (!Windlass.one) {
      Windlass.one = new Windlass();
    }
    return Windlass.one;
  }

  static turned(by) {
    const other = new Windlass();  // near: single.second-creation
    other.turns = by;
    return other;
  }
}

// Hands out nothing while the harbour is closed; near miss: it says so by throwing.
export class Beam {  // entity: singleton Beam lazy single-threaded  // finding: single.open-constructor
  static one = null;
  lit = 0;

  static beam(open) {
    if (!open) {
      return null;  // finding: single.may-return-nothing
    }
    if (!Beam.one) {
      Beam.one = new Beam();
    }
    return Beam.one;
  }

  light() {
    this.lit = 1;
  }
}

export class Glow {  // entity: singleton Glow lazy single-threaded  // finding: single.open-constructor
  static one = null;
  lit = 0;

  static glow(open) {
    if (!open) {
      throw new Error('closed');
    }
    if (!Glow.one) {
      Glow.one = new Glow();
    }
    return Glow.one;  // near: single.may-return-nothing
  }

  light() {
    this.lit = 1;
  }
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

export function useRockets() {
  flareNow = new Rocket();  // finding: single.replaceable
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

export class Pennants {
  home;

  constructor(home) {
    this.home = home;
  }

  reload() {
    this.home = process.env.HARBOUR || '';  // near: init.reads-environment
  }
}

export const pennants = new Pennants('pier');  // entity: shared-instance pennants eager language

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

// Works only after it was set up; near misses: it sees to it itself.
export class Gauge {
  read() {
    return 3;
  }
}

export class Locks {
  gauge = null;
  level = 0;

  setUp(gauge) {
    this.gauge = gauge;
  }

  fill() {
    this.level = this.gauge.read();
  }
}

export class Basin {
  gauge = null;
  level = 0;

  setUp(gauge) {
    this.gauge = gauge;
  }

  fill() {  // near: init.needs-setup
    if (!this.gauge) {
      throw new Error('no gauge');
    }
    this.level = this.gauge.read();
  }

  empty() {  // near: init.needs-setup
    this.level = this.gauge?.read() ?? 0;
  }
}

export const locks = new Locks();  // entity: shared-instance locks eager language
export const basin = new Basin();  // entity: shared-instance basin eager language

export function flood(deep) {
  locks.fill();  // finding: init.needs-setup
  if (deep) {
    locks.setUp(new Gauge());
  }
  basin.setUp(new Gauge());
  basin.fill();
  basin.empty();
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

export class Ringer {
  constructor() {
    bells.add(this);  // finding: coupling.hidden-dependency
  }

  again() {
    bells.add(this);  // finding: lifetime.duplicate-subscription
  }

  close() {
    bells.remove(this);
  }

  ring() {
    this.close();
  }
}

export class Player {
  strokes = 3;

  constructor() {
    bells.addPlayer(this);  // near: lifetime.dangling-subscriber
  }

  again() {
    bells.addPlayer(this);  // near: lifetime.duplicate-subscription
  }

  close() {
    bells.removePlayer(this);
  }

  play() {
    this.close();
  }
}

// Never leaves the list.
export class Drummer {
  beats = 0;

  constructor() {
    bells.add(this);  // finding: lifetime.dangling-subscriber
  }

  close() {
    this.beats = 0;
  }
}

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

// Used after its end; near misses: opened again, or used before.
export class Sluice {
  isOpen = true;
  level = 0;

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

export const sluice = new Sluice();  // entity: shared-instance sluice eager language

export function night() {
  sluice.close();
  console.log('night');
  return sluice.measure();  // finding: lifetime.used-after-teardown
}

export function day() {
  sluice.close();
  sluice.open();
  let level = sluice.measure();  // near: lifetime.used-after-teardown
  level += sluice.measure();  // near: lifetime.used-after-teardown
  sluice.close();
  return level;
}

// Makes its own.
export class Surveyor {
  echo;

  constructor() {
    this.echo = new Echo();  // finding: coupling.fixed-collaborator
  }

  depth() {
    return this.echo.read();
  }
}

export class Echo {
  read() {
    return fs.readFileSync('echo', 'utf8');
  }
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

// Passed on by four; near misses: used on the way, or made there.
export class Papers {
  inOrder() {
    return true;
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

export function gate(papers) {  // near: coupling.long-handoff
  return papers.inOrder() && counter(papers);
}

export function windowed() {  // near: coupling.long-handoff
  return counter(new Papers());
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
export class Buoys {
  lit = 0;

  light() {
    this.lit = 1;
  }
}

export const buoys = new Buoys();  // entity: shared-instance buoys eager language

export class Depths {
  least = 0;

  measure() {
    this.least = 4;
  }
}

export class Channel {  // entity: singleton Channel lazy single-threaded  // finding: single.open-constructor
  static one = null;
  inner = new Depths();

  static channel() {
    if (!Channel.one) {
      Channel.one = new Channel();
    }
    return Channel.one;
  }

  capstan() {
    return Capstan.capstan();
  }

  depths() {
    return this.inner;
  }
}

export class Pilot {
  steer() {
    Channel.channel().capstan().turn();  // finding: coupling.hidden-dependency coupling.chained-access
    Channel.channel().depths().measure();  // near: coupling.chained-access
  }

  dark() {
    buoys.light();  // near: coupling.chained-access  // finding: coupling.hidden-dependency
  }
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

// Begins the day for all; near miss: what is handed in is no reach.
export class Morning {
  begin() {  // finding: coupling.crowded-startup
    gong.strike();
    whistle.strike();
    buoys.light();
    soundings.open('morning');  // finding: coupling.hidden-dependency
    davit.lower();  // finding: coupling.hidden-dependency
    flags.rename('morning');  // finding: coupling.hidden-dependency
    pennants.reload();  // finding: coupling.hidden-dependency
  }

  half(bell, light, line, boat, flag) {  // near: coupling.crowded-startup
    bell.strike();
    light.light();
    line.open('half');
    boat.lower();
    flag.rename('half');
  }
}

// Only the first one's name counts; near miss: it counts each time.
export class Plate {  // entity: singleton Plate lazy single-threaded
  static one = null;
  name;

  constructor(name, size) {  // finding: single.open-constructor
    this.name = name + size;
  }

  static plate(name, size) {  // finding: init.arguments-ignored
    if (!Plate.one) {
      Plate.one = new Plate(name, size);
    }
    return Plate.one;
  }

  rename(name) {
    this.name = name;
  }
}

export class Sign {  // entity: singleton Sign lazy single-threaded
  static one = null;
  name;

  constructor(name) {  // finding: single.open-constructor
    this.name = name;
  }

  static sign(name) {  // near: init.arguments-ignored
    if (!Sign.one) {
      Sign.one = new Sign(name);
    }
    Sign.one.rename(name);
    return Sign.one;
  }

  rename(name) {
    this.name = name;
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

export class Punt {  // entity: singleton Punt lazy single-threaded  // finding: single.open-constructor
  static one = null;
  poles = 1;

  static punt() {
    if (!Punt.one) {
      Punt.one = new Punt();  // near: single.slot-shared-by-subclasses
    }
    return Punt.one;
  }

  push() {
    this.poles = 0;
  }
}

export class Ferry {  // entity: singleton Ferry lazy single-threaded
  static one = null;
  trips = 0;

  constructor() {  // near: single.subclassable  // finding: single.open-constructor
    this.trips = 1;
  }

  static ferry() {
    if (!Ferry.one) {
      Ferry.one = new Ferry();  // near: single.slot-shared-by-subclasses
    }
    return Ferry.one;
  }

  cross() {
    this.trips = 2;
  }
}

export function open() {  // finding: coupling.crowded-startup
  spareCapstan().turn();
  Capstan.capstan().turn();
  flare().light();
  useRockets();
  Plate.plate('a', 1).rename('b');
  Plate.plate('c', 2);
  Sign.sign('a');
  WideRaft.raft().sink();
  Raft.raft().sink();
  Punt.punt().push();
  Ferry.ferry().cross();
  new Boatswain(Anchor.anchor()).moor();
  receive('Heron');
  new Morning().begin();
  almanac.drop();
  scale.load();
  fees.enter(2);
  flood(true);
}

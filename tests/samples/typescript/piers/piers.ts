// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
import * as fs from 'fs';
import { fees } from './ledgers/fees';

// There must be only one.
export class TideTable {  // finding: single.meant-single
  private shown: number = 0;

  show(): void {
    this.shown = 1;
  }
}

// Not a singleton: each pier has one.
export class Ladder {  // near: single.meant-single
  private rungs: number = 4;

  climb(): void {
    this.rungs = 3;
  }
}

// There is only one, and the class sees to it.
export class Anchor {  // near: single.meant-single single.subclassable  // entity: singleton Anchor lazy single-threaded
  private static anchorage: Anchor | null = null;
  private chain: number = 0;

  private constructor() {  // near: single.open-constructor
    if (Anchor.anchorage) {
      throw new Error('the anchor is there');
    }
  }

  static anchor(): Anchor {
    if (!Anchor.anchorage) {
      Anchor.anchorage = new Anchor();  // near: single.second-creation
    }
    return Anchor.anchorage;  // near: single.may-return-nothing
  }

  lower(): void {
    this.chain = 1;
  }
}

export class Boatswain {
  private own: Anchor;
  private notes: string[] = [];  // near: coupling.fixed-collaborator

  constructor(anchor: Anchor) {  // near: coupling.hidden-dependency coupling.fixed-collaborator
    this.own = anchor;
  }

  moor(): void {
    this.own.lower();  // near: coupling.hidden-dependency
  }
}

// One is handed out, and a helper makes another.
export class Capstan {  // entity: singleton Capstan lazy single-threaded  // finding: single.open-constructor
  private static one: Capstan | null = null;
  private turns: number = 0;

  static capstan(): Capstan {
    if (!Capstan.one) {
      Capstan.one = new Capstan();
    }
    return Capstan.one;
  }

  turn(): void {
    this.turns = 1;
  }
}

export function spareCapstan(): Capstan {
  return new Capstan();  // finding: single.second-creation
}

// Near miss: the class makes others of its kind itself.
export class Windlass {
  private static one: Windlass | null = null;  // entity: shared-instance one lazy single-threaded
  private turns: number = 0;

  static windlass(): Windlass {
    if (!Windlass.one) {
      Windlass.one = new Windlass();
    }
    return Windlass.one;
  }

  static turned(by: number): Windlass {
    const other = new Windlass();  // near: single.second-creation
    other.turns = by;
    return other;
  }
}

// Hands out nothing while the harbour is closed; near miss: it says so by throwing.
export class Beam {  // entity: singleton Beam lazy single-threaded  // finding: single.open-constructor
  private static one: Beam | null = null;
  private lit: number = 0;

  static beam(open: boolean): Beam | null {
    if (!open) {
      return null;  // finding: single.may-return-nothing
    }
    if (!Beam.one) {
      Beam.one = new Beam();
    }
    return Beam.one;
  }

  light(): void {
    this.lit = 1;
  }
}

export class Glow {  // entity: singleton Glow lazy single-threaded  // finding: single.open-constructor
  private static one: Glow | null = null;
  private lit: number = 0;

  static glow(open: boolean): Glow {
    if (!open) {
      throw new Error('closed');
    }
    if (!Glow.one) {
      Glow.one = new Glow();
    }
    return Glow.one;  // near: single.may-return-nothing
  }

  light(): void {
    this.lit = 1;
  }
}

// Put in another's place by whoever asks for it.
export class Flare {
  private lit: number = 0;

  light(): void {
    this.lit = 1;
  }
}

export class Rocket extends Flare {
  fly(): void {
    this.light();
  }
}

let flareNow: Flare | null = null;  // entity: shared-instance flareNow lazy single-threaded

export function flare(): Flare {
  if (!flareNow) {
    flareNow = new Flare();
  }
  return flareNow;
}

export function useRockets(): void {
  flareNow = new Rocket();  // finding: single.replaceable
}

// Near misses: never set again.
const torchNow: Flare = new Flare();  // near: single.replaceable init.eager-heavy  // entity: shared-instance torchNow eager language

export function torch(): Flare {
  return torchNow;
}

let wickNow: Flare | null = null;  // entity: shared-instance wickNow lazy single-threaded

export function wick(): Flare {
  if (!wickNow) {
    wickNow = new Flare();  // near: single.replaceable
  }
  return wickNow;
}

// A circle of three; near misses: what is called later is no part of the making.
export class Crane {  // entity: singleton Crane lazy single-threaded
  private static one: Crane | null = null;
  load: number;

  constructor() {  // finding: single.open-constructor
    this.load = Winch.winch().rope;  // finding: coupling.hidden-dependency
  }

  static crane(): Crane {
    if (!Crane.one) {
      Crane.one = new Crane();  // finding: init.cycle
    }
    return Crane.one;
  }

  turn(): void {
    this.load = 1;
  }
}

export class Winch {  // entity: singleton Winch lazy single-threaded
  private static one: Winch | null = null;
  rope: number;

  constructor() {  // finding: single.open-constructor
    this.rope = Hook.hook().weight;  // finding: coupling.hidden-dependency
  }

  static winch(): Winch {
    if (!Winch.one) {
      Winch.one = new Winch();
    }
    return Winch.one;
  }
}

export class Hook {  // entity: singleton Hook lazy single-threaded
  private static one: Hook | null = null;
  weight: number;

  constructor() {  // finding: single.open-constructor
    this.weight = Crane.crane().load;  // finding: coupling.hidden-dependency
  }

  static hook(): Hook {
    if (!Hook.one) {
      Hook.one = new Hook();
    }
    return Hook.one;
  }
}

export class Tackle {
  private blocks: number = 2;

  pull(): void {  // near: coupling.cycle
    this.blocks = 3;
  }

  strain(tons: number): void {
    if (tons < 0) {
      throw new Error('tons');
    }
    this.blocks = tons;
  }
}

export class Davit {
  private boats: number;

  constructor() {  // near: init.cycle init.reentrant init.reads-environment
    this.boats = 0;
  }

  lower(): void {
    tackle.pull();  // near: coupling.cycle  // finding: coupling.hidden-dependency
    this.boats = 1;
  }
}

export const tackle: Tackle = new Tackle();  // near: init.cycle init.reentrant init.may-throw init.eager-heavy  // entity: shared-instance tackle eager language
export const davit: Davit = new Davit();  // near: init.may-throw init.order-within-class  // entity: shared-instance davit eager language

// Asks for itself through a helper.
export class LogBook {  // entity: singleton LogBook lazy single-threaded
  private static one: LogBook | null = null;
  private lines: number = 0;

  constructor() {  // finding: single.open-constructor
    greet();
  }

  static book(): LogBook {
    if (!LogBook.one) {
      LogBook.one = new LogBook();
    }
    return LogBook.one;
  }

  write(): void {
    this.lines = 1;
  }
}

function greet(): void {
  LogBook.book().write();  // finding: init.reentrant
}

// Reads the environment while it is made; near misses: asked later, or handed in.
export class Flags {
  private home: string;

  constructor() {
    this.home = process.env.HARBOUR || '';  // finding: init.reads-environment
  }

  rename(name: string): void {
    this.home = name;
  }
}

export const flags: Flags = new Flags();  // entity: shared-instance flags eager language

export class Pennants {
  private home: string;

  constructor(home: string) {
    this.home = home;
  }

  reload(): void {
    this.home = process.env.HARBOUR || '';  // near: init.reads-environment
  }
}

export const pennants: Pennants = new Pennants('pier');  // entity: shared-instance pennants eager language

// Reads a file while the program is loaded.
export class Almanac {
  private rows: string[];

  constructor() {
    this.rows = fs.readFileSync('almanac', 'utf8').split('\n');
  }

  drop(): void {
    this.rows.pop();
  }
}

export const almanac: Almanac = new Almanac();  // finding: init.eager-heavy  // entity: shared-instance almanac eager language

// Throws where it stands.
export class Scale {
  private tons: number;

  constructor() {
    this.tons = fs.existsSync('scale') ? 1 : 0;
    if (this.tons === 0) {
      throw new Error('no scale');
    }
  }

  load(): void {
    this.tons = 2;
  }
}

export const scale: Scale = new Scale();  // finding: init.may-throw  // entity: shared-instance scale eager language

// Needs what stands further down; near miss: asked for when it is there.
export class Stairs {
  private steps: number;

  constructor() {
    this.steps = heights.get('stairs') || 0;  // finding: coupling.hidden-dependency
  }

  climb(): void {
    this.steps = heights.get('stairs') || 0;  // near: init.order-within-class
  }
}

export const stairs: Stairs = new Stairs();  // finding: init.order-within-class  // entity: shared-instance stairs eager language
const heights: Map<string, number> = new Map<string, number>();  // entity: global-variable heights eager language

export function raiseStairs(by: number): void {
  heights.set('stairs', by);
}

// Made, and used by nobody; near misses: used by a function, or handed out.
const bench: Flare = new Flare();  // finding: init.eager-unused  // entity: shared-instance bench eager language
const stool: Flare = new Flare();  // near: init.eager-unused  // entity: shared-instance stool eager language
export const chair: Flare = new Flare();  // near: init.eager-unused  // entity: shared-instance chair eager language

export function rest(): void {
  stool.light();
}

// Works only after it was set up; near misses: it sees to it itself.
export class Gauge {
  read(): number {
    return 3;
  }
}

export class Locks {
  private gauge: Gauge | null = null;
  private level: number = 0;

  setUp(gauge: Gauge): void {
    this.gauge = gauge;
  }

  fill(): void {
    this.level = this.gauge!.read();
  }
}

export class Basin {
  private gauge: Gauge | null = null;
  private level: number = 0;

  setUp(gauge: Gauge): void {
    this.gauge = gauge;
  }

  fill(): void {  // near: init.needs-setup
    if (!this.gauge) {
      throw new Error('no gauge');
    }
    this.level = this.gauge.read();
  }

  empty(): void {  // near: init.needs-setup
    this.level = this.gauge?.read() ?? 0;
  }
}

export const locks: Locks = new Locks();  // entity: shared-instance locks eager language
export const basin: Basin = new Basin();  // entity: shared-instance basin eager language

export function flood(deep: boolean): void {
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
  private pressure: number = 0;

  constructor() {
    try {
      this.pressure = fs.readFileSync('barometer').length;
    } catch {  // finding: init.failure-swallowed
    }
  }

  fall(): void {
    this.pressure = 1;
  }
}

let barometerNow: Barometer | null = null;  // entity: shared-instance barometerNow lazy single-threaded

export function barometer(): Barometer {
  if (!barometerNow) {
    barometerNow = new Barometer();
  }
  return barometerNow;
}

export class Hygrometer {
  private damp: number = 0;

  constructor() {
    try {
      this.damp = fs.readFileSync('hygrometer').length;
    } catch (error) {
      throw new Error('no hygrometer');  // near: init.failure-swallowed
    }
  }

  rise(): void {
    this.damp = 1;
  }
}

export class Anemometer {
  private wind: number = 0;

  constructor() {
    try {
      this.wind = fs.readFileSync('anemometer').length;
    } catch (error) {
      console.error('no anemometer', error);  // near: init.failure-swallowed
      throw error;
    }
  }

  blow(): void {
    this.wind = 1;
  }
}

let hygrometerNow: Hygrometer | null = null;  // entity: shared-instance hygrometerNow lazy single-threaded
let anemometerNow: Anemometer | null = null;  // entity: shared-instance anemometerNow lazy single-threaded

export function hygrometer(): Hygrometer {
  if (!hygrometerNow) {
    hygrometerNow = new Hygrometer();  // near: init.eager-heavy  // finding: init.may-throw
  }
  return hygrometerNow;
}

export function anemometer(): Anemometer {
  if (!anemometerNow) {
    anemometerNow = new Anemometer();  // finding: init.may-throw
  }
  return anemometerNow;
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
export class Radio {
  private channel: number = 16;

  tune(channel: number): void {
    this.channel = channel;
  }
}

let radioNow: Radio | null = null;  // entity: shared-instance radioNow lazy single-threaded
let sonarNow: Radio | null = null;  // entity: shared-instance sonarNow lazy single-threaded
let radarNow: Promise<Radio> | null = null;  // entity: shared-instance radarNow lazy single-threaded

export async function radio(): Promise<Radio> {
  if (radioNow === null) {
    const channel = await askForChannel();  // finding: thread.await-gap
    radioNow = new Radio();
    radioNow.tune(channel);
  }
  return radioNow;
}

export async function sonar(): Promise<Radio> {
  const channel = await askForChannel();  // near: thread.await-gap
  if (sonarNow === null) {
    sonarNow = new Radio();
    sonarNow.tune(channel);
  }
  return sonarNow;
}

export async function radar(): Promise<Radio> {
  if (radarNow === null) {
    radarNow = askForRadar();
  }
  return await radarNow;  // near: thread.await-gap
}

async function askForRadar(): Promise<Radio> {
  await askForChannel();
  return new Radio();
}

async function askForChannel(): Promise<number> {
  return 16;
}

// Opens what nothing closes; near misses: closed in the same function, or at the end.
export class Soundings {
  private file: number = 0;
  private read: number = 0;

  open(name: string): void {
    this.file = fs.openSync(name, 'r');  // finding: lifetime.never-released
  }

  next(): void {
    this.read = this.file;
  }
}

export class Tides {
  private file: number = 0;

  open(name: string): void {
    this.file = fs.openSync(name, 'r');  // near: lifetime.never-released
  }

  close(): void {
    fs.closeSync(this.file);
  }
}

export const soundings: Soundings = new Soundings();  // entity: shared-instance soundings eager language
export const tides: Tides = new Tides();  // entity: shared-instance tides eager language

// Walks over the list itself, and registers whoever asks; near misses: over a copy, and with a look first.
export class Bells {
  private ringers: Ringer[] = [];
  private players: Player[] = [];

  add(ringer: Ringer): void {
    this.ringers.push(ringer);
  }

  remove(ringer: Ringer): void {
    this.ringers.splice(this.ringers.indexOf(ringer), 1);
  }

  ring(): void {
    for (const ringer of this.ringers) {  // finding: lifetime.notify-while-changing
      ringer.ring();
    }
  }

  addPlayer(player: Player): void {
    if (!this.players.includes(player)) {
      this.players.push(player);  // near: lifetime.duplicate-subscription lifetime.grows-forever
    }
  }

  removePlayer(player: Player): void {
    this.players.splice(this.players.indexOf(player), 1);
  }

  play(): void {
    for (const player of [...this.players]) {  // near: lifetime.notify-while-changing
      player.play();
    }
  }

  count(): number {
    let strokes = 0;
    for (const player of this.players) {  // near: lifetime.notify-while-changing
      strokes += player.strokes;
    }
    return strokes;
  }
}

export const bells: Bells = new Bells();  // entity: shared-instance bells eager language

export class Ringer {
  constructor() {
    bells.add(this);  // finding: coupling.hidden-dependency
  }

  again(): void {
    bells.add(this);  // finding: lifetime.duplicate-subscription
  }

  close(): void {
    bells.remove(this);
  }

  ring(): void {
    this.close();
  }
}

export class Player {
  strokes: number = 3;

  constructor() {
    bells.addPlayer(this);  // near: lifetime.dangling-subscriber
  }

  again(): void {
    bells.addPlayer(this);  // near: lifetime.duplicate-subscription
  }

  close(): void {
    bells.removePlayer(this);
  }

  play(): void {
    this.close();
  }
}

// Never leaves the list.
export class Drummer {
  private beats: number = 0;

  constructor() {
    bells.add(this as unknown as Ringer);  // finding: lifetime.dangling-subscriber
  }

  close(): void {
    this.beats = 0;
  }
}

// Keeps the caller's object; near misses: only what it says, or for a while.
export class Porter {
  private caller: Caller | null = null;
  private last: string = '';
  private seen: string[] = [];

  keep(caller: Caller): void {
    this.caller = caller;
  }

  note(caller: Caller): void {
    this.last = caller.ship;
  }

  write(caller: Caller): void {
    this.seen.push(caller.ship);  // near: lifetime.grows-forever
    if (this.seen.length > 9) {
      this.seen.shift();
    }
  }
}

export const porter: Porter = new Porter();  // entity: shared-instance porter eager language

export class Caller {
  ship: string;

  constructor(ship: string) {
    this.ship = ship;
  }

  enter(): void {
    porter.keep(this);  // finding: coupling.hidden-dependency lifetime.captured-short-lived
  }

  passBy(): void {
    porter.note(this);  // near: lifetime.captured-short-lived
    porter.write(this);  // near: lifetime.captured-short-lived
  }
}

export function receive(ship: string): void {
  const caller = new Caller(ship);
  caller.enter();
  caller.passBy();
}

// Used after its end; near misses: opened again, or used before.
export class Sluice {
  private isOpen: boolean = true;
  private level: number = 0;

  close(): void {
    this.isOpen = false;
  }

  open(): void {
    this.isOpen = true;
  }

  measure(): number {
    this.level += 1;
    return this.level;
  }
}

export const sluice: Sluice = new Sluice();  // entity: shared-instance sluice eager language

export function night(): number {
  sluice.close();
  console.log('night');
  return sluice.measure();  // finding: lifetime.used-after-teardown
}

export function day(): number {
  sluice.close();
  sluice.open();
  let level = sluice.measure();  // near: lifetime.used-after-teardown
  level += sluice.measure();  // near: lifetime.used-after-teardown
  sluice.close();
  return level;
}

// Makes its own.
export class Surveyor {
  private echo: Echo;

  constructor() {
    this.echo = new Echo();  // finding: coupling.fixed-collaborator
  }

  depth(): string {
    return this.echo.read();
  }
}

export class Echo {
  read(): string {
    return fs.readFileSync('echo', 'utf8');
  }
}

// Nothing to hand in; near misses: no state, or one caller.
export class Tickets {  // finding: coupling.static-only-api  // entity: static-holder Tickets eager language
  private static sold: number = 0;

  static sell(): void {
    Tickets.sold = 1;
  }

  static count(): number {
    return Tickets.sold;
  }
}

export class Knots {  // near: coupling.static-only-api
  static bowline(turns: number): number {
    return turns + 1;
  }

  static hitch(turns: number): number {
    return turns + 2;
  }
}

export class Bollards {  // near: coupling.static-only-api  // entity: static-holder Bollards eager language
  private static used: number = 0;

  static use(): void {
    Bollards.used = 1;
  }
}

export class Sailor {
  tie(): number {
    Bollards.use();  // finding: coupling.hidden-dependency
    Tickets.sell();  // finding: coupling.hidden-dependency
    return Knots.bowline(2);
  }
}

export class Rower {
  tie(): number {
    return Knots.hitch(Tickets.count());
  }
}

// Passed on by four; near misses: used on the way, or made there.
export class Papers {
  inOrder(): boolean {
    return true;
  }
}

export function stamp(papers: Papers): boolean {
  return papers.inOrder();
}

export function clerk(papers: Papers): boolean {
  return stamp(papers);
}

export function counter(papers: Papers): boolean {
  return clerk(papers);
}

export function entrance(papers: Papers): boolean {
  return counter(papers);
}

export function door(papers: Papers): boolean {  // finding: coupling.long-handoff
  return entrance(papers);
}

export function gate(papers: Papers): boolean {  // near: coupling.long-handoff
  return papers.inOrder() && counter(papers);
}

export function windowed(): boolean {  // near: coupling.long-handoff
  return counter(new Papers());
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
export class Buoys {
  private lit: number = 0;

  light(): void {
    this.lit = 1;
  }
}

export const buoys: Buoys = new Buoys();  // entity: shared-instance buoys eager language

export class Depths {
  private least: number = 0;

  measure(): void {
    this.least = 4;
  }
}

export class Channel {  // entity: singleton Channel lazy single-threaded  // finding: single.open-constructor
  private static one: Channel | null = null;
  private inner: Depths = new Depths();

  static channel(): Channel {
    if (!Channel.one) {
      Channel.one = new Channel();
    }
    return Channel.one;
  }

  capstan(): Capstan {
    return Capstan.capstan();
  }

  depths(): Depths {
    return this.inner;
  }
}

export class Pilot {
  steer(): void {
    Channel.channel().capstan().turn();  // finding: coupling.hidden-dependency coupling.chained-access
    Channel.channel().depths().measure();  // near: coupling.chained-access
  }

  dark(): void {
    buoys.light();  // near: coupling.chained-access  // finding: coupling.hidden-dependency
  }
}

// Reached from six places; near miss: two.
export class Gong {
  private struck: number = 0;

  strike(): void {
    this.struck = 1;
  }
}

export const gong: Gong = new Gong();  // finding: coupling.wide-reach  // entity: shared-instance gong eager language
export const whistle: Gong = new Gong();  // near: coupling.wide-reach  // entity: shared-instance whistle eager language

export class Pier1 {
  fog(): void {
    gong.strike();  // finding: coupling.hidden-dependency
    whistle.strike();  // finding: coupling.hidden-dependency
  }
}

export class Pier2 {
  fog(): void {
    gong.strike();
    whistle.strike();
  }
}

export class Pier4 {
  fog(): void {
    gong.strike();
  }
}

export class Pier5 {
  fog(): void {
    gong.strike();
  }
}

// Begins the day for all; near miss: what is handed in is no reach.
export class Morning {
  begin(): void {  // finding: coupling.crowded-startup
    gong.strike();
    whistle.strike();
    buoys.light();
    soundings.open('morning');
    davit.lower();  // finding: coupling.hidden-dependency
    flags.rename('morning');
    pennants.reload();  // finding: coupling.hidden-dependency
  }

  half(bell: Gong, light: Buoys, line: Soundings, boat: Davit, flag: Flags): void {  // near: coupling.crowded-startup
    bell.strike();
    light.light();
    line.open('half');
    boat.lower();
    flag.rename('half');
  }
}

// Only the first one's name counts; near miss: it counts each time.
export class Plate {  // entity: singleton Plate lazy single-threaded
  private static one: Plate | null = null;
  private name: string;

  constructor(name: string, size: number) {  // finding: single.open-constructor
    this.name = name + size;
  }

  static plate(name: string, size: number): Plate {  // finding: init.arguments-ignored
    if (!Plate.one) {
      Plate.one = new Plate(name, size);
    }
    return Plate.one;
  }

  rename(name: string): void {
    this.name = name;
  }
}

export class Sign {  // entity: singleton Sign lazy single-threaded
  private static one: Sign | null = null;
  private name: string;

  constructor(name: string) {  // finding: single.open-constructor
    this.name = name;
  }

  static sign(name: string): Sign {  // near: init.arguments-ignored
    if (!Sign.one) {
      Sign.one = new Sign(name);
    }
    Sign.one.rename(name);
    return Sign.one;
  }

  rename(name: string): void {
    this.name = name;
  }
}

// One slot for a family; near miss: one for each of it.
export class Raft {  // entity: singleton Raft lazy single-threaded  // finding: single.open-constructor
  protected static one: Raft | null = null;
  private logs: number = 4;

  static raft(): Raft {
    if (!Raft.one) {
      Raft.one = new this();  // finding: single.slot-shared-by-subclasses
    }
    return Raft.one;
  }

  sink(): void {
    this.logs = 0;
  }
}

export class WideRaft extends Raft {
  load(): void {
    this.sink();
  }
}

export class Punt {  // entity: singleton Punt lazy single-threaded  // finding: single.open-constructor
  protected static one: Punt | null = null;
  private poles: number = 1;

  static punt(): Punt {
    if (!Punt.one) {
      Punt.one = new Punt();  // near: single.slot-shared-by-subclasses
    }
    return Punt.one;
  }

  push(): void {
    this.poles = 0;
  }
}

export class Ferry {  // entity: singleton Ferry lazy single-threaded
  private static one: Ferry | null = null;
  private trips: number = 0;

  private constructor() {  // near: single.subclassable
    this.trips = 1;
  }

  static ferry(): Ferry {
    if (!Ferry.one) {
      Ferry.one = new Ferry();  // near: single.slot-shared-by-subclasses
    }
    return Ferry.one;
  }

  cross(): void {
    this.trips = 2;
  }
}

export function open(): void {  // finding: coupling.crowded-startup
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

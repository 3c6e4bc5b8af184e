import { Date, IStore, Key } from './util';

export function later(): void {
  Date.shift(5);
}

class Store implements IStore {
  private kept: { [key: string]: number } = {};
  set(key: string): void {
    this.kept[key] = 1;
  }
}
export const store: IStore = new Store();  // entity: global-variable store eager language

// Constants whose fields nobody writes.
export const TAB: Key = { code: 'Tab', n: 9 };  // harmless: TAB

let names: string[] | undefined;  // harmless: names
function make(): string[] {
  return ['north', 'south'];
}
export function all(): string[] {
  return names || (names = make());
}

// It could change, and nobody has it changed.
class Pen {
  private colours: string[] = [];
  constructor(private readonly owner: string) {}
  take(colour: string): void {
    this.colours.push(colour);
  }
  line(): string {
    return this.owner + this.colours.length;
  }
}
const pen = new Pen('office');  // harmless: pen
export function sign(): void {
  pen.line();
}

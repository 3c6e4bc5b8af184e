import { TideTable, TideTableInterface } from "./tides";

export class Pilot {
  constructor(private readonly tides: TideTableInterface) {}

  mayEnter(draught: number, day: number): boolean {
    this.tides.raise();
    return this.tides.height(day) > draught;
  }
}

export function load(tides: TideTableInterface | undefined): Promise<number> | undefined {
  return tides?.load("tides");
}

import { TideTable } from "./tides";

export class Pilot {
  constructor(private readonly tides: TideTable) {}

  mayEnter(draught: number, day: number): boolean {
    this.tides.raise();
    return this.tides.height(day) > draught;
  }
}

export function load(tides: TideTable | undefined): Promise<number> | undefined {
  return tides?.load("tides");
}

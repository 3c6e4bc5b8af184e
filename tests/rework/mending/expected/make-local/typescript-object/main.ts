import { TideTable } from "./tides";

class Desk {
  private tideTable: TideTable = new TideTable();
  private entered = 0;

  enter(day: number): number {
    this.entered++;
    this.tideTable.raise(1);
    return this.tideTable.height(day) + this.entered;
  }
}

const desk = new Desk();
console.log(desk.enter(1) + desk.enter(2));

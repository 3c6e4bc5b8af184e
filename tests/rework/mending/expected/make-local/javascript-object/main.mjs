import { TideTable } from "./tides.mjs";

class Desk {
  tideTable = new TideTable();
  entered = 0;

  enter(day) {
    this.entered++;
    this.tideTable.raise(1);
    return this.tideTable.height(day) + this.entered;
  }
}

const desk = new Desk();
console.log(desk.enter(1) + desk.enter(2));

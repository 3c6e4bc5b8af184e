import { table } from "./tides.mjs";

class Desk {
  entered = 0;

  enter(day) {
    this.entered++;
    table.raise(1);
    return table.height(day) + this.entered;
  }
}

const desk = new Desk();
console.log(desk.enter(1) + desk.enter(2));

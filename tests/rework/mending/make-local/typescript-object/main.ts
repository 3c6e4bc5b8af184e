import { TideTable } from "./tides";

class Desk {
  private entered = 0;

  enter(day: number): number {
    this.entered++;
    TideTable.get().raise(1);
    return TideTable.get().height(day) + this.entered;
  }
}

const desk = new Desk();
console.log(desk.enter(1) + desk.enter(2));

import { Tides, TidesWrapper } from "./tides";

class Pilot {
  constructor(private readonly name: string, private readonly tidesWrapper: TidesWrapper = new TidesWrapper()) {}

  mayEnter(draught: number, day: number): boolean {
    this.tidesWrapper.raise(1);
    return this.tidesWrapper.height(day) > draught && this.name !== "";
  }
}

console.log(new Pilot("first").mayEnter(3, 1));

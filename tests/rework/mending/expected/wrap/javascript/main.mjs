import { Tides, TidesWrapper } from "./tides.mjs";

class Pilot {
  constructor(name, tidesWrapper = new TidesWrapper()) {
    this.tidesWrapper = tidesWrapper;
    this.name = name;
  }

  mayEnter(draught, day) {
    this.tidesWrapper.raise(1);
    return this.tidesWrapper.height(day) > draught && this.name !== "";
  }
}

console.log(new Pilot("first").mayEnter(3, 1));

import { Tides } from "./tides.mjs";

class Pilot {
  constructor(name) {
    this.name = name;
  }

  mayEnter(draught, day) {
    Tides.raise(1);
    return Tides.height(day) > draught && this.name !== "";
  }
}

console.log(new Pilot("first").mayEnter(3, 1));

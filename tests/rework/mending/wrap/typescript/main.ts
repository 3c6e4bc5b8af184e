import { Tides } from "./tides";

class Pilot {
  constructor(private readonly name: string) {}

  mayEnter(draught: number, day: number): boolean {
    Tides.raise(1);
    return Tides.height(day) > draught && this.name !== "";
  }
}

console.log(new Pilot("first").mayEnter(3, 1));

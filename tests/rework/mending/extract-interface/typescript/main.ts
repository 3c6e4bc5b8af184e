import { load, Pilot } from "./pilot";
import { TideTable } from "./tides";

const tides = new TideTable();
console.log(new Pilot(tides).mayEnter(3, 1));
load(tides)?.then((n) => console.log(n));

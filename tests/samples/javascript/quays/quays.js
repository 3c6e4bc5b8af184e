// Only the first caller's name counts; near miss: kept by name.
let plate = null;  // entity: shared-instance plate lazy single-threaded
const buoys = new Map();  // entity: registry buoys eager language

export class Plate {
}

export function plateOf(name) {  // finding: init.arguments-ignored
  if (plate === null) {
    plate = new Plate(name);
  }
  return plate;
}

export function buoyOf(name) {  // near: init.arguments-ignored
  if (!buoys.has(name)) {
    buoys.set(name, new Plate(name));
  }
  return buoys.get(name);
}

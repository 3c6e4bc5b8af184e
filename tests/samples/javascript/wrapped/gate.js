// What is written by taking apart, by `this` in an object, by a variable that began as a function.
export const Gate = {  // entity: singleton Gate eager language
  open: false,
  turn(way) {
    this.open = way;
  },
  ask() {
    return this.open;
  },
};

let on = false;  // entity: global-variable on eager language
let label = 'A';  // entity: global-variable label eager language
export function configure(given) {
  ({ on, name: label = 'B' } = given);
}
export function told() {
  return on + label;
}

let report = (text) => console.error(text);  // entity: global-variable report eager language
export function reportTo(other) {
  report = other;
}
export function say(text) {
  report(text);
}

export const sinks = [];  // harmless: sinks
export function keep({ level, sinks }) {
  if (sinks) sinks = [sinks];
  return level;
}

// State in functions that a constructor makes.
class Loads {
  constructor() {
    let running = 0;
    this.start = () => {
      running++;
    };
  }
}
export const loads = new Loads();  // entity: shared-instance loads eager language

// Modules that are loaded when they are first asked for, names that group functions, and what a class's objects keep beside.
exports.ropes = {};  // harmless: ropes
exports.ropes.knot = function knot(rope) {
  return rope + 1;
};
exports.ropes.cut = function cut(rope) {
  return rope - 1;
};

exports.marks = {};  // entity: global-variable marks eager language
exports.mark = function mark(name) {
  exports.marks[name] = true;  // near: lifetime.grows-forever
};

let Crane;  // harmless: Crane
let Pilot = null;  // harmless: Pilot

exports.lift = function lift() {
  Crane = Crane || require("./crane");
  return new Crane();
};

exports.lower = function lower() {
  Crane || (Crane = require("./crane").Crane);
  if (Pilot === null) Pilot = require("./pilot");
  return new Crane(Pilot);
};

// The names that an object of a class has for itself are none of the record's.
const calm = {
  start: (wind) => {
    wind();
  },
  stop: (wind) => {
    wind();
  },
};

class Weather {
  constructor(start) {
    this.start = start || calm.start;
    this.stop = calm.stop;
  }
}

exports.Weather = Weather;

const rig = { open: open, close: close };  // harmless: rig
const seen = { open: 0, close: 0 };  // entity: global-variable seen eager language

function open() {
  seen.open++;
}

function close() {
  seen.close++;
}

exports.rig = function () {
  rig.open();
  rig.close();
};

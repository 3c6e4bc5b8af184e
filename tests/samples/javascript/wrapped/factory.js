// The wrapper gives its module the object that the file hands out.
(function (factory) {
  if (typeof exports !== 'undefined') factory(exports);
  else factory((window.Piers = {}));  // entity: global-variable Piers lazy single-threaded
})(function (Piers) {
  Piers.open = 0;  // entity: global-variable open eager language
  Piers.version = '1.2';  // harmless: version
  var Watch = Piers.Watch = function () {
    this.turns = [];
  };
  Watch.running = false;  // entity: static-field running eager language
  extend(Watch.prototype, Events, {
    start: function () {
      Watch.running = true;
      this.turns.push(Piers.open++);  // finding: lifetime.grows-forever
    },
  });
  Piers.watch = new Watch();  // entity: shared-instance watch eager language
  Piers.begin = function () {
    Piers.watch.start();
  };
});

// Entries come and go: no object with methods.
const makers = {  // entity: global-variable makers eager language
  plain() {
    return 1;
  },
};
export function addMaker(name, maker) {
  makers[name] = maker;  // near: lifetime.grows-forever
}
export function make(name) {
  return makers[name]();
}

// What a look at the platform finds out: its variables are gone.
var passive = (function () {  // harmless: passive
  var seen = false;
  try {
    probe({ get: function () { seen = true; } });
  } catch (e) {
    seen = false;
  }
  return seen;
})();

// What a local takes out of an object is the object's.
class Tide {
  constructor() {
    this.turns = [];
  }
  run() {
    const { turns } = this;
    while (turns.length) turns.shift()();
  }
  later(turn) {
    this.turns.push(turn);
  }
}
export const tide = new Tide();  // entity: shared-instance tide eager language

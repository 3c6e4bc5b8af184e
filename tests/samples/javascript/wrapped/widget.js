// A class that is written as a function, and a scratch value of another.
function Widget() {
  this.drawn = 0;
}
Widget.hooks = [];  // entity: static-field hooks eager language
Widget.prototype.draw = function () {
  this.drawn++;
};
Widget.addHook = function (hook) {  // harmless: addHook
  Widget.hooks.push(hook);  // finding: lifetime.grows-forever
};

const widget = new Widget();  // entity: shared-instance widget eager language

class Vector {
  constructor() {
    this.x = 0;
  }
  copy(other) {
    this.x = other.x;
    return this;
  }
}

const scratch = new Vector();  // harmless: scratch

function measure(one) {
  scratch.copy(one);
  return scratch.x;
}

module.exports = { widget, measure };

const lib = require('./store');

function fill() {
  lib.store.add(1);  // finding: lifetime.grows-forever coupling.hidden-dependency
  lib.count = 4;  // finding: coupling.hidden-dependency
}

module.exports = { fill };

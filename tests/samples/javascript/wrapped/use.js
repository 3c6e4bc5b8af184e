const lib = require('./store');

function fill() {
  lib.store.add(1);  // finding: lifetime.grows-forever
  lib.count = 4;
}

module.exports = { fill };

const lib = require('./store');

function fill(ship) {
  lib.store.add(ship);  // near: lifetime.grows-forever
  lib.count = 4;
}

module.exports = { fill };

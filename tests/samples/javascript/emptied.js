'use strict';

// Emptied by its length; a list that nobody empties; a set that only ever gets the same value.
const queue = [];  // entity: global-variable queue eager language
const kept = [];  // entity: global-variable kept eager language
const filtered = new Set(['berth']);  // entity: global-variable filtered eager language

function arrive(ship) {
  queue.push(ship);  // near: lifetime.grows-forever
  kept.push(ship);  // finding: lifetime.grows-forever
  filtered.add('draught');  // near: lifetime.grows-forever
}

function clear() {
  queue.forEach((ship) => ship.moor());
  queue.length = 0;
  return filtered.has('berth');
}

module.exports = { arrive, clear, count: () => kept.length };

'use strict';

// What others may add to, once each; and a list that tells how to take out again.
const members = ['first', 'second']; // entity: global-variable members eager language

class Chain {
  constructor() {
    this.items = [];
  }

  push(item) {
    this.items.push(item);
    return () => this.items.splice(this.items.indexOf(item), 1);
  }
}

const targets = new Chain(); // harmless: targets

const office = {
  extend: function (name) {
    members.push(name); // finding: lifetime.grows-forever
  },
};

function addTarget(target) { // near: lifetime.grows-forever
  const remove = targets.push(target);
  return { dispose: remove };
}

module.exports = { office, members, addTarget };

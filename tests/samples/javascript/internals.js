// What a module has for itself, put together while it is loaded; near misses: a part that goes on changing, and a count.
const internals = {};  // harmless: internals

internals.names = ["north", "south"];
internals.most = 2;

const kept = {};  // entity: global-variable kept eager language

kept.list = [];

const counts = { asked: 0 };  // entity: global-variable counts eager language

exports.find = function (name) {
  counts.asked++;
  kept.list.push(name);
  return internals.names.indexOf(name) < internals.most;
};

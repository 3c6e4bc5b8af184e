// Tables of tables of functions keep no objects.
const hoists = new Map();  // entity: global-variable hoists eager language

function onHoist(mast, flag, task) {
  const ofMast = new Map();
  ofMast.set(flag, task);
  hoists.set(mast, ofMast);  // near: lifetime.grows-forever
}

function hoisted(mast, flag) {
  hoists.get(mast).get(flag)();
}

module.exports = { onHoist, hoisted };

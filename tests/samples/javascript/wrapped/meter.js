// A module in a function that is called in place.
(function (root, factory) {
  if (typeof module === 'object') module.exports = factory();
  else root.Meter = factory();
})(this, function () {
  var Meter = {};  // entity: singleton Meter eager language
  var pending = [];  // entity: global-variable pending eager language
  Meter.level = null;
  Meter.set = function (level) {
    Meter.level = level;
    pending.push(level);  // finding: lifetime.grows-forever
  };
  return Meter;
});

(function () {
  var hidden = 0;  // entity: global-variable hidden eager language
  window.bump = function () {  // harmless: bump
    hidden++;
  };
})();

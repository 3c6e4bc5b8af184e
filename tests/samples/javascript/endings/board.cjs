let posted = 0;  // entity: global-variable posted eager language

exports.post = function () {
  posted += 1;
};

exports.store = new Set();  // entity: global-variable store eager language
exports.count = 0;  // entity: global-variable count eager language
exports.count++;

// How classes of Swift keep for themselves what was shared before.
#include "languages/swift/swift.h"

namespace elmcart {

const Settling& swiftSettling() {
  static constexpr Settling kSettling = {
      .field = "private var {field}: {type} = {value}", .untypedField = "private var {field} = {value}",
      .shadowedUse = "self.{field}",
      .staticWord = "static",
      .local = "let {name} = {value}",
  };
  return kSettling;
}

}  // namespace elmcart

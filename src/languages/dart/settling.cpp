// How classes of Dart keep for themselves what was shared before.
#include "languages/dart/dart.h"

namespace elmcart {

const Settling& dartSettling() {
  static constexpr Settling kSettling = {
      .field = "{type} {field} = {value};", .untypedField = "var {field} = {value};",
      .shadowedUse = "this.{field}",
      .staticWord = "static",
      .local = "final {name} = {value};",
  };
  return kSettling;
}

}  // namespace elmcart

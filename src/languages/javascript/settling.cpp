// How classes of JavaScript keep for themselves what was shared before.
#include "languages/javascript/javascript.h"

namespace elmcart {

const Settling& javascriptSettling() {
  static constexpr Settling kSettling = {
      .field = "{field} = {value};", .untypedField = "{field} = {value};",
      .use = "this.{field}",
      .staticWord = "static",
      .local = "const {name} = {value};",
  };
  return kSettling;
}

}  // namespace elmcart

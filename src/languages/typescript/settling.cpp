// How classes of TypeScript keep for themselves what was shared before.
#include "languages/typescript/typescript.h"

namespace elmcart {

const Settling& typescriptSettling() {
  static constexpr Settling kSettling = {
      .field = "private {field}: {type} = {value};", .untypedField = "private {field} = {value};",
      .use = "this.{field}",
      .staticWord = "static",
      .local = "const {name} = {value};",
  };
  return kSettling;
}

}  // namespace elmcart

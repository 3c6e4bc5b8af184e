// How classes of C# keep for themselves what was shared before.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Settling& csharpSettling() {
  static constexpr Settling kSettling = {
      .field = "private {type} {field} = {value};",
      .shadowedUse = "this.{field}",
      .staticWord = "static", .open = "internal",
      .local = "var {name} = {value};",
  };
  return kSettling;
}

}  // namespace elmcart

// How classes of Java keep for themselves what was shared before.
#include "languages/java/java.h"

namespace elmcart {

const Settling& javaSettling() {
  static constexpr Settling kSettling = {
      .field = "private {type} {field} = {value};",
      .shadowedUse = "this.{field}",
      .staticWord = "static", .openElsewhere = "public",
      .local = "{type} {name} = {value};",
  };
  return kSettling;
}

}  // namespace elmcart

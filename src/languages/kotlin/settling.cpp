// How classes of Kotlin keep for themselves what was shared before.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Settling& kotlinSettling() {
  static constexpr Settling kSettling = {
      .field = "private var {field}: {type} = {value}", .untypedField = "private var {field} = {value}",
      .shadowedUse = "this.{field}",
      .local = "val {name} = {value}",
  };
  return kSettling;
}

}  // namespace elmcart

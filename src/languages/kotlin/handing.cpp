// How classes of Kotlin take what they need.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Handing& kotlinHanding() {
  static constexpr Handing kHanding = {
      .parameter = "private val {name}: {type} = {value}",
      .closedParameter = "private val {name}: {type}",
      .inMethod = "{name}", .inConstructor = "{name}",
      .constructor = "({parameter})",
      .baseConstructor = "({parameter})",
      .argument = "{name} = {value}",
      .typeImport = "import {qualified}",
      .functionParameter = "{name}: {type}? = null", .functionUse = "({name} ?: {value})",
      .primary = true, .valueForPassing = true,
  };
  return kHanding;
}

}  // namespace elmcart

// How classes of Kotlin are given one more parameter.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Handing& kotlinHanding() {
  static constexpr Handing kHanding = {
      .functionParameter = "{name}: {type}? = null",
      .functionUse = "({name} ?: {value})",
      .primary = true,
  };
  return kHanding;
}

}  // namespace elmcart

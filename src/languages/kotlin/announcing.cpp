// How a function of Kotlin announces that the program starts.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Announcing& kotlinAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/** Tells those who listen, in the order in which they came, that the program starts. */\nprivate class {class} {\n\tprivate val listeners = mutableListOf<() -> Unit>()\n\n\tfun add(listener: () -> Unit) {\n\t\tlisteners.add(listener)\n\t}\n\n\tfun announce() {\n\t\tlisteners.forEach { it() }\n\t}\n}",
      .make = "val {name} = {class}()", .listen = "{name}.add { {statement} }", .announce = "{name}.announce()",
  };
  return kAnnouncing;
}

}  // namespace elmcart

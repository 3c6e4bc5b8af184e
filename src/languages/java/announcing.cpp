// How a function of Java announces that the program starts.
#include "languages/java/java.h"

namespace elmcart {

const Announcing& javaAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/** Tells those who listen, in the order in which they came, that the program starts. */\nprivate static final class {class} {\n\tprivate final java.util.List<Runnable> listeners = new java.util.ArrayList<>();\n\n\tvoid add(Runnable listener) {\n\t\tlisteners.add(listener);\n\t}\n\n\tvoid announce() {\n\t\tlisteners.forEach(Runnable::run);\n\t}\n}",
      .inClass = true,
      .make = "{class} {name} = new {class}();", .listen = "{name}.add(() -> { {statement} });", .announce = "{name}.announce();",
  };
  return kAnnouncing;
}

}  // namespace elmcart

// How a function of Swift announces that the program starts.
#include "languages/swift/swift.h"

namespace elmcart {

const Announcing& swiftAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/// Tells those who listen, in the order in which they came, that the program starts.\nprivate final class {class} {\n\tprivate var listeners: [() -> Void] = []\n\n\tfunc add(_ listener: @escaping () -> Void) {\n\t\tlisteners.append(listener)\n\t}\n\n\tfunc announce() {\n\t\tlisteners.forEach { $0() }\n\t}\n}",
      .make = "let {name} = {class}()", .listen = "{name}.add { {statement} }", .announce = "{name}.announce()",
  };
  return kAnnouncing;
}

}  // namespace elmcart

// How a function of Dart announces that the program starts.
#include "languages/dart/dart.h"

namespace elmcart {

const Announcing& dartAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/// Tells those who listen, in the order in which they came, that the program starts.\nclass _{class} {\n\tfinal List<void Function()> _listeners = [];\n\n\tvoid add(void Function() listener) => _listeners.add(listener);\n\n\tvoid announce() {\n\t\tfor (final listener in _listeners) {\n\t\t\tlistener();\n\t\t}\n\t}\n}",
      .make = "final {name} = _{class}();", .listen = "{name}.add(() { {statement} });", .announce = "{name}.announce();",
  };
  return kAnnouncing;
}

}  // namespace elmcart

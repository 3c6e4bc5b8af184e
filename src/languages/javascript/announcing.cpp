// How a function of JavaScript announces that the program starts.
#include "languages/javascript/javascript.h"

namespace elmcart {

const Announcing& javascriptAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/** Tells those who listen, in the order in which they came, that the program starts. */\nclass {class} {\n\tlisteners = [];\n\n\tadd(listener) {\n\t\tthis.listeners.push(listener);\n\t}\n\n\tannounce() {\n\t\tthis.listeners.forEach((listener) => listener());\n\t}\n}",
      .make = "const {name} = new {class}();", .listen = "{name}.add(() => { {statement} });", .announce = "{name}.announce();",
  };
  return kAnnouncing;
}

}  // namespace elmcart

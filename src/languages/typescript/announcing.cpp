// How a function of TypeScript announces that the program starts.
#include "languages/typescript/typescript.h"

namespace elmcart {

const Announcing& typescriptAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/** Tells those who listen, in the order in which they came, that the program starts. */\nclass {class} {\n\tprivate readonly listeners: (() => void)[] = [];\n\n\tadd(listener: () => void): void {\n\t\tthis.listeners.push(listener);\n\t}\n\n\tannounce(): void {\n\t\tthis.listeners.forEach((listener) => listener());\n\t}\n}",
      .make = "const {name} = new {class}();", .listen = "{name}.add(() => { {statement} });", .announce = "{name}.announce();",
  };
  return kAnnouncing;
}

}  // namespace elmcart

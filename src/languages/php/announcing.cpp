// How a function of PHP announces that the program starts.
#include "languages/php/php.h"

namespace elmcart {

const Announcing& phpAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "/** Tells those who listen, in the order in which they came, that the program starts. */\nfinal class {class}\n{\n\tprivate $listeners = [];\n\n\tpublic function add(callable $listener)\n\t{\n\t\t$this->listeners[] = $listener;\n\t}\n\n\tpublic function announce()\n\t{\n\t\tforeach ($this->listeners as $listener) {\n\t\t\t$listener();\n\t\t}\n\t}\n}",
      .make = "${name} = new {class}();", .listen = "${name}->add(fn () => {statement});", .announce = "${name}->announce();",
      .expressionsOnly = true,
  };
  return kAnnouncing;
}

}  // namespace elmcart

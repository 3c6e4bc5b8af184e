// How a function of Python announces that the program starts.
#include "languages/python/python.h"

namespace elmcart {

const Announcing& pythonAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "class {class}:\n\t\"\"\"Tells those who listen, in the order in which they came, that the program starts.\"\"\"\n\n\tdef __init__(self):\n\t\tself._listeners = []\n\n\tdef add(self, listener):\n\t\tself._listeners.append(listener)\n\n\tdef announce(self):\n\t\tfor listener in self._listeners:\n\t\t\tlistener()\n",
      .make = "{name} = {class}()", .listen = "{name}.add(lambda: {statement})", .announce = "{name}.announce()",
      .expressionsOnly = true,
  };
  return kAnnouncing;
}

}  // namespace elmcart

// How PHP creates an object once, and how a class is closed in it.
#include "languages/php/php.h"

namespace elmcart {

const Sound& phpSound() {
  static constexpr Sound kSound = {
      .closedConstructor = "private function __construct()\n{\n}",
      .noClone = "private function __clone()\n{\n}",
      .noSubclass = "final ",
  };
  return kSound;
}

}  // namespace elmcart

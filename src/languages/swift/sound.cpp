// How Swift creates an object once, and how a class is closed in it.
#include "languages/swift/swift.h"

namespace elmcart {

const Sound& swiftSound() {
  static constexpr Sound kSound = {
      .closedConstructor = "private init() {}",
      .noSubclass = "final ",
  };
  return kSound;
}

}  // namespace elmcart

// How TypeScript creates an object once, and how a class is closed in it.
#include "languages/typescript/typescript.h"

namespace elmcart {

const Sound& typescriptSound() {
  static constexpr Sound kSound = {
      .closedConstructor = "private constructor() {}",
  };
  return kSound;
}

}  // namespace elmcart

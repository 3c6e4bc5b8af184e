// How Go creates an object once, and how a class is closed in it.
#include "languages/go/go.h"

namespace elmcart {

const Sound& goSound() {
  static constexpr Sound kSound = {
      .wrapped = "making{Type}.Do(func() {",
      .wrapEnd = "})",
      .lock = "var making{Type} sync.Once",
      .import = "import \"sync\"",
      .why = "a Once runs its function once, whoever comes first",
  };
  return kSound;
}

}  // namespace elmcart

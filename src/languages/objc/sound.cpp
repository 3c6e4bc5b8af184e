// How Objective-C creates an object once.
#include "languages/objc/objc.h"

namespace elmcart {

const Sound& objcSound() {
  static constexpr Sound kSound = {
      .wrapped = "static dispatch_once_t once;\ndispatch_once(&once, ^{",
      .wrapEnd = "});",
      .why = "what dispatch_once is given runs once, and whoever comes second waits for it",
  };
  return kSound;
}

}  // namespace elmcart

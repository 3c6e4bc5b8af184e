// How classes of Objective-C keep for themselves what was shared before.
#include "languages/objc/objc.h"

namespace elmcart {

const Settling& objcSettling() {
  static constexpr Settling kSettling = {
      .field = "{type}{field};",
      .noughtOnly = true,
  };
  return kSettling;
}

}  // namespace elmcart

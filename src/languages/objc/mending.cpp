// How Objective-C takes objects out of collections and puts state under a lock.
#include "languages/objc/objc.h"

namespace elmcart {

const Mending& objcMending() {
  static constexpr Mending kMending = {
      .takeOut = "[{list} removeObject:{value}];",
      .guardWrap = "@synchronized ({this}) {", .guardWrapEnd = "}",
      .takenTwice = true,
  };
  return kMending;
}

}  // namespace elmcart

// How Java takes objects out of collections and puts state under a lock.
#include "languages/java/java.h"

namespace elmcart {

const Mending& javaMending() {
  static constexpr Mending kMending = {
      .takeOut = "{list}.remove({value});",
      .lockName = "lock",
      .guardWrap = "synchronized ({lock}) {", .guardWrapEnd = "}",
      .guardWord = "synchronized ", .guardWordBeforeType = true,
      .takenTwice = true,
  };
  return kMending;
}

}  // namespace elmcart

// How Kotlin takes objects out of collections and puts state under a lock.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Mending& kotlinMending() {
  static constexpr Mending kMending = {
      .takeOut = "{list}.remove({value})",
      .lockName = "lock",
      .guardWrap = "synchronized({lock}) {", .guardWrapEnd = "}",
      .guardWord = "@Synchronized\n",
      .takenTwice = true,
  };
  return kMending;
}

}  // namespace elmcart

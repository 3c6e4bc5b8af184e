// How Swift takes objects out of collections and puts state under a lock.
#include "languages/swift/swift.h"

namespace elmcart {

const Mending& swiftMending() {
  static constexpr Mending kMending = {
      .takeOut = "{list}.removeAll { $0 === {value} }",
      .lockName = "lock",
      .objectLock = "private let {lock} = NSRecursiveLock()",
      .classLock = "private static let {lock} = NSRecursiveLock()",
      .lockOfClass = "{class}.{lock}",
      .guardLines = "{lock}.lock()\ndefer { {lock}.unlock() }",
      .guardImport = "import Foundation",
      .takenTwice = true,
  };
  return kMending;
}

}  // namespace elmcart

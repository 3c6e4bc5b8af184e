// How Python takes objects out of collections and puts state under a lock.
#include "languages/python/python.h"

namespace elmcart {

const Mending& pythonMending() {
  static constexpr Mending kMending = {
      .takeOut = "if {value} in {list}:\n\t{list}.remove({value})",
      .takeOutOfSet = "{list}.discard({value})",
      .lockName = "_lock",
      .classLock = "{lock} = threading.RLock()",
      .fileLock = "{lock} = threading.RLock()",
      .lockInConstructor = "self.{lock} = threading.RLock()",
      .lockOfObject = "self.{lock}", .lockOfClass = "{class}.{lock}",
      .guardWrap = "with {lock}:",
      .guardImport = "import threading",
      .takenTwice = true,
  };
  return kMending;
}

}  // namespace elmcart

// How C++ takes objects out of collections and puts state under a lock.
#include "languages/cpp/cpp.h"

namespace elmcart {

const Mending& cppMending() {
  static constexpr Mending kMending = {
      .takeOut = "{list}.erase(std::remove({list}.begin(), {list}.end(), {value}), {list}.end());",
      .takeOutOfSet = "{list}.erase({value});",
      .takeOutImport = "#include <algorithm>",
      .ending = "~{class}() { {statement} }",
      .lockName = "mutex_",
      .objectLock = "mutable std::mutex {lock};",
      .classLock = "static inline std::mutex {lock};",
      .fileLock = "static std::mutex {lock};",
      .nestedLock = "mutable std::recursive_mutex {lock};",
      .guardLines = "std::lock_guard<{locktype}> hold({lock});",
      .guardImport = "#include <mutex>",
  };
  return kMending;
}

}  // namespace elmcart

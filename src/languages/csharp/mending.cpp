// How C# takes objects out of collections and puts state under a lock.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Mending& csharpMending() {
  static constexpr Mending kMending = {
      .takeOut = "{list}.Remove({value});",
      .lockName = "gate",
      .objectLock = "private readonly object {lock} = new object();",
      .classLock = "private static readonly object {lock} = new object();",
      .guardWrap = "lock ({lock})\n{", .guardWrapEnd = "}",
      .takenTwice = true,
  };
  return kMending;
}

}  // namespace elmcart

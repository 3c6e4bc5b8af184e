// How Go takes objects out of collections, puts state under a lock, and where an object is handed in.
#include "languages/go/go.h"

namespace elmcart {

const Mending& goMending() {
  static constexpr Mending kMending = {
      .takeOut = "for i, one := range {list} {\n\tif one == {value} {\n\t\t{list} = append({list}[:i], {list}[i+1:]...)\n\t\treturn\n\t}\n}",
      .lockName = "mu",
      .objectLock = "{lock} sync.Mutex\n",
      .fileLock = "var {lock} sync.Mutex",
      .lockOfObject = "{this}.{lock}",
      .guardLines = "{lock}.Lock()\ndefer {lock}.Unlock()",
      .guardImport = "import \"sync\"",
      
  };
  return kMending;
}

}  // namespace elmcart

// How the moves write owners of objects in C++.
#include "languages/cpp/cpp.h"

namespace elmcart {

const Owning& cppOwning() {
  static constexpr Owning kOwning = {
      .type = "std::unique_ptr<{type}>",
      .make = "std::make_unique<{type}>({arguments})",
      .bare = "{name}.get()",
      .free = "{name}.reset()",
      .import = "#include <memory>",
  };
  return kOwning;
}

}  // namespace elmcart

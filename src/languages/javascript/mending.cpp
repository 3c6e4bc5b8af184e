// How JavaScript takes objects out of collections.
#include "languages/javascript/javascript.h"

namespace elmcart {

const Mending& javascriptMending() {
  static constexpr Mending kMending = {
      .takeOut = "const at = {list}.indexOf({value});\nif (at >= 0) {\n\t{list}.splice(at, 1);\n}",
      .takeOutOfSet = "{list}.delete({value});",
  };
  return kMending;
}

}  // namespace elmcart

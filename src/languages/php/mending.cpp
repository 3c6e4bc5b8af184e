// How PHP takes objects out of collections.
#include "languages/php/php.h"

namespace elmcart {

const Mending& phpMending() {
  static constexpr Mending kMending = {
      .takeOut = "$at = array_search({value}, {list}, true);\nif ($at !== false) {\n\tunset({list}[$at]);\n}",
      .announce = "global {name};",
  };
  return kMending;
}

}  // namespace elmcart

// How Dart takes objects out of collections.
#include "languages/dart/dart.h"

namespace elmcart {

const Mending& dartMending() {
  static constexpr Mending kMending = {
      .takeOut = "{list}.remove({value});",
  };
  return kMending;
}

}  // namespace elmcart

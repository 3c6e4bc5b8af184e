// How classes of Go keep for themselves what was shared before.
#include "languages/go/go.h"

namespace elmcart {

const Settling& goSettling() {
  static constexpr Settling kSettling = {
      .field = "{field} {type}",
      .use = "{this}.{field}",
      .noughtOnly = true,
  };
  return kSettling;
}

}  // namespace elmcart

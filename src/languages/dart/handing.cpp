// How classes of Dart are given one more parameter.
#include "languages/dart/dart.h"

namespace elmcart {

const Handing& dartHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "{field}",
      .functionParameter = "[{type}? {name}]",
      .functionUse = "({name} ?? {value})",
      .initialisers = true,
  };
  return kHanding;
}

}  // namespace elmcart

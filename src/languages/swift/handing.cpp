// How classes of Swift are given one more parameter.
#include "languages/swift/swift.h"

namespace elmcart {

const Handing& swiftHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "self.{field}",
      .functionParameter = "{name}: {type}? = nil",
      .functionUse = "({name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

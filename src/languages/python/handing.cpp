// How classes of Python are given one more parameter.
#include "languages/python/python.h"

namespace elmcart {

const Handing& pythonHanding() {
  static constexpr Handing kHanding = {
      .snake = true,
      .fieldPrefix = "_",
      .throughObject = "self.{field}",
      .functionParameter = "{name}=None",
      .functionUse = "({value} if {name} is None else {name})",
  };
  return kHanding;
}

}  // namespace elmcart

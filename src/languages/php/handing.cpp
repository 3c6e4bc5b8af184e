// How classes of PHP are given one more parameter.
#include "languages/php/php.h"

namespace elmcart {

const Handing& phpHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "$this->{field}",
      .functionParameter = "?{type} ${name} = null",
      .functionUse = "(${name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

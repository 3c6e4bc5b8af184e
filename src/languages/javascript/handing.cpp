// How classes of JavaScript are given one more parameter.
#include "languages/javascript/javascript.h"

namespace elmcart {

const Handing& javascriptHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "this.{field}",
      .functionParameter = "{name}",
      .functionUse = "({name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

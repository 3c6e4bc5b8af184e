// How classes of Java are given one more parameter.
#include "languages/java/java.h"

namespace elmcart {

const Handing& javaHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "{field}",
      .overload = " {\n\tthis({names}{value});\n}",
  };
  return kHanding;
}

}  // namespace elmcart

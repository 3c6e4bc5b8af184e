// How classes of C# are given one more parameter.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Handing& csharpHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "this.{field}",
      .functionParameter = "{type} {name} = null",
      .functionUse = "({name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

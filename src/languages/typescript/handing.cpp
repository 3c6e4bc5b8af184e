// How classes of TypeScript are given one more parameter.
#include "languages/typescript/typescript.h"

namespace elmcart {

const Handing& typescriptHanding() {
  static constexpr Handing kHanding = {
      .throughObject = "this.{field}",
      .functionParameter = "{name}?: {type}",
      .functionUse = "({name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

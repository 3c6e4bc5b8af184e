// How classes of JavaScript take what they need.
#include "languages/javascript/javascript.h"

namespace elmcart {

const Handing& javascriptHanding() {
  static constexpr Handing kHanding = {
      .parameter = "{name} = {value}",
      .passed = "{name}",
      .assign = "this.{field} = {name};",
      .closedParameter = "{name}",
      .inMethod = "this.{field}", .inConstructor = "{name}",
      .constructor = "constructor({parameter}) {\n\t{assign}\n}",
      .baseCall = "super(",
      .functionParameter = "{name}", .functionUse = "({name} ?? {value})",
      .functionRebindsThis = true,
  };
  return kHanding;
}

}  // namespace elmcart

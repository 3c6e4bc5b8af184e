// How classes of Swift take what they need.
#include "languages/swift/swift.h"

namespace elmcart {

const Handing& swiftHanding() {
  static constexpr Handing kHanding = {
      .field = "private let {field}: {type}",
      .parameter = "{name}: {type} = {value}",
      .assign = "self.{field} = {name}",
      .closedParameter = "{name}: {type}",
      .inMethod = "self.{field}", .inConstructor = "{name}",
      .constructor = "init({name}: {type} = {value}) {\n\t{assign}\n}",
      .argument = "{name}: {value}",
      .functionParameter = "{name}: {type}? = nil", .functionUse = "({name} ?? {value})",
      .privateIsShared = true,
  };
  return kHanding;
}

}  // namespace elmcart

// How classes of Swift take what they need.
#include "languages/swift/swift.h"

namespace elmcart {

const Handing& swiftHanding() {
  static constexpr Handing kHanding = {
      .field = "private let {field}: {type}",
      .parameter = "{name}: {type} = {value}",
      .assign = "self.{field} = {name}",
      .inMethod = "self.{field}", .inConstructor = "{name}",
      .constructor = "{visibility}init({name}: {type} = {value}) {\n\t{assign}\n}",
      .argument = "{name}: {value}",
      .privateIsShared = true,
  };
  return kHanding;
}

}  // namespace elmcart

// How classes of Dart take what they need.
#include "languages/dart/dart.h"

namespace elmcart {

const Handing& dartHanding() {
  static constexpr Handing kHanding = {
      .field = "final {type} {field};",
      .optionalField = "final {type}? {field};",
      .parameter = "{type}? {name}",
      .assign = "{field} = {name} ?? {value}",
      .passedAssign = "{field} = {name}",
      .closedParameter = "required {type} {name}",
      .closedAssign = "{field} = {name}",
      .inMethod = "{field}", .inConstructor = "{field}",
      .constructor = "{class}({{type}? {name}}) : {assign};",
      .argument = "{name}: {value}",
      .typeImport = "import",
      .functionParameter = "[{type}? {name}]", .functionUse = "({name} ?? {value})",
      .optionalGroup = true, .initialisers = true,
  };
  return kHanding;
}

}  // namespace elmcart

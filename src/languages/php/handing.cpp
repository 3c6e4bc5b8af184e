// How classes of PHP take what they need.
#include "languages/php/php.h"

namespace elmcart {

const Handing& phpHanding() {
  static constexpr Handing kHanding = {
      .field = "private {type} ${field};",
      .optionalField = "private ?{type} ${field};",
      .parameter = "?{type} ${name} = null",
      .assign = "$this->{field} = ${name} ?? {value};",
      .passedAssign = "$this->{field} = ${name};",
      .closedAssign = "$this->{field} = ${name} ?? throw new \\InvalidArgumentException('{name} is missing');",
      .inMethod = "$this->{field}", .inConstructor = "$this->{field}",
      .constructor = "public function __construct(?{type} ${name} = null)\n{\n\t{assign}\n}",
      .argument = "{name}: {value}",
      .typeImport = "\\",
      .functionParameter = "?{type} ${name} = null", .functionUse = "(${name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

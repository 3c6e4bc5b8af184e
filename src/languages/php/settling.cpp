// How classes of PHP keep for themselves what was shared before.
#include "languages/php/php.h"

namespace elmcart {

const Settling& phpSettling() {
  static constexpr Settling kSettling = {
      .field = "private {type} ${field} = {value};", .untypedField = "private ${field} = {value};",
      .inConstructor = "$this->{field} = {value};",
      .newConstructor = "public function __construct()\n{\n\t{assign}\n}",
      .use = "$this->{field}",
      .staticWord = "static", .open = "public",
      .local = "${name} = {value};",
      .constantsOnly = true,
  };
  return kSettling;
}

}  // namespace elmcart

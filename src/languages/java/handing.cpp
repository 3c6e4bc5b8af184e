// How classes of Java take what they need.
#include "languages/java/java.h"

namespace elmcart {

const Handing& javaHanding() {
  static constexpr Handing kHanding = {
      .field = "private final {type} {field};",
      .parameter = "{type} {name}",
      .assign = "this.{field} = {name};",
      .inMethod = "{field}", .inConstructor = "{name}",
      .constructor = "{visibility}{class}() {\n\tthis({value});\n}\n\n{visibility}{class}({type} {name}) {\n\t{assign}\n}",
      .baseConstructor = "{visibility}{class}() {\n\tthis({value});\n}\n\n{visibility}{class}({type} {name}) {\n\t{assign}\n}",
      .overload = " {\n\tthis({names}{value});\n}",
      .baseCall = "super(",
      .typeImport = "import {qualified};",
      .valueForPassing = true,
  };
  return kHanding;
}

}  // namespace elmcart

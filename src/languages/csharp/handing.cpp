// How classes of C# take what they need.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Handing& csharpHanding() {
  static constexpr Handing kHanding = {
      .field = "private readonly {type} {field};",
      .parameter = "{type} {name} = null",
      .assign = "this.{field} = {name} ?? {value};",
      .passedAssign = "this.{field} = {name};",
      .closedAssign = "this.{field} = {name} ?? throw new System.ArgumentNullException(nameof({name}));",
      .inMethod = "{field}", .inConstructor = "this.{field}",
      .constructor = "public {class}({type} {name} = null)\n{\n\t{assign}\n}",
      .baseConstructor = "public {class}({type} {name} = null)\n{\n\t{assign}\n}",
      .argument = "{name}: {value}",
      .typeImport = "using {namespace};",
      .functionParameter = "{type} {name} = null", .functionUse = "({name} ?? {value})",
  };
  return kHanding;
}

}  // namespace elmcart

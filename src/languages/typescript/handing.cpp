// How classes of TypeScript take what they need.
#include "languages/typescript/typescript.h"

namespace elmcart {

const Handing& typescriptHanding() {
  static constexpr Handing kHanding = {
      .parameter = "private readonly {name}: {type} = {value}",
      .passed = "private readonly {name}?: {type}",
      .closedParameter = "private readonly {name}: {type}",
      .inMethod = "this.{field}", .inConstructor = "{name}",
      .constructor = "constructor({parameter}) {}",
      .baseCall = "super(",
      .typeImport = "import",
      .functionParameter = "{name}?: {type}", .functionUse = "({name} ?? {value})",
      .privateIsShared = true, .functionRebindsThis = true,
  };
  return kHanding;
}

}  // namespace elmcart

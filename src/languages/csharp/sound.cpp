// How C# creates an object once, and how a class is closed in it.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Sound& csharpSound() {
  static constexpr Sound kSound = {
      .declaration = "private static readonly System.Lazy<{type}> {slot} = new System.Lazy<{type}>(() => {creation});",
      .once = "{slot}.Value",
      .body = "{return}",
      .why = "System.Lazy runs its function once, whoever comes first",
      .closedConstructor = "private {class}()\n{\n}",
      .noSubclass = "sealed ",
  };
  return kSound;
}

}  // namespace elmcart

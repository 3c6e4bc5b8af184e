// How an interface of Python is written and kept.
#include "languages/python/python.h"

namespace elmcart {

const Facing& pythonFacing() {
  static constexpr Facing kFacing = {
      .name = "{class}Protocol",
      .face = "class {face}(Protocol):\n{members}",
      .member = "\t{signature}: ...\n",
      .import = "from typing import Protocol",
      .importsByName = true,
      .bodyBehindColon = true, .widelyApart = true,
      .double_ = "class {class}Double:\n{members}",
      .doubleMember = "\t{signature}:\n\t\traise AssertionError(\"{member} is not expected here\")\n",
      .wrapper = "class {wrap}:\n{members}", .wrapperMember = "\t{signature}:\n\t\treturn {class}.{member}({names})\n", .makeWrapper = "{wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

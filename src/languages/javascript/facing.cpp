// JavaScript has no interfaces; how a class hands on to another that has no objects.
#include "languages/javascript/javascript.h"

namespace elmcart {

const Facing& javascriptFacing() {
  static constexpr std::string_view kDropped[] = {"async"};
  static constexpr Facing kFacing = {
      .dropped = kDropped,
      .importsByName = true,
      .wrapper = "{visibility}class {wrap} {\n{members}}", .wrapperMember = "\t{signature} {\n\t\treturn {class}.{member}({names});\n\t}\n", .makeWrapper = "new {wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

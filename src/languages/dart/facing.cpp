// How an interface of Dart is written and kept.
#include "languages/dart/dart.h"

namespace elmcart {

const Facing& dartFacing() {
  static constexpr std::string_view kDropped[] = {"async", "async*", "sync*", "external"};
  static constexpr Facing kFacing = {
      .face = "abstract class {face} {\n{members}}",
      .member = "\t{signature};\n",
      .clause = " implements {face}", .moreClause = ", {face}", .clauseWord = "implements",
      .dropped = kDropped,
      .getters = true,
      .double_ = "class {class}Double implements {face} {\n{members}}",
      .doubleMember = "\t@override\n\t{signature} => throw UnsupportedError('{member} is not expected here');\n",
      .wrapper = "class {wrap} {\n{members}}", .wrapperMember = "\t{signature} => {class}.{member}({names});\n", .makeWrapper = "{wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

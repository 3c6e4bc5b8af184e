// How an interface of TypeScript is written and kept.
#include "languages/typescript/typescript.h"

namespace elmcart {

const Facing& typescriptFacing() {
  static constexpr std::string_view kDropped[] = {"public", "async", "override"};
  static constexpr Facing kFacing = {
      .face = "{visibility}interface {face} {\n{members}}",
      .member = "\t{signature};\n",
      .untold = "\t{member}: {class}[\"{member}\"];\n",
      .clause = " implements {face}", .moreClause = ", {face}", .clauseWord = "implements",
      .dropped = kDropped,
      .importsByName = true,
      .noDefaults = true,
      .resultBehindColon = true,
      .double_ = "class {class}Double implements {face} {\n{members}}",
      .doubleMember = "\t{signature} {\n\t\tthrow new Error(\"{member} is not expected here\");\n\t}\n",
      .wrapper = "{visibility}class {wrap} {\n{members}}", .wrapperMember = "\t{signature} {\n\t\t{return}{class}.{member}({names});\n\t}\n", .makeWrapper = "new {wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

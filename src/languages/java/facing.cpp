// How an interface of Java is written and kept.
#include "languages/java/java.h"

namespace elmcart {

const Facing& javaFacing() {
  static constexpr std::string_view kDropped[] = {"public", "final", "synchronized", "native", "strictfp"};
  static constexpr Facing kFacing = {
      .face = "{visibility}interface {face} {\n{members}}",
      .member = "\t{signature};\n",
      .clause = " implements {face}", .moreClause = ", {face}", .clauseWord = "implements",
      .dropped = kDropped,
      .typeImport = "import {name};",
      .publicMembers = true, .ownFile = true,
      .double_ = "class {class}Double implements {face} {\n{members}}",
      .doubleMember = "\t@Override\n\tpublic {signature} {\n\t\tthrow new UnsupportedOperationException(\"{member} is not expected here\");\n\t}\n",
      .wrapper = "{visibility}class {wrap} {\n{members}}", .wrapperMember = "\t{visibility}{signature} {\n\t\t{return}{class}.{member}({names});\n\t}\n", .makeWrapper = "new {wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

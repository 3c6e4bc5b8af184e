// How an interface of C# is written and kept.
#include "languages/csharp/csharp.h"

namespace elmcart {

const Facing& csharpFacing() {
  static constexpr std::string_view kDropped[] = {"public", "virtual", "override", "sealed", "async", "extern", "unsafe", "new"};
  static constexpr Facing kFacing = {
      .name = "I{class}",
      .face = "{visibility}interface {face}\n{\n{members}}",
      .member = "\t{signature};\n",
      .clause = " : {face}", .moreClause = ", {face}", .clauseWord = ":",
      .dropped = kDropped,
      .publicMembers = true,
      .double_ = "class {class}Double : {face}\n{\n{members}}",
      .doubleMember = "\tpublic {signature} => throw new System.NotSupportedException(\"{member} is not expected here\");\n",
      .wrapper = "{visibility}class {wrap}\n{\n{members}}", .wrapperMember = "\tpublic virtual {signature}\n\t{\n\t\t{return}{class}.{member}({names});\n\t}\n", .makeWrapper = "new {wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

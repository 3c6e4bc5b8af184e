// How an interface of C++ is written and kept.
#include "languages/cpp/cpp.h"

namespace elmcart {

const Facing& cppFacing() {
  static constexpr std::string_view kDropped[] = {"virtual", "inline", "explicit", "override", "final"};
  static constexpr Facing kFacing = {
      .face = "class {face} {\npublic:\n\tvirtual ~{face}() = default;\n{members}};",
      .member = "\tvirtual {signature} = 0;\n",
      .clause = " : public {face}", .moreClause = ", public {face}", .clauseWord = ":",
      .dropped = kDropped,
      .forward = "class {class};", .forwardFace = "class {face};",
      .double_ = "class {class}Double : public {face} {\npublic:\n{members}};",
      .doubleMember = "\t{signature} override { throw std::logic_error(\"{member} is not expected here\"); }\n",
      .wrapper = "class {wrap} {\npublic:\n\tstatic {wrap}& shared() {\n\t\tstatic {wrap} one;\n\t\treturn one;\n\t}\n\n\tvirtual ~{wrap}() = default;\n{members}};",
      .wrapperMember = "\tvirtual {signature} { {return}{class}::{member}({names}); }\n", .wrapperAccessPoint = "{wrap}::shared()",
  };
  return kFacing;
}

}  // namespace elmcart

// How an interface of Kotlin is written and kept.
#include "languages/kotlin/kotlin.h"

namespace elmcart {

const Facing& kotlinFacing() {
  static constexpr std::string_view kDropped[] = {"public", "internal", "open", "final", "override", "tailrec", "inline"};
  static constexpr Facing kFacing = {
      .face = "{visibility}interface {face} {\n{members}}",
      .member = "\t{signature}\n",
      .clause = " : {face}", .moreClause = ", {face}", .clauseWord = ":",
      .dropped = kDropped,
      .overriding = "override ",
      .typeImport = "import {name}",
      .noDefaults = true,
      .resultBehindColon = true, .nothingByBrackets = true, .nothingUnsaid = true,
      .double_ = "class {class}Double : {face} {\n{members}}",
      .doubleMember = "\toverride {signature} = throw UnsupportedOperationException(\"{member} is not expected here\")\n",
      .wrapper = "{visibility}open class {wrap} {\n{members}}", .wrapperMember = "\topen {signature} {\n\t\t{return}{class}.{member}({names})\n\t}\n", .makeWrapper = "{wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

// How an interface of PHP is written and kept.
#include "languages/php/php.h"

namespace elmcart {

const Facing& phpFacing() {
  static constexpr std::string_view kDropped[] = {"public", "final"};
  static constexpr Facing kFacing = {
      .face = "interface {face}\n{\n{members}}",
      .member = "\tpublic {signature};\n",
      .clause = " implements {face}", .moreClause = ", {face}", .clauseWord = "implements",
      .dropped = kDropped,
      .typeImport = "use {name};",
      .publicMembers = true,
      .double_ = "final class {class}Double implements {face}\n{\n{members}}",
      .doubleMember = "\tpublic {signature}\n\t{\n\t\tthrow new \\LogicException('{member} is not expected here');\n\t}\n",
      .wrapper = "class {wrap}\n{\n{members}}", .wrapperMember = "\tpublic {signature}\n\t{\n\t\t{return}{class}::{member}({names});\n\t}\n", .makeWrapper = "new {wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

// How an interface of Swift is written and kept.
#include "languages/swift/swift.h"

namespace elmcart {

const Facing& swiftFacing() {
  static constexpr std::string_view kDropped[] = {"public", "internal", "open", "final", "override", "fileprivate"};
  static constexpr Facing kFacing = {
      .name = "{class}Protocol",
      .face = "{visibility}protocol {face}: AnyObject {\n{members}}",
      .member = "\t{signature}\n",
      .clause = ": {face}", .moreClause = ", {face}", .clauseWord = ":",
      .dropped = kDropped,
      .noDefaults = true,
      .nothingUnsaid = true, .labelsArguments = true,
      .double_ = "final class {class}Double: {face} {\n{members}}",
      .doubleMember = "\t{signature} { fatalError(\"{member} is not expected here\") }\n",
      .wrapper = "{visibility}class {wrap} {\n{members}}", .wrapperMember = "\t{signature} {\n\t\t{return}{class}.{member}({names})\n\t}\n", .makeWrapper = "{wrap}()",
  };
  return kFacing;
}

}  // namespace elmcart

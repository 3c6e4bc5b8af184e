// How an interface of Objective-C is written and kept.
#include "languages/objc/objc.h"

namespace elmcart {

const Facing& objcFacing() {
  static constexpr Facing kFacing = {
      .name = "{class}Protocol",
      .face = "@protocol {face} <NSObject>\n{members}@end",
      .member = "{signature};\n",
      .clause = " <{face}>", .moreClause = "{face}, ", .clauseWord = "<",
      .was = "{class} *", .is = "id<{face}> ",
      .forward = "@class {class};", .forwardFace = "@protocol {face};",
      .namedByParts = true,
      .double_ = "@interface {class}Double : NSObject <{face}>\n@end\n\n@implementation {class}Double\n{members}@end",
      .doubleMember = "{signature} {\n\tabort();  // {member} is not expected here\n}\n",
      .wrapper = "@interface {wrap} : NSObject\n{members}@end", .wrapperMember = "{signature} {\n\t{return}{call};\n}\n", .makeWrapper = "[[{wrap} alloc] init]",
      .wrapperBody = "@implementation {wrap}\n\n{members}\n@end", .wrapperDeclaration = "{signature};\n",
  };
  return kFacing;
}

}  // namespace elmcart

// How a function of Objective-C announces that the program starts.
#include "languages/objc/objc.h"

namespace elmcart {

const Announcing& objcAnnouncing() {
  static constexpr Announcing kAnnouncing = {
      .broadcaster = "// Tells those who listen, in the order in which they came, that the program starts.\n@interface {class} : NSObject {\n\tNSMutableArray *_listeners;\n}\n- (void)add:(void (^)(void))listener;\n- (void)announce;\n@end\n\n@implementation {class}\n\n- (void)add:(void (^)(void))listener {\n\tif (!_listeners) {\n\t\t_listeners = [NSMutableArray array];\n\t}\n\t[_listeners addObject:[listener copy]];\n}\n\n- (void)announce {\n\tfor (void (^listener)(void) in _listeners) {\n\t\tlistener();\n\t}\n}\n\n@end",
      .make = "{class} *{name} = [[{class} alloc] init];", .listen = "[{name} add:^{ {statement} }];", .announce = "[{name} announce];",
  };
  return kAnnouncing;
}

}  // namespace elmcart

// What Objective-C++ takes from C++ is read around what is Objective-C.
#import <Foundation/Foundation.h>
#include <memory>

namespace quays = harbour::quays;
using namespace harbour;

namespace {
static int crossings = 0;  // entity: global-variable crossings eager language
}

struct Depth {
  int metres;
};

@interface HOFerry : NSObject  // entity: singleton HOFerry lazy none  // finding: single.open-constructor
@end

@implementation HOFerry {
  quays::Quay::Shared _quay;
  harbour::Depth _depth;
}
+ (HOFerry *)ferry {
  static HOFerry *ferry = nil;
  if (ferry == nil) {
    ferry = [[HOFerry alloc] init];  // finding: thread.unguarded-creation
  }
  return ferry;
}
- (void)cross:(const std::shared_ptr<const quays::Quay> &)quay over:(harbour::Depth const &)depth {
  static const auto slowest = std::make_shared<const quays::Quay>();  // harmless: slowest
  auto &tide = *static_cast<harbour::Tide *>(_tide);
  const auto steps = [self, &tide](int count) -> int {
    crossings += count;
    return count;
  };
  if (auto pier = quay->pier().lock()) steps(2);
  _depth = {};
  _quay = std::static_pointer_cast<quays::Quay const>(quay);
  [self log:{.metres = 3} as:new quays::Mark{"low"}];
  quays::Quay::Kind kind = quays::Quay::Kind::Wet;
  switch (kind) {
    case quays::Quay::Kind::Wet: crossings += 1; break;
    default: throw std::runtime_error("dry");
  }
}
@end

harbour::Lock::Lock(int gates) : gates_(gates), open_{false} {
  crossings += gates;
}

// A key of which only the address counts, a table under a once flag, an accessor that is said to
// give something, and a walk as C++ has it.
#import <Foundation/Foundation.h>
#import <objc/runtime.h>

static char markKey;  // harmless: markKey

@interface HOMarks : NSObject {  // entity: singleton HOMarks lazy once  // finding: single.open-constructor
  int count;
}
@end

@implementation HOMarks
+ (nonnull HOMarks *)marks {
  static HOMarks *marks = nil;
  static dispatch_once_t once;  // harmless: once
  dispatch_once(&once, ^{
    marks = [[HOMarks alloc] init];
  });
  return marks;
}
+ (NSArray<NSString *> *)names {
  static NSArray<NSString *> *names = nil;  // harmless: names
  static dispatch_once_t once;  // harmless: once
  dispatch_once(&once, ^{
    names = @[ @"north", @"south" ];
  });
  return names;
}
- (void)mark:(id)object {
  count = count + 1;
  if (objc_getAssociatedObject(object, &markKey) == nil) objc_setAssociatedObject(object, &markKey, @YES, OBJC_ASSOCIATION_RETAIN);
}
@end

@implementation HOChart {
  HOMarks *_drawn;
}
- (void)draw:(NSArray *)all {
  for (id mark : all) {
    _drawn = mark;
  }
}
- (void)clear {
  _drawn = nil;
}
@end

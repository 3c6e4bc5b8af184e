#import "../ledgers/HQDues.h"

// A layer that may reach none.
@interface HQHall : NSObject
- (int)show;
@end

@implementation HQHall
- (int)show {
    return [[HQDues dues] total];  // finding: coupling.layer-breach
}
@end

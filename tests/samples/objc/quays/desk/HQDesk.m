#import "../ledgers/HQDues.h"

// Near miss: a layer that may.
@interface HQDesk : NSObject
- (void)pay:(int)coins;
@end

@implementation HQDesk
- (void)pay:(int)coins {
    [[HQDues dues] enter:coins];  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
}
@end

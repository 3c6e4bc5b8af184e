#import "../ledgers/HPFees.h"

// A layer that may reach none.
@interface HPBoard : NSObject {
    int shown;
}
- (void)show;
@end

@implementation HPBoard
- (void)show {
    HPFees *fees = [HPFees fees];  // finding: coupling.hidden-dependency coupling.layer-breach
    shown = [fees total];
}
@end

#import "../ledgers/HPFees.h"

// Leaves behind what it entered.
@interface HPFeesTests : NSObject
- (void)testTwice;
@end

@implementation HPFeesTests
- (void)testTwice {
    HPFees *fees = [HPFees fees];
    [fees enter:30];  // finding: coupling.test-leak
    [fees enter:40];
}
@end

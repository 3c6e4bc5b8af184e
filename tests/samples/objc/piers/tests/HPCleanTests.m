#import "../ledgers/HPFees.h"

// Near miss: what runs after each test empties it.
@interface HPCleanTests : NSObject
- (void)testOnce;
- (void)tearDown;
@end

@implementation HPCleanTests
- (void)testOnce {
    [[HPFees fees] enter:30];  // near: coupling.test-leak
}
- (void)tearDown {
    [[HPFees fees] clear];
}
@end

#import "../ledgers/HQDues.h"

// Near miss: puts it back.
@interface HQTidyTests : NSObject
- (void)testAddsUpAndClears;
@end

@implementation HQTidyTests
- (void)testAddsUpAndClears {
    [[HQDues dues] enter:3];  // near: coupling.test-leak
    [[HQDues dues] clear];
}
@end

#import "../ledgers/HQDues.h"

// Leaves behind what it entered.
@interface HQDuesTests : NSObject
- (void)testAddsUp;
@end

@implementation HQDuesTests
- (void)testAddsUp {
    [[HQDues dues] enter:3];  // finding: coupling.test-leak
    [[HQDues dues] enter:4];
}
@end

#import <Foundation/Foundation.h>

@interface HPFees : NSObject {  // entity: singleton HPFees lazy once  // finding: single.open-constructor
    int sum;
}
+ (HPFees *)fees;
- (void)enter:(int)coins;
- (void)clear;
- (int)total;
- (int)twice;
@end

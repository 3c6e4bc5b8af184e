@interface HQDues : NSObject {  // entity: singleton HQDues lazy once
    int sum;
}
+ (HQDues *)dues;
- (void)enter:(int)coins;
- (void)clear;
- (int)total;
@end

#import <Foundation/Foundation.h>

@interface HOTides : NSObject
+ (int)heightOn:(int)day at:(int)hour;
+ (void)raiseBy:(int)feet;
+ (void)forget;
@end

static int level = 4;

@implementation HOTides

+ (int)heightOn:(int)day at:(int)hour {
    return level + day - hour;
}

+ (void)raiseBy:(int)feet {
    level += feet;
}

+ (void)forget {
    level = 0;
}

@end

@interface HOPilot : NSObject {
    int draught;
}
- (BOOL)mayEnterOn:(int)day;
@end

@implementation HOPilot

- (BOOL)mayEnterOn:(int)day {
    [HOTides raiseBy:1];
    return [HOTides heightOn:day at:0] > draught;
}

@end

int main(void) {
    HOPilot *pilot = [[HOPilot alloc] init];
    NSLog(@"%d", [pilot mayEnterOn:1]);
    return 0;
}

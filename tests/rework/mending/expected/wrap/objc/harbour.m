#import <Foundation/Foundation.h>

@interface HOTides : NSObject
+ (int)heightOn:(int)day at:(int)hour;
+ (void)raiseBy:(int)feet;
+ (void)forget;
@end

@interface HOTidesWrapper : NSObject
- (int)heightOn:(int)day at:(int)hour;
- (void)raiseBy:(int)feet;
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

@implementation HOTidesWrapper

- (int)heightOn:(int)day at:(int)hour {
    return [HOTides heightOn:day at:hour];
}

- (void)raiseBy:(int)feet {
    [HOTides raiseBy:feet];
}

@end

@interface HOPilot : NSObject {
    int draught;
}
@property (nonatomic, strong) HOTidesWrapper *tidesWrapper;
- (BOOL)mayEnterOn:(int)day;
@end

@implementation HOPilot

- (HOTidesWrapper *)tidesWrapper {
    return _tidesWrapper ?: [[HOTidesWrapper alloc] init];
}

- (BOOL)mayEnterOn:(int)day {
    [self.tidesWrapper raiseBy:1];
    return [self.tidesWrapper heightOn:day at:0] > draught;
}

@end

int main(void) {
    HOPilot *pilot = [[HOPilot alloc] init];
    pilot.tidesWrapper = [[HOTidesWrapper alloc] init];
    NSLog(@"%d", [pilot mayEnterOn:1]);
    return 0;
}

#import <Foundation/Foundation.h>

static int served = 0;

@interface Desk : NSObject {
    int _open;
}
- (void)serve:(int)ships;
- (int)all;
@end

@implementation Desk

- (void)serve:(int)ships {
    _open = 1;
    served += ships * _open;
}

- (int)all {
    return served;
}

@end

int main(void) {
    Desk *desk = [[Desk alloc] init];
    [desk serve:3];
    NSLog(@"%d", [desk all]);
    return 0;
}

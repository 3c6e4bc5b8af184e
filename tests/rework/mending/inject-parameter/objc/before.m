#import <Foundation/Foundation.h>

@interface TideTable : NSObject
+ (TideTable *)shared;
- (void)raise:(int)by;
- (int)level;
@end

@implementation TideTable {
    int _level;
}

+ (TideTable *)shared {
    static TideTable *table = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        table = [[TideTable alloc] init];
    });
    return table;
}

- (void)raise:(int)by {
    _level += by;
}

- (int)level {
    return _level;
}

@end

static BOOL mayEnter(int draught) {
    return [[TideTable shared] level] > draught;
}

static void night(void) {
    [[TideTable shared] raise:1];
}

int main(void) {
    night();
    NSLog(@"%d", mayEnter(3));
    return 0;
}

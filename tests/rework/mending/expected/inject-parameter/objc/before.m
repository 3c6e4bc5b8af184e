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

static BOOL mayEnterWith(int draught, TideTable *tideTable) {
    return [tideTable level] > draught;
}

static BOOL mayEnter(int draught) {
    return mayEnterWith(draught, [TideTable shared]);
}

static void nightWith(TideTable *tideTable) {
    [tideTable raise:1];
}

static void night(void) {
    nightWith([TideTable shared]);
}

int main(void) {
    night();
    NSLog(@"%d", mayEnter(3));
    return 0;
}

#import <Foundation/Foundation.h>

@interface CargoScale : NSObject {
    NSMutableArray *crates;
}
+ (CargoScale *)scale;
- (void)weigh:(NSNumber *)crate;
- (void)clear;
@end

@implementation CargoScale

+ (CargoScale *)scale {
    static CargoScale *scale = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        scale = [[CargoScale alloc] init];
    });
    return scale;
}

- (instancetype)init {
    if ((self = [super init])) {
        crates = [[NSMutableArray alloc] init];
    }
    return self;
}

- (void)weigh:(NSNumber *)crate {
    [crates addObject:crate];
}

- (void)clear {
    [crates removeAllObjects];
}

@end

void unload(void) {
    dispatch_async(dispatch_get_global_queue(0, 0), ^{
        [[CargoScale scale] weigh:@3];
    });
    [[CargoScale scale] weigh:@4];
    [[CargoScale scale] clear];
}

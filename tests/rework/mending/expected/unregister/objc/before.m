#import <Foundation/Foundation.h>

@protocol Keeper
- (void)heard:(int)signal;
@end

@interface SignalMast : NSObject {
    NSMutableArray *_keepers;
}
+ (SignalMast *)mast;
- (void)attach:(id<Keeper>)keeper;
- (void)detach:(id<Keeper>)keeper;
- (void)raise:(int)signal;
@end

@implementation SignalMast

+ (SignalMast *)mast {
    static SignalMast *mast = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        mast = [[SignalMast alloc] init];
    });
    return mast;
}

- (instancetype)init {
    if ((self = [super init])) {
        _keepers = [NSMutableArray array];
    }
    return self;
}

- (void)attach:(id<Keeper>)keeper {
    [_keepers addObject:keeper];
}

- (void)detach:(id<Keeper>)keeper {
    [_keepers removeObject:keeper];
}

- (void)raise:(int)signal {
    for (id<Keeper> keeper in [_keepers copy]) {
        [keeper heard:signal];
    }
}

@end

@interface Lookout : NSObject <Keeper> {
    int last;
}
- (void)close;
@end

@implementation Lookout

- (instancetype)init {
    if ((self = [super init])) {
        [[SignalMast mast] attach:self];
    }
    return self;
}

- (void)heard:(int)signal {
    last = signal;
}

- (void)close {
    [[SignalMast mast] detach:self];
    last = 0;
}

@end

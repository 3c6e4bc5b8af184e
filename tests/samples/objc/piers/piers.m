#import <Foundation/Foundation.h>

// Near miss: the class makes others of its kind itself.
@interface HPWindlass : NSObject {  // entity: shared-instance HPWindlass lazy once
    int turns;
}
+ (HPWindlass *)windlass;
+ (HPWindlass *)turnedBy:(int)by;
- (void)turn:(int)by;
@end

@implementation HPWindlass

+ (HPWindlass *)windlass {
    static HPWindlass *windlass = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        windlass = [[HPWindlass alloc] init];
    });
    return windlass;
}

+ (HPWindlass *)turnedBy:(int)by {
    HPWindlass *other = [[HPWindlass alloc] init];  // near: single.second-creation
    [other turn:by];
    return other;
}

// One slot for a family; near misses: each class its own, or one class only.
@interface HPRaft : NSObject {  // entity: singleton HPRaft lazy lock  // finding: single.open-constructor
    int logs;
}
+ (instancetype)raft;
- (void)sink;
@end

@interface HPWideRaft : HPRaft
- (void)load2;
@end

static HPRaft *theRaft;

@implementation HPRaft

+ (instancetype)raft {
    @synchronized ([HPRaft class]) {
        if (theRaft == nil) {
            theRaft = [[self alloc] init];  // finding: single.slot-shared-by-subclasses
        }
        return theRaft;
    }
}

@implementation HPWideRaft
- (void)load2 {
    [self sink];
}
@end

// Made once by what overrides the making, and set anew each time; near misses: set the first time only.
@interface HPDinghy : NSObject {  // entity: singleton HPDinghy lazy lock
    int oars;
}
- (void)row;
@end

static HPDinghy *theDinghy;

@implementation HPDinghy

+ (instancetype)allocWithZone:(NSZone *)zone {
    @synchronized (self) {
        if (theDinghy == nil) {
            theDinghy = [super allocWithZone:zone];  // finding: init.lazy-needless
        }
        return theDinghy;
    }
}

- (instancetype)init {
    if ((self = [super init])) {
        oars = 2;  // finding: single.reinitialised
    }
    return self;
}

- (instancetype)init {
    if ((self = [super init])) {
        if (!ready) {
            paddles = 2;  // near: single.reinitialised
            ready = YES;  // near: single.reinitialised
        }
    }
    return self;
}

// A circle of three.
@interface HPCrane : NSObject {  // entity: singleton HPCrane lazy once
    int load;
}
+ (HPCrane *)crane;
- (int)load1;
@end

@interface HPHook : NSObject {  // entity: singleton HPHook lazy once
    int weight;
}
+ (HPHook *)hook;
- (int)weight;
@end

@implementation HPHook

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        weight = [[HPCrane crane] load1];
    }
    return self;
}

+ (HPHook *)hook {
    static HPHook *hook = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        hook = [[HPHook alloc] init];
    });
    return hook;
}

@interface HPWinch : NSObject {  // entity: singleton HPWinch lazy once
    int rope;
}
+ (HPWinch *)winch;
- (int)rope;
@end

@implementation HPWinch

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        rope = [[HPHook hook] weight];
    }
    return self;
}

+ (HPWinch *)winch {
    static HPWinch *winch = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        winch = [[HPWinch alloc] init];
    });
    return winch;
}

@implementation HPCrane

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        load = [[HPWinch winch] rope];
    }
    return self;
}

+ (HPCrane *)crane {
    static HPCrane *crane = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        crane = [[HPCrane alloc] init];  // finding: init.cycle
    });
    return crane;
}

// Asks for itself through a helper.
void greetTheBook(void);

@interface HPLogBook : NSObject {  // entity: singleton HPLogBook lazy once
    int lines;
}
+ (HPLogBook *)logBook;
- (void)write;
@end

@implementation HPLogBook

+ (HPLogBook *)logBook {
    static HPLogBook *logBook = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        logBook = [[HPLogBook alloc] init];
    });
    return logBook;
}

void greetTheBook(void) {
    [[HPLogBook logBook] write];
}

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        links = [NSMutableArray array];
        for (int link = 0; link < 4; link++) {
            [links addObject:@"link"];
        }
    }
    return self;
}

// Fields that two threads set, and a look and a change without a lock; near misses: under one.
@interface HPSignals : NSObject {  // entity: singleton HPSignals lazy once
    NSString *shown;
    NSString *last;
    NSMutableArray *kept;
    NSMutableDictionary *taken;
    NSMutableDictionary *given;
}
+ (HPSignals *)signals;
- (void)show:(NSString *)flag;
- (NSString *)shown;
- (void)keep:(NSString *)flag;
- (void)forget;
- (void)take:(NSString *)name;
- (void)free:(NSString *)name;
- (void)give:(NSString *)name;
- (void)back:(NSString *)name;
@end

@implementation HPSignals

+ (HPSignals *)signals {
    static HPSignals *signals = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        signals = [[HPSignals alloc] init];
    });
    return signals;
}

- (void)close {
    isOpen = NO;
}

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        blocks = 2;
    }
    return self;
}

#import <Foundation/Foundation.h>

- (instancetype)init {
    if ((self = [super init])) {
        if (getenv("HARBOUR") == NULL) {
            @throw [NSException exceptionWithName:@"tides" reason:@"none" userInfo:nil];
        }
    }
    return self;
}

- (instancetype)init {
    if ((self = [super init])) {
        @try {
            _rows = [NSData dataWithContentsOfFile:@"degrees"];
        } @catch (NSException *failure) {  // near: init.failure-swallowed
            @throw failure;
        }
    }
    return self;
}

// Tested before the lock, and not again; near miss in the next class.
@interface HQRadar : NSObject {  // entity: singleton HQRadar lazy double-check-unsound
    int sweeps;
}
+ (HQRadar *)radar;
- (void)sweep;
@end

static HQRadar *theRadar;

@implementation HQRadar

+ (HQRadar *)radar {
    if (theRadar == nil) {  // finding: thread.double-check-incomplete
        @synchronized (self) {
            theRadar = [[HQRadar alloc] init];  // finding: init.lazy-needless
        }
    }
    return theRadar;
}

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

// Nothing to hand in.
static NSInteger stampsUsed = 0;

@interface HQStamps : NSObject  // entity: static-holder HQStamps eager language
+ (void)use;
+ (NSInteger)used;
@end

@implementation HQStamps

+ (void)use {
    stampsUsed = 1;
}

- (instancetype)init {
    return [super init];
}

// Whoever asks for one gets the one, and runs its constructor on it again.
@interface HQRadioLog : NSObject {  // entity: singleton HQRadioLog lazy once
    NSMutableArray *_lines;
}
- (void)write:(NSString *)line;
@end

@implementation HQRadioLog

+ (instancetype)allocWithZone:(struct _NSZone *)zone {
    static HQRadioLog *log = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        log = [super allocWithZone:zone];
    });
    return log;
}

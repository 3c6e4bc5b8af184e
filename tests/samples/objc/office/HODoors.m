#import <Foundation/Foundation.h>

// Nothing before it is opened.
@interface HORadarPlot : NSObject {  // entity: singleton HORadarPlot lazy none // finding: single.open-constructor
    int echoes;
}
+ (void)open;
+ (HORadarPlot *)plot;
- (void)echo;
@end

static HORadarPlot *thePlot;

@implementation HORadarPlot

+ (void)open {
    thePlot = [[HORadarPlot alloc] init];
}

+ (HORadarPlot *)plot {
    return thePlot;  // finding: single.may-return-nothing
}

- (void)echo {
    echoes = echoes + 1;
}

@end

// Closed to others.
@interface HOFoghorn : NSObject {  // entity: singleton HOFoghorn lazy lock
    int blown;
}
+ (HOFoghorn *)horn;
- (instancetype)init NS_UNAVAILABLE;
+ (instancetype)new NS_UNAVAILABLE;
- (void)blow;
@end

@implementation HOFoghorn

- (instancetype)initPrivately {
    return [super init];
}

+ (HOFoghorn *)horn {
    static HOFoghorn *horn;
    @synchronized (self) {  // finding: thread.lock-every-access
        if (horn == nil) {
            horn = [[HOFoghorn alloc] initPrivately];  // finding: init.lazy-needless
        }
    }
    return horn;
}

- (void)blow {
    @synchronized (self) {
        blown++;
    }
}

@end

void openTheGate(void) {
    [HORadarPlot open];
    [[HORadarPlot plot] echo];
    for (int i = 0; i < 3; i++) {
        [[HOFoghorn horn] blow];
    }
}

// One is handed out, another is made beside it.
@interface HQBeacon : NSObject {  // entity: singleton HQBeacon lazy once
    int flashes;
}
+ (HQBeacon *)beacon;
- (void)flash;
@end

static HQBeacon *theBeacon;

@implementation HQBeacon

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        flashes = 0;
    }
    return self;
}

+ (HQBeacon *)beacon {
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        theBeacon = [[HQBeacon alloc] init];
    });
    return theBeacon;
}

// Another takes its place.
@interface HQHorn : NSObject {  // entity: singleton HQHorn lazy none
    int blown;
}
+ (HQHorn *)horn;
+ (void)replaceWith:(HQHorn *)other;
- (void)blow;
@end

static HQHorn *theHorn;

@implementation HQHorn

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQHorn *)horn {
    if (theHorn == nil) {
        theHorn = [[HQHorn alloc] init];  // finding: thread.unguarded-creation
    }
    return theHorn;
}

// One slot for a family of classes.
@interface HQBerth : NSObject {  // entity: singleton HQBerth lazy once
    int ships;
}
+ (instancetype)berth;
- (void)moor;
@end

@interface HQDeepBerth : HQBerth
- (void)dredge;
@end

@implementation HQBerth

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (instancetype)berth {
    static HQBerth *berth = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        berth = [[self alloc] init];  // finding: single.slot-shared-by-subclasses
    });
    return berth;
}

@implementation HQDeepBerth
- (void)dredge {
    [self moor];
}
@end

// Only the first caller's name counts.
@interface HQPlate : NSObject {  // entity: singleton HQPlate lazy lock
    NSString *_name;
}
+ (HQPlate *)plateWithName:(NSString *)name;  // finding: init.arguments-ignored
- (void)rename:(NSString *)name;
@end

static HQPlate *thePlate;

@implementation HQPlate

- (instancetype)initWithName:(NSString *)name {
    if ((self = [super init])) {
        _name = name;
    }
    return self;
}

+ (HQPlate *)plateWithName:(NSString *)name {
    @synchronized (self) {
        if (thePlate == nil) {
            thePlate = [[HQPlate alloc] initWithName:name];
        }
        return thePlate;
    }
}

// Each needs the other while it is made.
@interface HQLight : NSObject {  // entity: singleton HQLight lazy once
    int height;
}
+ (HQLight *)light;
- (void)raise;
@end

@interface HQMole : NSObject {  // entity: singleton HQMole lazy once
    int span;
}
+ (HQMole *)mole;
- (int)length;
@end

@implementation HQLight

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        height = [[HQMole mole] length];  // finding: coupling.cycle coupling.hidden-dependency
    }
    return self;
}

+ (HQLight *)light {
    static HQLight *light = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        light = [[HQLight alloc] init];  // finding: init.cycle
    });
    return light;
}

@implementation HQMole

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        [[HQLight light] raise];  // finding: coupling.cycle coupling.hidden-dependency
    }
    return self;
}

+ (HQMole *)mole {
    static HQMole *mole = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        mole = [[HQMole alloc] init];
    });
    return mole;
}

// Asks for itself.
@interface HQDutyBook : NSObject {  // entity: singleton HQDutyBook lazy once
    int entries;
}
+ (HQDutyBook *)book;
- (void)enter;
@end

@implementation HQDutyBook

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        [self begin];
    }
    return self;
}

+ (HQDutyBook *)book {
    static HQDutyBook *book = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        book = [[HQDutyBook alloc] init];
    });
    return book;
}

// Works only after a call, and is used before it; near miss: it tests.
@interface HQChart : NSObject
- (int)depth;
@end

@implementation HQChart
- (int)depth {
    return 4;
}
@end

@interface HQPlotter : NSObject {  // entity: singleton HQPlotter lazy once
    HQChart *_chart;
    int uses;
}
+ (HQPlotter *)plotter;
- (void)load:(HQChart *)chart;
- (int)depth;
- (int)tested;
@end

@implementation HQPlotter

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQPlotter *)plotter {
    static HQPlotter *plotter = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        plotter = [[HQPlotter alloc] init];
    });
    return plotter;
}

// Throws while it is made; reads the environment.
@interface HQTideTable : NSObject {  // entity: singleton HQTideTable lazy once
    int rows;
}
+ (HQTideTable *)table;
- (void)next;
@end

@implementation HQTideTable

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        if (getenv("HARBOUR") == NULL) {  // finding: init.reads-environment
            @throw [NSException exceptionWithName:@"tides" reason:@"none" userInfo:nil];
        }
    }
    return self;
}

+ (HQTideTable *)table {
    static HQTideTable *table = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        table = [[HQTideTable alloc] init];  // finding: init.may-throw
    });
    return table;
}

// The failure is dropped; near miss: it is told.
@interface HQBarograph : NSObject {  // entity: singleton HQBarograph lazy once
    NSData *_rows;
}
+ (HQBarograph *)barograph;
- (void)drop;
@end

@implementation HQBarograph

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        @try {
            _rows = [NSData dataWithContentsOfFile:@"pressure"];
        } @catch (NSException *failure) {  // finding: init.failure-swallowed
        }
    }
    return self;
}

+ (HQBarograph *)barograph {
    static HQBarograph *barograph = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        barograph = [[HQBarograph alloc] init];
    });
    return barograph;
}

@interface HQThermograph : NSObject {  // entity: singleton HQThermograph lazy once
    NSData *_rows;
}
+ (HQThermograph *)thermograph;
- (void)drop;
@end

@implementation HQThermograph

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        @try {
            _rows = [NSData dataWithContentsOfFile:@"degrees"];
        } @catch (NSException *failure) {  // near: init.failure-swallowed
            @throw failure;
        }
    }
    return self;
}

+ (HQThermograph *)thermograph {
    static HQThermograph *thermograph = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        thermograph = [[HQThermograph alloc] init];  // finding: init.may-throw
    });
    return thermograph;
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

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQRadar *)radar {
    if (theRadar == nil) {  // finding: thread.double-check-incomplete
        @synchronized (self) {
            theRadar = [[HQRadar alloc] init];  // finding: init.lazy-needless
        }
    }
    return theRadar;
}

// The slot is read outside the lock.
@interface HQSonar : NSObject {  // entity: singleton HQSonar lazy double-check-unsound
    int pings;
}
+ (HQSonar *)sonar;
- (void)ping;
@end

static HQSonar *theSonar;

@implementation HQSonar

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQSonar *)sonar {
    if (theSonar == nil) {  // finding: thread.double-check-unsound // near: thread.double-check-incomplete
        @synchronized (self) {
            if (theSonar == nil) {
                theSonar = [[HQSonar alloc] init];  // finding: init.lazy-needless
            }
        }
    }
    return theSonar;
}

// A lock that is made for each call.
@interface HQSonde : NSObject {  // entity: singleton HQSonde lazy lock
    int drops;
}
+ (HQSonde *)sonde;
- (void)drop;
@end

static HQSonde *theSonde;

@implementation HQSonde

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQSonde *)sonde {
    NSObject *gate = [[NSObject alloc] init];
    @synchronized (gate) {  // finding: thread.wrong-lock
        if (theSonde == nil) {
            theSonde = [[HQSonde alloc] init];  // finding: init.lazy-needless
        }
    }
    return theSonde;
}

// The list itself leaves from under its lock; near miss: a copy.
@interface HQNotes : NSObject {  // entity: singleton HQNotes lazy once
    NSMutableArray *_notes;
}
+ (HQNotes *)notes;
- (void)add:(NSString *)note;
- (NSMutableArray *)all;
- (NSArray *)copied;
@end

@implementation HQNotes

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        _notes = [NSMutableArray array];
    }
    return self;
}

+ (HQNotes *)notes {
    static HQNotes *notes = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        notes = [[HQNotes alloc] init];
    });
    return notes;
}

- (void)add:(NSString *)note {
    @synchronized (self) {
        [_notes addObject:note];
    }
}

- (NSMutableArray *)all {
    @synchronized (self) {
        return _notes;  // finding: thread.leaks-internals
    }
}

// Who is listed is told of each signal.
@protocol HQKeeper
- (void)heard:(int)signal;
@end

@interface HQMast : NSObject {  // entity: singleton HQMast lazy once
    NSMutableArray *_keepers;
}
+ (HQMast *)mast;
- (void)attach:(id<HQKeeper>)keeper;
- (void)detach:(id<HQKeeper>)keeper;
- (void)raise:(int)signal;
@end

@implementation HQMast

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        _keepers = [NSMutableArray array];
    }
    return self;
}

+ (HQMast *)mast {
    static HQMast *mast = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        mast = [[HQMast alloc] init];
    });
    return mast;
}

// Opens what nothing closes; near miss: closed at its end.
@interface HQEchoLog : NSObject {  // entity: singleton HQEchoLog lazy once
    FILE *file;
}
+ (HQEchoLog *)log;
- (void)begin;
@end

@implementation HQEchoLog

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQEchoLog *)log {
    static HQEchoLog *log = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        log = [[HQEchoLog alloc] init];
    });
    return log;
}

@interface HQWaveLog : NSObject {  // entity: singleton HQWaveLog lazy once
    FILE *file;
}
+ (HQWaveLog *)log;
- (void)begin;
- (void)close;
@end

@implementation HQWaveLog

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQWaveLog *)log {
    static HQWaveLog *log = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        log = [[HQWaveLog alloc] init];
    });
    return log;
}

// Keeps what is made for one visit; used after its end.
@class HQVisit;

@interface HQGate : NSObject {  // entity: singleton HQGate lazy once
    HQVisit *_visit;
    NSString *_last;
    int opened;
}
+ (HQGate *)gate;
- (void)begin:(HQVisit *)visit;
- (void)note:(NSString *)ship;
- (void)close;
- (void)open;
@end

@implementation HQGate

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQGate *)gate {
    static HQGate *gate = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        gate = [[HQGate alloc] init];
    });
    return gate;
}

@interface HQVisit : NSObject {
    NSString *_ship;
}
- (instancetype)initWithShip:(NSString *)ship;
- (void)enter;
@end

@implementation HQVisit

// Knows who uses it.
@class HQBerther;

@interface HQPlan : NSObject {  // entity: singleton HQPlan lazy once
    int berths;
}
+ (HQPlan *)plan;
- (void)change:(HQBerther *)berther;
- (int)berths;
@end

@interface HQBerther : NSObject {
    int spare;
}
- (void)arrive;
- (void)stop;
@end

@implementation HQPlan

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQPlan *)plan {
    static HQPlan *plan = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        plan = [[HQPlan alloc] init];
    });
    return plan;
}

@implementation HQBerther

// One object reached through another.
@interface HQBuoyage : NSObject {  // entity: singleton HQBuoyage lazy once
    int laid;
}
+ (HQBuoyage *)buoyage;
- (void)lay;
@end

@implementation HQBuoyage

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQBuoyage *)buoyage {
    static HQBuoyage *buoyage = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        buoyage = [[HQBuoyage alloc] init];
    });
    return buoyage;
}

@interface HQFairway : NSObject {  // entity: singleton HQFairway lazy once
    int depth;
}
+ (HQFairway *)fairway;
- (HQBuoyage *)marks;
- (void)dredge;
@end

@implementation HQFairway

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQFairway *)fairway {
    static HQFairway *fairway = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        fairway = [[HQFairway alloc] init];
    });
    return fairway;
}

@interface HQTender : NSObject
- (void)work;
@end

@implementation HQTender
- (void)work {
    [[[HQFairway fairway] marks] lay];  // finding: coupling.chained-access coupling.hidden-dependency
    [[HQFairway fairway] dredge];  // near: coupling.chained-access
}
@end

// Nothing to hand in.
static NSInteger stampsUsed = 0;

@interface HQStamps : NSObject  // entity: static-holder HQStamps eager language // finding: coupling.static-only-api
+ (void)use;
+ (NSInteger)used;
@end

@implementation HQStamps

+ (void)use {
    stampsUsed = 1;
}

// Reached from everywhere.
@interface HQSiren : NSObject {  // entity: singleton HQSiren lazy once // finding: coupling.wide-reach
    int sounded;
}
+ (HQSiren *)siren;
- (void)sound;
@end

@implementation HQSiren

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQSiren *)siren {
    static HQSiren *siren = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        siren = [[HQSiren alloc] init];
    });
    return siren;
}

@interface HQNorthQuay : NSObject
- (void)fog;
@end

@implementation HQNorthQuay
- (void)fog {
    [[HQSiren siren] sound];  // finding: coupling.hidden-dependency
}
@end

@interface HQSouthQuay : NSObject
- (void)fog;
@end

@implementation HQSouthQuay
- (void)fog {
    [[HQSiren siren] sound];
}
@end

@interface HQEastQuay : NSObject
- (void)fog;
@end

@implementation HQEastQuay
- (void)fog {
    [[HQSiren siren] sound];
    [HQStamps use];  // finding: coupling.hidden-dependency
}
@end

@interface HQWestQuay : NSObject
- (void)fog;
@end

@implementation HQWestQuay
- (void)fog {
    [[HQSiren siren] sound];
    [HQStamps use];
}
@end

// Starts them all; near miss: only five.
@interface HQOpening : NSObject
- (void)open;
- (void)half;
@end

@implementation HQOpening

- (void)open {  // finding: coupling.crowded-startup
    [[HQSiren siren] sound];
    [[HQBeacon beacon] flash];  // finding: coupling.hidden-dependency
    [[HQWaveLog log] begin];  // finding: coupling.hidden-dependency
    [[HQEchoLog log] begin];  // finding: coupling.hidden-dependency
    [[HQBerth berth] moor];  // finding: coupling.hidden-dependency
    [[HQTideTable table] next];  // finding: coupling.hidden-dependency
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

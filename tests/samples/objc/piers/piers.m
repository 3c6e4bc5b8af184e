@interface HPAnchor : NSObject {  // near: single.meant-single  // entity: singleton HPAnchor lazy lock
    int chain;
    NSMutableArray *rows;
}
+ (HPAnchor *)anchor;
- (void)lower;
- (void)shorten;
@end

static HPAnchor *theAnchor;

@implementation HPAnchor

- (instancetype)init {  // near: single.open-constructor
    if ((self = [super init])) {
        if (theAnchor != nil) {
            @throw [NSException exceptionWithName:@"anchor" reason:@"there" userInfo:nil];
        }
        rows = [NSMutableArray array];
        for (int row = 0; row < 4; row++) {
            [rows addObject:@"row"];
        }
    }
    return self;
}

+ (HPAnchor *)anchor {
    @synchronized (self) {  // near: thread.wrong-lock thread.lock-every-access
        if (theAnchor == nil) {  // near: thread.double-check-incomplete thread.double-check-unsound
            theAnchor = [[HPAnchor alloc] init];  // near: thread.unguarded-creation init.lazy-needless single.second-creation
        }
        return theAnchor;  // near: single.may-return-nothing
    }
}

// One is handed out, and a function makes another.
@interface HPCapstan : NSObject {  // entity: singleton HPCapstan lazy once
    int turns;
}
+ (HPCapstan *)capstan;
- (void)turn;
@end

@implementation HPCapstan

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPCapstan *)capstan {
    static HPCapstan *capstan = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        capstan = [[HPCapstan alloc] init];
    });
    return capstan;
}

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

// Hands out what another function fills; near misses: it sees to it.
@interface HPBeam : NSObject {  // entity: singleton HPBeam lazy none
    int lit;
}
+ (HPBeam *)beam;
+ (void)begin;
- (void)light;
@end

static HPBeam *theBeam;

@implementation HPBeam

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPBeam *)beam {
    return theBeam;  // finding: single.may-return-nothing
}

+ (void)begin {
    theBeam = [[HPBeam alloc] init];
}

@interface HPGlow : NSObject {  // entity: singleton HPGlow lazy none
    int lit;
}
+ (HPGlow *)glow;
- (void)light;
@end

static HPGlow *theGlow;

@implementation HPGlow

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPGlow *)glow {
    if (theGlow == nil) {
        [self begin];
    }
    return theGlow;  // near: single.may-return-nothing
}

+ (void)begin {
    theGlow = [[HPGlow alloc] init];
}

// Put in another's place by whoever has one; near misses: set once.
@interface HPFlare : NSObject {  // entity: singleton HPFlare lazy lock
    int lit;
}
+ (HPFlare *)flare;
+ (void)replaceWith:(HPFlare *)other;
- (void)light;
@end

static HPFlare *theFlare;

@implementation HPFlare

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPFlare *)flare {
    @synchronized (self) {
        if (theFlare == nil) {
            theFlare = [[HPFlare alloc] init];  // finding: init.lazy-needless
        }
        return theFlare;
    }
}

@interface HPTorch : NSObject {  // entity: singleton HPTorch lazy once
    int lit;
}
+ (HPTorch *)torch;
- (void)light;
@end

@implementation HPTorch

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPTorch *)torch {
    static HPTorch *torch = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        torch = [[HPTorch alloc] init];  // near: single.replaceable init.reentrant init.cycle
    });
    return torch;
}

@interface HPCandle : NSObject {  // entity: singleton HPCandle lazy none
    int lit;
}
+ (HPCandle *)candle;
- (void)light;
@end

static HPCandle *theCandle;

@implementation HPCandle

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPCandle *)candle {
    if (theCandle == nil) {
        theCandle = [[HPCandle alloc] init];  // near: single.replaceable init.reentrant init.cycle  // finding: thread.unguarded-creation
    }
    return theCandle;
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

@interface HPPunt : NSObject {  // entity: singleton HPPunt lazy once
    int poles;
}
+ (HPPunt *)punt;
- (void)push;
@end

@implementation HPPunt

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPPunt *)punt {
    static HPPunt *punt = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        punt = [[HPPunt alloc] init];  // near: single.slot-shared-by-subclasses
    });
    return punt;
}

@interface HPFerry : NSObject {  // entity: singleton HPFerry lazy lock
    int trips;
}
+ (HPFerry *)ferry;
- (void)cross;
@end

static HPFerry *theFerry;

@implementation HPFerry

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPFerry *)ferry {
    @synchronized (self) {
        if (theFerry == nil) {
            theFerry = [[HPFerry alloc] init];  // near: single.slot-shared-by-subclasses  // finding: init.lazy-needless
        }
        return theFerry;
    }
}

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

- (instancetype)initWithName:(NSString *)name {  // near: init.arguments-ignored
    if ((self = [super init])) {
        _name = name;
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
        weight = [[HPCrane crane] load1];  // finding: coupling.hidden-dependency
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
        rope = [[HPHook hook] weight];  // finding: coupling.hidden-dependency
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
        load = [[HPWinch winch] rope];  // finding: coupling.hidden-dependency
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

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        greetTheBook();
    }
    return self;
}

+ (HPLogBook *)logBook {
    static HPLogBook *logBook = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        logBook = [[HPLogBook alloc] init];
    });
    return logBook;
}

void greetTheBook(void) {
    [[HPLogBook logBook] write];  // finding: init.reentrant
}

// Reads the environment while it is made; near misses: asked later.
@interface HPFlags : NSObject {  // entity: singleton HPFlags lazy once
    const char *home;
}
+ (HPFlags *)flags;
- (void)reload;
@end

@implementation HPFlags

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        home = getenv("HARBOUR");  // finding: init.reads-environment
    }
    return self;
}

+ (HPFlags *)flags {
    static HPFlags *flags = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        flags = [[HPFlags alloc] init];
    });
    return flags;
}

@interface HPPennants : NSObject {  // entity: singleton HPPennants lazy once
    const char *home;
}
+ (HPPennants *)pennants;
- (void)reload;
- (void)strain:(int)tons;
@end

@implementation HPPennants

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        home = NULL;
    }
    return self;
}

+ (HPPennants *)pennants {
    static HPPennants *pennants = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        pennants = [[HPPennants alloc] init];  // near: init.may-throw
    });
    return pennants;
}

@interface HPScale : NSObject {  // entity: singleton HPScale lazy once
    int tons;
}
+ (HPScale *)scale;
- (void)load2;
@end

@implementation HPScale

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        @try {
            tons = [NSString stringWithContentsOfFile:@"scale" encoding:4 error:nil].intValue;
        } @catch (NSException *failure) {
            NSLog(@"%@", failure);
            tons = 0;
        }
    }
    return self;
}

+ (HPScale *)scale {
    static HPScale *scale = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        scale = [[HPScale alloc] init];  // near: init.may-throw
    });
    return scale;
}

// Works only after it was set up; near miss: it sees to it itself.
@interface HPGauge : NSObject {
    int level;
}
- (int)read;
@end

@implementation HPGauge

@interface HPLocks : NSObject {  // entity: singleton HPLocks lazy once
    HPGauge *_gauge;
    int level;
}
+ (HPLocks *)locks;
- (void)setUp:(HPGauge *)gauge;
- (void)fill;
@end

@implementation HPLocks

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPLocks *)locks {
    static HPLocks *locks = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        locks = [[HPLocks alloc] init];
    });
    return locks;
}

@interface HPBasin : NSObject {  // entity: singleton HPBasin lazy once
    HPGauge *_gauge;
    int level;
}
+ (HPBasin *)basin;
- (void)setUp:(HPGauge *)gauge;
- (void)fill;
@end

@implementation HPBasin

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPBasin *)basin {
    static HPBasin *basin = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        basin = [[HPBasin alloc] init];
    });
    return basin;
}

// The failure goes nowhere; near miss: it is told.
@interface HPBarometer : NSObject {  // entity: singleton HPBarometer lazy lock
    NSData *_rows;
}
+ (HPBarometer *)barometer;
- (void)drop;
@end

static HPBarometer *theBarometer;

@implementation HPBarometer

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        @try {
            _rows = [NSData dataWithContentsOfFile:@"barometer"];
        } @catch (NSException *failure) {  // finding: init.failure-swallowed
        }
    }
    return self;
}

+ (HPBarometer *)barometer {
    @synchronized (self) {
        if (theBarometer == nil) {
            theBarometer = [[HPBarometer alloc] init];
        }
        return theBarometer;
    }
}

@interface HPHygrometer : NSObject {  // entity: singleton HPHygrometer lazy lock
    NSData *_rows;
}
+ (HPHygrometer *)hygrometer;
- (void)drop;
@end

static HPHygrometer *theHygrometer;

@implementation HPHygrometer

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        @try {
            _rows = [NSData dataWithContentsOfFile:@"hygrometer"];
        } @catch (NSException *failure) {  // near: init.failure-swallowed
            @throw [NSException exceptionWithName:@"hygrometer" reason:failure.reason userInfo:nil];
        }
    }
    return self;
}

+ (HPHygrometer *)hygrometer {
    @synchronized (self) {
        if (theHygrometer == nil) {
            theHygrometer = [[HPHygrometer alloc] init];  // finding: init.may-throw
        }
        return theHygrometer;
    }
}

// Tested before the lock only.
@interface HPShutters : NSObject {  // entity: singleton HPShutters lazy double-check-unsound
    int closed;
}
+ (HPShutters *)shutters;
- (void)close;
@end

static HPShutters *theShutters;

@implementation HPShutters

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPShutters *)shutters {
    if (theShutters == nil) {  // finding: thread.double-check-incomplete
        @synchronized (self) {
            theShutters = [[HPShutters alloc] init];  // finding: init.lazy-needless
        }
    }
    return theShutters;
}

// Read outside the lock.
@interface HPBlinds : NSObject {  // entity: singleton HPBlinds lazy double-check-unsound
    int drawn;
}
+ (HPBlinds *)blinds;
- (void)draw;
@end

static HPBlinds *theBlinds;

@implementation HPBlinds

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPBlinds *)blinds {
    if (theBlinds == nil) {  // finding: thread.double-check-unsound
        @synchronized (self) {
            if (theBlinds == nil) {
                theBlinds = [[HPBlinds alloc] init];  // finding: init.lazy-needless
            }
        }
    }
    return theBlinds;
}

// A lock in each call.
@interface HPFuse : NSObject {  // entity: singleton HPFuse lazy lock
    int burnt;
}
+ (HPFuse *)fuse;
- (void)burn;
@end

static HPFuse *theFuse;

@implementation HPFuse

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPFuse *)fuse {
    NSObject *own = [NSObject new];
    @synchronized (own) {  // finding: thread.wrong-lock
        if (theFuse == nil) {
            theFuse = [[HPFuse alloc] init];  // finding: init.lazy-needless
        }
    }
    return theFuse;
}

// A lock for each look, in a loop.
@interface HPRopes : NSObject {  // entity: singleton HPRopes lazy lock
    NSMutableArray *coils;
}
+ (HPRopes *)ropes;
- (void)cut;
- (NSMutableArray *)all;
- (NSArray *)copied;
@end

static HPRopes *theRopes;

@implementation HPRopes

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        coils = [NSMutableArray array];
        for (int coil = 0; coil < 4; coil++) {
            [coils addObject:@"coil"];
        }
    }
    return self;
}

+ (HPRopes *)ropes {
    @synchronized (self) {  // finding: thread.lock-every-access
        if (theRopes == nil) {
            theRopes = [[HPRopes alloc] init];
        }
        return theRopes;
    }
}

@interface HPChains : NSObject {  // entity: singleton HPChains lazy lock
    NSMutableArray *links;
}
+ (HPChains *)chains;
- (void)cut;
@end

static HPChains *theChains;

@implementation HPChains

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        links = [NSMutableArray array];
        for (int link = 0; link < 4; link++) {
            [links addObject:@"link"];
        }
    }
    return self;
}

+ (HPChains *)chains {
    @synchronized (self) {  // near: thread.lock-every-access thread.wrong-lock
        if (theChains == nil) {
            theChains = [[HPChains alloc] init];  // near: thread.unguarded-creation init.lazy-needless thread.double-check-unsound
        }
        return theChains;
    }
}

// Made on first use behind a lock, for nothing.
@interface HPBench : NSObject {  // entity: singleton HPBench lazy lock
    int seats;
}
+ (HPBench *)bench;
- (void)sit;
@end

static HPBench *theBench;

@implementation HPBench

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPBench *)bench {
    @synchronized (self) {
        if (theBench == nil) {
            theBench = [[HPBench alloc] init];  // finding: init.lazy-needless
        }
        return theBench;
    }
}

void week(void) {
    for (int day = 0; day < 7; day++) {
        [[HPRopes ropes] cut];
    }
    HPChains *chains = [HPChains chains];
    for (int day = 0; day < 7; day++) {
        [chains cut];
    }
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

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        kept = [NSMutableArray array];
        taken = [NSMutableDictionary dictionary];
        given = [NSMutableDictionary dictionary];
    }
    return self;
}

+ (HPSignals *)signals {
    static HPSignals *signals = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        signals = [[HPSignals alloc] init];
    });
    return signals;
}

- (void)show:(NSString *)flag {
    shown = flag;  // finding: thread.unguarded-state
}

- (NSString *)shown {
    return shown;
}

- (void)keep:(NSString *)flag {
    @synchronized (self) {
        last = flag;  // near: thread.unguarded-state
        [kept addObject:flag];
    }
}

- (void)forget {
    [kept removeAllObjects];  // finding: thread.mixed-guard
}

- (void)take:(NSString *)name {
    if (taken[name] == nil) {  // finding: thread.check-then-act
        taken[name] = name;
    }
}

- (void)free:(NSString *)name {
    [taken removeObjectForKey:name];
}

void work(void) {  // finding: coupling.crowded-startup
    dispatch_queue_t queue = dispatch_get_global_queue(0, 0);
    dispatch_async(queue, ^{ [[HPSignals signals] show:@"A"]; });
    dispatch_async(queue, ^{ [[HPSignals signals] keep:[[HPSignals signals] shown]]; });
    dispatch_async(queue, ^{ [[HPSignals signals] forget]; });
    dispatch_async(queue, ^{ [[HPSignals signals] free:@"a"]; });
    dispatch_async(queue, ^{ [[HPSignals signals] back:@"a"]; });
    dispatch_async(queue, ^{ [[HPAnchor anchor] lower]; });
    dispatch_async(queue, ^{ [[HPAnchor anchor] shorten]; });
    dispatch_async(queue, ^{ [[HPShutters shutters] close]; });
    dispatch_async(queue, ^{ [[HPBlinds blinds] draw]; });
    dispatch_async(queue, ^{ [[HPFuse fuse] burn]; });
    dispatch_async(queue, ^{ week(); });
    [[HPSignals signals] take:@"a"];
    [[HPSignals signals] give:@"a"];
    [[HPBench bench] sit];
}

@protocol HPRinging
- (void)ring;
- (void)heard:(NSString *)what;
@end

// Walks over the list itself, and registers whoever asks; near misses: over a copy, and with a look first.
@interface HPBells : NSObject {  // entity: singleton HPBells lazy once
    NSMutableArray *ringers;
    NSMutableArray *players;
    NSMutableArray *calls;
}
+ (HPBells *)bells;
- (void)add:(id<HPRinging>)ringer;
- (void)remove:(id<HPRinging>)ringer;
- (void)ring;
- (void)addPlayer:(id<HPRinging>)player;
- (void)removePlayer:(id<HPRinging>)player;
- (void)play;
- (void)call:(NSString *)what;
@end

@implementation HPBells

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        ringers = [NSMutableArray array];
        players = [NSMutableArray array];
        calls = [NSMutableArray array];
    }
    return self;
}

+ (HPBells *)bells {
    static HPBells *bells = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        bells = [[HPBells alloc] init];
    });
    return bells;
}

- (void)add:(id<HPRinging>)ringer {
    [ringers addObject:ringer];
}

- (void)remove:(id<HPRinging>)ringer {
    [ringers removeObject:ringer];
}

- (void)play {
    for (id<HPRinging> player in [players copy]) {  // near: lifetime.notify-while-changing
        [player ring];
    }
}

@interface HPRinger : NSObject <HPRinging> {
    int strokes;
}
- (void)again;
- (void)ring;
- (void)heard:(NSString *)what;
- (void)close;
@end

@implementation HPRinger

- (instancetype)init {
    if ((self = [super init])) {
        [[HPBells bells] add:self];  // finding: lifetime.dangling-subscriber
    }
    return self;
}

// Opens what nothing closes; near miss: closed in the same function.
@interface HPSoundings : NSObject {  // entity: singleton HPSoundings lazy once
    FILE *file;
    int read;
}
+ (HPSoundings *)soundings;
- (void)open:(const char *)name;
- (void)next;
- (int)first:(const char *)name;
@end

@implementation HPSoundings

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPSoundings *)soundings {
    static HPSoundings *soundings = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        soundings = [[HPSoundings alloc] init];
    });
    return soundings;
}

// Keeps the caller's object; near miss: only what it says.
@class HPCaller;

@interface HPPorter : NSObject {  // entity: singleton HPPorter lazy once
    HPCaller *_caller;
    NSString *_last;
}
+ (HPPorter *)porter;
- (void)keep:(HPCaller *)caller;
- (void)note:(NSString *)ship;
@end

@implementation HPPorter

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPPorter *)porter {
    static HPPorter *porter = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        porter = [[HPPorter alloc] init];
    });
    return porter;
}

@interface HPCaller : NSObject {
    NSString *_ship;
}
- (instancetype)initWithShip:(NSString *)ship;
- (void)enter;
- (void)passBy;
@end

@implementation HPCaller

// Used after its end; near misses: opened again, or used before.
@interface HPSluice : NSObject {  // entity: singleton HPSluice lazy once
    BOOL isOpen;
    int level;
}
+ (HPSluice *)sluice;
- (void)close;
- (void)open;
- (int)measure;
@end

@implementation HPSluice

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPSluice *)sluice {
    static HPSluice *sluice = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        sluice = [[HPSluice alloc] init];
    });
    return sluice;
}

- (void)close {
    isOpen = NO;
}

int day(void) {
    [[HPSluice sluice] close];
    [[HPSluice sluice] open];
    int level = [[HPSluice sluice] measure];  // near: lifetime.used-after-teardown
    [[HPSluice sluice] close];
    return level;
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
@interface HPBuoys : NSObject {  // entity: singleton HPBuoys lazy once
    int lit;
}
+ (HPBuoys *)buoys;
- (void)light;
@end

@implementation HPBuoys

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPBuoys *)buoys {
    static HPBuoys *buoys = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        buoys = [[HPBuoys alloc] init];
    });
    return buoys;
}

// Reached from six places; near miss: two.
@interface HPGong : NSObject {  // finding: coupling.wide-reach  // entity: singleton HPGong lazy once
    int struck;
}
+ (HPGong *)gong;
- (void)strike;
@end

@implementation HPGong

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPGong *)gong {
    static HPGong *gong = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        gong = [[HPGong alloc] init];
    });
    return gong;
}

@interface HPWhistle : NSObject {  // near: coupling.wide-reach  // entity: singleton HPWhistle lazy once
    int blown;
}
+ (HPWhistle *)whistle;
- (void)blow;
@end

@implementation HPWhistle

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPWhistle *)whistle {
    static HPWhistle *whistle = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        whistle = [[HPWhistle alloc] init];
    });
    return whistle;
}

@interface HPPier1 : NSObject
- (void)fog;
@end

@implementation HPPier1

- (void)fog {
    [[HPGong gong] strike];  // finding: coupling.hidden-dependency
    [[HPWhistle whistle] blow];  // near: coupling.wide-reach  // finding: coupling.hidden-dependency
}

@interface HPPier2 : NSObject
- (void)fog;
@end

@implementation HPPier2

- (void)fog {
    [[HPGong gong] strike];
    [[HPWhistle whistle] blow];  // near: coupling.wide-reach
}

@interface HPPier3 : NSObject
- (void)fog;
@end

@implementation HPPier3

- (void)fog {
    [[HPGong gong] strike];
}

@interface HPPier4 : NSObject
- (void)fog;
@end

@implementation HPPier4

- (void)fog {
    [[HPGong gong] strike];
}

@interface HPPier5 : NSObject
- (void)fog;
@end

@implementation HPPier5

- (void)fog {
    [[HPGong gong] strike];
}

@class HPTackle;

@interface HPDavit : NSObject {  // entity: singleton HPDavit lazy once
    int boats;
}
+ (HPDavit *)davit;
- (void)lower;
@end

@implementation HPDavit

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HPDavit *)davit {
    static HPDavit *davit = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        davit = [[HPDavit alloc] init];
    });
    return davit;
}

@interface HPTackle : NSObject {  // entity: singleton HPTackle lazy once
    int blocks;
}
+ (HPTackle *)tackle;
- (void)pull;
@end

@implementation HPTackle

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        blocks = 2;
    }
    return self;
}

+ (HPTackle *)tackle {
    static HPTackle *tackle = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        tackle = [[HPTackle alloc] init];
    });
    return tackle;
}

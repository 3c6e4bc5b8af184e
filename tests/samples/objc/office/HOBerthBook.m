#import "HOBerthBook.h"

@implementation HOBerthBook

+ (instancetype)sharedBook {
    static HOBerthBook *book = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        book = [[self alloc] init];
    });
    return book;
}

- (instancetype)init {  // finding: single.open-constructor
    self = [super init];
    if (self) {
        _berths = [NSMutableDictionary dictionary];
    }
    return self;
}

- (void)assign:(NSString *)ship toBerth:(NSInteger)berth {
    @synchronized (self) {
        self.berths[ship] = @(berth);  // near: lifetime.grows-forever
    }
}

- (NSInteger)count {
    @synchronized (self) {
        return self.berths.count;
    }
}

@end

// An unguarded check over a file's static variable.
static HOPilotRoster *sharedRoster = nil;

@implementation HOPilotRoster

+ (HOPilotRoster *)roster {
    if (!sharedRoster) {
        sharedRoster = [[HOPilotRoster alloc] init];  // finding: thread.unguarded-creation
    }
    return sharedRoster;
}

- (instancetype)init {  // finding: single.open-constructor
    if ((self = [super init])) {
        _pilots = [[NSMutableArray alloc] init];
    }
    return self;
}

- (void)add:(NSString *)pilot {
    [self.pilots addObject:pilot];  // finding: lifetime.grows-forever
}

@end

// Class methods over a file's static variable.
static NSInteger nextTicket = 1;

@implementation HOTickets

+ (NSInteger)draw {
    nextTicket += 1;
    return nextTicket;
}

@end

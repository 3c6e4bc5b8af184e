#import "HOBerthBook.h"
#import "office.h"

int tide_level = 0;  // entity: global-variable tide_level eager language
static const int berthLimit = 12;  // harmless: berthLimit
static NSString *const kHarbour = @"north";  // harmless: kHarbour
static NSMutableArray *waiting;  // entity: global-variable waiting lazy none

@interface HOArrivals : NSObject {
    HOBerthBook *_book;
    int arrived;
}
- (NSInteger)arrive:(NSString *)ship;
@end

@implementation HOArrivals

- (instancetype)initWithBook:(HOBerthBook *)book {
    if (self = [super init]) {
        _book = book;
    }
    return self;
}

- (NSInteger)arrive:(NSString *)ship {
    arrived++;
    if (waiting == nil) {
        waiting = [NSMutableArray array];  // finding: thread.unguarded-creation
    }
    if (waiting.count > berthLimit) return 0;
    [waiting addObject:kHarbour];
    [_book assign:ship toBerth:4];
    [[HOBerthBook sharedBook] assign:ship toBerth:5];  // near: coupling.hidden-dependency
    [[HOPilotRoster roster] add:ship];
    HOBerthBook *other = HOBerthBook.sharedBook;
    for (NSString *one in other.berths) {  // finding: thread.mixed-guard
        NSLog(@"%@", one);
    }
    tide_level = tide_level + 1;
    return [HOTickets draw] + [other count];
}

- (void)dealloc {
    NSLog(@"gone");
}

@end

@interface HOArrivals (Departures)
- (void)depart;
@end

@implementation HOArrivals (Departures)
- (void)depart {
    dispatch_async(dispatch_get_main_queue(), ^{
        [[HOPilotRoster roster] add:@"none"];
    });
}
@end

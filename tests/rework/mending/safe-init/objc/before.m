#import <Foundation/Foundation.h>

@interface TideTable : NSObject {
    NSMutableArray *rows;
}
+ (TideTable *)table;
- (void)add:(NSNumber *)row;
@end

static TideTable *theTable;

@implementation TideTable

+ (TideTable *)table {
    if (theTable == nil) {
        theTable = [[TideTable alloc] init];
    }
    return theTable;
}

- (instancetype)init {
    if ((self = [super init])) {
        rows = [[NSMutableArray alloc] init];
    }
    return self;
}

- (void)add:(NSNumber *)row {
    [rows addObject:row];
}

@end

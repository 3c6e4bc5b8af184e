#import <Foundation/Foundation.h>

@interface HOBerthBook : NSObject {
    NSMutableDictionary *berths;
}
+ (HOBerthBook *)sharedBook;
- (void)assign:(NSString *)ship;
- (NSUInteger)count;
@end

@implementation HOBerthBook

+ (HOBerthBook *)sharedBook {
    static HOBerthBook *book = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        book = [[HOBerthBook alloc] init];
    });
    return book;
}

- (void)assign:(NSString *)ship {
    @synchronized (self) {
        berths[ship] = @1;
    }
}

- (NSUInteger)count {
    @synchronized (self) {
        return berths.count;
    }
}

@end

@interface HOArrivals : NSObject {
    int seen;
}
@property (nonatomic, strong) HOBerthBook *berthBook;
// Takes a ship in.
- (NSUInteger)arrive:(NSString *)ship;
@end

@implementation HOArrivals

- (HOBerthBook *)berthBook {
    return _berthBook ?: [HOBerthBook sharedBook];
}

// Takes a ship in.
- (NSUInteger)arrive:(NSString *)ship {
    seen++;
    [self.berthBook assign:ship];
    return [self.berthBook count];
}

@end

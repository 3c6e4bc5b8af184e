#import <Foundation/Foundation.h>

@interface HOBerthBook : NSObject {
    NSMutableDictionary *berths;
}
+ (HOBerthBook *)sharedBook;
- (void)assign:(NSString *)ship;
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

@end

@interface HOArrivals : NSObject {
    int seen;
}
@property (nonatomic, strong) HOBerthBook *berthBook;
- (void)arrive:(NSString *)ship;
@end

@implementation HOArrivals

- (HOBerthBook *)berthBook {
    return _berthBook ?: [HOBerthBook sharedBook];
}

- (void)arrive:(NSString *)ship {
    seen++;
    [self.berthBook assign:ship];
}

@end

@interface HOOffice : NSObject {
    HOArrivals *arrivals;
}
@property (nonatomic, strong) HOBerthBook *berthBook;
- (void)open;
@end

@implementation HOOffice

- (HOBerthBook *)berthBook {
    return _berthBook ?: [HOBerthBook sharedBook];
}

- (void)open {
    arrivals = [[HOArrivals alloc] init];
    arrivals.berthBook = self.berthBook;
    [arrivals arrive:@"Wren"];
}

@end

int main(void) {
    HOOffice *office = [[HOOffice alloc] init];
    office.berthBook = [HOBerthBook sharedBook];
    HOArrivals *late = [[HOArrivals alloc] init];
    late.berthBook = [HOBerthBook sharedBook];
    [office open];
    [late arrive:@"Gull"];
    return 0;
}

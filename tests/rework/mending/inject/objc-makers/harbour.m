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
- (void)arrive:(NSString *)ship;
@end

@implementation HOArrivals

- (void)arrive:(NSString *)ship {
    seen++;
    [[HOBerthBook sharedBook] assign:ship];
}

@end

@interface HOOffice : NSObject {
    HOArrivals *arrivals;
}
- (void)open;
@end

@implementation HOOffice

- (void)open {
    arrivals = [[HOArrivals alloc] init];
    [arrivals arrive:@"Wren"];
}

@end

int main(void) {
    HOOffice *office = [[HOOffice alloc] init];
    HOArrivals *late = [[HOArrivals alloc] init];
    [office open];
    [late arrive:@"Gull"];
    return 0;
}

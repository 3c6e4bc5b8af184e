#import <Foundation/Foundation.h>

@interface Tides : NSObject {
    int _started;
}
+ (Tides *)shared;
- (void)start:(NSString *)day;
@end

@implementation Tides

+ (Tides *)shared {
    static Tides *one = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        one = [[Tides alloc] init];
    });
    return one;
}

- (void)start:(NSString *)day {
    _started++;
    NSLog(@"tides %d %@", _started, day);
}

@end

@interface Berths : NSObject {
    int _started;
}
+ (Berths *)shared;
- (void)start:(NSString *)day;
@end

@implementation Berths

+ (Berths *)shared {
    static Berths *one = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        one = [[Berths alloc] init];
    });
    return one;
}

- (void)start:(NSString *)day {
    _started++;
    NSLog(@"berths %d %@", _started, day);
}

@end

@interface Pilots : NSObject {
    int _started;
}
+ (Pilots *)shared;
- (void)start:(NSString *)day;
@end

@implementation Pilots

+ (Pilots *)shared {
    static Pilots *one = nil;
    static dispatch_once_t once;
    dispatch_once(&once, ^{
        one = [[Pilots alloc] init];
    });
    return one;
}

- (void)start:(NSString *)day {
    _started++;
    NSLog(@"pilots %d %@", _started, day);
}

@end

// Opens the harbour.
void openHarbour(NSString *day) {
    [[Tides shared] start:day];
    [[Berths shared] start:day];
    [[Pilots shared] start:@""];
}

int main(void) {
    openHarbour(@"Monday");
    return 0;
}

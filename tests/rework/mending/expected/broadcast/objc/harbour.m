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

// Tells those who listen, in the order in which they came, that the program starts.
@interface StartUp : NSObject {
    NSMutableArray *_listeners;
}
- (void)add:(void (^)(void))listener;
- (void)announce;
@end

@implementation StartUp

- (void)add:(void (^)(void))listener {
    if (!_listeners) {
        _listeners = [NSMutableArray array];
    }
    [_listeners addObject:[listener copy]];
}

- (void)announce {
    for (void (^listener)(void) in _listeners) {
        listener();
    }
}

@end

// Opens the harbour.
void openHarbour(NSString *day) {
    StartUp *startUp = [[StartUp alloc] init];
    [startUp add:^{ [[Tides shared] start:day]; }];
    [startUp add:^{ [[Berths shared] start:day]; }];
    [startUp add:^{ [[Pilots shared] start:@""]; }];
    [startUp announce];
}

int main(void) {
    openHarbour(@"Monday");
    return 0;
}

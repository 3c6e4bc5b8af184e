#import <Foundation/Foundation.h>

@protocol TideTableProtocol <NSObject>
- (int)heightOn:(int)day;
- (void)raiseBy:(int)by on:(int)day;
@end

// The water's height, day by day.
@interface TideTable : NSObject <TideTableProtocol>
- (int)heightOn:(int)day;
- (void)raiseBy:(int)by on:(int)day;
- (void)forget;
@end

@implementation TideTable {
    int _first;
}

- (int)heightOn:(int)day {
    return _first + day;
}

- (void)raiseBy:(int)by on:(int)day {
    _first += by * day;
}

- (void)forget {
    _first = 0;
}

@end

@interface Pilot : NSObject {
    id<TideTableProtocol> _tides;
}
- (instancetype)initWithTides:(id<TideTableProtocol>)tides;
- (BOOL)mayEnter:(int)draught on:(int)day;
@end

@implementation Pilot

- (instancetype)initWithTides:(id<TideTableProtocol>)tides {
    self = [super init];
    if (self) {
        _tides = tides;
    }
    return self;
}

- (BOOL)mayEnter:(int)draught on:(int)day {
    [_tides raiseBy:1 on:day];
    return [_tides heightOn:day] > draught;
}

@end

int main(void) {
    TideTable *tides = [[TideTable alloc] init];
    Pilot *pilot = [[Pilot alloc] initWithTides:tides];
    NSLog(@"%d", [pilot mayEnter:3 on:1]);
    return 0;
}

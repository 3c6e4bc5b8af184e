#import "HPFees.h"

@implementation HPFees

+ (HPFees *)fees {
    static HPFees *fees = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        fees = [[HPFees alloc] init];
    });
    return fees;
}

- (void)enter:(int)coins {
    sum = coins;
}

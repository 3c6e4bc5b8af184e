#import "HQDues.h"

@implementation HQDues

- (instancetype)init {  // finding: single.open-constructor
    return [super init];
}

+ (HQDues *)dues {
    static HQDues *dues = nil;
    static dispatch_once_t once;  // harmless: once
    dispatch_once(&once, ^{
        dues = [[HQDues alloc] init];
    });
    return dues;
}

// A method that a macro names, with a body; objects of no told class; an accessor that is called like its variable.
#import <Foundation/Foundation.h>

@interface Oak : NSObject
@property int age;
- (void)grow;
@end

@implementation Oak
static Oak *newest = nil;  // entity: shared-instance newest elsewhere none
static int opened = 0;  // entity: global-variable opened eager language
static Oak *mainOak = nil;  // entity: shared-instance mainOak lazy none
static id quiet = nil;  // entity: shared-instance quiet lazy once

- (instancetype)init {
  if (self = [super init]) { newest = self; }  // finding: single.replaceable
  return self;
}

EXPORT_METHOD(open:(NSString *)where then:(NSString *)done)
{
  opened++;
}

+ (Oak *)mainOak {
  if (!mainOak) mainOak = [Oak new];  // finding: thread.unguarded-creation
  return mainOak;
}

+ (id)quietOak {
  static dispatch_once_t once;  // harmless: once
  dispatch_once(&once, ^{ quiet = [[Oak alloc] init]; });
  return quiet;
}

+ (instancetype)newest { return newest; }

- (void)grow { self.age = self.age + opened; }
@end

@interface Forest : NSObject
@end

@implementation Forest
- (void)walk {
  [[Oak mainOak] grow];
  [[Oak quietOak] grow];
}
@end

// The tree holds the library itself: its tables are what they are elsewhere.
#import <Foundation/NSObject.h>

@interface NSMutableDictionary : NSObject
- (void)setObject:(id)object forKey:(id)key;
- (id)objectForKey:(id)key;
@end

@implementation NSMutableDictionary
- (void)setObject:(id)object forKey:(id)key {
}
- (id)objectForKey:(id)key { return nil; }
@end

static NSMutableDictionary *moorings = nil;  // entity: registry moorings eager language
static NSString *lastMooring = nil;  // entity: global-variable lastMooring elsewhere none

@interface HOMooring : NSObject
@end

@implementation HOMooring
+ (void)initialize {
  moorings = [NSMutableDictionary new];
}
- (id)initWithName:(NSString *)name {
  [moorings setObject:self forKey:name];
  lastMooring = name;
  return self;
}
+ (HOMooring *)mooringNamed:(NSString *)name { return [moorings objectForKey:name]; }
+ (NSString *)lastMooring { return lastMooring; }
@end

static NSMutableSet<HOMooring *> *rings;

@interface HORings : NSObject  // entity: registry HORings lazy once
@end

@implementation HORings
+ (NSSet<HOMooring *> *)rings {
  static dispatch_once_t once;  // harmless: once
  dispatch_once(&once, ^{
    rings = [NSMutableSet set];
    [rings addObject:[[HOMooring alloc] initWithName:@"north"]];
  });
  return rings;
}
+ (HOMooring *)ringOfClass:(Class)kind {
  for (HOMooring *one in [self rings]) {
    if ([one isMemberOfClass:kind]) return one;
  }
  return nil;
}
@end

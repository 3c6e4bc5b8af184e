// Objects that are made in ways of their own.
#import <Foundation/Foundation.h>

@interface Lamp : NSObject {  // entity: singleton Lamp lazy once  // finding: single.open-constructor
  BOOL lit;
}
+ (Lamp *)shared;
- (void)light;
@end

@implementation Lamp
+ (Lamp *)shared {
  static dispatch_once_t once;  // harmless: once
  static id sharedLamp = nil;
  dispatch_once(&once, ^{
    sharedLamp = [[Lamp alloc] init];
  });
  return sharedLamp;
}
- (void)light {
  lit = YES;
}
@end

// A block that a variable holds fills both.
static dispatch_once_t kindsOnce;  // harmless: kindsOnce
static NSMutableSet<Class> *kinds;  // entity: global-variable kinds lazy once
void (^makeKinds)(void) = ^{  // harmless: makeKinds
  kinds = [NSMutableSet set];
};
void enterKind(Class kind) {
  dispatch_once(&kindsOnce, makeKinds);
  [kinds addObject:kind];  // near: lifetime.grows-forever
}

static NSMutableDictionary *lamps = nil;  // entity: registry lamps eager language
static NSMapTable *places = nil;  // entity: global-variable places eager language

@interface LampStore : NSObject {  // entity: singleton LampStore lazy double-check-unsound
  int kept;
}
@end

@implementation LampStore
static LampStore *store = nil;
static NSLock *storeLock = nil;  // harmless: storeLock
+ (void)initialize {
  storeLock = [NSLock new];
  lamps = [NSMutableDictionary new];
  places = [NSMapTable new];
}
+ (void)keep:(Lamp *)lamp as:(NSString *)name at:(NSString *)place {
  [lamps setObject:lamp forKey:name];
  NSMapInsert(places, name, place);  // near: lifetime.grows-forever
}
+ (id)allocWithZone:(NSZone *)zone {
  return [self sharedStore];
}
+ (LampStore *)sharedStore {
  if (store == nil) {  // finding: thread.double-check-unsound
    [storeLock lock];
    if (store == nil) {
      LampStore *fresh;
      fresh = (LampStore *)NSAllocateObject(self, 0, NSDefaultMallocZone());  // finding: init.lazy-needless
      [fresh init];
      store = fresh;
    }
    [storeLock unlock];
  }
  return store;
}
- (void)keep {
  kept++;
}
@end

void keepFirst(Lamp *lamp) {
  [LampStore keep:lamp as:@"pier" at:@"north"];
}

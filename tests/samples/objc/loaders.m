// What hands objects out: by a promise alone, from another class, and with the root of all classes in the tree.
@interface NSObject {
  Class isa;
}
- (BOOL)isEqual:(id)other;
@end

@implementation NSObject
- (BOOL)isEqual:(id)other {
  return self == other;
}
@end

@protocol Loading
- (void)load;
@end

@interface Crane : NSObject <Loading> {
  int loads;
}
@end

@implementation Crane
- (void)load {
  loads = loads + 1;
}
@end

@interface Quay : NSObject
- (id<Loading>)loader;
@end

@implementation Quay
- (id<Loading>)loader {
  static Crane *crane;  // entity: shared-instance crane lazy once
  static dispatch_once_t once;  // harmless: once
  dispatch_once(&once, ^{ crane = [[Crane alloc] init]; });
  return crane;
}
@end

// Class methods alone over what the file keeps, in a class whose only base is the root.
@interface QuayDefines : NSObject  // entity: static-holder QuayDefines eager language
+ (void)fill:(NSDictionary *)defines;
+ (NSDictionary *)defines;
@end

@implementation QuayDefines

static NSDictionary *filled;
static BOOL isFilled = NO;

+ (void)fill:(NSDictionary *)defines {
  filled = defines;
  isFilled = YES;
}
+ (NSDictionary *)defines {
  return isFilled ? filled : nil;
}

@end

// No second one of any kind: the base refuses for all.
@interface Register : NSObject
@end

@implementation Register
+ (id)allocWithZone:(NSZone *)zone {
  [NSException raise:@"Register" format:@"there is one"];
  return nil;
}
@end

@interface ShipRegister : Register {  // entity: singleton ShipRegister lazy none
  int ships;
}
+ (ShipRegister *)sharedRegister;
@end

static ShipRegister *register_ = nil;

@implementation ShipRegister
+ (ShipRegister *)sharedRegister {
  if (register_ == nil) {
    register_ = (ShipRegister *)NSAllocateObject(self, 0, 0);  // finding: thread.unguarded-creation
  }
  return register_;
}
- (void)enter {
  ships = ships + 1;
}
@end

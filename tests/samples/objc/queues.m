#import <Foundation/Foundation.h>

// Tasks of one serial queue, which a function hands out; a table that does not keep who is in it.
static dispatch_queue_t logQueue(void)
{
  static dispatch_queue_t queue;  // harmless: queue
  static dispatch_once_t once;  // harmless: once
  dispatch_once(&once, ^{
    queue = dispatch_queue_create("office.log", DISPATCH_QUEUE_SERIAL);
  });
  return queue;
}

static int lines = 0;  // entity: global-variable lines eager language

void writeLine(void)
{
  dispatch_async(logQueue(), ^{
    lines += 1;  // near: thread.lost-update
  });
}

void dropLines(void)
{
  dispatch_async(logQueue(), ^{
    lines = 0;  // near: thread.unguarded-state
  });
}

static NSHashTable *watchers;  // entity: global-variable watchers lazy none

@interface Watcher : NSObject
- (void)stop;
@end

@implementation Watcher
- (instancetype)init
{
  if ((self = [super init])) {
    if (!watchers) {
      watchers = [NSHashTable weakObjectsHashTable];
    }
    [watchers addObject:self];  // near: lifetime.dangling-subscriber
  }
  return self;
}

- (void)stop
{
  for (Watcher *each in [watchers allObjects]) {
    [each stop];
  }
}
@end

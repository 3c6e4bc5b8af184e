// What Objective-C promises, and C inside it. Chapters are of the Objective-C
// runtime's programming guide; clauses of C are of ISO/IEC 9899:2011.
#include "languages/objc/objc.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

constexpr std::string_view kThisThread[] = {"currentThread", "pthread_self"};

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"Class", kSafeToShare},  // a class itself: what is sent to it changes no slot
    {"FILE", kFileResource},
    {"NSArray", kCollection | kFixed},
    {"NSCache", kCollection | kKeyedCollection | kSafeToShare},
    {"NSCondition", kConditionType | kLockType},
    {"NSCountedSet", kCollection},
    {"NSDictionary", kCollection | kKeyedCollection | kFixed},
    {"NSFileHandle", kFileResource},
    {"NSHashTable", kCollection},
    {"NSLock", kLockType},
    {"NSMapTable", kCollection | kKeyedCollection},
    {"NSMutableArray", kCollection},
    {"NSMutableDictionary", kCollection | kKeyedCollection},
    {"NSMutableOrderedSet", kCollection},
    {"NSMutableSet", kCollection},
    {"NSMutableString", kCollection},
    {"NSPointerArray", kCollection},
    {"NSRecursiveLock", kLockType},
    {"NSSet", kCollection | kFixed},
    {"NSString", kTextType},
    {"NSThread", kThreadType | kStartedByCall},
    {"atomic_bool", kAtomicType},
    {"atomic_int", kAtomicType},
    {"atomic_uint", kAtomicType},
    {"dispatch_once_t", kOnceFlagType},
    {"dispatch_queue_t", kLockType},
    {"dispatch_semaphore_t", kLockType},
    {"objc_class", kSafeToShare},
    {"os_unfair_lock", kLockType},
    {"pthread_mutex_t", kLockType},
    {"pthread_once_t", kOnceFlagType},
    {"pthread_rwlock_t", kLockType},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"AUTORELEASE", kYieldsSame},
    {"NSAssert", kAborts},
    {"NSCAssert", kAborts},
    {"NSLog", kPrints},
    {"NSThread::sleepForTimeInterval:", kSleeps},
    {"RETAIN", kYieldsSame},
    {"TEST_RETAIN", kYieldsSame},
    {"abort", kAborts},
    {"addOperationWithBlock:", kRunsLater},
    {"assert", kAborts},
    {"autorelease", kYieldsSame},
    {"calloc", kTakesResource},
    {"contentsOfDirectoryAtPath:error:", kReadsFile},
    {"dataWithContentsOfFile:", kReadsFile},
    {"detachNewThreadSelector:toTarget:withObject:", kStartsThread | kRunsLater},
    {"dispatch_after", kRunsLater},
    {"dispatch_async", kRunsLater},
    {"dispatch_barrier_async", kRunsLater},
    {"exit", kAborts},
    {"fclose", kReleasesResource},
    {"fopen", kReadsFile | kTakesResource},
    {"free", kReleasesResource},
    {"getenv", kReadsEnvironment},
    {"malloc", kTakesResource},
    {"performSelectorInBackground:withObject:", kStartsThread | kRunsLater},
    {"pthread_create", kStartsThread | kRunsLater},
    {"raise", kThrows},
    {"raise:format:", kThrows},
    {"raise:format:arguments:", kThrows},
    {"retain", kYieldsSame},
    {"sleep", kSleeps},
    {"stringWithContentsOfFile:encoding:error:", kReadsFile},
    {"usleep", kSleeps},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"addEntriesFromDictionary:", "addObject:", "addObjectsFromArray:", "addPointer:", "appendString:", "insertObject:atIndex:", "setObject:forKey:", "setObject:forKeyedSubscript:", "setValue:forKey:", "unionSet:"};
  static constexpr std::string_view kRemove[] = {"removeAllObjects", "removeLastObject", "removeObject:", "removeObjectAtIndex:", "removeObjectForKey:", "removeObjectIdenticalTo:", "removeObjectsInArray:"};
  static constexpr std::string_view kChange[] = {"exchangeObjectAtIndex:withObjectAtIndex:", "replaceObjectAtIndex:withObject:", "setArray:", "setDictionary:", "setSet:", "setString:", "sortUsingSelector:", "sortUsingComparator:"};
  static constexpr std::string_view kRead[] = {"allKeys", "allObjects", "allValues", "anyObject", "containsObject:", "copy", "count", "description", "enumerateObjectsUsingBlock:", "firstObject", "indexOfObject:", "isEqual:", "keyEnumerator", "lastObject", "length", "mutableCopy", "objectAtIndex:", "objectEnumerator", "objectForKey:", "objectForKeyedSubscript:", "valueForKey:"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& objcGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "C 6.7.9p4 (a static object's initialiser is a constant: nothing runs)"};
    g.orderedAcrossFiles = {true, "C 6.7.9p4 (static objects have their values before the program starts)"};
    g.textualOrder = {false, "C 6.7.9p4 (values are constants)"};
    g.objectsAreLocks = {true, "Objective-C, @synchronized"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "C 5.1.2.4"};
    static constexpr std::string_view kThreadBodies[] = {"main"};
    g.threadBodies = kThreadBodies;
    static constexpr std::string_view kJoins[] = {"dispatch_group_wait", "waitUntilAllOperationsAreFinished"};
    g.joins = kJoins;
    static constexpr std::string_view kSerialExecutors[] = {"dispatch_queue_create"};
    g.serialExecutors = kSerialExecutors;
    static constexpr std::string_view kMainThread[] = {"dispatch_get_main_queue", "mainQueue"};
    g.mainThread = kMainThread;
    static constexpr std::string_view kMainThreadTypes[] = {"NSView", "NSViewController", "NSWindow", "NSWindowController", "UITableViewController", "UIView", "UIViewController", "UIWindow"};
    g.mainThreadTypes = kMainThreadTypes;
    g.plainPointerPublishes = {false, "C 5.1.2.4p25 (a data race is undefined)"};
    g.implicitCopy = {false, "Objects are referred to; a copy is made only where copyWithZone: is written"};
    g.implicitConstructor = {true, "Every class inherits alloc, init and new"};
    g.constructorAfterFactory = {true, "An object is initialised by a message of its own after it was allocated"};
    g.staticsDestroyedAtExit = {false, "Objects are not deallocated at exit"};
    g.noSubclassConstructors = {true, "Every class inherits alloc and init"};
    g.constantStatics = {true, "C 6.7.9p4 (a static object's initialiser is a constant)"};
    g.byLastPart = true;
    g.ownNames = "NS";
    static constexpr std::string_view kRoots[] = {"NSObject", "NSProxy"};
    g.roots = kRoots;
    g.soundCreation = "dispatch_once";
    g.failedInitialiser = "the class cannot be used";
    static constexpr std::string_view kEndHooks[] = {"close", "invalidate", "stop", "tearDown"};
    g.endHooks = kEndHooks;
    g.throwsForFaultsOnly = true;  // Exception Programming Topics, "Exceptions and the Cocoa Frameworks"
    g.changedWalk = "the enumeration raises an exception (NSFastEnumeration)";
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

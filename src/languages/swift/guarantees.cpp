// What Swift promises. Chapters are of The Swift Programming Language, 5.9.
#include "languages/shared/tables.h"
#include "languages/swift/swift.h"

namespace elmcart {
namespace {

constexpr std::string_view kThisThread[] = {"current"};

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"Array", kCollection},
    {"Dictionary", kCollection | kKeyedCollection},
    {"DispatchQueue", kLockType},
    {"DispatchSemaphore", kLockType},
    {"FileHandle", kFileResource},
    {"NSCache", kCollection | kKeyedCollection | kSafeToShare},
    {"NSLock", kLockType},
    {"NSMutableArray", kCollection},
    {"NSMutableDictionary", kCollection | kKeyedCollection},
    {"NSRecursiveLock", kLockType},
    {"NotificationCenter", kKeepsState},
    {"OSAllocatedUnfairLock", kLockType},
    {"OperationQueue", kKeepsState},
    {"Optional", kOptionalType | kPointerLike},
    {"Set", kCollection},
    {"Thread", kThreadType | kStartedByCall},
    {"URLSession", kKeepsState},
    {"UserDefaults", kKeepsState},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"Data::contentsOf", kReadsFile},
    {"Process", kStartsProcess},
    {"String::contentsOf", kReadsFile},
    {"Task", kRunsLater},
    {"Thread::sleep", kSleeps},
    {"assert", kAborts},
    {"async", kRunsLater},
    {"asyncAfter", kRunsLater},
    {"contents", kReadsFile},
    {"fatalError", kAborts},
    {"precondition", kAborts},
    {"preconditionFailure", kAborts},
    {"processInfo::environment", kReadsEnvironment},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"append", "insert", "updateValue", "setObject"};
  static constexpr std::string_view kRemove[] = {"popLast", "remove", "removeAll", "removeFirst", "removeLast", "removeObject", "removeValue", "removeSubrange"};
  static constexpr std::string_view kChange[] = {"formUnion", "merge", "reverse", "shuffle", "sort", "subtract", "swapAt", "replaceSubrange"};
  static constexpr std::string_view kRead[] = {"compactMap", "contains", "count", "enumerated", "filter", "first", "firstIndex", "flatMap", "forEach", "index", "isEmpty", "joined", "keys", "last", "map", "max", "min", "prefix", "reduce", "sorted", "suffix", "values", "object", "description", "hasPrefix", "hasSuffix"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& swiftGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "Properties, Type Properties (initialised lazily, only once, also from several threads)"};
    g.orderedAcrossFiles = {true, "Properties, Global and Local Variables (computed when first accessed)"};
    g.textualOrder = {false, "Properties, Type Properties (each when first asked for)"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "Concurrency"};
    static constexpr std::string_view kThreadBodies[] = {"main"};
    g.threadBodies = kThreadBodies;
    static constexpr std::string_view kJoins[] = {"wait", "waitUntilAllOperationsAreFinished"};
    g.joins = kJoins;
    static constexpr std::string_view kSerialExecutors[] = {"DispatchQueue"};
    g.serialExecutors = kSerialExecutors;
    static constexpr std::string_view kMainThread[] = {"MainActor", "main"};
    g.mainThread = kMainThread;
    static constexpr std::string_view kMainThreadTypes[] = {"NSView", "NSViewController", "NSWindow", "NSWindowController", "UITableViewController", "UIView", "UIViewController", "UIWindow"};
    g.mainThreadTypes = kMainThreadTypes;
    g.plainPointerPublishes = {false, "Memory Safety"};
    g.implicitCopy = {false, "Structures and Classes (a class instance is referred to)"};
    g.implicitConstructor = {true, "Initialization, Default Initializers"};
    g.staticsDestroyedAtExit = {false, "Deinitialization"};
    static constexpr std::string_view kRoots[] = {"NSObject"};
    g.roots = kRoots;
    g.soundCreation = "a static let";
    g.collectionsAreValues = {true, "The Swift Programming Language, Structures and Classes (arrays, sets and dictionaries are structures)"};
    g.noSubclassConstructors = {true, "Access Control (there is no level for subclasses)"};
    g.eachStaticAtFirstUse = {true, "Properties, Type Properties (each when first asked for)"};
    g.byLastPart = true;
    g.staticsAtFirstUse = {true, "The Swift Programming Language, Global and Local Variables (computed lazily)"};
    static constexpr std::string_view kEndHooks[] = {"close", "invalidate", "stop", "tearDown"};
    g.endHooks = kEndHooks;
    static constexpr std::string_view kEnvironment[] = {"processInfo::environment"};
    g.environment = kEnvironment;
    g.suspends = {true, "The Swift Programming Language, Concurrency (await)"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

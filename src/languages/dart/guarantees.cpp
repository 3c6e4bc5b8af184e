// What Dart promises. Sections are of the Dart Programming Language
// Specification, version 2.
#include "languages/dart/dart.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"Duration", kUnchanging},
    {"Future", kPointerLike},
    {"HashMap", kCollection | kKeyedCollection},
    {"HashSet", kCollection},
    {"Iterable", kCollection},
    {"LinkedHashMap", kCollection | kKeyedCollection},
    {"List", kCollection},
    {"ListQueue", kCollection},
    {"Map", kCollection | kKeyedCollection},
    {"Queue", kCollection},
    {"RandomAccessFile", kFileResource},
    {"RegExp", kUnchanging},
    {"Set", kCollection},
    {"SplayTreeMap", kCollection | kKeyedCollection},
    {"Uri", kUnchanging},
    {"WeakReference", kPointerLike},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"File::readAsString", kReadsFile},
    {"HttpClient", kNetwork},
    {"Platform::environment", kReadsEnvironment},
    {"Process::run", kStartsProcess},
    {"Process::runSync", kStartsProcess},
    {"Process::start", kStartsProcess},
    {"Socket::connect", kNetwork},
    {"assert", kAborts},
    {"exit", kAborts},
    {"openSync", kReadsFile | kTakesResource},
    {"print", kPrints},
    {"readAsBytesSync", kReadsFile},
    {"readAsLinesSync", kReadsFile},
    {"readAsString", kReadsFile},
    {"readAsStringSync", kReadsFile},
    {"sleep", kSleeps},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"add", "addAll", "addEntries", "addFirst", "addLast", "insert", "insertAll", "putIfAbsent"};
  static constexpr std::string_view kRemove[] = {"clear", "remove", "removeAt", "removeFirst", "removeLast", "removeRange", "removeWhere", "retainWhere"};
  static constexpr std::string_view kChange[] = {"fillRange", "replaceRange", "setAll", "setRange", "shuffle", "sort", "update", "updateAll"};
  static constexpr std::string_view kRead[] = {"any", "asMap", "cast", "contains", "containsKey", "containsValue", "elementAt", "entries", "every", "expand", "first", "firstWhere", "fold", "forEach", "hashCode", "indexOf", "indexWhere", "isEmpty", "isNotEmpty", "iterator", "join", "keys", "last", "lastIndexOf", "length", "map", "reduce", "reversed", "single", "skip", "sublist", "take", "then", "toList", "toLowerCase", "toSet", "toString", "toUpperCase", "values", "where", "whereType", "catchError", "whenComplete"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& dartGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "8.1 (a static or library variable is initialised when it is first read, once an isolate)"};
    g.orderedAcrossFiles = {true, "8.1 (initialised when first read)"};
    g.textualOrder = {false, "8.1 (each when first read)"};
    g.sharedMemoryThreads = {false, "7 (isolates share no memory)"};
    g.plainPointerPublishes = {true, "7"};
    g.implicitCopy = {false, "6.1 (a variable refers to an object)"};
    g.implicitConstructor = {true, "10.7 (a class without constructors has an implicit one)"};
    g.staticsDestroyedAtExit = {false, "7"};
    g.privateClasses = {true, "6.2 (a name that begins with _ is its library's own)"};
    g.noSubclassConstructors = {true, "6.2 (a name is private to its library or open to all)"};
    g.eachStaticAtFirstUse = {true, "8.1 (each when first read)"};
    g.byLastPart = true;
    static constexpr std::string_view kMarks[] = {"LazySingleton", "Singleton", "lazySingleton", "singleton"};
    g.containerMarks = kMarks;
    static constexpr std::string_view kRegistrations[] = {"registerLazySingleton", "registerSingleton"};
    g.containerCalls = kRegistrations;
    static constexpr std::string_view kRoots[] = {"Object"};
    g.roots = kRoots;
    g.soundCreation = "a static final field";
    g.staticsAtFirstUse = {true, "Dart language specification 8.2 (lazily initialised)"};
    g.failedInitialiser = "each read runs the initialiser again and throws again";
    static constexpr std::string_view kEndHooks[] = {"cancel", "close", "dispose", "stop"};
    g.endHooks = kEndHooks;
    g.changedWalk = "the iterator throws ConcurrentModificationError (dart:core, Iterable)";
    static constexpr std::string_view kEnvironment[] = {"Platform::environment"};
    g.environment = kEnvironment;
    g.suspends = {true, "Asynchronous programming, await"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

// What Python promises. Sources are sections of the Python Language Reference
// and Library Reference, 3.11.
#include "languages/python/python.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

constexpr std::string_view kThisThread[] = {"current_thread", "currentThread", "get_ident", "get_native_id"};

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"Child", kMemberHandle},
    {"Column", kMemberHandle},
    {"Condition", kConditionType},
    {"Dict", kCollection | kKeyedCollection},
    {"Event", kConditionType},
    {"LifoQueue", kCollection | kSafeToShare},
    {"List", kCollection},
    {"Lock", kLockType},
    {"Optional", kOptionalType | kPointerLike},
    {"OrderedDict", kCollection | kKeyedCollection},
    {"PriorityQueue", kCollection | kSafeToShare},
    {"Property", kMemberHandle},
    {"Queue", kCollection | kSafeToShare},
    {"RLock", kLockType},
    {"Random", kKeepsState},
    {"Semaphore", kLockType},
    {"Set", kCollection},
    {"Signal", kMemberHandle},
    {"SimpleQueue", kCollection | kSafeToShare},
    {"Thread", kThreadType | kStartedByCall},
    {"Timer", kThreadType | kStartedByCall},
    {"WeakKeyDictionary", kCollection | kKeyedCollection},
    {"WeakSet", kCollection},
    {"WeakValueDictionary", kCollection | kKeyedCollection},
    {"bytearray", kCollection},
    {"cached_property", kMemberHandle},
    {"count", kKeepsState},
    {"cycle", kKeepsState},
    {"defaultdict", kCollection | kKeyedCollection},
    {"deque", kCollection},
    {"dict", kCollection | kKeyedCollection},
    {"frozenset", kTextType},
    {"list", kCollection},
    {"local", kPerThread},
    {"property", kMemberHandle},
    {"pyqtProperty", kMemberHandle},
    {"pyqtSignal", kMemberHandle},
    {"relationship", kMemberHandle},
    {"set", kCollection},
    {"str", kTextType},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"Popen", kStartsProcess},
    {"Process", kStartsProcess},
    {"assert", kAborts},
    {"check_call", kStartsProcess},
    {"check_output", kStartsProcess},
    {"environ::get", kReadsEnvironment},
    {"functools::partial", kBindsFirst},
    {"getenv", kReadsEnvironment},
    {"open", kReadsFile | kTakesResource},
    {"os::environ", kReadsEnvironment},
    {"os::getenv", kReadsEnvironment},
    {"partial", kBindsFirst},
    {"print", kPrints},
    {"requests::get", kNetwork},
    {"requests::post", kNetwork},
    {"run_in_executor", kRunsLater},
    {"socket::create_connection", kNetwork},
    {"socket::socket", kNetwork | kTakesResource},
    {"sqlite3::connect", kReadsFile | kTakesResource},
    {"start_new_thread", kStartsThread | kRunsLater},
    {"submit", kRunsLater},
    {"subprocess::Popen", kStartsProcess},
    {"subprocess::run", kStartsProcess},
    {"sys::exit", kAborts},
    {"time::sleep", kSleeps},
    {"urlopen", kNetwork},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"add", "append", "appendleft", "extend", "extendleft", "insert", "put", "put_nowait", "setdefault", "update"};
  static constexpr std::string_view kRemove[] = {"clear", "discard", "get_nowait", "pop", "popitem", "popleft", "remove"};
  static constexpr std::string_view kChange[] = {"reverse", "rotate", "sort", "difference_update", "intersection_update", "symmetric_difference_update", "move_to_end"};
  static constexpr std::string_view kRead[] = {"copy", "count", "endswith", "format", "get", "index", "items", "join", "keys", "lower", "split", "startswith", "strip", "upper", "values", "union", "difference", "intersection", "issubset", "issuperset", "encode", "decode", "replace", "match", "search", "debug", "info", "warning", "error", "exception", "findall", "fullmatch", "sub", "finditer", "isdisjoint", "title", "rstrip", "lstrip", "most_common", "getLogger"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& pythonGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {false, "Library Reference, functools (a cached function may be called again before its first call is cached)"};
    g.orderedAcrossFiles = {true, "Language Reference 5.4 (a module is run once, when it is first imported)"};
    g.textualOrder = {true, "Language Reference 4.1"};
    g.unsetNamesFail = {true, "Language Reference 4.2.2"};
    g.openConstructors = {true, "Language Reference 3.3.1"};
    g.classesMadeByCode = {true, "Language reference 8.7"};
    g.collectionStepsAtomic = {true, "Library FAQ, What kinds of global value mutation are thread-safe?"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "Library Reference, threading"};
    static constexpr std::string_view kThreadBodies[] = {"__call__", "run"};
    g.threadBodies = kThreadBodies;
    static constexpr std::string_view kJoins[] = {"join", "result", "wait"};
    g.joins = kJoins;
    static constexpr std::string_view kMainThreadTypes[] = {"ApplicationWindow", "Box", "Dialog", "QDialog", "QMainWindow", "QWidget", "Window"};
    g.mainThreadTypes = kMainThreadTypes;
    g.plainPointerPublishes = {true, "Library Reference, glossary: global interpreter lock (storing a reference is one step)"};
    g.implicitCopy = {false, "Language Reference 7.2 (assignment binds a name to the object)"};
    g.constructorAfterFactory = {true, "Language Reference 3.3.1 (__init__ is called on what __new__ returns)"};
    g.implicitConstructor = {true, "Language Reference 3.3.1"};
    g.staticsDestroyedAtExit = {false, "Language Reference 3.3.1 (no promise that __del__ is called at exit)"};
    g.noSubclassConstructors = {true, "Language Reference 9.6 (nothing is private)"};
    g.byLastPart = true;
    static constexpr std::string_view kRoots[] = {"object"};
    g.roots = kRoots;
    g.soundCreation = "an instance made by its module, or check and set under one lock";
    g.failedInitialiser = "the module cannot be imported (Python language reference, 5.4 Loading)";
    static constexpr std::string_view kEndHooks[] = {"close", "dispose", "shutdown", "stop", "__exit__"};
    g.endHooks = kEndHooks;
    g.classWritesAreOwn = true;
    g.membersAreLists = true;
    g.changedWalk = "elements are skipped, and a dict or set raises RuntimeError (Library Reference, dictionary view objects)";
    static constexpr std::string_view kBeginHooks[] = {"__setstate__"};
    g.beginHooks = kBeginHooks;
    static constexpr std::string_view kEnvironment[] = {"os::environ"};
    g.environment = kEnvironment;
    g.suspends = {true, "Language Reference 6.4 (await)"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

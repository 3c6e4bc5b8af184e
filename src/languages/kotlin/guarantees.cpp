// What Kotlin promises. Sources are sections of the Kotlin language
// specification, of its library's documentation, and of the Java Language
// Specification (JLS) for the platform under it.
#include "languages/kotlin/kotlin.h"
#include "languages/shared/jvm_types.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

constexpr auto kTypes = mergedByName(kJvmTypes, std::to_array<NamedBits>({
    {"Array", kCollection},
    {"Executor", kKeepsState},
    {"HandlerThread", kThreadType},
    {"Lazy", kPointerLike | kLazyType},
    {"MutableList", kCollection},
    {"MutableMap", kCollection | kKeyedCollection},
    {"MutableSet", kCollection},
    {"Mutex", kLockType},
    {"Regex", kUnchanging},
    {"ThreadPoolExecutor", kThreadType},
    {"arrayListOf", kCollection},
    {"hashMapOf", kCollection | kKeyedCollection},
    {"hashSetOf", kCollection},
    {"linkedMapOf", kCollection | kKeyedCollection},
    {"mutableListOf", kCollection},
    {"mutableMapOf", kCollection | kKeyedCollection},
    {"mutableSetOf", kCollection},
}));

constexpr std::string_view kThisThread[] = {"currentThread"};

constexpr auto kCalls = std::to_array<NamedBits>({
    {"File::readLines", kReadsFile},
    {"File::readText", kReadsFile},
    {"Socket", kNetwork | kTakesResource},
    {"System::getenv", kReadsEnvironment},
    {"Thread::sleep", kSleeps},
    {"addInterceptor", kRunsForEach},
    {"addNetworkInterceptor", kRunsForEach},
    {"async", kRunsLater},
    {"await", kSuspends},
    {"awaitAll", kSuspends},
    {"check", kAborts},
    {"delay", kSuspends},
    {"error", kAborts},
    {"execute", kRunsLater},
    {"exitProcess", kAborts},
    {"launch", kRunsLater},
    {"readLines", kReadsFile},
    {"readText", kReadsFile},
    {"schedule", kRunsLater},
    {"scheduleAtFixedRate", kRunsLater},
    {"scheduleWithFixedDelay", kRunsLater},
    {"startVirtualThread", kStartsThread | kRunsLater},
    {"submit", kRunsLater},
    {"thread", kStartsThread | kRunsLater},
    {"withContext", kSuspends},
    {"withTimeout", kSuspends},
    {"yield", kSuspends},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"add", "addAll", "addFirst", "addLast", "append", "computeIfAbsent", "getOrPut", "plusAssign", "put", "putAll", "putIfAbsent"};
  static constexpr std::string_view kRemove[] = {"clear", "poll", "pop", "remove", "removeAll", "removeAt", "removeFirst", "removeLast", "removeIf"};
  static constexpr std::string_view kChange[] = {"compute", "merge", "replace", "replaceAll", "retainAll", "reverse", "set", "shuffle", "sort", "sortBy"};
  static constexpr std::string_view kRead[] = {"any", "all", "contains", "containsKey", "count", "filter", "find", "first", "firstOrNull", "forEach", "get", "getOrDefault", "getOrElse", "indexOf", "isEmpty", "isNotEmpty", "joinToString", "last", "lastOrNull", "map", "none", "toList", "toMap", "toString", "values", "equals", "hashCode", "iterator", "asSequence", "toSet"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& kotlinGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "Kotlin library, lazy (synchronised by default)"};
    g.orderedAcrossFiles = {true, "JLS 12.4.1 (a class is initialised at its first active use)"};
    g.textualOrder = {true, "Kotlin specification, Classifier initialization"};
    g.objectsAreLocks = {true, "JLS 17.1"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "JLS 17"};
    static constexpr std::string_view kThreadBodies[] = {"call", "intercept", "run"};
    g.threadBodies = kThreadBodies;
    g.listeners = kListenersOnMobile;
    static constexpr std::string_view kJoins[] = {"awaitTermination", "get", "join", "joinAll"};
    g.joins = kJoins;
    static constexpr std::string_view kAssertsLock[] = {"holdsLock", "isHeldByCurrentThread", "isWriteLockedByCurrentThread"};
    g.assertsLock = kAssertsLock;
    static constexpr std::string_view kSerialExecutors[] = {"newSingleThreadContext", "newSingleThreadExecutor", "newSingleThreadScheduledExecutor"};
    g.serialExecutors = kSerialExecutors;
    static constexpr std::string_view kMainThread[] = {"Main", "MainScope", "MainThread", "UiThread", "getMainExecutor", "getMainLooper", "invokeAndWait", "invokeLater", "lifecycleScope", "mainDispatcher", "mainExecutor", "mainHandler", "mainQueue", "mainThreadHandler", "runLater", "runOnUiThread", "uiHandler", "uiScope", "viewModelScope"};
    g.mainThread = kMainThread;
    static constexpr std::string_view kMainThreadTypes[] = {"Activity", "AppCompatActivity", "ComponentActivity", "DialogFragment", "Fragment", "FragmentActivity", "FrameLayout", "LinearLayout", "RelativeLayout", "SurfaceView", "TextView", "ViewGroup"};
    g.mainThreadTypes = kMainThreadTypes;
    g.plainPointerPublishes = {false, "JLS 17.4.5"};
    g.volatilePublishes = {true, "JLS 17.4.4"};
    g.implicitCopy = {false, "JLS 15.26.1 (assignment copies the reference)"};
    g.revivableBase = "Serializable";
    g.reviveHook = "readResolve";
    g.revivalSource = "Java Object Serialization Specification 3.7";
    g.implicitConstructor = {true, "Kotlin specification, Class declaration (a public constructor without parameters)"};
    g.staticsDestroyedAtExit = {false, "JLS 12.8"};
    g.byLastPart = true;
    g.ownNames = "kotlin.";
    static constexpr std::string_view kMarks[] = {"ApplicationScoped", "Component", "Configuration", "Controller", "Repository", "RestController", "Service", "Singleton"};
    g.containerMarks = kMarks;
    static constexpr std::string_view kRoots[] = {"Any"};
    g.roots = kRoots;
    g.soundCreation = "an object, or a value by lazy";
    g.staticsAtFirstUse = {true, "Kotlin specification, Object declarations (initialised at first access)"};
    g.failedInitialiser = "the object cannot be used for the rest of the run (as JLS 12.4.2, step 11)";
    static constexpr std::string_view kEndHooks[] = {"close", "dispose", "destroy", "onCleared", "onDestroy", "shutdown", "stop"};
    g.endHooks = kEndHooks;
    g.changedWalk = "the iterator throws ConcurrentModificationException (kotlin.collections.MutableIterator)";
    static constexpr std::string_view kBeginHooks[] = {"readObject"};
    g.beginHooks = kBeginHooks;
    g.suspends = {true, "Kotlin specification, Coroutines (suspending functions)"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

// What C# promises. Sources are sections of the C# language specification
// (ECMA-334, 6th edition), of the common language infrastructure (ECMA-335),
// and of the class library's documentation.
#include "languages/csharp/csharp.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"ASCIIEncoding", kUnchanging},
    {"AsyncLocal", kPerThread | kPointerLike},
    {"BlockingCollection", kCollection | kSafeToShare},
    {"ConcurrentBag", kCollection | kSafeToShare},
    {"ConcurrentDictionary", kCollection | kKeyedCollection | kSafeToShare},
    {"ConcurrentQueue", kCollection | kSafeToShare},
    {"ConcurrentStack", kCollection | kSafeToShare},
    {"CultureInfo", kUnchanging},
    {"Dictionary", kCollection | kKeyedCollection},
    {"Encoding", kUnchanging},
    {"FileStream", kFileResource},
    {"HMACSHA1", kNotSafeToShare},
    {"HMACSHA256", kNotSafeToShare},
    {"HashAlgorithm", kNotSafeToShare},
    {"HashSet", kCollection},
    {"Hashtable", kCollection | kKeyedCollection},
    {"HttpClient", kKeepsState},
    {"IDictionary", kCollection | kKeyedCollection},
    {"IList", kCollection},
    {"ImmutableArray", kTextType},
    {"ImmutableDictionary", kTextType},
    {"ImmutableList", kTextType},
    {"Lazy", kPointerLike | kLazyType},
    {"LinkedList", kCollection},
    {"List", kCollection},
    {"MD5", kNotSafeToShare},
    {"ManualResetEvent", kConditionType},
    {"MemoryStream", kNotSafeToShare},
    {"Mutex", kLockType},
    {"Queue", kCollection},
    {"RNGCryptoServiceProvider", kKeepsState},
    {"Random", kNotSafeToShare},
    {"RandomNumberGenerator", kKeepsState},
    {"ReaderWriterLockSlim", kLockType},
    {"Regex", kUnchanging},
    {"SHA1", kNotSafeToShare},
    {"SHA256", kNotSafeToShare},
    {"SHA384", kNotSafeToShare},
    {"SHA512", kNotSafeToShare},
    {"SemaphoreSlim", kLockType},
    {"SortedDictionary", kCollection | kKeyedCollection},
    {"SortedList", kCollection | kKeyedCollection},
    {"SortedSet", kCollection},
    {"Stack", kCollection},
    {"StreamReader", kFileResource},
    {"StreamWriter", kFileResource},
    {"StringBuilder", kCollection},
    {"Thread", kThreadType | kStartedByCall},
    {"ThreadLocal", kPerThread | kPointerLike},
    {"TimeZoneInfo", kUnchanging},
    {"Timer", kKeepsState},
    {"UTF32Encoding", kUnchanging},
    {"UTF8Encoding", kUnchanging},
    {"UnicodeEncoding", kUnchanging},
    {"Uri", kUnchanging},
    {"Version", kUnchanging},
    {"WeakReference", kPointerLike},
});

constexpr std::string_view kThisThread[] = {"CurrentThread", "CurrentManagedThreadId"};

constexpr auto kCalls = std::to_array<NamedBits>({
    {"Debug::Assert", kAborts},
    {"Environment::Exit", kAborts},
    {"Environment::FailFast", kAborts},
    {"Environment::GetEnvironmentVariable", kReadsEnvironment},
    {"File::Create", kReadsFile | kTakesResource},
    {"File::CreateText", kReadsFile | kTakesResource},
    {"File::Open", kReadsFile | kTakesResource},
    {"File::OpenRead", kReadsFile | kTakesResource},
    {"File::OpenText", kReadsFile | kTakesResource},
    {"File::OpenWrite", kReadsFile | kTakesResource},
    {"File::ReadAllBytes", kReadsFile},
    {"File::ReadAllLines", kReadsFile},
    {"File::ReadAllText", kReadsFile},
    {"FileStream", kReadsFile},
    {"HttpClient", kNetwork},
    {"Parallel::For", kRunsForEach},
    {"Parallel::ForEach", kRunsForEach},
    {"Process::Start", kStartsProcess},
    {"QueueUserWorkItem", kRunsLater},
    {"Socket", kNetwork | kTakesResource},
    {"StartNew", kRunsLater},
    {"StreamReader", kReadsFile},
    {"Task::Run", kRunsLater},
    {"TcpClient", kNetwork | kTakesResource},
    {"Thread::Sleep", kSleeps},
    {"ThreadPool::QueueUserWorkItem", kRunsLater},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"Add", "AddFirst", "AddLast", "AddRange", "Append", "AppendLine", "Enqueue", "GetOrAdd", "Insert", "Push", "TryAdd"};
  static constexpr std::string_view kRemove[] = {"Clear", "Dequeue", "Pop", "Remove", "RemoveAll", "RemoveAt", "RemoveFirst", "RemoveLast", "TryDequeue", "TryPop", "TryRemove", "TryTake"};
  static constexpr std::string_view kChange[] = {"AddOrUpdate", "Reverse", "Sort", "TryUpdate", "ExceptWith", "IntersectWith", "UnionWith"};
  static constexpr std::string_view kRead[] = {"Any", "All", "Contains", "ContainsKey", "ContainsValue", "CopyTo", "Count", "Equals", "First", "FirstOrDefault", "GetEnumerator", "GetHashCode", "IndexOf", "Last", "Peek", "Select", "Single", "ToArray", "ToList", "ToString", "TryGetValue", "TryPeek", "Where", "Exists", "Find", "FindAll", "ForEach", "OrderBy", "IsMatch", "Match", "Replace", "Split", "StartsWith", "Trim"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& csharpGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "ECMA-334 15.12 (a type's initialiser runs once, under a lock)"};
    g.orderedAcrossFiles = {true, "ECMA-334 15.12 (before the type's first use)"};
    g.textualOrder = {true, "C# 15.5.6.2"};
    g.objectsAreLocks = {true, "ECMA-334 13.13"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "ECMA-335 I.12.6"};
    static constexpr std::string_view kJoins[] = {"For", "ForEach", "Join", "Wait", "WaitAll"};
    g.joins = kJoins;
    // Windows Forms: Control ("Thread safety"); WPF: DispatcherObject.
    static constexpr std::string_view kMainThreadTypes[] = {"Control", "DependencyObject", "Editor", "EditorWindow", "Form", "ListView", "MonoBehaviour", "ScriptableObject", "TextBox", "ToolStrip", "ToolStripRenderer", "TreeView", "UserControl", "Window"};
    g.mainThreadTypes = kMainThreadTypes;
    static constexpr std::string_view kAssertsLock[] = {"IsEntered"};
    g.assertsLock = kAssertsLock;
    g.plainPointerPublishes = {false, "ECMA-335 I.12.6.4 (writes of the constructor and of the slot may be seen in another order)"};
    g.volatilePublishes = {true, "ECMA-334 15.5.4"};
    g.implicitCopy = {false, "ECMA-334 12.21.2 (assignment copies the reference)"};
    g.implicitConstructor = {true, "ECMA-334 15.11.5"};
    g.staticsDestroyedAtExit = {false, "ECMA-334 7.9"};
    g.byLastPart = true;
    g.ownNames = "System.";
    static constexpr std::string_view kMarks[] = {"Singleton"};
    g.containerMarks = kMarks;
    static constexpr std::string_view kRegistrations[] = {"AddSingleton", "TryAddSingleton", "RegisterSingleton"};
    g.containerCalls = kRegistrations;
    static constexpr std::string_view kRoots[] = {"Object", "object"};
    g.roots = kRoots;
    g.soundCreation = "a static field made where it stands, or Lazy<T> (ECMA-334 15.12)";
    g.staticsAtFirstUse = {true, "ECMA-334 15.5.6.2 (static field initialisers run before the first use)"};
    g.failedInitialiser = "each use of the type throws for the rest of the run (ECMA-334 15.12)";
    static constexpr std::string_view kEndHooks[] = {"Close", "Dispose", "DisposeAsync", "Shutdown", "Stop"};
    g.endHooks = kEndHooks;
    g.changedWalk = "the enumerator throws InvalidOperationException (IEnumerator.MoveNext)";
    static constexpr std::string_view kBeginHooks[] = {"OnDeserialized"};
    g.beginHooks = kBeginHooks;
    g.suspends = {true, "ECMA-334 12.9.8 (await)"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

// What Go promises. Sources are sections of the Go Programming Language
// Specification and of the Go Memory Model.
#include "languages/go/go.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

// What must not be copied after first use is said to be so by its package's
// documentation (sync, sync/atomic). Sorted by name: qualified names without their package's path.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"Bool", kAtomicType | kNonCopyable},
    {"Buffer", kCollection},
    {"Cond", kConditionType | kNonCopyable},
    {"File", kFileResource},
    {"Int32", kAtomicType | kNonCopyable},
    {"Int64", kAtomicType | kNonCopyable},
    {"Locker", kLockType},
    {"Mutex", kLockType | kNonCopyable},
    {"Once", kOnceFlagType | kNonCopyable},
    {"Pool", kSafeToShare | kNonCopyable | kPool},
    {"RWMutex", kLockType | kNonCopyable},
    {"Uint32", kAtomicType | kNonCopyable},
    {"Uint64", kAtomicType | kNonCopyable},
    {"WaitGroup", kConditionType | kNonCopyable},
    {"atomic::Pointer", kAtomicType | kNonCopyable},
    {"atomic::Value", kAtomicType | kNonCopyable},
    {"map", kCollection | kKeyedCollection},
    {"slice", kCollection},
    {"string", kTextType},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"HandleFunc", kRunsForEach},
    {"exec::Command", kStartsProcess},
    {"go", kStartsThread | kRunsLater},
    {"http::Get", kNetwork},
    {"http::Handle", kRunsForEach},
    {"http::HandleFunc", kRunsForEach},
    {"log::Fatal", kAborts},
    {"log::Fatalf", kAborts},
    {"net::Dial", kNetwork | kTakesResource},
    {"net::Listen", kNetwork | kTakesResource},
    {"os::Create", kReadsFile | kTakesResource},
    {"os::Exit", kAborts},
    {"os::Getenv", kReadsEnvironment},
    {"os::LookupEnv", kReadsEnvironment},
    {"os::Lstat", kReadsFile},
    {"os::Open", kReadsFile | kTakesResource},
    {"os::OpenFile", kReadsFile | kTakesResource},
    {"os::ReadDir", kReadsFile},
    {"os::ReadFile", kReadsFile},
    {"os::Stat", kReadsFile},
    {"panic", kAborts | kThrows},
    {"sql::Open", kNetwork | kTakesResource},
    {"time::AfterFunc", kRunsLater},
    {"time::Sleep", kSleeps},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"Store", "LoadOrStore", "Put", "WriteString", "WriteByte", "Write", "append"};
  static constexpr std::string_view kRemove[] = {"Delete", "LoadAndDelete", "Reset", "clear", "delete"};
  static constexpr std::string_view kChange[] = {"Swap", "CompareAndSwap"};
  static constexpr std::string_view kRead[] = {"Load", "Range", "Len", "String", "Bytes", "MatchString", "FindString", "Error"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& goGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "Go Memory Model, Once"};
    g.orderedAcrossFiles = {true, "Go specification, Package initialization (variables in the order of their dependencies)"};
    g.textualOrder = {false, "Go specification, Package initialization (in the order of dependence)"};
    g.sharedMemoryThreads = {true, "Go specification, Go statements"};
    static constexpr std::string_view kThreadBodies[] = {"ServeHTTP"};
    g.threadBodies = kThreadBodies;
    static constexpr std::string_view kJoins[] = {"Wait"};
    g.joins = kJoins;
    g.plainPointerPublishes = {false, "Go Memory Model, Incorrect synchronization"};
    g.implicitCopy = {true, "Go specification, Assignability (a struct value is copied)"};
    g.implicitConstructor = {true, "Go specification, Composite literals"};
    g.staticsDestroyedAtExit = {false, "Go specification, Program execution"};
    g.privateClasses = {true, "Go specification, Exported identifiers"};
    g.noConstructors = {true, "Go specification, Composite literals"};
    g.noSubclasses = {true, "Go specification, Struct types (embedding is no subtype)"};
    g.noSubclassConstructors = g.noSubclasses;
    g.noStaticMembers = {true, "Go specification, Method declarations"};
    g.failuresAreValues = {true, "Go specification, Errors"};
    g.byLastPart = true;
    g.soundCreation = "sync.Once";
    g.failedInitialiser = "the program ends before main begins (The Go specification, Handling panics)";
    static constexpr std::string_view kEndHooks[] = {"Close", "Shutdown", "Stop"};
    g.endHooks = kEndHooks;
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

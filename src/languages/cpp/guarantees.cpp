// What C++ promises. Sources are sections of the C++20 standard (ISO/IEC
// 14882:2020) by their stable names.
#include "languages/cpp/cpp.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

constexpr std::string_view kThisThread[] = {"get_id", "pthread_self", "gettid", "GetCurrentThreadId"};

// Sorted by name.
constexpr std::array kTypes = std::to_array<NamedBits>({
    {"FILE", kFileResource},
    {"QHash", kCollection | kKeyedCollection},
    {"QList", kCollection},
    {"QMap", kCollection | kKeyedCollection},
    {"QMutex", kLockType | kNonCopyable},
    {"QPointer", kPointerLike},
    {"QReadWriteLock", kLockType | kNonCopyable},
    {"QScopedPointer", kOwningPointer | kPointerLike | kNonCopyable},
    {"QSet", kCollection},
    {"QSharedPointer", kOwningPointer | kPointerLike},
    {"QString", kTextType},
    {"QThreadStorage", kPerThread},
    {"QVector", kCollection},
    {"QWeakPointer", kPointerLike},
    {"atomic", kAtomicType | kNonCopyable},
    {"boost::condition_variable", kConditionType | kNonCopyable},
    {"boost::intrusive_ptr", kOwningPointer | kPointerLike},
    {"boost::mutex", kLockType | kNonCopyable},
    {"boost::optional", kOptionalType | kPointerLike},
    {"boost::recursive_mutex", kLockType | kNonCopyable},
    {"boost::scoped_ptr", kOwningPointer | kPointerLike | kNonCopyable},
    {"boost::shared_mutex", kLockType | kNonCopyable},
    {"boost::shared_ptr", kOwningPointer | kPointerLike},
    {"boost::thread", kThreadType | kNonCopyable},
    {"boost::thread_specific_ptr", kPerThread | kPointerLike | kNonCopyable},
    {"boost::unordered_map", kCollection | kKeyedCollection},
    {"pthread_cond_t", kConditionType},
    {"pthread_mutex_t", kLockType},
    {"pthread_once_t", kOnceFlagType},
    {"pthread_rwlock_t", kLockType},
    {"pthread_t", kThreadType},
    {"std::array", kCollection},
    {"std::atomic", kAtomicType | kNonCopyable},
    {"std::atomic_bool", kAtomicType | kNonCopyable},
    {"std::atomic_flag", kAtomicType | kNonCopyable},
    {"std::atomic_int", kAtomicType | kNonCopyable},
    {"std::atomic_uint", kAtomicType | kNonCopyable},
    {"std::auto_ptr", kOwningPointer | kPointerLike},
    {"std::condition_variable", kConditionType | kNonCopyable},
    {"std::condition_variable_any", kConditionType | kNonCopyable},
    {"std::deque", kCollection},
    {"std::filebuf", kFileResource | kSelfReleasing | kNonCopyable},
    {"std::forward_list", kCollection},
    {"std::fstream", kFileResource | kSelfReleasing | kNonCopyable},
    {"std::function", kCallableType},
    {"std::future", kNonCopyable},
    {"std::ifstream", kFileResource | kSelfReleasing | kNonCopyable},
    {"std::jthread", kThreadType | kNonCopyable | kSelfReleasing},
    {"std::list", kCollection},
    {"std::map", kCollection | kKeyedCollection},
    {"std::multimap", kCollection | kKeyedCollection},
    {"std::multiset", kCollection},
    {"std::mutex", kLockType | kNonCopyable},
    {"std::ofstream", kFileResource | kSelfReleasing | kNonCopyable},
    {"std::once_flag", kOnceFlagType | kNonCopyable},
    {"std::optional", kOptionalType | kPointerLike},
    {"std::priority_queue", kCollection},
    {"std::queue", kCollection},
    {"std::recursive_mutex", kLockType | kNonCopyable},
    {"std::recursive_timed_mutex", kLockType | kNonCopyable},
    {"std::set", kCollection},
    {"std::shared_mutex", kLockType | kNonCopyable},
    {"std::shared_ptr", kOwningPointer | kPointerLike},
    {"std::shared_timed_mutex", kLockType | kNonCopyable},
    {"std::span", kViewType},
    {"std::stack", kCollection},
    {"std::string", kTextType},
    {"std::string_view", kViewType | kTextType},
    {"std::thread", kThreadType | kNonCopyable},
    {"std::timed_mutex", kLockType | kNonCopyable},
    {"std::unique_ptr", kOwningPointer | kPointerLike | kNonCopyable},
    {"std::unordered_map", kCollection | kKeyedCollection},
    {"std::unordered_multimap", kCollection | kKeyedCollection},
    {"std::unordered_set", kCollection},
    {"std::vector", kCollection},
    {"std::weak_ptr", kPointerLike},
});

// Sorted by name.
constexpr std::array kCalls = std::to_array<NamedBits>({
    {">>", kChangesGiven},
    {"CHECK", kAborts},
    {"CreateThread", kStartsThread | kRunsLater},
    {"QtConcurrent::run", kRunsLater},
    {"_beginthreadex", kStartsThread | kRunsLater},
    {"abort", kAborts},
    {"accept", kNetwork | kTakesResource},
    {"assert", kAborts},
    {"bind", kNetwork},
    {"boost::bind", kBindsFirst},
    {"close", kReleasesResource},
    {"closedir", kReleasesResource},
    {"dlclose", kReleasesResource},
    {"dlopen", kReadsFile | kTakesResource},
    {"epoll_create1", kTakesResource},
    {"execv", kStartsProcess},
    {"execvp", kStartsProcess},
    {"exit", kAborts},
    {"fclose", kReleasesResource},
    {"fdopen", kReadsFile | kTakesResource},
    {"fgets", kChangesFirst},
    {"fopen", kReadsFile | kTakesResource},
    {"fork", kStartsProcess},
    {"fprintf", kPrints},
    {"getaddrinfo", kNetwork},
    {"getenv", kReadsEnvironment},
    {"gethostbyname", kNetwork},
    {"listen", kNetwork},
    {"memcpy", kChangesFirst},
    {"memset", kChangesFirst},
    {"mmap", kReadsFile | kTakesResource},
    {"munmap", kReleasesResource},
    {"nanosleep", kSleeps},
    {"open", kReadsFile | kTakesResource},
    {"opendir", kReadsFile | kTakesResource},
    {"pclose", kReleasesResource},
    {"pipe", kTakesResource},
    {"popen", kStartsProcess | kTakesResource},
    {"posix_spawn", kStartsProcess},
    {"printf", kPrints},
    {"pthread_create", kStartsThread | kRunsLater},
    {"puts", kPrints},
    {"sleep", kSleeps},
    {"snprintf", kChangesFirst},
    {"socket", kNetwork | kTakesResource},
    {"sprintf", kChangesFirst},
    {"std::abort", kAborts},
    {"std::addressof", kYieldsSame},
    {"std::as_const", kYieldsSame},
    {"std::async", kStartsThread | kRunsLater},
    {"std::bind", kBindsFirst},
    {"std::bind_front", kBindsFirst},
    {"std::exchange", kChangesFirst},
    {"std::exit", kAborts},
    {"std::fclose", kReleasesResource},
    {"std::filesystem::directory_iterator", kReadsFile},
    {"std::fill", kChangesFirst},
    {"std::fopen", kReadsFile | kTakesResource},
    {"std::fprintf", kPrints},
    {"std::getenv", kReadsEnvironment},
    {"std::getline", kChangesGiven},
    {"std::iota", kChangesFirst},
    {"std::memcpy", kChangesFirst},
    {"std::memset", kChangesFirst},
    {"std::move", kYieldsSame},
    {"std::printf", kPrints},
    {"std::ref", kYieldsSame},
    {"std::reverse", kChangesFirst},
    {"std::shuffle", kChangesFirst},
    {"std::sort", kChangesFirst},
    {"std::strcpy", kChangesFirst},
    {"std::swap", kChangesGiven},
    {"std::system", kStartsProcess},
    {"std::terminate", kAborts},
    {"std::this_thread::sleep_for", kSleeps},
    {"std::this_thread::sleep_until", kSleeps},
    {"strcat", kChangesFirst},
    {"strcpy", kChangesFirst},
    {"strncpy", kChangesFirst},
    {"swap", kChangesGiven},
    {"system", kStartsProcess},
    {"usleep", kSleeps},
});

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"push_back", "emplace_back", "push_front", "emplace_front", "insert", "emplace", "push",
                                       "try_emplace", "insert_or_assign", "append", "emplace_hint", "push_range", "insert_range", "prepend", "enqueue", "insertMulti"};
  static constexpr std::string_view kRemove[] = {"erase", "clear", "pop_back", "pop_front", "pop", "remove", "remove_if", "extract", "reset",
                                        "removeAll", "removeOne", "removeFirst", "removeLast", "removeAt", "take", "takeFirst", "takeLast", "takeAt", "dequeue"};
  static constexpr std::string_view kChange[] = {"resize", "assign", "swap", "sort", "reserve", "splice", "merge", "store", "exchange", "unique", "rehash", "shrink_to_fit", "replace"};
  static constexpr std::string_view kRead[] = {"size", "empty", "begin", "end", "cbegin", "cend", "find", "count", "contains", "at", "front", "back", "data", "c_str",
                                        "lower_bound", "upper_bound", "equal_range", "load", "length", "substr", "rbegin", "rend", "top", "capacity", "has_value", "value", "get", "str", "compare", "find_first_of", "value_or",
                                        "isEmpty", "constBegin", "constEnd", "constFind", "indexOf", "lastIndexOf", "keys", "values", "first", "last", "constFirst", "constLast"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

static_assert(sortedByName(kTypes));
static_assert(sortedByName(kCalls));

}  // namespace

const Guarantees& cppGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "C++20 [stmt.dcl]/3"};
    g.orderedAcrossFiles = {false, "C++20 [basic.start.dynamic]/2"};
    g.textualOrder = {true, "C++ [basic.start.dynamic]/3"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "C++20 [intro.multithread]"};
    static constexpr std::string_view kThreadBodies[] = {"operator()", "run"};
    g.threadBodies = kThreadBodies;
    // Qt: "Thread-Support in Qt Modules"; wxWidgets: "Multithreading Overview".
    static constexpr std::string_view kMainThreadTypes[] = {"QAbstractButton", "QAbstractItemView", "QComboBox", "QDialog", "QDockWidget", "QFrame", "QGraphicsView", "QLabel", "QListView", "QListWidget", "QMainWindow", "QMenu", "QMessageBox", "QPushButton", "QStackedWidget", "QTabWidget", "QTableView", "QToolBar", "QTreeView", "QTreeWidget", "QWidget", "QWizard", "wxDialog", "wxFrame", "wxPanel", "wxWindow"};
    g.mainThreadTypes = kMainThreadTypes;
    static constexpr std::string_view kJoins[] = {"get", "join", "pthread_join", "wait", "wait_for_all"};
    g.joins = kJoins;
    static constexpr std::string_view kAssertsLock[] = {"AssertHeld", "assertHeld"};
    g.assertsLock = kAssertsLock;
    g.plainPointerPublishes = {false, "C++20 [intro.races]/21"};
    g.implicitCopy = {true, "C++20 [class.copy.ctor]/6"};
    g.implicitConstructor = {true, "C++20 [class.default.ctor]/1"};
    g.staticsDestroyedAtExit = {true, "C++20 [basic.start.term]/1"};
    g.soundCreation = "a function-local static (C++20 [stmt.dcl]/3)";
    g.failedInitialiser = "the program ends before main begins ([basic.start.dynamic]/7)";
    g.changedWalk = "an iterator into a changed container is invalid ([container.requirements], [vector.modifiers])";
    g.collectionsAreValues = {true, "C++20 [container.requirements] (copying a container copies its elements)"};
    g.freedByHand = {true, "C++20 [basic.stc.dynamic], [basic.stc.auto]"};
    g.suspends = {true, "C++20 [dcl.fct.def.coroutine]"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

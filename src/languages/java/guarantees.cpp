// What Java promises. Sources are sections of the Java Language Specification,
// Java SE 17 (JLS), and of the class library's documentation.
#include "languages/java/java.h"
#include "languages/shared/jvm_types.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

constexpr auto kTypes = mergedByName(kJvmTypes, std::to_array<NamedBits>({
    {"Collection", kCollection},
    {"List", kCollection},
    {"Map", kCollection | kKeyedCollection},
    {"Set", kCollection},
    {"String", kTextType},
}));

constexpr std::string_view kThisThread[] = {"currentThread"};

// Sorted by name: the last part of a call as written.
constexpr auto kCalls = std::to_array<NamedBits>({
    {"DriverManager::getConnection", kNetwork},
    {"FileInputStream", kReadsFile},
    {"FileReader", kReadsFile},
    {"Files::lines", kReadsFile},
    {"Files::newBufferedReader", kReadsFile},
    {"Files::readAllBytes", kReadsFile},
    {"Files::readAllLines", kReadsFile},
    {"Files::readString", kReadsFile},
    {"ServerSocket", kNetwork | kTakesResource},
    {"Socket", kNetwork | kTakesResource},
    {"System::exit", kAborts},
    {"System::getenv", kReadsEnvironment},
    {"Thread::sleep", kSleeps},
    {"addInterceptor", kRunsForEach},
    {"addNetworkInterceptor", kRunsForEach},
    {"assert", kAborts},
    {"computeIfAbsent", kRunsGiven},
    {"doPrivileged", kRunsGiven},
    {"execute", kRunsLater},
    {"forEach", kRunsGiven},
    {"removeIf", kRunsGiven},
    {"runAsync", kRunsLater},
    {"schedule", kRunsLater},
    {"scheduleAtFixedRate", kRunsLater},
    {"scheduleWithFixedDelay", kRunsLater},
    {"startVirtualThread", kStartsThread | kRunsLater},
    {"submit", kRunsLater},
    {"supplyAsync", kRunsLater},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"add", "addAll", "addFirst", "addLast", "append", "computeIfAbsent", "insert", "offer", "push", "put", "putAll", "putIfAbsent"};
  static constexpr std::string_view kRemove[] = {"clear", "drainTo", "poll", "pollFirst", "pollFirstEntry", "pollLast", "pollLastEntry", "pop", "remove", "removeAll", "removeFirst", "removeIf", "removeLast", "take"};
  static constexpr std::string_view kChange[] = {"compute", "computeIfPresent", "merge", "replace", "replaceAll", "retainAll", "set", "setLength", "sort", "reverse", "deleteCharAt"};
  static constexpr std::string_view kRead[] = {"ceilingEntry", "ceilingKey", "charAt", "contains", "containsAll", "containsKey", "containsValue", "descendingIterator", "descendingMap", "element", "entrySet", "equals", "forEach", "get", "getFirst", "getLast", "getOrDefault", "hashCode", "indexOf", "isEmpty", "isPresent", "iterator", "keySet", "length", "peek", "size", "stream", "toArray", "toString", "values", "firstEntry", "firstKey", "floorEntry", "floorKey", "higherEntry", "higherKey", "lastEntry", "lastIndexOf", "lastKey", "lowerEntry", "lowerKey", "parallelStream", "peekFirst", "peekLast", "spliterator", "subList", "headMap", "tailMap", "listIterator", "copyOf"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& javaGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "JLS 12.4.2 (a nested holder class is initialised once, under a lock)"};
    g.orderedAcrossFiles = {true, "JLS 12.4.1 (a class is initialised at its first active use)"};
    g.textualOrder = {true, "JLS 12.4.2, step 9"};
    g.objectsAreLocks = {true, "JLS 17.1"};
    g.thisThread = kThisThread;
    g.sharedMemoryThreads = {true, "JLS 17"};
    static constexpr std::string_view kThreadBodies[] = {"call", "intercept", "run"};
    g.threadBodies = kThreadBodies;
    g.listeners = kListenersOnMobile;
    static constexpr std::string_view kJoins[] = {"awaitTermination", "get", "join"};
    g.joins = kJoins;
    static constexpr std::string_view kAssertsLock[] = {"holdsLock", "isHeldByCurrentThread", "isWriteLockedByCurrentThread"};
    g.assertsLock = kAssertsLock;
    static constexpr std::string_view kSerialExecutors[] = {"newSingleThreadExecutor", "newSingleThreadScheduledExecutor"};
    g.serialExecutors = kSerialExecutors;
    static constexpr std::string_view kMainThread[] = {"MainThread", "UiThread", "getMainExecutor", "getMainLooper", "invokeAndWait", "invokeLater", "mainDispatcher", "mainExecutor", "mainHandler", "mainQueue", "mainThreadHandler", "runLater", "runOnUiThread", "uiHandler", "uiScope"};
    g.mainThread = kMainThread;
    // The threading rules of Swing (package javax.swing, "Swing's Threading Policy") and of Android's views (Activity, View).
    static constexpr std::string_view kMainThreadTypes[] = {"AbstractAction", "AbstractListModel", "AbstractTableModel", "Activity", "AppCompatActivity", "ComponentActivity", "DefaultTableModel", "DialogFragment", "Fragment", "FragmentActivity", "FrameLayout", "JButton", "JCheckBox", "JComboBox", "JComponent", "JDialog", "JFrame", "JInternalFrame", "JLabel", "JList", "JMenu", "JMenuBar", "JMenuItem", "JPanel", "JPopupMenu", "JScrollPane", "JSplitPane", "JTabbedPane", "JTable", "JTextArea", "JTextField", "JTextPane", "JToggleButton", "JToolBar", "JTree", "JWindow", "LinearLayout", "RelativeLayout", "SurfaceView", "TextView", "ViewGroup"};
    g.mainThreadTypes = kMainThreadTypes;
    g.plainPointerPublishes = {false, "JLS 17.4.5 (a read that no happens-before orders may see a half-made object)"};
    g.volatilePublishes = {true, "JLS 17.4.4 (a write of a volatile field synchronises with each later read)"};
    g.implicitCopy = {false, "JLS 15.26.1 (assignment copies the reference)"};
    g.revivableBase = "Serializable";
    g.reviveHook = "readResolve";
    g.revivalSource = "Java Object Serialization Specification 3.7";
    g.implicitConstructor = {true, "JLS 8.8.9"};
    g.staticsDestroyedAtExit = {false, "JLS 12.8"};
    g.byLastPart = true;
    g.ownNames = "java.";
    static constexpr std::string_view kMarks[] = {"ApplicationScoped", "Component", "Configuration", "Controller", "Repository", "RestController", "Service", "Singleton"};
    g.containerMarks = kMarks;
    static constexpr std::string_view kRoots[] = {"Object"};
    g.roots = kRoots;
    g.soundCreation = "a nested holder class, or an enum constant (JLS 12.4.2)";
    g.staticsAtFirstUse = {true, "JLS 12.4.1"};
    g.failedInitialiser = "the class cannot be used for the rest of the run (JLS 12.4.2, step 11)";
    static constexpr std::string_view kEndHooks[] = {"close", "dispose", "destroy", "shutdown", "stop"};
    g.endHooks = kEndHooks;
    g.changedWalk = "the iterator throws ConcurrentModificationException (java.util.ConcurrentModificationException)";
    static constexpr std::string_view kBeginHooks[] = {"readExternal", "readObject", "readObjectNoData"};
    g.beginHooks = kBeginHooks;
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

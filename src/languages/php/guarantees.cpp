// What PHP promises. Sources are sections of the PHP language specification and
// of the PHP manual.
#include "languages/php/php.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"ArrayObject", kCollection | kKeyedCollection},
    {"DateTimeImmutable", kUnchanging},
    {"DateTimeZone", kUnchanging},
    {"SplObjectStorage", kCollection},
    {"SplQueue", kCollection},
    {"SplStack", kCollection},
    {"WeakMap", kCollection | kKeyedCollection},
    {"array", kCollection | kKeyedCollection},
    {"string", kTextType},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"PDO", kNetwork},
    {"assert", kAborts},
    {"curl_exec", kNetwork},
    {"die", kAborts},
    {"exec", kStartsProcess},
    {"exit", kAborts},
    {"fclose", kReleasesResource},
    {"file", kReadsFile},
    {"file_get_contents", kReadsFile},
    {"fopen", kReadsFile | kTakesResource},
    {"fsockopen", kNetwork | kTakesResource},
    {"getenv", kReadsEnvironment},
    {"mysqli_connect", kNetwork | kTakesResource},
    {"parse_ini_file", kReadsFile},
    {"proc_open", kStartsProcess},
    {"shell_exec", kStartsProcess},
    {"sleep", kSleeps},
    {"usleep", kSleeps},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"append", "attach", "enqueue", "offsetSet", "push"};
  static constexpr std::string_view kRemove[] = {"dequeue", "detach", "offsetUnset", "pop", "shift"};
  static constexpr std::string_view kChange[] = {"exchangeArray", "uasort", "uksort"};
  static constexpr std::string_view kRead[] = {"contains", "count", "current", "getArrayCopy", "getIterator", "offsetExists", "offsetGet", "key", "format", "getMessage"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& phpGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.guardedLocalStatic = {true, "PHP manual, Variable scope (a static variable is initialised once in a request)"};
    g.orderedAcrossFiles = {true, "PHP manual, include (a file runs when it is included)"};
    g.textualOrder = {false, "PHP manual, Static keyword (values are constant expressions)"};
    g.sharedMemoryThreads = {false, "PHP manual, Lifetime of a request (nothing is shared between requests)"};
    g.plainPointerPublishes = {true, "PHP manual, Lifetime of a request"};
    g.implicitCopy = {false, "PHP manual, Objects and references"};
    g.clonesByDefault = {true, "PHP manual, Object cloning"};
    g.cloneHook = "__clone";
    g.implicitConstructor = {true, "PHP manual, Constructors"};
    g.staticsDestroyedAtExit = {true, "PHP manual, Destructors (called when the script ends)"};
    g.collectionsAreValues = {true, "PHP manual, Arrays (assignment copies the array)"};
    g.byLastPart = true;
    g.soundCreation = "a static local";
    g.failedInitialiser = "the request ends there";
    static constexpr std::string_view kEndHooks[] = {"close", "dispose", "shutdown"};
    g.endHooks = kEndHooks;
    g.livesForOneRequest = {true, "PHP manual, Static keyword and Variable scope (state ends with the request; long-running workers keep it)"};
    static constexpr std::string_view kBeginHooks[] = {"__unserialize", "__wakeup"};
    g.beginHooks = kBeginHooks;
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

// What JavaScript promises, and TypeScript with it. Clauses are of ECMA-262,
// 14th edition.
#include "languages/javascript/javascript.h"
#include "languages/shared/tables.h"

namespace elmcart {
namespace {

// Sorted by name.
constexpr auto kTypes = std::to_array<NamedBits>({
    {"Array", kCollection},
    {"Deque", kCollection},
    {"LinkedList", kCollection},
    {"Map", kCollection | kKeyedCollection | kSteadyWalk},  // ECMA-262 24.1.5.1
    {"Object", kCollection | kKeyedCollection},
    {"Promise", kPointerLike},
    {"ReadonlyArray", kCollection},
    {"Record", kCollection | kKeyedCollection},
    {"Set", kCollection | kSteadyWalk},  // ECMA-262 24.2.6.1
    {"TextDecoder", kTextType},
    {"TextEncoder", kTextType},
    {"WeakMap", kCollection | kKeyedCollection},
    {"WeakRef", kPointerLike},
    {"WeakSet", kCollection},
});

constexpr auto kCalls = std::to_array<NamedBits>({
    {"child_process::exec", kStartsProcess},
    {"child_process::execSync", kStartsProcess},
    {"child_process::spawn", kStartsProcess},
    {"console::assert", kAborts},
    {"document::createDocumentFragment", kMakesObject},
    {"document::createElement", kMakesObject},
    {"document::createElementNS", kMakesObject},
    {"fetch", kNetwork},
    {"fs::openSync", kReadsFile | kTakesResource},
    {"fs::readFileSync", kReadsFile},
    {"http::request", kNetwork},
    {"net::connect", kNetwork},
    {"process::env", kReadsEnvironment},
    {"process::exit", kAborts},
    {"readFileSync", kReadsFile},
});
static_assert(sortedByName(kTypes) && sortedByName(kCalls));

CollectionAct collectionAct(std::string_view member) {
  static constexpr std::string_view kAdd[] = {"add", "addFirst", "addLast", "enqueue", "push", "set", "unshift"};
  static constexpr std::string_view kRemove[] = {"clear", "delete", "dequeue", "pop", "removeFirst", "removeLast", "shift", "splice"};
  static constexpr std::string_view kChange[] = {"copyWithin", "fill", "reverse", "sort"};
  static constexpr std::string_view kRead[] = {"at", "concat", "entries", "every", "filter", "find", "findIndex", "flat", "flatMap", "forEach", "get", "has", "includes", "indexOf", "join", "keys", "lastIndexOf", "map", "reduce", "reduceRight", "slice", "some", "toString", "values", "toJSON", "test", "exec", "match", "replace", "split", "trim", "startsWith", "endsWith", "charAt", "substring", "toLowerCase", "toUpperCase", "hasOwnProperty", "valueOf", "apply", "call", "bind", "then", "catch", "log", "toFixed"};
  return actIn(member, kAdd, kRemove, kChange, kRead);
}

}  // namespace

const Guarantees& javascriptGuarantees() {
  static const Guarantees kGuarantees = [] {
    Guarantees g;
    g.classesMadeByCode = {true, "ECMAScript 15.7.14"};
    g.guardedLocalStatic = {true, "ECMA-262 9.7 (one agent runs one piece of code at a time)"};
    g.orderedAcrossFiles = {true, "ECMA-262 16.2.1.5 (a module is evaluated once, after those that it imports)"};
    g.textualOrder = {true, "ECMA-262 16.2.1.6, 15.7.14"};
    g.openConstructors = {true, "ECMA-262 15.7"};
    g.sharedMemoryThreads = {false, "ECMA-262 9.7 (objects are never shared between agents)"};
    g.plainPointerPublishes = {true, "ECMA-262 9.7"};
    g.implicitCopy = {false, "ECMA-262 6.1.7 (a variable holds a reference to an object)"};
    g.implicitConstructor = {true, "ECMA-262 15.7.14"};
    g.staticsDestroyedAtExit = {false, "ECMA-262 9.10"};
    g.noSubclassConstructors = {true, "ECMA-262 15.7 (a constructor is public)"};
    g.byLastPart = true;
    static constexpr std::string_view kMarks[] = {"Injectable", "singleton"};
    g.containerMarks = kMarks;
    g.soundCreation = "an instance made by its module";
    g.failedInitialiser = "the module and all that import it fail to load (ECMA-262 16.2.1.5)";
    static constexpr std::string_view kEndHooks[] = {"close", "destroy", "disconnectedCallback", "dispose", "stop", "componentWillUnmount", "unmount"};
    g.endHooks = kEndHooks;
    g.classWritesAreOwn = true;
    g.changedWalk = "elements are skipped or visited twice (ECMA-262 23.1.5.1)";
    static constexpr std::string_view kEnvironment[] = {"process::env"};
    g.environment = kEnvironment;
    g.suspends = {true, "ECMA-262 27.7 (async functions)"};
    g.types = kTypes;
    g.calls = kCalls;
    g.collectionAct = collectionAct;
    return g;
  }();
  return kGuarantees;
}

}  // namespace elmcart

// What a language gives to the rest of the program: how its files are lowered,
// what it promises (guarantees) and how things are written in it.
//
// Checks and moves ask only through these tables; they never ask for a
// language by name. Adding a language is one folder here and one row in
// table.cpp; see docs/adding-a-language.md.
#pragma once

#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "lowered/tree.h"

struct TSLanguage;

namespace elmcart {

struct CommentForm;  // comments.h

// What is known of a library type by its qualified name. Bits.
enum TypeTrait : uint32_t {
  kAtomicType = 1u << 0,
  kLockType = 1u << 1,
  kOnceFlagType = 1u << 2,
  kOwningPointer = 1u << 3,   // unique or shared: frees what it points to
  kPointerLike = 1u << 4,     // its first type argument is what is reached through it
  kCollection = 1u << 5,
  kKeyedCollection = 1u << 6,
  kFileResource = 1u << 7,    // owns a file
  kThreadType = 1u << 8,      // starting one starts a thread
  kOptionalType = 1u << 9,
  kTextType = 1u << 10,
  kViewType = 1u << 11,       // refers to memory that it does not own
  kConditionType = 1u << 12,  // a condition variable: used with a lock, itself safe to share
  kSelfReleasing = 1u << 13,  // a resource type whose destructor releases it
  kNonCopyable = 1u << 14,
  kCallableType = 1u << 15,
  kSafeToShare = 1u << 16,    // a collection that guards itself against threads
  kSteadyWalk = 1u << 25,     // a walk over it stays whole whatever is added or taken out meanwhile
  kLazyType = 1u << 18,       // makes its value when it is first asked for, under a guard
  kNotSafeToShare = 1u << 19, // looks like a constant, but keeps state between calls
  kKeepsState = 1u << 28,     // the same, and is safe to share
  kPool = 1u << 24,           // lends objects that keep nothing of who had them before
  kFixed = 1u << 23,          // a collection that never changes once it is made
  kUnchanging = 1u << 26,     // an object that stays as it was made: one is as good as another that is made alike
  kPerThread = 1u << 17,      // holds a value for each thread
  kGivenTasks = 1u << 22,     // of a thread: what it runs it is given later, not when it is made
  kStartedByCall = 1u << 21,  // of a thread: it runs once its start() is called, not when it is made
  kMemberHandle = 1u << 20,   // reads and writes a member of whatever object it is given, or stands in a class for one of each object
};

// What calling a library function means. Bits.
enum CallTrait : uint32_t {
  kReadsFile = 1u << 0,
  kNetwork = 1u << 1,
  kStartsThread = 1u << 2,
  kStartsProcess = 1u << 3,
  kSleeps = 1u << 4,
  kReadsEnvironment = 1u << 5,
  kTakesResource = 1u << 6,    // its result must be released by hand
  kReleasesResource = 1u << 7,
  kBigAllocation = 1u << 8,
  kPrints = 1u << 9,
  kAborts = 1u << 10,          // ends the program, or asserts
  kRunsLater = 1u << 11,       // its function argument runs on another thread
  kThrows = 1u << 12,          // unwinds its callers, as a throw does
  kSuspends = 1u << 13,        // the function that calls it may wait there while others run
  kYieldsSame = 1u << 14,      // gives back what it is called on or given
  kChangesGiven = 1u << 15,    // changes what it is given
  kChangesFirst = 1u << 16,    // changes its first argument
  kRunsForEach = 1u << 17,     // its function argument runs on a thread for each request or turn, several at once
  kMakesObject = 1u << 18,     // gives a new object of a library's or the platform's class
  kRunsGiven = 1u << 20,       // runs its function argument, or the members of the object that is one, before it returns
  kBindsFirst = 1u << 19,      // gives a function that calls its first argument, with the others, when it is called itself
};
inline constexpr uint32_t kHeavyCall =
    kReadsFile | kNetwork | kStartsThread | kStartsProcess | kSleeps | kBigAllocation;

// What a member function of a library collection does to it.
enum class CollectionAct : uint8_t { None, Read, Add, Remove, Change };

struct NamedBits {
  std::string_view name;
  uint32_t bits;
};

// What is kept by a platform or a framework from the call of the one function until that of the other.
struct KeptUntil {
  std::string_view enters, leaves;
};

// A promise with its source: the language standard's section.
struct Promise {
  bool holds = false;
  std::string_view source;
};

struct Guarantees {
  Promise guardedLocalStatic;        // a function-local static is created once, under a guard
  Promise orderedAcrossFiles;        // initialisers of different files run in a defined order
  Promise textualOrder;              // initialisers of one class or file run in the order of the text
  Promise unsetNamesFail;            // a name of a file that has no value yet is an error, or another one's that is built in
  Promise sharedMemoryThreads;       // threads that share memory exist at all
  Promise plainPointerPublishes;     // a plain slot may be read without a lock while another thread sets it
  Promise volatilePublishes;         // a volatile slot may be
  Promise implicitCopy;              // a class is copyable unless it says otherwise
  Promise implicitConstructor;       // a class without constructors can be made by anyone
  Promise privateClasses;            // a class can be kept to its package or file, and then nobody else makes one
  Promise constantStatics;           // what lives as long as the program has constants for its first values
  Promise noConstructors;            // no code runs while an object is made
  Promise noSubclassConstructors;    // a constructor cannot be open to subclasses alone
  Promise noSubclasses;              // a class cannot extend another
  Promise noStaticMembers;           // functions belong to objects or to packages, never to classes
  Promise failuresAreValues;         // what fails says so by what it returns
  Promise eachStaticAtFirstUse;      // what is kept for a class or file is made by itself, when it is first asked for
  Promise constructorAfterFactory;   // the constructor runs on what a factory returns, new or not
  Promise collectionsAreValues;      // a collection that is handed out as it is written is a copy
  Promise suspends;                  // a function may wait in its middle while others run
  Promise livesForOneRequest;        // all state is gone when the request has been answered
  Promise openConstructors;          // no class can keep others from making an object of it
  Promise classesMadeByCode;         // a class that stands in a function is made anew whenever that runs, with all that it keeps
  Promise collectionStepsAtomic;     // each single step on a collection of the library is whole, whatever threads do
  Promise objectsAreLocks;           // every object can be held as a lock, so that to hold one does not make it one
  Promise freedByHand;               // what is made on the heap lives until code frees it, a local until its block ends
  std::span<const KeptUntil> listeners = {};  // how listeners are entered with what lives as long as the process, and taken out again
  std::span<const std::string_view> environment = {};  // members that hold the environment, as "process::env"; to be in `calls` too
  std::span<const std::string_view> threadBodies = {};  // methods that run on the thread to which an object is handed
  std::span<const std::string_view> joins = {};  // what waits for the end of threads: a method of theirs, or a function that takes them
  std::span<const std::string_view> thisThread = {};  // calls and properties that tell which thread is running
  std::span<const std::string_view> assertsLock = {};  // calls that ask whether this thread holds a lock: their argument, or else their receiver
  std::span<const std::string_view> serialExecutors = {};  // what makes an executor or queue that runs its tasks one after the other
  std::span<const std::string_view> mainThreadTypes = {};  // a library's windows and what stands in them: their members run on the main or event thread
  std::span<const std::string_view> mainThread = {};  // names of the queue, scope or dispatcher of the main thread, by which code is handed back to it, and marks of code that runs there
  std::span<const std::string_view> beginHooks = {};  // methods that fill an object read back from storage, beside constructors
  std::span<const std::string_view> endHooks = {};  // methods by which an object is told its end, beside a destructor
  bool throwsForFaultsOnly = false;  // exceptions tell of faults in the program: nobody goes on after one
  bool classWritesAreOwn = false;    // cls.slot = … stores in the class that is asked, beside what a base keeps
  bool membersAreLists = false;      // object.list is the list itself: no property hands out a copy in its place
  std::string_view changedWalk;      // what becomes of a walk over a collection that changes meanwhile; empty: nothing
  Promise clonesByDefault;           // any object can be cloned unless its class forbids it, in `cloneHook`
  std::string_view cloneHook;
  std::string_view revivableBase;    // a class with this base can be made again from stored bytes …
  std::string_view reviveHook;       // … unless this method hands out the one that is there
  std::string_view revivalSource;
  Promise staticsAtFirstUse;         // what is kept for a class or file is made when it is first asked for, not at load
  std::string_view failedInitialiser;  // what becomes of an initialiser at load that throws
  Promise staticsDestroyedAtExit;    // objects with static lifetime have their destructor run at exit
  std::span<const NamedBits> types;  // sorted by name
  std::span<const NamedBits> calls;  // sorted by name

  std::span<const std::string_view> containerMarks = {};  // annotations by which a container makes one of a class
  std::span<const std::string_view> containerCalls = {};  // calls that register a class, their last type argument, for one instance
  std::string_view soundCreation;    // the form in which the language itself creates a shared object once
  bool byLastPart = false;           // the tables hold the last part of a library name
  std::span<const std::string_view> roots = {};  // names of the classes that every other begins with: they keep no state
  std::string_view ownNames;         // how the qualified names of the library's own classes begin; empty: not told by names

  uint32_t typeTraits(std::string_view qualified) const;
  uint32_t callTraits(std::string_view qualified) const;
  bool isRoot(std::string_view name) const;
  CollectionAct (*collectionAct)(std::string_view member) = nullptr;
};

// How things are written in a language: what the moves need.

// An owner of an object on the heap: {type} {arguments} {name}
struct Owning {
  std::string_view type, make, bare, free, import;
};

// How a function or constructor is given one more parameter, where that is not written by a Writer yet.
//   {name} {type} {field} {value} {names}: of the parameter, what is put into it, and the parameters there are
struct Handing {
  bool snake = false;                   // names are written_so
  std::string_view fieldPrefix = {};    // of every field
  std::string_view throughObject = {};  // how a constructor names a field where the bare name may mean something else
  std::string_view overload = {};       // "this({names}{value});" in a second constructor that keeps the old parameters
  std::string_view functionParameter = {};  // one that may be left out; empty: none can be written
  std::string_view functionUse = {};        // what stands there for the object then
  bool primary = false;                 // the parameters stand behind the class's name
  bool initialisers = false;            // fields are set in the constructor's initialiser list
};

// How an accessor creates its object once, soundly, and how a class that is meant
// to be one is closed. Texts as in Handing, and with
//   {slot}      the slot's name, {creation} what stood there to make the object,
//   {return}    the accessor's last statement with {once} in the slot's place
// An empty text: the language has nothing of that sort, or needs nothing.
struct Sound {
  std::string_view declaration = {};   // beside the accessor, instead of the slot
  std::string_view once = {};          // what stands for the object then
  std::string_view body = {};          // of the accessor
  std::string_view unwrap = {};        // what code writes behind the slot to say that something is in it
  std::string_view wrapped = {};       // "with {lock}:": keeps the slot and puts the body's lines behind this
  std::string_view wrapEnd = {};       // what closes that
  std::string_view lock = {};          // a declaration beside the slot that `wrapped` needs
  std::string_view import = {};        // a line the file needs for it
  std::string_view why = {};           // why this form

  std::string_view closedConstructor = {};  // {class}: for a class that declares none
  std::string_view noCopies = {};      // members that forbid copies
  std::string_view noClone = {};
  std::string_view noRevival = {};     // {value}: the access to the one that is there
  std::string_view noSubclass = {};    // a word in front of `class`

  bool createsOnce() const { return !body.empty() || !wrapped.empty(); }
  bool closes() const { return !closedConstructor.empty() || !noCopies.empty() || !noClone.empty() || !noRevival.empty() || !noSubclass.empty(); }
};

// How objects are taken out of collections, and how state is put under a lock.
// Texts as in Handing. An empty text: it is not written in the language.
struct Mending {
  // Takes {value} out of {list}; out of a set.
  std::string_view takeOut = {}, takeOutOfSet = {};
  std::string_view takeOutImport = {};
  // How a function says that it uses a file's variable, {name}; empty: it need not.
  std::string_view announce = {};
  std::string_view ending = {};        // a whole destructor: {class} {statement}; empty: none can be added that would run

  // Locks: a field of each object, one of the class, one of the file.
  std::string_view lockName = {};
  std::string_view objectLock = {}, classLock = {}, fileLock = {};  // declarations of {lock}
  std::string_view lockInConstructor = {};  // or a line in the constructor instead of a field
  std::string_view nestedLock = {};    // an object's lock that one thread may take twice; empty: `objectLock` is one already
  std::string_view lockOfObject = "{lock}", lockOfClass = "{lock}";  // how a member names it; {this}
  std::string_view guardLines = {};    // at the beginning of a body, to its end; {lock} {locktype}
  std::string_view guardWrap = {}, guardWrapEnd = {};  // or around all its lines
  std::string_view guardWord = {};     // or in front of the whole function, for its object or class
  bool guardWordBeforeType = false;    // the word stands behind the other modifiers
  std::string_view guardImport = {};
  bool takenTwice = false;             // whoever holds a lock may take it again

  bool guards() const { return !guardLines.empty() || !guardWrap.empty() || !guardWord.empty(); }
};

// How a class keeps for itself what was shared before. Texts as in Handing.
struct Settling {
  std::string_view field;              // with its first value, " = {value}"; without one that part goes
  std::string_view untypedField = {};  // where {type} is not known; empty: it must be
  std::string_view inConstructor = {};  // or a line of the constructor, which makes the field
  std::string_view newConstructor = {};  // a whole one with that line, {assign}, for a class that has none
  std::string_view use = "{field}", shadowedUse = {};  // in its members; {this}
  std::string_view staticWord = {};    // what goes from a declaration that stands in the class already; empty: it moves
  std::string_view open = {}, openElsewhere = {};  // what a constructor is from then on that was `private`; where others make it
  std::string_view local = {};         // a statement of a function that makes one for itself: {type} {name} {value}
  bool noughtOnly = false;             // a field has no first value of its own: nought, or nothing
  bool constantsOnly = false;          // of its own it has constants only: an object is made in the constructor
};

// How an interface is written, kept by a class, and named where the class was.
// Texts as in Handing, and with
//   {face} {members}        the interface, and its members, each by `member`
//   {signature} {member}    a member as the class declares it, without its body; its name
struct Facing {
  std::string_view name = "{class}Interface";
  std::string_view face = {};          // the whole of it; empty: there are none
  std::string_view member = {};        // one member, with its line end
  std::string_view untold = {};        // of a member whose signature is not all written; empty: it stays out
  std::string_view clause = {}, moreClause = {};  // in the class's head; empty: a class keeps it without saying so
  std::string_view clauseWord = {};    // what such a list begins with where there is one
  std::span<const std::string_view> dropped = {};  // words in front of and behind a member that are no part of its signature
  std::string_view overriding = {};    // a word that the class's own member needs
  std::string_view was = "{class}", is = "{face}";  // in a written type
  std::string_view import = {};        // a line the file needs for it
  std::string_view forward = {}, forwardFace = {};  // a class that is only named, and an interface
  bool importsByName = false;          // import { A } from …, from a import A: the interface is named beside the class
  std::string_view typeImport = {};    // or by a line like the class's own, with {name}
  bool publicMembers = false;          // what keeps it must be open to all
  bool ownFile = false;                // one that is open to other packages needs a file of its name
  bool noDefaults = false;             // its members give no values to parameters that are left out
  bool nullIsAnother = false;          // a missing object is another thing once it is named by its interface
  bool namedByParts = false;           // a member's name stands between its parameters
  bool objectInFront = false;          // a member's object stands in front of its name, and is no part of its signature
  bool bodyBehindColon = false;        // a member's head ends with a colon
  bool resultBehindColon = false;      // what a member gives stands there, or else is worked out from its body
  bool nothingByBrackets = false;      // but for a body in brackets, which gives nothing then
  bool nothingUnsaid = false;          // a member that gives nothing says nothing of it
  bool getters = false;                // a property has a head of its own
  bool labelsArguments = false;        // arguments are given by name
  bool widelyApart = false;            // two blank lines stand between classes
  std::string_view double_ = {}, doubleMember = {};  // a class for tests that keeps the interface
  // A class whose members hand on to those of a class that has no objects: {wrap} {return} {names}
  std::string_view wrapper = {}, wrapperMember = {};
  std::string_view makeWrapper = {};   // one of it, where it is handed in at once; else
  std::string_view wrapperAccessPoint = {};   // the accessor that it brings, which is handed in afterwards
  // Where a class is declared in one place and written in another: {members} there, and its declarations here.
  std::string_view wrapperBody = {}, wrapperDeclaration = {};
};

// How a function announces that the program starts to those who listen: {class} {name} {statement}
struct Announcing {
  std::string_view broadcaster = {};   // the whole class
  bool inClass = false;                // it stands inside the function's own class, for functions stand in classes only
  std::string_view make = {}, listen = {}, announce = {};  // statements
  std::string_view import = {}, otherImport = {};
  bool expressionsOnly = false;        // who listens is one expression
};

class HarnessWriter;
class Writer;
class WriterFiles;
struct HandedIn;

struct Language {
  std::string_view id;    // "cpp"
  std::string_view name;  // "C++"
  std::span<const std::string_view> extensions;  // with the dot, lower case
  std::span<const std::string_view> headerExtensions;  // those of files that others include
  std::span<const std::string_view> interpreters = {};  // in the first line of a script without extension, without version
  // Of an extension that several languages have: is this text one of this language's?
  bool (*claims)(std::string_view text) = nullptr;

  // How names work.
  std::string_view family = {};        // languages of one family see each other's declarations; empty: its id
  std::string_view separator = "::";   // between the parts of a qualified name, as shown
  bool dotted = false;                 // members of classes and modules are reached as members of objects are
  bool bareMembers = true;             // inside a class its members may be named without their object
  bool bareMethods = true;             // its methods too
  // Modules of test frameworks: a file that imports one, or a part of it, is there for tests.
  std::vector<std::string_view> testImports = {};
  std::string_view testFileEnding = {};  // files whose declarations are seen in such files only
  bool importsInFileOnly = false;      // what an import makes visible is visible in its own file only
  bool modulesApart = false;           // a module sees no names of the folder or package around it, but by import
  bool testFilesApart = false;         // runners of tests load the modules anew for each file of tests
  bool modulesByName = false;          // an import begins with the name of a module, which no folder bears
  bool modulesByFolder = false;        // an import may begin with the name of what the tree stands in
  bool createsByCall = false;          // an object is made by calling its class, a library's too
  bool infersTypes = false;            // types are told from what is assigned and returned
  bool marksConstants = false;         // what is not to change is declared so: what everybody can name and is not declared so is open to change

  const Guarantees* guarantees = nullptr;
  const Owning* owning = nullptr;      // null: the language frees objects itself, or no move writes owners
  std::string_view includeLine = {};   // how a file names one that it includes: {path}; empty: files are not included
  const Sound* sound = nullptr;        // null: neither steady nor seal can be written
  const Mending* mending = nullptr;    // null: neither tether nor guard can be written
  const Handing* handing = nullptr;    // null: no move can hand an object in
  const Facing* facing = nullptr;      // null: it has no interfaces
  const Settling* settling = nullptr;
  const Announcing* announcing = nullptr;

  // What all files of the tree together teach before any is lowered (for C++,
  // the macros). `texts` are all files of this language's family.
  struct TreeLore {
    virtual ~TreeLore() = default;
    // The same for the same lore, and for no other: what was lowered by it can be kept.
    virtual uint64_t fingerprint() const = 0;
  };
  std::unique_ptr<TreeLore> (*learn)(std::span<const std::string_view> texts, unsigned jobs) = nullptr;

  // How its comments are told from code; null: not without its grammar, which sees them then.
  const CommentForm* comments = nullptr;

  // Lowers one file, its comments taken out where `comments` tells how. Never fails: what cannot be read becomes Unread nodes.
  void (*lower)(std::string_view text, const TreeLore* lore, LoweredFile& out) = nullptr;

  // Its grammar, and how changes are written in it; null: by tables, not by a writer of its own.
  const TSLanguage* (*grammar)() = nullptr;
  // A text in words that the grammar knows, of the same length; null: as it is.
  std::string (*forGrammar)(std::string_view text) = nullptr;
  std::unique_ptr<Writer> (*writer)(WriterFiles& files, const HandedIn& handed) = nullptr;
  // How a program that makes a fault happen is written in it; null: not yet.
  std::unique_ptr<HarnessWriter> (*harness)(WriterFiles& files) = nullptr;

  // Parses and drops, nothing else: the floor that speed is measured against.
  void (*parseOnly)(std::string_view text) = nullptr;
};

inline std::string_view familyOf(const Language& language) { return language.family.empty() ? language.id : language.family; }

// All languages, in a fixed order.
std::span<const Language> languages();
const Language* languageById(std::string_view id);
// Which language a file is in: told from its extension and, where that is not
// enough, from its text. Null: none that is read.
const Language* languageOf(std::string_view path, std::string_view text);
// May a file of that name be in one of the languages? Of a file without an
// extension only its text can tell (`needsText`).
bool mayBeSource(std::string_view path, bool& needsText);

}  // namespace elmcart

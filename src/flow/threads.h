// Which threads run a piece of code, and which two pieces can run at the same time.
//
// A root is a place where code is handed to a thread of its own: a started thread, a task of a pool,
// a request handler. From each root, from the program's entry and from what nobody in the tree calls,
// the calls are followed; a call of a method leads to what overrides it as well. Code that is handed
// to the main thread or to an event thread, by a helper of the tree too, is no root; nor do threads come into the
// members of windows, unless a lock in their class tells that they do. Each function keeps its first two roots and the
// call by which each got there, so that the time is linear in the number of calls.
//
// Starting up: what the entry (or a file that is loaded) runs before the first thread is started on
// every way. What is only run then meets nothing. Where a function waits for the end of a thread that it
// started, what it does afterwards does not meet that thread. Tasks of an executor that runs one after the
// other do not meet each other; nor do those that are handed to the main thread, nor what two programs of the tree run.
#pragma once

#include <absl/container/flat_hash_map.h>
#include <absl/container/flat_hash_set.h>

#include <algorithm>
#include <array>
#include <mutex>
#include <span>
#include <string_view>
#include <vector>

#include "program/program.h"

namespace elmcart {

// Can two pieces of code run at the same time? Ordered: what is more certain is greater.
enum class Meeting : uint8_t {
  Never,     // one thread runs both, or one is over before the other can begin
  NotKnown,  // no thread of this tree runs them, but callers that are not in it may
  Likely,    // a thread runs one; the other is run by whoever calls it
  Certain    // two threads of this tree run them
};

class Threads {
 public:
  // Who runs a piece of code, beside threads that are started for it.
  enum class Outside : uint8_t { Nobody, StartUp, Entry, Anybody };

  struct Root {
    Place start;                  // what is handed over: a lambda, a name, an object
    Place call;                   // what hands it over
    FunctionIndex in = kNone;     // the function that does
    // Where the function around waits for the thread's end; unknown where it does not.
    Place end;
    // Is it only started by what others call back (handlers of events, commands), so that the entry has done its own work before?
    bool late = false;
    // The executor that runs its tasks one after the other, or kNone.
    VariableIndex serial = kNone;
    // Can several such threads run at once? Likely where whoever starts one may do so again, and the thread
    // is neither kept nor runs without end.
    Meeting many = Meeting::Never;
  };

  // The sides from which a piece of code is run.
  struct Side {
    std::array<uint32_t, 2> roots = {kNone, kNone};  // positions in roots(); two at most are kept
    Outside outside = Outside::Nobody;
    // Is it run by nobody but what the program or its modules do while they start up?
    bool startsUp() const { return roots[0] == kNone && outside == Outside::StartUp; }
    friend bool operator==(const Side&, const Side&) = default;
  };

  // A function, or one place in it.
  struct Piece {
    Side side;
    FunctionIndex in = kNone;
    Place place;  // unknown: all of the function
  };

  // Threads that tests start say nothing of the program: `testFile` tells which files are tests.
  Threads(const Program& program, std::vector<bool> testFile);

  const std::vector<Root>& roots() const { return roots_; }
  // The positions of those that the function starts.
  std::span<const uint32_t> rootsStartedBy(FunctionIndex function) const {
    auto found = rootsIn_.find(function);
    return found == rootsIn_.end() ? std::span<const uint32_t>() : std::span<const uint32_t>(found->second);
  }
  // The methods that a call of the function may lead to instead.
  const std::vector<FunctionIndex>& overridersOf(FunctionIndex function) const { return overriders_[function]; }
  const std::vector<std::vector<FunctionIndex>>& overriders() const { return overriders_; }
  Side sideOf(FunctionIndex function) const { return function == kNone ? Side{{kNone, kNone}, Outside::StartUp} : sides_[function]; }
  // A place inside code that is handed to a thread is run by that thread alone.
  Side sideOf(Place place, FunctionIndex in) const;
  // The same for what a method does to an object that others share: calls on a local object of the caller's do not count.
  Side sideOnShared(Place place, FunctionIndex in) const;
  // What is only run before a thread is started, or after its end was waited for, does not meet it.
  Meeting meeting(const Piece& a, const Piece& b) const;
  // Whenever a thread of that root is started, has the function been called before?
  bool calledBefore(FunctionIndex function, uint32_t root) const;
  // Is the piece only run when that thread is not, because it was not started yet or has come to its end?
  bool isApart(const Piece& piece, uint32_t root) const;

  // Is it called, on every way and before the first thread is started, while the program starts up?
  bool calledAtStartUp(FunctionIndex function) const { return primed_[function]; }
  // Are threads started in code of that file's language, are locks taken in that file?
  bool startedIn(FileIndex f) const { return std::find(startedIn_.begin(), startedIn_.end(), p_.languageOf[f]) != startedIn_.end(); }
  bool locksIn(FileIndex f) const { return locks_[f] != 0; }
  bool startsIn(FileIndex f) const { return startsThreads_[f] != 0; }
  // The calls that lead from the root to the function, the root's own first.
  std::vector<Place> wayTo(FunctionIndex function, uint32_t root) const;
  // How much of that way is guessed: one for a call that is made on a condition, one for a call that several
  // functions may answer, four for one that more than eight may, or that stands behind a question for the running thread.
  size_t guessesOnWay(FunctionIndex function, uint32_t root) const;
  // Do all calls of the function stand behind a question for the running thread, or those of its callers?
  bool isAlwaysBehindThreadTest(FunctionIndex function, int depth = 0) const;
  // Does the function, or its class, say that it belongs to the main or event thread?
  bool isOnMainThread(FunctionIndex function) const { return function != kNone && onMain_[function] != 0; }
  // The root whose code a place stands in; kNone: it stands in none; kMainThread: the code is handed to the main thread.
  static constexpr uint32_t kMainThread = kNone - 1;
  uint32_t rootAround(Place place) const;

 private:
  struct Step {
    std::array<uint32_t, 2> call = {kNone, kNone};  // parallel to the roots of its side; kNone: the root's own code
  };

  void findRoots();
  void startFrom(Place argument, Place call, FunctionIndex in, Meeting many);
  TypeIndex typeMadeAt(Place create) const;
  void startObject(TypeIndex type, Place place, Place call, FunctionIndex in, Meeting many);
  void addRoot(Place start, Place call, FunctionIndex in, Meeting many, FunctionIndex body);
  void findEnds();
  void findLate();
  Place endOf(const Root& root) const;
  std::vector<VariableIndex> keepersOf(Place call) const;
  VariableIndex serialExecutorOf(Place call) const;
  bool isSerial(VariableIndex executor, int depth) const;
  bool isSerialValue(Place value, int depth) const;
  Symbol handedOutBy(FunctionIndex function) const;
  void findRepeated();
  bool isKept(Place call) const;
  bool runsWithoutEnd(Place code) const;
  bool handsToMainThread(Place call) const;
  void handOnToMainThread(Place given, int depth);
  bool isMarkedMain(Place declared) const;
  void findOnMainThread();
  void indexOverriders();
  void indexStructuralOverriders();
  bool isPutAside(Place place);
  void followRoots();
  void findStarters();
  bool isForTests(FunctionIndex f) const;
  bool isOnLocal(const CallSite& call) const;
  void findEntries();
  void followStartUp();
  void startUpOf(FunctionIndex function, std::vector<uint32_t> calls, bool surely, std::vector<char>& walked);
  void markStartUp(uint32_t call, bool surely);
  void followOutside();
  void followPrograms();
  bool areOfTwoPrograms(FunctionIndex a, FunctionIndex b) const;
  bool isSurelyRun(Place place) const;
  std::vector<uint32_t> callsTo(FunctionIndex function, uint32_t root) const;
  bool isBehindThreadTest(Place place) const;
  bool runsAtLoad(FunctionIndex function) const;
  // The functions from which the root's thread can come to be started.
  const absl::flat_hash_set<FunctionIndex>& leadingTo(uint32_t root) const;
  // Yes: it surely calls one of the wanted before anything that leads there. NotReached: nothing in it leads there.
  enum class Order : uint8_t { NotReached, Yes, No };
  Order callsFirst(FunctionIndex function, const absl::flat_hash_set<FunctionIndex>& wanted, uint32_t root, int depth) const;
  bool entriesCallFirst(const absl::flat_hash_set<FunctionIndex>& wanted, uint32_t root) const;
  bool surelyCalledBefore(FunctionIndex in, Place place, const absl::flat_hash_set<FunctionIndex>& wanted, int depth) const;
  // Between these places of a function the thread may run; `end` unknown: from `begin` on.
  struct While {
    Place begin, end;
  };
  using Whiles = absl::flat_hash_map<FunctionIndex, While>;
  const Whiles& whilesOf(uint32_t root) const;
  void followCallers(FunctionIndex in, While span, int depth, Whiles& out) const;
  bool isApart(Place place, FunctionIndex in, const While& span) const;
  bool areAlternatives(Place a, Place b, FunctionIndex in) const;
  bool isApart(FunctionIndex function, const Whiles& whiles, uint32_t root) const;
  bool areApart(uint32_t a, uint32_t b) const;
  std::vector<uint32_t> productionCallsOf(FunctionIndex function) const;
  bool inTests(Place place) const { return testFile_[place.file]; }
  template <typename Each>
  void forEachCallee(uint32_t call, Each each) const;

  const Program& p_;
  std::vector<bool> testFile_;
  std::vector<Root> roots_;
  std::vector<std::vector<FunctionIndex>> bodies_;     // parallel to roots_: the functions it begins with
  absl::flat_hash_map<FunctionIndex, std::vector<uint32_t>> rootsIn_;  // by the function that starts them
  absl::flat_hash_map<std::pair<FileIndex, NodeId>, bool> putAside_;   // of lambdas
  std::vector<std::pair<Place, uint32_t>> lambdas_;    // code handed over where it is written, by place, with its root
  absl::flat_hash_map<std::pair<FileIndex, NodeId>, uint32_t> keptLambdas_;  // code that a variable holds and that is handed over by its name
  std::vector<std::pair<uint32_t, uint32_t>> twins_;   // roots that run the same such code
  absl::flat_hash_map<std::pair<FileIndex, NodeId>, uint32_t> startedCalls_;  // go work(): the call is the thread's own
  std::vector<Side> sides_;                            // by function
  std::vector<Step> steps_;                            // by function
  std::vector<std::vector<FunctionIndex>> overriders_; // by function
  std::vector<char> isEntry_;                          // by function: main, or a command that main hands to who reads the command line
  static constexpr uint32_t kSeveral = kNone - 1;
  std::vector<uint32_t> programs_;                     // by function: the main of the only program that runs it, kSeveral, or kNone
  std::vector<char> fromEntry_;                        // by function: do the entries or loaded files lead there?
  std::vector<char> starts_;                           // by function: does it start a thread, itself or by what it calls?
  std::vector<char> primed_;                           // by function
  std::vector<const Language*> startedIn_;
  std::vector<char> locks_;                            // by file
  std::vector<char> startsThreads_;                    // by file
  mutable std::vector<Whiles> whiles_;                 // by root, worked out when first asked for
  mutable std::vector<std::once_flag> whilesOnce_;
  mutable std::vector<absl::flat_hash_set<FunctionIndex>> leading_;  // likewise
  mutable std::vector<std::once_flag> leadingOnce_;
  std::vector<char> onMain_;                           // by function: it says that it runs on the main thread
  std::vector<char> isBody_;                           // by function: a root's own
  std::vector<uint32_t> entryCalls_;                   // calls of the entries after a thread was started
};

template <typename Each>
void Threads::forEachCallee(uint32_t call, Each each) const {
  FunctionIndex callee = p_.calls[call].callee;
  each(callee);
  for (FunctionIndex f : overriders_[callee]) each(f);
}

}  // namespace elmcart

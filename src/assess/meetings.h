// Whether two pieces of an entity's code can run at the same time, told as a check tells it.
#pragma once

#include <optional>
#include <vector>

#include "assess/assess.h"

namespace elmcart {

// The uses of a piece of state, by the threads that run them: one use is kept for each side.
class Meetings {
 public:
  struct Pair {
    Meeting meeting = Meeting::Never;
    const Use* change = nullptr;
    const Use* other = nullptr;
    Threads::Side changeSide, otherSide;
  };

  // `withReaders`: two changes do each other no harm, only who looks at it meanwhile is harmed.
  explicit Meetings(const Subject& subject, bool withReaders = false) : s_(subject), withReaders_(withReaders) {}
  // `held`: the locks around it. Two that hold the same one do not meet, nor does a thread that holds it on its way.
  void add(const Use& use, bool changes, const LockSet& held = {});
  // The one use that the changes are to meet; without it, any that was added is.
  void addOther(const Use& use);
  // A change and a use that meet most surely, at two places where that can be.
  Pair best() const;
  // Do so many conditions stand on the ways there that whoever reads them would not believe it?
  bool isFarFetched(const Pair& pair) const;
  // Where the threads of the two are started, and by which calls they get there.
  std::vector<Evidence> ways(const Pair& pair) const;

 private:
  // Of a field those calls count that may be made on the shared object.
  Threads::Side sideOf(const Use& use) const;
  // Without the threads that hold one of the locks, by a call on their way there.
  Threads::Side withoutHolders(Threads::Side side, FunctionIndex in, const LockSet& locks) const;

  struct Entry {
    const Use* use;
    Threads::Side side;
    bool changes;
    LockSet held;
  };

  const Subject& s_;
  std::vector<Entry> entries_;
  const Use* wanted_ = nullptr;
  bool withReaders_;
};

// The threads that the class of a field starts for itself.
class OwnThreads {
 public:
  OwnThreads(const Subject& subject, VariableIndex field);
  // Is the use no thread's own code, and does none of them run then: not started yet, or its end was waited for? False where there are none.
  bool areApartFrom(const Use& use) const;

 private:
  const Subject& s_;
  std::vector<uint32_t> roots_;
};

// Do the entity's class or file take locks, or keep it in a slot that is meant to be shared? Then who wrote them reckons with threads.
bool reckonsWithThreads(const Subject& s, const Entity& e);
// The same, asked of one class alone.
bool classReckonsWithThreads(const Subject& s, TypeIndex type);
// What lies between two locks, or between a look and a change, is read off the code: that is never certain.
inline Sureness atMostLikely(Sureness sureness) { return sureness == Sureness::Certain ? Sureness::Likely : sureness; }
// Nothing: the two never meet. `guarded`: a lock is taken around that very state elsewhere.
std::optional<Sureness> surenessOf(const Subject& s, const Entity& e, Meeting meeting, bool guarded = false);
// How sure it is that two threads are in these functions at once, and by which ways they get there.
// `made`: what they do first is all that matters, as when they make an object.
std::optional<Sureness> sureByThreads(const Subject& s, const Entity& e, const std::vector<FunctionIndex>& functions, std::vector<Evidence>* way, bool made = false);

}  // namespace elmcart

// Which locks are held where: lock sets of places and of functions.
#pragma once

#include <absl/container/flat_hash_map.h>
#include <absl/container/flat_hash_set.h>

#include <compare>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "program/program.h"

namespace elmcart {

// A lock as far as the text tells one from another: a variable, the object that
// a method was called on, or a class itself.
struct LockId {
  enum class Sort : uint8_t { None, Variable, Object, Class, Foreign };
  Sort sort = Sort::None;
  uint32_t index = kNone;  // of the variable, or of the class; of a foreign one the hash of its name

  bool known() const { return sort != Sort::None; }
  friend auto operator<=>(const LockId&, const LockId&) = default;
};

using LockSet = std::vector<LockId>;  // sorted, each once

LockSet inBoth(const LockSet& a, const LockSet& b);
std::string lockText(const Program& program, LockId lock);  // "mutex_", "its own object", "the class Roster"

class Locks {
 public:
  // What tests call says nothing of how the program does: `testFile` tells which files are tests, empty: none. A call of a
  // method may run what `overriders` holds for it (by function), empty: that is not asked.
  explicit Locks(const Program& program, std::vector<bool> testFile = {}, const std::vector<std::vector<FunctionIndex>>& overriders = {});

  // The locks of the guards around a place inside its function.
  LockSet around(Place place) const;
  // Those, and what every caller of a private helper holds.
  LockSet at(Place place, FunctionIndex in) const;
  // What is held whenever the function is entered. Constructors do not count as
  // callers: nobody shares the object yet. A function that asserts that a lock is held says so itself, or in its comment.
  LockSet atEntry(FunctionIndex function) const;
  // Does a signature say that its callers hold it?
  bool isRequired(VariableIndex v) const { return required_.contains(v); }
  // The locks of `a` that are in `b` too: an object's own lock is the same in its class and in the bases of that.
  LockSet heldByBoth(const LockSet& a, const LockSet& b) const;

 private:
  // By which functions it was asked for, and how often one of them called again.
  struct Path {
    std::vector<FunctionIndex> functions;
    size_t turnedBack = 0;
  };
  // Nothing: only those on the path call it.
  std::optional<LockSet> atEntry(FunctionIndex function, Path& path) const;

  void findAccessorLocks();
  std::vector<uint32_t> callsTo(FunctionIndex function) const;
  bool isLasting(VariableIndex v) const;
  bool isLock(VariableIndex v) const;
  LockId heldByComment(FunctionIndex f, const absl::flat_hash_map<std::string_view, std::vector<VariableIndex>>& named) const;

  const Program& p_;
  std::vector<bool> testFile_;
  absl::flat_hash_map<FunctionIndex, std::vector<FunctionIndex>> overridden_;
  std::map<FunctionIndex, LockSet> asserted_;
  absl::flat_hash_set<VariableIndex> required_;  // locks that signatures name
  std::map<std::pair<VariableIndex, bool>, LockSet> accessorLocks_;  // of properties; true: when it is set
  mutable std::map<std::pair<FunctionIndex, int>, std::optional<LockSet>> entry_;
};

}  // namespace elmcart

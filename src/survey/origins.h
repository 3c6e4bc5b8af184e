// Where values come from: which functions hand out a slot's instance (access points)
// and which locals and fields keep it (aliases).
#pragma once

#include <vector>

#include "program/program.h"

namespace elmcart {

class Origins {
 public:
  // `jobs` threads at most (0: all); the result is the same for any number.
  explicit Origins(const Program& program, unsigned jobs = 1);

  // The slot that the expression at `place` yields, or kNone.
  VariableIndex of(Place place) const;
  VariableIndex accessPointOf(FunctionIndex function) const { return accessPoint_[function]; }
  VariableIndex aliasOf(VariableIndex variable) const { return variable < alias_.size() ? alias_[variable] : kNone; }
  const std::vector<FunctionIndex>& accessPointsTo(VariableIndex slot) const;
  const std::vector<VariableIndex>& aliasesOf(VariableIndex slot) const;
  // Is the variable a member of a long-lived object that functions hand out?
  bool isServiceOfContext(VariableIndex field) const { return context_[field] != kNone; }
  // The slot of the object whose member that is; kNone: of none.
  VariableIndex keeperOf(VariableIndex field) const;
  // A return statement's value nodes, by function.
  const std::vector<Place>& returnsOf(FunctionIndex function) const { return returns_[function]; }

 private:
  using Binding = std::pair<VariableIndex, Place>;  // variable, value expression
  // What one file tells.
  struct Told {
    std::vector<std::pair<FunctionIndex, Place>> returns;
    std::vector<Binding> bindings;
    std::vector<VariableIndex> several, mixed;  // fields that are given what is no slot
  };
  Told scan(FileIndex f) const;
  // The slot that an expression yields; unknown.alias(v) and unknown.access point(f) are told
  // of what could make it another one once it is known.
  template <typename Unknown>
  VariableIndex slotOf(Place place, Unknown& unknown, int depth = 0) const;
  void findOpen(unsigned jobs);
  bool round();
  bool isStepOn(const Binding& binding) const;
  bool isPutInto(VariableIndex local, VariableIndex slot) const;
  bool findSeveral();
  void leaveOutHopeless(unsigned jobs);
  bool mayBeSlot(Place value) const;
  bool isKept(VariableIndex variable) const;
  bool keepsIdentity(FileIndex f, TypeUseId type) const;
  bool mayHandOut(FunctionIndex function) const;
  bool givesOthers(FunctionIndex function, VariableIndex slot) const;
  bool isMadeThere(Place value, int depth) const;
  bool isOwnElement(Place value) const;

  // What is to be asked again, and what waits for an alias or access point to be known. An
  // item is a position in bindings_, or behind those in open_.
  struct Waiting {
    std::vector<bool> due;                      // by item
    std::vector<std::pair<uint32_t, uint32_t>> waits;  // item, the next of those that wait for the same
    std::vector<uint32_t> forAlias, forAccessPoint;    // by variable and function: the first of them
    uint32_t item = 0;                          // the one that is asked now

    void reset(size_t items, size_t variables, size_t functions);
    void alias(VariableIndex v) { wait(forAlias[v]); }
    void accessPoint(FunctionIndex f) { wait(forAccessPoint[f]); }
    void wait(uint32_t& first);
    void wake(uint32_t& first);
  };

  const Program& p_;
  std::vector<VariableIndex> accessPoint_;     // by function
  std::vector<VariableIndex> alias_;    // by variable
  std::vector<bool> several_;           // by variable: it may keep one object or another
  std::vector<bool> walks_;             // by local: it goes from one object of a list to the next
  std::vector<bool> mixed_;             // by local: it is given something else as well
  std::vector<VariableIndex> context_;  // by field: the long-lived object it was reached through
  std::vector<std::vector<Place>> returns_;
  std::vector<FunctionIndex> open_;     // those that may hand one out
  std::vector<Binding> bindings_;
  Waiting waiting_;
  std::vector<std::vector<FunctionIndex>> accessPointsTo_;
  std::vector<std::vector<VariableIndex>> aliasesOf_;
};

}  // namespace elmcart

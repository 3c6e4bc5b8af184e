// What one piece of the linker's work adds to the program: types as used, local
// variables, calls, creations, names. Several batches may be filled at the same
// time, each by one thread: what the program had before is only read meanwhile,
// what a batch adds is numbered from there on, and merge() gives the numbers that
// hold, batch after batch, so that they never depend on which thread was quicker.
#pragma once

#include <absl/container/flat_hash_map.h>

#include <deque>

#include "program/program.h"

namespace elmcart {

class Linker;

// A list of the program's with what a batch adds behind it. Where the batch writes
// in place, both are the same list.
template <typename T>
class Extended {
 public:
  Extended(std::vector<T>& list, bool inPlace) : list_(list), own_(inPlace ? list : added_), start_(inPlace ? 0 : static_cast<uint32_t>(list.size())) {}
  Extended(const Extended&) = delete;
  Extended& operator=(const Extended&) = delete;

  T& operator[](uint32_t i) { return i < start_ ? list_[i] : own_[i - start_]; }
  const T& operator[](uint32_t i) const { return i < start_ ? list_[i] : own_[i - start_]; }
  uint32_t size() const { return start_ + static_cast<uint32_t>(own_.size()); }
  T& add(T item = {}) { return own_.emplace_back(std::move(item)); }
  void dropLast() { own_.pop_back(); }
  // The first of those that are not in the program yet.
  uint32_t start() const { return start_; }
  std::vector<T>& added() { return added_; }

 private:
  std::vector<T>& list_;
  std::vector<T> added_;
  std::vector<T>& own_;
  uint32_t start_;
};

class Batch {
 public:
  enum class Where : bool { Aside, InPlace };  // in place: one batch at a time, nothing to merge
  Batch(Linker& linker, Where where);
  Batch(const Batch&) = delete;
  Batch& operator=(const Batch&) = delete;

  // ----- reading
  const TypeUse& use(TypeUseId id) const { return typeUses[id]; }
  TypeUseId argument(const TypeUse& use, uint32_t i) const { return i < use.argumentCount ? typeArguments[use.firstArgument + i] : 0; }
  std::string_view text(NameId id) const { return id < firstName_ ? p_.names.text(id) : names_.text(id - firstName_); }

  // ----- adding
  NameId intern(std::string_view text);
  // A type as used; one that the batch has already is that one.
  TypeUseId addUse(const TypeUse& use);
  // The same with these arguments.
  TypeUseId addUse(TypeUse use, const std::vector<TypeUseId>& arguments);
  TypeUseId withModifiers(TypeUseId id, uint32_t add, uint32_t remove);
  // What a type written in a file means, seen from `scope`.
  TypeUseId writtenType(FileIndex f, NodeId typeRef, ScopeIndex scope, int depth = 0);
  // The type with the receiver's type arguments in the place of its class's type parameters.
  TypeUseId substitute(TypeUseId id, TypeUseId receiver, int depth = 0);
  // What a name means, remembered.
  Symbol lookupKnown(NameId name, ScopeIndex scope, FileIndex f, bool wantType);

  void setSymbol(Place place, Symbol symbol);
  void setType(Place place, TypeUseId type);
  // The declared type of a variable that the program has already.
  void setDeclaredType(VariableIndex variable, TypeUseId type);
  void setSignature(FunctionIndex function, TypeUseId result, std::vector<VariableIndex> parameters);
  // About so many functions or variables are to come.
  void expect(size_t pieces) { remembered_.reserve(4 * pieces); }
  // Gives back what is only needed while the batch is filled.
  void forget() {
    remembered_ = {};
    known_ = {};
  }
  // A class, or an object of it, that serves as its own lock at `lock`.
  void addMonitor(Place lock, TypeIndex type, bool ofClass);

  Extended<Variable> variables;
  Extended<TypeUse> typeUses;
  Extended<TypeUseId> typeArguments;

 private:
  friend void merge(Linker& linker, std::deque<Batch>& batches, unsigned jobs);
  struct Monitor {
    Place lock;
    TypeIndex type;
    bool ofClass;
  };
  // What is added to a number of the batch's own to make it the program's.
  struct Shifts {
    uint32_t variables = 0, typeUses = 0, typeArguments = 0, calls = 0, foreignCalls = 0, creations = 0;
    std::vector<NameId> names;
  };
  VariableIndex shifted(VariableIndex v) const { return v < variables.start() || v == kNone ? v : v + shifts_.variables; }
  TypeUseId shiftedType(TypeUseId t) const { return t < typeUses.start() ? t : t + shifts_.typeUses; }
  NameId shiftedName(NameId n) const { return n < firstName_ ? n : shifts_.names[n - firstName_]; }
  bool isAdded(Symbol symbol) const { return symbol.is(Symbol::Sort::Variable) && symbol.index() >= variables.start(); }
  void moveOver();

  Linker& k_;
  Program& p_;
  bool inPlace_;
  NameId firstName_;
  NameTable names_;
  absl::flat_hash_map<uint64_t, Symbol> remembered_;
  absl::flat_hash_map<TypeUse, TypeUseId> known_;
  std::vector<CallSite> ownCalls_;
  std::vector<ForeignCall> ownForeignCalls_;
  std::vector<Creation> ownCreations_;
  std::vector<Monitor> monitors_;
  std::vector<Place> symbols_, types_;  // nodes that were given a number of the batch's
  std::vector<VariableIndex> declared_;
  std::vector<FunctionIndex> signatures_;
  Shifts shifts_;

 public:
  std::vector<CallSite>& calls;
  std::vector<ForeignCall>& foreignCalls;
  std::vector<Creation>& creations;
};

// Brings what the batches hold into the program, in their order, and empties them.
void merge(Linker& linker, std::deque<Batch>& batches, unsigned jobs);

}  // namespace elmcart

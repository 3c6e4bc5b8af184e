// Which objects stay as they were made.
#pragma once

#include <map>
#include <set>
#include <string>
#include <tuple>

#include "program/program.h"

namespace elmcart {

class Constancy {
 public:
  explicit Constancy(const Program& program) : p_(program) {}

  // A field that may change though the object is constant (C++ `mutable`)?
  bool hasMutableField(TypeIndex type) const;
  // Does an object of the class hold anything that is not declared constant?
  bool holdsState(TypeIndex type) const;
  // Does any field of the class change after construction, anywhere in the tree?
  // Asked for objects that the language looks after: nobody writes them but
  // through their fields. A plain value that an object works out from itself and
  // remembers is no change. `exact`: of that class, and of none derived from it.
  bool changesLater(TypeIndex type, bool exact = false) const { return changesLater(type, exact, type, 0); }
  // The same of its own fields alone, not those of its bases.
  bool changesItself(TypeIndex type) const;
  // May the object, one of class `made`, be changed by a call of that method on it?
  bool changesByCalling(FunctionIndex method, TypeIndex made) const;
  // The class of the object that the variable's initialiser makes; kNone where
  // it is set elsewhere, or nothing told.
  TypeIndex madeFor(VariableIndex v) const;
  // The class of all that a variable is given which holds nothing at first, or kNone.
  TypeIndex madeLaterFor(VariableIndex v) const;
  // Is its initialiser a function, or nothing?
  bool holdsFunction(VariableIndex v) const;
  bool holdsNothing(VariableIndex v) const;
  bool holdsNoElement(VariableIndex v) const;
  // Why the slot is but a reference to state that another part keeps; empty when it is not.
  std::string lookedUp(VariableIndex v) const;

  // Is the object, one of class `made`, but looked at by that use of what holds it: read, asked what changes nothing, or
  // handed to a function that does no more?
  bool looksOnly(const Use& use, TypeIndex made, int depth = 0) const;
  // Does an expression name the variable, or (where asked) a local that was read from it?
  bool names(Place expression, VariableIndex variable, bool locals) const;
  // Is the write made behind a test of the field, in its function or in all that call it?
  bool testsFirst(const Use& write, VariableIndex field) const;
  // The value that its definition gives it; kNoNode: none.
  NodeId initialiserOf(VariableIndex v) const;

 private:
  // `of`: the class whose objects are asked for, where `type` is a base of it.
  bool changesLater(TypeIndex type, bool exact, TypeIndex of, int depth) const;
  bool fieldChanges(VariableIndex field, TypeIndex type, TypeIndex of, int depth) const;
  bool calledOnlyWhileLoading(FunctionIndex method, int depth) const;
  bool mayBeCalledOn(FunctionIndex method, TypeIndex type) const;
  bool changesByClosures(TypeIndex type) const;
  bool constructs(FunctionIndex in, TypeIndex type, int depth = 0) const;
  bool constructs(const Use& use, TypeIndex type) const;
  bool changesByCalling(FunctionIndex method, TypeIndex made, std::set<FunctionIndex>& seen) const;
  FunctionIndex bodyIn(FunctionIndex method, TypeIndex made) const;
  bool onlyLookedAt(VariableIndex v, TypeIndex made, int depth) const;
  bool givesItself(FunctionIndex function) const;
  bool isRemembered(VariableIndex field, TypeIndex type) const;
  bool testsFirst(Place place, VariableIndex field) const;
  bool isFilledWith(VariableIndex field, Place test) const;
  TypeIndex madeBy(Place expression, int depth) const;
  TypeIndex returnedBy(FunctionIndex function, int depth) const;

  const Program& p_;
  mutable std::map<std::tuple<TypeIndex, bool, TypeIndex>, bool> changes_;
  mutable std::map<TypeIndex, bool> changesItself_;
  mutable std::map<std::pair<FunctionIndex, TypeIndex>, bool> constructs_;
};

}  // namespace elmcart

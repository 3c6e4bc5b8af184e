// What the move "inject" reads off the program in languages with values and references: how the object is named where
// it is handed in, which class or function takes it by now, and what an access stands in.
#pragma once

#include <set>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

// A class (and no function), or a function outside of classes or a static one (and no class).
using UnitKey = std::pair<TypeIndex, FunctionIndex>;

class InjectReading {
 protected:
  InjectReading(const Analysis& analysis, size_t entity);
  ~InjectReading() = default;

  // The declaration that a default belongs to: what callers see, not the one whose file's name comes first.
  static constexpr int kNoRank = 3;
  Place firstDeclaration(const Function& fn) const;
  bool resultIsPointer() const;
  bool resultIsConst() const;
  // "BerthBook" inside its own namespace and where a using declaration names it, "office::BerthBook" elsewhere.
  std::string nameIn(ScopeIndex scope, Place at, NameId qualified, ScopeIndex parent) const;
  // Stands a using declaration for it, or for its namespace, above the place?
  bool isNamedShort(Place at, std::string_view qualified) const;
  // `unit`: the class or function that takes it.
  std::string typeName(ScopeIndex scope, Place at, UnitKey unit) const;
  std::string accessText(ScopeIndex scope, Place at) const;
  // berthBook for BerthBook, or berth_book, as the tree writes its variables; with another beginning when it already uses
  // that name for something else.
  std::string chooseName() const;
  bool isTaken(const std::string& name) const;
  // Do the variables of functions have names of several words with underscores between them, rather than capitals?
  bool writesUnderscores() const;
  // The name in one function: another where it calls a pointer to the object so.
  std::string nameInside(FunctionIndex f) const;
  // The way this class names its fields: name_, m_name or name.
  std::string fieldName(TypeIndex type) const;
  VariableIndex holderOf(TypeIndex type) const;
  // Objects that are assigned hold it by a pointer: gauge_(&gauge), of what the constructor is handed.
  bool isSetFromParameter(TypeIndex type, VariableIndex field) const;
  // What a field is called where the object itself is meant.
  std::string objectIn(const std::string& field, bool byPointer) const;
  bool byPointer(VariableIndex holder) const;
  // The position of the parameter that takes the shared object, or -1.
  int injectedParameter(FunctionIndex f) const;
  Place parameterNode(Place declaration, size_t index) const;
  Place defaultOf(FunctionIndex f, size_t index) const;
  bool copiesOrMoves(FunctionIndex f) const;
  std::vector<FunctionIndex> constructorsOf(TypeIndex type) const;
  bool isInjected(TypeIndex type) const;
  // Nobody in the tree makes it, and it derives from a class that is not in the
  // tree: a framework (a test runner) does.
  bool isFrameworkMade(TypeIndex type) const;
  bool isComposing(FunctionIndex f) const;
  bool isDefaultArgument(Place place) const;
  // The accessor call, or the `*` before it.
  Place wholeAccess(Place call) const;
  // `Book& book = Book::get();` as a local or field of a composing place.
  bool isHolding(Place call) const;
  bool holdsConstant(TypeIndex type) const;
  // Is the object only asked there what does not change it ([dcl.type.cv])?
  bool looksOnly(Place call) const;

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  std::set<FunctionIndex> accessPointFunctions_;
  std::set<UnitKey> constant_;  // those that take the object as one that may not be changed
  FunctionIndex accessPoint_ = kNone;
  TypeIndex made_ = kNone;
  std::string objectName_;
};

}  // namespace elmcart

// What the moves share that hand an object in by changes: the object with its name and its accesses, the classes that
// take it by now, what an earlier step left as the way of those who hand nothing in, and steps that are made of changes.
#pragma once

#include <algorithm>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <tuple>

#include "languages/writer.h"
#include "rework/access.h"
#include "rework/given.h"
#include "rework/moves/surroundings.h"
#include "rework/step.h"

namespace elmcart {

class HandingPlan {
 protected:
  // `given`: what is handed in though it is no shared state; null: the entity's object.
  HandingPlan(const Analysis& a, const Entity& entity, const Given* given, PlanMemory& memory);

  Place placeOf(Spot spot) const { return around_.placeOf(spot); }
  Spot spot(Place place) const { return place.known() ? Spot{&p_.files[place.file], place.node} : Spot{}; }
  bool inTests(Place place) const { return a_.config.tests.match(p_.path(place)); }
  bool sameLanguage(Place place) const { return p_.language(place.file).writer == p_.language(e_.place.file).writer; }

  // One line for several places of one function with the same reason.
  void leave(Place place, std::string reason, bool left, bool blocks);

  Place accessAt(const Consumer& c) const { return given_ ? c.place : accessOf(p_, e_, c.place); }

  // Is it one of the functions by which the object is reached?
  bool isAccessPoint(FunctionIndex f) const {
    return std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& a) { return a.function == f; });
  }

  // Can it be called from everywhere, and not only of an object of some class?
  bool isFreeOrStatic(FunctionIndex f) const { return p_.functions[f].owner == kNone || (p_.functions[f].modifiers & kStatic); }

  // ----- the object and its name

  // The class that people are given an object of: its own, or the one as which it is handed out.
  TypeIndex declaredClass() const;
  bool isOwn(TypeIndex type) const { return type == e_.type || type == object_; }
  void describe();

  // Does anything put another object into the slot, once it is filled?
  bool isReplaced() const;

  // The name that what fetches the object begins with: a variable's, or a function's that is called.
  static std::string_view headOf(Spot access);
  // Does a class that uses the object mean something else by that name?
  bool isTaken(const std::string& word) const;

  // ----- classes

  template <typename Visit>
  void eachOfLineage(TypeIndex type, Visit visit) const {
    std::vector<TypeIndex> open{type};
    for (size_t i = 0; i < open.size() && i < 64; ++i) {
      visit(open[i]);
      for (const Base& base : p_.types[open[i]].bases)
        if (base.type != kNone && std::find(open.begin(), open.end(), base.type) == open.end()) open.push_back(base.type);
    }
  }

  // Its constructors, without those that only copy an object where the language does that itself.
  std::vector<FunctionIndex> makersOf(TypeIndex type) const;
  bool copies(FunctionIndex constructor) const;
  // The field in which a class holds the object by now, in whatever way it came to it; kNone: in none.
  VariableIndex heldIn(TypeIndex type) const;
  bool isSetFromObject(TypeIndex type, VariableIndex field) const;
  // The classes of which an object is assigned to as a whole.
  std::set<TypeIndex> assignedTypes() const;
  const ClassFacts& factsOf(TypeIndex type);

  // Is it named somewhere as a value, which is there without anybody making it?
  bool existsUnmade(TypeIndex type) const;

  // A file may mark its fields, and another not.
  bool isOurField(std::string_view name) const { return name == writer_->fieldFor(handed_.word) || Writer::isFieldNamed(name, handed_.word); }
  bool keeps(TypeIndex type) const;
  // The field of a base class that keeps it; kNone: none does.
  VariableIndex keptInBase(TypeIndex type) const;
  // Does a constructor of its base take the object?
  bool takesByBase(TypeIndex type) const;
  // The position of the parameter that takes the object, or -1.
  int takes(FunctionIndex f) const;
  // The same for one that hands on to its base's whatever it is given by name.
  bool accepts(FunctionIndex f) const;
  Spot calledBy(const Creation& c) const { return c.constructor == kNone ? Spot{} : spot(p_.functions[c.constructor].home()); }
  uint32_t positionIn(FunctionIndex f) const;
  // Does a function of no object take it, by a parameter?
  bool takesAsFunction(FunctionIndex f) const;
  // Why a function of no object cannot be given a parameter for it; empty: it can, as far as the program tells.
  std::string whyNotInFunction(FunctionIndex f, const std::vector<Place>& accesses);
  // Is it named elsewhere than where it is called: given to somebody who calls it with what it takes today?
  bool isGivenAway(FunctionIndex f);
  // Is the object handed in at a creation or call by now, as a parameter or as the field that holds it?
  bool isGiven(Place call);
  // Is nothing asked there that changes the object?
  bool looksOnly(Place access) const;
  // A local of a function that is what was fetched, and never anything else.
  bool isSteady(VariableIndex local) const;
  bool isTaker(TypeIndex type) const;
  bool hasFallback(FunctionIndex constructor) const;

  // `book if given is None else given`, `given ?? book`, `if (given == null) given = book`: it is fetched for those who hand
  // nothing in, where `given` is a parameter or the field that keeps it.
  bool isFallback(Place access) const;
  // Is it reached through what a class was handed, or else fetched?
  bool holdsFallback(Place place) const;

  // What a step put into a class hands the object out too, and is no accessor of it.
  bool isReader(FunctionIndex f) const { return p_.functions[f].owner != kNone && p_.functions[f].owner != e_.type && !p_.functions[f].isStaticMember() && memory_.takers.contains(p_.text(p_.types[p_.functions[f].owner].qualified)); }
  // What the object is called where it was handed in.
  bool isHandedVariable(const Variable& v) const;
  // The same by a member that chooses, or by what keeps it.
  bool asksReader(Place place) const;

  // What a constructor that is called as before hands on to the one that takes the object.
  bool isDefault(Place access) const;

  // Why nothing can be handed to objects of that class by those who make them; empty: it can.
  std::string whyNotMadeHere(TypeIndex type);

  // Is nothing done with what is fetched?
  bool isUnused(Place access) const { return p_.node(p_.parent(access)).kind == Kind::ExpressionStatement || p_.node(p_.parent(access)).kind == Kind::Block; }
  bool isAssigned(Place access) const { return p_.node(access).role == Role::Target && p_.node(p_.parent(access)).kind == Kind::Assign; }
  // Base classes first, then as the text stands.
  std::tuple<size_t, std::string, uint32_t> orderOf(TypeIndex type) const;

  // ----- steps

  // Takes the step if all of its changes can be written. A text: why not.
  std::string take(Step step, const std::vector<Change>& changes, std::initializer_list<TypeIndex> takers);
  Step stepOf(StepKind kind, TypeIndex type, std::string what) const;
  Spot around(Place access) const;

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  const Given* given_;
  PlanMemory& memory_;
  ProgramAround around_;
  WriterFiles files_;
  HandedIn handed_;
  std::string shown_;  // what people are told that is handed in
  std::unique_ptr<Writer> writer_;
  TypeIndex object_ = kNone;
  std::map<TypeIndex, ClassFacts> facts_;
  std::optional<std::set<TypeIndex>> assigned_;
  std::set<FunctionIndex> givenAway_;
  bool lookedAtAll_ = false;
  std::vector<FunctionIndex> functionAround_;  // of each place in out_.byHand
  NextStep out_;
};

}  // namespace elmcart

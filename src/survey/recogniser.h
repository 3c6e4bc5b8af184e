// Recognises shared state by what the code does: one slot and its surroundings at a time.
// The work is spread over files by what is found out: slots and holders, creation, kind,
// consumers and state. Only the survey uses it.
#pragma once

#include <algorithm>
#include <map>
#include <memory>
#include <set>
#include <span>
#include <string>
#include <vector>

#include "base/text.h"
#include "survey/harmless.h"
#include "survey/locks.h"
#include "survey/survey.h"

namespace elmcart {

class Recogniser {
 public:
  Recogniser(const Program& program, const Origins& origins, const Globs& tests) : p_(program), o_(origins), harmless_(program, origins), locks_(program) {
    auto inTests = std::make_shared<std::vector<bool>>();
    for (const LoweredFile& file : program.files) inTests->push_back(tests.match(file.path));
    inTests_ = std::move(inTests);
    findParts();
    indexStaticHolders();
    indexFileHolders();
  }
  Survey run(unsigned jobs);
 private:

  // ----- which variables are slots at all: recognise_slots.cpp
  void findParts();
  bool isSlot(VariableIndex v) const;
  bool isDefaultOfField(VariableIndex v) const;
  bool isOfPassingClass(TypeIndex type) const;
  // The class of the object that it keeps; an array of such objects is none of them.
  // Where the declared type is none of the tree, the class that is made for it.
  TypeIndex classOf(VariableIndex v) const;
  uint32_t traitsOf(VariableIndex v) const { return p_.traits(p_.variables[v].home().file, p_.variables[v].type); }
  bool isMutableState(VariableIndex v) const { return harmless_.reason(v, classOf(v)).empty(); }

  // ----- static holders: recognise_slots.cpp
  bool hasOwnBase(TypeIndex type) const;
  bool keepsOneLibraryObject(const TypeDecl& decl);
  bool isPluggedIn(VariableIndex v) const;
  bool asksPlatformForObject(Place call, int depth = 0) const;
  void indexStaticHolders();
  // A class of class-level functions alone, whose state stands in variables of
  // its file: those that no other function touches.
  void indexFileHolders();
  Entity staticHolder(TypeIndex t);
  void describeHolderCreation(Entity& entity);
  std::set<FunctionIndex> functionsThatReach(TypeIndex t, const std::vector<VariableIndex>& slots) const;

  // ----- one slot: recognise_slots.cpp
  struct OfSlot {
    std::vector<Entity> entities;
    bool bearsClassName = false;
  };
  // The class of static members alone, or with its file's variables, that keeps the slot; kNone for one that stands for itself.
  TypeIndex holderOf(VariableIndex v) const;
  void nameBySlot(Entity& entity) const;
  OfSlot ofSlot(VariableIndex v);
  // What a module hands out as its only thing is called by the module's name.
  std::string ownName(const Variable& variable) const;
  void finish(Entity& entity);
  // template <class T> struct Base { static T& instance() { static T slot; … } };
  bool isTypeParameterSlot(VariableIndex v) const;
  std::vector<Entity> templateSlot(const Entity& base);
  FunctionIndex defaultConstructor(TypeIndex t) const;

  // ----- access points: recognise_slots.cpp
  void findAccessPoints(Entity& entity);
  bool returnsElement(Place place, FunctionIndex function) const;
  // Functions that look an instance up in a keyed table are its access points.
  void findLookups(Entity& entity);

  // ----- creation and its guard: recognise_creation.cpp
  bool testsSlot(Place test, VariableIndex v) const;
  // The test of the slot that decides whether `place` runs: an if around it, or
  // an earlier `if (slot) return …;` in a block around it.
  void findTests(Entity& entity, Place place) const;
  // The class made by the value of an assignment, and where.
  bool readCreation(Place value, CreationFacts& facts, int depth = 0) const;
  void findCreation(Entity& entity);
  // Does it hold nothing at first?
  bool startsEmpty(VariableIndex v) const;
  bool startsFalse(VariableIndex v) const;
  bool createdForSetter(const Use& site, CreationFacts& out) const;
  bool isUnset(VariableIndex v) const;
  // Is what is assigned worked out there, and not handed over by others?
  bool isWorkedOut(Place value) const;
  // By its definition; false: it is not made there.
  bool createdByDefinition(Entity& entity, bool byValue);
  // By an assignment: the lazy one, or the first.
  bool createdByAssignment(Entity& entity);
  // The object enters itself in the slot when it is made: by the one place that makes it.
  bool createdByItself(Entity& entity) const;
  // A member of an object that is made on demand is made with it.
  void createdWithKeeper(Entity& entity);
  // A class inside the class, for its instance alone: loaded when the instance is asked for.
  bool isNestedHolder(const Variable& slot, TypeIndex type) const;
  // The class and all that derive from it.
  std::vector<TypeIndex> familyOf(TypeIndex type) const;
  // slot = new T;  slot.reset(new T);  slot.store(new T);  slot.emplace(…)
  bool creationAt(const Use& site, CreationFacts& out) const;
  // What a function that is called where it stands, or an object whose only method is run at once, gives back.
  bool readReturned(Place code, CreationFacts& facts) const;
  bool readLocal(Place value, CreationFacts& facts) const;
  Place onceOfLambda(Place place) const;
  void decideGuard(Entity& entity, const Use& site);

  // ----- kind: recognise_kind.cpp
  EntityKind decideKind(const Entity& entity) const;
  // Does the class (or what it is nested with) make others too, for other places?
  // Then it is a class of values, of which this is one that is kept.
  bool makesMore(const Entity& entity) const;
  // A keyed table whose values are objects that do something.
  bool isInstanceTable(VariableIndex v) const;
  bool keepsInstancesByKey(VariableIndex v) const;
  bool isFoundByKey(VariableIndex v) const;
  bool returnsAsked(VariableIndex walked, FunctionIndex in, Place loop) const;
  // Are these fields a table of instances, and beside it locks and lists of what is in it alone?
  bool filesInstances(const std::vector<VariableIndex>& fields) const;
  // Those of an object: the class's own and its bases'.
  std::vector<VariableIndex> fieldsOf(TypeIndex type) const;
  bool isUntold(TypeUseId type) const;
  bool isClassOfClasses(TypeIndex type) const;
  bool isAskedAsObject(VariableIndex v) const;
  bool isGivenOnce(VariableIndex field) const;
  bool isLibraryObject(const Entity& entity) const;
  bool isReadyInstance(const Entity& entity) const;
  bool isHandedOutInPart(VariableIndex v) const;
  bool isHandedASuccessor(VariableIndex v) const;
  bool isOnlyOne(const Entity& entity) const;
  bool isReachedBeside(const Entity& entity) const;
  bool isOneOfOthers(const Entity& entity) const;
  bool isOneOfASeries(const Entity& entity) const;
  bool isGivenFunction(VariableIndex field) const;
  // Does the class do something, or is it a plain record?
  bool behaves(TypeIndex type) const;
  // Assigned from a parameter or another variable, not from a creation.
  bool isSetFromOutside(VariableIndex v) const;
  // Filled from the type's own constructor: slot = this.
  bool isSetToThis(VariableIndex v) const;
  // Does a constructor assign a value of that kind of node to it?
  bool isSetByConstructor(VariableIndex v, Kind to) const;

  // ----- consumers: recognise_consumers.cpp
  bool isOwn(const Entity& entity, FunctionIndex in) const;
  void addUseConsumer(Entity& entity, const Use& use);
  // What is done with the entity's value at `place`: which member is used?
  void fillMember(Consumer& consumer) const;
  void addReach(Entity& entity, Place place, FunctionIndex in, VariableIndex inInitialiserOf, uint32_t accessPoint);
  void findConsumers(Entity& entity);
  void addCallersOfOwnFunctions(Entity& entity);
  void sortConsumers(Entity& entity) const;

  // ----- state, enforcement, end: recognise_consumers.cpp
  bool isReplaced(const Entity& entity) const;
  void findState(Entity& entity);
  // The lock that is held wherever a field is touched after construction.
  void fillLocks(Entity& entity);
  void findEnforcement(Entity& entity);
  bool hasProtectedConstructor(TypeIndex type) const;
  void findEnd(Entity& entity);
  bool isInTests(Place place) const { return (*inTests_)[place.file]; }
  // Ids may be the same in two languages.
  static std::string idKey(const Entity& entity) { return entity.language + " " + entity.id; }
  const Program& p_;
  const Origins& o_;
  std::shared_ptr<const std::vector<bool>> inTests_;  // by file
  std::set<FileIndex> parts_;  // included in the middle of a class
  std::set<TypeIndex> staticHolders_;
  std::map<VariableIndex, TypeIndex> holderOfFileVariable_;
  std::map<TypeIndex, std::vector<VariableIndex>> fileState_;  // of such classes
  Harmless harmless_;
  std::map<VariableIndex, LockId> lockOfField_;
  Locks locks_;
};

}  // namespace elmcart

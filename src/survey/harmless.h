// Which slots are no shared state that can do harm, and why.
#pragma once

#include <string>

#include "survey/constancy.h"
#include "survey/origins.h"

namespace elmcart {

class Harmless {
 public:
  Harmless(const Program& program, const Origins& origins) : p_(program), o_(origins), constancy_(program) {}

  // Empty when the slot, which keeps an object of class `type` (kNone: of none of
  // the tree), is real shared state; else why it is harmless.
  std::string reason(VariableIndex v, TypeIndex type) const;
  // The class that its definition makes an object of; kNone: none of the tree.
  // A class of the tree that locks and unlocks.
  TypeIndex madeFor(VariableIndex v) const { return constancy_.madeFor(v); }
  TypeIndex madeLaterFor(VariableIndex v) const { return constancy_.madeLaterFor(v); }

  // Is it written there by its own module or class, while that is loaded or under a once flag?
  bool setsAtStart(const Use& use) const;
  // Is it the code of a module, or of a class, that runs while that is loaded?
  bool isLoadingCode(FunctionIndex in) const;
  // The same, or a private helper that only such code of its own file calls.
  bool runsWhileLoading(FunctionIndex in, Place place) const { return isLoadingCode(in) || runsAtLoad(in, place, 0); }

  // Under a once flag, itself or the function that it stands in.
  bool runsOnce(FunctionIndex in, Place place) const;

 private:
  bool onlyReadAfterCreation(VariableIndex v) const;
  bool isReadOnlyCall(const Use& use) const;
  // In code that runs while a class or file is loaded.
  bool inInitialiser(const Use& use) const;
  bool runsAtLoad(FunctionIndex in, Place place, int depth) const;
  bool isOpenToChange(VariableIndex v) const;
  bool isCopied(VariableIndex v) const;
  // One of two or more constants of their own class, each made of literals, whose class changes nothing of them?
  bool isNamedValue(VariableIndex v, TypeIndex type) const;
  std::string servesOthers(VariableIndex v, TypeIndex type, uint32_t traits) const;
  bool isKeyByAddress(VariableIndex v) const;
  bool isPlainValue(VariableIndex v) const;
  bool isRecordOfData(VariableIndex v, TypeIndex type) const;
  std::string workedOutOnce(VariableIndex v, TypeIndex type) const;
  Place decidingTest(Place place) const;
  bool asksFor(Place test, VariableIndex v) const;
  bool isMadeOfConstants(VariableIndex v) const;
  bool isFromConstants(Place expression, bool object, Place branch) const;
  bool isDescriptor(TypeIndex type) const;
  bool standsForFields(VariableIndex v) const;
  bool isDefaultOfFields(VariableIndex v) const;
  bool namesLibraryObject(VariableIndex v) const;
  bool mayThrowWhenMade(TypeIndex type) const;
  bool staysAsMade(VariableIndex v, TypeIndex type) const;
  bool isMadeOfNothing(VariableIndex v, TypeIndex made) const;
  bool isKeptBy(Place call, NodeId argument) const;
  bool isPutTogetherAtLoad(VariableIndex v) const;
  bool holdsModule(VariableIndex v) const;
  bool isOneOfManyValues(VariableIndex v, TypeIndex type) const;
  bool isHandedOutAsConstant(VariableIndex v) const;
  bool isOfItsScript(VariableIndex v) const;
  bool keepsToItself(Place expression) const;
  bool readBelow(VariableIndex v, FunctionIndex in) const;
  bool isScratch(VariableIndex v) const;
  // Set once: by its definition, or while its class or file is loaded.
  bool setOnlyAtStart(VariableIndex v) const;
  // Is what the slot refers to changed by anybody, as far as its own uses tell?
  bool changedThrough(VariableIndex v) const;
  bool isToldToChange(VariableIndex v) const;
  bool isToldThere(Place object) const;
  bool changedByOthers(VariableIndex v) const;
  // Is all that is done to the object, once its class or file is loaded, to call
  // methods that do not change it?
  bool onlyAsked(VariableIndex v, TypeIndex made) const;
  bool hasConstructor(TypeIndex type) const;
  // A struct of data without behaviour.
  bool isPlainData(TypeIndex type) const;
  // Does its address get away, so that somebody may write through it?
  bool escapes(VariableIndex v) const;

  const Program& p_;
  const Origins& o_;
  Constancy constancy_;
};

}  // namespace elmcart

// What is to be done so that an object is handed over, in languages whose objects are handed by reference: which class, function or file
// changes next, and what it must do with the object.
#pragma once

#include <set>
#include <string>
#include <tuple>
#include <utility>
#include <vector>

#include "rework/access.h"
#include "rework/given.h"
#include "rework/source_scan.h"
#include "rework/step.h"

namespace elmcart {

// What one of them must do with the object.
struct HandOverTask {
  TypeIndex type = kNone;          // a class, or …
  FunctionIndex function = kNone;  // … a function where the program is put together, or …
  FileIndex file = kNone;          // … a file's own code, that does so
  std::vector<Place> accesses;     // to be replaced
  std::vector<Place> passes;       // creations that must hand the object in
  std::vector<std::pair<VariableIndex, Place>> firstValues;  // accesses in fields' first values: the constructor sets those from then on
  Place first() const { return !accesses.empty() ? accesses.front() : !firstValues.empty() ? firstValues.front().second : passes.front(); }
  bool uses() const { return !accesses.empty() || !firstValues.empty(); }
};

class HandOverWork {
 protected:
  HandOverWork(const Analysis& analysis, const Entity& entity, const Given* given, PlanMemory& memory)
      // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
      : a_(analysis), p_(analysis.program), e_(entity), given_(given), memory_(memory), scan_(analysis.program), h_(p_.language(e_.place.file).handing) {
    made_ = e_.type;
    if (made_ != kNone && h_) name_ = chooseName();
  }
  ~HandOverWork() = default;

  // ----- small readings

  std::string at(Place place) const { return p_.path(place) + ":" + std::to_string(p_.line(place)); }
  void byHand(Place place, std::string reason, bool blocks = true);
  bool inTests(Place place) const { return a_.config.tests.match(p_.path(place)); }
  bool returnsIt(FunctionIndex f) const { return givesShared(p_, e_, f); }
  bool sameLanguage(Place place) const { return p_.language(place.file).handing == h_; }

  // tideTable or tide_table for TideTable; another when the tree uses that name for something else.
  std::string chooseName() const;
  std::string fieldName() const { return std::string(h_->fieldPrefix) + name_; }

  // The position of the parameter that takes the object, or -1.
  int takes(FunctionIndex f) const;
  bool isInjected(TypeIndex type) const;

  // ----- what there is to do

  HandOverTask& workFor(TypeIndex type, FunctionIndex function, FileIndex file = kNone);

  Place accessOf(Place place) const { return given_ ? place : elmcart::accessOf(p_, e_, place); }

  void collect();

  // if observer is None: observer = publisher, observer ?? publisher: it is taken already, and
  // fetched for those who hand nothing in.
  bool standsInForParameter(Place access, FunctionIndex constructor) const;

  // Why a field's first value cannot be set by the constructor instead; "" it can.
  std::string whyNotInConstructor(VariableIndex field) const;

  // Is it given to an object that takes it, where that is made?
  bool isHandedIn(Place access) const;

  // Does the creation hand the object in already?
  bool isGiven(const Creation& creation);

  // The constructor that would take the object at this creation; kNone when none does.
  FunctionIndex targetOf(const Creation& creation) const;

  // May the file name the shared object's accessor: does it do so already, or is nothing needed for it?
  bool mayName(FileIndex f) const;

  std::tuple<int, size_t, std::string, uint32_t> rank(const HandOverTask& w) const;

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  const Given* given_ = nullptr;
  PlanMemory& memory_;
  SourceScan scan_;
  const Handing* h_ = nullptr;
  TypeIndex made_ = kNone;
  std::string name_;
  std::vector<HandOverTask> work_;
  std::vector<ByHand> byHand_;
};

}  // namespace elmcart

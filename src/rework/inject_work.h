// What the move "inject" has to do, step by step: which class or function changes next, and what it must do with the object.
#pragma once

#include <optional>
#include <set>
#include <string>
#include <tuple>
#include <utility>
#include <vector>

#include "rework/inject_reading.h"
#include "rework/source_scan.h"
#include "rework/step.h"

namespace elmcart {

// What a class or function must do with the shared object in this step.
struct InjectTask {
  TypeIndex type = kNone;          // a class, or …
  FunctionIndex function = kNone;  // … a function outside classes (or a static one)
  std::vector<Place> accesses;     // accessor calls to replace
  struct Pass {                    // a creation or call that must hand the object in
    FunctionIndex callee = kNone;  // constructor or function
    Place place;
    VariableIndex field = kNone;   // an implicitly made field …
    TypeIndex base = kNone;        // … or base, of the constructor `in`
    FunctionIndex in = kNone;
  };
  std::vector<Pass> passes;
  bool composing = false;
};

class InjectWork : protected InjectReading {
 protected:
  InjectWork(const Analysis& analysis, size_t entity, PlanMemory& memory)
      // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
      : InjectReading(analysis, entity), memory_(memory), scan_(analysis.program) {}
  ~InjectWork() = default;

  // ----- small readings

  std::string at(Place place) const { return p_.path(place) + ":" + std::to_string(p_.line(place)); }
  void byHand(Place place, std::string reason, bool blocks = true);
  const Phrases& phrases(Place place) const { return *p_.languageOf[place.file]->phrases; }
  bool inTests(Place place) const { return a_.config.tests.match(p_.path(place)); }
  Place placeOf(const InjectTask& w) const { return w.type != kNone ? p_.types[w.type].definition : p_.functions[w.function].home(); }
  // What makes or calls something that takes the object, and has none itself, leaves that to the default: where the
  // program is put together, in tests, and in classes that none makes which keeps the object.
  bool isLeft(const InjectTask& w);
  bool isBelowInjected(TypeIndex type);

  // ----- what there is to do

  InjectTask& workFor(TypeIndex type, FunctionIndex function);

  // Which class or function has to change for something that happens in `in`?
  InjectTask* unitOf(Place place, FunctionIndex in, VariableIndex inInitialiserOf);

  void collectWork();

  // ----- where it is held as one that may not be changed

  UnitKey keyOf(FunctionIndex in, VariableIndex inInitialiserOf) const;
  UnitKey takerOf(FunctionIndex callee) const;
  // What a class whose field is constant hands the object to must take it so too, and what that hands it to.
  void findConstant();
  // What is held so cannot be handed in where it may be changed.
  std::string whyNotHanded(const InjectTask& w) const;

  void pass(FunctionIndex callee, Place place, FunctionIndex in, VariableIndex inInitialiserOf);

  void implicit(TypeIndex owner, TypeIndex made, VariableIndex field, TypeIndex base, Place place);

  // Names of the accessor where no call was read: in macros, in branches that are not built.
  void scanMentions();

  // Users before makers before composing places; then in the order of files.
  std::tuple<int, std::string, uint32_t> rank(const InjectTask& w) const;

  PlanMemory& memory_;
  SourceScan scan_;
  std::optional<std::set<TypeIndex>> below_;  // classes that are made below those that take the object
  std::vector<InjectTask> work_;
  std::vector<ByHand> byHand_;
  std::set<std::pair<FileIndex, uint32_t>> seen_;
};

}  // namespace elmcart

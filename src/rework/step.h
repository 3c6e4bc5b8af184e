// Moves are made in steps; after each the code builds and behaves as before.
#pragma once

#include <functional>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <vector>

#include "assess/analysis.h"
#include "source/edit.h"
#include "source/ignore.h"

namespace elmcart {

enum class StepKind : uint8_t { Seam, InjectParameter, Lift, Compose, Retire, SafeInit, Enforce, Open, Unregister, Synchronize, InjectCollaborator, ExtractInterface, MakeLocal, Wrap, Own, Broadcast };
std::string_view stepKindText(StepKind kind);
std::span<const std::string_view> stepKindTexts();  // in the order of the kinds

struct Step {
  StepKind kind = StepKind::Seam;
  std::string subject;   // the class or function that changes
  std::string title;     // one line for people
  std::vector<FileEdit> edits;
  std::string sample;        // code that tests may begin from; part of no file
  bool passesOnly = false;   // the class does not use the object itself
  bool inTests = false;
  bool endsAccessor = false; // accessor and slot go
  size_t units = 1;          // classes or functions changed in this step
  size_t callSites = 0;      // accesses replaced
  size_t creationSites = 0;  // places that now hand the object in
  std::string key() const { return std::string(stepKindText(kind)) + " " + subject; }
};

// Why a step that was tried is not planned again.
inline constexpr std::string_view kTakenBack = "the step was taken back: it changed what the build, tests or witnesses see";

// A place that cannot be changed safely, and why.
struct ByHand {
  std::string file;
  uint32_t line = 0;
  std::string reason;
  bool blocksRetire = true;
  bool left = false;   // it stays as it is, and rightly so: nothing is to be done there
};

// What one step must tell the next.
struct PlanMemory {
  std::set<std::string> refused;        // keys of steps that were taken back
  std::set<std::string> made;           // keys of steps that were kept
  std::optional<bool> onlyLooked;       // does nobody who fetches the object change it? Told when the first step is planned
  std::string word;                     // what the object is called where it is handed in
  std::set<std::string, std::less<>> takers;       // qualified names of the classes that take it by now
  Globs only;                           // files whose uses are changed; none named: all
  bool isChosen(std::string_view path) const { return only.empty() || only.match(path); }
  bool retire = false;                  // asked for: defaults, accessor and slot go where nobody needs them any more
};

struct NextStep {
  bool found = false;
  Step step;
  std::vector<ByHand> byHand;
  bool finished = false;  // the accessor is gone
};

// One try at a step: what it would be, and why it cannot be made; empty: it can.
struct Attempt {
  Step step;
  std::string reason;
  std::string file;  // where what hinders stands
  uint32_t line = 0;
};

// The first of several attempts that succeeds and was not taken back before; the
// reasons of those before it are left by hand. Finished when none is left at all.
NextStep firstOf(size_t attempts, const PlanMemory& memory, const std::function<Attempt(size_t)>& attempt);

}  // namespace elmcart

// Planning and carrying out a move step by step in a scratch copy, each step
// under the project's build, tests and witnesses.
#pragma once

#include <functional>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "confirm/confirm.h"
#include "rework/moves.h"
#include "rework/step.h"
#include "rework/write_back.h"

namespace elmcart {

struct StepRecord {
  size_t number = 0;
  Step step;
  bool kept = false;
  bool unbuilt = false;      // its files are not built or loaded here, so that nothing could confirm it
  std::string outcome;       // "planned", "31 tests and 1 witness as before", "taken back: …"
  std::vector<Difference> differences;
  std::string patch;         // unified diff
  std::vector<std::string> files;
  std::map<std::string, std::string> texts;  // of a kept step: the files as it leaves them
  double buildSeconds = 0, testSeconds = 0, ownSeconds = 0;
};

// What a move would cost, and what else there is.
struct Cost {
  std::string way;             // "inject", "seams only", "steady", …
  size_t classesChanged = 0;   // classes and functions that use the object themselves
  size_t classesPassing = 0;   // that only pass it on
  size_t depth = 0;            // hops from a composing place down to the deepest user
  size_t callSites = 0;
  size_t creationSites = 0;
  size_t files = 0;
  size_t tests = 0;            // tests and fixtures touched
  size_t signatures = 0;       // constructor and function signatures that change
  size_t byHand = 0;
  std::string note;
};

struct ReworkResult {
  std::string entity;
  std::string move = "inject";
  std::vector<StepRecord> steps;
  std::vector<ByHand> byHand;
  std::vector<ByHand> left;            // places that rightly stay as they are, with why
  std::vector<Cost> costs;             // the recommended way first
  bool finished = false;               // the accessor is gone
  bool retired = false;                // accessor and slot went in the last step
  bool interrupted = false;            // from outside: what was kept until then is here
  Baseline baseline;
  std::vector<WriteBackFile> files;    // every file that differs in the end
  std::map<std::string, int> before, after;  // figures: accessor calls, findings …
  std::vector<std::string> findingsGone, findingsCome;
  double seconds = 0;
};

struct ReworkOptions {
  std::string move = "inject";
  MoveTarget of = MoveTarget::State;  // where the move is made for several sorts of targets
  bool confirm = true;   // false: plan only, nothing is built or run
  unsigned jobs = 0;
  size_t mostSteps = 400;
  size_t expectedSteps = 0;  // as far as a plan told; only for the progress
  bool series = false;   // builds and tests once after all steps, and halves them where anything differs; else after each step
  Globs files;           // those whose uses inject changes; none named: all
  bool retire = false;   // defaults, accessor and slot go where nobody needs them any more
  std::set<StepKind> only = {};  // steps of these kinds; empty: of all
  std::function<void(const std::string&)> progress;   // one line at a time
  std::function<void(const std::string& folder, const Step&)> tamper;  // for tests: spoils a step after it was made
};

// The entity may be named as in entitiesNamed(). Fails when the move cannot be
// made at all (with the reason), or the tree does not build before anything was changed.
Result<ReworkResult> rework(const std::string& root, const Config& config, const std::string& entityId, const ReworkOptions& options);

// The series of patches and the table of steps, in `folder`.
Result<std::vector<std::string>> writePatches(const ReworkResult& result, const std::string& folder);

}  // namespace elmcart

// What of a piece of shared state can be raced: for each way in which it may go
// wrong, what a harness has to call and where time has to be put in.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"
#include "languages/harness.h"

namespace elmcart {

struct Race {
  ProbeScenario scenario = ProbeScenario::Creation;
  std::string title;          // "creation of TideTable", "several threads in CargoScale.weigh"
  std::string function;       // that is called, qualified: the same race is found by it in a tree that has changed
  std::string move;           // what would mend it; empty: no move does, and …
  std::string mending;        // … this is what would
  bool tasks = false;         // calls that wait in their middle, not threads, are at it at once
  bool cannotGoWrong = false; // as far as the code tells
  std::vector<size_t> findings;   // positions in the assessment that it is evidence for, whatever comes out, and …
  std::vector<size_t> onlyIfSeen; // … those of which it says nothing where it does not happen
  std::vector<FunctionIndex> code;  // on whose text what is seen rests
  ProbePlan plan;             // but for its root
  std::string refusal;        // why it cannot be run; empty: it can
  std::string hidden;         // a fault that runs do not show on most machines, in a sentence; empty: none
  std::string oneStep;        // nothing comes between reading and writing here, and why; empty: there is a gap
};

std::string_view scenarioText(ProbeScenario scenario);  // "creation", "change", "end", "order"

// All races of an entity: its creation, the functions that change its state, and objects that it lists.
// Those that cannot go wrong only where there are no others.
std::vector<Race> racesOf(const Analysis& analysis, size_t entity);
// The same race in a tree that has changed since; none: there is nothing left of it.
std::vector<Race> sameRace(const Analysis& analysis, size_t entity, const Race& race);

// Calls of the function that hands it out; empty: there is none that needs no arguments.
std::vector<Race> accessOnly(const Analysis& analysis, size_t entity);

}  // namespace elmcart

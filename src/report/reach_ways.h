// How one gets at an entity: the calls that lead from some code to where it is used.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

struct ReachWay {
  struct Step {
    FunctionIndex function = kNone;  // that is called
    Place call;
    bool asOverrider = false;        // what is called by name is the method that it overrides
  };
  FunctionIndex begin = kNone;
  std::vector<Step> steps;           // empty: `begin` uses it itself
  const Consumer* use = nullptr;     // one use in the last function
};

struct ReachWays {
  std::vector<ReachWay> ways;        // a shortest one for each function that it begins with; shortest first, then by name
  bool tests = false;                // do they begin in tests too?
  std::vector<std::string> unknown;  // the one of `from` and `to` that names nothing
};

// `from`, `to`: a function, a class, or a file or pattern of files, by the names that other commands print. From an
// empty `from`: from what nothing in the tree calls, outside tests. To an empty `to`: to every use.
ReachWays reachWays(const Analysis& analysis, size_t entity, const std::string& from, const std::string& to);

}  // namespace elmcart

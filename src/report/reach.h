// Who gets at an entity: directly, and through others.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

struct ReachFunction {
  FunctionIndex function = kNone;
  std::string name;
  Place place;
  std::vector<std::string> what;     // members used: "assign()", "reads slot_"
  std::vector<std::string> callers;  // functions outside tests that call it
  size_t testCallers = 0;            // tests that call it
};

// A class, or a file for functions outside classes.
struct ReachUnit {
  std::string name;
  int distance = 0;  // 0: reaches the entity itself; n: through n others
  bool tests = false;
  size_t sites = 0;
  std::vector<ReachFunction> functions;
};

struct ReachEdge {
  size_t from = 0, to = 0;  // positions in units; to == SIZE_MAX: the entity
  size_t count = 0;
  bool writes = false;
};

struct Reach {
  std::vector<ReachUnit> units;  // by distance, then name
  std::vector<ReachEdge> edges;
  size_t direct = 0;             // units at distance 0 outside tests
};

Reach reachOf(const Analysis& analysis, size_t entity);

}  // namespace elmcart

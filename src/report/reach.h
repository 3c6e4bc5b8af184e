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
  std::string file;  // where the class, or the first function that was met, is
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

// Which member a place uses: "assign()", "reads slot_"; else how it gets at it.
std::string usedText(const Program& program, const Consumer& consumer);

Reach reachOf(const Analysis& analysis, size_t entity);

// A reach small enough to be drawn. Units that would be too many are folded into one node a file,
// or a folder, and those into one node a folder above: "12 classes in src/net".
struct DrawnNode {
  std::string label;
  int distance = 0;    // the least of what is folded
  bool tests = false;  // all of them
  size_t units = 1;    // that it stands for
};
struct DrawnReach {
  std::vector<DrawnNode> nodes;
  std::vector<ReachEdge> edges;  // between nodes; what is folded is added up
  size_t edgesLeftOut = 0;       // the weakest calls between nodes, where there are too many to be followed by eye
};
inline constexpr size_t kMostDrawnNodes = 60;
inline constexpr size_t kMostDrawnEdges = 150;
inline constexpr int kFarthestDrawn = 2;  // distance of the units in it
DrawnReach drawnReach(const Reach& reach, bool tests, size_t mostNodes = kMostDrawnNodes);

}  // namespace elmcart

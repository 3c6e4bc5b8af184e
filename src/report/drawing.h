// Small drawings of what happens in time, as SVG (SVG 1.1): steps in lanes side by side (two
// threads, two calls, the files of an initialisation), and lives as bars. They stand by
// themselves; classes on the shapes let a page give them its own colours.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"

namespace elmcart {

struct LaneStep {
  size_t lane = 0;
  size_t number = 0;  // that it is told under elsewhere
  std::string text;
  bool bad = false;  // where the harm is done
};
// One row a step, from above, in time's order; a line leads from each step to the next.
std::string lanesSvg(const std::vector<std::string>& lanes, const std::vector<LaneStep>& steps);

struct LifeMark {
  double at = 0;
  std::string text;
  bool bad = false;
};
struct Life {
  std::string name;
  double from = 0, to = 1;  // in the unit of the drawing
  std::vector<LifeMark> marks;
};
// A bar a life, on one scale from 0 to `end`; what is written below the scale's ends: `first`, `last`.
std::string livesSvg(const std::vector<Life>& lives, double end, const std::string& first, const std::string& last);

// What a finding's evidence tells, drawn: the threads of a race, the files of an order of
// initialisation, the lives of list and subscriber. Empty: the evidence has no order in time.
std::string findingDrawing(const Program& program, const Finding& finding);

}  // namespace elmcart

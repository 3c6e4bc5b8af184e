// One self-contained HTML page: charts, findings with code and drawings, inventory, reach
// figures, rework steps. Tables that are searched, filtered and sorted in place; all of it
// can be read without script. Nothing is loaded from elsewhere.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"
#include "rework/rework.h"

namespace elmcart {

struct HtmlOptions {
  std::string title = "Shared state";
  std::vector<const ReworkResult*> reworks;
  size_t figures = 4;  // reach figures for that many entities, those with the most users first
  size_t detailed = 300;  // so many findings, the riskiest, are shown with code and drawings
};

std::string htmlReport(const Analysis& analysis, const HtmlOptions& options);

}  // namespace elmcart

// One self-contained HTML page: inventory, findings with code, reach figures,
// rework steps. No scripts from elsewhere, no network.
#pragma once

#include <string>
#include <vector>

#include "assess/analysis.h"
#include "rework/rework.h"

namespace elmcart {

struct HtmlOptions {
  std::string title = "Shared state";
  std::vector<const ReworkResult*> reworks;
  size_t figures = 4;  // reach figures for that many entities, riskiest first
};

std::string htmlReport(const Analysis& analysis, const HtmlOptions& options);

}  // namespace elmcart

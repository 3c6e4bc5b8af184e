#include <fmt/format.h>

#include <algorithm>

#include "base/text.h"
#include "report/layout.h"
#include "report/reach.h"

namespace elmcart {
namespace {

constexpr size_t kFunctionsShown = 3;  // of a class or file, where not all is asked for
constexpr size_t kCallersShown = 5;

std::string unitText(const Program& p, const ReachUnit& unit, const TextStyle& style) {
  std::string out = strong(style, unit.name) + faint(style, unit.tests ? "  (tests)" : "") + "  " + counted(unit.sites, "site", "sites") + "\n";
  size_t shown = style.limit == 0 ? unit.functions.size() : std::min(unit.functions.size(), kFunctionsShown), rest = unit.functions.size() - shown;
  for (size_t n = 0; n < shown; ++n) {
    const ReachFunction& fn = unit.functions[n];
    bool last = n + 1 == shown && rest == 0;
    out += (last ? "└─ " : "├─ ") + fn.name + "  " + faint(style, at(p, fn.place)) + "  " + joinWith(fn.what, ", ") + "\n";
    if (style.limit > 0) continue;
    std::string rail = last ? "     ← " : "│    ← ";
    for (size_t i = 0; i < fn.callers.size() && i < kCallersShown; ++i) out += rail + fn.callers[i] + "\n";
    if (fn.callers.size() > kCallersShown) out += rail + "… " + std::to_string(fn.callers.size() - kCallersShown) + " more\n";
    if (fn.testCallers > 0) out += rail + faint(style, counted(fn.testCallers, "test", "tests")) + "\n";
  }
  if (rest > 0) out += "└─ … " + counted(rest, "more function", "more functions") + "\n";
  return out;
}

}  // namespace

std::string reachText(const Analysis& a, size_t entity, const TextStyle& style) {
  const Entity& e = a.survey.entities[entity];
  const Program& p = a.program;
  size_t width = static_cast<size_t>(style.width);
  Reach reach = reachOf(a, entity);
  std::string out = strong(style, e.id) + "  " + std::string(kindText(e.toldKind())) + "  " + faint(style, at(p, e.place)) + "\n";
  std::vector<const ReachUnit*> direct;
  std::vector<std::string> indirect;
  for (const ReachUnit& unit : reach.units) {
    if (unit.distance == 0) direct.push_back(&unit);
    else if (!unit.tests) indirect.push_back(unit.name);
  }
  out += fmt::format("{} directly, {} through others; {} in all.\n", counted(reach.direct, "class or file reaches it", "classes or files reach it"), indirect.size(), counted(e.consumers.size(), "site", "sites"));
  std::vector<std::string> accessPoints;
  for (const AccessPoint& point : e.accessPoints) accessPoints.push_back(point.name);
  if (!accessPoints.empty()) out += "access points: " + wrapped(joinWith(accessPoints, ", "), width, 15) + "\n";
  size_t left = 0;
  if (style.limit > 0 && direct.size() > style.limit) {
    left = direct.size() - style.limit;
    std::stable_sort(direct.begin(), direct.end(), [](const ReachUnit* x, const ReachUnit* y) { return std::pair(x->tests, y->sites) < std::pair(y->tests, x->sites); });
    direct.resize(style.limit);
  }
  out += "\n";
  for (const ReachUnit* unit : direct) out += unitText(p, *unit, style);
  if (left > 0) out += faint(style, fmt::format("{} more reach it directly: --all lists everything, --limit N so many.", left)) + "\n";
  if (!indirect.empty()) {
    size_t shown = style.limit == 0 ? indirect.size() : std::min(indirect.size(), style.limit);
    std::string names = joinWith({indirect.begin(), indirect.begin() + static_cast<std::ptrdiff_t>(shown)}, ", ");
    out += "\nthrough others: " + wrapped(names + (shown < indirect.size() ? fmt::format(" and {} more", indirect.size() - shown) : ""), width, 16) + "\n";
  }
  return out;
}

}  // namespace elmcart

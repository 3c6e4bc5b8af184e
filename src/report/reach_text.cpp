#include <fmt/format.h>

#include <algorithm>
#include <array>

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
  // How many at each distance.
  std::array<size_t, 3> through{};
  for (const ReachUnit& unit : reach.units)
    if (unit.distance > 0 && !unit.tests) ++through[std::min<size_t>(static_cast<size_t>(unit.distance), through.size()) - 1];
  out += fmt::format("{} directly, {} through one other, {} through two, {} through three; {} in all.\n", counted(reach.direct, "class or file reaches it", "classes or files reach it"), through[0], through[1], through[2],
                     counted(e.consumers.size(), "site", "sites"));
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

std::string reachWaysText(const Analysis& a, size_t entity, const ReachWays& ways, const std::string& of, const TextStyle& style) {
  const Entity& e = a.survey.entities[entity];
  const Program& p = a.program;
  if (ways.ways.empty()) return strong(style, e.id) + ": no calls lead to it " + of + ".\n";
  std::string out = strong(style, e.id) + "  " + counted(ways.ways.size(), "way leads", "ways lead") + " to it " + of + ", the shortest first" + (ways.tests ? "" : ", without those of tests") + ".\n";
  size_t most = style.limit > 0 ? std::min(style.limit, ways.ways.size()) : ways.ways.size();
  for (size_t i = 0; i < most; ++i) {
    const ReachWay& way = ways.ways[i];
    out += "\n" + strong(style, functionText(p, way.begin)) + "\n";
    std::string indent = "  ";
    for (const ReachWay::Step& step : way.steps) {
      out += indent + "└─ calls " + functionText(p, step.function) + "  " + faint(style, at(p, step.call)) + (step.asOverrider ? faint(style, "  (by a base class or an interface)") : "") + "\n";
      indent += "  ";
    }
    out += indent + "└─ uses it: " + usedText(p, *way.use) + "  " + faint(style, at(p, way.use->place)) + "\n";
  }
  if (most < ways.ways.size()) out += "\n" + faint(style, fmt::format("{} more: --all lists everything, --limit N so many.", ways.ways.size() - most)) + "\n";
  return out;
}

}  // namespace elmcart

#include "report/reach.h"

#include <algorithm>
#include <map>
#include <set>

#include "source/ignore.h"

namespace elmcart {
namespace {

constexpr int kFarthest = 3;

class ReachBuilder {
 public:
  ReachBuilder(const Analysis& analysis, size_t entity) : a_(analysis), p_(analysis.program), e_(analysis.survey.entities[entity]) {}

  Reach run() {
    std::map<std::string, std::map<FunctionIndex, ReachFunction>> direct;
    std::map<std::string, size_t> sites;
    std::map<std::string, bool> writes;
    std::set<FunctionIndex> frontier;
    for (const Consumer& c : e_.consumers) {
      std::string unit = unitOf(c.in, c.place);
      ++sites[unit];
      ReachFunction& fn = direct[unit][c.in];
      if (fn.name.empty()) {
        fn.function = c.in;
        fn.name = whereText(p_, c);
        fn.place = c.place;
      }
      std::string what = usedText(p_, c);
      if (std::find(fn.what.begin(), fn.what.end(), what) == fn.what.end()) fn.what.push_back(what);
      writes[unit] = writes[unit] || c.access == Access::Write || c.access == Access::Update || c.access == Access::Call;
      if (c.in != kNone) frontier.insert(c.in);
      isTest_[unit] = inTests(c.place);
    }
    // Outward through calls, a unit at its shortest distance.
    std::map<std::string, int> distance;
    std::map<std::pair<std::string, std::string>, size_t> edges;
    for (auto& [unit, functions] : direct) distance[unit] = 0;
    std::set<FunctionIndex> seen = frontier;
    for (int step = 1; step <= kFarthest && !frontier.empty(); ++step) {
      std::set<FunctionIndex> next;
      for (FunctionIndex f : frontier) {
        std::string to = unitOf(f, p_.functions[f].declarations.front());
        for (uint32_t i : p_.callsOfFunction[f]) {
          const CallSite& call = p_.calls[i];
          std::string from = unitOf(call.in, call.place);
          isTest_[from] = isTest_[from] || inTests(call.place);
          if (from != to) ++edges[{from, to}];
          distance.emplace(from, step);
          if (call.in != kNone && seen.insert(call.in).second) next.insert(call.in);
        }
      }
      frontier = std::move(next);
    }
    Reach out;
    std::vector<std::pair<std::pair<int, std::string>, std::string>> order;
    for (auto& [unit, d] : distance) order.push_back({{d, unit}, unit});
    std::sort(order.begin(), order.end());
    std::map<std::string, size_t> position;
    for (auto& [key, unit] : order) {
      position[unit] = out.units.size();
      ReachUnit entry;
      entry.name = unit;
      entry.file = fileOf_[unit];
      entry.distance = key.first;
      if (auto counted = sites.find(unit); counted != sites.end()) entry.sites = counted->second;
      entry.tests = isTest_[unit];
      for (auto& [fn, info] : direct[unit]) {
        std::set<std::string> callers, testCallers;
        if (fn != kNone)
          for (uint32_t i : p_.callsOfFunction[fn])
            if (p_.calls[i].in != kNone && p_.calls[i].in != fn) (inTests(p_.calls[i].place) ? testCallers : callers).insert(functionText(p_, p_.calls[i].in));
        info.callers.assign(callers.begin(), callers.end());
        info.testCallers = testCallers.size();
        entry.functions.push_back(info);
      }
      std::sort(entry.functions.begin(), entry.functions.end(), [](const ReachFunction& x, const ReachFunction& y) { return x.name < y.name; });
      if (entry.distance == 0 && !entry.tests) ++out.direct;
      out.units.push_back(std::move(entry));
    }
    for (auto& [unit, count] : sites) out.edges.push_back({position[unit], SIZE_MAX, count, writes[unit]});
    for (auto& [pair, count] : edges) out.edges.push_back({position[pair.first], position[pair.second], count, false});
    return out;
  }

 private:
  bool inTests(Place place) {
    if (testFile_.empty()) testFile_.assign(p_.files.size(), -1);
    int8_t& known = testFile_[place.file];
    if (known < 0) known = a_.config.tests.match(p_.path(place));
    return known > 0;
  }
  std::string unitOf(FunctionIndex f, Place place) {
    if (f == kNone || p_.functions[f].owner == kNone) {
      fileOf_[p_.path(place)] = p_.path(place);
      return p_.path(place);
    }
    const TypeDecl& owner = p_.types[p_.functions[f].owner];
    std::string unit(p_.text(owner.qualified));
    fileOf_.emplace(unit, p_.path(owner.home()));
    return unit;
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  std::map<std::string, bool> isTest_;
  std::map<std::string, std::string> fileOf_;  // by unit
  std::vector<int8_t> testFile_;               // by file: -1 is not asked for yet
};

}  // namespace

std::string usedText(const Program& p, const Consumer& c) {
  if (c.method != kNone) return std::string(p.text(p.functions[c.method].name)) + "()";
  if (c.field != kNone) return (c.access == Access::Read ? "reads " : "writes ") + std::string(p.text(p.variables[c.field].name));
  return std::string(accessText(c));
}

Reach reachOf(const Analysis& analysis, size_t entity) { return ReachBuilder(analysis, entity).run(); }

namespace {

// The name under which a unit is folded at that level: itself, its file, then the folders above.
std::string foldedName(const ReachUnit& unit, size_t level) {
  if (level == 0) return unit.name;
  std::string path = unit.file;
  for (size_t up = 1; up < level && !path.empty(); ++up) {
    size_t slash = path.rfind('/');
    path = slash == std::string::npos ? "" : path.substr(0, slash);
  }
  return path;
}

// Which node each unit goes to. The ones with the most sites stay by themselves as long as there
// is room for them; the others are folded at the first level at which there are few enough.
std::vector<std::string> nodeNames(const std::vector<const ReachUnit*>& units, size_t most) {
  std::vector<std::string> names;
  for (const ReachUnit* unit : units) names.push_back(unit->name);
  if (units.size() <= most) return names;
  std::vector<size_t> order(units.size());
  for (size_t i = 0; i < order.size(); ++i) order[i] = i;
  std::stable_sort(order.begin(), order.end(), [&](size_t x, size_t y) { return std::pair(units[x]->distance, units[y]->sites) < std::pair(units[y]->distance, units[x]->sites); });
  size_t alone = most / 2;
  constexpr size_t kMostLevels = 64;
  for (size_t level = 1; level < kMostLevels; ++level) {
    std::set<std::string> folded;
    for (size_t k = alone; k < order.size(); ++k) folded.insert(foldedName(*units[order[k]], level));
    if (alone + folded.size() > most && level + 1 < kMostLevels) continue;
    for (size_t k = alone; k < order.size(); ++k) names[order[k]] = "\n" + foldedName(*units[order[k]], level);  // no unit's name
    break;
  }
  return names;
}

}  // namespace

DrawnReach drawnReach(const Reach& reach, bool tests, size_t mostNodes) {
  std::vector<const ReachUnit*> units;
  std::vector<size_t> position(reach.units.size(), SIZE_MAX);
  for (size_t i = 0; i < reach.units.size(); ++i) {
    const ReachUnit& unit = reach.units[i];
    if ((unit.tests && !tests) || unit.distance > kFarthestDrawn) continue;
    position[i] = units.size();
    units.push_back(&unit);
  }
  std::vector<std::string> names = nodeNames(units, mostNodes);
  DrawnReach out;
  std::map<std::string, size_t> nodes;
  std::vector<size_t> nodeOf(units.size());
  for (size_t i = 0; i < units.size(); ++i) {
    auto [entry, fresh] = nodes.emplace(names[i], out.nodes.size());
    nodeOf[i] = entry->second;
    if (fresh) {
      out.nodes.push_back({names[i], units[i]->distance, units[i]->tests, 1});
      continue;
    }
    DrawnNode& node = out.nodes[entry->second];
    ++node.units;
    node.distance = std::min(node.distance, units[i]->distance);
    node.tests = node.tests && units[i]->tests;
  }
  for (DrawnNode& node : out.nodes)
    if (node.label[0] == '\n') node.label = (node.units == 1 ? "1 more in " : std::to_string(node.units) + " more in ") + (node.label.size() == 1 ? "." : node.label.substr(1));
  std::map<std::pair<size_t, size_t>, ReachEdge> edges;
  for (const ReachEdge& edge : reach.edges) {
    if (position[edge.from] == SIZE_MAX || (edge.to != SIZE_MAX && position[edge.to] == SIZE_MAX)) continue;
    size_t from = nodeOf[position[edge.from]], to = edge.to == SIZE_MAX ? SIZE_MAX : nodeOf[position[edge.to]];
    if (from == to) continue;
    ReachEdge& sum = edges.emplace(std::pair(from, to), ReachEdge{from, to, 0, false}).first->second;
    sum.count += edge.count;
    sum.writes = sum.writes || edge.writes;
  }
  for (auto& [key, edge] : edges) out.edges.push_back(edge);
  // What reaches the entity itself stays, then what is called most.
  std::stable_sort(out.edges.begin(), out.edges.end(), [](const ReachEdge& x, const ReachEdge& y) { return std::pair(x.to != SIZE_MAX, y.count) < std::pair(y.to != SIZE_MAX, x.count); });
  if (out.edges.size() > kMostDrawnEdges) {
    out.edgesLeftOut = out.edges.size() - kMostDrawnEdges;
    out.edges.resize(kMostDrawnEdges);
  }
  return out;
}

}  // namespace elmcart

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
      std::string what;
      if (c.method != kNone) what = std::string(p_.text(p_.functions[c.method].name)) + "()";
      else if (c.field != kNone) what = (c.access == Access::Read ? "reads " : "writes ") + std::string(p_.text(p_.variables[c.field].name));
      else what = accessText(c);
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
  bool inTests(Place place) const {
    return matchesAny(a_.config.tests, p_.path(place));
  }
  std::string unitOf(FunctionIndex f, Place place) const {
    if (f != kNone && p_.functions[f].owner != kNone) return std::string(p_.text(p_.types[p_.functions[f].owner].qualified));
    return p_.path(place);
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  std::map<std::string, bool> isTest_;
};

}  // namespace

Reach reachOf(const Analysis& analysis, size_t entity) { return ReachBuilder(analysis, entity).run(); }

}  // namespace elmcart

#include "report/reach_ways.h"

#include <algorithm>

#include "base/text.h"
#include "flow/threads.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class Ways {
 public:
  Ways(const Analysis& a, size_t entity) : a_(a), p_(a.program), e_(a.survey.entities[entity]), threads_(p_, testFiles()) {
    overridden_.resize(p_.functions.size());
    for (FunctionIndex f = 0; f < p_.functions.size(); ++f)
      for (FunctionIndex overrider : threads_.overridersOf(f)) overridden_[overrider].push_back(f);
  }

  ReachWays run(const std::string& from, const std::string& to) {
    ReachWays out;
    std::vector<char> begins = from.empty() ? roots() : named(from), ends = to.empty() ? std::vector<char>(p_.functions.size(), 1) : named(to);
    if (std::count(begins.begin(), begins.end(), 1) == 0) out.unknown.push_back(from);
    if (std::count(ends.begin(), ends.end(), 1) == 0) out.unknown.push_back(to);
    out.tests = !from.empty();
    follow(ends);
    for (FunctionIndex f = 0; f < p_.functions.size(); ++f)
      if (begins[f] && next_[f].known) out.ways.push_back(wayFrom(f));
    std::stable_sort(out.ways.begin(), out.ways.end(), [](const ReachWay& x, const ReachWay& y) { return x.steps.size() < y.steps.size(); });
    return out;
  }

 private:
  struct Next {
    bool known = false;
    FunctionIndex function = kNone;  // kNone: it uses the entity itself
    Place call;
    bool asOverrider = false;
    const Consumer* use = nullptr;
  };

  std::vector<bool> testFiles() const {
    std::vector<bool> out(p_.files.size());
    for (FileIndex f = 0; f < p_.files.size(); ++f) out[f] = a_.config.tests.match(p_.files[f].path);
    return out;
  }

  std::vector<char> named(const std::string& name) const {
    std::vector<char> out(p_.functions.size(), 0);
    Globs files({name, name + "/**"});
    for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
      const Function& fn = p_.functions[f];
      std::string own = functionText(p_, f), type = fn.owner == kNone ? "" : std::string(p_.text(p_.types[fn.owner].qualified));
      bool fits = own == name || p_.text(fn.qualified) == name || p_.text(fn.name) == name || (!type.empty() && (type == name || lastPart(type) == name));
      out[f] = fits || (!fn.declarations.empty() && files.match(p_.path(fn.home())));
    }
    return out;
  }

  // What nothing in the tree calls, and what a file does when it is loaded.
  std::vector<char> roots() const {
    std::vector<char> out(p_.functions.size(), 0);
    for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
      bool called = std::any_of(p_.callsOfFunction[f].begin(), p_.callsOfFunction[f].end(), [&](uint32_t c) { return p_.calls[c].in != kNone && p_.calls[c].in != f; });
      for (FunctionIndex base : overridden_[f]) called = called || !p_.callsOfFunction[base].empty();
      out[f] = !called && !(!p_.functions[f].declarations.empty() && a_.config.tests.match(p_.path(p_.functions[f].home())));
    }
    return out;
  }

  // Back from the uses, through the calls: each function once, by a shortest way.
  void follow(const std::vector<char>& ends) {
    next_.resize(p_.functions.size());
    std::vector<FunctionIndex> frontier;
    for (const Consumer& use : e_.consumers) {
      if (use.in == kNone || !ends[use.in] || next_[use.in].known) continue;
      next_[use.in] = {true, kNone, {}, false, &use};
      frontier.push_back(use.in);
    }
    while (!frontier.empty()) {
      std::vector<FunctionIndex> more;
      for (FunctionIndex f : frontier) {
        followCallers(f, f, more);
        for (FunctionIndex base : overridden_[f]) followCallers(base, f, more);
      }
      frontier = std::move(more);
    }
  }
  void followCallers(FunctionIndex called, FunctionIndex function, std::vector<FunctionIndex>& more) {
    for (uint32_t c : p_.callsOfFunction[called]) {
      const CallSite& call = p_.calls[c];
      if (call.in == kNone || next_[call.in].known) continue;
      next_[call.in] = {true, function, call.place, called != function, nullptr};
      more.push_back(call.in);
    }
  }

  ReachWay wayFrom(FunctionIndex begin) const {
    ReachWay out;
    out.begin = begin;
    FunctionIndex at = begin;
    for (; next_[at].function != kNone; at = next_[at].function) out.steps.push_back({next_[at].function, next_[at].call, next_[at].asOverrider});
    out.use = next_[at].use;
    return out;
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  Threads threads_;
  std::vector<std::vector<FunctionIndex>> overridden_;  // by function
  std::vector<Next> next_;                              // by function
};

}  // namespace

ReachWays reachWays(const Analysis& analysis, size_t entity, const std::string& from, const std::string& to) { return Ways(analysis, entity).run(from, to); }

}  // namespace elmcart

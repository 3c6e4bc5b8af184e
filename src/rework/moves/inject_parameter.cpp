#include "rework/moves/inject_parameter.h"

#include <algorithm>
#include <map>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/moves/handing_plan.h"

namespace elmcart {
namespace {

class ParameterPlan : private HandingPlan {
 public:
  ParameterPlan(const Analysis& a, size_t entity, PlanMemory& memory) : HandingPlan(a, a.survey.entities[entity], nullptr, memory) {
    if (e_.type != kNone) describe();
  }

  std::string refusal() {
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    return work().empty() ? "no function that belongs to no object reaches it" : "";
  }

  NextStep run() {
    for (auto& [f, accesses] : work()) {
      Spot at = spot(p_.functions[f].definition);
      std::vector<Change> changes{{ChangeKind::TakeInFunction, at, nullptr, From::Parameter, {}}};
      for (Place access : accesses) changes.push_back({.kind = ChangeKind::Read, .at = spot(access), .in = at, .looksOnly = looksOnly(access)});
      Step step;
      step.kind = StepKind::InjectParameter;
      step.subject = functionText(p_, f);
      step.title = step.subject + " takes the " + shown_ + " as a parameter; without one it fetches it as before";
      step.callSites = accesses.size();
      std::string reason = whyNotInFunction(f, accesses);
      if (reason.empty()) reason = take(std::move(step), changes, {});
      if (reason.empty()) break;
      leave(accesses.front(), reason, false, true);
    }
    out_.finished = !out_.found && std::none_of(out_.byHand.begin(), out_.byHand.end(), [](const ByHand& b) { return b.blocksRetire; });
    return std::move(out_);
  }

 private:
  // The functions that reach it and could take it, in the order of the text.
  std::vector<std::pair<FunctionIndex, std::vector<Place>>> work() const {
    std::map<FunctionIndex, std::vector<Place>> found;
    std::set<std::pair<FileIndex, uint32_t>> seen;  // what is written once may be read twice: a?.b ?? c
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || c.in == kNone || !sameLanguage(c.place) || inTests(c.place) || !memory_.isChosen(p_.path(c.place))) continue;
      const Function& fn = p_.functions[c.in];
      // A method whose class is not in the tree cannot be written.
      bool whole = !fn.ofClassElsewhere && scopePart(p_.text(fn.name)).empty();
      bool free = whole && fn.form == FunctionForm::Function && (fn.owner == kNone || fn.isStaticMember());
      // What makes the object, or hands it out, is no user of it.
      bool own = isOwn(fn.owner) || c.in == e_.creation.in || isAccessPoint(c.in);
      if (!free || own || isMain(p_, c.in) || lowerCase(p_.text(fn.name)) == "main") continue;
      Place access = accessAt(c);
      if (!access.known() || !seen.insert({access.file, p_.node(access).span.begin}).second || isFallback(access) || isHandedOn(access) || isUnused(access)) continue;
      found[c.in].push_back(access);
    }
    std::vector<std::pair<FunctionIndex, std::vector<Place>>> out(found.begin(), found.end());
    for (auto& [f, accesses] : out) std::sort(accesses.begin(), accesses.end(), [&](Place x, Place y) { return p_.node(x).span.begin < p_.node(y).span.begin; });
    std::sort(out.begin(), out.end(), [&](const auto& x, const auto& y) { return std::make_tuple(p_.path(x.second.front()), p_.line(x.second.front()), x.first) < std::make_tuple(p_.path(y.second.front()), p_.line(y.second.front()), y.first); });
    return out;
  }

  // Is it given to a function that takes it, as by the one that a step left for those who hand nothing in?
  bool isHandedOn(Place access) const {
    // A pointer to it may be what is given.
    if (Place up = p_.parent(access); p_.node(up).kind == Kind::AddressOf) access = up;
    Place call = p_.parent(access);
    if (p_.node(access).role != Role::Argument || p_.node(call).kind != Kind::Call) return false;
    Place callee{call.file, p_.file(call).child(call.node, Role::Callee)};
    Symbol symbol = callee.node == kNoNode ? Symbol{} : p_.symbolAt(callee);
    if (!symbol.is(Symbol::Sort::Function)) symbol = p_.symbolAt(call);
    if (!symbol.is(Symbol::Sort::Function)) return false;
    const std::vector<VariableIndex>& parameters = p_.functions[symbol.index()].parameters;
    return std::any_of(parameters.begin(), parameters.end(), [&](VariableIndex v) { return p_.text(p_.variables[v].name) == handed_.word; });
  }
};

}  // namespace

std::string injectParameterRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return ParameterPlan(analysis, entity, memory).refusal();
}

NextStep nextInjectParameterStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return ParameterPlan(analysis, entity, memory).run(); }

}  // namespace elmcart

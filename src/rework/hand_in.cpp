#include "rework/hand_in.h"

#include <algorithm>
#include <map>
#include <set>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/access.h"
#include "rework/parameter.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class HandIn {
 public:
  HandIn(const Analysis& a, size_t entity, PlanMemory& memory)
      : a_(a), p_(a.program), e_(a.survey.entities[entity]), memory_(memory),
        // elmcart: accept tie.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), h_(p_.language(e_.place.file).handing) {
    if (h_ && e_.type != kNone) name_ = chooseName();
  }

  std::string refusal() {
    const Language& language = p_.language(e_.place.file);
    if (language.phrases) return "in " + std::string(language.name) + " inject hands it to functions as well";
    if (!h_ || h_->functionParameter.empty()) return "a parameter that may be left out cannot be written in " + std::string(language.name);
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (e_.reset.known()) return "its slot is replaced at " + p_.path(e_.reset) + ":" + std::to_string(p_.line(e_.reset)) + ": who is handed it keeps the one that was there";
    return work().empty() ? "no function that belongs to no object reaches it" : "";
  }

  NextStep run() {
    NextStep out;
    for (auto& [f, accesses] : work()) {
      edits_.clear();
      Step step;
      step.kind = StepKind::HandIn;
      step.subject = functionText(p_, f);
      std::string reason = write(f, accesses);
      if (reason.empty() && memory_.refused.count(step.key())) reason = kTakenBack;
      if (!reason.empty()) {
        out.byHand.push_back({p_.path(accesses.front()), p_.line(accesses.front()), reason, true});
        continue;
      }
      step.title = functionText(p_, f) + " takes the " + plainName(p_, e_.type) + " as a parameter; who leaves it out gets it fetched as before";
      step.callSites = accesses.size();
      step.edits = std::move(edits_);
      out.found = true;
      out.step = std::move(step);
      return out;
    }
    out.finished = out.byHand.empty();
    return out;
  }

 private:
  // The functions that reach it and could take it, in the order of the text.
  std::vector<std::pair<FunctionIndex, std::vector<Place>>> work() {
    std::map<FunctionIndex, std::vector<Place>> found;
    std::set<std::pair<FileIndex, uint32_t>> seen;  // what is written once may be read twice: a?.b ?? c
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || c.in == kNone || p_.language(c.place.file).handing != h_ || matchesAny(a_.config.tests, p_.path(c.place))) continue;
      const Function& fn = p_.functions[c.in];
      bool free = fn.form == FunctionForm::Function && (fn.owner == kNone || fn.isStaticMember());
      bool own = fn.owner == e_.type || std::any_of(e_.doors.begin(), e_.doors.end(), [&](const Door& d) { return d.function == c.in; });
      if (!free || own || isMain(p_, c.in) || lowerCase(p_.text(fn.name)) == "main") continue;
      Place access = accessOf(p_, e_, c.place);
      if (!access.known() || !seen.insert({access.file, p_.node(access).span.begin}).second || isDefault(access)) continue;
      found[c.in].push_back(access);
    }
    std::vector<std::pair<FunctionIndex, std::vector<Place>>> out(found.begin(), found.end());
    for (auto& [f, accesses] : out) std::sort(accesses.begin(), accesses.end(), [&](Place x, Place y) { return p_.node(x).span.begin < p_.node(y).span.begin; });
    std::sort(out.begin(), out.end(), [&](const auto& x, const auto& y) { return std::make_tuple(p_.path(x.second.front()), p_.line(x.second.front()), x.first) < std::make_tuple(p_.path(y.second.front()), p_.line(y.second.front()), y.first); });
    return out;
  }

  // What a step before left as the way of those who hand in nothing.
  bool isDefault(Place access) {
    std::string use = usedAs(name_, scan_.nodeText(access));
    std::string_view source = scan_.text(access.file);
    size_t at = use.find(scan_.nodeText(access));
    uint32_t begin = p_.node(access).span.begin;
    return at != std::string::npos && begin >= at && source.substr(begin - at, use.size()) == use;
  }
  std::string usedAs(const std::string& called, const std::string& value) const { return filled(h_->functionUse, {{"name", called}, {"value", value}}); }

  std::string chooseName() const {
    std::string type = plainName(p_, e_.type), out = objectName(type, h_->snake);
    // One that nothing of another class bears.
    auto taken = [&](const std::string& word) {
      NameId id = p_.names.find(word);
      if (!id) return false;
      auto bears = [&](const Variable& v) {
        if (v.name != id) return false;
        return v.storage != Storage::Field && v.type != 0 ? p_.use(v.type).decl != e_.type : v.lives();
      };
      return std::any_of(p_.variables.begin(), p_.variables.end(), bears) || std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& f) { return f.name == id && f.owner == kNone; });
    };
    // The slot's own name, as code writes it, is what is fetched.
    std::string_view slot = e_.slot == kNone ? std::string_view{} : p_.text(p_.variables[e_.slot].name);
    bool same = !slot.empty() && slot.substr(slot[0] == '$' ? 1 : 0) == out;
    return same || taken(out) ? (h_->snake ? "shared_" + out : "shared" + type) : out;
  }

  // Is it named elsewhere than where it is called: given to somebody who calls it with what it takes today?
  bool isGivenAway(FunctionIndex f) {
    if (!lookedAtAll_) {
      lookedAtAll_ = true;
      for (FileIndex i = 0; i < p_.files.size(); ++i) {
        const LoweredFile& file = p_.files[i];
        for (NodeId n = 1; n < file.nodes.size(); ++n) {
          if ((file[n].kind != Kind::Name && file[n].kind != Kind::Member) || file[n].role == Role::Callee) continue;
          if (Symbol symbol = p_.links[i].symbol[n]; symbol.is(Symbol::Sort::Function)) givenAway_.insert(symbol.index());
        }
      }
    }
    return givenAway_.count(f) > 0;
  }

  std::string write(FunctionIndex f, const std::vector<Place>& accesses) {
    const Function& fn = p_.functions[f];
    Place place = fn.definition;
    if (!place.known() || (fn.modifiers & kInMacro)) return functionText(p_, f) + " could not be read";
    for (Place access : accesses)
      if (access.file != place.file) return functionText(p_, f) + " could not be read";
    if (isGivenAway(f)) return functionText(p_, f) + " is given to others, who call it with what it takes today";
    if (std::string reason = addOptionalParameter(p_, scan_, *h_, f, name_, plainName(p_, e_.type), edits_); !reason.empty()) return reason;
    for (Place access : accesses) edits_.push_back({p_.path(access), p_.node(access).span, usedAs(name_, scan_.nodeText(access))});
    return "";
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Handing* h_ = nullptr;
  std::string name_;  // of the parameter
  std::set<FunctionIndex> givenAway_;
  bool lookedAtAll_ = false;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string handInRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return HandIn(analysis, entity, memory).refusal();
}

NextStep nextHandInStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return HandIn(analysis, entity, memory).run(); }

}  // namespace elmcart

#include "rework/inject_parameter.h"

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
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), language_(p_.language(e_.place.file)), h_(language_.handing), m_(language_.mending) {
    if (e_.type != kNone) name_ = chooseName();
  }

  std::string refusal() {
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (e_.reset.known()) return "its slot is replaced at " + p_.path(e_.reset) + ":" + std::to_string(p_.line(e_.reset)) + ": who is handed it keeps the one that was there";
    return work().empty() ? "no function that belongs to no object reaches it" : "";
  }

  NextStep run() {
    auto todo = work();
    return firstOf(todo.size(), memory_, [&](size_t i) {
      auto& [f, accesses] = todo[i];
      edits_.clear();
      Attempt out{{}, write(f, accesses), p_.path(accesses.front()), p_.line(accesses.front())};
      out.step.kind = StepKind::InjectParameter;
      out.step.subject = functionText(p_, f);
      out.step.title = functionText(p_, f) + " takes the " + plainName(p_, e_.type) + " as a parameter; without one it fetches it as before";
      out.step.callSites = accesses.size();
      out.step.edits = std::move(edits_);
      return out;
    });
  }

 private:
  bool canBeLeftOut() const { return h_ && !h_->functionParameter.empty(); }

  // The functions that reach it and could take it, in the order of the text.
  std::vector<std::pair<FunctionIndex, std::vector<Place>>> work() {
    std::map<FunctionIndex, std::vector<Place>> found;
    std::set<std::pair<FileIndex, uint32_t>> seen;  // what is written once may be read twice: a?.b ?? c
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || c.in == kNone || &p_.language(c.place.file) != &language_ || a_.config.tests.match(p_.path(c.place))) continue;
      const Function& fn = p_.functions[c.in];
      // A method whose class is not in the tree cannot be written.
      bool whole = !fn.ofClassElsewhere && scopePart(p_.text(fn.name)).empty();
      bool free = whole && fn.form == FunctionForm::Function && (fn.owner == kNone || fn.isStaticMember());
      bool own = fn.owner == e_.type || std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == c.in; });
      if (!free || own || isMain(p_, c.in) || lowerCase(p_.text(fn.name)) == "main") continue;
      Place access = accessOf(p_, e_, c.place);
      if (!access.known() || !seen.insert({access.file, p_.node(access).span.begin}).second || (canBeLeftOut() ? isDefault(access) : twinOf(c.in) != kNone)) continue;
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

  bool snake() const { return h_ && h_->snake; }

  // What a step before made of a function: the one that takes what it takes, and the object.
  FunctionIndex twinOf(FunctionIndex f) const {
    const Function& fn = p_.functions[f];
    std::string name = filled(m_->twinName, {{"function", std::string(p_.text(fn.name))}});
    for (FunctionIndex other = 0; other < p_.functions.size(); ++other) {
      const Function& o = p_.functions[other];
      if (other != f && o.owner == fn.owner && o.parent == fn.parent && o.parameters.size() == fn.parameters.size() + 1 && p_.text(o.name) == name) return other;
    }
    return kNone;
  }

  std::string chooseName() const {
    std::string type = plainName(p_, e_.type), out = objectName(type, snake());
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
    return same || taken(out) ? (snake() ? "shared_" + out : "shared" + type) : out;
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
    if (!canBeLeftOut()) return writeTwin(f, accesses);
    if (std::string reason = addOptionalParameter(p_, scan_, *h_, f, name_, plainName(p_, e_.type), edits_); !reason.empty()) return reason;
    for (Place access : accesses) edits_.push_back({p_.path(access), p_.node(access).span, usedAs(name_, scan_.nodeText(access))});
    return "";
  }

  // The function's own text takes the object from now on; in front of it stands what calls it so.
  std::string writeTwin(FunctionIndex f, const std::vector<Place>& accesses) {
    const Function& fn = p_.functions[f];
    Place place = fn.definition;
    const Node& node = p_.node(place);
    std::string_view source = scan_.text(place.file);
    std::string name(p_.text(fn.name)), twin = filled(m_->twinName, {{"function", name}}), value = scan_.nodeText(accesses.front());
    uint32_t close = scan_.parameterListEnd(place);
    NodeId body = p_.file(place).child(place.node, Role::Body);
    size_t open = close == 0 ? std::string_view::npos : source.find('(', node.nameBegin);
    if (body == kNoNode || open == std::string_view::npos || open >= close || source[p_.file(place)[body].span.begin] != '{') return functionText(p_, f) + " could not be read";
    std::string_view list = source.substr(open + 1, close - open - 2);
    if (list.find("...") != std::string_view::npos) return functionText(p_, f) + " takes any number of arguments";
    if (trim(list) != "void" && list.find('(') != std::string_view::npos) return "the parameters of " + functionText(p_, f) + " could not be read";
    std::string_view head = source.substr(node.span.begin, p_.file(place)[body].span.begin - node.span.begin);
    if (head.find('@') != std::string_view::npos) return functionText(p_, f) + " is marked: what calls it may not be in this tree";
    if (std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& o) { return &o != &fn && o.name == fn.name && o.parent == fn.parent && o.parameters.size() == fn.parameters.size() + 1; })) return "there is a " + name + " with one parameter more already";
    if (twin != name && p_.names.find(twin) != 0) return twin + " means something already";
    std::string names;
    for (VariableIndex v : fn.parameters) {
      std::string_view one = p_.text(p_.variables[v].name);
      if (one.empty() || one == "_") return functionText(p_, f) + " has a parameter without a name";
      names += std::string(one) + ", ";
    }
    FunctionIndex accessPoint = p_.symbolAt(accesses.front()).is(Symbol::Sort::Function) ? p_.symbolAt(accesses.front()).index() : kNone;
    std::string type = !m_->twinAsHandedOut ? plainName(p_, e_.type) : accessPoint == kNone ? "" : typeHandedOut(p_, scan_, accesses.front(), accessPoint);
    if (type.empty()) return "the class of the object cannot be named in this file";
    NodeId result = p_.file(place).child(place.node, Role::Type);
    std::string_view inFront = source.substr(node.span.begin, node.nameBegin - node.span.begin), behind = trim(source.substr(close, p_.file(place)[body].span.begin - close));
    bool gives = result != kNoNode ? p_.file(place).name(result) != "void" : m_->twinFirst ? !holdsWord(inFront, "void") : !behind.empty();
    std::string indent = scan_.indentOf(place), unit = fn.owner != kNone && !indent.empty() ? indent : unitOfFile(scan_, place.file), newline = scan_.newlineOf(place.file);
    if (TypeIndex owner = fn.owner; owner != kNone && p_.types[owner].definition.known() && p_.types[owner].definition.file == place.file) unit = unitIndent(p_, scan_, owner);
    std::string call = filled(m_->twinCall, {{"twin", twin}, {"names", names}, {"value", value}, {"return", gives ? "return " : ""}});
    bool below = trim(head).size() < head.size() && head.find('\n', trim(head).size()) != std::string_view::npos;  // the bracket on a line of its own
    std::string calling = std::string(trim(head)) + (below ? newline + indent : " ") + "{" + newline + indent + unit + call + newline + indent + "}";
    if (m_->twinFirst) edits_.push_back({p_.path(place), {node.span.end, node.span.end}, newline + newline + indent + calling});
    else edits_.push_back({p_.path(place), {node.span.begin, node.span.begin}, calling + newline + newline + indent});
    if (twin != name) edits_.push_back({p_.path(place), {node.nameBegin, node.nameBegin + static_cast<uint32_t>(name.size())}, twin});
    std::string parameter = filled(m_->twinParameter, {{"name", name_}, {"type", type}});
    if (trim(list) == "void") edits_.push_back({p_.path(place), {static_cast<uint32_t>(open + 1), close - 1}, parameter});
    else appendParameter(p_, scan_, place.file, static_cast<uint32_t>(open), close, parameter, edits_);
    for (Place access : accesses) edits_.push_back({p_.path(access), p_.node(access).span, name_});
    return "";
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Language& language_;
  const Handing* h_ = nullptr;
  const Mending* m_ = nullptr;
  std::string name_;  // of the parameter
  std::set<FunctionIndex> givenAway_;
  bool lookedAtAll_ = false;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string injectParameterRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return HandIn(analysis, entity, memory).refusal();
}

NextStep nextInjectParameterStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return HandIn(analysis, entity, memory).run(); }

}  // namespace elmcart

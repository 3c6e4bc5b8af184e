#include "rework/enforce.h"

#include <algorithm>

#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

class Enforcer {
 public:
  Enforcer(const Analysis& analysis, size_t entity, PlanMemory& memory)
      // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
      : p_(analysis.program), e_(analysis.survey.entities[entity]), memory_(memory), scan_(analysis.program), s_(p_.language(e_.place.file).sound) {}

  std::string refusal() const {
    if (e_.kind != EntityKind::Singleton || e_.type == kNone || !p_.types[e_.type].definition.known()) return "enforce is for classes that are handed out as one instance, and this is a " + std::string(kindText(e_.kind));
    return "";
  }

  NextStep run() {
    NextStep out;
    out.finished = true;
    using Closing = std::string (Enforcer::*)(Step&);
    for (Closing closing : {&Enforcer::constructor, &Enforcer::copies, &Enforcer::subclasses, &Enforcer::clones, &Enforcer::revival}) {
      edits_.clear();
      Step step;
      step.kind = StepKind::Enforce;
      std::string reason = (this->*closing)(step);
      if (!reason.empty()) {
        out.byHand.push_back({p_.path(p_.types[e_.type].definition), p_.line(p_.types[e_.type].definition), reason, true});
        out.finished = false;
        continue;
      }
      if (edits_.empty() || memory_.refused.count(step.key())) continue;
      step.edits = edits_;
      out.found = true;
      out.step = std::move(step);
      return out;
    }
    return out;
  }

 private:
  std::string className() const { return std::string(p_.text(p_.types[e_.type].name)); }
  const TypeDecl& type() const { return p_.types[e_.type]; }
  bool classLabels() const { return p_.language(e_.place.file).owning != nullptr; }  // access stands in front of groups of members

  // In front of the first member that is a function, or at the end of the fields.
  void addMember(const std::string& pattern, const std::string& value = "") {
    std::string indent = memberIndent(p_, scan_, e_.type), unit = unitIndent(p_, scan_, e_.type);
    std::string text = laidOut(scan_, filled(pattern, {{"class", className()}, {"value", value}}), type().definition.file, indent, unit);
    Place before;
    for (FunctionIndex m : type().methods) {
      Place place = p_.functions[m].declarations.front();
      if (place.file == type().definition.file && (!before.known() || p_.node(place).span.begin < p_.node(before).span.begin)) before = place;
    }
    std::string newline = scan_.newlineOf(type().definition.file);
    uint32_t open = scan_.bodyOpen(e_.type) + 1;
    bool sharesLine = before.known() && scan_.lineBegin(before.file, p_.node(before).span.begin) < open;  // with the class's own head
    if (!before.known() || sharesLine) {
      edits_.push_back({p_.path(type().definition), {open, open}, newline + indent + text + newline + (sharesLine ? indent : "")});
      return;
    }
    uint32_t at = scan_.withLinesAbove(before.file, scan_.lineBegin(before.file, p_.node(before).span.begin), {"//", "/*", "*", "@", "["});  // above what documents it
    edits_.push_back({p_.path(before), {at, at}, indent + text + newline + newline});
  }

  std::string constructor(Step& step) {
    step.subject = className() + "'s constructor";
    step.title = "only " + className() + " itself can make an instance";
    bool any = false;
    for (FunctionIndex m : type().methods) {
      const Function& fn = p_.functions[m];
      if (fn.form != FunctionForm::Constructor || (fn.modifiers & kDeleted)) continue;
      bool copies = fn.parameters.size() == 1 && p_.use(p_.variables[fn.parameters[0]].type).decl == e_.type;
      if (copies) continue;
      any = true;
      if (fn.modifiers & kPrivate) continue;
      if (!type().derived.empty() && (fn.modifiers & kProtected)) continue;
      for (uint32_t c : p_.creationsOfType[e_.type])
        if (p_.creations[c].constructor == m && p_.creations[c].place != e_.creation.place && (p_.creations[c].in == kNone || p_.functions[p_.creations[c].in].owner != e_.type) && !p_.creations[c].asBase)
          return "its constructor is used at " + p_.path(p_.creations[c].place) + ":" + std::to_string(p_.line(p_.creations[c].place)) + ": hand that place the one instance first";
      if (std::string reason = close(fn.declarations.front()); !reason.empty()) return reason;
    }
    if (any) return "";
    if (classLabels()) {
      if (p_.creationsOfType[e_.type].size() <= 1) scan_.addPrivateMember(e_.type, className() + "() = default;", edits_);
      return "";
    }
    if (!s_->closedConstructor.empty() && type().form == TypeForm::Class) addMember(std::string(s_->closedConstructor));
    return "";
  }

  // One constructor becomes private.
  std::string close(Place place) {
    std::string_view source = scan_.text(place.file);
    const Node& node = p_.node(place);
    if (classLabels()) {
      std::string text = scan_.nodeText(place);
      if (text.find('\n') != std::string::npos) return "its constructor has a body in the class: move it into a private part by hand";
      scan_.addPrivateMember(e_.type, text, edits_);
      scan_.removeLines(place, edits_);
      return "";
    }
    for (std::string_view word : {"public ", "protected ", "internal "}) {
      size_t at = source.substr(node.span.begin, node.span.size()).find(word);
      size_t name = node.nameBegin - node.span.begin;
      if (at == std::string_view::npos || at > std::max<size_t>(name, 1)) continue;
      uint32_t begin = node.span.begin + static_cast<uint32_t>(at);
      edits_.push_back({p_.path(place), {begin, begin + static_cast<uint32_t>(word.size())}, "private "});
      return "";
    }
    if (s_->closedConstructor.empty()) return "";
    // Without a word of its own: in front of its name, behind what marks it.
    uint32_t at = node.span.begin;
    if (source[at] == '@') at = node.nameBegin;
    edits_.push_back({p_.path(place), {at, at}, "private "});
    return "";
  }

  std::string copies(Step& step) {
    step.subject = className() + "'s copies";
    step.title = className() + " cannot be copied any more";
    if (s_->noCopies.empty() || !p_.isCopyable(e_.type, type().definition.file)) return "";
    // In the public part, each on its line.
    std::string text = filled(s_->noCopies, {{"class", className()}});
    std::vector<std::string> lines = splitLines(text);
    std::string joined;
    for (const std::string& line : lines) joined += (joined.empty() ? "" : scan_.newlineOf(type().definition.file) + memberIndent(p_, scan_, e_.type)) + line;
    scan_.addPublicMember(e_.type, joined, edits_);
    return "";
  }

  std::string subclasses(Step& step) {
    step.subject = className() + "'s subclasses";
    step.title = className() + " cannot be derived from any more";
    if (s_->noSubclass.empty() || (type().modifiers & (kFinal | kAbstract)) || !type().derived.empty() || type().form != TypeForm::Class) return "";
    std::string_view source = scan_.text(type().definition.file);
    const Node& node = p_.node(type().definition);
    if (classLabels()) {
      uint32_t end = node.nameBegin + static_cast<uint32_t>(className().size());
      edits_.push_back({p_.path(type().definition), {end, end}, " " + std::string(s_->noSubclass)});
      return "";
    }
    // In front of the word `class`.
    size_t at = source.substr(node.span.begin, node.nameBegin - node.span.begin).rfind("class");
    if (at == std::string_view::npos) return "";
    std::string_view head = source.substr(node.span.begin, at);
    if (head.find(trim(s_->noSubclass)) != std::string_view::npos || head.find("static") != std::string_view::npos) return "";
    uint32_t begin = node.span.begin + static_cast<uint32_t>(at);
    edits_.push_back({p_.path(type().definition), {begin, begin}, std::string(s_->noSubclass)});
    return "";
  }

  bool hasMethod(std::string_view name) const {
    return std::any_of(type().methods.begin(), type().methods.end(), [&](FunctionIndex m) { return p_.text(p_.functions[m].name) == name; });
  }

  std::string clones(Step& step) {
    step.subject = className() + "'s clones";
    step.title = className() + " cannot be cloned any more";
    if (!s_->noClone.empty() && p_.guarantees(type().definition.file).clonesByDefault.holds && !hasMethod("__clone")) addMember(std::string(s_->noClone));
    return "";
  }

  std::string revival(Step& step) {
    step.subject = className() + "'s reading back";
    step.title = "deserialising a " + className() + " returns the existing instance";
    const Guarantees& g = p_.guarantees(type().definition.file);
    if (s_->noRevival.empty() || g.revivableBase.empty() || hasMethod(g.reviveHook)) return "";
    bool revivable = false;
    for (const Base& base : type().bases) revivable |= lastPart(p_.text(p_.use(base.use).name)) == g.revivableBase;
    if (!revivable) return "";
    for (const AccessPoint& accessPoint : e_.accessPoints)
      if (accessPoint.function != kNone && p_.functions[accessPoint.function].owner == e_.type && p_.functions[accessPoint.function].mostArguments == 0) {
        addMember(std::string(s_->noRevival), std::string(p_.text(p_.functions[accessPoint.function].name)) + "()");
        return "";
      }
    return "it can be stored and read back, and no accessor of its own hands out the one that is there";
  }

  const Program& p_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Sound* s_ = nullptr;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string enforceRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return Enforcer(analysis, entity, memory).refusal();
}

NextStep nextEnforceStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return Enforcer(analysis, entity, memory).run(); }

}  // namespace elmcart

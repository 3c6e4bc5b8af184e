#include "rework/field_seam.h"

#include <algorithm>
#include <map>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/access.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class FieldSeam {
 public:
  FieldSeam(const Analysis& a, size_t entity, PlanMemory& memory)
      : a_(a), p_(a.program), e_(a.survey.entities[entity]), memory_(memory),
        // elmcart: accept tie.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), m_(p_.language(e_.place.file).mending) {}

  std::string refusal() const {
    if (e_.kind != EntityKind::Singleton && e_.kind != EntityKind::SharedInstance && e_.kind != EntityKind::Ambient) return "inject is for singletons and shared instances, and this is a " + std::string(kindText(e_.kind));
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (e_.reset.known()) return "its slot is replaced at " + p_.path(e_.reset) + ":" + std::to_string(p_.line(e_.reset)) + ": what a field keeps would be another";
    bool plain = false;
    for (const Door& door : e_.doors) plain |= door.function != kNone && p_.functions[door.function].mostArguments == 0;
    return plain ? "" : "it has no accessor that takes no arguments";
  }

  NextStep run() {
    NextStep out;
    std::map<TypeIndex, std::vector<std::pair<Place, FunctionIndex>>> work;
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || c.in == kNone || matchesAny(a_.config.tests, p_.path(c.place))) continue;
      Place access = accessOf(p_, e_, c.place);
      const Function& in = p_.functions[c.in];
      if (!access.known() || in.owner == e_.type) continue;
      if (in.owner == kNone || in.isStaticMember()) {
        bool own = std::any_of(e_.doors.begin(), e_.doors.end(), [&](const Door& d) { return d.function == c.in; });
        bool start = in.form == FunctionForm::Initialiser || p_.text(in.name) == "main" || p_.text(in.name) == "init";
        if (!own && !start) out.byHand.push_back({p_.path(access), p_.line(access), functionText(p_, c.in) + " belongs to no object: the move hand-in gives it a parameter", false});
        continue;
      }
      // What an earlier step put in fetches it by default.
      if (p_.text(in.name) == helperName()) continue;
      work[in.owner].emplace_back(access, c.in);
    }
    std::vector<TypeIndex> order;
    for (auto& [type, accesses] : work) order.push_back(type);
    std::sort(order.begin(), order.end(), [&](TypeIndex x, TypeIndex y) { return std::make_pair(p_.path(p_.types[x].definition), p_.line(p_.types[x].definition)) < std::make_pair(p_.path(p_.types[y].definition), p_.line(p_.types[y].definition)); });
    for (TypeIndex type : order) {
      edits_.clear();
      Step step;
      step.kind = StepKind::Seam;
      step.subject = std::string(p_.text(p_.types[type].qualified));
      std::string reason = write(type, work[type]);
      if (reason.empty() && memory_.refused.count(step.key())) reason = kTakenBack;
      if (!reason.empty()) {
        out.byHand.push_back({p_.path(work[type].front().first), p_.line(work[type].front().first), reason, true});
        continue;
      }
      step.title = std::string(p_.text(p_.types[type].name)) + " has a field for the " + plainName(p_, e_.type) + "; while it is empty it fetches it as before";
      step.callSites = work[type].size();
      step.edits = std::move(edits_);
      out.found = true;
      out.step = std::move(step);
      return out;
    }
    out.finished = std::none_of(out.byHand.begin(), out.byHand.end(), [](const ByHand& b) { return b.blocksRetire; });
    return out;
  }

 private:
  // BerthBook: berthBook, without what a whole tree's names begin with.
  std::string fieldName() const {
    std::string name = plainName(p_, e_.type);
    size_t upper = 0;
    while (upper < name.size() && std::isupper(static_cast<unsigned char>(name[upper]))) ++upper;
    if (upper > 1 && upper < name.size()) name = name.substr(upper - 1);
    name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
    return name;
  }
  std::string helperName() const {
    std::string field = fieldName(), capital = field;
    capital[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(capital[0])));
    return filled(m_->seamHelperName, {{"field", field}, {"Field", capital}});
  }

  // What the object is called inside of a function; empty: nothing.
  std::string itself(FunctionIndex f) {
    if (!m_->seamSelf.empty()) return std::string(m_->seamSelf);
    std::string word = wordForObject(p_, scan_, p_.functions[f].definition);
    return word.empty() ? objectNamedInFront(p_, scan_, p_.functions[f].definition) : word;
  }

  std::string write(TypeIndex type, const std::vector<std::pair<Place, FunctionIndex>>& accesses) {
    const TypeDecl& decl = p_.types[type];
    Place first = accesses.front().first;
    if (!decl.definition.known()) return "its class could not be read";
    if (!p_.symbolAt(first).is(Symbol::Sort::Function)) return "its slot is reached without an accessor";
    FunctionIndex door = p_.symbolAt(first).index();
    std::string field = fieldName(), helper = helperName(), named = itself(accesses.front().second);
    bool there = std::any_of(decl.methods.begin(), decl.methods.end(), [&](FunctionIndex m) { return p_.text(p_.functions[m].name) == helper; });
    std::string typeName = m_->seamTypeOfClass ? plainName(p_, e_.type) : typeHandedOut(p_, scan_, first, door);
    if (typeName.empty()) return "the class of the object cannot be named in this file: give it an exported name, or take an interface by hand";
    for (VariableIndex v : decl.fields)
      if (!there && p_.text(p_.variables[v].name) == field) return std::string(p_.text(decl.name)) + " has a field " + field + " already";
    std::string receiver = named.empty() ? "it" : named;
    std::vector<std::pair<std::string_view, std::string>> words = {{"field", field}, {"helper", helper}, {"type", typeName}, {"class", std::string(p_.text(decl.name))}, {"value", scan_.nodeText(first)}, {"this", receiver}};
    if (!there) {
      if (std::string reason = addField(type, filled(m_->seamField, words)); !reason.empty()) return reason;
      if (std::string reason = addHelper(type, accesses.front().second, filled(m_->seamHelper, words)); !reason.empty()) return reason;
    }
    for (auto& [access, in] : accesses) {
      std::string self = itself(in);
      if (self.empty()) return functionText(p_, in) + " has no name for its object";
      edits_.push_back({p_.path(access), p_.node(access).span, filled(m_->seamUse, {{"this", self}, {"field", field}, {"helper", helper}})});
    }
    return "";
  }

  // Behind the last field, or where the class's body opens.
  std::string addField(TypeIndex type, const std::string& line) {
    Place home = p_.types[type].definition;
    std::string_view source = scan_.text(home.file);
    std::string newline = scan_.newlineOf(home.file);
    if (m_->seamFieldInInterface) {
      // In front of the first member that is declared there.
      uint32_t at = 0;
      for (FunctionIndex m : p_.types[type].methods)
        for (Place place : p_.functions[m].declarations)
          if (place.file == home.file && p_.isInside(place, home.node)) {
            uint32_t begin = scan_.lineBegin(place.file, p_.node(place).span.begin);
            if (at == 0 || begin < at) at = begin;
          }
      if (at == 0) {
        size_t end = source.rfind("@end", p_.node(home).span.end);
        if (end == std::string_view::npos || end < p_.node(home).span.begin) return "the interface of its class could not be read";
        at = scan_.lineBegin(home.file, static_cast<uint32_t>(end));
      }
      at = scan_.withLinesAbove(home.file, at, {"//", "/*", "*"});
      edits_.push_back({p_.path(home), {at, at}, line + newline});
      return "";
    }
    uint32_t open = scan_.bodyOpen(type);
    size_t close = open < source.size() ? source.find('}', open) : std::string_view::npos;
    if (close == std::string_view::npos) return "the body of its class could not be read";
    uint32_t last = 0;
    for (VariableIndex v : p_.types[type].fields)
      for (Place place : p_.variables[v].declarations)
        if (place.file == home.file && p_.isInside(place, home.node)) last = std::max(last, p_.node(place).span.end);
    std::string indent = scan_.indentOf(home) + "\t";
    if (last > 0) {
      uint32_t end = scan_.contentEnd(home.file, last);
      if (end > close) return "the fields of its class stand on one line";
      // Apart from the others, which stay in line.
      edits_.push_back({p_.path(home), {end, end}, newline + newline + indent + line});
    } else {
      bool apart = open > 0 && source[open - 1] == ' ';
      edits_.push_back({p_.path(home), {open, static_cast<uint32_t>(close + 1)}, std::string(apart ? "" : " ") + "{" + newline + indent + line + newline + scan_.indentOf(home) + "}"});
    }
    return "";
  }

  // In front of the function that uses it first, with what documents that.
  std::string addHelper(TypeIndex type, FunctionIndex user, const std::string& pattern) {
    Place place = p_.functions[user].definition;
    for (FunctionIndex m : p_.types[type].methods) {
      Place other = p_.functions[m].definition;
      if (other.known() && other.file == place.file && p_.node(other).span.begin < p_.node(place).span.begin && !p_.functions[m].isStaticMember()) place = other;
    }
    uint32_t at = scan_.withLinesAbove(place.file, scan_.lineBegin(place.file, p_.node(place).span.begin), {"//", "/*", "*"});
    std::string newline = scan_.newlineOf(place.file);
    edits_.push_back({p_.path(place), {at, at}, laidOut(scan_, pattern, place.file, "", unitOfFile(scan_, place.file)) + newline + newline});
    return "";
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Mending* m_ = nullptr;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string fieldSeamRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return FieldSeam(analysis, entity, memory).refusal();
}

NextStep nextFieldSeamStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return FieldSeam(analysis, entity, memory).run(); }

}  // namespace elmcart

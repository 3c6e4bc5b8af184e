#include "rework/retire.h"

#include <algorithm>
#include <optional>

#include "base/text.h"
#include "rework/access.h"
#include "rework/accessor.h"
#include "rework/parameter.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class Retirement {
 public:
  Retirement(const Analysis& a, size_t entity, const LocalObject& local)
      // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
      : a_(a), p_(a.program), e_(a.survey.entities[entity]), local_(local), word_(local.name), scan_(a.program), settling_(p_.language(e_.place.file).settling), made_(e_.type) {}

  // Where the program's first function alone, or the code of one file, still fetches the object, to
  // hand it in, the object is made there: accessor and slot go.
  std::optional<Step> run() {
    const Settling* s = settling_;
    if (!s || s->local.empty() || e_.slot == kNone || !p_.variables[e_.slot].lives() || !e_.creation.place.known()) return std::nullopt;
    std::vector<Place> accesses;
    FunctionIndex in = kNone;
    for (const Consumer& c : e_.consumers) {
      Place access = accessOf(p_, e_, c.place);
      bool own = c.in != kNone && (p_.functions[c.in].owner == made_ || c.in == e_.creation.in || std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == c.in; }));
      if (own) continue;
      if (!access.known() || c.alias != kNone || inTests(access) || !sameLanguage(access)) return std::nullopt;
      FunctionIndex here = isFileCode(c.in) ? kNone : c.in;
      bool apart = !accesses.empty() && (in != here || access.file != accesses.front().file);
      bool ofClass = here == kNone ? p_.around(access, Kind::Type).node != kNoNode : isOfObject(here) || p_.functions[here].form == FunctionForm::Initialiser;
      if (apart || ofClass || p_.around(access, Kind::Lambda).node != kNoNode || p_.around(access, Kind::Loop).node != kNoNode) return std::nullopt;
      in = here;
      if (std::find(accesses.begin(), accesses.end(), access) == accesses.end()) accesses.push_back(access);
    }
    // What may run twice would make two.
    bool once = (in == kNone && !local_.read) || (in != kNone && lowerCase(p_.text(p_.functions[in].name)) == "main");
    if (accesses.empty() || !once) return std::nullopt;
    // A variable of the very code that hands it in is there already.
    if (in == kNone && p_.variables[e_.slot].storage == Storage::Global && p_.variables[e_.slot].declarations.front().file == accesses.front().file &&
        std::none_of(e_.accessPoints.begin(), e_.accessPoints.end(), [](const AccessPoint& d) { return d.function != kNone; }))
      return std::nullopt;
    std::sort(accesses.begin(), accesses.end(), [&](Place x, Place y) { return p_.node(x).span.begin < p_.node(y).span.begin; });
    Place first = accesses.front();
    std::string type = plainName(p_, made_), creation;
    if (!creationElsewhere(p_, scan_, e_, creation).empty() || !holdsWord(scan_.text(first.file), type) || isNamedElsewhere(accesses)) return std::nullopt;
    for (const Variable& v : p_.variables)
      if (p_.text(v.name) == word_ && !(local_.read && p_.use(v.type).decl == made_ && p_.use(v.type).has(kReference)) && (in != kNone ? v.function == in : v.declarations.front().file == first.file && v.function == kNone && v.owner == kNone)) return std::nullopt;
    // In front of the statement of that code's own block that fetches it first.
    Place body = in != kNone ? Place{first.file, p_.file(first).child(p_.functions[in].definition.node, Role::Body)} : Place{first.file, 0}, statement = first;
    auto isOuter = [&](Place place) {
      if (place == body || in != kNone || place.node == 0) return place == body;
      if (p_.node(place).kind == Kind::Block) place = p_.parent(place);
      return p_.node(place).kind == Kind::Namespace || (p_.node(place).kind == Kind::Function && p_.symbolAt(place).is(Symbol::Sort::Function) && isFileCode(p_.symbolAt(place).index()));
    };
    while (statement.node != kNoNode && !isOuter(p_.parent(statement))) statement = p_.parent(statement);
    if (statement.node == kNoNode || (in != kNone && (body.node == kNoNode || p_.functions[in].definition.file != first.file))) return std::nullopt;
    uint32_t line = scan_.lineBegin(first.file, p_.node(statement).span.begin);
    std::string local = filled(s->local, {{"type", local_.typeAt(statement)}, {"name", word_}, {"value", creation}});
    // The statement may begin with a type, but nothing else may stand in front of it than what opens its block.
    std::string_view before = scan_.text(first.file).substr(line, p_.node(statement).span.begin - line);
    bool opens = before.find_first_of(";}?") == std::string_view::npos && trim(before).ends_with('{') && statement == Place{first.file, p_.node(body).firstChild};
    if (!opens && before.find_first_of(";{}?") != std::string_view::npos) return std::nullopt;
    if (opens) edits_.push_back({p_.path(first), {p_.node(statement).span.begin, p_.node(statement).span.begin}, local + " "});
    else edits_.push_back({p_.path(first), {line, line}, scan_.indentOf(statement) + local + scan_.newlineOf(first.file)});
    std::string use = s->local[0] == '$' ? "$" + word_ : word_;
    if (local_.read) local_.read(accesses, edits_);
    else
      for (Place access : accesses) edits_.push_back({p_.path(access), p_.node(access).span, use});
    if (!openConstructor(p_, scan_, e_, first.file, edits_).empty() || !removeAccessor(p_, scan_, e_, edits_, accesses).empty()) return std::nullopt;
    Step step;
    step.kind = StepKind::Retire;
    step.endsAccessor = true;
    step.subject = std::string(p_.text(p_.types[made_].qualified));
    step.title = "the accessor of " + type + " goes: " + (in != kNone ? functionText(p_, in) : p_.path(first)) + " makes it and hands it in";
    step.callSites = accesses.size();
    step.edits = std::move(edits_);
    return step;
  }

 private:
  bool inTests(Place place) const { return a_.config.tests.match(p_.path(place)); }
  bool sameLanguage(Place place) const { return p_.language(place.file).settling == settling_; }
  // Does something of an object of a class happen in `in`?
  bool isOfObject(FunctionIndex in) const { return p_.functions[in].owner != kNone && !p_.functions[in].isStaticMember(); }

  // What a file does when it is loaded or run.
  bool isFileCode(FunctionIndex f) const { return f != kNone && p_.functions[f].form == FunctionForm::Initialiser && p_.functions[f].owner == kNone; }

  // Is an accessor or slot that is no member of a class named in another file, by an import say?
  bool isNamedElsewhere(const std::vector<Place>& replaced) {
    std::vector<std::pair<std::string, FileIndex>> names;
    for (const AccessPoint& accessPoint : e_.accessPoints)
      if (accessPoint.function != kNone && p_.functions[accessPoint.function].owner == kNone) names.emplace_back(p_.text(p_.functions[accessPoint.function].name), p_.functions[accessPoint.function].declarations.front().file);
    if (const Variable& slot = p_.variables[e_.slot]; slot.storage == Storage::Global) names.emplace_back(p_.text(slot.name), slot.declarations.front().file);
    for (auto& [name, home] : names)
      for (FileIndex f = 0; f < p_.files.size(); ++f) {
        if (f == home || p_.language(f).settling != settling_) continue;
        std::string text(scan_.text(f));
        for (Place place : replaced)
          if (place.file == f) std::fill_n(text.begin() + p_.node(place).span.begin, p_.node(place).span.size(), ' ');
        if (holdsWord(text, name)) return true;
      }
    return false;
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  const LocalObject& local_;
  const std::string& word_;
  SourceScan scan_;
  const Settling* settling_;
  TypeIndex made_;
  std::vector<FileEdit> edits_;
};

}  // namespace

RetireStep planRetirement(const Analysis& analysis, size_t entity, const LocalObject& local) {
  RetireStep out;
  if (std::optional<Step> step = Retirement(analysis, entity, local).run()) {
    out.found = true;
    out.step = std::move(*step);
  }
  return out;
}

}  // namespace elmcart

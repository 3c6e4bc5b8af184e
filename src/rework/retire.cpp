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
  // hand it in, the object is made there: accessor and slot go. So it is in tests, where they are handed it too.
  std::optional<Step> run() {
    if (!settling_ || settling_->local.empty() || e_.slot == kNone || !p_.variables[e_.slot].lives() || !e_.creation.place.known() || !collect()) return std::nullopt;
    std::string type = plainName(p_, made_), title;
    if (!creationElsewhere(p_, scan_, e_, creation_).empty() || isNamedElsewhere(all_)) return std::nullopt;
    for (const Maker& maker : makers_) {
      if (!holdsWord(scan_.text(maker.accesses.front().file), type) || !(maker.fixture != kNone ? makeInFixture(maker) : makeIn(maker))) return std::nullopt;
      if (!inTests(maker.accesses.front())) title = maker.in != kNone ? functionText(p_, maker.in) : p_.path(maker.accesses.front());
    }
    if (!openConstructor(p_, scan_, e_, makers_.front().accesses.front().file, edits_).empty() || !removeAccessor(p_, scan_, e_, edits_, all_).empty()) return std::nullopt;
    size_t tests = makers_.size() - !title.empty();
    if (tests > 0) title += (title.empty() ? "" : " and ") + counted(tests, "test or fixture", "tests and fixtures");
    bool one = makers_.size() == 1;
    Step step;
    step.kind = StepKind::Retire;
    step.endsAccessor = true;
    step.subject = std::string(p_.text(p_.types[made_].qualified));
    step.title = "the accessor of " + type + " goes: " + title + (one ? " makes it and hands it in" : " make their own and hand it in");
    step.callSites = all_.size();
    step.edits = std::move(edits_);
    return step;
  }

 private:
  // Who makes an object of its own then: a function, the code of a file, or a fixture that a framework makes for tests.
  struct Maker {
    FunctionIndex in = kNone;
    TypeIndex fixture = kNone;
    std::vector<Place> accesses;
  };

  // The class of the test that it stands in; kNone: a test of no class.
  TypeIndex fixtureAround(const Consumer& c) const {
    if (c.in == kNone) return c.inInitialiserOf == kNone ? kNone : p_.variables[c.inInitialiserOf].owner;
    if (p_.functions[c.in].fixture != kNone) return p_.functions[c.in].fixture;
    return isOfObject(c.in) ? p_.functions[c.in].owner : kNone;
  }

  bool collect() {
    for (const Consumer& c : e_.consumers) {
      Place access = accessOf(p_, e_, c.place);
      bool own = c.in != kNone && (p_.functions[c.in].owner == made_ || c.in == e_.creation.in || std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == c.in; }));
      if (own || (c.alias != kNone && local_.read)) continue;  // what refers to the object refers to the new one
      if (!access.known() || c.alias != kNone || !sameLanguage(access) || p_.around(access, Kind::Lambda).node != kNoNode) return false;
      Maker maker{isFileCode(c.in) ? kNone : c.in, kNone, {}};
      if (inTests(access)) {
        if (!local_.read) return false;
        maker.fixture = fixtureAround(c);
        if (maker.fixture != kNone) maker.in = kNone;
        else if (maker.in == kNone) return false;
      } else {
        bool ofClass = maker.in == kNone ? p_.around(access, Kind::Type).node != kNoNode : isOfObject(maker.in) || p_.functions[maker.in].form == FunctionForm::Initialiser;
        // What may run twice would make two.
        bool once = maker.in == kNone ? !local_.read : lowerCase(p_.text(p_.functions[maker.in].name)) == "main";
        if (ofClass || !once || p_.around(access, Kind::Loop).node != kNoNode) return false;
      }
      auto found = std::find_if(makers_.begin(), makers_.end(), [&](const Maker& m) { return m.in == maker.in && m.fixture == maker.fixture && (maker.in != kNone || maker.fixture != kNone || m.accesses.front().file == access.file); });
      if (found == makers_.end()) found = makers_.insert(makers_.end(), maker);
      if (std::find(found->accesses.begin(), found->accesses.end(), access) == found->accesses.end()) found->accesses.push_back(access), all_.push_back(access);
    }
    // Of the program itself only one.
    if (makers_.empty() || std::count_if(makers_.begin(), makers_.end(), [&](const Maker& m) { return !inTests(m.accesses.front()); }) > 1) return false;
    for (Maker& m : makers_) std::sort(m.accesses.begin(), m.accesses.end(), [&](Place x, Place y) { return p_.node(x).span.begin < p_.node(y).span.begin; });
    return true;
  }

  // A statement makes it in front of the one of that code's own block that fetches it first.
  bool makeIn(const Maker& maker) {
    FunctionIndex in = maker.in;
    Place first = maker.accesses.front();
    // A variable of the very code that hands it in is there already.
    if (in == kNone && p_.variables[e_.slot].storage == Storage::Global && p_.variables[e_.slot].declarations.front().file == first.file && std::none_of(e_.accessPoints.begin(), e_.accessPoints.end(), [](const AccessPoint& d) { return d.function != kNone; })) return false;
    for (const Variable& v : p_.variables)
      if (p_.text(v.name) == word_ && !(local_.read && p_.use(v.type).decl == made_ && p_.use(v.type).has(kReference)) && (in != kNone ? v.function == in : v.declarations.front().file == first.file && v.function == kNone && v.owner == kNone)) return false;
    Place body = in != kNone ? Place{first.file, p_.file(first).child(p_.functions[in].definition.node, Role::Body)} : Place{first.file, 0}, statement = first;
    auto isOuter = [&](Place place) {
      if (place == body || in != kNone || place.node == 0) return place == body;
      if (p_.node(place).kind == Kind::Block) place = p_.parent(place);
      return p_.node(place).kind == Kind::Namespace || (p_.node(place).kind == Kind::Function && p_.symbolAt(place).is(Symbol::Sort::Function) && isFileCode(p_.symbolAt(place).index()));
    };
    while (statement.node != kNoNode && !isOuter(p_.parent(statement))) statement = p_.parent(statement);
    if (statement.node == kNoNode || (in != kNone && (body.node == kNoNode || p_.functions[in].definition.file != first.file))) return false;
    uint32_t line = scan_.lineBegin(first.file, p_.node(statement).span.begin);
    std::string local = made(statement, word_);
    // The statement may begin with a type, but nothing else may stand in front of it than what opens its block.
    std::string_view before = scan_.text(first.file).substr(line, p_.node(statement).span.begin - line);
    bool opens = before.find_first_of(";}?") == std::string_view::npos && trim(before).ends_with('{') && statement == Place{first.file, p_.node(body).firstChild};
    if (!opens && before.find_first_of(";{}?") != std::string_view::npos) return false;
    if (opens) edits_.push_back({p_.path(first), {p_.node(statement).span.begin, p_.node(statement).span.begin}, local + " "});
    else edits_.push_back({p_.path(first), {line, line}, scan_.indentOf(statement) + local + scan_.newlineOf(first.file)});
    if (local_.read) return local_.read(maker.accesses, word_, edits_), true;
    std::string use = settling_->local[0] == '$' ? "$" + word_ : word_;
    for (Place access : maker.accesses) edits_.push_back({p_.path(access), p_.node(access).span, use});
    return true;
  }
  // A field makes it, in front of all others.
  bool makeInFixture(const Maker& maker) {
    const TypeDecl& decl = p_.types[maker.fixture];
    std::string name = local_.fieldOf(maker.fixture), field = made(decl.definition, name);
    bool outside = std::any_of(maker.accesses.begin(), maker.accesses.end(), [&](Place access) { return !p_.isInside(access, decl.definition.node) || access.file != decl.definition.file; });
    if (decl.fields.empty()) scan_.addPublicMember(maker.fixture, field, edits_);
    else if (outside && (p_.variables[decl.fields.front()].modifiers & kPrivate)) return false;
    else scan_.insertLineBefore(p_.variables[decl.fields.front()].declarations.front(), field, edits_);
    local_.read(maker.accesses, name, edits_);
    return true;
  }
  std::string made(Place at, const std::string& name) const { return filled(settling_->local, {{"type", local_.typeAt(at)}, {"name", name}, {"value", creation_}}); }

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
  std::string creation_;
  std::vector<Maker> makers_;
  std::vector<Place> all_;
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

#include "rework/make_local.h"

#include <algorithm>
#include <set>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/access.h"
#include "rework/accessor.h"
#include "rework/parameter.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class LocalMaker {
 public:
  LocalMaker(const Analysis& a, size_t entity, PlanMemory& memory)
      : p_(a.program), config_(a.config), survey_(a.survey), e_(a.survey.entities[entity]), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program), language_(a.program.language(e_.place.file)), s_(language_.settling) {
    // One that a class hands out, or a value that a class or file keeps.
    object_ = e_.type != kNone && e_.creation.place.known() && p_.types[e_.type].definition.known() &&
              (e_.kind == EntityKind::Singleton || e_.kind == EntityKind::SharedInstance || e_.kind == EntityKind::Ambient);
  }

  std::string refusal() {
    if (e_.slot == kNone || !(p_.variables[e_.slot].lives())) return "there is no slot of its own";
    if (e_.kind == EntityKind::StaticHolder || e_.kind == EntityKind::Registry || e_.kind == EntityKind::ThreadLocal || e_.kind == EntityKind::ContainerManaged || e_.kind == EntityKind::FunctionStatic) return "make-local is for one piece of state, and this is a " + std::string(kindText(e_.kind));
    if (e_.madeByAsking) return "it is reached by making it: give it an accessor first";
    if (object_ && e_.reset.known()) return "its slot is replaced at " + at(e_.reset);
    if (TypeIndex owner = p_.variables[e_.slot].owner; owner != kNone && p_.types[owner].form == TypeForm::Enum) return "it is a constant of an enum";
    if (p_.node(p_.variables[e_.slot].home()).has(kInMacro)) return "it is written by a macro";
    if (object_ && !p_.types[e_.type].typeParameters.empty()) return "its class has type parameters";
    std::string reason = findOwner();
    if (!reason.empty()) return reason;
    if (owner_ == kNone) return mayRetire() ? "" : "nothing uses it";
    return isMadeOnce(owner_, 0) ? "" : "there may be several of " + plainName(p_, owner_) + ", and each would have its own";
  }

  NextStep run() {
    (void)findOwner();
    return firstOf(1, memory_, [&](size_t) {
      bool retires = owner_ == kNone;
      Attempt out{{}, retires ? removeAccessor(p_, scan_, e_, edits_) : object_ ? writeObject() : writeValue(), p_.path(e_.place), p_.line(e_.place)};
      out.step.kind = retires ? StepKind::Retire : StepKind::MakeLocal;
      out.step.subject = retires ? plainName(p_, e_.type) : std::string(p_.text(p_.types[owner_].qualified));
      out.step.title = retires ? "what handed out the one " + plainName(p_, e_.type) + " goes: nobody asks for it any more" : plainName(p_, owner_) + " keeps its own " + (object_ ? plainName(p_, e_.type) : e_.name) + ": nobody else uses it";
      out.step.callSites = accesses_.size();
      out.step.edits = std::move(edits_);
      return out;
    });
  }

 private:
  std::string at(Place place) const { return p_.path(place) + ":" + std::to_string(p_.line(place)); }
  bool isAccessPoint(FunctionIndex f) const {
    return std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == f && f != kNone; });
  }

  // ----- who uses it

  // The one class that all accesses stand in; kNone where there is none at all. A text: why there is no such class.
  std::string findOwner() {
    owner_ = kNone;
    accesses_.clear();
    std::set<std::pair<FileIndex, NodeId>> seen;
    auto take = [&](Place access, FunctionIndex in) -> std::string {
      if (!seen.insert({access.file, access.node}).second) return "";
      if (config_.tests.match(p_.path(access))) return "tests reach it too (" + at(access) + ")";
      if (in == kNone) return "it is used outside of functions (" + at(access) + ")";
      const Function& fn = p_.functions[in];
      if (fn.owner == kNone || fn.isStaticMember() || fn.form == FunctionForm::Initialiser || fn.form == FunctionForm::Factory) return functionText(p_, in) + ", which belongs to no object, uses it (" + at(access) + ")";
      if (owner_ != kNone && owner_ != fn.owner) return plainName(p_, owner_) + " and " + plainName(p_, fn.owner) + " use it";
      owner_ = fn.owner;
      if (p_.around(access, Kind::Lambda).node != kNoNode && language_.owning) return "a lambda uses it (" + at(access) + ")";
      accesses_.emplace_back(access, in);
      return "";
    };
    if (object_) {
      for (const Consumer& c : e_.consumers) {
        if (c.alias != kNone || c.in == e_.creation.in || isAccessPoint(c.in) || (c.in != kNone && p_.functions[c.in].owner == e_.type)) continue;
        if (Place access = accessOf(p_, e_, c.place); access.known()) {
          if (std::string reason = take(access, c.in); !reason.empty()) return reason;
        } else if (c.reach) {
          return "the way by which it is reached is not written as its accessor or its name (" + at(c.place) + ")";
        }
      }
    } else {
      for (uint32_t u : p_.usesOfVariable[e_.slot]) {
        const Use& use = p_.uses[u];
        if (use.in == kNone && use.inInitialiserOf == kNone && use.place.file == p_.variables[e_.slot].home().file) continue;
        if (std::string reason = take(use.place, use.in); !reason.empty()) return reason;
      }
      const Variable& slot = p_.variables[e_.slot];
      if (owner_ != kNone && slot.owner != kNone && slot.owner != owner_) return "it belongs to " + plainName(p_, slot.owner) + ", and " + plainName(p_, owner_) + " uses it";
      if (owner_ != kNone && slot.owner == kNone && slot.definition.known() && p_.types[owner_].definition.file != slot.definition.file && !language_.owning) return "it stands in another file than the class that uses it";
    }
    if (owner_ != kNone && (!p_.types[owner_].definition.known() || &p_.language(p_.types[owner_].definition.file) != &language_)) return "the class that uses it could not be read";
    if (owner_ != kNone && p_.types[owner_].form != TypeForm::Class && p_.types[owner_].form != TypeForm::Struct) return plainName(p_, owner_) + " is no ordinary class";
    return "";
  }

  // Is there just one of the class, as far as this tree makes them?
  bool isMadeOnce(TypeIndex type, int depth) const {
    if (depth > 6) return false;
    const Creation* only = nullptr;
    for (uint32_t c : p_.creationsOfType[type]) {
      const Creation& creation = p_.creations[c];
      if (creation.delegated || config_.tests.match(p_.path(creation.place))) continue;
      if (only || creation.asBase) return false;
      only = &creation;
    }
    if (!only || p_.around(only->place, Kind::Loop).node != kNoNode || p_.around(only->place, Kind::Lambda).node != kNoNode) return false;
    for (const Entity& e : survey_.entities)
      if (e.creation.place == only->place) return true;  // shared state is made once
    return only->in == kNone ? only->inInitialiserOf == kNone || isOneOf(only->inInitialiserOf, depth) : runsOnce(only->in, depth);
  }
  bool isOneOf(VariableIndex v, int depth) const {
    const Variable& variable = p_.variables[v];
    return variable.lives() || (variable.storage == Storage::Field && variable.owner != kNone && isMadeOnce(variable.owner, depth + 1));
  }
  bool runsOnce(FunctionIndex f, int depth) const {
    const Function& fn = p_.functions[f];
    if (isMain(p_, f) || lowerCase(p_.text(fn.name)) == "main" || fn.form == FunctionForm::Initialiser) return true;
    if (depth > 6) return false;
    if (fn.form == FunctionForm::Constructor) return fn.owner != kNone && isMadeOnce(fn.owner, depth + 1);
    // A function that is called at one place, which runs once.
    const CallSite* only = nullptr;
    for (uint32_t c : p_.callsOfFunction[f]) {
      if (config_.tests.match(p_.path(p_.calls[c].place))) continue;
      if (only) return false;
      only = &p_.calls[c];
    }
    if (!only || p_.around(only->place, Kind::Loop).node != kNoNode || p_.around(only->place, Kind::Lambda).node != kNoNode) return false;
    return only->in == kNone || runsOnce(only->in, depth + 1);
  }

  // What a step before left over is no singleton any more.
  bool mayRetire() {
    if (!object_ && (e_.type == kNone || !p_.usesOfVariable[e_.slot].empty())) return false;
    std::vector<FileEdit> none;
    return removeAccessor(p_, scan_, e_, none).empty();
  }

  // ----- writing

  std::string useAt(FunctionIndex in, const std::string& field) {
    const Function& fn = p_.functions[in];
    bool taken = false;
    for (const Variable& v : p_.variables)
      taken |= v.function == in && (v.storage == Storage::Local || v.storage == Storage::Parameter) && p_.text(v.name) == field;
    std::string self = objectNamedInFront(p_, scan_, fn.definition);
    return filled(taken && !s_->shadowedUse.empty() ? s_->shadowedUse : s_->use, {{"field", field}, {"this", self}});
  }

  // The field, where it stands for the object or value. A text: why it cannot be written.
  std::string addField(const std::string& field, const std::string& type, const std::string& value) {
    const TypeDecl& decl = p_.types[owner_];
    Place home = decl.definition;
    std::string indent = memberIndent(p_, scan_, owner_), unit = unitIndent(p_, scan_, owner_);
    for (VariableIndex v : decl.fields)
      if (p_.text(p_.variables[v].name) == field) return plainName(p_, owner_) + " has a field " + field + " already";
    bool inConstructor = s_->field.empty() || (s_->constantsOnly && object_);
    std::vector<std::pair<std::string_view, std::string>> words = {{"type", type}, {"field", field}, {"value", value}};
    if (inConstructor) {
      std::string statement = filled(s_->inConstructor, {{"field", field}, {"value", value.empty() ? "None" : value}});
      std::vector<FunctionIndex> constructors;
      for (FunctionIndex m : decl.methods)
        if (p_.functions[m].form == FunctionForm::Constructor && p_.functions[m].definition.known()) constructors.push_back(m);
      if (constructors.size() > 1) return plainName(p_, owner_) + " has several constructors: decide which of them makes it";
      if (constructors.size() == 1) {
        Place place = p_.functions[constructors.front()].definition;
        NodeId body = p_.file(place).child(place.node, Role::Body);
        if (body == kNoNode) return "the constructor of " + plainName(p_, owner_) + " could not be read";
        if (std::string reason = insertFirst(p_, scan_, {place.file, body}, statement, edits_); !reason.empty()) return reason;
      } else {
        if (!decl.bases.empty() || decl.hasUnknownBase) return plainName(p_, owner_) + " has no constructor of its own, and a base class";
        if (!addMember(filled(s_->newConstructor, {{"assign", statement}}), indent, unit)) return "the body of " + plainName(p_, owner_) + " could not be read";
      }
      if (s_->field.empty()) return "";
      std::string untyped = filled(s_->untypedField, {{"field", field}});
      untyped.erase(untyped.find(" = {value}"), 10);
      return addMembers(p_, scan_, owner_, untyped, "", indent, edits_) ? "" : "the body of " + plainName(p_, owner_) + " could not be read";
    }
    std::string_view pattern = type.empty() ? s_->untypedField : s_->field;
    if (pattern.empty()) return "its type is not written";
    std::string text(pattern);
    if (size_t cut = text.find(" = {value}"); cut != std::string::npos && value.empty()) text.erase(cut, 10);
    text = filled(text, words);
    if (language_.owning) {
      addLastField(text);
      return "";
    }
    if (s_->noughtOnly) return addPlainField(text, home);
    return addMembers(p_, scan_, owner_, text, "", indent, edits_) ? "" : "the body of " + plainName(p_, owner_) + " could not be read";
  }

  // Behind the private fields that stand last.
  void addLastField(const std::string& line) {
    Place last;
    for (VariableIndex v : p_.types[owner_].fields)
      if (Place place = p_.variables[v].declarations.front(); (p_.variables[v].modifiers & kPrivate) && (!last.known() || p_.node(last).span.begin < p_.node(place).span.begin)) last = place;
    if (!last.known() || scan_.indentOf(last).size() <= scan_.indentOf(p_.types[owner_].definition).size()) return scan_.addPrivateMember(owner_, line, edits_);
    uint32_t end = scan_.contentEnd(last.file, p_.node(last).span.end);
    edits_.push_back({p_.path(last), {end, end}, scan_.newlineOf(last.file) + scan_.indentOf(last) + line});
  }

  // In front of the first member that is a function.
  bool addMember(const std::string& pattern, const std::string& indent, const std::string& unit) {
    Place home = p_.types[owner_].definition, first;
    for (FunctionIndex m : p_.types[owner_].methods) {
      Place place = p_.functions[m].declarations.front();
      if (place.file == home.file && (!first.known() || p_.node(place).span.begin < p_.node(first).span.begin)) first = place;
    }
    if (!first.known()) return false;
    uint32_t at = scan_.withLinesAbove(home.file, scan_.lineBegin(home.file, p_.node(first).span.begin), {"@", "#", "//", "/*", "*"});
    std::string newline = scan_.newlineOf(home.file);
    edits_.push_back({p_.path(home), {at, at}, indent + laidOut(scan_, pattern, home.file, indent, unit) + newline + newline});
    return true;
  }

  // Behind the last field of a class whose fields stand in brackets and whose functions stand elsewhere.
  std::string addPlainField(const std::string& text, Place home) {
    std::string_view source = scan_.text(home.file);
    uint32_t open = scan_.bodyOpen(owner_), last = 0;
    if (open >= p_.node(home).span.end) return "the fields of " + plainName(p_, owner_) + " could not be read";
    size_t close = source.find('}', open);
    for (VariableIndex v : p_.types[owner_].fields)
      for (Place place : p_.variables[v].declarations)
        if (place.file == home.file && p_.isInside(place, home.node) && p_.node(place).span.end < close) last = std::max(last, p_.node(place).span.end);
    std::string newline = scan_.newlineOf(home.file), indent = scan_.indentOf(home) + (language_.sound && unitOfFile(scan_, home.file) != "\t" ? "    " : "\t");
    if (last > 0) {
      uint32_t end = scan_.contentEnd(home.file, last);
      if (end > close) return "the fields of " + plainName(p_, owner_) + " stand on one line";
      edits_.push_back({p_.path(home), {end, end}, newline + indent + text});
    } else {
      edits_.push_back({p_.path(home), {open, static_cast<uint32_t>(close + 1)}, "{" + newline + indent + text + newline + scan_.indentOf(home) + "}"});
    }
    return "";
  }

  void replaceAccesses(const std::string& field, const std::string& around = "{use}") {
    for (auto& [access, in] : accesses_) edits_.push_back({p_.path(access), p_.node(access).span, filled(around, {{"use", useAt(in, field)}})});
  }

  // An object that a class hands out, or that stands in a file: the class makes one for itself.
  std::string writeObject() {
    if (s_->noughtOnly) return "a field of " + std::string(language_.name) + " has no first value: make the object where a " + plainName(p_, owner_) + " is made";
    std::string creation, reason = creationElsewhere(p_, scan_, e_, creation);
    if (!reason.empty()) return reason;
    std::string type = plainName(p_, e_.type), field = objectName(type, language_.handing && language_.handing->snake);
    if (language_.handing) field = std::string(language_.handing->fieldPrefix) + field;
    if (language_.owning) field += "_";
    Place home = p_.types[owner_].definition, made = p_.types[e_.type].definition;
    for (VariableIndex v : p_.types[owner_].fields)
      if (p_.text(p_.variables[v].name) == field) return plainName(p_, owner_) + " has a field " + field + " already";
    bool pointer = false;
    for (auto& [access, in] : accesses_) {
      Symbol symbol = p_.symbolAt(access);
      const TypeUse& use = p_.use(symbol.is(Symbol::Sort::Function) ? p_.functions[symbol.index()].result : symbol.is(Symbol::Sort::Variable) ? p_.variables[symbol.index()].type : 0);
      if (use.decl == kNone && language_.owning) return "it is handed out in a smart pointer, which others may keep";
      pointer |= language_.owning && use.has(kPointer);
    }
    if (language_.owning) {
      // By value, so its class must be known where the field is declared.
      std::string name(p_.text(p_.types[e_.type].qualified));
      if (p_.types[owner_].parent == p_.types[e_.type].parent) name = type;
      edits_.clear();
      if (home.file != made.file && !scan_.includes(home.file, made.file)) {
        if (scan_.includes(made.file, home.file)) return "including the class's file would make a circle";
        scan_.addInclude(home.file, filled(language_.includeLine, {{"path", scan_.spellingOf(made.file, home.file)}}), edits_);
      }
      addLastField(name + " " + field + creation + ";");
    } else {
      if (std::string why = nameTheClass(home.file, type); !why.empty()) return why;
      if (std::string why = addField(field, type, creation); !why.empty()) return why;
    }
    if (std::string why = openConstructor(p_, scan_, e_, home.file, edits_); !why.empty()) return why;
    replaceAccesses(field, pointer ? "(&{use})" : "{use}");
    return "";
  }

  // May the class's file name the other class? What names its slot or accessor in an import names the class from then on.
  std::string nameTheClass(FileIndex f, const std::string& type) {
    std::string_view source = scan_.text(f);
    if (f == p_.types[e_.type].definition.file || holdsWord(source, type) || (language_.importsInFileOnly == false && language_.bareMembers)) return "";
    for (size_t begin = 0; begin < source.size();) {
      size_t end = std::min(source.find('\n', begin), source.size());
      std::string_view line = source.substr(begin, end - begin);
      bool imports = trim(line).substr(0, 7) == "import " || trim(line).substr(0, 5) == "from ";
      for (const AccessPoint& accessPoint : e_.accessPoints) {
        std::string name = std::string(lastPart(accessPoint.name));
        name = name.substr(name.rfind('.') == std::string::npos ? 0 : name.rfind('.') + 1);
        if (!imports || !holdsWord(line, name)) continue;
        size_t at = line.rfind(name);
        edits_.push_back({p_.files[f].path, {static_cast<uint32_t>(begin + at), static_cast<uint32_t>(begin + at + name.size())}, type});
        return "";
      }
      begin = end + 1;
    }
    return "its file does not name the class " + type + ": import it first";
  }

  // A value that a class keeps for all its objects, or a file for one class.
  std::string writeValue() {
    const Variable& slot = p_.variables[e_.slot];
    Place home = p_.variables[e_.slot].home();
    std::string field(p_.text(slot.name));
    if (!field.empty() && field[0] == '$') field = field.substr(1);
    NodeId initial = p_.file(home).child(home.node, Role::Initialiser);
    std::string value = initial == kNoNode ? "" : scan_.nodeText({home.file, initial});
    NodeId written = p_.file(home).child(home.node, Role::Type);
    std::string type = written == kNoNode ? "" : scan_.nodeText({home.file, written});
    if (type == "var" || type == "auto" || type == "final") type.clear();
    bool nought = value.empty() || value == "0" || value == "nil" || value == "false" || value == "\"\"" || value == "NULL" || value == "NO";
    if (s_->noughtOnly && !nought) return "it begins with " + value + ", and a field begins at nought: set it where a " + plainName(p_, owner_) + " is made";
    if (s_->noughtOnly && type.empty()) return "its type is not written";
    if (slot.owner != kNone && !s_->staticWord.empty() && slot.owner == owner_ && !slot.declarations.empty() && p_.isInside(slot.declarations.front(), p_.types[owner_].definition.node)) {
      if (std::string reason = dropStatic(value); !reason.empty()) return reason;
    } else {
      if (language_.owning && slot.declarations.size() > 1) return "it is declared in several places";
      for (Place place : slot.declarations) {
        auto lines = declarationLines(p_, scan_, place);
        if (!lines) return "its declaration shares its line with others";
        edits_.push_back({p_.path(place), *lines, ""});
      }
      if (s_->field.find("{type}{field}") != std::string_view::npos && type.find('*') == std::string::npos) type += " ";
      if (std::string reason = addField(field, type, value); !reason.empty()) return reason;
    }
    if (language_.owning) {
      // Bare names go on meaning it; one that is qualified by the class does so too.
      for (auto& [access, in] : accesses_)
        if (useAt(in, field) != field) edits_.push_back({p_.path(access), p_.node(access).span, useAt(in, field)});
    } else {
      replaceAccesses(field);
    }
    // global served: a function says so where it meant the file's.
    dropGlobals(field);
    return "";
  }

  std::string dropStatic(const std::string& value) {
    const Variable& slot = p_.variables[e_.slot];
    for (Place place : slot.declarations) {
      bool inside = place.file == p_.types[owner_].definition.file && p_.isInside(place, p_.types[owner_].definition.node);
      if (!inside) {
        // Its definition elsewhere goes, and its value with it.
        auto lines = declarationLines(p_, scan_, place);
        if (!lines) return "its definition shares its line with others";
        edits_.push_back({p_.path(place), *lines, ""});
        continue;
      }
      std::string_view source = scan_.text(place.file);
      const Node& node = p_.node(place);
      uint32_t begin = scan_.lineBegin(place.file, node.nameBegin);
      std::string_view head = source.substr(begin, node.nameBegin - begin);
      size_t found = head.find(s_->staticWord);
      if (found == std::string_view::npos) return "its declaration could not be read";
      uint32_t from = begin + static_cast<uint32_t>(found), to = from + static_cast<uint32_t>(s_->staticWord.size());
      while (source[to] == ' ') ++to;
      if (head.substr(0, found).ends_with("inline ")) from -= 7;
      if (source.substr(to, 7) == "inline ") to += 7;
      edits_.push_back({p_.path(place), {from, to}, ""});
      bool hasValue = p_.file(place).child(place.node, Role::Initialiser) != kNoNode;
      if (!hasValue && !value.empty()) {
        uint32_t end = node.nameBegin + static_cast<uint32_t>(lastPart(p_.nameOf(place)).size());
        edits_.push_back({p_.path(place), {end, end}, " = " + value});
      }
    }
    return "";
  }

  void dropGlobals(const std::string& field) {
    std::set<FunctionIndex> functions;
    for (auto& [access, in] : accesses_) functions.insert(in);
    for (FunctionIndex f : functions) {
      Place place = p_.functions[f].definition;
      std::string_view source = scan_.text(place.file);
      const Node& node = p_.node(place);
      for (size_t line = node.span.begin; line < node.span.end;) {
        size_t end = std::min(source.find('\n', line), source.size());
        if (trim(source.substr(line, end - line)) == "global " + field) edits_.push_back({p_.path(place), {scan_.lineBegin(place.file, static_cast<uint32_t>(line)), static_cast<uint32_t>(end + 1)}, ""});
        line = end + 1;
      }
    }
  }

  const Program& p_;
  const Config& config_;
  const Survey& survey_;
  const Entity& e_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Language& language_;
  const Settling* s_ = nullptr;
  bool object_ = false;
  TypeIndex owner_ = kNone;
  std::vector<std::pair<Place, FunctionIndex>> accesses_;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string makeLocalRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return LocalMaker(analysis, entity, memory).refusal();
}

NextStep nextMakeLocalStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return LocalMaker(analysis, entity, memory).run(); }

}  // namespace elmcart

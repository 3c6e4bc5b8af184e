#include "rework/inject_collaborator.h"

#include <algorithm>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/parameter.h"
#include "rework/writing.h"

namespace elmcart {
namespace {

class Supplier {
 public:
  Supplier(const Analysis& a, TypeIndex type, PlanMemory& memory)
      : p_(a.program), type_(type), memory_(memory),
        // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
        scan_(a.program) {
    const Language& language = p_.language(p_.types[type].definition.file);
    h_ = language.handing;
    owners_ = language.owning != nullptr;
    for (const Collaborator& one : a.subject().collaborators)
      if (one.owner == type) (one.field == kNone ? inMethods_ : found_).push_back(one);
  }

  std::string refusal() const {
    if (found_.empty() && !inMethods_.empty()) return plainName(p_, inMethods_.front().type) + " is made inside a method, for each call: one that the constructor is given would serve all calls";
    if (found_.empty()) return "it makes nothing for itself that does what tests want to keep out";
    return "";
  }

  NextStep run() {
    return firstOf(found_.size(), memory_, [&](size_t i) {
      const Collaborator& one = found_[i];
      edits_.clear();
      Attempt out{{}, write(one), p_.path(one.creation), p_.line(one.creation)};
      out.step.kind = StepKind::InjectCollaborator;
      out.step.subject = std::string(p_.text(p_.types[type_].qualified)) + " " + std::string(p_.text(p_.variables[one.field].name));
      out.step.title = plainName(p_, type_) + " takes its " + plainName(p_, one.type) + " as a parameter; without one it makes it as before";
      out.step.creationSites = 1;
      out.step.edits = std::move(edits_);
      return out;
    });
  }

 private:
  std::string value(const Collaborator& one) { return scan_.nodeText(one.creation); }

  std::vector<FunctionIndex> constructors() const {
    std::vector<FunctionIndex> out;
    for (FunctionIndex m : p_.types[type_].methods)
      if (p_.functions[m].form == FunctionForm::Constructor) out.push_back(m);
    return out;
  }

  // The field's own name without what marks it as a field, or what a file calls
  // an object of the class: the first that means nothing else in the constructor.
  std::string chooseName(const Collaborator& one, FunctionIndex constructor) {
    std::string field(p_.text(p_.variables[one.field].name)), bare = field;
    if (bare.substr(0, 2) == "m_") bare = bare.substr(2);
    while (!bare.empty() && bare.front() == '_') bare.erase(0, 1);
    while (!bare.empty() && bare.back() == '_') bare.pop_back();
    std::string byType = plainName(p_, one.type);
    bool snake = owners_ ? field.find('_') != std::string::npos : h_->snake;
    std::string typed = objectName(byType, snake);
    for (const std::string& candidate : {bare, typed, snake ? "given_" + typed : "given" + byType}) {
      if (candidate.empty() || !isWordByte(candidate[0])) continue;
      if (constructor == kNone) return candidate;
      const Function& fn = p_.functions[constructor];
      bool taken = false;
      for (VariableIndex v : fn.parameters) taken |= p_.text(p_.variables[v].name) == candidate;
      // A bare name in the constructor would now mean the parameter.
      const LoweredFile& file = p_.file(fn.definition);
      forEachNode(file, fn.definition.node, [&](NodeId n) {
        bool named = (file[n].kind == Kind::Name || file[n].kind == Kind::Variable) && lastPart(file.name(n)) == candidate;
        bool member = file[n].kind == Kind::Name && n != 0 && scan_.nodeText({fn.definition.file, n}).find_first_of(".>$") != std::string::npos;
        taken |= named && !member;
      });
      if (!taken) return candidate;
    }
    return "";
  }

  std::string usedAs(const std::string& name, const std::string& made) const { return filled(h_->functionUse, {{"name", name}, {"value", made}}); }

  std::string write(const Collaborator& one) {
    if (p_.node(one.creation).has(kInMacro)) return "it is made by a macro";
    if (owners_) return writeOwned(one);
    if (!one.creation.known() || one.creation.file != p_.types[type_].definition.file) return "it is made outside of the class's file";
    if (one.in != kNone && p_.functions[one.in].form != FunctionForm::Constructor) return "it is made by " + functionText(p_, one.in) + ", whose parameters are no constructor's: give it one, and hand it in";
    if (one.in == kNone) return writeField(one);
    std::string name = chooseName(one, one.in);
    if (name.empty()) return "no name for the parameter is free in the constructor";
    if (h_->functionParameter.empty()) return writeTwin(one, one.in, name);
    if (h_->primary && p_.node(p_.functions[one.in].definition).span.begin > scan_.bodyOpen(type_)) return "it is made by a constructor that is not the class's first: decide which of them should take it";
    if (std::string reason = addOptionalParameter(p_, scan_, *h_, one.in, name, plainName(p_, one.type), edits_); !reason.empty()) return reason;
    edits_.push_back({p_.path(one.creation), p_.node(one.creation).span, bare(usedAs(name, value(one)))});
    return "";
  }

  // The whole right side needs no brackets.
  static std::string bare(const std::string& use) {
    return use.size() > 2 && use.front() == '(' && use.back() == ')' ? use.substr(1, use.size() - 2) : use;
  }

  // ----- made by the field's own initialiser

  std::string writeField(const Collaborator& one) {
    Place field = p_.variables[one.field].definition;
    NodeId initial = p_.file(field).child(field.node, Role::Initialiser);
    if (initial == kNoNode || !(Place{field.file, initial} == one.creation)) return "it is made in the middle of an expression";
    if (p_.node(field).detail != static_cast<uint8_t>(VariableForm::Plain)) return "it is made when it is first asked for";
    std::string type = plainName(p_, one.type);
    std::vector<FunctionIndex> all = constructors();
    if (h_->primary) return writePrimary(one, type);
    // Where initialisers stand in front of the body a final field is set by then.
    if (h_->functionParameter.empty() || (h_->initialisers && p_.node(field).has(kConst))) return "it is made by the field itself: move that into the constructor first";
    if (all.size() != 1) return all.empty() ? "the class has no constructor: write one that takes it" : "the class has several constructors: decide which of them should take it";
    const TypeDecl& decl = p_.types[type_];
    if (decl.hasUnknownBase || std::any_of(decl.bases.begin(), decl.bases.end(), [&](const Base& b) { return b.type == kNone || p_.types[b.type].form != TypeForm::Interface; })) return "the class has a base, whose constructor runs between the field and its own: move the field's value into the constructor first";
    Place constructor = p_.functions[all.front()].definition;
    NodeId body = constructor.known() && constructor.file == field.file ? p_.file(constructor).child(constructor.node, Role::Body) : kNoNode;
    if (body == kNoNode || p_.file(constructor)[body].kind != Kind::Block) return "its constructor has no body";
    std::string name = chooseName(one, all.front());
    if (name.empty()) return "no name for the parameter is free in the constructor";
    // Other fields are worked out before the constructor's body runs.
    for (uint32_t u : p_.usesOfVariable[one.field])
      if (p_.uses[u].inInitialiserOf != kNone && p_.uses[u].in == kNone) return "another field's value is worked out from it before the constructor's body runs";
    if (std::string reason = addOptionalParameter(p_, scan_, *h_, all.front(), name, type, edits_); !reason.empty()) return reason;
    std::string_view source = scan_.text(field.file), behind = trim(source.substr(p_.node(one.creation).span.end, 8));
    std::string_view through = h_->throughObject;
    std::string statement = filled(through, {{"field", std::string(p_.text(p_.variables[one.field].name))}, {"name", name}}) + " = " + bare(usedAs(name, value(one))) + (behind.substr(0, 1) == ";" ? ";" : "");
    // The declaration keeps its type, or is given it.
    const Node& node = p_.node(field);
    uint32_t end = p_.node(one.creation).span.begin;
    while (end > node.nameBegin && (source[end - 1] == ' ' || source[end - 1] == '=' || source[end - 1] == '\n' || source[end - 1] == '\r' || source[end - 1] == '\t')) --end;
    bool typed = p_.file(field).child(field.node, Role::Type) != kNoNode;
    bool annotates = h_->functionParameter.find(": {type}") != std::string_view::npos;
    edits_.push_back({p_.path(field), {end, p_.node(one.creation).span.end}, annotates && !typed ? ": " + type : ""});
    return insertFirst(p_, scan_, {constructor.file, body}, statement, edits_);
  }

  // class Desk(private val port: Int) { private val log = FileLog() }
  std::string writePrimary(const Collaborator& one, const std::string& type) {
    Place definition = p_.types[type_].definition;
    std::string_view source = scan_.text(definition.file);
    const Node& node = p_.node(definition);
    if (p_.types[type_].form != TypeForm::Class) return plainName(p_, type_) + " is no ordinary class: nothing can be handed to a constructor of it";
    uint32_t at = node.nameBegin + static_cast<uint32_t>(plainName(p_, type_).size()), bodyOpen = scan_.bodyOpen(type_);
    if (at < source.size() && source[at] == '<')
      while (at < bodyOpen && source[at - 1] != '>') ++at;
    std::string name = chooseName(one, kNone);
    for (VariableIndex f : p_.types[type_].fields)
      if (f != one.field && p_.text(p_.variables[f].name) == name) return "no name for the parameter is free";
    std::string parameter = filled(h_->functionParameter, {{"name", name}, {"type", type}});
    std::string_view head = source.substr(at, bodyOpen - at);
    size_t open = head.find('(');
    size_t colon = head.find(':');
    if (head.find("constructor") != std::string_view::npos) return "its constructor is marked: what calls it may not be in this tree";
    if (open != std::string_view::npos && (colon == std::string_view::npos || open < colon)) {
      uint32_t from = at + static_cast<uint32_t>(open), close = from;
      int depth = 0;
      for (; close < bodyOpen; ++close) {
        depth += source[close] == '(' ? 1 : source[close] == ')' ? -1 : 0;
        if (depth == 0) break;
      }
      if (depth != 0 || close >= bodyOpen) return "the parameters of its constructor could not be read";
      appendParameter(p_, scan_, definition.file, from, close + 1, parameter, edits_);
    } else {
      if (std::any_of(p_.types[type_].methods.begin(), p_.types[type_].methods.end(), [&](FunctionIndex m) { return p_.functions[m].form == FunctionForm::Constructor; })) return "it has no constructor behind its name, only others";
      edits_.push_back({p_.path(definition), {at, at}, "(" + parameter + ")"});
    }
    edits_.push_back({p_.path(one.creation), p_.node(one.creation).span, bare(usedAs(name, value(one)))});
    return "";
  }

  // ----- a second constructor that keeps the old parameters

  std::string writeTwin(const Collaborator& one, FunctionIndex constructor, const std::string& name) {
    Place place = p_.functions[constructor].definition;
    const Function& fn = p_.functions[constructor];
    const LoweredFile& file = p_.file(place);
    std::string_view source = scan_.text(place.file);
    const Node& node = p_.node(place);
    std::string type = plainName(p_, one.type), made = value(one);
    NodeId body = file.child(place.node, Role::Body);
    uint32_t close = scan_.parameterListEnd(place);
    size_t open = close == 0 ? std::string_view::npos : source.find('(', node.nameBegin);
    if (body == kNoNode || open == std::string_view::npos || open >= close) return "its constructor could not be read";
    for (FunctionIndex other : constructors())
      if (other != constructor && p_.functions[other].parameters.size() == fn.parameters.size() + 1) return "there is a constructor with one parameter more already";
    std::string_view head = source.substr(node.span.begin, file[body].span.begin - node.span.begin);
    if (head.find('@') != std::string_view::npos) return "its constructor is marked: what calls it may not be in this tree";
    if (head.find("...") != std::string_view::npos) return "its constructor takes any number of arguments";
    // It is made before all else of the constructor then: nothing that runs earlier today may matter to it.
    std::string needs;
    forEachNode(file, one.creation.node, [&](NodeId n) {
      Symbol symbol = p_.links[place.file].symbol[n];
      bool own = symbol.is(Symbol::Sort::Function) && p_.functions[symbol.index()].owner == type_ && !(p_.functions[symbol.index()].modifiers & kStatic);
      if (file[n].kind == Kind::This || own) needs = "it is made of what belongs to the object";
      if (!symbol.is(Symbol::Sort::Variable)) return;
      const Variable& v = p_.variables[symbol.index()];
      if (v.storage == Storage::Field) needs = "it is made of what belongs to the object";
      if (v.storage == Storage::Local) needs = "it is made of what the constructor works out";
    });
    if (!needs.empty()) return needs + ", which a second constructor has not yet";
    bool works = false;
    forEachNode(file, body, [&](NodeId n) {
      bool call = file[n].kind == Kind::Call || file[n].kind == Kind::Create;
      works |= call && file[n].span.begin < p_.node(one.creation).span.begin && !p_.isInside(one.creation, n);
    });
    for (VariableIndex f : p_.types[type_].fields)
      if (NodeId initial = p_.variables[f].definition.known() ? p_.file(p_.variables[f].definition).child(p_.variables[f].definition.node, Role::Initialiser) : kNoNode; initial != kNoNode)
        works |= p_.file(p_.variables[f].definition)[initial].kind == Kind::Call || p_.file(p_.variables[f].definition)[initial].kind == Kind::Create;
    if (works) return "other work is done before it is made: a second constructor would make it first";
    std::string names;
    for (VariableIndex v : fn.parameters) names += std::string(p_.text(p_.variables[v].name)) + ", ";
    std::string indent = scan_.indentOf(place), unit = unitIndent(p_, scan_, type_), newline = scan_.newlineOf(place.file);
    std::string twin(trim(head));
    twin += filled(h_->overload, {{"names", names}, {"value", made}});
    edits_.push_back({p_.path(place), {node.span.begin, node.span.begin}, laidOut(scan_, twin, place.file, indent, unit) + newline + newline + indent});
    appendParameter(p_, scan_, place.file, static_cast<uint32_t>(open), close, type + " " + name, edits_);
    edits_.push_back({p_.path(one.creation), p_.node(one.creation).span, name});
    return "";
  }

  // ----- C++: what is owned through a pointer of the library's

  std::string writeOwned(const Collaborator& one) {
    const Node& creation = p_.node(one.creation);
    bool unique = creation.is(Kind::Create, CreateForm::Unique), shared = creation.is(Kind::Create, CreateForm::Shared);
    if (!unique && !shared) return creation.is(Kind::Create, CreateForm::Heap) ? "it is owned by hand: keep it in a smart pointer first" : "it is a part of the object: keep it through a pointer first, so that another can stand in its place";
    if (one.in == kNone) return "it is made by the field itself: move that into the constructor first";
    const Function& fn = p_.functions[one.in];
    if (fn.modifiers & kInMacro) return "its constructor is written by a macro";
    std::string name = chooseName(one, one.in), type = (unique ? "std::unique_ptr<" : "std::shared_ptr<") + plainName(p_, one.type) + ">";
    if (name.empty()) return "no name for the parameter is free in the constructor";
    Place home = p_.types[type_].definition;
    for (Place place : fn.declarations) {
      uint32_t close = scan_.parameterListEnd(place);
      size_t open = close == 0 ? std::string_view::npos : scan_.text(place.file).find('(', p_.node(place).nameBegin);
      if (open == std::string_view::npos || open >= close) return "the parameters of its constructor could not be read";
      if (scan_.text(place.file).substr(open, close - open).find("...") != std::string_view::npos) return "its constructor takes any number of arguments";
      bool inClass = place.file == home.file && p_.isInside(place, home.node);
      appendParameter(p_, scan_, place.file, static_cast<uint32_t>(open), close, type + " " + name + (inClass ? " = nullptr" : ""), edits_);
    }
    auto include = [&](FileIndex f, const std::string& header) {
      if (scan_.text(f).find(header) == std::string_view::npos && scan_.text(home.file).find(header) == std::string_view::npos) scan_.addInclude(f, "#include " + header, edits_);
    };
    include(home.file, "<memory>");
    if (unique) include(one.creation.file, "<utility>");
    edits_.push_back({p_.path(one.creation), creation.span, name + " ? " + (unique ? "std::move(" + name + ")" : name) + " : " + value(one)});
    return "";
  }

  const Program& p_;
  TypeIndex type_;
  PlanMemory& memory_;
  SourceScan scan_;
  const Handing* h_ = nullptr;
  bool owners_ = false;
  std::vector<Collaborator> found_, inMethods_;
  std::vector<FileEdit> edits_;
};

}  // namespace

std::string injectCollaboratorRefusal(const Analysis& analysis, size_t type) {
  PlanMemory memory;
  return Supplier(analysis, static_cast<TypeIndex>(type), memory).refusal();
}

NextStep nextInjectCollaboratorStep(const Analysis& analysis, size_t type, PlanMemory& memory) { return Supplier(analysis, static_cast<TypeIndex>(type), memory).run(); }

}  // namespace elmcart

#include "rework/hand_over.h"

#include <algorithm>
#include <filesystem>
#include <map>
#include <optional>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/access.h"
#include "rework/accessor.h"
#include "rework/hand_over_work.h"
#include "rework/parameter.h"
#include "rework/retire.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

class HandOver : private HandOverWork {
 public:
  HandOver(const Analysis& analysis, size_t entity, PlanMemory& memory) : HandOver(analysis, analysis.survey.entities[entity], nullptr, memory) { entity_ = entity; }
  HandOver(const Analysis& analysis, const Entity& entity, const Given* given, PlanMemory& memory) : HandOverWork(analysis, entity, given, memory) {}

  std::string refusal() const {
    if (e_.kind != EntityKind::Singleton && e_.kind != EntityKind::SharedInstance && e_.kind != EntityKind::Ambient) return "inject is for singletons and shared instances, and this is a " + std::string(kindText(e_.kind));
    if (made_ == kNone || !p_.types[made_].definition.known()) return "its class is not defined in this tree";
    bool plain = p_.types[made_].form == TypeForm::Object;
    for (const AccessPoint& accessPoint : e_.accessPoints) plain |= accessPoint.function == kNone || !returnsIt(accessPoint.function) || p_.functions[accessPoint.function].mostArguments == 0;
    if (!plain) return "its accessor takes arguments";
    if (!p_.types[made_].typeParameters.empty()) return "its class has type parameters";
    if (e_.madeByAsking) return "it is reached by making it: give it an accessor first";
    if (e_.reset.known()) return "its slot is replaced at " + at(e_.reset) + ": keeping the instance in a field would change what users see";
    return "";
  }

  NextStep run() {
    NextStep out;
    collect();
    std::vector<const HandOverTask*> order;
    for (const HandOverTask& w : work_) order.push_back(&w);
    std::stable_sort(order.begin(), order.end(), [&](const HandOverTask* x, const HandOverTask* y) { return rank(*x) < rank(*y); });
    for (const HandOverTask* w : order) {
      if (!memory_.retire && w->type == kNone) continue;  // by default it is fetched there
      std::optional<Step> step = plan(*w);
      if (!step) continue;
      if (memory_.refused.count(step->key())) {
        byHand(w->first(), "the step \"" + step->key() + "\" was taken back: it changed what the tests or witnesses see");
        continue;
      }
      out.found = true;
      out.step = std::move(*step);
      break;
    }
    if (!out.found && memory_.retire) {
      std::optional<Step> step = close();
      bool blocked = std::any_of(byHand_.begin(), byHand_.end(), [](const ByHand& b) { return b.blocksRetire; });
      if (!step && !blocked && !given_) {
        RetireStep last = planRetirement(a_, entity_, name_);
        if (last.found && !memory_.refused.count(last.step.key())) step = std::move(last.step);
      }
      if (step) {
        out.found = true;
        out.step = std::move(*step);
      }
    }
    out.byHand = std::move(byHand_);
    out.finished = !out.found && std::none_of(out.byHand.begin(), out.byHand.end(), [](const ByHand& b) { return b.blocksRetire; });
    return out;
  }

 private:
  // ----- writing

  void edit(Place place, Span span, std::string text) { edits_.push_back({p_.path(place), span, std::move(text)}); }
  void insert(Place place, uint32_t offset, std::string text) { edit(place, {offset, offset}, std::move(text)); }

  // What fetches the object where nobody hands it in, as that file writes it.
  std::string valueAt(Place access) { return given_ ? accessText(access.file) : scan_.nodeText(access); }
  // " = value" of a field goes, and the constructor sets it: the statement for that.
  std::string moveFirstValue(VariableIndex field, Place access, const std::string& object) {
    Place home = p_.variables[field].definition;
    Place value{home.file, p_.file(home).child(home.node, Role::Initialiser)};
    std::string_view source = scan_.text(home.file);
    uint32_t begin = p_.node(value).span.begin, end = p_.node(value).span.end;
    std::string text(source.substr(begin, end - begin));
    text.replace(p_.node(access).span.begin - begin, p_.node(access).span.size(), object);
    uint32_t from = begin;
    while (from > p_.node(home).nameBegin && source[from - 1] != '=') --from;
    if (from > p_.node(home).nameBegin) --from;
    while (from > p_.node(home).nameBegin && isBlank(source[from - 1])) --from;
    edit(home, {from, end}, "");
    std::string through(h_->assign.substr(0, h_->assign.find("{field}")));
    return through + std::string(p_.text(p_.variables[field].name)) + " = " + text + (h_->assign.back() == ';' ? ";" : "");
  }

  std::string laidOut(const std::string& pattern, FileIndex file, const std::string& indent, const std::string& unit) { return elmcart::laidOut(scan_, pattern, file, indent, unit); }

  // The shared class's name as this file writes it, with what must be put in so that it may.
  std::string typeName(FileIndex file) {
    const TypeDecl& decl = p_.types[made_];
    std::string plain = plainName(p_, made_);
    std::string_view qualified = p_.text(decl.qualified);
    std::string separator(p_.language(file).separator);
    size_t cut = qualified.rfind(separator);
    std::string space = cut == std::string_view::npos ? "" : std::string(qualified.substr(0, cut));
    if (given_ && file != decl.definition.file && p_.language(file).facing && p_.language(file).facing->importsByName && !holdsWord(scan_.text(file), plain)) nameBeside(p_, scan_, file, plainName(p_, given_->beside), plain, edits_);
    if (h_->typeImport.empty() || file == decl.definition.file || names(file)) return plain;
    if (h_->typeImport == "\\") {
      for (NodeId c : children(p_.files[file], 0))  // the namespace of the file
        if (p_.files[file][c].kind == Kind::Namespace && p_.files[file].name(c) == space) return plain;
      return "\\" + std::string(qualified);
    }
    if (h_->typeImport == "import") {
      importLikeOthers(file, plain);
      return plain;
    }
    bool same = false;
    for (NodeId c : children(p_.files[file], 0)) same |= p_.files[file][c].kind == Kind::Namespace && namespaceText(file, c) == space;
    if (same || space.empty()) return plain;
    importLine(file, filled(h_->typeImport, {{"qualified", std::string(qualified)}, {"namespace", space}}));
    return plain;
  }
  std::string namespaceText(FileIndex file, NodeId node) const {
    return inNotation(p_, file, p_.files[file].name(node));
  }
  // Does the file name the class already?
  bool names(FileIndex f) const {
    if (given_ && p_.language(f).facing && p_.language(f).facing->importsByName) return true;
    const LoweredFile& file = p_.files[f];
    for (NodeId n = 1; n < file.nodes.size(); ++n) {
      Symbol symbol = p_.links[f].symbol[n];
      if (file[n].kind == Kind::Name && symbol.is(Symbol::Sort::Type) && symbol.index() == made_) return true;
      if (file[n].kind == Kind::TypeRef && p_.use(p_.links[f].type[n]).decl == made_) return true;
    }
    for (const Consumer& c : e_.consumers)
      if (!given_ && c.place.file == f && accessOf(c.place).known()) return true;
    return false;
  }

  void importLine(FileIndex f, const std::string& line) { elmcart::importLine(p_, scan_, f, line, edits_); }

  // An import line of another file that brings the class, with its path seen from here.
  void importLikeOthers(FileIndex to, const std::string& plain) {
    namespace fs = std::filesystem;
    for (FileIndex f = 0; f < p_.files.size(); ++f) {
      if (p_.languageOf[f]->handing != h_ || f == to || !names(f)) continue;
      std::string_view source = scan_.text(f);
      for (size_t begin = 0; begin < source.size();) {
        size_t end = std::min(source.find('\n', begin), source.size());
        std::string line(trim(source.substr(begin, end - begin)));
        begin = end + 1;
        if (!line.starts_with("import ") || line.find_first_of("'\"") == std::string::npos) continue;
        size_t open = line.find_first_of("'\""), close = line.find(line[open], open + 1);
        if (close == std::string::npos) continue;
        std::string path = line.substr(open + 1, close - open - 1);
        fs::path meant = path.empty() || path[0] == '.' || h_->optionalGroup ? (fs::path(p_.files[f].path).parent_path() / path).lexically_normal() : fs::path();
        const std::string& home = p_.files[p_.types[made_].definition.file].path;
        bool brings = !meant.empty() && (meant == fs::path(home) || meant.string() == fs::path(home).replace_extension().string() || fs::path(meant).replace_extension().string() == fs::path(home).replace_extension().string());
        if (!brings) continue;
        std::string relative = meant.lexically_relative(fs::path(p_.files[to].path).parent_path().empty() ? fs::path(".") : fs::path(p_.files[to].path).parent_path()).string();
        if (!relative.starts_with(".") && !h_->optionalGroup) relative = "./" + relative;
        size_t braces = line.find('{');
        std::string head = braces == std::string::npos || braces > open ? line.substr(0, open) : "import { " + plain + " } from ";
        importLine(to, head + line[open] + relative + line.substr(close));
        return;
      }
    }
  }

  // What stands at a place where the object is fetched.
  std::string accessText(FileIndex file) {
    if (given_) return filled(given_->value, {{"wrap", typeName(file)}});
    for (const Consumer& c : e_.consumers)
      if (Place access = accessOf(c.place); access.known() && c.place.file == file && c.alias == kNone) {
        FunctionIndex in = c.in;
        if (in != kNone && p_.functions[in].owner == made_) continue;
        return scan_.nodeText(access);
      }
    // As it is written elsewhere, behind its class's name.
    for (const Consumer& c : e_.consumers)
      if (Place access = accessOf(c.place); access.known() && c.alias == kNone && sameLanguage(c.place)) {
        std::string written = scan_.nodeText(access), plain = plainName(p_, made_);
        size_t begin = written.find(plain);
        if (begin == std::string::npos) continue;
        return typeName(file) + written.substr(begin + plain.size());
      }
    return "";
  }

  // ----- a class

  std::optional<Step> refuse(Place place, const std::string& reason) {
    byHand(place, reason);
    return std::nullopt;
  }

  std::optional<Step> plan(const HandOverTask& w) {
    edits_.clear();
    importedFor_.clear();
    current_ = &w;
    std::vector<ByHand> before = byHand_;
    std::optional<Step> step = w.type != kNone ? changeClass(w) : compose(w);
    if (!step) return std::nullopt;
    byHand_ = std::move(before);
    step->edits = std::move(edits_);
    step->callSites = w.accesses.size() + w.firstValues.size();
    step->creationSites = w.passes.size();
    step->passesOnly = !w.uses();
    return step;
  }

  // Inside of what may the object not be named as in the method itself?
  std::string obstacle(Place place) {
    if (!h_->functionRebindsThis) return "";
    const LoweredFile& file = p_.file(place);
    for (NodeId up = file.parents[place.node]; up != kNoNode && file[up].kind != Kind::Function; up = file.parents[up])
      if (file[up].kind == Kind::Lambda && scan_.nodeText({place.file, up}).starts_with("function")) return "inside a plain function `this` is another object";
    return "";
  }

  std::optional<Step> changeClass(const HandOverTask& w) {
    const TypeDecl& decl = p_.types[w.type];
    Place definition = decl.definition;
    Place first = w.first();
    std::string className = plainName(p_, w.type);
    if (!definition.known()) return std::nullopt;
    if (decl.form != TypeForm::Class) return refuse(first, className + " is no ordinary class: nothing can be handed to a constructor of it");
    const LoweredFile& file = p_.file(definition);
    for (NodeId c : children(file, definition.node)) {
      std::string_view mark = lastPart(file.name(c));
      if (file[c].role == Role::Annotation && mark != "Deprecated" && mark != "SuppressWarnings" && mark != "internal") {
        if (inTests(definition)) return std::nullopt;  // a test: it goes on fetching it
        return refuse(first, className + " is marked " + std::string(mark) + ": what makes it may not be in this tree");
      }
    }
    bool created = false;
    for (uint32_t c : p_.creationsOfType[w.type]) created |= !p_.creations[c].asBase;
    // A test that nobody here makes is made by its runner, which may make none that has a constructor.
    if (inTests(definition) && !created && decl.derived.empty() && constructorsOf(p_, w.type).empty()) return std::nullopt;
    if (decl.hasUnknownBase && !created && decl.derived.empty()) {
      if (inTests(definition)) return std::nullopt;  // a test: it goes on fetching it
      return refuse(first, className + " derives from a class that is not in this tree, and nobody here makes one: a framework does");
    }
    if (isInjected(w.type)) return useIt(w, className);
    bool passing = !w.uses();
    if (h_->privateIsShared)
      for (TypeIndex t = w.type; !p_.types[t].bases.empty() && p_.types[t].bases.front().type != kNone; t = p_.types[t].bases.front().type)
        if (isInjected(p_.types[t].bases.front().type)) return refuse(first, "its base class keeps the object in a private field of the same name");

    std::string indent = memberIndent(p_, scan_, w.type), unit = unitIndent(p_, scan_, w.type);
    std::string type = h_->typeImport.empty() && h_->field.find("{type}") == std::string_view::npos && h_->parameter.find("{type}") == std::string_view::npos ? "" : typeName(definition.file);
    bool needsValue = !passing || h_->valueForPassing || h_->passed.empty();
    bool nullDefault = passing && !h_->passedAssign.empty();
    std::string value = !passing ? valueAt(first) : needsValue && !nullDefault ? accessText(definition.file) : "";
    if (needsValue && !nullDefault && value.empty()) return refuse(first, "how the object is fetched could not be written here");
    auto words = [&](std::string parameter, std::string assign) {
      return std::vector<std::pair<std::string_view, std::string>>{{"type", type}, {"name", name_}, {"field", fieldName()}, {"value", value}, {"class", className}, {"parameter", parameter}, {"assign", assign},
                                                                   {"visibility", decl.modifiers & kPublic ? "public " : ""}};
    };
    std::string parameter = filled(passing && !h_->passed.empty() ? h_->passed : h_->parameter, words("", ""));
    std::string assign = filled(passing && !h_->passedAssign.empty() ? h_->passedAssign : h_->assign, words("", ""));
    std::vector<FunctionIndex> constructors = constructorsOf(p_, w.type);
    std::vector<std::string> moved;
    for (auto& [variable, access] : w.firstValues) moved.push_back(moveFirstValue(variable, access, filled(h_->inConstructor, words("", ""))));

    // 1. The field and the constructor.
    std::string field = filled(passing && !h_->optionalField.empty() ? h_->optionalField : h_->field, words("", ""));
    std::string fresh;
    if (constructors.empty()) {
      bool hasBase = !decl.bases.empty() && std::any_of(decl.bases.begin(), decl.bases.end(), [&](const Base& b) { return b.type == kNone || p_.types[b.type].form != TypeForm::Interface; });
      bool baseNeeds = false;
      for (const Base& b : decl.bases)
        if (b.type != kNone)
          for (FunctionIndex c : constructorsOf(p_, b.type)) baseNeeds |= p_.functions[c].leastArguments > 0;
      if (hasBase && (h_->baseConstructor.empty() || (baseNeeds && !h_->snake)) && inTests(definition)) return std::nullopt;  // it goes on fetching it
      if (hasBase && (h_->baseConstructor.empty() || (baseNeeds && !h_->snake))) return refuse(first, className + " has no constructor, and its base class may need arguments");
      std::string all = assign;
      for (const std::string& statement : moved) all += "\n\t" + statement;
      fresh = filled(hasBase ? h_->baseConstructor : h_->constructor, words(parameter, all));
    }
    for (const std::string& statement : moved) assign += scan_.newlineOf(definition.file) + indent + unit + statement;
    for (FunctionIndex c : constructors) {
      // A class in several files: each that names the object's class must know it.
      if (FileIndex f = p_.functions[c].home().file; !type.empty() && f != definition.file && importedFor_.insert(f).second) (void)typeName(f);
      if (std::string reason = addToConstructor(w.type, c, parameter, assign, value, indent, unit); !reason.empty()) return refuse(p_.functions[c].declarations.front(), reason);
    }
    if (h_->primary) {
      if (constructors.empty()) {
        uint32_t end = p_.node(definition).nameBegin + static_cast<uint32_t>(className.size());
        std::string_view source = scan_.text(definition.file);
        if (end < source.size() && source[end] == '<') end = static_cast<uint32_t>(source.find('>', end)) + 1;
        insert(definition, end, fresh);
      }
    } else if (!addMembers(w.type, field, fresh, indent, unit)) {
      return refuse(first, "the body of " + className + " could not be read");
    }
    // 2. Accesses and creations.
    if (!replaceAll(w)) return std::nullopt;
    Step step;
    step.kind = passing ? StepKind::Lift : StepKind::Seam;
    step.subject = std::string(p_.text(decl.qualified));
    step.inTests = inTests(definition);
    std::string object = plainName(p_, made_);
    step.title = className + (passing ? " takes the " + object + " and passes it on to what it makes" : " takes the " + object + " in its constructor; by default it " + (given_ ? "makes one" : "fetches it as before"));
    return step;
  }

  // The class has the object already: what is left is to use it and to pass it on.
  std::optional<Step> useIt(const HandOverTask& w, const std::string& className) {
    if (!replaceAll(w)) return std::nullopt;
    Step step;
    step.kind = !w.uses() ? StepKind::Lift : StepKind::Seam;
    step.subject = std::string(p_.text(p_.types[w.type].qualified));
    step.inTests = inTests(p_.types[w.type].definition);
    step.title = className + (!w.uses() ? " passes what it has on to what it makes" : " uses what it has");
    return step;
  }

  FunctionIndex functionAt(Place place) const {
    for (NodeId up = place.node; up != kNoNode; up = p_.files[place.file].parents[up])
      if (p_.file(place)[up].kind == Kind::Function && p_.links[place.file].symbol[up].is(Symbol::Sort::Function)) return p_.links[place.file].symbol[up].index();
    return kNone;
  }

  bool replaceAll(const HandOverTask& w) {
    auto objectAt = [&](Place place) {
      FunctionIndex in = functionAt(place);
      bool constructor = in == kNone || (p_.functions[in].form == FunctionForm::Constructor && p_.functions[in].owner == w.type);
      return filled(constructor ? h_->inConstructor : h_->inMethod, {{"name", name_}, {"field", fieldName()}});
    };
    for (Place access : w.accesses) {
      if (std::string reason = obstacle(access); !reason.empty()) return refuse(access, reason).has_value();
      // Tides::height(): a member of an object is reached by another sign.
      Span span = p_.node(access).span;
      bool ofClass = given_ && scan_.text(access.file).substr(span.end, 2) == "::";
      if (ofClass) span.end += 2;
      std::string object = objectAt(access);
      // : base(…) is worked out before there are fields.
      if (object.starts_with("this.") && isBeforeBody(access)) object = name_ + " ?? " + valueAt(access);
      edit(access, span, object + (ofClass ? "->" : ""));
    }
    for (Place pass : w.passes) {
      if (std::string reason = obstacle(pass); !reason.empty()) return refuse(pass, reason).has_value();
      if (!addArgument(pass, objectAt(pass))) return refuse(pass, "the arguments of this creation could not be read").has_value();
    }
    return true;
  }

  // Does it stand between a function's parameters and its body?
  bool isBeforeBody(Place place) const {
    Place function = p_.around(place, Kind::Function);
    NodeId body = function.node == kNoNode ? kNoNode : p_.file(function).child(function.node, Role::Body);
    return body != kNoNode && p_.node(place).span.end <= p_.file(function)[body].span.begin;
  }

  // The span of a parameter list between its brackets.
  std::optional<Span> parameterList(Place function) {
    std::string_view source = scan_.text(function.file);
    const Node& node = p_.node(function);
    uint32_t at = node.nameBegin > node.span.begin ? node.nameBegin : node.span.begin;
    while (at < node.span.end && source[at] != '(') ++at;
    return brackets(function.file, at, node.span.end);
  }
  std::optional<Span> brackets(FileIndex file, uint32_t open, uint32_t limit) {
    std::string_view source = scan_.text(file);
    if (open >= limit || source[open] != '(') return std::nullopt;
    int depth = 0;
    for (uint32_t at = open; at < limit; ++at) {
      char c = source[at];
      if (scan_.inComment(file, at)) continue;
      if (c == '"' || c == '\'' || c == '`') {
        for (++at; at < limit && source[at] != c; ++at)
          if (source[at] == '\\') ++at;
        continue;
      }
      if (c == '(') ++depth;
      if (c == ')' && --depth == 0) return Span{open + 1, at};
    }
    return std::nullopt;
  }

  void append(Place place, Span list, const std::string& item) { appendItem(p_, scan_, place.file, list, item, edits_); }

  // "" or why not.
  std::string addToConstructor(TypeIndex type, FunctionIndex c, const std::string& parameter, const std::string& assign, const std::string& value, const std::string& indent, const std::string& unit) {
    const Function& fn = p_.functions[c];
    Place place = p_.functions[c].home();
    std::string_view source = scan_.text(place.file);
    const LoweredFile& file = p_.file(place);
    const Node& node = file[place.node];
    std::optional<Span> list = parameterList(place);
    if (!list) return "the parameters of this constructor could not be read";
    std::string inside(source.substr(list->begin, list->size()));
    NodeId bodyNode = file.child(place.node, Role::Body);
    std::string head(source.substr(node.span.begin, list->begin - 1 - node.span.begin));
    if (head.find('@') != std::string::npos || head.find('#') != std::string::npos) return "this constructor is marked: what calls it may not be in this tree";
    if (!h_->keywordOnly && (inside.find("...") != std::string::npos || inside.find("params ") != std::string::npos || inside.find("vararg ") != std::string::npos)) return "this constructor takes any number of arguments";

    if (!h_->overload.empty()) {
      // One that hands on to another of its class keeps its parameters: it reaches the twin of that one.
      if (handsOn(place)) return handOn(place, head, inside, *list, file[bodyNode].span, parameter, indent);
      if (bodyNode == kNoNode) return "this constructor has no body";
      std::string names;
      for (VariableIndex v : fn.parameters) names += std::string(p_.text(p_.variables[v].name)) + ", ";
      std::string tail(trim(source.substr(list->end + 1, file[bodyNode].span.begin - list->end - 1)));
      std::string twin = head + "(" + inside + ")" + (tail.empty() ? "" : " " + tail) + filled(h_->overload, {{"names", names}, {"value", value}});
      insert(place, node.span.begin, laidOut(twin + "\n\n", place.file, indent, unit));
      append(place, *list, parameter);
    } else if (h_->keywordOnly) {
      addKeyword(place, *list, inside, parameter);
    } else if (h_->optionalGroup) {
      if (inside.find('[') != std::string::npos) return "optional parameters by position and by name cannot be mixed";
      if (head.starts_with("const ")) return "a constant constructor can fetch nothing";
      if (head.find("factory ") != std::string::npos) return "";
      size_t group = inside.rfind('}');
      if (group != std::string::npos) {
        uint32_t open = list->begin + static_cast<uint32_t>(inside.find('{'));
        append(place, {open + 1, list->begin + static_cast<uint32_t>(group)}, parameter);
      } else {
        append(place, *list, "{" + parameter + "}");
      }
    } else {
      // One that hands on to another of its class hands the object on too, and leaves the field to that one.
      uint32_t end = bodyNode == kNoNode ? node.span.end : file[bodyNode].span.begin;
      size_t colon = source.find_first_not_of(" \t\r\n", list->end + 1);
      if (colon != std::string_view::npos && colon < end && source[colon] == ':') {
        size_t word = source.find_first_not_of(" \t\r\n", colon + 1);
        if (word != std::string_view::npos && source.substr(word).starts_with("this(")) {
          if (h_->primary) return "";  // what it hands on to has the default
          auto arguments = brackets(place.file, static_cast<uint32_t>(word) + 4, end);
          if (!arguments) return "the constructor handed on to could not be read";
          append(place, *list, parameter);
          append(place, *arguments, filled(h_->argument, {{"name", name_}, {"value", name_}}));
          return "";
        }
      }
      if (h_->primary && node.span.begin > scan_.bodyOpen(type)) return "it has no constructor behind its name, only others";
      append(place, *list, parameter);
    }
    if (assign.empty()) return "";
    if (h_->initialisers) {
      // Behind the list, before or among the initialisers.
      uint32_t at = list->end + 1;
      size_t next = source.find_first_not_of(" \t\r\n", at);
      if (next != std::string_view::npos && source[next] == ':') insert(place, static_cast<uint32_t>(next) + 1, " " + assign + ",");
      else insert(place, at, " : " + assign);
      return "";
    }
    if (bodyNode == kNoNode) return "this constructor has no body";
    return addStatement({place.file, bodyNode}, assign, indent + unit, indent);
  }

  // A constructor that hands on to another of its class gets a twin that hands the object on too.
  std::string handOn(Place place, const std::string& head, const std::string& inside, Span list, Span body, const std::string& parameter, const std::string& indent) {
    std::string_view source = scan_.text(place.file);
    uint32_t open = static_cast<uint32_t>(source.find("this(", body.begin)) + 4;
    auto arguments = brackets(place.file, open, body.end);
    if (!arguments) return "the constructor handed on to could not be read";
    std::string given(source.substr(arguments->begin, arguments->size()));
    std::string newline = scan_.newlineOf(place.file);
    std::string twin = head + "(" + inside + (trim(inside).empty() ? "" : ", ") + parameter + ")" + std::string(source.substr(list.end + 1, arguments->begin - list.end - 1)) + given + (trim(given).empty() ? "" : ", ") + name_ +
                       std::string(source.substr(arguments->end, body.end - arguments->end));
    insert(place, p_.node(place).span.end, newline + newline + indent + twin);
    return "";
  }

  void addKeyword(Place place, Span list, const std::string& inside, const std::string& parameter) {
    // self, name, *rest, other=1, **options: behind a star, before two.
    std::vector<std::pair<size_t, size_t>> items;
    int depth = 0;
    size_t from = 0;
    for (size_t i = 0; i <= inside.size(); ++i) {
      char c = i < inside.size() ? inside[i] : ',';
      if (c == '(' || c == '[' || c == '{') ++depth;
      if (c == ')' || c == ']' || c == '}') --depth;
      if (i < inside.size() && (c != ',' || depth > 0)) continue;
      if (!trim(inside.substr(from, i - from)).empty()) items.emplace_back(from, i);
      from = i + 1;
    }
    bool star = false;
    for (auto [begin, end] : items) {
      std::string_view item = trim(std::string_view(inside).substr(begin, end - begin));
      if (item.starts_with("**")) {
        uint32_t at = list.begin + static_cast<uint32_t>(inside.find("**", begin));
        insert(place, at, (star ? "" : "*, ") + parameter + ", ");
        return;
      }
      star |= item.starts_with("*");
    }
    append(place, list, (star ? "" : "*, ") + parameter);
  }

  // Does a constructor begin by handing on to another of its class?
  bool handsOn(Place constructor) {
    NodeId body = p_.file(constructor).child(constructor.node, Role::Body);
    if (body == kNoNode) return false;
    Span span = p_.file(constructor)[body].span;
    return scan_.text(constructor.file).substr(codeBegin(constructor.file, span.begin + 1, span.end)).starts_with("this(");
  }

  // Where the code begins behind blanks and comments.
  uint32_t codeBegin(FileIndex file, uint32_t at, uint32_t end) {
    std::string_view source = scan_.text(file);
    while (at < end && (isBlank(source[at]) || source[at] == '\r' || source[at] == '\n' || scan_.inComment(file, at))) ++at;
    return at;
  }

  // At the beginning of a body: behind its opening, a text that documents it, and the base's constructor.
  std::string addStatement(Place body, const std::string& statement, const std::string& indent, const std::string& outer) {
    std::string_view source = scan_.text(body.file);
    const Node& node = p_.node(body);
    std::string newline = scan_.newlineOf(body.file);
    bool braces = source[node.span.begin] == '{';
    uint32_t at = braces ? node.span.begin + 1 : node.span.begin;
    if (!braces) {
      // A block of lines: in front of its first one, behind a documenting text.
      size_t behind = behindDocumentingText(source, at);
      if (behind == std::string_view::npos) return "the body of this constructor could not be read";
      if (behind != at) {
        insert(body, static_cast<uint32_t>(behind), newline + indent + statement);
        return "";
      }
      if (!h_->baseCall.empty() && source.substr(at).starts_with(h_->baseCall)) {
        Span call{at, scan_.contentEnd(body.file, at)};
        for (NodeId c : children(p_.file(body), body.node))
          if (p_.file(body)[c].span.contains(at)) call = p_.file(body)[c].span;
        // What the base is handed must be there before.
        bool needed = std::any_of(current_->accesses.begin(), current_->accesses.end(), [&](Place access) { return access.file == body.file && call.contains(p_.node(access).span.begin); });
        if (!needed) {
          insert(body, scan_.contentEnd(body.file, call.end), newline + indent + statement);
          return "";
        }
      }
      insert(body, at, statement + newline + indent);
      return "";
    }
    std::string_view inside = trim(source.substr(at, node.span.end - 1 - at));
    if (inside.empty()) {
      edit(body, {at, node.span.end - 1}, newline + indent + statement + newline + outer);
      return "";
    }
    uint32_t call = codeBegin(body.file, at, node.span.end);
    if (!h_->baseCall.empty() && source.substr(call).starts_with(h_->baseCall)) {
      auto arguments = brackets(body.file, call + static_cast<uint32_t>(h_->baseCall.size()) - 1, node.span.end);
      if (!arguments) return "the call of the base's constructor could not be read";
      at = arguments->end + 1;
      if (at < source.size() && source[at] == ';') ++at;
    }
    bool oneLine = source.substr(node.span.begin, node.span.size()).find('\n') == std::string_view::npos;
    insert(body, at, oneLine ? " " + statement : newline + indent + statement);
    return "";
  }

  // The field, and the constructor where there was none, at the beginning of the class.
  bool addMembers(TypeIndex type, const std::string& field, const std::string& constructor, const std::string& indent, const std::string& unit) {
    if (field.empty() && constructor.empty()) return true;
    Place definition = p_.types[type].definition;
    std::string newline = scan_.newlineOf(definition.file);
    if (h_->snake) {
      // Before the first member that is a function, above what decorates it.
      uint32_t at = 0;
      for (FunctionIndex m : p_.types[type].methods) {
        Place member = p_.functions[m].declarations.front();
        if (member.file != definition.file) continue;
        uint32_t begin = scan_.lineBegin(member.file, p_.node(member).span.begin);
        if (at == 0 || begin < at) at = begin;
      }
      if (at == 0) return false;
      at = scan_.withLinesAbove(definition.file, at, {"@", "#"});
      insert(definition, at, indent + laidOut(constructor, definition.file, indent, unit) + newline + newline);
      return true;
    }
    return elmcart::addMembers(p_, scan_, type, field, laidOut(constructor, definition.file, indent, unit), indent, edits_);
  }

  bool addArgument(Place place, const std::string& object) {
    std::string argument = filled(h_->argument, {{"name", name_}, {"value", object}});
    const Node& node = p_.node(place);
    std::string_view source = scan_.text(place.file);
    NodeId type = p_.file(place).child(place.node, Role::Type);
    if (type == kNoNode) type = p_.file(place).child(place.node, Role::Callee);
    uint32_t at = type == kNoNode ? node.span.begin : p_.file(place)[type].span.end;
    while (at < node.span.end && source[at] != '(') {
      if (source[at] == '{') break;
      ++at;
    }
    if (at >= node.span.end || source[at] != '(') {
      if (source.substr(node.span.begin).starts_with("new ") && type != kNoNode) {  // new Berth;
        insert(place, p_.file(place)[type].span.end, "(" + argument + ")");
        return true;
      }
      return false;
    }
    auto list = brackets(place.file, at, node.span.end);
    if (!list) return false;
    // By position: what was left to its default before it must be written out.
    if (h_->argument == "{value}")
      for (const Creation& creation : p_.creations) {
        if (creation.place != place) continue;
        FunctionIndex target = targetOf(creation);
        int position = target == kNone ? -1 : takes(target);
        size_t given = argumentsOf(p_.file(place), place.node).size();
        if (position < 0 || given > static_cast<size_t>(position)) return false;
        std::string fill;
        for (size_t i = given; i < static_cast<size_t>(position); ++i) {
          if (!h_->functionRebindsThis) return false;
          fill += "undefined, ";
        }
        append(place, *list, fill + argument);
        return true;
      }
    append(place, *list, argument);
    return true;
  }

  std::optional<Step> compose(const HandOverTask& w) {
    Place first = w.passes.front();
    std::string object = accessText(first.file);
    if (object.empty()) return std::nullopt;
    for (Place pass : w.passes)
      if (!addArgument(pass, object)) return refuse(pass, "the arguments of this creation could not be read");
    Step step;
    step.kind = StepKind::Compose;
    step.subject = w.function != kNone ? functionText(p_, w.function) : p_.files[w.file].path;
    step.title = step.subject + " hands in the " + plainName(p_, made_) + " where the program is put together";
    return step;
  }

  // ----- the end of a default

  // A class whose makers all hand the object in: its default goes. Those that
  // only pass it on come first, for they may still have nothing to pass.
  std::optional<Step> close() {
    std::vector<std::tuple<bool, std::string, uint32_t, TypeIndex>> open;
    for (TypeIndex t = 0; t < p_.types.size(); ++t)
      if (Place home = p_.types[t].definition; home.known() && t != made_ && sameLanguage(home) && isInjected(t)) open.emplace_back(!passesOnly(t), p_.path(home), p_.line(home), t);
    std::sort(open.begin(), open.end());
    for (auto& [second, path, line, t] : open) {
      const TypeDecl& decl = p_.types[t];
      if (!isAlwaysGiven(t, 0)) continue;
      edits_.clear();
      if (!closeClass(t)) continue;
      Step step;
      step.kind = StepKind::Retire;
      step.subject = std::string(p_.text(decl.qualified));
      if (memory_.refused.count(step.key())) continue;
      step.title = plainName(p_, t) + " needs to be given the " + plainName(p_, made_) + ": all that make one do, and its default goes";
      step.creationSites = p_.creationsOfType[t].size();
      step.edits = std::move(edits_);
      return step;
    }
    return std::nullopt;
  }

  // Do all that make one hand a real object in?
  bool isAlwaysGiven(TypeIndex type, int depth) {
    const TypeDecl& decl = p_.types[type];
    if (depth > 12 || !decl.derived.empty() || decl.hasUnknownBase || p_.creationsOfType[type].empty()) return false;
    for (uint32_t c : p_.creationsOfType[type]) {
      const Creation& creation = p_.creations[c];
      if (creation.asBase || targetOf(creation) == kNone || !isGiven(creation)) return false;
      TypeIndex unit = unitOf(p_, creation.in);
      if (unit == kNone || !isInjected(unit) || !passesOnly(unit)) continue;
      // One that may have nothing to pass on; where that is written it goes first.
      if (!isAlwaysGiven(unit, depth + 1)) return false;
      std::vector<FileEdit> kept = std::move(edits_);
      edits_.clear();
      bool first = closeClass(unit);
      edits_ = std::move(kept);
      if (first) return false;
    }
    return true;
  }

  Span constructorSpan(Place place) {
    Span span = p_.node(place).span;
    if (!h_->initialisers) return span;
    size_t end = scan_.text(place.file).find(';', span.begin);  // with its initialiser list
    if (end != std::string_view::npos) span.end = std::max(span.end, static_cast<uint32_t>(end));
    return span;
  }
  std::string shown(std::string_view pattern, const std::string& value) const {
    return filled(pattern, {{"type", plainName(p_, made_)}, {"name", name_}, {"field", fieldName()}, {"value", value}});
  }

  // The accesses of the object in a part of a file, as they are written.
  std::vector<std::string> accessesIn(FileIndex file, Span span) {
    std::vector<std::string> out;
    if (given_) {
      std::string value = filled(given_->value, {{"wrap", plainName(p_, made_)}});
      if (scan_.text(file).substr(span.begin, span.size()).find(value) != std::string_view::npos) out.push_back(value);
      return out;
    }
    for (const Consumer& k : e_.consumers)
      if (Place access = accessOf(k.place); access.known() && access.file == file && span.contains(p_.node(access).span.begin)) out.push_back(scan_.nodeText(access));
    return out;
  }

  // A class that takes the object with nothing of its own to fall back on.
  bool passesOnly(TypeIndex type) {
    if (h_->passed.empty() && h_->passedAssign.empty()) return false;
    for (FunctionIndex c : constructorsOf(p_, type)) {
      if (takes(c) < 0) continue;
      Place place = p_.functions[c].home();
      Span span = constructorSpan(place);
      std::string text(scan_.text(place.file).substr(span.begin, span.size()));
      if (!accessesIn(place.file, span).empty()) return false;
      bool closed = !h_->closedAssign.empty() && h_->closedAssign != h_->passedAssign && text.find(shown(h_->closedAssign, "")) != std::string::npos;
      return !closed && text.find(shown(h_->passed.empty() ? h_->parameter : h_->passed, "")) != std::string::npos;
    }
    return false;
  }

  bool closeClass(TypeIndex type) {
    std::vector<FunctionIndex> constructors = constructorsOf(p_, type);
    bool changed = false;
    if (!h_->overload.empty()) {
      for (FunctionIndex c : constructors) {
        if (takes(c) >= 0) continue;
        bool used = false, twin = false;
        for (uint32_t k : p_.creationsOfType[type]) used |= p_.creations[k].constructor == c;
        for (FunctionIndex other : constructors) twin |= takes(other) >= 0 && p_.functions[other].parameters.size() == p_.functions[c].parameters.size() + 1;
        for (uint32_t k : p_.callsOfFunction[c]) used |= p_.functions[c].owner != kNone && p_.calls[k].in != kNone && takes(p_.calls[k].in) >= 0;
        if (used || !twin) continue;
        // One that neither fetches it nor hands on to another is none that a step put in.
        Place home = p_.functions[c].definition;
        if (!handsOn(home) && accessesIn(home.file, p_.node(home).span).empty()) continue;
        // What documents it then stands above its twin.
        Place place = p_.functions[c].definition;
        std::string_view source = scan_.text(place.file);
        size_t next = source.find_first_not_of(" \t\r\n", p_.node(place).span.end);
        if (next == std::string_view::npos) continue;
        edit(place, {p_.node(place).span.begin, static_cast<uint32_t>(next)}, "");
        changed = true;
      }
      return changed;
    }
    for (FunctionIndex c : constructors) {
      if (takes(c) < 0) continue;
      Place place = p_.functions[c].home();
      Span span = constructorSpan(place);
      bool passing = passesOnly(type);
      std::vector<std::string> values = accessesIn(place.file, span);
      if (std::string written = accessText(place.file); !written.empty()) values.push_back(written);
      auto swap = [&](Span within, std::string_view from, std::string_view to) {
        if (from.empty() || to.empty()) return false;
        std::string_view there = scan_.text(place.file).substr(within.begin, within.size());
        for (const std::string& value : from.find("{value}") == std::string_view::npos ? std::vector<std::string>{""} : values) {
          std::string was = shown(from, value), is = shown(to, value);
          size_t found = there.find(was);
          if (found == std::string_view::npos || was == is) continue;
          uint32_t begin = within.begin + static_cast<uint32_t>(found);
          edit(place, {begin, begin + static_cast<uint32_t>(was.size())}, is);
          return true;
        }
        return false;
      };
      std::string_view parameter = passing && !h_->passed.empty() ? h_->passed : h_->parameter;
      if (swap(span, parameter, h_->closedParameter)) changed = true;
      if (swap(span, passing && !h_->passedAssign.empty() ? h_->passedAssign : h_->assign, h_->closedAssign)) changed = true;
      if (passing && swap(p_.node(p_.types[type].definition).span, h_->optionalField, h_->field)) changed = true;
    }
    return changed;
  }

  size_t entity_ = SIZE_MAX;
  std::vector<FileEdit> edits_;
  std::set<FileIndex> importedFor_;
  const HandOverTask* current_ = nullptr;  // that is planned
};

}  // namespace

std::string handOverRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return HandOver(analysis, entity, memory).refusal();
}

NextStep nextHandOverStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return HandOver(analysis, entity, memory).run(); }

NextStep nextHandOverOf(const Analysis& analysis, const Given& given, PlanMemory& memory) {
  Entity entity = entityOf(analysis, given);
  return HandOver(analysis, entity, &given, memory).run();
}

}  // namespace elmcart

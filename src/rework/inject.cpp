#include "rework/inject.h"

#include <algorithm>
#include <map>
#include <optional>
#include <span>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/access.h"
#include "rework/inject_work.h"
#include "rework/source_scan.h"
#include "source/ignore.h"
#include "source/list_layout.h"

namespace elmcart {
namespace {

class Injector : private InjectWork {
 public:
  Injector(const Analysis& analysis, size_t entity, PlanMemory& memory) : InjectWork(analysis, entity, memory) {}

  std::string refusal() const {
    if (e_.kind != EntityKind::Singleton && e_.kind != EntityKind::SharedInstance) return "inject is for singletons and shared instances, and this is a " + std::string(kindText(e_.kind));
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (accessPoint_ == kNone) return "it has no accessor function: it is reached by its name; make it an accessor first";
    const Function& accessPoint = p_.functions[accessPoint_];
    if (accessPoint.mostArguments > 0) return "its accessor takes arguments";
    const TypeUse& result = p_.use(accessPoint.result);
    bool reference = result.has(kReference | kPointer) || (p_.traits(accessPoint.declarations.front().file, accessPoint.result) & kPointerLike);
    if (!reference) return "its accessor hands out copies";
    if (e_.creation.made != kNone && e_.creation.made != e_.type) return "the instance is of a class derived from the one that is handed out (" + std::string(p_.text(p_.types[e_.creation.made].qualified)) + ")";
    if (!p_.types[e_.type].typeParameters.empty()) return "its class is a template";
    if (const Variable& slot = p_.variables[e_.slot]; slot.owner != kNone && !p_.types[slot.owner].typeParameters.empty()) return "its slot is a member of a template";
    if (e_.reset.known()) return "its slot is replaced at " + p_.path(e_.reset) + ":" + std::to_string(p_.line(e_.reset)) + ": capturing the instance at construction would change what users see";
    if (e_.creation.time == CreationTime::Elsewhere) return "nothing in this tree creates it";
    return "";
  }

  NextStep run() {
    NextStep out;
    collectWork();
    scanMentions();
    // Users first, then who makes or calls them, then the composing places, then the end.
    std::vector<const InjectTask*> order;
    for (const InjectTask& w : work_) order.push_back(&w);
    std::stable_sort(order.begin(), order.end(), [&](const InjectTask* x, const InjectTask* y) { return rank(*x) < rank(*y); });
    for (const InjectTask* w : order) {
      if ((!memory_.retire || !memory_.only.empty()) && isLeft(*w)) continue;
      std::optional<Step> step = plan(*w);
      if (!step) continue;
      if (memory_.refused.count(step->key())) {
        Place place = w->accesses.empty() ? w->passes.front().place : w->accesses.front();
        byHand(place, "the step \"" + step->key() + "\" was taken back: it changed what the tests or witnesses see");
        continue;
      }
      if (w->composing && step->inTests) joinTests(order, *w, *step);
      out.found = true;
      out.step = std::move(*step);
      out.byHand = std::move(byHand_);
      return out;
    }
    bool blocked = false;
    for (const ByHand& b : byHand_) blocked |= b.blocksRetire;
    out.finished = !blocked && !memory_.retire;
    if (!blocked && memory_.retire) {
      if (std::optional<Step> step = retire(); step && !memory_.refused.count(step->key())) {
        out.found = true;
        out.step = std::move(*step);
      }
    }
    out.byHand = std::move(byHand_);
    return out;
  }

 private:
  // The tests of one file are composing places of the same sort: one step for all of them.
  void joinTests(const std::vector<const InjectTask*>& order, const InjectTask& first, Step& step) {
    auto fileOf = [&](const InjectTask& w) { return w.type != kNone ? p_.types[w.type].definition.file : p_.functions[w.function].definition.file; };
    size_t joined = 1;
    std::set<std::pair<std::string, std::string>> insertions;  // an include is put in once
    for (const FileEdit& e : step.edits) insertions.emplace(e.path + ":" + std::to_string(e.span.begin), e.text);
    for (const InjectTask* w : order) {
      if (w == &first || !w->composing || fileOf(*w) != fileOf(first)) continue;
      std::optional<Step> more = plan(*w);
      if (!more) continue;
      ++joined;
      for (FileEdit& e : more->edits)
        if (e.text.find("#") == std::string::npos || insertions.emplace(e.path + ":" + std::to_string(e.span.begin), e.text).second) step.edits.push_back(std::move(e));
      step.callSites += more->callSites;
      step.creationSites += more->creationSites;
    }
    if (joined == 1) return;
    step.subject = p_.files[fileOf(first)].path;
    step.units = joined;
    step.title = counted(joined, "test or fixture", "tests and fixtures") + " in " + step.subject + " fetch the " + std::string(p_.text(p_.types[made_].name)) + " once and pass it on";
  }

  // ----- edits

  void edit(Place place, Span span, std::string text) { edits_.push_back({p_.path(place), span, std::move(text)}); }
  void insert(Place place, uint32_t at, std::string text) { edit(place, {at, at}, std::move(text)); }

  // Replaces an accessor call (with the `*`, `->` or `&` around it) by the object's name.
  bool replaceAccess(Place call, const std::string& name) {
    const Node& node = p_.node(call);
    Place up = p_.parent(call);
    const Node& parent = p_.node(up);
    bool pointer = name[0] == '*';
    std::string whole = pointer ? "(" + name + ")" : name;
    if (parent.kind == Kind::Member && (pointer || resultIsPointer()) && parent.has(kArrow) == resultIsPointer()) {
      edit(call, {node.span.begin, parent.nameBegin}, pointer ? name.substr(1) + "->" : name + std::string(phrases(call).memberAccess));
      return true;
    }
    if (!resultIsPointer()) {
      edit(call, node.span, whole);
      return true;
    }
    if (parent.kind == Kind::Dereference) {
      edit(call, parent.span, whole);
      return true;
    }
    if (p_.use(p_.functions[accessPoint_].result).has(kPointer)) {
      edit(call, node.span, pointer ? name.substr(1) : "&" + name);
      return true;
    }
    byHand(call, "the owner itself (a smart pointer) is used here, not only the object");
    return false;
  }

  // Inside a lambda the object must be captured.
  bool reachableInLambda(Place place, bool asField) const {
    const LoweredFile& file = p_.file(place);
    for (NodeId up = file.parents[place.node]; up != kNoNode; up = file.parents[up]) {
      if (file[up].kind == Kind::Function) break;
      if (file[up].kind != Kind::Lambda) continue;
      bool fine = false;
      for (NodeId c : children(file, up)) {
        if (file[c].kind != Kind::Capture) continue;
        if (file[c].name == 0) fine = true;
        if (asField && file.name(c) == "this") fine = true;
      }
      if (!fine) return false;
    }
    return true;
  }

  // The texts of the arguments that must be written out so that the object can follow.
  std::optional<std::string> filling(FunctionIndex callee, size_t given, size_t position) {
    std::string out;
    for (size_t i = given; i < position; ++i) {
      Place value = defaultOf(callee, i);
      if (value.node == kNoNode) return std::nullopt;
      Kind kind = p_.node(value).kind;
      if (kind != Kind::Literal && kind != Kind::Create && kind != Kind::Collection) return std::nullopt;
      out += scan_.nodeText(value) + ", ";
    }
    return out;
  }

  // Adds the object to the arguments of a creation or call.
  bool addArgument(const InjectTask::Pass& pass, const std::string& object) {
    Place place = pass.place;
    const LoweredFile& file = p_.file(place);
    const Node& node = file[place.node];
    std::vector<Span> given;
    for (NodeId c : children(file, place.node))
      if (file[c].role == Role::Argument) given.push_back(file[c].span);
    size_t position = static_cast<size_t>(injectedParameter(pass.callee));
    auto fill = filling(pass.callee, std::min(given.size(), position), position);
    if (!fill) {
      byHand(place, "a default argument before the new one cannot be written out here");
      return false;
    }
    if (node.kind == Kind::Variable) {
      uint32_t end = node.nameBegin + static_cast<uint32_t>(lastPart(file.name(place.node)).size());
      insert(place, end, "(" + *fill + object + ")");
      return true;
    }
    std::string_view text = scan_.text(place.file);
    if (!given.empty()) {
      addBehind(place, given, *fill + object);
      return true;
    }
    char close = node.span.end > 0 ? text[node.span.end - 1] : ' ';
    if (close == ')' || close == '}') {
      insert(place, node.span.end - 1, *fill + object);
    } else if (node.is(Kind::Create, CreateForm::Heap)) {
      insert(place, node.span.end, "(" + *fill + object + ")");
    } else {
      byHand(place, "the arguments of this creation could not be found");
      return false;
    }
    return true;
  }

  bool ensureInclude(FileIndex file) {
    Place definition = p_.types[made_].definition;
    if (file == definition.file || scan_.includes(file, definition.file)) return true;
    if (scan_.includes(definition.file, file)) return false;  // a cycle
    std::string spelling = scan_.spellingOf(definition.file, file);
    scan_.addInclude(file, phrases(definition).import(spelling), edits_);
    newIncludes_.insert(p_.files[file].path + "\n" + spelling);
    return true;
  }

  struct Entry {  // of an initialiser list, with its place in the order of initialisation
    int group;    // 0: a base, 1: a field
    int order;
    std::string text;
  };

  int orderOf(TypeIndex type, std::string_view name, int* group) const {
    const TypeDecl& decl = p_.types[type];
    for (size_t i = 0; i < decl.bases.size(); ++i) {
      std::string_view base = lastPart(p_.text(p_.use(decl.bases[i].use).name));
      if (base == lastPart(name)) {
        *group = 0;
        return static_cast<int>(i);
      }
    }
    *group = 1;
    for (size_t i = 0; i < decl.fields.size(); ++i)
      if (p_.text(p_.variables[decl.fields[i]].name) == name) return static_cast<int>(i);
    return static_cast<int>(decl.fields.size());
  }

  // Puts entries into a constructor's initialiser list, in the order of initialisation.
  void addInitialisers(TypeIndex type, Place definition, std::vector<Entry> entries) {
    if (entries.empty()) return;
    std::stable_sort(entries.begin(), entries.end(), [](const Entry& x, const Entry& y) { return std::make_pair(x.group, x.order) < std::make_pair(y.group, y.order); });
    const LoweredFile& file = p_.file(definition);
    std::vector<std::pair<int, int>> present;
    std::vector<Span> items;
    for (NodeId c : children(file, definition.node)) {
      if (file[c].kind != Kind::FieldInit) continue;
      int group = 1;
      int order = orderOf(type, file.name(c), &group);
      present.push_back({group, order});
      items.push_back(file[c].span);
    }
    if (present.empty()) {
      std::vector<std::string> texts;
      for (const Entry& entry : entries) texts.push_back(entry.text);
      NodeId body = file.child(definition.node, Role::Body);
      insert(definition, file[body].span.begin, ": " + joinWith(texts, ", ") + " ");
      return;
    }
    for (const Entry& entry : entries) {
      size_t after = static_cast<size_t>(std::find_if(present.begin(), present.end(), [&](const auto& p) { return p > std::make_pair(entry.group, entry.order); }) - present.begin());
      if (after == 0) insert(definition, items[0].begin, entry.text + separatorInFront(scan_.text(definition.file), items, entry.text.size()));
      else insert(definition, items[after - 1].end, separatorBehind(scan_.text(definition.file), items, entry.text.size()) + entry.text);
    }
  }

  // ----- a class

  std::optional<Step> plan(const InjectTask& w) {
    edits_.clear();
    newIncludes_.clear();
    std::vector<ByHand> before = byHand_;
    std::optional<Step> step = w.type != kNone ? (w.composing ? composeClass(w) : changeClass(w)) : (w.composing ? composeFunction(w) : changeFunction(w));
    if (!step) return std::nullopt;
    byHand_ = std::move(before);  // of a step that can be made, nothing is by hand
    step->edits = std::move(edits_);
    step->callSites = w.accesses.size();
    step->creationSites = w.passes.size();
    step->passesOnly = w.accesses.empty();
    for (const std::string& include : newIncludes_) memory_.addedIncludes.insert(include);
    return step;
  }

  bool assignsFrom(TypeIndex type, TypeIndex from) const {
    return std::any_of(p_.types[type].methods.begin(), p_.types[type].methods.end(), [&](FunctionIndex m) {
      const Function& fn = p_.functions[m];
      return p_.text(fn.name) == "operator=" && fn.parameters.size() == 1 && p_.use(p_.variables[fn.parameters[0]].type).decl == from;
    });
  }
  // Is an object of the class assigned to somewhere, which a reference field would forbid?
  Place assignedAt(TypeIndex type) const {
    for (FileIndex f = 0; f < p_.files.size(); ++f) {
      const LoweredFile& file = p_.files[f];
      for (NodeId n = 1; n < file.nodes.size(); ++n) {
        if (file[n].kind != Kind::Assign) continue;
        NodeId target = file.child(n, Role::Target);
        if (target == kNoNode) continue;
        const TypeUse& use = p_.use(p_.links[f].type[target]);
        if (use.decl != type || use.has(kPointer)) continue;
        // What the class assigns from another class by an operator of its own, a reference does not forbid.
        NodeId value = file.child(n, Role::Value);
        TypeIndex from = value == kNoNode ? kNone : p_.use(p_.links[f].type[value]).decl;
        if (from == kNone || from == type || p_.derivesFrom(from, type) || !assignsFrom(type, from)) return {f, n};
      }
    }
    return {};
  }

  std::optional<Step> changeClass(const InjectTask& w) {
    const TypeDecl& decl = p_.types[w.type];
    std::string className(p_.text(decl.qualified));
    if (!decl.definition.known()) return std::nullopt;
    if (!decl.typeParameters.empty()) return refuse(w, "the class is a template");
    if (std::string reason = whyNotHanded(w); !reason.empty()) return refuse(w, reason);
    auto isConstructor = [&](FunctionIndex f) { return f != kNone && p_.functions[f].form == FunctionForm::Constructor && p_.functions[f].owner == w.type; };
    auto functionAt = [&](Place place) {
      for (NodeId up = place.node; up != kNoNode; up = p_.files[place.file].parents[up])
        if (p_.file(place)[up].kind == Kind::Function && p_.links[place.file].symbol[up].is(Symbol::Sort::Function)) return p_.links[place.file].symbol[up].index();
      return static_cast<FunctionIndex>(kNone);
    };
    VariableIndex holder = holderOf(w.type);
    bool needsField = false;
    for (Place access : w.accesses) needsField |= !isConstructor(functionAt(access)) || copiesOrMoves(functionAt(access));
    for (const InjectTask::Pass& pass : w.passes) needsField |= pass.field == kNone && pass.base == kNone && !isConstructor(pass.in);
    bool addField = needsField && holder == kNone;
    // A reference among its fields would forbid that its objects are assigned.
    bool pointer = addField ? assignedAt(w.type).known() : byPointer(holder);
    auto heldFrom = [&](const std::string& object) { return pointer ? "&" + object : object; };
    std::string field = holder != kNone ? std::string(p_.text(p_.variables[holder].name)) : fieldName(w.type);
    std::vector<FunctionIndex> constructors = constructorsOf(w.type);
    ScopeIndex scope = p_.types[w.type].scope;

    // Who makes it? A class that nobody makes can have its seam, but nothing above it can be lifted.
    std::map<FunctionIndex, std::string> parameterName;
    bool newParameter = constructors.empty();
    for (FunctionIndex c : constructors) {
      int position = injectedParameter(c);
      newParameter |= position < 0;
      parameterName[c] = position >= 0 ? std::string(p_.text(p_.variables[p_.functions[c].parameters[static_cast<size_t>(position)]].name)) : nameInside(c);
      if (parameterName[c].empty()) parameterName[c] = objectName_;
    }
    for (FunctionIndex c : constructors) {
      const Function& fn = p_.functions[c];
      if (!fn.definition.known()) return refuse(w, "a constructor of " + className + " has no body in this tree");
      if (fn.modifiers & kInMacro) return refuse(w, "a constructor of " + className + " is made by a macro");
      if (fn.mostArguments > 50) return refuse(w, "a constructor of " + className + " takes any number of arguments");
    }

    // 1. Constructors.
    std::map<FunctionIndex, std::vector<Entry>> entries;
    std::vector<Entry> freshEntries;
    for (const InjectTask::Pass& pass : w.passes) {
      if (pass.field == kNone && pass.base == kNone) continue;
      int group = 1;
      std::string name = pass.field != kNone ? std::string(p_.text(p_.variables[pass.field].name)) : std::string(lastPart(p_.text(p_.types[pass.base].name)));
      int order = orderOf(w.type, name, &group);
      size_t position = static_cast<size_t>(injectedParameter(pass.callee));
      auto fill = filling(pass.callee, 0, position);
      if (!fill) return refuse(w, "a default argument of " + name + " cannot be written out");
      std::string object = pass.in == kNone ? objectName_ : parameterName[pass.in];
      Entry entry{group, order, phrases(pass.place).fieldInit(name, *fill + object)};
      if (pass.in == kNone) freshEntries.push_back(entry);
      else entries[pass.in].push_back(entry);
    }
    for (FunctionIndex c : constructors) {
      const Function& fn = p_.functions[c];
      bool delegates = false;
      NodeId delegating = kNoNode;
      const LoweredFile& file = p_.file(fn.definition);
      for (NodeId n : children(file, fn.definition.node))
        if (file[n].kind == Kind::FieldInit && lastPart(file.name(n)) == p_.text(decl.name)) delegates = true, delegating = n;
      bool hadParameter = injectedParameter(c) >= 0;
      if (!hadParameter) {
        if (!isKnownBefore(firstDeclaration(fn))) return refuse(w, "the class is defined further down in the same file than " + className + ": a default cannot name it there");
        for (Place place : fn.declarations) {
          bool first = place == firstDeclaration(fn);
          std::string parameter = first ? phrases(place).parameterWithDefault(typeName(scope, place, {w.type, w.function}), parameterName[c], accessText(scope, place)) : phrases(place).parameter(typeName(scope, place, {w.type, w.function}), parameterName[c]);
          if (!addParameter(place, parameter)) return refuse(w, "the parameter list of a constructor could not be read");
          // Foo() becomes Foo(T& = …): it must not become a conversion.
          if (first && fn.mostArguments == 0 && !(fn.modifiers & kExplicit)) insert(place, p_.node(place).span.begin, "explicit ");
        }
      }
      if (addField && !delegates) entries[c].push_back({1, -1, phrases(fn.definition).fieldInit(field, heldFrom(parameterName[c]))});
      bool defaulted = p_.node(fn.definition).has(kDefaulted) && file.child(fn.definition.node, Role::Body) == kNoNode;
      if (defaulted) {
        std::vector<std::string> texts;
        std::vector<Entry> list = entries[c];
        std::stable_sort(list.begin(), list.end(), [](const Entry& x, const Entry& y) { return std::make_pair(x.group, x.order) < std::make_pair(y.group, y.order); });
        for (const Entry& entry : list) texts.push_back(entry.text);
        uint32_t close = scan_.parameterListEnd(fn.definition);
        if (close == 0) return refuse(w, "the parameter list of a constructor could not be read");
        edit(fn.definition, {close, p_.node(fn.definition).span.end}, (texts.empty() ? "" : " : " + joinWith(texts, ", ")) + " {}");
      } else {
        addInitialisers(w.type, fn.definition, entries[c]);
      }
      if (delegates && !hadParameter) {
        // The constructor it hands on to has the new parameter from this step on.
        size_t given = 0;
        NodeId last = kNoNode;
        for (NodeId n : children(file, delegating)) {
          if (file[n].role != Role::Argument) continue;
          ++given;
          last = n;
        }
        FunctionIndex target = kNone;
        for (FunctionIndex other : constructors)
          if (other != c && p_.functions[other].leastArguments <= given && given <= p_.functions[other].mostArguments) target = other;
        if (target == kNone) return refuse(w, "the constructor that another hands on to could not be told");
        size_t position = injectedParameter(target) >= 0 ? static_cast<size_t>(injectedParameter(target)) : p_.functions[target].parameters.size();
        auto fill = filling(target, given, position);
        if (!fill) return refuse(w, "a default argument of the constructor handed on to cannot be written out");
        if (last != kNoNode) insert(fn.definition, file[last].span.end, ", " + *fill + parameterName[c]);
        else insert(fn.definition, file[delegating].span.end - 1, *fill + parameterName[c]);
      }
    }
    // A copy that is written out takes the field along.
    for (FunctionIndex m : decl.methods) {
      const Function& fn = p_.functions[m];
      if (!addField || fn.form != FunctionForm::Constructor || !copiesOrMoves(m) || !fn.definition.known() || p_.node(fn.definition).has(kDefaulted) || (fn.modifiers & kDeleted)) continue;
      std::string other(p_.text(p_.variables[fn.parameters[0]].name));
      if (other.empty()) return refuse(w, "a constructor of " + className + " copies without naming what it copies");
      addInitialisers(w.type, fn.definition, {{1, -1, phrases(fn.definition).fieldInit(field, other + "." + field)}});
    }
    if (constructors.empty()) {
      if (!freshConstructor(w.type, addField ? field : "", heldFrom(objectName_), freshEntries)) return std::nullopt;
    }
    if (newParameter) {
      // The default argument stands where the constructor is declared, so that file must see the whole class.
      Place home = constructors.empty() ? decl.definition : p_.functions[constructors.front()].declarations.front();
      if (!ensureInclude(home.file)) return refuse(w, "including the class's file from " + p_.files[home.file].path + " would make a circle");
    }
    // 2. The field.
    if (addField) addHolderField(w.type, pointer ? phrases(decl.definition).localInstance(typeName(scope, decl.definition, {w.type, w.function}) + "*", field) : phrases(decl.definition).field(typeName(scope, decl.definition, {w.type, w.function}), field), decl.definition);
    // 3. Accesses and creations.
    auto objectAt = [&](FunctionIndex in) { return isConstructor(in) && !copiesOrMoves(in) ? parameterName[in] : objectIn(field, pointer); };
    for (Place access : w.accesses) {
      FunctionIndex in = functionAt(access);
      bool asField = !isConstructor(in) || copiesOrMoves(in);
      if (!reachableInLambda(access, asField)) return refuse(w, "a lambda at " + at(access) + " does not capture what it would need");
      if (!replaceAccess(access, objectAt(in))) return std::nullopt;
    }
    for (const InjectTask::Pass& pass : w.passes) {
      if (pass.field != kNone || pass.base != kNone) continue;
      // A delegating call was dealt with above when the parameter was new.
      bool delegating = p_.node(pass.place).kind == Kind::FieldInit && lastPart(p_.nameOf(pass.place)) == p_.text(decl.name);
      if (delegating) continue;
      bool asField = !isConstructor(pass.in);
      if (!reachableInLambda(pass.place, asField)) return refuse(w, "a lambda at " + at(pass.place) + " does not capture what it would need");
      if (!addArgument(pass, objectAt(pass.in))) return std::nullopt;
    }
    Step step;
    step.kind = w.accesses.empty() ? StepKind::Lift : StepKind::Seam;
    step.subject = className;
    step.inTests = inTests(decl.definition);
    std::string object(p_.text(p_.types[made_].name));
    step.title = step.kind == StepKind::Seam ? className + " takes the " + object + " in its constructor; by default it fetches it as before"
                                             : className + " takes the " + object + " and passes it on to what it makes";
    return step;
  }

  std::optional<Step> refuse(const InjectTask& w, const std::string& reason) {
    Place place = !w.accesses.empty() ? w.accesses.front() : w.passes.front().place;
    byHand(place, reason);
    for (Place access : w.accesses) byHand(access, reason);
    return std::nullopt;
  }

  void addBehind(Place place, std::span<const Span> items, const std::string& text) { insert(place, items.back().end, separatorBehind(scan_.text(place.file), items, text.size()) + text); }
  bool addParameter(Place declaration, const std::string& text) {
    const LoweredFile& file = p_.file(declaration);
    std::vector<Span> parameters;
    for (NodeId c : children(file, declaration.node))
      if (file[c].kind == Kind::Parameter) parameters.push_back(file[c].span);
    if (!parameters.empty()) {
      addBehind(declaration, parameters, text);
      return true;
    }
    uint32_t close = scan_.parameterListEnd(declaration);
    if (close == 0) return false;
    std::string_view source = scan_.text(declaration.file);
    // foo(void)
    uint32_t open = static_cast<uint32_t>(source.rfind('(', close - 1));
    edit(declaration, {open + 1, close - 1}, text);
    return true;
  }

  // A class without a constructor of its own gets one.
  bool freshConstructor(TypeIndex type, const std::string& field, const std::string& value, std::vector<Entry> list) {
    const TypeDecl& decl = p_.types[type];
    ScopeIndex scope = decl.scope;
    // Made with braces and values: that would no longer be possible.
    for (uint32_t c : p_.creationsOfType[type]) {
      const Creation& creation = p_.creations[c];
      for (NodeId n : children(p_.file(creation.place), creation.place.node))
        if (p_.file(creation.place)[n].role == Role::Argument && !creation.copy) {
          byHand(creation.place, "the class is filled with a list of values here, which a constructor would forbid");
          return false;
        }
    }
    std::vector<std::string> texts;
    if (!field.empty()) list.push_back({1, -1, phrases(decl.definition).fieldInit(field, value)});
    std::stable_sort(list.begin(), list.end(), [](const Entry& x, const Entry& y) { return std::make_pair(x.group, x.order) < std::make_pair(y.group, y.order); });
    for (const Entry& entry : list) texts.push_back(entry.text);
    std::string constructor = "explicit " + std::string(p_.text(decl.name)) + "(" + phrases(decl.definition).parameterWithDefault(typeName(scope, decl.definition, {type, kNone}), objectName_, accessText(scope, decl.definition)) + ")" +
                              (texts.empty() ? "" : " : " + joinWith(texts, ", ")) + " {}";
    scan_.addPublicMember(type, constructor, edits_);
    return true;
  }

  void addHolderField(TypeIndex type, const std::string& text, Place definition) {
    const TypeDecl& decl = p_.types[type];
    for (VariableIndex v : decl.fields) {
      Place first = p_.variables[v].declarations.front();
      if (first.file != definition.file) continue;
      scan_.insertLineBefore(first, text, edits_);
      return;
    }
    scan_.addPrivateMember(type, text, edits_);
  }

  // ----- a function outside classes

  std::optional<Step> changeFunction(const InjectTask& w) {
    const Function& fn = p_.functions[w.function];
    std::string name = functionText(p_, w.function);
    if (!fn.definition.known()) return refuse(w, name + " has no body in this tree");
    if (fn.form != FunctionForm::Function) return refuse(w, name + " is an operator, whose parameters are fixed");
    if (fn.modifiers & kInMacro) return refuse(w, name + " is made by a macro");
    if (std::string reason = whyNotHanded(w); !reason.empty()) return refuse(w, reason);
    bool called = false;
    for (uint32_t c : p_.callsOfFunction[w.function]) called |= p_.calls[c].in != w.function;
    if (!called) return refuse(w, name + " is not called in this tree: who would hand the object in?");
    for (FileIndex f = 0; f < p_.files.size(); ++f) {
      const LoweredFile& file = p_.files[f];
      for (NodeId n = 1; n < file.nodes.size(); ++n) {
        Symbol symbol = p_.links[f].symbol[n];
        if (file[n].kind != Kind::Name || !symbol.is(Symbol::Sort::Function) || symbol.index() != w.function) continue;
        if (file[n].role != Role::Callee) return refuse(w, name + " is used as a value at " + at({f, n}) + ", so its parameters are fixed");
      }
    }
    ScopeIndex scope = fn.owner != kNone ? p_.types[fn.owner].scope : fn.parent;
    int position = injectedParameter(w.function);
    std::string object = position >= 0 ? std::string(p_.text(p_.variables[fn.parameters[static_cast<size_t>(position)]].name)) : nameInside(w.function);
    if (position < 0) {
      if (std::string friendOf = namedAsFriend(w.function); !friendOf.empty()) return refuse(w, friendOf + " names " + name + " as its friend, with what it takes today");
      if (!isKnownBefore(firstDeclaration(fn))) return refuse(w, "the class is defined further down in the same file than " + name + ": a default cannot name it there");
      for (Place place : fn.declarations) {
        bool first = place == firstDeclaration(fn);
        std::string parameter = first ? phrases(place).parameterWithDefault(typeName(scope, place, {w.type, w.function}), object, accessText(scope, place)) : phrases(place).parameter(typeName(scope, place, {w.type, w.function}), object);
        if (!addParameter(place, parameter)) return refuse(w, "the parameter list of " + name + " could not be read");
        if (!ensureInclude(place.file)) return refuse(w, "including the class's file from " + p_.files[place.file].path + " would make a circle");
      }
    }
    if (!useInFunction(w, object)) return std::nullopt;
    Step step;
    step.kind = w.accesses.empty() ? StepKind::Lift : StepKind::InjectParameter;
    step.subject = name;
    step.inTests = inTests(fn.definition);
    step.title = name + " takes the " + std::string(p_.text(p_.types[made_].name)) + " as a parameter" + (w.accesses.empty() ? " and passes it on" : "; by default it fetches it as before");
    return step;
  }

  // The class that declares a function of that name its friend; "": none does.
  std::string namedAsFriend(FunctionIndex f) const {
    NameId last = p_.functions[f].name;
    for (const TypeDecl& type : p_.types)
      if (std::find(type.friends.begin(), type.friends.end(), last) != type.friends.end()) return std::string(p_.text(type.qualified));
    return "";
  }
  // C++20 [expr.prim.id.qual]/2: what stands in front of :: must be defined by then.
  bool isKnownBefore(Place declaration) const {
    Place home = p_.types[made_].definition;
    return home.file != declaration.file || p_.node(home).span.end < p_.node(declaration).span.begin;
  }

  // Inside one function the object goes by one name.
  bool useInFunction(const InjectTask& w, const std::string& object) {
    auto captured = [&](Place place) {
      if (reachableInLambda(place, false)) return true;
      (void)refuse(w, "a lambda at " + at(place) + " does not capture what it would need");
      return false;
    };
    for (Place access : w.accesses) {
      if (!captured(access)) return false;
      // What the function calls the object itself, by the same name.
      Place variable = p_.parent(wholeAccess(access));
      if (isHolding(access) && p_.nameOf(variable) == object) scan_.removeDeclaration(variable, edits_);
      else if (!replaceAccess(access, object)) return false;
    }
    for (const InjectTask::Pass& pass : w.passes)
      if (!captured(pass.place) || !addArgument(pass, object)) return false;
    return true;
  }

  // ----- composing places

  std::optional<Step> composeFunction(const InjectTask& w) {
    const Function& fn = p_.functions[w.function];
    const LoweredFile& file = p_.file(fn.definition);
    NodeId body = file.child(fn.definition.node, Role::Body);
    if (body == kNoNode) return std::nullopt;
    // An own reference that is already there serves, when nothing comes before it.
    std::string object = objectName_;
    bool there = false;
    for (uint32_t c = 0; c < p_.variables.size() && !there; ++c) {
      const Variable& v = p_.variables[c];
      if (v.function != w.function || v.storage != Storage::Local || v.name == 0) continue;
      const TypeUse& use = p_.use(v.type);
      if (use.decl == made_ && p_.text(v.name) == objectName_) there = true;
    }
    ScopeIndex scope = fn.parent;
    if (!there) {
      std::string line = phrases(fn.definition).localInstance(typeName(scope, fn.definition, {w.type, w.function}) + "&", object + " = " + accessText(scope, fn.definition));
      scan_.insertAtBodyStart({fn.definition.file, body}, line, edits_);
      nameDirectly(fn.definition.file);
    }
    if (!useInFunction(w, object)) return std::nullopt;
    Step step;
    step.kind = StepKind::Compose;
    step.subject = functionText(p_, w.function);
    step.inTests = inTests(fn.definition);
    step.title = step.subject + " fetches the " + std::string(p_.text(p_.types[made_].name)) + " once and passes it on";
    return step;
  }

  // A class that a framework makes (a test fixture): it keeps the object as its first field.
  std::optional<Step> composeClass(const InjectTask& w) {
    const TypeDecl& decl = p_.types[w.type];
    VariableIndex holder = holderOf(w.type);
    std::string field = holder != kNone ? std::string(p_.text(p_.variables[holder].name)) : fieldName(w.type);
    if (holder == kNone) {
      std::string text = phrases(decl.definition).localInstance(typeName(decl.scope, decl.definition, {w.type, w.function}) + "&", field + " = " + accessText(decl.scope, decl.definition));
      bool usedOutside = false;
      for (Place access : w.accesses) {
        Place around = p_.around(access, Kind::Function);
        usedOutside |= around.node != kNoNode && p_.symbolAt(around).is(Symbol::Sort::Function) && p_.functions[p_.symbolAt(around).index()].fixture == w.type;
      }
      if (decl.fields.empty()) scan_.addPublicMember(w.type, text, edits_);
      else if (usedOutside && (p_.variables[decl.fields.front()].modifiers & kPrivate)) return refuse(w, "the fixture's fields are private, and its tests need one");
      else scan_.insertLineBefore(p_.variables[decl.fields.front()].declarations.front(), text, edits_);
      nameDirectly(decl.definition.file);
    }
    std::string object = objectIn(field, byPointer(holder));
    for (Place access : w.accesses) {
      if (!reachableInLambda(access, true)) return refuse(w, "a lambda at " + at(access) + " does not capture what it would need");
      if (!replaceAccess(access, object)) return std::nullopt;
    }
    for (const InjectTask::Pass& pass : w.passes) {
      if (pass.field != kNone || pass.base != kNone) {
        if (pass.field == kNone) return refuse(w, "a class made by a framework derives from one that needs the object");
        // Made without a word: now with the object, at its declaration.
        Place place = p_.variables[pass.field].declarations.front();
        uint32_t end = p_.node(place).nameBegin + static_cast<uint32_t>(p_.text(p_.variables[pass.field].name).size());
        auto fill = filling(pass.callee, 0, static_cast<size_t>(injectedParameter(pass.callee)));
        if (!fill) return refuse(w, "a default argument cannot be written out");
        insert(place, end, "{" + *fill + object + "}");
        continue;
      }
      if (!reachableInLambda(pass.place, true)) return refuse(w, "a lambda at " + at(pass.place) + " does not capture what it would need");
      if (!addArgument(pass, object)) return std::nullopt;
    }
    Step step;
    step.kind = StepKind::Compose;
    step.subject = std::string(p_.text(decl.qualified));
    step.inTests = inTests(decl.definition);
    step.title = step.subject + ", which a framework makes, keeps the " + std::string(p_.text(p_.types[made_].name)) + " and passes it on";
    return step;
  }

  // ----- the end

  std::optional<Step> retire() {
    edits_.clear();
    const TypeDecl& decl = p_.types[made_];
    std::vector<Place> holding, defaults;
    for (FunctionIndex accessPoint : accessPointFunctions_) {
      for (uint32_t c : p_.callsOfFunction[accessPoint]) {
        const CallSite& call = p_.calls[c];
        if (call.in != kNone && accessPointFunctions_.count(call.in) && !isDefaultArgument(call.place)) continue;
        if (isDefaultArgument(call.place)) defaults.push_back(call.place);
        else if (isHolding(call.place)) holding.push_back(call.place);
        else return std::nullopt;
      }
    }
    // How the instance is made: the same arguments, where they can be written elsewhere.
    std::string arguments;
    if (e_.creation.place.known()) {
      const LoweredFile& file = p_.file(e_.creation.place);
      std::vector<std::string> texts;
      for (NodeId c : children(file, e_.creation.place.node)) {
        if (file[c].role != Role::Argument || file[e_.creation.place.node].kind == Kind::Variable) continue;
        if (file[c].kind != Kind::Literal && !(file[c].kind == Kind::Create)) {
          byHand({e_.creation.place.file, c}, "the instance is created with an argument that may not be known elsewhere");
          return std::nullopt;
        }
        texts.push_back(scan_.nodeText({e_.creation.place.file, c}));
      }
      arguments = joinWith(texts, ", ");
    }
    // 1. Composing places make their own.
    for (Place call : holding) {
      Place variable = p_.parent(wholeAccess(call));
      Symbol symbol = p_.symbolAt(variable);
      const Variable& v = p_.variables[symbol.index()];
      ScopeIndex scope = v.owner != kNone ? p_.types[v.owner].scope : p_.functions[v.function].fixture != kNone ? p_.types[p_.functions[v.function].fixture].scope : p_.functions[v.function].parent;
      std::string name(p_.text(v.name));
      std::string open = v.owner != kNone ? "{" : "(", close = v.owner != kNone ? "}" : ")";
      std::string type = nameIn(scope, variable, decl.qualified, decl.parent);
      edit(variable, p_.node(variable).span, phrases(variable).localInstance(type, name + (arguments.empty() ? "" : open + arguments + close)));
    }
    // 2. Defaults go, with those of the parameters before.
    std::set<FunctionIndex> stripped;
    for (Place call : defaults) {
      Place function = p_.around(call, Kind::Function);
      Symbol symbol = p_.symbolAt(function);
      if (!symbol.is(Symbol::Sort::Function) || !stripped.insert(symbol.index()).second) continue;
      for (Place declaration : p_.functions[symbol.index()].declarations) {
        const LoweredFile& file = p_.file(declaration);
        for (NodeId c : children(file, declaration.node)) {
          if (file[c].kind != Kind::Parameter) continue;
          NodeId value = file.child(c, Role::Initialiser);
          if (value == kNoNode) continue;
          uint32_t from = file[c].name ? file[c].nameBegin + static_cast<uint32_t>(file.name(c).size()) : 0;
          if (from == 0) {
            byHand({declaration.file, c}, "a default argument of a parameter without a name could not be taken away");
            return std::nullopt;
          }
          edit(declaration, {from, file[c].span.end}, "");
        }
      }
    }
    // 3. The constructor opens, where the accessor stood; accessor and slot go.
    std::vector<Place> gone;
    for (FunctionIndex accessPoint : accessPointFunctions_)
      for (Place place : p_.functions[accessPoint].declarations) gone.push_back(place);
    for (VariableIndex slot : e_.slots)
      if (p_.variables[slot].storage != Storage::FunctionStatic)
        for (Place place : p_.variables[slot].declarations) gone.push_back(place);
    for (VariableIndex v : decl.statics) {  // a lock or flag that served the accessor only
      if (std::find(e_.slots.begin(), e_.slots.end(), v) != e_.slots.end() || p_.usesOfVariable[v].empty()) continue;
      bool only = true;
      for (uint32_t u : p_.usesOfVariable[v]) only &= p_.uses[u].in != kNone && accessPointFunctions_.count(p_.uses[u].in) > 0;
      if (only)
        for (Place place : p_.variables[v].declarations) gone.push_back(place);
    }
    std::vector<std::string> opened;
    for (FunctionIndex m : decl.methods) {
      const Function& fn = p_.functions[m];
      bool special = (fn.form == FunctionForm::Constructor && !copiesOrMoves(m)) || fn.form == FunctionForm::Destructor;
      if (!special || !(fn.modifiers & (kPrivate | kProtected)) || (fn.modifiers & kDeleted)) continue;
      Place inside = fn.declarations.front();
      opened.push_back(scan_.nodeText(inside));
      gone.push_back(inside);
    }
    Place accessPointPlace = p_.functions[accessPoint_].declarations.front();
    bool accessPointInside = p_.functions[accessPoint_].owner == made_ && !(p_.functions[accessPoint_].modifiers & (kPrivate | kProtected));
    for (Place place : gone) {
      if (accessPointInside && place == accessPointPlace && !opened.empty()) {
        std::string indent = scan_.indentOf(place);
        edit(place, p_.node(place).span, joinWith(opened, "\n" + indent));
        continue;
      }
      scan_.removeLines(place, edits_);
    }
    if (!opened.empty() && !accessPointInside) {
      for (const std::string& text : opened) scan_.addPublicMember(made_, text, edits_);
    }
    // 4. Where a step put the class's file in only for the default, its name is enough now.
    for (const std::string& added : memory_.addedIncludes) {
      size_t split = added.find('\n');
      shrinkInclude(added.substr(0, split), added.substr(split + 1));
    }
    Step step;
    step.kind = StepKind::Retire;
    step.endsAccessor = true;
    step.subject = std::string(p_.text(decl.qualified));
    step.title = functionText(p_, accessPoint_) + " goes: " + counted(holding.size(), "composing place makes", "composing places make") + " the " + std::string(p_.text(decl.name)) + " and " + (holding.size() == 1 ? "hands" : "hand") + " it in";
    step.callSites = holding.size() + defaults.size();
    step.edits = std::move(edits_);
    return step;
  }

  void shrinkInclude(const std::string& path, const std::string& spelling) {
    FileIndex file = kNone;
    for (FileIndex f = 0; f < p_.files.size(); ++f)
      if (p_.files[f].path == path) file = f;
    if (file == kNone || !p_.isHeader(file)) return;
    // Does the header use more of the class than its name?
    for (const Use& use : p_.uses) {
      if (use.place.file != file) continue;
      const TypeUse& type = p_.use(p_.variables[use.variable].type);
      Place up = p_.parent(use.place);
      if (type.decl == made_ && p_.node(up).kind == Kind::Member) return;
    }
    for (const Creation& creation : p_.creations)
      if (creation.place.file == file && creation.type == made_) return;
    scan_.includeToDeclaration(file, spelling, made_, edits_);
    // Sources that used the class through this header name its file themselves.
    for (FileIndex f = 0; f < p_.files.size(); ++f) {
      if (p_.isHeader(f) || f == p_.types[made_].definition.file) continue;
      bool uses = false;
      for (FunctionIndex m : p_.types[made_].methods) {
        if (accessPointFunctions_.count(m)) continue;
        for (uint32_t c : p_.callsOfFunction[m]) uses |= p_.calls[c].place.file == f;
      }
      if (uses) nameDirectly(f);
    }
  }

  // A file that uses the class itself names its file, not one that happens to.
  void nameDirectly(FileIndex f) {
    Place definition = p_.types[made_].definition;
    if (f == definition.file || scan_.includesDirectly(f, definition.file)) return;
    std::vector<FileEdit> edits;
    scan_.addInclude(f, phrases(definition).import(scan_.spellingOf(definition.file, f)), edits);
    for (FileEdit& e : edits) {
      bool there = false;
      for (const FileEdit& other : edits_) there |= other.path == e.path && other.span == e.span && other.text == e.text;
      if (!there) edits_.push_back(std::move(e));
    }
  }

  std::vector<FileEdit> edits_;
  std::set<std::string> newIncludes_;
};

}  // namespace

std::string injectRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return Injector(analysis, entity, memory).refusal();
}

NextStep nextInjectStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return Injector(analysis, entity, memory).run(); }

}  // namespace elmcart

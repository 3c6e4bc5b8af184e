#include "survey/survey.h"

#include <absl/container/flat_hash_set.h>

#include <algorithm>
#include <map>
#include <numeric>
#include <set>

#include "base/parallel.h"
#include "base/sorting.h"
#include "base/text.h"
#include "languages/parse_guard.h"
#include "survey/declared.h"
#include "survey/harmless.h"
#include "survey/naming.h"

namespace elmcart {

std::string_view kindText(EntityKind kind) {
  static constexpr std::string_view kTexts[] = {"singleton", "shared-instance", "static-holder", "static-field", "global-variable",
                                                "function-static", "registry", "ambient", "thread-local", "container-managed"};
  return kTexts[static_cast<size_t>(kind)];
}

std::string_view kindMeaning(EntityKind kind) {
  static constexpr std::string_view kTexts[] = {
      "a class meant to have one instance, with a global way to reach it",
      "a ready instance reachable globally, while its class can be constructed freely",
      "a class of only static members that keeps mutable static state",
      "one mutable class-level field in an otherwise ordinary class",
      "a mutable variable at namespace or file scope",
      "a mutable variable inside a function that lives as long as the process",
      "a keyed table of shared instances",
      "a \"current …\" accessor over a slot that is set from elsewhere",
      "state that every thread has its own copy of, reachable globally",
      "one instance by declaration to a container: shared, but handed in"};
  return kTexts[static_cast<size_t>(kind)];
}

std::string_view creationText(CreationTime time) {
  return time == CreationTime::Eager ? "eager" : time == CreationTime::Lazy ? "lazy" : "elsewhere";
}

std::string_view guardText(GuardSort guard) {
  static constexpr std::string_view kTexts[] = {"none", "language", "lock", "double-check", "double-check-unsound", "once", "atomic", "single-threaded"};
  return kTexts[static_cast<size_t>(guard)];
}

std::string_view accessText(const Consumer& consumer) {
  if (consumer.method != kNone || consumer.access == Access::Call) return "call";
  if (consumer.reach) return "reach";
  if (consumer.access == Access::Write || consumer.access == Access::Update) return "write";
  return consumer.access == Access::Bind ? "reach" : "read";
}

namespace {

class Recogniser {
 public:
  Recogniser(const Program& program, const Origins& origins) : p_(program), o_(origins), harmless_(program, origins), locks_(program) {
    indexStaticHolders();
    indexFileHolders();
  }

  Survey run(unsigned jobs) {
    Survey out;
    std::vector<VariableIndex> slots;
    for (VariableIndex v = 0; v < p_.variables.size(); ++v)
      if (isSlot(v)) slots.push_back(v);
    std::vector<OfSlot> found(slots.size());
    // Each piece has a recogniser that remembers for itself what it has worked out.
    forEachPiece(slots.size(), 1024, jobs, [&](size_t from, size_t to) {
      Recogniser own(*this);
      for (size_t i = from; i < to; ++i) {
        WorkingOn now("surveying", p_.path(p_.variables[slots[i]].home()));
        if (own.holderOf(slots[i]) == kNone || !own.isMutableState(slots[i])) found[i] = own.ofSlot(slots[i]);
      }
    });
    std::set<TypeIndex> holdersDone;
    absl::flat_hash_set<std::string> ids;
    out.entities.reserve(std::accumulate(found.begin(), found.end(), staticHolders_.size(), [](size_t sum, const OfSlot& of) { return sum + of.entities.size(); }));
    auto add = [&](Entity&& entity) {
      ids.insert(idKey(entity));
      out.entities.push_back(std::move(entity));
    };
    for (size_t i = 0; i < slots.size(); ++i) {
      if (TypeIndex holder = holderOf(slots[i]); holder != kNone && holdersDone.insert(holder).second) add(staticHolder(holder));
      for (Entity& entity : found[i].entities) {
        // Two slots of one class (one per key, say) would bear one name: the second goes by its slot.
        if (found[i].bearsClassName && ids.count(idKey(entity))) nameBySlot(entity);
        add(std::move(entity));
      }
    }
    addKeptByMark(p_, out.entities);
    out.managed = containerManaged(p_);
    sortEntities(p_, out.entities);
    // Two entities must not share an id: later ones bear their file and line.
    absl::flat_hash_set<std::string> seen;
    for (Entity& entity : out.entities)
      if (!seen.insert(entity.id).second) {
        entity.id += "@" + p_.path(entity.place) + ":" + std::to_string(p_.line(entity.place));
        seen.insert(entity.id);
      }
    nameShortly(p_, out.entities);
    nameShortly(p_, out.managed);
    return out;
  }

 private:
  // ----- which variables are slots at all

  bool isSlot(VariableIndex v) const {
    const Variable& variable = p_.variables[v];
    if (variable.lives()) {
      if (!variable.definition.known() && variable.storage == Storage::Global) return !variable.declarations.empty() && (variable.modifiers & kExtern);
      // A template's static member without its class parameters filled in is still one slot a type.
      return variable.name != 0;
    }
    return o_.isServiceOfContext(v);
  }

  TypeIndex classOf(VariableIndex v) const { return p_.classBehind(p_.variables[v].home().file, p_.variables[v].type); }
  uint32_t traitsOf(VariableIndex v) const { return p_.traits(p_.variables[v].home().file, p_.variables[v].type); }

  bool isMutableState(VariableIndex v) const { return harmless_.reason(v, classOf(v)).empty(); }

  // ----- static holders

  void indexStaticHolders() {
    for (TypeIndex t = 0; t < p_.types.size(); ++t) {
      const TypeDecl& decl = p_.types[t];
      if (!decl.definition.known() || decl.statics.empty() || !decl.fields.empty() || !decl.bases.empty() || !decl.derived.empty()) continue;
      bool onlyStatic = true, anyStatic = false;
      for (FunctionIndex m : decl.methods) {
        const Function& fn = p_.functions[m];
        if (fn.form == FunctionForm::Constructor || fn.form == FunctionForm::Destructor) continue;
        if (p_.text(fn.name) == "operator=") continue;
        if (fn.modifiers & kStatic) anyStatic = true;
        else onlyStatic = false;
      }
      if (!onlyStatic) continue;
      bool publicState = false;
      for (VariableIndex v : decl.statics) publicState |= !(p_.variables[v].modifiers & (kPrivate | kProtected));
      if (!anyStatic && !publicState) continue;
      // An object of it that somebody makes is not only a holder.
      bool made = false;
      for (uint32_t c : p_.creationsOfType[t]) made |= !p_.creations[c].asBase;
      if (made) continue;
      bool mutableState = false;
      for (VariableIndex v : decl.statics) {
        // A class that only holds another's instance is that one's slot.
        bool holdsInstance = (p_.use(p_.variables[v].type).modifiers & kManaged) == kManaged && classOf(v) != kNone && (p_.variables[v].modifiers & kConst);
        // A value for each thread is a piece of state by itself.
        bool perThread = (traitsOf(v) & kPerThread) || (p_.variables[v].modifiers & kThreadLocal);
        mutableState |= classOf(v) != t && !holdsInstance && !perThread && isMutableState(v);
      }
      for (VariableIndex v : decl.statics) onlyStatic &= !isInstanceTable(v);
      if (mutableState && onlyStatic) staticHolders_.insert(t);
    }
  }

  // A class of class-level functions alone, whose state stands in variables of
  // its file: those that no other function touches.
  void indexFileHolders() {
    std::map<TypeIndex, std::vector<VariableIndex>> found;
    for (VariableIndex v = 0; v < p_.variables.size(); ++v) {
      const Variable& variable = p_.variables[v];
      if (variable.storage != Storage::Global || variable.onlyIn == kNone || !isSlot(v) || classOf(v) != kNone || (variable.modifiers & kThreadLocal) || p_.usesOfVariable[v].empty()) continue;
      TypeIndex owner = kNone;
      bool alone = true;
      for (uint32_t u : p_.usesOfVariable[v]) {
        FunctionIndex in = p_.uses[u].in;
        TypeIndex of = in == kNone || !p_.functions[in].isStaticMember() ? kNone : p_.functions[in].owner;
        alone &= of != kNone && (owner == kNone || owner == of);
        owner = of;
      }
      if (alone) found[owner].push_back(v);
    }
    for (auto& [t, variables] : found) {
      const TypeDecl& decl = p_.types[t];
      bool inherits = std::any_of(decl.bases.begin(), decl.bases.end(), [](const Base& base) { return base.type != kNone; });
      if (!decl.definition.known() || !decl.fields.empty() || !decl.statics.empty() || !decl.derived.empty() || inherits || !p_.creationsOfType[t].empty()) continue;
      bool onlyStatic = std::all_of(decl.methods.begin(), decl.methods.end(), [&](FunctionIndex m) { return p_.functions[m].isStaticMember() || p_.functions[m].form == FunctionForm::Constructor; });
      if (!onlyStatic || std::none_of(variables.begin(), variables.end(), [&](VariableIndex v) { return isMutableState(v) && !isInstanceTable(v) && !(traitsOf(v) & kPerThread); })) continue;
      for (VariableIndex v : variables) holderOfFileVariable_[v] = t;
      fileState_[t] = variables;
    }
  }

  Entity staticHolder(TypeIndex t) {
    Entity entity;
    const TypeDecl& decl = p_.types[t];
    entity.kind = decl.form == TypeForm::Object ? EntityKind::Singleton : EntityKind::StaticHolder;
    entity.name = p_.text(decl.name);
    entity.id = p_.text(decl.qualified);
    entity.type = t;
    entity.typeText = entity.id;
    entity.place = decl.definition;
    entity.language = p_.files[decl.definition.file].language;
    entity.creation.time = CreationTime::Eager;
    entity.creation.guard = GuardSort::Language;
    if (decl.form == TypeForm::Object) entity.creation.weights = weightsOfCreation(p_, t, kNone);
    auto behind = fileState_.find(t);
    for (VariableIndex v : behind == fileState_.end() ? decl.statics : behind->second) {
      if (!isMutableState(v)) continue;
      entity.slots.push_back(v);
      entity.state.push_back({v, true, {}});
      if (p_.variables[v].onlyIn == kNone && !(p_.variables[v].modifiers & (kPrivate | kProtected))) entity.accessPoints.push_back({AccessPoint::Sort::Slot, kNone, v, p_.variables[v].home(), std::string(p_.text(p_.variables[v].qualified))});
      for (uint32_t u : p_.usesOfVariable[v]) {
        const Use& use = p_.uses[u];
        if (use.in != kNone && p_.functions[use.in].owner == t) continue;
        addUseConsumer(entity, use);
      }
    }
    if (!entity.slots.empty()) entity.slot = entity.slots.front();
    for (FunctionIndex m : decl.methods) {
      const Function& fn = p_.functions[m];
      bool called = fn.form == FunctionForm::Function || fn.form == FunctionForm::Getter || fn.form == FunctionForm::Setter;
      if (!called || !(fn.modifiers & kStatic)) continue;
      if (!(fn.modifiers & (kPrivate | kProtected))) entity.accessPoints.push_back({AccessPoint::Sort::Accessor, m, kNone, fn.declarations.front(), functionName(p_, m)});
      for (uint32_t c : p_.callsOfFunction[m]) {
        const CallSite& call = p_.calls[c];
        if (call.in != kNone && p_.functions[call.in].owner == t) continue;
        Consumer consumer;
        consumer.place = call.place;
        consumer.in = call.in;
        consumer.inInitialiserOf = call.inInitialiserOf;
        consumer.access = Access::Call;
        consumer.reach = true;
        consumer.method = m;
        entity.consumers.push_back(consumer);
      }
    }
    fillLocks(entity);
    sortConsumers(entity);
    entity.end = "never: static fields live until the process ends";
    entity.neverDestroyed = true;
    return entity;
  }

  // ----- one slot

  struct OfSlot {
    std::vector<Entity> entities;
    bool bearsClassName = false;
  };

  // The class of static members alone, or with its file's variables, that keeps the slot; kNone for one that stands for itself.
  TypeIndex holderOf(VariableIndex v) const {
    auto behind = holderOfFileVariable_.find(v);
    TypeIndex holder = behind != holderOfFileVariable_.end() ? behind->second : p_.variables[v].owner;
    bool held = behind != holderOfFileVariable_.end() || (p_.variables[v].storage == Storage::StaticField && staticHolders_.count(holder));
    return held && classOf(v) != holder ? holder : kNone;
  }

  void nameBySlot(Entity& entity) const {
    const Variable& variable = p_.variables[entity.slot];
    entity.name = ownName(variable);
    entity.id = p_.text(variable.qualified);
    entity.place = p_.variables[entity.slot].home();
  }

  OfSlot ofSlot(VariableIndex v) {
    OfSlot out;
    const Variable& variable = p_.variables[v];
    TypeIndex type = classOf(v);
    Entity entity;
    entity.slot = v;
    entity.slots = {v};
    entity.type = type;
    entity.typeText = p_.typeText(variable.type);
    nameBySlot(entity);
    entity.language = p_.files[entity.place.file].language;
    findAccessPoints(entity);
    findCreation(entity);
    entity.kind = decideKind(entity);
    if (entity.kind == EntityKind::Registry) findLookups(entity);
    entity.harmlessBecause = harmless_.reason(v, type);
    // Unused parameters of the language's own making are no entities.
    entity.harmless = !entity.harmlessBecause.empty();
    // Constants of an enum without state are just its values.
    if (entity.harmless && type != kNone && variable.owner == type && p_.types[type].form == TypeForm::Enum) return out;
    bool classLike = entity.kind == EntityKind::Singleton || (entity.kind == EntityKind::SharedInstance && variable.storage == Storage::FunctionStatic);
    if (classLike && type != kNone && !p_.types[type].definition.known() && p_.types[type].declarations.empty()) classLike = false;
    TypeIndex nameType = type;
    if (classLike && entity.creation.made != kNone && p_.types[entity.creation.made].bases.empty() && type == kNone) nameType = entity.creation.made;
    if (classLike && nameType != kNone) {
      const TypeDecl& decl = p_.types[nameType];
      entity.name = p_.text(decl.name);
      entity.id = p_.text(decl.qualified);
      entity.place = decl.home();
    }
    if (isTypeParameterSlot(v)) {
      out.entities = templateSlot(entity);
      return out;
    }
    finish(entity);
    out.bearsClassName = classLike;
    out.entities.push_back(std::move(entity));
    return out;
  }

  // What a module hands out as its only thing is called by the module's name.
  std::string ownName(const Variable& variable) const {
    std::string_view name = p_.text(variable.name);
    if (name == "default" && variable.parent != kNone && p_.scopes[variable.parent].sort == Scope::Sort::Namespace) name = lastPart(p_.text(p_.scopes[variable.parent].name));
    return std::string(name);
  }

  void finish(Entity& entity) {
    findConsumers(entity);
    findState(entity);
    findEnforcement(entity);
    findEnd(entity);
    fillLocks(entity);
    sortConsumers(entity);
    Place reset;
    for (uint32_t u : p_.usesOfVariable[entity.slot]) {
      const Use& use = p_.uses[u];
      if (use.access != Access::Write || use.throughPointer || use.inMember || use.place == entity.creation.place) continue;
      if (entity.creation.in != kNone && use.in == entity.creation.in) continue;
      if (!reset.known()) reset = use.place;
    }
    entity.reset = reset;
  }

  // template <class T> struct Base { static T& instance() { static T slot; … } };
  bool isTypeParameterSlot(VariableIndex v) const {
    const TypeUse& use = p_.use(p_.variables[v].type);
    if (use.parameter) return true;
    return use.argumentCount > 0 && p_.use(p_.argument(use, 0)).parameter && (traitsOf(v) & (kPointerLike | kAtomicType));
  }

  std::vector<Entity> templateSlot(const Entity& base) {
    std::vector<Entity> out;
    const Variable& variable = p_.variables[base.slot];
    TypeIndex owner = variable.owner;
    if (owner == kNone && variable.function != kNone) owner = p_.functions[variable.function].owner;
    if (owner == kNone || o_.accessPointsTo(base.slot).empty()) return out;
    // One instance a class that derives from it, or that is named as its argument.
    std::set<TypeIndex> classes(p_.types[owner].derived.begin(), p_.types[owner].derived.end());
    std::map<TypeIndex, std::vector<uint32_t>> sites;
    for (FunctionIndex accessPoint : o_.accessPointsTo(base.slot)) {
      for (uint32_t c : p_.callsOfFunction[accessPoint]) {
        TypeUseId result = p_.typeAt(p_.calls[c].place);
        TypeIndex made = p_.classBehind(p_.calls[c].place.file, result);
        if (made == kNone) continue;
        classes.insert(made);
        sites[made].push_back(c);
      }
    }
    for (TypeIndex t : classes) {
      Entity entity = base;
      const TypeDecl& decl = p_.types[t];
      bool derived = p_.derivesFrom(t, owner);
      entity.kind = derived || !hasOpenConstructor(p_, t) ? EntityKind::Singleton : EntityKind::SharedInstance;
      entity.type = t;
      entity.typeText = p_.text(decl.qualified);
      entity.name = p_.text(decl.name);
      entity.id = p_.text(decl.qualified);
      entity.place = decl.home();
      entity.creation.made = t;
      entity.creation.constructor = defaultConstructor(t);
      entity.creation.weights = weightsOfCreation(p_, t, entity.creation.constructor);
      entity.harmless = false;
      entity.harmlessBecause.clear();
      for (uint32_t c : sites[t]) {
        const CallSite& call = p_.calls[c];
        if (call.in != kNone && p_.functions[call.in].owner == t) continue;
        addReach(entity, call.place, call.in, call.inInitialiserOf, 0);
      }
      findState(entity);
      findEnforcement(entity);
      findEnd(entity);
      fillLocks(entity);
      sortConsumers(entity);
      out.push_back(std::move(entity));
    }
    return out;
  }

  FunctionIndex defaultConstructor(TypeIndex t) const {
    for (FunctionIndex m : p_.types[t].methods)
      if (p_.functions[m].form == FunctionForm::Constructor && p_.functions[m].leastArguments == 0 && !(p_.functions[m].modifiers & kDeleted)) return m;
    return kNone;
  }

  // ----- access points

  void findAccessPoints(Entity& entity) {
    VariableIndex v = entity.slot;
    const Variable& variable = p_.variables[v];
    for (FunctionIndex f : o_.accessPointsTo(v)) {
      const Function& fn = p_.functions[f];
      AccessPoint accessPoint;
      accessPoint.function = f;
      accessPoint.place = fn.declarations.front();
      accessPoint.name = functionName(p_, f);
      // A helper is an access point that gets it through another access point.
      bool direct = false;
      for (uint32_t u : p_.usesInFunction[f]) direct |= p_.uses[u].variable == v;
      accessPoint.sort = direct ? AccessPoint::Sort::Accessor : AccessPoint::Sort::Helper;
      entity.accessPoints.push_back(accessPoint);
    }
    std::stable_sort(entity.accessPoints.begin(), entity.accessPoints.end(), [](const AccessPoint& a, const AccessPoint& b) { return a.sort < b.sort; });
    bool openSlot = (variable.storage == Storage::Global && variable.onlyIn == kNone) ||
                    (variable.storage == Storage::StaticField && !(variable.modifiers & (kPrivate | kProtected)));
    if (openSlot) entity.accessPoints.push_back({AccessPoint::Sort::Slot, kNone, v, p_.variables[v].home(), std::string(p_.text(variable.qualified))});
  }

  // Functions that look an instance up in a keyed table are its access points.
  void findLookups(Entity& entity) {
    const TypeUse& use = p_.use(p_.variables[entity.slot].type);
    TypeIndex mapped = p_.classBehind(entity.place.file, p_.argument(use, 1));
    std::set<FunctionIndex> seen;
    for (const AccessPoint& accessPoint : entity.accessPoints) seen.insert(accessPoint.function);
    for (uint32_t u : p_.usesOfVariable[entity.slot]) {
      FunctionIndex f = p_.uses[u].in;
      if (f == kNone || !seen.insert(f).second) continue;
      if (mapped == kNone || p_.classBehind(entity.place.file, p_.functions[f].result) != mapped) continue;
      entity.accessPoints.push_back({AccessPoint::Sort::Accessor, f, kNone, p_.functions[f].declarations.front(), functionName(p_, f)});
    }
  }

  // ----- creation and its guard

  bool testsSlot(Place test, VariableIndex v) const {
    const LoweredFile& file = p_.file(test);
    if (file[test.node].kind == Kind::NullTest || file[test.node].kind == Kind::Compare) {
      for (NodeId c : children(file, test.node)) {
        Place operand{test.file, c};
        if (o_.of(operand) == v) return true;
        Symbol symbol = p_.symbolAt(operand);
        if (symbol.is(Symbol::Sort::Variable) && symbol.index() == v) return true;
        // slot.has_value(), slot.get() == nullptr, slot.count(key)
        if (file[c].kind == Kind::Call) {
          NodeId callee = file.child(c, Role::Callee);
          if (callee != kNoNode && file[callee].kind == Kind::Member) {
            NodeId receiver = file.child(callee, Role::Receiver);
            if (receiver != kNoNode && o_.of({test.file, receiver}) == v) return true;
          }
        }
      }
      return false;
    }
    if (file[test.node].kind == Kind::Logic)
      for (NodeId c : children(file, test.node))
        if (testsSlot({test.file, c}, v)) return true;
    return false;
  }

  // The test of the slot that decides whether `place` runs: an if around it, or
  // an earlier `if (slot) return …;` in a block around it.
  void findTests(Entity& entity, Place place) const {
    const LoweredFile& file = p_.file(place);
    VariableIndex v = entity.slot;
    std::vector<std::pair<Place, bool>> found;  // from the inside out; true: a lock
    NodeId below = place.node;
    for (NodeId up = file.parents[place.node]; up != kNoNode; below = up, up = file.parents[up]) {
      const Node& node = file[up];
      if (node.kind == Kind::Function) break;
      if (node.kind == Kind::Guard) found.emplace_back(Place{place.file, up}, true);
      if ((node.kind == Kind::If || node.kind == Kind::Conditional) && file[below].role != Role::Condition) {
        for (NodeId c : children(file, up))
          if (file[c].role == Role::Condition && testsSlot({place.file, c}, v)) found.emplace_back(Place{place.file, up}, false);
      }
      if (node.kind == Kind::Block) {
        for (NodeId c : children(file, up)) {
          if (c == below) break;
          if (file[c].kind != Kind::If) continue;
          NodeId condition = file.child(c, Role::Condition);
          NodeId then = file.child(c, Role::Then);
          if (condition == kNoNode || then == kNoNode || !testsSlot({place.file, condition}, v)) continue;
          bool leaves = false;
          for (NodeId s : children(file, then)) leaves |= file[s].kind == Kind::Return;
          if (leaves) found.emplace_back(Place{place.file, c}, false);
        }
      }
    }
    // From the inside out: [inner test] lock [outer test].
    for (size_t i = 0; i < found.size(); ++i) {
      if (found[i].second) {
        if (!entity.creation.lock.known()) entity.creation.lock = found[i].first;
      } else if (!entity.creation.lock.known()) {
        if (!entity.creation.innerTest.known()) entity.creation.innerTest = found[i].first;
      } else if (!entity.creation.outerTest.known()) {
        entity.creation.outerTest = found[i].first;
      }
    }
  }

  // The class made by the value of an assignment, and where.
  bool readCreation(Place value, CreationFacts& facts) const {
    const LoweredFile& file = p_.file(value);
    const Node& node = file[value.node];
    if (node.kind == Kind::Create) {
      facts.place = value;
      Symbol symbol = p_.symbolAt(value);
      if (symbol.is(Symbol::Sort::Type)) facts.made = symbol.index();
      return true;
    }
    if (node.kind == Kind::Conditional) {
      for (NodeId c : children(file, value.node))
        if (file[c].role != Role::Condition && readCreation({value.file, c}, facts)) return true;
      return false;
    }
    if (node.kind == Kind::Call) {
      Symbol symbol = p_.symbolAt(value);
      NodeId callee = file.child(value.node, Role::Callee);
      if (symbol.is(Symbol::Sort::Function)) {
        // A factory: it returns what it creates.
        for (const Place& returned : o_.returnsOf(symbol.index())) {
          CreationFacts inner;
          if (p_.node(returned).kind == Kind::Create && readCreation(returned, inner)) {
            facts.place = value;
            facts.made = inner.made;
            return true;
          }
        }
        return false;
      }
      if (callee != kNoNode && p_.symbolAt({value.file, callee}).is(Symbol::Sort::Type)) {
        facts.place = value;
        facts.made = p_.symbolAt({value.file, callee}).index();
        return true;
      }
      // std::move(fresh), std::shared_ptr<T>(new T)
      for (NodeId c : children(file, value.node))
        if (file[c].role == Role::Argument && readCreation({value.file, c}, facts)) return true;
      return false;
    }
    if (node.kind == Kind::Collection && (node.name || file.child(value.node, Role::Type) != kNoNode)) {
      facts.place = value;
      return true;
    }
    if (node.kind == Kind::Lambda) return false;
    if (node.kind == Kind::Await) {
      for (NodeId c : children(file, value.node)) {
        if (readCreation({value.file, c}, facts)) return true;
        if (file[c].kind != Kind::Call) continue;
        facts.place = value;
        return true;
      }
      return false;
    }
    if (node.kind == Kind::Name) {
      // A local that was just created: T* fresh = new T; slot = fresh;
      Symbol symbol = p_.symbolAt(value);
      if (!symbol.is(Symbol::Sort::Variable) || p_.variables[symbol.index()].storage != Storage::Local) return false;
      Place definition = p_.variables[symbol.index()].definition;
      NodeId initial = p_.file(definition).child(definition.node, Role::Initialiser);
      if (initial != kNoNode && p_.file(definition)[initial].kind == Kind::Create) return readCreation({definition.file, initial}, facts);
      for (uint32_t u : p_.usesOfVariable[symbol.index()]) {
        const Use& use = p_.uses[u];
        if (use.access != Access::Write) continue;
        Place assign = p_.parent(use.place);
        NodeId right = p_.file(assign).child(assign.node, Role::Value);
        if (right != kNoNode && p_.file(assign)[right].kind == Kind::Create) return readCreation({assign.file, right}, facts);
      }
    }
    return false;
  }

  void findCreation(Entity& entity) {
    VariableIndex v = entity.slot;
    const Variable& variable = p_.variables[v];
    CreationFacts& facts = entity.creation;
    const TypeUse& use = p_.use(variable.type);
    uint32_t traits = traitsOf(v);
    Place definition = p_.variables[v].home();
    NodeId initial = p_.file(definition).child(definition.node, Role::Initialiser);
    const Guarantees& g = p_.guarantees(definition.file);
    bool byValue = !use.has(kPointer | kReference) && !(traits & (kOwningPointer | kPointerLike | kOptionalType)) && !((traits & kAtomicType) && entity.type != kNone);
    bool made = false;
    if (variable.lives()) {
      CreationFacts initialFacts;
      bool creates = initial != kNoNode && readCreation({definition.file, initial}, initialFacts);
      // new Lazy<T>(() => new T()): made by the function when it is asked for.
      if (creates && (traits & kLazyType)) initialFacts.made = entity.type;
      if (creates && initialFacts.made == kNone && entity.type != kNone && !byValue) {
        // unique_ptr<T> slot(new T): the Create node is the pointer's, the argument makes the object.
        for (NodeId c : children(p_.file(definition), initial))
          if (p_.file(definition)[c].role == Role::Argument) readCreation({definition.file, c}, initialFacts);
        creates = initialFacts.made != kNone;
      }
      if (byValue || creates) {
        facts = initialFacts;
        if (!facts.place.known()) facts.place = definition;
        if (facts.made == kNone) facts.made = entity.type;
        facts.time = variable.storage == Storage::FunctionStatic ? CreationTime::Lazy : CreationTime::Eager;
        facts.in = variable.function;
        if ((traits & kLazyType) || variable.form != VariableForm::Plain || isNestedHolder(variable, entity.type)) facts.time = CreationTime::Lazy;
        // A thread's own copy needs no guard against other threads.
        facts.guard = variable.modifiers & kThreadLocal ? GuardSort::Language
                      : variable.storage == Storage::FunctionStatic ? (g.guardedLocalStatic.holds ? GuardSort::Language : GuardSort::None)
                      : variable.form == VariableForm::LazyUnguarded ? GuardSort::None : GuardSort::Language;
        made = true;
      }
    }
    if (!made) {
      // Assigned somewhere: lazily made, or set from outside.
      for (uint32_t u : p_.usesOfVariable[v]) {
        const Use& site = p_.uses[u];
        if (site.access != Access::Write && site.access != Access::Update) continue;
        CreationFacts here;
        if (!creationAt(site, here)) continue;
        here.time = CreationTime::Lazy;
        here.in = site.in;
        entity.creation = here;
        findTests(entity, site.place);
        decideGuard(entity, site);
        made = true;
        // Of several the one behind a test is the lazy one.
        if (entity.creation.innerTest.known() || entity.creation.outerTest.known() || entity.creation.guard != GuardSort::None) break;
      }
    }
    if (!made && entity.type != kNone && isSetToThis(v)) {
      // It enters itself when it is made: the one place that makes it is the creation.
      std::vector<uint32_t> sites;
      for (TypeIndex t : familyOf(entity.type))
        for (uint32_t c : p_.creationsOfType[t])
          if (!p_.creations[c].asBase && !p_.creations[c].delegated && !p_.creations[c].copy) sites.push_back(c);
      if (sites.size() == 1) {
        const Creation& creation = p_.creations[sites.front()];
        facts.place = creation.place;
        facts.in = creation.in;
        facts.made = creation.type;
        facts.constructor = creation.constructor;
        facts.time = creation.in != kNone ? CreationTime::Lazy : CreationTime::Eager;
        if (!g.sharedMemoryThreads.holds) facts.guard = GuardSort::SingleThreaded;
        made = true;
      }
    }
    if (made && facts.constructor == kNone && facts.made != kNone) {
      for (uint32_t c : p_.creationsOfType[facts.made])
        if (p_.creations[c].place == facts.place) facts.constructor = p_.creations[c].constructor;
      if (facts.constructor == kNone) facts.constructor = defaultConstructor(facts.made);
      facts.weights = weightsOfCreation(p_, facts.made, facts.constructor, facts.place);
    }
  }

  // A class inside the class, for its instance alone: loaded when the instance is asked for.
  bool isNestedHolder(const Variable& slot, TypeIndex type) const {
    if (slot.storage != Storage::StaticField || type == kNone || slot.owner == type || !p_.language(slot.declarations.front().file).dotted) return false;
    ScopeIndex around = p_.types[slot.owner].parent;
    return around != kNone && p_.scopes[around].type == type;
  }

  // The class and all that derive from it.
  std::vector<TypeIndex> familyOf(TypeIndex type) const {
    std::vector<TypeIndex> out;
    p_.anyDerived(type, [&](TypeIndex at) {
      out.push_back(at);
      return false;
    });
    return out;
  }

  // slot = new T;  slot.reset(new T);  slot.store(new T);  slot.emplace(…)
  bool creationAt(const Use& site, CreationFacts& out) const {
    Place up = p_.parent(site.place);
    const LoweredFile& file = p_.file(up);
    if (file[up.node].kind == Kind::Assign) {
      NodeId value = file.child(up.node, Role::Value);
      return value != kNoNode && readCreation({up.file, value}, out);
    }
    if (file[up.node].kind == Kind::Member) {
      Place call = p_.parent(up);
      if (file[call.node].kind != Kind::Call) return false;
      if (file.name(up.node) == "emplace") {
        out.place = call;
        out.made = p_.classBehind(up.file, p_.variables[site.variable].type);
        return out.made != kNone;
      }
      for (NodeId c : children(file, call.node))
        if (file[c].role == Role::Argument && readCreation({call.file, c}, out)) return true;
    }
    return false;
  }

  void decideGuard(Entity& entity, const Use& site) {
    CreationFacts& facts = entity.creation;
    Place once = p_.around(site.place, Kind::Once);
    if (once.node == kNoNode && site.in != kNone) {
      // A creation function that is only run through a once flag.
      bool all = !p_.callsOfFunction[site.in].empty();
      for (uint32_t c : p_.callsOfFunction[site.in]) {
        Place at = p_.calls[c].place;
        if (p_.node(at).kind != Kind::Once && p_.around(at, Kind::Once).node == kNoNode) all = false;
      }
      if (all) once = p_.calls[p_.callsOfFunction[site.in].front()].place;
    }
    if (once.node != kNoNode) {
      facts.guard = GuardSort::Once;
      facts.lock = once;
      return;
    }
    uint32_t traits = traitsOf(entity.slot);
    Place up = p_.parent(site.place);
    if ((traits & kAtomicType) && p_.node(up).kind == Kind::Member) {
      std::string_view name = p_.nameOf(up);
      if (name.substr(0, 16) == "compare_exchange" || name == "compareAndSet" || name == "compareAndExchange" || name == "CompareAndSwap" || name == "updateAndGet") {
        facts.guard = GuardSort::Atomic;
        return;
      }
    }
    // While its class is loaded, once and under the language's guard.
    const Guarantees& promises = p_.guarantees(site.place.file);
    bool loading = site.in != kNone && p_.functions[site.in].form == FunctionForm::Initialiser && (p_.functions[site.in].modifiers & kStatic) && promises.guardedLocalStatic.holds && promises.orderedAcrossFiles.holds;
    if ((p_.variables[entity.slot].modifiers & kThreadLocal) || loading) {
      facts.guard = GuardSort::Language;
      return;
    }
    if (facts.lock.known() && facts.outerTest.known()) {
      bool sound = (traits & kAtomicType) || p_.guarantees(site.place.file).plainPointerPublishes.holds ||
                   ((p_.variables[entity.slot].modifiers & kVolatile) && p_.guarantees(site.place.file).volatilePublishes.holds);
      facts.incompleteDoubleCheck = !facts.innerTest.known();
      facts.guard = sound && !facts.incompleteDoubleCheck ? GuardSort::DoubleCheck : GuardSort::DoubleCheckUnsound;
    } else if (facts.lock.known()) {
      facts.guard = GuardSort::Lock;
    } else {
      facts.guard = p_.guarantees(site.place.file).sharedMemoryThreads.holds ? GuardSort::None : GuardSort::SingleThreaded;
    }
  }

  // ----- kind

  EntityKind decideKind(const Entity& entity) const {
    VariableIndex v = entity.slot;
    const Variable& variable = p_.variables[v];
    const TypeUse& use = p_.use(variable.type);
    TypeIndex type = entity.type;
    bool threadLocal = (variable.modifiers & kThreadLocal) || (traitsOf(v) & kPerThread);
    bool accessor = false, ownAccessor = false;
    for (const AccessPoint& accessPoint : entity.accessPoints) {
      if (accessPoint.sort == AccessPoint::Sort::Slot) continue;
      accessor = true;
      const Function& fn = p_.functions[accessPoint.function];
      if (fn.owner == kNone || type == kNone) continue;
      if (p_.derivesFrom(type, fn.owner) || p_.derivesFrom(fn.owner, type)) ownAccessor = true;
    }
    if (isInstanceTable(v) && !threadLocal) return EntityKind::Registry;
    bool setElsewhere = use.has(kPointer) && entity.creation.time == CreationTime::Elsewhere && isSetFromOutside(v);
    if (threadLocal) return accessor && setElsewhere ? EntityKind::Ambient : EntityKind::ThreadLocal;
    if (type != kNone) {
      bool closed = !hasOpenConstructor(p_, type) && p_.types[type].definition.known() && !isAbstract(p_, type);
      // Closed to other packages only: what tells is that they get it by a function,
      // and that its own package makes no more of them, as of a class of values.
      if (closed && isOfItsPackage(p_, type) && (!accessor || p_.creationsOfType[type].size() > 2)) closed = false;
      bool slotInside = variable.storage == Storage::StaticField && (p_.derivesFrom(type, variable.owner) || p_.derivesFrom(variable.owner, type));
      bool refuses = refusesSecond(p_, type);
      bool selfMade = isSetToThis(v);
      if (accessor && setElsewhere && !selfMade && !closed) return EntityKind::Ambient;
      bool value = !refuses && !selfMade && makesMore(entity);
      if ((ownAccessor && !value) || refuses) return EntityKind::Singleton;
      if (closed && !value && (accessor || slotInside || entity.creation.made == type)) return EntityKind::Singleton;
      if (slotInside && selfMade) return EntityKind::Singleton;
      if (accessor) return EntityKind::SharedInstance;
      if (slotInside && (p_.variables[v].modifiers & kPublic)) return EntityKind::SharedInstance;
      bool open = variable.storage == Storage::Global && (variable.onlyIn == kNone || !use.has(kPointer));
      if (open && behaves(type)) return EntityKind::SharedInstance;
      if (variable.storage == Storage::StaticField && (variable.modifiers & kPublic) && behaves(type)) return EntityKind::SharedInstance;
    }
    switch (variable.storage) {
      case Storage::StaticField: return EntityKind::StaticField;
      case Storage::FunctionStatic: return EntityKind::FunctionStatic;
      case Storage::Field: return EntityKind::SharedInstance;
      default: return EntityKind::GlobalVariable;
    }
  }

  TypeIndex outermost(TypeIndex type) const {
    for (int depth = 0; type != kNone && depth < 20; ++depth) {
      ScopeIndex around = p_.types[type].parent;
      if (around == kNone || p_.scopes[around].sort != Scope::Sort::Type) break;
      type = p_.scopes[around].type;
    }
    return type;
  }

  // Does the class (or what it is nested with) make others too, for other places?
  // Then it is a class of values, of which this is one that is kept.
  bool makesMore(const Entity& entity) const {
    VariableIndex v = entity.slot;
    TypeIndex home = outermost(entity.type);
    for (uint32_t c : p_.creationsOfType[entity.type]) {
      const Creation& creation = p_.creations[c];
      if (creation.asBase || creation.copy || creation.delegated || creation.place == entity.creation.place || creation.asVariable == v || creation.inInitialiserOf == v) continue;
      if (creation.in != kNone && creation.in == entity.creation.in) continue;
      Place assign = p_.around(creation.place, Kind::Assign);
      NodeId target = assign.node == kNoNode ? kNoNode : p_.file(assign).child(assign.node, Role::Target);
      Symbol into = target == kNoNode ? Symbol{} : p_.links[assign.file].symbol[target];
      if (into.is(Symbol::Sort::Variable) && into.index() == v) continue;
      TypeIndex owner = creation.in != kNone ? p_.functions[creation.in].owner : creation.inInitialiserOf != kNone ? p_.variables[creation.inInitialiserOf].owner : kNone;
      if (owner != kNone && outermost(owner) == home) return true;
    }
    return false;
  }

  // A keyed table whose values are objects that do something.
  bool isInstanceTable(VariableIndex v) const {
    const TypeUse& use = p_.use(p_.variables[v].type);
    if (!(traitsOf(v) & kKeyedCollection) || use.argumentCount < 2) return false;
    Place place = p_.variables[v].home();
    TypeUseId mapped = p_.argument(use, 1);
    TypeIndex type = p_.classBehind(place.file, mapped);
    return type != kNone && (p_.use(mapped).has(kPointer) || (p_.traits(place.file, mapped) & (kOwningPointer | kPointerLike)) || behaves(type));
  }

  // Does the class do something, or is it a plain record?
  bool behaves(TypeIndex type) const {
    if (type == kNone) return false;
    return p_.anyBase(type, [&](TypeIndex at, const Base*) {
      const TypeDecl& decl = p_.types[at];
      auto acts = [&](FunctionIndex m) { return p_.functions[m].form == FunctionForm::Function && !(p_.functions[m].modifiers & kStatic); };
      return !decl.definition.known() || std::any_of(decl.methods.begin(), decl.methods.end(), acts) || std::any_of(decl.bases.begin(), decl.bases.end(), [](const Base& base) { return base.type == kNone; });
    });
  }

  // Assigned from a parameter or another variable, not from a creation.
  bool isSetFromOutside(VariableIndex v) const {
    for (uint32_t u : p_.usesOfVariable[v]) {
      const Use& use = p_.uses[u];
      if (use.access != Access::Write || use.throughPointer || use.inMember) continue;
      Place up = p_.parent(use.place);
      if (p_.node(up).kind != Kind::Assign) continue;
      NodeId value = p_.file(up).child(up.node, Role::Value);
      if (value == kNoNode) continue;
      Kind kind = p_.file(up)[value].kind;
      if (kind == Kind::Name || kind == Kind::This || kind == Kind::AddressOf || kind == Kind::Member || kind == Kind::Call) return true;
    }
    return false;
  }

  // Filled from the type's own constructor: slot = this.
  bool isSetToThis(VariableIndex v) const {
    for (uint32_t u : p_.usesOfVariable[v]) {
      const Use& use = p_.uses[u];
      if (use.access != Access::Write || use.in == kNone || p_.functions[use.in].form != FunctionForm::Constructor) continue;
      Place up = p_.parent(use.place);
      NodeId value = p_.node(up).kind == Kind::Assign ? p_.file(up).child(up.node, Role::Value) : kNoNode;
      if (value != kNoNode && p_.file(up)[value].kind == Kind::This) return true;
    }
    return false;
  }

  // ----- consumers

  bool isOwn(const Entity& entity, FunctionIndex in) const {
    if (in == kNone) return false;
    for (const AccessPoint& accessPoint : entity.accessPoints)
      if (accessPoint.function == in) return true;
    if (entity.creation.in == in && entity.creation.in != kNone && p_.variables[entity.slot].storage != Storage::Field) return p_.functions[in].owner == entity.type && entity.type != kNone;
    const Function& fn = p_.functions[in];
    return entity.type != kNone && fn.owner == entity.type;
  }

  void addUseConsumer(Entity& entity, const Use& use) {
    Consumer consumer;
    consumer.place = use.place;
    consumer.in = use.in;
    consumer.inInitialiserOf = use.inInitialiserOf;
    consumer.access = use.access;
    fillMember(consumer);
    entity.consumers.push_back(consumer);
  }

  // What is done with the entity's value at `place`: which member is used?
  void fillMember(Consumer& consumer) const {
    Place at = consumer.place;
    for (int i = 0; i < 6; ++i) {
      Place up = p_.parent(at);
      if (up.node == kNoNode) return;
      const Node& parent = p_.node(up);
      if (parent.kind == Kind::Member && p_.node(at).role == Role::Receiver) {
        Symbol symbol = p_.symbolAt(up);
        if (symbol.is(Symbol::Sort::Function)) {
          consumer.method = symbol.index();
          consumer.access = p_.functions[symbol.index()].modifiers & kConst ? Access::Read : Access::Call;
          return;
        }
        if (symbol.is(Symbol::Sort::Variable)) {
          consumer.field = symbol.index();
          for (uint32_t u : p_.usesOfVariable[symbol.index()])
            if (p_.uses[u].place == up) consumer.access = p_.uses[u].access;
          return;
        }
        // .get(), .load(): keep looking outward
        std::string_view name = p_.nameOf(up);
        Place call = p_.parent(up);
        if (p_.node(call).kind == Kind::Call && (name == "get" || name == "load" || name == "value")) {
          at = call;
          continue;
        }
        return;
      }
      if (parent.kind == Kind::Dereference || parent.kind == Kind::Cast) {
        at = up;
        continue;
      }
      return;
    }
  }

  void addReach(Entity& entity, Place place, FunctionIndex in, VariableIndex inInitialiserOf, uint32_t accessPoint) {
    Consumer consumer;
    consumer.place = place;
    consumer.in = in;
    consumer.inInitialiserOf = inInitialiserOf;
    consumer.reach = true;
    consumer.accessPoint = accessPoint;
    fillMember(consumer);
    entity.consumers.push_back(consumer);
  }

  void findConsumers(Entity& entity) {
    for (uint32_t d = 0; d < entity.accessPoints.size(); ++d) {
      const AccessPoint accessPoint = entity.accessPoints[d];
      if (accessPoint.function == kNone) continue;
      for (uint32_t c : p_.callsOfFunction[accessPoint.function]) {
        const CallSite& call = p_.calls[c];
        if (isOwn(entity, call.in)) continue;
        addReach(entity, call.place, call.in, call.inInitialiserOf, d);
      }
    }
    VariableIndex v = entity.slot;
    for (uint32_t u : p_.usesOfVariable[v]) {
      const Use& use = p_.uses[u];
      if (isOwn(entity, use.in)) continue;
      if (p_.variables[v].storage == Storage::FunctionStatic && use.in == p_.variables[v].function && !entity.accessPoints.empty()) continue;
      if (use.place == entity.creation.place) continue;
      addUseConsumer(entity, use);
    }
    for (VariableIndex alias : o_.aliasesOf(v)) {
      for (uint32_t u : p_.usesOfVariable[alias]) {
        const Use& use = p_.uses[u];
        if (isOwn(entity, use.in) || p_.node(use.place).kind == Kind::FieldInit || p_.node(use.place).kind == Kind::Capture) continue;
        // Whoever assigns to it makes it remember another object, and changes none.
        bool changes = use.access == Access::Write || use.access == Access::Update;
        if (changes && !use.inMember && !use.throughPointer && !p_.use(p_.variables[alias].type).has(kReference)) continue;
        Consumer consumer;
        consumer.place = use.place;
        consumer.in = use.in;
        consumer.inInitialiserOf = use.inInitialiserOf;
        consumer.access = use.access;
        consumer.alias = alias;
        fillMember(consumer);
        if (consumer.method == kNone && consumer.field == kNone && use.access != Access::Update && use.access != Access::Write) continue;
        entity.consumers.push_back(consumer);
      }
    }
  }

  void sortConsumers(Entity& entity) const {
    sortByKey(entity.consumers, [&](const Consumer& c) { return std::tuple<std::string_view, uint32_t, NodeId>(p_.path(c.place), p_.line(c.place), c.place.node); });
    entity.consumers.erase(std::unique(entity.consumers.begin(), entity.consumers.end(), [](const Consumer& a, const Consumer& b) { return a.place == b.place; }), entity.consumers.end());
  }

  // ----- state, enforcement, end

  void findState(Entity& entity) {
    if (entity.type == kNone || p_.use(p_.variables[entity.slot].type).decl == kNone) {
      bool plain = entity.type == kNone;
      if (plain) {
        entity.state.push_back({entity.slot, !entity.harmless, {}});
        return;
      }
    }
    p_.anyBase(entity.type, [&](TypeIndex t, const Base*) {
      for (VariableIndex f : p_.types[t].fields) {
        uint32_t traits = p_.traits(p_.variables[f].declarations.front().file, p_.variables[f].type);
        if (traits & (kLockType | kConditionType | kOnceFlagType)) continue;
        bool changes = false;
        bool managed = (p_.use(p_.variables[f].type).modifiers & kManaged) == kManaged;
        if (!(p_.variables[f].modifiers & (kConst | kConstant)) || (p_.variables[f].modifiers & kMutable) || managed) {
          for (uint32_t u : p_.usesOfVariable[f]) {
            const Use& use = p_.uses[u];
            if (use.access == Access::Read) continue;
            bool constructing = use.in != kNone && p_.functions[use.in].owner == t && (p_.functions[use.in].form == FunctionForm::Constructor || p_.functions[use.in].form == FunctionForm::Destructor);
            if (!constructing) changes = true;
          }
        }
        entity.state.push_back({f, changes, {}});
      }
      return false;
    });
  }

  // The lock that is held wherever a field is touched after construction.
  void fillLocks(Entity& entity) {
    if (entity.harmless) return;
    for (StateField& field : entity.state) {
      auto [entry, fresh] = lockOfField_.emplace(field.variable, LockId{});
      if (!fresh) {
        field.lock = entry->second;
        continue;
      }
      LockSet common;
      bool first = true;
      for (uint32_t u : p_.usesOfVariable[field.variable]) {
        const Use& use = p_.uses[u];
        if (use.in != kNone && (p_.functions[use.in].form == FunctionForm::Constructor || p_.functions[use.in].form == FunctionForm::Destructor)) continue;
        LockSet held = locks_.at(use.place, use.in);
        common = first ? held : inBoth(common, held);
        first = false;
      }
      if (!common.empty()) field.lock = common.front();
      lockOfField_[field.variable] = field.lock;
    }
  }

  void findEnforcement(Entity& entity) {
    if (entity.type == kNone || !p_.types[entity.type].definition.known()) return;
    if (entity.kind != EntityKind::Singleton && entity.kind != EntityKind::SharedInstance) return;
    FileIndex f = p_.types[entity.type].definition.file;
    bool refuses = refusesSecond(p_, entity.type);
    if (hasOpenConstructor(p_, entity.type) && !refuses) entity.openings.push_back("its constructor is public");
    if (p_.isCopyable(entity.type, f) && !isAbstract(p_, entity.type)) entity.openings.push_back("it can be copied");
    const Variable& slot = p_.variables[entity.slot];
    bool openSlot = (slot.storage == Storage::Global && slot.onlyIn == kNone && !(slot.modifiers & kConst)) || (slot.storage == Storage::StaticField && (slot.modifiers & kPublic));
    if (openSlot && p_.use(slot.type).has(kPointer) && !(slot.modifiers & kConst)) entity.openings.push_back("its slot can be replaced from outside");
    entity.enforced = entity.openings.empty() ? 1 : 0;
  }

  void findEnd(Entity& entity) {
    const Variable& slot = p_.variables[entity.slot];
    const TypeUse& use = p_.use(slot.type);
    uint32_t traits = traitsOf(entity.slot);
    for (uint32_t u : p_.usesOfVariable[entity.slot]) {
      Place up = p_.parent(p_.uses[u].place);
      if (p_.node(up).kind == Kind::Destroy) {
        entity.end = "deleted in " + (p_.uses[u].in == kNone ? std::string("an initialiser") : functionName(p_, p_.uses[u].in));
        return;
      }
    }
    if (slot.modifiers & kThreadLocal) entity.end = "destroyed when its thread ends";
    else if (use.has(kReference)) entity.end = "elsewhere: the slot only refers to an object that other code made";
    else if (use.has(kPointer) || ((traits & kAtomicType) && entity.type != kNone)) entity.end = entity.creation.time == CreationTime::Elsewhere ? "elsewhere: other code made the object" : "never: no code deletes it";
    else entity.end = "destroyed when the process exits";
    entity.neverDestroyed = entity.end.rfind("never", 0) == 0;
  }

  // Ids may be the same in two languages.
  static std::string idKey(const Entity& entity) { return entity.language + " " + entity.id; }

  const Program& p_;
  const Origins& o_;
  std::set<TypeIndex> staticHolders_;
  std::map<VariableIndex, TypeIndex> holderOfFileVariable_;
  std::map<TypeIndex, std::vector<VariableIndex>> fileState_;  // of such classes
  Harmless harmless_;
  std::map<VariableIndex, LockId> lockOfField_;
  Locks locks_;
};

}  // namespace

Survey surveyProgram(const Program& program, const Origins& origins, unsigned jobs) { return Recogniser(program, origins).run(jobs); }

}  // namespace elmcart

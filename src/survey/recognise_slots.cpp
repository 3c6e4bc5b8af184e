#include "survey/recogniser.h"

#include <absl/container/flat_hash_set.h>

#include <numeric>

#include "base/sorting.h"

namespace elmcart {
namespace {

// See program/generated.h.
constexpr std::string_view kNotWrittenHere = "it stands in code that a tool made or that was brought along";

}  // namespace

// Which files are included in the middle of a class or function? What they declare is its own.
void Recogniser::findParts() {
  auto lastOf = [](std::string_view path) { return path.substr(path.rfind('/') + 1); };
  absl::flat_hash_set<std::string_view> included;
  std::vector<Span> bodies;
  for (FileIndex f = 0; f < p_.files.size(); ++f) {
    if (p_.languageOf[f]->headerExtensions.empty()) continue;
    const LoweredFile& file = p_.files[f];
    bodies.clear();
    for (const Node& node : file.nodes)
      if (node.kind == Kind::Type || node.kind == Kind::Function) bodies.push_back(node.span);
    for (const Node& import : file.nodes) {
      if (import.kind != Kind::Import || import.has(kExtern)) continue;
      if (std::any_of(bodies.begin(), bodies.end(), [&](Span body) { return body.begin < import.span.begin && import.span.end < body.end; })) included.insert(lastOf(file.name(import)));
    }
  }
  for (FileIndex f = 0; f < p_.files.size() && !included.empty(); ++f)
    if (!p_.languageOf[f]->headerExtensions.empty() && included.contains(lastOf(p_.files[f].path))) parts_.insert(f);
}

bool Recogniser::isSlot(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  if (variable.storage == Storage::Global && parts_.contains(variable.home().file)) return false;
  if (variable.lives()) {
    if (variable.setOnObjects && isDefaultOfField(v)) return false;
    if (variable.storage == Storage::StaticField && isOfPassingClass(variable.owner)) return false;
    if (!variable.definition.known() && variable.storage == Storage::Global) return !variable.declarations.empty() && (variable.modifiers & kExtern);
    // A template's static member without its class parameters filled in is still one slot a type.
    return variable.name != 0;
  }
  if (!o_.isServiceOfContext(v)) return false;
  // What each thread has for itself is shared by none.
  VariableIndex keeper = o_.keeperOf(v);
  return keeper == kNone || !((p_.variables[keeper].modifiers & kThreadLocal) || (traitsOf(keeper) & kPerThread));
}

// Is the class made anew whenever a function runs? What it keeps is no more shared than a local is.
bool Recogniser::isOfPassingClass(TypeIndex type) const {
  Place definition = type == kNone ? Place{} : p_.types[type].definition;
  if (!definition.known() || !p_.guarantees(definition.file).classesMadeByCode.holds) return false;
  Place around = p_.around(definition, Kind::Lambda);
  if (around.node == kNoNode) around = p_.around(definition, Kind::Function);
  return around.node != kNoNode && p_.node(around).detail != static_cast<uint8_t>(FunctionForm::Initialiser);
}

// A class-level value that each object begins with: code sets it on objects, never on the class.
bool Recogniser::isDefaultOfField(VariableIndex v) const {
  Place definition = p_.variables[v].definition;
  NodeId initial = definition.known() ? p_.file(definition).child(definition.node, Role::Initialiser) : kNoNode;
  if (initial == kNoNode || p_.file(definition)[initial].kind != Kind::Literal) return false;
  return std::none_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    return (use.access == Access::Write || use.access == Access::Update) && !use.inMember && !use.throughPointer;
  });
}

TypeIndex Recogniser::classOf(VariableIndex v) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  if (use.has(kArray)) return kNone;
  FileIndex f = p_.variables[v].home().file;
  TypeIndex declared = p_.classBehind(f, p_.variables[v].type);
  // A tree that holds the library itself: its texts, collections and locks are what they are elsewhere.
  if (declared != kNone && (p_.traits(f, p_.variables[v].type) & (kTextType | kCollection | kLockType))) return kNone;
  if (declared != kNone || use.decl != kNone) return declared;
  TypeIndex made = harmless_.madeFor(v);
  return made == kNone && p_.variables[v].lives() && use.name != 0 && isUntold(p_.variables[v].type) ? harmless_.madeLaterFor(v) : made;
}

// Is all that the class keeps one object of a library's class, which it makes and hands out? Then it is that one's slot.
bool Recogniser::keepsOneLibraryObject(const TypeDecl& decl) {
  Entity one;
  for (VariableIndex v : decl.statics) {
    if (!isMutableState(v)) continue;
    if (one.slot != kNone || classOf(v) != kNone) return false;
    one.slot = v;
  }
  if (one.slot == kNone || o_.accessPointsTo(one.slot).empty()) return false;
  one.place = p_.variables[one.slot].home();
  findCreation(one);
  bool wraps = one.creation.place.known() && (p_.traits(one.creation.place.file, p_.typeAt(one.creation.place)) & kPointerLike);
  return !wraps && isLibraryObject(one);
}

// Has the class a base in the tree that is not the one with which all classes begin?
bool Recogniser::hasOwnBase(TypeIndex type) const {
  return std::any_of(p_.types[type].bases.begin(), p_.types[type].bases.end(), [&](const Base& base) {
    return base.type != kNone && !p_.guarantees(p_.types[type].home().file).isRoot(p_.text(p_.types[base.type].name));
  });
}

void Recogniser::indexStaticHolders() {
  for (TypeIndex t = 0; t < p_.types.size(); ++t) {
    const TypeDecl& decl = p_.types[t];
    bool isObject = decl.form == TypeForm::Object;
    bool inherits = hasOwnBase(t);
    if (!decl.definition.known() || decl.statics.empty() || !decl.fields.empty() || (inherits && !isObject) || !decl.derived.empty()) continue;
    bool onlyStatic = true, anyStatic = false;
    for (FunctionIndex m : decl.methods) {
      const Function& fn = p_.functions[m];
      if (fn.form == FunctionForm::Constructor || fn.form == FunctionForm::Destructor) continue;
      if (p_.text(fn.name) == "operator=") continue;
      if ((fn.modifiers & kStatic) || isObject) anyStatic = true;
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
    if (!isObject && keepsOneLibraryObject(decl)) continue;
    for (VariableIndex v : decl.statics) {
      // A class that only holds another's instance is that one's slot.
      bool holdsInstance = (p_.use(p_.variables[v].type).modifiers & kManaged) == kManaged && classOf(v) != kNone && (p_.variables[v].modifiers & kConst) && !isObject;
      // A value for each thread is a piece of state by itself.
      bool perThread = (traitsOf(v) & kPerThread) || (p_.variables[v].modifiers & kThreadLocal);
      mutableState |= classOf(v) != t && !holdsInstance && !perThread && !isNestedHolder(p_.variables[v], classOf(v)) && isMutableState(v);
    }
    for (VariableIndex v : decl.statics) onlyStatic &= isObject || !isInstanceTable(v);
    if (mutableState && onlyStatic) staticHolders_.insert(t);
  }
}

// A class of class-level functions alone, whose state stands in variables of
// its file: those that no other function touches.
void Recogniser::indexFileHolders() {
  std::map<TypeIndex, std::vector<VariableIndex>> found;
  for (VariableIndex v = 0; v < p_.variables.size(); ++v) {
    const Variable& variable = p_.variables[v];
    if (variable.storage != Storage::Global || variable.onlyIn == kNone || !isSlot(v) || (classOf(v) != kNone && p_.types[classOf(v)].form != TypeForm::Interface) || (variable.modifiers & kThreadLocal) || p_.usesOfVariable[v].empty()) continue;
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
    bool inherits = hasOwnBase(t);
    if (!decl.definition.known() || !decl.fields.empty() || !decl.statics.empty() || !decl.derived.empty() || inherits || !p_.creationsOfType[t].empty()) continue;
    bool onlyStatic = std::all_of(decl.methods.begin(), decl.methods.end(), [&](FunctionIndex m) { return p_.functions[m].isStaticMember() || p_.functions[m].form == FunctionForm::Constructor; });
    if (!onlyStatic || std::none_of(variables.begin(), variables.end(), [&](VariableIndex v) { return isMutableState(v) && !isInstanceTable(v) && !(traitsOf(v) & kPerThread); })) continue;
    for (VariableIndex v : variables) holderOfFileVariable_[v] = t;
    fileState_[t] = variables;
  }
}

Entity Recogniser::staticHolder(TypeIndex t) {
  Entity entity;
  const TypeDecl& decl = p_.types[t];
  // A language's object, and an object that is written out, are the one of their kind.
  entity.kind = decl.form == TypeForm::Object ? EntityKind::Singleton : EntityKind::StaticHolder;
  if (decl.form == TypeForm::Object) entity.enforced = 1;
  if (decl.form == TypeForm::Object && p_.guarantees(decl.definition.file).staticsAtFirstUse.holds) entity.creation.time = CreationTime::Lazy;
  entity.name = p_.text(decl.name);
  entity.id = p_.text(decl.qualified);
  entity.type = t;
  entity.typeText = entity.id;
  entity.place = decl.definition;
  entity.language = p_.files[decl.definition.file].language;
  if (entity.creation.time == CreationTime::Elsewhere) entity.creation.time = CreationTime::Eager;
  entity.creation.guard = GuardSort::Language;
  if (decl.form == TypeForm::Object) entity.creation.weights = weightsOfCreation(p_, t, kNone);
  auto behind = fileState_.find(t);
  auto isConstant = [&](VariableIndex v) {
    Place home = p_.variables[v].home();
    NodeId initial = p_.file(home).child(home.node, Role::Initialiser);
    return initial == kNoNode || p_.file(home)[initial].kind == Kind::Literal;
  };
  for (VariableIndex v : behind == fileState_.end() ? decl.statics : behind->second) {
    if (!isMutableState(v) || (traitsOf(v) & kPerThread) || (p_.variables[v].modifiers & kThreadLocal)) continue;
    entity.slots.push_back(v);
    if (p_.variables[v].form != VariableForm::Plain && !isConstant(v)) entity.creation.time = CreationTime::Lazy;
    entity.state.push_back({v, true, {}});
    if (p_.variables[v].onlyIn == kNone && !(p_.variables[v].modifiers & (kPrivate | kProtected))) entity.accessPoints.push_back({AccessPoint::Sort::Slot, kNone, v, p_.variables[v].home(), std::string(p_.text(p_.variables[v].qualified))});
    for (uint32_t u : p_.usesOfVariable[v]) {
      const Use& use = p_.uses[u];
      if (use.in != kNone && p_.functions[use.in].owner == t) continue;
      addUseConsumer(entity, use);
    }
  }
  if (!entity.slots.empty()) entity.slot = entity.slots.front();
  bool ofLanguage = decl.form == TypeForm::Object && decl.bases.empty() && p_.language(decl.definition.file).family != "script";
  entity.filesByKey = (entity.kind == EntityKind::StaticHolder || ofLanguage) && filesInstances(entity.slots);
  if (decl.form != TypeForm::Object) describeHolderCreation(entity);
  std::set<FunctionIndex> reaching = functionsThatReach(t, entity.slots);
  for (FunctionIndex m : decl.methods) {
    const Function& fn = p_.functions[m];
    bool called = fn.form == FunctionForm::Function || fn.form == FunctionForm::Getter || fn.form == FunctionForm::Setter;
    if (!called || !(fn.modifiers & kStatic) || (decl.form != TypeForm::Object && !reaching.count(m))) continue;
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
  if (p_.files[entity.place.file].generated) {
    entity.harmless = true;
    entity.harmlessBecause = kNotWrittenHere;
  }
  fillLocks(entity);
  sortConsumers(entity);
  entity.end = "never: static fields live until the process ends";
  entity.neverDestroyed = true;
  return entity;
}

// An object that one of its slots is given when it is first asked for says more than a counter beside it.
void Recogniser::describeHolderCreation(Entity& entity) {
  for (VariableIndex v : entity.slots) {
    Entity one;
    one.slot = v;
    one.type = classOf(v);
    if (!startsEmpty(v)) continue;
    findCreation(one);
    if (one.creation.time != CreationTime::Lazy) continue;
    bool object = one.type != kNone || (one.creation.place.known() && p_.node(one.creation.place).kind == Kind::Create);
    if (!object && entity.creation.innerTest.known()) continue;
    entity.creation = one.creation;
    entity.slot = v;
    if (one.creation.guard == GuardSort::None) return;
  }
}

// The functions of a class that read or write one of these, themselves or through others of the
// class that they call or hand on to be called.
std::set<FunctionIndex> Recogniser::functionsThatReach(TypeIndex t, const std::vector<VariableIndex>& slots) const {
  std::set<FunctionIndex> out;
  for (VariableIndex v : slots)
    for (uint32_t u : p_.usesOfVariable[v])
      if (FunctionIndex in = p_.uses[u].in; in != kNone && p_.functions[in].owner == t) out.insert(in);
  std::map<FunctionIndex, std::vector<FunctionIndex>> namedIn;  // by what is named
  for (FunctionIndex m : p_.types[t].methods) {
    Place home = p_.functions[m].definition;
    if (!home.known()) continue;
    const LoweredFile& file = p_.file(home);
    for (NodeId n = home.node + 1; n < file.nodes.size() && file[n].span.begin < file[home.node].span.end; ++n) {
      Symbol symbol = p_.links[home.file].symbol[n];
      if (symbol.is(Symbol::Sort::Function) && symbol.index() != m && p_.functions[symbol.index()].owner == t) namedIn[symbol.index()].push_back(m);
    }
  }
  for (std::vector<FunctionIndex> open(out.begin(), out.end()); !open.empty();) {
    FunctionIndex at = open.back();
    open.pop_back();
    for (FunctionIndex in : namedIn[at])
      if (out.insert(in).second) open.push_back(in);
  }
  return out;
}

// The class of static members alone, or with its file's variables, that keeps the slot; kNone for one that stands for itself.
TypeIndex Recogniser::holderOf(VariableIndex v) const {
  auto behind = holderOfFileVariable_.find(v);
  if ((traitsOf(v) & kPerThread) || (p_.variables[v].modifiers & kThreadLocal)) return kNone;
  TypeIndex holder = behind != holderOfFileVariable_.end() ? behind->second : p_.variables[v].owner;
  bool held = behind != holderOfFileVariable_.end() || (p_.variables[v].storage == Storage::StaticField && staticHolders_.count(holder));
  return held && classOf(v) != holder ? holder : kNone;
}

void Recogniser::nameBySlot(Entity& entity) const {
  const Variable& variable = p_.variables[entity.slot];
  entity.name = ownName(variable);
  entity.id = p_.text(variable.qualified);
  entity.place = p_.variables[entity.slot].home();
}

Recogniser::OfSlot Recogniser::ofSlot(VariableIndex v) {
  OfSlot out;
  const Variable& variable = p_.variables[v];
  TypeIndex type = classOf(v);
  // One of several values that an enum names: no object, also where the language refers to it.
  if (type != kNone && p_.types[type].form == TypeForm::Enum && p_.types[type].methods.empty() && variable.owner != type) type = kNone;
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
  entity.filesByKey = (entity.kind == EntityKind::SharedInstance || entity.kind == EntityKind::GlobalVariable) && type != kNone && filesInstances(fieldsOf(type));
  if (entity.kind == EntityKind::Registry) findLookups(entity);
  entity.harmlessBecause = harmless_.reason(v, type);
  // Unused parameters of the language's own making are no entities.
  entity.harmless = !entity.harmlessBecause.empty();
  // People come to find the singletons: one that keeps nothing that changes is listed, with no state.
  bool anotherName = entity.harmlessBecause.starts_with("another name");
  if (entity.harmless && !anotherName && entity.kind == EntityKind::Singleton && type != kNone && p_.types[type].form != TypeForm::Enum && behaves(type) && entity.creation.made != kNone) {
    entity.harmless = false;
    entity.harmlessBecause.clear();
    entity.stateless = true;
  }
  // Constants of an enum without state are just its values.
  if (entity.harmless && type != kNone && variable.owner == type && p_.types[type].form == TypeForm::Enum) return out;
  // In a function of another class it is one object of the class among others.
  TypeIndex around = variable.function == kNone ? kNone : p_.functions[variable.function].owner;
  bool elsewhere = around != kNone && type != kNone && !p_.derivesFrom(type, around) && !p_.derivesFrom(around, type);
  bool classLike = entity.kind == EntityKind::Singleton || (entity.kind == EntityKind::SharedInstance && variable.storage == Storage::FunctionStatic && !elsewhere);
  if (classLike && type != kNone && !p_.types[type].definition.known() && p_.types[type].declarations.empty()) classLike = false;
  TypeIndex nameType = type;
  if (classLike && entity.creation.made != kNone && p_.types[entity.creation.made].bases.empty() && type == kNone) nameType = entity.creation.made;
  // The interface that the slot is declared by is no class; the one that keeps itself there is.
  if (classLike && type != kNone && p_.types[type].form == TypeForm::Interface && entity.creation.made != kNone && entity.creation.made == variable.owner) nameType = variable.owner;
  if (classLike && nameType != kNone) {
    const TypeDecl& decl = p_.types[nameType];
    entity.name = p_.text(decl.name);
    entity.id = p_.text(decl.qualified);
    entity.place = decl.home();
  }
  if (p_.files[entity.place.file].generated && !entity.harmless) {
    entity.harmless = true;
    entity.stateless = false;
    entity.harmlessBecause = kNotWrittenHere;
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
std::string Recogniser::ownName(const Variable& variable) const {
  std::string_view name = p_.text(variable.name);
  if (name == "default" && p_.language(variable.home().file).family == "script" && variable.parent != kNone && p_.scopes[variable.parent].sort == Scope::Sort::Namespace) name = lastPart(p_.text(p_.scopes[variable.parent].name));
  return std::string(name);
}

void Recogniser::finish(Entity& entity) {
  findConsumers(entity);
  addCallersOfOwnFunctions(entity);
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
    // What another module puts there while it is loaded is the first that is there.
    bool loads = !p_.guarantees(use.place.file).livesForOneRequest.holds && harmless_.runsWhileLoading(use.in, use.place);
    if (loads && p_.around(use.place, Kind::Lambda).node == kNoNode) continue;
    if (!reset.known()) reset = use.place;
  }
  entity.reset = reset;
}

// template <class T> struct Base { static T& instance() { static T slot; … } };
bool Recogniser::isTypeParameterSlot(VariableIndex v) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  if (use.parameter) return true;
  return use.argumentCount > 0 && p_.use(p_.argument(use, 0)).parameter && (traitsOf(v) & (kPointerLike | kAtomicType));
}

std::vector<Entity> Recogniser::templateSlot(const Entity& base) {
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
    std::erase_if(entity.accessPoints, [&](const AccessPoint& accessPoint) {
      TypeIndex by = accessPoint.function == kNone ? kNone : p_.functions[accessPoint.function].owner;
      return by != kNone && by != owner && !p_.derivesFrom(t, by) && !p_.derivesFrom(by, t);
    });
    if (isSetToThis(base.slot)) {
      entity.creation = {};
      if (createdByItself(entity)) findTests(entity, entity.creation.place);
    }
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

FunctionIndex Recogniser::defaultConstructor(TypeIndex t) const {
  for (FunctionIndex m : p_.types[t].methods)
    if (p_.functions[m].form == FunctionForm::Constructor && p_.functions[m].leastArguments == 0 && !(p_.functions[m].modifiers & kDeleted)) return m;
  return kNone;
}

void Recogniser::findAccessPoints(Entity& entity) {
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

// Is what stands under a key in the table at `place` returned by the function, which hands out objects?
bool Recogniser::returnsElement(Place place, FunctionIndex function) const {
  if (!p_.use(p_.functions[function].result).has(kPointer)) return false;
  Place up = p_.parent(place);
  if (p_.node(place).role != Role::Receiver) return false;
  if (p_.node(up).kind == Kind::Member) {
    Place call = p_.parent(up);
    if (p_.node(call).kind != Kind::Call || p_.node(up).role != Role::Callee || p_.guarantees(up.file).collectionAct(p_.nameOf(up)) != CollectionAct::Read || p_.file(call).child(call.node, Role::Argument) == kNoNode) return false;
    up = call;
  } else if (p_.node(up).kind != Kind::Index) {
    return false;
  }
  for (up = p_.parent(up); p_.node(up).kind == Kind::Cast;) up = p_.parent(up);
  return p_.node(up).kind == Kind::Return;
}

// Functions that look an instance up in a keyed table are its access points.
void Recogniser::findLookups(Entity& entity) {
  const TypeUse& use = p_.use(p_.variables[entity.slot].type);
  TypeIndex mapped = p_.classBehind(entity.place.file, p_.argument(use, 1));
  std::set<FunctionIndex> seen;
  for (const AccessPoint& accessPoint : entity.accessPoints) seen.insert(accessPoint.function);
  for (uint32_t u : p_.usesOfVariable[entity.slot]) {
    FunctionIndex f = p_.uses[u].in;
    if (f == kNone || !seen.insert(f).second) continue;
    bool found = mapped == kNone ? returnsElement(p_.uses[u].place, f) : p_.classBehind(entity.place.file, p_.functions[f].result) == mapped;
    if (!found) continue;
    entity.accessPoints.push_back({AccessPoint::Sort::Accessor, f, kNone, p_.functions[f].declarations.front(), functionName(p_, f)});
  }
}

}  // namespace elmcart

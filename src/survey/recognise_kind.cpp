#include "survey/recogniser.h"

#include <absl/container/flat_hash_set.h>

#include <numeric>

#include "base/sorting.h"
#include "program/arguments.h"

namespace elmcart {

namespace {

// A private accessor is no way for others.
bool isForItsClassOnly(const Function& fn) { return fn.owner != kNone && (fn.modifiers & kPrivate) && (fn.modifiers & kStatic); }

}  // namespace

EntityKind Recogniser::decideKind(const Entity& entity) const {
  VariableIndex v = entity.slot;
  const Variable& variable = p_.variables[v];
  const TypeUse& use = p_.use(variable.type);
  TypeIndex type = entity.type;
  bool threadLocal = (variable.modifiers & kThreadLocal) || (traitsOf(v) & kPerThread);
  bool accessor = false, ownAccessor = false;
  for (const AccessPoint& accessPoint : entity.accessPoints) {
    if (accessPoint.sort == AccessPoint::Sort::Slot) continue;
    const Function& fn = p_.functions[accessPoint.function];
    if (isForItsClassOnly(fn) && variable.storage == Storage::StaticField) continue;
    accessor = true;
    // What is asked of an object hands out others of its kind.
    bool ofObjects = (fn.form == FunctionForm::Function || fn.form == FunctionForm::Getter) && !fn.isStaticMember();
    if (fn.owner == kNone || type == kNone || ofObjects) continue;
    if (p_.derivesFrom(type, fn.owner) || p_.derivesFrom(fn.owner, type)) ownAccessor = true;
  }
  if ((isInstanceTable(v) || isFoundByKey(v)) && !threadLocal) return EntityKind::Registry;
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
    // Which object is there last is decided by whoever makes them: there may be several.
    bool newest = selfMade && !refuses && hasOpenConstructor(p_, type);
    if (newest) return EntityKind::SharedInstance;
    bool exchanged = ownAccessor && !closed && isHandedASuccessor(v);
    if ((ownAccessor && !value && !exchanged && !isOneOfASeries(entity) && (closed || !isOneOfOthers(entity))) || refuses) return EntityKind::Singleton;
    if (closed && !value && !isOneOfASeries(entity) && (accessor || slotInside || entity.creation.made == type)) return EntityKind::Singleton;
    if (slotInside && selfMade) return EntityKind::Singleton;
    // The one object of its class, made where the class keeps it.
    if (slotInside && !value && !isOneOfOthers(entity) && variable.owner == type && (variable.modifiers & kPublic) && entity.creation.time != CreationTime::Elsewhere && isOnlyOne(entity)) return EntityKind::Singleton;
    // Handed out by a function beside its class, which nobody else makes one of.
    if (accessor && !value && !exchanged && p_.types[type].form != TypeForm::Interface && isReachedBeside(entity) && isOnlyOne(entity)) return EntityKind::Singleton;
    if (accessor) return EntityKind::SharedInstance;
    if (slotInside && (variable.modifiers & kPublic)) return EntityKind::SharedInstance;
    if (isReadyInstance(entity) && behaves(type)) return EntityKind::SharedInstance;
    if (variable.storage == Storage::StaticField && (variable.modifiers & kPublic) && behaves(type) && p_.language(variable.home().file).dotted) return EntityKind::SharedInstance;
  } else if (isLibraryObject(entity) && (accessor || (p_.language(variable.home().file).infersTypes && isReadyInstance(entity)))) {
    return EntityKind::SharedInstance;
  }
  switch (variable.storage) {
    case Storage::StaticField: return EntityKind::StaticField;
    case Storage::FunctionStatic: return EntityKind::FunctionStatic;
    case Storage::Field: return EntityKind::SharedInstance;
    default: return variable.ofClassElsewhere ? EntityKind::StaticField : EntityKind::GlobalVariable;
  }
}

// A module's or namespace's object that others can name, or that is made where it is declared.
bool Recogniser::isReadyInstance(const Entity& entity) const {
  const Variable& variable = p_.variables[entity.slot];
  if (variable.storage == Storage::Global && variable.onlyIn != kNone) return isHandedOutInPart(entity.slot);
  if (variable.storage != Storage::Global) return false;
  bool script = p_.language(variable.home().file).family == "script";
  if (isPluggedIn(entity.slot)) return false;
  bool told = !script || (variable.modifiers & kPublic);
  bool madeHere = entity.creation.time == CreationTime::Eager || (entity.creation.time == CreationTime::Lazy && entity.creation.made != kNone);
  return (told && !(variable.modifiers & kPrivate)) || madeHere;
}

// Is it only ever set by code of other modules? What they plug in is theirs.
bool Recogniser::isPluggedIn(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  return startsEmpty(v) && std::none_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    if ((use.access != Access::Write && use.access != Access::Update) || use.inMember || use.throughPointer) return false;
    return use.place.file == variable.home().file || (use.in != kNone && p_.functions[use.in].parent == variable.parent);
  });
}

// A file's own holder: functions return what it holds.
bool Recogniser::isHandedOutInPart(VariableIndex v) const {
  return std::any_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    Place back = p_.around(use.place, Kind::Return);
    if (use.in == kNone || back.node == kNoNode) return false;
    for (Place up = p_.parent(use.place); up.node != back.node; up = p_.parent(up))
      if (p_.node(up).kind == Kind::Call) return false;  // what it is asked for, and no part of it
    return p_.use(p_.functions[use.in].result).has(kPointer | kReference);
  });
}

// An object of a class that is not in the tree, and no collection, text, lock or the like.
bool Recogniser::isLibraryObject(const Entity& entity) const {
  if (!entity.creation.place.known()) return false;
  const Node& node = p_.node(entity.creation.place);
  constexpr uint32_t kOther = kCollection | kKeyedCollection | kTextType | kLockType | kConditionType | kOnceFlagType | kAtomicType;
  if ((traitsOf(entity.slot) | variableTraits(p_, entity.slot)) & kOther) return false;
  if (node.kind == Kind::Create) return !(p_.traits(entity.creation.place.file, p_.typeAt(entity.creation.place)) & kOther);
  if (asksPlatformForObject(entity.creation.place)) return true;
  // Cleaner.create(…): a library's class makes one.
  const Language& language = p_.language(entity.creation.place.file);
  NodeId asked = receiverOf(p_.file(entity.creation.place), entity.creation.place.node);
  if (asked != kNoNode && language.dotted && !language.infersTypes && p_.file(entity.creation.place)[asked].kind == Kind::Name && !p_.symbolAt({entity.creation.place.file, asked}).known() && p_.use(p_.variables[entity.slot].type).name) {
    std::string_view maker = lastPart(p_.file(entity.creation.place).name(asked));
    if (!maker.empty() && maker[0] >= 'A' && maker[0] <= 'Z') return true;
  }
  // Counter(…), where classes are called.
  NodeId callee = node.kind == Kind::Call && p_.language(entity.creation.place.file).createsByCall ? p_.file(entity.creation.place).child(entity.creation.place.node, Role::Callee) : kNoNode;
  std::string_view name = callee == kNoNode ? std::string_view{} : lastPart(p_.file(entity.creation.place).name(callee));
  return !name.empty() && name[0] >= 'A' && name[0] <= 'Z' && !(p_.guarantees(entity.creation.place.file).typeTraits(name) & kOther);
}

// document.createElement(…), or a function that returns what that gives.
bool Recogniser::asksPlatformForObject(Place call, int depth) const {
  if (p_.node(call).kind != Kind::Call) return false;
  Symbol called = p_.symbolAt(call);
  if (called.is(Symbol::Sort::Function)) {
    const auto& returned = o_.returnsOf(called.index());
    return depth < 3 && std::any_of(returned.begin(), returned.end(), [&](Place value) {
      Symbol local = p_.node(value).kind == Kind::Name ? p_.symbolAt(value) : Symbol{};
      Place home = local.is(Symbol::Sort::Variable) && p_.variables[local.index()].storage == Storage::Local ? p_.variables[local.index()].definition : Place{};
      NodeId initial = home.known() ? p_.file(home).child(home.node, Role::Initialiser) : kNoNode;
      return asksPlatformForObject(initial != kNoNode ? Place{home.file, initial} : value, depth + 1);
    });
  }
  const LoweredFile& file = p_.file(call);
  NodeId callee = file.child(call.node, Role::Callee), asked = receiverOf(file, call.node);
  if (callee == kNoNode) return false;
  std::string name(file.name(callee));
  if (asked != kNoNode && file[asked].kind == Kind::Name && !p_.symbolAt({call.file, asked}).known()) name = std::string(file.name(asked)) + "::" + name;
  return (p_.guarantees(call.file).callTraits(name) & kMakesObject) != 0;
}

// Can others put another object of the class there, by a function that takes it?
bool Recogniser::isHandedASuccessor(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || use.throughPointer || use.inMember || use.in == kNone || !p_.functions[use.in].isStaticMember()) continue;
    NodeId value = p_.assignedAt(use.place);
    Symbol given = value == kNoNode ? Symbol{} : p_.links[use.place.file].symbol[value];
    if (given.is(Symbol::Sort::Variable) && p_.variables[given.index()].storage == Storage::Parameter && (p_.functions[use.in].modifiers & kPublic)) return true;
  }
  return false;
}

// Is no other object of the class made by production code, nor kept beside it in the class?
bool Recogniser::isOnlyOne(const Entity& entity) const {
  const TypeDecl& decl = p_.types[entity.type];
  for (VariableIndex other : decl.statics)
    if (other != entity.slot && classOf(other) == entity.type) return false;
  // One of a subclass is one of the class as well.
  bool others = p_.anyDerived(entity.type, [&](TypeIndex at) {
    return std::any_of(p_.creationsOfType[at].begin(), p_.creationsOfType[at].end(), [&](uint32_t c) {
      const Creation& creation = p_.creations[c];
      Place up = p_.parent(creation.place);
      NodeId target = p_.node(up).kind == Kind::Assign ? p_.file(up).child(up.node, Role::Target) : kNoNode;
      bool putThere = target != kNoNode && p_.symbolAt({up.file, target}) == Symbol(Symbol::Sort::Variable, entity.slot);
      bool own = putThere || creation.place == entity.creation.place || creation.asVariable == entity.slot || creation.inInitialiserOf == entity.slot || (creation.in != kNone && creation.in == entity.creation.in);
      return !own && !creation.asBase && !creation.delegated && !isInTests(creation.place);
    });
  });
  if (others) return false;
  // A record of parts that cannot be copied is no value either.
  const Guarantees& promises = p_.guarantees(entity.place.file);
  return behaves(entity.type) || (promises.implicitCopy.holds && decl.definition.known() && !p_.isCopyable(entity.type, entity.place.file));
}

// A default among others, or one beside those that other classes make for themselves in several places.
bool Recogniser::isOneOfOthers(const Entity& entity) const {
  auto isDefault = [&](NameId name) { return lowerCase(p_.text(name)).find("default") != std::string::npos; };
  bool byDefault = isDefault(p_.variables[entity.slot].name) || std::any_of(entity.accessPoints.begin(), entity.accessPoints.end(), [&](const AccessPoint& one) {
    return one.sort == AccessPoint::Sort::Accessor && isDefault(p_.functions[one.function].name);
  });
  constexpr size_t kSeveral = 3;
  return byDefault || static_cast<size_t>(std::count_if(p_.creationsOfType[entity.type].begin(), p_.creationsOfType[entity.type].end(), [&](uint32_t c) {
           const Creation& creation = p_.creations[c];
           TypeIndex by = creation.in == kNone ? kNone : p_.functions[creation.in].owner;
           return !creation.asBase && !creation.delegated && !creation.copy && !isInTests(creation.place) && creation.in != kNone && (by == kNone || (!p_.derivesFrom(by, entity.type) && outermost(p_, by) != outermost(p_, entity.type)));
         })) >= kSeveral;
}

// Are there more lasting variables that objects of the class are made in, whoever may make them?
bool Recogniser::isOneOfASeries(const Entity& entity) const {
  constexpr size_t kMore = 2;
  auto creations = p_.creationsOfType[entity.type];
  const auto& kept = p_.types[entity.type].statics;
  if (static_cast<size_t>(std::count_if(kept.begin(), kept.end(), [&](VariableIndex v) { return v != entity.slot && classOf(v) == entity.type; })) >= kMore) return true;
  return static_cast<size_t>(std::count_if(creations.begin(), creations.end(), [&](uint32_t c) {
           const Creation& creation = p_.creations[c];
           VariableIndex v = creation.asVariable != kNone ? creation.asVariable : creation.inInitialiserOf;
           return !creation.asBase && !creation.copy && !creation.delegated && v != kNone && v != entity.slot && p_.variables[v].lives() && !isInTests(creation.place);
         })) >= kMore;
}

// Is what hands the object out a function of the module or namespace that its class stands in?
bool Recogniser::isReachedBeside(const Entity& entity) const {
  if (p_.guarantees(entity.place.file).noConstructors.holds) return false;  // a literal makes one of any class
  return std::any_of(entity.accessPoints.begin(), entity.accessPoints.end(), [&](const AccessPoint& one) {
    return one.sort == AccessPoint::Sort::Accessor && p_.functions[one.function].owner == kNone && p_.functions[one.function].parent == p_.types[entity.type].parent;
  });
}

namespace {

bool isPutInto(const Program& p, const Creation& creation, VariableIndex slot) {
  Place assign = p.around(creation.place, Kind::Assign);
  NodeId target = assign.node == kNoNode ? kNoNode : p.file(assign).child(assign.node, Role::Target);
  return target != kNoNode && p.symbolAt({assign.file, target}) == Symbol(Symbol::Sort::Variable, slot);
}

// slot = new X(slot): one that stands on the one before it, in a row of them.
bool keepsTheOneBefore(const Program& p, const Creation& creation, VariableIndex slot) {
  if (slot == kNone || !isPutInto(p, creation, slot)) return false;
  const LoweredFile& file = p.file(creation.place);
  const std::vector<NodeId> arguments = argumentsOf(file, creation.place.node);
  return std::any_of(arguments.begin(), arguments.end(), [&](NodeId argument) { return p.symbolAt({creation.place.file, bareExpression(file, argument)}) == Symbol(Symbol::Sort::Variable, slot); });
}

}  // namespace

// Does the class (or what it is nested with) make others too, for other places?
// Then it is a class of values, of which this is one that is kept.
bool Recogniser::makesMore(const Entity& entity) const {
  VariableIndex v = entity.slot;
  TypeIndex home = outermost(p_, entity.type);
  std::vector<uint32_t> creations(p_.creationsOfType[entity.type].begin(), p_.creationsOfType[entity.type].end());
  // What the slot calls by a base, or by an interface, is of the class that is made for it.
  TypeIndex made = entity.creation.made != kNone ? entity.creation.made : entity.type;
  if (made != entity.type) creations.insert(creations.end(), p_.creationsOfType[made].begin(), p_.creationsOfType[made].end());
  // By a class inside it that is one of its kind.
  constexpr size_t kMost = 64;
  size_t seen = 0;
  p_.anyDerived(entity.type, [&](TypeIndex t) {
    if (t != entity.type && outermost(p_, t) == home) creations.insert(creations.end(), p_.creationsOfType[t].begin(), p_.creationsOfType[t].end());
    return ++seen > kMost;
  });
  for (uint32_t c : creations) {
    const Creation& creation = p_.creations[c];
    if (keepsTheOneBefore(p_, creation, v)) return true;
    if (creation.asBase || creation.copy || creation.delegated || creation.place == entity.creation.place || creation.asVariable == v || creation.inInitialiserOf == v) continue;
    if (creation.in != kNone && creation.in == entity.creation.in) continue;
    if (isPutInto(p_, creation, v)) continue;
    TypeIndex owner = creation.in != kNone ? p_.functions[creation.in].owner : creation.inInitialiserOf != kNone ? p_.variables[creation.inInitialiserOf].owner : kNone;
    // A base that makes it in two of its functions hands it out by what it is given.
    bool byBase = owner != kNone && owner != made && !creation.delegated && (p_.derivesFrom(made, outermost(p_, owner)) || outermost(p_, owner) == outermost(p_, made));
    if (owner != kNone && (outermost(p_, owner) == home || byBase)) return true;
  }
  return false;
}

// Are its objects classes themselves?
bool Recogniser::isClassOfClasses(TypeIndex type) const {
  return type != kNone && std::any_of(p_.types[type].bases.begin(), p_.types[type].bases.end(), [&](const Base& base) { return p_.text(p_.use(base.use).name) == "type"; });
}

// A keyed table whose values are objects that do something.
bool Recogniser::isInstanceTable(VariableIndex v) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  Place place = p_.variables[v].home();
  uint32_t traits = traitsOf(v) | variableTraits(p_, v);
  if ((traits & kKeyedCollection) && use.argumentCount >= 2) {
    // What stands beside an object is found by that object, and by no name.
    TypeIndex key = p_.classBehind(place.file, p_.argument(use, 0));
    if (key != kNone && behaves(key) && p_.use(p_.argument(use, 0)).has(kPointer)) return false;
    // Of a table of lists or tables those hold the objects.
    TypeUseId mapped = p_.argument(use, 1);
    for (int depth = 0; depth < 3 && (p_.traits(place.file, mapped) & kCollection) && p_.use(mapped).argumentCount > 0; ++depth) mapped = p_.argument(p_.use(mapped), p_.use(mapped).argumentCount - 1);
    TypeIndex type = p_.classBehind(place.file, mapped);
    if (isClassOfClasses(type)) return false;
    if (type != kNone) return p_.types[type].form != TypeForm::Enum && (p_.use(mapped).has(kPointer) || (p_.traits(place.file, mapped) & (kOwningPointer | kPointerLike)) || behaves(type));
    if (p_.use(mapped).name && !isUntold(mapped)) {
      // An object of a library's class, but no text, number, class or collection.
      std::string_view name = lastPart(p_.text(p_.use(mapped).name));
      bool value = name == "Class" || name == "KClass" || name == "Type" || name == "type" || name == "Date" || name == "URL" || name == "URI" || name == "UUID" || (p_.traits(place.file, mapped) & (kTextType | kCollection));
      if (name == "void" && p_.use(mapped).has(kPointer)) return true;
      return p_.language(place.file).dotted && p_.use(mapped).has(kPointer) && !value && !(p_.variables[v].modifiers & kPrivate);
    }
  }
  return keepsInstancesByKey(v);
}

// A list of objects of which a function returns the one that has what it is asked for: for (x in list) if (x.name == name) return x.
bool Recogniser::isFoundByKey(VariableIndex v) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  Place home = p_.variables[v].home();
  uint32_t traits = traitsOf(v) | variableTraits(p_, v);
  if (!((traits & kCollection) || use.has(kArray)) || (traits & kKeyedCollection)) return false;
  TypeUseId kept = use.argumentCount ? p_.argument(use, 0) : use.has(kArray) ? p_.variables[v].type : 0;
  TypeIndex element = p_.classBehind(home.file, kept);
  if (element == kNone ? !p_.language(home.file).infersTypes || use.argumentCount : !behaves(element) || p_.types[element].form == TypeForm::Enum) return false;
  auto isAsked = [&](Place place, FunctionIndex in) {
    Place loop = in == kNone || p_.node(place).role == Role::Target ? Place{} : p_.around(place, Kind::Loop);
    return loop.known() && loop.node != kNoNode && returnsAsked(v, in, loop);
  };
  for (uint32_t u : p_.usesOfVariable[v])
    if (isAsked(p_.uses[u].place, p_.uses[u].in)) return true;
  for (VariableIndex alias : o_.aliasesOf(v))
    for (uint32_t u : p_.usesOfVariable[alias])
      if (isAsked(p_.uses[u].place, p_.uses[u].in)) return true;
  for (FunctionIndex f : o_.accessPointsTo(v))
    for (uint32_t c : p_.callsOfFunction[f])
      if ((p_.variables[v].onlyIn != kNone || p_.functions[f].owner == p_.variables[v].owner) && isAsked(p_.calls[c].place, p_.calls[c].in)) return true;
  return false;
}

// In a loop over a collection: is the element returned that a parameter of the function is compared with?
bool Recogniser::returnsAsked(VariableIndex walked, FunctionIndex in, Place loop) const {
  const LoweredFile& file = p_.file(loop);
  VariableIndex element = kNone;  // kNone: elements are named by their position
  for (NodeId c : children(file, loop.node))
    if (Symbol symbol = p_.links[loop.file].symbol[c]; file[c].kind == Kind::Variable && symbol.is(Symbol::Sort::Variable)) element = symbol.index();
  auto inside = [&](NodeId root, auto is) {
    for (NodeId n = root; n < file.nodes.size() && (n == root || file[n].span.begin < file[root].span.end); ++n)
      if (Symbol symbol = p_.links[loop.file].symbol[n]; symbol.is(Symbol::Sort::Variable) && is(symbol.index())) return true;
    return false;
  };
  auto isElement = [&](VariableIndex one) { return one == element || one == walked; };
  auto isAsked = [&](VariableIndex one) { return p_.variables[one].storage == Storage::Parameter && p_.variables[one].function == in; };
  for (NodeId n = loop.node + 1; n < file.nodes.size() && file[n].span.begin < file[loop.node].span.end; ++n) {
    if (file[n].kind != Kind::If) continue;
    NodeId condition = file.child(n, Role::Condition), then = file.child(n, Role::Then);
    if (condition == kNoNode || then == kNoNode || !inside(condition, isElement) || !inside(condition, isAsked)) continue;
    for (NodeId r = then; r < file.nodes.size() && (r == then || file[r].span.begin < file[then].span.end); ++r)
      if (NodeId value = file[r].kind == Kind::Return ? file.child(r, Role::Value) : kNoNode; value != kNoNode && inside(value, isElement)) return true;
  }
  return false;
}

std::vector<VariableIndex> Recogniser::fieldsOf(TypeIndex type) const {
  std::vector<VariableIndex> out;
  p_.anyBase(type, [&](TypeIndex at, const Base*) {
    const TypeDecl& decl = p_.types[at];
    out.insert(out.end(), decl.fields.begin(), decl.fields.end());
    return false;
  });
  return out;
}

bool Recogniser::filesInstances(const std::vector<VariableIndex>& fields) const {
  bool table = false;
  for (VariableIndex v : fields) {
    uint32_t traits = traitsOf(v) | variableTraits(p_, v);
    TypeIndex own = classOf(v);
    if ((traits & (kLockType | kConditionType | kOnceFlagType | kAtomicType)) || (own != kNone && isLockClass(p_, own))) continue;
    std::string_view plain = p_.text(p_.use(p_.variables[v].type).name);
    if (plain == "bool" || plain == "boolean" || plain == "Bool" || isGivenOnce(v)) continue;  // a setting of the table
    if (isInstanceTable(v) || isFoundByKey(v)) table = true;
    else if (!(traits & kCollection)) return false;
  }
  return table;
}

// Set by the constructor from what that is given, and never again.
bool Recogniser::isGivenOnce(VariableIndex field) const {
  bool given = false;
  for (uint32_t u : p_.usesOfVariable[field]) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read || use.access == Access::Call) continue;
    NodeId value = use.in == kNone || use.inMember || p_.functions[use.in].form != FunctionForm::Constructor ? kNoNode : p_.assignedAt(use.place);
    Symbol from = value == kNoNode ? Symbol{} : p_.links[use.place.file].symbol[bareExpression(p_.file(use.place), value)];
    if (!from.is(Symbol::Sort::Variable) || p_.variables[from.index()].storage != Storage::Parameter) return false;
    given = true;
  }
  return given;
}

// A library's base of everything, or a type parameter, tells nothing of what is kept.
bool Recogniser::isUntold(TypeUseId type) const {
  const TypeUse& use = p_.use(type);
  std::string_view name = lastPart(p_.text(use.name));
  return use.parameter || name == "Object" || name == "object" || name == "id" || name == "Any" || name == "any" || name == "interface{}" || name == "dynamic" || name == "unknown";
}

// A parameter or local of no told type whose fields are read: it is no text, number or collection.
bool Recogniser::isAskedAsObject(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  if (variable.lives() || (variable.type && !isUntold(variable.type))) return false;
  return std::any_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    Place at = p_.uses[u].place, up = p_.parent(at);
    if (p_.node(up).kind != Kind::Member || p_.node(at).role != Role::Receiver || p_.node(up).role == Role::Callee) return false;
    std::string_view field = p_.nameOf(up);
    return !field.starts_with("__") && p_.guarantees(up.file).collectionAct(field) == CollectionAct::None;
  });
}

// What is put under a key tells where types do not: an object that is made or handed in, and no
// class, text or number.
bool Recogniser::keepsInstancesByKey(VariableIndex v) const {
  // By their position things are found in an array or list, by no key.
  uint32_t traits = traitsOf(v) | variableTraits(p_, v);
  if ((p_.use(p_.variables[v].type).has(kArray) || (traits & kCollection)) && !(traits & kKeyedCollection)) return false;
  auto isInstance = [&](Place value) {
    const LoweredFile& file = p_.file(value);
    const Node& node = file[value.node];
    Symbol named = p_.symbolAt(value);
    TypeIndex type = p_.typeAt(value) ? p_.classBehind(value.file, p_.typeAt(value)) : kNone;
    if (type != kNone && p_.types[type].form == TypeForm::Enum) return false;
    if (node.kind == Kind::This) {  // of a class of classes it is a class
      FunctionIndex in = kNone;
      for (NodeId up = file.parents[value.node]; up != kNoNode && in == kNone; up = file.parents[up])
        if (Symbol around = p_.links[value.file].symbol[up]; file[up].kind == Kind::Function && around.is(Symbol::Sort::Function)) in = around.index();
      return in == kNone || !isClassOfClasses(p_.functions[in].owner);
    }
    if (node.kind == Kind::Create) return type != kNone ? behaves(type) : !(p_.traits(value.file, p_.typeAt(value)) & (kCollection | kTextType | kAtomicType | kLockType));
    if (node.kind == Kind::Call) {
      NodeId callee = file.child(value.node, Role::Callee);
      if (callee == kNoNode) return false;
      if (p_.links[value.file].symbol[callee].is(Symbol::Sort::Type)) return behaves(p_.links[value.file].symbol[callee].index());
      CreationFacts facts;
      return !p_.symbolAt(value).known() && readCreation(value, facts) && !(p_.guarantees(value.file).typeTraits(lastPart(file.name(callee))) & (kCollection | kTextType | kAtomicType | kLockType));
    }
    if (node.kind != Kind::Name || !named.is(Symbol::Sort::Variable)) return false;
    if (type != kNone) return behaves(type);
    const Variable& variable = p_.variables[named.index()];
    if (isAskedAsObject(named.index())) return true;
    if (variable.storage == Storage::Local) {
      NodeId initial = variable.definition.known() ? p_.file(variable.definition).child(variable.definition.node, Role::Initialiser) : kNoNode;
      CreationFacts facts;
      return initial != kNoNode && readCreation({variable.definition.file, initial}, facts) && (facts.made != kNone ? behaves(facts.made) : p_.file(variable.definition)[initial].kind != Kind::Collection && !(p_.traits(variable.definition.file, p_.typeAt({variable.definition.file, initial})) & kCollection));
    }
    return false;
  };
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || !use.inMember) continue;
    Place at = use.place, up = p_.parent(at);
    while (p_.node(up).kind == Kind::Index && p_.node(at).role == Role::Receiver) at = up, up = p_.parent(up);
    if (p_.node(at).kind == Kind::Index && p_.node(up).kind == Kind::Assign && p_.node(at).role == Role::Target) {
      NodeId key = p_.file(at).child(at.node, Role::Argument);
      // logger["default"] = logger; of an object is a field of its.
      bool counted = key != kNoNode && (p_.file(at)[key].is(Kind::Literal, LiteralForm::Number) || (classOf(v) != kNone && p_.file(at)[key].is(Kind::Literal, LiteralForm::Text)));
      NodeId value = p_.file(up).child(up.node, Role::Value);
      if (!counted && value != kNoNode && isInstance({up.file, value})) return true;
      continue;
    }
    // table.put(key, value)
    Place call = p_.node(up).kind == Kind::Member ? p_.parent(up) : Place{};
    if (!call.known() || p_.node(call).kind != Kind::Call || p_.guarantees(call.file).collectionAct(p_.nameOf(up)) != CollectionAct::Add) continue;
    std::vector<NodeId> given;
    for (NodeId c : children(p_.file(call), call.node))
      if (p_.file(call)[c].role == Role::Argument) given.push_back(c);
    // setObject:forKey: is given the object first.
    bool objectFirst = p_.nameOf(up).ends_with(":forKey:");
    if (given.size() == 2 && isInstance({call.file, given[objectFirst ? 0 : 1]})) return true;
  }
  return false;
}

// Does the class do something, or is it a plain record?
bool Recogniser::behaves(TypeIndex type) const {
  if (type == kNone) return false;
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    const TypeDecl& decl = p_.types[at];
    auto acts = [&](FunctionIndex m) { return p_.functions[m].form == FunctionForm::Function && !(p_.functions[m].modifiers & kStatic); };
    return !decl.definition.known() || std::any_of(decl.methods.begin(), decl.methods.end(), acts) || std::any_of(decl.fields.begin(), decl.fields.end(), [&](VariableIndex field) { return isGivenFunction(field); }) || std::any_of(decl.bases.begin(), decl.bases.end(), [](const Base& base) { return base.type == kNone; });
  });
}

// A field that a constructor puts a function into, which is a method by another name.
bool Recogniser::isGivenFunction(VariableIndex field) const { return p_.language(p_.variables[field].home().file).infersTypes && isSetByConstructor(field, Kind::Lambda); }

// Assigned from a parameter or another variable, not from a creation.
bool Recogniser::isSetFromOutside(VariableIndex v) const {
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
bool Recogniser::isSetToThis(VariableIndex v) const { return isSetByConstructor(v, Kind::This); }

bool Recogniser::isSetByConstructor(VariableIndex v, Kind to) const {
  return std::any_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || use.in == kNone || p_.functions[use.in].form != FunctionForm::Constructor) return false;
    NodeId value = p_.assignedAt(use.place);
    return value != kNoNode && p_.file(use.place)[bareExpression(p_.file(use.place), value)].kind == to;
  });
}

}  // namespace elmcart

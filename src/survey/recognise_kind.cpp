#include "survey/recogniser.h"

#include <absl/container/flat_hash_set.h>

#include <numeric>

#include "base/sorting.h"

namespace elmcart {

EntityKind Recogniser::decideKind(const Entity& entity) const {
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

TypeIndex Recogniser::outermost(TypeIndex type) const {
  for (int depth = 0; type != kNone && depth < 20; ++depth) {
    ScopeIndex around = p_.types[type].parent;
    if (around == kNone || p_.scopes[around].sort != Scope::Sort::Type) break;
    type = p_.scopes[around].type;
  }
  return type;
}

// Does the class (or what it is nested with) make others too, for other places?
// Then it is a class of values, of which this is one that is kept.
bool Recogniser::makesMore(const Entity& entity) const {
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
bool Recogniser::isInstanceTable(VariableIndex v) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  if (!(traitsOf(v) & kKeyedCollection) || use.argumentCount < 2) return false;
  Place place = p_.variables[v].home();
  TypeUseId mapped = p_.argument(use, 1);
  TypeIndex type = p_.classBehind(place.file, mapped);
  return type != kNone && (p_.use(mapped).has(kPointer) || (p_.traits(place.file, mapped) & (kOwningPointer | kPointerLike)) || behaves(type));
}

// Does the class do something, or is it a plain record?
bool Recogniser::behaves(TypeIndex type) const {
  if (type == kNone) return false;
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    const TypeDecl& decl = p_.types[at];
    auto acts = [&](FunctionIndex m) { return p_.functions[m].form == FunctionForm::Function && !(p_.functions[m].modifiers & kStatic); };
    return !decl.definition.known() || std::any_of(decl.methods.begin(), decl.methods.end(), acts) || std::any_of(decl.bases.begin(), decl.bases.end(), [](const Base& base) { return base.type == kNone; });
  });
}

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
bool Recogniser::isSetToThis(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || use.in == kNone || p_.functions[use.in].form != FunctionForm::Constructor) continue;
    Place up = p_.parent(use.place);
    NodeId value = p_.node(up).kind == Kind::Assign ? p_.file(up).child(up.node, Role::Value) : kNoNode;
    if (value != kNoNode && p_.file(up)[value].kind == Kind::This) return true;
  }
  return false;
}

}  // namespace elmcart

#include "survey/recogniser.h"

#include <absl/container/flat_hash_set.h>

#include <numeric>

#include "base/sorting.h"

namespace elmcart {

bool Recogniser::isOwn(const Entity& entity, FunctionIndex in) const {
  if (in == kNone) return false;
  for (const AccessPoint& accessPoint : entity.accessPoints)
    if (accessPoint.function == in) return true;
  if (entity.creation.in == in && entity.creation.in != kNone && p_.variables[entity.slot].storage != Storage::Field) return p_.functions[in].owner == entity.type && entity.type != kNone;
  const Function& fn = p_.functions[in];
  return entity.type != kNone && fn.owner == entity.type;
}

void Recogniser::addUseConsumer(Entity& entity, const Use& use) {
  Consumer consumer;
  consumer.place = use.place;
  consumer.in = use.in;
  consumer.inInitialiserOf = use.inInitialiserOf;
  consumer.access = use.access;
  consumer.whileLoading = harmless_.setsAtStart(use);
  fillMember(consumer);
  entity.consumers.push_back(consumer);
}

// What is done with the entity's value at `place`: which member is used?
void Recogniser::fillMember(Consumer& consumer) const {
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
          // What its pointer points to is another object.
          if (p_.uses[u].place == up) consumer.access = p_.uses[u].throughPointer && !p_.uses[u].inMember ? Access::Read : p_.uses[u].access;
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

void Recogniser::addReach(Entity& entity, Place place, FunctionIndex in, VariableIndex inInitialiserOf, uint32_t accessPoint) {
  Consumer consumer;
  consumer.place = place;
  consumer.in = in;
  consumer.inInitialiserOf = inInitialiserOf;
  consumer.reach = true;
  consumer.accessPoint = accessPoint;
  fillMember(consumer);
  entity.consumers.push_back(consumer);
}

void Recogniser::findConsumers(Entity& entity) {
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
  bool copied = p_.guarantees(entity.place.file).collectionsAreValues.holds && (traitsOf(v) & (kCollection | kKeyedCollection));
  for (VariableIndex alias : o_.aliasesOf(v)) {
    // A local that has got the collection has a copy of its own.
    if (copied && !p_.use(p_.variables[alias].type).has(kReference)) continue;
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

// A class-level function of the class that keeps the slot, which works with the object itself: its
// callers use the object, whether they see it or not.
void Recogniser::addCallersOfOwnFunctions(Entity& entity) {
  const Variable& slot = p_.variables[entity.slot];
  if (slot.storage != Storage::StaticField || entity.type == kNone || (slot.owner != entity.type && !p_.derivesFrom(entity.type, slot.owner))) return;
  std::set<FunctionIndex> working = functionsThatReach(slot.owner, {entity.slot});
  for (FunctionIndex m : p_.types[slot.owner].methods) {
    const Function& fn = p_.functions[m];
    bool accessPoint = std::any_of(entity.accessPoints.begin(), entity.accessPoints.end(), [&](const AccessPoint& a) { return a.function == m; });
    if (!fn.isStaticMember() || fn.form != FunctionForm::Function || accessPoint || !working.count(m)) continue;
    for (uint32_t c : p_.callsOfFunction[m]) {
      const CallSite& call = p_.calls[c];
      if (isOwn(entity, call.in) || (call.in != kNone && p_.functions[call.in].owner == slot.owner)) continue;
      Consumer consumer;
      consumer.place = call.place;
      consumer.in = call.in;
      consumer.inInitialiserOf = call.inInitialiserOf;
      consumer.access = Access::Call;
      consumer.method = m;
      entity.consumers.push_back(consumer);
    }
  }
}

void Recogniser::sortConsumers(Entity& entity) const {
  sortByKey(entity.consumers, [&](const Consumer& c) { return std::tuple<std::string_view, uint32_t, NodeId>(p_.path(c.place), p_.line(c.place), c.place.node); });
  entity.consumers.erase(std::unique(entity.consumers.begin(), entity.consumers.end(), [](const Consumer& a, const Consumer& b) { return a.place == b.place; }), entity.consumers.end());
}

// Does production code put another object into the slot, or nothing, elsewhere than where it is made on first use?
bool Recogniser::isReplaced(const Entity& entity) const {
  auto uses = p_.usesOfVariable[entity.slot];
  return std::any_of(uses.begin(), uses.end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    return use.access == Access::Write && !use.throughPointer && !use.inMember && use.in != kNone && use.place != entity.creation.place && (entity.creation.time != CreationTime::Lazy || use.in != entity.creation.in) && !isInTests(use.place);
  });
}

void Recogniser::findState(Entity& entity) {
  if (entity.type == kNone || p_.use(p_.variables[entity.slot].type).decl == kNone) {
    bool plain = entity.type == kNone;
    if (plain) {
      entity.state.push_back({entity.slot, !entity.harmless, {}});
      return;
    }
  }
  // Several objects of the class are none of them.
  if (p_.use(p_.variables[entity.slot].type).has(kArray)) entity.state.push_back({entity.slot, true, {}});
  // Which object it is can change too, where it is not made on first use for good.
  if (entity.slot != kNone && (entity.creation.time != CreationTime::Lazy || entity.creation.guard == GuardSort::Lock) && isReplaced(entity)) entity.state.push_back({entity.slot, true, {}});
  // Behind an interface or a base stands the class that is made for it.
  TypeIndex made = entity.creation.made;
  bool derived = made != kNone && made != entity.type && (p_.types[entity.type].form == TypeForm::Interface || p_.derivesFrom(made, entity.type));
  p_.anyBase(derived ? made : entity.type, [&](TypeIndex t, const Base*) {
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
  // Of a class whose fields are not told, the slot stands for what is in it.
  if (entity.state.empty() && entity.slot != kNone) entity.state.push_back({entity.slot, isReplaced(entity), {}});
}

// The lock that is held wherever a field is touched after construction.
void Recogniser::fillLocks(Entity& entity) {
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

void Recogniser::findEnforcement(Entity& entity) {
  if (entity.type == kNone && entity.kind == EntityKind::SharedInstance && isLibraryObject(entity)) {
    entity.openings.push_back("its class is a library's");
    entity.enforced = 0;
  }
  if (entity.type == kNone || !p_.types[entity.type].definition.known()) return;
  if (entity.kind != EntityKind::Singleton && entity.kind != EntityKind::SharedInstance) return;
  TypeIndex type = objectTypeOf(p_, entity);
  FileIndex f = p_.types[type].definition.file;
  bool refuses = refusesSecond(p_, type);
  if (hasOpenConstructor(p_, type) && !refuses) entity.openings.push_back("its constructor is public");
  if (p_.isCopyable(entity.type, f) && !isAbstract(p_, type)) entity.openings.push_back("it can be copied");
  const Variable& slot = p_.variables[entity.slot];
  bool openSlot = (slot.storage == Storage::Global && slot.onlyIn == kNone && !(slot.modifiers & kConst)) || (slot.storage == Storage::StaticField && (slot.modifiers & kPublic));
  if (openSlot && p_.use(slot.type).has(kPointer) && !(slot.modifiers & kConst)) entity.openings.push_back("its slot can be replaced from outside");
  const Guarantees& g = p_.guarantees(f);
  auto has = [&](std::string_view hook) {
    return std::any_of(p_.types[type].methods.begin(), p_.types[type].methods.end(), [&](FunctionIndex m) { return p_.text(p_.functions[m].name) == hook; });
  };
  bool single = entity.kind == EntityKind::Singleton && p_.types[type].form == TypeForm::Class;
  if (single && g.clonesByDefault.holds && !has(g.cloneHook)) entity.openings.push_back("it can be cloned");
  if (single && !g.revivableBase.empty() && !has(g.reviveHook))
    for (const Base& base : p_.types[type].bases)
      if (lastPart(p_.text(p_.use(base.use).name)) == g.revivableBase) entity.openings.push_back("it can be made again from stored bytes");
  if (single && !hasOpenConstructor(p_, type) && hasProtectedConstructor(type)) entity.openings.push_back("a subclass can make another");
  if (isHandedASuccessor(entity.slot)) entity.openings.push_back("a function replaces it from outside");
  entity.enforced = entity.openings.empty() ? 1 : 0;
}

// Is one of its constructors open to subclasses, of which there may be some?
bool Recogniser::hasProtectedConstructor(TypeIndex type) const {
  if (p_.types[type].modifiers & kFinal) return false;
  return std::any_of(p_.types[type].methods.begin(), p_.types[type].methods.end(), [&](FunctionIndex m) {
    const Function& fn = p_.functions[m];
    return fn.form == FunctionForm::Constructor && (fn.modifiers & kProtected) && !(fn.modifiers & (kPrivate | kDeleted));
  });
}

void Recogniser::findEnd(Entity& entity) {
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

}  // namespace elmcart

#include "survey/declared.h"

#include <algorithm>
#include <map>
#include <set>

#include "base/sorting.h"
#include "base/text.h"

namespace elmcart {
namespace {

bool holds(std::span<const std::string_view> list, std::string_view word) { return std::find(list.begin(), list.end(), word) != list.end(); }

Entity entityOfClass(const Program& p, TypeIndex t, EntityKind kind) {
  const TypeDecl& type = p.types[t];
  Entity e;
  e.kind = kind;
  e.type = t;
  e.typeText = p.text(type.qualified);
  e.name = p.text(type.name);
  e.id = p.text(type.qualified);
  e.place = type.definition;
  e.language = p.language(type.definition.file).id;
  return e;
}

// The last part of the class that a registration names.
TypeIndex registered(const Program& p, FileIndex f, NodeId callee) {
  TypeIndex last = kNone;
  const LoweredFile& file = p.files[f];
  for (NodeId c : children(file, callee))
    if (file[c].role == Role::TypeArgument && p.links[f].symbol[c].is(Symbol::Sort::Type)) last = p.links[f].symbol[c].index();
  return last;
}

// In the body of `function`: what it makes through its parameter or its base
// is put where it stays, under a test. The place of the making and of the test.
struct Keeping {
  Place made, test, lock;
  VariableIndex slot = kNone;
};

Keeping keepingIn(const Program& p, Place definition) {
  Keeping out;
  const LoweredFile& file = p.file(definition);
  const std::vector<NodeId>& up = file.parents;
  for (NodeId n = definition.node; n < file.nodes.size() && file[n].span.begin < file[definition.node].span.end; ++n) {
    if (file[n].kind != Kind::Assign) continue;
    NodeId value = file.child(n, Role::Value), target = file.child(n, Role::Target);
    if (value == kNoNode || target == kNoNode || file[value].kind != Kind::Call) continue;
    NodeId callee = file.child(value, Role::Callee);
    if (callee == kNoNode) continue;
    Symbol called = p.links[definition.file].symbol[callee];
    bool parameter = called.is(Symbol::Sort::Variable) && p.variables[called.index()].storage == Storage::Parameter;
    bool base = file[callee].kind == Kind::Member && file.name(callee) == "__call__";
    if (!parameter && !base) continue;
    NodeId kept = file[target].kind == Kind::Index ? file.child(target, Role::Receiver) : target;
    Symbol slot = kept == kNoNode ? Symbol{} : p.links[definition.file].symbol[kept];
    if (!slot.is(Symbol::Sort::Variable)) continue;
    out.slot = slot.index();
    out.made = {definition.file, value};
    for (NodeId at = up[n]; at != kNoNode && at != definition.node; at = up[at]) {
      if (file[at].kind == Kind::If && !out.test.known()) out.test = {definition.file, at};
      if (file[at].kind == Kind::Guard && !out.lock.known()) out.lock = {definition.file, at};
    }
    if (out.test.known()) return out;
  }
  return {};
}

// Whoever makes an object of the class gets at the one that is there.
void addCreationsAsConsumers(const Program& p, Entity& e) {
  for (uint32_t i : p.creationsOfType[e.type]) {
    const Creation& creation = p.creations[i];
    if (creation.asBase) continue;
    Consumer consumer;
    consumer.place = creation.place;
    consumer.in = creation.in;
    consumer.inInitialiserOf = creation.inInitialiserOf;
    consumer.access = Access::Call;
    consumer.reach = true;
    e.consumers.push_back(consumer);
  }
}

// Where each is handed in: parameters of constructors, by the class itself or
// by one that it derives from.
void handedIn(const Program& p, std::vector<Entity>& managed) {
  if (managed.empty()) return;
  std::map<TypeIndex, std::vector<VariableIndex>> wanted;
  for (VariableIndex v = 0; v < p.variables.size(); ++v) {
    const Variable& variable = p.variables[v];
    if (variable.storage != Storage::Parameter || variable.function == kNone || p.functions[variable.function].form != FunctionForm::Constructor || variable.declarations.empty()) continue;
    TypeIndex type = p.classBehind(variable.declarations.front().file, variable.type);
    if (type != kNone) wanted[type].push_back(v);
  }
  for (Entity& e : managed) {
    p.anyBase(e.type, [&](TypeIndex type, const Base*) {
      if (auto found = wanted.find(type); found != wanted.end())
        for (VariableIndex v : found->second) {
          Consumer consumer;
          consumer.place = p.variables[v].declarations.front();
          consumer.in = p.variables[v].function;
          consumer.reach = true;
          e.consumers.push_back(consumer);
        }
      return false;
    });
  }
}

}  // namespace

void sortEntities(const Program& p, std::vector<Entity>& entities) {
  sortByKey(entities, [&](const Entity& e) { return std::tuple<std::string_view, uint32_t, std::string>(p.path(e.place), p.line(e.place), e.id); });
}

std::vector<Entity> containerManaged(const Program& p) {
  std::vector<Entity> out;
  std::set<TypeIndex> done;
  auto add = [&](TypeIndex t, Place place, const std::string& how) {
    if (!p.types[t].definition.known() || !done.insert(t).second) return;
    Entity e = entityOfClass(p, t, EntityKind::ContainerManaged);
    AccessPoint accessPoint;
    accessPoint.place = place;
    accessPoint.name = how;
    e.accessPoints.push_back(accessPoint);
    e.end = "its container";
    out.push_back(std::move(e));
  };
  for (TypeIndex t = 0; t < p.types.size(); ++t) {
    Place definition = p.types[t].definition;
    if (!definition.known()) continue;
    const Guarantees& g = p.guarantees(definition.file);
    if (g.containerMarks.empty()) continue;
    const LoweredFile& file = p.file(definition);
    for (NodeId c : children(file, definition.node))
      if (file[c].role == Role::Annotation && holds(g.containerMarks, lastPart(file.name(c)))) {
        add(t, {definition.file, c}, "@" + std::string(lastPart(file.name(c))));
        break;
      }
  }
  for (const ForeignCall& call : p.foreignCalls) {
    const Guarantees& g = p.guarantees(call.place.file);
    if (g.containerCalls.empty() || !holds(g.containerCalls, lastPart(p.text(call.name)))) continue;
    const LoweredFile& file = p.file(call.place);
    NodeId callee = file.child(call.place.node, Role::Callee);
    if (callee == kNoNode) continue;
    TypeIndex t = registered(p, call.place.file, callee);
    // Or the object that is handed over.
    if (NodeId first = file.child(call.place.node, Role::Argument); t == kNone && first != kNoNode && p.typeAt({call.place.file, first}) != 0) t = p.classBehind(call.place.file, p.typeAt({call.place.file, first}));
    if (t != kNone) add(t, call.place, std::string(lastPart(p.text(call.name))));
  }
  handedIn(p, out);
  sortEntities(p, out);
  return out;
}

namespace {

// self.__dict__ = pool[key] in a constructor: the pool; `of`: its class.
VariableIndex sharedDictionary(const Program& p, FileIndex f, NodeId assign, TypeIndex& of) {
  const LoweredFile& file = p.files[f];
  NodeId target = file.child(assign, Role::Target), value = file.child(assign, Role::Value);
  if (target == kNoNode || value == kNoNode || file[target].kind != Kind::Member || file.name(target) != "__dict__" || file[value].kind != Kind::AddressOf) return kNone;
  NodeId receiver = file.child(target, Role::Receiver), kept = file.child(value, Role::Operand);
  if (receiver == kNoNode || file[receiver].kind != Kind::This || kept == kNoNode) return kNone;
  if (file[kept].kind == Kind::Index) kept = file.child(kept, Role::Receiver);
  Symbol pool = kept == kNoNode ? Symbol{} : p.links[f].symbol[kept];
  NodeId up = file.parents[assign];
  while (up != kNoNode && file[up].kind != Kind::Function) up = file.parents[up];
  Symbol in = up == kNoNode ? Symbol{} : p.links[f].symbol[up];
  if (!pool.is(Symbol::Sort::Variable) || !p.variables[pool.index()].lives() || !in.is(Symbol::Sort::Function)) return kNone;
  of = p.functions[in.index()].owner;
  return pool.index();
}

}  // namespace

void addSharingState(const Program& p, std::vector<Entity>& entities) {
  for (FileIndex f = 0; f < p.files.size(); ++f) {
    if (!p.language(f).infersTypes) continue;
    for (NodeId n = 1; n < p.files[f].nodes.size(); ++n) {
      if (p.files[f][n].kind != Kind::Assign) continue;
      TypeIndex base = kNone;
      VariableIndex pool = sharedDictionary(p, f, n, base);
      if (pool == kNone || base == kNone) continue;
      p.anyDerived(base, [&](TypeIndex t) {
        if (t == base || !p.types[t].definition.known()) return false;
        Entity e = entityOfClass(p, t, EntityKind::Singleton);
        e.slot = pool;
        e.madeByAsking = true;
        e.enforced = 1;
        e.creation.time = CreationTime::Lazy;
        e.creation.place = {f, n};
        e.creation.made = t;
        e.creation.guard = p.guarantees(f).sharedMemoryThreads.holds ? GuardSort::None : GuardSort::SingleThreaded;
        for (FunctionIndex m : p.types[t].methods)
          if (p.functions[m].form == FunctionForm::Constructor) e.creation.constructor = e.creation.in = m;
        AccessPoint accessPoint;
        accessPoint.function = e.creation.constructor;
        accessPoint.place = p.types[t].definition;
        accessPoint.name = e.name + "()";
        e.accessPoints.push_back(accessPoint);
        for (VariableIndex v : p.types[t].fields) e.state.push_back({v, true, {}});
        e.end = "never: static fields live until the process ends";
        e.neverDestroyed = true;
        addCreationsAsConsumers(p, e);
        entities.push_back(std::move(e));
        return false;
      });
    }
  }
}

void addKeptByMark(const Program& p, std::vector<Entity>& entities) {
  for (TypeIndex t = 0; t < p.types.size(); ++t) {
    Place definition = p.types[t].definition;
    if (!definition.known()) continue;
    const LoweredFile& file = p.file(definition);
    for (NodeId c : children(file, definition.node)) {
      if (file[c].role != Role::Annotation) continue;
      Symbol mark = p.links[definition.file].symbol[c];
      Keeping keeping;
      FunctionIndex by = kNone;
      if (mark.is(Symbol::Sort::Function)) {
        by = mark.index();
        if (p.functions[by].definition.known()) keeping = keepingIn(p, p.functions[by].definition);
      } else if (mark.is(Symbol::Sort::Type)) {
        // A metaclass, its own way of being called or an inherited one.
        p.anyBase(mark.index(), [&](TypeIndex m, const Base*) {
          for (FunctionIndex f : p.types[m].methods)
            if (p.text(p.functions[f].name) == "__call__" && p.functions[f].definition.known()) {
              keeping = keepingIn(p, p.functions[f].definition);
              by = f;
            }
          return keeping.made.known();
        });
      }
      if (!keeping.made.known()) continue;
      Entity e = entityOfClass(p, t, EntityKind::Singleton);
      e.slot = keeping.slot;
      e.madeByAsking = true;
      e.enforced = 1;
      e.creation.time = CreationTime::Lazy;
      e.creation.place = keeping.made;
      e.creation.in = by;
      e.creation.made = t;
      e.creation.innerTest = keeping.test;
      e.creation.lock = keeping.lock;
      e.creation.guard = keeping.lock.known() ? GuardSort::Lock : p.guarantees(definition.file).sharedMemoryThreads.holds ? GuardSort::None : GuardSort::SingleThreaded;
      for (FunctionIndex m : p.types[t].methods)
        if (p.functions[m].form == FunctionForm::Constructor) e.creation.constructor = m;
      AccessPoint accessPoint;
      accessPoint.function = by;
      accessPoint.place = {definition.file, c};
      accessPoint.name = e.name + "()";
      e.accessPoints.push_back(accessPoint);
      addCreationsAsConsumers(p, e);
      entities.push_back(std::move(e));
      break;
    }
  }
}

void foldOtherNames(std::vector<Entity>& entities) {
  std::map<TypeIndex, size_t> asked;
  for (size_t i = 0; i < entities.size(); ++i)
    if (entities[i].madeByAsking) asked.emplace(entities[i].type, i);
  for (size_t i = 0; i < entities.size(); ++i) {
    Entity& e = entities[i];
    auto found = e.creation.made == kNone || e.madeByAsking || e.harmless ? asked.end() : asked.find(e.creation.made);
    if (found == asked.end()) continue;
    Entity& object = entities[found->second];
    object.consumers.insert(object.consumers.end(), e.consumers.begin(), e.consumers.end());
    e.harmless = true;
    e.harmlessBecause = "another name for " + object.name;
  }
}

}  // namespace elmcart

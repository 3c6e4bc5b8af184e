#include "survey/recogniser.h"

#include <absl/container/flat_hash_set.h>

#include <numeric>

#include "base/sorting.h"

namespace elmcart {

bool Recogniser::testsSlot(Place test, VariableIndex v) const {
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
void Recogniser::findTests(Entity& entity, Place place) const {
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
bool Recogniser::readCreation(Place value, CreationFacts& facts) const {
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

void Recogniser::findCreation(Entity& entity) {
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
bool Recogniser::isNestedHolder(const Variable& slot, TypeIndex type) const {
  if (slot.storage != Storage::StaticField || type == kNone || slot.owner == type || !p_.language(slot.declarations.front().file).dotted) return false;
  ScopeIndex around = p_.types[slot.owner].parent;
  return around != kNone && p_.scopes[around].type == type;
}

// The class and all that derive from it.
std::vector<TypeIndex> Recogniser::familyOf(TypeIndex type) const {
  std::vector<TypeIndex> out;
  p_.anyDerived(type, [&](TypeIndex at) {
    out.push_back(at);
    return false;
  });
  return out;
}

// slot = new T;  slot.reset(new T);  slot.store(new T);  slot.emplace(…)
bool Recogniser::creationAt(const Use& site, CreationFacts& out) const {
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

void Recogniser::decideGuard(Entity& entity, const Use& site) {
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

}  // namespace elmcart

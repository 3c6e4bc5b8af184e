#include "survey/recogniser.h"

#include <absl/container/flat_hash_set.h>

#include <numeric>

#include "base/sorting.h"
#include "flow/control.h"
#include "program/arguments.h"

namespace elmcart {

bool Recogniser::testsSlot(Place test, VariableIndex v) const {
  const LoweredFile& file = p_.file(test);
  // if (!slot): the value itself, as true or not.
  if (file[test.node].kind == Kind::Name || file[test.node].kind == Kind::Member) return p_.symbolAt(test).is(Symbol::Sort::Variable) && p_.symbolAt(test).index() == v;
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
  VariableIndex v = entity.slot;
  struct Found {
    NodeId level;  // further out is smaller
    NodeId node;
    bool lock;
  };
  std::vector<Found> found;
  // Who throws where it is there already refuses a second: that makes none later.
  const LoweredFile& file = p_.file(place);
  auto returns = [&](NodeId branch) {
    for (NodeId n = branch + 1; n < file.nodes.size() && file[n].span.begin < file[branch].span.end; ++n)
      if (file[n].kind == Kind::Return) return true;
    return false;
  };
  // Where it was found filled, what is put there takes its place.
  auto foundFilled = [&](const Known& test) {
    const Node& condition = file[test.condition];
    if (condition.kind == Kind::NullTest) return condition.is(Kind::NullTest, NullTestForm::IsNotNull) == test.holds;
    return test.holds && (condition.kind == Kind::Name || condition.kind == Kind::Member);
  };
  forEachKnown(p_, place, [&](const Known& test) {
    if ((test.around || returns(test.branch)) && !foundFilled(test) && testsSlot({place.file, test.condition}, v)) found.push_back({test.level, test.branch, false});
    return false;
  });
  for (Place lock = p_.around(place, Kind::Guard); lock.node != kNoNode; lock = p_.around(lock, Kind::Guard)) found.push_back({lock.node, lock.node, true});
  std::stable_sort(found.begin(), found.end(), [](const Found& a, const Found& b) { return a.level > b.level; });
  // From the inside out: [inner test] lock [outer test].
  CreationFacts& creation = entity.creation;
  for (const Found& one : found) {
    Place& first = one.lock ? creation.lock : !creation.lock.known() ? creation.innerTest : creation.outerTest;
    if (!first.known()) first = {place.file, one.node};
  }
}

// The class made by the value of an assignment, and where.
bool Recogniser::readCreation(Place value, CreationFacts& facts, int depth) const {
  const LoweredFile& file = p_.file(value);
  const Node& node = file[value.node];
  if (node.kind == Kind::Dereference || node.kind == Kind::Cast || node.kind == Kind::AddressOf) {
    NodeId operand = file.child(value.node, Role::Operand);
    return operand != kNoNode && readCreation({value.file, operand}, facts);
  }
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
    if (asksPlatformForObject(value)) {
      facts.place = value;
      return true;
    }
    if (callee != kNoNode && file[callee].kind == Kind::Lambda) return readReturned({value.file, callee}, facts);
    if (symbol.is(Symbol::Sort::Function)) {
      // A factory: it returns what it creates.
      for (const Place& returned : o_.returnsOf(symbol.index())) {
        CreationFacts inner;
        // … or what another one does.
        bool another = depth < 3 && p_.node(returned).kind == Kind::Call && p_.symbolAt(returned).is(Symbol::Sort::Function) && p_.symbolAt(returned).index() != symbol.index();
        if ((another || p_.node(returned).kind == Kind::Create) && readCreation(returned, inner, depth + 1)) {
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
    // std::move(fresh), std::shared_ptr<T>(new T); run(new Action() { Hub run() { return new Hub(); } })
    for (NodeId c : children(file, value.node)) {
      if (file[c].role != Role::Argument) continue;
      bool nameless = false;
      for (NodeId inner : children(file, c)) nameless |= file[c].kind == Kind::Create && file[inner].kind == Kind::Type;
      if (nameless ? readReturned({value.file, c}, facts) : readCreation({value.file, c}, facts)) return true;
    }
    if (callee == kNoNode || !p_.language(value.file).createsByCall || symbol.known()) return false;
    // Counter(…): a library's class, which bears a capital, is made by calling it.
    std::string_view made = lastPart(file.name(callee));
    if (file[callee].kind != Kind::Name || made.empty() || made[0] < 'A' || made[0] > 'Z') return false;
    facts.place = value;
    return true;
  }
  if (node.kind == Kind::Collection && (node.name || file.child(value.node, Role::Type) != kNoNode)) {
    facts.place = value;
    return true;
  }
  if (node.kind == Kind::Lambda) return false;
  if (node.kind == Kind::Assign) {  // slot = result = new T()
    NodeId given = file.child(value.node, Role::Value);
    return given != kNoNode && readCreation({value.file, given}, facts);
  }
  if (node.kind == Kind::Await) {
    for (NodeId c : children(file, value.node)) {
      if (readCreation({value.file, c}, facts)) return true;
      if (file[c].kind != Kind::Call) continue;
      facts.place = value;
      return true;
    }
    return false;
  }
  return node.kind == Kind::Name && readLocal(value, facts);
}

// A local that was just created: T* fresh = new T; slot = fresh;
bool Recogniser::readLocal(Place value, CreationFacts& facts) const {
  Symbol symbol = p_.symbolAt(value);
  if (!symbol.is(Symbol::Sort::Variable) || p_.variables[symbol.index()].storage != Storage::Local) return false;
  auto makes = [&](FileIndex f, NodeId n) {
    while (n != kNoNode && p_.files[f][n].kind == Kind::Cast) n = p_.files[f].child(n, Role::Operand);
    return n != kNoNode && (p_.files[f][n].kind == Kind::Create || (p_.files[f][n].kind == Kind::Call && p_.symbolAt({f, n}).is(Symbol::Sort::Function)));
  };
  Place definition = p_.variables[symbol.index()].definition;
  NodeId initial = p_.file(definition).child(definition.node, Role::Initialiser);
  if (makes(definition.file, initial)) return readCreation({definition.file, initial}, facts);
  for (uint32_t u : p_.usesOfVariable[symbol.index()]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write) continue;
    Place assign = p_.parent(use.place);
    NodeId right = p_.file(assign).child(assign.node, Role::Value);
    if (makes(assign.file, right)) return readCreation({assign.file, right}, facts);
  }
  return false;
}

bool Recogniser::readReturned(Place code, CreationFacts& facts) const {
  const LoweredFile& file = p_.file(code);
  for (NodeId n = code.node + 1; n < file.nodes.size() && p_.isInside({code.file, n}, code.node); ++n) {
    if (file[n].kind != Kind::Return || p_.around({code.file, n}, Kind::Lambda).node > code.node) continue;
    NodeId value = file.child(n, Role::Value);
    if (value != kNoNode && readCreation({code.file, value}, facts)) return true;
  }
  return false;
}

bool Recogniser::startsEmpty(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  Place home = variable.home();
  NodeId initial = p_.file(home).child(home.node, Role::Initialiser);
  const LoweredFile& file = p_.file(home);
  if (initial != kNoNode && file[initial].kind == Kind::Create && (traitsOf(v) & (kAtomicType | kPointerLike | kOwningPointer | kOptionalType))) {
    // std::atomic<T*> slot{nullptr}; new AtomicReference<>()
    NodeId given = file.child(initial, Role::Argument);
    return classOf(v) != kNone && (given == kNoNode || file[given].is(Kind::Literal, LiteralForm::Null));
  }
  if (initial != kNoNode) return file[initial].is(Kind::Literal, LiteralForm::Null);
  // A variable of any type holds nothing until it is given something.
  if (isUnset(v) && p_.language(home.file).infersTypes) return true;
  const TypeUse& use = p_.use(variable.type);
  // Go, The zero value: that of an interface or a map is nil.
  bool nil = p_.language(home.file).dotted && ((use.decl != kNone && p_.types[use.decl].form == TypeForm::Interface) || (traitsOf(v) & kKeyedCollection));
  return nil || use.has(kPointer) || (p_.language(home.file).dotted && use.decl == kNone && !use.name);
}

bool Recogniser::isWorkedOut(Place value) const {
  const LoweredFile& file = p_.file(value);
  switch (file[value.node].kind) {
    case Kind::Call: case Kind::Await: return o_.of(value) == kNone;
    case Kind::Create: case Kind::Collection: case Kind::Index: case Kind::Lambda: return true;
    case Kind::Compare: case Kind::NullTest: case Kind::Logic: return true;
    case Kind::Literal: return !file[value.node].is(Kind::Literal, LiteralForm::Null);
    case Kind::Cast: {
      NodeId operand = file.child(value.node, Role::Operand);
      return operand != kNoNode && isWorkedOut({value.file, operand});
    }
    case Kind::Assign: {
      NodeId given = file.child(value.node, Role::Value);
      return given != kNoNode && isWorkedOut({value.file, given});
    }
    case Kind::Conditional: {
      for (NodeId c : children(file, value.node))
        if ((file[c].role == Role::Then || file[c].role == Role::Else) && isWorkedOut({value.file, c})) return true;
      return false;
    }
    case Kind::Name: {
      // A local of the function that was given what is worked out.
      Symbol symbol = p_.symbolAt(value);
      if (!symbol.is(Symbol::Sort::Variable) || p_.variables[symbol.index()].storage != Storage::Local) return false;
      Place definition = p_.variables[symbol.index()].definition;
      NodeId initial = definition.known() ? p_.file(definition).child(definition.node, Role::Initialiser) : kNoNode;
      auto isMade = [&](Place from) { return from.node != kNoNode && p_.node(from).kind != Kind::Name && isWorkedOut(from); };
      if (initial != kNoNode) return isMade({definition.file, initial});
      return std::any_of(p_.usesOfVariable[symbol.index()].begin(), p_.usesOfVariable[symbol.index()].end(), [&](uint32_t u) {
        const Use& use = p_.uses[u];
        return use.access == Access::Write && !use.inMember && isMade({use.place.file, p_.assignedAt(use.place)});
      });
    }
    case Kind::Member: return p_.language(value.file).dotted && !p_.symbolAt(value).known();
    default: return false;
  }
}

bool Recogniser::createdByDefinition(Entity& entity, bool byValue) {
  VariableIndex v = entity.slot;
  const Variable& variable = p_.variables[v];
  CreationFacts& facts = entity.creation;
  uint32_t traits = traitsOf(v);
  Place definition = variable.home();
  NodeId initial = p_.file(definition).child(definition.node, Role::Initialiser);
  const Guarantees& g = p_.guarantees(definition.file);
  CreationFacts initialFacts;
  bool creates = initial != kNoNode && !startsEmpty(v) && readCreation({definition.file, initial}, initialFacts);
  // new Lazy<T>(() => new T()): made by the function when it is asked for.
  if (creates && (traits & kLazyType)) initialFacts.made = entity.type;
  if (creates && initialFacts.made == kNone && entity.type != kNone && !byValue) {
    // unique_ptr<T> slot(new T): the Create node is the pointer's, the argument makes the object.
    for (NodeId c : children(p_.file(definition), initial))
      if (p_.file(definition)[c].role == Role::Argument) readCreation({definition.file, c}, initialFacts);
    creates = initialFacts.made != kNone || (p_.language(definition.file).dotted && initialFacts.place.known());
  }
  // Arithmetic of any kind is there from the start, too.
  bool worked = initial != kNoNode && p_.language(definition.file).dotted && !startsEmpty(v) && (p_.file(definition)[initial].kind == Kind::Other || isWorkedOut({definition.file, initial}));
  if (!creates && !worked && (!byValue || startsEmpty(v))) return false;
  // Until it is given what it is for; nothing was given to it where it is declared, and it is filled under a once flag.
  if (startsFalse(v) || initial == kNoNode) {
    Entity later = entity;
    if (createdByAssignment(later) && (initial != kNoNode || later.creation.guard == GuardSort::Once)) return false;
  }
  facts = initialFacts;
  if (!facts.place.known()) facts.place = worked ? Place{definition.file, initial} : definition;
  if (facts.made == kNone) facts.made = entity.type;
  // A number or text is there from the beginning, and where the values of statics are constant expressions, so is a collection.
  bool constant = entity.type == kNone && initial != kNoNode && (p_.file(definition)[initial].kind == Kind::Literal || (p_.file(definition)[initial].kind == Kind::Collection && variable.storage == Storage::FunctionStatic && p_.language(definition.file).infersTypes));
  facts.time = variable.storage == Storage::FunctionStatic && !constant ? CreationTime::Lazy : CreationTime::Eager;
  facts.in = variable.function;
  if ((traits & kLazyType) || (variable.form != VariableForm::Plain && !constant) || isNestedHolder(variable, entity.type)) facts.time = CreationTime::Lazy;
  // A thread's own copy needs no guard against other threads.
  facts.guard = variable.modifiers & kThreadLocal ? GuardSort::Language
                : variable.storage == Storage::FunctionStatic ? (g.guardedLocalStatic.holds ? GuardSort::Language : GuardSort::None)
                : variable.form == VariableForm::LazyUnguarded ? GuardSort::None : GuardSort::Language;
  if (facts.time == CreationTime::Lazy && variable.form == VariableForm::Plain && !g.sharedMemoryThreads.holds) facts.guard = GuardSort::SingleThreaded;
  return true;
}

// setBook(new Book()) in loading code, or for a thread's own slot: made where the setter is called.
bool Recogniser::createdForSetter(const Use& site, CreationFacts& out) const {
  NodeId value = p_.assignedAt(site.place);
  if (site.inMember || site.throughPointer || site.in == kNone || value == kNoNode) return false;
  Symbol given = p_.symbolAt({site.place.file, value});
  if (!given.is(Symbol::Sort::Variable) || p_.variables[given.index()].storage != Storage::Parameter) return false;
  bool ofThread = p_.variables[site.variable].modifiers & kThreadLocal;
  for (uint32_t c : p_.callsOfFunction[site.in]) {
    const CallSite& call = p_.calls[c];
    if (!ofThread && (!harmless_.runsWhileLoading(call.in, call.place) || p_.around(call.place, Kind::Lambda).node != kNoNode)) continue;
    Place argument = givenFor(p_, call.place, site.in, given.index());
    if (argument.node == kNoNode) continue;
    // An object of the caller's own is made for its block, not for the slot.
    NodeId operand = p_.node(argument).kind == Kind::AddressOf ? p_.file(argument).child(argument.node, Role::Operand) : kNoNode;
    bool own = operand != kNoNode && p_.file(argument)[operand].kind == Kind::Name;
    if (own || !readCreation(argument, out)) continue;
    out.in = call.in;
    return true;
  }
  return false;
}

bool Recogniser::createdByAssignment(Entity& entity) {
  VariableIndex v = entity.slot;
  int best = -1;
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& site = p_.uses[u];
    if (site.access != Access::Write && site.access != Access::Update) continue;
    // What is added to what is there makes nothing: an event's subscriber, one more element.
    if (site.access == Access::Update && p_.node(p_.parent(site.place)).kind == Kind::Assign) continue;
    auto awaitsValue = [&] { return startsEmpty(v) || (isUnset(v) && harmless_.runsOnce(site.in, site.place)); };
    CreationFacts here;
    bool forSetter = createdForSetter(site, here);
    bool creates = forSetter || creationAt(site, here);
    if (!creates) {
      // Worked out by code that is not in the tree, or that makes no object.
      NodeId value = p_.assignedAt(site.place);
      if (site.inMember || site.throughPointer || value == kNoNode || !isWorkedOut({site.place.file, value})) continue;
      if (startsFalse(v) ? p_.file(site.place)[value].kind == Kind::Literal : !awaitsValue()) continue;
      here.place = {site.place.file, value};
    } else if (entity.type == kNone && !startsFalse(v) && !awaitsValue()) {
      continue;  // what it holds at first is replaced
    }
    if (!forSetter) here.in = site.in;
    Place at = forSetter ? here.place : site.place;
    Entity trial = entity;
    trial.creation = here;
    findTests(trial, at);
    decideGuard(trial, site);
    bool loading = harmless_.runsWhileLoading(here.in, at) && p_.around(at, Kind::Lambda).node == kNoNode;
    trial.creation.time = loading && !(p_.variables[v].modifiers & kThreadLocal) ? CreationTime::Eager : CreationTime::Lazy;
    // A module and a class are loaded once, under the language's guard.
    if (loading && trial.creation.guard == GuardSort::None) trial.creation.guard = GuardSort::Language;
    // What production code makes goes before what a test makes, an object before another value, and
    // of several the one behind a test is the lazy one.
    bool tested = trial.creation.innerTest.known() || trial.creation.outerTest.known() || (trial.creation.guard != GuardSort::None && trial.creation.guard != GuardSort::SingleThreaded);
    // A value that is put there again and again is none that was waited for.
    if (!creates && !tested && startsFalse(v)) continue;
    int rank = (isInTests(site.place) ? 0 : 4) + (creates ? 2 : 0) + (tested ? 1 : 0);
    if (rank <= best) continue;
    best = rank;
    entity.creation = trial.creation;
  }
  return best >= 0;
}

// Declared without a value.
bool Recogniser::isUnset(VariableIndex v) const {
  Place home = p_.variables[v].home();
  return p_.node(home).kind == Kind::Variable && p_.file(home).child(home.node, Role::Initialiser) == kNoNode;
}

// false, or a text without a character, where the value is to be put.
bool Recogniser::startsFalse(VariableIndex v) const {
  Place home = p_.variables[v].home();
  NodeId initial = p_.file(home).child(home.node, Role::Initialiser);
  return initial != kNoNode && p_.file(home)[initial].is(Kind::Literal, LiteralForm::Boolean) && p_.language(home.file).infersTypes;
}

bool Recogniser::createdByItself(Entity& entity) const {
  if (entity.type == kNone || !isSetToThis(entity.slot)) return false;
  std::vector<uint32_t> sites;
  for (TypeIndex t : familyOf(entity.type))
    for (uint32_t c : p_.creationsOfType[t])
      if (!p_.creations[c].asBase && !p_.creations[c].delegated && !p_.creations[c].copy) sites.push_back(c);
  if (sites.size() != 1) return false;
  const Creation& creation = p_.creations[sites.front()];
  CreationFacts& facts = entity.creation;
  facts.place = creation.place;
  facts.in = creation.in;
  facts.made = creation.type;
  facts.constructor = creation.constructor;
  facts.time = creation.in != kNone ? CreationTime::Lazy : CreationTime::Eager;
  if (!p_.guarantees(creation.place.file).sharedMemoryThreads.holds) facts.guard = GuardSort::SingleThreaded;
  return true;
}

void Recogniser::createdWithKeeper(Entity& entity) {
  VariableIndex keeper = o_.keeperOf(entity.slot);
  if (keeper == kNone || entity.creation.innerTest.known()) return;
  Entity whole;
  whole.slot = keeper;
  whole.type = classOf(keeper);
  findCreation(whole);
  if (whole.creation.time == CreationTime::Elsewhere) return;
  const CreationFacts own = entity.creation;
  entity.creation = whole.creation;
  if (own.place.known()) entity.creation.place = own.place;
  entity.creation.made = own.made != kNone ? own.made : entity.type;
  entity.creation.constructor = own.constructor;
  entity.creation.weights = own.weights;
}

void Recogniser::findCreation(Entity& entity) {
  VariableIndex v = entity.slot;
  const Variable& variable = p_.variables[v];
  CreationFacts& facts = entity.creation;
  const TypeUse& use = p_.use(variable.type);
  uint32_t traits = traitsOf(v);
  bool byValue = !use.has(kPointer | kReference) && !(traits & (kOwningPointer | kPointerLike | kOptionalType)) && !((traits & kAtomicType) && entity.type != kNone);
  bool made = variable.lives() && createdByDefinition(entity, byValue);
  made = made || createdByAssignment(entity) || createdByItself(entity);
  if (!made && !p_.guarantees(variable.home().file).sharedMemoryThreads.holds) facts.guard = GuardSort::SingleThreaded;
  if (!variable.lives()) createdWithKeeper(entity);
  if (made && facts.constructor == kNone && facts.made != kNone) {
    for (uint32_t c : p_.creationsOfType[facts.made])
      if (p_.creations[c].place == facts.place) facts.constructor = p_.creations[c].constructor;
    if (facts.constructor == kNone) facts.constructor = defaultConstructor(facts.made);
    facts.weights = weightsOfCreation(p_, facts.made, facts.constructor, facts.place);
  }
}

// A class inside the class, for its instance alone or for one value of another class: loaded when that is asked for.
bool Recogniser::isNestedHolder(const Variable& slot, TypeIndex type) const {
  if (slot.storage != Storage::StaticField || slot.owner == kNone || slot.owner == type || !p_.language(slot.declarations.front().file).dotted) return false;
  const TypeDecl& holder = p_.types[slot.owner];
  ScopeIndex around = holder.parent;
  if (around == kNone || p_.scopes[around].type == kNone) return false;
  if (type != kNone && p_.scopes[around].type == type) return true;
  auto isCode = [&](FunctionIndex m) { return p_.functions[m].form == FunctionForm::Function || p_.functions[m].form == FunctionForm::Constructor; };
  return (holder.modifiers & kPrivate) && holder.statics.size() == 1 && holder.fields.empty() && std::none_of(holder.methods.begin(), holder.methods.end(), isCode);
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

// The once flag that all runs of a variable's lambda go through, where `place` stands in that lambda.
Place Recogniser::onceOfLambda(Place place) const {
  Place lambda = p_.around(place, Kind::Lambda);
  Place holder = lambda.node == kNoNode ? Place{} : p_.parent(lambda);
  Symbol held = holder.known() && p_.node(holder).kind == Kind::Variable ? p_.symbolAt(holder) : Symbol{};
  Place out;
  if (!held.is(Symbol::Sort::Variable)) return out;
  for (uint32_t u : p_.usesOfVariable[held.index()]) {
    if (p_.uses[u].place == holder) continue;
    out = p_.around(p_.uses[u].place, Kind::Once);
    if (out.node == kNoNode) return {};
  }
  return out;
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
  if (once.node == kNoNode) once = onceOfLambda(site.place);
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
  bool loading = harmless_.isLoadingCode(site.in) && p_.around(site.place, Kind::Lambda).node == kNoNode && promises.guardedLocalStatic.holds && promises.orderedAcrossFiles.holds;
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

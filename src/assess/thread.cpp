// Family "thread": can two threads disagree?
#include <algorithm>
#include <map>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "assess/meetings.h"
#include "flow/control.h"
#include "flow/once.h"

namespace elmcart {
namespace {

// x = x + 1
// Is what is written worked out from what was read there, at once or by way of a local?
bool readsItself(const Program& p, const Use& use) {
  Place up = p.parent(use.place);
  const LoweredFile& file = p.file(up);
  if (file[up.node].kind != Kind::Assign) return false;
  NodeId value = file.child(up.node, Role::Value);
  if (value == kNoNode) return false;
  if (readsInside(p, {up.file, value}, use.variable)) return true;
  if (file[value].kind == Kind::Name || use.in == kNone) return false;  // a local put back as it is
  return anyNode(file, value, [&](NodeId n) {
    Symbol symbol = p.links[up.file].symbol[n];
    if (file[n].kind != Kind::Name || !symbol.is(Symbol::Sort::Variable)) return false;
    const Variable& local = p.variables[symbol.index()];
    if (local.storage != Storage::Local || !local.definition.known() || local.definition.file != up.file) return false;
    NodeId first = file.child(local.definition.node, Role::Initialiser);
    return first != kNoNode && readsInside(p, {up.file, first}, use.variable);
  });
}

// A text, a number or an object that never changes is the same both times, when it is worked out twice.
bool makesObject(const Subject& s, const Entity& e) {
  if (e.slot != kNone && (variableTraits(s.program, e.slot) & kUnchanging)) return false;
  bool ofClass = e.creation.made != kNone || (e.type != kNone && e.kind != EntityKind::StaticHolder);
  return ofClass || s.program.node(e.creation.place).kind == Kind::Create;
}

// An object of a class without fields, which makes nobody wait: two of them are as good as one.
bool madeOfNothing(const Program& p, const CreationFacts& creation) {
  return creation.made != kNone && p.types[creation.made].definition.known() && creation.weights.empty() && !p.anyBase(creation.made, [&](TypeIndex at, const Base*) {
    const TypeDecl& decl = p.types[at];
    // Of a library's class that it derives from nothing is known; an interface holds nothing.
    auto mayHold = [&](const Base& base) {
      std::string_view name = lastPart(p.text(p.use(base.use).name));
      return base.type == kNone && !(name.size() > 1 && name[0] == 'I' && name[1] >= 'A' && name[1] <= 'Z');
    };
    return !decl.fields.empty() || std::any_of(decl.bases.begin(), decl.bases.end(), mayHold);
  });
}

}  // namespace

void checkUnguardedCreation(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e) || e.creation.time != CreationTime::Lazy || e.creation.guard != GuardSort::None || !e.creation.innerTest.known() || !makesObject(s, e)) continue;
    // A collection that is complete when it is put there, and stays so: who makes it twice makes the same.
    bool filledFirst = s.program.node(s.program.parent(e.creation.place)).kind != Kind::Assign || s.program.node(e.creation.place).kind == Kind::Name;
    if (filledFirst && e.slot != kNone && isWorkedOut(s.program, e.slot)) continue;
    // Whoever calls the function holds a lock.
    if (!s.locks.at(e.creation.place, e.creation.in).empty()) continue;
    // Made while the program starts up, it is there when threads come.
    std::vector<FunctionIndex> functions = accessPointFunctions(e);
    bool primed = std::any_of(functions.begin(), functions.end(), [&](FunctionIndex f) { return s.threads.calledAtStartUp(f); });
    std::vector<Evidence> way;
    // Two threads race where it is made: who only looks makes nothing.
    std::optional<Sureness> sureness = sureByThreads(s, e, e.creation.in == kNone ? functions : std::vector<FunctionIndex>{e.creation.in}, &way, true);
    if (primed) way.clear(), sureness = Sureness::Possible;
    if (!sureness) continue;
    if (madeOfNothing(s.program, e.creation)) sureness = Sureness::Possible;
    Finding f = makeFinding(s, infoOf("thread.unguarded-creation"), i, *sureness);
    f.place = e.creation.place;
    std::string slot(s.program.text(s.program.variables[e.slot].name));
    f.message = "Two threads that reach " + e.shown + " at once can both find " + slot + " empty, and each makes an instance.";
    f.evidence = way;
    f.evidence.push_back({e.creation.innerTest, "thread 1: finds " + slot + " empty"});
    f.evidence.push_back({e.creation.innerTest, "thread 2: finds it empty too, because no lock is held"});
    f.evidence.push_back({e.creation.place, "thread 1: makes an instance and stores it in " + slot});
    f.evidence.push_back({e.creation.place, "thread 2: makes a second one and overwrites " + slot + "; what thread 1 wrote to the first is lost"});
    if (way.empty()) f.evidence.push_back({e.accessPoints.empty() ? e.place : e.accessPoints.front().place, primed ? "it is made before the first thread is started, but nothing in the class sees to that" : "no second thread was found that reaches this"});
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

void checkDoubleCheckUnsound(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e) || e.creation.guard != GuardSort::DoubleCheckUnsound || e.creation.incompleteDoubleCheck) continue;
    std::vector<Evidence> way;
    std::optional<Sureness> sureness = sureByThreads(s, e, accessPointFunctions(e), &way);
    Finding f = makeFinding(s, infoOf("thread.double-check-unsound"), i, sureness ? std::min(*sureness, Sureness::Likely) : Sureness::Possible);
    std::string slot(s.program.text(s.program.variables[e.slot].name));
    f.place = e.creation.outerTest;
    f.evidence = way;
    f.message = functionName(s.program, e.creation.in) + " reads " + slot + " without the lock while another thread may write it, and " + slot + " is not atomic: a thread can see the pointer before the object is complete.";
    f.evidence.push_back({e.creation.lock, "thread 1: takes the lock"});
    f.evidence.push_back({e.creation.place, "thread 1: stores the pointer; nothing orders this against the constructor's writes"});
    f.evidence.push_back({e.creation.outerTest, "thread 2: reads " + slot + " without the lock, finds it set, and may see an incomplete object"});
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

void checkDoubleCheckIncomplete(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e) || !e.creation.incompleteDoubleCheck) continue;
    std::vector<Evidence> way;
    std::optional<Sureness> sureness = sureByThreads(s, e, accessPointFunctions(e), &way);
    Finding f = makeFinding(s, infoOf("thread.double-check-incomplete"), i, sureness ? std::min(*sureness, Sureness::Likely) : Sureness::Possible);
    std::string slot(s.program.text(s.program.variables[e.slot].name));
    f.place = e.creation.outerTest;
    f.evidence = way;
    f.message = functionName(s.program, e.creation.in) + " tests " + slot + " before it takes the lock, and not again under it: two threads can each make " + e.shown + ".";
    f.evidence.push_back({e.creation.outerTest, "thread 1: finds " + slot + " empty"});
    f.evidence.push_back({e.creation.outerTest, "thread 2: finds it empty too"});
    f.evidence.push_back({e.creation.lock, "thread 2: waits here while thread 1 makes the instance"});
    f.evidence.push_back({e.creation.place, "thread 2: makes a second one, because the test is not repeated"});
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

namespace {

// Is the value an object made there, by an expression for it or by a call that
// is written like one (of a library's type, by a capital)?
bool makesOne(const Program& p, Place value) {
  const LoweredFile& file = p.file(value);
  if (file[value.node].kind == Kind::Create) return true;
  NodeId callee = file[value.node].kind == Kind::Call ? file.child(value.node, Role::Callee) : kNoNode;
  if (callee == kNoNode) return false;
  if (Symbol called = p.links[value.file].symbol[callee]; called.known()) return called.is(Symbol::Sort::Type);
  std::string_view name = lastPart(file.name(callee));
  return p.language(value.file).createsByCall && !name.empty() && name[0] >= 'A' && name[0] <= 'Z';
}

// Why a lock keeps nobody out of the slot, or empty. `about`: where that is seen.
std::string wrongWith(const Program& p, const Entity& e, Place guard, Place& about) {
  const LoweredFile& file = p.file(guard);
  NodeId lock = file.child(guard.node, Role::Lock);
  if (lock == kNoNode) return "";
  lock = bareExpression(file, lock);
  about = {guard.file, lock};
  if (file[lock].kind == Kind::Create) return "the lock is made anew in each call, so each caller has its own";
  Symbol symbol = p.links[guard.file].symbol[lock];
  if (!symbol.is(Symbol::Sort::Variable)) return "";
  const Variable& variable = p.variables[symbol.index()];
  std::string name(p.text(variable.name));
  if (symbol.index() == e.slot) return name + ", the slot itself, is the lock: it is empty at first, and another object afterwards";
  if (variable.storage == Storage::Local && variable.definition.known()) {
    NodeId value = p.file(variable.definition).child(variable.definition.node, Role::Initialiser);
    bool byValue = !p.use(variable.type).has(kPointer | kReference) && (p.traits(variable.definition.file, variable.type) & kLockType);
    bool made = value != kNoNode && makesOne(p, {variable.definition.file, value});
    if (!byValue && !made) return "";
    about = variable.definition;
    return name + " is made anew in each call, so each caller has a lock of its own";
  }
  bool slotIsShared = p.variables[e.slot].lives();
  if (variable.storage == Storage::Field && slotIsShared && e.type != kNone && p.functions.size() > e.creation.in && e.creation.in != kNone) {
    // A lock in each object, around what all objects share.
    if (p.functions[e.creation.in].modifiers & kStatic) return "";
    about = variable.declarations.front();
    return name + " is a field: each object has a lock of its own, but the slot is shared by all";
  }
  // Another object takes its place while somebody holds the old one.
  for (uint32_t u : p.usesOfVariable[symbol.index()]) {
    const Use& use = p.uses[u];
    if (use.access != Access::Write || use.inMember || use.throughPointer || isConstruction(p, use)) continue;
    if (p.file(use.place)[p.parent(use.place).node].kind != Kind::Assign) continue;
    about = use.place;
    return name + " is replaced while others may hold the old one";
  }
  return "";
}

// Is there such a lock for each of several objects?
bool isOfEachObject(const Subject& s, LockId lock) {
  const Program& p = s.program;
  TypeIndex type = kNone;
  if (lock.sort == LockId::Sort::Object) type = lock.index;
  if (lock.sort == LockId::Sort::Variable && p.variables[lock.index].storage == Storage::Field) type = p.variables[lock.index].owner;
  if (type == kNone || s.isSingleton(type) || p.types[type].form == TypeForm::Object) return false;
  size_t made = 0;
  for (uint32_t c : p.creationsOfType[type]) {
    const Creation& creation = p.creations[c];
    if (creation.asBase || creation.delegated || s.inTests(creation.place)) continue;
    made += p.around(creation.place, Kind::Loop).node != kNoNode ? 2 : 1;
  }
  return made > 1;
}

// What all objects share, changed under a lock that each object has for itself.
void checkLockOfEachObject(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  for (const StateField& field : e.state) {
    uint32_t traits = variableTraits(p, field.variable);
    if (!p.variables[field.variable].lives() || !field.changes || (traits & (kAtomicType | kThreadType | kSafeToShare | kPerThread))) continue;
    const Use* first = nullptr;
    std::vector<FunctionIndex> functions;
    LockSet held;
    size_t free = 0;  // changes under no lock
    for (uint32_t u : p.usesOfVariable[field.variable]) {
      if (p.inOtherBranch(p.uses[u].place)) continue;
      const Use& use = p.uses[u];
      if (use.access == Access::Read || use.access == Access::Bind || s.inTests(use.place)) continue;
      if (use.access == Access::Call && !(traits & (kCollection | kKeyedCollection))) continue;
      LockSet locks = s.locks.at(use.place, use.in);
      free += use.in != kNone && locks.empty();
      if (isConstruction(p, use)) continue;
      // Of which object the lock is, an object's own method tells.
      if (use.in == kNone || p.functions[use.in].owner == kNone || p.functions[use.in].isStaticMember()) continue;
      if (locks.empty() || !std::all_of(locks.begin(), locks.end(), [&](LockId lock) { return isOfEachObject(s, lock); })) continue;
      if (!first) first = &use, held = locks;
      functions.push_back(use.in);
    }
    // Where as many change it under no lock at all, the lock is there for something else.
    if (!first || free >= functions.size()) continue;
    std::vector<Evidence> way;
    std::optional<Sureness> sureness = sureByThreads(s, e, functions, &way);
    Finding f = makeFinding(s, infoOf("thread.wrong-lock"), i, sureness.value_or(Sureness::Possible));
    std::string name(p.text(p.variables[field.variable].name));
    bool object = held.front().sort == LockId::Sort::Object || p.variables[held.front().index].parent == kNone;  // no field that is written
    std::string lock = object ? "the lock of the object it is called on" : lockText(p, held.front()) + ", which each object has for itself";
    f.place = first->place;
    f.message = name + " is shared by all objects, but " + functionName(p, first->in) + " locks " + lock + ": two objects hold two different locks.";
    f.evidence = way;
    f.evidence.push_back({p.variables[field.variable].declarations.front(), "all objects share this " + name});
    if (!object) f.evidence.push_back({p.variables[held.front().index].declarations.front(), "each object has a lock of its own"});
    f.evidence.push_back({first->place, "thread 1 and thread 2: each holds the lock of its own object, and both change " + name});
    f.advice = Advice::Synchronize;
    out.push_back(std::move(f));
    return;
  }
}

}  // namespace

void checkWrongLock(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.slot == kNone || !threadsExist(s, e)) continue;
    checkLockOfEachObject(s, i, out);
    if (!e.creation.lock.known()) continue;
    Place about;
    std::string why = wrongWith(s.program, e, e.creation.lock, about);
    if (why.empty()) continue;
    std::vector<Evidence> way;
    std::optional<Sureness> sureness = sureByThreads(s, e, accessPointFunctions(e), &way);
    Finding f = makeFinding(s, infoOf("thread.wrong-lock"), i, sureness.value_or(Sureness::Possible));
    f.place = e.creation.lock;
    f.message = "The lock around the creation of " + e.shown + " protects nothing: " + why + ".";
    f.evidence = way;
    f.evidence.push_back({about, why});
    f.evidence.push_back({e.creation.lock, "thread 1 and thread 2: both enter, because they hold different locks"});
    f.evidence.push_back({e.creation.place, "both make an instance; the later one replaces the earlier"});
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

void checkLockEveryAccess(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    // The lock is taken by whoever asks, in the function that makes it.
    bool asks = std::any_of(e.accessPoints.begin(), e.accessPoints.end(), [&](const AccessPoint& one) { return one.function != kNone && one.function == e.creation.in; });
    if (e.harmless || e.creation.guard != GuardSort::Lock || !asks) continue;
    std::vector<Evidence> loops;
    size_t sites = 0;
    for (const Consumer& c : e.consumers) {
      if (!c.reach || s.inTests(c.place)) continue;
      ++sites;
      if (s.program.around(c.place, Kind::Loop).node != kNoNode) loops.push_back({c.place, "fetched again in each iteration of a loop"});
    }
    if (loops.empty() && sites < static_cast<size_t>(s.config.lockedSites)) continue;
    Finding f = makeFinding(s, infoOf("thread.lock-every-access"), i, Sureness::Certain);
    f.place = e.creation.lock;
    f.message = "Every access to " + e.shown + " takes a lock that only the first access needs" + (loops.empty() ? ", at " + std::to_string(sites) + " sites." : ", " + counted(loops.size(), "time", "times") + " inside a loop.");
    f.evidence.push_back({e.creation.lock, "the lock is taken before the slot is tested"});
    f.evidence.insert(f.evidence.end(), loops.begin(), loops.end());
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

namespace {

// The fields of an entity in one phrase: "load and fee of CargoScale", "load and 7 more of
// CargoScale", or its own name where the variable is all there is.
std::string stateNames(const Entity& e, const std::vector<std::string>& names) {
  constexpr size_t kShown = 3;
  if (names.size() == 1 && names.front() == e.name) return e.shown;
  std::vector<std::string> some(names.begin(), names.begin() + static_cast<std::ptrdiff_t>(std::min(names.size(), kShown)));
  std::string rest = names.size() > kShown ? " and " + std::to_string(names.size() - kShown) + " more" : std::string();
  return joinWith(some, names.size() == 2 ? " and " : ", ") + rest + " of " + e.shown;
}

}  // namespace

namespace {

// Is it beside the slot of the entity, or one of what the language's one object keeps?
bool isPart(const Program& p, const Entity& e, const StateField& field) {
  return field.variable != e.slot || (e.type != kNone && p.types[e.type].form == TypeForm::Object && p.classBehind(e.place.file, p.variables[field.variable].type) != e.type);
}

// Can the field be shared without a lock, by its type?
bool isPlainState(const Subject& s, const Entity& e, const StateField& field) {
  const Program& p = s.program;
  const Variable& variable = p.variables[field.variable];
  if (!field.changes || field.lock.known() || isOfMany(s, e, field.variable)) return false;
  if (variableTraits(p, field.variable) & (kAtomicType | kThreadType | kSafeToShare | kLockType | kConditionType | kOnceFlagType)) return false;
  return isPart(p, e, field) || p.classBehind(variable.declarations.front().file, variable.type) == kNone;
}

}  // namespace

namespace {

// Does the program give it its value before threads are there?
bool isSetAtStartUp(const Subject& s, VariableIndex v) {
  return std::any_of(s.program.usesOfVariable[v].begin(), s.program.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = s.program.uses[u];
    if (use.access != Access::Write || use.inMember || use.throughPointer || use.in == kNone || s.inTests(use.place)) return false;
    return s.threads.sideOf(use.place, use.in).startsUp();
  });
}

// if (it is empty) it = …: the test that decides so; unknown where it is no such write.
Place fillTest(const Program& p, const Use& use) {
  Place out;
  if (use.access != Access::Write || use.inMember || use.throughPointer) return out;
  const LoweredFile& file = p.file(use.place);
  forEachKnown(p, use.place, [&](const Known& test) {
    auto asks = [&](NodeId n) { return p.symbolAt({use.place.file, n}) == Symbol(Symbol::Sort::Variable, use.variable); };
    if (file[test.condition].kind == Kind::NullTest && anyNode(file, test.condition, asks)) out = {use.place.file, test.condition};
    return out.known();
  });
  return out;
}

// The test of the fill is there, and what is put there is made there.
bool makesPart(const Program& p, const Use& use) {
  NodeId value = fillTest(p, use).known() ? p.assignedAt(use.place) : kNoNode;
  return value != kNoNode && makesOne(p, {use.place.file, bareExpression(p.file(use.place), value)});
}

// Does each constructor of the object call what fills the part, so that nobody else finds it empty?
bool isFilledByConstructor(const Program& p, const Entity& e, const Use& fill) {
  if (e.type == kNone || fill.in == kNone) return false;
  bool any = false;
  for (FunctionIndex m : p.types[e.type].methods) {
    if (p.functions[m].form != FunctionForm::Constructor || !p.functions[m].definition.known()) continue;
    auto calls = p.callsInFunction[m];
    if (std::none_of(calls.begin(), calls.end(), [&](uint32_t c) { return p.calls[c].callee == fill.in; })) return false;
    any = true;
  }
  return any && std::none_of(p.usesOfVariable[fill.variable].begin(), p.usesOfVariable[fill.variable].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    return use.access == Access::Write && !use.inMember && !use.throughPointer && use.place != fill.place && !isConstruction(p, use);
  });
}

// Parts of a shared object that are made when they are first asked for.
struct MadeTwice {
  std::vector<std::string> names;
  const Use* fill = nullptr;  // of the first, or of the first that is surer
  std::vector<Evidence> way;
  bool seen = false;

  void add(const Program& p, const Use& use, std::vector<Evidence> ways, bool meets) {
    names.emplace_back(p.text(p.variables[use.variable].name));
    if (fill && (seen || !meets)) return;
    std::swap(names.front(), names.back());
    fill = &use;
    way = std::move(ways);
    seen = meets;
  }
};

Finding partsMadeTwice(const Subject& s, size_t i, MadeTwice made) {
  Place test = fillTest(s.program, *made.fill);
  const std::string name = made.names.front();
  bool one = made.names.size() == 1;
  Finding f = makeFinding(s, infoOf("thread.unguarded-creation"), i, made.seen ? Sureness::Likely : Sureness::Possible);
  f.place = made.fill->place;
  f.message = "Two threads that reach " + stateNames(s.survey.entities[i], made.names) + " at once can both find " + (one ? "it" : "one of them") + " empty, and each makes one.";
  f.evidence = std::move(made.way);
  f.evidence.push_back({test, "thread 1: finds " + name + " empty"});
  f.evidence.push_back({test, "thread 2: finds it empty too, because no lock is held"});
  f.evidence.push_back({f.place, "thread 1: makes one and stores it in " + name});
  f.evidence.push_back({f.place, "thread 2: makes a second one and overwrites " + name + "; what thread 1 wrote to the first is lost"});
  f.advice = Advice::Synchronize;
  f.members = std::move(made.names);
  return f;
}

// A library's object that looks like a constant and keeps what it works on in itself: a formatter, a calendar.
void checkUnsafeToShare(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  if (e.slot == kNone || !p.variables[e.slot].lives() || !(variableTraits(p, e.slot) & kNotSafeToShare)) return;
  Meetings meetings(s);
  for (uint32_t u : p.usesOfVariable[e.slot]) {
    const Use& use = p.uses[u];
    if (use.access != Access::Call || p.inOtherBranch(use.place) || s.inTests(use.place) || !s.locks.at(use.place, use.in).empty()) continue;
    meetings.add(use, true);
  }
  const Meetings::Pair pair = meetings.best();
  if (pair.meeting == Meeting::Never) return;
  bool seen = pair.meeting >= Meeting::Likely && !meetings.isFarFetched(pair);
  Finding f = makeFinding(s, infoOf("thread.unguarded-state"), i, seen ? Sureness::Likely : Sureness::Possible);
  f.place = pair.change->place;
  f.message = e.shown + " is shared by all threads without a lock, and it keeps what it works on in itself: two that use it at once mix up each other's results.";
  f.evidence = meetings.ways(pair);
  f.evidence.push_back({pair.change->place, "thread 1: uses " + e.name + " without a lock"});
  f.evidence.push_back({pair.other->place, "thread 2: uses " + e.name + " at the same time, without a lock"});
  f.advice = Advice::Synchronize;
  out.push_back(std::move(f));
}

// Where the same function walks over the collection, which a change hurts more than a look at its size.
Place walkBeside(const Program& p, const Use& use) {
  if (use.in == kNone || isWalkedOver(p, use.place)) return use.place;
  for (uint32_t u : p.usesInFunction[use.in])
    if (p.uses[u].variable == use.variable && isWalkedOver(p, p.uses[u].place) && p.around(p.uses[u].place, Kind::Lambda).node == p.around(use.place, Kind::Lambda).node) return p.uses[u].place;
  return use.place;
}

// A number, a choice or a yes that is only ever set as a whole, whatever it was, and that no loop waits for: a switch.
// Who reads it a moment too late does as it was set before.
bool isSwitch(const Program& p, VariableIndex v) {
  const TypeUse& type = p.use(p.variables[v].type);
  bool choice = type.decl != kNone && p.types[type.decl].form == TypeForm::Enum && !type.has(kPointer);
  if ((!isPlainValue(p, v) && !choice) || (variableTraits(p, v) & kTextType)) return false;
  const auto& uses = p.usesOfVariable[v];
  return std::all_of(uses.begin(), uses.end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    const LoweredFile& file = p.file(use.place);
    if (use.access == Access::Read) {
      Place loop = p.around(use.place, Kind::Loop), branch = p.around(use.place, Kind::If);
      auto asks = [&](Place statement) {
        NodeId condition = file.child(statement.node, Role::Condition);
        return condition != kNoNode && (use.place.node == condition || p.isInside(use.place, condition));
      };
      auto leaves = [&](NodeId n) { return file[n].kind == Kind::Return || file[n].kind == Kind::Jump; };
      // while (!stopped) …; while (true) if (stopped) break;
      bool waits = loop.node != kNoNode && (asks(loop) || (branch.node != kNoNode && p.isInside(branch, loop.node) && asks(branch) && anyNode(file, branch.node, leaves)));
      return !waits;
    }
    return use.access == Access::Write && !use.inMember && !use.throughPointer && p.assignedAt(use.place) != kNoNode && !readsItself(p, use);
  });
}

}  // namespace

void checkUnguardedState(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e) || (p.variables[e.slot].modifiers & kThreadLocal)) continue;
    checkUnsafeToShare(s, i, out);
    std::vector<std::string> names;
    std::vector<Evidence> evidence;
    Place changedAt;
    bool seen = false;
    MadeTwice made;
    for (const StateField& field : e.state) {
      if (!isPlainState(s, e, field)) continue;
      const Variable& variable = p.variables[field.variable];
      bool volatilePublishes = publishesAtOnce(p, field.variable);
      bool stepsAtomic = p.guarantees(variable.declarations.front().file).collectionStepsAtomic.holds;
      Meetings meetings(s, stepsAtomic);
      bool onlyCounts = true, isSet = isSetAtStartUp(s, field.variable);
      const OwnThreads own(s, field.variable);
      for (uint32_t u : p.usesOfVariable[field.variable]) {
        const Use& use = p.uses[u];
        if ((isSet && fillTest(p, use).known()) || putsLookedUp(p, use)) continue;  // it is there already
        // What a test puts in another's place is no change of the program's.
        if (p.inOtherBranch(use.place) || s.inTests(use.place) || isConstruction(p, use) || runsOnce(p, use.place, use.in) || own.areApartFrom(use)) continue;
        bool changes = changesState(p, use), whole = use.access == Access::Write && !use.inMember && !readsItself(p, use);
        if ((use.access == Access::Write && !readsItself(p, use)) || use.access == Access::Call) onlyCounts = false;
        if (!s.locks.at(use.place, use.in).empty()) continue;
        // Who makes a part on first use makes it twice, however soon others see it.
        if (volatilePublishes && (whole || !changes) && (!whole || !isPart(p, e, field) || !makesPart(p, use))) continue;
        // Where each step on a collection is whole, a walk over it takes many.
        if (stepsAtomic && (changes ? whole : !isWalkedOver(p, use.place))) continue;
        meetings.add(use, changes);
      }
      // Counting up is a lost update, and a lock that is held here and there is a mixed guard: checks of their own.
      if ((isArithmetic(p, field.variable) && onlyCounts) || guardedUses(s, e, field).mixed()) continue;
      // Worked out by whoever comes first, each time the same, and put there when it is complete.
      if (isWorkedOut(p, field.variable)) continue;
      const Meetings::Pair pair = meetings.best();
      if (pair.meeting == Meeting::Never) continue;
      bool makes = isPart(p, e, field) && makesPart(p, *pair.change);
      if (makes && isFilledByConstructor(p, e, *pair.change)) continue;
      // No thread was seen, but who wrote the class reckons with threads, and a collection does not bear them; or
      // it is the language's one object, for whoever comes.
      bool expected = pair.meeting == Meeting::NotKnown && (variableTraits(p, field.variable) & (kCollection | kKeyedCollection)) && classReckonsWithThreads(s, variable.owner);
      expected |= makes && pair.meeting == Meeting::NotKnown && e.type != kNone && p.types[e.type].form == TypeForm::Object;
      if (pair.meeting < Meeting::Likely && !expected) continue;
      // What nobody in the tree calls may be called while the program starts up.
      bool meets = !expected && !meetings.isFarFetched(pair) && (pair.meeting == Meeting::Certain || s.isAtWork(pair.change->in)) && !isSwitch(p, field.variable);
      if (makes) {
        made.add(p, *pair.change, meetings.ways(pair), meets);
        continue;
      }
      names.emplace_back(p.text(variable.name));
      if (evidence.empty()) {
        evidence = meetings.ways(pair);
        changedAt = pair.change->place;
        seen = meets;
        if (expected) evidence.push_back({e.place, "no second thread was found that reaches this, but its class is made for threads"});
      }
      Place used = walkBeside(p, *pair.other);
      evidence.push_back({used, "thread 2: " + std::string(used == pair.other->place ? "uses " : "iterates over ") + names.back() + " without a lock"});
      evidence.push_back({pair.change->place, "thread 1: writes " + names.back() + " at the same time, without a lock"});
    }
    if (made.fill) out.push_back(partsMadeTwice(s, i, std::move(made)));
    if (names.empty()) continue;
    Finding f = makeFinding(s, infoOf("thread.unguarded-state"), i, seen ? Sureness::Likely : Sureness::Possible);
    f.place = changedAt;
    f.message = stateNames(e, names) + (names.size() == 1 ? " is" : " are") + " written while another thread can use " + (names.size() == 1 ? "it" : "them") + ", and no lock protects " + (names.size() == 1 ? "it." : "them.");
    f.evidence = std::move(evidence);
    f.advice = Advice::Synchronize;
    if (names.front() != e.name) f.members = std::move(names);
    out.push_back(std::move(f));
  }
}

void checkLostUpdate(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e) || (p.variables[e.slot].modifiers & kThreadLocal)) continue;
    std::optional<Finding> told;  // one for an entity: of the first field, or of the first that is surer
    std::vector<std::string> names;
    for (const StateField& field : e.state) {
      if (!isArithmetic(p, field.variable) || guardedUses(s, e, field).mixed()) continue;
      bool ownVariable = p.variables[field.variable].lives();
      if (!ownVariable && oneOfMany(s, e)) continue;
      std::vector<Evidence> sites;
      Meetings meetings(s);
      for (uint32_t u : p.usesOfVariable[field.variable]) {
        if (p.inOtherBranch(p.uses[u].place)) continue;
        const Use& use = p.uses[u];
        // The constructor of the entity itself runs before anyone shares it; of other objects it does not.
        if (isConstruction(p, use) && !ownVariable) continue;
        if (use.access != Access::Update && !(use.access == Access::Write && readsItself(p, use))) continue;
        if (s.inTests(use.place) || !s.locks.at(use.place, use.in).empty() || runsOnce(p, use.place, use.in)) continue;
        sites.push_back({use.place, "reads " + std::string(p.text(p.variables[field.variable].name)) + ", changes it and writes it back in several steps"});
        meetings.add(use, true);
      }
      if (sites.empty()) continue;
      const Meetings::Pair pair = meetings.best();
      // Without a second thread in sight it is only worth a word where its class or file reckons with threads.
      bool seen = pair.meeting >= Meeting::Likely && !meetings.isFarFetched(pair);
      if (pair.meeting == Meeting::Never || (!seen && (!ownVariable || !reckonsWithThreads(s, e)))) continue;
      std::string name(p.text(p.variables[field.variable].name));
      names.push_back(name);
      if (told && (told->sureness == Sureness::Likely || !seen)) continue;
      std::swap(names.front(), names.back());
      Finding f = makeFinding(s, infoOf("thread.lost-update"), i, seen ? Sureness::Likely : Sureness::Possible);
      f.place = sites.front().place;
      f.message = "Two threads that change " + (ownVariable ? e.shown : partText(e, name)) + " at once can lose one of the changes: both read the old value, and both write their result.";
      if (seen) f.evidence = meetings.ways(pair);
      f.evidence.push_back({sites.front().place, "thread 1: reads " + name});
      f.evidence.push_back({sites.back().place, "thread 2: reads " + name + " too: the same value"});
      f.evidence.push_back({sites.front().place, "thread 1: writes its result"});
      f.evidence.push_back({sites.back().place, "thread 2: writes its own result over it; the first change is lost"});
      for (size_t k = 1; k + 1 < sites.size(); ++k) f.evidence.push_back(sites[k]);
      if (!seen) f.evidence.push_back({e.place, "no second thread was found that reaches this"});
      f.advice = Advice::Synchronize;
      told = std::move(f);
    }
    if (!told) continue;
    if (names.size() > 1) {
      told->message = "Two threads that change " + stateNames(e, names) + " at once can lose one of the changes: both read the old value, and both write their result.";
      told->members = std::move(names);
    }
    out.push_back(std::move(*told));
  }
}

namespace {

// await import('…'): the host keeps one module for each name, so that whoever asks again gets the same (ECMA-262 16.2.1.8).
bool waitsForModule(const Program& p, Place gap) {
  const LoweredFile& file = p.file(gap);
  NodeId operand = file[gap.node].kind == Kind::Await ? file.child(gap.node, Role::Operand) : kNoNode;
  NodeId callee = operand != kNoNode && file[operand].kind == Kind::Call ? file.child(operand, Role::Callee) : kNoNode;
  return callee != kNoNode && file.name(callee) == "import";
}

}  // namespace

void checkAwaitGap(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || (e.creation.guard != GuardSort::None && e.creation.guard != GuardSort::SingleThreaded) || !e.creation.innerTest.known() || !e.creation.place.known() || e.creation.innerTest.file != e.creation.place.file) continue;
    // A point where others run between the test and the assignment.
    const LoweredFile& file = p.file(e.creation.place);
    Place assign = p.around(e.creation.place, Kind::Assign);
    if (assign.node == kNoNode) assign = e.creation.place;
    auto between = [&](Place at) { return at.file == assign.file && file[at.node].span.begin >= file[e.creation.innerTest.node].span.begin && file[at.node].span.end <= file[assign.node].span.end && goesOn(p, at, assign) != Answer::No; };
    Place gap;
    for (NodeId n = 1; n < file.nodes.size() && !gap.known(); ++n)
      if (file[n].kind == Kind::Await && between({assign.file, n})) gap = {assign.file, n};
    // Where waiting is not written: at a call of what may wait, in a function that may.
    if (!gap.known() && e.creation.in != kNone && (p.functions[e.creation.in].modifiers & kSuspending)) {
      for (uint32_t c : p.callsInFunction[e.creation.in])
        if (!gap.known() && between(p.calls[c].place) && (p.functions[p.calls[c].callee].modifiers & kSuspending)) gap = p.calls[c].place;
      for (uint32_t c : p.foreignCallsInFunction[e.creation.in])
        if (!gap.known() && between(p.foreignCalls[c].place) && (p.guarantees(e.creation.place.file).callTraits(p.text(p.foreignCalls[c].name)) & kSuspends)) gap = p.foreignCalls[c].place;
    }
    if (!gap.known() || waitsForModule(p, gap)) continue;
    Finding f = makeFinding(s, infoOf("thread.await-gap"), i, Sureness::Certain);
    f.place = gap;
    f.message = "Other code can run between the test of " + std::string(p.text(p.variables[e.slot].name)) + " and its assignment: a second call finds it empty too and makes another " + e.shown + ".";
    f.evidence = {{e.creation.innerTest, "call 1: finds it empty"}, {gap, "call 1: waits, and lets others run"}, {e.creation.innerTest, "call 2: finds it empty too"}, {e.creation.place, "both make one; the later replaces the earlier"}};
    f.advice = Advice::ByHand;
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

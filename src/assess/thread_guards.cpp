// Family "thread": what is guarded, where, and what gets out from under the guard.
#include <absl/container/flat_hash_set.h>

#include <algorithm>
#include <map>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "assess/meetings.h"
#include "base/text.h"
#include "flow/control.h"
#include "flow/once.h"
#include "survey/constancy.h"

namespace elmcart {
namespace {

bool changesIt(const Use& use) { return use.access == Access::Write || use.access == Access::Update || (use.access == Access::Call && !use.throughPointer); }

// Is it a lock itself, by its class, or by what is done with it? Where every object can be locked, that says nothing.
bool isLockItself(const Subject& s, VariableIndex v) {
  const Program& p = s.program;
  FileIndex home = p.variables[v].home().file;
  if (TypeIndex type = p.classBehind(home, p.variables[v].type); (type != kNone && isLockClass(p, type)) || s.locks.isRequired(v)) return true;
  return isTakenAsLock(p, v);
}

bool isShareable(const Subject& s, const Entity& e, const StateField& field) {
  const Variable& variable = s.program.variables[field.variable];
  if (!field.changes || (variable.modifiers & kThreadLocal)) return false;
  if (isOfMany(s, e, field.variable) || isLockItself(s, field.variable)) return false;
  uint32_t traits = variableTraits(s.program, field.variable);
  if (traits & (kAtomicType | kThreadType | kLockType | kConditionType | kOnceFlagType | kPerThread | kLazyType)) return false;
  // The slot of an instance that is made on first use is told of by the checks of its creation.
  // Emptied again under the same lock, it is state like any other.
  if (e.creation.time != CreationTime::Lazy || e.creation.guard == GuardSort::Lock) return true;
  return field.variable != e.slot || e.type == kNone || s.program.classBehind(e.place.file, variable.type) == kNone;
}

// May the lock be meant for the field: does it stand in its class or file?
bool mayGuard(const Subject& s, LockId lock, VariableIndex field) {
  const Program& p = s.program;
  const Variable& variable = p.variables[field];
  FileIndex home = variable.declarations.front().file;
  switch (lock.sort) {
    case LockId::Sort::Variable: {
      const Variable& other = p.variables[lock.index];
      // Each object's own lock guards nothing that all objects share: a check of its own.
      if (other.storage == Storage::Field && variable.lives() && variable.owner == other.owner && !s.isSingleton(other.owner)) return false;
      return (variable.owner != kNone && other.owner != kNone && (other.owner == variable.owner || p.derivesFrom(variable.owner, other.owner))) || other.declarations.front().file == home;
    }
    case LockId::Sort::Object: case LockId::Sort::Class: return lock.index == variable.owner || (p.types[lock.index].definition.known() && p.types[lock.index].definition.file == home);
    default: return true;
  }
}

// Does the class have a lock of its own? Then what its objects do when they are called is its own matter.
bool hasOwnLock(const Program& p, VariableIndex v) {
  TypeIndex type = p.classBehind(p.variables[v].declarations.front().file, p.variables[v].type);
  if (type == kNone) return false;
  return std::any_of(p.types[type].fields.begin(), p.types[type].fields.end(), [&](VariableIndex field) { return (variableTraits(p, field) & kLockType) != 0; });
}

// Is it only ever filled where it is found empty, under a lock? Who has come through such a guard in the same function finds
// it filled, and it stays so (the lock's release orders it: ISO C++ [thread.mutex.requirements.mutex], JLS 17.4.5).
bool isFilledOnce(const Program& p, const Locks& locks, VariableIndex v) {
  const Constancy constancy(p);
  bool fills = false;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (use.access != Access::Write || use.inMember || use.throughPointer || isConstruction(p, use)) {
      if (use.access == Access::Update || use.access == Access::Bind) return false;
      continue;
    }
    if (locks.at(use.place, use.in).empty() || (!constancy.testsFirst(use, v) && !runsOnce(p, use.place, use.in))) return false;
    fills = true;
  }
  return fills;
}

// Does a guard that looks at the variable stand before the place in the same function, on the way to it?
bool comesThroughGuard(const Program& p, Place place, VariableIndex v) {
  const LoweredFile& file = p.file(place);
  for (NodeId below = place.node, up = file.parents[below]; up != kNoNode && file[below].kind != Kind::Function && file[below].kind != Kind::Lambda; below = up, up = file.parents[up]) {
    if (file[up].kind != Kind::Block) continue;
    for (NodeId before : children(file, up)) {
      if (before == below) break;
      if (file[before].kind == Kind::Guard && readsInside(p, {place.file, before}, v)) return true;
    }
  }
  return false;
}

// Does the place stand between calls of the variable's own members that take it as a lock and give it back?
bool isTakenAround(const Program& p, Place place, VariableIndex v) {
  for (Place guard = p.around(place, Kind::Guard); guard.node != kNoNode; guard = p.around(guard, Kind::Guard)) {
    if (p.node(guard).is(Kind::Guard, GuardForm::LockUnlock) && standsFor(p, {guard.file, p.file(guard).child(guard.node, Role::Lock)}, v)) return true;
  }
  return false;
}

// with device.lock: … device …: is the lock a part of the object that the variable refers to? Of an object that the variable
// is itself, its lock guards it.
bool isLockOfItself(const Program& p, const Use& use) {
  const Variable& variable = p.variables[use.variable];
  if (p.guarantees(use.place.file).implicitCopy.holds && !p.use(variable.type).has(kPointer | kReference)) return false;
  for (Place guard = p.around(use.place, Kind::Guard); guard.node != kNoNode; guard = p.around(guard, Kind::Guard)) {
    NodeId lock = p.file(guard).child(guard.node, Role::Lock);
    if (lock != kNoNode && p.file(guard)[lock].kind == Kind::Member && readsInside(p, {guard.file, lock}, use.variable)) return true;
  }
  return false;
}

// static Desk desk = create(); where create() makes it only if it is not there: it always is, afterwards.
bool isFilledAtLoad(const Program& p, const Use& write) {
  if (write.access != Access::Write || write.inMember || write.throughPointer || write.in == kNone) return false;
  auto calls = p.callsOfFunction[write.in];
  bool atLoad = std::any_of(calls.begin(), calls.end(), [&](uint32_t c) { return p.calls[c].inInitialiserOf == write.variable; });
  return atLoad && Constancy(p).testsFirst(write, write.variable);
}

// Does the function put the lock there, or hand it to a function that initialises or destroys it (POSIX, pthread_mutex_init
// and pthread_mutex_destroy, and what projects call theirs)?
bool isLifeOfLock(const Program& p, LockId lock, FunctionIndex in) {
  if (lock.sort != LockId::Sort::Variable || in == kNone) return false;
  constexpr std::string_view kLife[] = {"init", "destroy", "create", "delete", "free", "alloc"};
  return std::any_of(p.usesOfVariable[lock.index].begin(), p.usesOfVariable[lock.index].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    if (use.in != in) return false;
    if (use.access == Access::Write && !use.inMember) return true;
    Place given = p.node(p.parent(use.place)).kind == Kind::AddressOf ? p.parent(use.place) : use.place, call = p.parent(given);
    NodeId callee = p.node(call).kind == Kind::Call && p.node(given).role == Role::Argument ? p.file(call).child(call.node, Role::Callee) : kNoNode;
    if (callee == kNoNode) return false;
    std::string name = lowerCase(lastPart(p.file(call).name(callee)));
    return std::any_of(std::begin(kLife), std::end(kLife), [&](std::string_view word) { return name.find(word) != std::string::npos; });
  });
}

// List rows = m_rows; synchronized (rows) …: under its other name it is its own lock.
bool isLockedAsLocal(const Program& p, Place read) {
  Place up = p.parent(read);
  const LoweredFile& file = p.file(read);
  NodeId target = file[up.node].kind == Kind::Assign && file[read.node].role == Role::Value ? file.child(up.node, Role::Target) : file[up.node].kind == Kind::Variable ? up.node : kNoNode;
  Symbol local = target == kNoNode ? Symbol{} : p.symbolAt({read.file, target});
  if (!local.is(Symbol::Sort::Variable) || p.variables[local.index()].storage != Storage::Local) return false;
  const auto& uses = p.usesOfVariable[local.index()];
  return std::any_of(uses.begin(), uses.end(), [&](uint32_t u) { return p.node(p.uses[u].place).role == Role::Lock; });
}

}  // namespace

GuardedUses guardedUses(const Subject& s, const Entity& e, const StateField& field) {
  const Program& p = s.program;
  GuardedUses out;
  if (!isShareable(s, e, field)) return out;
  bool volatilePublishes = publishesAtOnce(p, field.variable);
  bool stepsAtomic = p.guarantees(p.variables[field.variable].declarations.front().file).collectionStepsAtomic.holds;
  // Replaced whole under the lock, never changed in place: readers see the old one or the new.
  // What an object of the library's does when it is asked is its own matter.
  bool collection = (variableTraits(p, field.variable) & (kCollection | kKeyedCollection)) != 0;
  auto asksObject = [&](const Use& use) { return use.access == Access::Call && !collection; };
  bool replacedWhole = volatilePublishes;
  for (uint32_t u : p.usesOfVariable[field.variable]) {
    if (p.inOtherBranch(p.uses[u].place)) continue;
    const Use& use = p.uses[u];
    replacedWhole &= isConstruction(p, use) || !changesIt(use) || asksObject(use) || (use.access == Access::Write && !use.inMember && !use.throughPointer);
  }
  // What fills the slot, outside of any lock, completes what it put there.
  absl::flat_hash_set<FunctionIndex> fillers;
  if (field.variable != e.slot && e.slot != kNone)
    for (uint32_t u : p.usesOfVariable[e.slot])
      if (const Use& use = p.uses[u]; use.access == Access::Write && !use.inMember && !use.throughPointer && use.in != kNone && s.locks.at(use.place, use.in).empty()) fillers.insert(use.in);
  bool first = true, ownLock = hasOwnLock(p, field.variable);
  LockSet common;
  const OwnThreads own(s, field.variable);
  for (uint32_t u : p.usesOfVariable[field.variable]) {
    if (p.inOtherBranch(p.uses[u].place)) continue;
    const Use& use = p.uses[u];
    if (s.inTests(use.place) || isConstruction(p, use) || isFilledAtLoad(p, use)) continue;
    if (p.around(use.place, Kind::Once).node != kNoNode || (changesIt(use) && runsOnce(p, use.place, use.in))) continue;
    if (p.node(use.place).role == Role::Lock) continue;  // named as the lock itself
    // An object that is never exchanged is only handed on here.
    if ((p.variables[field.variable].modifiers & kConst) && use.access == Access::Read && !use.inMember && !use.throughPointer && (p.node(use.place).role == Role::Argument || isLockedAsLocal(p, use.place))) continue;
    if (isTakenAround(p, use.place, field.variable)) return {};  // a lock of a type that is not told
    LockSet held = s.locks.at(use.place, use.in);
    // One that the tree does not tell of and that callers hold is there for what they do.
    std::erase_if(held, [&, here = s.locks.around(use.place)](LockId lock) { return lock.sort == LockId::Sort::Foreign && std::find(here.begin(), here.end(), lock) == here.end(); });
    if (!held.empty() && isLockOfItself(p, use)) return {};  // what it holds is guarded, not the variable
    if (held.empty() && (isCalledByLibrary(p, use.in) || fillers.contains(use.in))) continue;
    // A call on what is kept under a key changes no table.
    bool step = collection ? !changesState(p, use) : !changesIt(use);
    if (held.empty() && stepsAtomic && step && !isWalkedOver(p, use.place)) continue;
    if (held.empty() && volatilePublishes && (use.access == Access::Read || (replacedWhole && (!changesIt(use) || asksObject(use))))) continue;
    // Nor does a lock that a reader happens to hold say anything of it.
    if (volatilePublishes && replacedWhole && (use.access == Access::Read || asksObject(use))) continue;
    if (held.empty() && (use.access == Access::Read || asksObject(use)) && comesThroughGuard(p, use.place, field.variable) && isFilledOnce(p, s.locks, field.variable)) continue;
    // Emptied in one step that all see, it is made again by who comes next.
    NodeId put = held.empty() && volatilePublishes && use.access == Access::Write && !use.inMember ? p.assignedAt(use.place) : kNoNode;
    if (put != kNoNode && p.file(use.place)[put].is(Kind::Literal, LiteralForm::Null)) continue;
    // Under a lock of somebody else's, which is there for another reason.
    if (!held.empty() && std::none_of(held.begin(), held.end(), [&](LockId lock) { return mayGuard(s, lock, field.variable); })) continue;
    // An object of the library's that is made for threads looks after itself.
    bool change = changesIt(use) && !(asksObject(use) && ownLock) && (!asksObject(use) || (variableTraits(p, field.variable) & kNotSafeToShare) || p.use(p.variables[field.variable].type).decl != kNone);
    // What is only changed while the program or its modules are loaded is there by then.
    out.anyChange |= change && !s.threads.sideOf(use.place, use.in).startsUp();
    if (held.empty()) {
      if (own.areApartFrom(use)) continue;
      out.unguarded.push_back(&use);
      continue;
    }
    out.guarded.push_back(&use);
    out.guardedChange |= change;
    common = first ? held : s.locks.heldByBoth(common, held);
    first = false;
  }
  // Before its lock begins, and when that has come to its end, nobody else is there.
  std::erase_if(out.unguarded, [&](const Use* use) { return std::any_of(common.begin(), common.end(), [&](LockId lock) { return isLifeOfLock(p, lock, use->in); }); });
  out.differentLocks = !first && common.empty();
  // Everybody replaces it whole, and nobody under a lock: what readers hold is there for something else.
  if (volatilePublishes && replacedWhole && !out.guarded.empty() && !out.guardedChange) return {};
  return out;
}

bool GuardedUses::mixed() const {
  if (!anyChange || guarded.empty()) return false;
  // Reads that happen to stand under some lock say nothing of what the lock is for, where it is changed without.
  bool meant = guardedChange || (guarded.size() > 1 && guarded.size() > unguarded.size());
  return meant && (differentLocks || !unguarded.empty());
}

namespace {

// A once flag guards the first value alone: who puts another in its place later meets those who read it.
void checkReplacedAfterOnce(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  if (e.creation.guard != GuardSort::Once || e.slot == kNone || !e.creation.place.known()) return;
  Meetings meetings(s);
  const Use* reader = nullptr;
  for (uint32_t u : p.usesOfVariable[e.slot]) {
    const Use& use = p.uses[u];
    if (s.inTests(use.place) || p.inOtherBranch(use.place) || isConstruction(p, use) || p.around(use.place, Kind::Once).node != kNoNode) continue;
    if (use.in == e.creation.in && (!reader || p.node(use.place).role == Role::Value)) reader = &use;
    bool replaces = use.access == Access::Write && !use.inMember && !use.throughPointer;
    if (!s.locks.at(use.place, use.in).empty() || (use.in == e.creation.in && replaces)) continue;
    meetings.add(use, replaces);
  }
  const Meetings::Pair pair = meetings.best();
  if (!reader || !pair.change || pair.meeting == Meeting::Never) return;
  bool seen = pair.meeting >= Meeting::Likely && !meetings.isFarFetched(pair);
  Finding f = makeFinding(s, infoOf("thread.mixed-guard"), i, seen ? Sureness::Likely : Sureness::Possible);
  f.place = pair.change->place;
  f.message = e.shown + " is made under a once flag in " + functionName(p, e.creation.in) + ", but " + functionName(p, pair.change->in) + " replaces it without a lock: a once flag orders only what it runs.";
  if (seen) f.evidence = meetings.ways(pair);
  f.evidence.push_back({e.creation.place, "made here, once"});
  f.evidence.push_back({reader->place, "thread 1: " + functionName(p, reader->in) + " reads it"});
  f.evidence.push_back({f.place, "thread 2: " + functionName(p, pair.change->in) + " replaces it without a lock, at the same time"});
  if (!seen) f.evidence.push_back({e.place, "no second thread was found that reaches this, but its once flag is made for threads"});
  f.advice = Advice::Synchronize;
  out.push_back(std::move(f));
}

bool readsWhole(const Program& p, VariableIndex v, const GuardedUses& uses) {
  if (variableTraits(p, v) & (kCollection | kKeyedCollection)) return false;
  auto only = [&](const std::vector<const Use*>& some, auto bears) { return std::all_of(some.begin(), some.end(), [&](const Use* use) { return bears(*use); }); };
  bool reads = only(uses.unguarded, [](const Use& use) { return use.access == Access::Read || use.throughPointer || (use.access == Access::Call && !use.inMember); });
  return reads && only(uses.guarded, [](const Use& use) { return use.access == Access::Read || use.access == Access::Call || (use.access == Access::Write && !use.inMember); });
}

}  // namespace

void checkMixedGuard(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<VariableIndex> told;
  // One finding for a class and a lock: the first field tells, the others are named.
  std::map<std::pair<TypeIndex, LockId>, size_t> firstOf;
  std::map<size_t, std::vector<std::string>> others;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e)) continue;
    checkReplacedAfterOnce(s, i, out);
    for (const StateField& field : e.state) {
      if (field.lock.known() || (variableTraits(p, field.variable) & kSafeToShare)) continue;
      GuardedUses uses = guardedUses(s, e, field);
      if (!uses.mixed() || !told.insert(field.variable).second) continue;
      // What nobody in the tree calls may be called while the program is put together: best told of is another, and a change.
      const Use* without = nullptr;
      auto rank = [&](const Use* use) { return std::make_pair(s.isAtWork(use->in), changesIt(*use)); };
      for (const Use* use : uses.unguarded)
        if (!without || rank(use) > rank(without)) without = use;
      Meetings meetings(s);
      for (const Use* use : uses.unguarded) meetings.add(*use, changesIt(*use));
      for (const Use* use : uses.guarded) meetings.add(*use, changesIt(*use), s.locks.at(use->place, use->in));
      const Meetings::Pair pair = meetings.best();
      std::optional<Sureness> sureness = surenessOf(s, e, pair.meeting, true);
      if (!sureness) continue;
      // Told of are those two that meet, where they are seen to.
      auto isUnguarded = [&](const Use* use) { return std::find(uses.unguarded.begin(), uses.unguarded.end(), use) != uses.unguarded.end(); };
      const Use* locked = uses.guarded.front();
      if (pair.meeting >= Meeting::Likely) {
        bool first = isUnguarded(pair.change);
        if (first || isUnguarded(pair.other)) without = first ? pair.change : pair.other;
        if (const Use* other = first ? pair.other : pair.change; !isUnguarded(other)) locked = other;
      }
      const Use& with = *locked;
      Finding f = makeFinding(s, infoOf("thread.mixed-guard"), i, atMostLikely(*sureness));
      std::string name(p.text(p.variables[field.variable].name));
      LockSet held = s.locks.at(with.place, with.in);
      if (pair.meeting >= Meeting::Likely) f.evidence = meetings.ways(pair);
      f.evidence.push_back({with.place, "thread 1: " + functionName(p, with.in) + (changesIt(with) ? " changes " : " reads ") + name + " holding " + lockText(p, held.front())});
      if (without) {
        f.place = without->place;
        f.message = partText(e, name) + " is guarded by " + lockText(p, held.front()) + " in " + functionName(p, with.in) + ", but " + functionName(p, without->in) + " uses it without a lock.";
        if (!s.isAtWork(without->in) && std::none_of(uses.unguarded.begin(), uses.unguarded.end(), [&](const Use* use) { return s.threads.sideOf(use->place, use->in).roots[0] != kNone; })) f.setSureness(Sureness::Possible);
        // Seen by all at once, and set by who may do so before there are threads: callers decide.
        if (publishesAtOnce(p, field.variable) && without->access == Access::Write && !without->inMember && !isCalled(s, without->in)) f.setSureness(Sureness::Possible);
        // Who reads a reference that is only ever replaced whole gets the old object or the new one (JLS 17.7): whether the old one
        // is too late is not known.
        if (!p.guarantees(e.place.file).freedByHand.holds && !p.guarantees(e.place.file).implicitCopy.holds && readsWhole(p, field.variable, uses)) f.setSureness(Sureness::Possible);
        // Whether it was filled before those who only read it came is not known.
        if (std::none_of(uses.unguarded.begin(), uses.unguarded.end(), [&](const Use* use) { return changesIt(*use); }) && isFilledOnce(p, s.locks, field.variable)) f.setSureness(Sureness::Possible);
        for (const Use* use : uses.unguarded) {
          if (f.evidence.size() > 8) break;
          f.evidence.push_back({use->place, "thread 2: " + functionName(p, use->in) + (changesIt(*use) ? " changes " : " reads ") + name + " without a lock, at the same time"});
        }
      } else {
        const Use* other = nullptr;
        for (const Use* use : uses.guarded)
          if (!other && s.locks.heldByBoth(held, s.locks.at(use->place, use->in)).empty()) other = use;
        if (!other) continue;
        LockSet second = s.locks.at(other->place, other->in);
        f.place = other->place;
        f.message = partText(e, name) + " is guarded by " + lockText(p, held.front()) + " in " + functionName(p, with.in) + ", but by " + lockText(p, second.front()) + " in " + functionName(p, other->in) + ": both can run at once.";
        f.evidence.push_back({other->place, "thread 2: " + functionName(p, other->in) + (changesIt(*other) ? " changes " : " reads ") + name + " holding " + lockText(p, second.front())});
      }
      f.advice = Advice::Synchronize;
      TypeIndex owner = p.variables[field.variable].owner;
      auto [before, fresh] = firstOf.emplace(std::make_pair(owner == kNone ? e.type : owner, held.front()), out.size());
      if (fresh || (owner == kNone && e.type == kNone)) out.push_back(std::move(f));
      else others[before->second].push_back(name);
    }
  }
  for (auto& [finding, names] : others) {
    constexpr size_t kNamed = 3;
    size_t more = names.size() > kNamed + 1 ? names.size() - kNamed : 0;
    if (more > 0) names.resize(kNamed);
    out[finding].message.pop_back();
    out[finding].message += "; so it is with " + joinWith(names, ", ") + (more > 0 ? " and " + std::to_string(more) + " more." : ".");
  }
}

namespace {

// Is the use in what the branch tests, not in what it then does?
bool isTested(const Program& p, const Use& use, NodeId branch) {
  const LoweredFile& file = p.file(use.place);
  for (NodeId c : children(file, branch))
    if ((file[c].role == Role::Then || file[c].role == Role::Else || file[c].role == Role::Body) && (use.place.node == c || p.isInside(use.place, c))) return false;
  return true;
}

// The branch that tests a local which the use gives its first value.
Place branchOn(const Program& p, const Use& use) {
  Place none{use.place.file, kNoNode};
  Place local = p.around(use.place, Kind::Variable);
  if (local.node == kNoNode) return none;
  // Of several that one statement gives their values, any may be tested.
  const LoweredFile& file = p.file(local);
  for (NodeId n : children(file, file.parents[local.node])) {
    if (file[n].kind != Kind::Variable || file[n].span.begin != file[local.node].span.begin) continue;
    Symbol symbol = p.symbolAt({local.file, n});
    if (!symbol.is(Symbol::Sort::Variable)) continue;
    for (uint32_t u : p.usesOfVariable[symbol.index()]) {
      Place branch = p.around(p.uses[u].place, Kind::If);
      if (branch.node != kNoNode && isTested(p, p.uses[u], branch.node)) return branch;
    }
  }
  return none;
}

// table.putIfAbsent(key, value): looks and adds in one step, where the table is safe to share.
bool isOneStep(const Program& p, Place place) {
  static constexpr std::string_view kNames[] = {"AddOrUpdate", "GetOrAdd", "LoadOrStore", "TryAdd", "compute", "computeIfAbsent", "computeIfPresent", "merge", "putIfAbsent", "setdefault"};
  Place up = p.parent(place);
  return p.node(up).kind == Kind::Member && p.node(place).role == Role::Receiver && std::find(std::begin(kNames), std::end(kNames), p.nameOf(up)) != std::end(kNames);
}

// Is what is put in worked out there, not handed in? A second thread works out the same.
bool isWorkedOutHere(const Program& p, const Use& adding) {
  Place up = p.parent(adding.place);
  NodeId value = kNoNode;
  if (p.node(up).kind == Kind::Index && p.node(p.parent(up)).kind == Kind::Assign) {
    up = p.parent(up);
    value = p.file(up).child(up.node, Role::Value);
  } else if (p.node(up).kind == Kind::Member && p.node(p.parent(up)).kind == Kind::Call) {
    up = p.parent(up);
    std::vector<NodeId> given = argumentsOf(p.file(up), up.node);
    if (given.size() == 2) value = given[1];
  }
  if (value == kNoNode) return false;
  Symbol named = p.symbolAt({up.file, value});
  if (p.file(up)[value].kind == Kind::Name) return named.is(Symbol::Sort::Variable) && p.variables[named.index()].storage == Storage::Local;
  return p.file(up)[value].kind == Kind::Call;
}

// Does the table keep numbers and texts, of which two are as good as one?
bool keepsValues(const Program& p, VariableIndex table) {
  const TypeUse& type = p.use(p.variables[table].type);
  if (type.argumentCount == 0) return false;
  TypeUseId kept = p.argument(type, type.argumentCount - 1);
  const TypeUse& use = p.use(kept);
  if (use.decl != kNone) return p.types[use.decl].form == TypeForm::Enum;
  if (p.traits(p.variables[table].declarations.front().file, kept) & kTextType) return true;
  return !use.has(kArray) && namesNumber(p.text(use.name));
}

// table.get(Thread.currentThread()): is what is looked for under a key that each thread has for itself?
bool asksForOwnThread(const Program& p, const Use& tested) {
  std::span<const std::string_view> names = p.guarantees(tested.place.file).thisThread;
  auto tells = [&](Place value) {
    return anyNode(p.file(value), value.node, [&](NodeId n) { return (p.file(value)[n].kind == Kind::Member || p.file(value)[n].kind == Kind::Name) && std::find(names.begin(), names.end(), lastPart(p.file(value).name(n))) != names.end(); });
  };
  Place up = p.parent(tested.place);
  if (p.node(up).kind == Kind::Member) up = p.parent(up);
  if (names.empty() || (p.node(up).kind != Kind::Call && p.node(up).kind != Kind::Index)) return false;
  for (NodeId key : argumentsOf(p.file(up), up.node)) {
    Symbol local = p.symbolAt({up.file, key});
    Place first = local.is(Symbol::Sort::Variable) && p.variables[local.index()].storage == Storage::Local ? initialiserOf(p, local.index()) : Place{};
    if (tells({up.file, key}) || (first.known() && tells(first))) return true;
  }
  return false;
}

Place guardAround(const Program& p, Place place) { return p.around(place, Kind::Guard); }

// The first change of the collection that rests on what was found: in the branch, or behind one that leaves.
const Use* actingUse(const Program& p, const Use& tested, Place branch, uint32_t traits) {
  const LoweredFile& file = p.file(branch);
  // What follows the branch; a block that is there for the look only does not count.
  Place rest = p.parent(branch);
  if (p.node(rest).kind == Kind::Block && p.node(p.parent(rest)).kind == Kind::Block) rest = p.parent(rest);
  NodeId then = file.child(branch.node, Role::Then);
  bool leavesThen = then != kNoNode && passes(p, {branch.file, then}, true) == Answer::No;
  for (uint32_t a : p.usesOfVariable[tested.variable]) {
    const Use& act = p.uses[a];
    if (p.inOtherBranch(act.place) || act.in != tested.in || act.place.file != tested.place.file || act.place.node <= tested.place.node) continue;
    CollectionAct second = actAt(p, act.place);
    bool changes = (second == CollectionAct::Add || second == CollectionAct::Remove || second == CollectionAct::Change) && !((traits & kSafeToShare) && isOneStep(p, act.place));
    bool inside = p.isInside(act.place, branch.node) && !isTested(p, act, branch.node);
    bool behind = file[act.place.node].span.begin >= file[branch.node].span.end && leavesThen && p.isInside(act.place, rest.node);
    if (changes && (inside || behind)) return &act;
  }
  return nullptr;
}

// Does one guard hold around both, or is it looked for again under the guard under which it is changed?
bool isOneGuarded(const Program& p, const Use& tested, const Use& acting) {
  for (Place up = guardAround(p, tested.place); up.node != kNoNode; up = guardAround(p, up))
    if (p.isInside(acting.place, up.node)) return true;
  Place changing = guardAround(p, acting.place);
  if (changing.node == kNoNode) return false;
  auto uses = p.usesOfVariable[tested.variable];
  return std::any_of(uses.begin(), uses.end(), [&](uint32_t a) {
    const Use& again = p.uses[a];
    return again.place.file == changing.file && p.isInside(again.place, changing.node) && again.place.node < acting.place.node && again.place.node > tested.place.node && !changesIt(again);
  });
}

}  // namespace

void checkCheckThenAct(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<FileIndex, NodeId>> told;
  std::map<VariableIndex, size_t> firstOf;  // the finding, by its place in `out`
  // The look before an instance is made is the creation's own matter.
  for (const Entity& e : s.survey.entities) {
    for (Place place : {e.creation.innerTest, e.creation.place}) {
      Place branch = place.known() ? p.around(place, Kind::If) : Place{};
      if (branch.known() && branch.node != kNoNode) told.insert({branch.file, branch.node});
    }
  }
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e)) continue;
    for (const StateField& field : e.state) {
      uint32_t traits = variableTraits(p, field.variable);
      if (!isShareable(s, e, field) || !(traits & (kCollection | kKeyedCollection))) continue;
      std::string name(p.text(p.variables[field.variable].name));
      for (uint32_t t : p.usesOfVariable[field.variable]) {
        if (p.inOtherBranch(p.uses[t].place)) continue;
        const Use& tested = p.uses[t];
        if (s.inTests(tested.place) || isConstruction(p, tested.in)) continue;
        CollectionAct first = actAt(p, tested.place);
        Place branch = p.around(tested.place, Kind::If);
        if (branch.node == kNoNode || !isTested(p, tested, branch.node)) branch = branchOn(p, tested);
        if (branch.node == kNoNode || (first != CollectionAct::Read && tested.access != Access::Read)) continue;
        const Use* acting = actingUse(p, tested, branch, traits);
        // One guard around both, or one that every caller holds, makes them one step.
        if (!acting || !s.locks.atEntry(tested.in).empty() || isOneGuarded(p, tested, *acting) || asksForOwnThread(p, tested)) continue;
        if (!told.insert({branch.file, branch.node}).second) continue;
        bool guardedApart = guardAround(p, acting->place).node != kNoNode || guardAround(p, tested.place).node != kNoNode;
        // A cache of what is the same each time, in a table that bears it.
        bool cache = actAt(p, acting->place) == CollectionAct::Add && isWorkedOutHere(p, *acting);
        if (cache && ((traits & kSafeToShare) ? e.kind != EntityKind::Registry : guardedApart && keepsValues(p, field.variable))) continue;
        // What comes in between is any change of it, by this function on another thread or by another.
        Meetings meetings(s);
        meetings.addOther(tested);
        for (uint32_t a : p.usesOfVariable[field.variable])
          if (const Use& change = p.uses[a]; !p.inOtherBranch(change.place) && !s.inTests(change.place) && !isConstruction(p, change) && changesIt(change) && actAt(p, change.place) != CollectionAct::Read) meetings.add(change, true);
        const Meetings::Pair pair = meetings.best();
        std::optional<Sureness> sureness = surenessOf(s, e, pair.meeting);
        if (!sureness) continue;
        bool far = pair.meeting >= Meeting::Likely && meetings.isFarFetched(pair);
        std::vector<Evidence> way = pair.meeting >= Meeting::Likely && !far ? meetings.ways(pair) : std::vector<Evidence>();
        // One object for each key: what two threads make is two.
        bool makesOne = e.kind == EntityKind::Registry && actAt(p, acting->place) == CollectionAct::Add;
        bool expected = (traits & kSafeToShare) || guardedApart || makesOne;
        if (way.empty() && !expected) continue;
        if (far || (way.empty() && !guardedApart)) sureness = Sureness::Possible;
        // One finding for a collection: where it happens again is named with the first.
        auto [before, fresh] = firstOf.emplace(field.variable, out.size());
        if (!fresh) {
          std::vector<Evidence>& evidence = out[before->second].evidence;
          if (evidence.size() < 12) evidence.push_back({tested.place, functionName(p, tested.in) + " does the same here"});
          if (atMostLikely(*sureness) < out[before->second].sureness) out[before->second].setSureness(atMostLikely(*sureness));
          continue;
        }
        Finding f = makeFinding(s, infoOf("thread.check-then-act"), i, atMostLikely(*sureness));
        f.place = tested.place;
        f.message = functionName(p, tested.in) + " looks into " + name + " and then changes it: another thread can change it in between.";
        f.evidence = way;
        std::string alone = (traits & kSafeToShare) ? " (each call is safe by itself, the two together are not)" : guardedApart ? " (the lock is given back in between)" : "";
        f.evidence.push_back({tested.place, "thread 1: looks into " + name});
        f.evidence.push_back({tested.place, "thread 2: looks into it too and finds the same"});
        f.evidence.push_back({acting->place, "thread 1: changes " + name + alone});
        f.evidence.push_back({acting->place, "thread 2: changes it too, based on what is no longer true"});
        f.advice = Advice::Synchronize;
        out.push_back(std::move(f));
      }
    }
  }
}

namespace {

// What is only ever replaced whole, by what does not rest on it, stays as it was for those who have it.
bool isReplacedWhole(const Program& p, VariableIndex v) {
  bool replaced = false;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (isConstruction(p, use) || !changesIt(use)) continue;
    NodeId value = use.access == Access::Write && !use.inMember && !use.throughPointer ? p.assignedAt(use.place) : kNoNode;
    if (value == kNoNode || readsInside(p, {use.place.file, value}, v)) return false;
    replaced = true;
  }
  return replaced;
}

}  // namespace

void checkLeaksInternals(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<VariableIndex> told;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || !threadsExist(s, e)) continue;
    for (const StateField& field : e.state) {
      uint32_t traits = variableTraits(p, field.variable);
      Place home = p.variables[field.variable].declarations.front();
      const Guarantees& g = p.guarantees(home.file);
      if (!isShareable(s, e, field) || (traits & kSafeToShare) || !(traits & (kCollection | kKeyedCollection))) continue;
      GuardedUses uses = guardedUses(s, e, field);
      if (uses.guarded.empty() || isReplacedWhole(p, field.variable) || isFilledWhereMade(p, field.variable)) continue;
      for (uint32_t u : p.usesOfVariable[field.variable]) {
        if (p.inOtherBranch(p.uses[u].place)) continue;
        const Use& use = p.uses[u];
        if (use.in == kNone || s.inTests(use.place) || isConstruction(p, use)) continue;
        Place up = p.parent(use.place);
        if (p.node(up).kind == Kind::AddressOf) up = p.parent(up);
        const Function& fn = p.functions[use.in];
        if (p.node(up).kind != Kind::Return || staysInside(p, use.in)) continue;
        // Where collections are values, only a reference or pointer lets the inside out.
        if (g.collectionsAreValues.holds && !p.use(fn.result).has(kReference | kPointer)) continue;
        if (!told.insert(field.variable).second) break;
        std::string name(p.text(p.variables[field.variable].name));
        const Use& guarded = *uses.guarded.front();
        LockSet held = s.locks.at(guarded.place, guarded.in);
        Finding f = makeFinding(s, infoOf("thread.leaks-internals"), i, Sureness::Likely);
        f.place = use.place;
        f.message = functionName(p, use.in) + " returns " + name + " itself, which " + lockText(p, held.front()) + " protects: its callers use it without the lock.";
        f.evidence.push_back({guarded.place, functionName(p, guarded.in) + " holds " + lockText(p, held.front()) + " while it uses " + name});
        f.evidence.push_back({use.place, name + " is returned here; its callers hold no lock"});
        size_t shown = 0;
        for (uint32_t c : p.callsOfFunction[use.in])
          if (++shown <= 4 && p.calls[c].in != kNone) f.evidence.push_back({p.calls[c].place, functionName(p, p.calls[c].in) + " receives it"});
        f.advice = Advice::ByHand;
        out.push_back(std::move(f));
        break;
      }
    }
  }
}

namespace {

// The name of what is called or made there.
std::string_view calledName(const LoweredFile& file, NodeId call) {
  NodeId named = file.child(call, Role::Callee);
  if (named == kNoNode) named = file.child(call, Role::Type);
  return named == kNoNode ? std::string_view{} : file.name(named);
}

// Does the call start a thread, or hand its arguments to one?
bool startsThread(const Program& p, Place call) {
  std::string_view name = calledName(p.file(call), call.node);
  if (name.empty()) return false;
  const Guarantees& g = p.guarantees(call.file);
  return (g.typeTraits(name) & kThreadType) || (g.callTraits(name) & (kStartsThread | kRunsLater));
}

// The call that sets a thread going which was made at `made`, where the function has
// one: thread.start(), on it or on what keeps it.
Place startOf(const Program& p, Place made, NodeId function) {
  const LoweredFile& file = p.file(made);
  auto starts = [&](NodeId member) {
    NodeId call = file.parents[member];
    return file[member].kind == Kind::Member && lowerCase(file.name(member)) == "start" && file[call].kind == Kind::Call && file[member].role == Role::Callee;
  };
  NodeId up = file.parents[made.node];
  if (starts(up)) return {made.file, file.parents[up]};
  NodeId target = file[up].kind == Kind::Assign ? file.child(up, Role::Target) : file[up].kind == Kind::Variable ? up : kNoNode;
  Symbol keeps = target == kNoNode ? Symbol{} : p.links[made.file].symbol[target];
  Place out;
  if (keeps.is(Symbol::Sort::Variable))
    forEachNode(file, function, [&](NodeId n) {
      if (out.known() || file[n].span.begin < file[made.node].span.end || !starts(n)) return;
      NodeId receiver = file.child(n, Role::Receiver);
      if (receiver != kNoNode && p.links[made.file].symbol[receiver] == keeps) out = {made.file, file.parents[n]};
    });
  return out;
}

// Does what is made there run only when it is told to?
bool waitsForStart(const Program& p, Place made) {
  return (p.guarantees(made.file).typeTraits(calledName(p.file(made), made.node)) & kStartedByCall) != 0;
}

// Do the threads that the constructor starts touch the field? Where it is not known what they run, they may.
bool threadsTouch(const Subject& s, VariableIndex field, FunctionIndex constructor) {
  const Program& p = s.program;
  std::span<const uint32_t> started = s.threads.rootsStartedBy(constructor);
  auto isStarted = [&](uint32_t root) { return std::find(started.begin(), started.end(), root) != started.end(); };
  return started.empty() || std::any_of(p.usesOfVariable[field].begin(), p.usesOfVariable[field].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    Threads::Side side = s.threads.sideOf(use.place, use.in);
    // Of the threads that run a function two are kept.
    return isStarted(side.roots[0]) || isStarted(side.roots[1]) || (side.roots[1] != kNone && use.in != constructor);
  });
}

// What an object of the class still lacks when its constructor has let others see it: the first field that is set afterwards
// and that they touch; null: there is none.
const Use* firstSetLater(const Subject& s, TypeIndex type, FunctionIndex constructor, Place escape, bool byThread) {
  const Program& p = s.program;
  const LoweredFile& file = p.file(escape);
  std::set<VariableIndex> begun;  // what has a value by then
  for (uint32_t u : p.usesInFunction[constructor])
    if (const Use& use = p.uses[u]; use.access == Access::Write && !use.inMember && use.place.file == escape.file && use.place.node < escape.node) begun.insert(use.variable);
  for (uint32_t u : p.usesInFunction[constructor]) {
    const Use& use = p.uses[u];
    const Variable& field = p.variables[use.variable];
    if (field.storage != Storage::Field || field.owner != type || use.place.file != escape.file || use.throughPointer || (variableTraits(p, use.variable) & kThreadType)) continue;
    // What the start itself gives back, and what is set on another way, is no part of it.
    if (p.isInside(escape, p.parent(use.place).node) || goesOn(p, escape, use.place) == Answer::No) continue;
    bool sets = use.access == Access::Write || use.access == Access::Update;
    bool whole = use.access == Access::Write && !use.inMember;
    bool after = file[use.place.node].span.begin >= file[escape.node].span.end;
    if (sets && after && (whole || !begun.count(use.variable)) && p.around(use.place, Kind::Lambda).node == kNoNode && (!byThread || threadsTouch(s, use.variable, constructor))) return &use;
  }
  return nullptr;
}

}  // namespace

void checkEscapingThis(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (TypeIndex t = 0; t < p.types.size(); ++t) {
    const TypeDecl& type = p.types[t];
    if (!type.definition.known() || s.inTests(type.definition) || !p.guarantees(type.definition.file).sharedMemoryThreads.holds) continue;
    for (FunctionIndex m : type.methods) {
      const Function& fn = p.functions[m];
      bool constructs = fn.form == FunctionForm::Constructor || (fn.form == FunctionForm::Initialiser && !(fn.modifiers & kStatic));
      if (!constructs || !fn.definition.known()) continue;
      const LoweredFile& file = p.file(fn.definition);
      Place escape;
      std::string how;
      size_t entity = SIZE_MAX;
      Meeting meeting = Meeting::Certain;  // of the constructor and whoever finds the object
      auto belongs = [&](NodeId n) {
        if (file[n].kind == Kind::This) return true;
        Symbol symbol = p.links[fn.definition.file].symbol[n];
        if (symbol.is(Symbol::Sort::Function)) return p.functions[symbol.index()].owner == t && !p.functions[symbol.index()].isStaticMember() && p.functions[symbol.index()].form != FunctionForm::Constructor;
        return symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Field && p.variables[symbol.index()].owner == t;
      };
      forEachNode(file, fn.definition.node, [&](NodeId n) {
        if (escape.known()) return;
        Place at{fn.definition.file, n};
        if ((file[n].kind == Kind::Call || file[n].kind == Kind::Create || file[n].kind == Kind::FieldInit) && startsThread(p, at)) {
          for (NodeId c : children(file, n)) {
            bool lambda = file[c].kind == Kind::Lambda && anyNode(file, c, belongs);
            bool itself = file[c].role == Role::Argument && belongs(c) && (file[c].kind == Kind::This || p.links[at.file].symbol[c].is(Symbol::Sort::Function));
            bool address = file[c].kind == Kind::AddressOf && file.child(c, Role::Operand) != kNoNode && belongs(file.child(c, Role::Operand));
            if (file[c].role == Role::Argument && (lambda || itself || address) && !escape.known()) {
              escape = waitsForStart(p, at) ? startOf(p, at, fn.definition.node) : at;
              how = "a thread that uses the object is started here";
            }
          }
        }
        if (file[n].kind == Kind::Assign) {
          NodeId value = file.child(n, Role::Value), target = file.child(n, Role::Target);
          if (value == kNoNode || target == kNoNode || file[value].kind != Kind::This) return;
          Symbol symbol = p.links[at.file].symbol[target];
          if (!symbol.is(Symbol::Sort::Variable) || !p.variables[symbol.index()].lives()) return;
          entity = s.entityOfVariable[symbol.index()];
          // Another thread that finds it there must be one that is seen.
          Meeting met = Meeting::Never;
          for (uint32_t u : p.usesOfVariable[symbol.index()]) {
            const Use& use = p.uses[u];
            Threads::Side side = s.threads.sideOf(use.place, use.in);
            if (use.access == Access::Write || side.roots[0] == kNone) continue;
            met = std::max(met, s.threads.meeting({s.threads.sideOf(at, m), m, at}, {side, use.in, use.place}));
          }
          if (entity == SIZE_MAX || met < Meeting::Likely) return;
          meeting = std::min(met, Meeting::Likely);  // at that very moment, nobody knows
          escape = at;
          how = "the object is put where everybody finds it here";
        }
      });
      if (!escape.known()) continue;
      const Use* lacking = firstSetLater(s, t, m, escape, entity == SIZE_MAX);
      VariableIndex late = lacking ? lacking->variable : kNone;
      bool subclass = late == kNone && !type.derived.empty() && entity == SIZE_MAX;
      if (late == kNone && !subclass) continue;
      if (entity == SIZE_MAX)
        for (size_t i : s.entitiesOfType[t])
          if (!s.survey.entities[i].harmless) entity = i;
      Finding f = makeFinding(s, infoOf("thread.escaping-this"), entity, subclass ? Sureness::Possible : meeting == Meeting::Certain ? Sureness::Certain : Sureness::Likely);
      std::string name(p.text(type.name));
      f.subject = p.text(type.qualified);
      f.place = escape;
      f.message = "The constructor of " + name + " makes the object visible to other threads before it is complete: " + (late != kNone ? std::string(p.text(p.variables[late].name)) + " is set afterwards." : "a subclass is not constructed yet.");
      f.evidence.push_back({escape, how});
      if (late != kNone) f.evidence.push_back({lacking->place, std::string(p.text(p.variables[late].name)) + " is set here, possibly after the other thread has read it"});
      else f.evidence.push_back({p.types[type.derived.front()].definition.known() ? p.types[type.derived.front()].definition : type.definition, std::string(p.text(p.types[type.derived.front()].name)) + " is constructed after this constructor has ended"});
      f.advice = Advice::ByHand;
      if (entity == SIZE_MAX) {
        f.reasonsFor.push_back("starting the thread in a function that is called after construction costs one line at each creation");
        f.reasonsAgainst.push_back("an object for which that call is forgotten does nothing");
      }
      out.push_back(std::move(f));
      break;
    }
  }
}

}  // namespace elmcart

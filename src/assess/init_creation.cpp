// Family "start": what creating one piece of shared state needs and may do.
#include <algorithm>
#include <map>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"
#include "flow/control.h"
#include "flow/deferred.h"

namespace elmcart {
namespace {

bool isCreated(const Entity& e) { return !e.harmless && e.creation.time != CreationTime::Elsewhere; }
bool isInstance(const Entity& e) { return !e.harmless && e.type != kNone && (e.kind == EntityKind::Singleton || e.kind == EntityKind::SharedInstance || e.kind == EntityKind::Ambient || e.kind == EntityKind::GlobalVariable || e.kind == EntityKind::StaticField || e.kind == EntityKind::FunctionStatic); }

bool runsLater(const Program& p, const std::vector<Evidence>& chain) {
  return std::any_of(chain.begin(), chain.end(), [&](const Evidence& e) { return p.around(e.place, Kind::Lambda).node != kNoNode; });
}

// The handlers that stand around a place inside its function, from inside outward.
std::vector<Place> handlersAround(const Program& p, Place place) {
  std::vector<Place> out;
  const LoweredFile& file = p.file(place);
  NodeId from = place.node;
  for (NodeId up = file.parents[from]; up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Lambda; from = up, up = file.parents[up]) {
    if (file[up].kind != Kind::Try || file[from].role != Role::Body) continue;
    for (NodeId c : children(file, up))
      if (file[c].role == Role::Handler) out.push_back({place.file, c});
  }
  return out;
}

// Is it thrown because there is an object already: does what lives longer than
// an object decide?
bool refusesThere(const Program& p, FunctionIndex function, Place place) {
  for (Place branch = p.around(place, Kind::If); branch.node != kNoNode; branch = p.around(branch, Kind::If))
    for (uint32_t u : p.usesInFunction[function]) {
      const Use& use = p.uses[u];
      if (use.place.file == branch.file && p.isInside(use.place, branch.node) && use.place.node < place.node && p.variables[use.variable].lives()) return true;
    }
  return false;
}

// Does a part of a function depend on what it was given alone: on parameters, and on
// locals that were worked out of them without a look at anything outside?
bool asksArguments(const Program& p, FunctionIndex function, Place part, int depth = 0) {
  bool any = false;
  for (uint32_t u : p.usesInFunction[function]) {
    const Use& use = p.uses[u];
    if (use.place.file != part.file || !(use.place == part || p.isInside(use.place, part.node))) continue;
    const Variable& variable = p.variables[use.variable];
    any = true;
    if (variable.storage == Storage::Parameter) continue;
    Place value = variable.storage == Storage::Local && depth < 3 ? initialiserOf(p, use.variable) : Place{};
    // Or, in a walk over something, of what is walked over.
    if (Place loop = variable.definition.known() ? p.parent(variable.definition) : Place{}; !value.known() && loop.known() && p.node(loop).kind == Kind::Loop) value = {loop.file, p.file(loop).child(loop.node, Role::Operand)};
    if (!value.known() || value.node == kNoNode || !asksArguments(p, function, value, depth + 1)) return false;
  }
  auto outside = [&](uint32_t c) {
    const ForeignCall& call = p.foreignCalls[c];
    return call.place.file == part.file && p.isInside(call.place, part.node) && p.guarantees(part.file).callTraits(p.text(call.name)) != 0;
  };
  auto makes = [&](NodeId n) { return p.file(part)[n].kind == Kind::Call || p.file(part)[n].kind == Kind::Create; };
  bool fixed = depth > 0 && !makes(part.node) && !anyNode(p.file(part), part.node, makes);
  return (any || fixed) && std::none_of(p.foreignCallsInFunction[function].begin(), p.foreignCallsInFunction[function].end(), outside);
}

// The nearest branch that a place stands in, an If or a Switch.
Place branchAround(const Program& p, Place place) {
  Place asked = p.around(place, Kind::If), chosen = p.around(place, Kind::Switch);
  if (asked.node == kNoNode) return chosen;
  return chosen.node != kNoNode && p.isInside(chosen, asked.node) ? chosen : asked;
}

// What a branch is decided by: its condition, or what a switch looks at.
NodeId decidedBy(const LoweredFile& file, NodeId branch) {
  NodeId condition = file.child(branch, Role::Condition);
  if (condition == kNoNode && file[branch].kind == Kind::Switch)
    for (NodeId first : children(file, branch)) return file[first].kind >= Kind::Name && file[first].kind <= Kind::Other ? first : kNoNode;
  return condition;
}

// Is it thrown because of what the function was given, and of nothing else? Of conditions that must all hold one is enough.
bool checksArguments(const Program& p, FunctionIndex function, Place place) {
  Place branch = branchAround(p, place);
  NodeId condition = branch.node == kNoNode ? kNoNode : decidedBy(p.file(branch), branch.node);
  if (condition == kNoNode) return false;
  if (asksArguments(p, function, {branch.file, condition})) return true;
  const LoweredFile& file = p.file(branch);
  NodeId otherwise = file.child(branch.node, Role::Else);
  bool both = file[condition].kind == Kind::Logic && static_cast<LogicForm>(file[condition].detail) == LogicForm::And && !(otherwise != kNoNode && (place.node == otherwise || p.isInside(place, otherwise)));
  if (!both) return false;
  for (NodeId part : children(file, condition))
    if (asksArguments(p, function, {branch.file, part})) return true;
  return false;
}

// Where running the function can throw past its end; the chain of calls to it.
bool mayThrow(const Program& p, FunctionIndex function, std::vector<Evidence>& chain, std::set<FunctionIndex>& seen, int depth = 0) {
  if (function == kNone || depth > 3 || !seen.insert(function).second || (p.functions[function].modifiers & kNoThrow)) return false;
  Place body = p.functions[function].definition;
  if (!body.known()) return false;
  const LoweredFile& file = p.file(body);
  for (NodeId n = body.node + 1; n < file.nodes.size() && file[n].span.begin < file[body.node].span.end; ++n) {
    if (file[n].kind != Kind::Throw || p.around({body.file, n}, Kind::Lambda).node != kNoNode) continue;
    if (!handlersAround(p, {body.file, n}).empty() || refusesThere(p, function, {body.file, n}) || checksArguments(p, function, {body.file, n})) continue;
    chain.push_back({{body.file, n}, functionName(p, function) + " throws here"});
    return true;
  }
  for (uint32_t c : p.foreignCallsInFunction[function]) {
    const ForeignCall& call = p.foreignCalls[c];
    if (!(p.guarantees(call.place.file).callTraits(p.text(call.name)) & kThrows) || p.around(call.place, Kind::Lambda).node != kNoNode || checksArguments(p, function, call.place)) continue;
    chain.push_back({call.place, functionName(p, function) + " ends the process here (" + inNotation(p, call.place.file, p.text(call.name)) + ")"});
    return true;
  }
  for (uint32_t c : p.callsInFunction[function]) {
    const CallSite& call = p.calls[c];
    if (!handlersAround(p, call.place).empty() || p.around(call.place, Kind::Lambda).node != kNoNode) continue;
    size_t size = chain.size();
    chain.push_back({call.place, functionName(p, function) + " calls " + functionName(p, call.callee)});
    if (mayThrow(p, call.callee, chain, seen, depth + 1)) return true;
    chain.resize(size);
  }
  return false;
}

// The functions that run while the object is made: its constructor, what stands
// in its class, or else the function that makes it.
std::vector<FunctionIndex> creationBodies(const Program& p, const Entity& e) {
  std::vector<FunctionIndex> out;
  if (e.creation.constructor != kNone) out.push_back(e.creation.constructor);
  for (FunctionIndex m : p.types[e.type].methods)
    if (runsWhenMade(p, e.type, m)) out.push_back(m);
  if (e.creation.constructor == kNone && e.creation.place.known() && p.node(e.creation.place).kind == Kind::Call)
    if (Symbol callee = p.symbolAt(e.creation.place); callee.is(Symbol::Sort::Function)) out.push_back(callee.index());
  return out;
}

}  // namespace

void checkStartCycle(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  size_t count = s.survey.entities.size();
  std::vector<std::map<size_t, std::vector<Evidence>>> needs(count);
  Wanted other{[&](VariableIndex v) { return s.entityOfVariable[v] != SIZE_MAX; }, [&](FunctionIndex f) { return s.entityOfAccessPoint[f] != SIZE_MAX; }, 0};
  for (size_t i = 0; i < count; ++i) {
    if (!isCreated(s.survey.entities[i])) continue;
    for (Reached& reached : s.reaching.fromCreation(s.survey.entities[i], other)) {
      size_t target = reached.function != kNone ? s.entityOfAccessPoint[reached.function] : s.entityOfVariable[reached.variable];
      if (target == i || !isCreated(s.survey.entities[target]) || runsLater(p, reached.chain)) continue;
      // Who only reads a slot that a function fills makes nothing.
      bool onlyRead = reached.function == kNone && s.survey.entities[target].creation.time == CreationTime::Lazy && p.variables[reached.variable].form == VariableForm::Plain && p.variables[reached.variable].storage != Storage::FunctionStatic;
      if (onlyRead) continue;
      needs[i].emplace(target, std::move(reached.chain));
    }
  }
  // The shortest way from each entity back to itself; told once, by its first entity.
  for (size_t i = 0; i < count; ++i) {
    std::map<size_t, size_t> cameFrom;
    std::vector<size_t> open = {i};
    bool closed = false;
    for (size_t at = 0; at < open.size() && !closed; ++at)
      for (auto& [target, chain] : needs[open[at]]) {
        if (target == i) {
          cameFrom[i] = open[at];
          closed = true;
          break;
        }
        if (target > i && cameFrom.emplace(target, open[at]).second) open.push_back(target);
      }
    if (!closed) continue;
    std::vector<size_t> ring = {i};
    for (size_t at = cameFrom[i]; at != i; at = cameFrom[at]) ring.insert(ring.begin() + 1, at);
    const Entity& e = s.survey.entities[i];
    std::vector<std::string> names;
    for (size_t at : ring) names.push_back(s.survey.entities[at].name);
    Finding f = makeFinding(s, infoOf("init.cycle"), i, Sureness::Certain);
    f.evidence.reserve(8);
    for (size_t k = 0; k < ring.size(); ++k) {
      const std::vector<Evidence>& chain = needs[ring[k]][ring[(k + 1) % ring.size()]];
      f.evidence.insert(f.evidence.end(), chain.begin(), chain.end());
    }
    bool sometimes = std::any_of(f.evidence.begin(), f.evidence.end(), [&](const Evidence& step) { return p.around(step.place, Kind::If).node != kNoNode; });
    if (sometimes) f.setSureness(Sureness::Likely);
    f.place = e.creation.place.known() ? e.creation.place : e.place;
    f.message = "Making " + e.shown + " needs " + names[1] + ", and " + (ring.size() > 2 ? "in the end making " : "making ") + names.back() + " needs " + e.shown + ": the first one made sees the other half-made.";
    f.advice = Advice::Inject;
    out.push_back(std::move(f));
  }
}

namespace {

// slot = this, in the constructor, above the place.
bool putsItselfThere(const Program& p, const Entity& e, Place place) {
  return e.slot != kNone && std::any_of(p.usesOfVariable[e.slot].begin(), p.usesOfVariable[e.slot].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    return putsItself(p, use) && (use.place.file != place.file || use.place.node < place.node || p.around(place, Kind::Function).node != p.around(use.place, Kind::Function).node);
  });
}

// Is a flag, by which the access point asks whether to make the object, set before that is made?
bool isMarkedBefore(const Program& p, const Entity& e) {
  if (!e.creation.place.known() || e.creation.in == kNone) return false;
  Place branch = p.around(e.creation.place, Kind::If);
  if (branch.node == kNoNode) return false;
  const LoweredFile& file = p.file(branch);
  NodeId condition = file.child(branch.node, Role::Condition);
  return condition != kNoNode && std::any_of(p.usesInFunction[e.creation.in].begin(), p.usesInFunction[e.creation.in].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    if (use.access != Access::Write || use.variable == e.slot || use.place.file != branch.file || !p.isInside(use.place, branch.node) || use.place.node > e.creation.place.node) return false;
    return p.symbolAt({branch.file, condition}) == Symbol(Symbol::Sort::Variable, use.variable) || namesInside(p, {branch.file, condition}, use.variable);
  });
}

}  // namespace

void checkReentrant(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isCreated(e) || e.madeByAsking) continue;
    Wanted itself{[&](VariableIndex v) { return v == e.slot && e.creation.place.known(); }, [&](FunctionIndex f) { return s.entityOfAccessPoint[f] != SIZE_MAX && p.functions[f].form != FunctionForm::Constructor && p.functions[f].form != FunctionForm::Factory; }, 0};
    std::vector<Reached> reached = s.reaching.fromCreation(e, itself);
    // The creating expression may itself be a call of the access point; by way of another's access point it is a circle.
    std::erase_if(reached, [&](const Reached& r) {
      // A constructor that has put the object there itself finds it.
      if (putsItselfThere(p, e, r.chain.front().place)) return true;
      if (r.function == kNone) {
        // A value stands where it is made: its constructor has it under its name too.
        if (p.guarantees(e.place.file).implicitCopy.holds && !p.use(p.variables[e.slot].type).has(kPointer) && !(variableTraits(p, e.slot) & (kPointerLike | kOwningPointer)) && r.chain.size() < 3) return true;
        // The slot is used, not only set or tested.
        Place up = p.parent(r.chain.back().place);
        return !(p.node(up).kind == Kind::Member && p.node(r.chain.back().place).role == Role::Receiver) || p.around(up, Kind::If).node != kNoNode || runsLater(p, r.chain);
      }
      // Asked for nothing but that it be there, behind a mark that says it is being made.
      if (p.node(p.parent(r.chain.back().place)).kind == Kind::ExpressionStatement && isMarkedBefore(p, e)) return true;
      return s.entityOfAccessPoint[r.function] != i || s.origins.accessPointOf(r.function) == kNone || r.chain.size() < 2 || runsLater(p, r.chain);
    });
    if (reached.empty()) continue;
    const Reached& way = reached.front();
    bool sometimes = std::any_of(way.chain.begin(), way.chain.end(), [&](const Evidence& step) { return p.around(step.place, Kind::If).node != kNoNode && !(e.creation.place == step.place); });
    Finding f = makeFinding(s, infoOf("init.reentrant"), i, sometimes ? Sureness::Likely : Sureness::Certain);
    f.place = way.chain.back().place;
    f.message = "The constructor of " + e.shown + " reaches " + (way.function == kNone ? variableName(p, way.variable) : functionName(p, way.function)) + ", which should return the object that is just being made.";
    f.evidence = way.chain;
    f.evidence.push_back({e.creation.place.known() ? e.creation.place : e.place, e.creation.time == CreationTime::Lazy ? "the object is not there yet: it is made a second time, without end, or the access point waits for itself" : "the object is not there yet: nothing is handed out"});
    f.advice = Advice::ByHand;
    out.push_back(std::move(f));
  }
}

namespace {

// What can throw behind the place, in the same function.
bool throwsAfter(const Program& p, Place from, FunctionIndex function, std::vector<Evidence>& chain) {
  const LoweredFile& file = p.file(from);
  Place body = p.functions[function].definition;
  if (body.file != from.file) return false;
  auto counts = [&](Place at) { return at.file == from.file && at.node > from.node && handlersAround(p, at).empty() && p.around(at, Kind::Lambda).node == kNoNode; };
  for (NodeId n = from.node + 1; n < file.nodes.size() && file[n].span.begin < file[body.node].span.end; ++n) {
    if (file[n].kind != Kind::Throw || !counts({body.file, n})) continue;
    chain.push_back({{body.file, n}, functionName(p, function) + " throws here"});
    return true;
  }
  for (uint32_t c : p.callsInFunction[function]) {
    if (!counts(p.calls[c].place)) continue;
    std::set<FunctionIndex> seen = {function};
    chain.push_back({p.calls[c].place, functionName(p, function) + " calls " + functionName(p, p.calls[c].callee)});
    if (mayThrow(p, p.calls[c].callee, chain, seen)) return true;
    chain.clear();
  }
  return false;
}

// Does somebody above catch what the function throws, so that the program goes on?
FunctionIndex caughtAbove(const Subject& s, FunctionIndex function, int depth = 0) {
  const Program& p = s.program;
  for (uint32_t c : p.callsOfFunction[function]) {
    const CallSite& call = p.calls[c];
    if (s.inTests(call.place)) continue;
    // What main catches ends the program.
    for (Place handler : isMain(p, call.in) ? std::vector<Place>() : handlersAround(p, call.place)) {
      auto ends = [&](NodeId n) {
        NodeId callee = p.file(handler)[n].kind == Kind::Call ? p.file(handler).child(n, Role::Callee) : kNoNode;
        return p.file(handler)[n].kind == Kind::Throw || (callee != kNoNode && (p.guarantees(handler.file).callTraits(p.file(handler).name(callee)) & kAborts));
      };
      if (!anyNode(p.file(handler), handler.node, ends)) return call.in;
    }
    if (depth < 3 && call.in != kNone && handlersAround(p, call.place).empty())
      if (FunctionIndex above = caughtAbove(s, call.in, depth + 1); above != kNone) return above;
  }
  return kNone;
}

// if (ready) return; ready = true; and then the work: when that throws, and the program goes on, the next caller finds it done.
void checkMarkedBeforeDone(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.slot == kNone || !p.variables[e.slot].lives() || s.inTests(e.place) || p.guarantees(e.place.file).throwsForFaultsOnly) continue;
    Place marked;
    FunctionIndex in = kNone;
    bool takenBack = false;  // by who made it, or where something is caught
    for (uint32_t u : p.usesOfVariable[e.slot]) {
      const Use& use = p.uses[u];
      NodeId value = use.access == Access::Write && !use.inMember && use.in != kNone ? p.assignedAt(use.place) : kNoNode;
      if (value == kNoNode || s.inTests(use.place) || !p.file(use.place)[value].is(Kind::Literal, LiteralForm::Boolean)) continue;
      bool asked = forEachKnown(p, use.place, [&](const Known& known) {
        auto uses = p.usesInFunction[use.in];
        return std::any_of(uses.begin(), uses.end(), [&](uint32_t o) { return p.uses[o].variable == e.slot && p.uses[o].place.file == use.place.file && (p.uses[o].place.node == known.condition || p.isInside(p.uses[o].place, known.condition)); });
      });
      if (asked && !marked.known()) marked = use.place, in = use.in;
      else takenBack |= use.in == in || !handlersAround(p, use.place).empty();
    }
    std::vector<Evidence> chain;
    if (!marked.known() || takenBack || !throwsAfter(p, marked, in, chain)) continue;
    FunctionIndex above = caughtAbove(s, in);
    if (above == kNone) continue;
    Finding f = makeFinding(s, infoOf("init.may-throw"), i, Sureness::Likely);
    f.place = marked;
    f.message = functionName(p, in) + " sets " + e.shown + " before the work is done: when that throws, " + functionName(p, above) + " goes on, and the next call takes it for done.";
    f.evidence.push_back({marked, "marked as done here"});
    f.evidence.insert(f.evidence.end(), chain.begin(), chain.end());
    f.advice = Advice::ByHand;
    out.push_back(std::move(f));
  }
}

}  // namespace

void checkMayThrow(const Subject& s, std::vector<Finding>& out) {
  checkMarkedBeforeDone(s, out);
  const Program& p = s.program;
  OfOneCause ofOneCause(out);
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isCreated(e) || !isInstance(e) || refusesSecond(p, e.type) || !s.isTold(e.place)) continue;
    Place made = e.creation.place.known() ? e.creation.place : e.place;
    if (!handlersAround(p, made).empty()) continue;
    std::vector<Evidence> chain;
    std::set<FunctionIndex> seen;
    std::vector<FunctionIndex> bodies = creationBodies(p, e);
    if (std::none_of(bodies.begin(), bodies.end(), [&](FunctionIndex f) { return mayThrow(p, f, chain, seen); })) continue;
    bool eager = e.creation.time == CreationTime::Eager;
    // What is worked out at load from the code alone fails in each run or in none.
    if (eager && e.creation.weights.empty() && s.reaching.fromCreation(e, {nullptr, nullptr, kReadsEnvironment}).empty()) continue;
    if (!chain.empty() && ofOneCause.holdsFor(chain.back().place, made)) continue;
    std::string_view fate = p.guarantees(made.file).failedInitialiser;
    // On first use it is told to who asks, and may go well the next time.
    Finding f = makeFinding(s, infoOf("init.may-throw"), i, eager ? Sureness::Likely : Sureness::Possible);
    f.place = made;
    f.message = "Creating " + e.shown + " can throw " + (eager ? "at load: " + (fate.empty() ? std::string("loading fails") : std::string(fate)) + "." : "on first use: the first caller gets the exception, and each later one tries again.");
    f.evidence.push_back({made, "made here"});
    f.evidence.insert(f.evidence.end(), chain.begin(), chain.end());
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
  ofOneCause.tellCounts();
}

namespace {

bool isAsked(const Program& p, Place place) { return p.node(p.parent(place)).kind == Kind::NullTest || p.node(place).role == Role::Condition; }

// Is it handed out to callers that ask for it?
bool isToldTo(const Program& p, const Use& use) {
  if (use.in == kNone || p.node(p.parent(use.place)).kind != Kind::Return) return false;
  auto calls = p.callsOfFunction[use.in];
  return std::any_of(calls.begin(), calls.end(), [&](uint32_t c) {
    Place up = p.parent(p.calls[c].place);
    return isAsked(p, p.calls[c].place) || p.node(up).role == Role::Condition;
  });
}

// What the tried part of a constructor leaves undone when it fails.
struct Attempt {
  bool sets = false;     // it gives fields of the object their values, itself or by calling a method of the object
  // All of these have values from before, for which the class asks elsewhere, or the last of them has:
  // then the object is made to do without.
  bool dispensable = false;

  Attempt(const Program& p, TypeIndex type, Place handler) {
    const LoweredFile& file = p.file(handler);
    NodeId attempt = file.parents[handler.node];
    if (type == kNone || attempt == kNoNode) return;
    bool all = true, lastIs = false;
    NodeId last = 0;
    for (VariableIndex field : p.types[type].fields) {
      // A field that says nothing holds nothing, where that is a value.
      const Language& language = p.language(p.variables[field].home().file);
      bool before = initialiserOf(p, field).known() || (language.dotted && !language.infersTypes), asked = false;
      NodeId set = 0;
      for (uint32_t u : p.usesOfVariable[field]) {
        const Use& use = p.uses[u];
        bool here = use.place.file == handler.file && p.isInside(use.place, attempt);
        bool writes = use.access == Access::Write && !use.inMember && !use.throughPointer;
        if (here && writes) set = std::max(set, use.place.node);
        bool earlier = writes && use.place.file == handler.file && use.place.node < attempt && p.around(use.place, Kind::Function).node == p.around(handler, Kind::Function).node;
        before |= earlier;
        // A function or a text that serves until another takes its place need not be asked for.
        NodeId given = earlier ? p.assignedAt(use.place) : kNoNode;
        asked |= given != kNoNode && (file[given].kind == Kind::Lambda || (file[given].kind == Kind::Literal && !file[given].is(Kind::Literal, LiteralForm::Null)));
        asked |= !here && (isAsked(p, use.place) || isToldTo(p, use));
      }
      if (set == 0) continue;
      sets = true;
      all &= before && asked;
      if (set > last) last = set, lastIs = before && asked;
    }
    dispensable = sets && (all || lastIs);
    forEachInside(p, p.calls, {handler.file, attempt}, [&](const CallSite& call) {
      TypeIndex owner = p.functions[call.callee].owner;
      bool inHandler = p.isInside(call.place, handler.node);
      sets |= !inHandler && owner != kNone && (owner == type || p.derivesFrom(type, owner)) && !p.functions[call.callee].isStaticMember();
    });
  }
};

}  // namespace

void checkFailureSwallowed(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<FileIndex, NodeId>> told;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isMadeOnce(e)) continue;
    size_t first = SIZE_MAX;
    std::vector<std::pair<Place, std::string>> risky;
    // What hands nothing out leaves the slot empty when the creation fails: who comes next tries again.
    if (e.creation.place.known() && e.creation.in != kNone && s.entityOfAccessPoint[e.creation.in] == i) risky.emplace_back(e.creation.place, "its creation");
    for (const Weight& weight : e.creation.weights) risky.emplace_back(weight.place, "what " + weight.what);
    // What the constructor itself tries.
    std::vector<FunctionIndex> constructors;
    if (e.type != kNone)
      for (FunctionIndex m : p.types[e.type].methods)
        if (m == e.creation.constructor || p.functions[m].form == FunctionForm::Initialiser || (e.creation.constructor == kNone && p.functions[m].form == FunctionForm::Constructor)) constructors.push_back(m);
    for (FunctionIndex m : constructors) {
      Place body = p.functions[m].definition;
      if (!body.known()) continue;
      forEachNode(p.file(body), body.node, [&](NodeId n) {
        Place call{body.file, n};
        if ((p.file(body)[n].kind == Kind::Call || p.file(body)[n].kind == Kind::Create) && !handlersAround(p, call).empty()) risky.emplace_back(call, "its constructor");
      });
    }
    auto isHelper = [&](Place handler) {
      Symbol around = p.symbolAt(p.around(handler, Kind::Function));
      if (!around.is(Symbol::Sort::Function) || around.index() == e.creation.in) return false;
      return p.functions[around.index()].form == FunctionForm::Function && std::none_of(e.accessPoints.begin(), e.accessPoints.end(), [&](const AccessPoint& one) { return one.function == around.index() && one.sort != AccessPoint::Sort::Helper; });
    };
    for (auto& [place, what] : risky) {
      for (Place handler : handlersAround(p, place)) {
        const LoweredFile& file = p.file(handler);
        bool says = anyNode(file, handler.node, [&](NodeId n) {
          const Node& node = file[n];
          if (node.kind == Kind::Throw || node.kind == Kind::Assign || node.kind == Kind::Create) return true;
          if (node.kind == Kind::Return) {
            // A helper tells its caller by any value; who hands the object out, by more than an empty one.
            NodeId value = file.child(n, Role::Value);
            return value != kNoNode && (isHelper(handler) || file[value].kind != Kind::Literal || file[value].is(Kind::Literal, LiteralForm::Boolean));
          }
          if (node.kind != Kind::Call) return false;
          NodeId callee = file.child(n, Role::Callee);
          if (tellsError(p, handler, n)) return true;
          return callee != kNoNode && (p.guarantees(handler.file).callTraits(file.name(callee)) & kAborts);
        });
        bool anything = anyNode(file, handler.node, [&](NodeId n) { return file[n].kind == Kind::Call || file[n].kind == Kind::Return; });
        if (says) continue;
        // Around the creation itself there is no object at all afterwards; in the constructor, one that lacks what was to be set.
        const Attempt attempt(p, e.type, handler);
        if (attempt.dispensable || (what == "its constructor" && !attempt.sets) || !told.insert({handler.file, handler.node}).second) continue;
        // One finding for an entity: its other handlers are named with the first.
        if (first != SIZE_MAX) {
          if (out[first].evidence.size() < 10) out[first].evidence.push_back({handler, "the same happens here when " + what + " fails"});
          continue;
        }
        first = out.size();
        Finding f = makeFinding(s, infoOf("init.failure-swallowed"), i, anything ? Sureness::Likely : Sureness::Certain);
        f.place = handler;
        f.message = "When making " + e.shown + " fails, the error is caught" + (anything ? ", at most logged," : "") + " and the program goes on with an incomplete object.";
        f.evidence.push_back({place, what + " can fail here"});
        f.evidence.push_back({handler, "the error is caught and dropped here"});
        if (!e.accessPoints.empty()) f.evidence.push_back({e.accessPoints.front().place, "the access point returns what there is, or nothing"});
        f.advice = Advice::ByHand;
        out.push_back(std::move(f));
      }
    }
  }
}

void checkReadsEnvironment(const Subject& s, std::vector<Finding>& out) {
  OfOneCause ofOneCause(out);
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isMadeOnce(e) || !s.isTold(e.place)) continue;
    std::vector<Reached> reached = s.reaching.fromCreation(e, {nullptr, nullptr, kReadsEnvironment});
    if (reached.empty()) continue;
    const Reached& way = reached.front();
    if (ofOneCause.holdsFor(way.foreign->place, e.creation.place.known() ? e.creation.place : e.place)) continue;
    Finding f = makeFinding(s, infoOf("init.reads-environment"), i, e.creation.time == CreationTime::Eager ? Sureness::Likely : Sureness::Possible);
    f.place = way.foreign->place;
    f.message = "Creating " + e.shown + " reads the environment (" + inNotation(s.program, way.foreign->place.file, s.program.text(way.foreign->name)) + "): its state depends on where and when it is made.";
    f.evidence = way.chain;
    for (size_t k = 1; k < reached.size() && k < 4; ++k) f.evidence.push_back(reached[k].chain.back());
    f.advice = Advice::Inject;
    out.push_back(std::move(f));
  }
  ofOneCause.tellCounts();
}

namespace {

// The folder of a path, with the slash at its end.
std::string scopeOfPath(const std::string& path) { return path.substr(0, path.rfind('/') + 1); }

}  // namespace

void checkEagerUnused(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  // The folders of whole programs.
  std::set<std::pair<std::string_view, std::string>> programs;
  for (const Function& fn : p.functions)
    if (fn.definition.known() && p.text(fn.name) == "main" && (fn.owner == kNone || (fn.modifiers & kStatic))) programs.emplace(p.language(fn.definition.file).id, scopeOfPath(p.path(fn.definition)));
  auto ofProgram = [&](Place place) {
    return std::any_of(programs.begin(), programs.end(), [&](const auto& one) { return one.first == p.language(place.file).id && p.path(place).rfind(one.second, 0) == 0; });
  };
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.creation.time != CreationTime::Eager || !isInstance(e) || e.slot == kNone || p.guarantees(e.place.file).staticsAtFirstUse.holds || s.inTests(e.place)) continue;
    bool used = std::any_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) { return !s.inTests(c.place) && s.entityOfAccessPoint[c.in == kNone ? 0 : c.in] != i; });
    for (const AccessPoint& accessPoint : e.accessPoints)
      if (accessPoint.function != kNone)
        for (uint32_t c : p.callsOfFunction[accessPoint.function]) used |= !s.inTests(p.calls[c].place);
    // Who else can see it may use it outside of what was read.
    const Variable& slot = p.variables[e.slot];
    bool handedOut = std::any_of(e.accessPoints.begin(), e.accessPoints.end(), [](const AccessPoint& accessPoint) { return accessPoint.function != kNone; });
    bool ofModule = slot.storage == Storage::Global && !(slot.modifiers & kPublic) && p.language(e.place.file).dotted;
    bool enclosed = (slot.onlyIn != kNone && e.accessPoints.empty()) || (ofModule && !handedOut);
    if (used || (!enclosed && (!ofProgram(e.place) || (p.language(e.place.file).dotted && !(slot.modifiers & kPrivate))))) continue;
    // A type that is made by a call is used where types are written.
    const LoweredFile& home = p.file(e.place);
    if (std::any_of(home.nodes.begin(), home.nodes.end(), [&](const Node& node) { return node.kind == Kind::TypeRef && home.name(node) == p.text(slot.name); })) continue;
    // An object that is made for what its constructor does elsewhere is used by being made.
    Wanted elsewhere{[&](VariableIndex v) { return s.entityOfVariable[v] != SIZE_MAX && v != e.slot; }, nullptr, kPrints | kStartsThread | kRunsLater | kReadsEnvironment};
    if (!s.reaching.fromCreation(e, elsewhere).empty()) continue;
    bool opaque = false;
    for (FunctionIndex m : p.types[e.type].methods)
      if (p.functions[m].form == FunctionForm::Constructor || p.functions[m].form == FunctionForm::Destructor)
        for (uint32_t c : p.foreignCallsInFunction[m]) {
          const Guarantees& g = p.guarantees(p.foreignCalls[c].place.file);
          std::string_view name = p.text(p.foreignCalls[c].name);
          opaque |= !(g.callTraits(name) & kHeavyCall) && !(g.typeTraits(name));
        }
    Finding f = makeFinding(s, infoOf("init.eager-unused"), i, opaque ? Sureness::Possible : Sureness::Likely);
    f.place = e.creation.place.known() ? e.creation.place : e.place;
    bool tested = !e.consumers.empty();
    f.message = e.shown + " is made at each load, and " + (tested ? "only tests use it." : "no code that was read uses it.");
    f.evidence.push_back({f.place, "made at load"});
    for (const Consumer& c : e.consumers)
      if (s.inTests(c.place) && f.evidence.size() < 4) f.evidence.push_back({c.place, "used by a test"});
    f.advice = Advice::MakeLocal;
    f.reasonsFor.push_back("it can be removed, or made where a test needs it");
    f.reasonsAgainst.push_back("code that was not read may use it");
    out.push_back(std::move(f));
  }
}

void checkLazyNeedless(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    bool pays = e.creation.guard == GuardSort::Lock || e.creation.guard == GuardSort::DoubleCheck || e.creation.guard == GuardSort::DoubleCheckUnsound;
    if (e.harmless || e.creation.time != CreationTime::Lazy || !pays || e.type == kNone || !e.creation.place.known() || !e.creation.weights.empty() || e.madeByAsking) continue;
    const Guarantees& g = p.guarantees(e.creation.place.file);
    // It must be the instance that is made here, with nothing handed to it.
    const LoweredFile& file = p.file(e.creation.place);
    if (file.child(e.creation.place.node, Role::Argument) != kNoNode || e.kind != EntityKind::Singleton || (p.node(e.creation.place).has(kVirtual) && !p.types[e.type].derived.empty())) continue;
    if (e.creation.constructor != kNone && !p.functions[e.creation.constructor].parameters.empty()) continue;
    Wanted outside{[&](VariableIndex v) { return p.variables[v].lives() && v != e.slot; }, [&](FunctionIndex f) { return s.entityOfAccessPoint[f] != SIZE_MAX; }, 0xFFFFFFFFu};
    if (!s.reaching.fromCreation(e, outside).empty()) continue;
    // What the constructor calls outside of the tree may be anything.
    bool opaque = anyNode(file, e.creation.place.node, [&](NodeId n) { return file[n].kind == Kind::Call; }), loops = false;
    for (FunctionIndex part : creationBodies(p, e)) {
      for (uint32_t c : p.foreignCallsInFunction[part]) {
        // [super init]: the library's own part of the object.
        if (p.foreignCalls[c].name == p.functions[part].name) continue;
        opaque |= g.typeTraits(p.text(p.foreignCalls[c].name)) == 0;
      }
      Place body = p.functions[part].definition;
      loops |= body.known() && anyNode(p.file(body), body.node, [&](NodeId n) { return p.file(body)[n].kind == Kind::Loop; });
    }
    if (opaque || loops) continue;
    Finding f = makeFinding(s, infoOf("init.lazy-needless"), i, Sureness::Likely);
    f.place = e.creation.place;
    f.message = e.shown + " is made lazily under a lock, although its constructor does no work and needs nothing.";
    f.evidence.push_back({e.creation.lock.known() ? e.creation.lock : e.creation.place, "each access takes this lock"});
    f.evidence.push_back({e.creation.constructor != kNone ? p.functions[e.creation.constructor].declarations.front() : p.types[e.type].definition, "all that its constructor does: no file, no network, no thread, no other shared state, no argument"});
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

namespace {

// Does the function test the field before it uses it?
bool testsIt(const Program& p, FunctionIndex function, VariableIndex field, bool throughOthers = true) {
  for (uint32_t u : p.usesInFunction[function]) {
    const Use& use = p.uses[u];
    if (use.variable != field) continue;
    for (Place up = p.parent(use.place); up.node != kNoNode && p.node(up).kind != Kind::Function; up = p.parent(up)) {
      Kind kind = p.node(up).kind;
      if (kind == Kind::NullTest || kind == Kind::Compare || kind == Kind::Logic) return true;
      if (p.node(up).role == Role::Condition) return true;
      if (kind == Kind::Block) break;
    }
  }
  if (!throughOthers) return false;
  // Or it asks another member that does: if (hasParent()) …
  TypeIndex owner = p.functions[function].owner;
  for (uint32_t c : p.callsInFunction[function]) {
    const CallSite& call = p.calls[c];
    if (owner == kNone || p.functions[call.callee].owner != owner || !testsIt(p, call.callee, field, false)) continue;
    for (Place up = call.place; up.node != kNoNode && p.node(up).kind != Kind::Function && p.node(up).kind != Kind::Block; up = p.parent(up))
      if (p.node(up).role == Role::Condition) return true;
  }
  return false;
}

// Who sets a field, and who follows it without a test.
struct SetterAndUsers {
  bool made = false;  // construction sets it
  std::set<FunctionIndex> setters;
  std::vector<const Use*> users;

  SetterAndUsers(const Program& p, VariableIndex field) {
    for (uint32_t u : p.usesOfVariable[field]) {
      const Use& use = p.uses[u];
      if (use.access == Access::Write && !use.throughPointer && !use.inMember) {
        NodeId given = p.assignedAt(use.place);
        bool nothing = given != kNoNode && p.file(use.place)[given].is(Kind::Literal, LiteralForm::Null);
        if (nothing) continue;
        if (isConstruction(p, use)) made = true;
        else setters.insert(use.in);
        continue;
      }
      const Node& up = p.node(p.parent(use.place));
      bool ifThere = up.kind == Kind::Member && up.has(kIfThere);
      bool follows = !ifThere && (use.throughPointer || (up.kind == Kind::Member && p.node(use.place).role == Role::Receiver));
      if (follows && use.in != kNone && !isConstruction(p, use)) users.push_back(&use);
    }
  }
};

// Is it a field that holds nothing at first, though it can be followed?
bool isEmptyAtFirst(const Program& p, const Entity& e, const Variable& field) {
  bool ofObject = field.storage == Storage::StaticField && field.owner == e.type && p.types[e.type].form == TypeForm::Object;
  if (field.storage != Storage::Field && !ofObject) return false;
  Place home = field.home();
  uint32_t traits = p.traits(home.file, field.type);
  // Where types are told from what is assigned, nothing at first has none.
  bool untold = p.language(home.file).infersTypes && traits == 0;
  if (!p.use(field.type).has(kPointer) && !(traits & (kPointerLike | kOwningPointer)) && !untold) return false;
  NodeId value = p.file(home).child(home.node, Role::Initialiser);
  return value == kNoNode || p.file(home)[value].is(Kind::Literal, LiteralForm::Null);
}

// Where production code calls the setup, and what needs it before that.
struct SetupCalls {
  std::vector<const CallSite*> setups, early;
  bool conditional = false;  // each of the calls stands under a condition
  bool own = false;          // the constructor, an access point or one that needs it calls it

  SetupCalls(const Subject& s, FunctionIndex setup, VariableIndex field, const std::set<FunctionIndex>& needing) {
    const Program& p = s.program;
    for (uint32_t c : p.callsOfFunction[setup])
      if (!s.inTests(p.calls[c].place)) setups.push_back(&p.calls[c]);
    own = std::any_of(setups.begin(), setups.end(), [&](const CallSite* c) { return isConstruction(p, c->in) || (c->in != kNone && s.entityOfAccessPoint[c->in] != SIZE_MAX) || needing.count(c->in); });
    // Of several calls, one may have come before on another way.
    if (own || setups.size() != 1) return;
    const CallSite* site = setups.front();
    // if (field == null) set(…): on the other way it is there.
    conditional = p.around(site->place, Kind::If).node != kNoNode && !branchAsksFor(p, site->place, field);
    if (site->in == kNone) return;
    Wanted needs{nullptr, [&](FunctionIndex f) { return needing.count(f) > 0; }, 0};
    for (uint32_t c : p.callsInFunction[site->in]) {
      const CallSite& before = p.calls[c];
      if (before.place.file != site->place.file || before.place.node >= site->place.node || p.file(site->place)[before.place.node].span.begin >= p.file(site->place)[site->place.node].span.begin) continue;
      if (needing.count(before.callee) > 0 || !s.reaching.fromFunction(before.callee, needs).empty()) early.push_back(&before);
    }
  }
};

// Does the function that makes the call call the setup before it, under no other condition?
bool comesAfter(const Program& p, const CallSite& call, const std::vector<const CallSite*>& setups) {
  return call.in != kNone && std::any_of(setups.begin(), setups.end(), [&](const CallSite* setup) {
    if (setup->in != call.in || setup->place.file != call.place.file || p.node(setup->place).span.begin > p.node(call.place).span.begin) return false;
    Place condition = p.around(setup->place, Kind::If);
    return condition.node == kNoNode || p.isInside(call.place, condition.node);
  });
}

}  // namespace

void checkNeedsSetup(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<FunctionIndex, VariableIndex>> told;
  // What is called on an object of which nothing is told may be the setup.
  std::set<std::pair<const Language*, std::string_view>> calledByName;
  for (const ForeignCall& call : p.foreignCalls)
    if (!s.inTests(call.place) && p.language(call.place.file).infersTypes) calledByName.emplace(p.languageOf[call.place.file], lastPart(p.text(call.name)));
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isInstance(e)) continue;
    for (const StateField& state : e.state) {
      const Variable& field = p.variables[state.variable];
      if (!isEmptyAtFirst(p, e, field)) continue;
      SetterAndUsers all(p, state.variable);
      // One setup function: what several set is a property, and what sets it on the way is no setup.
      if (all.made || all.setters.size() != 1) continue;
      FunctionIndex setup = *all.setters.begin();
      FunctionForm form = p.functions[setup].form;
      if (p.functions[setup].owner != e.type || (s.entityOfAccessPoint[setup] != SIZE_MAX && field.storage == Storage::Field) || form == FunctionForm::Setter || form == FunctionForm::Getter) continue;
      if (calledByName.count({p.languageOf[field.home().file], p.text(p.functions[setup].name)}) || !told.insert({setup, state.variable}).second) continue;
      std::erase_if(all.users, [&](const Use* use) { return use->in == setup || s.inTests(use->place) || testsIt(p, use->in, state.variable) || runsLater(p, use->place); });
      std::set<FunctionIndex> needing;
      for (const Use* use : all.users) {
        // What the setup calls is called after it; so is a private helper.
        if (!staysInside(p, use->in)) needing.insert(use->in);
      }
      if (needing.empty()) continue;
      // A call of it in production, and something that needs it before.
      SetupCalls calls(s, setup, state.variable, needing);
      // By way of its base anybody may call it.
      bool byBase = calls.setups.empty() && (p.functions[setup].modifiers & kOverride);
      if (calls.own || calls.setups.size() > 1 || byBase) continue;
      bool used = std::any_of(needing.begin(), needing.end(), [&](FunctionIndex f) { return std::any_of(p.callsOfFunction[f].begin(), p.callsOfFunction[f].end(), [&](uint32_t c) { return !s.inTests(p.calls[c].place) && !comesAfter(p, p.calls[c], calls.setups); }); });
      bool early = !calls.early.empty();
      if (!used || (!early && !calls.setups.empty() && !calls.conditional)) continue;
      Finding f = makeFinding(s, infoOf("init.needs-setup"), i, early ? Sureness::Certain : Sureness::Likely);
      std::string name(p.text(field.name)), call = functionName(p, setup), user = functionName(p, *needing.begin());
      f.place = early ? calls.early.front()->place : p.functions[setup].declarations.front();
      f.message = user + " needs " + call + " to have set " + name + ", and " + (early ? "it is called before that." : calls.setups.empty() ? "no production code calls " + std::string(p.text(p.functions[setup].name)) + "." : "that is called on some paths only.");
      f.evidence.push_back({field.home(), name + " is empty at first"});
      f.evidence.push_back({p.functions[setup].declarations.front(), "only " + call + " sets it"});
      for (const Use* use : all.users)
        if (needing.count(use->in) && f.evidence.size() < 5) f.evidence.push_back({use->place, functionName(p, use->in) + " uses it without a test"});
      for (const CallSite* site : calls.early)
        if (f.evidence.size() < 7) f.evidence.push_back({site->place, "used here, before the setup call"});
      for (const CallSite* site : calls.setups)
        if (f.evidence.size() < 9) f.evidence.push_back({site->place, calls.conditional ? "the setup is called here, under a condition" : "the setup is called here, too late"});
      f.advice = Advice::Inject;
      out.push_back(std::move(f));
      break;
    }
  }
}

}  // namespace elmcart

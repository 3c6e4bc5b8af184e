// Family "life": what shared objects own.
#include <map>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"

namespace elmcart {
namespace {

// The call or the class by which a value takes a resource that must be given
// back, or empty: where objects are freed by hand their class sees to that.
std::string_view takenBy(const Program& p, Place value) {
  const LoweredFile& file = p.file(value);
  const Guarantees& g = p.guarantees(value.file);
  const Node& node = file[value.node];
  if (node.kind != Kind::Call && node.kind != Kind::Create) return {};
  NodeId named = file.child(value.node, node.kind == Kind::Call ? Role::Callee : Role::Type);
  std::string_view name = named == kNoNode ? std::string_view{} : file.name(named);
  if (node.kind == Kind::Call && (g.callTraits(name) & kTakesResource)) return name;
  if (node.kind == Kind::Call && file[named].kind == Kind::Member) {
    // fs.openSync: by the module's name and its own.
    NodeId receiver = file.child(named, Role::Receiver);
    std::string_view scope = receiver == kNoNode ? std::string_view{} : file.name(receiver);
    if (!scope.empty() && (g.callTraits(std::string(scope) + "::" + std::string(name)) & kTakesResource)) return name;
    return {};
  }
  bool given = file.child(value.node, Role::Argument) != kNoNode;
  return !g.freedByHand.holds && given && (g.typeTraits(lastPart(name)) & kFileResource) ? name : std::string_view{};
}

// Is what is named there given back, or handed to somebody who does that?
bool isReleasedAt(const Program& p, Place use) {
  Kind around = p.node(p.parent(use)).kind;
  if (around == Kind::Return || around == Kind::Create) return true;
  Place call = p.around(use, Kind::Call);
  NodeId callee = call.node == kNoNode ? kNoNode : p.file(call).child(call.node, Role::Callee);
  if (callee == kNoNode) return false;
  std::string_view name = p.file(call).name(callee);
  const Guarantees& g = p.guarantees(call.file);
  return (g.callTraits(name) & kReleasesResource) || lowerCase(lastPart(name)).rfind("close", 0) == 0 || isEndHook(g, lastPart(name));
}

// The function, a constructor or another, that makes what the expression or the local yields.
FunctionIndex makerOf(const Program& p, Place value, int depth = 0) {
  if (!value.known() || value.node == kNoNode || depth > 3) return kNone;
  Symbol symbol = p.symbolAt(value);
  Kind kind = p.node(value).kind;
  if (kind == Kind::Call || kind == Kind::Create) return symbol.is(Symbol::Sort::Function) ? symbol.index() : kNone;
  if (kind == Kind::Name && symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Local) return makerOf(p, initialiserOf(p, symbol.index()), depth + 1);
  return kNone;
}

// Where the function starts a thread in which a method of the object that it makes runs.
Place startedBy(const Subject& s, FunctionIndex maker, TypeIndex type) {
  const Program& p = s.program;
  for (const Threads::Root& root : s.threads.roots()) {
    if (root.in != maker || root.end.known()) continue;
    for (uint32_t c : p.callsInFunction[maker]) {
      const CallSite& call = p.calls[c];
      bool runs = call.place == root.call || call.place == root.start || (call.place.file == root.call.file && p.isInside(call.place, root.call.node));
      if (runs && p.functions[call.callee].owner == type && !p.functions[call.callee].isStaticMember()) return root.call;
    }
  }
  return {};
}

// A function puts another object in the place of one that has started a thread, and does not ask for that one first.
void checkReplacedRunning(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  if (e.slot == kNone || e.harmless) return;
  for (uint32_t u : p.usesOfVariable[e.slot]) {
    const Use& use = p.uses[u];
    if (use.access != Access::Write || use.in == kNone || s.inTests(use.place) || isConstruction(p, use)) continue;
    NodeId value = p.assignedAt(use.place);
    Place member = p.parent(use.place), call = p.parent(member);
    if (value == kNoNode && p.node(member).kind == Kind::Member && p.node(call).kind == Kind::Call) value = p.file(call).child(call.node, Role::Argument);  // slot.Store(value)
    FunctionIndex maker = value == kNoNode ? kNone : makerOf(p, {use.place.file, value});
    TypeIndex type = maker == kNone ? kNone : p.functions[maker].form == FunctionForm::Constructor ? p.functions[maker].owner : p.classBehind(use.place.file, p.functions[maker].result);
    // A function that is called once, and by nobody else, puts nothing in the place of another.
    auto calls = p.callsOfFunction[use.in];
    bool once = calls.size() == 1 && p.functions[use.in].owner == kNone && p.around(p.calls[calls.front()].place, Kind::Loop).node == kNoNode && isMain(p, p.calls[calls.front()].in);
    if (type == kNone || once || s.threads.sideOf(use.in).outside == Threads::Outside::StartUp || p.around(use.place, Kind::Once).node != kNoNode) continue;
    bool asked = std::any_of(p.usesInFunction[use.in].begin(), p.usesInFunction[use.in].end(), [&](uint32_t o) { return p.uses[o].variable == e.slot && before(p.uses[o].place, use.place); });
    Place started = asked ? Place{} : startedBy(s, maker, type);
    if (!started.known()) continue;
    Finding f = makeFinding(s, infoOf("lifetime.never-released"), i, Sureness::Likely);
    f.place = use.place;
    f.message = functionName(p, use.in) + " puts another " + std::string(p.text(p.types[type].name)) + " in the place of the one before, whose thread goes on with it.";
    f.evidence.push_back({started, functionName(p, maker) + " starts a thread of the object here"});
    f.evidence.push_back({use.place, "the next one is stored here, and nobody ends the one before"});
    f.advice = Advice::ByHand;
    out.push_back(std::move(f));
    return;
  }
}

}  // namespace

void checkNeverReleased(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) checkReplacedRunning(s, i, out);
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless) continue;
    std::vector<VariableIndex> candidates;
    if (e.type != kNone && e.creation.time != CreationTime::Elsewhere)
      for (const StateField& field : e.state) candidates.push_back(field.variable);
    else if (e.type == kNone) candidates.push_back(e.slot);
    bool leaked = e.neverDestroyed && e.kind != EntityKind::StaticHolder;
    for (VariableIndex v : candidates) {
      const Variable& variable = p.variables[v];
      Place home = variable.declarations.front();
      uint32_t traits = p.traits(home.file, variable.type);
      const TypeUse& use = p.use(variable.type);
      Place taken;
      std::string what, reason;
      // A handle that is released by hand, or by nobody.
      bool released = false;
      for (uint32_t u : p.usesOfVariable[v]) {
        const Use& site = p.uses[u];
        Place up = p.parent(site.place);
        Place value;
        if (p.node(up).kind == Kind::Assign && p.node(site.place).role == Role::Target) value = {up.file, p.file(up).child(up.node, Role::Value)};
        if (p.node(site.place).kind == Kind::FieldInit) value = {site.place.file, p.file(site.place).child(site.place.node, Role::Argument)};
        if (value.known() && value.node != kNoNode)
          if (std::string_view name = takenBy(p, value); !name.empty()) taken = value, what = std::string(name);
        // By itself, or through a local that was given it: file = self._file; file.close()
        released |= isReleasedAt(p, site.place);
        NodeId given = p.node(up).kind == Kind::Assign && p.node(site.place).role == Role::Value ? p.file(up).child(up.node, Role::Target) : kNoNode;
        if (p.node(up).kind == Kind::Variable && p.node(site.place).role == Role::Initialiser) given = up.node;
        Symbol local = given == kNoNode ? Symbol{} : p.symbolAt({up.file, given});
        if (local.is(Symbol::Sort::Variable) && p.variables[local.index()].storage == Storage::Local)
          for (uint32_t l : p.usesOfVariable[local.index()]) released |= isReleasedAt(p, p.uses[l].place);
      }
      NodeId initial = p.file(home).child(home.node, Role::Initialiser);
      if (initial != kNoNode)
        if (std::string_view name = takenBy(p, {home.file, initial}); !name.empty()) taken = {home.file, initial}, what = std::string(name);
      if (taken.known() && !released && (use.has(kPointer) || use.decl == kNone)) {
        reason = std::string(p.text(variable.name)) + " is acquired with " + what + ", and no path releases it";
      } else if (leaked && !use.has(kPointer | kReference) && (traits & (kFileResource | kThreadType)) && !taken.known()) {
        // Its destructor would release it, but the object is never destroyed.
        bool closed = false;
        for (uint32_t u : p.usesOfVariable[v]) {
          Place up = p.parent(p.uses[u].place);
          if (p.node(up).kind == Kind::Member && (p.nameOf(up) == "close" || p.nameOf(up) == "join" || p.nameOf(up) == "detach")) closed = true;
        }
        if (closed) continue;
        taken = home;
        reason = std::string(p.text(variable.name)) + " would be released by the destructor of " + e.shown + ", which never runs";
      } else {
        continue;
      }
      Finding f = makeFinding(s, infoOf("lifetime.never-released"), i, Sureness::Likely);
      f.place = taken;
      f.message = e.shown + " owns a resource that is never released: " + reason + ".";
      f.evidence.push_back({home, "the resource is kept here"});
      if (!(taken == home)) f.evidence.push_back({taken, "the resource is acquired here"});
      f.evidence.push_back({e.creation.place.known() ? e.creation.place : e.place, "the owner is made here; its end: " + e.end});
      f.advice = Advice::ByHand;
      out.push_back(std::move(f));
    }
  }
}

namespace {

// The variable, or kNone, that an argument names.
VariableIndex namedAt(const Program& p, Place place) {
  Symbol symbol = p.symbolAt(place);
  return symbol.is(Symbol::Sort::Variable) ? symbol.index() : kNone;
}

// The argument that is made anew by the function that calls: a function, or an object of a class of the tree.
Place freshArgument(const Program& p, const ForeignCall& call) {
  auto isFresh = [&](Place value) {
    Kind kind = p.node(value).kind;
    if (kind == Kind::Lambda) return true;
    for (NodeId c : children(p.file(value), value.node))
      if (kind == Kind::Create && p.file(value)[c].kind == Kind::Type) return true;  // its class stands there
    const Creation* creation = creationAt(p, value);
    return creation && p.types[creation->type].definition.known() && p.types[creation->type].form != TypeForm::Object;
  };
  for (NodeId argument : argumentsOf(p.file(call.place), call.place.node)) {
    Place at{call.place.file, argument};
    if (isFresh(at)) return at;
    VariableIndex named = namedAt(p, at);
    if (named == kNone) continue;
    const Variable& variable = p.variables[named];
    if (variable.storage == Storage::Local)
      if (Place initial = initialiserOf(p, named); initial.known() && isFresh(initial)) return initial;
    for (uint32_t u : p.usesOfVariable[named]) {
      const Use& use = p.uses[u];
      NodeId value = use.in == call.in && use.access == Access::Write && !use.inMember ? p.assignedAt(use.place) : kNoNode;
      if (value != kNoNode && isFresh({use.place.file, value})) return {use.place.file, value};
    }
  }
  return {};
}

// The function, with a name or without, that the node stands in.
NodeId codeAround(const LoweredFile& file, NodeId node) {
  NodeId up = file.parents[node];
  while (up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Lambda) up = file.parents[up];
  return up;
}

// Does the function ask something that it keeps, or that it was told, before it comes to the place?
bool asksBefore(const Program& p, FunctionIndex function, Place place) {
  Place body = p.functions[function].definition;
  const LoweredFile& file = p.file(body);
  auto isKept = [&](NodeId n) {
    VariableIndex v = namedAt(p, {body.file, n});
    return v != kNone && p.variables[v].storage != Storage::Local;
  };
  return anyNode(file, body.node, [&](NodeId n) {
    if (file[n].kind != Kind::If && file[n].kind != Kind::Conditional) return false;
    NodeId condition = file.child(n, Role::Condition);
    bool around = p.isInside(place, n);
    if (codeAround(file, n) != codeAround(file, place.node)) return false;
    bool leaves = anyNode(file, n, [&](NodeId c) { return file[c].kind == Kind::Return || file[c].kind == Kind::Throw; });
    return n < place.node && condition != kNoNode && (around || leaves) && (isKept(condition) || anyNode(file, condition, isKept));
  });
}

// Is what was entered taken out again: the variable that keeps it, the listener by itself, or within the same function?
bool isLetGo(const Program& p, const ForeignCall& entered, Place listener, const std::vector<const ForeignCall*>& leaving) {
  TypeIndex type = p.typeAt(listener) ? p.classBehind(listener.file, p.typeAt(listener)) : kNone;
  std::set<VariableIndex> kept;
  for (NodeId argument : argumentsOf(p.file(entered.place), entered.place.node)) kept.insert(namedAt(p, {entered.place.file, argument}));
  kept.erase(kNone);
  NodeId body = p.functions[entered.in].definition.node;
  return std::any_of(leaving.begin(), leaving.end(), [&](const ForeignCall* call) {
    bool here = call->place.file == entered.place.file;
    if (here && p.isInside(call->place, body)) return true;
    bool byItself = type != kNone && call->in != kNone && p.functions[call->in].owner == type;
    std::vector<NodeId> given = argumentsOf(p.file(call->place), call->place.node);
    return std::any_of(given.begin(), given.end(), [&](NodeId argument) {
      return kept.count(namedAt(p, {call->place.file, argument})) || (byItself && p.file(call->place)[argument].kind == Kind::This);
    });
  });
}

}  // namespace

void checkListenersLeft(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::map<std::string_view, std::vector<const ForeignCall*>> leaving;  // by their names
  for (const ForeignCall& call : p.foreignCalls) {
    std::span<const KeptUntil> pairs = p.guarantees(call.place.file).listeners;
    std::string_view name = pairs.empty() ? std::string_view{} : lastPart(p.text(call.name));
    if (std::any_of(pairs.begin(), pairs.end(), [&](const KeptUntil& one) { return one.leaves == name; })) leaving[name].push_back(&call);
  }
  std::set<FunctionIndex> done;
  for (const ForeignCall& call : p.foreignCalls) {
    std::span<const KeptUntil> pairs = p.guarantees(call.place.file).listeners;
    auto pair = std::find_if(pairs.begin(), pairs.end(), [&](const KeptUntil& one) { return one.enters == lastPart(p.text(call.name)); });
    if (pair == pairs.end() || call.in == kNone || p.node(call.place).kind != Kind::Call || s.inTests(call.place) || isConstruction(p, call.in)) continue;
    TypeIndex owner = p.functions[call.in].owner;
    if (owner == kNone || s.entitiesOfType[owner].empty() || done.count(call.in)) continue;
    size_t entity = s.entitiesOfType[owner].front();
    if (s.survey.entities[entity].harmless) continue;
    Place fresh = freshArgument(p, call);
    if (!fresh.known() || asksBefore(p, call.in, call.place) || isLetGo(p, call, fresh, leaving[pair->leaves])) continue;
    done.insert(call.in);
    Finding f = makeFinding(s, infoOf("lifetime.captured-short-lived"), entity, Sureness::Likely);
    f.place = call.place;
    f.message = functionName(p, call.in) + " enters another listener each time it is called, and no " + std::string(pair->leaves) + " takes one out: all of them are called from then on.";
    f.evidence.push_back({fresh, "a listener is made here"});
    f.evidence.push_back({call.place, "entered with what lives as long as the process"});
    f.advice = Advice::Unregister;
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

// Family "life": do object lifetimes hold where objects put themselves into lists?
#include <algorithm>
#include <map>

#include "assess/facts.h"
#include "assess/families.h"
#include "flow/control.h"

namespace elmcart {
namespace {

std::string nameOf(const Program& p, TypeIndex type) { return std::string(p.text(p.types[type].name)); }

// Is the subscriber shared itself, and lives as long as the list?
bool livesOn(const Subject& s, TypeIndex subscriber) {
  if (onlyLivesForever(s.program, subscriber)) return true;
  return s.isSingleton(subscriber);
}

// manager.setActive(kind, null): does the call put nothing in the object's place?
bool putsNothing(const Program& p, const CallSite& call) {
  std::vector<NodeId> given = argumentsOf(p.file(call.place), call.place.node);
  return std::any_of(given.begin(), given.end(), [&](NodeId n) { return p.file(call.place)[n].is(Kind::Literal, LiteralForm::Null); });
}

// Does any function of the subscriber take it out at all?
bool takesOutSomewhere(const Program& p, const Registration& r) {
  for (FunctionIndex m : p.types[r.subscriber].methods)
    for (uint32_t c : p.callsInFunction[m])
      if (p.calls[c].callee == r.by && putsNothing(p, p.calls[c])) return true;
  return std::any_of(p.types[r.subscriber].methods.begin(), p.types[r.subscriber].methods.end(), [&](FunctionIndex m) {
    std::set<FunctionIndex> seen;
    return m != r.in && removesFrom(p, m, r.collection, seen);
  });
}

// push(this); … pop(): within one function?
bool takesOutAgain(const Program& p, const Registration& r) {
  if (r.in == kNone) return false;
  auto later = [&](Place place) { return place.file == r.place.file && place.node > r.place.node; };
  for (uint32_t c : p.callsInFunction[r.in]) {
    std::set<FunctionIndex> seen;
    if (later(p.calls[c].place) && removesFrom(p, p.calls[c].callee, r.collection, seen)) return true;
  }
  return std::any_of(p.usesInFunction[r.in].begin(), p.usesInFunction[r.in].end(), [&](uint32_t u) { return p.uses[u].variable == r.collection && later(p.uses[u].place) && actAt(p, p.uses[u].place) == CollectionAct::Remove; });
}

// Is it emptied as a whole while the program goes on, or does who takes an object out of it delete the object?
bool isLookedAfter(const Program& p, VariableIndex collection) {
  return std::any_of(p.usesOfVariable[collection].begin(), p.usesOfVariable[collection].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    if (use.in == kNone || !p.functions[use.in].definition.known() || p.functions[use.in].form == FunctionForm::Destructor || actAt(p, use.place) != CollectionAct::Remove) return false;
    Place call = p.parent(p.parent(use.place));
    bool all = p.node(call).kind == Kind::Call && argumentsOf(p.file(call), call.node).empty() && p.nameOf(p.parent(use.place)) == "clear";
    Place body = p.functions[use.in].definition;
    return all || anyNode(p.file(body), body.node, [&](NodeId n) { return p.file(body)[n].kind == Kind::Destroy; });
  });
}

Place walkOver(const Program& p, VariableIndex collection, Place except) {
  for (uint32_t u : p.usesOfVariable[collection]) {
    const Use& use = p.uses[u];
    if (use.in != kNone && !(use.place == except) && p.node(p.parent(use.place)).kind == Kind::Loop) return use.place;
  }
  return {};
}

// A pool or a stack: whatever is in it is taken out again and given to whoever asks.
bool handsOutAgain(const Program& p, VariableIndex collection) {
  return std::any_of(p.usesOfVariable[collection].begin(), p.usesOfVariable[collection].end(), [&](uint32_t u) {
    FunctionIndex in = p.uses[u].in;
    if (in == kNone || p.callsOfFunction[in].empty()) return false;
    const Function& gives = p.functions[in];
    std::string_view result = p.text(p.use(gives.result).name);
    bool returns = gives.result != 0 && result != "void" && result != "bool" && result != "boolean" && result != "Unit";
    if (!gives.parameters.empty() || !returns || gives.owner == kNone || gives.form != FunctionForm::Function) return false;
    std::set<FunctionIndex> seen;
    return removesFrom(p, in, collection, seen);
  });
}

// The function by which one of the listed leaves: it is told which, and does not empty the list.
FunctionIndex leaverOf(const Program& p, VariableIndex collection, FunctionIndex except) {
  for (uint32_t u : p.usesOfVariable[collection]) {
    FunctionIndex in = p.uses[u].in;
    std::set<FunctionIndex> seen;
    if (in == kNone || in == except || p.functions[in].parameters.empty() || p.functions[in].form != FunctionForm::Function) continue;
    Place up = p.parent(p.uses[u].place), call = p.parent(up);
    bool all = p.node(up).kind == Kind::Member && p.node(call).kind == Kind::Call && argumentsOf(p.file(call), call.node).empty();
    if (!all && removesFrom(p, in, collection, seen)) return in;
  }
  return kNone;
}

}  // namespace

FunctionIndex removerOf(const Program& p, VariableIndex collection) {
  for (uint32_t u : p.usesOfVariable[collection]) {
    FunctionIndex in = p.uses[u].in;
    std::set<FunctionIndex> seen;
    if (in != kNone && p.functions[in].form == FunctionForm::Function && removesFrom(p, in, collection, seen)) return in;
  }
  return kNone;
}

namespace {

// Is each function that is put there taken out before it is called, by who takes what comes next: front() and pop_front(), poll(), shift()?
bool isTakenInTurn(const Program& p, VariableIndex collection) {
  return notificationOf(p, collection).by == kNone && std::any_of(p.usesOfVariable[collection].begin(), p.usesOfVariable[collection].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    Place member = p.parent(use.place), call = p.parent(member);
    if (actAt(p, use.place) != CollectionAct::Remove || p.node(call).kind != Kind::Call || p.file(call).child(call.node, Role::Argument) != kNoNode) return false;
    // What is taken out is not thrown away: it is given by the removal, or looked at before.
    if (p.node(p.parent(call)).kind != Kind::ExpressionStatement) return true;
    return use.in != kNone && std::any_of(p.usesInFunction[use.in].begin(), p.usesInFunction[use.in].end(), [&](uint32_t o) {
      const Use& other = p.uses[o];
      Place looked = p.parent(p.parent(other.place));
      return other.variable == collection && actAt(p, other.place) == CollectionAct::Read && p.node(p.parent(looked)).kind == Kind::Assign;
    });
  });
}

}  // namespace

bool dangles(const Subject& s, const Registration& r) {
  const Program& p = s.program;
  if (r.asFunction && isTakenInTurn(p, r.collection)) return false;
  if (r.in == endOf(p, r.subscriber)) return false;  // kept beyond its end on purpose
  // What came back from registering may undo it.
  if (r.resultUsed || endRemoves(p, r.subscriber, r.collection) || livesOn(s, r.subscriber)) return false;
  bool byHand = p.guarantees(r.place.file).freedByHand.holds;
  FunctionIndex dies = endOf(p, r.subscriber), remover = removerOf(p, r.collection);
  // Where objects live as long as they are listed, one that is never told its end has none.
  if (!byHand && dies == kNone && remover == kNone) return false;
  if (handsOutAgain(p, r.collection) || takesOutAgain(p, r) || isLookedAfter(p, r.collection)) return false;
  if (takesOutSomewhere(p, r)) {
    // A destructor that does work, in a class that knows how to take itself out: no.
    bool works = dies != kNone && (!p.callsInFunction[dies].empty() || !p.foreignCallsInFunction[dies].empty());
    if (works || !byHand) return false;
  }
  // Who makes the subscribers itself knows when they end.
  TypeIndex subject = p.variables[r.collection].owner;
  return std::none_of(p.creationsOfType[r.subscriber].begin(), p.creationsOfType[r.subscriber].end(), [&](uint32_t k) {
    FunctionIndex in = p.creations[k].in;
    return subject != kNone && in != kNone && p.functions[in].owner == subject;
  });
}

namespace {

// A function's own object stays listed when its block ends.
void checkLocalSubscribers(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<VariableIndex, VariableIndex>> told;
  for (const LocalRegistration& r : localRegistrationsIn(s)) {
    if (isLookedAfter(p, r.collection) || handsOutAgain(p, r.collection) || !told.insert({r.local, r.collection}).second) continue;
    Place walk = walkOver(p, r.collection, r.kept);
    Finding f = makeFinding(s, infoOf("lifetime.dangling-subscriber"), SIZE_MAX, r.usedAfter.known() && walk.known() ? Sureness::Certain : Sureness::Likely);
    std::string name(p.text(p.variables[r.local].name)), list = variableName(p, r.collection), function = functionName(p, r.in);
    f.subject = function + " " + name;
    f.place = r.place;
    f.message = function + " adds its own " + name + " to " + list + " and does not take it out: when the block ends, the list holds a dangling pointer.";
    f.evidence.push_back({p.variables[r.local].definition, "born: " + name + " is an object of this block"});
    f.evidence.push_back({r.place, "added: its address is passed here"});
    f.evidence.push_back({r.kept, "kept: the address is stored in " + list});
    if (r.usedAfter.known()) f.evidence.push_back({r.usedAfter, "dies: the block has ended, and the list's owner is used on"});
    if (walk.known()) f.evidence.push_back({walk, "still listed: the loop over " + list + " calls it"});
    f.advice = Advice::Unregister;
    f.reasonsFor.push_back("declared before the list's owner, or taken out at the end of the block, it is never called when it is gone");
    out.push_back(std::move(f));
  }
}

}  // namespace

void checkDanglingSubscriber(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  checkLocalSubscribers(s, out);
  std::set<std::pair<TypeIndex, VariableIndex>> told;
  for (const Registration& r : s.registrations) {
    if (!dangles(s, r) || !told.insert({r.subscriber, r.collection}).second) continue;
    bool byHand = p.guarantees(r.place.file).freedByHand.holds;
    FunctionIndex dies = endOf(p, r.subscriber);
    FunctionIndex remover = removerOf(p, r.collection);
    bool removesSomewhere = takesOutSomewhere(p, r);
    Sureness sureness = !byHand ? (dies != kNone && r.global ? Sureness::Likely : Sureness::Possible) : r.global && !removesSomewhere ? Sureness::Certain : removesSomewhere ? Sureness::Possible : Sureness::Likely;
    // Where none is seen to be made, they may all live as long as the list.
    bool made = p.anyDerived(r.subscriber, [&](TypeIndex at) { return std::any_of(p.creationsOfType[at].begin(), p.creationsOfType[at].end(), [&](uint32_t c) { return !p.creations[c].asBase; }); });
    if (byHand && !made) sureness = Sureness::Possible;
    Finding f = makeFinding(s, infoOf("lifetime.dangling-subscriber"), r.entity, sureness);
    std::string name = nameOf(p, r.subscriber), list = variableName(p, r.collection);
    std::string itself = r.asFunction ? "a function of its own" : "itself";
    f.subject = p.text(p.types[r.subscriber].qualified);
    f.place = r.place;
    f.message = byHand ? name + " registers " + itself + " in " + list + ", and its destructor does not unregister it: afterwards the list holds a dangling pointer."
                       : name + " puts " + itself + " into " + list + " and " + (dies != kNone ? functionName(p, dies) + " does not take it out" : "nothing takes it out again") + ": the list keeps it alive and goes on calling it.";
    f.evidence.push_back({r.place, "registered: " + name + (byHand && !r.asFunction ? " passes its own address" : " passes " + itself)});
    f.evidence.push_back({r.kept, byHand ? "kept: the address is stored in " + list : "kept: stored in " + list});
    if (dies != kNone) f.evidence.push_back({p.functions[dies].definition, "dies: " + std::string(p.functions[dies].form == FunctionForm::Destructor ? "the destructor" : functionName(p, dies)) + " does not remove it from the list"});
    else f.evidence.push_back({p.types[r.subscriber].definition, byHand ? "dies: there is no destructor that removes it" : "ends: it has no method that is called at its end"});
    if (remover != kNone && !byHand) f.evidence.push_back({p.functions[remover].definition.known() ? p.functions[remover].definition : r.kept, functionName(p, remover) + " would remove it"});
    if (Place walk = walkOver(p, r.collection, r.kept); walk.known()) f.evidence.push_back({walk, "still listed: the loop over " + list + " calls it"});
    f.advice = Advice::Unregister;
    f.reasonsFor.push_back(std::string(byHand ? "a destructor" : "a method") + " that unregisters it covers every place that makes a " + name);
    f.reasonsAgainst.push_back(byHand ? "copies and moves must be deleted too, or they are not registered" : "every owner has to call that method");
    out.push_back(std::move(f));
  }
}

namespace {

// Is there a constructor that copies and hands the new object to somebody, so that it is registered as well?
bool copiesRegister(const Program& p, TypeIndex type) {
  return std::any_of(p.types[type].methods.begin(), p.types[type].methods.end(), [&](FunctionIndex m) {
    const Function& fn = p.functions[m];
    if (fn.form != FunctionForm::Constructor || fn.parameters.empty() || fn.leastArguments > 1 || !fn.definition.known() || p.use(p.variables[fn.parameters[0]].type).decl != type) return false;
    return handsItselfOn(p, m);
  });
}

}  // namespace

void checkCopiedSubscriber(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<TypeIndex, VariableIndex>> told;
  for (const Registration& r : s.registrations) {
    Place definition = p.types[r.subscriber].definition;
    if (!definition.known() || !p.guarantees(definition.file).implicitCopy.holds || !p.guarantees(definition.file).freedByHand.holds) continue;
    if (!p.isCopyable(r.subscriber, definition.file) || isAbstract(p, r.subscriber) || copiesRegister(p, r.subscriber) || !told.insert({r.subscriber, r.collection}).second) continue;
    std::vector<Evidence> copies;
    for (uint32_t c : p.creationsOfType[r.subscriber])
      if (p.creations[c].copy) copies.push_back({p.creations[c].place, "copied here: the copy is not registered, and its destructor unregisters the original"});
    // Without a removal the missing one is told already, and its mending covers copies.
    if (copies.empty() && !endRemoves(p, r.subscriber, r.collection)) continue;
    Finding f = makeFinding(s, infoOf("lifetime.copied-subscriber"), r.entity, copies.empty() ? Sureness::Possible : Sureness::Certain);
    std::string name = nameOf(p, r.subscriber), list = variableName(p, r.collection);
    f.subject = p.text(p.types[r.subscriber].qualified);
    f.place = definition;
    f.message = name + " registers its address in " + list + ", and it can be copied: a copy is not registered, and its destructor unregisters the original.";
    f.evidence.push_back({r.place, "the address of this object is registered here"});
    f.evidence.push_back({definition, "copying is neither deleted nor ruled out by a member"});
    f.evidence.insert(f.evidence.end(), copies.begin(), copies.end());
    f.advice = Advice::Enforce;
    f.reasonsFor.push_back("with two deleted functions the compiler finds every copy");
    f.reasonsAgainst.push_back("a container of such objects has to hold pointers");
    out.push_back(std::move(f));
  }
}

namespace {

// Does the function look whether it is in the collection already?
bool looksFirst(const Program& p, FunctionIndex function, VariableIndex collection) {
  if (function == kNone) return false;
  for (uint32_t u : p.usesInFunction[function]) {
    const Use& use = p.uses[u];
    if (use.variable != collection) continue;
    Place up = p.parent(use.place);
    if (p.node(up).kind == Kind::Member && p.guarantees(up.file).collectionAct(p.nameOf(up)) == CollectionAct::Read) return true;
    if (p.around(use.place, Kind::If).node != kNoNode || p.node(up).kind == Kind::Compare) return true;
  }
  return false;
}

bool holdsEachOnce(const Program& p, VariableIndex collection) {
  const Variable& variable = p.variables[collection];
  if (p.traits(variable.declarations.front().file, variable.type) & kKeyedCollection) return true;
  return lowerCase(p.text(p.use(variable.type).name)).find("set") != std::string::npos;
}

}  // namespace

void checkDuplicateSubscription(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::map<std::pair<TypeIndex, VariableIndex>, std::vector<Registration>> byPair;
  for (const Registration& r : s.registrations) byPair[{r.subscriber, r.collection}].push_back(r);
  for (auto& [pair, list] : byPair) {
    auto [subscriber, collection] = pair;
    // What is added to at its end could be a table as well, by its type.
    if (holdsEachOnce(p, collection) && appendedTo(p.file(list.front().kept), list.front().kept.node) == kNoNode) continue;
    std::erase_if(list, [&](const Registration& r) {
      std::set<FunctionIndex> seen;
      // Taken out first, or looked for: it is there once.
      bool takenOut = false;
      for (uint32_t c : p.callsInFunction[r.in]) takenOut |= p.calls[c].callee != r.by && removesFrom(p, p.calls[c].callee, collection, seen);
      return takenOut || looksFirst(p, r.by, collection) || (r.by == kNone && looksFirst(p, r.in, collection)) || r.resultUsed || (!isConstruction(p, r.in) && p.around(r.place, Kind::If).node != kNoNode);
    });
    if (list.empty()) continue;
    const Registration* again = nullptr;
    std::string how;
    Place where;
    for (const Registration& r : list) {
      if (again) break;
      bool constructs = isConstruction(p, r.in);
      if (p.around(r.place, Kind::Loop).node != kNoNode) {
        again = &r, where = r.place, how = "a loop registers the same object in each turn";
      } else if (&r != &list.front() && r.in != list.front().in && isConstruction(p, list.front().in) != constructs) {
        again = &r, where = list.front().place, how = "registered here as well";
      } else if (auto earlier = std::find_if(list.begin(), list.begin() + (&r - list.data()), [&](const Registration& other) { return other.in == r.in && !other.asFunction; }); earlier != list.begin() + (&r - list.data()) && !r.asFunction) {
        again = &r, where = earlier->place, how = "registered here as well";
      } else if (!constructs) {
        // A method that the class's own constructor calls, and others again.
        bool first = false, later = false;
        for (uint32_t c : p.callsOfFunction[r.in]) {
          if (s.inTests(p.calls[c].place)) continue;
          bool own = p.calls[c].in != kNone && p.functions[p.calls[c].in].owner == subscriber;
          if (own && isConstruction(p, p.calls[c].in)) first = true, where = p.calls[c].place;
          else later = true;
        }
        if (first && later) again = &r, how = "called by the constructor, and by others again";
      }
    }
    if (!again) continue;
    Finding f = makeFinding(s, infoOf("lifetime.duplicate-subscription"), again->entity, Sureness::Likely);
    std::string name = nameOf(p, subscriber), listName = variableName(p, collection);
    f.subject = p.text(p.types[subscriber].qualified);
    f.place = again->place;
    f.message = "The same " + name + " is registered in " + listName + " more than once: it is notified as often, and removing it once leaves the rest.";
    f.evidence.push_back({where, how});
    f.evidence.push_back({again->place, "registered again here"});
    f.evidence.push_back({again->kept, "added without a test whether it is there"});
    f.advice = Advice::Enforce;
    f.reasonsFor.push_back("a test before adding, or a set instead of a list, covers every subscriber");
    f.reasonsAgainst.push_back("a subscriber that registers twice on purpose is then notified once");
    out.push_back(std::move(f));
  }
}

namespace {

// What a loop calls on the elements that it walks over, or the elements themselves when they are functions.
Place calledOnElements(const Program& p, Place loop, NodeId body, FunctionIndex& callee) {
  const LoweredFile& file = p.file(loop);
  Place called;
  auto elementOf = [&](NodeId n) {
    Symbol symbol = p.links[loop.file].symbol[n];
    if (!symbol.is(Symbol::Sort::Variable)) return false;
    const Variable& local = p.variables[symbol.index()];
    return local.storage == Storage::Local && local.definition.known() && local.definition.file == loop.file && p.isInside(local.definition, loop.node) && !p.isInside(local.definition, body);
  };
  forEachNode(file, loop.node, [&](NodeId n) {
    if (called.known() || file[n].kind != Kind::Call || !(n == body || p.isInside({loop.file, n}, body))) return;
    NodeId target = file.child(n, Role::Callee);
    if (target == kNoNode) return;
    NodeId receiver = file[target].kind == Kind::Member ? file.child(target, Role::Receiver) : target;
    while (receiver != kNoNode && (file[receiver].kind == Kind::Dereference || file[receiver].kind == Kind::Member || file[receiver].kind == Kind::Call)) {
      NodeId inner = file.child(receiver, file[receiver].kind == Kind::Member ? Role::Receiver : file[receiver].kind == Kind::Call ? Role::Callee : Role::Operand);
      if (inner == kNoNode) break;
      // What is asked of a text or number in the element is no call of the element.
      Symbol part = file[receiver].kind == Kind::Member ? p.symbolAt({loop.file, receiver}) : Symbol{};
      if (part.is(Symbol::Sort::Variable) && isPlainValue(p, part.index())) return;
      receiver = inner;
    }
    if (receiver == kNoNode || !elementOf(receiver)) return;
    called = {loop.file, n};
    Symbol symbol = p.symbolAt(called);
    if (symbol.is(Symbol::Sort::Function)) callee = symbol.index();
  });
  return called;
}

}  // namespace

Notification notificationOf(const Program& p, VariableIndex collection) {
  Notification out;
  for (uint32_t u : p.usesOfVariable[collection]) {
    const Use& use = p.uses[u];
    Place walked = use.place, loop = p.parent(walked);
    // The loop may walk over a copy: list(x), x.slice(), new ArrayList<>(x).
    auto isCopied = [&](Kind kind) { return kind == Kind::Call || kind == Kind::Create || kind == Kind::Member || kind == Kind::Index; };
    for (int depth = 0; depth < 4 && loop.node != kNoNode && isCopied(p.node(loop).kind); ++depth) walked = loop, loop = p.parent(loop);
    if (use.in == kNone || loop.node == kNoNode || p.node(loop).kind != Kind::Loop || p.node(walked).role == Role::Body) continue;
    FunctionIndex called = kNone;
    Place call = calledOnElements(p, loop, p.file(loop).child(loop.node, Role::Body), called);
    if (!call.known()) continue;
    NodeId callee = p.file(call).child(call.node, Role::Callee);
    out = {use.in, called, callee != kNoNode && p.file(call)[callee].kind == Kind::Member ? p.file(call).name(callee) : std::string_view()};
    if (called != kNone) return out;
  }
  return out;
}

namespace {

// The function that was put in, or what is called in one that is written there.
void addFunctionsOf(const Program& p, const Registration& r, std::vector<FunctionIndex>& out) {
  Place given{r.given.file, bareExpression(p.file(r.given), r.given.node)};
  if (Symbol named = p.symbolAt(given); named.is(Symbol::Sort::Function)) out.push_back(named.index());
  for (uint32_t c : p.callsInFunction[r.in])
    if (p.calls[c].place.file == given.file && p.isInside(p.calls[c].place, given.node)) out.push_back(p.calls[c].callee);
}

// Is the collection itself ever added to or taken from? Who only puts another in its place leaves a walk over the old one whole.
bool changesInPlace(const Program& p, VariableIndex v) {
  auto uses = p.usesOfVariable[v];
  return std::any_of(uses.begin(), uses.end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    CollectionAct act = actAt(p, use.place);
    bool acts = act == CollectionAct::Add || act == CollectionAct::Remove || act == CollectionAct::Change;
    return acts || use.access == Access::Update || use.access == Access::Bind || (use.access != Access::Read && (use.inMember || use.throughPointer)) || p.node(p.parent(use.place)).kind == Kind::Destroy;
  });
}

// Who may change the list meanwhile: what is called, in any of its bodies, gets to a function that does.
std::vector<Evidence> wayToAChange(const Subject& s, const Use& use, FunctionIndex callee) {
  const Program& p = s.program;
  std::vector<FunctionIndex> bodies;
  if (callee != kNone) {
    bodies.push_back(callee);
    if (TypeIndex owner = p.functions[callee].owner; owner != kNone)
      for (TypeIndex d : p.types[owner].derived)
        for (FunctionIndex m : p.types[d].methods)
          if (p.functions[m].name == p.functions[callee].name) bodies.push_back(m);
  } else {
    // Functions that were put in: those of the objects that registered with the list.
    for (const Registration& r : s.registrations)
      if (r.collection == use.variable && r.asFunction) addFunctionsOf(p, r, bodies);
  }
  for (FunctionIndex b : bodies) {
    Wanted changes{nullptr, [&](FunctionIndex f) {
                     for (uint32_t u : p.usesInFunction[f]) {
                       const Use& inner = p.uses[u];
                       if (inner.variable != use.variable) continue;
                       Place up = p.parent(inner.place);
                       CollectionAct act = p.node(up).kind == Kind::Member ? p.guarantees(up.file).collectionAct(p.nameOf(up)) : CollectionAct::None;
                       if (act == CollectionAct::Add || act == CollectionAct::Remove) return true;
                     }
                     return false;
                   },
                   0};
    std::vector<Reached> reached = s.reaching.fromFunction(b, changes);
    if (!reached.empty()) return reached.front().chain;
  }
  return {};
}

}  // namespace

namespace {

VariableIndex variableAt(const Program& p, FileIndex f, NodeId node) {
  Symbol symbol = node == kNoNode ? Symbol{} : p.symbolAt({f, node});
  return symbol.is(Symbol::Sort::Variable) ? symbol.index() : kNone;
}

// Is the loop left in any case after the place, so that it does not go on over what has changed?
bool leavesLoopAfter(const Program& p, Place place, NodeId body) {
  const LoweredFile& file = p.file(place);
  for (NodeId below = place.node; below != body && below != kNoNode; below = file.parents[below])
    for (NodeId next = file[below].nextSibling; next != kNoNode; next = file[next].nextSibling)
      if (passes(p, {place.file, next}, true) == Answer::No) return true;
  return false;
}

// for (x : list) list.remove(x), or for (x : object.list) object.removeX(x): the list that is walked over gets shorter.
bool takesFromWalked(const Program& p, const ForeignCall& call, Place loop, VariableIndex* list) {
  const LoweredFile& file = p.file(loop);
  NodeId walked = file.child(loop.node, Role::Operand), receiver = receiverOf(file, call.place.node);
  VariableIndex of = variableAt(p, loop.file, receiver);
  if (walked == kNoNode || of == kNone) return false;
  std::vector<NodeId> given = argumentsOf(file, call.place.node);
  VariableIndex element = given.size() == 1 ? variableAt(p, loop.file, given[0]) : kNone;
  NodeId body = file.child(loop.node, Role::Body);
  if (element == kNone || !p.variables[element].definition.known() || p.variables[element].definition.file != loop.file) return false;
  if (!p.isInside(p.variables[element].definition, loop.node) || p.isInside(p.variables[element].definition, body)) return false;
  if (variableAt(p, loop.file, walked) == of) {
    *list = of;
    return actAt(p, {loop.file, receiver}) == CollectionAct::Remove;
  }
  if (!p.guarantees(loop.file).membersAreLists) return false;
  std::string does = lowerCase(lastPart(p.text(call.name)));
  bool removes = does.starts_with("remove") || does.starts_with("unregister") || does.starts_with("detach");
  *list = variableAt(p, loop.file, walked);
  return removes && file[walked].kind == Kind::Member && variableAt(p, loop.file, file.child(walked, Role::Receiver)) == of;
}

size_t entityOfList(const Subject& s, VariableIndex list) {
  for (size_t i = 0; i < s.survey.entities.size() && list != kNone; ++i) {
    const Entity& e = s.survey.entities[i];
    if (!e.harmless && (e.slot == list || (e.type != kNone && e.type == s.program.variables[list].owner))) return i;
  }
  return SIZE_MAX;
}

void checkRemovedInLoop(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (const ForeignCall& call : p.foreignCalls) {
    const Guarantees& g = p.guarantees(call.place.file);
    if (call.in == kNone || g.changedWalk.empty() || s.inTests(call.place)) continue;
    Place loop = p.around(call.place, Kind::Loop);
    NodeId body = loop.node == kNoNode ? kNoNode : p.file(loop).child(loop.node, Role::Body);
    VariableIndex list = kNone;
    if (body == kNoNode || !p.isInside(call.place, body) || !takesFromWalked(p, call, loop, &list)) continue;
    // A list of the function's own is seen at once; a library's object is not.
    if (list != kNone && ((p.variables[list].storage != Storage::Field && !p.variables[list].lives()) || (variableTraits(p, list) & kSteadyWalk))) continue;
    // How a collection of the tree's own bears a change is its own matter.
    if (list != kNone && p.use(p.variables[list].type).decl != kNone && !(variableTraits(p, list) & (kCollection | kKeyedCollection))) continue;
    if (leavesLoopAfter(p, call.place, body)) continue;
    Place walked{loop.file, p.file(loop).child(loop.node, Role::Operand)};
    size_t entity = entityOfList(s, list);
    Finding f = makeFinding(s, infoOf("lifetime.notify-while-changing"), entity, list == kNone ? Sureness::Likely : Sureness::Certain);
    f.subject = entity != SIZE_MAX ? s.survey.entities[entity].id : list != kNone ? std::string(p.text(p.variables[list].qualified)) : std::string(p.text(p.functions[call.in].qualified));
    f.place = call.place;
    f.message = functionName(p, call.in) + " iterates over " + (list != kNone ? variableName(p, list) : std::string(p.nameOf(walked))) + " and removes the element from it in the loop.";
    f.evidence = {{walked, "the loop runs over the list itself, not over a copy"}, {call.place, "takes the element out of it"}, {walked, std::string(g.changedWalk)}};
    f.advice = Advice::ByHand;
    if (entity == SIZE_MAX) {
      f.reasonsFor.push_back("iterating over a copy costs one line");
      f.reasonsAgainst.push_back("the copy is made each time");
    }
    out.push_back(std::move(f));
  }
}

}  // namespace

void checkNotifyWhileChanging(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  checkRemovedInLoop(s, out);
  std::set<VariableIndex> told;
  auto isList = [&](VariableIndex v) {
    const Variable& variable = p.variables[v];
    uint32_t traits = variableTraits(p, v);
    return (variable.storage == Storage::Field || variable.lives()) && (traits & (kCollection | kKeyedCollection)) && !(traits & (kSafeToShare | kSteadyWalk));
  };
  for (const Use& use : p.uses) {
    if (use.in == kNone || s.inTests(use.place) || !isList(use.variable)) continue;
    const Guarantees& g = p.guarantees(use.place.file);
    Place loop = p.parent(use.place);
    if (g.changedWalk.empty() || p.node(loop).kind != Kind::Loop || p.node(use.place).role == Role::Body || told.count(use.variable)) continue;
    const LoweredFile& file = p.file(loop);
    NodeId body = file.child(loop.node, Role::Body);
    if (body == kNoNode || p.isInside(use.place, body)) continue;
    FunctionIndex callee = kNone;
    Place called = calledOnElements(p, loop, body, callee);
    if (!called.known() || !changesInPlace(p, use.variable)) continue;
    std::vector<Evidence> chain = wayToAChange(s, use, callee);
    FunctionIndex remover = leaverOf(p, use.variable, use.in);
    bool own = remover != kNone;
    // No way seen: only worth a word where strangers are called, and the list can be left.
    bool strangers = callee == kNone || (p.functions[callee].modifiers & (kAbstract | kVirtual));
    if (chain.empty() && (!own || !strangers)) continue;
    told.insert(use.variable);
    size_t entity = entityOfList(s, use.variable);
    // A list of an object that is not shared concerns who made it.
    if (entity == SIZE_MAX && chain.empty()) continue;
    // On a condition, or of an object of which there are others: it may be another list that changes.
    bool sometimes = std::any_of(chain.begin(), chain.end(), [&](const Evidence& step) { return step.place.known() && (p.around(step.place, Kind::If).node != kNoNode || p.around(step.place, Kind::Switch).node != kNoNode); });
    bool others = entity == SIZE_MAX && p.variables[use.variable].storage == Storage::Field;
    Finding f = makeFinding(s, infoOf("lifetime.notify-while-changing"), entity, chain.empty() || (sometimes && others) ? Sureness::Possible : sometimes || others ? Sureness::Likely : Sureness::Certain);
    std::string list = variableName(p, use.variable);
    f.subject = entity == SIZE_MAX ? std::string(p.text(p.variables[use.variable].qualified)) : s.survey.entities[entity].id;
    f.place = use.place;
    f.message = functionName(p, use.in) + " iterates over " + list + " and calls each element" + (chain.empty() ? "; an element that removes itself changes the list during the iteration." : ", and that call changes the list during the iteration.");
    f.evidence.push_back({use.place, "the loop runs over the list itself, not over a copy"});
    f.evidence.push_back({called, "calls an element"});
    if (!chain.empty()) f.evidence.insert(f.evidence.end(), chain.begin(), chain.end());
    else if (p.functions[remover].definition.known()) f.evidence.push_back({p.functions[remover].definition, functionName(p, remover) + " removes elements, and any of them may call it"});
    f.evidence.push_back({use.place, std::string(g.changedWalk)});
    f.advice = Advice::ByHand;
    if (entity == SIZE_MAX) {
      f.reasonsFor.push_back("iterating over a copy costs one line");
      f.reasonsAgainst.push_back("an element that was removed meanwhile is still called once");
    }
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

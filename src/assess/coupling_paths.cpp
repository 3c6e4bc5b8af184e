// Family "tie": layers, circles, what is created inside, and what is passed along.
#include <algorithm>
#include <map>
#include <set>

#include "assess/collaborators.h"
#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"
#include "flow/control.h"
#include "lowered/notes.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

// Of any class, too: what is called so puts a program together.
bool isCalledMain(const Program& p, FunctionIndex f) { return p.text(p.functions[f].name) == "main"; }

}  // namespace

void checkLayerBreach(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  if (s.config.layers.empty()) return;
  std::vector<size_t> layerOf(p.files.size(), SIZE_MAX);
  for (FileIndex f = 0; f < p.files.size(); ++f)
    for (size_t l = 0; l < s.config.layers.size() && layerOf[f] == SIZE_MAX; ++l)
      if (s.config.layers[l].files.match(p.files[f].path)) layerOf[f] = l;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    size_t home = layerOf[e.place.file];
    if (e.harmless || home == SIZE_MAX) continue;
    std::map<size_t, std::vector<const Consumer*>> breaches;
    for (const Consumer& c : e.consumers) {
      size_t from = layerOf[c.place.file];
      if (from == SIZE_MAX || from == home || s.inTests(c.place)) continue;
      const std::vector<std::string>& may = s.config.layers[from].mayReach;
      if (std::find(may.begin(), may.end(), s.config.layers[home].name) == may.end()) breaches[from].push_back(&c);
    }
    for (auto& [from, sites] : breaches) {
      Finding f = makeFinding(s, infoOf("coupling.layer-breach"), i, Sureness::Certain);
      f.risk.setSites(sites.size());
      f.place = sites.front()->place;
      f.message = "The layer " + s.config.layers[from].name + " reaches " + e.shown + " of the layer " + s.config.layers[home].name + " at " + counted(sites.size(), "site", "sites") + ", which the configuration forbids.";
      for (const Consumer* c : sites)
        if (f.evidence.size() < 8) f.evidence.push_back({c->place, unitText(s, *c) + " reaches it here"});
      f.evidence.push_back({e.place, "declared here, in the layer " + s.config.layers[home].name});
      f.advice = Advice::Inject;
      out.push_back(std::move(f));
    }
  }
}

void checkTieCycle(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    // A ready object that does not change is a constant that both know.
    if (e.harmless || e.type == kNone || (e.kind != EntityKind::Singleton && (e.kind != EntityKind::SharedInstance || !couples(s, e)))) continue;
    // Who it works with: calls of other classes' functions in its own.
    std::map<TypeIndex, Place> knows;
    for (FunctionIndex m : p.types[e.type].methods)
      for (uint32_t c : p.callsInFunction[m]) {
        const CallSite& call = p.calls[c];
        TypeIndex other = p.functions[call.callee].owner;
        // Through an interface it does not know the class.
        if (other == kNone || other == e.type || p.derivesFrom(e.type, other) || (p.functions[call.callee].modifiers & kAbstract)) continue;
        knows.emplace(other, call.place);
      }
    std::map<TypeIndex, Place> known;
    for (const Consumer& c : e.consumers) {
      TypeIndex owner = c.in == kNone ? kNone : p.functions[c.in].owner;
      if (owner == kNone || owner == e.type || s.inTests(c.place) || !knows.count(owner) || p.derivesFrom(owner, e.type)) continue;
      // A class written inside the other belongs to it.
      if (p.types[owner].parent == p.types[e.type].scope || p.types[e.type].parent == p.types[owner].scope) continue;
      // Two classes of one module are built and tested with it.
      bool oneFile = p.types[owner].definition.known() && p.types[owner].definition.file == p.types[e.type].definition.file;
      if (oneFile && p.language(c.place.file).infersTypes) continue;
      known.emplace(owner, c.place);
    }
    if (known.empty()) continue;
    auto& [other, back] = *known.begin();
    Finding f = makeFinding(s, infoOf("coupling.cycle"), i, Sureness::Certain);
    std::string name(p.text(p.types[other].name));
    f.place = knows[other];
    f.message = e.shown + " works with " + name + (known.size() > 1 ? " and " + counted(known.size() - 1, "other class", "other classes") : std::string()) + ", which in turn reaches " + e.shown + ": neither can be built or tested without the other.";
    for (auto& [type, place] : known) {
      if (f.evidence.size() >= 8) break;
      f.evidence.push_back({knows[type], e.shown + " works with " + std::string(p.text(p.types[type].name)) + " here"});
      f.evidence.push_back({place, std::string(p.text(p.types[type].name)) + " reaches " + e.shown + " here"});
    }
    f.advice = Advice::Inject;
    out.push_back(std::move(f));
  }
}

namespace {

// The local variable that holds what is made there.
VariableIndex localHolding(const Program& p, const Creation& creation) {
  Place up = p.parent(creation.place);
  VariableIndex v = creation.asVariable;
  if (v == kNone) {
    NodeId target = p.node(up).kind == Kind::Assign ? p.file(up).child(up.node, Role::Target) : p.node(up).kind == Kind::Variable ? up.node : kNoNode;
    Symbol into = target == kNoNode ? Symbol{} : p.symbolAt({up.file, target});
    if (into.is(Symbol::Sort::Variable)) v = into.index();
  }
  return v != kNone && p.variables[v].storage == Storage::Local ? v : kNone;
}

// Is the object handed to others: returned, thrown, stored or passed on?
bool leavesItsFunction(const Program& p, VariableIndex local) {
  return std::any_of(p.usesOfVariable[local].begin(), p.usesOfVariable[local].end(), [&](uint32_t u) {
    Place at = p.uses[u].place, up = p.parent(at);
    if (p.node(up).kind == Kind::AddressOf) at = up, up = p.parent(up);
    Kind kind = p.node(up).kind;
    return kind == Kind::Return || kind == Kind::Throw || kind == Kind::Collection || kind == Kind::Capture || p.node(at).role == Role::Argument || p.node(at).role == Role::Value;
  });
}

// Does a method of its class put there what it is given? Then a test can put a test double there.
bool isSetByOthers(const Program& p, VariableIndex field) {
  return std::any_of(p.usesOfVariable[field].begin(), p.usesOfVariable[field].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    if (use.access != Access::Write || use.inMember || use.throughPointer || use.in == kNone || isConstruction(p, use) || (p.functions[use.in].modifiers & kPrivate)) return false;
    NodeId value = p.assignedAt(use.place);
    Symbol given = value == kNoNode ? Symbol{} : p.symbolAt({use.place.file, bareExpression(p.file(use.place), value)});
    return given.is(Symbol::Sort::Variable) && p.variables[given.index()].storage == Storage::Parameter;
  });
}

// Does the owner call the member, of what the field keeps? What it never calls does its tests no harm.
bool isAskedBy(const Program& p, FunctionIndex member, TypeIndex owner, VariableIndex field) {
  auto calls = p.callsOfFunction[member];
  return std::any_of(calls.begin(), calls.end(), [&](uint32_t c) {
    NodeId receiver = receiverOf(p.file(p.calls[c].place), p.calls[c].place.node);
    Symbol asked = receiver == kNoNode ? Symbol{} : p.symbolAt({p.calls[c].place.file, bareExpression(p.file(p.calls[c].place), receiver)});
    bool another = asked.is(Symbol::Sort::Variable) && asked.index() != field && p.variables[asked.index()].storage == Storage::Field;
    if (field != kNone && another) return false;
    TypeIndex caller = p.calls[c].in == kNone ? kNone : p.functions[p.calls[c].in].owner;
    return caller != kNone && (caller == owner || p.derivesFrom(owner, caller) || p.derivesFrom(caller, owner) || p.types[caller].parent == p.types[owner].scope);
  });
}

// Is it made from a parameter of the constructor that makes it?
bool isSteered(const Program& p, const Collaborator& one) {
  std::vector<NodeId> given = argumentsOf(p.file(one.creation), one.creation.node);
  return std::any_of(given.begin(), given.end(), [&](NodeId argument) {
    Symbol symbol = p.symbolAt({one.creation.file, argument});
    return symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Parameter;
  });
}

// A part of a window, or what a class that only hands calls on hands them to: they are one thing in two classes.
bool isPartOf(const Program& p, const Collaborator& one) {
  bool library = p.types[one.owner].hasUnknownBase && p.types[one.type].hasUnknownBase;
  return library || p.text(p.types[one.type].name).starts_with(p.text(p.types[one.owner].name));
}

// Does it do, in a member that its owner asks for, what tests want to keep out: files, network, threads, processes, sleeping?
bool servesWithWeight(const Program& p, Collaborator& one) {
  for (FunctionIndex m : p.types[one.type].methods) {
    const Function& fn = p.functions[m];
    if ((fn.form != FunctionForm::Function && fn.form != FunctionForm::Getter) || !fn.definition.known() || fn.isStaticMember() || !isAskedBy(p, m, one.owner, one.field)) continue;
    std::vector<Weight> weights = weightsOf(p, m);
    if (weights.empty()) continue;
    // A test that may say which file is meant has its own.
    if (isSteered(p, one) && weights.front().what.starts_with("opens a file")) continue;
    one.why = weights.front().place;
    one.what = functionName(p, m) + " " + weights.front().what;
    return true;
  }
  return false;
}

// Is it made from what is written there, so that no caller and no field says which file, host or the like is meant?
bool isMadeFromConstants(const Program& p, Place creation) {
  const LoweredFile& file = p.file(creation);
  bool text = false;
  for (NodeId given : argumentsOf(file, creation.node)) {
    Place value{creation.file, given};
    text |= file[given].is(Kind::Literal, LiteralForm::Text);
    if (file[given].kind == Kind::Literal) continue;
    Symbol symbol = p.symbolAt(value);
    if (!symbol.is(Symbol::Sort::Variable) || !(p.variables[symbol.index()].modifiers & kConst) || !p.variables[symbol.index()].lives()) return false;
    text = true;
  }
  return text;
}

// A method that makes an object for itself whose making alone opens a file, starts a thread or the like, always the same
// one. What it hands out or throws is made for others.
void findMadeInMethods(const Subject& s, std::vector<Collaborator>& out) {
  const Program& p = s.program;
  std::map<TypeIndex, std::vector<Weight>> weightOf;
  for (const Creation& creation : p.creations) {
    if (creation.asBase || creation.delegated || creation.copy || creation.in == kNone || s.inTests(creation.place) || p.inOtherBranch(creation.place)) continue;
    const Function& fn = p.functions[creation.in];
    if (fn.owner == kNone || fn.form != FunctionForm::Function || fn.isStaticMember() || isCalledMain(p, creation.in) || p.derivesFrom(creation.type, fn.owner) || p.types[creation.type].parent == p.types[fn.owner].scope) continue;
    if (s.isSingleton(creation.type) || s.isSingleton(fn.owner)) continue;
    if (!isMadeFromConstants(p, creation.place)) continue;
    VariableIndex local = localHolding(p, creation);
    if (local == kNone || leavesItsFunction(p, local)) continue;
    auto [weights, fresh] = weightOf.try_emplace(creation.type);
    if (fresh) weights->second = weightsOfCreation(p, creation.type, creation.constructor);
    if (weights->second.empty()) continue;
    Collaborator one{fn.owner, creation.type, kNone, creation.in, creation.place, weights->second.front().place, "making it " + weights->second.front().what};
    out.push_back(std::move(one));
  }
}

}  // namespace

std::vector<Collaborator> fixedCollaborators(const Subject& s) {
  const Program& p = s.program;
  std::map<TypeIndex, std::vector<Collaborator>> byType;  // of what is made
  for (const Creation& creation : p.creations) {
    if (creation.asBase || creation.delegated || creation.copy || s.inTests(creation.place)) continue;
    // Kept in a field of another class: by its initialiser, or by its constructor.
    VariableIndex field = creation.asVariable != kNone ? creation.asVariable : creation.inInitialiserOf;
    bool byConstructor = field == kNone;
    Place up = p.parent(creation.place);
    // A part that is there without being made.
    if (creation.asVariable != kNone && p.guarantees(creation.place.file).noConstructors.holds) continue;
    // Made only where nothing was handed in.
    if (p.around(creation.place, Kind::Conditional).node != kNoNode) continue;
    if (byConstructor && p.node(up).kind == Kind::Create && p.node(creation.place).role == Role::Value) {
      // &Navigator{store: &ChartStore{}}: the one field of that class.
      for (uint32_t c : creation.in == kNone ? std::vector<uint32_t>{} : p.creationsInFunction[creation.in])
        if (p.creations[c].place == up)
          for (VariableIndex v : p.types[p.creations[c].type].fields)
            if (p.classBehind(up.file, p.variables[v].type) == creation.type) field = v;
    } else if (byConstructor && creation.in != kNone && p.functions[creation.in].form == FunctionForm::Constructor) {
      NodeId target = p.node(up).kind == Kind::Assign ? p.file(up).child(up.node, Role::Target) : kNoNode;
      if (p.node(up).kind == Kind::FieldInit) target = up.node;
      Symbol symbol = target == kNoNode ? Symbol{} : p.symbolAt({up.file, target});
      if (symbol.is(Symbol::Sort::Variable)) field = symbol.index();
    }
    if (field == kNone || p.variables[field].storage != Storage::Field) continue;
    TypeIndex owner = p.variables[field].owner;
    if (isSetByOthers(p, field)) continue;
    if (owner == kNone || owner == creation.type || p.types[creation.type].parent == p.types[owner].scope) continue;
    Collaborator one;
    one.owner = byConstructor && p.functions[creation.in].owner != kNone ? p.functions[creation.in].owner : owner;
    one.type = creation.type;
    one.field = field;
    one.in = creation.in;
    one.creation = creation.place;
    byType[creation.type].push_back(one);
  }
  std::vector<Collaborator> out;
  for (auto& [type, found] : byType) {
    // One that is shared already is told by what it is.
    if (s.isSingleton(type)) continue;
    for (Collaborator& one : found)
      if (one.owner != type && !isPartOf(p, one) && servesWithWeight(p, one)) out.push_back(one);
  }
  findMadeInMethods(s, out);
  return out;
}

void checkFixedCollaborator(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<TypeIndex, TypeIndex>> told;
  for (const Collaborator& one : s.collaborators) {
    if (!told.insert({one.type, one.owner}).second) continue;
    // A file that is read in passing can be laid out for a test.
    bool passing = one.what.find(" opens a file ") != std::string::npos || one.what.find(" sleeps ") != std::string::npos;
    Finding f = makeFinding(s, infoOf("coupling.fixed-collaborator"), SIZE_MAX, passing ? Sureness::Possible : Sureness::Likely);
    std::string name(p.text(p.types[one.owner].name)), other(p.text(p.types[one.type].name));
    f.subject = p.text(p.types[one.owner].qualified);
    f.place = one.creation;
    f.risk.setSites(p.creationsOfType[one.owner].size());
    f.message = name + " makes its own " + other + ", so a test cannot pass a test double; " + one.what + ".";
    f.evidence.push_back({one.creation, name + " makes it here"});
    f.evidence.push_back({one.why, one.what});
    f.advice = Advice::InjectCollaborator;
    if (one.field != kNone) {
      f.reasonsFor.push_back("a constructor parameter shows that " + name + " depends on it, and a test can pass a test double");
      f.reasonsAgainst.push_back("callers that pass nothing still get one that " + name + " chose");
    } else {
      f.reasonsFor.push_back("a parameter of " + functionName(p, one.in) + ", or a function that makes one and is handed to the constructor, lets a test pass a test double");
    }
    out.push_back(std::move(f));
  }
}

void checkStaticOnlyApi(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.kind != EntityKind::StaticHolder || !couples(s, e) || isSetting(s, e) || isToldAsWide(s, e)) continue;
    const std::function<bool(const Consumer&)> counts = whoCounts(s, e);
    std::vector<std::string> classes = consumerClasses(s, e, counts);
    if (classes.size() < 2) continue;
    // Of a table or number behind them two may know; three want an object.
    bool service = !e.creation.weights.empty() || std::any_of(e.state.begin(), e.state.end(), [&](const StateField& field) { return p.classBehind(p.variables[field.variable].home().file, p.variables[field.variable].type) != kNone; });
    if (!service && classes.size() < 3) continue;
    Finding f = makeFinding(s, infoOf("coupling.static-only-api"), i, Sureness::Certain);
    f.place = e.place;
    f.message = e.shown + " has static members only, and " + std::to_string(classes.size()) + " classes or files call them: a test cannot replace it by an object.";
    std::set<std::string> told;
    for (const Consumer& c : e.consumers)
      if (!s.inTests(c.place) && !isInOwnClass(p, e, c.place) && counts(c) && told.insert(unitText(s, c)).second && f.evidence.size() < 6) f.evidence.push_back({c.place, unitText(s, c) + " calls it by name"});
    for (VariableIndex v : e.slots)
      if (f.evidence.size() < 8) f.evidence.push_back({p.variables[v].declarations.front(), "state behind the static members"});
    f.advice = Advice::Wrap;
    out.push_back(std::move(f));
  }
}

namespace {

// Is the object called there for what the call does, and not for what comes out of it?
bool isCalledForItself(const Program& p, const Consumer& c) {
  if (c.method == kNone) return false;
  Place at = c.place;
  for (Place up = p.parent(at); up.node != kNoNode; at = up, up = p.parent(up)) {
    Kind kind = p.node(up).kind;
    if (kind == Kind::ExpressionStatement || kind == Kind::Block) return p.node(at).kind == Kind::Call || p.node(at).kind == Kind::Await;
    bool through = kind == Kind::Await || kind == Kind::Dereference || (kind == Kind::Member && p.node(at).role == Role::Receiver) || (kind == Kind::Call && p.node(at).role == Role::Callee);
    if (!through) return false;
  }
  return false;
}

// Does the program's entry run it, once, by way of functions that it runs so? No: what answers events, say. NotKnown: nobody in
// the tree calls it.
Answer isRunByEntry(const Subject& s, FunctionIndex f, int depth) {
  const Program& p = s.program;
  if (f == kNone || isMain(p, f)) return Answer::Yes;
  Answer all = Answer::Yes;
  size_t calls = 0;
  for (uint32_t c : p.callsOfFunction[f]) {
    const CallSite& call = p.calls[c];
    if (s.inTests(call.place)) continue;
    ++calls;
    bool once = depth < 5 && p.around(call.place, Kind::Loop).node == kNoNode && p.around(call.place, Kind::Lambda).node == kNoNode;
    all = std::min(all, once ? isRunByEntry(s, call.in, depth + 1) : Answer::No);
    if (all == Answer::No) return all;
  }
  if (calls == 0) return s.isAtWork(f) || isCalledByLibrary(p, f) ? Answer::No : Answer::NotKnown;
  return all;
}

}  // namespace

void checkCrowdedStartup(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  // What each function starts or calls: no variable that is looked at.
  std::map<FunctionIndex, std::map<size_t, const Consumer*>> byFunction;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || (e.kind != EntityKind::Singleton && e.kind != EntityKind::SharedInstance && e.kind != EntityKind::StaticHolder && e.kind != EntityKind::Ambient)) continue;
    for (const Consumer& c : e.consumers) {
      if (c.in == kNone || (c.method == kNone && !c.reach)) continue;
      if (p.functions[c.in].owner != kNone && p.functions[c.in].owner == e.type) continue;
      auto [entry, fresh] = byFunction[c.in].emplace(i, &c);
      if (!fresh && !isCalledForItself(p, *entry->second) && isCalledForItself(p, c)) entry->second = &c;
    }
  }
  for (auto& [m, reached] : byFunction) {
    if (!p.functions[m].definition.known() || s.inTests(p.functions[m].definition)) continue;
    if (reached.size() < static_cast<size_t>(s.config.crowdedStartup)) continue;
    // What answers events, or is called again and again, is no start of the program.
    Answer atStart = s.threads.sideOf(m).startsUp() || s.threads.calledAtStartUp(m) ? Answer::Yes : isRunByEntry(s, m, 0);
    if (atStart == Answer::No) continue;
    // What only looks values up starts nothing.
    size_t started = static_cast<size_t>(std::count_if(reached.begin(), reached.end(), [&](const auto& one) { return isCalledForItself(p, *one.second); }));
    if (2 * started < static_cast<size_t>(s.config.crowdedStartup)) continue;
    Finding f = makeFinding(s, infoOf("coupling.crowded-startup"), SIZE_MAX, isCalledMain(p, m) || atStart == Answer::NotKnown ? Sureness::Possible : Sureness::Certain);
    f.subject = functionText(p, m);
    f.risk.setSites(reached.size());
    f.place = p.functions[m].definition;
    std::vector<std::string> names;
    for (auto& [entity, c] : reached) names.push_back(s.survey.entities[entity].name);
    f.message = functionName(p, m) + " starts or calls " + std::to_string(reached.size()) + " shared objects (" + joinWith({names.begin(), names.begin() + 3}, ", ") + " …): they depend on the order of its statements.";
    for (auto& [entity, c] : reached)
      if (f.evidence.size() < 12) f.evidence.push_back({c->place, s.survey.entities[entity].name});
    f.advice = Advice::Inject;
    f.reasonsFor.push_back("objects that take each other in their constructors can only be made in the right order");
    f.reasonsFor.push_back("until then, consecutive statements can become listeners: the move broadcast");
    f.reasonsAgainst.push_back("all of them have to change, at once or one after another");
    out.push_back(std::move(f));
  }
}

void checkLongHandoff(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  // Parameters that are given to another function and used for nothing else: to whose parameter they go.
  std::map<VariableIndex, std::pair<VariableIndex, Place>> passes;
  std::set<VariableIndex> received;
  for (FunctionIndex m = 0; m < p.functions.size(); ++m) {
    const Function& fn = p.functions[m];
    if (!fn.definition.known() || s.inTests(fn.definition) || isCalledMain(p, m)) continue;
    for (VariableIndex v : fn.parameters) {
      // Shared state alone is worth another way: an object that there is one of, and that lives as long as the program.
      TypeIndex type = p.classBehind(fn.definition.file, p.variables[v].type);
      if (type == kNone || std::none_of(s.entitiesOfType[type].begin(), s.entitiesOfType[type].end(), [&](size_t i) { return !s.survey.entities[i].harmless && !oneOfMany(s, s.survey.entities[i]); })) continue;
      VariableIndex next = kNone;
      Place where;
      bool only = !p.usesOfVariable[v].empty();
      for (uint32_t u : p.usesOfVariable[v]) {
        Place at = p.uses[u].place;
        Place up = p.parent(at);
        while (p.node(up).kind == Kind::AddressOf || p.node(up).kind == Kind::Dereference || p.node(up).kind == Kind::Cast) at = up, up = p.parent(up);
        Symbol callee = p.node(at).role == Role::Argument && p.node(up).kind == Kind::Call ? p.symbolAt(up) : Symbol{};
        if (!callee.is(Symbol::Sort::Function) || callee.index() == m) {
          only = false;
          break;
        }
        std::vector<NodeId> arguments = argumentsOf(p.file(up), up.node);
        size_t position = static_cast<size_t>(std::find(arguments.begin(), arguments.end(), at.node) - arguments.begin());
        const Function& other = p.functions[callee.index()];
        if (position >= other.parameters.size()) {
          only = false;
          break;
        }
        next = other.parameters[position];
        where = up;
      }
      if (!only || next == kNone) continue;
      passes[v] = {next, where};
      received.insert(next);
    }
  }
  for (auto& [start, step] : passes) {
    if (received.count(start)) continue;
    std::vector<VariableIndex> chain = {start};
    std::vector<Place> places;
    for (auto at = passes.find(start); at != passes.end() && std::find(chain.begin(), chain.end(), at->second.first) == chain.end(); at = passes.find(chain.back())) {
      places.push_back(at->second.second);
      chain.push_back(at->second.first);
    }
    // Overloads that call each other are one function with defaults.
    // The parameters of one that overrides another are not its own choice.
    std::set<NameId> names;
    for (size_t k = 0; k + 1 < chain.size(); ++k)
      if (const Function& fn = p.functions[p.variables[chain[k]].function]; !(fn.modifiers & kOverride)) names.insert(fn.name);
    size_t idle = names.size();
    if (idle < static_cast<size_t>(s.config.longHandoff)) continue;
    Finding f = makeFinding(s, infoOf("coupling.long-handoff"), SIZE_MAX, Sureness::Certain);
    FunctionIndex first = p.variables[start].function, last = p.variables[chain.back()].function;
    f.subject = functionText(p, first);
    f.risk.setSites(idle);
    f.place = p.variables[start].declarations.front();
    std::string name(p.text(p.variables[start].name));
    f.message = name + " is passed through " + std::to_string(idle) + " functions that do not use it, from " + functionName(p, first) + " to " + functionName(p, last) + ", which does.";
    for (size_t k = 0; k < places.size(); ++k)
      if (f.evidence.size() < 10) f.evidence.push_back({places[k], functionName(p, p.variables[chain[k]].function) + " only passes it on"});
    f.evidence.push_back({p.variables[chain.back()].declarations.front(), functionName(p, last) + " is the first that uses it"});
    f.advice = Advice::Inject;
    f.reasonsFor.push_back("with a field in the object at the end, the other functions need no parameter");
    f.reasonsAgainst.push_back("the object at the end has to be made where " + name + " is known");
    out.push_back(std::move(f));
  }
}

void checkChainedAccess(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.type == kNone) continue;
    std::map<size_t, std::vector<const Consumer*>> through;
    // The members of a language's object are called on it, not to fetch it.
    auto ofObject = [&](FunctionIndex f) { return p.functions[f].owner != kNone && p.types[p.functions[f].owner].form == TypeForm::Object; };
    for (const Consumer& c : e.consumers) {
      if (c.in == kNone || s.inTests(c.place) || p.functions[c.in].owner == e.type) continue;
      // What a call on it yields is itself called or read, and is shared as well.
      Place at = c.place;
      size_t other = SIZE_MAX;
      bool calledOn = c.method != kNone && ofObject(c.method);
      for (Place up = p.parent(at); other == SIZE_MAX; at = up, up = p.parent(up)) {
        bool member = p.node(up).kind == Kind::Member && p.node(at).role == Role::Receiver;
        bool called = p.node(up).kind == Kind::Call && p.node(at).role == Role::Callee;
        if (member && calledOn) {
          if (VariableIndex slot = s.origins.of(at); slot != kNone) other = s.entityOfVariable[slot];
          TypeIndex behind = p.classBehind(at.file, p.typeAt(at));
          if (behind != kNone && other == SIZE_MAX)
            for (size_t k : s.entitiesOfType[behind])
              if (other == SIZE_MAX && !s.survey.entities[k].harmless && s.survey.entities[k].kind == EntityKind::Singleton) other = k;
          if (other == i) other = SIZE_MAX;
        }
        if (!member && !called) break;
        // The first step may only fetch the object; what is called on that counts.
        Symbol callee = called ? p.symbolAt(up) : Symbol{};
        bool fetches = callee.is(Symbol::Sort::Function) && (p.functions[callee.index()].isStaticMember() || p.functions[callee.index()].owner == kNone) && !ofObject(callee.index());
        calledOn |= member && !fetches;
      }
      if (other == SIZE_MAX || other == i) continue;
      through[other].push_back(&c);
    }
    for (auto& [other, sites] : through) {
      const Entity& o = s.survey.entities[other];
      Finding f = makeFinding(s, infoOf("coupling.chained-access"), i, Sureness::Certain);
      f.risk.setSites(sites.size());
      f.place = sites.front()->place;
      f.message = o.shown + " is reached through " + e.shown + " in " + whereText(p, *sites.front()) + (sites.size() > 1 ? " and " + counted(sites.size() - 1, "other place", "other places") : std::string()) + ": code that needs the one has to know the other.";
      for (const Consumer* c : sites)
        if (f.evidence.size() < 8) f.evidence.push_back({c->place, unitText(s, *c) + " goes through " + e.name});
      f.evidence.push_back({o.place, o.shown + " is declared here"});
      f.advice = Advice::Inject;
      out.push_back(std::move(f));
    }
  }
}

namespace {

// Was the variable given what an access point of the entity handed out?
bool remembers(const Program& p, const Entity& e, VariableIndex v) {
  auto isAccessPoint = [&](Place value) {
    Symbol symbol = p.symbolAt(value);
    return symbol.is(Symbol::Sort::Function) && std::any_of(e.accessPoints.begin(), e.accessPoints.end(), [&](const AccessPoint& d) { return d.function == symbol.index(); });
  };
  if (Place first = initialiserOf(p, v); first.known() && isAccessPoint(first)) return true;
  return std::any_of(p.usesOfVariable[v].begin(), p.usesOfVariable[v].end(), [&](uint32_t u) {
    Place up = p.parent(p.uses[u].place);
    NodeId value = p.node(up).kind == Kind::Assign && p.uses[u].access == Access::Write ? p.file(up).child(up.node, Role::Value) : kNoNode;
    return value != kNoNode && isAccessPoint({up.file, value});
  });
}

// Nothing, no, zero, or a text without letters: what things begin with.
bool isEmptyLiteral(const Program& p, Place literal) {
  const Node& node = p.node(literal);
  switch (static_cast<LiteralForm>(node.detail)) {
    case LiteralForm::Null: case LiteralForm::Boolean: return true;
    case LiteralForm::Number: return node.span.size() == 1;
    case LiteralForm::Text: return node.span.size() <= 3;  // "" or @""
    case LiteralForm::Character: return false;
  }
  return false;
}

bool isNothing(const Program& p, Place value) {
  const Node& node = p.node(value);
  return node.is(Kind::Literal, LiteralForm::Null) || (node.kind == Kind::Collection && node.firstChild == kNoNode);
}

// Is it written with as many letters as what the variable begins with?
bool beginsAs(const Program& p, VariableIndex v, Place literal) {
  Place value = initialiserOf(p, v);
  if (!value.known()) return false;
  const Node &begins = p.node(value), &given = p.node(literal);
  return begins.kind == Kind::Literal && begins.detail == given.detail && begins.span.size() == given.span.size();
}

// Does the function put things back: set the slot, empty a collection, or call what does?
bool putsBack(const Subject& s, const Entity& e, const std::set<VariableIndex>& state, FunctionIndex f, int depth = 0) {
  const Program& p = s.program;
  // To make it when it is first asked for is not to put it back.
  bool makesIt = f == e.creation.in && f != kNone && e.creation.time == CreationTime::Lazy && !s.inTests(e.creation.place);
  if (f == kNone || depth > 3 || makesIt) return false;
  std::set<VariableIndex> first;
  for (uint32_t u : p.usesInFunction[f]) {
    const Use& use = p.uses[u];
    if (!state.count(use.variable)) continue;
    Place up = p.parent(use.place);
    if (p.node(up).kind == Kind::Destroy) return true;
    if (actAt(p, use.place) == CollectionAct::Remove) return true;
    // A member of what is not known better: put back where a test gives it what it kept.
    if (Place assign = p.parent(up); s.inTests(use.place) && use.access == Access::Write && use.inMember && p.node(up).kind == Kind::Member && p.node(assign).kind == Kind::Assign && p.node(up).role == Role::Target) {
      NodeId value = p.file(assign).child(assign.node, Role::Value);
      while (value != kNoNode && p.file(assign)[value].kind == Kind::Assign) value = p.file(assign).child(value, Role::Value);
      if (value != kNoNode && p.file(assign)[value].is(Kind::Literal, LiteralForm::Null)) return true;
      Symbol kept = value == kNoNode ? Symbol{} : p.symbolAt({assign.file, value});
      if (kept.is(Symbol::Sort::Variable) && p.variables[kept.index()].storage == Storage::Local) return true;
    }
    // Given a value that does not depend on what is handed in: begun anew.
    if (use.access == Access::Write && !use.inMember && p.node(up).kind == Kind::Assign && p.node(use.place).role == Role::Target) {
      NodeId value = p.file(up).child(up.node, Role::Value);
      if (value == kNoNode) continue;
      // In a function that a test leaves to be run when it is through.
      if (s.inTests(use.place) && p.around(use.place, Kind::Lambda).node != kNoNode) return true;
      Kind kind = p.file(up)[value].kind;
      // A value like any other that a test is the first to set is what it leaves.
      bool sets = s.inTests(use.place) && kind == Kind::Literal && !isEmptyLiteral(p, {up.file, value}) && !beginsAs(p, use.variable, {up.file, value}) && !first.count(use.variable);
      first.insert(use.variable);
      if (sets) continue;
      if (kind == Kind::Literal || kind == Kind::Create || kind == Kind::Collection) return s.inTests(use.place) || p.functions[f].parameters.empty();
      // What a test remembered before.
      Symbol symbol = p.symbolAt({up.file, value});
      if (s.inTests(use.place) && symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage != Storage::Global && s.inTests(p.variables[symbol.index()].home())) return true;
    }
  }
  bool setToNothing = false;  // by the last call of a setter
  Place last;
  for (uint32_t c : p.callsInFunction[f]) {
    const CallSite& call = p.calls[c];
    if (putsBack(s, e, state, call.callee, depth + 1)) return true;
    // set(old), where old = get() was kept.
    bool sets = s.inTests(call.place) && std::any_of(p.usesInFunction[call.callee].begin(), p.usesInFunction[call.callee].end(), [&](uint32_t u) { return state.count(p.uses[u].variable) && p.uses[u].access == Access::Write; });
    if (!sets) continue;
    const std::vector<NodeId> handed = argumentsOf(p.file(call.place), call.place.node);
    if (!handed.empty()) {
      bool nothing = std::all_of(handed.begin(), handed.end(), [&](NodeId given) { return isNothing(p, {call.place.file, given}); });
      // What it is set to last is what it leaves.
      if (!last.known() || before(last, call.place)) last = call.place, setToNothing = nothing;
    }
    for (NodeId given : handed)
      if (Symbol symbol = p.symbolAt({call.place.file, given}); symbol.is(Symbol::Sort::Variable) && remembers(p, e, symbol.index())) return true;
  }
  return setToNothing;
}

// Does a file in a folder of tests hold tests, or only what they are given: a module
// that they load into the program, a file they write?
bool holdsTests(const Program& p, FileIndex f, const std::vector<FunctionIndex>& functions) {
  auto tells = [](std::string_view name) {
    std::string lower = lowerCase(name);
    return lower.find("test") != std::string::npos || lower.find("spec") != std::string::npos || lower == "describe" || lower == "it" || lower == "suite";
  };
  const std::string& path = p.files[f].path;
  if (tells(std::string_view(path).substr(path.rfind('/') + 1))) return true;
  for (FunctionIndex m : functions) {
    const Function& fn = p.functions[m];
    if (tells(p.text(fn.name)) || (fn.owner != kNone && tells(p.text(p.types[fn.owner].name)))) return true;
  }
  const LoweredFile& file = p.files[f];
  return std::any_of(file.nodes.begin(), file.nodes.end(), [&](const Node& node) { return (node.kind == Kind::Import || node.kind == Kind::Using || ((node.kind == Kind::Name || node.kind == Kind::Member) && (node.role == Role::Callee || node.role == Role::Annotation))) && tells(file.name(node)); });
}

// The code of one test: the function around, or the outermost lambda in the file's own code.
Place testAround(const Program& p, Place place) {
  const LoweredFile& file = p.file(place);
  Place out;
  for (NodeId up = file.parents[place.node]; up != kNoNode; up = file.parents[up]) {
    if (file[up].kind == Kind::Lambda) out = {place.file, up};
    if (file[up].kind == Kind::Function) return {place.file, up};
  }
  return out;
}

// Does each test that touches it set it before anything else, so that none sees what another left? Where each file of
// tests is given modules of its own, those of that file count.
bool eachTestSetsItFirst(const Subject& s, const Entity& e, FileIndex tests) {
  bool apart = s.program.language(tests).testFilesApart;
  std::map<std::pair<FileIndex, NodeId>, const Consumer*> firstIn;
  for (const Consumer& c : e.consumers) {
    if (apart ? c.place.file != tests : !s.inTests(c.place)) continue;
    Place test = testAround(s.program, c.place);
    if (test.node == kNoNode) return false;
    auto [entry, fresh] = firstIn.emplace(std::make_pair(test.file, test.node), &c);
    if (!fresh && s.program.node(c.place).span.begin < s.program.node(entry->second->place).span.begin) entry->second = &c;
  }
  const VariableIndex field = firstIn.empty() ? kNone : firstIn.begin()->second->field;
  return std::all_of(firstIn.begin(), firstIn.end(), [&](const auto& test) { return test.second->access == Access::Write && test.second->method == kNone && test.second->field == field; });
}

}  // namespace

void checkTestLeak(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::map<FileIndex, std::vector<FunctionIndex>> inFile;  // of tests
  for (FunctionIndex m = 0; m < p.functions.size(); ++m)
    if (Place definition = p.functions[m].definition; definition.known() && s.inTests(definition)) inFile[definition.file].push_back(m);
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || (e.slot != kNone && (p.variables[e.slot].modifiers & kThreadLocal))) continue;
    if (s.inTests(e.place) || std::none_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) { return s.inTests(c.place); })) continue;
    std::set<VariableIndex> state;
    for (const StateField& field : e.state)
      if (field.changes) state.insert(field.variable);
    if (e.slot != kNone) state.insert(e.slot);
    state.insert(e.slots.begin(), e.slots.end());
    std::erase_if(state, [&](VariableIndex v) { return isMemo(p, v); });
    std::map<FileIndex, std::vector<const Consumer*>> touched;
    for (const Consumer& c : e.consumers) {
      if (!s.inTests(c.place)) continue;
      bool changes = c.access == Access::Write || c.access == Access::Update;
      // What is printed to a stream, say, or asked of any object of the library's, leaves nothing.
      auto asksOnly = [&](const Use& use) {
        const Variable& v = p.variables[use.variable];
        return use.access == Access::Call && (use.throughPointer || (v.type != 0 && p.use(v.type).decl == kNone && variableTraits(p, use.variable) == 0));
      };
      if (c.method != kNone)
        for (uint32_t u : p.usesInFunction[c.method]) changes |= state.count(p.uses[u].variable) && p.uses[u].access != Access::Read && !asksOnly(p.uses[u]);
      if (changes) touched[c.place.file].push_back(&c);
    }
    size_t first = SIZE_MAX, files = 0;
    for (auto& [file, sites] : touched) {
      const std::vector<FunctionIndex>& here = inFile[file];
      auto calledByTests = [&](const Consumer* c) { return c->in != kNone && std::any_of(p.callsOfFunction[c->in].begin(), p.callsOfFunction[c->in].end(), [&](uint32_t call) { return s.inTests(p.calls[call].place); }); };
      if (!holdsTests(p, file, here) && std::none_of(sites.begin(), sites.end(), calledByTests)) continue;
      if (std::any_of(here.begin(), here.end(), [&](FunctionIndex m) { return putsBack(s, e, state, m); }) || eachTestSetsItFirst(s, e, file)) continue;
      std::set<FunctionIndex> functions;
      for (const Consumer* c : sites)
        if (c->in != kNone) functions.insert(c->in);
      // What one test touches once harms the others that look at it.
      bool once = functions.size() < 2 && sites.size() < 2;
      if (once && std::none_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) { return s.inTests(c.place) && c.in != kNone && !functions.count(c.in); })) continue;
      // One finding for an entity: other files of tests are named with the first.
      if (first != SIZE_MAX) {
        ++files;
        if (out[first].evidence.size() < 10) out[first].evidence.push_back({sites.front()->place, whereText(p, *sites.front()) + " changes it too"});
        continue;
      }
      Finding f = makeFinding(s, infoOf("coupling.test-leak"), i, once ? Sureness::Possible : Sureness::Likely);
      f.risk.setSites(sites.size());
      f.place = sites.front()->place;
      f.message = "Tests in " + p.files[file].path.substr(p.files[file].path.rfind('/') + 1) + " change " + e.shown + " and never restore it: later tests start from what they left.";
      for (const Consumer* c : sites)
        if (f.evidence.size() < 6) f.evidence.push_back({c->place, whereText(p, *c) + " changes it"});
      f.evidence.push_back({e.place, "lives as long as the process, across tests"});
      f.advice = Advice::Inject;
      first = out.size();
      out.push_back(std::move(f));
    }
    if (files > 0) out[first].message += " So do those in " + counted(files, "more file.", "more files.");
  }
}

namespace {

// Is each instance made in another class, and do all these classes have one base?
bool areAlternatives(const Program& p, TypeIndex made) {
  std::set<TypeIndex> makers;
  for (uint32_t c : p.creationsOfType[made]) {
    const Creation& creation = p.creations[c];
    if (creation.asBase || creation.delegated) continue;
    VariableIndex field = creation.asVariable != kNone ? creation.asVariable : creation.inInitialiserOf;
    TypeIndex maker = creation.in != kNone ? p.functions[creation.in].owner : field != kNone ? p.variables[field].owner : kNone;
    if (maker == kNone || !makers.insert(maker).second) return false;
  }
  auto has = [&](TypeIndex maker, TypeIndex base) { return p.anyBase(maker, [&](TypeIndex at, const Base*) { return at == base; }); };
  return makers.size() > 1 && p.anyBase(*makers.begin(), [&](TypeIndex base, const Base*) { return base != *makers.begin() && std::all_of(makers.begin(), makers.end(), [&](TypeIndex maker) { return has(maker, base); }); });
}

}  // namespace

void checkMeantSingle(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (TypeIndex t = 0; t < p.types.size(); ++t) {
    const TypeDecl& type = p.types[t];
    if (!type.definition.known() || s.inTests(type.definition)) continue;
    bool configured = std::any_of(s.config.single.begin(), s.config.single.end(), [&](const std::string& name) { return name == p.text(type.name) || name == p.text(type.qualified); });
    const std::pair<uint32_t, std::string>* note = noteAbove(p.file(type.definition), type.definition.node, kMeansOne);
    // A comment that names another says it of that one.
    bool said = note && (note->second.size() == kMeansOne.size() || lowerCase(p.text(type.name)).find(note->second.substr(kMeansOne.size() + 1)) != std::string::npos);
    if (!configured && !said) continue;
    bool shared = s.isSingleton(t) || std::any_of(s.entitiesOfType[t].begin(), s.entitiesOfType[t].end(), [&](size_t i) { return s.survey.entities[i].madeByAsking; });
    shared |= std::any_of(s.survey.managed.begin(), s.survey.managed.end(), [&](const Entity& e) { return e.type == t; });
    if (!configured && shared) continue;
    if (!hasOpenConstructor(p, t) || refusesSecond(p, t)) continue;
    std::vector<Evidence> sites;
    for (uint32_t c : p.creationsOfType[t]) {
      const Creation& creation = p.creations[c];
      if (!creation.asBase && !creation.delegated && !s.inTests(creation.place)) sites.push_back({creation.place, "an instance is made here"});
    }
    // One place that makes it is a composition root; so are several of which a program takes one.
    bool several = sites.size() > 1 && !areAlternatives(p, t);
    Finding f = makeFinding(s, infoOf("single.meant-single"), SIZE_MAX, several ? (configured ? Sureness::Certain : Sureness::Likely) : Sureness::Possible);
    std::string name(p.text(type.name));
    f.subject = p.text(type.qualified);
    f.place = type.definition;
    f.risk.setSites(sites.size());
    f.message = std::string(configured ? "The configuration" : "Its own comment") + " says that " + name + " has one instance, but no code enforces it" + (several ? ", and " + std::to_string(sites.size()) + " places make an instance." : ".");
    f.evidence.push_back({type.definition, "any code can make an instance"});
    f.evidence.insert(f.evidence.end(), sites.begin(), sites.begin() + static_cast<std::ptrdiff_t>(std::min<size_t>(sites.size(), 12)));
    f.advice = several ? Advice::Inject : Advice::Enforce;
    f.reasonsFor.push_back("made once in the composition root and injected, it stays one without a global access point");
    f.reasonsAgainst.push_back("the comment may be out of date: then it should go");
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

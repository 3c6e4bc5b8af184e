// Family "start": initialisation.
#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "assess/facts.h"
#include "assess/families.h"
#include "flow/control.h"

namespace elmcart {
namespace {

// Does a chain of calls lead through a branch, a lambda, or a loop of a function that the constructor calls: over what may hold
// nothing by then?
bool mayBeSkipped(const Program& p, const std::vector<Evidence>& chain) {
  constexpr size_t kConstructor = 2;  // what makes the object, and what its constructor does
  for (size_t i = 0; i < chain.size(); ++i) {
    const LoweredFile& file = p.file(chain[i].place);
    for (NodeId at = chain[i].place.node, up = file.parents[at]; up != kNoNode && file[up].kind != Kind::Function; at = up, up = file.parents[up]) {
      bool branch = (file[up].kind == Kind::If || file[up].kind == Kind::Conditional) && file[at].role != Role::Condition;
      if (branch || file[up].kind == Kind::Lambda || (file[up].kind == Kind::Loop && i >= kConstructor)) return true;
    }
  }
  return false;
}

// Is the variable initialised by running code at load time?
bool isDynamic(const Program& p, VariableIndex v) {
  const Variable& variable = p.variables[v];
  if (!variable.definition.known() || (variable.modifiers & (kConstant | kConstInit))) return false;
  if (variable.storage != Storage::Global && variable.storage != Storage::StaticField) return false;
  const TypeUse& use = p.use(variable.type);
  const LoweredFile& file = p.file(variable.definition);
  NodeId value = file.child(variable.definition.node, Role::Initialiser), written = file.child(variable.definition.node, Role::Type);
  // T value = T(): [expr.type.conv], made of the class itself; or a number of the type itself: pthread_key_t(-1).
  auto makesIt = [&](NodeId n) {
    NodeId callee = file[n].kind == Kind::Call ? file.child(n, Role::Callee) : kNoNode;
    if (callee == kNoNode) return false;
    Symbol named = p.symbolAt({variable.definition.file, callee});
    return use.decl != kNone ? named == Symbol(Symbol::Sort::Type, use.decl) : !named.is(Symbol::Sort::Function) && written != kNoNode && file.name(callee) == file.name(written) && file.name(callee).ends_with("_t");
  };
  auto calls = [&](NodeId from) {
    for (NodeId n = from; n < file.nodes.size() && file[n].span.begin < file[from].span.end; ++n)
      if ((file[n].kind == Kind::Call && !(n == from && makesIt(n))) || (file[n].kind == Kind::Create && n != from)) return true;
    return false;
  };
  if (use.has(kPointer | kReference)) return value != kNoNode && (file[value].kind == Kind::Create || calls(value));
  if (use.decl != kNone) {
    bool declares = false;
    for (FunctionIndex m : p.types[use.decl].methods) {
      const Function& fn = p.functions[m];
      if (fn.form != FunctionForm::Constructor) continue;
      declares = true;
      const Node& node = p.node(fn.declarations.front());
      bool constant = node.has(kConstant);
      if (!constant && !(fn.modifiers & (kDefaulted | kDeleted))) return true;
    }
    return !declares && value != kNoNode && calls(value);
  }
  uint32_t traits = p.traits(variable.definition.file, variable.type);
  if (traits & (kLockType | kAtomicType | kOnceFlagType)) return false;
  if (traits & kKeyedCollection) return true;
  if (traits & (kCollection | kTextType)) return value != kNoNode;
  return value != kNoNode && calls(value);
}

// JLS 15.29 and its like: literals, a library's constants (Integer.MAX_VALUE) and what is worked out of them.
bool isOfConstants(const Program& p, Place value) {
  const LoweredFile& file = p.file(value);
  auto isLibraryConstant = [&](NodeId n) {
    std::string_view name = lastPart(file.name(n));
    return file[n].kind == Kind::Member && !p.links[value.file].symbol[n].known() && !name.empty() && std::none_of(name.begin(), name.end(), [](char c) { return c >= 'a' && c <= 'z'; });
  };
  // The class that a library's constant stands in.
  auto isItsClass = [&](NodeId n) { return file[n].kind == Kind::Name && file[n].role == Role::Receiver && isLibraryConstant(file.parents[n]); };
  auto isMore = [&](NodeId n) {
    if (isLibraryConstant(n) || isItsClass(n)) return false;
    switch (file[n].kind) {
      case Kind::Name: case Kind::Member: case Kind::Call: case Kind::Create: case Kind::Index: case Kind::Lambda: case Kind::Await: case Kind::Assign: case Kind::Update: case Kind::This: case Kind::Collection: return true;
      default: return file[n].is(Kind::Literal, LiteralForm::Null);
    }
  };
  return !isMore(value.node) && !anyNode(file, value.node, isMore);
}

// Does its value come from an initialiser that runs, in the order of the text,
// when its class or file is loaded?
bool runsInOrder(const Program& p, VariableIndex v) {
  const Variable& variable = p.variables[v];
  if (!variable.definition.known() || variable.form != VariableForm::Plain || (variable.storage != Storage::Global && variable.storage != Storage::StaticField)) return false;
  if (!p.language(variable.definition.file).dotted) return isDynamic(p, v);
  if (variable.modifiers & kConstant) return false;
  const LoweredFile& file = p.file(variable.definition);
  NodeId value = file.child(variable.definition.node, Role::Initialiser);
  if (value != kNoNode && (variable.modifiers & kConst) && !p.use(variable.type).has(kArray) && !p.language(variable.definition.file).infersTypes && isOfConstants(p, {variable.definition.file, value})) return false;
  return value != kNoNode && file[value].kind != Kind::Lambda && !(file[value].kind == Kind::Literal && (variable.modifiers & kConst || file[value].detail == static_cast<uint8_t>(LiteralForm::Null)));
}

// Does the file define a variable of that name, as each program of a tree may for itself? Then that is the one.
bool isDefinedIn(const Program& p, VariableIndex v, FileIndex file) {
  const Variable& named = p.variables[v];
  return std::any_of(p.variables.begin(), p.variables.end(), [&](const Variable& other) { return other.definition.known() && other.definition.file == file && other.storage == named.storage && other.qualified == named.qualified && other.onlyIn == named.onlyIn; });
}

}  // namespace

void checkOrderAcrossFiles(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  Wanted dynamic{[&](VariableIndex v) { return isDynamic(p, v); }};
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    VariableIndex v = e.slot;
    if (v == kNone || !isDynamic(p, v) || !p.variables[v].definition.known()) continue;
    Place home = p.variables[v].definition;
    if (p.guarantees(home.file).orderedAcrossFiles.holds) continue;
    std::vector<Reached> steps = s.reaching.fromInitialiser(v, e.shown, dynamic);
    std::set<VariableIndex> told;
    size_t first = out.size();
    for (Reached& step : steps) {
      const Variable& other = p.variables[step.variable];
      if (step.variable == v || other.definition.file == home.file) continue;
      // What an included header defines is initialised with the file that includes it, in the order of the text
      // ([basic.start.dynamic]); a function of another file has that file's own.
      FileIndex user = step.chain.empty() ? home.file : step.chain.back().place.file;
      if (p.isHeader(other.definition.file) && (user == home.file || p.isHeader(user))) continue;
      if (s.inTests(other.definition) || isDefinedIn(p, step.variable, home.file)) continue;
      if (!told.insert(step.variable).second) continue;
      if (out.size() > first) {
        // One initialiser is told once.
        if (out[first].evidence.size() < kMostEvidence) out[first].evidence.push_back({other.definition, std::string(p.text(other.name)) + " is used too, and initialised here"});
        continue;
      }
      Finding f = makeFinding(s, infoOf("init.order-across-files"), i, mayBeSkipped(p, step.chain) ? Sureness::Possible : Sureness::Likely);
      f.place = home;
      f.message = "The initialiser of " + e.shown + " uses " + std::string(p.text(other.name)) + ", which another file initialises: the order of the two is not defined.";
      f.evidence.push_back({home, e.shown + " is initialised when the program is loaded"});
      f.evidence.insert(f.evidence.end(), step.chain.begin(), step.chain.end());
      f.evidence.push_back({other.definition, std::string(p.text(other.name)) + " is initialised here, in another file"});
      f.advice = Advice::SafeInit;
      out.push_back(std::move(f));
    }
    if (told.size() > 1) out[first].message.insert(out[first].message.size() - 1, "; so it is with " + std::to_string(told.size() - 1) + " more that it uses");
  }
}

void checkOrderWithinClass(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  Wanted ordered{[&](VariableIndex v) { return runsInOrder(p, v); }};
  std::map<std::tuple<VariableIndex, FileIndex, NodeId>, size_t> causes;  // to its place among the findings
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    std::vector<VariableIndex> slots = e.slots;
    if (slots.empty() && e.slot != kNone) slots.push_back(e.slot);
    for (VariableIndex v : slots) {
      if (!runsInOrder(p, v)) continue;
      Place home = p.variables[v].definition;
      if (!p.guarantees(home.file).textualOrder.holds) continue;
      std::set<VariableIndex> told;
      for (Reached& step : s.reaching.fromInitialiser(v, e.shown, ordered)) {
        const Variable& other = p.variables[step.variable];
        bool together = other.owner == p.variables[v].owner && other.definition.file == home.file && other.storage == p.variables[v].storage;
        if (step.variable == v || !together || p.node(other.definition).span.begin < p.node(home).span.begin || !told.insert(step.variable).second) continue;
        std::string name(p.text(other.name));
        // Reached under a condition: maybe not at that moment.
        Place last = step.chain.empty() ? home : step.chain.back().place;
        // a = b = nothing: the other is set there, not read.
        if (p.node(p.parent(last)).kind == Kind::Assign && p.node(last).role == Role::Target) continue;
        // nstr = str; str = text: what is read in the text itself is what is built in.
        if (step.chain.size() < 2 && p.guarantees(home.file).unsetNamesFail.holds) continue;
        // Only under a condition, or in a function that somebody may call later.
        bool later = false, sometimes = mayBeSkipped(p, step.chain);
        // Set before that in another way: in a branch of the text, say.
        for (uint32_t u : p.usesOfVariable[step.variable]) {
          const Use& use = p.uses[u];
          bool inText = use.in == kNone || p.functions[use.in].form == FunctionForm::Initialiser;
          later |= use.access == Access::Write && inText && use.place.file == home.file && p.node(use.place).span.begin < p.node(home).span.begin;
        }
        if (later) continue;
        // What many reach by the same way is one thing to mend.
        if (auto [at, fresh] = causes.emplace(std::make_tuple(step.variable, last.file, last.node), out.size()); !fresh) {
          Finding& first = out[at->second];
          if (first.evidence.size() < 12) first.evidence.push_back({home, "the initialiser of " + e.shown + " uses it in the same way"});
          continue;
        }
        Finding f = makeFinding(s, infoOf("init.order-within-class"), i, sometimes ? Sureness::Possible : Sureness::Certain);
        f.place = home;
        f.message = "The initialiser of " + e.shown + " uses " + name + ", which is initialised further down: it has no value yet at that moment.";
        f.evidence.push_back({home, "initialised first, because it is declared first (" + std::string(p.guarantees(home.file).textualOrder.source) + ")"});
        f.evidence.insert(f.evidence.end(), step.chain.begin(), step.chain.end());
        f.evidence.push_back({other.definition, name + " is initialised here, too late"});
        f.advice = Advice::SafeInit;
        out.push_back(std::move(f));
      }
    }
  }
}

void checkEagerHeavy(const Subject& s, std::vector<Finding>& out) {
  OfOneCause ofOneCause(out);
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isMadeOnce(e) || e.creation.time != CreationTime::Eager || e.creation.weights.empty() || !s.isTold(e.place)) continue;
    // What nothing else loads is a program of its own, and does at load what it is there for.
    if (s.program.guarantees(e.place.file).openConstructors.holds && !s.loadedByOthers[e.place.file]) continue;
    // What is only done under a condition may never be done.
    bool sometimes = std::all_of(e.creation.weights.begin(), e.creation.weights.end(), [&](const Weight& weight) { return s.program.around(weight.place, Kind::If).node != kNoNode; });
    if (ofOneCause.holdsFor(e.creation.weights.front().place, e.creation.place.known() ? e.creation.place : e.place)) continue;
    Finding f = makeFinding(s, infoOf("init.eager-heavy"), i, sometimes ? Sureness::Possible : Sureness::Certain);
    f.place = e.creation.place.known() ? e.creation.place : e.place;
    bool named = s.program.guarantees(e.place.file).staticsAtFirstUse.holds;
    f.message = e.shown + " is made " + (named ? "when its class is first used" : "at load") + ", and its constructor " + e.creation.weights.front().what + ": every program and test that loads it pays for that.";
    f.evidence.push_back({f.place, e.shown + (named ? " is made when its class is first used" : " is made at load")});
    for (const Weight& weight : e.creation.weights) f.evidence.push_back({weight.place, weight.what});
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
  ofOneCause.tellCounts();
}

namespace {

// What is written for an argument, as far as the tree tells it: this.context and context are the same thing, and two
// numbers or texts are two, for nobody writes a parameter for one.
std::string writtenAs(const LoweredFile& file, NodeId node) {
  const Node& n = file[node];
  if (n.kind == Kind::Name || n.kind == Kind::Member) return std::string(lastPart(file.name(node)));
  bool told = n.is(Kind::Literal, LiteralForm::Null) || n.is(Kind::Literal, LiteralForm::Boolean);
  std::string out = std::to_string(static_cast<int>(n.kind)) + (n.kind == Kind::Literal ? "#" + std::to_string(n.detail) + "#" + std::to_string(told ? n.span.size() : n.span.begin) : "");
  for (NodeId c : children(file, node)) out += "(" + writtenAs(file, c) + ")";
  return out;
}

// The production calls of a function that pass something for a parameter, and whether they pass different things.
struct Passed {
  size_t callers = 0, giving = 0;
  bool differ = false;
  std::vector<Place> places;

  // Who calls only where `slot` was found empty passes what is used.
  Passed(const Subject& s, FunctionIndex function, VariableIndex parameter, VariableIndex slot) {
    const Program& p = s.program;
    auto foundEmpty = [&](Place call) {
      return forEachKnown(p, call, [&](const Known& known) { return readsInside(p, {call.file, known.condition}, slot); });
    };
    const auto& all = p.functions[function].parameters;
    size_t position = static_cast<size_t>(std::find(all.begin(), all.end(), parameter) - all.begin());
    std::string first;
    for (uint32_t c : p.callsOfFunction[function]) {
      Place place = p.calls[c].place;
      if (s.inTests(place) || foundEmpty(place)) continue;
      ++callers;
      places.push_back(place);
      std::vector<NodeId> arguments = argumentsOf(p.file(place), place.node);
      if (arguments.size() <= position) continue;
      std::string written = writtenAs(p.file(place), arguments[position]);
      if (++giving == 1) first = written;
      differ |= written != first;
    }
  }
};

// The parameter of the function that goes into what is made there, and is heeded nowhere else: what later callers pass is
// lost. Of several one for which they pass different things.
VariableIndex ignoredLater(const Subject& s, FunctionIndex function, VariableIndex slot, Place made, const std::function<bool(Place)>& heeds) {
  const Program& p = s.program;
  const LoweredFile& file = p.file(made);
  const auto& parameters = p.functions[function].parameters;
  VariableIndex used = kNone;
  for (NodeId n = made.node + 1; n < file.nodes.size() && file[n].span.begin < file[made.node].span.end; ++n) {
    Symbol symbol = file[n].kind == Kind::Name ? p.symbolAt({made.file, n}) : Symbol{};
    if (!symbol.is(Symbol::Sort::Variable) || std::find(parameters.begin(), parameters.end(), symbol.index()) == parameters.end()) continue;
    auto uses = p.usesOfVariable[symbol.index()];
    if (std::any_of(uses.begin(), uses.end(), [&](uint32_t u) { return heeds(p.uses[u].place); })) continue;
    used = symbol.index();
    if (Passed(s, function, used, slot).differ) return used;
  }
  return used;
}

// if (part == null) part = make(key); return part; for a member of what is shared: where callers pass different
// things, those behind the first get what was made for it.
void checkPartIgnoresArguments(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  for (const StateField& field : e.state) {
    for (uint32_t u : p.usesOfVariable[field.variable]) {
      const Use& use = p.uses[u];
      NodeId value = use.access == Access::Write && !use.inMember && use.in != kNone ? p.assignedAt(use.place) : kNoNode;
      if (value == kNoNode || use.place == e.creation.place || s.inTests(use.place) || p.functions[use.in].parameters.empty()) continue;
      Place branch = p.around(use.place, Kind::If);
      const LoweredFile& file = p.file(use.place);
      NodeId condition = branch.node == kNoNode ? kNoNode : file.child(branch.node, Role::Condition);
      if (condition == kNoNode || file.child(branch.node, Role::Else) != kNoNode) continue;
      bool asks = false, compares = false;
      for (uint32_t other : p.usesInFunction[use.in]) {
        const Use& tested = p.uses[other];
        if (tested.place.file != use.place.file || !(tested.place.node == condition || p.isInside(tested.place, condition))) continue;
        if (tested.variable == field.variable) asks |= p.around(tested.place, Kind::NullTest).node != kNoNode;
        else compares |= p.variables[tested.variable].storage == Storage::Field || p.variables[tested.variable].lives();
      }
      if (!asks || compares) continue;
      bool returned = std::any_of(p.usesInFunction[use.in].begin(), p.usesInFunction[use.in].end(), [&](uint32_t other) {
        Place at = p.uses[other].place;
        return p.uses[other].variable == field.variable && p.around(at, Kind::Return).node != kNoNode && !p.isInside(at, branch.node);
      });
      if (!returned) continue;
      VariableIndex used = ignoredLater(s, use.in, field.variable, {use.place.file, value}, [&](Place at) { return at.file != branch.file || !p.isInside(at, branch.node); });
      if (used == kNone) continue;
      Passed passed(s, use.in, used, field.variable);
      if (!passed.differ) continue;
      Finding f = makeFinding(s, infoOf("init.arguments-ignored"), i, Sureness::Likely);
      f.place = {use.place.file, condition};
      std::string name(p.text(p.variables[used].name));
      f.message = functionName(p, use.in) + " takes " + name + ", but only the call that makes " + std::string(p.text(p.variables[field.variable].name)) + " uses it: later callers get what is there, whatever they pass.";
      f.evidence.push_back({f.place, "what is there already is returned as it is"});
      f.evidence.push_back({use.place, name + " is used only here"});
      for (size_t k = 0; k < passed.places.size() && k < 6; ++k) f.evidence.push_back({passed.places[k], "a caller passes it"});
      f.advice = Advice::Inject;
      f.members = {std::string(p.text(p.variables[field.variable].name))};
      out.push_back(std::move(f));
      return;
    }
  }
}

}  // namespace

void checkArgumentsIgnored(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!e.harmless) checkPartIgnoresArguments(s, i, out);
    if (e.harmless || e.creation.time != CreationTime::Lazy || e.creation.in == kNone || !e.creation.innerTest.known()) continue;
    const Function& accessPoint = p.functions[e.creation.in];
    bool isAccessPoint = false;
    for (const AccessPoint& d : e.accessPoints) isAccessPoint |= d.function == e.creation.in;
    if (!isAccessPoint || accessPoint.parameters.empty() || accessPoint.form == FunctionForm::Factory) continue;
    if (e.madeByAsking && (e.creation.constructor == kNone || p.functions[e.creation.constructor].parameters.empty())) continue;
    // What is done with the parameter on every way heeds later callers too.
    const LoweredFile& file = p.file(e.creation.place);
    Place branch = p.around(e.creation.place, Kind::If);
    VariableIndex used = ignoredLater(s, e.creation.in, e.slot, e.creation.place, [&](Place at) {
      if (branch.node != kNoNode) return !p.isInside(at, branch.node);
      return at.file == e.creation.place.file && file[at.node].span.end <= file[e.creation.innerTest.node].span.begin;
    });
    if (used == kNone) continue;
    // Where one call alone gives arguments, and the others give none, nothing is lost.
    Passed passed(s, e.creation.in, used, e.slot);
    if (passed.callers > 1 && passed.giving < 2) continue;
    // Who always passes the same thing loses nothing yet.
    Finding f = makeFinding(s, infoOf("init.arguments-ignored"), i, passed.differ ? Sureness::Certain : passed.callers > 0 ? Sureness::Possible : Sureness::Likely);
    f.place = accessPoint.declarations.front();
    f.message = functionName(p, e.creation.in) + " takes " + std::string(p.text(p.variables[used].name)) + ", but only the first call uses it: later callers get the existing object, whatever they pass.";
    f.evidence.push_back({e.creation.innerTest, "an existing object is returned as it is"});
    f.evidence.push_back({e.creation.place, std::string(p.text(p.variables[used].name)) + " is used only here, by the first call"});
    for (size_t k = 0; k < passed.places.size() && k < 6; ++k) f.evidence.push_back({passed.places[k], "a caller passes it"});
    f.advice = Advice::Inject;
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

// Family "tie": coupling, and what it does to tests.
#include <algorithm>
#include <map>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "survey/constancy.h"

namespace elmcart {
namespace {

bool branchTests(const LoweredFile& file, NodeId n) {
  for (NodeId up = n; up != kNoNode && file[up].kind != Kind::Block; up = file.parents[up])
    if (file[up].role == Role::Condition) return true;
  return false;
}

// One function's own last answer: it alone uses the variable, and compares what it is handed with what it was handed before.
bool isLastAnswer(const Program& p, VariableIndex v) {
  FunctionIndex only = kNone;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (isConstruction(p, use)) continue;
    if (use.in == kNone || (only != kNone && use.in != only) || use.access == Access::Update) return false;
    only = use.in;
  }
  if (only == kNone || !p.functions[only].definition.known()) return false;
  Place body = p.functions[only].definition;
  const LoweredFile& file = p.file(body);
  // Against a variable that is as much this function's own.
  auto isOwn = [&](Symbol symbol) {
    if (!symbol.is(Symbol::Sort::Variable) || p.variables[symbol.index()].owner != p.variables[v].owner) return false;
    const auto& uses = p.usesOfVariable[symbol.index()];
    return std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return p.uses[u].in == only || isConstruction(p, p.uses[u]); });
  };
  return anyNode(file, body.node, [&](NodeId n) {
    if (file[n].kind != Kind::Compare && file[n].kind != Kind::Call) return false;
    bool handed = false, own = false;
    forEachNode(file, n, [&](NodeId inner) {
      Symbol symbol = p.links[body.file].symbol[inner];
      handed |= symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Parameter;
      own |= isOwn(symbol) && p.variables[symbol.index()].owner != kNone;
    });
    return handed && own && branchTests(file, n);
  });
}

// Only ever given whole, by the class itself, what it has worked out from what it is not handed: an answer that it keeps.
bool isOwnAnswer(const Program& p, VariableIndex v) {
  const Variable& variable = p.variables[v];
  if ((variable.modifiers & kPublic) || variable.owner == kNone) return false;
  const Constancy constancy(p);
  return std::all_of(p.usesOfVariable[v].begin(), p.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    if (!changesState(p, use) || isConstruction(p, use)) return true;
    NodeId value = use.access == Access::Write && !use.inMember && !use.throughPointer ? p.assignedAt(use.place) : kNoNode;
    if (value == kNoNode || use.in == kNone || outermost(p, p.functions[use.in].owner) != outermost(p, variable.owner)) return false;
    auto isHanded = [&](NodeId n) {
      Symbol symbol = p.links[use.place.file].symbol[n];
      return symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Parameter;
    };
    return !isHanded(value) && !anyNode(p.file(use.place), value, isHanded) && !constancy.names({use.place.file, value}, v, true);
  });
}

// What changes in it while the program runs, and is seen by others.
std::set<VariableIndex> changingState(const Subject& s, const Entity& e) {
  const Program& p = s.program;
  bool many = oneOfMany(s, e);
  std::set<VariableIndex> out;
  for (const StateField& field : e.state) {
    VariableIndex v = field.variable;
    bool ofMany = many && p.variables[v].storage == Storage::Field;
    if (!field.changes || (!many && isOfMany(s, e, v)) || (variableTraits(p, v) & kPool) || isWorkedOut(p, v) || isMemo(p, v) || isLastAnswer(p, v)) continue;
    if (e.kind == EntityKind::StaticHolder && isOwnAnswer(p, v)) continue;
    bool byProgram = false, atWork = false, byTests = false;  // a function that only tests call changes nothing that the program does not
    for (uint32_t u : p.usesOfVariable[v]) {
      const Use& use = p.uses[u];
      // Of one object of many, what is called on this one changes it.
      if (ofMany && std::none_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) { return c.method != kNone && c.method == use.in; })) continue;
      if (!changesState(p, use) || s.inTests(use.place) || isConstruction(p, use)) continue;
      bool startsUp = s.threads.sideOf(use.place, use.in).startsUp();
      if (onlyTestsCall(s, use.in)) byTests |= !startsUp;
      else byProgram = true, atWork |= !startsUp;
    }
    if (atWork || (byTests && byProgram)) out.insert(v);
  }
  return out;
}

// Does it matter who reaches it? It changes while the program runs, or making it does something that a test wants to replace.
// What is set once while the program starts up is a setting.
bool isWorthHanding(const Subject& s, const Entity& e) { return !e.creation.weights.empty() || e.reset.known() || !changingState(s, e).empty(); }

bool touches(const Program& p, FunctionIndex f, const std::set<VariableIndex>& state, int depth = 0) {
  if (f == kNone || depth > 3) return false;
  if (std::any_of(p.usesInFunction[f].begin(), p.usesInFunction[f].end(), [&](uint32_t u) { return state.contains(p.uses[u].variable); })) return true;
  return std::any_of(p.callsInFunction[f].begin(), p.callsInFunction[f].end(), [&](uint32_t c) {
    TypeIndex owner = p.functions[p.calls[c].callee].owner;
    return owner != kNone && owner == p.functions[f].owner && touches(p, p.calls[c].callee, state, depth + 1);
  });
}

}  // namespace

// Nothing but plain values that are set as they are handed in, by at most one class or file once the program runs: who hands that in gains little.
bool isSetting(const Subject& s, const Entity& e) {
  const Program& p = s.program;
  // What lives for one request is handed on in it.
  if (!e.creation.weights.empty() || p.guarantees(e.place.file).livesForOneRequest.holds) return false;
  if (e.state.empty() || (e.type != kNone && e.kind != EntityKind::StaticHolder) || !std::all_of(e.state.begin(), e.state.end(), [&](const StateField& field) { return !field.changes || isPlainValue(p, field.variable); })) return false;
  std::set<std::string> changers;
  auto add = [&](Place place, FunctionIndex in) {
    if (s.inTests(place)) return;
    Threads::Side side = s.threads.sideOf(place, in);
    if (side.roots[0] == kNone && (side.outside == Threads::Outside::StartUp || in == kNone)) return;
    TypeIndex owner = in == kNone ? kNone : p.functions[in].owner;
    changers.insert(owner == kNone ? p.path(place) : std::string(p.text(p.types[owner].qualified)));
  };
  for (const StateField& field : e.state)
    for (uint32_t u : p.usesOfVariable[field.variable]) {
      const Use& use = p.uses[u];
      if (!changesState(p, use) || isConstruction(p, use)) continue;
      if (use.access == Access::Update) return false;  // what counts is no setting
      TypeIndex owner = p.variables[field.variable].owner;
      // What its own class does, it does for those who ask for it.
      if (use.in == kNone || owner == kNone || p.functions[use.in].owner != owner) add(use.place, use.in);
      else
        for (uint32_t c : p.callsOfFunction[use.in]) add(p.calls[c].place, p.calls[c].in);
    }
  return changers.size() < 2;
}

namespace {

// Consumers that a reader of signatures would not expect: in bodies, outside
// tests, outside main, and not in the file that the entity itself lives in.
std::vector<const Consumer*> hidden(const Subject& s, const Entity& e) {
  std::vector<const Consumer*> out;
  // A variable that one file keeps to itself is that file's own business; what an accessor hands out is not.
  bool slotInFile = e.slot != kNone && s.program.variables[e.slot].onlyIn != kNone, fileOnly = slotInFile;
  for (const AccessPoint& accessPoint : e.accessPoints) fileOnly &= accessPoint.function == kNone || s.program.functions[accessPoint.function].onlyIn != kNone;
  if (fileOnly) return out;
  std::set<FileIndex> home;
  home.insert(e.place.file);
  if (e.slot != kNone)
    for (Place place : s.program.variables[e.slot].declarations) home.insert(place.file);
  for (const AccessPoint& accessPoint : e.accessPoints) {
    if (accessPoint.function == kNone || accessPoint.sort == AccessPoint::Sort::Helper) continue;
    for (Place place : s.program.functions[accessPoint.function].declarations) home.insert(place.file);
  }
  for (const Consumer& c : e.consumers) {
    if (c.in == kNone || isMain(s.program, c.in) || s.isAside(c.place)) continue;
    // Who puts an object there provides it, and depends on nothing.
    if (e.type != kNone && c.access == Access::Write && c.method == kNone && c.field == kNone) continue;
    // What ends an object only takes back what another function did with it.
    if (s.program.functions[c.in].form == FunctionForm::Destructor || isEndHook(s.program.guarantees(c.place.file), s.program.text(s.program.functions[c.in].name))) continue;
    // What a file does while it is loaded has no signature to say it in.
    if (s.program.functions[c.in].form == FunctionForm::Initialiser && s.program.functions[c.in].owner == kNone) continue;
    // Another class in the entity's own file still hides it from its signature.
    TypeIndex owner = s.program.functions[c.in].owner;
    // A class and those that are nested in it are one.
    if (owner != kNone && e.type != kNone && (outermost(s.program, owner) == outermost(s.program, e.type))) continue;
    Symbol named = s.program.symbolAt(c.place);
    bool direct = slotInFile && named.is(Symbol::Sort::Variable) && named.index() == e.slot;
    if (home.count(c.place.file) && (direct || owner == kNone || owner == e.type)) continue;
    if (e.slot != kNone && owner != kNone && owner == s.program.variables[e.slot].owner) continue;
    bool isAccessPoint = false;
    for (const AccessPoint& accessPoint : e.accessPoints) isAccessPoint |= accessPoint.function == c.in;
    if (isAccessPoint) continue;
    out.push_back(&c);
  }
  // What a file does with its own plain variable is its own business, and what a module does with what it keeps.
  if ((e.type == kNone || s.program.language(e.place.file).infersTypes) && std::all_of(out.begin(), out.end(), [&](const Consumer* c) { return home.count(c->place.file) > 0; })) out.clear();
  return out;
}

bool isServiceLike(const Entity& e) {
  switch (e.kind) {
    case EntityKind::Singleton: case EntityKind::SharedInstance: case EntityKind::StaticHolder: case EntityKind::Registry: case EntityKind::Ambient:
      return true;
    case EntityKind::GlobalVariable: case EntityKind::StaticField: case EntityKind::ThreadLocal:
      return true;
    default: return false;
  }
}

}  // namespace

namespace {

// A variable that no code but that of tests ever changes: to the program it is a constant.
bool onlyTestsChange(const Subject& s, const Entity& e) {
  const Program& p = s.program;
  if (e.type != kNone || e.slot == kNone) return false;
  bool tests = false;
  for (uint32_t u : p.usesOfVariable[e.slot]) {
    const Use& use = p.uses[u];
    if (use.access == Access::Read) continue;
    bool called = use.access == Access::Call && p.node(use.place).role == Role::Callee;
    if (s.inTests(use.place)) tests |= !called;
    else if (!called && !isConstruction(p, use)) return false;
  }
  return tests;
}

// A name for a function: all that is done with it is to call it, and each value that it is given is a function.
bool standsForFunction(const Subject& s, const Entity& e) {
  const Program& p = s.program;
  if (e.type != kNone || e.slot == kNone) return false;
  bool called = false;
  for (uint32_t u : p.usesOfVariable[e.slot]) {
    const Use& use = p.uses[u];
    if (s.inTests(use.place)) continue;
    NodeId given = use.access == Access::Write && !use.inMember ? p.assignedAt(use.place) : kNoNode;
    if (given != kNoNode) {
      Kind kind = p.file(use.place)[given].kind;
      if (kind == Kind::Create || kind == Kind::Collection || (kind == Kind::Literal && !p.file(use.place)[given].is(Kind::Literal, LiteralForm::Null))) return false;
      continue;
    }
    if (p.node(use.place).role == Role::Callee) called = true;
    else if (use.access != Access::Read || p.node(p.parent(use.place)).kind == Kind::Member || p.node(p.parent(use.place)).kind == Kind::Index) return false;
  }
  return called;
}

}  // namespace

std::function<bool(const Consumer&)> whoCounts(const Subject& s, const Entity& e) {
  if (e.kind != EntityKind::StaticHolder) return [](const Consumer&) { return true; };
  std::set<VariableIndex> state = changingState(s, e);
  if (!e.creation.weights.empty() || e.reset.known()) state.insert(e.slot);
  return [&p = s.program, state = std::move(state)](const Consumer& c) { return c.method != kNone ? touches(p, c.method, state) : c.field == kNone || state.contains(c.field); };
}

bool couples(const Subject& s, const Entity& e) { return !e.harmless && isServiceLike(e) && !isSink(s, e) && !onlyTestsChange(s, e) && !standsForFunction(s, e) && isWorthHanding(s, e); }

namespace {

// A class by its own name, a file by its path.
std::string shortUnit(const Program& p, const std::string& unit) {
  bool file = unit.find('/') != std::string::npos || std::any_of(p.files.begin(), p.files.end(), [&](const LoweredFile& one) { return one.path == unit; });
  size_t at = file ? std::string::npos : unit.find_last_of(".:\\");
  return at == std::string::npos ? unit : unit.substr(at + 1);
}

// A class that is reached by its name alone: told with who reaches it.
void addStaticOnly(const Subject& s, const Entity& e, Finding& f) {
  if (e.kind != EntityKind::StaticHolder || e.slot == kNone) return;
  f.evidence.push_back({s.program.variables[e.slot].home(), "state behind its static members: a test cannot replace them by an object"});
}

// How many functions hide it decides whether that is told: two are no matter but for the one object of its class, and for an object
// that does something when it is made; one is none.
bool isToldAsHidden(const Entity& e, size_t functions) {
  if (functions > 2) return true;
  return e.type != kNone && functions == 2 && (e.kind == EntityKind::Singleton || !e.creation.weights.empty());
}

// A module written as an object: who uses it imports it, and says so at the head of its file.
bool isModule(const Program& p, const Entity& e) {
  return e.type != kNone && p.types[e.type].form == TypeForm::Object && e.creation.time == CreationTime::Eager;
}

// A variable of a module, with no object in it that could be handed in or replaced by another.
bool isBareTable(const Entity& e) { return e.type == kNone && (e.kind == EntityKind::GlobalVariable || e.kind == EntityKind::StaticField || e.kind == EntityKind::FunctionStatic); }

}  // namespace

bool isToldAsWide(const Subject& s, const Entity& e) {
  if (!couples(s, e)) return false;
  // A setting or a table is no burden until it is read everywhere.
  constexpr size_t kEverywhere = 3;
  return consumerClasses(s, e, whoCounts(s, e)).size() >= static_cast<size_t>(s.config.wideReach) * (isSetting(s, e) || isBareTable(e) || isModule(s.program, e) ? kEverywhere : 1);
}

void checkHiddenDependency(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!couples(s, e)) continue;
    // What reaches wide, and what is called by its class's name, is told by the checks for that.
    size_t classes = consumerClasses(s, e).size();
    if (classes >= static_cast<size_t>(s.config.wideReach) || e.kind == EntityKind::StaticHolder || isModule(s.program, e) || isSetting(s, e)) continue;
    std::vector<const Consumer*> sites = hidden(s, e);
    std::map<std::string, const Consumer*> byPlace;
    for (const Consumer* c : sites) byPlace.emplace(whereText(s.program, *c), c);
    // One function may keep what it uses to itself, but for what a test wants to replace.
    if (!isToldAsHidden(e, byPlace.size())) continue;
    // A table or number that only its own module changes is asked for by way of that module.
    if (isBareTable(e) && s.program.language(e.place.file).dotted && std::none_of(sites.begin(), sites.end(), [&](const Consumer* c) { return c->access != Access::Read && c->access != Access::Bind && c->place.file != e.place.file; })) continue;
    Finding f = makeFinding(s, infoOf("coupling.hidden-dependency"), i, isBareTable(e) ? Sureness::Possible : byPlace.size() < 3 ? Sureness::Likely : Sureness::Certain);
    f.risk.setSites(sites.size());
    f.place = sites.front()->place;
    std::string accessPoint = e.accessPoints.empty() ? e.shown : e.accessPoints.front().name;
    f.message = counted(byPlace.size(), "function reaches ", "functions reach ") + e.shown + " without taking it as a parameter" + (byPlace.size() == 1 ? ": " + byPlace.begin()->first + "." : ", " + byPlace.begin()->first + " and " + std::prev(byPlace.end())->first + " among them.");
    size_t shown = 0;
    for (auto& [where, consumer] : byPlace) {
      if (++shown > 12) {
        f.evidence.push_back({consumer->place, "and " + std::to_string(byPlace.size() - 12) + " more functions"});
        break;
      }
      f.evidence.push_back({consumer->place, where + " reaches it here" + (consumer->alias != kNone ? ", through " + std::string(s.program.text(s.program.variables[consumer->alias].name)) : "")});
    }
    std::set<std::string> owners;
    for (const Consumer& c : e.consumers) {
      if (s.inTests(c.place)) continue;
      owners.insert(unitText(s, c));
    }
    f.advice = owners.size() == 1 && e.kind != EntityKind::Registry ? Advice::MakeLocal : Advice::Inject;
    out.push_back(std::move(f));
  }
}

void checkWideReach(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isToldAsWide(s, e)) continue;
    const std::function<bool(const Consumer&)> counts = whoCounts(s, e);
    std::vector<std::string> classes = consumerClasses(s, e, counts);
    Finding f = makeFinding(s, infoOf("coupling.wide-reach"), i, Sureness::Certain);
    f.place = e.place;
    std::vector<std::string> some(classes.begin(), classes.begin() + std::min<size_t>(classes.size(), 4));
    for (std::string& one : some) one = shortUnit(s.program, one);
    f.message = e.shown + " is reached from " + std::to_string(classes.size()) + " classes or files (" + joinWith(some, ", ") + (classes.size() > some.size() ? " …" : "") + "): a change to it affects all of them.";
    std::set<std::string> told;
    for (const Consumer& c : e.consumers) {
      if (s.isAside(c.place) || isInOwnClass(s.program, e, c.place) || !counts(c)) continue;
      TypeIndex owner = classReaching(s.program, c);
      std::string unit = owner == kNone ? s.program.path(c.place) : std::string(s.program.text(s.program.types[owner].qualified));
      if (!told.insert(unit).second || told.size() > 16) continue;
      f.evidence.push_back({c.place, shortUnit(s.program, unit) + " reaches it here"});
    }
    addStaticOnly(s, e, f);
    f.advice = isSink(s, e) ? Advice::Keep : e.kind == EntityKind::StaticHolder ? Advice::Wrap : Advice::Inject;
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

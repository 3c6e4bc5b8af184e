#include "probe/race_plan.h"

#include <algorithm>

#include "assess/facts.h"
#include "assess/registrations.h"
#include "base/text.h"
#include "rework/access.h"

namespace elmcart {
namespace {

constexpr size_t kMostFunctions = 4;  // that change state, where no finding names one

class Planner {
 public:
  Planner(const Analysis& a, size_t entity) : a_(a), p_(a.program), e_(a.survey.entities[entity]), entity_(entity), language_(p_.language(e_.place.file)) {}

  std::vector<Race> run(bool all) {
    creation();
    changes();
    ends();
    order();
    // What cannot go wrong as far as the code tells is run where there is nothing else.
    if (!all && std::any_of(out_.begin(), out_.end(), [](const Race& race) { return !race.cannotGoWrong; })) std::erase_if(out_, [](const Race& race) { return race.cannotGoWrong; });
    return std::move(out_);
  }

  // Where nothing is made on first use any more: who gets which object is seen all the same.
  Race callsOnly(FunctionIndex f) const {
    Race race = begin(ProbeScenario::Creation, f, "creation of " + e_.shown, "");
    reach(race);
    return race;
  }

 private:
  Spot spot(Place place) const { return place.known() ? Spot{&p_.files[place.file], place.node} : Spot{}; }
  std::string qualified(NameId id) const { return std::string(p_.text(id)); }

  ProbeFunction functionOf(FunctionIndex f) const {
    const Function& fn = p_.functions[f];
    ProbeFunction out;
    Place home = fn.home();
    out.at = spot(home);
    out.name = qualified(fn.name);
    out.qualified = qualified(fn.qualified);
    if (fn.owner != kNone) {
      out.owner = spot(p_.types[fn.owner].home());
      out.ownerName = qualified(p_.types[fn.owner].qualified);
    }
    out.isStatic = fn.modifiers & kStatic;
    out.isGetter = fn.form == FunctionForm::Getter;
    out.isFactory = fn.form == FunctionForm::Factory;
    out.suspends = (fn.modifiers & kSuspending) || anyNode(p_.file(home), home.node, [&](NodeId n) { return p_.file(home)[n].kind == Kind::Await; });
    std::string_view result = fn.result ? p_.text(p_.use(fn.result).name) : std::string_view();
    out.returns = fn.result != 0 && result != "void";
    for (VariableIndex v : fn.parameters) {
      const Variable& variable = p_.variables[v];
      Spot parameter = spot(variable.home());
      ProbeParameter given;
      const LoweredFile& file = *parameter.file;
      if (NodeId type = file.child(parameter.node, Role::Type); type != kNoNode) {
        given.type = std::string(file.name(type));
        given.isArray = file[type].has(kArray);
        given.mayBeNull = file[type].has(kMayBeNone) || (file[type].has(kPointer) && !file[type].has(kReference | kRvalue));
      }
      given.hasDefault = file.child(parameter.node, Role::Initialiser) != kNoNode || parameter->has(kPack);
      out.parameters.push_back(std::move(given));
    }
    return out;
  }
  // Those of the language that could be read.
  std::vector<std::string> files(bool headers) const {
    std::vector<std::string> out;
    for (FileIndex f = 0; f < p_.files.size(); ++f)
      if (p_.languageOf[f]->id == language_.id && p_.files[f].problem.empty() && (headers || !p_.isHeader(f))) out.push_back(p_.files[f].path);
    return out;
  }
  bool needsNothing(FunctionIndex f) const { return p_.functions[f].leastArguments == 0; }

  Race begin(ProbeScenario scenario, FunctionIndex call, std::string title, std::string move) const {
    Race race;
    race.scenario = scenario;
    race.title = std::move(title);
    race.move = std::move(move);
    race.plan.scenario = scenario;
    race.plan.call.at = spot(e_.place);
    race.plan.file = p_.path(e_.place);
    if (call != kNone) {
      race.function = qualified(p_.functions[call].qualified);
      race.code.push_back(call);
      race.plan.call = functionOf(call);
      race.plan.file = p_.path(p_.functions[call].home());
    }
    race.plan.files = files(true);
    if (!language_.harness) race.refusal = "no harness is written yet in " + std::string(language_.name);
    return race;
  }

  // How the object is got at, for functions that are called on it.
  void reach(Race& race) const {
    const ProbeFunction& call = race.plan.call;
    if (!call.owner.known() || call.isStatic) return;
    for (const AccessPoint& point : e_.accessPoints)
      if (point.function != kNone && givesShared(p_, e_, point.function) && needsNothing(point.function)) {
        race.plan.reach = functionOf(point.function);
        return;
      }
    if (e_.slot == kNone) return;
    race.plan.slot = qualified(p_.variables[e_.slot].qualified);
    race.plan.slotFile = p_.path(p_.variables[e_.slot].home());
    if (TypeIndex owner = p_.variables[e_.slot].owner; owner != kNone) race.plan.slotOwner = qualified(p_.types[owner].qualified);
  }

  void claim(const Race& race, std::initializer_list<std::string_view> checks, std::vector<size_t>& findings) const {
    for (size_t i = 0; i < a_.assessment.findings.size(); ++i) {
      const Finding& f = a_.assessment.findings[i];
      bool about = f.entity == entity_ && std::find(checks.begin(), checks.end(), f.check) != checks.end();
      bool here = race.scenario == ProbeScenario::Creation || std::find(race.code.begin(), race.code.end(), functionAround(p_, f.place)) != race.code.end();
      if (about && here) findings.push_back(i);
    }
  }

  // ----- made twice

  void creation() {
    FunctionIndex call = kNone, in = e_.creation.in;
    for (const AccessPoint& point : e_.accessPoints)
      if (point.function != kNone && (call == kNone || (needsNothing(point.function) && !needsNothing(call)) || point.function == in)) call = point.function;
    if (call == kNone && e_.creation.time == CreationTime::Lazy) call = in;
    if (call == kNone || !p_.functions[call].definition.known()) return;
    Race race = begin(ProbeScenario::Creation, call, "creation of " + e_.shown, "safe-init");
    reach(race);
    if (in != kNone && in != call) race.code.push_back(in);
    if (e_.slot != kNone)
      for (uint32_t u : p_.usesOfVariable[e_.slot]) {
        const Use& use = p_.uses[u];
        if (use.access != Access::Write || use.in == kNone || (use.in != in && use.in != call)) continue;
        NodeId value = p_.assignedAt(use.place);
        if (value != kNoNode && !p_.file(use.place)[value].is(Kind::Literal, LiteralForm::Null)) race.plan.values.push_back(spot({use.place.file, value}));
      }
    if (race.plan.values.empty() && e_.creation.place.known()) {
      const Node& made = p_.node(e_.creation.place);
      if (made.kind == Kind::Create && made.detail != static_cast<uint8_t>(CreateForm::Value) && made.detail != static_cast<uint8_t>(CreateForm::InPlace)) race.plan.values.push_back(spot(e_.creation.place));
    }
    if (race.plan.values.empty() && e_.creation.constructor != kNone && p_.functions[e_.creation.constructor].definition.known()) race.plan.made.push_back(spot(p_.functions[e_.creation.constructor].definition));
    race.cannotGoWrong = e_.creation.time != CreationTime::Lazy || e_.creation.guard == GuardSort::Language;
    // What is made across a wait needs another form, which no move writes.
    race.tasks = race.plan.call.suspends || !p_.guarantees(e_.place.file).sharedMemoryThreads.holds;
    if (race.tasks) race.move.clear(), race.mending = moveText(*checkById("thread.await-gap"), &p_.guarantees(e_.place.file));
    // What order the memory keeps is not shown by waiting.
    if (e_.creation.guard == GuardSort::DoubleCheckUnsound) race.hidden = "The fault of this double check is in the order in which a processor's writes become visible: another thread may see the object before it is complete. Few processors show it, and no gap makes them.";
    claim(race, {"thread.unguarded-creation", "thread.await-gap", "thread.double-check-incomplete", "thread.wrong-lock"}, race.findings);
    out_.push_back(std::move(race));
  }

  // ----- changed at once

  // What a function writes to a variable that it has read before. `back`: it becomes true where what is written is made of what was read.
  std::vector<Spot> writtenBack(FunctionIndex f, VariableIndex v, bool& back) const {
    std::vector<Spot> out;
    bool read = false;
    for (uint32_t u : p_.usesInFunction[f]) {
      const Use& use = p_.uses[u];
      if (use.variable != v) continue;
      Place up = p_.parent(use.place);
      for (int i = 0; i < 2 && p_.node(up).kind != Kind::Assign && p_.node(up).kind != Kind::Update && p_.node(up).kind != Kind::Call; ++i) up = p_.parent(up);
      const Node& around = p_.node(up);
      const LoweredFile& file = p_.file(up);
      NodeId written = around.kind == Kind::Assign || around.kind == Kind::Update ? file.child(up.node, Role::Target) : kNoNode;
      bool target = written != kNoNode && (written == use.place.node || p_.isInside(use.place, written));
      bool updates = use.access == Access::Update || around.kind == Kind::Update || around.is(Kind::Assign, AssignForm::Compound);
      if (target && updates) out.push_back(spot(up)), back = true;
      else if (target && read && file.child(up.node, Role::Value) != kNoNode) out.push_back(spot({up.file, file.child(up.node, Role::Value)}));
      else if (around.kind == Kind::Call && read && changesState(p_, use)) {
        NodeId last = kNoNode;
        for (NodeId c = file[up.node].firstChild; c != kNoNode; c = file[c].nextSibling)
          if (file[c].role == Role::Argument) last = c;
        if (last != kNoNode && file[last].kind != Kind::Lambda) out.push_back(spot({up.file, last}));
      }
      // x = x + 1 reads before it writes, and is told so after its target.
      if (target && !updates)
        if (NodeId value = file.child(up.node, Role::Value); value != kNoNode && namesInside(p_, {up.file, value}, v)) {
          back = true;
          if (out.empty()) out.push_back(spot({up.file, value}));
        }
      read = true;
    }
    return out;
  }

  void changes() {
    std::vector<VariableIndex> state;
    for (const StateField& field : e_.state)
      if (field.changes) state.push_back(field.variable);
    if (state.empty() && e_.slot != kNone) state.push_back(e_.slot);
    std::vector<FunctionIndex> named, others;
    for (const Finding& f : a_.assessment.findings)
      if (f.entity == entity_ && (f.check == "thread.lost-update" || f.check == "thread.check-then-act" || f.check == "thread.unguarded-state" || f.check == "thread.mixed-guard"))
        if (FunctionIndex in = functionAround(p_, f.place); in != kNone) named.push_back(in);
    for (VariableIndex v : state)
      for (uint32_t u : p_.usesOfVariable[v])
        if (FunctionIndex in = p_.uses[u].in; in != kNone && changesState(p_, p_.uses[u]) && !a_.subject().inTests(p_.uses[u].place) && !isConstruction(p_, in) && in != e_.creation.in) others.push_back(in);
    std::vector<FunctionIndex> all = named;
    all.insert(all.end(), others.begin(), others.end());
    std::set<FunctionIndex> seen;
    size_t taken = 0;
    for (FunctionIndex f : all) {
      if (!seen.insert(f).second || !p_.functions[f].definition.known() || isMain(p_, f)) continue;
      bool isNamed = std::find(named.begin(), named.end(), f) != named.end();
      std::vector<Spot> values;
      bool back = isNamed;
      for (VariableIndex v : state)
        for (Spot value : writtenBack(f, v, back))
          if (std::find(values.begin(), values.end(), value) == values.end()) values.push_back(value);
      if (!isNamed && taken >= kMostFunctions) continue;
      ++taken;
      Race race = begin(ProbeScenario::Change, f, (p_.guarantees(e_.place.file).sharedMemoryThreads.holds ? "several threads in " : "several calls of ") + functionName(p_, f), "synchronize");
      race.tasks = race.plan.call.suspends || !p_.guarantees(e_.place.file).sharedMemoryThreads.holds;
      if (race.tasks) race.move.clear(), race.mending = "read it on the same side of the wait on which it is written.";
      reach(race);
      race.plan.values = std::move(values);
      // Where what is written has nothing to do with what was read, and no finding says so, no change is lost.
      race.cannotGoWrong = race.plan.values.empty() || !back;
      if (race.plan.values.empty()) race.oneStep = "nothing is read before it is written there: no other thread can come between";
      if (!race.plan.values.empty()) claim(race, {"thread.lost-update", "thread.check-then-act"}, race.findings);
      claim(race, {"thread.unguarded-state", "thread.mixed-guard"}, race.onlyIfSeen);
      out_.push_back(std::move(race));
    }
  }

  // ----- ended, and called all the same

  void ends() {
    std::set<TypeIndex> seen;
    for (const Registration& r : a_.subject().registrations) {
      if (r.entity != entity_ || r.asFunction || !seen.insert(r.subscriber).second) continue;
      Notification notified = notificationOf(p_, r.collection);
      if (notified.by == kNone) continue;
      Race race = begin(ProbeScenario::Ended, notified.by, "an object of " + std::string(p_.text(p_.types[r.subscriber].name)) + " that ended, and " + functionName(p_, notified.by), "unregister");
      reach(race);
      // Where it is listed, so that it is seen whether it was.
      if (r.by != kNone && p_.functions[r.by].definition.known()) race.plan.made.push_back(spot(p_.functions[r.by].definition));
      std::vector<FunctionIndex> constructors = constructorsOf(p_, r.subscriber);
      if (!constructors.empty()) race.plan.subscriber = functionOf(constructors.front());
      else race.plan.subscriber.at = race.plan.subscriber.owner = spot(p_.types[r.subscriber].home()), race.plan.subscriber.ownerName = qualified(p_.types[r.subscriber].qualified);
      FunctionIndex end = endOf(p_, r.subscriber);
      if (end != kNone && p_.functions[end].form != FunctionForm::Destructor) race.plan.ends = functionOf(end), race.code.push_back(end);
      FunctionIndex heard = kNone;
      std::string_view name = notified.called != kNone ? p_.text(p_.functions[notified.called].name) : notified.name;
      if (!name.empty())
        for (FunctionIndex m : p_.types[r.subscriber].methods)
          if (p_.text(p_.functions[m].name) == name && p_.functions[m].definition.known()) heard = m;
      if (heard == kNone) {
        if (!p_.guarantees(r.place.file).freedByHand.holds) race.refusal = "what is called on the objects that are listed is not known";
      } else {
        race.plan.heard = functionOf(heard);
      }
      if (r.in != kNone && r.in != end && p_.functions[r.in].form != FunctionForm::Constructor && race.refusal.empty()) race.refusal = "an object of " + std::string(p_.text(p_.types[r.subscriber].name)) + " is listed by " + functionName(p_, r.in) + ", not by its constructor: whether that was called is up to the program";
      race.plan.file = heard == kNone ? p_.path(p_.types[r.subscriber].home()) : race.plan.file;
      for (size_t i = 0; i < a_.assessment.findings.size(); ++i) {
        const Finding& f = a_.assessment.findings[i];
        if (f.check == "lifetime.dangling-subscriber" && f.subject == p_.text(p_.types[r.subscriber].qualified)) race.findings.push_back(i);
      }
      out_.push_back(std::move(race));
    }
  }

  // ----- made before main

  void order() {
    std::vector<size_t> findings;
    for (size_t i = 0; i < a_.assessment.findings.size(); ++i)
      if (const Finding& f = a_.assessment.findings[i]; f.check == "init.order-across-files" && f.entity == entity_) findings.push_back(i);
    if (findings.empty()) return;
    Race race = begin(ProbeScenario::Order, kNone, "initialisation of " + e_.shown + ", in both orders of linking", "");
    race.findings = std::move(findings);
    race.mending = moveText(*checkById("init.order-across-files"), &p_.guarantees(e_.place.file));
    race.plan.file = p_.path(a_.assessment.findings[race.findings.back()].place);
    race.plan.files = files(false);
    out_.push_back(std::move(race));
  }

  const Analysis& a_;
  const Program& p_;
  const Entity& e_;
  size_t entity_;
  const Language& language_;
  std::vector<Race> out_;
};

}  // namespace

std::string_view scenarioText(ProbeScenario scenario) {
  switch (scenario) {
    case ProbeScenario::Creation: return "creation";
    case ProbeScenario::Change: return "change";
    case ProbeScenario::Ended: return "end";
    case ProbeScenario::Order: return "order";
  }
  return "";
}

std::vector<Race> racesOf(const Analysis& analysis, size_t entity) { return Planner(analysis, entity).run(false); }

std::vector<Race> sameRace(const Analysis& analysis, size_t entity, const Race& race) {
  Planner planner(analysis, entity);
  std::vector<Race> all = planner.run(true);
  std::erase_if(all, [&](const Race& again) { return again.scenario != race.scenario || again.function != race.function; });
  if (all.empty() && race.scenario == ProbeScenario::Creation)
    for (FunctionIndex f = 0; f < analysis.program.functions.size() && all.empty(); ++f)
      if (const Function& fn = analysis.program.functions[f]; fn.definition.known() && analysis.program.text(fn.qualified) == race.function) all.push_back(planner.callsOnly(f));
  if (all.size() > 1) all.resize(1);
  return all;
}

std::vector<Race> accessOnly(const Analysis& analysis, size_t entity) {
  const Entity& e = analysis.survey.entities[entity];
  for (const AccessPoint& point : e.accessPoints)
    if (point.function != kNone && givesShared(analysis.program, e, point.function)) {
      const Function& fn = analysis.program.functions[point.function];
      if (fn.leastArguments == 0 && fn.definition.known()) return {Planner(analysis, entity).callsOnly(point.function)};
    }
  return {};
}

}  // namespace elmcart

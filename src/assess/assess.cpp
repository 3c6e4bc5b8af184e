#include "assess/assess.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

#include "assess/families.h"
#include "base/text.h"
#include "source/ignore.h"

namespace elmcart {

std::string_view surenessText(Sureness sureness) {
  return sureness == Sureness::Certain ? "certain" : sureness == Sureness::Likely ? "likely" : "possible";
}

std::string_view adviceText(Advice advice) {
  static constexpr std::string_view kTexts[] = {"keep", "steady", "seal", "inject", "wrap", "settle"};
  return kTexts[static_cast<size_t>(advice)];
}

std::string_view adviceMeaning(Advice advice) {
  static constexpr std::string_view kTexts[] = {
      "leave it as it is", "make its creation and its changes sound, where it is", "close the extra doors",
      "hand it in through constructors instead of reaching for it", "put an object with the same members around it and hand that in",
      "make it an ordinary member of its one user"};
  return kTexts[static_cast<size_t>(advice)];
}

double sureFactor(Sureness sureness) { return sureness == Sureness::Certain ? 1.0 : sureness == Sureness::Likely ? 0.8 : 0.5; }

double reachFactor(size_t sites) { return 0.5 + 0.5 * std::min(1.0, std::log2(1.0 + static_cast<double>(sites)) / 6.0); }

int Risk::value() const { return static_cast<int>(std::lround(bad * sure * reach)); }

namespace {

constexpr std::array kChecks = std::to_array<Check>({
    {{"single.open-constructor", "Open constructor", 45,
      "A class is handed out as one instance, but its constructor can be called by anyone.",
      "Code that makes a second object works on state of its own: what it writes is not seen through the door, and what others write it does not see.",
      "Keep it when the class is useful in several instances and the shared one is only a convenience: then it is no singleton, and its name should say so.",
      "seal: make the constructor private; or inject, which opens it on purpose and drops the door."},
     checkOpenConstructor},
    {{"single.copyable", "Copyable", 40,
      "A class meant to be one can be copied.",
      "`auto book = Book::get();` without the & silently makes a second object; changes to it are lost for everyone else.",
      "Keep it when the class is a plain value that callers are meant to copy.",
      "seal: delete the copy constructor and the copy assignment."},
     checkCopyable},
    {{"single.second-creation", "Second creation", 65,
      "Some code does make another instance of a class that is handed out as one.",
      "Two parts of the program believe they share state, and do not.",
      "Keep it when the second object is made on purpose, in a test for instance.",
      "inject: hand the one instance to the code that makes its own."},
     checkSecondCreation},
    {{"single.subclassable", "Subclassable", 30,
      "A class meant to be one can be subclassed, and an object of the subclass is one of them too.",
      "Whoever holds the subclass's object and whoever asks the door work on two.",
      "Keep it when subclasses are meant to take the one place, and the door makes them.",
      "seal: make the constructor private, or the class final."},
     checkSubclassable},
    {{"single.may-return-nothing", "May return nothing", 50,
      "The door to a shared object hands out nothing on one of its ways.",
      "Callers take the door's promise for granted; the one that comes too early fails far from the cause.",
      "Keep it when every caller tests, and the type says that there may be nothing.",
      "steady: make the object on first use, or hand it in where it is needed."},
     checkMayReturnNothing},
    {{"single.reinitialised", "Reinitialised", 60,
      "Asking for the one object runs its constructor on it again.",
      "What the object had gathered is set back each time somebody asks for it.",
      "Keep it when the constructor sets nothing but what never changes.",
      "steady: do the setting up where the object is made, or test in the constructor whether it was done."},
     checkReinitialised},
    {{"single.replaceable", "Replaceable", 45,
      "Production code puts another object into the slot of one that is handed out as the one.",
      "Who kept the first goes on working with it; who asks later gets the other.",
      "Keep it when the replacing is done once, before anybody asks.",
      "inject: hand the object in, and let who puts the program together decide which."},
     checkReplaceable},
    {{"single.cloneable", "Cloneable", 30,
      "A class meant to be one can be cloned.",
      "A clone has state of its own; what is written to it is lost for everyone else.",
      "Keep it when the class has no state, or when cloning it is wanted.",
      "seal: forbid cloning in the class."},
     checkCloneable},
    {{"single.revivable", "Revivable", 40,
      "A class meant to be one can be stored and read back, which makes a second object.",
      "The object that was read back has state of its own, and comparing it with the one fails.",
      "Keep it when nobody stores it.",
      "seal: hand out the one that is there when it is read back, or make it an enum constant."},
     checkRevivable},
    {{"single.slot-shared-by-subclasses", "Slot shared by subclasses", 60,
      "A class and its subclasses keep their one instance in the same slot, while each makes one of its own class.",
      "Who asks first decides: a subclass can be handed an object of its base class, or the base one of a subclass.",
      "Keep it when exactly one class of the family is ever asked.",
      "steady: a slot a class, in a table by class for instance."},
     checkSlotShared},
    {{"start.arguments-ignored", "Arguments ignored", 40,
      "An accessor takes arguments that only count for whoever calls it first.",
      "Later callers believe they get what they asked for, and get what somebody else asked for.",
      "Keep it when every caller gives the same.",
      "inject: make the object where the arguments are known, and hand it in."},
     checkArgumentsIgnored},
    {{"thread.await-gap", "Gap while waiting", 70,
      "A lazy creation lets other code run between finding the slot empty and filling it.",
      "A second call in that gap creates another object; the earlier one is replaced, with all that was done to it.",
      "Keep it when making two does no harm and only one call can be under way.",
      "steady: keep the promise of the object in the slot instead of the object, so that the second call finds it."},
     checkAwaitGap},
    {{"start.order-within-class", "Order within a class", 75,
      "Creating a shared object uses a variable of its class or file that is initialised further down.",
      "Initialisers run in the order of the text: the constructor sees nothing, or zero, where the value should be.",
      "Keep it when the value that is found there early is what is meant.",
      "steady: move the instance below what its constructor needs, or create it on first use."},
     checkOrderWithinClass},
    {{"start.order-across-files", "Initialisation order across files", 75,
      "The initialiser of a variable with static lifetime reaches another one that a different file initialises.",
      "The order between files is not defined (C++20 [basic.start.dynamic]/2): the program may read an object before it is constructed, and may begin to do so after a mere change of link order.",
      "Keep it only when the other variable is constant-initialised in truth; then say so with constexpr or constinit.",
      "steady: create the reached one when it is first asked for ({sound}), or hand it in."},
     checkOrderAcrossFiles},
    {{"start.eager-heavy", "Heavy eager creation", 50,
      "An object with static lifetime does heavy work in its constructor: files, network, threads, processes.",
      "The work is done before main begins, in every program and test that links the file, with nobody to catch an error.",
      "Keep it when every program that links it needs the result at once and cannot fail without it.",
      "steady: create it on first use, or in main and hand it in."},
     checkEagerHeavy},
    {{"thread.unguarded-creation", "Unguarded lazy creation", 85,
      "The slot is tested and filled with nothing that keeps a second thread out between the two.",
      "Two threads can each create an instance. One is lost, with all that was written to it, and the code that holds it works on a ghost.",
      "Keep it when it is certain that the first access happens before any second thread starts; better, make that so by creating it in main.",
      "steady: let the language create it once, under a guard of its own: {sound}."},
     checkUnguardedCreation},
    {{"thread.double-check-incomplete", "Incomplete double-checked locking", 80,
      "The slot is tested before the lock is taken, and not again inside it.",
      "The second of two threads waits for the lock and then creates another object: what the first did on its own is lost.",
      "Keep it when making the object twice does no harm and nothing is kept in it.",
      "steady: test again inside the lock, or {sound}."},
     checkDoubleCheckIncomplete},
    {{"thread.wrong-lock", "Wrong lock", 80,
      "The lock around a shared object's creation is not the same object for every thread.",
      "A lock keeps out only those who take the same one: made anew in each call, kept in each object, or replaced meanwhile, it lets all threads in.",
      "Keep it when one thread only ever gets there.",
      "steady: one lock that lives as long as the slot and is never replaced, or {sound}."},
     checkWrongLock},
    {{"thread.double-check-unsound", "Unsound double-checked locking", 80,
      "The slot is read outside the lock while another thread may write it, and it is not atomic; or the test is not repeated inside the lock.",
      "Reading a plain variable while another thread writes it is a data race: the reader can see the pointer before the object behind it.",
      "Never keep it: the sound forms cost no more.",
      "steady: {sound}; or a slot that publishes what is behind it (atomic or volatile, where the language says so)."},
     checkDoubleCheckUnsound},
    {{"thread.lock-every-access", "A lock on every access", 25,
      "The accessor takes a lock each time, although only the first call needs one.",
      "It is correct, but each access pays, and threads that only read wait for each other.",
      "Keep it where the accessor is called seldom.",
      "steady: {sound} pays one test after the first time."},
     checkLockEveryAccess},
    {{"thread.unguarded-state", "Unguarded shared state", 70,
      "Fields of a shared object change after construction, a second thread reaches them, and no lock protects them.",
      "A data race: readers can see half a change, containers can be corrupted.",
      "Keep it when the accesses are ordered by other means (a join, a queue), and say so in an acceptance.",
      "guard: a mutex held at each access, or an atomic for a single number."},
     checkUnguardedState},
    {{"thread.lost-update", "Lost update", 60,
      "A shared number is read, changed and written back in more than one step.",
      "Two threads that do so at once write back the same result: one change is lost, two tickets bear one number.",
      "Keep it when only one thread ever changes it.",
      "guard: make it atomic, or hold a lock over the whole change."},
     checkLostUpdate},
    {{"life.dangling-subscriber", "Dangling subscriber", 80,
      "An object registers itself in a list that outlives it, and its destructor does not take it out.",
      "After it dies the list still points at it; the next walk over the list calls a dead object.",
      "Keep it when every such object lives as long as the list, and say so.",
      "tether: remove it in the destructor, and forbid copies."},
     checkDanglingSubscriber},
    {{"life.never-released", "Never released", 35,
      "A shared object owns a file, socket or thread that no path gives back.",
      "What was buffered may never be written, and handles run out in long-lived programs and tests.",
      "Keep it when the resource is meant to last until the process ends and holds nothing unsaved.",
      "steady: an owner whose destructor releases it, and a slot whose owner is destroyed."},
     checkNeverReleased},
    {{"tie.hidden-dependency", "Hidden dependency", 45,
      "Functions reach a shared object from inside their bodies; no signature tells.",
      "Whoever reads, reuses or tests such a class learns only by running it what it depends on, and cannot put a test double in its place.",
      "Keep it for a stateless service, or for a sink such as a log that nobody decides on.",
      "inject: a constructor parameter and a field."},
     checkHiddenDependency},
    {{"tie.wide-reach", "Wide reach", 40,
      "Many classes reach one shared object.",
      "Everything that reaches it is tied to everything else that does; a change to it has to be checked everywhere.",
      "Keep it for a sink such as a log.",
      "inject, or split it by what its users really need."},
     checkWideReach},
});

// Reasons that go with an advice for this entity.
void addReasons(const Subject& s, const Entity& e, Advice advice, std::vector<std::string>& pro, std::vector<std::string>& contra) {
  std::vector<std::string> classes = consumerClasses(s, e);
  size_t changing = 0;
  for (const StateField& field : e.state) changing += field.changes;
  if (e.reset.known() || e.kind == EntityKind::Ambient || e.kind == EntityKind::Registry) ++changing;
  switch (advice) {
    case Advice::Keep:
      if (isSink(s, e)) pro.push_back("its users only write to it and never decide on what it says");
      if (changing == 0) pro.push_back("nothing in it changes after construction");
      if (classes.size() <= 1) pro.push_back("it is reached from one place only");
      contra.push_back("tests cannot look at it without going through the global door");
      break;
    case Advice::Steady:
      pro.push_back("the change stays with " + e.name + " itself: no user of it has to change");
      contra.push_back("it stays global: who depends on it stays hidden");
      break;
    case Advice::Seal:
      pro.push_back("a few lines in the class itself; the compiler then finds every wrong use");
      contra.push_back("code that makes or copies its own today will no longer compile");
      break;
    case Advice::Inject:
      pro.push_back(counted(classes.size(), "class or file says", "classes or files say") + " in the signature what " + (classes.size() == 1 ? "it depends" : "they depend") + " on");
      pro.push_back("a test can hand in an instance of its own, fresh for each test");
      contra.push_back("constructors change, up to the place where the program is put together");
      if (e.creation.time == CreationTime::Lazy && !e.creation.weights.empty()) contra.push_back("creation moves to an earlier moment, and it " + e.creation.weights.front().what);
      break;
    case Advice::Wrap:
      pro.push_back("its users can be given an object with the same members, and the static one stays for the rest");
      contra.push_back("one more class that only forwards");
      break;
    case Advice::Settle:
      pro.push_back("one user only: " + (classes.empty() ? std::string("nobody else") : classes.front()) + " can own it as an ordinary member");
      contra.push_back("a second user later would need it handed over");
      break;
  }
}

Judgement judge(const Subject& s, size_t index, const std::vector<Finding>& findings) {
  const Entity& e = s.survey.entities[index];
  Judgement out;
  if (e.harmless) {
    out.reasonsFor.push_back(e.harmlessBecause);
    return out;
  }
  const Finding* top = nullptr;
  for (const Finding& f : findings)
    if (f.entity == index && (!top || f.risk.value() > top->risk.value())) top = &f;
  out.isSink = isSink(s, e);
  if (out.isSink && (!top || top->check == "tie.wide-reach")) out.advice = Advice::Keep;
  else if (top) out.advice = top->advice;
  // Injection also mends what is unsound about creating it, where there are users to inject into.
  if (top && out.advice != Advice::Keep) {
    for (const Finding& f : findings)
      if (f.entity == index && f.check == "tie.hidden-dependency" && f.advice == Advice::Inject) out.advice = Advice::Inject;
  }
  addReasons(s, e, out.advice, out.reasonsFor, out.reasonsAgainst);
  return out;
}

// "accept <check> because <reason>" in a comment at the line or the line above.
struct Acceptance {
  FileIndex file;
  uint32_t line;
  std::string check, reason;
  bool used = false;
};

std::vector<Acceptance> acceptancesIn(const Program& p, std::vector<StaleAcceptance>& malformed) {
  std::vector<Acceptance> out;
  for (FileIndex f = 0; f < p.files.size(); ++f) {
    for (auto& [line, text] : p.files[f].notes) {
      std::string_view rest = trim(text);
      std::string where = p.files[f].path + ":" + std::to_string(line);
      if (rest.substr(0, 7) != "accept ") continue;
      rest = trim(rest.substr(7));
      size_t space = rest.find(' ');
      std::string check(rest.substr(0, space));
      std::string_view reason = space == std::string_view::npos ? std::string_view{} : trim(rest.substr(space));
      if (reason.substr(0, 8) != "because " || trim(reason.substr(8)).empty()) {
        malformed.push_back({where, check, "an acceptance needs `because <reason>`"});
        continue;
      }
      reason = trim(reason.substr(8));
      if (reason.size() > 2 && reason.substr(reason.size() - 2) == "*/") reason = trim(reason.substr(0, reason.size() - 2));
      if (!checkById(check)) {
        malformed.push_back({where, check, "no check bears that name"});
        continue;
      }
      out.push_back({f, line, check, std::string(reason), false});
    }
  }
  return out;
}

}  // namespace

std::span<const Check> checks() { return kChecks; }

const CheckInfo* checkById(std::string_view id) {
  for (const Check& check : kChecks)
    if (check.info.id == id || lastPart(check.info.id) == id || check.info.id.substr(check.info.id.find('.') + 1) == id) return &check.info;
  return nullptr;
}

std::string moveText(const CheckInfo& info, const Guarantees* guarantees) {
  std::string out(info.move);
  constexpr std::string_view kMark = "{sound}";
  if (size_t at = out.find(kMark); at != std::string::npos)
    out.replace(at, kMark.size(), guarantees ? guarantees->soundCreation : std::string_view("the form in which the language creates an object once"));
  return out;
}

const CheckInfo& infoOf(std::string_view id) { return *checkById(id); }

Finding makeFinding(const Subject& s, const CheckInfo& info, size_t entity, Sureness sureness) {
  Finding f;
  f.check = info.id;
  f.entity = entity;
  f.sureness = sureness;
  f.risk.bad = info.bad;
  f.risk.sure = sureFactor(sureness);
  if (entity != SIZE_MAX) {
    const Entity& e = s.survey.entities[entity];
    f.subject = e.id;
    f.place = e.place;
    size_t sites = 0;
    for (const Consumer& c : e.consumers) sites += !s.inTests(c.place);
    f.risk.sites = sites;
  }
  f.risk.reach = reachFactor(f.risk.sites);
  return f;
}

bool isSink(const Subject& s, const Entity& e) {
  if (e.type == kNone || (e.kind != EntityKind::Singleton && e.kind != EntityKind::SharedInstance)) return false;
  bool any = false;
  for (const Consumer& c : e.consumers) {
    if (s.inTests(c.place)) continue;
    if (c.field != kNone || c.access == Access::Write) return false;
    if (c.method == kNone) {
      // Fetched into a variable whose uses are consumers of their own, or streamed into.
      if (c.reach) {
        Place up = s.program.parent(c.place);
        if (s.program.node(up).kind == Kind::Return) return false;
      }
      continue;
    }
    const TypeUse& result = s.program.use(s.program.functions[c.method].result);
    bool returnsNothing = result.decl == kNone && s.program.text(result.name) == "void" && !result.has(kPointer);
    bool returnsItself = result.decl == e.type;
    if (!returnsNothing && !returnsItself) return false;
    // A command without an argument tells it to do something; a sink is told something.
    if (s.program.functions[c.method].parameters.empty()) return false;
    // Who hands in something that is kept and called later is no mere writer.
    for (VariableIndex v : s.program.functions[c.method].parameters) {
      const TypeUse& parameter = s.program.use(s.program.variables[v].type);
      if (parameter.decl != kNone && parameter.has(kPointer | kReference) && !parameter.has(kPointeeConst)) return false;
    }
    any = true;
  }
  return any;
}

std::vector<std::string> consumerClasses(const Subject& s, const Entity& e) {
  std::set<std::string> out;
  for (const Consumer& c : e.consumers) {
    if (s.inTests(c.place)) continue;
    TypeIndex owner = c.in == kNone ? kNone : s.program.functions[c.in].owner;
    if (owner != kNone && owner == e.type) continue;
    if (owner != kNone) out.insert(std::string(s.program.text(s.program.types[owner].qualified)));
    else if (c.in == kNone || s.program.text(s.program.functions[c.in].qualified) != "main") out.insert(s.program.path(c.place));
  }
  return {out.begin(), out.end()};
}

Assessment assessProgram(const Program& program, const Origins& origins, const Survey& survey, const Config& config) {
  Threads threads(program);
  Reaching reaching(program);
  Locks locks(program);
  Subject subject{program, origins, survey, threads, config, reaching, locks, {}, {}, {}, {}};
  for (const LoweredFile& file : program.files) subject.testFile.push_back(matchesAny(config.tests, file.path));
  subject.entityOfVariable.assign(program.variables.size(), SIZE_MAX);
  subject.entityOfDoor.assign(program.functions.size(), SIZE_MAX);
  subject.consumersIn.resize(program.functions.size());
  for (size_t i = 0; i < survey.entities.size(); ++i) {
    const Entity& e = survey.entities[i];
    if (e.harmless) continue;
    if (e.slot != kNone) subject.entityOfVariable[e.slot] = i;
    for (VariableIndex v : e.slots) subject.entityOfVariable[v] = i;
    for (const Door& door : e.doors)
      if (door.function != kNone) subject.entityOfDoor[door.function] = i;
    for (uint32_t c = 0; c < e.consumers.size(); ++c)
      if (e.consumers[c].in != kNone) subject.consumersIn[e.consumers[c].in].emplace_back(i, c);
  }
  Assessment out;
  for (const Check& check : kChecks) check.run(subject, out.findings);

  std::map<std::string, int> numbers;
  for (Finding& f : out.findings) {
    if (f.reasonsFor.empty() && f.entity != SIZE_MAX) addReasons(subject, survey.entities[f.entity], f.advice, f.reasonsFor, f.reasonsAgainst);
    std::string id = f.check + ":" + f.subject;
    int number = ++numbers[id];
    f.id = number == 1 ? id : id + "#" + std::to_string(number);
  }

  std::vector<Acceptance> acceptances = acceptancesIn(program, out.stale);
  std::vector<bool> rowUsed(config.accepted.size());
  for (Finding& f : out.findings) {
    std::vector<Place> places = {f.place};
    if (f.entity != SIZE_MAX) {
      places.push_back(survey.entities[f.entity].place);
      if (survey.entities[f.entity].slot != kNone)
        for (Place place : program.variables[survey.entities[f.entity].slot].declarations) places.push_back(place);
    }
    for (Acceptance& a : acceptances) {
      bool sameCheck = checkById(a.check) == checkById(f.check);
      for (Place place : places) {
        uint32_t line = program.line(place);
        if (!sameCheck || place.file != a.file || (line != a.line && line != a.line + 1)) continue;
        a.used = true;
        f.acceptedBecause = a.reason;
      }
    }
    for (size_t r = 0; r < config.accepted.size(); ++r) {
      const LedgerRow& row = config.accepted[r];
      const CheckInfo* info = checkById(row.check);
      if (!info || info->id != f.check) continue;
      bool entityFits = row.entity.empty() || row.entity == f.subject || row.entity == lastPart(f.subject);
      bool fileFits = row.file.empty() || matchesGlob(row.file, program.path(f.place));
      if (!entityFits || !fileFits) continue;
      rowUsed[r] = true;
      f.acceptedBecause = row.because;
    }
  }
  for (const Acceptance& a : acceptances)
    if (!a.used) out.stale.push_back({program.files[a.file].path + ":" + std::to_string(a.line), a.check, "accepts nothing any more"});
  for (size_t r = 0; r < config.accepted.size(); ++r)
    if (!rowUsed[r]) out.stale.push_back({config.ledger + " row " + std::to_string(r + 1), config.accepted[r].check, checkById(config.accepted[r].check) ? "accepts nothing any more" : "no check bears that name"});

  std::stable_sort(out.findings.begin(), out.findings.end(), [&](const Finding& a, const Finding& b) {
    int ra = a.risk.value(), rb = b.risk.value();
    if (ra != rb) return ra > rb;
    return std::make_tuple(program.path(a.place), program.line(a.place), a.id) < std::make_tuple(program.path(b.place), program.line(b.place), b.id);
  });
  for (size_t i = 0; i < survey.entities.size(); ++i) out.judgements.push_back(judge(subject, i, out.findings));
  return out;
}

}  // namespace elmcart

#include "assess/assess.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "assess/at_work.h"
#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"
#include "languages/parse_guard.h"
#include "source/ignore.h"

namespace elmcart {

std::string_view surenessText(Sureness sureness) {
  return sureness == Sureness::Certain ? "certain" : sureness == Sureness::Likely ? "likely" : "possible";
}

std::string_view adviceText(Advice advice) {
  static constexpr std::string_view kTexts[] = {"keep", "safe-init", "enforce", "inject", "wrap", "make-local", "synchronize", "unregister", "inject-collaborator", "own", "by-hand"};
  return kTexts[static_cast<size_t>(advice)];
}

std::string_view adviceMeaning(Advice advice) {
  static constexpr std::string_view kTexts[] = {
      "leave it as it is", "make it in a way that is safe with threads and in a defined order", "forbid a second instance: private constructor, no copies, no subclasses",
      "pass it to constructors instead of reaching it globally", "put an instance class with the same members in front of it and inject that",
      "make it an ordinary member of the one class that uses it", "protect its changes by one lock, or make them atomic", "remove each subscriber from the list when it ends",
      "take the collaborator as a constructor parameter, with the present one as the default",
      "hold it by an owning smart pointer", "no move does this: change it as the finding says",
  };
  return kTexts[static_cast<size_t>(advice)];
}

int laneOf(std::string_view note, std::string_view* rest) {
  for (std::string_view who : {"thread ", "call "}) {
    if (note.substr(0, who.size()) != who || note.size() < who.size() + 3) continue;
    char number = note[who.size()];
    if ((number != '1' && number != '2') || note.substr(who.size() + 1, 2) != ": ") continue;
    if (rest) *rest = note.substr(who.size() + 3);
    return number - '0';
  }
  return 0;
}

double sureFactor(Sureness sureness) { return sureness == Sureness::Certain ? 1.0 : sureness == Sureness::Likely ? 0.8 : 0.25; }

void Finding::setSureness(Sureness sure) {
  sureness = sure;
  risk.sure = sureFactor(sure);
}

double reachFactor(size_t sites) { return 0.5 + 0.5 * std::min(1.0, std::log2(1.0 + static_cast<double>(sites)) / 6.0); }

void Risk::setSites(size_t count) {
  sites = count;
  reach = reachFactor(count);
}

int Risk::value() const { return static_cast<int>(std::lround(bad * sure * reach)); }

namespace {

// Reasons that go with an advice for this entity.
void addReasons(const Subject& s, const Entity& e, Advice advice, std::vector<std::string>& pro, std::vector<std::string>& contra) {
  std::vector<std::string> classes = consumerClasses(s, e);
  size_t changing = 0;
  for (const StateField& field : e.state) changing += field.changes;
  if (e.reset.known() || e.kind == EntityKind::Ambient || e.kind == EntityKind::Registry) ++changing;
  switch (advice) {
    case Advice::Keep:
      if (isSink(s, e)) pro.push_back("its users only write to it; none reads it to decide something");
      if (changing == 0) pro.push_back("its state does not change after construction");
      if (classes.size() <= 1) pro.push_back("one class or file reaches it");
      contra.push_back("a test can only get at it through the global access point");
      break;
    case Advice::SafeInit:
      pro.push_back("only " + e.shown + " itself changes; its users stay as they are");
      contra.push_back("it stays global, and its users still hide that they depend on it");
      break;
    case Advice::Enforce:
      pro.push_back("a few lines in the class; afterwards the compiler rejects a second instance");
      contra.push_back("code that makes or copies an instance today no longer compiles");
      break;
    case Advice::Inject:
      pro.push_back(counted(classes.size(), "class or file shows", "classes or files show") + " in the constructor that " + (classes.size() == 1 ? "it depends" : "they depend") + " on it");
      pro.push_back("a test can pass a new instance or a test double");
      contra.push_back("constructors change, up to the composition root");
      if (e.creation.time == CreationTime::Lazy && !e.creation.weights.empty()) contra.push_back("it is made earlier than today, and its constructor " + e.creation.weights.front().what);
      break;
    case Advice::Wrap:
      pro.push_back("its users can take an object with the same members; other code keeps the static API");
      contra.push_back("one more class that only forwards calls");
      break;
    case Advice::MakeLocal:
      pro.push_back("only " + (classes.empty() ? std::string("one class") : classes.front()) + " uses it, and can own it as an ordinary member");
      contra.push_back("a second user would have to be given it");
      break;
    case Advice::Synchronize:
      pro.push_back("only " + e.shown + " itself changes; its users stay as they are");
      contra.push_back("each access takes the lock; references that it returns are not protected");
      break;
    case Advice::Unregister:
      pro.push_back("one line at the end of a subscriber covers every place that makes one");
      contra.push_back("every owner has to destroy it, or to call the method that ends it");
      break;
    case Advice::InjectCollaborator: case Advice::Own: case Advice::ByHand: break;  // of classes and functions, not of what is shared
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
  if (out.isSink && (!top || top->check == "coupling.wide-reach")) out.advice = Advice::Keep;
  else if (top) out.advice = top->advice;
  // Injection also mends what is unsound about creating it, where there are users to inject into.
  if (top && out.advice != Advice::Keep) {
    for (const Finding& f : findings)
      if (f.entity == index && f.check == "coupling.hidden-dependency" && f.advice == Advice::Inject) out.advice = Advice::Inject;
  }
  addReasons(s, e, out.advice, out.reasonsFor, out.reasonsAgainst);
  return out;
}

// The function around a place, or the class, by name.
std::string aroundText(const Program& program, Place place) {
  const LoweredFile& file = program.file(place);
  for (NodeId up = place.node; up != kNoNode; up = file.parents[up])
    if (file[up].kind == Kind::Function || file[up].kind == Kind::Type) {
      Symbol symbol = program.symbolAt({place.file, up});
      if (symbol.is(Symbol::Sort::Function)) return functionText(program, symbol.index());
      if (symbol.is(Symbol::Sort::Type)) return std::string(program.text(program.types[symbol.index()].qualified));
    }
  return "";
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
        malformed.push_back({where, check, "no check has that name"});
        continue;
      }
      out.push_back({f, line, check, std::string(reason), false});
    }
  }
  return out;
}

}  // namespace

Finding makeFinding(const Subject& s, const CheckInfo& info, size_t entity, Sureness sureness) {
  Finding f;
  f.check = info.id;
  f.entity = entity;
  f.risk.bad = info.bad;
  f.setSureness(sureness);
  if (entity != SIZE_MAX) {
    const Entity& e = s.survey.entities[entity];
    f.subject = e.id;
    f.place = e.place;
    size_t sites = 0;
    for (const Consumer& c : e.consumers) sites += !s.inTests(c.place);
    f.risk.setSites(sites);
  }
  return f;
}

bool Subject::isSingleton(TypeIndex type) const {
  return std::any_of(entitiesOfType[type].begin(), entitiesOfType[type].end(), [&](size_t i) { return survey.entities[i].kind == EntityKind::Singleton; });
}

namespace {

// Where no type says so: no way out of the function gives a value.
bool returnsNoValue(const Program& p, FunctionIndex f) {
  Place body = p.functions[f].definition;
  return body.known() && !anyNode(p.file(body), body.node, [&](NodeId n) { return p.file(body)[n].kind == Kind::Return && p.file(body).child(n, Role::Value) != kNoNode; });
}

}  // namespace

bool isSink(const Subject& s, const Entity& e) {
  if (e.type == kNone || (e.kind != EntityKind::Singleton && e.kind != EntityKind::SharedInstance && e.kind != EntityKind::StaticHolder)) return false;
  bool any = false;
  for (const Consumer& c : e.consumers) {
    if (s.inTests(c.place)) continue;
    // What is set of it once and for all, as how much it tells, is a setting.
    if (c.field != kNone && c.access == Access::Write && isPlainValue(s.program, c.field)) continue;
    if (c.field != kNone) return false;
    // Who puts another sink there asks nothing of it.
    if (c.access == Access::Write && c.method == kNone) continue;
    if (c.access == Access::Write) return false;
    if (c.method == kNone) {
      // Fetched into a variable whose uses are consumers of their own, or streamed into.
      if (c.reach) {
        Place up = s.program.parent(c.place);
        if (s.program.node(up).kind == Kind::Return) return false;
      }
      continue;
    }
    const TypeUse& result = s.program.use(s.program.functions[c.method].result);
    bool returnsNothing = (result.decl == kNone && s.program.text(result.name) == "void" && !result.has(kPointer)) || (result.decl == kNone && result.name == 0 && returnsNoValue(s.program, c.method));
    // Of an interface where all results are written down.
    returnsNothing |= result.decl == kNone && result.name == 0 && (s.program.functions[c.method].modifiers & kAbstract) && !s.program.language(s.program.functions[c.method].home().file).infersTypes;
    bool returnsItself = result.decl == e.type;
    // if (log.isDebugEnabled()) log.debug(…)
    std::string_view asked = s.program.text(s.program.functions[c.method].name);
    if (asked.ends_with("Enabled") || asked == "isLoggable" || asked == "isEnabledFor") continue;
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

std::vector<std::string> consumerClasses(const Subject& s, const Entity& e, const std::function<bool(const Consumer&)>& counts) {
  std::set<std::string> out;
  for (const Consumer& c : e.consumers) {
    if (s.isAside(c.place) || isInOwnClass(s.program, e, c.place) || (counts && !counts(c))) continue;
    TypeIndex owner = classReaching(s.program, c);
    if (owner != kNone && owner == e.type) continue;
    if (owner != kNone) out.insert(std::string(s.program.text(s.program.types[owner].qualified)));
    else if (c.in == kNone || s.program.text(s.program.functions[c.in].qualified) != "main") out.insert(s.program.path(c.place));
  }
  return {out.begin(), out.end()};
}

namespace {

// Does the file import one of the modules, or a part of it?
bool importsAny(const LoweredFile& file, const std::vector<std::string_view>& modules) {
  return !modules.empty() && std::any_of(file.nodes.begin(), file.nodes.end(), [&](const Node& node) {
    if (node.kind != Kind::Import) return false;
    std::string_view name = file.name(node);
    return std::any_of(modules.begin(), modules.end(), [&](std::string_view module) { return name.starts_with(module) && (name.size() == module.size() || !isWordByte(name[module.size()])); });
  });
}

std::vector<bool> loadedByOthersIn(const Program& p) {
  std::vector<bool> out(p.files.size(), false);
  auto mark = [&](Place home, Place user) {
    if (home.known() && home.file != user.file) out[home.file] = true;
  };
  for (const CallSite& call : p.calls) mark(p.functions[call.callee].definition, call.place);
  for (const Use& use : p.uses) mark(p.variables[use.variable].definition, use.place);
  for (const Creation& creation : p.creations) mark(p.types[creation.type].definition, creation.place);
  return out;
}

constexpr size_t kReadEnough = 20;  // one byte in so many may be unread

// Programs that show how a library is used, where there are others.
std::vector<bool> examplesIn(const Program& program) {
  static constexpr std::string_view kFolders[] = {"demo", "demos", "example", "examples", "sample", "samples", "tutorial", "tutorials"};
  bool others = false;
  std::vector<bool> examples;
  for (const LoweredFile& file : program.files) {
    bool example = false;
    std::string_view path = file.path;
    for (size_t begin = 0, end; !example && (end = path.find('/', begin)) != std::string_view::npos; begin = end + 1)
      example = std::find(std::begin(kFolders), std::end(kFolders), path.substr(begin, end - begin)) != std::end(kFolders);
    examples.push_back(example);
    others |= !example;
  }
  if (!others) examples.assign(examples.size(), false);
  return examples;
}

// They start threads of their own, which say nothing of the library.
std::vector<bool> withExamples(const Program& program, std::vector<bool> out) {
  std::vector<bool> examples = examplesIn(program);
  for (size_t f = 0; f < out.size(); ++f) out[f] = out[f] || examples[f];
  return out;
}

}  // namespace

std::vector<bool> testFilesOf(const Program& program, const Config& config) {
  std::vector<bool> out;
  for (FileIndex f = 0; f < program.files.size(); ++f) out.push_back(config.tests.match(program.files[f].path) || importsAny(program.files[f], program.language(f).testImports));
  return out;
}

Judging::Judging(const Program& program, const Origins& origins, const Survey& survey, const Config& config)
    : testFile_(program.testFile.empty() ? testFilesOf(program, config) : program.testFile), threads_(program, withExamples(program, testFile_)), reaching_(program), locks_(program, testFile_, threads_.overriders()),
      subject{program, origins, survey, threads_, config, reaching_, locks_, testFile_, examplesIn(program), loadedByOthersIn(program), functionsAtWork(program, threads_, testFile_), {}, {}, {}, {}, {}, {}} {
  subject.entityOfVariable.assign(program.variables.size(), SIZE_MAX);
  subject.entitiesOfSlot.assign(program.variables.size(), 0);
  for (const Entity& e : survey.entities)
    if (e.slot != kNone && (e.kind == EntityKind::Singleton || e.kind == EntityKind::SharedInstance)) ++subject.entitiesOfSlot[e.slot];
  subject.entityOfAccessPoint.assign(program.functions.size(), SIZE_MAX);
  subject.entitiesOfType.resize(program.types.size());
  for (size_t i = 0; i < survey.entities.size(); ++i) {
    const Entity& e = survey.entities[i];
    if (e.type != kNone) subject.entitiesOfType[e.type].push_back(i);
    if (e.harmless) continue;
    if (e.slot != kNone) subject.entityOfVariable[e.slot] = i;
    for (VariableIndex v : e.slots) subject.entityOfVariable[v] = i;
    for (const AccessPoint& accessPoint : e.accessPoints)
      if (accessPoint.function != kNone) subject.entityOfAccessPoint[accessPoint.function] = i;
  }
  subject.registrations = registrationsIn(subject);
  subject.collaborators = fixedCollaborators(subject);
}

Assessment assessProgram(const Subject& subject, const std::vector<Seen>& seen) {
  const Program& program = subject.program;
  const Survey& survey = subject.survey;
  const Config& config = subject.config;
  Assessment out;
  for (const Check& check : checks()) {
    WorkingOn now("looking for", check.info.id);
    check.run(subject, out.findings);
  }
  // Where nothing changes, nobody is hurt who shares it: what is to be told is how it comes to be.
  std::erase_if(out.findings, [&](const Finding& f) {
    bool making = f.check.starts_with("single.") || f.check.starts_with("init.") || f.check == "thread.escaping-this";
    return f.entity != SIZE_MAX && survey.entities[f.entity].stateless && !making;
  });
  // What stands in tests is told where it spoils tests; that a test shares an object of the program says nothing of the program.
  std::erase_if(out.findings, [&](const Finding& f) { return f.entity != SIZE_MAX && f.check != "coupling.test-leak" && subject.inTests(survey.entities[f.entity].place); });
  // What an example of the library's use shares, it shares with itself.
  std::erase_if(out.findings, [&](const Finding& f) { return f.entity != SIZE_MAX && survey.entities[f.entity].place.known() && subject.exampleFile[survey.entities[f.entity].place.file]; });
  // Of a file that could not be read as a whole, names may stand for something else.
  for (Finding& f : out.findings)
    if (const LoweredFile& file = program.files[f.place.file]; f.place.known() && f.sureness != Sureness::Possible && static_cast<size_t>(file.unreadBytes) * kReadEnough > file.textSize) {
      f.setSureness(Sureness::Possible);
      f.evidence.push_back({f.place, "a part of this file could not be read"});
    }
  // Nobody mends what a tool writes.
  std::erase_if(out.findings, [&](const Finding& f) { return f.place.known() && program.files[f.place.file].generated; });

  for (Finding& f : out.findings) {
    if (f.evidence.size() <= kMostEvidence) continue;
    size_t rest = f.evidence.size() - (kMostEvidence - 1);
    f.evidence.resize(kMostEvidence);
    f.evidence.back().note = "and " + std::to_string(rest) + " more places like this one";
  }
  std::map<std::string, int> numbers, sameAbout;
  for (Finding& f : out.findings) {
    if (f.reasonsFor.empty() && f.entity != SIZE_MAX) addReasons(subject, survey.entities[f.entity], f.advice, f.reasonsFor, f.reasonsAgainst);
    std::string id = f.check + ":" + f.subject;
    std::string about = id + "\n" + program.path(f.place) + "\n" + aroundText(program, f.place);
    f.fingerprint = fmt::format("{:016x}", stableHash(about + "\n" + std::to_string(++sameAbout[about])));
    int number = ++numbers[id];
    f.id = number == 1 ? id : id + "#" + std::to_string(number);
  }

  applyEvidence(program, seen, out.findings);

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
      bool fileFits = row.file.empty() || Globs({row.file}).match(program.path(f.place));
      if (!entityFits || !fileFits || (!row.fingerprint.empty() && row.fingerprint != f.fingerprint)) continue;
      rowUsed[r] = true;
      f.acceptedBecause = row.because;
    }
  }
  for (const Acceptance& a : acceptances)
    if (!a.used) out.stale.push_back({program.files[a.file].path + ":" + std::to_string(a.line), a.check, "it matches no finding any more"});
  for (size_t r = 0; r < config.accepted.size(); ++r)
    if (!rowUsed[r]) out.stale.push_back({config.ledger + " row " + std::to_string(r + 1), config.accepted[r].check, checkById(config.accepted[r].check) ? "it matches no finding any more" : "no check has that name"});

  std::stable_sort(out.findings.begin(), out.findings.end(), [&](const Finding& a, const Finding& b) {
    // What lacks a link stands behind what does not; equal risks go by reach, then by place.
    bool pa = a.sureness == Sureness::Possible, pb = b.sureness == Sureness::Possible;
    int ra = a.risk.value(), rb = b.risk.value();
    if (pa != pb) return pb;
    if (ra != rb) return ra > rb;
    if (a.risk.sites != b.risk.sites) return a.risk.sites > b.risk.sites;
    return std::make_tuple(program.path(a.place), program.line(a.place), a.id) < std::make_tuple(program.path(b.place), program.line(b.place), b.id);
  });
  for (size_t i = 0; i < survey.entities.size(); ++i) out.judgements.push_back(judge(subject, i, out.findings));
  return out;
}

std::vector<WorkItem> orderOfWork(const Assessment& assessment) {
  std::map<std::string, WorkItem> bySubject;
  std::map<std::string, std::vector<std::string>> reasons;
  for (const Finding& f : assessment.findings) {  // riskiest first
    if (!f.acceptedBecause.empty()) continue;
    WorkItem& item = bySubject[f.subject];
    if (item.findings == 0) {
      item.subject = f.subject;
      item.advice = f.advice;
      item.risk = f.risk.value();
    }
    item.weight += item.findings == 0 ? f.risk.value() : f.risk.value() / 4.0;
    if (++item.findings <= 2) reasons[f.subject].push_back(std::string(infoOf(f.check).title) + " (" + std::to_string(f.risk.value()) + ")");
  }
  std::vector<WorkItem> out;
  for (auto& [subject, item] : bySubject) {
    item.why = joinWith(reasons[subject], item.findings == 2 ? " and " : ", ");
    if (item.findings > 2) item.why += " and " + std::to_string(item.findings - 2) + " more";
    out.push_back(item);
  }
  std::stable_sort(out.begin(), out.end(), [](const WorkItem& a, const WorkItem& b) { return std::pair(a.risk, a.weight) > std::pair(b.risk, b.weight); });
  return out;
}

}  // namespace elmcart

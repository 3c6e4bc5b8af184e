#include "rework/rework.h"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <set>

#include "base/text.h"
#include "confirm/scratch.h"
#include "rework/moves.h"
#include "source/ignore.h"
#include "source/walk.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

using Clock = std::chrono::steady_clock;
double since(Clock::time_point mark) { return std::chrono::duration<double>(Clock::now() - mark).count(); }

bool writeText(const std::string& path, const std::string& text) {
  std::ofstream out(path, std::ios::binary | std::ios::trunc);
  out << text;
  return static_cast<bool>(out.flush());
}

// Figures for the table before/after.
std::map<std::string, int> figures(const Analysis& a, const std::string& id, bool ofState) {
  std::map<std::string, int> out;
  std::set<std::string> classes;
  int calls = 0;
  for (const Entity& e : a.survey.entities) {
    if (e.id != id) continue;
    for (const Consumer& c : e.consumers) {
      if (!c.reach) continue;
      ++calls;
      TypeIndex owner = c.in == kNone ? kNone : a.program.functions[c.in].owner;
      if (owner != kNone) classes.insert(std::string(a.program.text(a.program.types[owner].qualified)));
    }
  }
  if (ofState) {
    out["calls of the accessor"] = calls;
    out["classes that call it"] = static_cast<int>(classes.size());
  }
  int findings = 0;
  for (const Finding& f : a.assessment.findings) findings += f.subject == id;
  out["findings about it"] = findings;
  out["findings in all"] = static_cast<int>(a.assessment.findings.size());
  out["pieces of shared state"] = static_cast<int>(std::count_if(a.survey.entities.begin(), a.survey.entities.end(), [](const Entity& e) { return !e.harmless; }));
  return out;
}

std::vector<Cost> costsOf(const Analysis& a, size_t entity, const ReworkResult& result) {
  const Program& p = a.program;
  std::vector<Cost> out;
  if (result.move != "inject") {
    Cost own;
    own.way = result.move;
    std::set<std::string> files;
    for (const StepRecord& r : result.steps) {
      files.insert(r.files.begin(), r.files.end());
      own.classesChanged += r.step.units;
      own.creationSites += r.step.creationSites;
      own.signatures += r.step.kind == StepKind::InjectCollaborator || r.step.kind == StepKind::InjectParameter;
    }
    own.files = files.size();
    own.byHand = result.byHand.size();
    own.note = moveById(result.move)->what;
    out.push_back(own);
    return out;
  }
  const Entity& e = a.survey.entities[entity];
  Cost inject;
  inject.way = "inject";
  Cost seams;
  seams.way = "seams only";
  std::set<std::string> files, seamFiles;
  for (const StepRecord& r : result.steps) {
    for (const std::string& f : r.files) files.insert(f);
    inject.callSites += r.step.kind == StepKind::Retire ? 0 : r.step.callSites;
    inject.creationSites += r.step.creationSites;
    switch (r.step.kind) {
      case StepKind::Seam: case StepKind::InjectParameter:
        ++inject.classesChanged;
        ++seams.classesChanged;
        seams.callSites += r.step.callSites;
        for (const std::string& f : r.files) seamFiles.insert(f);
        break;
      case StepKind::Compose: inject.tests += r.step.inTests ? r.step.units : 0; break;
      default: break;
    }
  }
  // A class that has both its seam and its lift uses the object and passes it on: it is one class.
  std::set<std::string> users;
  for (const StepRecord& r : result.steps)
    if (r.step.kind == StepKind::Seam || r.step.kind == StepKind::InjectParameter) users.insert(r.step.subject);
  std::set<std::string> passers;
  for (const StepRecord& r : result.steps)
    if (r.step.kind == StepKind::Lift && !users.count(r.step.subject)) passers.insert(r.step.subject);
  inject.classesPassing = passers.size();
  inject.signatures = users.size() + passers.size();
  seams.signatures = users.size();
  inject.files = files.size();
  seams.files = seamFiles.size();
  inject.byHand = result.byHand.size();
  // The depth: how many classes deep the makers of makers go.
  std::map<std::string, size_t> level;
  for (const StepRecord& r : result.steps) level[r.step.subject] = 1;
  for (int round = 0; round < 20; ++round) {
    for (const Creation& c : p.creations) {
      if (c.in == kNone && c.inInitialiserOf == kNone) continue;
      TypeIndex owner = c.in != kNone ? p.functions[c.in].owner : p.variables[c.inInitialiserOf].owner;
      if (owner == kNone || owner == c.type) continue;
      std::string made(p.text(p.types[c.type].qualified)), maker(p.text(p.types[owner].qualified));
      if (level.count(made) && level.count(maker)) level[maker] = std::max(level[maker], level[made] + 1);
    }
  }
  for (auto& [name, l] : level) inject.depth = std::max(inject.depth, std::min<size_t>(l, 20));
  seams.depth = 1;
  auto left = result.after.find("calls of the accessor");
  bool stays = left != result.after.end() && left->second > 0;
  inject.note = result.finished && stays ? "no class fetches it any more: those that need it take it as a parameter; the accessor stays for the composition root"
                : result.finished        ? "the accessor goes; classes that need the object take it as a parameter" : "the accessor stays until the rest is done by hand";
  seams.note = "a test can pass a test double at once; callers and the accessor stay as they are";
  out.push_back(inject);
  out.push_back(seams);

  // Handing the object to each function that uses it, up to where the program is put together.
  Cost handIn;
  handIn.way = "inject-parameter";
  std::set<FunctionIndex> functions;
  std::vector<FunctionIndex> open;
  std::set<std::string> handFiles;
  for (const Consumer& c : e.consumers)
    if (c.reach && c.in != kNone && functions.insert(c.in).second) open.push_back(c.in);
  std::set<FunctionIndex> own = functions;
  for (size_t i = 0; i < open.size(); ++i)
    for (uint32_t c : p.callsOfFunction[open[i]])
      if (FunctionIndex in = p.calls[c].in; in != kNone && functions.insert(in).second) open.push_back(in);
  for (FunctionIndex f : functions) {
    Place place = p.functions[f].declarations.front();
    handFiles.insert(p.path(place));
    if (a.config.tests.match(p.path(place))) ++handIn.tests;
    else if (own.count(f)) ++handIn.classesChanged;
    else ++handIn.classesPassing;
  }
  handIn.signatures = handIn.classesChanged + handIn.classesPassing;
  handIn.files = handFiles.size();
  handIn.callSites = inject.callSites;
  handIn.note = "each function on the way gets a parameter: no class gets a field, but every call changes";
  out.push_back(handIn);

  std::set<std::string> members;
  for (const Consumer& c : e.consumers)
    if (c.method != kNone) members.insert(std::string(p.text(p.functions[c.method].name)));
  Cost face = inject;
  face.way = "inject an interface";
  face.files += 1;
  face.note = "as inject, through an interface of the " + counted(members.size(), "member", "members") + " in use: test doubles need not derive from the class";
  out.push_back(face);

  Cost steady;
  steady.way = "safe-init";
  steady.files = 1;
  steady.note = e.creation.guard == GuardSort::None || e.creation.guard == GuardSort::DoubleCheckUnsound ? "mends only its creation; its users still hide that they depend on it" : "its creation is sound already";
  out.push_back(steady);
  // Where many would only pass it on to few, the access points for tests are worth more than the way up.
  if (users.size() > 0 && passers.size() > 2 * users.size()) {
    out[1].note = "recommended, for " + std::to_string(passers.size()) + " classes would only pass it on to the " + std::to_string(users.size()) + " that use it (`--steps seam,hand-in` makes these steps alone): " + out[1].note;
    std::swap(out[0], out[1]);
  }
  return out;
}

}  // namespace

Result<ReworkResult> rework(const std::string& rootPath, const Config& config, const std::string& entityId, const ReworkOptions& options) {
  auto started = Clock::now();
  auto say = [&](const std::string& line) { if (options.progress) options.progress(line); };
  std::error_code error;
  std::string root = fs::canonical(rootPath, error).string();
  if (error) return Error{rootPath, error.message()};
  removeStrayScratch();
  auto scratch = Scratch::make();
  if (!scratch) return scratch.error();
  // Only what a step changed is read anew: the rest is kept as it was lowered.
  std::string why;
  std::unique_ptr<Cache> lowered = Cache::open(scratch->path() + "/lowered", why);
  auto look = [&](const std::string& path, bool judge) -> Result<std::unique_ptr<Analysis>> {
    auto sources = readTree(path, loadOptionsOf(config, options.jobs));
    if (!sources) return sources.error();
    return analyse(std::move(*sources), config, options.jobs, judge, lowered.get());
  };
  auto first = look(root, true);
  if (!first) return first.error();
  const Move* move = moveById(options.move, options.of);
  if (!move) return Error{options.move, "no such move"};
  size_t entity = targetOf(**first, *move, entityId);
  if (entity == SIZE_MAX) return Error{entityId, move->of == MoveTarget::State ? "no such entity" : move->of == MoveTarget::Class ? "no such class" : "no such function"};
  if (std::string refusal = refusalOf(*move, **first, entity); !refusal.empty()) return Error{entityId, options.move + " cannot be made: " + refusal};

  VariableIndex kept = move->of != MoveTarget::State ? kNone : (*first)->survey.entities[entity].slot;
  std::string slot = kept == kNone ? "" : std::string((*first)->program.text((*first)->program.variables[kept].qualified));

  auto copied = scratch->copyTree(root, "tree", config.gitignore);
  if (!copied) return copied.error();
  std::string tree = *copied;

  ReworkResult out;
  out.entity = entityId;
  out.move = options.move;
  out.before = figures(**first, entityId, move->of == MoveTarget::State);
  if (options.confirm) {
    say("baseline: building and testing the tree as it is, " + std::to_string(config.baselineRuns) + " times");
    out.baseline = learnBaseline(tree, config);
    if (config.stopAsked()) return Error{rootPath, "interrupted before any step was made"};
    if (!out.baseline.observation.built) return Error{rootPath, "does not build as it is, so no step could be judged:\n" + out.baseline.observation.buildOutput};
    say("baseline: " + counted(out.baseline.observation.tests.size(), "test", "tests") + ", " + counted(out.baseline.observation.witnesses.size(), "witness", "witnesses") +
        (out.baseline.flakyTests.empty() ? "" : ", " + counted(out.baseline.flakyTests.size(), "test is flaky and set aside", "tests are flaky and set aside")));
  }

  PlanMemory memory;
  std::map<std::string, std::string> original;
  std::set<std::string> made;  // of these, what was not there at all
  while (out.steps.size() < options.mostSteps && !out.interrupted) {
    auto own = Clock::now();
    auto now = look(tree, false);
    if (!now) return now.error();
    size_t at = targetOf(**now, *move, entityId);
    // What a step makes of it may go by another name; its slot tells that it is the same.
    for (size_t i = 0; at == SIZE_MAX && !slot.empty() && i < (*now)->survey.entities.size(); ++i)
      if (VariableIndex v = (*now)->survey.entities[i].slot; v != kNone && (*now)->program.text((*now)->program.variables[v].qualified) == slot) at = i;
    if (at == SIZE_MAX || !refusalOf(*move, **now, at).empty()) {
      out.finished = true;
      out.byHand.clear();
      break;
    }
    PlanMemory next = memory;
    NextStep planned = move->next(**now, at, next);
    out.byHand = planned.byHand;
    out.finished = planned.finished;
    if (!planned.found) break;
    // The kinds of a move come one after another: what is not asked for ends it.
    if (!options.only.empty() && !options.only.count(planned.step.kind)) break;
    StepRecord record;
    record.number = out.steps.size() + 1;
    record.step = planned.step;
    // Make the edits, keeping the old texts.
    std::map<std::string, std::vector<FileEdit>> byFile;
    for (const FileEdit& edit : record.step.edits) byFile[edit.path].push_back(edit);
    std::map<std::string, std::string> old;
    std::string failed;
    std::set<std::string> fresh;  // files that the step makes
    for (auto& [path, edits] : byFile) {
      bool isNew = !fs::exists(tree + "/" + path, error);
      auto text = isNew ? Result<std::string>(std::string()) : readWhole(tree + "/" + path);
      if (!text) return text.error();
      auto changed = applyEdits(*text, edits);
      if (!changed) {
        failed = changed.error().line();
        break;
      }
      if (isNew) fresh.insert(path);
      old[path] = *text;
      if (original.emplace(path, *text).second && isNew) made.insert(path);
      record.files.push_back(path);
      record.texts[path] = *changed;
      record.patch += unifiedDiff(path, *text, *changed, isNew);
      if (!writeText(tree + "/" + path, *changed)) return Error{path, "cannot be written in the scratch copy"};
    }
    record.ownSeconds = since(own);
    auto takeBack = [&] {
      for (auto& [path, text] : old) {
        if (fresh.count(path)) fs::remove(tree + "/" + path, error);
        else writeText(tree + "/" + path, text);
      }
      memory.refused.insert(record.step.key());
    };
    auto keep = [&](std::string outcome) {
      record.kept = true;
      record.outcome = std::move(outcome);
      memory = next;
      memory.made.insert(record.step.key());
    };
    if (failed.empty() && record.patch.empty()) failed = "it would change nothing";
    if (!failed.empty()) {
      record.outcome = "taken back: " + failed;
      takeBack();
    } else if (options.confirm) {
      if (options.tamper) options.tamper(tree, record.step);
      std::map<std::string, std::pair<std::string, std::string>> change;
      for (auto& [changedPath, text] : record.texts) change[changedPath] = {old[changedPath], text};
      auto run = [&] {
        Observation seen = observe(tree, config);
        own = Clock::now();
        record.buildSeconds += seen.buildSeconds;
        record.testSeconds += seen.testSeconds;
        Comparison comparison = compare(out.baseline, seen, change);
        record.ownSeconds += since(own);
        return comparison;
      };
      Comparison comparison = run();
      // A test may fail now and then though no run of the baseline showed it. Twice as before
      // outweighs once otherwise; seen again, it is the step's doing.
      std::string once;
      if (!config.stopAsked() && !comparison.same() && comparison.differences.front().what != "build") {
        once = comparison.differences.front().what + " " + comparison.differences.front().name + " was " + comparison.differences.front().before + ", then " + comparison.differences.front().after;
        for (int again = 0; again < 2; ++again) {
          Comparison later = run();
          bool same = later.same();
          comparison = std::move(later);
          if (!same) break;
        }
      }
      out.interrupted = config.stopAsked();
      record.differences = comparison.differences;
      if (out.interrupted) {
        record.outcome = "taken back: interrupted before it was confirmed";
        record.differences.clear();
        takeBack();
      } else if (comparison.same()) {
        keep(comparison.summary() + (once.empty() ? "" : "; in the first of three runs only, " + once));
      } else {
        const Difference& d = comparison.differences.front();
        record.outcome = "taken back: " + (d.what == "build" ? std::string("it does not build") : d.what + " " + d.name + " was " + d.before + ", now " + d.after);
        takeBack();
      }
    } else {
      keep("planned");
    }
    say("step " + std::to_string(record.number) + (options.expectedSteps > 0 ? " of " + std::to_string(std::max(options.expectedSteps, record.number)) : "") + ", " + std::string(stepKindText(record.step.kind)) + ": " + record.step.title + " — " + record.outcome);
    out.steps.push_back(std::move(record));
  }
  auto last = look(tree, true);
  if (!last) return last.error();
  out.after = figures(**last, entityId, move->of == MoveTarget::State);
  std::set<std::string> idsBefore, idsAfter;
  for (const Finding& f : (*first)->assessment.findings) idsBefore.insert(f.id);
  for (const Finding& f : (*last)->assessment.findings) idsAfter.insert(f.id);
  std::set_difference(idsBefore.begin(), idsBefore.end(), idsAfter.begin(), idsAfter.end(), std::back_inserter(out.findingsGone));
  std::set_difference(idsAfter.begin(), idsAfter.end(), idsBefore.begin(), idsBefore.end(), std::back_inserter(out.findingsCome));
  for (auto& [path, before] : original) {
    auto after = readWhole(tree + "/" + path);
    if (after && (*after != before || made.count(path))) out.files.push_back({path, before, *after, made.count(path) > 0});
  }
  out.costs = costsOf(**first, entity, out);
  out.seconds = since(started);
  return out;
}

Result<std::vector<std::string>> writePatches(const ReworkResult& result, const std::string& folder) {
  std::error_code error;
  fs::create_directories(folder, error);
  if (error) return Error{folder, "cannot be made: " + error.message()};
  // Patches of an earlier run would mix with these.
  for (fs::directory_iterator it(folder, error), end; !error && it != end; it.increment(error)) {
    std::string name = it->path().filename().string();
    if (name.size() > 9 && isdigit(static_cast<unsigned char>(name[0])) && isdigit(static_cast<unsigned char>(name[1])) && it->path().extension() == ".patch") fs::remove(it->path(), error);
  }
  std::vector<std::string> out;
  size_t number = 0;
  for (const StepRecord& record : result.steps) {
    if (!record.kept) continue;
    std::string words;
    for (char c : lastPart(record.step.subject)) {
      if (std::isalnum(static_cast<unsigned char>(c))) words += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
      else if (!words.empty() && words.back() != '-') words += '-';
      if (words.size() > 40) break;
    }
    while (!words.empty() && words.back() == '-') words.pop_back();
    char head[16];
    std::snprintf(head, sizeof head, "%03zu", ++number);
    std::string path = folder + "/" + head + "-" + std::string(stepKindText(record.step.kind)) + "-" + words + ".patch";
    if (!writeText(path, record.step.title + "\n\n" + record.patch)) return Error{path, "cannot be written"};
    out.push_back(path);
  }
  return out;
}

}  // namespace elmcart

#include "probe/race.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <fstream>
#include <map>
#include <sstream>

#include "base/text.h"
#include "probe/copies.h"
#include "rework/moves.h"
#include "rework/rework.h"

namespace elmcart {
namespace {

namespace fs = std::filesystem;

// ----- what one run tells

std::vector<ProbeEvent> eventsIn(const std::string& path) {
  std::vector<ProbeEvent> out;
  std::ifstream in(path);
  for (std::string line; std::getline(in, line);) {
    std::istringstream parts(line);
    ProbeEvent event;
    double nanoseconds = 0;
    if (!(parts >> event.kind >> event.thread >> nanoseconds)) continue;
    event.milliseconds = nanoseconds / 1e6;
    std::getline(parts >> std::ws, event.what);
    out.push_back(std::move(event));
  }
  std::stable_sort(out.begin(), out.end(), [](const ProbeEvent& x, const ProbeEvent& y) { return x.milliseconds < y.milliseconds; });
  return out;
}

// What the sanitizer says of a variable that is used before it is made.
std::vector<std::string> earlyUseIn(const std::string& said) {
  std::vector<std::string> out;
  std::string place;
  for (const std::string& line : splitLines(said)) {
    // "    #3 0x… in name /folder/as-it-is/board.cpp:5": the first frame that stands in the copy.
    size_t folder = line.find("/as-it-is/");
    bool frame = folder != std::string::npos && trim(line).starts_with("#") && line.find("elmcart_", folder) == std::string::npos;
    if (place.empty() && frame) place = line.substr(folder + 10);
    size_t variable = line.find("global variable '"), defined = line.find("' defined in '");
    if (variable == std::string::npos || defined == std::string::npos) continue;
    std::string home = line.substr(defined + 14, line.find('\'', defined + 14) - defined - 14);
    if (size_t copy = home.find("/as-it-is/"); copy != std::string::npos) home = home.substr(copy + 10);
    // "name.cpp:5:13", "harbourName[abi:cxx11]": without what only a compiler asks for.
    if (size_t first = home.find(':'), column = home.rfind(':'); column != first) home.resize(column);
    std::string name = line.substr(variable + 17, defined - variable - 17);
    name.resize(std::min(name.size(), name.find('[')));
    out.push_back((place.empty() ? name + " is used" : place + " uses " + name) + ", which is not made yet: that is done at " + home);
    break;
  }
  return out;
}

RaceRun judged(const Race& race, const RunResult& run, std::vector<ProbeEvent> events) {
  RaceRun out;
  std::set<std::string> got;
  std::map<std::string, size_t> written;
  size_t inside = 0, entered = 0;
  bool called = false, ended = false;
  for (const ProbeEvent& event : events) {
    if (event.kind == 'i') ++entered, out.together = std::max(out.together, ++inside);
    if (event.kind == 'o') inside -= inside > 0, ++written[event.what];
    if (event.kind == 'm') ++entered;
    if (event.kind == 'g' && event.what != "0") got.insert(event.what);
    if (event.kind == 'x') ++out.threw;
    if (event.kind == 'c') called = true;
    if (event.kind == 'd') ended = true;
    if (event.kind == 'h') ++out.made;
  }
  out.distinct = got.size();
  out.exitCode = run.exitCode;
  bool crashed = run.exitCode != 0 || run.timedOut || run.tooMuchOutput;
  switch (race.scenario) {
    case ProbeScenario::Creation:
      out.made = std::max(entered, got.size());
      out.happened = entered > 1 || got.size() > 1;
      break;
    case ProbeScenario::Change:
      out.made = entered;
      out.happened = out.together > 1;
      // Tasks of one thread are never between reading and writing together; that two wrote the same tells as much.
      if (race.tasks)
        for (const auto& [what, times] : written)
          if (what != "0" && times > 1) out.happened = true, out.together = std::max(out.together, times);
      break;
    case ProbeScenario::Ended:
      // Where objects are freed by hand, the program dies of it.
      out.happened = out.made > 0 || (ended && run.exitCode != 0 && !run.timedOut);
      crashed = crashed && !ended;
      called = ended;
      break;
    case ProbeScenario::Order:
      out.happened = run.err.find("initialization-order-fiasco") != std::string::npos;
      out.made = out.happened;
      crashed = crashed && !out.happened;
      called = true;
      out.earlyUse = earlyUseIn(run.err);
      break;
  }
  // What was there before the threads began was not raced for, and what was not listed cannot be called.
  bool marked = !race.plan.values.empty() || !race.plan.made.empty();
  out.reached = marked ? entered > 0 : race.scenario == ProbeScenario::Ended ? ended : race.scenario == ProbeScenario::Order || (race.scenario == ProbeScenario::Creation && !got.empty());
  out.failed = crashed || !called;
  if (crashed || !called) out.said = run.timedOut ? "it did not end" : run.tooMuchOutput ? "it printed more than can be kept" : fmt::format("exit code {}: {}", run.exitCode, cutSaid(run));
  else if (run.exitCode != 0) out.said = cutSaid(run);
  out.events = std::move(events);
  return out;
}

std::vector<std::string> interleavingOf(const Race& race, const RaceRun& run) {
  std::vector<std::string> out = run.earlyUse;
  std::map<std::string, int> objects;
  double begun = run.events.empty() ? 0 : run.events.front().milliseconds;
  for (const ProbeEvent& event : run.events) {
    std::string what;
    bool creation = race.scenario == ProbeScenario::Creation;
    switch (event.kind) {
      case 'i': what = creation ? "finds none, and makes one" : "has read, and is about to write"; break;
      case 'o': what = creation ? "stores what it made" : event.what == "0" ? "writes" : "writes " + event.what; break;
      case 'm': what = "makes one"; break;
      case 'g':
        if (event.what == "0") continue;
        what = fmt::format("gets object {}", objects.try_emplace(event.what, static_cast<int>(objects.size()) + 1).first->second);
        break;
      case 'x': what = "fails: " + event.what; break;
      case 'd': what = "the object ends"; break;
      case 'h': what = "it is called all the same"; break;
      default: continue;
    }
    std::string who = race.scenario == ProbeScenario::Ended ? "" : event.thread < 1000 ? fmt::format("{} {}  ", race.tasks ? "call" : "thread", event.thread) : "";
    out.push_back(fmt::format("{:7.1f} ms  {}{}", event.milliseconds - begun, who, what));
    if (out.size() == 16) break;
  }
  if (race.scenario == ProbeScenario::Ended && run.exitCode != 0) {
    std::string how = run.exitCode > 128 ? fmt::format("the program dies of signal {}", run.exitCode - 128) : fmt::format("the program ends with code {}", run.exitCode);
    if (size_t at = run.said.find("AddressSanitizer: "); at != std::string::npos) how = "the address sanitizer finds " + run.said.substr(at + 18, run.said.find(' ', at + 18) - at - 18);
    out.push_back(fmt::format("{:11}it is called all the same: {}", "", how));
  }
  return out;
}

// ----- one form

class FormRunner {
 public:
  FormRunner(const Config& config, const RaceOptions& options) : config_(config), options_(options) {}

  // `race` is planned in the tree that stands in `folder`.
  void run(Race& race, const std::string& folder, int runs, RaceForm& out) {
    out.refusal = race.refusal;
    if (!out.refusal.empty()) return;
    race.plan.root = folder;
    race.plan.classPath = config_.classPath;
    WriterFiles files(folder);
    auto harness = languageById(race.plan.call.at.file->language)->harness(files)->write(race.plan);
    if (!harness) {
      out.refusal = harness.error().reason;
      return;
    }
    HarnessFiles put(folder);
    out.refusal = put.put(*harness);
    if (!options_.filled.empty()) writeText(folder + "/" + harness->shown, options_.filled);
    else if (!harness->missing.empty()) out.refusal = harness->missing + " (--harness FILE writes the harness, in which FILL_IN stands for it; --filled FILE runs it then)";
    if (auto shown = readWhole(folder + "/" + harness->shown)) out.harness = *shown;
    if (out.refusal.empty()) out.refusal = buildHarness(*harness, folder, config_);
    auto begun = std::chrono::steady_clock::now();
    auto spent = [&] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count(); };
    for (int i = 0; out.refusal.empty() && i < runs; ++i) {
      out.cutShort = i > 0 && spent() > options_.seconds;
      if (out.cutShort) break;
      RaceRun run = once(race, *harness, folder, i);
      if (config_.stopAsked()) {
        out.refusal = "it was interrupted";
        break;
      }
      out.runs.push_back(std::move(run));
      // What does not run the first time does not run at all.
      if (i == 0 && out.runs.back().failed) out.refusal = "the harness does not run: " + out.runs.back().said;
    }
    out.seconds = spent();
    put.takeOut();
  }

 private:
  RaceRun once(const Race& race, const Harness& harness, const std::string& folder, int number) {
    std::string events = folder + "/elmcart_probe_events";
    std::error_code error;
    fs::remove(events, error);
    RunOptions run;
    run.folder = folder;
    run.seconds = std::min(options_.runSeconds, options_.seconds);
    run.mostOutput = 4u << 20;
    run.stop = config_.stop.get();
    run.environment = {"ELMCART_PROBE_EVENTS=" + events, fmt::format("ELMCART_PROBE_THREADS={}", options_.threads), fmt::format("ELMCART_PROBE_GAP={}", options_.gap), fmt::format("ELMCART_PROBE_RUN={}", number)};
    auto done = runCommand(harness.run, run);
    if (!done) {
      RaceRun out;
      out.failed = true;
      out.said = done.error().line();
      return out;
    }
    return judged(race, *done, eventsIn(events));
  }

  const Config& config_;
  const RaceOptions& options_;
};

// Changes a copy of the tree as the move would; an answer: why it does not.
std::string makeSound(const std::string& folder, const Config& config, const Analysis& analysis, size_t entity, const std::string& move, const RaceOptions& options) {
  ReworkOptions plan;
  plan.move = move;
  plan.confirm = false;
  plan.jobs = options.jobs;
  auto done = rework(folder, config, analysis.survey.entities[entity].id, plan);
  if (!done) return done.error().reason;
  if (done->files.empty()) return "it changes nothing here";
  for (const WriteBackFile& file : done->files) writeText(folder + "/" + file.path, file.after);
  return "";
}

// Plans the race again in that copy, and runs it there.
void runSound(const std::string& folder, const Config& config, const std::string& id, const Race& race, const RaceOptions& options, RaceForm& out) {
  auto changed = analyse(folder, config, options.jobs, true);
  if (!changed) {
    out.refusal = changed.error().line();
    return;
  }
  out.refusal = "nothing of that kind is left there to be run";
  for (size_t i = 0; i < (*changed)->survey.entities.size(); ++i) {
    if ((*changed)->survey.entities[i].id != id) continue;
    for (Race& again : sameRace(**changed, i, race)) return FormRunner(config, options).run(again, folder, options.soundRuns, out);
  }
  // Where the state itself is not found any more, its function still hands something out.
  for (size_t i = 0; i < (*changed)->survey.entities.size() && out.runs.empty(); ++i)
    for (Race& again : sameRace(**changed, i, race))
      if (again.plan.call.isStatic || !again.plan.call.owner.known()) return FormRunner(config, options).run(again, folder, options.soundRuns, out);
}

}  // namespace

size_t RaceForm::happened() const { return static_cast<size_t>(std::count_if(runs.begin(), runs.end(), [](const RaceRun& run) { return run.happened; })); }
bool RaceForm::reached() const { return std::any_of(runs.begin(), runs.end(), [](const RaceRun& run) { return run.reached; }); }
size_t RaceForm::failed() const { return static_cast<size_t>(std::count_if(runs.begin(), runs.end(), [](const RaceRun& run) { return run.failed; })); }

Result<std::vector<RaceResult>> raceAll(const std::string& path, const Config& config, const Analysis& analysis, size_t entity, const RaceOptions& options) {
  std::vector<RaceResult> out;
  auto scratch = Scratch::make();
  if (!scratch) return scratch.error();
  std::map<std::string, std::string> sound, refusals;  // by move: the copy as it leaves it, and why it leaves none
  for (Race& race : racesOf(analysis, entity)) {
    if (!options.scenario.empty() && options.scenario != scenarioText(race.scenario)) continue;
    if (config.stopAsked() || (!options.filled.empty() && !out.empty())) break;
    std::string folder = scratch->path() + "/as-it-is";
    if (std::error_code error; !fs::exists(folder, error))
      if (auto copied = copyOf(*scratch, path, "as-it-is", config.gitignore); !copied) return copied.error();
    RaceResult result;
    result.asItIs.name = "as it is";
    // Of an order there are two: as the files are listed, and the other way round.
    int runs = race.scenario == ProbeScenario::Order ? 2 : options.runs;
    if (options.progress) options.progress(race.title + ": building the harness, then " + counted(static_cast<size_t>(runs), "run", "runs"));
    FormRunner(config, options).run(race, folder, runs, result.asItIs);
    for (const RaceRun& run : result.asItIs.runs)
      if (run.happened && result.interleaving.empty()) result.interleaving = interleavingOf(race, run);
    if (options.sound && options.filled.empty() && !race.move.empty() && result.asItIs.happened() > 0 && !config.stopAsked()) {
      if (options.progress) options.progress(race.title + ": the same with what " + race.move + " would write");
      auto [moved, isNew] = sound.try_emplace(race.move, "");
      result.sound.name = race.move;
      if (isNew) {
        auto copied = copyOf(*scratch, path, race.move, config.gitignore);
        if (!copied) return copied.error();
        moved->second = *copied;
        refusals[race.move] = makeSound(*copied, config, analysis, entity, race.move, options);
      }
      result.sound.refusal = refusals[race.move];
      if (result.sound.refusal.empty()) runSound(moved->second, config, analysis.survey.entities[entity].id, race, options, result.sound);
    }
    race.plan = {};
    result.race = std::move(race);
    out.push_back(std::move(result));
  }
  return out;
}

}  // namespace elmcart

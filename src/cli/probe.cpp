// probe: makes a fault happen by running the project's code, or shows that it does not.
#include <fmt/format.h>

#include <filesystem>

#include "base/text.h"
#include "cli/probed.h"
#include "report/json.h"
#include "report/probe_text.h"
#include "source/walk.h"

namespace elmcart::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

// A name of shared state, or of a class that a finding is about.
size_t entityFor(const Analysis& a, const std::string& name) {
  if (entitiesNamed(a, name).empty())
    for (const Finding& f : a.assessment.findings)
      if (f.entity != SIZE_MAX && (f.subject == name || lastPart(f.subject) == name)) return f.entity;
  return entityOf(a, name);
}

// What was seen of each finding.
std::vector<Seen> seenIn(const Analysis& a, const std::vector<RaceResult>& races, const RaceOptions& options) {
  std::vector<Seen> out;
  for (const RaceResult& r : races) {
    if (r.asItIs.runs.empty() || r.asItIs.failed() > 0 || !r.asItIs.reached()) continue;
    std::vector<size_t> about = r.race.findings;
    if (r.asItIs.happened() > 0) about.insert(about.end(), r.race.onlyIfSeen.begin(), r.race.onlyIfSeen.end());
    for (size_t i : about) {
      const Finding& f = a.assessment.findings[i];
      Seen seen;
      seen.fingerprint = f.fingerprint;
      seen.check = f.check;
      seen.entity = f.subject;
      seen.race = r.race.title;
      seen.code = codeNumber(a.program, codeOf(a.program, f));
      seen.runs = static_cast<int>(r.asItIs.runs.size());
      seen.happened = static_cast<int>(r.asItIs.happened());
      seen.threads = options.threads;
      seen.gap = options.gap;
      if (!r.sound.runs.empty()) seen.move = r.race.move, seen.soundRuns = static_cast<int>(r.sound.runs.size()), seen.soundHappened = static_cast<int>(r.sound.happened());
      out.push_back(std::move(seen));
    }
  }
  return out;
}

int numberOf(const Options& options, const char* name, int least, int most) {
  int value = options.values[name].as<int>();
  if (value < least || value > most) throw Stop{kWrongUse, fmt::format("--{} must be from {} to {}", name, least, most)};
  return value;
}

}  // namespace

Probed probedOf(const Options& options, const Interruption& interruption, const std::string& path, const std::string& name) {
  Probed out;
  out.path = path;
  out.config = configOf(options, path);
  out.config.stop = interruption.asked;
  *interruption.seen = true;
  out.analysis = analysisOf(options, {path}, true, out.exitCode);
  out.entity = entityFor(*out.analysis, name);
  return out;
}

std::vector<RaceResult> raceAndKeep(const Options& options, Probed& probed, RaceOptions& race) {
  race.progress = [&options](const std::string& line) { say(options, line); };
  auto races = raceAll(probed.path, probed.config, *probed.analysis, probed.entity, race);
  if (!races) throw Stop{kUnreadable, races.error().line()};
  std::vector<Seen> seen = seenIn(*probed.analysis, *races, race);
  if (!seen.empty() && !options.flag("no-evidence")) {
    std::string file = evidencePath(probed.config, probed.analysis->program.root);
    if (auto kept = addEvidence(file, seen)) say(options, "kept for " + counted(seen.size(), "finding", "findings") + " in " + file + "; assess and report show it");
    else warn(kept.error().line());
  }
  return std::move(*races);
}

namespace {

int race(const Options& options, Probed& probed) {
  RaceOptions race;
  race.runs = numberOf(options, "runs", 1, 10000);
  race.soundRuns = numberOf(options, "sound-runs", 0, 10000);
  race.threads = numberOf(options, "threads", 2, 256);
  race.gap = numberOf(options, "gap", 0, 5000);
  race.seconds = numberOf(options, "seconds", 1, 86400);
  race.sound = race.soundRuns > 0;
  race.jobs = jobsOf(options);
  if (options.has("scenario")) race.scenario = wordOf(options, "scenario");
  if (options.has("filled")) {
    auto filled = readWhole(options.text("filled"));
    if (!filled) throw Stop{kUnreadable, filled.error().line()};
    race.filled = *filled;
  }
  std::vector<RaceResult> races = raceAndKeep(options, probed, race);
  if (races.empty()) throw Stop{kGateFailed, probed.shared().shown + ": there is nothing to race here: no function makes it on first use, nothing changes it, and nothing is listed in it"};
  emit(options, probed.asJson ? jsonText(racesJson(probed.shared().id, races, race)) : racesText(races, race, styleOf(options, options.has("out"))));
  auto written = std::find_if(races.begin(), races.end(), [](const RaceResult& r) { return !r.asItIs.harness.empty(); });
  if (options.has("harness") && written != races.end()) writeFile(options.text("harness"), written->asItIs.harness);
  bool ran = std::any_of(races.begin(), races.end(), [](const RaceResult& r) { return !r.asItIs.runs.empty() && r.asItIs.failed() < r.asItIs.runs.size(); });
  return ran ? probed.exitCode : kGateFailed;
}

int watchIt(const Options& options, Probed& probed) {
  WatchOptions watching;
  watching.command = options.text("run");
  watching.progress = [&](const std::string& line) { say(options, line); };
  auto watched = watch(probed.path, probed.config, *probed.analysis, probed.entity, watching);
  if (!watched) throw Stop{kGateFailed, watched.error().line()};
  emit(options, probed.asJson ? jsonText(watchJson(*watched)) : watchText(*watched, styleOf(options, options.has("out"))));
  return watched->contradicted ? kGateFailed : probed.exitCode;
}

int cost(const Options& options, Probed& probed) {
  CostOptions costs;
  costs.rounds = numberOf(options, "rounds", 3, 1000);
  costs.threads = numberOf(options, "threads", 1, 256);
  costs.progress = [&](const std::string& line) { say(options, line); };
  auto measured = measureCost(probed.path, probed.config, *probed.analysis, probed.entity, costs);
  if (!measured) throw Stop{kGateFailed, measured.error().line()};
  emit(options, probed.asJson ? jsonText(costsJson(*measured)) : costsText(*measured, styleOf(options, options.has("out"))));
  if (options.has("harness")) writeFile(options.text("harness"), measured->harness);
  return probed.exitCode;
}

}  // namespace

int runProbe(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("run", po::value<std::string>()->value_name("COMMAND"), "watch: run this, instead of the tests and witnesses of elmcart.toml")
      ("runs", po::value<int>()->value_name("N")->default_value(20), "race: runs of the code as it is, each in a new process")
      ("sound-runs", po::value<int>()->value_name("N")->default_value(50), "race: runs of what the move that mends it would write; 0: none")
      ("threads", po::value<int>()->value_name("N")->default_value(4), "race: threads, or calls where functions wait, at once; cost: the most of them")
      ("gap", po::value<int>()->value_name("MS")->default_value(20), "race: milliseconds that are put between reading and writing")
      ("rounds", po::value<int>()->value_name("N")->default_value(11), "cost: rounds of each form and number of threads")
      ("seconds", po::value<int>()->value_name("S")->default_value(60), "race: at most this long for the runs of one form")
      ("scenario", po::value<std::string>()->value_name("WHAT"), ("race: " + wordsText(self, "scenario") + ": only these races").c_str())
      ("harness", po::value<std::string>()->value_name("FILE"), "race, cost: write the harness there, for reading or for filling in")
      ("filled", po::value<std::string>()->value_name("FILE"), "race: run this harness, which --harness wrote and you filled in, instead of the first")
      ("no-evidence", po::bool_switch(), "race: do not keep what was seen in elmcart-evidence.json")
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), wordsText(self, "format").c_str());
  Options options = readOptions(context, self, own, "watch NAME [PATH] | race NAME [PATH] | cost NAME [PATH]", 2, 3);
  std::string what = choiceOf("probe", options.positional[0], wordsOf(self.name, ""));
  bool asJson = wordOf(options, "format") == "json";
  Probed probed = probedOf(options, context.interruption, options.path(2), options.positional[1]);
  probed.asJson = asJson;
  int code = what == "race" ? race(options, probed) : what == "cost" ? cost(options, probed) : watchIt(options, probed);
  if (probed.config.stopAsked()) throw Stop{128 + probed.config.stop->load(), "interrupted"};
  return code;
}

}  // namespace elmcart::cli

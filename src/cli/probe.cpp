// probe: makes a fault happen by running the project's code, or shows that it does not.
#include <fmt/format.h>

#include <filesystem>

#include "base/text.h"
#include "cli/cli.h"
#include "probe/race.h"
#include "report/json.h"
#include "report/probe_text.h"

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
    if (r.asItIs.runs.empty() || r.asItIs.failed() > 0) continue;
    for (size_t i : r.race.findings) {
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

}  // namespace

int runProbe(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()
      ("runs", po::value<int>()->value_name("N")->default_value(20), "runs of the code as it is, each in a new process")
      ("sound-runs", po::value<int>()->value_name("N")->default_value(50), "runs of what the move that mends it would write; 0: none")
      ("threads", po::value<int>()->value_name("N")->default_value(4), "threads, or tasks where functions wait, at once")
      ("gap", po::value<int>()->value_name("MS")->default_value(20), "milliseconds that are put between reading and writing")
      ("seconds", po::value<int>()->value_name("S")->default_value(60), "at most this long for the runs of one form")
      ("scenario", po::value<std::string>()->value_name("WHAT"), "creation, change or end: only these races")
      ("format", po::value<std::string>()->value_name("FORMAT")->default_value("text"), "text or json")
      ("harness", po::value<std::string>()->value_name("FILE"), "write the harness there, for reading or for filling in")
      ("no-evidence", po::bool_switch(), "do not keep what was seen in elmcart-evidence.json");
  Options options = readOptions(context, self, own, "race NAME [PATH]", 2, 3);
  choiceOf("probe", options.positional[0], {"race"});
  std::string format = choiceOf("--format", options.text("format"), {"text", "json"}), path = options.path(2);
  RaceOptions race;
  auto number = [&](const char* name, int least, int most) {
    int value = options.values[name].as<int>();
    if (value < least || value > most) throw Stop{kWrongUse, fmt::format("--{} must be from {} to {}", name, least, most)};
    return value;
  };
  race.runs = number("runs", 1, 10000);
  race.soundRuns = number("sound-runs", 0, 10000);
  race.threads = number("threads", 2, 256);
  race.gap = number("gap", 0, 5000);
  race.seconds = number("seconds", 1, 86400);
  race.sound = race.soundRuns > 0;
  race.jobs = jobsOf(options);
  if (options.has("scenario")) race.scenario = choiceOf("--scenario", options.text("scenario"), {"creation", "change", "end"});
  race.progress = [&](const std::string& line) { say(options, line); };
  Config config = configOf(options, path);
  config.stop = context.interruption.asked;
  *context.interruption.seen = true;
  int exitCode = kDone;
  auto a = analysisOf(options, {path}, true, exitCode);
  size_t entity = entityFor(*a, options.positional[1]);
  const Entity& e = a->survey.entities[entity];
  auto races = raceAll(path, config, *a, entity, race);
  if (!races) throw Stop{kUnreadable, races.error().line()};
  if (races->empty()) throw Stop{kGateFailed, e.shown + ": there is nothing to race here: it is not made on first use, nothing changes it, and nothing is listed in it"};
  emit(options, format == "json" ? jsonText(racesJson(e.id, *races, race)) : racesText(*races, race, styleOf(options, options.has("out"))));
  if (options.has("harness"))
    for (const RaceResult& r : *races)
      if (!r.asItIs.harness.empty()) {
        writeFile(options.text("harness"), r.asItIs.harness);
        break;
      }
  std::vector<Seen> seen = seenIn(*a, *races, race);
  if (!seen.empty() && !options.flag("no-evidence")) {
    std::string file = evidencePath(config, a->program.root);
    if (auto kept = addEvidence(file, seen)) say(options, "kept for " + counted(seen.size(), "finding", "findings") + " in " + file + "; assess and report show it");
    else warn(kept.error().line());
  }
  if (config.stopAsked()) throw Stop{128 + config.stop->load(), "interrupted"};
  bool ran = std::any_of(races->begin(), races->end(), [](const RaceResult& r) { return !r.asItIs.runs.empty() && r.asItIs.failed() < r.asItIs.runs.size(); });
  return ran ? exitCode : kGateFailed;
}

}  // namespace elmcart::cli

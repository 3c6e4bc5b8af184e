#include "report/probe_text.h"

#include <fmt/format.h>

#include <algorithm>

#include "base/text.h"

namespace elmcart {
using Json = nlohmann::ordered_json;
namespace {

constexpr size_t kBar = 40;  // characters

std::string painted(const TextStyle& style, const char* code, const std::string& text) { return style.colour ? fmt::format("\x1b[{}m{}\x1b[0m", code, text) : text; }

std::string rangeOf(size_t least, size_t most) { return least == most ? std::to_string(least) : fmt::format("{} to {}", least, most); }

// What is counted in a run of that sort.
std::string_view countedAs(ProbeScenario scenario) {
  switch (scenario) {
    case ProbeScenario::Creation: return "MADE";
    case ProbeScenario::Change: return "AT ONCE";
    case ProbeScenario::Ended: return "CALLS AFTER";
  }
  return "";
}
size_t countOf(ProbeScenario scenario, const RaceRun& run) { return scenario == ProbeScenario::Change ? run.together : run.made; }

std::string happenedAs(ProbeScenario scenario) {
  switch (scenario) {
    case ProbeScenario::Creation: return "MORE THAN ONE";
    case ProbeScenario::Change: return "A CHANGE LOST";
    case ProbeScenario::Ended: return "CALLED ALL THE SAME";
  }
  return "";
}

std::vector<std::string> rowOf(const Race& race, const RaceForm& form) {
  size_t least = SIZE_MAX, most = 0;
  for (const RaceRun& run : form.runs) least = std::min(least, countOf(race.scenario, run)), most = std::max(most, countOf(race.scenario, run));
  std::string runs = std::to_string(form.runs.size());
  return {form.name, runs, std::to_string(form.happened()), form.runs.empty() ? "-" : rangeOf(least, most), std::to_string(form.failed()), fmt::format("{:.1f} s", form.seconds)};
}

std::string barOf(const RaceForm& form, const TextStyle& style) {
  size_t hit = form.runs.empty() ? 0 : (form.happened() * kBar + form.runs.size() - 1) / form.runs.size();
  std::string filled, rest;
  for (size_t i = 0; i < hit; ++i) filled += "█";
  for (size_t i = hit; i < kBar; ++i) rest += "░";
  return fmt::format("  {:<12} {}{} {} of {}\n", form.name, painted(style, "31", filled), painted(style, "32", rest), form.happened(), counted(form.runs.size(), "run", "runs"));
}

// One sentence that says what it comes to.
std::string verdictOf(const RaceResult& r) {
  const Race& race = r.race;
  size_t hit = r.asItIs.happened(), all = r.asItIs.runs.size();
  if (!r.asItIs.refusal.empty() && r.asItIs.failed() == all) return "It could not be run: " + r.asItIs.refusal + ".";
  std::string out;
  if (hit > 0) {
    out = race.scenario == ProbeScenario::Creation ? "It happens: more than one is made" : race.scenario == ProbeScenario::Change ? "It happens: two threads read the same, and the one that writes last takes the other's change away" : "It happens: what has ended is called";
    bool oneKept = race.scenario == ProbeScenario::Creation && std::all_of(r.asItIs.runs.begin(), r.asItIs.runs.end(), [](const RaceRun& run) { return run.distinct <= 1; });
    if (oneKept) out += ", and all callers get the same one in the end";
    out += fmt::format(" ({} of {}).", hit, counted(all, "run", "runs"));
    if (race.move.empty()) return out + " No move mends it: " + race.mending;
    if (!r.sound.runs.empty()) out += r.sound.happened() == 0 ? fmt::format(" With what `{}` writes it did not happen in {}.", race.move, counted(r.sound.runs.size(), "run", "runs")) : fmt::format(" With what `{}` writes it still happened in {}.", race.move, counted(r.sound.happened(), "run", "runs"));
    else if (!r.sound.refusal.empty()) out += " The form that `" + race.move + "` would write was not run: " + r.sound.refusal + ".";
    return out;
  }
  if (!race.oneStep.empty()) return "It did not happen: " + race.oneStep + ".";
  return "It did not happen in " + counted(all, "run", "runs") + ". That is no proof: it was looked for with a gap put between reading and writing, on this machine.";
}

}  // namespace

std::string racesText(const std::vector<RaceResult>& races, const RaceOptions& options, const TextStyle& style) {
  std::string out;
  size_t width = static_cast<size_t>(style.width);
  for (const RaceResult& r : races) {
    out += painted(style, "1", "Race: " + r.race.title) + "\n";
    out += r.race.scenario == ProbeScenario::Ended ? "Made, ended, then what calls all that are listed is called; a new process for each run.\n\n" : fmt::format("{} at once, {} ms between reading and writing, a new process for each run.\n\n", counted(static_cast<size_t>(options.threads), "thread or task", "threads or tasks"), options.gap);
    if (r.asItIs.failed() < r.asItIs.runs.size()) {
      std::vector<std::vector<std::string>> rows = {{"FORM", "RUNS", happenedAs(r.race.scenario), std::string(countedAs(r.race.scenario)), "FAILED", "TIME"}, rowOf(r.race, r.asItIs)};
      if (!r.sound.runs.empty()) rows.push_back(rowOf(r.race, r.sound));
      out += tableText(rows, style, {}) + "\n" + barOf(r.asItIs, style);
      if (!r.sound.runs.empty()) out += barOf(r.sound, style);
      out += "\n";
    }
    out += wrapped(verdictOf(r), width, 0) + "\n";
    for (const RaceForm* form : {&r.asItIs, &r.sound})
      if (form->cutShort) out += wrapped(fmt::format("The time of {} s was over before all runs of the form {} ({}).", options.seconds, form->name, "--seconds"), width, 0) + "\n";
    if (!r.interleaving.empty()) {
      out += "\nOne of these runs:\n";
      for (const std::string& line : r.interleaving) out += "  " + wrapped(line, width, 16) + "\n";
    }
    out += "\n";
  }
  return out;
}

Json racesJson(const std::string& entity, const std::vector<RaceResult>& races, const RaceOptions& options) {
  auto formJson = [](const Race& race, const RaceForm& form) {
    Json runs = Json::array();
    for (const RaceRun& run : form.runs) {
      Json row = {{"happened", run.happened}, {"failed", run.failed}, {"made", run.made}, {"distinct", run.distinct}, {"together", run.together}, {"threw", run.threw}};
      if (!run.said.empty()) row["said"] = run.said;
      runs.push_back(row);
    }
    (void)race;
    Json out = {{"form", form.name}, {"happened", form.happened()}, {"failed", form.failed()}, {"seconds", form.seconds}, {"cutShort", form.cutShort}};
    if (!form.refusal.empty()) out["refusal"] = form.refusal;
    out["runs"] = runs;
    return out;
  };
  Json rows = Json::array();
  for (const RaceResult& r : races) {
    Json row = {{"race", r.race.title}, {"scenario", r.race.scenario == ProbeScenario::Creation ? "creation" : r.race.scenario == ProbeScenario::Change ? "change" : "end"}, {"function", r.race.function}, {"move", r.race.move}};
    if (!r.race.oneStep.empty()) row["oneStep"] = r.race.oneStep;
    row["verdict"] = verdictOf(r);
    row["forms"] = Json::array({formJson(r.race, r.asItIs)});
    if (!r.sound.name.empty()) row["forms"].push_back(formJson(r.race, r.sound));
    row["interleaving"] = r.interleaving;
    rows.push_back(row);
  }
  return {{"schema", "elmcart.race/1"}, {"entity", entity}, {"threads", options.threads}, {"gapMilliseconds", options.gap}, {"races", rows}};
}

}  // namespace elmcart

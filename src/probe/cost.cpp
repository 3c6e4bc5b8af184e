#include "probe/cost.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <map>
#include <sstream>
#include <thread>

#include "base/text.h"
#include "probe/copies.h"
#include "probe/race_plan.h"

namespace elmcart {
namespace {

// The value below which that part of them lies.
double quantile(std::vector<double>& values, double part) {
  size_t at = std::min(values.size() - 1, static_cast<size_t>(part * static_cast<double>(values.size())));
  std::nth_element(values.begin(), values.begin() + static_cast<std::ptrdiff_t>(at), values.end());
  return values[at];
}

struct Measured {
  std::vector<std::string> forms;  // in the order in which they were measured
  std::map<std::pair<std::string, int>, std::vector<double>> rounds;
  std::vector<double> first;
};

void readRounds(const std::string& path, Measured& out, bool firstOnly) {
  std::ifstream in(path);
  for (std::string line; std::getline(in, line);) {
    std::istringstream parts(line);
    char kind = 0;
    int threads = 0;
    double nanoseconds = 0;
    std::string form;
    if (!(parts >> kind >> threads >> nanoseconds)) continue;
    std::getline(parts >> std::ws, form);
    if (kind == 'f') out.first.push_back(nanoseconds);
    if (kind != 't' || firstOnly) continue;
    if (std::find(out.forms.begin(), out.forms.end(), form) == out.forms.end()) out.forms.push_back(form);
    out.rounds[{form, threads}].push_back(nanoseconds);
  }
}

}  // namespace

Result<CostResult> measureCost(const std::string& path, const Config& config, const Analysis& analysis, size_t entity, const CostOptions& options) {
  const Entity& e = analysis.survey.entities[entity];
  const Language& language = analysis.program.language(e.place.file);
  if (!language.harness) return Error{e.shown, "measuring is not written yet in " + std::string(language.name)};
  std::vector<Race> races = accessOnly(analysis, entity);
  if (races.empty()) return Error{e.shown, "no function hands it out that could be called without arguments: what it costs to name it is what a field costs"};
  Race& race = races.front();
  auto scratch = Scratch::make();
  if (!scratch) return scratch.error();
  auto folder = copyOf(*scratch, path, "measured", config.gitignore);
  if (!folder) return folder.error();
  race.plan.root = *folder;
  race.plan.classPath = config.classPath;
  WriterFiles files(*folder);
  auto harness = language.harness(files)->cost(race.plan);
  if (!harness) return Error{e.shown, harness.error().reason};
  if (!harness->missing.empty()) return Error{e.shown, harness->missing};
  HarnessFiles put(*folder);
  if (std::string reason = put.put(*harness); !reason.empty()) return Error{e.shown, reason};
  if (options.progress) options.progress("building the harness");
  if (std::string reason = buildHarness(*harness, *folder, config); !reason.empty()) return Error{e.shown, reason};
  CostResult out;
  out.entity = e.id;
  out.function = race.function;
  out.processors = std::thread::hardware_concurrency();
  if (auto shown = readWhole(*folder + "/" + harness->shown)) out.harness = *shown;
  Measured measured;
  std::string events = *folder + "/elmcart_probe_events";
  for (int process = 0; process < std::max(options.firsts, 1); ++process) {
    // All rounds stand in the first process; the others are for the first access only.
    RunOptions run;
    run.folder = *folder;
    run.seconds = 600;
    run.mostOutput = 4u << 20;
    run.stop = config.stop.get();
    run.environment = harness->environment;
    run.environment.insert(run.environment.end(), {"ELMCART_PROBE_EVENTS=" + events, fmt::format("ELMCART_PROBE_THREADS={}", process == 0 ? options.threads : 1), fmt::format("ELMCART_PROBE_ROUNDS={}", process == 0 ? options.rounds : 0)});
    if (options.progress && process == 0) options.progress(fmt::format("measuring: {} rounds of each form", options.rounds));
    auto done = runCommand(harness->run, run);
    if (!done) return done.error();
    if (done->stopped) return Error{"", "interrupted"};
    if (!done->ok()) return Error{e.shown, "the harness does not run: " + cutSaid(*done)};
    readRounds(events, measured, process > 0);
  }
  size_t points = 0, noisy = 0;
  for (const std::string& name : measured.forms) {
    CostForm form{name, {}};
    for (auto& [key, rounds] : measured.rounds) {
      if (key.first != name) continue;
      CostPoint point{key.second, quantile(rounds, 0.5), quantile(rounds, 0.25), quantile(rounds, 0.75), false};
      point.noisy = point.upper - point.lower > point.median / 3;
      ++points, noisy += point.noisy;
      form.points.push_back(point);
    }
    out.forms.push_back(std::move(form));
  }
  if (out.forms.empty()) return Error{e.shown, "the harness measured nothing"};
  if (!measured.first.empty()) out.first = quantile(measured.first, 0.5);
  out.noisy = noisy * 3 > points;
  return out;
}

}  // namespace elmcart

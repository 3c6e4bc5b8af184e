#include "report/probe_text.h"

#include <fmt/format.h>

#include <algorithm>

#include "base/text.h"
#include "report/layout.h"

namespace elmcart {
using Json = nlohmann::ordered_json;
namespace {

constexpr size_t kBar = 40;  // characters

std::string rangeOf(size_t least, size_t most) { return least == most ? std::to_string(least) : fmt::format("{} to {}", least, most); }

// What is counted in a run of that sort.
std::string_view countedAs(ProbeScenario scenario) {
  switch (scenario) {
    case ProbeScenario::Creation: return "MADE";
    case ProbeScenario::Change: return "AT ONCE";
    case ProbeScenario::Ended: return "CALLS AFTER";
    case ProbeScenario::Order: return "TOO EARLY";
  }
  return "";
}
size_t countOf(ProbeScenario scenario, const RaceRun& run) { return scenario == ProbeScenario::Change ? run.together : run.made; }

std::string happenedAs(ProbeScenario scenario) {
  switch (scenario) {
    case ProbeScenario::Creation: return "MORE THAN ONE";
    case ProbeScenario::Change: return "A CHANGE LOST";
    case ProbeScenario::Ended: return "CALLED ALL THE SAME";
    case ProbeScenario::Order: return "USED BEFORE IT IS MADE";
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

std::string madeBy(const WatchedInstance& made) {
  return (made.thread > 0 ? fmt::format("by thread {}, ", made.thread) : "") + fmt::format("{:.1f} ms after the first event", made.milliseconds);
}

// One sentence that says what it comes to.
std::string verdictOf(const RaceResult& r) {
  const Race& race = r.race;
  size_t hit = r.asItIs.happened(), all = r.asItIs.runs.size();
  if (!r.asItIs.refusal.empty() && r.asItIs.failed() == all) return "It could not be run: " + r.asItIs.refusal + ".";
  // Without a finding nothing says that two threads get there.
  std::string reached = race.findings.empty() && race.scenario != ProbeScenario::Ended && race.scenario != ProbeScenario::Order && !race.tasks ? " Nothing was found in the program that gets there from two threads; where none does, it is harmless." : "";
  std::string out;
  if (hit > 0) {
    out = race.scenario == ProbeScenario::Creation ? "It happens: more than one is made" : race.scenario == ProbeScenario::Change ? race.tasks ? "It happens: two calls read the same, and the one that writes last takes the other's change away" : "It happens: two threads read the same, and the one that writes last takes the other's change away" : race.scenario == ProbeScenario::Ended ? "It happens: what has ended is called" : "It happens: something is used before it is made";
    bool oneKept = race.scenario == ProbeScenario::Creation && std::all_of(r.asItIs.runs.begin(), r.asItIs.runs.end(), [](const RaceRun& run) { return run.distinct <= 1; });
    if (oneKept) out += ", and all callers get the same one in the end";
    out += fmt::format(" ({} of {}).", hit, counted(all, "run", "runs"));
    if (race.move.empty()) return out + " No move mends it: " + race.mending;
    if (!r.sound.runs.empty()) out += r.sound.happened() == 0 ? fmt::format(" With what `{}` writes it did not happen in {}.", race.move, counted(r.sound.runs.size(), "run", "runs")) : fmt::format(" With what `{}` writes it still happened in {}.", race.move, counted(r.sound.happened(), "run", "runs"));
    else if (!r.sound.refusal.empty()) out += " The form that `" + race.move + "` would write was not run: " + r.sound.refusal + ".";
    return out + reached;
  }
  if (!race.oneStep.empty()) return "It did not happen: " + race.oneStep + ".";
  if (!r.asItIs.reached()) {
    std::string failed;
    for (const RaceRun& run : r.asItIs.runs)
      for (const ProbeEvent& event : run.events)
        if (event.kind == 'x' && failed.empty()) failed = " The call failed: " + (event.what.size() > 2 ? event.what : "by an exception") + ".";
    if (race.scenario == ProbeScenario::Ended) return "It says nothing: with the arguments that were made up, it was not listed." + failed;
    return "It says nothing: no run got to where it reads and writes, with the arguments that were made up or because it was made before." + failed;
  }
  if (!race.hidden.empty()) return "It did not happen in " + counted(all, "run", "runs") + ", which says nothing: " + race.hidden;
  if (race.scenario == ProbeScenario::Order) return "It did not happen in either order.";
  return "It did not happen in " + counted(all, "run", "runs") + ". That is no proof: it was looked for with a gap put between reading and writing, on this machine.";
}

}  // namespace

std::string racesText(const std::vector<RaceResult>& races, const RaceOptions& options, const TextStyle& style) {
  std::string out;
  size_t width = static_cast<size_t>(style.width);
  for (const RaceResult& r : races) {
    out += painted(style, "1", "Race: " + r.race.title) + "\n";
    if (r.race.scenario == ProbeScenario::Order) out += "All files of its program, linked as they are listed and the other way round, under the address sanitizer.\n\n";
    else out += r.race.scenario == ProbeScenario::Ended ? "Made, ended, then what calls all that are listed is called; a new process for each run.\n\n" : fmt::format("{} at once, {} ms between reading and writing, a new process for each run.\n\n", counted(static_cast<size_t>(options.threads), r.race.tasks ? "call" : "thread", r.race.tasks ? "calls" : "threads"), options.gap);
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
      for (const std::string& line : r.interleaving) out += "  " + line + "\n";
    }
    out += "\n";
  }
  return out;
}

namespace {

std::string nanoseconds(double value) { return value < 0.1 ? "<0.1" : fmt::format("{:.1f}", value); }

// The form that costs the least by most threads, beside the project's own; what lies between their quartiles is no difference.
std::string comparisonOf(const CostResult& c) {
  const CostForm& own = c.forms.front();
  const CostPoint& now = own.points.back();
  const CostForm* best = nullptr;
  for (const CostForm& form : c.forms)
    if (&form != &own && form.name != "injected field" && form.name != "lock at each access" && !form.points.empty() && (!best || form.points.back().median < best->points.back().median)) best = &form;
  if (!best) return "There is nothing to compare it with.";
  const CostPoint& then = best->points.back();
  std::string by = counted(static_cast<size_t>(now.threads), "thread", "threads");
  if (then.upper >= now.lower || now.median - then.median < 1) return fmt::format("With {} no sound form is clearly cheaper than what is there ({} ns; {}: {} ns).", by, nanoseconds(now.median), best->name, nanoseconds(then.median));
  return fmt::format("With {} an access costs {} ns; in the form `{}` it would cost {} ns. A program that makes a million of them would save {:.1f} ms.", by, nanoseconds(now.median), best->name, nanoseconds(then.median), now.median - then.median);
}

}  // namespace

std::string costsText(const CostResult& c, const TextStyle& style) {
  std::string out = painted(style, "1", "Cost of an access: " + c.function) + "\n";
  out += wrapped(fmt::format("Nanoseconds an access, median over rounds; {} here. The other forms stand beside the project's own with an object of their own.", counted(c.processors, "processor", "processors")), static_cast<size_t>(style.width), 0) + "\n\n";
  std::vector<std::vector<std::string>> rows = {{"FORM"}};
  double most = 0;
  for (const CostPoint& point : c.forms.front().points) rows[0].push_back(counted(static_cast<size_t>(point.threads), "THREAD", "THREADS"));
  rows[0].push_back("SPREAD");
  for (const CostForm& form : c.forms) {
    std::vector<std::string> row = {form.name};
    double spread = 0;
    for (const CostPoint& point : form.points) {
      row.push_back(nanoseconds(point.median) + (point.noisy ? " ?" : ""));
      most = std::max(most, point.median);
      if (point.median > 0) spread = std::max(spread, (point.upper - point.lower) / point.median);
    }
    row.push_back(fmt::format("{:.0f} %", spread * 100));
    rows.push_back(std::move(row));
  }
  out += tableText(rows, style, {}) + "\n";
  // One bar a form and number of threads, to one scale.
  for (const CostForm& form : c.forms)
    for (const CostPoint& point : form.points) {
      size_t length = most > 0 ? std::max<size_t>(1, static_cast<size_t>(point.median / most * 50)) : 1;
      std::string bar;
      for (size_t i = 0; i < length; ++i) bar += "█";
      out += fmt::format("  {:<22} {:>2}  {} {} ns\n", point.threads == 1 ? form.name : "", point.threads, painted(style, form.name == "as it is" ? "33" : "34", bar), nanoseconds(point.median));
    }
  out += "\n" + wrapped(comparisonOf(c), static_cast<size_t>(style.width), 0) + "\n";
  out += fmt::format("The first access in a process takes {:.1f} µs; where the object is made on first use, that is in it.\n", c.first / 1000);
  bool fetchedOnce = false, marked = false, crowded = false;
  for (const CostForm& form : c.forms)
    for (const CostPoint& point : form.points) fetchedOnce |= point.median < 0.05, marked |= point.noisy, crowded |= static_cast<unsigned>(point.threads) > c.processors;
  if (fetchedOnce) out += "Below 0.1 ns the compiler fetches it once for the whole loop.\n";
  if (crowded) out += "With more threads than processors the time in which a thread waits for one is in it.\n";
  if (c.noisy) out += "Many of these (?) vary by more than a third from round to round: measure again when the machine is idle.\n";
  else if (marked) out += "?: rounds that differ by more than a third.\n";
  return out;
}

Json costsJson(const CostResult& c) {
  Json forms = Json::array();
  for (const CostForm& form : c.forms) {
    Json points = Json::array();
    for (const CostPoint& p : form.points) points.push_back({{"threads", p.threads}, {"medianNanoseconds", p.median}, {"lowerQuartile", p.lower}, {"upperQuartile", p.upper}, {"noisy", p.noisy}});
    forms.push_back({{"form", form.name}, {"points", points}});
  }
  return {{"schema", "elmcart.cost/1"}, {"entity", c.entity}, {"function", c.function}, {"processors", c.processors}, {"firstNanoseconds", c.first}, {"noisy", c.noisy}, {"forms", forms}};
}

std::string watchText(const WatchResult& w, const TextStyle& style) {
  size_t width = static_cast<size_t>(style.width), fetched = 0, passed = 0;
  for (const WatchedUser& user : w.users) fetched += user.count, passed += user.count > 0;
  std::string out = painted(style, "1", "Watched: " + w.entity) + "\n";
  for (const std::string& command : w.commands) out += "  " + wrapped(command, width, 4) + "\n";
  out += fmt::format("{:.1f} s{}. {} of {} places fetched it, {} in all, in {}.\n", w.seconds, w.exitCode == 0 ? "" : fmt::format(", and a command ended with code {}", w.exitCode), passed, w.users.size(), counted(fetched, "time", "times"), counted(w.processes, "process", "processes"));
  if (w.unwatched > 0) out += counted(w.unwatched, "place", "places") + " could not be watched: no call or name of its own stands for the object there.\n";
  out += "\n";
  if (!w.makingSeen) out += "Its making could not be watched: its class is not in the tree, or has no constructor.\n";
  else if (w.instances.empty()) out += "None was made.\n";
  else if (w.instancesMost == 1) out += w.instances.size() == 1 ? fmt::format("Made: one, {}\n", madeBy(w.instances.front())) : fmt::format("Made: one in each of {} processes\n", w.instances.size());
  else out += fmt::format("Made: {}, {} of them in one process\n", counted(w.instances.size(), "instance", "instances"), w.instancesMost);
  constexpr size_t kMostRows = 20;
  size_t rowsLeft = style.limit > 0 ? style.limit : kMostRows;
  // The process that made most of them tells the most.
  std::vector<std::vector<std::string>> rows = {{"INSTANCE", "PROCESS", "THREAD", "MADE AT", "ENDED AT"}};
  size_t number = 0;
  for (const WatchedInstance& made : w.instances) {
    if (w.instancesMost < 2 || made.process != w.busiest || ++number > rowsLeft) continue;
    rows.push_back({std::to_string(number), std::to_string(made.process), made.thread > 0 ? std::to_string(made.thread) : "-", fmt::format("{:.1f} ms", made.milliseconds), made.ended < 0 ? "-" : fmt::format("{:.1f} ms", made.ended)});
  }
  if (rows.size() > 1) out += tableText(rows, style, {});
  if (number > rowsLeft) out += fmt::format("and {} more\n", number - rowsLeft);
  rows = {{"FETCHED IN", "PLACE", "TIMES", "THREADS", "FIRST", "LAST"}};
  size_t shown = 0;
  for (const WatchedUser& user : w.users) {
    if (user.count == 0 || ++shown > rowsLeft) continue;
    rows.push_back({user.function + (user.tests ? " (tests)" : ""), fmt::format("{}:{}", user.file, user.line), std::to_string(user.count), user.threads > 0 ? std::to_string(user.threads) : "-", fmt::format("{:.1f} ms", user.first), fmt::format("{:.1f} ms", user.last)});
  }
  if (rows.size() > 1) out += "\n" + tableText(rows, style, {0, 1});
  if (shown > rowsLeft) out += fmt::format("and {} more\n", shown - rowsLeft);
  if (size_t never = w.users.size() - passed; never > 0) {
    std::vector<std::string> names;
    for (const WatchedUser& user : w.users)
      if (user.count == 0) names.push_back(fmt::format("{}:{}", user.file, user.line));
    if (names.size() > rowsLeft) names.resize(rowsLeft), names.push_back("…");
    out += "\n" + wrapped("Never passed: " + joinWith(names, ", "), width, 2) + "\n";
  }
  if (!w.compared.empty()) out += "\n";
  for (const std::string& line : w.compared) out += wrapped(line, width, 2) + "\n";
  return out;
}

Json watchJson(const WatchResult& w) {
  Json instances = Json::array(), users = Json::array();
  for (const WatchedInstance& i : w.instances) {
    Json row = {{"process", i.process}, {"thread", i.thread}, {"madeMilliseconds", i.milliseconds}};
    if (i.ended >= 0) row["endedMilliseconds"] = i.ended;
    instances.push_back(row);
  }
  for (const WatchedUser& u : w.users) {
    Json row = {{"function", u.function}, {"file", u.file}, {"line", u.line}, {"tests", u.tests}, {"count", u.count}, {"threads", u.threads}};
    if (u.count > 0) row["firstMilliseconds"] = u.first, row["lastMilliseconds"] = u.last;
    users.push_back(row);
  }
  return {{"schema", "elmcart.watch/1"}, {"entity", w.entity}, {"commands", w.commands}, {"exitCode", w.exitCode}, {"seconds", w.seconds}, {"processes", w.processes}, {"instancesInOneProcess", w.instancesMost},
          {"makingSeen", w.makingSeen}, {"unwatched", w.unwatched}, {"instances", instances}, {"users", users}, {"compared", w.compared}};
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
    Json row = {{"race", r.race.title}, {"scenario", scenarioText(r.race.scenario)}, {"function", r.race.function}, {"move", r.race.move}};
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

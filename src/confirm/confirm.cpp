#include "confirm/confirm.h"

#include <re2/re2.h>

#include <algorithm>
#include <filesystem>

#include "base/text.h"
#include "source/ignore.h"
#include "source/walk.h"

namespace elmcart {
namespace fs = std::filesystem;
namespace {

// The text without the scratch copy's own path, which is never part of the behaviour.
std::string withoutFolder(std::string text, const std::string& folder) {
  for (size_t at = text.find(folder); at != std::string::npos; at = text.find(folder, at)) text.replace(at, folder.size(), ".");
  return text;
}

std::vector<std::string> matchingFiles(const std::string& folder, const std::string& pattern) {
  std::vector<std::string> out;
  if (pattern.find_first_of("*?[") == std::string::npos) {
    std::error_code error;
    if (fs::is_regular_file(folder + "/" + pattern, error)) out.push_back(folder + "/" + pattern);
    return out;
  }
  std::error_code error;
  Globs glob({pattern});
  for (fs::recursive_directory_iterator it(folder, fs::directory_options::skip_permission_denied, error), end; !error && it != end; it.increment(error)) {
    std::string relative = fs::relative(it->path(), folder, error).string();
    if (it->is_regular_file(error) && glob.match(relative)) out.push_back(it->path().string());
  }
  std::sort(out.begin(), out.end());
  return out;
}

std::string lineDiff(const std::string& before, const std::string& after) {
  std::vector<std::string> a = splitLines(before), b = splitLines(after);
  size_t from = 0;
  while (from < a.size() && from < b.size() && a[from] == b[from]) ++from;
  size_t endA = a.size(), endB = b.size();
  while (endA > from && endB > from && a[endA - 1] == b[endB - 1]) --endA, --endB;
  std::string out;
  for (size_t i = from; i < endA && i < from + 20; ++i) out += "- " + a[i] + "\n";
  for (size_t i = from; i < endB && i < from + 20; ++i) out += "+ " + b[i] + "\n";
  return out;
}

std::string describe(const TestTable& table, const std::string& name) {
  auto found = table.find(name);
  return found == table.end() ? "absent" : std::string(testStatusText(found->second.status));
}

std::string witnessDetail(const WitnessResult& a, const WitnessResult& b) {
  std::string out;
  if (a.timedOut != b.timedOut) out += b.timedOut ? "it ran into its time limit\n" : "it no longer runs into its time limit\n";
  if (a.exitCode != b.exitCode) out += "exit code " + std::to_string(a.exitCode) + ", now " + std::to_string(b.exitCode) + "\n";
  if (a.out != b.out) out += "stdout:\n" + lineDiff(a.out, b.out);
  if (a.err != b.err) out += "stderr:\n" + lineDiff(a.err, b.err);
  std::set<std::string> files;
  for (auto& [path, text] : a.files) files.insert(path);
  for (auto& [path, text] : b.files) files.insert(path);
  for (const std::string& path : files) {
    auto fa = a.files.find(path), fb = b.files.find(path);
    if (fa == a.files.end()) out += path + ": written now, not before\n";
    else if (fb == b.files.end()) out += path + ": no longer written\n";
    else if (fa->second != fb->second) out += path + ":\n" + lineDiff(fa->second, fb->second);
  }
  return out;
}

void runTests(const std::string& folder, const Config& config, Observation& out, std::vector<std::string> environment = {}) {
  // Results of an earlier run must not be taken for this one's.
  for (const std::vector<std::string>* patterns : {&config.results, &config.coverage})
    for (const std::string& pattern : *patterns)
      for (const std::string& path : matchingFiles(folder, pattern)) {
        std::error_code error;
        fs::remove(path, error);
      }
  RunOptions options;
  options.folder = folder;
  options.seconds = config.testSeconds;
  options.stop = config.stop.get();
  options.environment = std::move(environment);
  out.testExit = 0;
  std::string printed;
  for (const std::string& command : config.test) {
    auto run = runCommand(command, options);
    if (!run) {
      out.testExit = 127;
      out.testOutput = run.error().line();
      continue;
    }
    out.testSeconds += run->seconds;
    out.testsTimedOut |= run->timedOut;
    if (run->exitCode != 0 && out.testExit == 0) out.testExit = run->exitCode;
    out.testOutput = lastLines(run->out + run->err, 30);
    printed += run->out + "\n" + run->err + "\n";
  }
  for (const std::string& pattern : config.results)
    for (const std::string& path : matchingFiles(folder, pattern))
      if (auto text = readWhole(path)) {
        auto table = readResults(*text, withoutFolder(path, folder));
        if (table) out.tests.insert(table->begin(), table->end());
        else out.problems.push_back(table.error().line());
      }
  for (const std::string& pattern : config.coverage)
    for (const std::string& path : matchingFiles(folder, pattern)) {
      auto text = readWhole(path);
      auto counts = text ? readCoverage(*text, withoutFolder(path, folder)) : Result<LineCounts>(text.error());
      if (!counts) {
        out.problems.push_back(counts.error().line());
        continue;
      }
      out.coverageTold = true;
      for (auto& [file, lines] : *counts)
        for (auto& [line, count] : lines) out.coverage[withoutFolder(file, folder)][line] += count;
    }
  RunnerOutput said = readRunnerOutput(printed);
  out.totals = said.totals;
  if (out.tests.empty()) out.tests = std::move(said.tests);
  TestTable named;  // a runner may name a test after its file
  for (auto& [name, result] : out.tests) named.emplace(withoutFolder(name, folder), result);
  out.tests = std::move(named);
  if (size_t read = out.tests.size(); out.totals.told && read > 0 && read != out.totals.run)
    out.problems.push_back("the runner counts " + counted(out.totals.run, "test", "tests") + ", and " + std::to_string(read) + " were read by name: the others are compared by count only");
}

std::string totalsText(const RunnerTotals& t) { return std::to_string(t.run) + " run, " + std::to_string(t.failed) + " failed, " + std::to_string(t.skipped) + " skipped"; }

void runWitnesses(const std::string& folder, const Config& config, Observation& out) {
  for (const Witness& witness : config.witnesses) {
    std::error_code error;
    for (const std::string& file : witness.files) fs::remove(folder + "/" + file, error);
    RunOptions options;
    options.folder = folder;
    options.seconds = config.testSeconds;
    options.stop = config.stop.get();
    WitnessResult result;
    std::vector<std::string> masks = witness.masks;
    auto mask = [&](const std::string& text) {
      std::string plain = withoutFolder(text, folder);
      auto done = masked(plain, masks);
      return done ? *done : plain;
    };
    if (auto run = runCommand(witness.command, options)) {
      result.exitCode = run->exitCode;
      result.timedOut = run->timedOut;
      result.out = mask(run->out);
      result.err = mask(run->err);
    } else {
      result.exitCode = 127;
      result.err = run.error().reason;
    }
    for (const std::string& file : witness.files)
      if (auto text = readWhole(folder + "/" + file)) result.files[file] = mask(*text);
    out.witnesses[witness.name] = result;
  }
}

}  // namespace

Result<std::string> masked(const std::string& text, const std::vector<std::string>& masks) {
  std::string out = text;
  for (const std::string& mask : masks) {
    re2::RE2::Options options(re2::RE2::Latin1);  // outputs may hold any bytes
    options.set_log_errors(false);
    re2::RE2 expression(mask, options);
    if (!expression.ok()) return Error{mask, "no regular expression: " + expression.error()};
    re2::RE2::GlobalReplace(&out, expression, "*");
  }
  return out;
}

Observation observe(const std::string& folder, const Config& config) {
  Observation out;
  RunOptions options;
  options.folder = folder;
  options.seconds = config.buildSeconds;
  options.stop = config.stop.get();
  for (const std::string& command : config.build) {
    auto run = runCommand(command, options);
    if (!run) {
      out.buildOutput = run.error().line();
      return out;
    }
    out.buildSeconds += run->seconds;
    if (!run->ok()) {
      std::string all = run->out + run->err;
      // The compiler's first errors say more than the build tool's last words.
      std::vector<std::string> lines = splitLines(all), errors;
      for (const std::string& line : lines)
        if (line.find("error") != std::string::npos && errors.size() < 8) errors.push_back(line);
      out.buildOutput = errors.empty() ? lastLines(all, 15) : joinWith(errors, "\n");
      if (run->timedOut) out.buildOutput += "\nthe build ran into its time limit of " + std::to_string(config.buildSeconds) + " s";
      return out;
    }
  }
  out.built = true;
  runTests(folder, config, out);
  runWitnesses(folder, config, out);
  return out;
}

Baseline learnBaseline(const std::string& folder, const Config& config) {
  Baseline out;
  out.observation = observe(folder, config);
  out.runs = 1;
  if (!out.observation.built) return out;
  for (int i = 1; i < config.baselineRuns && !config.stopAsked(); ++i) {
    Observation again;
    again.built = true;
    runTests(folder, config, again);
    runWitnesses(folder, config, again);
    ++out.runs;
    std::set<std::string> names;
    for (auto& [name, result] : out.observation.tests) names.insert(name);
    for (auto& [name, result] : again.tests) names.insert(name);
    for (const std::string& name : names)
      if (describe(out.observation.tests, name) != describe(again.tests, name)) out.flakyTests.insert(name);
    out.flakyTotals |= !(again.totals == out.observation.totals);
    for (auto& [name, result] : out.observation.witnesses)
      if (!witnessDetail(result, again.witnesses[name]).empty()) out.unsteadyWitnesses.insert(name);
  }
  return out;
}

void checkOrders(const std::string& folder, const Config& config, const Baseline& seen, size_t orders, OrderCheck& out) {
  for (size_t k = 1; k <= orders && !config.stopAsked(); ++k) {
    std::string number = std::to_string(k);
    Observation shuffled;
    runTests(folder, config, shuffled, {"GTEST_SHUFFLE=1", "GTEST_RANDOM_SEED=" + number, "GOFLAGS=-shuffle=" + number, "ELMCART_ORDER=" + number});
    ++out.orders;
    for (auto& [name, result] : seen.observation.tests) {
      if (seen.flakyTests.count(name)) continue;
      std::string was = describe(seen.observation.tests, name), is = describe(shuffled.tests, name);
      if (was != is) out.dependent.emplace(name, was + " in the given order, " + is + " in order " + number);
    }
  }
}

void checkAlone(const std::string& folder, const Config& config, const Baseline& seen, OrderCheck& out) {
  Config one = config;
  one.test = {config.testAlone};
  for (auto& [name, result] : seen.observation.tests) {
    if (config.stopAsked() || seen.flakyTests.count(name) || result.status == TestStatus::Skipped) continue;
    Observation run;
    runTests(folder, one, run, {"ELMCART_TEST=" + name});
    ++out.alone;
    std::string was(testStatusText(result.status)), is = describe(run.tests, name);
    // A runner that names no tests says what came of this one by its exit code.
    if (run.tests.empty() && config.results.empty()) is = testStatusText(run.testExit == 0 ? TestStatus::Passed : TestStatus::Failed);
    if (was == is) continue;
    std::string how = is == "absent" ? "the command test.alone did not run it" : was + " among the others, " + is + " on its own";
    auto [found, fresh] = out.dependent.emplace(name, how);
    if (!fresh) found->second += "; " + how;
  }
}

Comparison compare(const Baseline& before, const Observation& after, const std::map<std::string, std::pair<std::string, std::string>>& change) {
  Comparison out;
  out.coverage = coverageOf(after.coverage, after.coverageTold, change);
  if (!after.built) {
    out.differences.push_back({"build", "", "builds", "does not build", after.buildOutput});
    return out;
  }
  const Observation& a = before.observation;
  std::set<std::string> names;
  for (auto& [name, result] : a.tests) names.insert(name);
  for (auto& [name, result] : after.tests) names.insert(name);
  for (const std::string& name : names) {
    if (before.flakyTests.count(name)) continue;
    ++out.testsCompared;
    std::string was = describe(a.tests, name), is = describe(after.tests, name);
    if (was == is) continue;
    auto found = after.tests.find(name);
    out.differences.push_back({"test", name, was, is, found == after.tests.end() ? "" : found->second.message});
  }
  // What has no name is compared by the runner's own count.
  if (a.totals.told && a.totals.run > a.tests.size() && !before.flakyTotals) {
    out.testsCounted = a.totals.run;
    if (!(a.totals == after.totals)) out.differences.push_back({"test", "all tests, by the runner's own count,", totalsText(a.totals), after.totals.told ? totalsText(after.totals) : "not told", after.testOutput});
  }
  if (a.tests.empty() && !a.totals.told && after.tests.empty() && a.testExit != after.testExit)
    out.differences.push_back({"test", "the test command", "exit code " + std::to_string(a.testExit), "exit code " + std::to_string(after.testExit), after.testOutput});
  for (auto& [name, result] : a.witnesses) {
    if (before.unsteadyWitnesses.count(name)) continue;
    auto found = after.witnesses.find(name);
    ++out.witnessesCompared;
    std::string detail = found == after.witnesses.end() ? "it was not run\n" : witnessDetail(result, found->second);
    if (!detail.empty()) out.differences.push_back({"witness", name, "as recorded", "differs", detail});
  }
  return out;
}

std::string Comparison::summary() const {
  if (!same()) return counted(differences.size(), "difference", "differences");
  if (testsCompared == 0 && testsCounted == 0 && witnessesCompared == 0) return "it builds; no test and no witness looked at it";
  std::vector<std::string> parts;
  if (testsCounted > testsCompared) parts.push_back(counted(testsCounted, "test", "tests") + " (" + std::to_string(testsCompared) + " by name, the rest by count)");
  else if (testsCompared > 0) parts.push_back(counted(testsCompared, "test", "tests"));
  if (witnessesCompared > 0) parts.push_back(counted(witnessesCompared, "witness", "witnesses"));
  std::string executed = coverage.summary();
  return joinWith(parts, " and ") + " as before" + (executed.empty() ? "" : "; " + executed);
}

}  // namespace elmcart

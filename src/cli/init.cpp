// The command that writes a configuration: init.
#include <fmt/format.h>

#include <cstdlib>
#include <filesystem>

#include "base/text.h"
#include "cli/cli.h"
#include "config/build_systems.h"
#include "confirm/confirm.h"
#include "confirm/scratch.h"

namespace elmcart::cli {
namespace po = boost::program_options;
namespace fs = std::filesystem;
namespace {

// Is the program of a command there? "python3 -m pytest" asks for the module too.
bool isInstalled(const std::string& folder, const std::string& program) {
  RunOptions options;
  options.folder = folder;
  options.seconds = 30;
  std::string command = program.find(' ') != std::string::npos ? program + " --version" : "command -v " + program;
  auto run = runCommand(command + " > /dev/null 2>&1", options);
  return run && run->ok();
}

// The names of tests that are as `status` says, at most five.
std::string some(const std::vector<std::string>& names) {
  constexpr size_t kShown = 5;
  std::string out = joinWith({names.begin(), names.begin() + static_cast<std::ptrdiff_t>(std::min(names.size(), kShown))}, ", ");
  return names.size() > kShown ? out + fmt::format(" and {} more", names.size() - kShown) : out;
}

// What came of building and testing a scratch copy as a configuration says.
struct Tried {
  std::string text;
  bool works = false;  // it builds, and tests were read of which some pass
};

Tried tryIt(const Options& options, const Context& context, const std::string& root, const std::string& file) {
  auto config = readConfig(file);
  if (!config) throw Stop{kUnreadable, config.error().line()};
  config->stop = context.interruption.asked;
  *context.interruption.seen = true;
  auto scratch = Scratch::make();
  if (!scratch) throw Stop{kUnreadable, scratch.error().line()};
  auto tree = scratch->copyTree(root, "tree", config->gitignore);
  if (!tree) throw Stop{kUnreadable, tree.error().line()};
  say(options, fmt::format("building and testing a copy, {}", counted(static_cast<size_t>(config->baselineRuns), "time", "times")));
  Baseline seen = learnBaseline(*tree, *config);
  if (config->stopAsked()) throw Stop{128 + config->stop->load(), "interrupted before the copy was tested"};
  const Observation& o = seen.observation;
  if (!o.built) return {"It does not build as written:\n" + o.buildOutput + "\n", false};
  std::vector<std::string> red, skipped, flaky(seen.flakyTests.begin(), seen.flakyTests.end());
  for (auto& [name, result] : o.tests) {
    if (result.status == TestStatus::Failed) red.push_back(name);
    if (result.status == TestStatus::Skipped) skipped.push_back(name);
  }
  Tried out;
  out.text = config->build.empty() ? "There is nothing to build.\n" : fmt::format("It builds, in {:.1f} s.\n", o.buildSeconds);
  size_t known = std::max(o.tests.size(), o.totals.run);
  out.works = known > std::max(red.size(), o.totals.failed);  // not where every one is red
  if (config->test.empty()) out.text += "No test command is given.\n";
  else if (known == 0) out.text += fmt::format("The test command ends with exit code {}, and no test was read from what it says. Its last lines:\n{}\n", o.testExit, o.testOutput);
  else out.text += fmt::format("{} read, in {:.1f} s: {} by name, {} red, {} skipped, {} flaky.\n", counted(known, "test is", "tests are"), o.testSeconds, o.tests.size(), std::max(red.size(), o.totals.failed), std::max(skipped.size(), o.totals.skipped), flaky.size());
  if (!red.empty()) out.text += "Red as it is: " + some(red) + ".\n";
  if (!flaky.empty()) out.text += "Flaky, and so set aside: " + some(flaky) + ".\n";
  for (const std::string& problem : o.problems) out.text += "Note: " + problem + ".\n";
  return out;
}

// Writes the configuration for one of the systems, and says what is left to do for it.
void write(const Options& options, const std::string& root, const std::string& file, const BuildSystem& chosen, const std::vector<BuildSystem>& all) {
  writeFile(file, configurationFor(chosen, all));
  say(options, "wrote " + file + ": " + chosen.name + ", told from " + chosen.file);
  for (const std::string& note : chosen.notes) say(options, "to do: " + note);
  for (const std::string& program : chosen.needs)
    if (!isInstalled(root, program)) say(options, "to do: " + program + " is not installed here");
}

}  // namespace

int runInit(const Context& context, const Command& self) {
  po::options_description own("options");
  own.add_options()("try", po::bool_switch(), "build and test a scratch copy with it, and say which tests can be read, which are red and which flaky");
  Options options = readOptions(context, self, own, "[PATH]", 0, 1);
  std::string root = options.path(0), file = root == "." ? "elmcart.toml" : root + "/elmcart.toml";
  std::error_code error;
  if (!fs::is_directory(root, error)) throw Stop{kUnreadable, root + ": no such folder"};
  bool there = fs::exists(file, error);
  if (there && !options.flag("try")) throw Stop{kWrongUse, file + " is there already, and is left as it is; --try tries it"};
  if (!there) {
    auto systems = buildSystemsOf(root);
    if (!systems) throw Stop{kUnreadable, systems.error().line()};
    if (systems->empty()) throw Stop{kGateFailed, root + ": no build system is known by its files here; write elmcart.toml by hand (docs/configuration.md)"};
    if (!options.flag("try")) {
      write(options, root, file, systems->front(), *systems);
      return kDone;
    }
    // The first that builds and whose tests can be read; else the first, with what hinders it.
    std::string hinders;
    for (const BuildSystem& system : *systems) {
      write(options, root, file, system, *systems);
      Tried tried = tryIt(options, context, root, file);
      if (hinders.empty()) hinders = tried.text;
      if (!tried.works) continue;
      emit(options, tried.text);
      return kDone;
    }
    if (systems->size() > 1) write(options, root, file, systems->front(), *systems);
    emit(options, hinders);
    return kGateFailed;
  }
  Tried tried = tryIt(options, context, root, file);
  emit(options, tried.text);
  return tried.works ? kDone : kGateFailed;
}

}  // namespace elmcart::cli

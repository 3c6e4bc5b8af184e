// The examples are real programs: each is compiled (or checked by its
// interpreter) where the tools are there, and those whose fault can be made to
// happen are run: the failing one must fail, the sound one must not.
#include "assess/examples.h"

#include <map>
#include <set>

#include "program.h"

namespace elmcart {
namespace {

// Checks whose examples are programs that show the fault by running.
const std::set<std::string> kShown = {"thread.unguarded-creation", "thread.double-check-unsound", "thread.await-gap", "thread.lost-update", "life.dangling-subscriber",
                                      "start.order-across-files",  "single.reinitialised",        "single.revivable", "single.slot-shared-by-subclasses"};
// The memory model allows the fault; the processors at hand do not show it.
const std::set<std::string> kNotOnThisMachine = {"thread.double-check-unsound/java", "thread.double-check-unsound/csharp"};

struct Tools {
  const char* needs;
  std::string compile;  // in the folder of the files; FILES is put in
  std::string run;
};

Tools toolsFor(const std::string& check, const std::string& language) {
  if (language == "cpp") {
    // Data races and dead objects are shown by the compiler's own sanitizers.
    std::string sanitizer = check == "thread.double-check-unsound" ? "-fsanitize=thread" : check.substr(0, 5) == "life." ? "-fsanitize=address" : "";
    bool whole = kShown.count(check) > 0;
    return {"g++", std::string("g++ -std=c++20 -pthread ") + (whole ? "-O1 -g " + sanitizer + " -o program FILES" : "-fsyntax-only FILES"), "./program"};
  }
  if (language == "java") return {"javac", "javac -d . FILES", "java -cp . Main"};
  if (language == "python") return {"python3", "python3 -m py_compile FILES", "python3 FILES"};
  if (language == "javascript") return {"node", "for f in FILES; do node --check $f || exit 1; done", "node FILES"};
  if (language == "go") return {"go", kShown.count(check) ? std::string("go build ") + (check == "thread.double-check-unsound" ? "-race " : "") + "-o program FILES" : "go vet FILES", "./program"};
  if (language == "csharp") return {"mcs", "mcs -nologo -warn:0 -target:" + std::string(kShown.count(check) ? "exe" : "library") + " -out:program.exe FILES", "mono program.exe"};
  if (language == "php") return {"php", "for f in FILES; do php -l $f || exit 1; done", "php FILES"};
  return {"", "", ""};
}

std::vector<std::string> pairNames() {
  std::set<std::string> out;
  for (const Example& e : examples())
    if (*toolsFor(std::string(e.check), std::string(e.language)).needs) out.insert(std::string(e.check) + "/" + std::string(e.language));
  return {out.begin(), out.end()};
}

RunResult inFolder(const Folder& folder, const std::string& command) {
  RunOptions options;
  options.folder = folder.path();
  options.seconds = 300;
  options.environment = {"GOFLAGS=-mod=mod", "GO111MODULE=off", "GOCACHE=" + (fs::temp_directory_path() / "elmcart-tests-go").string()};
  auto run = runCommand(command, options);
  EXPECT_TRUE(run.ok());
  return run ? *run : RunResult{};
}

class ExamplesRun : public testing::TestWithParam<std::string> {};

TEST_P(ExamplesRun, AsTheyAreSaidTo) {
  std::string check = GetParam().substr(0, GetParam().find('/')), language = GetParam().substr(GetParam().find('/') + 1);
  Tools tools = toolsFor(check, language);
  if (std::system((std::string("command -v ") + tools.needs + " >/dev/null 2>&1").c_str()) != 0) GTEST_SKIP() << tools.needs << " is not installed";
  static const std::map<std::string, std::string> kEndings = {{"cpp", ".cpp"}, {"java", ".java"}, {"python", ".py"}, {"javascript", ".js"}, {"go", ".go"}, {"csharp", ".cs"}, {"php", ".php"}};
  for (bool failing : {true, false}) {
    Folder folder;
    std::string files;
    for (const Example& e : examples()) {
      if (e.check != check || e.language != language || e.failing != failing) continue;
      std::string name = e.file.empty() ? "example" + kEndings.at(language) : std::string(e.file);
      folder.write(name, std::string(e.text));
      if (fs::path(name).extension() == kEndings.at(language)) files += (files.empty() ? "" : " ") + name;
    }
    auto filled = [&](std::string command) {
      if (size_t at = command.find("FILES"); at != std::string::npos) command.replace(at, 5, files);
      return command;
    };
    RunResult compiled = inFolder(folder, filled(tools.compile));
    ASSERT_EQ(compiled.exitCode, 0) << compiled.out << compiled.err;
    if (!kShown.count(check) || kNotOnThisMachine.count(GetParam())) continue;
    // A fault of chance gets three chances; the sound one must hold each time.
    bool failed = false;
    std::string said;
    for (int turn = 0; turn < 3 && !(failing && failed); ++turn) {
      RunResult run = inFolder(folder, filled(tools.run));
      failed |= run.exitCode != 0;
      said += run.out + run.err.substr(0, 2000);
    }
    EXPECT_EQ(failed, failing) << (failing ? "the fault did not happen\n" : "the sound one failed\n") << said;
  }
}

INSTANTIATE_TEST_SUITE_P(All, ExamplesRun, testing::ValuesIn(pairNames()), [](const auto& info) {
  std::string name = info.param;
  for (char& c : name) if (c == '.' || c == '-' || c == '/') c = '_';
  return name;
});

}  // namespace
}  // namespace elmcart

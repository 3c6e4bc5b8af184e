// The examples are real programs: each is compiled (or checked by its
// interpreter) where the tools are there, and those whose fault can be made to
// happen are run: the failing one must fail, the sound one must not.
#include "assess/examples.h"

#include "blackbox/tools.h"

namespace elmcart {
namespace {

// The memory model allows the fault; the processors at hand do not show it.
const std::set<std::string> kNotOnThisMachine = {"thread.double-check-unsound/java", "thread.double-check-unsound/csharp"};

std::vector<std::string> pairNames() {
  std::set<std::string> out;
  for (const Example& e : examples())
    if (*toolsFor(std::string(e.check), std::string(e.language)).needs) out.insert(std::string(e.check) + "/" + std::string(e.language));
  return {out.begin(), out.end()};
}

class ExamplesRun : public testing::TestWithParam<std::string> {};

TEST_P(ExamplesRun, AsTheyAreSaidTo) {
  std::string check = GetParam().substr(0, GetParam().find('/')), language = GetParam().substr(GetParam().find('/') + 1);
  Tools tools = toolsFor(check, language);
  if (!installed(tools.needs)) GTEST_SKIP() << tools.needs << " is not installed";
  for (bool failing : {true, false}) {
    Folder folder;
    std::string files = writeExample(check, language, failing, folder);
    auto filled = [&](std::string command) {
      if (size_t at = command.find("FILES"); at != std::string::npos) command.replace(at, 5, files);
      return command;
    };
    RunResult compiled = inFolder(folder, filled(tools.compile));
    ASSERT_EQ(compiled.exitCode, 0) << compiled.out << compiled.err;
    if (!kShown.count(check) || kNotOnThisMachine.count(GetParam())) continue;
    // A fault of chance gets three chances. That the sound one holds each time is seen by probe, in many more runs.
    bool failed = false;
    std::string said;
    for (int turn = 0; turn < (failing ? 3 : 1) && !failed; ++turn) {
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

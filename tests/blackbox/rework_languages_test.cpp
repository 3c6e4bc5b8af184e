// Inject, carried out by the built program on a harbour office in each language
// whose tools are there: every step builds and behaves as before, and in the end
// no class fetches the shared object itself.
#include <cstdlib>

#include "blackbox/tools.h"

namespace elmcart {
namespace {

struct Office {
  const char* language;
  const char* needs;
  size_t steps;   // that are kept
  size_t tests;   // that were compared each time, at least
};

void PrintTo(const Office& office, std::ostream* out) { *out << office.language; }

class InjectIn : public testing::TestWithParam<Office> {};

TEST_P(InjectIn, EachStepBuildsAndBehavesAsBefore) {
  const Office& office = GetParam();
  if (!installed(office.needs)) GTEST_SKIP() << office.needs << " is not installed";
  std::string compiler = std::string(ELMCART_TEST_TOOLS) + "/node_modules/typescript/bin/tsc";
  if (std::string(office.language) == "typescript" && !fs::exists(compiler)) GTEST_SKIP() << "scripts/setup_tests.sh brings the compiler";
  ::setenv("ELMCART_TYPESCRIPT", compiler.c_str(), 1);
  ::unsetenv("GO111MODULE");  // which another test of this program may have set
  Folder folder;
  fs::copy(std::string(ELMCART_REWORK) + "/" + office.language, folder / "office", fs::copy_options::recursive);
  RunResult run = elmcart("rework --move inject TideTable office --retire --write --format json", folder.path());
  ASSERT_EQ(run.exitCode, 0) << run.out << run.err;
  auto result = jsonOf(run);
  EXPECT_TRUE(result["finished"].get<bool>());
  EXPECT_TRUE(result["byHand"].empty()) << result["byHand"];
  EXPECT_EQ(result["steps"].size(), office.steps);
  for (const auto& step : result["steps"]) {
    EXPECT_TRUE(step["kept"].get<bool>()) << step;
    std::string outcome = step["outcome"];
    // Older runners count the file with the tests in it as one more.
    EXPECT_NE(outcome.find("1 witness as before"), std::string::npos) << outcome;
    EXPECT_GE(std::strtoul(outcome.c_str(), nullptr, 10), office.tests) << outcome;
    EXPECT_EQ(outcome.find("tests and") != std::string::npos, office.tests > 0) << outcome;
    EXPECT_LT(step["ownSeconds"].get<double>(), 1.0);
  }
  // Both trees, built and run once more by hand.
  auto config = jsonOf(elmcart("confirm --format json " + std::string(ELMCART_REWORK) + "/" + office.language + " office", folder.path()));
  EXPECT_TRUE(config["alike"].get<bool>());
  RunResult undone = elmcart("rework --undo office", folder.path());
  EXPECT_EQ(undone.exitCode, 0) << undone.err;
  for (const auto& entry : fs::recursive_directory_iterator(std::string(ELMCART_REWORK) + "/" + office.language)) {
    if (!entry.is_regular_file()) continue;
    std::string name = fs::relative(entry.path(), std::string(ELMCART_REWORK) + "/" + office.language).string();
    std::ifstream in(entry.path(), std::ios::binary);
    std::stringstream text;
    text << in.rdbuf();
    EXPECT_EQ(folder.read("office/" + name), text.str()) << name;
  }
}

INSTANTIATE_TEST_SUITE_P(All, InjectIn, testing::Values(Office{"java", "javac", 9, 0}, Office{"csharp", "mcs", 8, 0}, Office{"python", "python3", 4, 3}, Office{"javascript", "node", 6, 2}, Office{"typescript", "node", 8, 0}, Office{"php", "php", 6, 0}, Office{"go", "go", 3, 2}, Office{"kotlin", "kotlinc", 7, 0}),
                         [](const auto& info) { return std::string(info.param.language); });

}  // namespace
}  // namespace elmcart

// How a rework is proved: all steps at once and by halves, files that nothing loads, and a configuration that is told
// from the project's files.
#include "base/text.h"
#include "blackbox/tools.h"

namespace elmcart {
namespace {

constexpr const char* kTides = "class Tides:\n    def __init__(self):\n        self.asked = 0\n\n    def height(self, hour):\n        self.asked += 1\n        return hour\n\n\ntide_table = Tides()\n";

std::string userOf(const std::string& name) {
  return "from office.tides import tide_table\n\n\nclass " + name + ":\n    def __init__(self, name='east'):\n        self.name = name\n\n    def depth(self):\n        return tide_table.height(3)\n";
}

// Four classes use the tide table; a test says that the pilot's constructor takes a name and nothing else, and no test
// loads the attic.
void writeOffice(Folder& folder) {
  folder.write("office/__init__.py", "");
  folder.write("office/tides.py", kTides);
  for (const char* name : {"Mast", "Pilot", "Quay", "Attic"}) folder.write("office/" + lowerCase(name) + ".py", userOf(name));
  folder.write("tests/__init__.py", "");
  folder.write("tests/test_office.py", "import inspect\nimport unittest\n\nfrom office.mast import Mast\nfrom office.pilot import Pilot\nfrom office.quay import Quay\n\n\nclass OfficeTest(unittest.TestCase):\n    def test_depths(self):\n        self.assertEqual([Mast().depth(), Pilot().depth(), Quay().depth()], [3, 3, 3])\n\n    def test_what_the_pilot_takes(self):\n        self.assertEqual(list(inspect.signature(Pilot).parameters), ['name'])\n");
  folder.write("elmcart.toml", "[test]\ncommands = [\"python3 -m unittest -v tests.test_office\"]\nbaseline-runs = 1\n");
}

class Proof : public testing::TestWithParam<const char*> {};

TEST_P(Proof, KeepsWhatChangesNothingAndTellsWhatNobodyLooksAt) {
  if (!installed("python3")) GTEST_SKIP() << "python3 is not installed";
  Folder folder;
  writeOffice(folder);
  RunResult run = elmcart(std::string("rework --move inject --format json --check ") + GetParam() + " tide_table " + folder.path());
  ASSERT_LE(run.exitCode, 1) << run.err;  // a step was taken back
  std::map<std::string, std::string> outcomes;
  auto result = jsonOf(run);
  for (const auto& step : result["steps"]) {
    std::string file = step["files"][0];
    outcomes[file] = step["outcome"];
    EXPECT_EQ(step["kept"].get<bool>(), file != "office/pilot.py") << step;
    EXPECT_EQ(step["confirmed"].get<bool>(), file == "office/mast.py" || file == "office/quay.py") << step;
  }
  ASSERT_EQ(outcomes.size(), 4u) << run.out;
  EXPECT_NE(outcomes["office/pilot.py"].find("taken back: test tests.test_office.OfficeTest.test_what_the_pilot_takes was passed, now failed"), std::string::npos) << outcomes["office/pilot.py"];
  EXPECT_EQ(outcomes["office/attic.py"], "not confirmed: its files are not built or loaded here");
}

INSTANTIATE_TEST_SUITE_P(All, Proof, testing::Values("each", "series"), [](const auto& info) { return std::string(info.param); });

TEST(Proof, ATestCommandThatFailsAndNamesNothingStopsTheRun) {
  Folder folder;
  writeOffice(folder);
  folder.write("elmcart.toml", "[test]\ncommands = [\"sh no-such-script.sh\"]\n");
  RunResult run = elmcart("rework --move inject tide_table " + folder.path());
  EXPECT_EQ(run.exitCode, 1);
  EXPECT_NE(run.err.find("the test command fails as it is"), std::string::npos) << run.err;
  EXPECT_NE(run.err.find("no-such-script.sh"), std::string::npos) << run.err;
}

TEST(Init, WritesAConfigurationAndTriesIt) {
  if (!installed("python3")) GTEST_SKIP() << "python3 is not installed";
  Folder folder;
  writeOffice(folder);
  fs::remove(folder / "elmcart.toml");
  RunResult run = elmcart("init --try " + folder.path());
  EXPECT_EQ(run.exitCode, 0) << run.err;
  EXPECT_NE(run.out.find("2 tests are read"), std::string::npos) << run.out << run.err;
  EXPECT_NE(run.out.find("2 by name, 0 red, 0 skipped, 0 flaky"), std::string::npos) << run.out;
  EXPECT_NE(folder.read("elmcart.toml").find("python3 -m unittest discover -v"), std::string::npos);
  // What is there is left as it is.
  RunResult again = elmcart("init " + folder.path());
  EXPECT_EQ(again.exitCode, 2);
  EXPECT_NE(again.err.find("is there already"), std::string::npos) << again.err;
  Folder empty;
  EXPECT_EQ(elmcart("init " + empty.path()).exitCode, 1);
}

}  // namespace
}  // namespace elmcart

// What the configuration file means, and what the text outputs say of a small program.
#include <gtest/gtest.h>

#include "config/config.h"
#include "assess/analysis.h"
#include "report/text.h"
#include "support/folder.h"

namespace elmcart {
namespace {

TEST(ConfigFile, GivesWhatIsLeftOutItsMeaning) {
  Folder folder;
  folder.write("elmcart.toml", "[test]\ncommands = [\"make test\"]\nalone = \"make one\"\n[[witness]]\ncommand = \"./plan --dry\"\n[[witness]]\nname = \"tide\"\ncommand = \"./tide\"\n");
  auto config = readConfig(folder / "elmcart.toml");
  ASSERT_TRUE(config.ok()) << config.error().line();
  EXPECT_EQ(config->testAlone, "make one");
  ASSERT_EQ(config->witnesses.size(), 2u);
  EXPECT_EQ(config->witnesses[0].name, "./plan --dry");
  EXPECT_EQ(config->witnesses[1].name, "tide");
}

TEST(ConfigFile, NamesTheNearestKey) {
  Folder folder;
  folder.write("elmcart.toml", "[test]\ncommand = [\"make test\"]\n");
  auto config = readConfig(folder / "elmcart.toml");
  ASSERT_FALSE(config.ok());
  EXPECT_NE(config.error().line().find("line 2: unknown key 'test.command'; did you mean 'commands'?"), std::string::npos) << config.error().line();
}

std::unique_ptr<Analysis> analysisOf(const Folder& folder) {
  auto analysis = analyse(folder.path(), Config{}, 1, true);
  EXPECT_TRUE(analysis.ok());
  return std::move(*analysis);
}

TEST(Texts, TellTheLanguageWhereThereAreSeveral) {
  Folder folder;
  folder.write("berths.py", "berths = []\n\n\ndef take(ship):\n    berths.append(ship)\n");
  std::string one = surveyText(*analysisOf(folder), false, {});
  EXPECT_EQ(one.find("LANGUAGE"), std::string::npos) << one;
  folder.write("tide.go", "package tide\n\nvar level int\n\nfunc Rise() { level++ }\n");
  std::string two = surveyText(*analysisOf(folder), false, {});
  EXPECT_NE(two.find("LANGUAGE"), std::string::npos) << two;
  EXPECT_NE(two.find("in 2 files of 2 languages."), std::string::npos) << two;
  // Columns begin below each other.
  size_t head = two.find("KIND"), name = two.find("NAME"), row = two.find("berths", name);
  EXPECT_EQ(name - head, row - (two.rfind('\n', row) + 1)) << two;
}

TEST(Texts, ExplainEndsTheFactsWithTheAdvice) {
  Folder folder;
  folder.write("tide.go", "package tide\n\nvar level int\n\nfunc Rise() { level++ }\n");
  auto analysis = analysisOf(folder);
  ASSERT_EQ(analysis->survey.entities.size(), 1u);
  std::string text = explainEntityText(*analysis, analysis->survey.entities.front(), {});
  EXPECT_NE(text.find("advice"), std::string::npos) << text;
  EXPECT_NE(text.find("level (changes)"), std::string::npos) << text;
}

}  // namespace
}  // namespace elmcart

// What `explain` shows must be true: of each pair in examples/ the failing one
// is reported by its check and the sound one is not, and both are read whole.
#include <gtest/gtest.h>

#include <map>
#include <set>

#include "assess/analysis.h"
#include "assess/examples.h"
#include "support/folder.h"

namespace elmcart {
namespace {

// "check/language", and what stands in its folder.
struct Pair {
  std::string check, language;
  std::map<bool, std::string> paths;  // failing, sound
};

std::vector<Pair> pairs() {
  std::vector<Pair> out;
  for (const auto& check : fs::directory_iterator(ELMCART_EXAMPLES))
    for (const auto& language : fs::directory_iterator(check.path())) {
      Pair pair{check.path().filename().string(), language.path().filename().string(), {}};
      for (const auto& entry : fs::directory_iterator(language.path())) {
        std::string stem = entry.is_directory() ? entry.path().filename().string() : entry.path().stem().string();
        if (stem == "failing" || stem == "sound") pair.paths[stem == "failing"] = entry.path().string();
      }
      out.push_back(pair);
    }
  std::sort(out.begin(), out.end(), [](const Pair& x, const Pair& y) { return std::tie(x.check, x.language) < std::tie(y.check, y.language); });
  return out;
}

void PrintTo(const Pair& pair, std::ostream* out) { *out << pair.check << " in " << pair.language; }

class Examples : public testing::TestWithParam<Pair> {};

TEST_P(Examples, TheFailingOneIsReportedAndTheSoundOneIsNot) {
  const Pair& pair = GetParam();
  ASSERT_EQ(pair.paths.size(), 2u);
  ASSERT_NE(checkById(pair.check), nullptr);
  for (const auto& [failing, path] : pair.paths) {
    auto config = findConfig(path);
    ASSERT_TRUE(config.ok());
    auto analysis = analyse(path, *config, 1, true);
    ASSERT_TRUE(analysis.ok()) << path;
    const Analysis& a = **analysis;
    EXPECT_EQ(a.unreadBytes, 0u) << path;
    bool reported = false;
    std::string others;
    for (const Finding& f : a.assessment.findings) {
      reported |= f.check == pair.check;
      others += "\n  " + std::string(f.check) + " " + a.program.path(f.place) + ":" + std::to_string(a.program.line(f.place));
    }
    EXPECT_EQ(reported, failing) << path << others;
  }
}

INSTANTIATE_TEST_SUITE_P(All, Examples, testing::ValuesIn(pairs()), [](const auto& info) {
  std::string name = info.param.check + "_" + info.param.language;
  for (char& c : name) if (c == '.' || c == '-') c = '_';
  return name;
});

TEST(ExamplesTogether, TheProgramHoldsThemAll) {
  std::set<std::string> built, there;
  for (const Example& e : examples()) built.insert(std::string(e.check) + "/" + std::string(e.language) + (e.failing ? "/failing" : "/sound"));
  for (const Pair& pair : pairs())
    for (const auto& [failing, path] : pair.paths) there.insert(pair.check + "/" + pair.language + (failing ? "/failing" : "/sound"));
  EXPECT_EQ(built, there);
}

// Every check can be explained by an example in some language.
TEST(ExamplesTogether, EachCheckHasOne) {
  std::set<std::string> shown;
  for (const Example& e : examples()) shown.emplace(e.check);
  for (const Check& check : checks()) EXPECT_TRUE(shown.count(std::string(check.info.id))) << check.info.id;
}

}  // namespace
}  // namespace elmcart

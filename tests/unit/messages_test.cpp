// What holds for every message, seen on all findings of the samples and examples.
#include <gtest/gtest.h>

#include <set>

#include "assess/analysis.h"
#include "base/text.h"
#include "rework/moves.h"
#include "support/folder.h"

namespace elmcart {
namespace {

class Messages : public testing::Test {
 protected:
  // All findings, with the folder that each is of.
  static const std::vector<std::pair<std::string, Finding>>& all() {
    static const std::vector<std::pair<std::string, Finding>> kAll = [] {
      std::vector<std::pair<std::string, Finding>> out;
      for (const char* root : {ELMCART_SAMPLES, ELMCART_EXAMPLES}) {
        auto config = findConfig(root);
        auto analysis = analyse(root, *config, 1, true);
        for (const Finding& f : (*analysis)->assessment.findings) out.emplace_back((*analysis)->program.path(f.place), f);
      }
      return out;
    }();
    return kAll;
  }
};

TEST_F(Messages, AreOneSentenceOfAtMost200Characters) {
  ASSERT_GT(all().size(), 200u);
  for (auto& [path, f] : all()) {
    EXPECT_LE(f.message.size(), 200u) << path << ": " << f.check << ": " << f.message;
    EXPECT_TRUE(f.message.ends_with('.')) << path << ": " << f.message;
    EXPECT_EQ(f.message.find(". "), std::string::npos) << path << ": " << f.message;
  }
}

TEST_F(Messages, AreRankedByWhatIsKnown) {
  for (auto& [path, f] : all()) EXPECT_EQ(f.risk.sure, sureFactor(f.sureness)) << path << ": " << f.message;
}

TEST_F(Messages, NameAThingOnce) {
  for (auto& [path, f] : all()) {
    std::vector<std::string> words;
    std::string word;
    for (char c : f.message + " ") {
      if (c != ' ' && c != ',') word += c;
      else if (!word.empty()) words.push_back(word), word.clear();
    }
    for (size_t i = 2; i < words.size(); ++i) EXPECT_FALSE(words[i - 1] == "of" && words[i] == words[i - 2]) << path << ": " << f.message;
  }
}

TEST_F(Messages, BeginWithASubject) {
  // A verb or a joining word in front leaves the reader to guess who is meant.
  const std::set<std::string> kNoSubject = {"makes", "keeps", "hands", "takes", "uses", "is", "are", "has", "walks", "reaches", "and", "which", "that", "nothing", "of"};
  for (auto& [path, f] : all()) {
    std::string first = f.message.substr(0, f.message.find(' '));
    EXPECT_FALSE(kNoSubject.count(first)) << path << ": " << f.message;
  }
}

TEST_F(Messages, BringEvidenceThatCanBeRead) {
  for (auto& [path, f] : all()) {
    EXPECT_FALSE(f.evidence.empty()) << path << ": " << f.check;
    EXPECT_LE(f.evidence.size(), kMostEvidence) << path << ": " << f.check;
    for (const Evidence& e : f.evidence) EXPECT_FALSE(e.note.empty()) << path << ": " << f.check;
  }
}

TEST_F(Messages, AdviseAMoveOfTheListOrToKeep) {
  std::set<std::string_view> known = {"keep", "by-hand"};
  for (const Move& move : moves()) known.insert(move.id);
  for (auto& [path, f] : all()) EXPECT_TRUE(known.count(adviceText(f.advice))) << adviceText(f.advice);
  for (const Check& check : checks()) EXPECT_FALSE(known.count(check.info.move.substr(0, check.info.move.find(": ")))) << check.info.id << ": the advice is named by the finding, not by the text";
}

TEST_F(Messages, CallAThingByItsFamilyAndByNoOtherWord) {
  const std::set<std::string> kFamilies = {"single", "init", "thread", "lifetime", "coupling"};
  for (const Check& check : checks()) EXPECT_TRUE(kFamilies.count(std::string(check.info.id.substr(0, check.info.id.find('.'))))) << check.info.id;
  for (const Check& check : checks())
    for (std::string_view text : {check.info.what, check.info.why, check.info.keepWhen, check.info.move})
      for (std::string_view odd : {"door", "one only", "out of reach", "stands for", "sees to"}) EXPECT_EQ(text.find(odd), std::string_view::npos) << check.info.id << ": " << text;
}

}  // namespace
}  // namespace elmcart

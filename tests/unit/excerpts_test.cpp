// What `explain` shows for a check in a language that has no example of its own.
#include "assess/excerpts.h"

#include <gtest/gtest.h>

#include <algorithm>

#include "assess/analysis.h"
#include "languages/language.h"

namespace elmcart {
namespace {

TEST(Excerpts, ArePiecesThatCanBeReadInEachLanguage) {
  for (const Check& check : checks()) {
    for (const Language& language : languages()) {
      if (!whyNot(check.info, *language.guarantees).empty() || language.id == "tsx") continue;
      for (bool failing : {true, false}) {
        std::string about = std::string(check.info.id) + " in " + std::string(language.id) + (failing ? ", reported" : ", not reported");
        auto excerpt = excerptOf(check.info.id, language.id, failing);
        EXPECT_TRUE(excerpt.has_value()) << about;
        if (!excerpt) continue;
        const std::string& text = excerpt->text;
        EXPECT_NE(text.find(failing ? "<- reported here" : "<- not reported"), std::string::npos) << about;
        for (const char* mark : {"finding:", "near:", "entity:", "harmless:"}) EXPECT_EQ(text.find(mark), std::string::npos) << about << "\n" << text;
        EXPECT_LE(std::count(text.begin(), text.end(), '\n'), 75) << about;
        // Whole declarations: each brace that opens is closed.
        EXPECT_EQ(std::count(text.begin(), text.end(), '{'), std::count(text.begin(), text.end(), '}')) << about << "\n" << text;
      }
    }
  }
}

TEST(Excerpts, AreEmptyWhereThereIsNothingToShow) {
  EXPECT_FALSE(excerptOf("no.such-check", "java", true).has_value());
  EXPECT_FALSE(excerptOf("single.replaceable", "no-such-language", true).has_value());
}

}  // namespace
}  // namespace elmcart

// The row of Objective-C in the table of languages.
#include <algorithm>

#include "base/text.h"
#include "languages/grammar.h"
#include "languages/objc/lower.h"
#include "languages/objc/rephrase.h"

extern "C" const TSLanguage* tree_sitter_objc(void);

namespace elmcart {
namespace {

// Does a header speak Objective-C? One that only imports or names its classes, and
// has what no C has, is C++ for the other files of an Objective-C++ program.
bool claimsHeader(std::string_view text) {
  static constexpr std::string_view kSure[] = {"@interface", "@protocol", "@end", "NS_ENUM", "NS_OPTIONS"};
  static constexpr std::string_view kLikely[] = {"@class", "@import", "#import", "NS_ASSUME_NONNULL_BEGIN"};
  static constexpr std::string_view kOther[] = {"namespace ", "template <", "template<", "class ", "using "};
  auto begins = [](std::string_view line, std::span<const std::string_view> words) {
    return std::any_of(words.begin(), words.end(), [&](std::string_view word) { return line.substr(0, word.size()) == word; });
  };
  bool likely = false, other = false;
  for (size_t at = 0; at < text.size();) {
    size_t end = std::min(text.find('\n', at), text.size());
    std::string_view line = trim(text.substr(at, end - at));
    if (begins(line, kSure)) return true;
    likely |= begins(line, kLikely);
    other |= begins(line, kOther);
    at = end + 1;
  }
  return likely && !other;
}

}  // namespace

Language objcLanguage() {
  static constexpr std::string_view kExtensions[] = {".m", ".mm", ".h"};
  static constexpr std::string_view kHeaders[] = {".h"};
  Language language;
  language.id = "objc";
  language.name = "Objective-C";
  language.extensions = kExtensions;
  language.testImports = {"XCTest"};
  language.headerExtensions = kHeaders;
  language.claims = claimsHeader;
  language.family = "c";
  language.separator = ".";
  language.dotted = true;
  language.bareMethods = false;
  language.guarantees = &objcGuarantees();
  language.mending = &objcMending();
  language.facing = &objcFacing();
  language.settling = &objcSettling();
  language.announcing = &objcAnnouncing();
  language.sound = &objcSound();
  language.learn = learnObjc;
  language.lower = lowerObjc;
  language.grammar = tree_sitter_objc;
  language.forGrammar = [](std::string_view text) {
    std::string prepared(text);
    rephraseObjc(prepared);
    return prepared;
  };
  language.writer = objcWriter;
  language.parseOnly = parseObjcOnly;
  return language;
}

}  // namespace elmcart

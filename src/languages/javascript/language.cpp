#include "languages/javascript/javascript.h"
#include "languages/javascript/parked.h"
#include "languages/javascript/typed.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_javascript(void);
extern "C" const TSLanguage* tree_sitter_tsx(void);

namespace elmcart {
namespace {
const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar = scriptGrammar(tree_sitter_javascript);
  return kGrammar;
}
// JavaScript with types written in it says so in its first comment; the grammar
// of TypeScript knows nearly all of these types.
const SharedGrammar& typedGrammar() {
  static const SharedGrammar kGrammar = scriptGrammar(tree_sitter_tsx);
  return kGrammar;
}
}  // namespace

Language javascriptLanguage() {
  static constexpr std::string_view kExtensions[] = {".js", ".mjs", ".cjs", ".jsx"};
  static constexpr std::string_view kInterpreters[] = {"node"};
  Language language;
  language.id = "javascript";
  language.name = "JavaScript";
  language.extensions = kExtensions;
  language.interpreters = kInterpreters;
  language.family = "script";
  language.separator = ".";
  language.dotted = true;
  language.modulesApart = true;
  language.testFilesApart = true;
  language.bareMembers = false;
  language.infersTypes = true;
  language.guarantees = &javascriptGuarantees();
  language.mending = &javascriptMending();
  language.facing = &javascriptFacing();
  language.settling = &javascriptSettling();
  language.announcing = &javascriptAnnouncing();
  language.handing = &javascriptHanding();
  language.lower = [](std::string_view text, const Language::TreeLore* lore, LoweredFile& out) {
    if (isTyped(text)) lowerScript(typedGrammar(), text, lore, out, rephraseTyped(text).text());
    else lowerScript(grammar(), text, lore, out);
  };
  language.grammar = tree_sitter_javascript;
  language.writer = scriptWriter;
  language.harness = scriptHarness;
  language.learn = learnParked;
  language.parseOnly = [](std::string_view text) { parseOnlyWith(grammar(), text); };
  return language;
}

}  // namespace elmcart

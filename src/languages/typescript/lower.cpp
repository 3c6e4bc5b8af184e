// TypeScript is lowered as JavaScript is; only the grammars differ.
#include "base/text.h"
#include "languages/javascript/javascript.h"
#include "languages/shared/lowerer.h"
#include "languages/typescript/typescript.h"

extern "C" const TSLanguage* tree_sitter_typescript(void);
extern "C" const TSLanguage* tree_sitter_tsx(void);

namespace elmcart {
namespace {

const SharedGrammar& plainGrammar() {
  static const SharedGrammar kGrammar = scriptGrammar(tree_sitter_typescript);
  return kGrammar;
}
const SharedGrammar& markupGrammar() {
  static const SharedGrammar kGrammar = scriptGrammar(tree_sitter_tsx);
  return kGrammar;
}

// Translation tables in XML bear the same extension.
bool isMarkup(std::string_view text) {
  if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
  text = trim(text);
  return text.substr(0, 5) == "<?xml" || text.substr(0, 9) == "<!DOCTYPE";
}

Language common() {
  Language language = javascriptLanguage();
  static const Guarantees kGuarantees = [] {
    Guarantees g = javascriptGuarantees();
    g.noSubclassConstructors = {};  // TypeScript handbook, Classes: `protected constructor`
    return g;
  }();
  language.marksConstants = true;
  language.guarantees = &kGuarantees;
  language.id = "typescript";
  language.name = "TypeScript";
  language.interpreters = {};
  language.handing = &typescriptHanding();
  language.sound = &typescriptSound();
  language.facing = &typescriptFacing();
  language.settling = &typescriptSettling();
  language.announcing = &typescriptAnnouncing();
  return language;
}

}  // namespace

Language typescriptLanguage() {
  static constexpr std::string_view kExtensions[] = {".ts", ".mts", ".cts"};
  Language language = common();
  language.extensions = kExtensions;
  language.grammar = tree_sitter_typescript;
  language.lower = [](std::string_view text, const Language::TreeLore* lore, LoweredFile& out) { lowerScript(plainGrammar(), isMarkup(text) ? std::string_view{} : text, lore, out); };
  language.parseOnly = [](std::string_view text) { parseOnlyWith(plainGrammar(), isMarkup(text) ? std::string_view{} : text); };
  return language;
}

Language tsxLanguage() {
  static constexpr std::string_view kExtensions[] = {".tsx"};
  Language language = common();
  language.id = "tsx";
  language.name = "TypeScript";
  language.extensions = kExtensions;
  language.grammar = tree_sitter_tsx;
  language.lower = [](std::string_view text, const Language::TreeLore* lore, LoweredFile& out) { lowerScript(markupGrammar(), text, lore, out); };
  language.parseOnly = [](std::string_view text) { parseOnlyWith(markupGrammar(), text); };
  return language;
}

}  // namespace elmcart

// JavaScript: what the table of languages and TypeScript's folder take from here.
#pragma once

#include "languages/language.h"
#include "languages/shared/shapes.h"

namespace elmcart {

Language javascriptLanguage();
std::unique_ptr<Writer> scriptWriter(WriterFiles& files, const HandedIn& handed);
std::unique_ptr<HarnessWriter> scriptHarness(WriterFiles& files);
const Guarantees& javascriptGuarantees();

// JavaScript and TypeScript are lowered by the same code over grammars whose
// nodes bear the same names.
SharedGrammar scriptGrammar(const TSLanguage* (*grammar)());
// `forGrammar`: the text in other words of the same length, where the grammar needs that.
void lowerScript(const SharedGrammar& grammar, std::string_view text, const Language::TreeLore* lore, LoweredFile& out, std::string_view forGrammar = {});

const Handing& javascriptHanding();
const Mending& javascriptMending();
const Facing& javascriptFacing();
const Settling& javascriptSettling();
const Announcing& javascriptAnnouncing();

}  // namespace elmcart

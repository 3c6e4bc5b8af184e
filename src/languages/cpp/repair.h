// Parsing with repair: where the grammar reports an error, the words around it
// that look like macros are overwritten one at a time, and each change is kept
// when fewer bytes are unread after it. Offsets stay true.
#pragma once

#include <string>

#include "languages/cpp/prepare.h"
#include "languages/grammar.h"

namespace elmcart {

// `text` is changed in place, never in length.
TreeHandle parseRepaired(ParserHandle& parser, std::string& text, const MacroLore* lore);

// Bytes inside error nodes, plus one for each missing token.
uint32_t unreadBytes(TSNode root);

}  // namespace elmcart

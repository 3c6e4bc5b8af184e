// Conditional directives, blanked before a text is parsed.
#pragma once

#include <string>
#include <string_view>

namespace elmcart {

// Overwrites with spaces the lines of #if, #else and the like, and what stands
// between an #else (#elseif, #elif) and its #endif: of several branches the
// first is read, for which one is built is not known. Offsets stay true.
std::string withoutDirectives(std::string_view text);

// Overwrites each `words` in the text with spaces: for newer words of a language
// that its grammar does not know and that change nothing here.
void blankWords(std::string& text, std::string_view words);

}  // namespace elmcart

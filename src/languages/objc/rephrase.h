#pragma once

#include <string>
#include <vector>

namespace elmcart {

// Puts what the grammar does not know of Objective-C, and what macros of unknown
// text stand for, in words that it knows, of the same length.
void rephraseObjc(std::string& text);

// The part of it that Objective-C++ takes from C++; `code`: which bytes are neither text nor comment.
void rephraseCpp(std::string& text, const std::vector<bool>& code);

}  // namespace elmcart

#pragma once

#include <string>

namespace elmcart {

// Puts what the grammar does not know of Objective-C, and what macros of unknown
// text stand for, in words that it knows, of the same length.
void rephraseObjc(std::string& text);

// The same for what Objective-C++ takes from C++.
void rephraseCpp(std::string& text);

}  // namespace elmcart

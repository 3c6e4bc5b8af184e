// JavaScript with types written in it.
#pragma once

#include <string_view>

#include "languages/shared/rephrase.h"

namespace elmcart {

// It says so in its first comment.
bool isTyped(std::string_view text);
// What the grammar of TypeScript does not know of it, written so that it does: as long as it was.
Rephrased rephraseTyped(std::string_view text);

}  // namespace elmcart

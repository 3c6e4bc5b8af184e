#pragma once

#include "languages/shared/rephrase.h"

namespace elmcart {

// What the grammar does not know of C#, in words that it knows.
Rephrased rephraseCsharp(std::string_view text);

}  // namespace elmcart

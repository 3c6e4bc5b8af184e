#pragma once

#include "languages/shared/rephrase.h"

namespace elmcart {

Rephrased rephraseKotlin(std::string_view text);

}  // namespace elmcart

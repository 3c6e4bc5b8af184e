#pragma once

#include "languages/shared/rephrase.h"

namespace elmcart {

Rephrased rephraseSwift(std::string_view text);

}  // namespace elmcart

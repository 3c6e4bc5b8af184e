// What a text tells of the conditions of its #if lines.
#pragma once

#include <optional>
#include <string_view>

namespace elmcart {

// What is known of a condition: true, false, or nothing.
using Tristate = std::optional<bool>;

// Of the condition of an #if or #elif, in three-valued logic. Grammar: C++ [cpp.cond], without arithmetic; whatever is not
// understood is unknown.
Tristate knownOfCondition(std::string_view condition);

// Of a macro: is it defined where this is built, for Linux by g++ or clang?
Tristate knownToBeDefined(std::string_view macro);

}  // namespace elmcart

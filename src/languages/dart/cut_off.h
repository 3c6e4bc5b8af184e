// Dart files that are cut off in mid-text, over which the grammar goes round for ever.
#pragma once

#include <string>
#include <string_view>

#include "lowered/tree.h"

namespace elmcart::dart {

// The grammar goes round for ever over a file that is cut off behind a member's
// name ("a.le") or in a string. Such a file is read with what this returns behind it.
std::string missingEnd(std::string_view text);
// Nothing stands behind the end of the text that was given: spans end there.
void endAt(LoweredFile& file);

}  // namespace elmcart::dart

// The binary form of a lowered file, as the cache keeps it.
//
// All numbers are unsigned and written in groups of seven bits, the lowest
// first, the top bit of a byte telling that another follows. Spans and links
// are written as differences, which are small. Comments addressed to us and
// the reason for a file left unread are kept; path, language and the starts of
// lines are not: who reads a file back knows them.
#pragma once

#include <string>
#include <string_view>

#include "lowered/tree.h"

namespace elmcart {

std::string toBinary(const LoweredFile& file);

// False when the bytes are not such a form; `file` is then not to be used. No
// bytes, however damaged, do harm.
bool fromBinary(std::string_view bytes, LoweredFile& file);

}  // namespace elmcart

// Which files no person writes: what a tool made, and copies that a compiler or packer made of others.
#pragma once

#include <string_view>
#include <vector>

#include "lowered/tree.h"

namespace elmcart {

// Told by the path (dist/, build/, .min.js …), by a comment at the head, and by lines that nobody writes so long.
bool isGenerated(std::string_view path, std::string_view text);
// What a compiler made of files that were read as well: lib/board.js of src/board.ts.
void markCompiled(std::vector<LoweredFile>& files);

}  // namespace elmcart

// Which files no person writes in this tree: what a tool made, copies that a compiler or packer made of others, and what was
// brought along from other projects. They are read, for others use them; nothing is told of them.
#pragma once

#include <string_view>
#include <vector>

#include "lowered/tree.h"

namespace elmcart {

// Told by the path (dist/, build/, vendor/, .min.js …), by a comment at the head, and by lines that nobody writes so long.
bool isGenerated(std::string_view path, std::string_view text);
// What a compiler made of files that were read as well: lib/board.js of src/board.ts.
void markCompiled(std::vector<LoweredFile>& files);

}  // namespace elmcart

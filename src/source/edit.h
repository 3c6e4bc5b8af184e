// Exact edits of files' bytes: what is not named by an edit stays as it is.
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"
#include "base/span.h"

namespace elmcart {

struct FileEdit {
  std::string path;  // relative to the root
  Span span;         // replaced; empty: an insertion; both ends 0 of a file that is not there: it is made
  std::string text;
};

// The text with the edits made. Fails when two of them overlap. Insertions at
// one place stay in the order in which they are given.
Result<std::string> applyEdits(std::string_view text, std::vector<FileEdit> edits);

// A unified diff of one file, with git's header lines; "" when nothing differs.
// `isNew`: the file is made, and was not there before.
std::string unifiedDiff(const std::string& path, const std::string& before, const std::string& after, bool isNew = false, uint32_t context = 3);

}  // namespace elmcart

// From files to lowered files: read, learn what the whole tree teaches (the
// macros), lower on a pool of workers. The result is the same for any number
// of workers.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "base/result.h"
#include "languages/language.h"
#include "lowered/tree.h"
#include "source/walk.h"

namespace elmcart {

struct LoadedTree {
  std::string root;
  std::vector<LoweredFile> files;   // sorted by path
  std::vector<Error> problems;      // files that could not be used, sorted
  size_t bytes = 0;                 // of source read
  size_t unreadFiles = 0;           // files with at least one unread byte
  size_t unreadBytes = 0;
};

struct LoadOptions {
  WalkOptions walk;
  unsigned jobs = 0;  // 0: as many as the machine has
};

// Is a file one to read, as far as its name and first bytes tell?
bool isWanted(std::string_view relative, const std::string& absolute);

Result<LoadedTree> loadTree(const std::string& path, const LoadOptions& options);

// Lowers one text, for tests.
LoweredFile lowerText(std::string_view path, std::string_view text);

}  // namespace elmcart

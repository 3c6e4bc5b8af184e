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
#include "store/cache.h"

namespace elmcart {

// A file of which a part could not be read: where that begins, and how much it is.
struct UnreadFile {
  std::string path;
  uint32_t line = 1;     // of the first byte that was not read
  uint32_t bytes = 0;
  std::string text;      // that line, without blanks around it, at most 80 bytes; in UTF-8 if the file is
};

struct LoadedTree {
  std::vector<Error> problems;      // files that could not be used, sorted
  size_t bytes = 0;                 // of source read
  size_t unreadFiles = 0;           // files with at least one unread byte
  size_t unreadBytes = 0;
  std::vector<UnreadFile> unread;   // in the order of their paths
  size_t fromCache = 0;             // files that were not read again
  bool lasting = true;              // would another run read the same? Not when one was left unread for want of time
};

struct LoadOptions {
  WalkOptions walk;
  unsigned jobs = 0;  // 0: as many as the machine has
};

// Is a file one to read, as far as its name and first bytes tell?
bool isWanted(std::string_view relative, const std::string& absolute);

// The files of a tree as they are on disk.
struct SourceTree {
  std::string root;
  std::vector<FoundFile> files;             // sorted by path
  std::vector<std::string> texts;           // of each file
  std::vector<const Language*> languages;   // of each; null: none that is read
  std::vector<Error> problems;              // files that could not be read, sorted
  size_t ignored = 0;                       // files and folders that .gitignore files leave out
};

// The same of a git revision: `root` is a folder of a work tree.
Result<SourceTree> readTreeAt(const std::string& root, const std::string& revision, const LoadOptions& options);
Result<SourceTree> readTree(const std::string& path, const LoadOptions& options);

// Lowers all files and hands each on, in the order of their paths, as soon as it and
// those before it are there: from whichever thread it is, one at a time.
// What the cache holds of a file is not read again, and what it does not hold is put
// into it (but not written). Null: no cache.
LoadedTree lowerTree(SourceTree tree, unsigned jobs, Cache* cache, const std::function<void(LoweredFile)>& take);

// Lowers one text, for tests.
LoweredFile lowerText(std::string_view path, std::string_view text);

}  // namespace elmcart

// Finding and reading the files of a tree. Whatever cannot be used becomes a
// problem with path and reason; the walk goes on.
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "base/result.h"
#include "source/ignore.h"

namespace elmcart {

// A file this large is generated or no source at all.
inline constexpr size_t kLargestFile = 64u << 20;

struct WalkOptions {
  Globs leaveOut;                     // relative to the root; a folder with all that is in it
  bool honourGitignore = true;
  std::vector<std::string> only;      // folders and files to read, relative to the root; none: all
};

// Is a file or folder left out by its path: tools' own folders, what the
// options name, what was not asked for? (.gitignore is another matter.)
bool isLeftOut(std::string_view path, bool isFolder, const WalkOptions& options);

struct FoundFile {
  std::string path;      // relative to the root
  std::string absolute;
  size_t size = 0;
};

struct WalkResult {
  std::string root;               // absolute, without a trailing '/'
  std::vector<FoundFile> files;   // sorted by path
  std::vector<Error> problems;    // sorted by subject
  size_t ignored = 0;             // files and folders that .gitignore files leave out
};

// All regular files below `path` (or `path` itself when it is a file) that
// `wanted` accepts by relative path and absolute one. Symbolic links are not
// followed below the root.
Result<WalkResult> walkTree(const std::string& path, const WalkOptions& options,
                            const std::function<bool(std::string_view, const std::string&)>& wanted);

// The bytes of a file. Fails when it cannot be read, is larger than
// kLargestFile, or is no text (a NUL byte in its first 8 KiB).
Result<std::string> readSource(const std::string& absolute);
// Does a text say in its first line what it is written in: by "#!", or between "-*-" and "-*-", as editors read it?
bool saysItsLanguage(std::string_view text);
bool saysItsLanguageAt(const std::string& absolute);  // the same of a file; false where it cannot be read
// The same without the checks on size and content.
Result<std::string> readWhole(const std::string& absolute);

// Offsets of the first byte of each line.
std::vector<uint32_t> lineStartsOf(std::string_view text);

}  // namespace elmcart

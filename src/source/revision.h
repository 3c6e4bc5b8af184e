// The files of a folder as a git revision holds them. Nothing is checked out.
#pragma once

#include <string>
#include <vector>

#include "source/walk.h"

namespace elmcart {

struct RevisionFile {
  std::string path;  // relative to the folder
  std::string text;
};

// All files below `folder` (inside a work tree) at `revision` (whatever git
// names so: a branch, a tag, a hash, HEAD~2) that the options and `wanted`
// leave in. Fails when the folder is in no repository or nothing is called that.
Result<std::vector<RevisionFile>> filesAtRevision(const std::string& folder, const std::string& revision, const WalkOptions& options,
                                                  const std::function<bool(std::string_view path, std::string_view text)>& wanted);

// Writes all files below `folder`, as the revision holds them, into `target`;
// returns how many.
Result<size_t> extractRevision(const std::string& folder, const std::string& revision, const std::string& target);

}  // namespace elmcart

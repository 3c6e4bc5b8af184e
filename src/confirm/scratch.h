// Scratch copies of a tree, in the system's temporary folder. A folder bears
// the number of its process, so that a later run can remove what a killed one
// left behind.
#pragma once

#include <string>

#include "base/result.h"

namespace elmcart {

class Scratch {
 public:
  // An empty folder of its own.
  static Result<Scratch> make();
  Scratch(Scratch&& other) noexcept;
  Scratch& operator=(Scratch&&) = delete;
  Scratch(const Scratch&) = delete;
  Scratch& operator=(const Scratch&) = delete;
  ~Scratch();

  const std::string& path() const { return path_; }
  // Copies a tree into the subfolder `name`; version control, our own journal
  // and CMake build folders stay behind, and what .gitignore files leave out where they are
  // honoured. Returns the copy's path.
  Result<std::string> copyTree(const std::string& root, const std::string& name, bool honourGitignore) const;

 private:
  explicit Scratch(std::string path) : path_(std::move(path)) {}
  std::string path_;
};

// Writes a file of a scratch copy, with the folders that it stands in; false: that could not be done.
bool writeText(const std::string& path, const std::string& text);

// Removes scratch folders of processes that are no more; returns how many.
size_t removeStrayScratch();
// Removes those of this process, for one that is about to end without its destructors.
size_t removeOwnScratch();

}  // namespace elmcart

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
  // and CMake build folders stay behind. Returns the copy's path.
  Result<std::string> copyTree(const std::string& root, const std::string& name) const;

 private:
  explicit Scratch(std::string path) : path_(std::move(path)) {}
  std::string path_;
};

// Removes scratch folders of processes that are no more; returns how many.
size_t removeStrayScratch();

}  // namespace elmcart

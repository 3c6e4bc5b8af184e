// Copies of a tree into which a harness is put, and from which it can be taken again.
#pragma once

#include <map>
#include <optional>
#include <string>

#include "config/config.h"
#include "confirm/process.h"
#include "confirm/scratch.h"
#include "languages/harness.h"

namespace elmcart {

// A copy of the tree, or of the one file, in the scratch folder.
Result<std::string> copyOf(const Scratch& scratch, const std::string& path, const std::string& name, bool honourGitignore);

// The first of what a command that failed said.
std::string cutSaid(const RunResult& run);

// Builds it with its own commands; an answer that is not empty: why that failed.
std::string buildHarness(const Harness& harness, const std::string& folder, const Config& config);

class HarnessFiles {
 public:
  explicit HarnessFiles(std::string folder) : folder_(std::move(folder)) {}
  // An answer that is not empty: why it could not be put in.
  std::string put(const Harness& harness);
  // The tree is as it was; what was built of it stays, so that little is built again.
  void takeOut();

 private:
  std::string folder_;
  std::map<std::string, std::optional<std::string>> before_;  // files that were changed; nothing: was not there
};

}  // namespace elmcart

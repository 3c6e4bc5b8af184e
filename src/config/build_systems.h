// How is a project built and tested? Told from the files that its build system leaves in its root,
// or in a folder right below it.
#pragma once

#include <string>
#include <vector>

#include "base/result.h"

namespace elmcart {

struct BuildSystem {
  std::string name;                   // "CMake with CTest"
  std::string file;                   // by which it was told, relative to the root
  std::vector<std::string> build;     // commands, run in the root
  std::vector<std::string> test;
  std::vector<std::string> results;   // globs of the result files that the test commands write
  std::vector<std::string> leaveOut;  // what the build makes, or brings from elsewhere
  std::vector<std::string> needs;     // programs that the commands run
  std::vector<std::string> notes;     // what a user has to see to, one sentence each
};

// All that are there, the one to use first: those with tests before those without. Empty: none is known.
Result<std::vector<BuildSystem>> buildSystemsOf(const std::string& root);

// A commented elmcart.toml for it; `others` are mentioned.
std::string configurationFor(const BuildSystem& system, const std::vector<BuildSystem>& others);

}  // namespace elmcart

// The kept steps of a rework as commits on a branch of the user's repository:
// one a step, on top of what is checked out. The work tree and what is checked
// out stay as they are, and nothing is sent anywhere.
#pragma once

#include <string>

#include "rework/rework.h"

namespace elmcart {

// Can the branch be made: is the folder in a repository with nothing changed
// since its last commit, is the name free, and is it known who commits? The
// error says what is in the way.
Result<bool> mayBranch(const std::string& root, const std::string& branch);

// The number of commits. Fails as mayBranch() does, or when git does.
Result<size_t> commitSteps(const std::string& root, const std::string& branch, const ReworkResult& result);

}  // namespace elmcart

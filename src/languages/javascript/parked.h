// What code of a tree keeps on the global object (ECMA-262, 19.1).
#pragma once

#include <memory>
#include <set>
#include <span>
#include <string>

#include "base/text.h"
#include "languages/language.h"

namespace elmcart {

// What code of the tree assigns to the global object, by name.
struct ScriptLore : Language::TreeLore {
  std::set<std::string, std::less<>> parked;

  uint64_t fingerprint() const override { return stableHashOfAll(parked, 1); }
};

std::unique_ptr<Language::TreeLore> learnParked(std::span<const std::string_view> texts, unsigned jobs);

}  // namespace elmcart

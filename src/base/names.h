// Interned names: each distinct text is kept once and stands for a 32-bit id.
// Id 0 is the empty name. A table is not safe for concurrent writing; every
// lowered file has one of its own, and the program merges them in file order.
#pragma once

#include <absl/container/flat_hash_map.h>

#include <algorithm>
#include <cstdint>
#include <memory>
#include <string_view>
#include <vector>

namespace elmcart {

using NameId = uint32_t;

class NameTable {
 public:
  NameTable() { intern(""); }
  NameTable(NameTable&&) = default;
  NameTable& operator=(NameTable&&) = default;
  NameTable(const NameTable&) = delete;
  NameTable& operator=(const NameTable&) = delete;

  NameId intern(std::string_view text) {
    return idOf(text, [this](std::string_view fresh) { return keep(fresh); });
  }

  // The same for a text that outlives this table where it is.
  NameId internLasting(std::string_view text) {
    return idOf(text, [](std::string_view fresh) { return fresh; });
  }

  // Adds a text without making it findable by find() or intern().
  NameId add(std::string_view text) {
    texts_.push_back(keep(text));
    return static_cast<NameId>(texts_.size() - 1);
  }

  // The id of a text that may never have been interned: 0 then.
  NameId find(std::string_view text) const {
    auto found = ids_.find(text);
    return found == ids_.end() ? 0 : found->second;
  }

  // Gives the memory for finding ids by text back; a name interned later gets a
  // new id even when its text was there before.
  void seal() {
    ids_ = {};
    texts_.shrink_to_fit();
  }

  // Good for as long as the table, wherever it is moved.
  std::string_view text(NameId id) const { return texts_[id]; }
  size_t size() const { return texts_.size(); }

 private:
  template <typename Keep>
  NameId idOf(std::string_view text, Keep kept) {
    auto found = ids_.lazy_emplace(text, [&](const auto& make) {
      texts_.push_back(kept(text));
      make(texts_.back(), static_cast<NameId>(texts_.size() - 1));
    });
    return found->second;
  }

  // A copy in the last block, or in a new one, twice as large up to a limit.
  std::string_view keep(std::string_view text) {
    if (blocks_.empty() || text.size() > blocks_.back().size - blocks_.back().used) {
      constexpr size_t kFirst = 512, kMost = 1 << 16;
      size_t size = std::max(text.size(), std::min(kMost, kFirst << std::min<size_t>(blocks_.size(), 7)));
      blocks_.push_back({std::make_unique_for_overwrite<char[]>(size), size, 0});
    }
    Block& block = blocks_.back();
    char* copy = block.bytes.get() + block.used;
    std::copy(text.begin(), text.end(), copy);
    block.used += text.size();
    return {copy, text.size()};
  }

  struct Block {
    std::unique_ptr<char[]> bytes;
    size_t size, used;
  };
  std::vector<std::string_view> texts_;  // in the blocks
  std::vector<Block> blocks_;
  absl::flat_hash_map<std::string_view, NameId> ids_;
};

}  // namespace elmcart

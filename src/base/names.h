// Interned names: each distinct text is kept once and stands for a 32-bit id.
// Id 0 is the empty name. A table is not safe for concurrent writing; every
// lowered file has one of its own, and the program merges them in file order.
#pragma once

#include <absl/container/flat_hash_map.h>

#include <cstdint>
#include <deque>
#include <string>
#include <string_view>

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
    if (auto found = ids_.find(text); found != ids_.end()) return found->second;
    texts_.emplace_back(text);
    NameId id = static_cast<NameId>(texts_.size() - 1);
    ids_.emplace(texts_.back(), id);
    return id;
  }

  // Adds a text without making it findable by find() or intern().
  NameId add(std::string_view text) {
    texts_.emplace_back(text);
    return static_cast<NameId>(texts_.size() - 1);
  }

  // The id of a text that may never have been interned: 0 then.
  NameId find(std::string_view text) const {
    auto found = ids_.find(text);
    return found == ids_.end() ? 0 : found->second;
  }

  // Gives the memory for finding ids by text back; a name interned later gets a
  // new id even when its text was there before.
  void seal() { ids_ = {}; }

  std::string_view text(NameId id) const { return texts_[id]; }
  size_t size() const { return texts_.size(); }

 private:
  std::deque<std::string> texts_;  // a deque: the views in ids_ stay valid as it grows
  absl::flat_hash_map<std::string_view, NameId> ids_;
};

}  // namespace elmcart

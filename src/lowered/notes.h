// What comments say of the declarations below them: notes of a lowered file, made where it is read (program/load.cpp).
#pragma once

#include <string>
#include <string_view>
#include <utility>

#include "lowered/tree.h"

namespace elmcart {

// The note (its line and text) on the line before a declaration whose text begins so; null: there is none.
inline const std::pair<uint32_t, std::string>* noteAbove(const LoweredFile& file, NodeId declared, std::string_view begin) {
  if (file.notes.empty()) return nullptr;
  uint32_t line = file.lineOf(file[declared].span.begin);
  for (const auto& note : file.notes)
    if (note.first + 1 == line && note.second.starts_with(begin)) return &note;
  return nullptr;
}

}  // namespace elmcart

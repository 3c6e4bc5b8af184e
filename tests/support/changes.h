// What a move changes in a small program, as the lines that differ.
#pragma once

#include <filesystem>
#include <map>
#include <string>

#include "base/text.h"
#include "source/edit.h"
#include "source/walk.h"

namespace elmcart {

using Texts = std::map<std::string, std::string>;

inline Texts textsOf(const std::string& folder) {
  Texts out;
  for (const auto& entry : std::filesystem::directory_iterator(folder))
    if (entry.is_regular_file()) out[entry.path().filename().string()] = *readWhole(entry.path().string());
  return out;
}

// The changed lines alone, file by file: what stays is in the program itself.
inline std::string changesBetween(const Texts& before, const Texts& after) {
  std::string out;
  for (auto& [name, text] : after) {
    auto old = before.find(name);
    if (old == before.end() || old->second != text)
      for (const std::string& line : splitLines(unifiedDiff(name, old == before.end() ? "" : old->second, text, old == before.end(), 0)))
        if (line.compare(0, 5, "index") != 0 && line.compare(0, 4, "diff") != 0) out += line + "\n";
  }
  return out;
}

}  // namespace elmcart

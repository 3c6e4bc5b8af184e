// The lines of a text.
#pragma once

#include <string_view>

namespace elmcart {

// Where the line begins that holds the byte at `at`.
inline size_t lineBeginOf(std::string_view text, size_t at) {
  size_t end = at == 0 ? std::string_view::npos : text.rfind('\n', at - 1);
  return end == std::string_view::npos ? 0 : end + 1;
}

// What the text's lines end with, as its first line does.
inline std::string_view lineEndOf(std::string_view text) {
  size_t at = text.find('\n');
  return at != std::string_view::npos && at > 0 && text[at - 1] == '\r' ? "\r\n" : "\n";
}

}  // namespace elmcart

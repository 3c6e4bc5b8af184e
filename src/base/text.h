// Small helpers on text that several folders need.
#pragma once

#include <algorithm>
#include <cctype>
#include <string>
#include <string_view>
#include <vector>

namespace elmcart {

inline constexpr bool isWordByte(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_'; }
// All words in a text (names, numbers), with a space before each.
inline std::string wordsSpaced(std::string_view text) {
  std::string out;
  for (size_t at = 0, end; at < text.size(); at = end + 1) {
    end = at;
    while (end < text.size() && isWordByte(text[end])) ++end;
    if (end > at) out += " " + std::string(text.substr(at, end - at));
  }
  return out;
}
// FNV-1a, 64 bits: the same in every run and on every machine.
inline uint64_t stableHash(std::string_view text, uint64_t seed = 0xcbf29ce484222325u) {
  for (char c : text) seed = (seed ^ static_cast<unsigned char>(c)) * 0x100000001b3u;
  return seed;
}
// Of a set of names, in whatever order they come.
template <typename Names>
uint64_t stableHashOfAll(const Names& names, uint64_t seed) {
  uint64_t sum = seed;
  for (std::string_view name : names) sum += stableHash(name, seed) * 0x9e3779b97f4a7c15u;
  return sum;
}

// For hash tables of strings that are searched by views.
struct TextHash {
  using is_transparent = void;
  size_t operator()(std::string_view text) const { return std::hash<std::string_view>{}(text); }
};

inline constexpr bool isBlank(char c) { return c == ' ' || (c >= '\t' && c <= '\r'); }

inline std::string_view trim(std::string_view text) {
  while (!text.empty() && isBlank(text.front())) text.remove_prefix(1);
  while (!text.empty() && isBlank(text.back())) text.remove_suffix(1);
  return text;
}

inline std::string lowerCase(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = static_cast<char>(c + ((c >= 'A' && c <= 'Z') << 5));  // bytes beyond ASCII stay
  return out;
}

// The part of a qualified name behind its last "::".
inline std::string_view lastPart(std::string_view qualified) {
  size_t at = qualified.rfind("::");
  return at == std::string_view::npos ? qualified : qualified.substr(at + 2);
}

// The part of a qualified name before its last "::" (empty when there is none).
inline std::string_view scopePart(std::string_view qualified) {
  size_t at = qualified.rfind("::");
  return at == std::string_view::npos ? std::string_view{} : qualified.substr(0, at);
}

// The last lines of a text.
inline std::string lastLines(const std::string& text, size_t lines) {
  size_t at = text.size();
  for (size_t i = 0; i <= lines && at != std::string::npos && at > 0; ++i) at = text.rfind('\n', at - 1);
  return at == std::string::npos || at == 0 ? text : text.substr(at + 1);
}

inline std::string joinWith(const std::vector<std::string>& parts, std::string_view separator) {
  std::string out;
  for (size_t i = 0; i < parts.size(); ++i) {
    if (i) out += separator;
    out += parts[i];
  }
  return out;
}

inline std::vector<std::string> splitLines(std::string_view text) {
  std::vector<std::string> lines;
  while (!text.empty()) {
    size_t at = text.find('\n');
    lines.emplace_back(text.substr(0, at));
    if (at == std::string_view::npos) break;
    text.remove_prefix(at + 1);
  }
  return lines;
}

// "1 class", "3 classes": a number with its noun.
inline std::string counted(size_t n, std::string_view one, std::string_view many) {
  return std::to_string(n) + " " + std::string(n == 1 ? one : many);
}

// Edit distance (insert, delete, replace, swap of neighbours) for "did you mean".
inline size_t editDistance(std::string_view a, std::string_view b) {
  std::vector<std::vector<size_t>> d(a.size() + 1, std::vector<size_t>(b.size() + 1));
  for (size_t i = 0; i <= a.size(); ++i) d[i][0] = i;
  for (size_t j = 0; j <= b.size(); ++j) d[0][j] = j;
  for (size_t i = 1; i <= a.size(); ++i) {
    for (size_t j = 1; j <= b.size(); ++j) {
      d[i][j] = std::min({d[i - 1][j] + 1, d[i][j - 1] + 1, d[i - 1][j - 1] + (a[i - 1] != b[j - 1])});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]) d[i][j] = std::min(d[i][j], d[i - 2][j - 2] + 1);
    }
  }
  return d[a.size()][b.size()];
}

}  // namespace elmcart

#include "source/ignore.h"

#include "base/text.h"

namespace elmcart {
namespace {

// [a-z] and [!a-z] at pattern[at]; moves `at` behind the ']' when it matches.
bool matchClass(std::string_view pattern, size_t& at, char c) {
  size_t i = at + 1;
  bool negated = i < pattern.size() && (pattern[i] == '!' || pattern[i] == '^');
  if (negated) ++i;
  bool hit = false;
  for (size_t first = i; i < pattern.size() && (pattern[i] != ']' || i == first); ++i) {
    if (i + 2 < pattern.size() && pattern[i + 1] == '-' && pattern[i + 2] != ']') {
      hit |= c >= pattern[i] && c <= pattern[i + 2];
      i += 2;
    } else {
      hit |= c == pattern[i];
    }
  }
  if (i >= pattern.size()) return false;
  at = i + 1;
  return hit != negated;
}

}  // namespace

// Iterative, with one point to come back to for "*" and one for "**", so that
// no pattern costs more than pattern length times path length.
bool matchesGlob(std::string_view pattern, std::string_view path) {
  constexpr size_t kNone = std::string_view::npos;
  size_t p = 0, t = 0, starP = kNone, starT = 0, deepP = kNone, deepT = 0;
  while (t < path.size() || p < pattern.size()) {
    if (p < pattern.size()) {
      if (pattern.compare(p, 2, "**") == 0) {
        deepP = p;
        deepT = t;
        p += 2;
        if (p < pattern.size() && pattern[p] == '/') ++p;  // "**/x" also matches "x"
        starP = kNone;
        continue;
      }
      if (pattern[p] == '*') {
        starP = p++;
        starT = t;
        continue;
      }
      if (t < path.size()) {
        if (pattern[p] == '[' && path[t] != '/') {
          size_t after = p;
          if (matchClass(pattern, after, path[t])) {
            p = after;
            ++t;
            continue;
          }
        } else if (pattern[p] == '\\' && p + 1 < pattern.size() && pattern[p + 1] == path[t]) {
          p += 2;
          ++t;
          continue;
        } else if (pattern[p] == path[t] || (pattern[p] == '?' && path[t] != '/')) {
          ++p;
          ++t;
          continue;
        }
      }
    }
    if (starP != kNone && starT < path.size() && path[starT] != '/') {
      p = starP + 1;
      t = ++starT;
      continue;
    }
    if (deepP != kNone && deepT < path.size()) {
      bool slash = deepP + 2 < pattern.size() && pattern[deepP + 2] == '/';
      ++deepT;
      while (slash && deepT < path.size() && path[deepT - 1] != '/') ++deepT;
      if (slash && deepT >= path.size()) return false;
      p = deepP + 2 + (slash ? 1 : 0);
      t = deepT;
      starP = kNone;
      continue;
    }
    return false;
  }
  return true;
}

bool matchesAny(const std::vector<std::string>& patterns, std::string_view path) {
  for (const std::string& pattern : patterns)
    if (matchesGlob(pattern, path)) return true;
  return false;
}

void IgnoreRules::add(std::string_view text, std::string_view folder) {
  for (const std::string& line : splitLines(text)) {
    std::string_view pattern = line;
    while (!pattern.empty() && (pattern.back() == '\r' || (pattern.back() == ' ' && (pattern.size() < 2 || pattern[pattern.size() - 2] != '\\')))) pattern.remove_suffix(1);
    if (pattern.empty() || pattern[0] == '#') continue;
    Rule rule;
    rule.folder = folder;
    if (pattern[0] == '!') {
      rule.negated = true;
      pattern.remove_prefix(1);
    }
    if (!pattern.empty() && pattern.back() == '/') {
      rule.foldersOnly = true;
      pattern.remove_suffix(1);
    }
    rule.anchored = pattern.find('/') != std::string_view::npos;
    if (!pattern.empty() && pattern[0] == '/') pattern.remove_prefix(1);
    rule.pattern = pattern;
    if (!rule.pattern.empty()) rules_.push_back(std::move(rule));
  }
}

bool IgnoreRules::ignored(std::string_view path, bool isFolder) const {
  for (auto rule = rules_.rbegin(); rule != rules_.rend(); ++rule) {
    if (rule->foldersOnly && !isFolder) continue;
    std::string_view below = path;
    if (!rule->folder.empty()) {
      if (path.size() <= rule->folder.size() || path.substr(0, rule->folder.size()) != rule->folder || path[rule->folder.size()] != '/') continue;
      below = path.substr(rule->folder.size() + 1);
    }
    if (!rule->anchored) {
      size_t slash = below.rfind('/');
      if (slash != std::string_view::npos) below = below.substr(slash + 1);
    }
    if (matchesGlob(rule->pattern, below)) return !rule->negated;
  }
  return false;
}

}  // namespace elmcart

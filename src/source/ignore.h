// Ignore rules in the form of .gitignore files: one pattern a line, the last
// that matches decides, "!" takes back, a trailing "/" means folders only.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace elmcart {

class IgnoreRules {
 public:
  // Adds the rules of one file; `folder` is the folder the file lies in,
  // relative to the root ("" for the root itself).
  void add(std::string_view text, std::string_view folder);
  // `path` relative to the root, '/' between parts.
  bool ignored(std::string_view path, bool isFolder) const;
  size_t size() const { return rules_.size(); }
  void shrinkTo(size_t count) { rules_.resize(count); }

 private:
  struct Rule {
    std::string folder;   // the rule holds below it
    std::string pattern;
    bool negated = false, foldersOnly = false, anchored = false;
  };
  std::vector<Rule> rules_;
};

// Does `path` match `pattern`, with "*" and "?" inside one part and "**" across parts?
bool matchesGlob(std::string_view pattern, std::string_view path);
bool matchesAny(const std::vector<std::string>& patterns, std::string_view path);

}  // namespace elmcart

// Ignore rules in the form of .gitignore files: one pattern a line, the last
// that matches decides, "!" takes back, a trailing "/" means folders only.
#pragma once

#include <initializer_list>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace re2 {
class RE2;
}

namespace elmcart {

// Patterns of paths: "*", "?" and "[a-z]" inside one part, "**" across parts.
class Globs {
 public:
  Globs() = default;
  Globs(std::vector<std::string> patterns);
  Globs(std::initializer_list<const char*> patterns) : Globs(std::vector<std::string>(patterns.begin(), patterns.end())) {}
  // Does one of them match the whole path?
  bool match(std::string_view path) const;
  const std::vector<std::string>& patterns() const { return patterns_; }
  bool empty() const { return patterns_.empty(); }

 private:
  std::vector<std::string> patterns_;
  std::shared_ptr<const re2::RE2> expression_;
};

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
    Globs pattern;
    bool negated = false, foldersOnly = false, anchored = false;
  };
  std::vector<Rule> rules_;
};

}  // namespace elmcart

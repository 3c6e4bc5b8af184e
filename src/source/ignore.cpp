#include "source/ignore.h"

#include <re2/re2.h>

#include "base/text.h"

namespace elmcart {
namespace {

// [a-z] and [!a-z] at pattern[at], as an expression; moves `at` behind the ']'. Empty: no class begins here.
std::string classAt(std::string_view pattern, size_t& at) {
  size_t i = at + 1;
  bool negated = i < pattern.size() && (pattern[i] == '!' || pattern[i] == '^');
  if (negated) ++i;
  size_t end = pattern.find(']', i + 1);
  if (end == std::string_view::npos) return "";
  std::string out = negated ? "[^/" : "[";
  for (; i < end; ++i) {
    if (pattern[i] == '\\' || pattern[i] == '[' || pattern[i] == ']' || pattern[i] == '^') out += '\\';
    out += pattern[i];
  }
  at = end + 1;
  return out + "]";
}

// The glob as a regular expression.
std::string expressionOf(std::string_view glob) {
  std::string out;
  for (size_t at = 0; at < glob.size();) {
    std::string set;
    if (glob.substr(at, 3) == "**/") {  // also nothing: "**/x" matches "x"
      out += "(?:.*/)?";
      at += 3;
    } else if (glob.substr(at, 2) == "**") {
      out += ".*";
      at += 2;
    } else if (glob[at] == '*') {
      out += "[^/]*";
      ++at;
    } else if (glob[at] == '?') {
      out += "[^/]";
      ++at;
    } else if (glob[at] == '[' && !(set = classAt(glob, at)).empty()) {
      out += set;
    } else {
      if (glob[at] == '\\' && at + 1 < glob.size()) ++at;
      out += re2::RE2::QuoteMeta(re2::StringPiece(glob.data() + at, 1));
      ++at;
    }
  }
  return out;
}

}  // namespace

// One expression for all, matched in time that is linear in the path, whatever the patterns.
Globs::Globs(std::vector<std::string> patterns) : patterns_(std::move(patterns)) {
  if (patterns_.empty()) return;
  std::string all;
  for (const std::string& pattern : patterns_) all += (all.empty() ? "" : "|") + expressionOf(pattern);
  re2::RE2::Options options(re2::RE2::Latin1);  // a path may hold any bytes
  options.set_log_errors(false);
  options.set_dot_nl(true);
  expression_ = std::make_shared<re2::RE2>(all, options);
}

bool Globs::match(std::string_view path) const {
  return expression_ && expression_->ok() && re2::RE2::FullMatch(re2::StringPiece(path.data(), path.size()), *expression_);
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
    if (pattern.empty()) continue;
    rule.pattern = Globs({std::string(pattern)});
    rules_.push_back(std::move(rule));
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
    if (rule->pattern.match(below)) return !rule->negated;
  }
  return false;
}

}  // namespace elmcart

#include "languages/shared/directives.h"

#include <algorithm>

#include "base/text.h"
#include "languages/shared/rephrase.h"

namespace elmcart {
namespace {

// What the braces of a head that bears one of these hold are declarations.
bool declaresType(std::string_view head) {
  for (std::string_view word : {"class", "struct", "union", "enum", "interface", "namespace", "extension", "protocol", "record", "actor", "extern", "@interface", "@implementation"})
    for (size_t at = head.find(word); at != std::string_view::npos; at = head.find(word, at + 1)) {
      size_t end = at + word.size();
      if ((at == 0 || !isWordByte(head[at - 1])) && (end == head.size() || !isWordByte(head[end]))) return true;
    }
  return false;
}

// The word of a directive line, or nothing.
std::string_view directiveOf(std::string_view line) {
  if (line.empty() || line[0] != '#') return {};
  std::string_view word = trim(line.substr(1));
  return word.substr(0, std::min(word.find_first_of(" \t("), word.size()));
}

bool partsBranches(std::string_view word) { return word == "else" || word == "elif" || word == "elseif"; }

struct Level {
  bool off = false;   // is this branch left out?
  bool dead = false;  // is the first one never built?
};

}  // namespace

size_t branchEnd(std::string_view text, size_t at) {
  for (int depth = 0; at < text.size();) {
    size_t end = std::min(text.find('\n', at), text.size());
    std::string_view word = directiveOf(trim(text.substr(at, end - at)));
    if (word == "if" || word == "ifdef" || word == "ifndef") ++depth;
    if (depth == 0 && (partsBranches(word) || word == "endif")) return at;
    if (word == "endif") --depth;
    at = end + 1;
  }
  return text.size();
}

bool BodyScope::holds(std::string_view text, size_t at) {
  std::vector<bool> code = codeBytes(text.substr(at_, at - at_), true);
  for (size_t i = at_; i < at; ++i) {
    char c = text[i];
    if (!code[i - at_]) continue;
    if (c == '{') {
      bool body = !open_.empty() && open_.back();
      std::string_view head = trim(head_);
      open_.push_back(body || (!head.empty() && head.back() != '=' && !declaresType(head)));
    } else if (c == '}' && !open_.empty()) {
      open_.pop_back();
    }
    if (!isBlank(c)) last_ = c;
    if (c == '{' || c == '}' || c == ';') head_.clear();
    else if (head_.size() < 400) head_ += c == '\n' ? ' ' : c;
  }
  at_ = at;
  return !open_.empty() && open_.back();
}

bool isWholeStatements(std::string_view branch, bool semicolons) {
  std::vector<bool> code = codeBytes(branch, true);
  int depth = 0;
  char first = 0, last = 0;
  size_t firstAt = 0;
  for (size_t i = 0; i < branch.size(); ++i) {
    char c = branch[i];
    if (!code[i] || isBlank(c)) {
      if (!code[i] && !isBlank(c) && c != '/' && last != 0) last = c == '"' ? c : last;
      continue;
    }
    if (c == '(' || c == '[' || c == '{') ++depth;
    if ((c == ')' || c == ']' || c == '}') && --depth < 0) return false;
    if (!first) first = c, firstAt = i;
    last = c;
  }
  if (!first || depth != 0) return false;
  bool ends = semicolons ? last == ';' || last == '}' : std::string_view(",([{=+-*/&|.<:?").find(last) == std::string_view::npos;
  size_t end = firstAt;
  while (end < branch.size() && isWordByte(branch[end])) ++end;
  std::string_view word = branch.substr(firstAt, end - firstAt);
  return ends && std::string_view(".,)?:&|=/<>").find(first) == std::string_view::npos && word != "else" && word != "catch" && word != "finally" && word != "while";
}

bool mayBeReadToo(BodyScope& scope, std::string_view blanked, std::string_view text, size_t line, size_t from, bool semicolons) {
  if (!scope.holds(blanked, line)) return false;
  bool begins = std::string_view(",([=+-*/&|.<?").find(scope.last()) == std::string_view::npos;
  return begins && isWholeStatements(text.substr(from, branchEnd(text, from) - from), semicolons);
}

LoweredFile sameFile(const LoweredFile& file) {
  LoweredFile out;
  out.path = file.path;
  out.language = file.language;
  out.textSize = file.textSize;
  out.lineStarts = file.lineStarts;
  out.notes = file.notes;
  out.generated = file.generated;
  return out;
}

WithoutDirectives withoutDirectives(std::string_view text, bool others, bool semicolons) {
  WithoutDirectives out{std::string(text), {}};
  if (text.find('#') == std::string_view::npos) return out;
  std::vector<Level> levels;
  BodyScope scope;
  auto leftOut = [&] { return std::any_of(levels.begin(), levels.end(), [](const Level& level) { return level.off; }); };
  bool inText = false;  // of a string over several lines, where a line may begin with anything
  for (size_t at = 0; at < text.size();) {
    size_t end = text.find('\n', at);
    if (end == std::string_view::npos) end = text.size();
    std::string_view line = trim(text.substr(at, end - at));
    bool blank = leftOut();
    if (std::string_view word = inText ? std::string_view{} : directiveOf(line); !word.empty()) {
      if (word == "if") {
        std::string_view condition = trim(line.substr(line.find("if") + 2));
        bool dead = condition == "false" || condition == "0";
        levels.push_back({dead, dead});
        blank = true;
      } else if (partsBranches(word)) {
        blank = true;
        if (!levels.empty()) {
          Level level = levels.back();
          levels.pop_back();
          size_t next = std::min(end + 1, text.size());
          bool read = level.dead || (others && !leftOut() && mayBeReadToo(scope, out.text, text, at, next, semicolons));
          if (read && !level.dead) out.others.push_back({static_cast<uint32_t>(next), static_cast<uint32_t>(branchEnd(text, next))});
          levels.push_back({!read, false});
        }
      } else if (word == "endif") {
        blank = true;
        if (!levels.empty()) levels.pop_back();
      } else if (word == "region" || word == "endregion" || word == "pragma" || word == "nullable" || word == "warning" || word == "error" || word == "define" || word == "undef" || word == "line") {
        blank = true;
      }
    }
    size_t quotes = 0;
    for (size_t q = line.find("\"\"\""); q != std::string_view::npos; q = line.find("\"\"\"", q + 3)) ++quotes;
    if (quotes % 2 == 1) inText = !inText;
    if (blank)
      for (size_t i = at; i < end; ++i)
        if (out.text[i] != '\r') out.text[i] = ' ';
    at = end + 1;
  }
  return out;
}

void blankWords(std::string& text, std::string_view words) {
  for (size_t at = text.find(words); at != std::string::npos; at = text.find(words, at + words.size())) {
    bool startsInWord = at > 0 && isWordByte(text[at - 1]);
    if (!startsInWord) text.replace(at, words.size(), words.size(), ' ');
  }
}

}  // namespace elmcart

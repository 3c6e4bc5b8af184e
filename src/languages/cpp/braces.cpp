#include "languages/cpp/braces.h"

#include <algorithm>

#include "base/text.h"

namespace elmcart::cpp {
namespace {

// Does the text hold the word, and not as a part of another?
bool holdsWord(std::string_view text, std::string_view word) {
  for (size_t at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1)) {
    bool begins = at == 0 || !isWordByte(text[at - 1]), ends = at + word.size() == text.size() || !isWordByte(text[at + word.size()]);
    if (begins && ends) return true;
  }
  return false;
}

// What stands before a brace tells what it opens: [namespace.def], [dcl.link], [class.pre], [dcl.fct.def.general], [stmt.pre].
bool opensBody(std::string_view before) {
  if (holdsWord(before, "namespace") || holdsWord(before, "extern")) return false;
  return before.find('(') != std::string_view::npos || holdsWord(before, "class") || holdsWord(before, "struct") || holdsWord(before, "union") || holdsWord(before, "else") || holdsWord(before, "do") || holdsWord(before, "try");
}

// Where the text literal or character that begins there ends.
size_t endOfLiteral(std::string_view text, size_t at) {
  if (text[at] == '"' && at > 0 && text[at - 1] == 'R') {  // [lex.string]: R"mark( … )mark"
    size_t open = text.find('(', at);
    if (open != std::string_view::npos && open - at <= 17) {
      std::string close = ")" + std::string(text.substr(at + 1, open - at - 1)) + "\"";
      size_t end = text.find(close, open);
      return end == std::string_view::npos ? text.size() : end + close.size();
    }
  }
  for (size_t n = at + 1; n < text.size() && text[n] != '\n'; ++n) {
    if (text[n] == '\\') ++n;
    else if (text[n] == text[at]) return n + 1;
  }
  return at + 1;
}

}  // namespace

Braces::Braces(std::string_view text) {
  std::vector<bool> open;  // of each brace: does it open a body?
  uint32_t bodies = 0;
  std::string before;      // what stands before a brace, without comments
  for (size_t at = 0; at < text.size(); ++at) {
    char c = text[at];
    bool separates = c == '\'' && at > 0 && isWordByte(text[at - 1]);  // 1'000
    if (text.substr(at, 2) == "//") {
      at = std::min(text.find('\n', at), text.size() - 1);
    } else if (text.substr(at, 2) == "/*") {
      size_t end = text.find("*/", at + 2);
      at = end == std::string_view::npos ? text.size() : end + 1;
    } else if (c == '"' || (c == '\'' && !separates)) {
      at = endOfLiteral(text, at) - 1;
    } else if (c == '{') {
      open.push_back(opensBody(before));
      if (open.back()) changes_.push_back({static_cast<uint32_t>(at + 1), ++bodies});
      before.clear();
    } else if (c == '}') {
      if (!open.empty()) {
        if (open.back()) changes_.push_back({static_cast<uint32_t>(at), --bodies});
        open.pop_back();
      }
      before.clear();
    } else if (c == ';') {
      before.clear();
    } else {
      before += c;
    }
  }
}

bool Braces::insideBody(uint32_t at) const {
  auto after = std::upper_bound(changes_.begin(), changes_.end(), at, [](uint32_t place, const Change& change) { return place < change.at; });
  return after != changes_.begin() && std::prev(after)->bodies > 0;
}

}  // namespace elmcart::cpp

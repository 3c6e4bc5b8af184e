#include "languages/objc/rephrase.h"

#include <algorithm>

#include "base/text.h"
#include "languages/cpp/prepare.h"
#include "languages/shared/rephrase.h"

namespace elmcart {
namespace {

// "typedef NS_ENUM(type, Name) {" as "enum Name {", as long as before.
void plainEnums(std::string& text) {
  for (std::string_view word : {"NS_ENUM(", "NS_OPTIONS(", "NS_CLOSED_ENUM(", "NS_ERROR_ENUM("})
    for (size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
      size_t close = text.find(')', at), line = text.find('\n', at);
      if (close == std::string::npos || close > line) continue;
      size_t comma = text.rfind(',', close);
      if (comma == std::string::npos || comma < at) continue;
      size_t start = at;
      while (start > 0 && isBlank(text[start - 1])) --start;
      if (start >= 7 && text.compare(start - 7, 7, "typedef") == 0) std::fill(text.begin() + static_cast<long>(start) - 7, text.begin() + static_cast<long>(start), ' ');
      std::fill(text.begin() + static_cast<long>(at), text.begin() + static_cast<long>(comma) + 1, ' ');
      text.replace(at, 4, "enum");
      text[close] = ' ';
    }
}

bool isMacroName(std::string_view word) {
  bool upper = false;
  for (char c : word) {
    if (c >= 'a' && c <= 'z') return false;
    upper |= c >= 'A' && c <= 'Z';
  }
  return upper && word.size() > 2;
}

size_t nextCode(const std::string& text, const std::vector<bool>& code, size_t at) {
  while (at < text.size() && (isBlank(text[at]) || !code[at])) ++at;
  return at;
}

// Statements as arguments of a macro: MACRO(a = b; c = d;, "text"). A comma parts them as well.
void partByCommas(std::string& text, const std::vector<bool>& code, size_t open, size_t close) {
  int depth = 0;
  for (size_t at = open + 1; at < close; ++at) {
    if (!code[at]) continue;
    char c = text[at];
    depth += c == '(' || c == '[' || c == '{' ? 1 : c == ')' || c == ']' || c == '}' ? -1 : 0;
    if (c != ';' || depth != 0) continue;
    size_t next = nextCode(text, code, at + 1);
    text[at] = next < text.size() && (text[next] == ',' || text[next] == ')') ? ' ' : ',';
  }
}

// MACRO(selector) and MACRO(name, selector), before a body, as "-(void)selector". False: it is none.
bool asMethod(std::string& text, const std::vector<bool>& code, size_t at, size_t open, size_t close) {
  size_t from = open + 1;
  int depth = 0;
  for (size_t i = open + 1; i + 1 < close; ++i) {
    if (!code[i]) continue;
    depth += text[i] == '(' || text[i] == '[' ? 1 : text[i] == ')' || text[i] == ']' ? -1 : 0;
    if (text[i] == ',' && depth == 0) from = i + 1;
  }
  from = nextCode(text, code, from);
  size_t end = from;
  while (end < close && isWordByte(text[end])) ++end;
  size_t after = nextCode(text, code, end);
  std::string_view head = "-(void)";
  if (end == from || from - at < head.size() || (text[after] != ':' && after + 1 != close)) return false;
  for (size_t i = at; i < from; ++i)
    if (text[i] != '\n' && text[i] != '\r') text[i] = ' ';
  text.replace(at, head.size(), head);
  text[close - 1] = ' ';
  return true;
}

// A call of a macro, by a name in capitals.
void plainMacros(std::string& text, const std::vector<bool>& code) {
  bool inClass = false;
  for (size_t at = 0; at < text.size();) {
    if (!code[at]) {
      ++at;
      continue;
    }
    if (text[at] == '@') {
      size_t end = at + 1;
      while (end < text.size() && isWordByte(text[end])) ++end;
      std::string_view word(text.data() + at, end - at);
      if (word == "@implementation" || word == "@interface" || word == "@protocol") inClass = true;
      if (word == "@end") inClass = false;
      at = std::max(end, at + 1);
      continue;
    }
    if (!isWordByte(text[at])) {
      ++at;
      continue;
    }
    size_t end = at;
    while (end < text.size() && isWordByte(text[end])) ++end;
    size_t open = end;
    while (open < text.size() && text[open] == ' ') ++open;
    bool lineBegins = at == 0 || text[at - 1] == '\n';
    size_t close = open < text.size() && text[open] == '(' && isMacroName(std::string_view(text).substr(at, end - at)) ? closingParenthesis(text, open) : std::string::npos;
    if (close == std::string::npos) {
      at = end;
      continue;
    }
    size_t next = nextCode(text, code, close);
    if (inClass && lineBegins && next < text.size() && text[next] != '{' && text[next] != ';' && text.substr(open, close - open).find('\n') != std::string::npos) {
      // Among the methods, over several lines, and without a body: it makes one that nobody sees here.
      for (size_t i = at; i < close; ++i)
        if (text[i] != '\n' && text[i] != '\r') text[i] = ' ';
    } else if (inClass && lineBegins && (text[nextCode(text, code, open + 1)] == '-' || text[nextCode(text, code, open + 1)] == '+') && next < text.size() && text[next] != '{') {
      std::fill(text.begin() + static_cast<long>(at), text.begin() + static_cast<long>(close), ' ');
    } else if (inClass && lineBegins && next < text.size() && text[next] == '{' && asMethod(text, code, at, open, close)) {
      // MACRO(name, open:(T)where then:(U)done) { … }: a method with a body.
    } else {
      partByCommas(text, code, open, close - 1);
      // As a statement without its semicolon, before a message: MACRO(…) [object message];
      if (close < text.size() && text[close] == '\n' && next < text.size() && text[next] == '[') text[close] = ';';
    }
    at = close;
  }
}

// (void)f(…); the cast says that the result is not wanted.
void dropVoidCasts(std::string& text, const std::vector<bool>& code) {
  for (size_t at = text.find("(void)"); at != std::string::npos; at = text.find("(void)", at + 1)) {
    if (!code[at] || at + 6 >= text.size() || !isWordByte(text[at + 6])) continue;
    size_t before = at;
    while (before > 0 && isBlank(text[before - 1])) --before;
    size_t word = at + 6;
    while (word < text.size() && isWordByte(text[word])) ++word;
    if (before > 0 && (text[before - 1] == ';' || text[before - 1] == '{' || text[before - 1] == '}' || text[before - 1] == '/') && word < text.size() && text[word] == '(') text.replace(at, 6, 6, ' ');
  }
}

// for (auto &one : list), as C++ walks over a list: for (id one in list).
void rangeLoops(std::string& text, const std::vector<bool>& code) {
  for (size_t at = text.find("for"); at != std::string::npos; at = text.find("for", at + 3)) {
    if (!code[at] || (at > 0 && isWordByte(text[at - 1]))) continue;
    size_t open = at + 3;
    while (open < text.size() && text[open] == ' ') ++open;
    size_t close = open < text.size() && text[open] == '(' ? closingParenthesis(text, open) : std::string::npos;
    if (close == std::string::npos || text.substr(open, close - open).find('\n') != std::string::npos) continue;
    size_t colon = std::string::npos;
    int depth = 0;
    for (size_t i = open + 1; i + 1 < close && colon == std::string::npos; ++i) {
      depth += text[i] == '(' || text[i] == '[' || text[i] == '<' ? 1 : text[i] == ')' || text[i] == ']' || text[i] == '>' ? -1 : 0;
      if (text[i] == ';' || text[i] == '?') break;
      if (text[i] == ':' && text[i + 1] == ':') ++i;
      else if (text[i] == ':' && depth == 0) colon = i;
    }
    if (colon == std::string::npos) continue;
    std::string declared(trim(std::string_view(text).substr(open + 1, colon - open - 1))), list(trim(std::string_view(text).substr(colon + 1, close - colon - 2)));
    size_t end = declared.find_last_not_of(" ]");
    size_t begin = end == std::string::npos ? end : end + 1;
    while (begin != std::string::npos && begin > 0 && isWordByte(declared[begin - 1])) --begin;
    if (begin == std::string::npos || begin > end) continue;
    std::string name = declared.substr(begin, end + 1 - begin);
    bool plain = declared.find_first_of("&[<:") == std::string::npos && !declared.starts_with("const") && !declared.starts_with("auto");
    for (const std::string& written : {plain ? "(" + declared + " in " + list + ")" : std::string{}, "(id " + name + " in " + list + ")"}) {
      if (written.empty() || written.size() > close - at - 3) continue;
      text.replace(at + 3, close - at - 3, std::string(close - at - 3 - written.size(), ' ') + written);
      break;
    }
  }
}

}  // namespace

void rephraseObjc(std::string& text) {
  plainEnums(text);
  std::vector<bool> code = codeBytes(text, true);
  plainMacros(text, code);
  dropVoidCasts(text, code);
  rangeLoops(text, code);
  rephraseCpp(text, code);
}

}  // namespace elmcart

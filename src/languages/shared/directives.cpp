#include "languages/shared/directives.h"

#include <vector>

#include "base/text.h"

namespace elmcart {

std::string withoutDirectives(std::string_view text) {
  std::string out(text);
  if (text.find('#') == std::string_view::npos) return out;
  std::vector<bool> off;  // by level: in a branch that is left out?
  auto leftOut = [&] { return std::find(off.begin(), off.end(), true) != off.end(); };
  bool inText = false;  // of a string over several lines, where a line may begin with anything
  for (size_t at = 0; at < text.size();) {
    size_t end = text.find('\n', at);
    if (end == std::string_view::npos) end = text.size();
    std::string_view line = trim(text.substr(at, end - at));
    bool blank = leftOut();
    if (!inText && !line.empty() && line[0] == '#') {
      std::string_view word = trim(line.substr(1));
      word = word.substr(0, std::min(word.find_first_of(" \t("), word.size()));
      if (word == "if") off.push_back(false), blank = true;
      else if (word == "elseif" || word == "elif" || word == "else") blank = true, off.empty() ? void() : void(off.back() = true);
      else if (word == "endif") blank = true, off.empty() ? void() : off.pop_back();
      else if (word == "region" || word == "endregion" || word == "pragma" || word == "nullable" || word == "warning" || word == "error" || word == "define" || word == "undef" || word == "line") blank = true;
    }
    size_t quotes = 0;
    for (size_t q = line.find("\"\"\""); q != std::string_view::npos; q = line.find("\"\"\"", q + 3)) ++quotes;
    if (quotes % 2 == 1) inText = !inText;
    if (blank)
      for (size_t i = at; i < end; ++i)
        if (out[i] != '\r') out[i] = ' ';
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

#include "languages/shared/rephrase.h"

namespace elmcart {

std::vector<bool> codeBytes(std::string_view text, bool singleQuotes) {
  std::vector<bool> code(text.size(), true);
  auto skip = [&](size_t from, size_t to) {
    for (size_t i = from; i < to && i < text.size(); ++i) code[i] = false;
    return to;
  };
  for (size_t at = 0; at < text.size();) {
    if (text[at] != '/' && text[at] != '"' && text[at] != '\'') {
      ++at;
      continue;
    }
    std::string_view rest = text.substr(at);
    if (rest.substr(0, 2) == "//") {
      at = skip(at, std::min(text.find('\n', at), text.size()));
    } else if (rest.substr(0, 2) == "/*") {
      int depth = 0;
      size_t end = at;
      do {
        std::string_view two = text.substr(end, 2);
        depth += two == "/*" ? 1 : two == "*/" ? -1 : 0;
        end += two == "/*" || two == "*/" ? 2 : 1;
      } while (depth > 0 && end < text.size());
      at = skip(at, end);
    } else if (rest.substr(0, 3) == "\"\"\"") {
      size_t end = text.find("\"\"\"", at + 3);
      at = skip(at, end == std::string_view::npos ? text.size() : end + 3);
    } else if (text[at] == '"' || (singleQuotes && text[at] == '\'')) {
      size_t end = at + 1;
      while (end < text.size() && text[end] != text[at] && text[end] != '\n') end += text[end] == '\\' ? 2 : 1;
      at = skip(at, end + 1);
    } else {
      ++at;
    }
  }
  return code;
}

}  // namespace elmcart

#include "languages/javascript/typed.h"

#include "base/text.h"

namespace elmcart {
namespace {

// `: component(…)` as a type says nothing that is asked for here: any.
void rephraseComponentTypes(std::string_view text, Rephrased& out) {
  constexpr std::string_view kWord = "component(";
  for (size_t at = text.find(kWord); at != std::string_view::npos; at = text.find(kWord, at + 1)) {
    std::string_view before = trim(text.substr(0, at));
    if (before.empty() || std::string_view(":=<|,").find(before.back()) == std::string_view::npos) continue;
    size_t end = at + kWord.size(), depth = 1;
    for (; end < text.size() && depth > 0; ++end) depth += (text[end] == '(') - (text[end] == ')');
    if (depth > 0) continue;
    for (size_t i = at; i < end; ++i)
      if (text[i] != '\n') out.put(i, i - at < 3 ? "any"[i - at] : ' ');
  }
}

}  // namespace

bool isTyped(std::string_view text) {
  std::string_view head = trim(text.substr(0, 2000));
  if (head.substr(0, 2) == "#!") head = trim(head.substr(std::min(head.find('\n'), head.size())));
  size_t end = head.substr(0, 2) == "/*" ? head.find("*/") : head.substr(0, 2) == "//" ? head.find('\n') : 0;
  return head.substr(0, end).find("@flow") != std::string_view::npos;
}

// What that grammar does not know of them: `component Name(…) {` is a function,
// `opaque type` a type.
Rephrased rephraseTyped(std::string_view text) {
  Rephrased out(text);
  rephraseComponentTypes(text, out);
  for (size_t line = 0; line < text.size(); line = std::min(text.find('\n', line), text.size()) + 1) {
    size_t at = line;
    while (at < text.size() && text[at] == ' ') ++at;
    for (std::string_view word : {"export ", "default ", "declare "})
      if (text.substr(at, word.size()) == word) at += word.size();
    if (text.substr(at, 12) == "opaque type ") out.blank(at, 6);
    if (text.substr(at, 10) != "component " || at + 10 >= text.size() || !isWordByte(text[at + 10])) continue;
    for (size_t i = 0; i < 9; ++i) out.put(at + i, "function "[i]);
  }
  return out;
}

}  // namespace elmcart

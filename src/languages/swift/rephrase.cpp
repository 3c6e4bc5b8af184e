// What the grammar does not know of Swift, in words that it knows.
#include "languages/swift/rephrase.h"

#include "base/text.h"

namespace elmcart {
namespace {

char before(std::string_view text, size_t at) {
  while (at > 0 && (text[at - 1] == ' ' || text[at - 1] == '\n')) --at;
  return at > 0 ? text[at - 1] : ' ';
}

// A name in backquotes may hold anything but a line end: what is no word becomes "_".
void plainNames(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (size_t at = text.find('`'); at != std::string_view::npos; at = text.find('`', at + 1)) {
    size_t end = text.find_first_of("`\n", at + 1);
    if (end == std::string_view::npos) return;
    if (text[end] == '`' && code[at])
      for (size_t i = at + 1; i < end; ++i)
        if (!isWordByte(text[i])) out.put(i, '_');
    at = end;
  }
}

// A word before a value or type that says who owns it: `consume x`, `sending T`.
void dropWord(std::string_view text, std::string_view word, std::string_view mayStandBefore, const std::vector<bool>& code, Rephrased& out) {
  for (size_t at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1)) {
    size_t after = at + word.size();
    bool whole = (at == 0 || !isWordByte(text[at - 1])) && after + 1 < text.size() && text[after] == ' ' && isWordByte(text[after + 1]);
    if (!code[at] || !whole) continue;
    std::string_view ahead = trim(text.substr(at < 12 ? 0 : at - 12, at < 12 ? at : 12));
    bool keyword = (ahead.size() >= 6 && (ahead.substr(ahead.size() - 6) == "return" || ahead.substr(ahead.size() - 6) == "switch"));
    if (keyword || mayStandBefore.find(before(text, at)) != std::string_view::npos) out.blank(at, word.size());
  }
}

// What goes on in the next line: an operator between two values, or the name of a further block
// of the same call.
void joinLines(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (size_t at = text.find('\n'); at != std::string_view::npos; at = text.find('\n', at + 1)) {
    size_t next = at + 1;
    while (next < text.size() && text[next] == ' ') ++next;
    if (next >= text.size() || !code[next]) continue;
    std::string_view rest = text.substr(next);
    bool operates = rest.starts_with("?? ") || rest.starts_with("* ");
    size_t word = next;
    while (word < text.size() && isWordByte(text[word])) ++word;
    bool block = word > next && text.substr(word, 3) == ": {" && before(text, at) == '}';
    if (operates || block) out.put(at, ' ');
  }
}

}  // namespace

Rephrased rephraseSwift(std::string_view text) {
  Rephrased out(text);
  std::vector<bool> code = codeBytes(text, false);
  plainNames(text, code, out);
  dropWord(text, "consume", "=(,[:", code, out);
  dropWord(text, "copy", "=(,[:", code, out);
  dropWord(text, "sending", ">:(", code, out);
  joinLines(text, code, out);
  // if let one = try? ask() {: the grammar takes the block for one that is given to the call.
  for (size_t at = text.find("= try?"); at != std::string_view::npos; at = text.find("= try?", at + 1)) {
    std::string_view line = trim(text.substr(at, std::min(text.find('\n', at), text.size()) - at));
    if (code[at] && line.ends_with("{")) out.blank(at + 2, 4);
  }
  // ~Type.self: an operator before a type; the grammar knows it before values only.
  for (size_t at = text.find('~'); at != std::string_view::npos; at = text.find('~', at + 1))
    if (code[at] && at + 1 < text.size() && text[at + 1] >= 'A' && text[at + 1] <= 'Z' && std::string_view("[(,=").find(before(text, at)) != std::string_view::npos) out.blank(at, 1);
  // A semicolon ends a statement as a line end does, which the grammar knows everywhere.
  for (size_t at = text.find(';'); at != std::string_view::npos; at = text.find(';', at + 1))
    if (code[at]) out.put(at, '\n');
  // #expect(throws: …) { … }: the grammar has no block behind a macro.
  for (std::string_view macro : {"#expect(throws", "#require(throws"})
    for (size_t at = text.find(macro); at != std::string_view::npos; at = text.find(macro, at + 1))
      if (code[at]) out.blank(at, 1);
  return out;
}

}  // namespace elmcart

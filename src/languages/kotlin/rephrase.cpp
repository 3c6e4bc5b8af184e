// What the grammar does not know of Kotlin, in words that it knows.
#include "languages/kotlin/rephrase.h"

#include "base/text.h"

namespace elmcart {
namespace {

std::string_view lineBefore(std::string_view text, size_t end) {
  size_t start = text.rfind('\n', end == 0 ? 0 : end - 1);
  start = start == std::string_view::npos || end == 0 ? 0 : start + 1;
  return trim(text.substr(start, end - start));
}

// `class Name` or `class Name<T>`, with or without modifiers, and nothing after it.
bool isBareClassHead(std::string_view line) {
  size_t at = line.rfind("class ");
  if (at == std::string_view::npos || (at > 0 && isWordByte(line[at - 1]))) return false;
  std::string_view rest = trim(line.substr(at + 6));
  size_t end = 0;
  while (end < rest.size() && isWordByte(rest[end])) ++end;
  if (end == 0) return false;
  rest = trim(rest.substr(end));
  return rest.empty() || (rest.front() == '<' && rest.back() == '>' && rest.find_first_of("({") == std::string_view::npos);
}

// The primary constructor may begin on a line of its own; the grammar ends the
// class at the line before. The line ends between them become blanks.
void joinConstructors(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  constexpr std::string_view kWord = "constructor";
  for (size_t at = text.find(kWord); at != std::string_view::npos; at = text.find(kWord, at + 1)) {
    size_t after = at + kWord.size();
    if (!code[at] || (at > 0 && isWordByte(text[at - 1])) || after >= text.size() || (text[after] != '(' && text[after] != ' ')) continue;
    // Back over modifiers and marks, each perhaps on a line of its own.
    size_t head = at;
    for (int lines = 0; lines < 6; ++lines) {
      std::string_view before = lineBefore(text, head);
      size_t lineStart = text.rfind('\n', head == 0 ? 0 : head - 1);
      bool first = lineStart == std::string_view::npos;
      if (isBareClassHead(before)) {
        for (size_t i = head; i < at; ++i)
          if (text[i] == '\n' || text[i] == '\r') out.put(i, ' ');
        break;
      }
      bool words = true;
      for (char c : before) words &= isWordByte(c) || c == ' ' || c == '@' || c == '.' || c == ':' || c == '(' || c == ')' || c == '"';
      bool marks = before.empty() || before.front() == '@' || before == "private" || before == "internal" || before == "protected" || before == "public";
      if (first || !words || !marks) break;
      head = lineStart;
      if (head > 0 && text[head - 1] == '\r') --head;
    }
  }
}

// f(…).member = value: the grammar assigns to no member of a call's result. It is
// told "f(…).member ||value", the operator that binds least, and the lowering
// reads "=" in the original. Type arguments before the call are lost.
void assignThroughCalls(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (size_t line = 0; line < text.size();) {
    size_t end = std::min(text.find('\n', line), text.size()), at = line;
    while (at < end && isBlank(text[at])) ++at;
    size_t start = at, lastClose = 0, open = 0, arguments = 0, argumentsEnd = 0;
    int depth = 0;
    for (; at < end && code[at]; ++at) {
      char c = text[at];
      if (c == '(' || c == '[') {
        if (depth++ == 0 && at > start && text[at - 1] == '>' && open > start) arguments = open, argumentsEnd = at;
      } else if (c == ')' || c == ']') {
        if (--depth == 0 && c == ')') lastClose = at;
      } else if (depth == 0 && c == '<') {
        open = at;
      } else if (depth == 0 && !isWordByte(c) && c != '.' && c != '?' && c != '!' && c != '>') {
        break;
      }
    }
    std::string_view tail = lastClose ? text.substr(lastClose + 1, at - lastClose - 1) : std::string_view{};
    bool member = tail.find('.') != std::string_view::npos && !tail.empty() && isWordByte(tail.back());
    // The value may stand on the next line.
    if (depth == 0 && member && at + 2 < text.size() && text[at] == ' ' && text[at + 1] == '=' && isBlank(text[at + 2])) {
      out.put(at + 1, '|');
      out.put(at + 2, '|');
      if (arguments) out.blank(arguments, argumentsEnd - arguments);
      // What begins with a bracket is no argument of the line before.
      char before = line > 1 ? text[line - 2] : '{';
      if (text[start] == '(' && !isBlank(before) && before != '{') out.put(line - 1, ';');
    }
    line = end + 1;
  }
}

// !isOpen: the grammar reads the operator !is where a name begins so. A blank
// before it changes places with the "!".
void partNots(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (std::string_view word : {"!is", "!in"})
    for (size_t at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1))
      if (at > 0 && code[at] && text[at - 1] == ' ' && at + 3 < text.size() && isWordByte(text[at + 3])) {
        out.put(at - 1, '!');
        out.put(at, ' ');
      }
}

// Lines that the grammar reads as if they went on with the one before, or as if
// they did not.
void partLines(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (size_t line = text.find('\n'); line != std::string_view::npos; line = text.find('\n', line + 1)) {
    size_t at = line + 1;
    while (at < text.size() && (text[at] == ' ' || text[at] == '\t')) ++at;
    if (at == line + 1 || at >= text.size() || !code[at]) continue;
    std::string_view rest = text.substr(at, std::min(text.find('\n', at), text.size()) - at);
    size_t before = line;
    while (before > 0 && (isBlank(text[before - 1]) || !code[before - 1])) --before;
    char last = before > 0 ? text[before - 1] : '{';
    // An entry of a when: no end of the if before it, no `false in …`.
    bool entry = rest.starts_with("else ->") || ((rest.starts_with("in ") || rest.starts_with("!in ")) && rest.find("->") != std::string_view::npos);
    if (entry && (isWordByte(last) || std::string_view(")]}\"'").find(last) != std::string_view::npos)) out.put(at - 1, ';');
    // x                 val x: T
    //     as? T             by lazy { … }
    if (rest.starts_with("as? ") || rest.starts_with("as ") || rest.starts_with("by ")) out.put(line, ' ');
    // A name that begins as a word does which goes on with the statement before.
    if (rest.starts_with("else") && rest.size() > 4 && isWordByte(rest[4])) out.put(at, '_');
  }
}

// Names that begin with a letter or word of the language's: they are told with
// another first letter, and the lowering reads the names in the original.
void renameWords(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  constexpr std::string_view kReturn = "-> return e";
  for (size_t at = text.find(kReturn); at != std::string_view::npos; at = text.find(kReturn, at + 1))
    if (code[at]) out.put(at + kReturn.size() - 1, '_');
  constexpr std::string_view kSuspend = "fun suspend(";
  for (size_t at = text.find(kSuspend); at != std::string_view::npos; at = text.find(kSuspend, at + 1))
    if (code[at]) out.put(at + 4, '_');
  for (std::string_view word : {"annotation", "external"})
    for (size_t at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1)) {
      std::string_view after = text.substr(at + word.size(), 3);
      bool value = after.starts_with('.') || after.starts_with("?.") || after.starts_with("!!") || after == " = ";
      if (code[at] && value && at > 0 && !isWordByte(text[at - 1]) && text[at - 1] != '.' && text[at - 1] != '@') out.put(at, '_');
    }
}

// object : T by other { … }: the grammar knows no delegate of an object without a
// name. What it delegates to is lost.
void dropObjectDelegates(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (size_t at = text.find("object"); at != std::string_view::npos; at = text.find("object", at + 1)) {
    size_t colon = at + 6;
    while (colon < text.size() && text[colon] == ' ') ++colon;
    if (!code[at] || colon >= text.size() || text[colon] != ':' || (at > 0 && isWordByte(text[at - 1]))) continue;
    size_t end = std::min(text.find_first_of("{\n", colon), text.size()), by = text.substr(0, end).find(" by ", colon);
    if (by != std::string_view::npos && end < text.size() && text[end] == '{') out.blank(by, end - by);
  }
}

// class Book(…) : T by other { … }: the grammar takes the class's body for an argument of what it delegates to, which is lost.
void dropClassDelegates(std::string_view text, const std::vector<bool>& code, Rephrased& out) {
  for (size_t by = text.find(" by "); by != std::string_view::npos; by = text.find(" by ", by + 1)) {
    size_t end = by + 4;
    while (end < text.size() && (isWordByte(text[end]) || text[end] == '.')) ++end;
    size_t brace = text.find_first_not_of(' ', end);
    // That of a property stands behind val or var, or `by lazy {`: on a line that declares one.
    std::string_view before = lineBefore(text, by + 1);
    bool property = before.find("val ") != std::string_view::npos || before.find("var ") != std::string_view::npos;
    if (code[by] && brace != std::string_view::npos && text[brace] == '{' && end > by + 4 && !property && text.substr(by + 4, end - by - 4) != "lazy") out.blank(by, end - by);
  }
}

}  // namespace

Rephrased rephraseKotlin(std::string_view text) {
  Rephrased out(text);
  for (size_t at = text.find("fun interface "); at != std::string_view::npos; at = text.find("fun interface ", at + 1)) out.blank(at, 3);
  bool openEnded = text.find("..<") != std::string_view::npos, constructors = text.find("constructor") != std::string_view::npos, calls = text.find(").") != std::string_view::npos;
  bool nots = text.find("!i") != std::string_view::npos, delegates = text.find(" by ") != std::string_view::npos;
  bool lines = false;
  for (std::string_view word : {" as", " else", " in ", "!in ", "-> return e", "fun suspend(", "annotation", "external"}) lines |= text.find(word) != std::string_view::npos;
  if (!openEnded && !constructors && !calls && !nots && !delegates && !lines) return out;
  std::vector<bool> code = codeBytes(text, true);
  // A range without its end; the operator is one that the grammar knows as `..`.
  for (size_t at = text.find("..<"); at != std::string_view::npos; at = text.find("..<", at + 1))
    if (code[at]) out.blank(at + 2, 1);
  joinConstructors(text, code, out);
  assignThroughCalls(text, code, out);
  partNots(text, code, out);
  partLines(text, code, out);
  renameWords(text, code, out);
  dropObjectDelegates(text, code, out);
  dropClassDelegates(text, code, out);
  return out;
}

}  // namespace elmcart

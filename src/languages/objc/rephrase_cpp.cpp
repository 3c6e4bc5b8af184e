// What Objective-C++ takes from C++, in words of the Objective-C grammar: scopes and type arguments
// before names go, functions without a name become blocks.
#include <algorithm>

#include "base/text.h"
#include "languages/objc/rephrase.h"

namespace elmcart {
namespace {

class PlainCpp {
 public:
  PlainCpp(std::string& text, const std::vector<bool>& code) : text_(text), code_(code) {}

  void run() {
    forEachWord([&](size_t at, size_t end) { keyword(at, end); });
    lambdas();
    forEachWord([&](size_t, size_t end) { typeArguments(end); });
    for (size_t at = text_.find("::"); at != std::string::npos; at = text_.find("::", at + 2)) scope(at);
    forEachWord([&](size_t at, size_t end) { reference(at, end); });
    forEachWord([&](size_t at, size_t end) { deduced(at, end); });
    braces();
  }

 private:
  void blank(size_t from, size_t to) {
    for (size_t i = from; i < to; ++i)
      if (text_[i] != '\n' && text_[i] != '\r') text_[i] = ' ';
  }
  bool follows(size_t at, std::string_view word) const { return std::string_view(text_).substr(at, word.size()) == word; }
  size_t skipBlanks(size_t at) const {
    while (at < text_.size() && (isBlank(text_[at]) || text_[at] == '\n')) ++at;
    return at;
  }
  char before(size_t at) const {
    while (at > 0 && (isBlank(text_[at - 1]) || text_[at - 1] == '\n')) --at;
    return at == 0 ? '\n' : text_[at - 1];
  }
  std::string_view wordBefore(size_t at) const {
    while (at > 0 && isBlank(text_[at - 1])) --at;
    size_t end = at;
    while (at > 0 && isWordByte(text_[at - 1])) --at;
    return std::string_view(text_).substr(at, end - at);
  }
  // Behind the bracket that closes the one at `open`; npos where none does.
  size_t closing(size_t open, char opening, char close) const {
    int depth = 0;
    for (size_t i = open; i < text_.size(); ++i) {
      if (!code_[i]) continue;
      depth += text_[i] == opening ? 1 : text_[i] == close ? -1 : 0;
      if (depth == 0) return i + 1;
      if (opening == '<' && (text_[i] == ';' || text_[i] == '{' || text_[i] == '&' || text_[i] == '|')) break;
    }
    return std::string::npos;
  }
  template <typename Visit>
  void forEachWord(Visit visit) {
    for (size_t at = 0; at < text_.size();) {
      if (!code_[at] || !isWordByte(text_[at])) {
        ++at;
        continue;
      }
      size_t end = at;
      while (end < text_.size() && isWordByte(text_[end])) ++end;
      visit(at, end);
      at = end;
    }
  }

  void keyword(size_t at, size_t end) {
    std::string_view word = std::string_view(text_).substr(at, end - at);
    size_t next = skipBlanks(end);
    bool named = next < text_.size() && isWordByte(text_[next]);
    char last = before(at);
    bool begins = last == '\n' || last == ';' || last == '{' || last == '}';
    if (word == "using" && named) {
      size_t stop = text_.find(';', at);
      if (stop != std::string::npos) blank(at, stop + 1);
    } else if (word == "namespace" && (named || text_[next] == '{')) {
      size_t open = text_.find_first_of("{;", at);
      if (open == std::string::npos) return;
      if (text_[open] == ';') return blank(at, open + 1);  // another name for one
      size_t close = closing(open, '{', '}');
      if (close == std::string::npos) return;
      blank(at, open + 1);
      text_[close - 1] = ' ';
    } else if (word == "template" && text_[next] == '<') {
      size_t close = closing(next, '<', '>');
      if (close != std::string::npos) blank(at, close);
    } else if (word == "new" && (named || text_[next] == '(') && last != '[' && last != ']' && last != '.') {
      blank(at, end);  // [Desk new] stays
    } else if ((word == "throw" && last != '@') || (word == "delete" && begins)) {
      blank(at, end);
      if (word == "delete" && text_[next] == '[' && text_[skipBlanks(next + 1)] == ']') blank(next, skipBlanks(next + 1) + 1);
    } else if (word == "class" && wordBefore(at) == "enum") {
      blank(at, end);
    } else if (word == "constexpr" || word == "noexcept") {
      blank(at, end);
    }
  }

  // [=](int count) -> bool { … }, [self] { … }
  void lambdas() {
    for (size_t at = text_.find('['); at != std::string::npos; at = text_.find('[', at + 1)) {
      char last = before(at);
      if (!code_[at] || (last != '(' && last != ',' && last != '=' && wordBefore(at) != "return")) continue;
      size_t close = text_.find(']', at);
      if (close == std::string::npos || !std::all_of(text_.begin() + static_cast<long>(at) + 1, text_.begin() + static_cast<long>(close), [](char c) { return isWordByte(c) || c == '=' || c == '&' || c == ',' || c == ' ' || c == '*'; })) continue;
      size_t next = skipBlanks(close + 1), body = next;
      if (text_[next] == '(') {
        body = closing(next, '(', ')');
        if (body == std::string::npos) continue;
      }
      size_t open = text_.find('{', body);
      if (open == std::string::npos || (text_[next] != '(' && open != next)) continue;
      std::string_view between = trim(std::string_view(text_).substr(body, open - body));
      if (!between.empty() && !between.starts_with("->") && !between.starts_with("mutable")) continue;
      blank(body, open);
      blank(at, close + 1);
      text_[at] = '^';
    }
  }

  // make<Desk>(…), Table<Desk>::first
  void typeArguments(size_t end) {
    if (end >= text_.size() || text_[end] != '<') return;
    size_t close = closing(end, '<', '>');
    if (close == std::string::npos || close >= text_.size()) return;
    size_t name = end;
    while (name > 0 && (isWordByte(text_[name - 1]) || text_[name - 1] == ':')) --name;
    bool qualified = std::string_view(text_).substr(name, end - name).find("::") != std::string_view::npos;
    if (text_[close] == '(' || qualified) blank(end, close);
    else if (follows(close, "::")) std::fill(text_.begin() + static_cast<long>(end), text_.begin() + static_cast<long>(close), '_');
  }

  // Desk::open(…) is asked of Desk; desks::Desk is Desk.
  void scope(size_t at) {
    if (!code_[at] || at + 2 >= text_.size() || (!isWordByte(text_[at + 2]) && text_[at + 2] != '~')) return;
    size_t name = at, end = at + 2 + (text_[at + 2] == '~');
    while (name > 0 && isWordByte(text_[name - 1])) --name;
    while (end < text_.size() && isWordByte(text_[end])) ++end;
    bool ofClass = name < at && text_[name] >= 'A' && text_[name] <= 'Z' && end < text_.size() && text_[end] == '(' && text_[at + 2] >= 'a' && text_[at + 2] <= 'z';
    size_t own = at + 2 + (text_[at + 2] == '~');
    bool constructs = name < at && text_.compare(name, at - name, text_, own, end - own) == 0 && end < text_.size() && text_[end] == '(';
    if (constructs) initialisers(end);
    if (ofClass && before(name) != ':' && !isWordByte(before(name)) && before(name) != '*') text_.replace(at, 2, "->");
    else blank(name, constructs ? own : at + 2);
    // A function that yields nothing.
    if (constructs && own - name >= 3) text_.replace(name, 2, "id");
  }

  // Desk::Desk(…) : member(…) { … }
  void initialisers(size_t end) {
    size_t open = skipBlanks(end), close = open < text_.size() && text_[open] == '(' ? closing(open, '(', ')') : std::string::npos;
    size_t colon = close == std::string::npos ? close : skipBlanks(close);
    if (colon == std::string::npos || colon >= text_.size() || text_[colon] != ':') return;
    size_t at = colon;
    do {
      at = skipBlanks(at + 1);
      while (at < text_.size() && (isWordByte(text_[at]) || text_[at] == ':')) ++at;
      at = skipBlanks(at);
      if (at >= text_.size() || (text_[at] != '(' && text_[at] != '{')) return;
      at = closing(at, text_[at], text_[at] == '(' ? ')' : '}');
      if (at == std::string::npos) return;
      at = skipBlanks(at);
    } while (at < text_.size() && text_[at] == ',');
    if (at < text_.size() && text_[at] == '{') blank(colon, at);
  }

  // auto &one, const Desk &one
  void reference(size_t at, size_t end) {
    size_t next = end;
    while (next < text_.size() && text_[next] == ' ') ++next;
    if (next >= text_.size() || text_[next] != '&' || !code_[next]) return;
    std::string_view word = std::string_view(text_).substr(at, end - at);
    size_t after = text_[next + 1] == '&' ? next + 2 : next + 1;
    if (word != "auto" && word != "const" && wordBefore(at) != "const") return;
    if (after < text_.size() && (isWordByte(text_[after]) || text_[after] == ' ' || text_[after] == ')' || text_[after] == ',')) blank(next, after);
  }

  // auto one = …; in a condition it is only set.
  void deduced(size_t at, size_t end) {
    if (std::string_view(text_).substr(at, end - at) != "auto") return;
    blank(at, end);
    std::string_view around = wordBefore(at);
    size_t open = at;
    while (open > 0 && text_[open - 1] == ' ') --open;
    if (around == "const") {
      while (open > 0 && isWordByte(text_[open - 1])) --open;
      while (open > 0 && text_[open - 1] == ' ') --open;
    }
    if (open > 0 && text_[open - 1] == '(' && wordBefore(open - 1) == "if") {
      size_t name = end;
      while (name < text_.size() && (text_[name] == ' ' || text_[name] == '*')) ++name;
      blank(open, name);
    } else {
      text_.replace(at, 2, "id");
    }
  }

  // one = {…}; where it was declared before
  bool isAssigned(size_t at) const {
    if (before(at) != '=') return false;
    while (text_[at] != '=') --at;
    while (at > 0 && isBlank(text_[at - 1])) --at;
    size_t name = at;
    while (name > 0 && isWordByte(text_[name - 1])) --name;
    char last = name > 0 && (text_[name - 1] == '.' || text_[name - 1] == '>') ? '.' : before(name);
    return name < at && (last == '.' || last == ';' || last == '{' || last == '}');
  }

  // Desk{3}, f({.count = 3}), return {a, b}: as if in round brackets.
  void braces() {
    for (size_t at = text_.find('{'); at != std::string::npos; at = text_.find('{', at + 1)) {
      if (!code_[at]) continue;
      size_t close = closing(at, '{', '}');
      if (close == std::string::npos || close >= text_.size()) continue;
      std::string_view inside = std::string_view(text_).substr(at + 1, close - at - 2);
      if (inside.find(';') != std::string_view::npos) continue;
      char last = before(at), next = text_[skipBlanks(close)];
      std::string_view word = wordBefore(at);
      bool joined = at > 0 && isWordByte(text_[at - 1]) && !word.empty() && word != "do" && word != "else" && word != "try" && (!trim(inside).empty() || (next == ')' && word[0] >= 'A' && word[0] <= 'Z')) && wordBefore(at - word.size()) != "enum" && (next == ';' || next == ',' || next == ')' || next == ']' || next == '.');
      bool argument = (last == '(' || last == ',' || word == "return") && (next == ')' || next == ',' || next == ';');
      bool sent = last == ':' && (next == ']' || isWordByte(next));
      bool named = !word.empty() && word[0] >= 'A' && word[0] <= 'Z' && at > 0 && text_[at - 1] == ' ' && before(at - 1 - word.size()) == '=' && next == ';';
      if (!joined && !argument && !sent && !named && !isAssigned(at)) continue;
      bool empty = trim(inside).empty();
      text_[at] = empty ? '0' : '(';
      text_[close - 1] = empty ? ' ' : ')';
      for (size_t i = at + 1; i + 1 < close; ++i) {  // .count =
        if (text_[i] != '.' || (before(i) != '(' && before(i) != ',')) continue;
        size_t end = i + 1;
        while (end < close && isWordByte(text_[end])) ++end;
        end = skipBlanks(end);
        if (text_[end] == '=') blank(i, end + 1);
      }
    }
  }

  std::string& text_;
  const std::vector<bool>& code_;
};

}  // namespace

void rephraseCpp(std::string& text, const std::vector<bool>& code) {
  // Nothing of it stands in a file without scopes or lists of captures.
  if (text.find("::") != std::string::npos || text.find("namespace") != std::string::npos || text.find("auto ") != std::string::npos) PlainCpp(text, code).run();
}

}  // namespace elmcart

#include "languages/cpp/prepare.h"

#include <algorithm>
#include <cctype>
#include <cstring>
#include <optional>

#include "base/parallel.h"
#include "base/text.h"
#include "languages/cpp/conditions.h"
#include "languages/shared/directives.h"

namespace elmcart {
namespace {

bool isDigit(char c) { return c >= '0' && c <= '9'; }
bool isWordStart(char c) { return isWordByte(c) && !isDigit(c); }

size_t skipQuoted(std::string_view text, size_t at) {
  char quote = text[at++];
  while (at < text.size() && text[at] != quote && text[at] != '\n') at += text[at] == '\\' && at + 1 < text.size() ? 2 : 1;
  return at < text.size() && text[at] == quote ? at + 1 : std::min(at, text.size());
}

// R"delimiter( … )delimiter" with the opening quote at `at`.
size_t skipRawString(std::string_view text, size_t at) {
  size_t open = text.find('(', at);
  if (open == std::string_view::npos || open - at > 17) return skipQuoted(text, at);
  std::string close = ")" + std::string(text.substr(at + 1, open - at - 1)) + "\"";
  size_t end = text.find(close, open);
  return end == std::string_view::npos ? text.size() : end + close.size();
}

bool isRawPrefix(std::string_view word) {
  return word == "R" || word == "LR" || word == "uR" || word == "UR" || word == "u8R";
}

// The end of a directive line: the first newline that no backslash continues,
// with comments over several lines counted in.
size_t directiveEnd(std::string_view text, size_t at) {
  while (at < text.size() && text[at] != '\n') {
    if (text[at] == '\\' && at + 1 < text.size()) {
      at += text[at + 1] == '\r' && at + 2 < text.size() ? 3 : 2;
    } else if (text.compare(at, 2, "/*") == 0) {
      at = skipLiteral(text, at);
    } else if (text.compare(at, 2, "//") == 0) {
      at = skipLiteral(text, at);
    } else {
      ++at;
    }
  }
  return std::min(at, text.size());
}

struct Definition {
  std::string name;
  bool hasParameters = false;
  std::string parameter;  // the only one
  std::string body;
};

std::string stripComments(std::string_view text) {
  std::string out;
  for (size_t at = 0; at < text.size();) {
    if (text.compare(at, 2, "//") == 0 || text.compare(at, 2, "/*") == 0) {
      at = skipLiteral(text, at);
      out += ' ';
    } else if (text[at] == '\\' && at + 1 < text.size() && (text[at + 1] == '\n' || text[at + 1] == '\r')) {
      ++at;
    } else {
      out += text[at++];
    }
  }
  return out;
}

std::optional<Definition> readDefine(std::string_view line) {
  size_t at = line.find("define");
  if (at == std::string_view::npos) return std::nullopt;
  at += 6;
  while (at < line.size() && (line[at] == ' ' || line[at] == '\t')) ++at;
  size_t end = wordEnd(line, at);
  if (end == at) return std::nullopt;
  Definition out;
  out.name = line.substr(at, end - at);
  if (end < line.size() && line[end] == '(') {
    out.hasParameters = true;
    size_t close = closingParenthesis(line, end);
    if (close == std::string_view::npos) return std::nullopt;
    std::string_view parameters = trim(line.substr(end + 1, close - end - 2));
    if (!parameters.empty() && wordEnd(parameters, 0) == parameters.size()) out.parameter = parameters;
    end = close;
  }
  out.body = std::string(trim(stripComments(line.substr(end))));
  return out;
}

size_t byteOrderMark(std::string_view text) { return text.substr(0, 3) == "\xEF\xBB\xBF" ? 3 : 0; }

// Calls `visit(line)` for each preprocessor line, without its newline.
template <typename Visit>
void forEachDirective(std::string_view text, Visit visit) {
  bool lineStart = true;
  for (size_t at = byteOrderMark(text); at < text.size();) {
    char c = text[at];
    if (c == '\n') {
      lineStart = true;
      ++at;
    } else if (isBlank(c)) {
      ++at;
    } else if (c == '#' && lineStart) {
      size_t end = directiveEnd(text, at);
      visit(text.substr(at, end - at));
      at = end;
    } else {
      bool comment = c == '/' && at + 1 < text.size() && (text[at + 1] == '/' || text[at + 1] == '*');
      size_t after = skipLiteral(text, at);
      if (!comment) lineStart = false;
      if (after > at) at = after;
      else if (isWordStart(c)) {
        size_t end = wordEnd(text, at);
        at = end < text.size() && text[end] == '"' && isRawPrefix(text.substr(at, end - at)) ? skipRawString(text, end) : end;
      } else {
        ++at;
      }
    }
  }
}

// True when an expansion adds nothing that the grammar must see: attributes,
// specifiers, other such macros.
bool isIgnorable(std::string_view body, const MacroLore& lore) {
  body = trim(body);
  while (!body.empty()) {
    static constexpr std::string_view kSpecifiers[] = {"inline", "__inline", "__inline__", "__forceinline", "noexcept", "__cdecl", "__stdcall", "__fastcall", "__restrict", "__restrict__", "final", "override", "register", "volatile", "throw()", "extern \"C\" {", "extern \"C\"{", "extern \"C\"", "}", "static", "constexpr", "__extension__", "explicit", "thread_local", "nothrow"};
    bool matched = false;
    if (body.substr(0, 2) == "[[") {
      size_t close = body.find("]]");
      if (close == std::string_view::npos) return false;
      body.remove_prefix(close + 2);
      matched = true;
    }
    size_t end = wordEnd(body, 0);
    std::string_view word = body.substr(0, end);
    if (!matched && (word == "__attribute__" || word == "__attribute" || word == "__declspec" || word == "alignas" || word == "_Pragma" || word == "__pragma" || word == "__asm__")) {
      size_t open = body.find('(');
      size_t close = open == std::string_view::npos ? open : closingParenthesis(body, open);
      if (close == std::string_view::npos) return false;
      body.remove_prefix(close);
      matched = true;
    }
    if (!matched && !word.empty()) {
      if (auto known = lore.blank.find(word); known != lore.blank.end()) {
        body.remove_prefix(end);
        body = trim(body);
        if (known->second && !body.empty() && body[0] == '(') {
          size_t close = closingParenthesis(body, 0);
          if (close == std::string_view::npos) return false;
          body.remove_prefix(close);
        }
        matched = true;
      }
    }
    for (size_t i = 0; !matched && i < std::size(kSpecifiers); ++i) {
      std::string_view specifier = kSpecifiers[i];
      if (body.substr(0, specifier.size()) != specifier) continue;
      if (isWordByte(specifier.back()) && body.size() > specifier.size() && isWordByte(body[specifier.size()])) continue;
      body.remove_prefix(specifier.size());
      matched = true;
    }
    if (!matched) return false;
    body = trim(body);
  }
  return true;
}

// The specifier that matters among those that a macro stands for.
std::string_view specifierIn(std::string_view body) {
  std::string_view found;
  if (body.find("declspec(thread)") != std::string_view::npos) return "thread_local";
  for (size_t at = 0; at < body.size();) {
    size_t end = wordEnd(body, at);
    std::string_view word = body.substr(at, end - at);
    if (word == "thread_local" || word == "__thread" || word == "_Thread_local") return "thread_local";
    if (word == "extern" && body.find('{') == std::string_view::npos) found = "extern";
    at = std::max(end, at + 1);
  }
  return found;
}

// The function that a macro's body calls without arguments, and nothing else: (*harbour::Gate::instance()). Empty: none.
std::string_view calledAlone(std::string_view body) {
  while (!body.empty() && (body.front() == '(' || body.front() == '*' || isBlank(body.front()) || body.starts_with("::"))) {
    if (body.front() == '(') {
      if (body.back() != ')' || body.size() < 2) return {};
      body.remove_suffix(1);
    }
    body.remove_prefix(body.starts_with("::") ? 2 : 1);
  }
  if (!body.ends_with("()")) return {};
  body.remove_suffix(2);
  for (size_t at = 0; at < body.size();) {
    size_t end = wordEnd(body, at);
    if (end == at || (body[at] >= '0' && body[at] <= '9')) return {};
    if (end == body.size()) return body;
    if (body.compare(end, 2, "::") != 0) return {};
    at = end + 2;
  }
  return {};
}

// What stands before the parameter that a macro ends with: thread_local for `thread_local type`. Nothing: it ends with something else.
std::optional<std::string_view> beforeParameter(const Definition& definition) {
  std::string_view body = definition.body;
  if (definition.parameter.empty() || !body.ends_with(definition.parameter) || body.size() == definition.parameter.size()) return std::nullopt;
  body.remove_suffix(definition.parameter.size());
  return isBlank(body.back()) ? std::optional(trim(body)) : std::nullopt;
}

// The operator that a macro is another name for.
std::string_view operatorIn(std::string_view body) {
  constexpr std::string_view kOperators[] = {"delete", "new"};
  const auto* found = std::find(std::begin(kOperators), std::end(kOperators), trim(body));
  return found == std::end(kOperators) ? std::string_view{} : *found;
}

// Words of widespread libraries' headers that are macros there and cannot be
// learnt from the tree; value: what to write instead (spaces when empty).
struct ForeignMacro {
  std::string_view name;
  bool withArguments;
  std::string_view instead;
};
constexpr ForeignMacro kForeignMacros[] = {
    {"Q_OBJECT", false, ""}, {"Q_GADGET", false, ""}, {"Q_SIGNALS", false, "public"}, {"signals", false, "public"}, {"slots", false, ""}, {"emit", false, ""},
    {"Q_SLOTS", false, ""}, {"Q_EMIT", false, ""}, {"Q_INVOKABLE", false, ""}, {"Q_DECL_OVERRIDE", false, ""},
    {"Q_PROPERTY", true, ""}, {"Q_ENUMS", true, ""}, {"Q_ENUM", true, ""}, {"Q_FLAGS", true, ""}, {"Q_FLAG", true, ""},
    {"Q_DISABLE_MOVE", true, ""}, {"Q_ENUM_NS", true, ""}, {"Q_NAMESPACE", false, ""}, {"Q_FALLTHROUGH", true, ""}, {"Q_DECLARE_TR_FUNCTIONS", true, ""}, {"Q_MOC_INCLUDE", true, ""}, {"QT_BEGIN_NAMESPACE", false, ""}, {"QT_END_NAMESPACE", false, ""}, {"Q_DECLARE_FLAGS", true, ""}, {"Q_DECLARE_METATYPE", true, ""}, {"Q_INTERFACES", true, ""},
    {"Q_DECLARE_OPERATORS_FOR_FLAGS", true, ""}, {"Q_CLASSINFO", true, ""}, {"Q_UNUSED", true, ""}, {"Q_DECLARE_PRIVATE", true, ""},
    {"Q_DECLARE_PUBLIC", true, ""}, {"Q_DECL_EXPORT", false, ""}, {"Q_DECL_IMPORT", false, ""}, {"Q_REQUIRED_RESULT", false, ""},
    {"__attribute__", true, ""}, {"__declspec", true, ""}, {"__extension__", false, ""}, {"__restrict", false, ""},
    {"__restrict__", false, ""}, {"__inline", false, ""}, {"__inline__", false, ""}, {"__forceinline", false, ""},
    {"__cdecl", false, ""}, {"__stdcall", false, ""}, {"WINAPI", false, ""}, {"APIENTRY", false, ""}, {"CALLBACK", false, ""},
    {"G_BEGIN_DECLS", false, ""}, {"G_END_DECLS", false, ""}, {"__BEGIN_DECLS", false, ""}, {"__END_DECLS", false, ""},
    {"G_GNUC_UNUSED", false, ""}, {"wxOVERRIDE", false, ""}, {"DECLARE_EVENT_TABLE", true, ""}, {"wxDECLARE_EVENT_TABLE", true, ""},
    {"G_GNUC_PRINTF", true, ""}, {"G_GNUC_CONST", false, ""}, {"G_GNUC_PURE", false, ""}, {"SDLCALL", false, ""}, {"_Noreturn", false, ""},
    {"FOUNDATION_EXPORT", false, "extern"}, {"FOUNDATION_EXTERN", false, "extern"}, {"UIKIT_EXTERN", false, "extern"}, {"APPKIT_EXTERN", false, "extern"}, {"CF_EXPORT", false, "extern"}, {"OBJC_EXTERN", false, "extern"}, {"OBJC_EXPORT", false, "extern"}, {"G_MODULE_EXPORT", false, ""}, {"JNIEXPORT", false, ""}, {"JNICALL", false, ""},
};

const ForeignMacro* foreignMacro(std::string_view word) {
  static const absl::flat_hash_map<std::string_view, const ForeignMacro*, TextHash> kByName = [] {
    absl::flat_hash_map<std::string_view, const ForeignMacro*, TextHash> out;
    for (const ForeignMacro& macro : kForeignMacros) out.emplace(macro.name, &macro);
    return out;
  }();
  auto found = kByName.find(word);
  return found == kByName.end() ? nullptr : found->second;
}

// [macro.names]/2: no program may define these. A header that does so for the sake
// of another compiler would take them out of the whole tree.
bool isReserved(std::string_view word) {
  static constexpr std::string_view kWords[] = {"const", "volatile", "signed", "unsigned", "void", "int", "char", "long", "short", "float", "double", "bool", "auto", "class", "struct",
                                                "public", "private", "protected", "virtual", "static", "typename", "template", "operator", "new", "delete", "throw", "if", "for", "while", "return"};
  return std::find(std::begin(kWords), std::end(kWords), word) != std::end(kWords);
}

// The first byte from `at` on that is not blank, or the end.
size_t pastBlanks(std::string_view text, size_t at) {
  while (at < text.size() && isBlank(text[at])) ++at;
  return at;
}

// `class DEPRECATED OFFICE_API Berth final : …` or `… {`: the end of the words between the
// keyword that ends at `at` and the class's name, which are macros whose definitions
// were not read; 0 when there are none.
size_t exportMacroEnd(std::string_view text, size_t at, bool isClass, size_t* begin) {
  std::vector<std::pair<size_t, size_t>> words;
  constexpr size_t kMost = 4;
  size_t after = pastBlanks(text, at);
  while (words.size() < kMost && after < text.size() && isWordStart(text[after])) {
    size_t end = wordEnd(text, after);
    std::string_view word = text.substr(after, end - after);
    if (word == "alignas" || (word == "final" && words.size() < 2)) return 0;
    if (word == "final") {
      after = pastBlanks(text, end);
      break;
    }
    words.emplace_back(after, end);
    while (text.substr(end, 2) == "::" && end + 2 < text.size() && isWordStart(text[end + 2])) end = wordEnd(text, end + 2);
    after = pastBlanks(text, end);
  }
  if (words.size() < 2 || after >= text.size()) return 0;
  if (text[after] == '<') after = pastBlanks(text, text.find('>', after) == std::string_view::npos ? text.size() : text.find('>', after) + 1);  // of one that is filled in
  bool based = after < text.size() && text[after] == ':' && text.substr(after, 2) != "::";
  if (after >= text.size() || (text[after] != '{' && !based)) return 0;
  // `struct Berth berth {…}` makes a variable: of a structure only what is written like a macro, or in a way that names
  // are kept for ([lex.name]/3), counts. No variable has bases.
  std::string_view macro = text.substr(words[0].first, words[0].second - words[0].first);
  bool upper = std::none_of(macro.begin(), macro.end(), [](char c) { return c >= 'a' && c <= 'z'; });
  bool kept = macro.size() > 1 && macro[0] == '_' && (macro[1] == '_' || (macro[1] >= 'A' && macro[1] <= 'Z'));
  if (!isClass && !based && !upper && !kept && macro.find("_API") == std::string_view::npos && macro.find("_EXPORT") == std::string_view::npos) return 0;
  *begin = words[0].first;
  return words[words.size() - 2].second;
}

struct Branching {
  bool parentActive;
  bool active;
  bool taken;  // some branch was taken already
};

}  // namespace

size_t skipLiteral(std::string_view text, size_t at) {
  char c = text[at];
  if (c == '/' && at + 1 < text.size()) {
    if (text[at + 1] == '*') {
      size_t end = text.find("*/", at + 2);
      return end == std::string_view::npos ? text.size() : end + 2;
    }
    if (text[at + 1] == '/') {
      size_t end = at;
      while (end < text.size() && text[end] != '\n') end += text[end] == '\\' && end + 1 < text.size() ? 2 : 1;
      return std::min(end, text.size());
    }
  }
  if (c == '"' || c == '\'') return skipQuoted(text, at);
  if (isDigit(c)) {
    size_t end = at;
    while (end < text.size() && (isWordByte(text[end]) || text[end] == '.' ||
                                 (text[end] == '\'' && end + 1 < text.size() && isWordByte(text[end + 1]))))
      ++end;
    return end;
  }
  return at;
}

size_t wordEnd(std::string_view text, size_t at) {
  while (at < text.size() && isWordByte(text[at])) ++at;
  return at;
}

size_t closingParenthesis(std::string_view text, size_t open) {
  int depth = 0;
  for (size_t at = open; at < text.size();) {
    size_t after = skipLiteral(text, at);
    if (after > at) {
      at = after;
      continue;
    }
    if (text[at] == '(') ++depth;
    if (text[at] == ')' && --depth == 0) return at + 1;
    ++at;
  }
  return std::string_view::npos;
}

std::unique_ptr<Language::TreeLore> learnMacros(std::span<const std::string_view> texts, unsigned jobs) {
  auto lore = std::make_unique<MacroLore>();
  // Those of widespread libraries, whose headers are not in the tree.
  for (const char* name : {"DISALLOW_COPY_AND_ASSIGN", "Q_DISABLE_COPY", "Q_DISABLE_COPY_MOVE", "wxDECLARE_NO_COPY_CLASS"}) lore->forbidsCopy.insert(name);
  std::vector<std::vector<Definition>> byText(texts.size());
  std::vector<size_t> sizes;
  for (std::string_view text : texts) sizes.push_back(text.size());
  forEachLargestFirst(sizes, jobs, [&](size_t i) {
    if (texts[i].find('#') == std::string_view::npos) return;
    forEachDirective(texts[i], [&](std::string_view line) {
      size_t at = line.find_first_not_of("# \t");
      if (at == std::string_view::npos || line.compare(at, 6, "define") != 0) return;
      if (auto definition = readDefine(line); definition && !isReserved(definition->name)) byText[i].push_back(std::move(*definition));
    });
  });
  std::vector<Definition> undecided;
  std::vector<std::string> unclear;  // accessors that mean one thing in one file and another in another
  for (std::vector<Definition>& definitions : byText) {
    std::map<std::string, MacroLore::Accessor> own;  // of several branches the first: that is the one which is taken
    for (Definition& definition : definitions) {
      const std::string& body = definition.body;
      if (std::string_view called = calledAlone(body); !called.empty()) {
        own.try_emplace(definition.name, MacroLore::Accessor{std::string(called), definition.hasParameters});
        continue;
      }
      if (body.find("operator=") != std::string::npos || body.find("operator =") != std::string::npos ||
          (body.find("= delete") != std::string::npos && body.find("const") != std::string::npos))
        lore->forbidsCopy.insert(definition.name);
      if (std::optional<std::string_view> wrapped = beforeParameter(definition); wrapped && isIgnorable(*wrapped, *lore)) {
        lore->wraps.emplace(definition.name, specifierIn(*wrapped));
        continue;
      }
      if (definition.hasParameters && !body.empty()) lore->withBody.insert(definition.name);
      if (std::string_view specifier = definition.hasParameters ? std::string_view{} : specifierIn(body); !specifier.empty()) lore->specifiers.emplace(definition.name, specifier);
      if (std::string_view word = definition.hasParameters ? std::string_view{} : operatorIn(body); !word.empty()) {
        lore->specifiers.emplace(definition.name, word);
        lore->blank.emplace(definition.name, false);
      }
      undecided.push_back(std::move(definition));
    }
    for (auto& [name, accessor] : own)
      if (auto [known, fresh] = lore->accessors.emplace(name, accessor); !fresh && known->second != accessor) unclear.push_back(name);
  }
  for (const std::string& name : unclear) lore->accessors.erase(name);
  // A macro may stand for other such macros: repeat until nothing new is learnt.
  for (bool grew = true; grew;) {
    grew = false;
    std::vector<Definition> rest;
    for (Definition& definition : undecided) {
      if (isIgnorable(definition.body, *lore)) {
        grew |= lore->blank.emplace(definition.name, definition.hasParameters).second;
      } else {
        rest.push_back(std::move(definition));
      }
    }
    undecided = std::move(rest);
  }
  // A macro that means something in one branch and nothing in another (an
  // assertion, a log line) is only blanked when it never has a statement-like body.
  for (const Definition& definition : undecided)
    if (definition.hasParameters) lore->blank.erase(definition.name);
  return lore;
}

namespace {

// Reads one file from front to back and blanks what the grammar cannot bear.
class Preparation {
 public:
  Preparation(std::string_view original, const MacroLore* lore, bool others, std::span<const Span> without) : original_(original), lore_(lore), others_(others), without_(without) { out_.text = std::string(original); }

  PreparedText run() {
    // A byte order mark is not part of the program.
    at_ = byteOrderMark(original_);
    blank(0, at_);
    while (at_ < original_.size()) next();
    if (!active_) blank(inactiveFrom_, out_.text.size());
    return std::move(out_);
  }

 private:
  void blank(size_t begin, size_t end) {
    for (size_t i = begin; i < end; ++i)
      if (out_.text[i] != '\n' && out_.text[i] != '\r') out_.text[i] = ' ';
  }

  void next() {
    char c = original_[at_];
    if (c == '\n' || isBlank(c)) {
      lineStart_ |= c == '\n';
      ++at_;
      return;
    }
    if (c == '#' && lineStart_) return directive(directiveEnd(original_, at_));
    if (size_t after = skipLiteral(original_, at_); after > at_) {
      bool comment = c == '/';
      if (comment && active_) out_.comments.push_back({static_cast<uint32_t>(at_), static_cast<uint32_t>(after)});
      lineStart_ &= comment;
      if (!comment) last_ = c;
      at_ = after;
      return;
    }
    lineStart_ = false;
    if (active_ && original_.substr(at_, 3) == "->*") {
      // (object->*pointer)(…): the grammar does not know it everywhere. Both operands are read.
      out_.text.replace(at_, 3, ",  ");
      at_ += 3;
    } else if (isWordStart(c)) {
      char before = std::exchange(last_, c);
      size_t end = wordEnd(original_, at_);
      size_t gone = !active_ ? 0 : isLoneMacro(before, end) ? end : std::max({endOfMemberMacro(before, end), endOfAttribute(before, end), endOfSignatureMacro(before, end)});
      if (gone > at_) {
        noteHeld(end, gone);
        blank(at_, gone);
        at_ = gone;
        last_ = before;
        return;
      }
      if (active_ && std::string_view("=(,?:!&|").find(before) != std::string_view::npos) nameTypesGiven(end);
      word(end);
      // What went leaves no trace.
      if (isBlank(out_.text[end - 1])) last_ = before;
    } else if (!unwrapped_.empty() && at_ == unwrapped_.back()) {
      unwrapped_.pop_back();
      ++at_;
    } else {
      last_ = c;
      if (active_) followBodies(c);
      if (c == '(' || c == '{' || c == '[') out_.bracketDepth = std::max(out_.bracketDepth, ++depth_);
      if ((c == ')' || c == '}' || c == ']') && depth_ > 0) --depth_;
      ++at_;
    }
  }

  // What is not built here is read too: see shared/directives.h.
  bool readToo(size_t end) {
    size_t from = std::min(end + 1, original_.size());
    bool left = std::any_of(without_.begin(), without_.end(), [&](Span one) { return one.begin == from; });
    if (!others_ || left || !mayBeReadToo(scope_, out_.text, original_, at_, from, true)) return false;
    out_.otherBranches.push_back({static_cast<uint32_t>(from), static_cast<uint32_t>(branchEnd(original_, from))});
    return true;
  }

  // From the directive at at_ on, which ends at `lineEnd`, text is or is not part of the program.
  void setActive(bool now, size_t lineEnd) {
    if (!active_) blank(inactiveFrom_, at_);
    if (!now) inactiveFrom_ = lineEnd;
    active_ = now;
  }

  void directive(size_t end) {
    std::string_view line = original_.substr(at_, end - at_);
    size_t wordAt = line.find_first_not_of("# \t");
    if (wordAt != std::string_view::npos) {
      std::string_view word = line.substr(wordAt, wordEnd(line, wordAt) - wordAt);
      std::string rest(trim(stripComments(line.substr(wordAt + word.size()))));
      if (!condition(word, rest, end) && active_ && (word == "include" || word == "include_next" || word == "import")) include(rest, end);
    }
    // The comment at a directive's end is still a comment of the file.
    blank(at_, end);
    at_ = end;
  }

  // False where the directive is no condition.
  bool condition(std::string_view word, const std::string& rest, size_t end) {
    if (word == "if" || word == "ifdef" || word == "ifndef") {
      Tristate value = word == "if" ? knownOfCondition(rest) : knownToBeDefined(rest);
      if (value && word == "ifndef") value = !*value;
      bool take = value.value_or(true);
      bool never = rest == "0" || rest == "false";
      bool read = take || (active_ && !never && readToo(end));
      branches_.push_back({active_, active_ && read, take});
      setActive(branches_.back().active, end);
    } else if ((word == "elif" || word == "else") && !branches_.empty()) {
      Branching& top = branches_.back();
      bool take = !top.taken;
      if (take && word == "elif") take = knownOfCondition(rest).value_or(true);
      if (!take && top.parentActive) setActive(false, end);  // what was read so far stands as it will be parsed
      top.active = top.parentActive && (take || readToo(end));
      top.taken |= take;
      setActive(top.active, end);
    } else if (word == "endif" && !branches_.empty()) {
      bool parent = branches_.back().parentActive;
      branches_.pop_back();
      setActive(parent, end);
    } else {
      return false;
    }
    return true;
  }

  void include(const std::string& rest, size_t end) {
    if (rest.size() <= 2 || (rest[0] != '<' && rest[0] != '"')) return;
    char close = rest[0] == '<' ? '>' : '"';
    size_t stop = rest.find(close, 1);
    if (stop != std::string::npos) out_.includes.push_back({rest.substr(1, stop - 1), close == '>', {static_cast<uint32_t>(at_), static_cast<uint32_t>(end)}});
  }

  void word(size_t end) {
    std::string_view word = original_.substr(at_, end - at_);
    if (end < original_.size() && original_[end] == '"' && isRawPrefix(word)) {
      at_ = skipRawString(original_, end);
      return;
    }
    size_t begin = at_;
    at_ = end;
    if (!active_) return;
    if (word == "new") blankStars(end);
    if ((word == "SLOT" || word == "SIGNAL") && nameHandler(begin, end)) return;
    if (lore_ && lore_->forbidsCopy.count(word)) endDeclaration(end);
    if (word == "class" || word == "struct") {
      classBegun_ = true;
      size_t from = 0;
      if (size_t stop = exportMacroEnd(original_, end, word == "class", &from)) {
        blank(from, stop);
        at_ = stop;
        return;
      }
    }
    if (unwrap(begin, end)) return;
    if (std::optional<Treatment> treatment = treatmentOf(word, end)) replaceMacro(*treatment, begin, end);
  }

  // THREAD_LOCAL(Desk*) current; what is given stays, behind the specifier that matters.
  bool unwrap(size_t begin, size_t end) {
    auto found = lore_ ? lore_->wraps.find(original_.substr(begin, end - begin)) : decltype(lore_->wraps.end()){};
    if (!lore_ || found == lore_->wraps.end()) return false;
    size_t close = argumentsEnd(end);
    if (close == std::string_view::npos) return false;
    blank(begin, end + 1);
    blank(close - 1, close);
    while (!unwrapped_.empty() && unwrapped_.back() < begin) unwrapped_.pop_back();
    std::string_view specifier = end - begin < found->second.size() ? std::string_view("__thread") : found->second;
    if (!found->second.empty() && specifier.size() <= end - begin) out_.text.replace(begin, specifier.size(), specifier);
    unwrapped_.push_back(close - 1);
    at_ = end + 1;
    return true;
  }

  // void open(int berth) LOCKS_REQUIRED(mutex_); behind a list of parameters a macro with arguments stands for an attribute.
  // Their end; 0: it is something else.
  size_t endOfSignatureMacro(char before, size_t end) const {
    std::string_view word = original_.substr(at_, end - at_);
    if (before != ')' || word.size() < 4 || !inCapitals(word)) return 0;
    size_t close = argumentsEnd(pastBlanks(original_, end));
    if (close == std::string_view::npos) return 0;
    size_t next = pastBlanks(original_, close);
    if (next >= original_.size() || (original_[next] != '{' && original_[next] != ';')) return 0;
    // What the list before it is given to: the name of a function, no keyword and no macro.
    constexpr size_t kFarthest = 2000;
    size_t open = at_;
    int depth = 0;
    for (size_t steps = 0; open > 0 && steps < kFarthest; ++steps) {
      char c = out_.text[--open];
      depth += c == ')' ? 1 : c == '(' ? -1 : 0;
      if (c == ';' || (c == '(' && depth == 0)) break;
    }
    if (open == 0 || out_.text[open] != '(' || depth != 0) return 0;
    size_t nameEnd = open;
    while (nameEnd > 0 && isBlank(out_.text[nameEnd - 1])) --nameEnd;
    size_t name = nameEnd;
    while (name > 0 && isWordByte(out_.text[name - 1])) --name;
    static constexpr std::string_view kStatements[] = {"catch", "constexpr", "for", "if", "switch", "while"};
    std::string_view called = std::string_view(out_.text).substr(name, nameEnd - name);
    return !called.empty() && !inCapitals(called) && std::find(std::begin(kStatements), std::end(kStatements), called) == std::end(kStatements) ? close : 0;
  }

  // Clang, "Thread Safety Analysis": REQUIRES(…), EXCLUSIVE_LOCKS_REQUIRED(…) and what a project calls them by a prefix.
  void noteHeld(size_t end, size_t gone) {
    std::string_view word = original_.substr(at_, end - at_);
    bool says = word.ends_with("LOCKS_REQUIRED") || word.ends_with("LOCK_REQUIRED") || word == "REQUIRES" || word.ends_with("_REQUIRES") || word == "REQUIRES_SHARED" || word.ends_with("_REQUIRES_SHARED");
    if (says) out_.heldByCallers.push_back({static_cast<uint32_t>(at_), std::string(original_.substr(end, gone - end))});
  }

  static bool inCapitals(std::string_view word) {
    return std::none_of(word.begin(), word.end(), [](char c) { return c >= 'a' && c <= 'z'; });
  }
  // The end of the arguments that begin right there; npos: none do.
  size_t argumentsEnd(size_t at) const { return at < original_.size() && original_[at] == '(' ? closingParenthesis(original_, at) : std::string_view::npos; }

  // Which braces hold the members of a class.
  void followBodies(char c) {
    if (c == '{') {
      classBody_.push_back(classBegun_);
    } else if (c == '}' && !classBody_.empty()) {
      classBody_.pop_back();
    }
    if (c == '{' || c == '(' || c == ')' || c == ';' || c == '=') classBegun_ = false;
  }

  // PROPERTY(height, "Height", []() { … }); among the members of a class: a macro that makes members that are not seen here,
  // with a text or code among what it is given. The end of its arguments; 0: it is something else.
  size_t endOfMemberMacro(char before, size_t end) const {
    std::string_view word = original_.substr(at_, end - at_);
    if (classBody_.empty() || !classBody_.back() || word.size() < 4 || std::string_view("{};:").find(before) == std::string_view::npos) return 0;
    if (!inCapitals(word)) return 0;
    size_t close = argumentsEnd(end);
    if (close == std::string_view::npos) return 0;
    size_t next = pastBlanks(original_, close);
    bool ends = next < original_.size() && original_[next] == ';';
    return ends && original_.substr(end, close - end).find_first_of("\"{[") != std::string_view::npos ? close : 0;
  }

  // static Text name INIT_PRIORITY(base - 1) ("one"); between a variable's name and its first value only a macro that stands
  // for an attribute has arguments. Their end; 0: it is something else.
  size_t endOfAttribute(char before, size_t end) const {
    if (!isWordByte(before) || !inCapitals(original_.substr(at_, end - at_))) return 0;
    size_t open = pastBlanks(original_, end);
    size_t close = argumentsEnd(open);
    if (close == std::string_view::npos) return 0;
    size_t next = pastBlanks(original_, close);
    if (next >= original_.size() || (original_[next] != '(' && (original_[next] != '=' || original_.substr(next, 2) == "=="))) return 0;
    // The name, and the type before it.
    auto backOver = [&](size_t at, auto is) {
      while (at > 0 && is(out_.text[at - 1])) --at;
      return at;
    };
    size_t nameEnd = backOver(at_, isBlank), name = backOver(nameEnd, isWordByte), type = backOver(name, isBlank);
    static constexpr std::string_view kNoNames[] = {"case", "const", "constexpr", "delete", "else", "extern", "goto", "inline", "new", "return", "static", "throw", "typedef", "virtual"};
    bool named = name < nameEnd && std::find(std::begin(kNoNames), std::end(kNoNames), original_.substr(name, nameEnd - name)) == std::end(kNoNames);
    char typed = type > 0 ? out_.text[type - 1] : '\0';
    size_t typeBegin = backOver(type, isWordByte);
    bool keyword = std::find(std::begin(kNoNames), std::end(kNoNames), original_.substr(typeBegin, type - typeBegin)) != std::end(kNoNames);
    return named && !keyword && type < name && (isWordByte(typed) || typed == '>' || typed == '*' || typed == '&') ? close : 0;
  }

  // A word in capitals alone between two declarations, which no macro that was read explains: it makes
  // members that are not seen here.
  bool isLoneMacro(char before, size_t end) const {
    std::string_view word = original_.substr(at_, end - at_);
    if (word.size() < 4 || std::string_view("{};:").find(before) == std::string_view::npos) return false;
    if (!inCapitals(word)) return false;
    size_t next = end;
    while (next < original_.size() && (original_[next] == ' ' || original_[next] == '\t' || original_[next] == '\r')) ++next;
    if (next >= original_.size() || original_[next] != '\n') return false;
    next = pastBlanks(original_, next);
    std::string_view following = next < original_.size() && isWordStart(original_[next]) ? original_.substr(next, wordEnd(original_, next) - next) : std::string_view{};
    static constexpr std::string_view kBegins[] = {"class", "enum", "explicit", "friend", "private", "protected", "public", "signals", "static", "struct", "template", "typedef", "using", "virtual"};
    return std::find(std::begin(kBegins), std::end(kBegins), following) != std::end(kBegins);
  }

  // slot = ALLOCATE(unsigned char*, count): only a macro can be given a type that is a keyword; the first letter of its last
  // word is overwritten, which makes a name of it, and the rest goes.
  void nameTypesGiven(size_t end) {
    static constexpr std::string_view kTypes[] = {"bool", "char", "const", "double", "float", "int", "long", "short", "signed", "unsigned"};
    static constexpr std::string_view kAsk[] = {"alignof", "decltype", "sizeof", "typeid"};
    std::string_view macro = original_.substr(at_, end - at_);
    bool capital = macro == "va_arg" || (std::any_of(macro.begin(), macro.end(), [](char c) { return c >= 'A' && c <= 'Z'; }) && std::find(std::begin(kAsk), std::end(kAsk), macro) == std::end(kAsk));
    size_t close = capital ? argumentsEnd(end) : std::string_view::npos;
    if (close == std::string_view::npos) return;
    for (size_t open = end; open != std::string_view::npos && open + 1 < close; open = nextArgument(open + 1, close)) {
      size_t from = pastBlanks(original_, open + 1), last = from, next = from;
      while (next < close && isWordStart(original_[next])) {
        size_t stop = wordEnd(original_, next);
        if (std::find(std::begin(kTypes), std::end(kTypes), original_.substr(next, stop - next)) == std::end(kTypes)) break;
        last = next;
        next = pastBlanks(original_, stop);
      }
      size_t stars = next;
      while (next < close && original_[next] == '*') next = pastBlanks(original_, next + 1);
      bool alone = stars > from && (original_[next] == ',' || (open != end && next + 1 == close));
      if (alone) {
        blank(from, last);
        blank(stars, next);
        out_.text[last] = '_';
      }
    }
  }

  // The comma behind the argument that begins there; npos: it is the last.
  size_t nextArgument(size_t at, size_t close) const {
    int depth = 0;
    for (; at + 1 < close; ++at) {
      char c = original_[at];
      if (c == '(' || c == '[' || c == '{') ++depth;
      else if (c == ')' || c == ']' || c == '}') --depth;
      else if (c == ',' && depth == 0) return at;
    }
    return std::string_view::npos;
  }

  // Such a macro may stand without a semicolon, which the grammar needs.
  void endDeclaration(size_t end) {
    size_t close = argumentsEnd(end);
    if (close < original_.size() && isBlank(original_[close])) out_.text[close] = ';';
  }

  // connect(timer, SIGNAL(timeout()), this, SLOT(tick())): the macros make texts of what they are given (Qt, "Signals & Slots",
  // "String-Based Connections"): nothing is called there. The name alone stays.
  bool nameHandler(size_t begin, size_t end) {
    size_t close = argumentsEnd(end);
    size_t from = original_.find_first_not_of(" \t", end + 1);
    if (close == std::string_view::npos || from >= close || !isWordStart(original_[from])) return false;
    size_t stop = wordEnd(original_, from);
    blank(begin, from);
    blank(stop, close);
    at_ = close;
    return true;
  }

  // new Type*[n]: the grammar does not know this everywhere.
  void blankStars(size_t end) {
    size_t stop = end;
    while (stop < original_.size() && (isWordByte(original_[stop]) || original_[stop] == ' ' || original_[stop] == ':')) ++stop;
    size_t stars = stop;
    while (stars < original_.size() && original_[stars] == '*') ++stars;
    if (stars > stop && stars < original_.size() && original_[stars] == '[') blank(stop, stars);
  }

  // A macro goes, with its arguments where it has some; a word that means the same may stand for it.
  struct Treatment {
    bool withArguments = false;
    std::string_view instead;
  };

  std::optional<Treatment> treatmentOf(std::string_view word, size_t end) const {
    if (lore_) {
      if (auto found = lore_->blank.find(word); found != lore_->blank.end()) {
        Treatment out{found->second, {}};
        auto specifier = lore_->specifiers.find(word);
        if (out.withArguments || specifier == lore_->specifiers.end()) return out;
        out.instead = specifier->second == "extern" || word.size() >= specifier->second.size() ? specifier->second : "__thread";
        if (out.instead.size() > word.size()) out.instead = {};
        return out;
      }
    }
    const ForeignMacro* macro = foreignMacro(word);
    if (!macro) return std::nullopt;
    size_t next = pastBlanks(original_, end);
    bool more = next < original_.size();
    if (macro->withArguments && !(more && original_[next] == '(')) return std::nullopt;
    if (word == "emit" && !(more && isWordStart(original_[next]))) return std::nullopt;
    if ((word == "signals" || word == "slots") && !(more && original_[next] == ':')) return std::nullopt;
    return Treatment{macro->withArguments, macro->instead};
  }

  void replaceMacro(const Treatment& treatment, size_t begin, size_t end) {
    size_t stop = end;
    if (treatment.withArguments) {
      size_t open = end;
      while (open < original_.size() && (original_[open] == ' ' || original_[open] == '\t' || original_[open] == '\n' || original_[open] == '\r')) ++open;
      stop = open < original_.size() && original_[open] == '(' ? closingParenthesis(original_, open) : std::string_view::npos;
      if (stop == std::string_view::npos) return;  // named without a call: leave it
    }
    at_ = begin;
    noteHeld(end, stop);
    blank(begin, stop);
    out_.text.replace(begin, treatment.instead.size(), treatment.instead);
    at_ = stop;
  }

  std::string_view original_;
  const MacroLore* lore_;
  bool others_;
  std::span<const Span> without_;
  PreparedText out_;
  std::vector<Branching> branches_;
  BodyScope scope_;
  size_t at_ = 0;
  size_t depth_ = 0;
  size_t inactiveFrom_ = 0;
  bool active_ = true;
  bool lineStart_ = true;
  bool classBegun_ = false;      // a class is named, and its body may follow
  std::vector<size_t> unwrapped_;  // where the arguments end of macros that stand for what they are given
  std::vector<bool> classBody_;  // for each brace around: does it hold the members of a class?
  char last_ = ';';  // the last that is not blank, of what stays
};

}  // namespace

PreparedText prepareCpp(std::string_view original, const MacroLore* lore, bool others, std::span<const Span> without) { return Preparation(original, lore, others, without).run(); }

void addHeldByCallers(const PreparedText& prepared, LoweredFile& out) {
  for (const PreparedText::Held& held : prepared.heldByCallers) {
    // The last function that begins before it: declarations follow each other.
    NodeId function = kNoNode;
    for (NodeId n = 0; n < out.nodes.size(); ++n)
      if (out.nodes[n].kind == Kind::Function && out.nodes[n].span.begin < held.at && (function == kNoNode || out.nodes[n].span.begin > out.nodes[function].span.begin)) function = n;
    if (function != kNoNode) out.notes.emplace_back(out.lineOf(out.nodes[function].span.begin) - 1, std::string(kLockRequired) + wordsSpaced(held.written));
  }
}

void addIncludes(const PreparedText& prepared, LoweredFile& out) {
  NodeId last = out.nodes[0].firstChild;
  while (last != kNoNode && out.nodes[last].nextSibling != kNoNode) last = out.nodes[last].nextSibling;
  for (const PreparedText::Include& include : prepared.includes) {
    NodeId id = static_cast<NodeId>(out.nodes.size());
    Node& node = out.nodes.emplace_back();
    node.kind = Kind::Import;
    node.role = Role::Member;
    node.span = include.span;
    node.name = out.names.intern(include.path);
    node.nameBegin = include.span.begin;
    if (include.system) node.modifiers |= kExtern;
    if (last == kNoNode) out.nodes[0].firstChild = id;
    else out.nodes[last].nextSibling = id;
    last = id;
  }
}

}  // namespace elmcart

#include "languages/cpp/repair.h"

#include <algorithm>
#include <map>
#include <set>

#include "base/text.h"

namespace elmcart {
namespace {

constexpr TSSymbol kErrorSymbol = static_cast<TSSymbol>(-1);

// How many bytes may be parsed again for one file's repair, and how often;
// beyond that what is unread stays so.
constexpr size_t kRepairBytes = 1u << 20;
constexpr size_t kAttempts = 28;
// Changes tried for one error: what helps is nearly always among the first.
constexpr size_t kTriesEach = 8, kTriesForFewBytes = 4;
constexpr uint32_t kFewBytes = 8;
// A treatment that helped nowhere this often is not tried again in the file.
constexpr int kFailures = 2;

// Calls `visit(node)` for each error or missing node, outermost first.
template <typename Visit>
void forEachError(TSNode root, Visit visit) {
  if (!ts_node_has_error(root)) return;
  TSTreeCursor cursor = ts_tree_cursor_new(root);
  for (bool more = true; more;) {
    TSNode node = ts_tree_cursor_current_node(&cursor);
    bool descend = false;
    if (ts_node_is_missing(node) || ts_node_symbol(node) == kErrorSymbol) visit(node);
    else descend = ts_node_has_error(node);
    if (descend && ts_tree_cursor_goto_first_child(&cursor)) continue;
    while (!ts_tree_cursor_goto_next_sibling(&cursor)) {
      if (!ts_tree_cursor_goto_parent(&cursor)) {
        more = false;
        break;
      }
    }
  }
  ts_tree_cursor_delete(&cursor);
}

struct Replacement {
  uint32_t begin;
  std::string instead;
};
struct Change {
  std::vector<Replacement> replacements;
  // Which word is treated in which way: what worked once is tried first the next time.
  std::string treatment;
  bool group = false;  // of many places: only worth it when it mends much
};

bool isKeyword(std::string_view word) {
  static const std::set<std::string_view> kWords = {
      "if", "else", "for", "while", "do", "switch", "case", "default", "return", "break", "continue", "goto", "class", "struct", "union", "enum",
      "namespace", "using", "typedef", "template", "typename", "public", "private", "protected", "virtual", "static", "const", "constexpr",
      "inline", "extern", "void", "int", "char", "bool", "long", "short", "unsigned", "signed", "float", "double", "auto", "new", "delete", "this",
      "operator", "friend", "sizeof", "try", "catch", "throw", "nullptr", "true", "false", "explicit", "mutable", "volatile", "override", "final", "noexcept", "static_cast", "const_cast", "dynamic_cast", "reinterpret_cast", "not", "and", "or", "decltype", "std", "size_t", "string", "alignas", "concept", "requires"};
  return kWords.count(word) > 0;
}

bool looksLikeMacro(std::string_view word) {
  if (word.size() < 2 || isKeyword(word)) return false;
  bool upper = false;
  for (char c : word) {
    if (std::islower(static_cast<unsigned char>(c))) return false;
    upper |= std::isupper(static_cast<unsigned char>(c)) != 0;
  }
  return upper;
}

// The changes worth a try for words near an error, best first.
class Candidates {
 public:
  Candidates(std::string_view text, Span error, const MacroLore* lore) : text_(text), error_(error), lore_(lore), wide_(error.size() > 2000) {}

  std::vector<Change> all() {
    wordsNear();
    if (wide_ && lore_) wordsAnywhere();
    // Nearest to the error first.
    std::stable_sort(words_.begin(), words_.end(), [&](const Word& a, const Word& b) { return rank(a) < rank(b); });
    groups();
    for (const Word& word : words_) {
      if (!word.mayBeMacro() && !word.startsLine) continue;
      if (out_.size() > 16) break;
      if (word.close > word.end) call(word);
      else if (word.mayBeMacro()) name(word);
    }
    return std::move(out_);
  }

 private:
  struct Word {
    uint32_t begin, end, close;  // close: behind an argument list, or `end`
    bool macro, known, startsLine;
    bool mayBeMacro() const { return macro || known; }
  };

  std::pair<bool, uint32_t> rank(const Word& w) const { return {!w.mayBeMacro(), w.begin > error_.begin ? w.begin - error_.begin : error_.begin - w.begin}; }

  // Behind the argument list that follows the word which ends there; npos where none does.
  size_t endOfArguments(size_t end) const {
    while (end < text_.size() && (text_[end] == ' ' || text_[end] == '\t')) ++end;
    return end < text_.size() && text_[end] == '(' ? closingParenthesis(text_, end) : std::string_view::npos;
  }

  // From two lines before the error to one line behind its first line.
  void wordsNear() {
    uint32_t from = error_.begin;
    for (int lines = 0; from > 0; --from)
      if (text_[from - 1] == '\n' && ++lines == 3) break;
    uint32_t to = std::max(error_.begin, std::min(error_.end, error_.begin + 400));
    for (int lines = 0; to < text_.size(); ++to)
      if (text_[to] == '\n' && ++lines == 2) break;
    bool startsLine = true;
    for (size_t at = from; at < to;) {
      if (text_[at] == '\n') startsLine = true;
      size_t after = skipLiteral(text_, at);
      if (after > at || !isWordByte(text_[at])) {
        at = after > at ? after : at + 1;
        continue;
      }
      size_t end = wordEnd(text_, at);
      std::string_view word = text_.substr(at, end - at);
      if (!isKeyword(word)) {
        size_t close = endOfArguments(end);
        if (close == std::string_view::npos) close = end;
        words_.push_back({static_cast<uint32_t>(at), static_cast<uint32_t>(end), static_cast<uint32_t>(close), looksLikeMacro(word), lore_ && lore_->withBody.contains(word), startsLine});
      }
      startsLine = false;
      at = end;
    }
  }

  // When the whole file is one error its beginning tells nothing: the macros of
  // the tree that are used anywhere in it are looked at.
  void wordsAnywhere() {
    for (size_t at = error_.begin; at < error_.end && words_.size() < 400;) {
      size_t after = skipLiteral(text_, at);
      if (after > at || !isWordByte(text_[at])) {
        at = after > at ? after : at + 1;
        continue;
      }
      size_t end = wordEnd(text_, at);
      if (end < text_.size() && text_[end] == '(' && lore_->withBody.contains(text_.substr(at, end - at))) {
        size_t close = closingParenthesis(text_, end);
        if (close != std::string_view::npos) words_.push_back({static_cast<uint32_t>(at), static_cast<uint32_t>(end), static_cast<uint32_t>(close), true, true, false});
      }
      at = end;
    }
  }

  std::string blanks(size_t begin, size_t end) const {
    std::string out(text_.substr(begin, end - begin));
    for (char& c : out)
      if (c != '\n' && c != '\r') c = ' ';
    return out;
  }
  std::string statement(size_t begin, size_t end) const {
    std::string out = blanks(begin, end);
    out.back() = ';';
    return out;
  }

  void add(const Word& word, std::string instead, std::string_view kind) {
    out_.push_back({{{word.begin, std::move(instead)}}, std::string(text_.substr(word.begin, word.end - word.begin)) + " " + std::string(kind)});
  }

  // One macro that the grammar cannot bear spoils many places: all its calls together.
  void groups() {
    std::set<std::string_view> grouped;
    for (const Word& word : words_) {
      std::string_view name = text_.substr(word.begin, word.end - word.begin);
      if (!word.mayBeMacro() || !grouped.insert(name).second || grouped.size() > (wide_ ? 8u : 3u)) continue;
      Change whole, statements;
      for (size_t at = text_.find(name); at != std::string_view::npos && whole.replacements.size() < 2000; at = text_.find(name, at + name.size())) {
        size_t end = at + name.size();
        if ((at > 0 && isWordByte(text_[at - 1])) || (end < text_.size() && isWordByte(text_[end]))) continue;
        size_t close = word.close > word.end ? endOfArguments(end) : end;
        if (close == std::string_view::npos) continue;
        whole.replacements.push_back({static_cast<uint32_t>(at), blanks(at, close)});
        statements.replacements.push_back({static_cast<uint32_t>(at), statement(at, close)});
        at = close - name.size();
      }
      if (whole.replacements.size() < 3) continue;
      whole.group = statements.group = true;
      out_.push_back(std::move(whole));
      out_.push_back(std::move(statements));
    }
  }

  void call(const Word& word) {
    add(word, blanks(word.begin, word.close), "blank-call");
    // FOO(x) as a statement without its semicolon.
    add(word, statement(word.begin, word.close), "statement-call");
    std::string_view whole = text_.substr(word.begin, word.close - word.begin);
    if (word.mayBeMacro() && whole.find('\n') == std::string_view::npos) {
      // FOO(x) where an expression or a type is wanted: a name as long.
      std::string asName(whole.substr(0, word.end - word.begin));
      asName.resize(whole.size(), ' ');
      add(word, asName, "name-call");
      // FOO(x) { … }: the head of a loop or function.
      std::string asLoop = "while(1)";
      if (word.end - word.begin >= 5 && whole.size() >= asLoop.size()) {
        asLoop.resize(whole.size(), ' ');
        add(word, asLoop, "loop-call");
      }
    }
    if (word.macro) add(word, blanks(word.begin, word.end), "blank-word");
  }

  void name(const Word& word) {
    add(word, blanks(word.begin, word.end), "blank-word");
    add(word, statement(word.begin, word.end), "statement-word");
    if (word.end - word.begin < 2) return;
    // "prefix" MACRO "suffix": a string as long.
    std::string asText = blanks(word.begin, word.end);
    asText.front() = asText.back() = '"';
    add(word, asText, "text-word");
  }

  std::string_view text_;
  Span error_;
  const MacroLore* lore_;
  bool wide_;
  std::vector<Word> words_;
  std::vector<Change> out_;
};

TSPoint pointOf(std::string_view text, uint32_t offset) {
  std::string_view before = text.substr(0, offset);
  size_t newline = before.rfind('\n');
  return {static_cast<uint32_t>(std::count(before.begin(), before.end(), '\n')),
          static_cast<uint32_t>(newline == std::string_view::npos ? offset : offset - newline - 1)};
}

TreeHandle reparse(ParserHandle& parser, const std::string& text, TSTree* old, const Change& change) {
  if (change.replacements.size() > 8) return parseText(parser, text);
  TreeHandle copy(ts_tree_copy(old));
  for (const Replacement& replacement : change.replacements) {
    uint32_t size = static_cast<uint32_t>(replacement.instead.size());
    TSInputEdit edit{};
    edit.start_byte = replacement.begin;
    edit.old_end_byte = edit.new_end_byte = replacement.begin + size;
    edit.start_point = pointOf(text, replacement.begin);
    edit.old_end_point = edit.new_end_point = pointOf(text, replacement.begin + size);
    ts_tree_edit(copy.get(), &edit);
  }
  return parseText(parser, text, copy.get());
}

// Applies a change and leaves the texts it replaced in `change`, so that
// applying it again takes it back.
void swapIn(std::string& text, Change& change) {
  for (Replacement& replacement : change.replacements) {
    std::string before = text.substr(replacement.begin, replacement.instead.size());
    text.replace(replacement.begin, replacement.instead.size(), replacement.instead);
    replacement.instead = std::move(before);
  }
}

// The same treatment for the errors behind the first.
Change sameElsewhere(std::string_view text, const std::vector<Span>& errors, const std::string& treatment, const MacroLore* lore) {
  Change out;
  out.treatment = treatment;
  for (size_t i = 1; i < errors.size() && i < 200; ++i) {
    for (Change& change : Candidates(text, errors[i], lore).all()) {
      if (change.treatment != treatment || change.replacements.empty()) continue;
      Replacement& replacement = change.replacements.front();
      if (out.replacements.empty() || replacement.begin > out.replacements.back().begin) out.replacements.push_back(std::move(replacement));
      break;
    }
  }
  return out;
}

}  // namespace

uint32_t unreadBytes(TSNode root) {
  uint32_t total = 0;
  forEachError(root, [&](TSNode node) { total += std::max(1u, spanOf(node).size()); });
  return total;
}

TreeHandle parseRepaired(ParserHandle& parser, std::string& text, const MacroLore* lore) {
  TreeHandle tree = parseText(parser, text);
  uint32_t unread = unreadBytes(ts_tree_root_node(tree.get()));
  size_t budget = std::min(kAttempts, kRepairBytes / std::max<size_t>(text.size(), 1));
  std::set<std::string> worked;
  std::map<std::string, int> failures;
  std::set<uint32_t> givenUp;  // error positions with nothing left to try
  while (unread > 0 && budget > 0) {
    std::vector<Span> errors;
    forEachError(ts_tree_root_node(tree.get()), [&](TSNode node) {
      // A token that is only missing (a macro's semicolon, say) spoils nothing around it.
      if (!ts_node_is_missing(node) && !givenUp.count(ts_node_start_byte(node))) errors.push_back(spanOf(node));
    });
    if (errors.empty()) break;
    Span error = errors.front();
    // The best of the candidates: a small gain may block a large one. One that
    // mends this error whole is good enough.
    std::vector<Change> tries = Candidates(text, error, lore).all();
    std::stable_partition(tries.begin(), tries.end(), [&](const Change& change) { return worked.count(change.treatment) > 0; });
    Change best;
    TreeHandle bestTree;
    uint32_t before = unread, size = std::max(1u, error.size());
    size_t triesLeft = size <= kFewBytes ? kTriesForFewBytes : kTriesEach;
    for (Change& change : tries) {
      if (budget == 0 || triesLeft == 0) break;
      if (!change.group && failures[change.treatment] >= kFailures) continue;
      --budget;
      --triesLeft;
      swapIn(text, change);
      TreeHandle attempt = reparse(parser, text, tree.get(), change);
      uint32_t left = unreadBytes(ts_tree_root_node(attempt.get()));
      swapIn(text, change);
      if (left >= unread || (change.group && left * 5 > before * 4)) {
        failures[change.treatment]++;
        continue;
      }
      unread = left;
      bestTree = std::move(attempt);
      best = std::move(change);
      if (best.group || left + size <= before) break;
    }
    if (!bestTree) {
      givenUp.insert(error.begin);
    } else {
      worked.insert(best.treatment);
      swapIn(text, best);
      tree = std::move(bestTree);
      // What mended this error is done to all others that it fits, at once.
      Change more = best.group ? Change{} : sameElsewhere(text, errors, best.treatment, lore);
      if (more.replacements.empty() || budget == 0) continue;
      --budget;
      swapIn(text, more);
      TreeHandle attempt = reparse(parser, text, tree.get(), more);
      uint32_t left = unreadBytes(ts_tree_root_node(attempt.get()));
      if (left < unread) {
        unread = left;
        tree = std::move(attempt);
      } else {
        swapIn(text, more);
      }
    }
  }
  return tree;
}

}  // namespace elmcart

#include "languages/cpp/repair.h"

#include <algorithm>
#include <set>

#include "base/text.h"

namespace elmcart {
namespace {

constexpr TSSymbol kErrorSymbol = static_cast<TSSymbol>(-1);

// How many bytes may be parsed again for one file's repair, and how often;
// beyond that what is unread stays so.
constexpr size_t kRepairBytes = 2u << 20;
constexpr size_t kAttempts = 160;

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
using Change = std::vector<Replacement>;

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
std::vector<Change> candidates(std::string_view text, Span error, const MacroLore* lore) {
  // The region: from two lines before the error to one line behind its first line.
  uint32_t from = error.begin;
  for (int lines = 0; from > 0; --from)
    if (text[from - 1] == '\n' && ++lines == 3) break;
  uint32_t to = std::max(error.begin, std::min(error.end, error.begin + 400));
  for (int lines = 0; to < text.size(); ++to)
    if (text[to] == '\n' && ++lines == 2) break;

  struct Word {
    uint32_t begin, end, close;  // close: behind an argument list, or `end`
    bool macro, known, startsLine;
  };
  std::vector<Word> words;
  bool startsLine = true;
  for (size_t at = from; at < to;) {
    if (text[at] == '\n') startsLine = true;
    size_t after = skipLiteral(text, at);
    if (after > at) {
      at = after;
      continue;
    }
    if (!isWordByte(text[at])) {
      ++at;
      continue;
    }
    size_t end = at;
    while (end < text.size() && isWordByte(text[end])) ++end;
    std::string_view word = text.substr(at, end - at);
    if (!isKeyword(word)) {
      size_t open = end;
      while (open < text.size() && (text[open] == ' ' || text[open] == '\t')) ++open;
      size_t close = open < text.size() && text[open] == '(' ? closingParenthesis(text, open) : std::string_view::npos;
      if (close == std::string_view::npos) close = end;
      words.push_back({static_cast<uint32_t>(at), static_cast<uint32_t>(end), static_cast<uint32_t>(close), looksLikeMacro(word),
                       lore && lore->withBody.count(std::string(word)) > 0, startsLine});
    }
    startsLine = false;
    at = end;
  }
  // Nearest to the error first.
  std::stable_sort(words.begin(), words.end(), [&](const Word& a, const Word& b) {
    auto rank = [&](const Word& w) {
      uint32_t distance = w.begin > error.begin ? w.begin - error.begin : error.begin - w.begin;
      return std::make_pair(!(w.macro || w.known), distance);
    };
    return rank(a) < rank(b);
  });
  auto blanks = [&](uint32_t begin, uint32_t end) {
    std::string out(text.substr(begin, end - begin));
    for (char& c : out)
      if (c != '\n' && c != '\r') c = ' ';
    return out;
  };
  std::vector<Change> out;
  for (const Word& word : words) {
    if (!word.macro && !word.known && !word.startsLine) continue;
    if (out.size() > 30) break;
    if (word.close > word.end) {
      out.push_back(Change{{word.begin, blanks(word.begin, word.close)}});
      // FOO(x) as a statement without its semicolon.
      std::string asStatement = blanks(word.begin, word.close);
      asStatement.back() = ';';
      out.push_back(Change{{word.begin, asStatement}});
      if (word.macro || word.known) {
        // FOO(x) where an expression or a type is wanted: a name as long.
        std::string asName(word.close - word.begin, ' ');
        for (uint32_t i = 0; i < asName.size(); ++i) asName[i] = i < word.end - word.begin ? text[word.begin + i] : ' ';
        bool multiline = text.substr(word.begin, word.close - word.begin).find('\n') != std::string_view::npos;
        if (!multiline) out.push_back(Change{{word.begin, asName}});
        // FOO(x) { … }: the head of a loop or function.
        if (word.end - word.begin >= 5 && !multiline) {
          std::string asLoop(text.substr(word.begin, word.close - word.begin));
          std::string head = "while(1)";
          if (asLoop.size() >= head.size()) {
            asLoop = head + std::string(asLoop.size() - head.size(), ' ');
            out.push_back(Change{{word.begin, asLoop}});
          }
        }
      }
      if (word.macro) out.push_back(Change{{word.begin, blanks(word.begin, word.end)}});
    } else if (word.macro || word.known) {
      out.push_back(Change{{word.begin, blanks(word.begin, word.end)}});
      std::string asStatement = blanks(word.begin, word.end);
      asStatement.back() = ';';
      out.push_back(Change{{word.begin, asStatement}});
      // "prefix" MACRO "suffix": a string as long.
      if (word.end - word.begin >= 2) {
        std::string asText = blanks(word.begin, word.end);
        asText.front() = asText.back() = '"';
        out.push_back(Change{{word.begin, asText}});
      }
    }
  }
  // One macro used wrongly spoils many places at once: all its calls together.
  std::set<std::string_view> grouped;
  for (const Word& word : words) {
    std::string_view name = text.substr(word.begin, word.end - word.begin);
    if ((!word.macro && !word.known) || !grouped.insert(name).second || grouped.size() > 6) continue;
    Change whole, statements;
    for (size_t at = text.find(name); at != std::string_view::npos && whole.size() < 2000; at = text.find(name, at + name.size())) {
      size_t end = at + name.size();
      if ((at > 0 && isWordByte(text[at - 1])) || (end < text.size() && isWordByte(text[end]))) continue;
      size_t close = end;
      if (word.close > word.end) {
        size_t open = end;
        while (open < text.size() && (text[open] == ' ' || text[open] == '\t')) ++open;
        close = open < text.size() && text[open] == '(' ? closingParenthesis(text, open) : std::string_view::npos;
        if (close == std::string_view::npos) continue;
      }
      std::string spaces = blanks(static_cast<uint32_t>(at), static_cast<uint32_t>(close));
      whole.push_back({static_cast<uint32_t>(at), spaces});
      spaces.back() = ';';
      statements.push_back({static_cast<uint32_t>(at), spaces});
      at = close - name.size();
    }
    if (whole.size() < 2) continue;
    out.push_back(std::move(whole));
    out.push_back(std::move(statements));
  }
  return out;
}

TSPoint pointOf(std::string_view text, uint32_t offset) {
  std::string_view before = text.substr(0, offset);
  size_t newline = before.rfind('\n');
  return {static_cast<uint32_t>(std::count(before.begin(), before.end(), '\n')),
          static_cast<uint32_t>(newline == std::string_view::npos ? offset : offset - newline - 1)};
}

TreeHandle reparse(TSParser* parser, const std::string& text, TSTree* old, const Change& change) {
  if (change.size() > 8) return parseText(parser, text);
  TreeHandle copy(ts_tree_copy(old));
  for (const Replacement& replacement : change) {
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
  for (Replacement& replacement : change) {
    std::string before = text.substr(replacement.begin, replacement.instead.size());
    text.replace(replacement.begin, replacement.instead.size(), replacement.instead);
    replacement.instead = std::move(before);
  }
}

}  // namespace

uint32_t unreadBytes(TSNode root) {
  uint32_t total = 0;
  forEachError(root, [&](TSNode node) { total += std::max(1u, spanOf(node).size()); });
  return total;
}

TreeHandle parseRepaired(TSParser* parser, std::string& text, const MacroLore* lore) {
  TreeHandle tree = parseText(parser, text);
  uint32_t unread = unreadBytes(ts_tree_root_node(tree.get()));
  size_t budget = std::min(kAttempts, kRepairBytes / std::max<size_t>(text.size(), 1));
  std::set<uint32_t> givenUp;  // error positions with nothing left to try
  while (unread > 0 && budget > 0) {
    std::vector<Span> errors;
    forEachError(ts_tree_root_node(tree.get()), [&](TSNode node) {
      if (!givenUp.count(ts_node_start_byte(node))) errors.push_back(spanOf(node));
    });
    if (errors.empty()) break;
    Span error = errors.front();
    // The best of the candidates, not the first: a small gain may block a large one.
    Change best;
    for (Change& change : candidates(text, error, lore)) {
      if (budget == 0) break;
      --budget;
      swapIn(text, change);
      TreeHandle attempt = reparse(parser, text, tree.get(), change);
      uint32_t left = unreadBytes(ts_tree_root_node(attempt.get()));
      swapIn(text, change);
      if (left >= unread) continue;
      unread = left;
      best = std::move(change);
      if (left == 0) break;
    }
    if (best.empty()) {
      givenUp.insert(error.begin);
    } else {
      swapIn(text, best);
      tree = reparse(parser, text, tree.get(), best);
    }
  }
  return tree;
}

}  // namespace elmcart

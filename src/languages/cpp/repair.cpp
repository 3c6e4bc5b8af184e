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
                       lore && lore->withBody.contains(word) > 0, startsLine});
    }
    startsLine = false;
    at = end;
  }
  // When the whole file is one error its beginning tells nothing: the macros of
  // the tree that are used anywhere in it are looked at.
  bool wide = error.size() > 2000;
  if (wide && lore) {
    for (size_t at = error.begin; at < error.end && words.size() < 400;) {
      size_t after = skipLiteral(text, at);
      if (after > at || !isWordByte(text[at])) {
        at = after > at ? after : at + 1;
        continue;
      }
      size_t end = at;
      while (end < text.size() && isWordByte(text[end])) ++end;
      if (end < text.size() && text[end] == '(' && lore->withBody.contains(text.substr(at, end - at))) {
        size_t close = closingParenthesis(text, end);
        if (close != std::string_view::npos) words.push_back({static_cast<uint32_t>(at), static_cast<uint32_t>(end), static_cast<uint32_t>(close), true, true, false});
      }
      at = end;
    }
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
  auto add = [&](uint32_t at, std::string instead, std::string_view kind, uint32_t wordEnd) {
    out.push_back({{{at, std::move(instead)}}, std::string(text.substr(at, wordEnd - at)) + " " + std::string(kind)});
  };
  // One macro that the grammar cannot bear spoils many places: all its calls together.
  std::set<std::string_view> grouped;
  for (const Word& word : words) {
    std::string_view name = text.substr(word.begin, word.end - word.begin);
    if ((!word.macro && !word.known) || !grouped.insert(name).second || grouped.size() > (wide ? 8u : 3u)) continue;
    Change whole, statements;
    for (size_t at = text.find(name); at != std::string_view::npos && whole.replacements.size() < 2000; at = text.find(name, at + name.size())) {
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
      whole.replacements.push_back({static_cast<uint32_t>(at), spaces});
      spaces.back() = ';';
      statements.replacements.push_back({static_cast<uint32_t>(at), spaces});
      at = close - name.size();
    }
    if (whole.replacements.size() < 3) continue;
    whole.group = statements.group = true;
    out.push_back(std::move(whole));
    out.push_back(std::move(statements));
  }
  for (const Word& word : words) {
    if (!word.macro && !word.known && !word.startsLine) continue;
    if (out.size() > 16) break;
    if (word.close > word.end) {
      add(word.begin, blanks(word.begin, word.close), "blank-call", word.end);
      // FOO(x) as a statement without its semicolon.
      std::string asStatement = blanks(word.begin, word.close);
      asStatement.back() = ';';
      add(word.begin, asStatement, "statement-call", word.end);
      if (word.macro || word.known) {
        // FOO(x) where an expression or a type is wanted: a name as long.
        std::string asName(word.close - word.begin, ' ');
        for (uint32_t i = 0; i < asName.size(); ++i) asName[i] = i < word.end - word.begin ? text[word.begin + i] : ' ';
        bool multiline = text.substr(word.begin, word.close - word.begin).find('\n') != std::string_view::npos;
        if (!multiline) add(word.begin, asName, "name-call", word.end);
        // FOO(x) { … }: the head of a loop or function.
        if (word.end - word.begin >= 5 && !multiline) {
          std::string asLoop(text.substr(word.begin, word.close - word.begin));
          std::string head = "while(1)";
          if (asLoop.size() >= head.size()) {
            asLoop = head + std::string(asLoop.size() - head.size(), ' ');
            add(word.begin, asLoop, "loop-call", word.end);
          }
        }
      }
      if (word.macro) add(word.begin, blanks(word.begin, word.end), "blank-word", word.end);
    } else if (word.macro || word.known) {
      add(word.begin, blanks(word.begin, word.end), "blank-word", word.end);
      std::string asStatement = blanks(word.begin, word.end);
      asStatement.back() = ';';
      add(word.begin, asStatement, "statement-word", word.end);
      // "prefix" MACRO "suffix": a string as long.
      if (word.end - word.begin >= 2) {
        std::string asText = blanks(word.begin, word.end);
        asText.front() = asText.back() = '"';
        add(word.begin, asText, "text-word", word.end);
      }
    }
  }
  return out;
}

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
    for (Change& change : candidates(text, errors[i], lore)) {
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
    std::vector<Change> tries = candidates(text, error, lore);
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

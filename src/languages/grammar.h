// Owning handles around the parser runtime, and short readers for its nodes.
#pragma once

#include <tree_sitter/api.h>

#include <memory>
#include <stdexcept>
#include <string>
#include <string_view>

#include "base/span.h"
#include "languages/parse_guard.h"
#include "languages/parse_memory.h"

namespace elmcart {

struct ParserDelete {
  void operator()(TSParser* parser) const { ts_parser_delete(parser); }
};
struct TreeDelete {
  void operator()(TSTree* tree) const {
    if (!ParseMemory::held()) ts_tree_delete(tree);
  }
};
using ParserHandle = std::unique_ptr<TSParser, ParserDelete>;
using TreeHandle = std::unique_ptr<TSTree, TreeDelete>;

inline ParserHandle makeParser(const TSLanguage* language) {
  ParserHandle parser(ts_parser_new());
  ts_parser_set_language(parser.get(), language);
  return parser;
}

// Why a file stays unread for once: another run may find its way through it.
struct LeftUnread : std::runtime_error {
  using std::runtime_error::runtime_error;
};
// A grammar that looks for its way out of an error may look for very long.
struct TookTooLong : LeftUnread {
  explicit TookTooLong(uint64_t seconds) : LeftUnread("left unread: the grammar found no way through it in " + std::to_string(seconds) + " s") {}
};

// It may depend on when the time was up.
struct ParserFailed : LeftUnread {
  ParserFailed() : LeftUnread("left unread: the parser of its grammar failed on it") {}
};

// Null when it takes more than three seconds and twenty more a megabyte, forty
// times as long as the slowest grammar needs for what it can read.
inline TreeHandle parseInTime(ParserHandle& parser, std::string_view text, const TSTree* old, uint64_t& microseconds) {
  microseconds = 3000000 + 20 * static_cast<uint64_t>(text.size());
  ts_parser_set_timeout_micros(parser.get(), microseconds);
  struct Call {
    TSParser* parser;
    std::string_view text;
    const TSTree* old;
    TSTree* tree = nullptr;
  } call{parser.get(), text, old};
  bool ended = endsWithoutFault([](void* at) {
    Call& c = *static_cast<Call*>(at);
    c.tree = ts_parser_parse_string(c.parser, c.old, c.text.data(), static_cast<uint32_t>(c.text.size()));
  }, &call);
  if (!ended) {
    // It is left where it lies: taking it apart would fail again.
    (void)parser.release();
    throw ParserFailed();
  }
  return TreeHandle(call.tree);
}

inline TreeHandle parseText(ParserHandle& parser, std::string_view text, const TSTree* old = nullptr) {
  uint64_t microseconds = 0;
  TreeHandle tree = parseInTime(parser, text, old, microseconds);
  if (!tree) throw TookTooLong(microseconds / 1000000);
  return tree;
}

// Parses and drops.
inline void parseAndDrop(const TSLanguage* language, std::string_view text) {
  uint64_t microseconds = 0;
  ParserHandle parser = makeParser(language);
  (void)parseInTime(parser, text, nullptr, microseconds);
}

// Empty for no node: in a broken text any part may be missing.
inline Span spanOf(TSNode node) { return node.id ? Span{ts_node_start_byte(node), ts_node_end_byte(node)} : Span{}; }
inline std::string_view textOf(std::string_view text, TSNode node) {
  Span span = spanOf(node);
  return text.substr(span.begin, span.size());
}

}  // namespace elmcart

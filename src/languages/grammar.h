// Owning handles around the parser runtime, and short readers for its nodes.
#pragma once

#include <tree_sitter/api.h>

#include <memory>
#include <string_view>

#include "base/span.h"

namespace elmcart {

struct ParserDelete {
  void operator()(TSParser* parser) const { ts_parser_delete(parser); }
};
struct TreeDelete {
  void operator()(TSTree* tree) const { ts_tree_delete(tree); }
};
using ParserHandle = std::unique_ptr<TSParser, ParserDelete>;
using TreeHandle = std::unique_ptr<TSTree, TreeDelete>;

inline ParserHandle makeParser(const TSLanguage* language) {
  ParserHandle parser(ts_parser_new());
  ts_parser_set_language(parser.get(), language);
  return parser;
}

inline TreeHandle parseText(TSParser* parser, std::string_view text, const TSTree* old = nullptr) {
  return TreeHandle(ts_parser_parse_string(parser, old, text.data(), static_cast<uint32_t>(text.size())));
}

inline Span spanOf(TSNode node) { return {ts_node_start_byte(node), ts_node_end_byte(node)}; }
inline std::string_view textOf(std::string_view text, TSNode node) {
  Span span = spanOf(node);
  return text.substr(span.begin, span.size());
}

}  // namespace elmcart

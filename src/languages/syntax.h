// The grammar's own tree of one file. A writer needs what the lowered tree leaves
// out: brackets, separators, heads of declarations, comments that document them.
#pragma once

#include <functional>
#include <initializer_list>
#include <string_view>
#include <vector>

#include "languages/grammar.h"

namespace elmcart {

class SyntaxTree {
 public:
  // The text must live as long as the tree.
  SyntaxTree(const TSLanguage* grammar, std::string_view text) : SyntaxTree(grammar, text, text) {}
  // Read from the same in words that the grammar knows, of the same length.
  SyntaxTree(const TSLanguage* grammar, std::string_view text, std::string_view forGrammar);

  std::string_view text() const { return text_; }
  std::string_view text(TSNode node) const { return textOf(text_, node); }
  TSNode root() const { return ts_tree_root_node(tree_.get()); }

  // The smallest named node that holds the span; and the nearest of these types that does, that node or one around it.
  TSNode covering(Span span) const;
  TSNode covering(Span span, std::initializer_list<std::string_view> types) const;
  // The node of one of these types that begins where the span begins, or inside of what does.
  TSNode within(Span span, std::initializer_list<std::string_view> types) const;

  static bool isNull(TSNode node) { return node.id == nullptr; }
  static bool is(TSNode node, std::string_view type) { return !isNull(node) && type == ts_node_type(node); }
  static bool isOneOf(TSNode node, std::initializer_list<std::string_view> types);
  static TSNode field(TSNode node, std::string_view name);
  static TSNode parent(TSNode node) { return isNull(node) ? TSNode{} : ts_node_parent(node); }
  // Null beyond the last.
  static TSNode named(TSNode node, uint32_t index) { return isNull(node) || index >= ts_node_named_child_count(node) ? TSNode{} : ts_node_named_child(node, index); }
  static std::vector<TSNode> children(TSNode node);         // named ones, without comments
  static TSNode childOf(TSNode node, std::string_view type);  // the first child of that type, tokens too
  static bool isComment(TSNode node) { return std::string_view(ts_node_type(node)).find("comment") != std::string_view::npos; }
  // Every named node inside, parents first; false from the visitor: not what is inside of it.
  static void walk(TSNode node, const std::function<bool(TSNode)>& visit);

 private:
  std::string_view text_;
  TreeHandle tree_;
};

}  // namespace elmcart

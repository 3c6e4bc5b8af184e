#include "languages/syntax.h"

#include <algorithm>

namespace elmcart {

SyntaxTree::SyntaxTree(const TSLanguage* grammar, std::string_view text, std::string_view forGrammar) : text_(text) {
  ParserHandle parser = makeParser(grammar);
  tree_ = parseText(parser, forGrammar);
}

TSNode SyntaxTree::covering(Span span) const { return ts_node_named_descendant_for_byte_range(root(), span.begin, std::max(span.begin, span.end)); }

TSNode SyntaxTree::covering(Span span, std::initializer_list<std::string_view> types) const {
  TSNode node = covering(span);
  while (!isNull(node) && !isOneOf(node, types)) node = ts_node_parent(node);
  return node;
}

TSNode SyntaxTree::within(Span span, std::initializer_list<std::string_view> types) const {
  TSNode found{};
  walk(covering(span), [&](TSNode node) {
    if (!isNull(found) || ts_node_end_byte(node) < span.begin || ts_node_start_byte(node) > span.end) return false;
    if (ts_node_start_byte(node) >= span.begin && isOneOf(node, types)) found = node;
    return isNull(found);
  });
  return found;
}

bool SyntaxTree::isOneOf(TSNode node, std::initializer_list<std::string_view> types) {
  return !isNull(node) && std::find(types.begin(), types.end(), std::string_view(ts_node_type(node))) != types.end();
}

TSNode SyntaxTree::field(TSNode node, std::string_view name) {
  return isNull(node) ? TSNode{} : ts_node_child_by_field_name(node, name.data(), static_cast<uint32_t>(name.size()));
}

std::vector<TSNode> SyntaxTree::children(TSNode node) {
  std::vector<TSNode> out;
  for (uint32_t i = 0; !isNull(node) && i < ts_node_named_child_count(node); ++i)
    if (TSNode child = ts_node_named_child(node, i); !isComment(child)) out.push_back(child);
  return out;
}

TSNode SyntaxTree::childOf(TSNode node, std::string_view type) {
  for (uint32_t i = 0; !isNull(node) && i < ts_node_child_count(node); ++i)
    if (TSNode child = ts_node_child(node, i); is(child, type)) return child;
  return {};
}

void SyntaxTree::walk(TSNode node, const std::function<bool(TSNode)>& visit) {
  if (isNull(node)) return;
  std::vector<TSNode> open{node};
  while (!open.empty()) {
    TSNode at = open.back();
    open.pop_back();
    if (!visit(at)) continue;
    for (uint32_t i = ts_node_named_child_count(at); i-- > 0;) open.push_back(ts_node_named_child(at, i));
  }
}

}  // namespace elmcart

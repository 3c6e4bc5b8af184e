#include "languages/javascript/wrapper.h"

#include <vector>

namespace elmcart::script {
namespace {

std::string_view typeOf(TSNode node) { return ts_node_is_null(node) ? std::string_view{} : std::string_view(ts_node_type(node)); }

TSNode field(TSNode node, std::string_view name) { return ts_node_is_null(node) ? node : ts_node_child_by_field_name(node, name.data(), static_cast<uint32_t>(name.size())); }

std::string_view textOf(TSNode node, std::string_view text) {
  if (ts_node_is_null(node)) return {};
  return text.substr(ts_node_start_byte(node), ts_node_end_byte(node) - ts_node_start_byte(node));
}

std::vector<TSNode> namedOf(TSNode node) {
  std::vector<TSNode> out;
  if (ts_node_is_null(node)) return out;
  for (uint32_t i = 0, count = ts_node_named_child_count(node); i < count; ++i)
    if (TSNode kid = ts_node_named_child(node, i); typeOf(kid) != "comment") out.push_back(kid);
  return out;
}

std::vector<std::string> parametersOf(TSNode fn, std::string_view text) {
  std::vector<std::string> out;
  if (TSNode only = field(fn, "parameter"); !ts_node_is_null(only)) out.emplace_back(textOf(only, text));
  for (TSNode one : namedOf(field(fn, "parameters"))) {
    TSNode pattern = field(one, "pattern");  // TypeScript wraps it
    out.emplace_back(textOf(ts_node_is_null(pattern) ? one : pattern, text));
  }
  return out;
}

// exports, module.exports, {}, or one of these behind a test or an assignment.
bool isHandedOut(TSNode value, std::string_view text, int depth = 0) {
  std::string_view type = typeOf(value);
  if (depth > 8) return false;
  if (type == "identifier") return textOf(value, text) == "exports";
  if (type == "member_expression") return textOf(value, text) == "module.exports";
  if (type == "object") return namedOf(value).empty();
  if (type == "parenthesized_expression") return ts_node_named_child_count(value) > 0 && isHandedOut(ts_node_named_child(value, 0), text, depth + 1);
  if (type == "assignment_expression" || type == "binary_expression") return isHandedOut(field(value, "right"), text, depth + 1);
  if (type == "ternary_expression") return isHandedOut(field(value, "consequence"), text, depth + 1) || isHandedOut(field(value, "alternative"), text, depth + 1);
  return false;
}

void markGiven(TSNode call, const std::vector<std::string>& parameters, std::string_view text, std::set<std::string>& out) {
  std::vector<TSNode> given = namedOf(field(call, "arguments"));
  for (size_t i = 0; i < given.size() && i < parameters.size(); ++i)
    if (isHandedOut(given[i], text)) out.insert(parameters[i]);
}

// The calls of `name` inside a wrapper.
void walkCalls(TSNode node, std::string_view name, const std::vector<std::string>& parameters, std::string_view text, std::set<std::string>& out, int depth) {
  if (depth > 60) return;
  if (typeOf(node) == "call_expression" && textOf(field(node, "function"), text) == name) markGiven(node, parameters, text, out);
  for (TSNode kid : namedOf(node)) walkCalls(kid, name, parameters, text, out, depth + 1);
}

void membersOf(TSNode assignment, std::string_view object, std::string_view text, std::set<std::string>& out) {
  for (; typeOf(assignment) == "assignment_expression"; assignment = field(assignment, "right")) {
    TSNode left = field(assignment, "left");
    if (typeOf(left) == "member_expression" && textOf(field(left, "object"), text) == object) out.emplace(textOf(field(left, "property"), text));
  }
}

}  // namespace

std::set<std::string> exportParameters(TSNode call, TSNode called, TSNode module, std::string_view text) {
  std::set<std::string> out;
  std::vector<std::string> parameters = parametersOf(module, text);
  for (const std::string& one : parameters)
    if (one == "exports") out.insert(one);
  if (ts_node_eq(called, module)) {
    markGiven(call, parameters, text, out);
    return out;
  }
  std::vector<TSNode> given = namedOf(field(call, "arguments"));
  if (typeOf(called) == "identifier") {  // define(["exports"], function (out) { … })
    for (TSNode list : given) {
      std::vector<TSNode> names = typeOf(list) == "array" ? namedOf(list) : std::vector<TSNode>{};
      for (size_t i = 0; i < names.size() && i < parameters.size(); ++i)
        if (std::string_view name = textOf(names[i], text); name == "'exports'" || name == "\"exports\"") out.insert(parameters[i]);
    }
    return out;
  }
  std::vector<std::string> ofWrapper = parametersOf(called, text);
  for (size_t i = 0; i < given.size() && i < ofWrapper.size(); ++i)
    if (ts_node_eq(given[i], module)) walkCalls(field(called, "body"), ofWrapper[i], parameters, text, out, 0);
  return out;
}

std::set<std::string> membersGiven(TSNode module, std::string_view object, std::string_view text) {
  std::set<std::string> out;
  for (TSNode statement : namedOf(field(module, "body"))) {
    if (typeOf(statement) == "expression_statement") membersOf(ts_node_named_child(statement, 0), object, text, out);
    if (typeOf(statement) == "variable_declaration" || typeOf(statement) == "lexical_declaration")
      for (TSNode one : namedOf(statement)) membersOf(field(one, "value"), object, text, out);
  }
  return out;
}

TSNode lastAssigned(TSNode node) {
  while (typeOf(node) == "assignment_expression") node = field(node, "right");
  return node;
}

}  // namespace elmcart::script

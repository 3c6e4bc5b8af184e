#include "lowered/tree.h"

#include <algorithm>
#include <array>
#include <utility>

namespace elmcart {

uint32_t LoweredFile::lineOf(uint32_t offset) const {
  auto after = std::upper_bound(lineStarts.begin(), lineStarts.end(), offset);
  return static_cast<uint32_t>(after - lineStarts.begin());
}

void fillParents(LoweredFile& file) {
  file.parents.assign(file.nodes.size(), kNoNode);
  for (NodeId n = 0; n < file.nodes.size(); ++n)
    for (NodeId c = file.nodes[n].firstChild; c != kNoNode; c = file.nodes[c].nextSibling) file.parents[c] = n;
}

std::string_view kindName(Kind kind) {
  static constexpr std::array kNames = {
      "unit", "namespace", "import", "using", "alias", "type", "variable", "function", "parameter", "enumerator",
      "typeref", "block", "if", "loop", "switch", "try", "return", "throw", "jump", "guard", "once", "statement",
      "name", "member", "index", "call", "create", "destroy", "assign", "update", "nulltest", "compare", "logic",
      "conditional", "lambda", "capture", "literal", "cast", "await", "collection", "addressof", "dereference",
      "this", "other", "fieldinit", "unread"};
  static_assert(kNames.size() == static_cast<size_t>(Kind::Unread) + 1);
  return kNames[static_cast<size_t>(kind)];
}

std::string_view roleName(Role role) {
  static constexpr std::array kNames = {
      "", "type", "base", "scope", "parameter", "typeparameter", "typeargument", "initialiser", "body", "condition",
      "then", "else", "callee", "argument", "receiver", "target", "value", "operand", "lock", "handler", "capture",
      "member", "fieldinit", "placement", "annotation", "finally"};
  static_assert(kNames.size() == static_cast<size_t>(Role::Finally) + 1);
  return kNames[static_cast<size_t>(role)];
}

namespace {

std::string modifierText(uint32_t bits) {
  static constexpr std::array<std::string_view, 32> kNames = {
      "static", "thread-local", "extern", "const", "constant", "constinit", "mutable", "volatile", "inline",
      "virtual", "override", "final", "abstract", "deleted", "defaulted", "explicit", "friend", "nothrow", "public",
      "protected", "private", "definition", "template", "pointer", "reference", "rvalue", "pointee-const",
      "whole-scope", "arrow", "pack", "array", "in-macro"};
  std::string out;
  for (size_t i = 0; i < kNames.size(); ++i) {
    if (!(bits & (1u << i))) continue;
    if (!out.empty()) out += ' ';
    out += kNames[i];
  }
  return out;
}

}  // namespace

std::string printTree(const LoweredFile& file, NodeId from) {
  std::string out;
  // An explicit stack: trees of hostile input may be very deep.
  std::vector<std::pair<NodeId, int>> stack = {{from, 0}};
  std::vector<NodeId> reversed;
  while (!stack.empty()) {
    auto [id, depth] = stack.back();
    stack.pop_back();
    const Node& node = file[id];
    out.append(static_cast<size_t>(depth) * 2, ' ');
    if (node.role != Role::None) out.append(roleName(node.role)).append(": ");
    out += kindName(node.kind);
    if (node.name) out.append(" '").append(file.name(node)).append("'");
    if (node.detail) out += " #" + std::to_string(node.detail);
    if (node.modifiers) out += " [" + modifierText(node.modifiers) + "]";
    out += '\n';
    reversed.clear();
    for (NodeId c : children(file, id)) reversed.push_back(c);
    for (auto it = reversed.rbegin(); it != reversed.rend(); ++it) stack.emplace_back(*it, depth + 1);
  }
  return out;
}

}  // namespace elmcart

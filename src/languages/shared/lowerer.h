// The walk that lowers a grammar tree by its table of shapes. A language
// derives from it and sees to its own declarations.
#pragma once

#include <array>
#include <memory_resource>
#include <span>
#include <string>
#include <vector>

#include "languages/shared/shapes.h"

namespace elmcart {

// Nodes side by side, kept by the lowerer they come from.
class NodeList {
 public:
  NodeList() = default;
  NodeList(const TSNode* first, size_t count) : nodes_(first, count) {}
  auto begin() const { return nodes_.begin(); }
  auto end() const { return nodes_.end(); }
  size_t size() const { return nodes_.size(); }
  bool empty() const { return nodes_.empty(); }
  TSNode front() const { return nodes_.front(); }
  TSNode back() const { return nodes_.back(); }
  TSNode operator[](size_t i) const { return nodes_[i]; }
  operator std::vector<TSNode>() const { return {nodes_.begin(), nodes_.end()}; }

 private:
  std::span<const TSNode> nodes_;
};

class SharedLowerer {
 public:
  SharedLowerer(const SharedGrammar& grammar, std::string_view text, LoweredFile& file) : g_(grammar), f_(grammar.fields), text_(text), file_(file), build_(file) {}
  virtual ~SharedLowerer();
  SharedLowerer(const SharedLowerer&) = delete;
  SharedLowerer& operator=(const SharedLowerer&) = delete;

  // Parses and lowers the whole text.
  void run() { run(text_); }
  // The same, where the grammar is given other words of the same length.
  void run(std::string_view forGrammar);
  // Lowers a tree that was parsed already.
  void runOn(TSNode root);
  // Is it nested deeper than the parser bears? Then the file is left unread.
  bool tooDeep();

 protected:
  // ----- what a language says itself

  // The file: namespaces, module scope. The default lowers all children into the unit.
  virtual void unit(TSNode root);
  // A node of Shape::Own.
  virtual void own(TSNode node, uint8_t tag, NodeId parent, Role role) = 0;
  // One parameter of a function; `node` is a child of the parameter list.
  virtual void parameter(TSNode node, NodeId function);
  // A call, when it means something of the language's own; false: an ordinary one.
  virtual bool ownCall(TSNode, NodeId, Role) { return false; }
  // What a creation holds besides its class and arguments: the body of a class without a name.
  virtual void createBody(TSNode, NodeId) {}
  // Assignments, when names are declared by them; false: an ordinary one.
  virtual bool ownAssign(TSNode, NodeId, Role) { return false; }
  virtual bool ownName(TSNode, NodeId, Role) { return false; }
  virtual bool ownThis(TSNode, NodeId, Role) { return false; }
  virtual bool ownMember(TSNode, NodeId, Role) { return false; }

  // ----- walking

  void visit(TSNode node, NodeId parent, Role role);
  void visitIf(TSNode node, NodeId parent, Role role);
  void visitLoop(TSNode node, NodeId parent, Role role);
  void visitTry(TSNode node, NodeId parent, Role role);
  void visitMember(TSNode node, NodeId parent, Role role);
  void visitIndex(TSNode node, NodeId parent, Role role);
  void visitCall(TSNode node, NodeId parent, Role role);
  void visitNew(TSNode node, NodeId parent, Role role);
  void visitAssign(TSNode node, NodeId parent, Role role);
  void visitCompound(TSNode node, NodeId parent, Role role);
  void visitUnary(TSNode node, NodeId parent, Role role);
  void visitConditional(TSNode node, NodeId parent, Role role);
  void visitLambda(TSNode node, NodeId parent, Role role);
  void visitNull(TSNode node, NodeId parent, Role role);
  void visitCast(TSNode node, NodeId parent, Role role);
  void binary(TSNode node, NodeId parent, Role role);
  void visitChildren(TSNode node, NodeId parent, Role role = Role::None);
  // A condition: a bare value in it is a test for "is there anything?".
  void condition(TSNode node, NodeId parent, Role role);
  // A body that may be a block or one statement or an expression to return.
  void body(TSNode node, NodeId parent);
  NodeId blockOf(TSNode node, NodeId parent, Role role);
  void arguments(TSNode list, NodeId call);
  // The statements of a block. A lock that one takes and a later one gives back
  // makes a guard of those between them.
  virtual void statements(TSNode block, NodeId parent);
  void statements(TSNode block, NodeList some, NodeId parent);
  // The lock that the statement takes (or gives back), if it does.
  virtual TSNode lockOf(TSNode statement, bool taking) const;
  // Does the statement give its lock back only when the block is left?
  virtual bool isDeferred(TSNode) const { return false; }

  // ----- reading the grammar tree

  // All of these bear a node that is missing: there are such in a broken text.
  TSNode field(TSNode node, TSFieldId id) const { return id == 0 || isNull(node) ? TSNode{} : ts_node_child_by_field_id(node, id); }
  // The first of these fields that is there.
  template <typename... Ids>
  TSNode firstField(TSNode node, Ids... ids) const {
    TSNode found{};
    ((found = isNull(found) ? field(node, ids) : found), ...);
    return found;
  }
  static bool isNull(TSNode node) { return node.id == nullptr; }
  // Of a part of a try statement that is not its body: a handler, what runs at
  // the end in any case, or what runs when nothing failed.
  static Role handlerRole(TSNode node) {
    std::string_view type = ts_node_type(node);
    return type.find("finally") != std::string_view::npos ? Role::Finally : type == "else_clause" ? Role::None : Role::Handler;
  }
  static bool isTry(TSNode node) { return std::string_view(ts_node_type(node)).starts_with("try_"); }
  bool is(TSNode node, std::string_view type) const { return !isNull(node) && type == ts_node_type(node); }
  std::string_view text(TSNode node) const { return isNull(node) ? std::string_view{} : textOf(text_, node); }
  NodeList named(TSNode node) const;
  NodeList all(TSNode node) const;
  TSNode childOfType(TSNode node, std::string_view type) const;
  TSNode firstNamed(TSNode node) const;
  bool hasToken(TSNode node, std::string_view token) const;  // among its direct children
  uint32_t begin(TSNode node) const { return isNull(node) ? 0 : ts_node_start_byte(node); }
  // The operator of a binary, unary or assignment node.
  std::string_view operatorOf(TSNode node) const;

  // ----- building

  NodeId add(NodeId parent, Kind kind, Role role, TSNode node) { return build_.add(parent, kind, role, spanOf(node)); }
  NodeId addName(NodeId parent, Role role, TSNode node) {
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, scoped(text(node)), begin(node));
    return id;
  }
  // "a.b.C" and "a\b\C" as "a::b::C".
  static std::string scoped(std::string_view written);
  // A TypeRef read from the text of a written type.
  NodeId typeRef(TSNode node, NodeId parent, Role role);
  NodeId typeRef(Span span, NodeId parent, Role role);
  NodeId typeRefNamed(std::string_view name, TSNode at, NodeId parent, Role role, bool reference = true);
  NodeId function(TSNode node, NodeId parent, FunctionForm form, std::string_view name, uint32_t nameBegin, uint32_t modifiers);
  void parameters(TSNode list, NodeId function);
  NodeId variable(TSNode node, NodeId parent, Role role, TSNode name, uint32_t modifiers, TSNode type, TSNode value);
  // A clause that catches: `name` stands for what was caught, inside the clause alone. Any of the parts may be null.
  NodeId handler(TSNode clause, NodeId parent, Role role, TSNode name, TSNode type, TSNode body);
  NodeId nullTest(TSNode node, NodeId parent, Role role, NullTestForm form, TSNode operand);
  // if (target is nothing) target = value;
  void assignIfNothing(TSNode node, NodeId parent, Role role, TSNode target, TSNode value);
  NodeId guardOf(TSNode node, NodeId parent, Role role, TSNode lock, TSNode block);
  void unread(NodeId parent, TSNode node);
  // Notes what a declaration is marked with, before it or in its modifiers.
  void annotate(TSNode node, NodeId declaration);
  bool isNothing(TSNode node) const;

  // The path of the file without its extension as a scope name: "office::berth_book".
  std::string moduleName(std::string_view collapse = {}) const;
  static std::string_view keptEnding(std::string_view ending);
  // The parts of a path that is written relative to the file's folder.
  std::vector<std::string> pathFromHere(std::string_view written) const;

  const SharedGrammar& g_;
  const SharedGrammar::Fields& f_;
  std::string_view text_;
  LoweredFile& file_;
  TreeBuilder build_;
  int depth_ = 0;

 private:
  // The same node is asked for its children again and again while it is lowered:
  // those of the nodes last asked are remembered.
  struct Children {
    const void* of = nullptr;
    NodeList all, named;
    bool hasAll = false, hasNamed = false;
  };
  Children& childrenOf(TSNode node) const;
  NodeList keepGathered() const;

  mutable std::array<Children, 256> known_;
  mutable std::pmr::monotonic_buffer_resource kept_{1 << 14};
  mutable std::vector<TSNode> gathered_;
  mutable TSTreeCursor cursor_{};

  // The lock that the last block of a try gives back: that one, or any for an empty text.
  TSNode releasedLast(TSNode node, std::string_view lock = {}) const;
  // Does the try take it itself?
  bool takesInside(TSNode node, std::string_view lock) const;
  size_t typeText(size_t at, size_t end, NodeId parent, Role role, int depth);
  size_t behindLength(size_t at, size_t end) const;
  uint32_t typeMarks(size_t& at, size_t end) const;
  uint32_t typeSuffix(size_t& at, size_t end) const;
  size_t typeArguments(size_t at, size_t end, char close, NodeId type, int depth);
  // Of a node with a token between two others; all null for another one.
  struct Sides {
    TSNode left{}, between{}, right{};
  };
  Sides sidesOf(TSNode node) const;
  bool isElseClause(TSNode node) const { return g_.hasElseClauses && (is(node, "elif_clause") || is(node, "else_if_clause") || is(node, "else_clause")); }
};

// Parses and drops.
void parseOnlyWith(const SharedGrammar& grammar, std::string_view text);

}  // namespace elmcart

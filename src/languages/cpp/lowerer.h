// The walk over the grammar's tree of a C++ file. What it lowers is spread over
// files by what it is: types and names, declarations, statements, expressions.
#pragma once

#include <absl/container/flat_hash_set.h>

#include <algorithm>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "base/text.h"
#include "languages/cpp/braces.h"
#include "languages/cpp/prepare.h"
#include "languages/grammar.h"
#include "lowered/tree.h"

namespace elmcart::cpp {

// How deep a file may be nested before the rest of that spot stays unread.
inline constexpr int kDepthLimit = 700;

// The grammar's node names that the walk tells apart.
enum class Tag : uint8_t {
  None, Error, TranslationUnit, Namespace, Linkage, Template, Class, Struct, Union, Enum, FunctionDefinition,
  Declaration, FieldDeclaration, Alias, Typedef, Using, NamespaceAlias, Friend, Access, Instantiation,
  DeclarationList, FieldList, BaseClause, InitDeclarator, FunctionDeclarator, PointerDeclarator, ReferenceDeclarator,
  ArrayDeclarator, ParenDeclarator, AttributedDeclarator, BindingDeclarator, BitField, Identifier, FieldIdentifier,
  TypeIdentifier, NamespaceIdentifier, Qualified, DestructorName, OperatorName, OperatorCast, TemplateFunction,
  TemplateMethod, TemplateType, DependentName, DependentType, Primitive, Sized, Auto, Decltype, TypeDescriptor,
  StorageClass, TypeQualifier, VirtualWord, ExplicitWord, VirtualSpecifier, ParameterList, ParameterDeclaration,
  OptionalParameter, VariadicParameter, DefaultClause, DeleteClause, PureClause, FieldInits, FieldInit,
  ArgumentList, InitList, Compound, If, For, RangeFor, While, Do, Switch, Case, Try, Catch, Return, Throw,
  Break, Continue, Goto, Labeled, ExpressionStatement, ConditionClause, ElseClause, InitStatement, Call, FieldExpression, New, Delete,
  Assignment, Update, Unary, Pointer, Binary, Conditional, Lambda, Cast, Subscript, Paren, CompoundLiteral, This,
  Null, True, False, Number, String, Char, Comma, CoAwait, CoReturn, CoYield, Comment, PackExpansion, TrailingReturn, Noexcept, TypeParameter, TemplateParameters,
  EnumeratorList, Enumerator, TryWithInit, Concatenated, RawString, ConditionDeclaration, Attribute,
};

struct Grammar {
  std::vector<Tag> tagOf;  // by grammar symbol
  TSFieldId type, declarator, name, body, value, scope, arguments, function, argument, field, op, left, right, condition,
      consequence, alternative, initializer, update, parameters, placement, size, indices, index, captures, path, defaultValue, defaultType,
      label, message;

  Grammar();
};

const Grammar& grammar();
Tag tagOf(TSNode node);
inline TSNode fieldOf(TSNode node, TSFieldId field) { return ts_node_child_by_field_id(node, field); }
inline bool isNull(TSNode node) { return ts_node_is_null(node); }

// Where declarations stand decides what they mean.
enum class Place : uint8_t { NamespaceScope, ClassScope, FunctionBody };

// What a declarator says of the name it declares.
struct Declarator {
  TSNode nameNode{};
  TSNode functionNode{};    // the function_declarator, when it declares a function
  TSNode bindingNode{};     // a structured binding
  bool hasName = false, isFunction = false, pointer = false, reference = false, rvalue = false, array = false,
       constPointer = false, functionPointer = false, pack = false;
};

struct Specifiers {
  uint32_t modifiers = 0;
  bool constObject = false;
  TSNode type{};
  bool hasType = false;
};
class Lowerer {
 public:
  // `written`: the text before it was repaired, byte for byte in the same places.
  Lowerer(std::string_view text, std::string_view written, const MacroLore* lore, LoweredFile& file, TSNode root)
      : text_(text), written_(written), lore_(lore), file_(file), build_(file), root_(root), cursor_(ts_tree_cursor_new(root)) {}
  ~Lowerer() { ts_tree_cursor_delete(&cursor_); }
  Lowerer(const Lowerer&) = delete;
  Lowerer& operator=(const Lowerer&) = delete;
  void run() {
    build_[0].span = {0, static_cast<uint32_t>(text_.size())};
    declarations(root_, 0, Place::NamespaceScope, "", 0);
  }
 private:

  // ----- children of a grammar node, without deep lists or quadratic access
  struct Child {
    TSNode node;
    TSFieldId field;
    Tag tag;
  };
  class Children {
   public:
    Children(Lowerer& owner, TSNode node) : owner_(owner), from_(owner.stack_.size()) {
      // All children are taken before anything else happens, so one cursor serves all levels.
      TSTreeCursor* cursor = &owner.cursor_;
      ts_tree_cursor_reset(cursor, node);
      if (ts_tree_cursor_goto_first_child(cursor)) {
        do {
          TSNode child = ts_tree_cursor_current_node(cursor);
          owner.stack_.push_back({child, ts_tree_cursor_current_field_id(cursor), tagOf(child)});
        } while (ts_tree_cursor_goto_next_sibling(cursor));
      }
      count_ = owner.stack_.size() - from_;
    }
    ~Children() { owner_.stack_.resize(from_); }
    Children(const Children&) = delete;
    Children& operator=(const Children&) = delete;
    size_t size() const { return count_; }
    Child operator[](size_t i) const { return owner_.stack_[from_ + i]; }

   private:
    Lowerer& owner_;
    size_t from_;
    size_t count_ = 0;
  };
  struct Deeper {
    explicit Deeper(Lowerer& lowerer) : owner(lowerer) { ++owner.depth_; }
    ~Deeper() { --owner.depth_; }
    Lowerer& owner;
  };
  bool tooDeep(TSNode node, NodeId parent) {
    if (depth_ <= kDepthLimit) return false;
    unread(parent, spanOf(node));
    return true;
  }
  std::string_view textOfNode(TSNode node) const { return textOf(text_, node); }
  uint32_t begin(TSNode node) const { return ts_node_start_byte(node); }
  void unread(NodeId parent, Span span) {
    if (span.empty()) return;
    build_.add(parent, Kind::Unread, Role::None, span);
    file_.unreadBytes += span.size();
  }

  // ----- names: lower_types.cpp
  // A name without white space and template arguments: "a::B" for "a :: B<int>".
  std::string plainName(TSNode node) const;
  // The grammar node of a (qualified) name's last part.
  TSNode lastNameNode(TSNode node) const;

  // ----- types: lower_types.cpp
  void typeArguments(TSNode node, NodeId parent);
  NodeId typeRef(TSNode typeNode, bool hasType, Span fallback, NodeId parent, Role role, const Declarator& declarator, bool constBase);
  // A type as it stands in an argument list or a cast: "const Foo*".
  void typeDescriptor(TSNode node, NodeId parent, Role role);
  void readDeclarator(TSNode node, Declarator& out);
  bool looksLikePointerTo(TSNode paren) const;
  Specifiers readSpecifiers(const Children& kids);

  // ----- declarations: lower_declarations.cpp
  void declarations(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  void declaration(Child kid, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  // A macro call in a class body that is known to delete the copy operations.
  void noteMacroMember(TSNode node, NodeId parent, std::string_view className, Place place);
  static bool isWholeConstruct(Tag tag);
  // What the grammar could not read: the whole constructs inside are still used,
  // the bytes between them are unread.
  void errorNode(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  static bool isStatement(Tag tag);
  Span trimmed(Span span) const;
  void namespaceDefinition(TSNode node, NodeId parent);
  void templateDeclaration(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  void attachTemplate(NodeId id);
  // Returns kNoNode for a mere mention ("struct Foo* p").
  NodeId typeDefinition(TSNode node, NodeId parent, uint32_t visibility);
  void bases(TSNode node, NodeId type, uint32_t defaultVisibility);
  void aliasDeclaration(TSNode node, NodeId parent);
  void typedefDeclaration(TSNode node, NodeId parent, uint32_t visibility);
  void usingDeclaration(TSNode node, NodeId parent);
  void friendDeclaration(TSNode node, NodeId parent);
  void parameters(TSNode functionNode, NodeId function);
  // Creates the Function node for a declarator; the caller adds a body.
  NodeId functionNode(TSNode whole, const Specifiers& specifiers, const Declarator& declarator, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  void functionDefinition(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  void fieldInits(TSNode node, NodeId function);
  // One declaration may declare several names, a type and functions at once.
  void variables(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility);
  void oneVariable(TSNode whole, TSNode declaratorNode, const Specifiers& specifiers, NodeId parent, Place place, std::string_view className, uint32_t visibility, const TSNode* fieldValue, const Children& siblings);
  // `Foo foo(bar);` and `Foo foo(bars());` are grammatically function declarations; they are
  // so in fact only when the parameters are types. In a body nearly none is; elsewhere the type
  // or what was declared before tells.
  bool isTorn(TSNode declaration);
  static bool isReserved(std::string_view name);
  bool looksLikeConstruction(const Specifiers& specifiers, const Declarator& declarator, Place place) const;
  // One parameter of such a declaration, as the argument that it is.
  void constructionArgument(TSNode parameter, NodeId create, Role role);

  // ----- statements: lower_statements.cpp
  void block(TSNode node, NodeId parent, Role role);
  void statements(const Children& kids, size_t from, size_t to, NodeId parent);
  // The receiver's text when the statement is `receiver.method();`
  std::string_view callOn(TSNode statementNode, std::string_view method) const;
  std::pair<std::string_view, TSNode> plainCall(TSNode statementNode) const;
  void guardBetween(const Children& kids, size_t at, size_t end, size_t to, TSNode lock, NodeId parent);
  size_t lockedByFunction(const Children& kids, size_t at, size_t to, NodeId parent);
  // `std::lock_guard<std::mutex> hold(m);` and other scope locks, by the type's
  // last name: …lock, …guard, …locker with at least one argument.
  bool isScopeLock(TSNode node) const;
  void scopeLockOperands(TSNode node, NodeId guard);
  void statement(Child kid, NodeId parent, Role role);
  void statementExpressionStatement(TSNode node, NodeId parent, Role role);
  void statementIf(TSNode node, NodeId parent, Role role);
  void statementFor(TSNode node, NodeId parent, Role role);
  void statementRangeFor(TSNode node, NodeId parent, Role role);
  void statementSwitch(TSNode node, NodeId parent, Role role);
  void statementCase(TSNode node, NodeId parent);
  void statementTry(TSNode node, NodeId parent, Role role);
  void statementReturn(Child kid, NodeId parent, Role role);
  void statementNone(Child kid, NodeId parent, Role role);
  // A branch of an if or loop: always a block, so that walks need one case only.
  void branch(TSNode node, NodeId parent, Role role);
  void conditionClause(TSNode node, NodeId parent);
  // std::call_once(flag, code)
  bool onceCall(TSNode node, NodeId parent);

  // ----- expressions: lower_expressions.cpp
  NodeId leaf(TSNode node, NodeId parent, Role role, Kind kind) { return build_.add(parent, kind, role, spanOf(node)); }
  NodeId literal(TSNode node, NodeId parent, Role role, LiteralForm form);
  void arguments(TSNode list, NodeId parent);
  static bool isNullLiteral(TSNode node, std::string_view text);
  TSNode unwrap(TSNode node) const;
  // An expression used as a truth value: a bare one becomes a null test.
  void condition(TSNode node, NodeId parent, Role role);
  NodeId expression(TSNode node, NodeId parent, Role role);
  NodeId expressionFieldExpression(TSNode node, NodeId parent, Role role);
  NodeId name(TSNode node, NodeId parent, Role role, std::string_view word);
  NodeId compoundLiteral(TSNode node, NodeId parent, Role role);
  NodeId conditional(TSNode node, NodeId parent, Role role);
  NodeId unary(TSNode node, NodeId parent, Role role);
  NodeId operandsOf(TSNode node, NodeId parent, Role role);
  NodeId expressionNew(TSNode node, NodeId parent, Role role);
  NodeId expressionAssignment(TSNode node, NodeId parent, Role role);
  NodeId binary(TSNode node, NodeId parent, Role role);
  NodeId call(TSNode node, NodeId parent, Role role);
  NodeId lambda(TSNode node, NodeId parent, Role role);
  std::string_view text_, written_;
  std::optional<Braces> braces_;  // worked out when first asked for
  const MacroLore* lore_;
  LoweredFile& file_;
  TreeBuilder build_;
  TSNode root_;
  TSTreeCursor cursor_;
  std::vector<Child> stack_;
  std::vector<std::pair<std::string, uint32_t>> templateParameters_;
  bool isTemplate_ = false;
  absl::flat_hash_set<std::string> values_;  // variables and enumerators declared outside of functions so far
  int depth_ = 0;
};

}  // namespace elmcart::cpp

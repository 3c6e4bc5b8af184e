// The lowered tree: the one form that every language is brought into.
//
// It holds what matters for finding, judging and moving shared state, and no
// more: declarations, statements and expressions of a small set of kinds, each
// with the span of bytes of the original text that it was read from, so that
// edits stay exact. No check or move ever sees a grammar's own node names.
//
// A tree is one vector of nodes; a node names its first child and its next
// sibling by index. Index 0 is the unit (the file) and also stands for "none",
// since the unit is nobody's child. Children carry a role in their parent.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "base/names.h"
#include "base/span.h"

namespace elmcart {

using NodeId = uint32_t;
inline constexpr NodeId kNoNode = 0;

enum class Kind : uint8_t {
  // declarations
  Unit,       // the file
  Namespace,  // name may be empty (unnamed namespace)
  Import,     // name: what is imported, as written, without quotes
  Using,      // name: what is made visible; kWholeScope when all of a namespace is, with kPublic for those
              // who name this scope as well. With a Type child
              // that child names what is made visible and `name` is what it is called here
  Alias,      // name: the new name; Type child: what it stands for
  Type,       // class, struct, interface, enum …: detail is a TypeForm
  Variable,   // field, global, local, static local: storage in the modifiers; detail is a VariableForm
  Function,   // detail is a FunctionForm
  Parameter,
  Enumerator,
  TypeRef,  // a written type: name qualified, without arguments; kPointer… modifiers; TypeArgument children
  // statements
  Block,
  If,
  Loop,
  Switch,
  Try,     // Body child, then Handler children, then a Finally child
  Return,
  Throw,
  Jump,    // break, continue, goto
  Guard,   // a critical section: Lock children, then a Body block; detail is a GuardForm
  Once,    // code that runs once per flag: Lock child (the flag), Body child
  ExpressionStatement,
  // expressions
  Name,         // name: as written, qualified; template arguments as TypeArgument children
  Member,       // Receiver child; name: the member
  Index,        // Receiver child, Argument child
  Call,         // Callee child, Argument children
  Create,       // Type child, Argument children; detail is a CreateForm
  Destroy,      // an operand is destroyed
  Assign,       // Target child, Value child (none: the target is taken away); detail is an AssignForm
  Update,       // Target child: read, changed and written back by one
  NullTest,     // Operand child; detail is a NullTestForm; every spelling of "is there anything?"
  Compare,      // two Operand children
  Logic,        // Operand children; detail is a LogicForm
  Conditional,  // Condition, Then, Else
  Lambda,       // Parameter children, Capture children, Body
  Capture,      // name: captured variable; kReference when by reference
  Literal,      // detail is a LiteralForm
  Cast,         // Type child, Operand child
  Await,
  Collection,   // a braced list of values
  AddressOf,    // Operand child
  Dereference,  // Operand child
  This,         // the object that the function was called on
  Other,        // anything else; the children are kept
  FieldInit,    // a constructor's initialiser: name of the field or base, Argument children
  Unread,       // bytes that the grammar could not read
};

enum class Role : uint8_t {
  None, Type, Base, Scope, Parameter, TypeParameter, TypeArgument, Initialiser, Body, Condition, Then, Else,
  Callee, Argument, Receiver, Target, Value, Operand, Lock, Handler, Capture, Member, FieldInit, Placement,
  Annotation,  // a Name child of a Type: what it is marked with
  Finally,     // of a Try: what runs whatever happened
};

enum class TypeForm : uint8_t { Class, Struct, Union, Enum, Interface, Object };
// A getter or setter is called by naming it or assigning to it. An initialiser
// is code that runs when its class or file is loaded. A factory runs in place of
// the constructor whenever an object is asked for, and returns one.
enum class FunctionForm : uint8_t { Function, Constructor, Destructor, Operator, Conversion, Initialiser, Getter, Setter, Factory };
// When a variable's initialiser runs, where the language lets it wait: when the
// variable is first asked for, under the language's guard or without one.
enum class VariableForm : uint8_t { Plain, Lazy, LazyUnguarded };
enum class GuardForm : uint8_t { Scoped, LockUnlock };
// How an object is made: as a value (local, temporary, by-value member), on the
// heap with a bare owner, into an owning single or shared pointer, or in a
// container that constructs it in place.
// Raw: memory for an object, with none of its class's code run.
enum class CreateForm : uint8_t { Value, Heap, Unique, Shared, InPlace, Raw };
enum class AssignForm : uint8_t { Plain, Compound };
enum class NullTestForm : uint8_t { IsNull, IsNotNull };
enum class LogicForm : uint8_t { And, Or, Not };
enum class LiteralForm : uint8_t { Null, Boolean, Number, Text, Character };

// Modifier bits of a node.
enum Modifier : uint32_t {
  kStatic = 1u << 0,        // class-level, or file-local at namespace scope, or function-local static
  kThreadLocal = 1u << 1,
  kExtern = 1u << 2,
  kConst = 1u << 3,         // the object itself may not change
  kConstant = 1u << 4,      // known at compile time (constexpr, constinit for initialisation)
  kConstInit = 1u << 5,
  kMutable = 1u << 6,
  kVolatile = 1u << 7,
  kInline = 1u << 8,
  kVirtual = 1u << 9,       // of a Create: makes an object of whatever class the method was called on
  kOverride = 1u << 10,
  kFinal = 1u << 11,
  kAbstract = 1u << 12,
  kDeleted = 1u << 13,
  kDefaulted = 1u << 14,
  kExplicit = 1u << 15,
  kFriend = 1u << 16,
  kNoThrow = 1u << 17,
  kPublic = 1u << 18,
  kProtected = 1u << 19,
  kPrivate = 1u << 20,
  kDefinition = 1u << 21,   // has a body (function, type) or is the defining declaration (variable)
  kTemplate = 1u << 22,
  kPointer = 1u << 23,      // of a TypeRef: one level or more of pointer
  kReference = 1u << 24,    // of a TypeRef or Capture
  kRvalue = 1u << 25,       // of a TypeRef: binds to temporaries; with kPointer: see kManaged
  kPointeeConst = 1u << 26, // of a TypeRef: what is pointed or referred to may not be changed
  kWholeScope = 1u << 27,   // of a Using
  kArrow = 1u << 28,        // of a Member: reached through a pointer
  kPack = 1u << 29,         // of a Parameter or Argument: any number of them
  kArray = 1u << 30,        // of a TypeRef: an array of such
  kInMacro = 1u << 31,      // stands where a macro was called: not safe to edit
};

// Of a Type: one part of a class that is written in several places.
inline constexpr uint32_t kPart = kExtern;

// Of a Variable: its name belongs to no namespace, wherever it is written.
inline constexpr uint32_t kOfNoScope = kWholeScope;

// Of a Function: it may wait in its middle wherever it calls another such one.
inline constexpr uint32_t kSuspending = kThreadLocal;

// Of a Member: nothing is done where there is no object.
inline constexpr uint32_t kIfThere = kExplicit;

// Of a TypeRef: the variable refers to an object that the language looks after.
inline constexpr uint32_t kManaged = kPointer | kRvalue;

// Of a TypeRef: what is written there says that there may be none (`Desk?`, `Desk | undefined`).
inline constexpr uint32_t kMayBeNone = kExplicit;

// A note's text that says: the comment before the next declaration says that there is one of it.
inline constexpr std::string_view kMeansOne = "means one";
// A note's text that says: the comment of the next declaration says that it is not made for several threads.
inline constexpr std::string_view kOneThread = "one thread";
// How a note begins that says: the comment of the next declaration says that its callers hold a lock. The comment's words follow.
inline constexpr std::string_view kLockHeld = "lock held:";
inline constexpr std::string_view kLockRequired = "lock required:";  // by the signature: one of those that are named

struct Node {
  Kind kind = Kind::Other;
  Role role = Role::None;
  uint8_t detail = 0;  // one of the …Form enumerations, by kind
  uint8_t unused = 0;
  uint32_t modifiers = 0;
  NameId name = 0;
  uint32_t nameBegin = 0;  // where the name's last part stands in the text (declarations, members, names)
  Span span;
  NodeId firstChild = kNoNode;
  NodeId nextSibling = kNoNode;

  bool has(uint32_t bits) const { return (modifiers & bits) != 0; }
  template <typename Form>
  bool is(Kind k, Form form) const { return kind == k && detail == static_cast<uint8_t>(form); }
};

// One file in lowered form. Trivially movable; owns its names.
struct LoweredFile {
  std::string path;      // relative to the surveyed root, '/' between parts
  std::string language;  // id of a row in the table of languages
  std::vector<Node> nodes;
  NameTable names;
  uint32_t textSize = 0;
  uint32_t unreadBytes = 0;             // bytes inside Unread nodes
  std::string problem;                  // why the whole file was left unread; empty otherwise
  bool generated = false;               // no person writes it in this tree: see program/generated.h
  std::vector<NodeId> parents;          // by node, once all are there: fillParents()
  std::vector<uint32_t> lineStarts;     // byte offset of each line's first byte
  std::vector<Span> comments;           // in order
  std::vector<Span> otherBranches;      // of conditional compilation, read beside the one that is taken; in order
  std::vector<std::pair<uint32_t, std::string>> notes;  // line and text of comments addressed to us

  const Node& operator[](NodeId id) const { return nodes[id]; }
  std::string_view name(const Node& node) const { return names.text(node.name); }
  std::string_view name(NodeId id) const { return names.text(nodes[id].name); }

  // 1-based line of a byte offset.
  uint32_t lineOf(uint32_t offset) const;
  uint32_t line(NodeId id) const { return lineOf(nodes[id].nameBegin ? nodes[id].nameBegin : nodes[id].span.begin); }

  // Does the node stand in a branch that may not be built together with what is around it?
  bool inOtherBranch(NodeId id) const {
    for (Span branch : otherBranches)
      if (branch.begin <= nodes[id].span.begin && nodes[id].span.begin < branch.end) return true;
    return false;
  }

  // The first child with that role, or kNoNode.
  NodeId child(NodeId parent, Role role) const {
    for (NodeId c = nodes[parent].firstChild; c != kNoNode; c = nodes[c].nextSibling)
      if (nodes[c].role == role) return c;
    return kNoNode;
  }
};

// To be called when the last node is linked.
void fillParents(LoweredFile& file);

// for (NodeId c : children(file, parent))
class ChildRange {
 public:
  struct Iterator {
    const LoweredFile* file;
    NodeId at;
    NodeId operator*() const { return at; }
    Iterator& operator++() { at = file->nodes[at].nextSibling; return *this; }
    bool operator!=(const Iterator& other) const { return at != other.at; }
  };
  ChildRange(const LoweredFile& file, NodeId parent) : file_(&file), first_(file.nodes[parent].firstChild) {}
  Iterator begin() const { return {file_, first_}; }
  Iterator end() const { return {file_, kNoNode}; }

 private:
  const LoweredFile* file_;
  NodeId first_;
};
inline ChildRange children(const LoweredFile& file, NodeId parent) { return {file, parent}; }

std::string_view kindName(Kind kind);
std::string_view roleName(Role role);

// A readable rendering of a tree, one node a line, for tests and for people
// who add a language.
std::string printTree(const LoweredFile& file, NodeId from = 0);

// Collects nodes while a language lowers a file; parents first.
class TreeBuilder {
 public:
  explicit TreeBuilder(LoweredFile& file) : file_(file) { file_.nodes.emplace_back(); file_.nodes[0].kind = Kind::Unit; lastChild_.push_back(kNoNode); }

  NodeId add(NodeId parent, Kind kind, Role role, Span span) {
    NodeId id = static_cast<NodeId>(file_.nodes.size());
    Node& node = file_.nodes.emplace_back();
    node.kind = kind;
    node.role = role;
    node.span = span;
    lastChild_.push_back(kNoNode);
    link(parent, id);
    return id;
  }

  Node& operator[](NodeId id) { return file_.nodes[id]; }
  NameId intern(std::string_view text) { return file_.names.intern(text); }
  void setName(NodeId id, std::string_view text, uint32_t begin) {
    file_.nodes[id].name = intern(text);
    file_.nodes[id].nameBegin = begin;
  }

 private:
  void link(NodeId parent, NodeId id) {
    if (lastChild_[parent] == kNoNode) file_.nodes[parent].firstChild = id;
    else file_.nodes[lastChild_[parent]].nextSibling = id;
    lastChild_[parent] = id;
  }

  LoweredFile& file_;
  std::vector<NodeId> lastChild_;
};

}  // namespace elmcart

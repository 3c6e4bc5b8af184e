// What the grammars of most languages have in common, as data: a table that
// says of each grammar node what it is (a call, an if, a null literal …) and of
// each language where it differs. lowerer.h walks a grammar tree by it.
#pragma once

#include <absl/container/flat_hash_set.h>

#include <span>
#include <string_view>
#include <vector>

#include "languages/grammar.h"
#include "languages/language.h"

namespace elmcart {

enum class Shape : uint8_t {
  Other,      // kept as Other, children lowered
  Skip,       // of no account
  Comment,
  Pass,       // children lowered in its place
  Paren,      // its one child lowered in its place
  Block,
  If,
  Loop,
  Switch,
  Try,
  Return,
  Throw,
  Jump,
  Statement,  // an expression as a statement
  Name,
  Member,
  Index,
  Call,
  New,
  Assign,
  Compound,   // +=, and ??= in its short spellings
  Update,
  Binary,
  Unary,
  Conditional,
  Lambda,
  Null,
  Boolean,
  Number,
  Text,
  Cast,
  Await,
  Collection,
  This,
  Own,        // the language's own code sees to it
};

struct ShapeRow {
  std::string_view node;
  Shape shape;
  uint8_t own = 0;  // which of the language's own, for Shape::Own
};

struct GrammarSpec {
  const TSLanguage* (*grammar)() = nullptr;
  std::span<const ShapeRow> rows;
  std::span<const std::string_view> valueTypes;  // types whose variables hold the value itself, or text that never changes
  std::span<const std::string_view> nullWords;   // names that mean "nothing"
  bool truthiness = false;                       // any value may stand as a condition
  bool references = true;                        // a variable of a class type refers to an object
  char typeArguments = '<';                      // what opens the arguments of a type
  bool bareThis = false;                         // the object itself is written by a token without a node of its own
  bool lockCalls = false;                        // locks are taken and given back by calls of their members
};

// A spec made ready for quick use; one a language, built on first use.
class SharedGrammar {
 public:
  explicit SharedGrammar(const GrammarSpec& spec);

  struct Fields {
    TSFieldId name, body, condition, consequence, alternative, left, right, op, operand, object, property, field, attribute, function, arguments, type,
        value, parameters, parameter, result, returns, returnType, argument, initializer, superclass, superclasses, path, alias, key, receiver,
        defaultValue, update, expression, scope, definition, declaration, source, pattern, collection, item, target, wrapped, accessors, constructor,
        moduleName, typeParameters, declarationKind, computedValue;
  };

  const GrammarSpec spec;
  const TSLanguage* const language;
  Fields fields;
  absl::flat_hash_set<std::string_view> valueTypes;
  bool hasElseClauses = false;  // an if holds its further branches in clauses of their own

  Shape shapeOf(TSNode node) const { return node.id ? shapeOf(ts_node_symbol(node)) : Shape::Other; }
  Shape shapeOf(TSSymbol symbol) const { return symbol < shape_.size() ? shape_[symbol] : Shape::Other; }
  // Is that what named nodes are called, and not a bare token?
  bool isNamed(std::string_view type) const { return named_.contains(type); }
  uint8_t ownOf(TSNode node) const { return ownOf(ts_node_symbol(node)); }
  uint8_t ownOf(TSSymbol symbol) const { return symbol < own_.size() ? own_[symbol] : 0; }

 private:
  absl::flat_hash_set<std::string_view> named_;
  std::vector<Shape> shape_;  // by grammar symbol
  std::vector<uint8_t> own_;
};

}  // namespace elmcart

// Lowers a C++ file: prepare (macros and #if), parse, repair what still cannot
// be read, then one walk over the grammar's tree.
#include <algorithm>
#include <array>
#include <string>
#include <unordered_map>

#include "base/text.h"
#include "languages/cpp/cpp.h"
#include "languages/cpp/prepare.h"
#include "languages/cpp/repair.h"
#include "languages/grammar.h"

extern "C" const TSLanguage* tree_sitter_cpp(void);

namespace elmcart {
namespace {

// How deep a file may be nested before the rest of that spot stays unread.
constexpr int kDepthLimit = 700;
// Beyond that depth of brackets a file is not even parsed.
constexpr size_t kBracketLimit = 5000;

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

struct TagName {
  std::string_view name;
  Tag tag;
};
constexpr TagName kTagNames[] = {
    {"ERROR", Tag::Error}, {"translation_unit", Tag::TranslationUnit}, {"namespace_definition", Tag::Namespace},
    {"linkage_specification", Tag::Linkage}, {"template_declaration", Tag::Template}, {"class_specifier", Tag::Class},
    {"struct_specifier", Tag::Struct}, {"union_specifier", Tag::Union}, {"enum_specifier", Tag::Enum},
    {"function_definition", Tag::FunctionDefinition}, {"declaration", Tag::Declaration},
    {"field_declaration", Tag::FieldDeclaration}, {"alias_declaration", Tag::Alias}, {"type_definition", Tag::Typedef},
    {"using_declaration", Tag::Using}, {"namespace_alias_definition", Tag::NamespaceAlias},
    {"friend_declaration", Tag::Friend}, {"access_specifier", Tag::Access},
    {"template_instantiation", Tag::Instantiation}, {"declaration_list", Tag::DeclarationList},
    {"field_declaration_list", Tag::FieldList}, {"base_class_clause", Tag::BaseClause},
    {"init_declarator", Tag::InitDeclarator}, {"function_declarator", Tag::FunctionDeclarator},
    {"abstract_function_declarator", Tag::FunctionDeclarator}, {"pointer_declarator", Tag::PointerDeclarator},
    {"abstract_pointer_declarator", Tag::PointerDeclarator}, {"pointer_type_declarator", Tag::PointerDeclarator},
    {"reference_declarator", Tag::ReferenceDeclarator}, {"abstract_reference_declarator", Tag::ReferenceDeclarator},
    {"array_declarator", Tag::ArrayDeclarator}, {"abstract_array_declarator", Tag::ArrayDeclarator},
    {"parenthesized_declarator", Tag::ParenDeclarator}, {"abstract_parenthesized_declarator", Tag::ParenDeclarator},
    {"attributed_declarator", Tag::AttributedDeclarator}, {"structured_binding_declarator", Tag::BindingDeclarator},
    {"bitfield_clause", Tag::BitField}, {"identifier", Tag::Identifier}, {"field_identifier", Tag::FieldIdentifier},
    {"type_identifier", Tag::TypeIdentifier}, {"namespace_identifier", Tag::NamespaceIdentifier},
    {"qualified_identifier", Tag::Qualified}, {"destructor_name", Tag::DestructorName},
    {"operator_name", Tag::OperatorName}, {"operator_cast", Tag::OperatorCast},
    {"template_function", Tag::TemplateFunction}, {"template_method", Tag::TemplateMethod},
    {"template_type", Tag::TemplateType}, {"dependent_name", Tag::DependentName},
    {"dependent_type", Tag::DependentType}, {"primitive_type", Tag::Primitive}, {"sized_type_specifier", Tag::Sized},
    {"placeholder_type_specifier", Tag::Auto}, {"auto", Tag::Auto}, {"decltype", Tag::Decltype},
    {"type_descriptor", Tag::TypeDescriptor}, {"storage_class_specifier", Tag::StorageClass},
    {"type_qualifier", Tag::TypeQualifier}, {"virtual", Tag::VirtualWord}, {"explicit_function_specifier", Tag::ExplicitWord},
    {"virtual_specifier", Tag::VirtualSpecifier}, {"parameter_list", Tag::ParameterList},
    {"parameter_declaration", Tag::ParameterDeclaration}, {"optional_parameter_declaration", Tag::OptionalParameter},
    {"variadic_parameter_declaration", Tag::VariadicParameter}, {"default_method_clause", Tag::DefaultClause},
    {"delete_method_clause", Tag::DeleteClause}, {"pure_virtual_clause", Tag::PureClause},
    {"field_initializer_list", Tag::FieldInits}, {"field_initializer", Tag::FieldInit},
    {"argument_list", Tag::ArgumentList}, {"initializer_list", Tag::InitList}, {"compound_statement", Tag::Compound},
    {"if_statement", Tag::If}, {"for_statement", Tag::For}, {"for_range_loop", Tag::RangeFor},
    {"while_statement", Tag::While}, {"do_statement", Tag::Do}, {"switch_statement", Tag::Switch},
    {"case_statement", Tag::Case}, {"try_statement", Tag::Try}, {"catch_clause", Tag::Catch},
    {"return_statement", Tag::Return}, {"throw_statement", Tag::Throw}, {"break_statement", Tag::Break},
    {"continue_statement", Tag::Continue}, {"goto_statement", Tag::Goto}, {"labeled_statement", Tag::Labeled},
    {"expression_statement", Tag::ExpressionStatement}, {"condition_clause", Tag::ConditionClause},
    {"else_clause", Tag::ElseClause}, {"init_statement", Tag::InitStatement}, {"call_expression", Tag::Call},
    {"field_expression", Tag::FieldExpression}, {"new_expression", Tag::New}, {"delete_expression", Tag::Delete},
    {"assignment_expression", Tag::Assignment}, {"update_expression", Tag::Update}, {"unary_expression", Tag::Unary},
    {"pointer_expression", Tag::Pointer}, {"binary_expression", Tag::Binary},
    {"conditional_expression", Tag::Conditional}, {"lambda_expression", Tag::Lambda}, {"cast_expression", Tag::Cast},
    {"subscript_expression", Tag::Subscript}, {"parenthesized_expression", Tag::Paren},
    {"compound_literal_expression", Tag::CompoundLiteral}, {"this", Tag::This}, {"null", Tag::Null}, {"true", Tag::True},
    {"false", Tag::False}, {"number_literal", Tag::Number}, {"string_literal", Tag::String},
    {"raw_string_literal", Tag::RawString}, {"concatenated_string", Tag::Concatenated}, {"char_literal", Tag::Char},
    {"comma_expression", Tag::Comma}, {"co_await_expression", Tag::CoAwait}, {"co_return_statement", Tag::CoReturn},
    {"co_yield_statement", Tag::CoYield}, {"comment", Tag::Comment}, {"parameter_pack_expansion", Tag::PackExpansion},
    {"trailing_return_type", Tag::TrailingReturn}, {"noexcept", Tag::Noexcept},
    {"type_parameter_declaration", Tag::TypeParameter}, {"optional_type_parameter_declaration", Tag::TypeParameter},
    {"variadic_type_parameter_declaration", Tag::TypeParameter}, {"template_parameter_list", Tag::TemplateParameters},
    {"enumerator_list", Tag::EnumeratorList}, {"enumerator", Tag::Enumerator},
    {"attribute_declaration", Tag::Attribute},
};

struct Grammar {
  std::vector<Tag> tagOf;  // by grammar symbol
  TSFieldId type, declarator, name, body, value, scope, arguments, function, argument, field, op, left, right, condition,
      consequence, alternative, initializer, update, parameters, placement, size, indices, index, captures, path, defaultValue, defaultType,
      label, message;

  Grammar() {
    const TSLanguage* language = tree_sitter_cpp();
    tagOf.assign(ts_language_symbol_count(language), Tag::None);
    for (uint32_t symbol = 0; symbol < tagOf.size(); ++symbol) {
      std::string_view symbolName = ts_language_symbol_name(language, static_cast<TSSymbol>(symbol));
      bool named = ts_language_symbol_type(language, static_cast<TSSymbol>(symbol)) == TSSymbolTypeRegular;
      if (!named) continue;
      for (const TagName& row : kTagNames)
        if (row.name == symbolName) tagOf[symbol] = row.tag;
    }
    auto id = [&](std::string_view text) { return ts_language_field_id_for_name(language, text.data(), static_cast<uint32_t>(text.size())); };
    type = id("type"); declarator = id("declarator"); name = id("name"); body = id("body"); value = id("value");
    scope = id("scope"); arguments = id("arguments"); function = id("function"); argument = id("argument");
    field = id("field"); op = id("operator"); left = id("left"); right = id("right"); condition = id("condition");
    consequence = id("consequence"); alternative = id("alternative"); initializer = id("initializer");
    update = id("update"); parameters = id("parameters"); placement = id("placement"); size = id("size");
    indices = id("indices"); index = id("index"); captures = id("captures"); path = id("path");
    defaultValue = id("default_value"); defaultType = id("default_type"); label = id("label"); message = id("message");
  }
};

const Grammar& grammar() {
  static const Grammar kGrammar;
  return kGrammar;
}

Tag tagOf(TSNode node) {
  TSSymbol symbol = ts_node_symbol(node);
  if (symbol == static_cast<TSSymbol>(-1)) return Tag::Error;
  const auto& table = grammar().tagOf;
  return symbol < table.size() ? table[symbol] : Tag::None;
}

TSNode fieldOf(TSNode node, TSFieldId field) { return ts_node_child_by_field_id(node, field); }
bool isNull(TSNode node) { return ts_node_is_null(node); }

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
  Lowerer(std::string_view text, const MacroLore* lore, LoweredFile& file, TSNode root)
      : text_(text), lore_(lore), file_(file), build_(file), root_(root), cursor_(ts_tree_cursor_new(root)) {}
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

  // ----- names

  // A name without white space and template arguments: "a::B" for "a :: B<int>".
  std::string plainName(TSNode node) const {
    std::string_view raw = textOfNode(node);
    if (std::all_of(raw.begin(), raw.end(), isWordByte)) return std::string(raw);
    std::string out;
    int depth = 0;
    for (size_t i = 0; i < raw.size(); ++i) {
      char c = raw[i];
      bool isOperator = out.size() >= 8 && out.compare(out.size() - 8, 8, "operator") == 0;
      if (c == '<' && !isOperator) ++depth;
      else if (c == '>' && depth > 0) --depth;
      else if (depth == 0 && !isBlank(c)) out += c;
      if (isOperator && c == '<') out += raw.substr(i + 1), i = raw.size();
    }
    if (out.compare(0, 8, "typename") == 0 && out.size() > 8 && raw.size() > 8 && isBlank(raw[8])) out.erase(0, 8);
    if (out.compare(0, 8, "template") == 0 && raw.size() > 8 && isBlank(raw[8])) out.erase(0, 8);
    if (out.compare(0, 2, "::") == 0) out.erase(0, 2);
    return out;
  }

  // The grammar node of a (qualified) name's last part.
  TSNode lastNameNode(TSNode node) const {
    for (;;) {
      Tag tag = tagOf(node);
      if (tag == Tag::Qualified || tag == Tag::TemplateFunction || tag == Tag::TemplateType || tag == Tag::TemplateMethod) {
        TSNode inner = fieldOf(node, grammar().name);
        if (isNull(inner)) return node;
        node = inner;
      } else if ((tag == Tag::DependentName || tag == Tag::DependentType) && ts_node_named_child_count(node) > 0) {
        node = ts_node_named_child(node, ts_node_named_child_count(node) - 1);
      } else {
        return node;
      }
    }
  }

  // ----- types

  void typeArguments(TSNode node, NodeId parent) {
    // The argument list of the last template name inside `node`.
    TSNode at = node;
    for (;;) {
      Tag tag = tagOf(at);
      if (tag == Tag::TemplateType || tag == Tag::TemplateFunction || tag == Tag::TemplateMethod) break;
      if (tag == Tag::Qualified) {
        TSNode inner = fieldOf(at, grammar().name);
        TSNode innerLast = inner;
        if (isNull(inner)) return;
        // Registry<Foo>::get: the scope's arguments matter when the name has none.
        if (tagOf(innerLast) == Tag::Identifier || tagOf(innerLast) == Tag::TypeIdentifier || tagOf(innerLast) == Tag::FieldIdentifier) {
          TSNode scope = fieldOf(at, grammar().scope);
          if (isNull(scope)) return;
          at = scope;
        } else {
          at = inner;
        }
      } else if ((tag == Tag::DependentName || tag == Tag::DependentType) && ts_node_named_child_count(at) > 0) {
        at = ts_node_named_child(at, ts_node_named_child_count(at) - 1);
      } else {
        return;
      }
    }
    TSNode list = fieldOf(at, grammar().arguments);
    if (isNull(list)) return;
    Deeper deeper(*this);
    if (tooDeep(list, parent)) return;
    Children kids(*this, list);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::TypeDescriptor) typeDescriptor(kids[i].node, parent, Role::TypeArgument);
      else if (kids[i].tag != Tag::None && kids[i].tag != Tag::Comment) {
        NodeId id = build_.add(parent, Kind::TypeRef, Role::TypeArgument, spanOf(kids[i].node));
        build_.setName(id, plainName(kids[i].node), begin(kids[i].node));
      }
    }
  }

  NodeId typeRef(TSNode typeNode, bool hasType, Span fallback, NodeId parent, Role role, const Declarator& declarator, bool constBase) {
    NodeId id = build_.add(parent, Kind::TypeRef, role, hasType ? spanOf(typeNode) : fallback);
    uint32_t bits = 0;
    bool indirect = declarator.pointer || declarator.reference;
    if (declarator.pointer) bits |= kPointer;
    if (declarator.reference) bits |= kReference;
    if (declarator.rvalue) bits |= kRvalue;
    if (declarator.array) bits |= kArray;
    if (constBase) bits |= indirect ? kPointeeConst : kConst;
    if (declarator.constPointer) bits |= kConst;
    if (declarator.pack) bits |= kPack;
    if (declarator.functionPointer) {
      build_[id].modifiers = bits | kPointer;
      build_.setName(id, "(function)", begin(typeNode));
      return id;
    }
    if (hasType) {
      Tag tag = tagOf(typeNode);
      if (tag == Tag::Class || tag == Tag::Struct || tag == Tag::Union || tag == Tag::Enum) {
        TSNode name = fieldOf(typeNode, grammar().name);
        if (!isNull(name)) build_.setName(id, plainName(name), begin(lastNameNode(name)));
      } else if (tag == Tag::Auto) {
        build_.setName(id, "auto", begin(typeNode));
      } else if (tag == Tag::Decltype) {
        build_.setName(id, "auto", begin(typeNode));
      } else if (tag == Tag::Sized || tag == Tag::Primitive) {
        std::string words(textOfNode(typeNode));
        build_.setName(id, words, begin(typeNode));
      } else {
        build_.setName(id, plainName(typeNode), begin(lastNameNode(typeNode)));
        typeArguments(typeNode, id);
      }
    }
    build_[id].modifiers = bits;
    return id;
  }

  // A type as it stands in an argument list or a cast: "const Foo*".
  void typeDescriptor(TSNode node, NodeId parent, Role role) {
    Specifiers specifiers;
    Declarator declarator;
    {
      Children kids(*this, node);
      for (size_t i = 0; i < kids.size(); ++i) {
        if (kids[i].field == grammar().type) {
          specifiers.type = kids[i].node;
          specifiers.hasType = true;
        } else if (kids[i].field == grammar().declarator) {
          readDeclarator(kids[i].node, declarator);
        } else if (kids[i].tag == Tag::TypeQualifier) {
          specifiers.constObject |= textOfNode(kids[i].node) == "const";
        }
      }
    }
    // `void(int)` as an argument of std::function: the signature is no matter here.
    declarator.functionPointer = declarator.isFunction;
    typeRef(specifiers.type, specifiers.hasType, spanOf(node), parent, role, declarator, specifiers.constObject);
  }

  void readDeclarator(TSNode node, Declarator& out) {
    for (int guard = 0; guard < 64; ++guard) {
      Tag tag = tagOf(node);
      if (tag == Tag::PointerDeclarator || tag == Tag::ReferenceDeclarator || tag == Tag::ArrayDeclarator ||
          tag == Tag::ParenDeclarator || tag == Tag::AttributedDeclarator || tag == Tag::FunctionDeclarator || tag == Tag::VariadicParameter) {
        TSNode inner = fieldOf(node, grammar().declarator);
        if (tag == Tag::PointerDeclarator) {
          out.pointer = true;
          out.constPointer = false;
          for (uint32_t i = 0; i < ts_node_named_child_count(node); ++i)
            if (tagOf(ts_node_named_child(node, i)) == Tag::TypeQualifier && textOfNode(ts_node_named_child(node, i)) == "const") out.constPointer = true;
        }
        if (tag == Tag::ReferenceDeclarator) {
          out.reference = true;
          if (textOfNode(node).substr(0, 2) == "&&") out.rvalue = true;
        }
        if (tag == Tag::ArrayDeclarator) out.array = true;
        if (tag == Tag::FunctionDeclarator) {
          if (!isNull(inner) && tagOf(inner) == Tag::ParenDeclarator && looksLikePointerTo(inner)) {
            out.functionPointer = true;
          } else if (!out.isFunction) {
            out.isFunction = true;
            out.functionNode = node;
          }
        }
        if (isNull(inner)) {
          uint32_t count = ts_node_named_child_count(node);
          if (count == 0 || tag == Tag::FunctionDeclarator) return;
          inner = ts_node_named_child(node, tag == Tag::AttributedDeclarator ? 0 : count - 1);
          Tag innerTag = tagOf(inner);
          if (innerTag == Tag::TypeQualifier || innerTag == Tag::ParameterList || innerTag == Tag::Number) return;
        }
        node = inner;
        continue;
      }
      if (tag == Tag::BindingDeclarator) {
        out.bindingNode = node;
        return;
      }
      if (tag == Tag::Identifier || tag == Tag::FieldIdentifier || tag == Tag::TypeIdentifier || tag == Tag::Qualified ||
          tag == Tag::DestructorName || tag == Tag::OperatorName || tag == Tag::OperatorCast || tag == Tag::TemplateFunction || tag == Tag::TemplateMethod) {
        out.nameNode = node;
        out.hasName = true;
        if (tag == Tag::OperatorCast || (tag == Tag::Qualified && tagOf(lastNameNode(node)) == Tag::OperatorCast)) {
          out.isFunction = true;
          TSNode castNode = lastNameNode(node);
          TSNode inner = fieldOf(castNode, grammar().declarator);
          for (int i = 0; !isNull(inner) && i < 16; ++i) {
            if (tagOf(inner) == Tag::FunctionDeclarator) out.functionNode = inner;
            if (tagOf(inner) == Tag::PointerDeclarator) out.pointer = true;
            if (tagOf(inner) == Tag::ReferenceDeclarator) out.reference = true;
            TSNode next = fieldOf(inner, grammar().declarator);
            if (isNull(next) && ts_node_named_child_count(inner) > 0 && tagOf(inner) != Tag::FunctionDeclarator) next = ts_node_named_child(inner, ts_node_named_child_count(inner) - 1);
            inner = next;
          }
        }
      }
      return;
    }
  }

  bool looksLikePointerTo(TSNode paren) const {
    for (uint32_t i = 0; i < ts_node_named_child_count(paren); ++i) {
      Tag tag = tagOf(ts_node_named_child(paren, i));
      if (tag == Tag::PointerDeclarator || tag == Tag::ReferenceDeclarator) return true;
    }
    return textOfNode(paren).find('*') != std::string_view::npos;
  }

  Specifiers readSpecifiers(const Children& kids) {
    Specifiers out;
    for (size_t i = 0; i < kids.size(); ++i) {
      Child kid = kids[i];
      std::string_view word = kid.tag == Tag::StorageClass || kid.tag == Tag::TypeQualifier || kid.tag == Tag::None ? textOfNode(kid.node) : std::string_view{};
      if (kid.field == grammar().type && !out.hasType) {
        out.type = kid.node;
        out.hasType = true;
      } else if (kid.tag == Tag::StorageClass || kid.tag == Tag::TypeQualifier || kid.tag == Tag::None) {
        if (word == "static") out.modifiers |= kStatic;
        else if (word == "extern") out.modifiers |= kExtern;
        else if (word == "thread_local" || word == "__thread" || word == "_Thread_local") out.modifiers |= kThreadLocal;
        else if (word == "inline") out.modifiers |= kInline;
        else if (word == "const") out.constObject = true;
        else if (word == "constexpr") out.modifiers |= kConstant, out.constObject = true;
        else if (word == "constinit") out.modifiers |= kConstInit;
        else if (word == "mutable") out.modifiers |= kMutable;
        else if (word == "volatile") out.modifiers |= kVolatile;
        else if (word == "virtual") out.modifiers |= kVirtual;
        else if (word == "friend") out.modifiers |= kFriend;
      } else if (kid.tag == Tag::VirtualWord) {
        out.modifiers |= kVirtual;
      } else if (kid.tag == Tag::ExplicitWord) {
        out.modifiers |= kExplicit;
      }
    }
    return out;
  }

  // ----- declarations

  void declarations(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      Child kid = kids[i];
      if (kid.tag == Tag::Access) {
        std::string_view word = textOfNode(kid.node);
        visibility = word.substr(0, 6) == "public" ? kPublic : word.substr(0, 7) == "private" ? kPrivate : kProtected;
        continue;
      }
      declaration(kid, parent, place, className, visibility);
    }
  }

  void declaration(Child kid, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
    switch (kid.tag) {
      case Tag::Namespace: namespaceDefinition(kid.node, parent); break;
      case Tag::Linkage: {
        TSNode body = fieldOf(kid.node, grammar().body);
        if (isNull(body)) break;
        if (tagOf(body) == Tag::DeclarationList) declarations(body, parent, place, className, visibility);
        else {
          Deeper deeper(*this);
          if (!tooDeep(body, parent)) declaration({body, 0, tagOf(body)}, parent, place, className, visibility);
        }
        break;
      }
      case Tag::Template: templateDeclaration(kid.node, parent, place, className, visibility); break;
      case Tag::Class: case Tag::Struct: case Tag::Union: case Tag::Enum:
        typeDefinition(kid.node, parent, visibility);
        break;
      case Tag::FunctionDefinition: functionDefinition(kid.node, parent, place, className, visibility); break;
      case Tag::Declaration: case Tag::FieldDeclaration: variables(kid.node, parent, place, className, visibility); break;
      case Tag::Alias: aliasDeclaration(kid.node, parent); break;
      case Tag::Typedef: typedefDeclaration(kid.node, parent, visibility); break;
      case Tag::Using: usingDeclaration(kid.node, parent); break;
      case Tag::NamespaceAlias: {
        TSNode name = fieldOf(kid.node, grammar().name);
        if (isNull(name)) break;
        NodeId id = build_.add(parent, Kind::Alias, Role::Member, spanOf(kid.node));
        build_.setName(id, textOfNode(name), begin(name));
        uint32_t count = ts_node_named_child_count(kid.node);
        TSNode target = ts_node_named_child(kid.node, count - 1);
        NodeId ref = build_.add(id, Kind::TypeRef, Role::Type, spanOf(target));
        build_.setName(ref, plainName(target), begin(target));
        break;
      }
      case Tag::Friend: friendDeclaration(kid.node, parent); break;
      case Tag::Error: errorNode(kid.node, parent, place, className, visibility); break;
      case Tag::ExpressionStatement:
        // At class or namespace scope: a macro's leftovers. At a class's scope it
        // may take copying away.
        noteMacroMember(kid.node, parent, className, place);
        break;
      default: break;
    }
  }

  // A macro call in a class body that is known to delete the copy operations.
  void noteMacroMember(TSNode node, NodeId parent, std::string_view className, Place place) {
    if (place != Place::ClassScope || !lore_) return;
    std::string_view text = trim(textOfNode(node));
    size_t end = 0;
    while (end < text.size() && isWordByte(text[end])) ++end;
    std::string word(text.substr(0, end));
    if (!lore_->forbidsCopy.count(word)) return;
    NodeId id = build_.add(parent, Kind::Function, Role::Member, spanOf(node));
    build_.setName(id, className, begin(node));
    build_[id].detail = static_cast<uint8_t>(FunctionForm::Constructor);
    build_[id].modifiers = kPrivate | kDeleted | kInMacro;
    NodeId parameter = build_.add(id, Kind::Parameter, Role::Parameter, spanOf(node));
    NodeId type = build_.add(parameter, Kind::TypeRef, Role::Type, spanOf(node));
    build_.setName(type, className, begin(node));
    build_[type].modifiers = kReference | kPointeeConst;
  }

  static bool isWholeConstruct(Tag tag) {
    switch (tag) {
      case Tag::Namespace: case Tag::Linkage: case Tag::Template: case Tag::Class: case Tag::Struct: case Tag::Union:
      case Tag::Enum: case Tag::FunctionDefinition: case Tag::Declaration: case Tag::FieldDeclaration: case Tag::Alias:
      case Tag::Typedef: case Tag::Using: case Tag::Compound: case Tag::If: case Tag::For: case Tag::RangeFor:
      case Tag::While: case Tag::Do: case Tag::Switch: case Tag::Return: case Tag::ExpressionStatement: case Tag::Try: case Tag::Comment:
        return true;
      default: return false;
    }
  }

  // What the grammar could not read: the whole constructs inside are still used,
  // the bytes between them are unread.
  void errorNode(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    Children kids(*this, node);
    uint32_t from = begin(node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (!isWholeConstruct(kids[i].tag)) continue;
      Span span = spanOf(kids[i].node);
      unread(parent, trimmed({from, span.begin}));
      if (kids[i].tag != Tag::Comment) {
        if (place == Place::FunctionBody) statement(kids[i], parent, Role::None);
        else if (!isStatement(kids[i].tag)) declaration(kids[i], parent, place, className, visibility);
      }
      from = span.end;
    }
    unread(parent, trimmed({from, ts_node_end_byte(node)}));
  }

  static bool isStatement(Tag tag) {
    return tag == Tag::Compound || tag == Tag::If || tag == Tag::For || tag == Tag::RangeFor || tag == Tag::While ||
           tag == Tag::Do || tag == Tag::Switch || tag == Tag::Return || tag == Tag::ExpressionStatement || tag == Tag::Try;
  }

  Span trimmed(Span span) const {
    while (!span.empty() && isBlank(text_[span.begin])) ++span.begin;
    while (!span.empty() && isBlank(text_[span.end - 1])) --span.end;
    return span;
  }

  void namespaceDefinition(TSNode node, NodeId parent) {
    NodeId id = build_.add(parent, Kind::Namespace, Role::Member, spanOf(node));
    TSNode name = fieldOf(node, grammar().name);
    if (!isNull(name)) build_.setName(id, plainName(name), begin(name));
    if (textOfNode(node).substr(0, 6) == "inline") build_[id].modifiers |= kInline;
    TSNode body = fieldOf(node, grammar().body);
    if (!isNull(body)) declarations(body, id, Place::NamespaceScope, "", 0);
  }

  void templateDeclaration(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    std::vector<std::pair<std::string, uint32_t>> saved = std::move(templateParameters_);
    templateParameters_.clear();
    Children kids(*this, node);
    bool first = true;
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::TemplateParameters) {
        Children parameters(*this, kids[i].node);
        for (size_t k = 0; k < parameters.size(); ++k) {
          if (parameters[k].tag != Tag::TypeParameter) continue;
          TSNode name = parameters[k].node;
          if (TSNode named = fieldOf(name, grammar().name); !isNull(named)) name = named;
          else if (ts_node_named_child_count(name) > 0) name = ts_node_named_child(name, 0);
          templateParameters_.emplace_back(std::string(textOfNode(name)), begin(name));
        }
        continue;
      }
      if (kids[i].tag == Tag::None || !first) continue;
      first = false;
      isTemplate_ = true;
      declaration(kids[i], parent, place, className, visibility);
      isTemplate_ = false;
    }
    templateParameters_ = std::move(saved);
  }

  void attachTemplate(NodeId id) {
    if (!isTemplate_) return;
    isTemplate_ = false;
    build_[id].modifiers |= kTemplate;
    for (auto& [name, at] : templateParameters_) {
      NodeId parameter = build_.add(id, Kind::TypeRef, Role::TypeParameter, {at, at});
      build_.setName(parameter, name, at);
    }
    templateParameters_.clear();
  }

  // Returns kNoNode for a mere mention ("struct Foo* p").
  NodeId typeDefinition(TSNode node, NodeId parent, uint32_t visibility) {
    Tag tag = tagOf(node);
    TSNode name = fieldOf(node, grammar().name);
    TSNode body = fieldOf(node, grammar().body);
    NodeId id = build_.add(parent, Kind::Type, Role::Member, spanOf(node));
    TypeForm form = tag == Tag::Class ? TypeForm::Class : tag == Tag::Struct ? TypeForm::Struct : tag == Tag::Union ? TypeForm::Union : TypeForm::Enum;
    build_[id].detail = static_cast<uint8_t>(form);
    build_[id].modifiers = visibility | (isNull(body) ? 0u : static_cast<uint32_t>(kDefinition));
    attachTemplate(id);
    std::string plain;
    if (!isNull(name)) {
      plain = plainName(name);
      build_.setName(id, plain, begin(lastNameNode(name)));
    } else {
      build_[id].nameBegin = begin(node);
    }
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::BaseClause) bases(kids[i].node, id, tag == Tag::Class ? uint32_t{kPrivate} : uint32_t{kPublic});
      if (kids[i].tag == Tag::VirtualSpecifier && textOfNode(kids[i].node) == "final") build_[id].modifiers |= kFinal;
      if (kids[i].tag == Tag::FieldList)
        declarations(kids[i].node, id, Place::ClassScope, lastPart(plain), tag == Tag::Class ? kPrivate : kPublic);
      if (kids[i].tag == Tag::EnumeratorList) {
        Children values(*this, kids[i].node);
        for (size_t k = 0; k < values.size(); ++k) {
          if (values[k].tag != Tag::Enumerator) continue;
          TSNode valueName = fieldOf(values[k].node, grammar().name);
          if (isNull(valueName)) continue;
          NodeId value = build_.add(id, Kind::Enumerator, Role::Member, spanOf(values[k].node));
          build_.setName(value, textOfNode(valueName), begin(valueName));
        }
      }
    }
    return id;
  }

  void bases(TSNode node, NodeId type, uint32_t defaultVisibility) {
    Children kids(*this, node);
    uint32_t visibility = defaultVisibility;
    for (size_t i = 0; i < kids.size(); ++i) {
      switch (kids[i].tag) {
        case Tag::Access: {
          std::string_view word = textOfNode(kids[i].node);
          visibility = word == "public" ? kPublic : word == "private" ? kPrivate : kProtected;
          break;
        }
        case Tag::TypeIdentifier: case Tag::Qualified: case Tag::TemplateType: {
          NodeId ref = typeRef(kids[i].node, true, {}, type, Role::Base, Declarator{}, false);
          build_[ref].modifiers |= visibility;
          visibility = defaultVisibility;
          break;
        }
        default: break;
      }
    }
  }

  void aliasDeclaration(TSNode node, NodeId parent) {
    TSNode name = fieldOf(node, grammar().name);
    TSNode type = fieldOf(node, grammar().type);
    if (isNull(name) || isNull(type)) return;
    NodeId id = build_.add(parent, Kind::Alias, Role::Member, spanOf(node));
    attachTemplate(id);
    build_.setName(id, textOfNode(name), begin(name));
    typeDescriptor(type, id, Role::Type);
  }

  void typedefDeclaration(TSNode node, NodeId parent, uint32_t visibility) {
    Children kids(*this, node);
    Specifiers specifiers = readSpecifiers(kids);
    if (!specifiers.hasType) return;
    Tag tag = tagOf(specifiers.type);
    bool defines = (tag == Tag::Class || tag == Tag::Struct || tag == Tag::Union || tag == Tag::Enum) && !isNull(fieldOf(specifiers.type, grammar().body));
    bool named = defines && !isNull(fieldOf(specifiers.type, grammar().name));
    NodeId type = defines ? typeDefinition(specifiers.type, parent, visibility) : kNoNode;
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].field != grammar().declarator) continue;
      Declarator declarator;
      readDeclarator(kids[i].node, declarator);
      if (!declarator.hasName) continue;
      if (type != kNoNode && !named && !declarator.pointer) {  // typedef struct { … } Name;
        build_.setName(type, textOfNode(declarator.nameNode), begin(declarator.nameNode));
        named = true;
        continue;
      }
      NodeId id = build_.add(parent, Kind::Alias, Role::Member, spanOf(node));
      build_.setName(id, textOfNode(declarator.nameNode), begin(declarator.nameNode));
      declarator.functionPointer |= declarator.isFunction;
      typeRef(specifiers.type, true, {}, id, Role::Type, declarator, specifiers.constObject);
    }
  }

  void usingDeclaration(TSNode node, NodeId parent) {
    bool whole = false;
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::None && textOfNode(kids[i].node) == "namespace") whole = true;
      if (kids[i].tag == Tag::Identifier || kids[i].tag == Tag::Qualified || kids[i].tag == Tag::NamespaceIdentifier) {
        NodeId id = build_.add(parent, Kind::Using, Role::Member, spanOf(node));
        build_.setName(id, plainName(kids[i].node), begin(lastNameNode(kids[i].node)));
        if (whole) build_[id].modifiers |= kWholeScope;
      }
    }
  }

  void friendDeclaration(TSNode node, NodeId parent) {
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      Tag tag = kids[i].tag;
      if (tag == Tag::TypeIdentifier || tag == Tag::Qualified || tag == Tag::TemplateType || tag == Tag::Class || tag == Tag::Struct) {
        TSNode name = kids[i].node;
        if (tag == Tag::Class || tag == Tag::Struct) name = fieldOf(name, grammar().name);
        if (isNull(name)) continue;
        NodeId id = build_.add(parent, Kind::TypeRef, Role::Member, spanOf(node));
        build_.setName(id, plainName(name), begin(name));
        build_[id].modifiers = kFriend;
      } else if (tag == Tag::Declaration) {  // friend int look(const Keeper&);
        Children parts(*this, kids[i].node);
        for (size_t k = 0; k < parts.size(); ++k) {
          if (parts[k].field != grammar().declarator) continue;
          Declarator declarator;
          readDeclarator(parts[k].node, declarator);
          if (!declarator.isFunction || !declarator.hasName) continue;
          NodeId id = build_.add(parent, Kind::TypeRef, Role::Member, spanOf(node));
          build_.setName(id, lastPart(textOfNode(declarator.nameNode)), begin(declarator.nameNode));
          build_[id].modifiers = kFriend;
        }
      }
    }
  }

  void parameters(TSNode functionNode, NodeId function) {
    TSNode list = fieldOf(functionNode, grammar().parameters);
    if (isNull(list)) return;
    Deeper deeper(*this);
    if (tooDeep(list, function)) return;
    Children kids(*this, list);
    for (size_t i = 0; i < kids.size(); ++i) {
      Tag tag = kids[i].tag;
      if (tag != Tag::ParameterDeclaration && tag != Tag::OptionalParameter && tag != Tag::VariadicParameter) continue;
      Children parts(*this, kids[i].node);
      Specifiers specifiers = readSpecifiers(parts);
      Declarator declarator;
      TSNode defaultValue = fieldOf(kids[i].node, grammar().defaultValue);
      for (size_t k = 0; k < parts.size(); ++k)
        if (parts[k].field == grammar().declarator) readDeclarator(parts[k].node, declarator);
      if (declarator.isFunction) declarator.functionPointer = true;
      if (!declarator.hasName && specifiers.hasType && tagOf(specifiers.type) == Tag::Primitive && textOfNode(specifiers.type) == "void" && !declarator.pointer) continue;
      NodeId id = build_.add(function, Kind::Parameter, Role::Parameter, spanOf(kids[i].node));
      if (declarator.hasName) build_.setName(id, textOfNode(declarator.nameNode), begin(declarator.nameNode));
      if (tag == Tag::VariadicParameter) build_[id].modifiers |= kPack;
      typeRef(specifiers.type, specifiers.hasType, spanOf(kids[i].node), id, Role::Type, declarator, specifiers.constObject);
      if (!isNull(defaultValue)) expression(defaultValue, id, Role::Initialiser);
    }
  }

  // Creates the Function node for a declarator; the caller adds a body.
  NodeId functionNode(TSNode whole, const Specifiers& specifiers, const Declarator& declarator, NodeId parent, Place place,
                      std::string_view className, uint32_t visibility) {
    NodeId id = build_.add(parent, Kind::Function, Role::Member, spanOf(whole));
    attachTemplate(id);
    std::string qualified = declarator.hasName ? plainName(declarator.nameNode) : "";
    FunctionForm form = FunctionForm::Function;
    std::string last(lastPart(qualified));
    TSNode lastNode = declarator.hasName ? lastNameNode(declarator.nameNode) : whole;
    Tag lastTag = tagOf(lastNode);
    uint32_t modifiers = specifiers.modifiers | visibility;
    if (lastTag == Tag::DestructorName) {
      form = FunctionForm::Destructor;
    } else if (lastTag == Tag::OperatorCast) {
      form = FunctionForm::Conversion;
      qualified = qualified.substr(0, qualified.find('('));
    } else if (lastTag == Tag::OperatorName) {
      form = FunctionForm::Operator;
    } else if (!specifiers.hasType) {
      std::string_view scope = scopePart(qualified);
      if (!scope.empty() ? lastPart(scope) == last : place == Place::ClassScope && last == className) form = FunctionForm::Constructor;
    }
    if (form == FunctionForm::Function && !specifiers.hasType && scopePart(qualified).empty()) {
      // TEST(Quay, Opens) { … } and the like: a macro that defines a function.
      std::string_view raw = textOfNode(declarator.functionNode);
      if (place != Place::ClassScope && !isNull(declarator.functionNode)) {
        std::string name;
        for (char c : raw.substr(0, 200)) {
          if (c == '\n' || c == '\r') continue;
          if (c == ' ' && !name.empty() && name.back() == ' ') continue;
          name += c;
        }
        build_.setName(id, name, begin(declarator.functionNode));
        build_[id].modifiers = modifiers | kInMacro;
        return id;
      }
      modifiers |= kInMacro;
    }
    build_[id].detail = static_cast<uint8_t>(form);
    build_.setName(id, qualified, begin(lastNode));
    if (!isNull(declarator.functionNode)) {
      Children kids(*this, declarator.functionNode);
      for (size_t i = 0; i < kids.size(); ++i) {
        Tag tag = kids[i].tag;
        if (tag == Tag::VirtualSpecifier) modifiers |= textOfNode(kids[i].node) == "final" ? kFinal : kOverride;
        if (tag == Tag::TypeQualifier && textOfNode(kids[i].node) == "const") modifiers |= kConst;
        if (tag == Tag::Noexcept) modifiers |= kNoThrow;
      }
      parameters(declarator.functionNode, id);
    }
    build_[id].modifiers |= modifiers;
    if (specifiers.hasType || form == FunctionForm::Conversion) {
      Declarator result = declarator;
      result.isFunction = false;
      result.functionPointer = false;
      TSNode type = specifiers.type;
      bool hasType = specifiers.hasType;
      bool constBase = specifiers.constObject;
      // auto f() -> T
      if (hasType && tagOf(type) == Tag::Auto && !isNull(declarator.functionNode)) {
        Children kids(*this, declarator.functionNode);
        for (size_t i = 0; i < kids.size(); ++i) {
          if (kids[i].tag != Tag::TrailingReturn || ts_node_named_child_count(kids[i].node) == 0) continue;
          typeDescriptor(ts_node_named_child(kids[i].node, 0), id, Role::Type);
          return id;
        }
      }
      if (form == FunctionForm::Conversion) {
        type = fieldOf(lastNode, grammar().type);
        hasType = !isNull(type);
      }
      typeRef(type, hasType, spanOf(whole), id, Role::Type, result, constBase);
    }
    return id;
  }

  void functionDefinition(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    Children kids(*this, node);
    Specifiers specifiers = readSpecifiers(kids);
    Declarator declarator;
    uint32_t extra = 0;
    TSNode body = fieldOf(node, grammar().body);
    TSNode inits{};
    bool hasInits = false, asTry = false;
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].field == grammar().declarator) readDeclarator(kids[i].node, declarator);
      if (kids[i].tag == Tag::DefaultClause) extra |= kDefaulted;
      if (kids[i].tag == Tag::DeleteClause) extra |= kDeleted;
      if (kids[i].tag == Tag::PureClause) extra |= kAbstract;
      if (kids[i].tag == Tag::FieldInits) inits = kids[i].node, hasInits = true;
      if (kids[i].tag == Tag::Try) body = kids[i].node, asTry = true;
    }
    // `class Q_EXPORT Name { … }` left by an unknown macro reads as a function.
    if (specifiers.hasType && !declarator.isFunction) {
      Tag tag = tagOf(specifiers.type);
      if (tag == Tag::Class || tag == Tag::Struct) {
        unread(parent, spanOf(specifiers.type));
        return;
      }
    }
    specifiers.modifiers |= extra | (isNull(body) ? 0u : static_cast<uint32_t>(kDefinition));
    if (extra & kDefaulted) specifiers.modifiers |= kDefinition;
    NodeId id = functionNode(node, specifiers, declarator, parent, place, className, visibility);
    if (hasInits) fieldInits(inits, id);
    if (isNull(body)) return;
    if (asTry) {
      NodeId block = build_.add(id, Kind::Block, Role::Body, spanOf(body));
      statement({body, 0, Tag::Try}, block, Role::None);
    } else {
      block(body, id, Role::Body);
    }
  }

  void fieldInits(TSNode node, NodeId function) {
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag != Tag::FieldInit) continue;
      NodeId id = build_.add(function, Kind::FieldInit, Role::FieldInit, spanOf(kids[i].node));
      Children parts(*this, kids[i].node);
      for (size_t k = 0; k < parts.size(); ++k) {
        if (parts[k].tag == Tag::ArgumentList || parts[k].tag == Tag::InitList) arguments(parts[k].node, id);
        else if (k == 0) build_.setName(id, plainName(parts[k].node), begin(lastNameNode(parts[k].node)));
      }
    }
  }

  // One declaration may declare several names, a type and functions at once.
  void variables(TSNode node, NodeId parent, Place place, std::string_view className, uint32_t visibility) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    Children kids(*this, node);
    Specifiers specifiers = readSpecifiers(kids);
    std::string_view macroWord = specifiers.hasType ? std::string_view{} : trim(textOfNode(node));
    if (!macroWord.empty()) noteMacroMember(node, parent, className, place);
    if (specifiers.hasType) {
      Tag tag = tagOf(specifiers.type);
      bool aggregate = tag == Tag::Class || tag == Tag::Struct || tag == Tag::Union || tag == Tag::Enum;
      if (aggregate && !isNull(fieldOf(specifiers.type, grammar().body))) typeDefinition(specifiers.type, parent, visibility);
      else if (aggregate && ts_node_named_child_count(node) == 1) typeDefinition(specifiers.type, parent, visibility);  // forward
    }
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].field != grammar().declarator) continue;
      // Of a field, "= value" or "{value}" follows its declarator as a sibling.
      TSNode fieldValue{};
      bool hasFieldValue = false;
      for (size_t k = i + 1; k < kids.size() && kids[k].field != grammar().declarator; ++k)
        if (kids[k].field == grammar().defaultValue) fieldValue = kids[k].node, hasFieldValue = true;
      oneVariable(node, kids[i].node, specifiers, parent, place, className, visibility, hasFieldValue ? &fieldValue : nullptr, kids);
    }
  }

  void oneVariable(TSNode whole, TSNode declaratorNode, const Specifiers& specifiers, NodeId parent, Place place,
                   std::string_view className, uint32_t visibility, const TSNode* fieldValue, const Children& siblings) {
    TSNode value{};
    bool hasValue = false;
    TSNode inner = declaratorNode;
    if (tagOf(declaratorNode) == Tag::InitDeclarator) {
      inner = fieldOf(declaratorNode, grammar().declarator);
      value = fieldOf(declaratorNode, grammar().value);
      hasValue = !isNull(value);
      if (isNull(inner)) return;
    }
    if (fieldValue) {
      value = *fieldValue;
      hasValue = true;
    }
    Declarator declarator;
    readDeclarator(inner, declarator);
    if (!isNull(declarator.bindingNode) && ts_node_named_child_count(declarator.bindingNode) > 0) {
      for (uint32_t i = 0; i < ts_node_named_child_count(declarator.bindingNode); ++i) {
        TSNode name = ts_node_named_child(declarator.bindingNode, i);
        NodeId id = build_.add(parent, Kind::Variable, Role::Member, spanOf(whole));
        build_.setName(id, textOfNode(name), begin(name));
        build_[id].modifiers |= kDefinition;
        if (i == 0 && hasValue) expression(value, id, Role::Initialiser);
      }
      return;
    }
    if (!declarator.hasName) return;
    if (declarator.isFunction && !hasValue && !(place == Place::FunctionBody && looksLikeConstruction(declarator.functionNode))) {
      Specifiers own = specifiers;
      for (size_t i = 0; i < siblings.size(); ++i) {
        if (siblings[i].tag == Tag::DefaultClause) own.modifiers |= kDefaulted | kDefinition;
        if (siblings[i].tag == Tag::DeleteClause) own.modifiers |= kDeleted;
        if (siblings[i].tag == Tag::PureClause) own.modifiers |= kAbstract;
      }
      if (!specifiers.hasType && lore_ && place == Place::ClassScope && lore_->forbidsCopy.count(plainName(declarator.nameNode))) return;  // noted already
      functionNode(whole, own, declarator, parent, place, className, visibility);
      return;
    }
    if (declarator.isFunction && hasValue && tagOf(value) == Tag::Number) {  // virtual void f() = 0;
      Specifiers own = specifiers;
      own.modifiers |= kAbstract;
      functionNode(whole, own, declarator, parent, place, className, visibility);
      return;
    }
    NodeId id = build_.add(parent, Kind::Variable, Role::Member, spanOf(whole));
    attachTemplate(id);
    std::string name = plainName(declarator.nameNode);
    build_.setName(id, name, begin(lastNameNode(declarator.nameNode)));
    uint32_t modifiers = specifiers.modifiers | visibility;
    if (specifiers.constObject && !declarator.pointer && !declarator.reference) modifiers |= kConst;
    if (declarator.constPointer) modifiers |= kConst;
    bool declarationOnly = ((modifiers & kExtern) && !hasValue) ||
                           (place == Place::ClassScope && (modifiers & kStatic) && !(modifiers & (kInline | kConstant)) && !hasValue);
    if (!declarationOnly) modifiers |= kDefinition;
    build_[id].modifiers |= modifiers;
    Declarator forType = declarator;
    bool asConstruction = declarator.isFunction;
    if (asConstruction) {
      forType.isFunction = false;
    }
    typeRef(specifiers.type, specifiers.hasType, spanOf(whole), id, Role::Type, forType, specifiers.constObject);
    if (asConstruction) {
      NodeId create = build_.add(id, Kind::Create, Role::Initialiser, spanOf(declarator.functionNode));
      build_[create].detail = static_cast<uint8_t>(CreateForm::Value);
      typeRef(specifiers.type, specifiers.hasType, spanOf(whole), create, Role::Type, Declarator{}, false);
      TSNode list = fieldOf(declarator.functionNode, grammar().parameters);
      Children kids(*this, list);
      for (size_t i = 0; i < kids.size(); ++i) {
        if (kids[i].tag != Tag::ParameterDeclaration) continue;
        NodeId argument = build_.add(create, Kind::Name, Role::Argument, spanOf(kids[i].node));
        build_.setName(argument, plainName(kids[i].node), begin(kids[i].node));
      }
      return;
    }
    if (hasValue) {
      Tag tag = tagOf(value);
      if (tag == Tag::ArgumentList || (tag == Tag::InitList && specifiers.hasType && !declarator.array && !declarator.pointer && !declarator.reference)) {
        // Foo x(1);  Foo x{1};
        NodeId create = build_.add(id, Kind::Create, Role::Initialiser, spanOf(value));
        build_[create].detail = static_cast<uint8_t>(CreateForm::Value);
        typeRef(specifiers.type, specifiers.hasType, spanOf(whole), create, Role::Type, Declarator{}, false);
        arguments(value, create);
      } else {
        expression(value, id, Role::Initialiser);
      }
    }
  }

  // `Foo foo(bar);` in a function body is grammatically a function declaration;
  // it is one in fact only when its parameters are types.
  bool looksLikeConstruction(TSNode functionNode) {
    TSNode list = fieldOf(functionNode, grammar().parameters);
    if (isNull(list)) return false;
    Children kids(*this, list);
    bool any = false;
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::None) continue;
      if (kids[i].tag != Tag::ParameterDeclaration) return false;
      if (ts_node_named_child_count(kids[i].node) != 1) return false;
      Tag tag = tagOf(ts_node_named_child(kids[i].node, 0));
      if (tag != Tag::TypeIdentifier && tag != Tag::Qualified) return false;
      any = true;
    }
    return any;
  }

  // ----- statements

  void block(TSNode node, NodeId parent, Role role) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    NodeId id = build_.add(parent, Kind::Block, role, spanOf(node));
    Children kids(*this, node);
    statements(kids, 0, kids.size(), id);
  }

  void statements(const Children& kids, size_t from, size_t to, NodeId parent) {
    Deeper deeper(*this);
    for (size_t i = from; i < to; ++i) {
      if (kids[i].tag == Tag::None || kids[i].tag == Tag::Comment) continue;
      if (depth_ > kDepthLimit) {
        unread(parent, {begin(kids[i].node), ts_node_end_byte(kids[to - 1].node)});
        return;
      }
      // From a lock to the end of its block (or to the unlock): a guard.
      if (kids[i].tag == Tag::Declaration && isScopeLock(kids[i].node)) {
        NodeId guard = build_.add(parent, Kind::Guard, Role::None, {begin(kids[i].node), ts_node_end_byte(kids[to - 1].node)});
        build_[guard].detail = static_cast<uint8_t>(GuardForm::Scoped);
        scopeLockOperands(kids[i].node, guard);
        NodeId body = build_.add(guard, Kind::Block, Role::Body, build_[guard].span);
        statements(kids, i + 1, to, body);
        return;
      }
      std::string_view locked = kids[i].tag == Tag::ExpressionStatement ? callOn(kids[i].node, "lock") : std::string_view{};
      if (!locked.empty()) {
        size_t end = i + 1;
        while (end < to && !(kids[end].tag == Tag::ExpressionStatement && callOn(kids[end].node, "unlock") == locked)) ++end;
        NodeId guard = build_.add(parent, Kind::Guard, Role::None, {begin(kids[i].node), ts_node_end_byte(kids[std::min(end, to - 1)].node)});
        build_[guard].detail = static_cast<uint8_t>(GuardForm::LockUnlock);
        TSNode call = ts_node_named_child(kids[i].node, 0);
        TSNode function = fieldOf(call, grammar().function);
        TSNode receiver = fieldOf(function, grammar().argument);
        expression(receiver, guard, Role::Lock);
        NodeId body = build_.add(guard, Kind::Block, Role::Body, build_[guard].span);
        statements(kids, i + 1, end, body);
        i = end;
        continue;
      }
      statement(kids[i], parent, Role::None);
    }
  }

  // The receiver's text when the statement is `receiver.method();`
  std::string_view callOn(TSNode statementNode, std::string_view method) const {
    if (ts_node_named_child_count(statementNode) == 0) return {};
    TSNode call = ts_node_named_child(statementNode, 0);
    if (tagOf(call) != Tag::Call) return {};
    TSNode function = fieldOf(call, grammar().function);
    if (isNull(function) || tagOf(function) != Tag::FieldExpression) return {};
    TSNode field = fieldOf(function, grammar().field);
    if (isNull(field)) return {};
    std::string_view word = textOfNode(field);
    bool same = word == method || (method == "lock" && (word == "Lock" || word == "lock_shared")) ||
                (method == "unlock" && (word == "Unlock" || word == "unlock_shared"));
    return same ? textOfNode(fieldOf(function, grammar().argument)) : std::string_view{};
  }

  // `std::lock_guard<std::mutex> hold(m);` and other scope locks, by the type's
  // last name: …lock, …guard, …locker with at least one argument.
  bool isScopeLock(TSNode node) const {
    TSNode type = fieldOf(node, grammar().type);
    TSNode declarator = fieldOf(node, grammar().declarator);
    if (isNull(type) || isNull(declarator)) return false;
    Tag tag = tagOf(declarator);
    if (tag != Tag::InitDeclarator && tag != Tag::FunctionDeclarator) return false;
    std::string last = lowerCase(lastPart(plainName(type)));
    auto ends = [&](std::string_view suffix) { return last.size() >= suffix.size() && last.compare(last.size() - suffix.size(), suffix.size(), suffix) == 0; };
    bool named = ends("lock") || ends("locker") || last == "lock_guard" || last == "lockguard" || last == "mutexguard" || last == "scopedlock" || ends("lockholder");
    if (!named) return false;
    if (tag == Tag::FunctionDeclarator) {
      TSNode list = fieldOf(declarator, grammar().parameters);
      return !isNull(list) && ts_node_named_child_count(list) > 0;
    }
    TSNode value = fieldOf(declarator, grammar().value);
    if (isNull(value)) return false;
    Tag valueTag = tagOf(value);
    return (valueTag == Tag::ArgumentList || valueTag == Tag::InitList) && ts_node_named_child_count(value) > 0 &&
           textOfNode(value).find("defer_lock") == std::string_view::npos;
  }

  void scopeLockOperands(TSNode node, NodeId guard) {
    TSNode declarator = fieldOf(node, grammar().declarator);
    TSNode list = tagOf(declarator) == Tag::FunctionDeclarator ? fieldOf(declarator, grammar().parameters) : fieldOf(declarator, grammar().value);
    Children kids(*this, list);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::None || kids[i].tag == Tag::Comment) continue;
      if (kids[i].tag == Tag::ParameterDeclaration) {
        NodeId id = build_.add(guard, Kind::Name, Role::Lock, spanOf(kids[i].node));
        build_.setName(id, plainName(kids[i].node), begin(kids[i].node));
      } else {
        expression(kids[i].node, guard, Role::Lock);
      }
    }
  }

  void statement(Child kid, NodeId parent, Role role) {
    Deeper deeper(*this);
    TSNode node = kid.node;
    if (tooDeep(node, parent)) return;
    switch (kid.tag) {
      case Tag::Compound: block(node, parent, role == Role::None ? Role::Body : role); return;
      case Tag::Declaration: variables(node, parent, Place::FunctionBody, "", 0); return;
      case Tag::FunctionDefinition: case Tag::Class: case Tag::Struct: case Tag::Union: case Tag::Enum: case Tag::Alias:
      case Tag::Typedef: case Tag::Using: case Tag::NamespaceAlias: case Tag::Template:
        declaration(kid, parent, Place::FunctionBody, "", 0);
        return;
      case Tag::ExpressionStatement: {
        if (ts_node_named_child_count(node) == 0) return;
        TSNode inner = ts_node_named_child(node, 0);
        if (tagOf(inner) == Tag::Comment) return;
        if (onceCall(inner, parent)) return;
        NodeId id = build_.add(parent, Kind::ExpressionStatement, role, spanOf(node));
        expression(inner, id, Role::Value);
        return;
      }
      case Tag::If: {
        NodeId id = build_.add(parent, Kind::If, role, spanOf(node));
        TSNode test = fieldOf(node, grammar().condition);
        if (!isNull(test)) conditionClause(test, id);
        branch(fieldOf(node, grammar().consequence), id, Role::Then);
        TSNode alternative = fieldOf(node, grammar().alternative);
        if (!isNull(alternative)) {
          if (tagOf(alternative) == Tag::ElseClause && ts_node_named_child_count(alternative) > 0) {
            Children kids(*this, alternative);
            for (size_t i = 0; i < kids.size(); ++i)
              if (kids[i].tag != Tag::None && kids[i].tag != Tag::Comment) branch(kids[i].node, id, Role::Else);
          } else {
            branch(alternative, id, Role::Else);
          }
        }
        return;
      }
      case Tag::While: case Tag::Do: {
        NodeId id = build_.add(parent, Kind::Loop, role, spanOf(node));
        TSNode test = fieldOf(node, grammar().condition);
        if (!isNull(test)) conditionClause(test, id);
        branch(fieldOf(node, grammar().body), id, Role::Body);
        return;
      }
      case Tag::For: {
        NodeId id = build_.add(parent, Kind::Loop, role, spanOf(node));
        TSNode init = fieldOf(node, grammar().initializer);
        if (!isNull(init)) {
          if (tagOf(init) == Tag::Declaration) variables(init, id, Place::FunctionBody, "", 0);
          else expression(init, id, Role::Initialiser);
        }
        TSNode test = fieldOf(node, grammar().condition);
        if (!isNull(test)) condition(test, id, Role::Condition);
        TSNode update = fieldOf(node, grammar().update);
        if (!isNull(update)) expression(update, id, Role::Value);
        branch(fieldOf(node, grammar().body), id, Role::Body);
        return;
      }
      case Tag::RangeFor: {
        NodeId id = build_.add(parent, Kind::Loop, role, spanOf(node));
        Children kids(*this, node);
        Specifiers specifiers = readSpecifiers(kids);
        TSNode right = fieldOf(node, grammar().right);
        TSNode declaratorNode = fieldOf(node, grammar().declarator);
        Declarator declarator;
        if (!isNull(declaratorNode)) readDeclarator(declaratorNode, declarator);
        if (!isNull(right)) expression(right, id, Role::Operand);
        if (!isNull(declarator.bindingNode)) {
          for (uint32_t i = 0; i < ts_node_named_child_count(declarator.bindingNode); ++i) {
            TSNode name = ts_node_named_child(declarator.bindingNode, i);
            NodeId variable = build_.add(id, Kind::Variable, Role::Member, spanOf(declaratorNode));
            build_.setName(variable, textOfNode(name), begin(name));
            build_[variable].modifiers |= kDefinition;
          }
        } else if (declarator.hasName) {
          NodeId variable = build_.add(id, Kind::Variable, Role::Member, spanOf(declaratorNode));
          build_.setName(variable, textOfNode(declarator.nameNode), begin(declarator.nameNode));
          build_[variable].modifiers |= kDefinition;
          typeRef(specifiers.type, specifiers.hasType, spanOf(node), variable, Role::Type, declarator, specifiers.constObject);
        }
        branch(fieldOf(node, grammar().body), id, Role::Body);
        return;
      }
      case Tag::Switch: {
        NodeId id = build_.add(parent, Kind::Switch, role, spanOf(node));
        TSNode test = fieldOf(node, grammar().condition);
        if (!isNull(test)) {
          TSNode value = fieldOf(test, grammar().value);
          if (!isNull(value) && tagOf(value) != Tag::Declaration && tagOf(value) != Tag::None) expression(value, id, Role::Condition);
        }
        branch(fieldOf(node, grammar().body), id, Role::Body);
        return;
      }
      case Tag::Case: case Tag::Labeled: {
        Children kids(*this, node);
        bool afterColon = false;
        for (size_t i = 0; i < kids.size(); ++i) {
          if (kids[i].tag == Tag::None) {
            afterColon |= textOfNode(kids[i].node) == ":";
            continue;
          }
          if (afterColon && kids[i].tag != Tag::Comment) statement(kids[i], parent, Role::None);
        }
        return;
      }
      case Tag::Try: {
        NodeId id = build_.add(parent, Kind::Try, role, spanOf(node));
        Children kids(*this, node);
        for (size_t i = 0; i < kids.size(); ++i) {
          if (kids[i].tag == Tag::Compound) block(kids[i].node, id, Role::Body);
          if (kids[i].tag == Tag::FieldInits) fieldInits(kids[i].node, id);
          if (kids[i].tag == Tag::Catch) {
            TSNode body = fieldOf(kids[i].node, grammar().body);
            if (!isNull(body)) block(body, id, Role::Handler);
          }
        }
        return;
      }
      case Tag::Return: case Tag::CoReturn: case Tag::CoYield: case Tag::Throw: {
        NodeId id = build_.add(parent, kid.tag == Tag::Throw ? Kind::Throw : Kind::Return, role, spanOf(node));
        for (uint32_t i = 0; i < ts_node_named_child_count(node); ++i) {
          TSNode value = ts_node_named_child(node, i);
          if (tagOf(value) == Tag::Comment) continue;
          expression(value, id, Role::Value);
          break;
        }
        return;
      }
      case Tag::Break: case Tag::Continue: case Tag::Goto:
        build_.add(parent, Kind::Jump, role, spanOf(node));
        return;
      case Tag::Error: errorNode(node, parent, Place::FunctionBody, "", 0); return;
      case Tag::None: case Tag::Comment: {
        // seh and other rare statements: keep what is inside.
        if (ts_node_is_named(node) && kid.tag == Tag::None) {
          NodeId id = build_.add(parent, Kind::Other, role, spanOf(node));
          Children kids(*this, node);
          for (size_t i = 0; i < kids.size(); ++i)
            if (kids[i].tag != Tag::None) statement(kids[i], id, Role::None);
        }
        return;
      }
      default: {
        NodeId id = build_.add(parent, Kind::ExpressionStatement, role, spanOf(node));
        expression(node, id, Role::Value);
      }
    }
  }

  // A branch of an if or loop: always a block, so that walks need one case only.
  void branch(TSNode node, NodeId parent, Role role) {
    if (isNull(node)) return;
    Tag tag = tagOf(node);
    if (tag == Tag::Compound) {
      block(node, parent, role);
      return;
    }
    NodeId id = build_.add(parent, Kind::Block, role, spanOf(node));
    statement({node, 0, tag}, id, Role::None);
  }

  void conditionClause(TSNode node, NodeId parent) {
    Tag tag = tagOf(node);
    if (tag != Tag::ConditionClause) {
      condition(node, parent, Role::Condition);
      return;
    }
    TSNode init = fieldOf(node, grammar().initializer);
    if (!isNull(init)) {
      for (uint32_t i = 0; i < ts_node_named_child_count(init); ++i) {
        TSNode inner = ts_node_named_child(init, i);
        if (tagOf(inner) == Tag::Declaration) variables(inner, parent, Place::FunctionBody, "", 0);
        else expression(inner, parent, Role::Initialiser);
      }
    }
    TSNode value = fieldOf(node, grammar().value);
    if (isNull(value)) return;
    if (tagOf(value) == Tag::Declaration) {  // if (auto* p = find())
      Children kids(*this, value);
      Specifiers specifiers = readSpecifiers(kids);
      TSNode declaratorNode = fieldOf(value, grammar().declarator);
      TSNode initial = fieldOf(value, grammar().value);
      Declarator declarator;
      if (!isNull(declaratorNode)) readDeclarator(declaratorNode, declarator);
      if (!declarator.hasName) return;
      NodeId variable = build_.add(parent, Kind::Variable, Role::Member, spanOf(value));
      build_.setName(variable, textOfNode(declarator.nameNode), begin(declarator.nameNode));
      build_[variable].modifiers |= kDefinition;
      typeRef(specifiers.type, specifiers.hasType, spanOf(value), variable, Role::Type, declarator, specifiers.constObject);
      if (!isNull(initial)) expression(initial, variable, Role::Initialiser);
      NodeId test = build_.add(parent, Kind::NullTest, Role::Condition, spanOf(value));
      build_[test].detail = static_cast<uint8_t>(NullTestForm::IsNotNull);
      NodeId name = build_.add(test, Kind::Name, Role::Operand, spanOf(declarator.nameNode));
      build_.setName(name, textOfNode(declarator.nameNode), begin(declarator.nameNode));
      return;
    }
    condition(value, parent, Role::Condition);
  }

  // std::call_once(flag, code)
  bool onceCall(TSNode node, NodeId parent) {
    if (tagOf(node) != Tag::Call) return false;
    TSNode function = fieldOf(node, grammar().function);
    if (isNull(function)) return false;
    std::string_view last = lastPart(textOfNode(function));
    if (last != "call_once" && last != "pthread_once") return false;
    TSNode list = fieldOf(node, grammar().arguments);
    NodeId id = build_.add(parent, Kind::Once, Role::None, spanOf(node));
    Children kids(*this, list);
    bool first = true;
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::None || kids[i].tag == Tag::Comment) continue;
      if (first) {
        expression(kids[i].node, id, Role::Lock);
        first = false;
      } else if (kids[i].tag == Tag::Lambda) {
        expression(kids[i].node, id, Role::Body);
      } else {
        // A function by name: running it is calling it.
        NodeId call = build_.add(id, Kind::Call, Role::Body, spanOf(kids[i].node));
        TSNode target = kids[i].node;
        if (tagOf(target) == Tag::Pointer && !isNull(fieldOf(target, grammar().argument))) target = fieldOf(target, grammar().argument);
        expression(target, call, Role::Callee);
        break;
      }
    }
    return true;
  }

  // ----- expressions

  NodeId leaf(TSNode node, NodeId parent, Role role, Kind kind) { return build_.add(parent, kind, role, spanOf(node)); }

  NodeId literal(TSNode node, NodeId parent, Role role, LiteralForm form) {
    NodeId id = leaf(node, parent, role, Kind::Literal);
    build_[id].detail = static_cast<uint8_t>(form);
    return id;
  }

  void arguments(TSNode list, NodeId parent) {
    Deeper deeper(*this);
    if (tooDeep(list, parent)) return;
    Children kids(*this, list);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (kids[i].tag == Tag::Comment || (kids[i].tag == Tag::None && !ts_node_is_named(kids[i].node))) continue;
      expression(kids[i].node, parent, Role::Argument);
    }
  }

  static bool isNullLiteral(TSNode node, std::string_view text) {
    Tag tag = tagOf(node);
    std::string_view word = textOf(text, node);
    return tag == Tag::Null || word == "NULL" || word == "nullptr" || (tag == Tag::Number && word == "0");
  }

  TSNode unwrap(TSNode node) const {
    for (int i = 0; i < 100 && tagOf(node) == Tag::Paren && ts_node_named_child_count(node) == 1; ++i) node = ts_node_named_child(node, 0);
    return node;
  }

  // An expression used as a truth value: a bare one becomes a null test.
  void condition(TSNode node, NodeId parent, Role role) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return;
    node = unwrap(node);
    switch (tagOf(node)) {
      case Tag::Identifier: case Tag::Qualified: case Tag::FieldExpression: case Tag::Call: case Tag::Pointer:
      case Tag::Subscript: case Tag::Assignment: {
        NodeId id = build_.add(parent, Kind::NullTest, role, spanOf(node));
        build_[id].detail = static_cast<uint8_t>(NullTestForm::IsNotNull);
        expression(node, id, Role::Operand);
        return;
      }
      default: expression(node, parent, role);
    }
  }

  NodeId expression(TSNode node, NodeId parent, Role role) {
    Deeper deeper(*this);
    if (tooDeep(node, parent)) return kNoNode;
    const Grammar& g = grammar();
    switch (tagOf(node)) {
      case Tag::Identifier: case Tag::FieldIdentifier: case Tag::TypeIdentifier: case Tag::NamespaceIdentifier: {
        std::string_view word = textOfNode(node);
        if (word == "NULL") return literal(node, parent, role, LiteralForm::Null);
        NodeId id = leaf(node, parent, role, Kind::Name);
        build_.setName(id, word, begin(node));
        return id;
      }
      case Tag::Qualified: case Tag::TemplateFunction: case Tag::TemplateType: case Tag::DependentName: {
        NodeId id = leaf(node, parent, role, Kind::Name);
        build_.setName(id, plainName(node), begin(lastNameNode(node)));
        typeArguments(node, id);
        return id;
      }
      case Tag::This: return leaf(node, parent, role, Kind::This);
      case Tag::Null: return literal(node, parent, role, LiteralForm::Null);
      case Tag::True: case Tag::False: return literal(node, parent, role, LiteralForm::Boolean);
      case Tag::Number: return literal(node, parent, role, LiteralForm::Number);
      case Tag::String: case Tag::RawString: case Tag::Concatenated: return literal(node, parent, role, LiteralForm::Text);
      case Tag::Char: return literal(node, parent, role, LiteralForm::Character);
      case Tag::Paren: {
        TSNode inner = unwrap(node);
        if (tagOf(inner) != Tag::Paren) return expression(inner, parent, role);
        break;
      }
      case Tag::FieldExpression: {
        NodeId id = leaf(node, parent, role, Kind::Member);
        TSNode field = fieldOf(node, g.field);
        TSNode receiver = fieldOf(node, g.argument);
        TSNode op = fieldOf(node, g.op);
        if (!isNull(op) ? textOfNode(op) == "->" : textOfNode(node).find("->") != std::string_view::npos) build_[id].modifiers |= kArrow;
        if (!isNull(receiver)) expression(receiver, id, Role::Receiver);
        if (!isNull(field)) {
          TSNode last = lastNameNode(field);
          build_.setName(id, lastPart(plainName(last)), begin(last));
          typeArguments(field, id);
        }
        return id;
      }
      case Tag::Call: return call(node, parent, role);
      case Tag::New: {
        NodeId id = leaf(node, parent, role, Kind::Create);
        build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
        TSNode type = fieldOf(node, g.type);
        Declarator declarator;
        if (TSNode shape = fieldOf(node, g.declarator); !isNull(shape)) declarator.array = true;
        if (!isNull(type)) typeRef(type, true, {}, id, Role::Type, declarator, false);
        TSNode placement = fieldOf(node, g.placement);
        if (!isNull(placement)) {
          NodeId place = build_.add(id, Kind::Other, Role::Placement, spanOf(placement));
          arguments(placement, place);
        }
        TSNode list = fieldOf(node, g.arguments);
        if (!isNull(list)) arguments(list, id);
        return id;
      }
      case Tag::CompoundLiteral: {  // Foo{…}
        NodeId id = leaf(node, parent, role, Kind::Create);
        build_[id].detail = static_cast<uint8_t>(CreateForm::Value);
        TSNode type = fieldOf(node, g.type);
        TSNode value = fieldOf(node, g.value);
        if (!isNull(type)) {
          if (tagOf(type) == Tag::TypeDescriptor) typeDescriptor(type, id, Role::Type);
          else typeRef(type, true, {}, id, Role::Type, Declarator{}, false);
        }
        if (!isNull(value)) arguments(value, id);
        return id;
      }
      case Tag::Delete: {
        NodeId id = leaf(node, parent, role, Kind::Destroy);
        if (ts_node_named_child_count(node) > 0) expression(ts_node_named_child(node, ts_node_named_child_count(node) - 1), id, Role::Operand);
        return id;
      }
      case Tag::Assignment: {
        NodeId id = leaf(node, parent, role, Kind::Assign);
        TSNode op = fieldOf(node, g.op);
        if (!isNull(op) && textOfNode(op) != "=") build_[id].detail = static_cast<uint8_t>(AssignForm::Compound);
        expression(fieldOf(node, g.left), id, Role::Target);
        if (TSNode right = fieldOf(node, g.right); !isNull(right)) expression(right, id, Role::Value);
        return id;
      }
      case Tag::Update: {
        NodeId id = leaf(node, parent, role, Kind::Update);
        if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Target);
        return id;
      }
      case Tag::Unary: {
        TSNode op = fieldOf(node, g.op);
        TSNode inner = fieldOf(node, g.argument);
        if (isNull(inner)) break;
        std::string_view word = isNull(op) ? std::string_view{} : textOfNode(op);
        if (word == "!" || word == "not") {
          TSNode bare = unwrap(inner);
          Tag tag = tagOf(bare);
          if (tag == Tag::Binary || tag == Tag::Unary) {
            NodeId id = leaf(node, parent, role, Kind::Logic);
            build_[id].detail = static_cast<uint8_t>(LogicForm::Not);
            condition(bare, id, Role::Operand);
            return id;
          }
          NodeId id = leaf(node, parent, role, Kind::NullTest);
          build_[id].detail = static_cast<uint8_t>(NullTestForm::IsNull);
          expression(bare, id, Role::Operand);
          return id;
        }
        if (tagOf(inner) == Tag::Number) return literal(node, parent, role, LiteralForm::Number);
        break;
      }
      case Tag::Pointer: {
        TSNode op = fieldOf(node, g.op);
        NodeId id = leaf(node, parent, role, !isNull(op) && textOfNode(op) == "&" ? Kind::AddressOf : Kind::Dereference);
        if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Operand);
        return id;
      }
      case Tag::Binary: return binary(node, parent, role);
      case Tag::Conditional: {
        NodeId id = leaf(node, parent, role, Kind::Conditional);
        condition(fieldOf(node, g.condition), id, Role::Condition);
        if (TSNode then = fieldOf(node, g.consequence); !isNull(then)) expression(then, id, Role::Then);
        if (TSNode other = fieldOf(node, g.alternative); !isNull(other)) expression(other, id, Role::Else);
        return id;
      }
      case Tag::Lambda: return lambda(node, parent, role);
      case Tag::Cast: {
        NodeId id = leaf(node, parent, role, Kind::Cast);
        if (TSNode type = fieldOf(node, g.type); !isNull(type)) typeDescriptor(type, id, Role::Type);
        if (TSNode value = fieldOf(node, g.value); !isNull(value)) expression(value, id, Role::Operand);
        return id;
      }
      case Tag::Subscript: {
        NodeId id = leaf(node, parent, role, Kind::Index);
        if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Receiver);
        if (TSNode indices = fieldOf(node, g.indices); !isNull(indices)) arguments(indices, id);
        return id;
      }
      case Tag::InitList: {
        NodeId id = leaf(node, parent, role, Kind::Collection);
        arguments(node, id);
        return id;
      }
      case Tag::CoAwait: {
        NodeId id = leaf(node, parent, role, Kind::Await);
        if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Operand);
        return id;
      }
      case Tag::Error: errorNode(node, parent, Place::FunctionBody, "", 0); return kNoNode;
      case Tag::Comment: return kNoNode;
      case Tag::TypeDescriptor: typeDescriptor(node, parent, Role::Type); return kNoNode;
      case Tag::Compound: block(node, parent, Role::Body); return kNoNode;
      case Tag::PackExpansion:
        if (ts_node_named_child_count(node) > 0) {
          NodeId id = expression(ts_node_named_child(node, 0), parent, role);
          if (id != kNoNode) build_[id].modifiers |= kPack;
          return id;
        }
        break;
      default: break;
    }
    // Anything else keeps its named children as operands.
    NodeId id = leaf(node, parent, role, Kind::Other);
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i) {
      if (!ts_node_is_named(kids[i].node) || kids[i].tag == Tag::Comment) continue;
      if (kids[i].tag == Tag::Declaration) variables(kids[i].node, id, Place::FunctionBody, "", 0);
      else if (isStatement(kids[i].tag)) statement(kids[i], id, Role::None);
      else expression(kids[i].node, id, Role::Operand);
    }
    return id;
  }

  NodeId binary(TSNode node, NodeId parent, Role role) {
    const Grammar& g = grammar();
    TSNode opNode = fieldOf(node, g.op);
    std::string_view op = isNull(opNode) ? std::string_view{} : textOfNode(opNode);
    TSNode left = fieldOf(node, g.left);
    TSNode right = fieldOf(node, g.right);
    if (isNull(left) || isNull(right)) {
      unread(parent, spanOf(node));
      return kNoNode;
    }
    if (op == "==" || op == "!=" || op == "not_eq") {
      bool leftNull = isNullLiteral(left, text_), rightNull = isNullLiteral(right, text_);
      if (leftNull != rightNull) {
        NodeId id = leaf(node, parent, role, Kind::NullTest);
        build_[id].detail = static_cast<uint8_t>(op == "==" ? NullTestForm::IsNull : NullTestForm::IsNotNull);
        expression(unwrap(leftNull ? right : left), id, Role::Operand);
        return id;
      }
    }
    if (op == "==" || op == "!=" || op == "<" || op == ">" || op == "<=" || op == ">=" || op == "<=>") {
      NodeId id = leaf(node, parent, role, Kind::Compare);
      expression(left, id, Role::Operand);
      expression(right, id, Role::Operand);
      return id;
    }
    bool isAnd = op == "&&" || op == "and", isOr = op == "||" || op == "or";
    // a + b + c + … nests to the left: read it flat, whatever its length.
    std::vector<TSNode> operands = {right};
    TSNode at = left;
    while (tagOf(at) == Tag::Binary) {
      TSNode innerOp = fieldOf(at, g.op);
      std::string_view innerWord = isNull(innerOp) ? std::string_view{} : textOfNode(innerOp);
      bool innerTest = innerWord == "==" || innerWord == "!=" || innerWord == "<" || innerWord == ">" || innerWord == "<=" || innerWord == ">=" || innerWord == "<=>";
      bool innerLogic = innerWord == "&&" || innerWord == "||" || innerWord == "and" || innerWord == "or";
      if (isAnd || isOr ? innerWord != op : innerTest || innerLogic) break;
      TSNode innerLeft = fieldOf(at, g.left), innerRight = fieldOf(at, g.right);
      if (isNull(innerLeft) || isNull(innerRight)) break;
      operands.push_back(innerRight);
      at = innerLeft;
    }
    operands.push_back(at);
    NodeId id = leaf(node, parent, role, isAnd || isOr ? Kind::Logic : Kind::Other);
    build_.setName(id, op, 0);
    if (isAnd || isOr) build_[id].detail = static_cast<uint8_t>(isAnd ? LogicForm::And : LogicForm::Or);
    for (auto it = operands.rbegin(); it != operands.rend(); ++it) {
      if (isAnd || isOr) condition(*it, id, Role::Operand);
      else expression(*it, id, Role::Operand);
    }
    return id;
  }

  NodeId call(TSNode node, NodeId parent, Role role) {
    const Grammar& g = grammar();
    TSNode function = fieldOf(node, g.function);
    TSNode list = fieldOf(node, g.arguments);
    if (isNull(function)) {
      return leaf(node, parent, role, Kind::Other);
    }
    Tag tag = tagOf(function);
    if (tag == Tag::Primitive || tag == Tag::Sized) {
      NodeId id = leaf(node, parent, role, Kind::Cast);
      typeRef(function, true, {}, id, Role::Type, Declarator{}, false);
      if (!isNull(list) && ts_node_named_child_count(list) > 0) expression(ts_node_named_child(list, 0), id, Role::Operand);
      return id;
    }
    bool templated = tag == Tag::TemplateFunction || (tag == Tag::Qualified && textOfNode(function).find('<') != std::string_view::npos);
    std::string plain = templated ? plainName(function) : "";
    std::string_view last = lastPart(plain);
    if (templated && (last == "static_cast" || last == "dynamic_cast" || last == "const_cast" || last == "reinterpret_cast")) {
      NodeId id = leaf(node, parent, role, Kind::Cast);
      typeArguments(function, id);
      for (NodeId c = build_[id].firstChild; c != kNoNode; c = build_[c].nextSibling) build_[c].role = Role::Type;
      if (!isNull(list) && ts_node_named_child_count(list) > 0) expression(ts_node_named_child(list, 0), id, Role::Operand);
      return id;
    }
    if (templated && (last == "make_unique" || last == "make_shared" || last == "make_optional" || last == "allocate_shared")) {
      NodeId id = leaf(node, parent, role, Kind::Create);
      build_[id].detail = static_cast<uint8_t>(last == "make_unique" ? CreateForm::Unique : last == "make_optional" ? CreateForm::InPlace : CreateForm::Shared);
      build_[id].nameBegin = begin(lastNameNode(function));
      typeArguments(function, id);
      bool first = true;
      for (NodeId c = build_[id].firstChild; c != kNoNode; c = build_[c].nextSibling) {
        if (first) build_[c].role = Role::Type;
        first = false;
      }
      if (!isNull(list)) arguments(list, id);
      return id;
    }
    NodeId id = leaf(node, parent, role, Kind::Call);
    expression(function, id, Role::Callee);
    if (!isNull(list)) arguments(list, id);
    return id;
  }

  NodeId lambda(TSNode node, NodeId parent, Role role) {
    const Grammar& g = grammar();
    NodeId id = leaf(node, parent, role, Kind::Lambda);
    TSNode captures = fieldOf(node, g.captures);
    if (!isNull(captures)) {
      Children kids(*this, captures);
      bool byReference = false;
      for (size_t i = 0; i < kids.size(); ++i) {
        std::string_view word = textOfNode(kids[i].node);
        if (kids[i].tag == Tag::None && word == "&") {
          byReference = true;
          continue;
        }
        if (kids[i].tag == Tag::None && (word == "[" || word == "]" || word == ",")) {
          byReference = byReference && word != ",";
          continue;
        }
        NodeId capture = build_.add(id, Kind::Capture, Role::Capture, spanOf(kids[i].node));
        size_t from = word.find_first_not_of("&* ");
        bool reference = byReference || (!word.empty() && word[0] == '&');
        if (from != std::string_view::npos) {
          size_t end = from;
          while (end < word.size() && isWordByte(word[end])) ++end;
          build_.setName(capture, word.substr(from, end - from), begin(kids[i].node) + static_cast<uint32_t>(from));
        }
        if (reference) build_[capture].modifiers |= kReference;
        byReference = false;
        if (kids[i].tag != Tag::Identifier && kids[i].tag != Tag::This && kids[i].tag != Tag::None) {
          TSNode right = fieldOf(kids[i].node, g.right);
          if (isNull(right)) right = fieldOf(kids[i].node, g.value);
          if (!isNull(right)) expression(right, capture, Role::Initialiser);
        }
      }
    }
    TSNode declarator = fieldOf(node, g.declarator);
    if (!isNull(declarator)) parameters(declarator, id);
    TSNode body = fieldOf(node, g.body);
    if (!isNull(body)) block(body, id, Role::Body);
    return id;
  }

  std::string_view text_;
  const MacroLore* lore_;
  LoweredFile& file_;
  TreeBuilder build_;
  TSNode root_;
  TSTreeCursor cursor_;
  std::vector<Child> stack_;
  std::vector<std::pair<std::string, uint32_t>> templateParameters_;
  bool isTemplate_ = false;
  int depth_ = 0;
};

void parseOnlyCpp(std::string_view text) {
  parseAndDrop(tree_sitter_cpp(), text);
}

constexpr std::array<std::string_view, 11> kExtensions = {".cpp", ".cc", ".cxx", ".c++", ".h", ".hpp", ".hh", ".hxx", ".h++", ".ipp", ".inl"};
constexpr std::array<std::string_view, 7> kHeaders = {".h", ".hpp", ".hh", ".hxx", ".h++", ".ipp", ".inl"};

}  // namespace

void lowerCpp(std::string_view text, const Language::TreeLore* lore, LoweredFile& out) {
  const auto* macros = static_cast<const MacroLore*>(lore);
  PreparedText prepared = prepareCpp(text, macros);
  // @class Name; says to a file of Objective-C++ that there is such a class.
  for (size_t at = prepared.text.find("@class "); at != std::string::npos; at = prepared.text.find("@class ", at + 1)) {
    size_t end = prepared.text.find_first_of(";\n", at);
    if (end != std::string::npos && prepared.text[end] == ';') prepared.text.replace(at, end + 1 - at, end + 1 - at, ' ');
  }
  if (prepared.bracketDepth > kBracketLimit) {
    // The parser runtime itself does not bear any depth.
    out.problem = "left unread: brackets nested more than " + std::to_string(kBracketLimit) + " deep";
    TreeBuilder builder(out);
    Span all{0, static_cast<uint32_t>(text.size())};
    builder[0].span = all;
    builder.add(0, Kind::Unread, Role::None, all);
    out.unreadBytes = all.size();
    return;
  }
  ParserHandle parser = makeParser(tree_sitter_cpp());
  TreeHandle tree = parseRepaired(parser, prepared.text, macros);
  out.comments = std::move(prepared.comments);
  Lowerer(prepared.text, macros, out, ts_tree_root_node(tree.get())).run();
  addIncludes(prepared, out);
}

Language cppLanguage() {
  Language language;
  language.id = "cpp";
  language.name = "C++";
  language.family = "c";
  language.extensions = kExtensions;
  language.headerExtensions = kHeaders;
  language.guarantees = &cppGuarantees();
  language.facing = &cppFacing();
  language.settling = &cppSettling();
  language.announcing = &cppAnnouncing();
  language.mending = &cppMending();
  language.sound = &cppSound();
  language.phrases = &cppPhrases();
  language.learn = learnMacros;
  language.lower = lowerCpp;
  language.parseOnly = parseOnlyCpp;
  return language;
}

}  // namespace elmcart

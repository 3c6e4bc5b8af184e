// Lowers an Objective-C file, and the C inside it. Clauses of C are of
// ISO/IEC 9899:2011.
//
// Macros and #if are seen to before, by the same pass and the same repair as
// for C++. A class stands in several places: its interface is the definition,
// its implementation, extensions and categories are parts that join it.
#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/cpp/prepare.h"
#include "languages/cpp/repair.h"
#include "languages/objc/lower.h"
#include "languages/objc/rephrase.h"
#include "languages/shared/lowerer.h"

extern "C" const TSLanguage* tree_sitter_objc(void);

namespace elmcart {
namespace {

enum Own : uint8_t { kInterface, kImplementation, kProtocol, kMethod, kProperty, kFunction, kDeclaration, kStruct, kEnum, kTypedef, kMessage, kCall, kField, kBlock, kSynchronized, kFor, kAt, kTryStatement, kHandler, kElse, kCase, kInitialisers, kDictionary, kArray, kSynthesize, kLinkage, kIvars, kPair, kParen, kPointer, kAliasDeclaration };

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Skip}, {"class_interface", Shape::Own, kInterface}, {"class_implementation", Shape::Own, kImplementation}, {"protocol_declaration", Shape::Own, kProtocol}, {"implementation_definition", Shape::Pass}, {"qualified_protocol_interface_declaration", Shape::Pass}, {"class_declaration", Shape::Skip}, {"protocol_forward_declaration", Shape::Skip}, {"module_import", Shape::Skip}, {"compatibility_alias_declaration", Shape::Own, kAliasDeclaration},
    {"method_definition", Shape::Own, kMethod}, {"method_declaration", Shape::Own, kMethod}, {"property_declaration", Shape::Own, kProperty}, {"property_implementation", Shape::Own, kSynthesize}, {"instance_variables", Shape::Own, kIvars}, {"generic_arguments", Shape::Skip}, {"parameterized_arguments", Shape::Skip}, {"protocol_reference_list", Shape::Skip}, {"visibility_specification", Shape::Skip}, {"macro_type_specifier", Shape::Skip},
    {"function_definition", Shape::Own, kFunction}, {"declaration", Shape::Own, kDeclaration}, {"struct_specifier", Shape::Own, kStruct}, {"union_specifier", Shape::Own, kStruct}, {"enum_specifier", Shape::Own, kEnum}, {"type_definition", Shape::Own, kTypedef}, {"linkage_specification", Shape::Own, kLinkage}, {"declaration_list", Shape::Pass}, {"attribute_specifier", Shape::Skip}, {"attribute_declaration", Shape::Skip}, {"availability_attribute_specifier", Shape::Skip}, {"gnu_asm_expression", Shape::Skip},
    {"preproc_include", Shape::Skip}, {"preproc_def", Shape::Skip}, {"preproc_function_def", Shape::Skip}, {"preproc_call", Shape::Skip}, {"preproc_undef", Shape::Skip}, {"preproc_linemarker", Shape::Skip}, {"preproc_if", Shape::Pass}, {"preproc_ifdef", Shape::Pass}, {"preproc_else", Shape::Skip}, {"preproc_elif", Shape::Skip}, {"preproc_elifdef", Shape::Skip},
    {"compound_statement", Shape::Block}, {"if_statement", Shape::If}, {"else_clause", Shape::Own, kElse}, {"for_statement", Shape::Own, kFor}, {"while_statement", Shape::Loop}, {"do_statement", Shape::Loop}, {"switch_statement", Shape::Switch}, {"case_statement", Shape::Own, kCase}, {"return_statement", Shape::Return}, {"throw_statement", Shape::Throw}, {"try_statement", Shape::Own, kTryStatement}, {"catch_clause", Shape::Own, kHandler}, {"finally_clause", Shape::Own, kHandler}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"goto_statement", Shape::Jump}, {"labeled_statement", Shape::Pass}, {"attributed_statement", Shape::Pass}, {"expression_statement", Shape::Statement}, {"synchronized_statement", Shape::Own, kSynchronized},
    {"assignment_expression", Shape::Assign}, {"update_expression", Shape::Update}, {"binary_expression", Shape::Binary}, {"unary_expression", Shape::Unary}, {"pointer_expression", Shape::Own, kPointer}, {"conditional_expression", Shape::Conditional}, {"comma_expression", Shape::Collection}, {"parenthesized_expression", Shape::Own, kParen}, {"cast_expression", Shape::Cast}, {"message_expression", Shape::Own, kMessage}, {"call_expression", Shape::Own, kCall}, {"field_expression", Shape::Own, kField}, {"subscript_expression", Shape::Index}, {"block_literal", Shape::Own, kBlock}, {"at_expression", Shape::Own, kAt}, {"array_literal", Shape::Own, kArray}, {"dictionary_literal", Shape::Own, kDictionary}, {"dictionary_pair", Shape::Pass}, {"initializer_list", Shape::Own, kInitialisers}, {"initializer_pair", Shape::Own, kPair}, {"compound_literal_expression", Shape::Other}, {"selector_expression", Shape::Text}, {"encode_expression", Shape::Text}, {"sizeof_expression", Shape::Number}, {"offsetof_expression", Shape::Number}, {"alignof_expression", Shape::Number}, {"available_expression", Shape::Boolean}, {"argument_list", Shape::Pass},
    {"identifier", Shape::Name}, {"type_identifier", Shape::Name}, {"field_identifier", Shape::Name}, {"null", Shape::Null}, {"true", Shape::Boolean}, {"false", Shape::Boolean}, {"number_literal", Shape::Number}, {"char_literal", Shape::Text}, {"string_literal", Shape::Text}, {"concatenated_string", Shape::Text}, {"string_content", Shape::Skip}, {"escape_sequence", Shape::Skip}, {"type_descriptor", Shape::Skip}, {"type_name", Shape::Skip}, {"primitive_type", Shape::Skip}, {"storage_class_specifier", Shape::Skip}, {"type_qualifier", Shape::Skip}, {"statement_identifier", Shape::Skip}, {"system_lib_string", Shape::Skip}, {"method_type", Shape::Skip},
};

constexpr std::string_view kNullWords[] = {"nil", "Nil", "NULL"};

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_objc;
    spec.rows = kRows;
    spec.nullWords = kNullWords;
    spec.truthiness = true;
    return spec;
  }());
  return kGrammar;
}

// What the platform's headers define to nothing or to an attribute; those of
// the tree are learnt from it.
constexpr std::string_view kPlatformMacros[] = {"NS_ASSUME_NONNULL_BEGIN", "NS_ASSUME_NONNULL_END", "NS_DESIGNATED_INITIALIZER", "NS_REQUIRES_SUPER", "NS_RETURNS_RETAINED", "NS_EXTENSION_UNAVAILABLE_IOS", "NS_UNAVAILABLE", "NS_ROOT_CLASS", "NS_NOESCAPE", "NS_REFINED_FOR_SWIFT", "NS_FORMAT_FUNCTION", "UI_APPEARANCE_SELECTOR", "FOUNDATION_EXPORT", "FOUNDATION_EXTERN", "UIKIT_EXTERN", "NS_SWIFT_UI_ACTOR", "NS_SWIFT_NONISOLATED", "NS_SWIFT_SENDABLE", "CF_RETURNS_RETAINED", "CF_RETURNS_NOT_RETAINED", "NS_VALID_UNTIL_END_OF_SCOPE", "OBJC_EXPORT", "OBJC_ROOT_CLASS", "IBOutlet", "IBInspectable", "IB_DESIGNABLE", "NS_DURING", "NS_HANDLER", "NS_ENDHANDLER"};
constexpr std::string_view kPlatformMacrosWithArguments[] = {"NS_SWIFT_NAME", "NS_AVAILABLE_IOS", "NS_AVAILABLE", "NS_DEPRECATED", "NS_DEPRECATED_IOS", "NS_CLASS_AVAILABLE", "NS_CLASS_AVAILABLE_IOS", "API_AVAILABLE", "API_UNAVAILABLE", "API_DEPRECATED", "API_DEPRECATED_WITH_REPLACEMENT", "IBOutletCollection", "DEPRECATED_MSG_ATTRIBUTE"};

// Macros as for C++, and the names of all properties in the tree: a property
// `book` is kept in an instance variable `_book` that is written nowhere.
struct ObjcLore : MacroLore {
  std::set<std::string, std::less<>> properties;

  uint64_t fingerprint() const override { return MacroLore::fingerprint() + stableHashOfAll(properties, 5); }
};

void learnProperties(std::string_view text, std::set<std::string, std::less<>>& out) {
  for (size_t at = text.find("@property"); at != std::string_view::npos; at = text.find("@property", at + 1)) {
    size_t end = text.find_first_of(";\n", at);
    if (end == std::string_view::npos) end = text.size();
    std::string_view line = text.substr(at, end - at);
    if (size_t attribute = line.find("__attribute__"); attribute != std::string_view::npos) line = line.substr(0, attribute);
    // The last word that no bracket follows: macros may stand behind the name.
    size_t stop = line.size();
    std::string_view name;
    while (stop > 0) {
      while (stop > 0 && !isWordByte(line[stop - 1])) --stop;
      size_t start = stop;
      while (start > 0 && isWordByte(line[start - 1])) --start;
      name = line.substr(start, stop - start);
      bool macro = name.size() > 3 && std::all_of(name.begin(), name.end(), [](char c) { return (c >= 'A' && c <= 'Z') || c == '_' || (c >= '0' && c <= '9'); });
      if (!macro) break;
      stop = start;
    }
    if (!name.empty()) out.emplace(name);
  }
}

}  // namespace

std::unique_ptr<Language::TreeLore> learnObjc(std::span<const std::string_view> texts, unsigned jobs) {
  std::unique_ptr<Language::TreeLore> macros = learnMacros(texts, jobs);
  auto lore = std::make_unique<ObjcLore>();
  static_cast<MacroLore&>(*lore) = std::move(static_cast<MacroLore&>(*macros));
  for (std::string_view name : kPlatformMacros) lore->blank.emplace(std::string(name), false);
  for (std::string_view name : kPlatformMacrosWithArguments) lore->blank.emplace(std::string(name), true);
  // C 7.8.1: the formats of integers, put between two strings.
  for (std::string_view letter : {"d", "i", "o", "u", "x", "X"})
    for (std::string_view width : {"8", "16", "32", "64", "MAX", "PTR"}) lore->blank.emplace("PRI" + std::string(letter) + std::string(width), false);
  for (std::string_view text : texts) learnProperties(text, lore->properties);
  return lore;
}

namespace {

class ObjcLowerer : public SharedLowerer {
 public:
  ObjcLowerer(const SharedGrammar& grammar, std::string_view prepared, std::string_view original, const ObjcLore* lore, LoweredFile& file)
      : SharedLowerer(grammar, prepared, file), original_(original), lore_(lore) {}
  using SharedLowerer::runOn;

 private:
  // ----- declarators and types

  struct Declared {
    TSNode name{}, function{}, value{};
    uint32_t bits = 0;   // of the type
    bool fixed = false;  // the variable itself may not change
    bool block = false;  // holds a function
  };

  Declared declared(TSNode node) const {
    Declared out;
    for (int depth = 0; depth < 60 && !isNull(node); ++depth) {
      std::string_view kind = ts_node_type(node);
      if (kind == "identifier" || kind == "field_identifier" || kind == "type_identifier") {
        out.name = node;
        break;
      }
      if (kind == "init_declarator") out.value = field(node, f_.value);
      if (kind == "pointer_declarator" || kind == "abstract_pointer_declarator") {
        out.bits |= kPointer;
        for (TSNode kid : named(node)) out.fixed |= is(kid, "type_qualifier") && text(kid) == "const";
      }
      if (kind == "array_declarator") out.bits |= kArray;
      if (kind == "block_pointer_declarator" || kind == "abstract_block_pointer_declarator") out.block = true;
      if (kind == "function_declarator" && isNull(out.function)) out.function = node;
      TSNode inner = field(node, declaratorField());
      if (isNull(inner))
        for (TSNode kid : named(node)) {
          std::string_view type = ts_node_type(kid);
          if (type == "identifier" || type == "field_identifier" || type.find("declarator") != std::string_view::npos) {
            inner = kid;
            break;
          }
        }
      node = inner;
    }
    return out;
  }
  TSFieldId declaratorField() const {
    static const TSFieldId kField = ts_language_field_id_for_name(tree_sitter_objc(), "declarator", 10);
    return kField;
  }

  static bool plainType(std::string_view name) {
    static constexpr std::string_view kPlain[] = {"BOOL", "NSInteger", "NSUInteger", "CGFloat", "NSTimeInterval", "NSRange", "CGRect", "CGSize", "CGPoint", "SEL", "size_t", "uint8_t", "uint16_t", "uint32_t", "uint64_t", "int8_t", "int16_t", "int32_t", "int64_t", "unichar", "char", "int", "void", "float", "double", "bool", "long", "short", "unsigned"};
    return std::find(std::begin(kPlain), std::end(kPlain), name) != std::end(kPlain);
  }

  // A type that is written as specifier nodes before a declarator.
  NodeId typeOf(TSNode holder, const Declared& declarator, NodeId parent, Role role) {
    bool constant = false;
    TSNode base{};
    for (TSNode kid : named(holder)) {
      std::string_view kind = ts_node_type(kid);
      if (kind == "type_qualifier" && text(kid) == "const") constant = true;
      else if (kind == "type_identifier" && (text(kid) == "nonnull" || text(kid) == "null_unspecified")) continue;
      else if (isNull(base) && (kind == "type_identifier" || kind == "primitive_type" || kind == "sized_type_specifier" || kind == "struct_specifier" || kind == "union_specifier" || kind == "enum_specifier" || kind == "generic_specifier" || kind == "typedefed_specifier" || kind == "array_type_specifier" || kind == "typeof_specifier")) base = kid;
      else if (kind == "abstract_pointer_declarator" || kind == "type_descriptor") continue;
    }
    if (isNull(base)) return kNoNode;
    if (declarator.block) {
      NodeId id = typeRefNamed("(function)", base, parent, role, false);
      build_[id].modifiers |= kPointer;
      return id;
    }
    TSNode name = is(base, "struct_specifier") || is(base, "union_specifier") || is(base, "enum_specifier") ? field(base, f_.name) : base;
    if (is(base, "generic_specifier") || is(base, "typedefed_specifier")) name = firstNamed(base);
    if (isNull(name) && is(base, "typedefed_specifier")) name = base;  // id
    // id<Loader>: any object that keeps that promise.
    bool any = text(base) == "id" || text(base).starts_with("id<") || text(base).starts_with("id ");
    if (any && !isNull(name) && is(name, "protocol_reference_list")) name = named(name).size() == 1 ? firstNamed(name) : base;
    std::string word(isNull(name) ? std::string_view{} : text(name));
    if (word == "instancetype" || (any && word.starts_with("id"))) word = any ? "id" : currentClass_;
    if (word.empty()) return kNoNode;
    bool object = !plainType(word) && (any || (declarator.bits & kPointer && word[0] >= 'A' && word[0] <= 'Z' && !is(base, "struct_specifier")) || text(base) == "instancetype");
    NodeId id = typeRefNamed(word, isNull(name) ? base : name, parent, role, false);
    build_[id].modifiers |= object ? kManaged | (declarator.bits & kArray) : declarator.bits;
    if (constant && (declarator.bits & kPointer)) build_[id].modifiers |= kPointeeConst;
    if (is(base, "generic_specifier"))
      for (TSNode kid : named(base))
        if (is(kid, "type_name")) {
          Declared inner;
          if (!isNull(childOfType(kid, "abstract_pointer_declarator"))) inner.bits = kPointer;
          typeOf(kid, inner, id, Role::TypeArgument);
        }
    return id;
  }

  // "(NSString *)" before a method's or parameter's name.
  NodeId methodType(TSNode node, NodeId parent) {
    TSNode inner = isNull(node) ? TSNode{} : childOfType(node, "type_name");
    if (isNull(inner)) return kNoNode;
    Declared pointer;
    if (!isNull(childOfType(inner, "abstract_pointer_declarator"))) pointer.bits = kPointer;
    pointer.block = !isNull(childOfType(inner, "abstract_block_pointer_declarator")) || !isNull(childOfType(inner, "abstract_function_declarator"));
    return typeOf(inner, pointer, parent, Role::Type);
  }

  uint32_t specifiers(TSNode node, bool pointer) const {
    uint32_t bits = 0;
    for (TSNode kid : named(node)) {
      std::string_view word = text(kid);
      if (word == "static") bits |= kStatic;
      else if (word == "extern") bits |= kExtern;
      else if (word == "__thread" || word == "_Thread_local") bits |= kThreadLocal;
      else if (word == "volatile") bits |= kVolatile;
      else if (word == "inline") bits |= kInline;
      else if (word == "const" && is(kid, "type_qualifier") && !pointer) bits |= kConst;
    }
    return bits;
  }

  // ----- C declarations

  void declaration(TSNode node, NodeId parent) {
    for (TSNode kid : named(node))
      if (is(kid, "struct_specifier") || is(kid, "union_specifier") || is(kid, "enum_specifier")) visit(kid, inFunction_ ? parent : parent, Role::Member);
    // A local class of block is none: only what is declared.
    TSTreeCursor cursor = ts_tree_cursor_new(node);
    std::vector<TSNode> list;
    if (ts_tree_cursor_goto_first_child(&cursor)) {
      do
        if (ts_tree_cursor_current_field_id(&cursor) == declaratorField()) list.push_back(ts_tree_cursor_current_node(&cursor));
      while (ts_tree_cursor_goto_next_sibling(&cursor));
    }
    ts_tree_cursor_delete(&cursor);
    for (TSNode one : list) {
      Declared d = declared(one);
      if (isNull(d.name)) continue;
      if (!isNull(d.function) && !d.block && isNull(d.value) && !(d.bits & kArray) && !is(field(d.function, declaratorField()), "parenthesized_declarator")) {
        if (inFunction_) continue;
        NodeId id = function(node, parent, FunctionForm::Function, text(d.name), begin(d.name), specifiers(node, true) & kStatic);
        typeOf(node, d, id, Role::Type);
        parametersOf(d.function, id);
        continue;
      }
      NodeId id = add(parent, Kind::Variable, inFunction_ ? Role::None : Role::Member, one);
      build_.setName(id, text(d.name), begin(d.name));
      uint32_t bits = specifiers(node, (d.bits & kPointer) != 0) | (d.fixed ? kConst : 0u);
      build_[id].modifiers = bits | (bits & kExtern && isNull(d.value) ? 0u : uint32_t{kDefinition});
      if (!isNull(d.function)) d.block = true;
      typeOf(node, d, id, Role::Type);
      if (!isNull(d.value) && !isNothing(d.value)) visit(d.value, id, Role::Initialiser);
    }
  }

  void parametersOf(TSNode declarator, NodeId fn) {
    TSNode list = field(declarator, f_.parameters);
    if (isNull(list)) list = childOfType(declarator, "parameter_list");
    if (isNull(list)) return;
    for (TSNode one : named(list)) {
      if (is(one, "variadic_parameter")) {
        build_[add(fn, Kind::Parameter, Role::Parameter, one)].modifiers = kPack;
        continue;
      }
      if (!is(one, "parameter_declaration") || text(one) == "void") continue;
      NodeId id = add(fn, Kind::Parameter, Role::Parameter, one);
      Declared d = declared(field(one, declaratorField()));
      if (!isNull(d.name)) build_.setName(id, text(d.name), begin(d.name));
      typeOf(one, d, id, Role::Type);
    }
  }

  void cFunction(TSNode node, NodeId parent) {
    Declared d = declared(field(node, declaratorField()));
    if (isNull(d.name) || isNull(d.function)) return visitChildren(node, parent);
    // Inside an implementation a function is the file's all the same.
    NodeId id = function(node, file_[parent].kind == Kind::Type ? 0 : parent, FunctionForm::Function, text(d.name), begin(d.name), kDefinition | (specifiers(node, true) & (kStatic | kInline)));
    typeOf(node, d, id, Role::Type);
    parametersOf(d.function, id);
    body(node, field(node, f_.body), id, false);
  }

  void body(TSNode node, TSNode block, NodeId fn, bool classMethod) {
    if (isNull(block)) block = childOfType(node, "compound_statement");
    if (isNull(block)) return;
    build_[fn].modifiers |= kDefinition;
    bool outer = inFunction_, outerStatic = inClassMethod_;
    inFunction_ = true;
    inClassMethod_ = classMethod;
    visit(block, fn, Role::Body);
    inFunction_ = outer;
    inClassMethod_ = outerStatic;
  }

  void record(TSNode node, NodeId parent) {
    TSNode name = field(node, f_.name), inner = field(node, f_.body);
    if (isNull(inner)) return;
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(is(node, "union_specifier") ? TypeForm::Union : TypeForm::Struct);
    build_[id].modifiers = kDefinition | kPublic;
    std::string_view word = isNull(name) ? pendingName_ : text(name);
    build_.setName(id, word, isNull(name) ? begin(node) : begin(name));
    pendingName_ = {};
    for (TSNode one : named(inner)) {
      if (!is(one, "field_declaration")) continue;
      for (TSNode kid : named(one))
        if (is(kid, "struct_specifier") || is(kid, "union_specifier")) visit(kid, id, Role::Member);
      Declared d = declared(field(one, declaratorField()));
      if (isNull(d.name)) continue;
      NodeId variable = add(id, Kind::Variable, Role::Member, one);
      build_.setName(variable, text(d.name), begin(d.name));
      build_[variable].modifiers = kDefinition | kPublic | (specifiers(one, (d.bits & kPointer) != 0) & kConst);
      if (!isNull(d.function)) d.block = true;
      typeOf(one, d, variable, Role::Type);
    }
  }

  // ----- classes

  std::string_view classNameOf(TSNode node) const {
    for (TSNode kid : named(node))
      if (is(kid, "identifier")) return text(kid);
    return {};
  }

  void classPart(TSNode node, NodeId, bool interface) {
    TSNode category = field(node, categoryField());
    std::string_view name = classNameOf(node);
    bool extension = !isNull(category) || (interface && hasToken(node, "("));
    NodeId id = add(0, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Class);
    build_[id].modifiers = kDefinition | kPublic | (interface && !extension ? 0u : kPart);
    TSNode at{};
    for (TSNode kid : named(node))
      if (isNull(at) && is(kid, "identifier")) at = kid;
    build_.setName(id, name, isNull(at) ? begin(node) : begin(at));
    TSNode base = field(node, f_.superclass);
    if (!isNull(base)) {
      NodeId ref = typeRefNamed(text(base), base, id, Role::Base, false);
      build_[ref].modifiers = kPublic;
    }
    std::string outer = currentClass_;
    currentClass_ = name;
    bool before = true;
    for (TSNode kid : named(node)) {
      if (is(kid, "identifier") || (before && is(kid, "parameterized_arguments"))) continue;
      before = false;
      // What a class's brackets hold besides its members is the file's.
      visit(kid, isMember(kid) ? id : 0, Role::None);
    }
    currentClass_ = outer;
  }

  bool isMember(TSNode node) const {
    return is(node, "method_declaration") || is(node, "property_declaration") || is(node, "instance_variables") || is(node, "implementation_definition") || is(node, "property_implementation");
  }

  void unit(TSNode root) override {
    if (is(root, "ERROR")) return torn(root);
    for (TSNode kid : named(root)) is(kid, "ERROR") && hasToken(kid, "@implementation") ? torn(kid) : visit(kid, 0, Role::None);
  }

  // Where the grammar lost its way in a class, the members that it found lie beside the class's name.
  void torn(TSNode node) {
    NodeId type = kNoNode;
    bool opening = false;
    for (TSNode kid : all(node)) {
      if (is(kid, "@implementation")) {
        type = add(0, Kind::Type, Role::Member, kid);
        build_[type].detail = static_cast<uint8_t>(TypeForm::Class);
        build_[type].modifiers = kDefinition | kPublic | kPart;
        build_[type].span.end = ts_node_end_byte(node);
        opening = true;
      } else if (opening && is(kid, "identifier")) {
        build_.setName(type, text(kid), begin(kid));
        currentClass_ = text(kid);
        opening = false;
      } else if (type != kNoNode && is(kid, "@end")) {
        build_[type].span.end = ts_node_end_byte(kid);
        type = kNoNode;
        currentClass_.clear();
      } else if (ts_node_is_named(kid)) {
        // The pieces of a torn method are no declarations of the file.
        bool piece = type != kNoNode && (is(kid, "declaration") ? !text(kid).starts_with("static") : !isMember(kid) && !is(kid, "function_definition"));
        if (piece) unread(0, kid);
        else visit(kid, type != kNoNode && isMember(kid) ? type : 0, Role::None);
      }
    }
  }
  TSFieldId categoryField() const {
    static const TSFieldId kField = ts_language_field_id_for_name(tree_sitter_objc(), "category", 8);
    return kField;
  }

  void protocol(TSNode node) {
    NodeId id = add(0, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Interface);
    build_[id].modifiers = kDefinition | kPublic;
    build_.setName(id, classNameOf(node), begin(node));
    for (TSNode kid : named(node))
      if (is(kid, "method_declaration") || is(kid, "property_declaration") || is(kid, "qualified_protocol_interface_declaration")) visit(kid, id, Role::None);
  }

  void ivars(TSNode node, NodeId type) {
    uint32_t visible = kProtected;
    for (TSNode one : named(node)) {
      if (!is(one, "instance_variable")) continue;
      if (TSNode word = childOfType(one, "visibility_specification"); !isNull(word))
        visible = text(word) == "@private" ? kPrivate : text(word) == "@public" ? kPublic : kProtected;
      TSNode written = childOfType(one, "struct_declaration");
      if (isNull(written)) continue;
      for (TSNode kid : named(written)) {
        if (!is(kid, "struct_declarator")) continue;
        Declared d = declared(kid);
        if (isNull(d.name)) continue;
        NodeId id = add(type, Kind::Variable, Role::Member, kid);
        build_.setName(id, text(d.name), begin(d.name));
        build_[id].modifiers = kDefinition | visible;
        if (!isNull(d.function)) d.block = true;
        typeOf(written, d, id, Role::Type);
      }
    }
  }

  void property(TSNode node, NodeId type) {
    TSNode written = childOfType(node, "struct_declaration");
    if (isNull(written)) return;
    std::string_view attributes = text(childOfType(node, "property_attributes_declaration"));
    auto has = [&](std::string_view word) {
      size_t at = attributes.find(word);
      return at != std::string_view::npos && (at + word.size() >= attributes.size() || !isWordByte(attributes[at + word.size()]));
    };
    for (TSNode kid : named(written)) {
      if (!is(kid, "struct_declarator")) continue;
      Declared d = declared(kid);
      if (isNull(d.name)) continue;
      if (!isNull(d.function)) d.block = true;
      if (has("class")) {  // its getter is written as a class method
        NodeId id = function(node, type, FunctionForm::Getter, text(d.name), begin(d.name), kStatic | kPublic);
        typeOf(written, d, id, Role::Type);
        continue;
      }
      NodeId id = add(type, Kind::Variable, Role::Member, node);
      build_.setName(id, text(d.name), begin(d.name));
      build_[id].modifiers = kDefinition | kPublic;
      typeOf(written, d, id, Role::Type);
    }
  }

  // "assign:toBerth:" and its parameters.
  void method(TSNode node, NodeId type) {
    bool ofClass = text(ts_node_child(node, 0)) == "+";
    std::string selector;
    std::vector<TSNode> given;
    TSNode at{}, result{};
    for (TSNode kid : named(node)) {
      if (is(kid, "method_type") && isNull(at)) result = kid;
      if (is(kid, "identifier")) {
        if (isNull(at)) at = kid;
        selector += text(kid);
      }
      if (is(kid, "method_parameter")) {
        selector += ':';
        given.push_back(kid);
      }
    }
    if (isNull(at)) at = node;
    std::string_view written = isNull(result) ? std::string_view("(id)") : text(result);
    bool constructs = !ofClass && (selector == "init" || (selector.substr(0, 4) == "init" && selector.size() > 4 && (selector[4] < 'a' || selector[4] > 'z')));
    bool starts = ofClass && (selector == "initialize" || selector == "load");
    FunctionForm form = constructs ? FunctionForm::Constructor : !ofClass && selector == "dealloc" ? FunctionForm::Destructor : starts ? FunctionForm::Initialiser
                        : ofClass && selector == "allocWithZone:" && !objcGuarantees().isRoot(currentClass_) ? FunctionForm::Factory  // the roots' own is what the language does
                        : given.empty() && written.find("void)") == std::string_view::npos ? FunctionForm::Getter : FunctionForm::Function;
    // What only an implementation has is known to nobody else, but for what every object has.
    uint32_t bits = (is(node, "method_definition") && selector != "init" ? 0u : uint32_t{kPublic}) | (ofClass ? kStatic : 0u);
    // Declared so that nobody may send it.
    std::string_view whole = original_.substr(begin(node), std::min<size_t>(original_.find('\n', ts_node_end_byte(node)), original_.size()) - begin(node));
    if (is(node, "method_declaration") && (whole.find("NS_UNAVAILABLE") != std::string_view::npos || whole.find("unavailable") != std::string_view::npos)) bits |= kDeleted;
    NodeId id = function(node, type, form, selector, begin(at), bits);
    if (form != FunctionForm::Constructor) methodType(result, id);
    for (TSNode one : given) {
      NodeId parameter = add(id, Kind::Parameter, Role::Parameter, one);
      TSNode name = childOfType(one, "identifier");
      if (!isNull(name)) build_.setName(parameter, text(name), begin(name));
      methodType(childOfType(one, "method_type"), parameter);
    }
    if (is(node, "method_definition")) body(node, childOfType(node, "compound_statement"), id, ofClass);
  }

  // ----- expressions

  bool isSelfAlloc(TSNode node) const {
    if (!is(node, "message_expression")) return false;
    std::string_view receiver = text(field(node, receiverField())), selector = text(field(node, methodField()));
    return (selector == "alloc" || selector == "allocWithZone") && (receiver == "self" || receiver == "super") && inClassMethod_;
  }
  TSFieldId receiverField() const { return f_.receiver; }
  TSFieldId methodField() const {
    static const TSFieldId kField = ts_language_field_id_for_name(tree_sitter_objc(), "method", 6);
    return kField;
  }

  void message(TSNode node, NodeId parent, Role role) {
    TSNode receiver = field(node, receiverField());
    std::string selector;
    std::vector<TSNode> values;
    TSNode at{};
    TSTreeCursor cursor = ts_tree_cursor_new(node);
    if (ts_tree_cursor_goto_first_child(&cursor)) {
      do {
        TSNode kid = ts_tree_cursor_current_node(&cursor);
        TSFieldId id = ts_tree_cursor_current_field_id(&cursor);
        if (id == methodField()) {
          if (isNull(at)) at = kid;
          selector += text(kid);
        } else if (id == receiverField()) {
          continue;
        } else if (!ts_node_is_named(kid)) {
          if (text(kid) == ":") selector += ':';
        } else if (!is(kid, "comment")) {
          values.push_back(kid);
        }
      } while (ts_tree_cursor_goto_next_sibling(&cursor));
    }
    ts_tree_cursor_delete(&cursor);
    if (isNull(at)) at = node;
    // [[Type alloc] init…], [Type new]
    TSNode madeBy = is(receiver, "message_expression") ? field(receiver, receiverField()) : TSNode{};
    std::string_view first = is(receiver, "message_expression") ? text(field(receiver, methodField())) : std::string_view{};
    bool inits = selector.substr(0, 4) == "init" && (first == "alloc" || first == "allocWithZone");
    TSNode type = inits ? madeBy : selector == "new" || selector == "alloc" ? receiver : TSNode{};
    std::string_view word = isNull(type) ? std::string_view{} : text(type);
    bool own = (word == "self" || word == "super") && inClassMethod_;
    bool named = is(type, "identifier") && !word.empty() && word[0] >= 'A' && word[0] <= 'Z';
    if (own || named || (!word.empty() && word.find("self class") != std::string_view::npos)) return create(node, parent, role, named ? word : std::string_view(currentClass_), values, !named && word != "super");
    // [super allocWithZone:zone], where a class says itself what asking for an object gives.
    if (text(receiver) == "super" && inClassMethod_ && selector.substr(0, 5) == "alloc") return create(node, parent, role, std::string_view(currentClass_), {}, false);
    // [NSMutableArray array] and its like make one.
    if (is(receiver, "identifier") && text(receiver).substr(0, 2) == "NS" && selector.find("Contents") == std::string::npos) {
      for (std::string_view maker : {"array", "dictionary", "set", "string", "orderedSet", "data"})
        if (selector.substr(0, maker.size()) == maker) return create(node, parent, role, text(receiver), values, false);
    }
    // self = [super init…]: the object goes on being itself.
    NodeId id = add(parent, Kind::Call, role, node);
    NodeId callee = add(id, Kind::Member, Role::Callee, node);
    if (text(receiver) == "super") add(callee, Kind::Other, Role::Receiver, receiver);
    else visit(receiver, callee, Role::Receiver);
    build_.setName(callee, selector, begin(at));
    for (TSNode value : values) argument(value, id);
  }

  void create(TSNode node, NodeId parent, Role role, std::string_view type, const std::vector<TSNode>& values, bool late, CreateForm form = CreateForm::Heap) {
    NodeId id = add(parent, Kind::Create, role, node);
    build_[id].detail = static_cast<uint8_t>(form);
    if (late) build_[id].modifiers |= kVirtual;
    typeRefNamed(type, node, id, Role::Type, false);
    for (TSNode value : values) argument(value, id);
  }

  void argument(TSNode node, NodeId call) {
    if (isNothing(node)) build_[add(call, Kind::Literal, Role::Argument, node)].detail = static_cast<uint8_t>(LiteralForm::Null);
    else visit(node, call, Role::Argument);
  }

  static std::string_view toldByFunction(std::string_view function) {
    static constexpr auto kFunctions = std::to_array<std::pair<std::string_view, std::string_view>>({
        {"CFDictionaryGetValue", "objectForKey:"},
        {"CFDictionaryRemoveValue", "removeObjectForKey:"},
        {"CFDictionarySetValue", "setObject:forKey:"},
        {"NSMapGet", "objectForKey:"},
        {"NSMapInsert", "setObject:forKey:"},
        {"NSMapRemove", "removeObjectForKey:"},
    });
    auto at = std::find_if(kFunctions.begin(), kFunctions.end(), [&](const auto& one) { return one.first == function; });
    return at == kFunctions.end() ? std::string_view{} : at->second;
  }

  void call(TSNode node, NodeId parent, Role role) {
    std::string_view name = text(field(node, f_.function));
    TSNode list = field(node, f_.arguments);
    std::vector<TSNode> values;
    if (!isNull(list))
      for (TSNode kid : named(list))
        if (!is(kid, "comment")) values.push_back(kid);
    TSNode block = !values.empty() && is(values.back(), "block_literal") ? childOfType(values.back(), "compound_statement") : TSNode{};
    if (name == "dispatch_once" && values.size() == 2) {
      NodeId id = add(parent, Kind::Once, role, node);
      visit(values.front(), id, Role::Lock);
      if (!isNull(block)) return visit(block, id, Role::Body);
      // A block that a variable holds.
      visit(values.back(), add(id, Kind::Call, Role::Body, values.back()), Role::Callee);
      return;
    }
    // What allocates an object of the class that is its first argument.
    if ((name == "NSAllocateObject" || name == "class_createInstance") && !values.empty()) {
      std::string_view made = text(values.front());
      bool self = (made == "self" && inClassMethod_) || made == "[self class]";
      if (is(values.front(), "identifier") || self) return create(node, parent, role, self ? std::string_view(currentClass_) : made, {}, self, CreateForm::Raw);
    }
    // The functions of a map table stand for what a dictionary is told.
    if (std::string_view told = toldByFunction(name); !told.empty() && values.size() >= 2) {
      NodeId id = add(parent, Kind::Call, role, node);
      NodeId callee = add(id, Kind::Member, Role::Callee, node);
      visit(values.front(), callee, Role::Receiver);
      build_.setName(callee, told, begin(field(node, f_.function)));
      if (values.size() == 3) argument(values[2], id);
      argument(values[1], id);
      return;
    }
    if (!isNull(block) && (name == "dispatch_sync" || name == "dispatch_barrier_sync" || name == "dispatch_barrier_async")) {
      guardOf(node, parent, role, values.front(), block);
      return;
    }
    NodeId id = add(parent, Kind::Call, role, node);
    visit(field(node, f_.function), id, Role::Callee);
    for (TSNode value : values) argument(value, id);
  }

  bool ownAssign(TSNode node, NodeId parent, Role role) override {
    TSNode left = field(node, f_.left), right = field(node, f_.right);
    // self = [super init…]
    if (text(left) == "self") {
      visit(right, parent, role);
      return true;
    }
    if (!isNothing(right)) return false;
    NodeId id = add(parent, Kind::Assign, role, node);
    visit(left, id, Role::Target);
    build_[add(id, Kind::Literal, Role::Value, right)].detail = static_cast<uint8_t>(LiteralForm::Null);
    return true;
  }

  bool ownName(TSNode node, NodeId parent, Role role) override {
    std::string_view word = text(node);
    if (word == "self") {
      if (inClassMethod_) build_.setName(add(parent, Kind::Name, role, node), currentClass_, begin(node));
      else add(parent, Kind::This, role, node);
      return true;
    }
    if (word == "super") {
      add(parent, Kind::This, role, node);
      return true;
    }
    if (word == "YES" || word == "NO") {
      build_[add(parent, Kind::Literal, role, node)].detail = static_cast<uint8_t>(LiteralForm::Boolean);
      return true;
    }
    if (isNothing(node)) {
      build_[add(parent, Kind::Literal, role, node)].detail = static_cast<uint8_t>(LiteralForm::Null);
      return true;
    }
    if (auto other = synthesized_.find(word); other != synthesized_.end()) word = other->second;
    else if (word.size() > 1 && word[0] == '_' && lore_ && lore_->properties.count(word.substr(1)) && !currentClass_.empty()) word = word.substr(1);
    else return false;
    NodeId id = add(parent, Kind::Name, role, node);
    build_.setName(id, word, begin(node));
    return true;
  }

  // Lock pairs of the platform: [lock lock] … [lock unlock], pthread_mutex_lock(&m) ….
  TSNode lockOf(TSNode statement, bool taking) const override {
    TSNode call = is(statement, "expression_statement") ? firstNamed(statement) : TSNode{};
    if (is(call, "message_expression")) return text(field(call, methodField())) == (taking ? "lock" : "unlock") ? field(call, receiverField()) : TSNode{};
    if (!is(call, "call_expression")) return {};
    std::string_view name = text(field(call, f_.function));
    bool known = taking ? name == "pthread_mutex_lock" || name == "os_unfair_lock_lock" || name == "OSSpinLockLock" || name == "pthread_rwlock_wrlock" || name == "pthread_rwlock_rdlock"
                        : name == "pthread_mutex_unlock" || name == "os_unfair_lock_unlock" || name == "OSSpinLockUnlock" || name == "pthread_rwlock_unlock";
    TSNode list = known ? field(call, f_.arguments) : TSNode{};
    TSNode lock = isNull(list) ? TSNode{} : firstNamed(list);
    return is(lock, "pointer_expression") ? field(lock, f_.argument) : lock;
  }

  void own(TSNode node, uint8_t tag, NodeId parent, Role role) override {
    switch (tag) {
      case kInterface: classPart(node, parent, true); break;
      case kImplementation: classPart(node, parent, false); break;
      case kProtocol: protocol(node); break;
      case kMethod: method(node, parent); break;
      case kProperty: property(node, parent); break;
      case kIvars: ivars(node, parent); break;
      case kFunction: cFunction(node, parent); break;
      case kDeclaration: declaration(node, file_[parent].kind == Kind::Type && !inFunction_ ? 0 : parent); break;
      case kStruct: record(node, parent); break;
      case kEnum: lowerEnum(node, parent); break;
      case kTypedef: lowerTypedef(node, parent); break;
      case kAliasDeclaration: case kLinkage: {
        TSNode inner = field(node, f_.body);
        if (!isNull(inner)) visit(inner, parent, role);
        break;
      }
      case kMessage: message(node, parent, role); break;
      case kCall: call(node, parent, role); break;
      case kField: lowerField(node, parent, role); break;
      case kPointer: {
        NodeId id = add(parent, text(field(node, f_.op)) == "&" ? Kind::AddressOf : Kind::Dereference, role, node);
        visit(field(node, f_.argument), id, Role::Operand);
        break;
      }
      case kParen: lowerParen(node, parent, role); break;
      case kBlock: lowerBlock(node, parent, role); break;
      case kSynchronized: {
        NodeList kids = named(node);
        TSNode block = childOfType(node, "compound_statement");
        guardOf(node, parent, role, kids.empty() || ts_node_eq(kids.front(), block) ? TSNode{} : kids.front(), block);
        break;
      }
      case kFor: lowerFor(node, parent, role); break;
      case kElse:
        for (TSNode kid : named(node)) visit(kid, parent, role);
        break;
      case kTryStatement: {
        NodeId id = add(parent, Kind::Try, role, node);
        for (TSNode kid : named(node)) visit(kid, id, is(kid, "compound_statement") ? Role::Body : handlerRole(kid));
        break;
      }
      case kHandler: case kCase: lowerHandler(node, tag, parent, role); break;
      case kAt: for (TSNode kid : named(node)) visit(kid, parent, role); break;
      case kArray: case kDictionary: case kInitialisers: {
        NodeId id = add(parent, Kind::Collection, role, node);
        if (tag != kInitialisers) build_.setName(id, tag == kArray ? "NSArray" : "NSDictionary", begin(node));
        for (TSNode kid : named(node)) visit(kid, id, Role::Value);
        break;
      }
      case kPair: if (TSNode value = field(node, f_.value); !isNull(value)) visit(value, parent, role); break;
      case kSynthesize: lowerSynthesize(node); break;
      default: break;
    }
  }

  void lowerEnum(TSNode node, NodeId parent) {
    TSNode inner = field(node, f_.body);
    if (isNull(inner)) return;
    TSNode name = field(node, f_.name);
    NodeId id = add(parent, Kind::Type, Role::Member, node);
    build_[id].detail = static_cast<uint8_t>(TypeForm::Enum);
    build_[id].modifiers = kDefinition | kPublic;
    build_.setName(id, isNull(name) ? pendingName_ : text(name), isNull(name) ? begin(node) : begin(name));
    pendingName_ = {};
    for (TSNode one : named(inner))
      if (is(one, "enumerator"))
        if (TSNode word = field(one, f_.name); !isNull(word)) build_.setName(add(id, Kind::Enumerator, Role::Member, one), text(word), begin(word));
  }

  void lowerTypedef(TSNode node, NodeId parent) {
    Declared d = declared(field(node, declaratorField()));
    // The language's own names, where the runtime's headers are read too.
    if (!isNull(d.name) && (text(d.name) == "id" || text(d.name) == "Class" || text(d.name) == "SEL")) return;
    if (!isNull(d.name)) pendingName_ = text(d.name);
    for (TSNode kid : named(node))
      if (is(kid, "struct_specifier") || is(kid, "union_specifier") || is(kid, "enum_specifier")) visit(kid, parent, Role::Member);
    pendingName_ = {};
    TSNode type = field(node, f_.type);
    TSNode tag_ = is(type, "struct_specifier") || is(type, "union_specifier") || is(type, "enum_specifier") ? field(type, f_.name) : TSNode{};
    bool renames = is(type, "type_identifier") || (!isNull(tag_) && text(tag_) != text(d.name));
    if (!renames || isNull(d.name) || d.block || !isNull(d.function) || text(d.name) == text(type)) return;
    NodeId id = add(parent, Kind::Alias, Role::Member, node);
    build_.setName(id, text(d.name), begin(d.name));
    typeOf(node, d, id, Role::Type);
  }

  void lowerField(TSNode node, NodeId parent, Role role) {
    TSNode object = field(node, f_.argument), name = field(node, f_.field);
    // Type.shared sends the message.
    NodeId id = add(parent, Kind::Member, role, node);
    visit(object, id, Role::Receiver);
    build_.setName(id, text(name), begin(name));
    if (text(field(node, f_.op)) == "->") build_[id].modifiers |= kArrow;
  }

  void lowerParen(TSNode node, NodeId parent, Role role) {
    TSNode inner = firstNamed(node);
    if (role == Role::Condition && is(inner, "assignment_expression") && text(field(inner, f_.left)) == "self") {
      visit(field(inner, f_.right), parent, role);
    } else if (role == Role::Condition) {
      condition(inner, parent, role);
    } else {
      visit(inner, parent, role);
    }
  }

  void lowerBlock(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Lambda, role, node);
    parametersOf(node, id);
    bool outer = inFunction_;
    inFunction_ = true;
    if (TSNode block = childOfType(node, "compound_statement"); !isNull(block)) visit(block, id, Role::Body);
    inFunction_ = outer;
  }

  void lowerFor(TSNode node, NodeId parent, Role role) {
    NodeId id = add(parent, Kind::Loop, role, node);
    if (hasToken(node, "in")) {
      bool in = false;
      for (TSNode kid : all(node)) {
        if (text(kid) == "in" && !ts_node_is_named(kid)) in = true;
        else if (!in && std::string_view(ts_node_type(kid)).find("declarator") != std::string_view::npos) {
          Declared d = declared(kid);
          if (!isNull(d.name)) build_.setName(add(id, Kind::Variable, Role::None, kid), text(d.name), begin(d.name));
        } else if (!in && is(kid, "identifier")) {
          build_.setName(add(id, Kind::Variable, Role::None, kid), text(kid), begin(kid));
        } else if (in && ts_node_is_named(kid)) {
          bool statement = is(kid, "compound_statement") || std::string_view(ts_node_type(kid)).find("statement") != std::string_view::npos;
          visit(kid, id, statement ? Role::Body : Role::Operand);
        }
      }
      return;
    }
    for (TSNode part : {field(node, f_.initializer), field(node, f_.update)})
      if (!isNull(part)) visit(part, id, Role::None);
    if (TSNode test = field(node, f_.condition); !isNull(test)) condition(test, id, Role::Condition);
    TSNode inner = field(node, f_.body);
    if (isNull(inner))
      for (TSNode kid : named(node))
        if (std::string_view(ts_node_type(kid)).find("statement") != std::string_view::npos) inner = kid;
    if (!isNull(inner)) visit(inner, id, Role::Body);
  }

  void lowerHandler(TSNode node, uint8_t tag, NodeId parent, Role role) {
    if (tag == kHandler) {
      TSNode name = firstNamed(childOfType(childOfType(node, "type_name"), "pointer_declarator"));
      NodeId id = handler(node, parent, role, is(name, "identifier") ? name : TSNode{}, {}, {});
      if (TSNode block = childOfType(node, "compound_statement"); !isNull(block)) statements(block, id);
    } else {
      visitChildren(node, add(parent, Kind::Block, role, node));
    }
  }

  void lowerSynthesize(TSNode node) {
    // @synthesize name = variable;
    bool dynamic = text(node).substr(0, 8) == "@dynamic";
    NodeList kids = all(node);
    for (size_t i = 0; !dynamic && i + 2 < kids.size(); ++i)
      if (is(kids[i], "identifier") && text(kids[i + 1]) == "=" && text(kids[i]) != text(kids[i + 2])) synthesized_.emplace(text(kids[i + 2]), text(kids[i]));
  }

  std::string_view original_;
  const ObjcLore* lore_;
  std::string currentClass_;
  std::string_view pendingName_;  // of a typedef around an unnamed struct
  std::map<std::string_view, std::string_view> synthesized_;
  bool inFunction_ = false, inClassMethod_ = false;
};

}  // namespace

void lowerObjc(std::string_view text, const Language::TreeLore* lore, LoweredFile& out) {
  const auto* known = static_cast<const ObjcLore*>(lore);
  lowerEither(text, known, out, [&](PreparedText prepared, LoweredFile& into) {
    ObjcLowerer lowerer(grammar(), prepared.text, text, known, into);
    if (lowerer.tooDeep()) return;
    rephraseObjc(prepared.text);  // in place, by words of the same length
    ParserHandle parser = makeParser(tree_sitter_objc());
    TreeHandle tree = parseRepaired(parser, prepared.text, known);
    into.comments = std::move(prepared.comments);
    into.otherBranches = std::move(prepared.otherBranches);
    lowerer.runOn(ts_tree_root_node(tree.get()));
    addIncludes(prepared, into);
  });
}

void parseObjcOnly(std::string_view text) { parseOnlyWith(grammar(), text); }

}  // namespace elmcart

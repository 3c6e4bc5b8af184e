#include "languages/cpp/lowerer.h"

extern "C" const TSLanguage* tree_sitter_cpp(void);

namespace elmcart::cpp {
namespace {

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

}  // namespace

Grammar::Grammar() {
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

}  // namespace elmcart::cpp

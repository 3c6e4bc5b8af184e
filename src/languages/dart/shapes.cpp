#include "languages/dart/shapes.h"

extern "C" const TSLanguage* tree_sitter_dart(void);

namespace elmcart::dart {
namespace {

constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"documentation_comment", Shape::Comment}, {"library_name", Shape::Skip}, {"script_tag", Shape::Skip}, {"part_directive", Shape::Skip}, {"part_of_directive", Shape::Skip}, {"import_or_export", Shape::Pass}, {"library_import", Shape::Own, kImport}, {"library_export", Shape::Own, kImport},
    {"class_definition", Shape::Own, kClass}, {"mixin_declaration", Shape::Own, kClass}, {"extension_declaration", Shape::Own, kExtension}, {"enum_declaration", Shape::Own, kEnum}, {"type_alias", Shape::Own, kAlias}, {"annotation", Shape::Skip}, {"marker_annotation", Shape::Skip},
    {"block", Shape::Block}, {"if_statement", Shape::If}, {"for_statement", Shape::Own, kFor}, {"while_statement", Shape::Loop}, {"do_statement", Shape::Loop}, {"switch_statement", Shape::Own, kSwitchStatement}, {"try_statement", Shape::Own, kTry}, {"return_statement", Shape::Own, kReturn}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"yield_statement", Shape::Own, kStatementRun}, {"yield_each_statement", Shape::Own, kStatementRun}, {"assert_statement", Shape::Skip}, {"expression_statement", Shape::Own, kStatementRun}, {"local_variable_declaration", Shape::Own, kLocal}, {"local_function_declaration", Shape::Own, kLocalFunction}, {"label", Shape::Skip},
    {"throw_expression", Shape::Own, kThrow}, {"throw_expression_without_cascade", Shape::Own, kThrow}, {"assignment_expression", Shape::Own, kAssign}, {"assignment_expression_without_cascade", Shape::Own, kAssign}, {"assignable_expression", Shape::Own, kRun}, {"parenthesized_expression", Shape::Own, kRun}, {"template_substitution", Shape::Own, kRun}, {"argument", Shape::Own, kRun}, {"named_argument", Shape::Own, kRun},
    {"additive_expression", Shape::Own, kOperators}, {"multiplicative_expression", Shape::Own, kOperators}, {"shift_expression", Shape::Own, kOperators}, {"bitwise_and_expression", Shape::Own, kOperators}, {"bitwise_or_expression", Shape::Own, kOperators}, {"bitwise_xor_expression", Shape::Own, kOperators}, {"equality_expression", Shape::Own, kOperators}, {"relational_expression", Shape::Own, kOperators}, {"logical_and_expression", Shape::Own, kOperators}, {"logical_or_expression", Shape::Own, kOperators},
    {"unary_expression", Shape::Own, kUnary}, {"postfix_expression", Shape::Own, kPostfix}, {"await_expression", Shape::Own, kAwait}, {"conditional_expression", Shape::Own, kTernary}, {"if_null_expression", Shape::Own, kIfNull}, {"type_test_expression", Shape::Own, kTest}, {"type_cast_expression", Shape::Own, kCast}, {"function_expression", Shape::Own, kFunctionExpression},
    {"new_expression", Shape::Own, kCreate}, {"const_object_expression", Shape::Own, kCreate}, {"constructor_invocation", Shape::Own, kCreate}, {"list_literal", Shape::Own, kList}, {"set_or_map_literal", Shape::Own, kMap}, {"pair", Shape::Own, kRun}, {"spread_element", Shape::Own, kRun}, {"if_element", Shape::Own, kRun}, {"for_element", Shape::Own, kRun}, {"for_loop_parts", Shape::Own, kRun},
    {"identifier", Shape::Name}, {"identifier_dollar_escaped", Shape::Name}, {"type_identifier", Shape::Name}, {"this", Shape::This}, {"super", Shape::This}, {"null_literal", Shape::Null}, {"true", Shape::Boolean}, {"false", Shape::Boolean}, {"decimal_integer_literal", Shape::Number}, {"decimal_floating_point_literal", Shape::Number}, {"hex_integer_literal", Shape::Number}, {"string_literal", Shape::Text}, {"symbol_literal", Shape::Text},
    {"type_arguments", Shape::Skip}, {"type_parameters", Shape::Skip}, {"formal_parameter_list", Shape::Skip}, {"catch_parameters", Shape::Skip}, {"escape_sequence", Shape::Skip}, {"const_builtin", Shape::Skip}, {"final_builtin", Shape::Skip}, {"inferred_type", Shape::Skip}, {"void_type", Shape::Skip}, {"function_type", Shape::Skip}, {"increment_operator", Shape::Skip},
};

constexpr std::string_view kValueTypes[] = {"int", "double", "num", "bool", "String", "void", "dynamic", "Never", "DateTime", "Duration", "Type", "Symbol", "RegExp", "Uri"};
constexpr std::string_view kNullWords[] = {"null"};

}  // namespace

const SharedGrammar& grammar() {
  static const SharedGrammar kGrammar([] {
    GrammarSpec spec;
    spec.grammar = tree_sitter_dart;
    spec.rows = kRows;
    spec.valueTypes = kValueTypes;
    spec.nullWords = kNullWords;
    return spec;
  }());
  return kGrammar;
}

}  // namespace elmcart::dart

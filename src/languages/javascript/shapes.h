// What the nodes of the grammars of JavaScript and TypeScript are to the lowering.
#pragma once

#include <cstdint>
#include <string_view>

#include "languages/shared/lowerer.h"

namespace elmcart::script {

enum Own : uint8_t { kImport, kExport, kClass, kMethod, kField, kStaticBlock, kFunction, kLexical, kArrow, kNewExpression, kObject, kArray, kCatch, kElse, kCase, kInterface, kAlias, kEnum, kNamespace, kAsserted, kDeclare, kSubscript };

inline constexpr ShapeRow kRows[] = {
    {"comment", Shape::Comment}, {"html_comment", Shape::Comment}, {"hash_bang_line", Shape::Skip}, {"import_statement", Shape::Own, kImport}, {"export_statement", Shape::Own, kExport},
    {"class_declaration", Shape::Own, kClass}, {"abstract_class_declaration", Shape::Own, kClass}, {"class", Shape::Own, kClass}, {"method_definition", Shape::Own, kMethod}, {"abstract_method_signature", Shape::Own, kMethod}, {"method_signature", Shape::Own, kMethod},
    {"field_definition", Shape::Own, kField}, {"public_field_definition", Shape::Own, kField}, {"class_static_block", Shape::Own, kStaticBlock},
    {"function_declaration", Shape::Own, kFunction}, {"generator_function_declaration", Shape::Own, kFunction}, {"function_signature", Shape::Skip},
    {"lexical_declaration", Shape::Own, kLexical}, {"variable_declaration", Shape::Own, kLexical}, {"using_declaration", Shape::Own, kLexical},
    {"arrow_function", Shape::Own, kArrow}, {"function_expression", Shape::Own, kArrow}, {"function", Shape::Own, kArrow}, {"generator_function", Shape::Own, kArrow},
    {"statement_block", Shape::Block}, {"if_statement", Shape::If}, {"else_clause", Shape::Own, kElse}, {"for_statement", Shape::Loop}, {"for_in_statement", Shape::Loop}, {"while_statement", Shape::Loop}, {"do_statement", Shape::Loop},
    {"try_statement", Shape::Try}, {"catch_clause", Shape::Own, kCatch}, {"finally_clause", Shape::Own, kCatch}, {"switch_statement", Shape::Switch}, {"switch_body", Shape::Pass}, {"switch_case", Shape::Own, kCase}, {"switch_default", Shape::Own, kCase},
    {"return_statement", Shape::Return}, {"throw_statement", Shape::Throw}, {"break_statement", Shape::Jump}, {"continue_statement", Shape::Jump}, {"empty_statement", Shape::Skip}, {"debugger_statement", Shape::Skip}, {"labeled_statement", Shape::Pass}, {"statement_identifier", Shape::Skip},
    {"expression_statement", Shape::Statement}, {"call_expression", Shape::Call}, {"new_expression", Shape::Own, kNewExpression}, {"member_expression", Shape::Member}, {"subscript_expression", Shape::Own, kSubscript},
    {"assignment_expression", Shape::Assign}, {"augmented_assignment_expression", Shape::Compound}, {"update_expression", Shape::Update}, {"binary_expression", Shape::Binary}, {"unary_expression", Shape::Unary}, {"ternary_expression", Shape::Conditional},
    {"await_expression", Shape::Await}, {"parenthesized_expression", Shape::Paren}, {"sequence_expression", Shape::Collection}, {"object", Shape::Own, kObject}, {"array", Shape::Own, kArray}, {"pair", Shape::Pass},
    {"identifier", Shape::Name}, {"shorthand_property_identifier", Shape::Name}, {"shorthand_property_identifier_pattern", Shape::Name}, {"property_identifier", Shape::Skip}, {"private_property_identifier", Shape::Skip}, {"string", Shape::Text}, {"template_string", Shape::Text}, {"template_substitution", Shape::Pass}, {"number", Shape::Number}, {"regex", Shape::Text},
    {"true", Shape::Boolean}, {"false", Shape::Boolean}, {"null", Shape::Null}, {"undefined", Shape::Null}, {"this", Shape::This}, {"super", Shape::Other}, {"import", Shape::Name}, {"decorator", Shape::Skip}, {"class_body", Shape::Pass}, {"class_heritage", Shape::Skip}, {"optional_chain", Shape::Skip},
    // TypeScript
    {"interface_declaration", Shape::Own, kInterface}, {"type_alias_declaration", Shape::Own, kAlias}, {"enum_declaration", Shape::Own, kEnum}, {"internal_module", Shape::Own, kNamespace}, {"module", Shape::Own, kNamespace},
    {"as_expression", Shape::Own, kAsserted}, {"satisfies_expression", Shape::Own, kAsserted}, {"type_assertion", Shape::Own, kAsserted}, {"non_null_expression", Shape::Paren}, {"ambient_declaration", Shape::Own, kDeclare},
    {"type_annotation", Shape::Skip}, {"type_arguments", Shape::Skip}, {"type_parameters", Shape::Skip}, {"accessibility_modifier", Shape::Skip}, {"override_modifier", Shape::Skip}, {"index_signature", Shape::Skip}, {"property_signature", Shape::Skip}, {"import_alias", Shape::Skip}, {"construct_signature", Shape::Skip}, {"call_signature", Shape::Skip},
    {"jsx_text", Shape::Skip}, {"jsx_expression", Shape::Pass}, {"jsx_attribute", Shape::Pass}, {"jsx_opening_element", Shape::Pass}, {"jsx_closing_element", Shape::Skip}, {"nested_type_identifier", Shape::Skip}, {"predefined_type", Shape::Skip}, {"type_identifier", Shape::Name},
};

inline constexpr std::string_view kValueTypes[] = {"number", "string", "boolean", "bigint", "symbol", "void"};
inline constexpr std::string_view kNullWords[] = {"null", "undefined"};

}  // namespace elmcart::script

#include "languages/shared/shapes.h"

namespace elmcart {

SharedGrammar::SharedGrammar(const GrammarSpec& s) : spec(s), language(s.grammar()) {
  shape_.assign(ts_language_symbol_count(language), Shape::Other);
  own_.assign(shape_.size(), 0);
  std::vector<std::string_view> tokens;
  for (uint32_t symbol = 0; symbol < shape_.size(); ++symbol) {
    bool regular = ts_language_symbol_type(language, static_cast<TSSymbol>(symbol)) == TSSymbolTypeRegular;
    std::string_view name = ts_language_symbol_name(language, static_cast<TSSymbol>(symbol));
    if (regular) named_.insert(name);
    else if (ts_language_symbol_type(language, static_cast<TSSymbol>(symbol)) == TSSymbolTypeAnonymous) tokens.push_back(name);
    for (const ShapeRow& row : s.rows) {
      if (row.node != name || !(regular || (s.bareThis && row.shape == Shape::This))) continue;
      shape_[symbol] = row.shape;
      own_[symbol] = row.own;
    }
  }
  for (std::string_view token : tokens) named_.erase(token);
  valueTypes.insert(s.valueTypes.begin(), s.valueTypes.end());
  hasElseClauses = isNamed("elif_clause") || isNamed("else_if_clause") || isNamed("else_clause");
  auto id = [&](std::string_view text) { return ts_language_field_id_for_name(language, text.data(), static_cast<uint32_t>(text.size())); };
  fields = {id("name"), id("body"), id("condition"), id("consequence"), id("alternative"), id("left"), id("right"), id("operator"), id("operand"),
            id("object"), id("property"), id("field"), id("attribute"), id("function"), id("arguments"), id("type"), id("value"), id("parameters"),
            id("parameter"), id("result"), id("returns"), id("return_type"), id("argument"), id("initializer"), id("superclass"), id("superclasses"),
            id("path"), id("alias"), id("key"), id("receiver"), id("default_value"), id("update"), id("expression"), id("scope"), id("definition"),
            id("declaration"), id("source"), id("pattern"), id("collection"), id("item"), id("target"), id("wrapped"), id("accessors"),
            id("constructor"), id("module_name"), id("type_parameters"), id("declaration_kind"), id("computed_value")};
}

}  // namespace elmcart

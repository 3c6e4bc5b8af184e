// Writes changes in Objective-C.
#include "languages/writer.h"

#include <algorithm>

#include "base/text.h"
#include "languages/objc/objc.h"

namespace elmcart {
namespace {

// A class takes the object in a property whose getter falls back on what was fetched before: initialisers have names of
// their own, and messages to `alloc` may come from anywhere. Who makes an object fills the property behind that.
class ObjcWriter final : public Writer {
 public:
  using Writer::Writer;

  // Without what a whole tree's names begin with: HOBerthBook is a berthBook.
  std::string wordFor(std::string_view name) const override {
    size_t upper = 0;
    while (upper < name.size() && std::isupper(static_cast<unsigned char>(name[upper]))) ++upper;
    return objectWord(upper > 1 && upper < name.size() ? name.substr(upper - 1) : name, false);
  }
  bool takesByFields() const override { return true; }
  std::string whyNoObject(Spot place) override {
    TSNode method = methodAround(place);
    if (SyntaxTree::isNull(method)) return "there is no object here that could have it";
    return tree(place).text(method).starts_with("+") ? "a class's own method has no object" : "";
  }
  bool hands(Spot creation) override {
    std::string target;
    TSNode statement = statementOf(creation, target);
    if (SyntaxTree::isNull(statement)) return false;
    for (TSNode next = ts_node_next_named_sibling(statement); !SyntaxTree::isNull(next); next = ts_node_next_named_sibling(next))
      if (tree(creation).text(next).starts_with(target + "." + handed_.word + " = ")) return true;
    return false;
  }

 protected:
  std::string canTake(const Change&) override { return "its initialiser runs before anybody could have filled a property"; }
  std::string canGetConstructor(const ClassFacts&) override { return ""; }
  // What is called must stand in front of what calls it.
  std::string canTakeInFunction(const Change& change) override {
    TSNode function = functionAt(change.at);
    if (SyntaxTree::isNull(listOf(function))) return "it could not be read";
    for (TSNode parameter : SyntaxTree::children(listOf(function)))
      if (SyntaxTree::is(parameter, "variadic_parameter")) return "it takes any number of arguments";
    return "";
  }
  std::string takeInFunction(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode function = functionAt(change.at), list = listOf(function), body = SyntaxTree::childOf(function, "compound_statement"), name = SyntaxTree::field(SyntaxTree::parent(list), "declarator");
    std::string fetch = fetchIn(file), newline(newlineOf(file)), twin = std::string(syntax.text(name)) + "With", names;
    if (fetch.empty()) return std::string(kCannotFetch);
    bool none = SyntaxTree::children(list).empty() || trim(syntax.text(list)) == "(void)";
    for (TSNode parameter : SyntaxTree::children(list))
      if (!none) names += std::string(syntax.text(declaredBy(parameter))) + ", ";
    uint32_t begin = ts_node_start_byte(function);
    std::string head(trim(syntax.text().substr(begin, ts_node_start_byte(body) - begin)));
    bool gives = syntax.text(SyntaxTree::field(function, "type")) != "void";
    insert(file, ts_node_end_byte(function), newline + newline + head + laidOut(file, " {\n\t" + std::string(gives ? "return " : "") + twin + "(" + names + fetch + ");\n}", ""));
    put(file, spanOf(name), twin);
    std::string item = handed_.type + " *" + handed_.word;
    if (none) put(file, spanOf(list), "(" + item + ")");
    else append(file, list, item);
    return "";
  }
  std::string canKeep(const ClassFacts& c) override {
    if (SyntaxTree::isNull(interfaceOf(c))) return "the interface of its class could not be read";
    if (SyntaxTree::isNull(implementationOf(c))) return "the implementation of its class could not be read";
    if (fetchIn(*c.methods.front().file).empty()) return std::string(kCannotFetch);
    return "";
  }
  std::string canHandOn(const Change& change) override {
    std::string target;
    TSNode statement = statementOf(change.at, target);
    if (SyntaxTree::isNull(statement)) return "it is made in the middle of a statement: give it a name there";
    uint32_t end = ts_node_end_byte(statement);
    const LoweredFile& file = *change.at.file;
    std::string_view source = text(file), line = source.substr(lineBegin(file, change.at->span.begin), std::min(source.find('\n', end), source.size()) - lineBegin(file, change.at->span.begin));
    return trim(line).ends_with(";") && SyntaxTree::is(SyntaxTree::parent(statement), "compound_statement") ? "" : "the statement that makes it does not stand on a line of its own";
  }

  std::string makeConstructor(const Change&) override { return ""; }
  std::string keep(const Change& change) override {
    addProperty(*change.of);
    return addGetter(*change.of);
  }
  std::string read(const Change& change) override {
    for (Span span : spansOf(change)) put(*change.at.file, span, (change.from == From::Parameter ? "" : "self.") + handed_.word);
    return "";
  }
  std::string handOn(const Change& change) override {
    if (change.from == From::Fetched && keepsNow(change.of)) return "";  // its getter fetches it
    const LoweredFile& file = *change.at.file;
    std::string target, object = change.from == From::Fetched ? fetchIn(file) : "self." + handed_.word;
    if (object.empty()) return std::string(kCannotFetch);
    TSNode statement = statementOf(change.at, target);
    insert(file, behindRemark(file, ts_node_end_byte(statement)), std::string(newlineOf(file)) + indentAt(file, ts_node_start_byte(statement)) + target + "." + handed_.word + " = " + object + ";");
    return "";
  }
  // The name of a class is known wherever its header is imported.
  std::string fetchElsewhere(const LoweredFile& file) override {
    for (Spot access : handed_.accesses) {
      std::string written = textOf(access);
      if (written.find(handed_.type) != std::string::npos && files_.text(file).find(handed_.type) != std::string_view::npos) return written;
    }
    return "";
  }

 private:
  TSNode functionAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"function_definition"}); }
  // What is declared, without the stars in front of it.
  static TSNode declaredBy(TSNode declaration) {
    TSNode declarator = SyntaxTree::field(declaration, "declarator");
    while (SyntaxTree::is(declarator, "pointer_declarator")) declarator = SyntaxTree::field(declarator, "declarator");
    return declarator;
  }
  static TSNode listOf(TSNode function) { return SyntaxTree::field(declaredBy(function), "parameters"); }
  TSNode methodAround(Spot place) { return tree(place).covering(place->span, {"method_definition"}); }
  // The class's declaration, and what implements it in the file of its methods.
  TSNode interfaceOf(const ClassFacts& c) { return tree(c.type).covering({c.type->nameBegin, c.type->nameBegin}, {"class_interface"}); }
  TSNode implementationOf(const ClassFacts& c) {
    if (c.methods.empty()) return {};
    Spot first = c.methods.front();
    return tree(first).covering({first->nameBegin, first->nameBegin}, {"class_implementation"});
  }

  // The statement that gives the new object a name; null: none does. `target`: that name.
  TSNode statementOf(Spot creation, std::string& target) {
    const SyntaxTree& syntax = tree(creation);
    TSNode made = syntax.covering(creation->span), above = SyntaxTree::parent(made);
    if (SyntaxTree::is(above, "init_declarator")) {
      target = std::string(syntax.text(declaredBy(above)));
      return SyntaxTree::parent(above);
    }
    if (SyntaxTree::is(above, "assignment_expression")) {
      TSNode left = SyntaxTree::field(above, "left");
      if (!SyntaxTree::isOneOf(left, {"identifier", "field_expression"})) return {};
      target = std::string(syntax.text(left));
      return SyntaxTree::is(SyntaxTree::parent(above), "expression_statement") ? SyntaxTree::parent(above) : TSNode{};
    }
    return {};
  }

  // In front of the first member that is declared, behind the properties that are there.
  void addProperty(const ClassFacts& c) {
    const LoweredFile& file = *c.type.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode node = interfaceOf(c), property{}, method{};
    for (TSNode member : SyntaxTree::children(node)) {
      if (SyntaxTree::is(member, "property_declaration")) property = member;
      if (SyntaxTree::is(member, "method_declaration") && SyntaxTree::isNull(method)) method = member;
    }
    std::string newline(newlineOf(file)), line = "@property (nonatomic, strong) " + handed_.type + " *" + handed_.word + ";";
    if (!SyntaxTree::isNull(property)) {
      insert(file, behindRemark(file, ts_node_end_byte(property)), newline + line);
    } else {
      // In front of what documents the method.
      while (!SyntaxTree::isNull(method) && SyntaxTree::is(ts_node_prev_sibling(method), "comment") && ts_node_end_point(ts_node_prev_sibling(method)).row + 1 == ts_node_start_point(method).row) method = ts_node_prev_sibling(method);
      uint32_t at = SyntaxTree::isNull(method) ? ts_node_end_byte(node) - static_cast<uint32_t>(std::string_view("@end").size()) : ts_node_start_byte(method);
      insert(file, at, line + newline);
    }
    // A header that does not know the class is told that it is one.
    if (&file == handed_.home || syntax.text().find(handed_.type) != std::string_view::npos) return;
    if (once(file, "class")) insert(file, ts_node_start_byte(node), "@class " + handed_.type + ";" + newline + newline);
  }
  std::string addGetter(const ClassFacts& c) {
    const LoweredFile& file = *c.methods.front().file;
    TSNode first{};
    for (TSNode member : SyntaxTree::children(implementationOf(c)))
      if (SyntaxTree::is(member, "implementation_definition") && SyntaxTree::is(SyntaxTree::named(member, 0), "method_definition") && SyntaxTree::isNull(first)) first = member;
    while (SyntaxTree::is(ts_node_prev_sibling(first), "comment")) first = ts_node_prev_sibling(first);
    std::string fetch = fetchIn(file), newline(newlineOf(file));
    if (fetch.empty()) return std::string(kCannotFetch);
    insert(file, ts_node_start_byte(first), laidOut(file, "- (" + handed_.type + " *)" + handed_.word + " {\n\treturn _" + handed_.word + " ?: " + fetch + ";\n}", "") + newline + newline);
    return "";
  }
};

}  // namespace

std::unique_ptr<Writer> objcWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<ObjcWriter>(files, handed); }

}  // namespace elmcart

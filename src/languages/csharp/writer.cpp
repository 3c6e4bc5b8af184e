// Writes changes in C#. Sections are of the C# language specification, version 7.
#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/csharp/csharp.h"
#include "languages/shared/overload_writer.h"

namespace elmcart {
namespace {

// A parameter that may be left out would do for sources; but what was built against the old constructor, and what
// makes objects by `new T()`, needs the one that is there.
class CsharpWriter final : public OverloadWriter {
 public:
  using OverloadWriter::OverloadWriter;

  // §15.5.6: a field's first value is worked out before the constructor.
  std::string whyNoObject(Spot place) override {
    TSNode node = tree(place).covering(place->span, {"field_declaration", "property_declaration", "lambda_expression", "anonymous_method_expression", "method_declaration", "constructor_declaration", "block", "accessor_declaration", "arrow_expression_clause"});
    return SyntaxTree::isOneOf(node, {"field_declaration", "property_declaration"}) ? "a field's first value is worked out before the constructor has the object" : "";
  }

 protected:
  TSNode constructorAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"constructor_declaration"}); }
  TSNode methodAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"method_declaration"}); }
  std::string whyNotInMethod(Spot method, TSNode node) override {
    const SyntaxTree& syntax = tree(method);
    if (TSNode mark = SyntaxTree::childOf(node, "attribute_list"); !SyntaxTree::isNull(mark)) return "it is marked " + std::string(syntax.text(mark)) + ": what calls it may not be in this tree";
    std::string_view list = syntax.text(SyntaxTree::field(node, "parameters"));
    for (std::string_view word : {"params ", "ref ", "out "})
      if (list.find(word) != std::string_view::npos) return word == "params " ? "it takes any number of arguments" : "it takes variables, not values";
    return "";
  }
  TSNode classAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration", "record_declaration", "struct_declaration", "interface_declaration", "enum_declaration"}); }
  TSNode argumentsOf(Spot call) override {
    TSNode node = tree(call).within(call->span, {"object_creation_expression", "implicit_object_creation_expression", "constructor_initializer"});
    TSNode list = SyntaxTree::field(node, "arguments");
    return SyntaxTree::isNull(list) ? SyntaxTree::childOf(node, "argument_list") : list;
  }
  TSNode handsOn(TSNode constructor, bool toBase) override {
    TSNode initialiser = SyntaxTree::childOf(constructor, "constructor_initializer");
    return SyntaxTree::isNull(SyntaxTree::childOf(initialiser, toBase ? "base" : "this")) ? TSNode{} : initialiser;
  }
  // Their names begin so, by the platform's own rules.
  bool isInterface(const ClassFacts&, std::string_view base) override {
    std::string_view name = lastPart(base);
    return name.size() > 1 && name[0] == 'I' && std::isupper(static_cast<unsigned char>(name[1]));
  }
  bool isPlainClass(TSNode type) override { return SyntaxTree::is(type, "class_declaration") && !hasWord(type, "static"); }
  bool handsOnOnly(TSNode constructor) override {
    TSNode body = SyntaxTree::field(constructor, "body");
    return !SyntaxTree::isNull(handsOn(constructor, false)) && SyntaxTree::is(body, "block") && SyntaxTree::children(body).empty();
  }

  std::string whyNotTaken(const Change& change, TSNode constructor) override {
    const SyntaxTree& syntax = tree(change.at);
    if (TSNode mark = SyntaxTree::childOf(constructor, "attribute_list"); !SyntaxTree::isNull(mark)) return "this constructor is marked " + std::string(syntax.text(mark)) + ": what calls it may not be in this tree";
    for (TSNode parameter : parametersOf(constructor)) {
      std::string_view said = syntax.text(parameter);
      if (SyntaxTree::isNull(SyntaxTree::field(parameter, "name")) || said.starts_with("params ")) return "this constructor takes any number of arguments";
      if (said.starts_with("ref ") || said.starts_with("out ") || said.starts_with("in ")) return "this constructor takes variables, not values";
    }
    if (syntax.text(SyntaxTree::field(constructor, "parameters")).find("params ") != std::string_view::npos) return "this constructor takes any number of arguments";
    return "";
  }
  std::string canKeep(const ClassFacts& c) override {
    if (declares(c, "GetHashCode")) return "objects of " + c.name + " are compared by value: they get no field";
    for (const std::string& base : c.otherBases)
      if (lastPart(base) == "ISerializable" || lastPart(base).ends_with("Exception") || lastPart(base).ends_with("Attribute")) return c.name + " can be serialised, or is made by the runtime: it gets no field";
    return "";
  }
  TSNode declaratorAt(Spot field) override { return tree(field).covering({field->nameBegin, field->nameBegin}, {"variable_declarator"}); }
  TSNode valueOf(TSNode declarator) override {
    std::vector<TSNode> parts = SyntaxTree::children(declarator);
    return parts.size() > 1 ? parts.back() : TSNode{};
  }
  std::string canMove(const Change& change) override {
    TSNode declarator = declaratorAt(change.at), value = valueOf(declarator);
    if (SyntaxTree::isNull(value)) return "its first value could not be read";
    if (SyntaxTree::is(value, "initializer_expression")) return "its first value can be written in its declaration only";
    return SyntaxTree::children(SyntaxTree::parent(declarator)).size() > 2 ? "several fields are declared in one line" : "";
  }

  std::string first(const LoweredFile& file, TSNode constructor, const std::string& arguments, const std::string& indent) override {
    const SyntaxTree& syntax = files_.tree(file);
    uint32_t begin = ts_node_start_byte(constructor), end = ts_node_end_byte(SyntaxTree::field(constructor, "parameters"));
    std::string newline(newlineOf(file)), deeper = newline + indent + unitOf(file);
    std::string head(syntax.text().substr(begin, end - begin));
    // What hands on stands behind the parameters, or on a line of its own, as elsewhere in the file.
    bool ownLine = std::string_view(syntax.text()).find("\n" + indent + unitOf(file) + ": ") != std::string_view::npos;
    std::string on = (ownLine ? deeper : std::string(" ")) + ": this(" + arguments + ")";
    return head + on + (bracesApart(file) ? newline + indent + "{" + newline + indent + "}" : " { }");
  }
  std::string both(const ClassFacts& c, TSNode type, const std::string& fetch, bool toBase) override {
    std::string head = (hasWord(type, "abstract") ? "protected " : "public ") + c.name, second = isOpenToAll() ? head : "internal " + c.name;
    bool apart = bracesApart(*c.type.file);
    std::string open = apart ? "\n\t{" : " {";
    return "\n\t" + head + "() : this(" + fetch + ")" + (apart ? "\n\t{\n\t}" : " { }") + "\n\n\t" + second + "(" + handed_.type + " " + handed_.word + ")" + (toBase ? " : base(" + handed_.word + ")" : "") + open + "{statements}\n\t}";
  }
  uint32_t statementsBegin(TSNode constructor) override {
    TSNode body = SyntaxTree::field(constructor, "body");
    return SyntaxTree::is(body, "block") ? ts_node_start_byte(body) + 1 : 0;
  }
  std::string leftOut(const Change& change, std::string& reason) override {
    reason.clear();
    std::vector<TSNode> given = SyntaxTree::children(argumentsOf(change.at));
    for (TSNode argument : given)
      if (!SyntaxTree::isNull(SyntaxTree::field(argument, "name"))) return reason = "its arguments are given by name", "";
    if (!change.callee.known()) return "";
    std::string out;
    std::vector<TSNode> parameters = parametersOf(constructorAt(change.callee));
    for (size_t i = given.size(); i < parameters.size(); ++i) {
      std::vector<TSNode> parts = SyntaxTree::children(parameters[i]);
      TSNode name = SyntaxTree::field(parameters[i], "name");
      if (tree(change.callee).text(name) == handed_.word) break;
      if (parts.empty() || ts_node_eq(parts.back(), name)) return reason = "what is left out here has no default", "";
      out += std::string(tree(change.callee).text(parts.back())) + ", ";
    }
    return out;
  }
  // §15.6.2: behind a parameter that may be left out none may stand that must be given.
  void prepareSecond(const LoweredFile& file, TSNode constructor) override {
    // §7.5.3: what others can call takes only what they can name.
    if (!isOpenToAll())
      for (TSNode child = ts_node_child(constructor, 0); SyntaxTree::isOneOf(child, {"modifier", "attribute_list", "comment"}); child = ts_node_next_sibling(child))
        if (std::string_view word = files_.tree(file).text(child); word == "public" || word == "protected") put(file, spanOf(child), "internal");
    for (TSNode parameter : parametersOf(constructor)) {
      uint32_t name = ts_node_end_byte(SyntaxTree::field(parameter, "name"));
      if (name < ts_node_end_byte(parameter)) put(file, {name, ts_node_end_byte(parameter)}, "");
    }
  }

  // <param name="…"> in the lines of three strokes above.
  std::string documentation(const LoweredFile& file, TSNode constructor, const std::string& indent) override {
    const SyntaxTree& syntax = files_.tree(file);
    std::vector<std::string> lines;
    for (TSNode above = ts_node_prev_sibling(constructor); SyntaxTree::is(above, "comment") && syntax.text(above).starts_with("///"); above = ts_node_prev_sibling(above)) lines.insert(lines.begin(), std::string(trim(syntax.text(above))));
    if (lines.empty()) return "";
    std::string newline(newlineOf(file)), out;
    size_t at = lines.size();
    for (size_t i = 0; i < lines.size(); ++i)
      if (lines[i].find("</param>") != std::string::npos || lines[i].find("</summary>") != std::string::npos) at = i + 1;
    lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(at), "/// <param name=\"" + handed_.word + "\">The " + spacedOut(handed_.type) + " to use.</param>");
    for (const std::string& line : lines) out += line + newline + indent;
    return out;
  }

  std::string nameIn(const LoweredFile& file) override {
    const SyntaxTree& syntax = files_.tree(file);
    std::string full = qualifiedBy('.');
    if (&file == handed_.home || full.size() == handed_.type.size()) return handed_.type;
    std::string space = full.substr(0, full.size() - handed_.type.size() - 1), line = "using " + space + ";";
    if (syntax.text().find("namespace " + space) != std::string_view::npos || syntax.text().find(line) != std::string_view::npos) return handed_.type;
    TSNode last{}, next{};
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (!SyntaxTree::is(node, "using_directive")) continue;
      // The system's own come first.
      bool system = syntax.text(node).starts_with("using System") && space.compare(0, 6, "System") != 0;
      if (system || syntax.text(node) < line) last = node;
      else if (SyntaxTree::isNull(next)) next = node;
    }
    // A class of an enclosing namespace is visible as it is.
    for (size_t dot = space.size(); dot != std::string::npos; dot = space.rfind('.', dot - 1))
      if (syntax.text().find("namespace " + space.substr(0, dot) + ".") != std::string_view::npos && dot == space.size()) return handed_.type;
    if (!once(file, "import")) return handed_.type;
    std::string newline(newlineOf(file));
    if (!SyntaxTree::isNull(last)) insert(file, ts_node_end_byte(last), newline + line);
    else if (!SyntaxTree::isNull(next)) insert(file, ts_node_start_byte(next), line + newline);
    else insert(file, ts_node_start_byte(SyntaxTree::named(syntax.root(), 0)), line + newline + newline);
    return handed_.type;
  }
  std::string fieldLine(const LoweredFile& file) override { return "private readonly " + nameIn(file) + " " + fieldIn(file) + ";"; }
  std::string chosen(const std::string& variable, const std::string& fetch) override { return variable + " ?? " + fetch; }
  std::string readerText(const LoweredFile& file) override { return "private " + handed_.type + " " + readerCall() + " => " + chosen(fieldIn(file), fetchIn(file)) + ";"; }
  std::string readerCall() override {
    std::string name = handed_.word;
    name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
    return "Current" + name;
  }
  bool isField(TSNode member, bool ofObjects) override { return SyntaxTree::is(member, "field_declaration") && (!ofObjects || (!hasWord(member, "static") && !hasWord(member, "const"))); }

 private:
  bool hasWord(TSNode declaration, std::string_view word) {
    for (uint32_t i = 0; !SyntaxTree::isNull(declaration) && i < ts_node_named_child_count(declaration); ++i)
      if (TSNode child = ts_node_named_child(declaration, i); SyntaxTree::is(child, "modifier") && !SyntaxTree::isNull(SyntaxTree::childOf(child, word))) return true;
    return false;
  }
  // May code of other assemblies name the object's class?
  bool isOpenToAll() {
    if (open_ < 0) {
      open_ = 0;
      SyntaxTree::walk(files_.tree(*handed_.home).root(), [&](TSNode node) {
        bool named = SyntaxTree::isOneOf(node, {"class_declaration", "interface_declaration", "record_declaration"}) && files_.tree(*handed_.home).text(SyntaxTree::field(node, "name")) == handed_.type;
        if (named && hasWord(node, "public")) open_ = 1;
        return !SyntaxTree::is(node, "block");
      });
    }
    return open_ > 0;
  }
  bool bracesApart(const LoweredFile& file) {
    std::string_view source = text(file);
    size_t apart = 0, same = 0;
    for (size_t at = source.find('{'); at != std::string_view::npos; at = source.find('{', at + 1)) {
      size_t next = source.find_first_not_of(" \t\r", at + 1);
      if (next == std::string_view::npos || source[next] != '\n') continue;  // a body on one line
      size_t line = source.rfind('\n', at);
      bool alone = trim(source.substr(line == std::string_view::npos ? 0 : line, at - (line == std::string_view::npos ? 0 : line))).empty();
      ++(alone ? apart : same);
    }
    return apart >= same;
  }

  int open_ = -1;  // is the object's class open to all? -1: not looked yet
};

}  // namespace

std::unique_ptr<Writer> csharpWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<CsharpWriter>(files, handed); }

}  // namespace elmcart

// Writes changes in Java. Chapters are of the Java Language Specification, Java SE 17.
#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/java/java.h"
#include "languages/shared/overload_writer.h"

namespace elmcart {
namespace {

class JavaWriter final : public OverloadWriter {
 public:
  using OverloadWriter::OverloadWriter;

  // Members may be named without their object, in the bodies of inner classes too; but a field's first value is
  // worked out before a constructor has set anything, §12.5.
  std::string whyNoObject(Spot place) override {
    TSNode node = tree(place).covering(place->span, {"field_declaration", "lambda_expression", "method_declaration", "constructor_declaration", "block"});
    return SyntaxTree::is(node, "field_declaration") ? "a field's first value is worked out before the constructor has the object" : "";
  }

 protected:
  TSNode constructorAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"constructor_declaration"}); }
  TSNode methodAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"method_declaration"}); }
  std::string whyNotInMethod(Spot method, TSNode node) override { return whyNotBeside(method, node, "it"); }
  // Why another that takes one parameter more cannot stand beside a method or constructor.
  std::string whyNotBeside(Spot spot, TSNode node, const std::string& which) {
    for (TSNode mark : SyntaxTree::children(SyntaxTree::childOf(node, "modifiers")))
      if (std::string_view said = tree(spot).text(mark); said != "@Deprecated" && !said.starts_with("@SuppressWarnings")) return which + " is marked " + std::string(said) + ": what calls it may not be in this tree";
    for (TSNode parameter : parametersOf(node))
      if (SyntaxTree::is(parameter, "spread_parameter")) return which + " takes any number of arguments";
    return "";
  }
  TSNode classAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration", "record_declaration", "enum_declaration", "interface_declaration"}); }
  TSNode argumentsOf(Spot call) override { return SyntaxTree::field(tree(call).within(call->span, {"object_creation_expression", "explicit_constructor_invocation"}), "arguments"); }
  TSNode handsOn(TSNode constructor, bool toBase) override { return invocationOf(constructor, toBase ? "super" : "this"); }
  bool isInterface(const ClassFacts& c, std::string_view base) override { return headNames(c, classAt(c.type), "super_interfaces", base); }
  bool isPlainClass(TSNode type) override { return SyntaxTree::is(type, "class_declaration"); }
  bool handsOnOnly(TSNode constructor) override { return !SyntaxTree::isNull(invocationOf(constructor, "this")) && SyntaxTree::children(SyntaxTree::field(constructor, "body")).size() == 1; }

  std::string whyNotTaken(const Change& change, TSNode constructor) override { return whyNotBeside(change.at, constructor, "this constructor"); }

  // §8.1.4: by what it extends and implements.
  std::string canKeep(const ClassFacts& c) override {
    for (const std::string& base : c.otherBases) {
      std::string_view name = lastPart(base);
      if (name == "Serializable" || name == "Externalizable" || name.ends_with("Exception") || name.ends_with("Error") || name == "Throwable") return c.name + " can be serialised: a field would change its serialised form, or could not be written";
    }
    if (declares(c, "hashCode")) return "objects of " + c.name + " are compared by value: they get no field";
    return "";
  }

  TSNode declaratorAt(Spot field) override { return tree(field).covering({field->nameBegin, field->nameBegin}, {"variable_declarator"}); }
  TSNode valueOf(TSNode declarator) override { return SyntaxTree::field(declarator, "value"); }
  std::string canMove(const Change& change) override {
    TSNode declarator = declaratorAt(change.at), value = valueOf(declarator);
    if (SyntaxTree::isNull(value)) return "its first value could not be read";
    if (SyntaxTree::is(value, "array_initializer")) return "its first value can be written in its declaration only";
    return SyntaxTree::children(SyntaxTree::parent(declarator)).size() > 3 ? "several fields are declared in one line" : "";
  }

  std::string first(const LoweredFile& file, TSNode constructor, const std::string& arguments, const std::string& indent) override {
    const SyntaxTree& syntax = files_.tree(file);
    uint32_t begin = ts_node_start_byte(constructor), body = ts_node_start_byte(SyntaxTree::field(constructor, "body"));
    return std::string(syntax.text().substr(begin, body - begin)) + laidOut(file, "{\n\tthis(" + arguments + ");\n}", indent);
  }
  std::string both(const ClassFacts& c, TSNode type, const std::string& fetch, bool toBase) override {
    std::string head = std::string(hasWord(type, "public") ? "public " : hasWord(type, "protected") ? "protected " : "") + c.name;
    return "\n\t" + head + "() {\n\t\tthis(" + fetch + ");\n\t}\n\n\t" + head + "(" + handed_.type + " " + handed_.word + ") {" + (toBase ? "\n\t\tsuper(" + handed_.word + ");" : "") + "{statements}\n\t}";
  }
  uint32_t statementsBegin(TSNode constructor) override {
    TSNode super = invocationOf(constructor, "super");
    return SyntaxTree::isNull(super) ? ts_node_start_byte(SyntaxTree::field(constructor, "body")) + 1 : ts_node_end_byte(super);
  }

  // What documents the constructor, for the one beside it, with its new parameter.
  std::string documentation(const LoweredFile& file, TSNode constructor, const std::string& indent) override {
    TSNode comment = ts_node_prev_sibling(constructor);
    if (!SyntaxTree::is(comment, "block_comment")) return "";
    std::string said(files_.tree(file).text(comment));
    if (!said.starts_with("/**")) return "";
    std::string newline(newlineOf(file)), line = "@param " + handed_.word + "  the " + spacedOut(handed_.type) + " to use";
    if (said.find('\n') == std::string::npos) {
      std::string inside(trim(said.substr(3, said.size() - 5)));
      return "/**" + newline + indent + " * " + inside + newline + indent + " *" + newline + indent + " * " + line + newline + indent + " */" + newline + indent;
    }
    // It is as old as this change.
    for (size_t since = said.find("@since"); since != std::string::npos; since = said.find("@since", since)) {
      size_t from = said.rfind('\n', since), to = said.find('\n', since);
      if (from == std::string::npos || to == std::string::npos) break;
      said.erase(from, to - from);
      since = from;
    }
    size_t at = said.rfind("@param");
    if (at != std::string::npos) {
      // Behind what it says of the last parameter.
      size_t next = said.find("\n", at);
      while (next != std::string::npos) {
        size_t star = said.find_first_not_of(" \t\r\n", next), word = star == std::string::npos ? star : said.find_first_not_of("* \t", star);
        if (word == std::string::npos || said[word] == '@' || said[word] == '/' || said[word] == '\n' || said[word] == '\r') break;
        next = said.find("\n", next + 1);
      }
      if (next != std::string::npos) at = next + 1;
    } else {
      size_t tag = said.find("* @");
      at = said.rfind('\n', tag == std::string::npos ? said.size() : tag) + 1;
    }
    return said.insert(at, indent + " * " + line + newline) + newline + indent;
  }

  std::string documentedField(const LoweredFile& file, TSNode last, const std::string& line, const std::string& between) override {
    TSNode above = SyntaxTree::isNull(last) ? TSNode{} : ts_node_prev_sibling(last);
    bool documented = SyntaxTree::is(above, "block_comment") && files_.tree(file).text(above).starts_with("/**");
    return documented ? "/** The " + spacedOut(handed_.type) + " in use. */" + between + line : line;
  }

  // The class's name as a file may write it, imported where that is needed.
  std::string nameIn(const LoweredFile& file) override {
    const SyntaxTree& syntax = files_.tree(file);
    std::string full = qualifiedBy('.');
    if (&file == handed_.home || full.size() == handed_.type.size()) return handed_.type;
    std::string ownPackage = full.substr(0, full.size() - handed_.type.size() - 1);
    TSNode declared{};
    std::vector<TSNode> lines;
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (SyntaxTree::is(node, "package_declaration")) {
        declared = node;
        if (std::string_view here = syntax.text(node); here.find(" " + ownPackage + ";") != std::string_view::npos) return handed_.type;
      }
      if (!SyntaxTree::is(node, "import_declaration")) continue;
      std::string_view line = syntax.text(node);
      if (line.find(" " + full + ";") != std::string_view::npos || line.find(" " + ownPackage + ".*;") != std::string_view::npos) return handed_.type;
      if (line.starts_with("import static")) continue;
      lines.push_back(node);
    }
    if (!once(file, "import")) return handed_.type;
    std::string line = "import " + full + ";", newline(newlineOf(file));
    if (putSorted(file, lines, line)) return handed_.type;
    if (!SyntaxTree::isNull(declared)) insert(file, ts_node_end_byte(declared), newline + newline + line);
    else insert(file, 0, line + newline + newline);
    return handed_.type;
  }

  std::string fieldLine(const LoweredFile& file) override { return "private final " + nameIn(file) + " " + fieldIn(file) + ";"; }
  std::string chosen(const std::string& variable, const std::string& fetch) override { return variable + " != null ? " + variable + " : " + fetch; }
  std::string readerText(const LoweredFile& file) override {
    return "private " + handed_.type + " " + readerCall() + " {\n\t\treturn " + chosen(fieldIn(file), fetchIn(file)) + ";\n\t}";
  }
  std::string readerCall() override {
    std::string name = handed_.word;
    name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
    return "current" + name + "()";
  }
  bool isField(TSNode member, bool ofObjects) override { return SyntaxTree::is(member, "field_declaration") && (!ofObjects || !hasWord(member, "static")); }

 private:
  // `this(…)` or `super(…)` that a constructor begins with, §8.8.7.1.
  TSNode invocationOf(TSNode constructor, std::string_view which) {
    TSNode first = SyntaxTree::named(SyntaxTree::field(constructor, "body"), 0);
    for (uint32_t i = 1; !SyntaxTree::isNull(first) && SyntaxTree::isComment(first); ++i) first = SyntaxTree::named(SyntaxTree::field(constructor, "body"), i);
    return SyntaxTree::is(first, "explicit_constructor_invocation") && SyntaxTree::is(SyntaxTree::field(first, "constructor"), which) ? first : TSNode{};
  }

  bool hasWord(TSNode declaration, std::string_view word) { return !SyntaxTree::isNull(SyntaxTree::childOf(SyntaxTree::childOf(declaration, "modifiers"), word)); }
};

}  // namespace

std::unique_ptr<Writer> javaWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<JavaWriter>(files, handed); }

}  // namespace elmcart

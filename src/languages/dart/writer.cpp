// Writes changes in Dart. Sections are of the Dart language specification, version 2.13.
#include <algorithm>
#include <filesystem>

#include "base/text.h"
#include "languages/dart/dart.h"
#include "languages/shared/label_writer.h"

namespace elmcart {
namespace {

class DartWriter final : public LabelWriter {
 public:
  using LabelWriter::LabelWriter;

  std::string fieldFor(const std::string& word) const override { return word; }
  // §10.6.1: a field's first value is worked out before the constructor has the object.
  std::string whyNoObject(Spot place) override {
    TSNode node = tree(place).covering(place->span, {"declaration", "function_body", "class_body"});
    bool field = SyntaxTree::is(node, "declaration") && SyntaxTree::isNull(SyntaxTree::childOf(node, "constructor_signature")) && SyntaxTree::isNull(SyntaxTree::childOf(node, "late_builtin"));
    return field ? "a field's first value is worked out before the constructor has the object" : "";
  }
  bool isInterface(const ClassFacts& c, std::string_view base) override { return headNames(c, classAt(c.type), "interfaces", base); }

 protected:
  std::string_view label() const override { return ": "; }
  std::string_view orElse() const override { return " ?? "; }
  std::string fieldIn(const LoweredFile& file) override { return fieldNamed(file, handed_.word).starts_with('_') ? "_" + handed_.word : handed_.word; }
  // §9.2.2: what a parameter is by default must be constant, so it is nothing.
  bool parameterMayBeNone() const override { return true; }

  TSNode classAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_definition"}); }
  TSNode functionAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"function_signature"}); }
  std::string whyNotInFunction(Spot function, TSNode node) override { return whyNotInList(function, parametersOf(node)); }
  std::string whyNotInList(Spot spot, TSNode list) {
    TSNode group = SyntaxTree::childOf(list, "optional_formal_parameters");
    return !SyntaxTree::isNull(group) && tree(spot).text(group).starts_with("[") ? "optional parameters by position and by name cannot be mixed" : "";
  }
  std::string takeInFunction(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    std::string name = nameIn(file);
    if (name.empty()) return std::string(kCannotFetch);
    appendNamed(file, parametersOf(functionAt(change.at)), name + "? " + handed_.word);
    return "";
  }
  // Among the parameters that are given by name.
  void appendNamed(const LoweredFile& file, TSNode list, const std::string& item) {
    TSNode group = SyntaxTree::childOf(list, "optional_formal_parameters");
    if (SyntaxTree::isNull(group)) append(file, list, "{" + item + "}");
    else append(file, group, item);
  }
  TSNode constructorAt(Spot spot) override {
    TSNode node = tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"constructor_signature", "constant_constructor_signature", "factory_constructor_signature", "redirecting_factory_constructor_signature", "class_body"});
    return SyntaxTree::is(node, "class_body") ? TSNode{} : node;
  }
  TSNode argumentsOf(Spot call) override { return tree(call).within(call->span, {"arguments"}); }
  TSNode baseArgumentsOf(const Change& change) override {
    return change.at.known() ? SyntaxTree::childOf(superOf(constructorAt(change.at)), "arguments") : TSNode{};
  }
  // One that names no constructor of its base calls it all the same, §10.6.1.
  std::string canHandToBase(const Change& change) override { return change.at.known() ? "" : change.of->name + " has no constructor, and its base class may need arguments"; }

  std::string whyNotTaken(const Change& change, TSNode constructor) override {
    if (SyntaxTree::is(constructor, "constant_constructor_signature")) return "a constant constructor can fetch nothing";
    if (!SyntaxTree::is(constructor, "constructor_signature")) return "a factory makes it: what it takes stands elsewhere";
    return whyNotInList(change.at, parametersOf(constructor));
  }
  std::string canGetConstructor(const ClassFacts& c) override {
    TSNode node = classAt(c.type);
    if (SyntaxTree::isNull(node)) return c.name + std::string(kNoClass);
    return SyntaxTree::isNull(SyntaxTree::field(node, "superclass")) ? "" : c.name + " has no constructor, and its base class may need arguments";
  }
  std::string canKeep(const ClassFacts& c) override {
    if (declares(c, "hashCode")) return "objects of " + c.name + " are compared by value: they get no field";
    return "";
  }
  // §10.6.1: in the list of initialisers, where parameters are known. A field without a type is told that of the object which is made.
  std::string canMove(const Change& change) override {
    TSNode declaration = declarationAt(change.at);
    if (SyntaxTree::children(SyntaxTree::childOf(declaration, "initialized_identifier_list")).size() != 1) return "several fields are declared in one line";
    return isTyped(declaration) || !madeType(change.at).empty() ? "" : "its type is not written: write it, so that the constructor can set it";
  }
  FirstValue firstValueOf(Spot field) override {
    const SyntaxTree& syntax = tree(field);
    TSNode declaration = declarationAt(field), one = SyntaxTree::named(SyntaxTree::childOf(declaration, "initialized_identifier_list"), 0), name = SyntaxTree::named(one, 0), value = SyntaxTree::named(one, 1);
    if (!isTyped(declaration)) typeOf(field, name, declaration);
    // The value is what stands behind the sign: a name and the selectors behind it.
    return {std::string(syntax.text(name)), {ts_node_start_byte(value), ts_node_end_byte(one)}, {ts_node_end_byte(name), ts_node_end_byte(one)}};
  }
  std::string setIn(Spot constructor, const std::vector<std::string>& statements) override {
    TSNode node = constructorAt(constructor);
    bool makes = SyntaxTree::is(node, "constructor_signature") && SyntaxTree::isNull(SyntaxTree::childOf(SyntaxTree::parent(node), "redirection"));
    if (makes) initialise(*constructor.file, node, joinWith(statements, ", "), true);
    return "";
  }
  std::string setting(const std::string& name, const std::string& value) override { return name + " = " + value; }

  std::string keep(const Change& change) override {
    const LoweredFile& file = *change.of->type.file;
    TSNode node = classAt(change.of->type), body = SyntaxTree::field(node, "body"), last = lastField(body);
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node)), line = newline + indent + unitOf(file) + "final " + nameIn(file) + (isNullable(change) ? "? " : " ") + fieldIn(file) + ";";
    if (!SyntaxTree::isNull(last)) return insert(file, behindRemark(file, behindSemicolon(file, last)), line), "";
    bool alone = SyntaxTree::children(body).empty(), oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row;
    if (change.of->constructors.empty()) return pending_ = line, "";
    return insert(file, ts_node_start_byte(body) + 1, line + (oneLine ? newline + indent : alone ? "" : newline)), "";
  }
  std::string take(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode constructor = constructorAt(change.at), list = parametersOf(constructor);
    std::string fetch = keepsNow(change.of) && !isNullable(change) ? fetchIn(file) : "";
    if (keepsNow(change.of) && !isNullable(change) && fetch.empty()) return std::string(kCannotFetch);
    appendNamed(file, list, parameter(change, file));
    if (std::string first = entries(change, file, fetch); !first.empty()) initialise(file, constructor, first, true);
    return "";
  }
  std::string handToBase(const Change& change) override {
    if (!SyntaxTree::isNull(baseArgumentsOf(change))) return LabelWriter::handToBase(change);
    initialise(*change.at.file, constructorAt(change.at), "super(" + given(handed_.word) + ")", false);
    return "";
  }
  std::string makeConstructor(const Change& change) override {
    const LoweredFile& file = *change.of->type.file;
    TSNode node = classAt(change.of->type), body = SyntaxTree::field(node, "body");
    std::string fetch = keepsNow(change.of) && !isNullable(change) ? fetchIn(file) : "", newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node));
    if (keepsNow(change.of) && !isNullable(change) && fetch.empty()) return std::string(kCannotFetch);
    std::string first = entries(change, file, fetch), text = change.of->name + "({" + parameter(change, file) + "})" + (first.empty() ? "" : " : " + first) + ";";
    std::string made = laidOut(file, "\n\t" + text, indent);
    TSNode last = lastField(body);
    if (!SyntaxTree::isNull(last)) return insert(file, behindRemark(file, behindSemicolon(file, last)), std::exchange(pending_, "") + newline + made + gapBehind(file, ts_node_end_byte(last))), "";
    bool alone = SyntaxTree::children(body).empty(), oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row;
    return insert(file, ts_node_start_byte(body) + 1, std::exchange(pending_, "") + newline + made + (oneLine ? newline + indent : alone ? "" : newline)), "";
  }
  std::string open(const Change&) override { return ""; }

  std::string whyNotDropped(const Change& change) override {
    if (handed_.late) return "what is fetched may be replaced, and it may be left out";
    return SyntaxTree::isNull(parameterOf(change)) ? "it has no default" : "";
  }
  std::string drop(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode constructor = constructorAt(change.at), parameter = parameterOf(change);
    bool field = files_.tree(file).text(parameter).starts_with("this.");
    put(file, spanOf(parameter), "required " + std::string(field ? "this." : nameIn(file) + " ") + handed_.word);
    SyntaxTree::walk(SyntaxTree::parent(constructor), [&](TSNode node) {
      std::string_view said = files_.tree(file).text(node);
      bool entry = SyntaxTree::is(node, "field_initializer") && said.starts_with(fieldIn(file) + " = " + handed_.word + " ??");
      if (entry) put(file, spanOf(node), fieldIn(file) + " = " + handed_.word);
      return !entry;
    });
    // final T? word; of a class that only passed it on
    for (TSNode member : SyntaxTree::children(SyntaxTree::field(classAt(change.of->type), "body"))) {
      std::string_view said = files_.tree(*change.of->type.file).text(member);
      size_t at = said.find("? " + fieldIn(file));
      if (!SyntaxTree::is(member, "declaration") || at == std::string_view::npos || !said.starts_with("final " + handed_.type)) continue;
      uint32_t begin = ts_node_start_byte(member) + static_cast<uint32_t>(at);
      put(*change.of->type.file, {begin, begin + 1}, "");
    }
    return "";
  }

  std::string nameIn(const LoweredFile& file) override {
    if (&file == handed_.home || imports(file)) return handed_.type;
    // As another file brings it: by its package's name, or by its path from there.
    for (Spot access : handed_.accesses)
      if (std::string line = access.file == &file ? "" : lineThatImports(*access.file, file); !line.empty()) {
        if (!once(file, "import")) return handed_.type;
        std::vector<TSNode> lines;
        for (TSNode node : SyntaxTree::children(files_.tree(file).root()))
          if (SyntaxTree::is(node, "import_or_export")) lines.push_back(node);
        if (!putSorted(file, lines, line)) insert(file, 0, line + std::string(newlineOf(file)) + std::string(newlineOf(file)));
        return handed_.type;
      }
    return "";
  }

 private:
  static TSNode parametersOf(TSNode constructor) {
    TSNode list = SyntaxTree::field(constructor, "parameters");
    return SyntaxTree::isNull(list) ? SyntaxTree::childOf(constructor, "formal_parameter_list") : list;
  }
  static TSNode initialisersOf(TSNode constructor) { return SyntaxTree::childOf(SyntaxTree::parent(constructor), "initializers"); }
  TSNode superOf(TSNode constructor) {
    for (TSNode entry : SyntaxTree::children(initialisersOf(constructor)))
      if (!SyntaxTree::isNull(SyntaxTree::childOf(entry, "super"))) return entry;
    return {};
  }
  TSNode parameterOf(const Change& change) {
    const SyntaxTree& syntax = tree(change.at);
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::childOf(parametersOf(constructorAt(change.at)), "optional_formal_parameters")))
      if (std::string_view said = syntax.text(parameter); SyntaxTree::is(parameter, "formal_parameter") && !said.starts_with("required") && (said == "this." + handed_.word || said.ends_with("? " + handed_.word))) return parameter;
    return {};
  }
  TSNode declarationAt(Spot field) { return tree(field).covering({field->nameBegin, field->nameBegin}, {"declaration"}); }
  static bool isTyped(TSNode declaration) { return !SyntaxTree::isNull(SyntaxTree::childOf(declaration, "type_identifier")); }
  // final quay = Quay('east'): the class's name; empty: no object of a class is made.
  std::string madeType(Spot field) {
    TSNode one = SyntaxTree::named(SyntaxTree::childOf(declarationAt(field), "initialized_identifier_list"), 0), value = SyntaxTree::named(one, 1), call = SyntaxTree::named(one, 2);
    std::string_view name = tree(field).text(value);
    bool made = SyntaxTree::is(value, "identifier") && std::isupper(static_cast<unsigned char>(name[0])) && SyntaxTree::is(SyntaxTree::named(call, 0), "argument_part");
    return made ? std::string(name) : "";
  }
  void typeOf(Spot field, TSNode name, TSNode declaration) {
    // var quay, final quay: the type stands in the place of var, and behind final.
    TSNode word = SyntaxTree::childOf(declaration, "inferred_type");
    if (SyntaxTree::isNull(word)) insert(*field.file, ts_node_start_byte(name), madeType(field) + " ");
    else put(*field.file, spanOf(word), madeType(field));
  }
  static TSNode lastField(TSNode body) {
    TSNode last{};
    for (TSNode member : SyntaxTree::children(body))
      if (SyntaxTree::is(member, "declaration") && !SyntaxTree::isNull(SyntaxTree::childOf(member, "initialized_identifier_list"))) last = member;
    return last;
  }
  // Does the parameter set the field by its name, §10.6.1?
  bool setsField(const Change& change, const LoweredFile& file) { return keepsNow(change.of) && isNullable(change) && fieldIn(file) == handed_.word; }
  std::string parameter(const Change& change, const LoweredFile& file) { return setsField(change, file) ? "this." + handed_.word : nameIn(file) + "? " + handed_.word; }
  // What the list of initialisers begins with.
  std::string entries(const Change& change, const LoweredFile& file, const std::string& fetch) {
    std::vector<std::string> out;
    if (keepsNow(change.of) && !setsField(change, file)) out.push_back(fieldIn(file) + " = " + (isNullable(change) ? handed_.word : orFetched(handed_.word, fetch)));
    for (const std::string& one : moved(change.of)) out.push_back(one);
    return joinWith(out, ", ");
  }
  bool isNullable(const Change& change) const { return handed_.late || change.passesOnly; }
  uint32_t behindSemicolon(const LoweredFile& file, TSNode member) {
    std::string_view source = text(file);
    size_t at = source.find(';', ts_node_end_byte(member) - 1);
    return at == std::string_view::npos ? ts_node_end_byte(member) : static_cast<uint32_t>(at) + 1;
  }
  // One more entry in front of the others, or behind them.
  void initialise(const LoweredFile& file, TSNode constructor, const std::string& entry, bool first) {
    std::vector<TSNode> entries = SyntaxTree::children(initialisersOf(constructor));
    if (entries.empty()) return insert(file, ts_node_end_byte(parametersOf(constructor)), (once(file, "initialisers " + std::to_string(ts_node_start_byte(constructor))) ? " : " : ", ") + entry);
    if (!first) return insert(file, ts_node_end_byte(entries.back()), ", " + entry);
    insert(file, ts_node_start_byte(entries.front()), entry + ", ");
  }

  static std::string pathIn(std::string_view import) {
    size_t open = import.find_first_of("'\"");
    size_t close = open == std::string_view::npos ? open : import.find(import[open], open + 1);
    return close == std::string_view::npos ? "" : std::string(import.substr(open + 1, close - open - 1));
  }
  // Does the import of that file bring the class's file? `package:` paths begin in a folder lib.
  bool brings(const LoweredFile& file, std::string_view import) {
    namespace fs = std::filesystem;
    std::string path = pathIn(import);
    if (path.empty() || !import.starts_with("import")) return false;
    if (path.starts_with("package:")) return handed_.home->path.ends_with("lib" + path.substr(path.find('/')));
    return (fs::path(file.path).parent_path() / path).lexically_normal() == fs::path(handed_.home->path);
  }
  // Where an access stands its class is known, and so is what stands beside that.
  bool imports(const LoweredFile& file) {
    const SyntaxTree& syntax = files_.tree(file);
    for (TSNode node : SyntaxTree::children(syntax.root()))
      if (SyntaxTree::is(node, "import_or_export") && brings(file, syntax.text(node))) return true;
    return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == &file; });
  }
  std::string lineThatImports(const LoweredFile& from, const LoweredFile& to) {
    namespace fs = std::filesystem;
    const SyntaxTree& syntax = files_.tree(from);
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      std::string line(syntax.text(node)), path = pathIn(line);
      if (!SyntaxTree::is(node, "import_or_export") || !brings(from, line)) continue;
      if (path.starts_with("package:")) return line;
      fs::path folder = fs::path(to.path).parent_path();
      std::string relative = fs::path(handed_.home->path).lexically_relative(folder.empty() ? fs::path(".") : folder).string();
      return line.replace(line.find(path), path.size(), relative);
    }
    return "";
  }
};

}  // namespace

std::unique_ptr<Writer> dartWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<DartWriter>(files, handed); }

}  // namespace elmcart

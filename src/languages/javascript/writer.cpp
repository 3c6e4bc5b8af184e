// Writes changes in JavaScript and TypeScript. Sections are of ECMAScript 2023.
#include "languages/writer.h"

#include <algorithm>
#include <filesystem>
#include <set>

#include "base/text.h"
#include "languages/javascript/javascript.h"

namespace elmcart {
namespace {

class ScriptWriter final : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, false); }
  // As most fields in the files at hand are called.
  std::string fieldFor(const std::string& word) const override { return (marksFields() ? "_" : "") + word; }

  bool hands(Spot creation) override {
    for (TSNode argument : SyntaxTree::children(argumentsOf(creation))) {
      std::string_view written = tree(creation).text(argument);
      if (written == handed_.word || written == "this." + fieldFor(handed_.word)) return true;
      if (isFetched(creation, argument)) return true;
    }
    return false;
  }

  // §10.2.1.1: a plain function has a `this` of its own; a field's first value is worked out before the constructor has set any.
  std::string whyNoObject(Spot place) override {
    if (!SyntaxTree::isNull(fieldAt(place))) return "a field's first value is worked out before the constructor has the object";
    return hasObject(place) ? "" : "inside a plain function `this` is another object";
  }

  bool inheritsConstructors() const override { return true; }
  bool isInterface(const ClassFacts& c, std::string_view base) override { return headNames(c, SyntaxTree::childOf(classAt(c.type), "class_heritage"), "implements_clause", base); }

 protected:
  std::string canKeep(const ClassFacts& c) override { return isTyped(c.type) && typeIn(*c.type.file, false).empty() ? std::string(kCannotName) : ""; }
  std::string canOpen(const Change&) override { return ""; }
  std::string open(const Change& change) override {
    reword(*change.at.file, tree(change.at).covering({change.at->nameBegin, change.at->nameBegin}, {"public_field_definition", "required_parameter", "optional_parameter"}), change.at->nameBegin, "private", "protected");
    return "";
  }
  std::string canTakeInFunction(const Change& change) override {
    TSNode list = SyntaxTree::field(functionAt(change.at), "parameters");
    if (SyntaxTree::isNull(list)) return "its parameters could not be read";
    for (TSNode parameter : SyntaxTree::children(list))
      if (tree(change.at).text(parameter).starts_with("...")) return "it takes any number of arguments";
    return isTyped(change.at) && typeIn(*change.at.file, false).empty() ? std::string(kCannotName) : "";
  }
  std::string takeInFunction(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    std::string fetch = handed_.late ? "" : fetchIn(file);
    if (fetch.empty() && !handed_.late) return std::string(kCannotFetch);
    append(file, SyntaxTree::field(functionAt(change.at), "parameters"), parameter(file, isTyped(change.at), false, fetch));
    document(file, functionAt(change.at));
    return "";
  }
  std::string canHandOn(const Change& change) override { return canHand(argumentsOf(change.at), change.position); }
  std::string canHandToBase(const Change& change) override { return SyntaxTree::isNull(superOf(change.at)) ? "its constructor calls none of its base class" : canHand(SyntaxTree::field(superOf(change.at), "arguments"), change.position); }

  std::string canMove(const Change& change) override {
    TSNode field = fieldAt(change.at);
    if (SyntaxTree::isNull(SyntaxTree::field(field, "value"))) return "its first value could not be read";
    bool typed = !isTyped(change.at) || !SyntaxTree::isNull(SyntaxTree::field(field, "type")) || SyntaxTree::is(SyntaxTree::field(field, "value"), "new_expression");
    return typed ? "" : "its type is not written: write it, so that the constructor can set it";
  }
  FirstValue firstValueOf(Spot spot) override {
    TSNode field = fieldAt(spot), value = SyntaxTree::field(field, "value"), type = SyntaxTree::field(field, "type"), name = SyntaxTree::field(field, isTyped(spot) ? "name" : "property");
    bool untyped = isTyped(spot) && SyntaxTree::isNull(type);
    uint32_t from = ts_node_end_byte(SyntaxTree::isNull(type) ? name : type);
    return {std::string(tree(spot).text(name)), spanOf(value), {from, ts_node_end_byte(value)}, untyped ? ": " + std::string(tree(spot).text(SyntaxTree::field(value, "constructor"))) : ""};
  }
  std::string setting(const std::string& name, const std::string& value) override { return "this." + name + " = " + value; }

  std::string handOn(const Change& change) override { return give(*change.at.file, argumentsOf(change.at), objectOf(change), change.position); }
  std::string handToBase(const Change& change) override { return give(*change.at.file, SyntaxTree::field(superOf(change.at), "arguments"), handed_.word, change.position); }

  std::string fetchElsewhere(const LoweredFile&) override { return ""; }
  std::string nameIn(const LoweredFile& file) override {
    return nameBeside(file, {"import_statement", "lexical_declaration"}, {"named_imports", "object_pattern"}) ? handed_.type : "";
  }

 private:
  // The declaration of a field of objects that the place stands in, outside of functions.
  TSNode fieldAt(Spot place) {
    TSNode node = tree(place).covering(place->span, {"method_definition", "function", "function_expression", "field_definition", "public_field_definition", "class_body"});
    return SyntaxTree::isOneOf(node, {"field_definition", "public_field_definition"}) && SyntaxTree::isNull(SyntaxTree::childOf(node, "static")) ? node : TSNode{};
  }
  bool hasObject(Spot place) {
    TSNode node = tree(place).covering(place->span, {"method_definition", "function", "function_expression", "function_declaration", "generator_function", "field_definition", "public_field_definition", "class_body"});
    if (SyntaxTree::is(node, "method_definition")) return SyntaxTree::isNull(SyntaxTree::childOf(node, "static"));
    // W.prototype.turn = function () {…}, and the constructor function itself
    TSNode above = SyntaxTree::parent(node);
    return SyntaxTree::is(above, "assignment_expression") && tree(place).text(SyntaxTree::field(above, "left")).find(".prototype.") != std::string_view::npos;
  }

  bool marksFields() const {
    if (marks_ < 0) {
      size_t marked = 0, plain = 0;
      for (Spot access : handed_.accesses) {
        std::string_view source = files_.text(*access.file);
        for (size_t at = source.find("this."); at != std::string_view::npos; at = source.find("this.", at + 5)) ++(at + 5 < source.size() && source[at + 5] == '_' ? marked : plain);
      }
      marks_ = marked > plain;
    }
    return marks_ > 0;
  }

  static constexpr std::string_view kCannotName = "its class cannot be named in this file: it is not exported";

  // ----- reading

  static bool isTyped(Spot spot) { return spot.file->language != "javascript"; }
  TSNode functionAt(Spot spot) {
    TSNode own = tree(spot).within(spot->span, {"method_definition", "function_declaration", "generator_function_declaration", "function", "function_expression"});
    return SyntaxTree::isNull(own) ? tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"method_definition", "function_declaration", "function", "function_expression"}) : own;
  }
  TSNode classAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration", "class", "abstract_class_declaration"}); }
  TSNode argumentsOf(Spot call) { return SyntaxTree::field(tree(call).within(call->span, {"new_expression", "call_expression"}), "arguments"); }
  TSNode superOf(Spot constructor) {
    TSNode found{};
    SyntaxTree::walk(SyntaxTree::field(functionAt(constructor), "body"), [&](TSNode node) {
      if (SyntaxTree::isNull(found) && SyntaxTree::is(node, "call_expression") && SyntaxTree::is(SyntaxTree::field(node, "function"), "super")) found = node;
      return SyntaxTree::isNull(found) && !SyntaxTree::isOneOf(node, {"function", "function_expression", "class"});
    });
    return found;
  }
  TSNode parameterAt(Spot constructor) {
    const SyntaxTree& syntax = tree(constructor);
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(functionAt(constructor), "parameters"))) {
      TSNode name = SyntaxTree::field(parameter, SyntaxTree::is(parameter, "assignment_pattern") ? "left" : "pattern");
      if (syntax.text(SyntaxTree::isNull(name) ? parameter : name) == handed_.word) return parameter;
    }
    return {};
  }
  bool endsStatements(const LoweredFile& file) { return text(file).find(";\n") != std::string_view::npos || text(file).find(";\r\n") != std::string_view::npos; }
  std::string semicolon(const LoweredFile& file) { return endsStatements(file) ? ";" : ""; }

  // ----- what cannot be done

  std::string canGetConstructor(const ClassFacts& c) override {
    TSNode node = classAt(c.type);
    if (SyntaxTree::isNull(node)) return c.name + " is no ordinary class: nothing can be handed to a constructor of it";
    bool derived = c.lineage.size() > 1 || !c.otherBases.empty();
    return derived ? c.name + " has no constructor of its own, and what its base's takes stands elsewhere" : "";
  }
  std::string canTake(const Change& change) override {
    TSNode function = functionAt(change.at), list = SyntaxTree::field(function, "parameters");
    if (SyntaxTree::isNull(list)) return "its parameters could not be read";
    for (TSNode parameter : SyntaxTree::children(list))
      if (tree(change.at).text(parameter).starts_with("...") || SyntaxTree::is(parameter, "rest_pattern")) return "its constructor takes any number of arguments";
    if (isTyped(change.at) && typeIn(*change.at.file, false).empty()) return std::string(kCannotName);
    for (TSNode before = ts_node_prev_named_sibling(function); SyntaxTree::is(before, "method_signature"); before = ts_node_prev_named_sibling(before)) return "its constructor is overloaded";
    return "";
  }
  std::string canHand(TSNode arguments, uint32_t position) {
    if (SyntaxTree::isNull(arguments)) return "its arguments could not be read";
    std::vector<TSNode> given = SyntaxTree::children(arguments);
    if (std::any_of(given.begin(), given.end(), [](TSNode a) { return SyntaxTree::is(a, "spread_element"); })) return "any number of arguments may be given here";
    return position != kLast && given.size() > position ? "more is given here than its constructor takes" : "";
  }

  // ----- writing

  std::string objectOf(const Change& change) {
    if (change.from == From::Parameter) return handed_.word;
    return change.from == From::Field ? "this." + fieldFor(handed_.word) : fetchIn(*change.at.file);
  }
  // §13.13: objects are truthy.
  std::string read(const Change& change) override {
    std::string fetch = fetchAt(change.at), holder = change.from == From::Parameter ? handed_.word : "this." + fieldFor(handed_.word);
    for (Span span : spansOf(change)) put(*change.at.file, span, handed_.late ? "(" + holder + " || " + fetch + ")" : holder);
    return "";
  }

  std::string parameter(const LoweredFile& file, bool typed, bool passesOnly, const std::string& fetch) {
    std::string type = typed ? typeIn(file, true) : "";
    if (passesOnly || handed_.late) return handed_.word + (typed ? "?: " + type : "");
    return handed_.word + (typed ? ": " + type : "") + " = " + fetch;
  }

  std::string take(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode function = functionAt(change.at), list = SyntaxTree::field(function, "parameters");
    std::string fetch = change.passesOnly || handed_.late ? "" : fetchIn(file);
    if (fetch.empty() && !change.passesOnly && !handed_.late) return std::string(kCannotFetch);
    bool declares = keepsNow(change.of) && declaresFields(change.at);
    append(file, list, (declares ? "private readonly " : "") + parameter(file, isTyped(change.at), change.passesOnly, fetch));
    document(file, function);
    putFirst(change.at, statements(file, change.of, declares));
    return "";
  }
  std::string setIn(Spot constructor, const std::vector<std::string>& moved) override {
    std::vector<std::string> first;
    for (const std::string& one : moved) first.push_back(one + semicolon(*constructor.file));
    putFirst(constructor, first);
    return "";
  }
  void putFirst(Spot constructor, const std::vector<std::string>& first) {
    if (first.empty()) return;
    const LoweredFile& file = *constructor.file;
    TSNode function = functionAt(constructor), body = SyntaxTree::field(function, "body");
    // §13.3.7.1: a derived class has no `this` before its base's constructor has run.
    TSNode super = superOf(constructor);
    while (!SyntaxTree::isNull(super) && !ts_node_eq(SyntaxTree::parent(super), body)) super = SyntaxTree::parent(super);
    uint32_t at = SyntaxTree::isNull(super) ? behindRemark(file, ts_node_start_byte(body) + 1) : ts_node_end_byte(super);
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(function)), inner = indent + unitOf(file);
    bool oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row, ownLines = !oneLine || SyntaxTree::children(body).empty();
    std::string lines;
    for (const std::string& statement : first) lines += (ownLines ? newline + inner : " ") + statement;
    insert(file, at, lines + (oneLine && ownLines ? newline + indent : ""));
  }
  // What a constructor begins with; `declared`: the parameter declares the field.
  std::vector<std::string> statements(const LoweredFile& file, const ClassFacts* c, bool declared) {
    std::vector<std::string> out;
    if (keepsNow(c) && !declared) out.push_back("this." + fieldFor(handed_.word) + " = " + handed_.word + semicolon(file));
    for (const std::string& one : moved(c)) out.push_back(one + semicolon(file));
    return out;
  }
  // Does a constructor declare fields among its parameters, and can it do so with ours?
  bool declaresFields(Spot constructor) {
    if (fieldFor(handed_.word) != handed_.word) return false;
    std::vector<TSNode> all = SyntaxTree::children(SyntaxTree::field(functionAt(constructor), "parameters"));
    return std::any_of(all.begin(), all.end(), [](TSNode one) { return !SyntaxTree::isNull(SyntaxTree::childOf(one, "accessibility_modifier")); });
  }

  // "@param {T} [word]" where the others are documented so.
  void document(const LoweredFile& file, TSNode function) {
    TSNode comment = ts_node_prev_sibling(function);
    if (!SyntaxTree::is(comment, "comment")) return;
    bool braces = files_.tree(file).text(comment).find("@param {") != std::string_view::npos;
    documentBehind(file, comment, "* @param", "* @param " + (braces ? "{" + handed_.type + "} [" + handed_.word + "]" : handed_.word));
  }

  std::string keep(const Change& change) override {
    const ClassFacts& c = *change.of;
    bool mayBeNone = change.passesOnly || handed_.late;
    if (!isTyped(c.type) || (!c.constructors.empty() && declaresFields(c.constructors.front()))) return "";
    const LoweredFile& file = *c.type.file;
    TSNode body = SyntaxTree::field(classAt(c.type), "body"), last{};
    for (TSNode member : SyntaxTree::children(body))
      if (SyntaxTree::is(member, "public_field_definition")) last = member;
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(body)) + unitOf(file);
    std::string line = "private readonly " + fieldFor(handed_.word) + ": " + typeIn(file, true) + (mayBeNone ? " | undefined" : "") + semicolon(file);
    if (SyntaxTree::isNull(last)) return insert(file, ts_node_start_byte(body) + 1, newline + indent + line + (c.constructors.empty() ? "" : newline)), "";
    uint32_t end = ts_node_end_byte(last);
    if (end < text(file).size() && text(file)[end] == ';') ++end;
    return insert(file, end, newline + indent + line), "";
  }

  std::string makeConstructor(const Change& change) override {
    const ClassFacts& c = *change.of;
    const LoweredFile& file = *c.type.file;
    std::string fetch = change.passesOnly || handed_.late ? "" : fetchIn(file);
    if (fetch.empty() && !change.passesOnly && !handed_.late) return std::string(kCannotFetch);
    TSNode body = SyntaxTree::field(classAt(c.type), "body"), last{};
    for (TSNode member : SyntaxTree::children(body))
      if (SyntaxTree::isOneOf(member, {"public_field_definition", "field_definition"})) last = member;
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(body));
    std::string lines;
    for (const std::string& statement : statements(file, change.of, false)) lines += "\n\t\t" + statement;
    std::string text0 = laidOut(file, "\n\tconstructor(" + parameter(file, isTyped(c.type), change.passesOnly, fetch) + ") {" + lines + "\n\t}", indent);
    bool alone = SyntaxTree::children(body).empty();
    if (SyntaxTree::isNull(last)) {
      std::string lead = isTyped(c.type) ? newline : "";
      return insert(file, ts_node_start_byte(body) + 1, lead + text0 + (alone ? newline + indent : newline)), "";
    }
    uint32_t end = ts_node_end_byte(last);
    if (end < text(file).size() && text(file)[end] == ';') ++end;
    return insert(file, end, newline + text0 + gapBehind(file, end)), "";
  }

  // §15.1: a parameter with a default, or one that may be left out.
  std::string whyNotDropped(const Change& change) override {
    Spot constructor = change.at;
    TSNode parameter = parameterAt(constructor);
    bool optional = SyntaxTree::is(parameter, "optional_parameter");
    return !optional && SyntaxTree::isNull(SyntaxTree::field(parameter, isTyped(constructor) ? "value" : "right")) ? "it has no default" : "";
  }
  std::string drop(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode ours = parameterAt(change.at);
    uint32_t from = ts_node_start_byte(isTyped(change.at) ? SyntaxTree::field(ours, "pattern") : ours);
    put(file, {from, ts_node_end_byte(ours)}, isTyped(change.at) ? handed_.word + ": " + handed_.type : handed_.word);
    if (!isTyped(change.at)) return "";
    std::string_view none = " | undefined";
    for (TSNode member : SyntaxTree::children(SyntaxTree::field(classAt(change.of->type), "body"))) {
      std::string_view said = files_.tree(*change.of->type.file).text(member);
      size_t at = said.find(none);
      if (!SyntaxTree::is(member, "public_field_definition") || said.find(" " + fieldFor(handed_.word) + ":") == std::string_view::npos || at == std::string_view::npos) continue;
      uint32_t begin = ts_node_start_byte(member) + static_cast<uint32_t>(at);
      put(*change.of->type.file, {begin, begin + static_cast<uint32_t>(none.size())}, "");
    }
    return "";
  }

  std::string give(const LoweredFile& file, TSNode arguments, const std::string& object, uint32_t position) {
    if (object.empty()) return std::string(kCannotFetch);
    std::string fill;
    for (size_t given = SyntaxTree::children(arguments).size(); position != kLast && given < position; ++given) fill += "undefined, ";
    append(file, arguments, fill + object);
    return "";
  }

  // ----- types

  // The class's name as a file may write it; `write`: with the import that it needs. Empty: it cannot be named there.
  std::string typeIn(const LoweredFile& file, bool write) {
    namespace fs = std::filesystem;
    const SyntaxTree& syntax = files_.tree(file);
    if (&file == handed_.home) return handed_.type;
    if (!handed_.made.empty())
      if (std::string name = nameIn(file); !name.empty()) return name;
    TSNode last{};
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (!SyntaxTree::is(node, "import_statement")) continue;
      last = node;
      bool named = false;
      SyntaxTree::walk(node, [&](TSNode inner) {
        named |= SyntaxTree::is(inner, "identifier") && syntax.text(inner) == handed_.type;
        return true;
      });
      if (named) return handed_.type;
    }
    std::string_view home = files_.text(*handed_.home);
    bool byDefault = home.find("export default class " + handed_.type) != std::string_view::npos;
    bool byName = home.find("export class " + handed_.type) != std::string_view::npos || home.find("export abstract class " + handed_.type) != std::string_view::npos;
    if (!byDefault && !byName) return "";
    if (!write || !once(file, "import")) return handed_.type;
    std::string path = fs::path(handed_.home->path).lexically_relative(fs::path(file.path).parent_path().empty() ? fs::path(".") : fs::path(file.path).parent_path()).string();
    if (!path.starts_with(".")) path = "./" + path;
    // As the file spells its other imports: quotes, and whether the ending is written.
    std::string_view model = SyntaxTree::isNull(last) ? std::string_view() : syntax.text(last);
    char quote = model.find('"') != std::string_view::npos ? '"' : '\'';
    bool ending = model.find(".js") != std::string_view::npos;
    path = path.substr(0, path.rfind('.')) + (ending ? ".js" : "");
    std::string line = "import " + (byDefault ? handed_.type : "{ " + handed_.type + " }") + " from " + quote + path + quote + semicolon(file), newline(newlineOf(file));
    if (SyntaxTree::isNull(last)) insert(file, 0, line + newline + newline);
    else insert(file, ts_node_end_byte(last), newline + line);
    return handed_.type;
  }

  mutable int marks_ = -1;  // are fields marked by a leading underscore? -1: not looked yet
};

}  // namespace

std::unique_ptr<Writer> scriptWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<ScriptWriter>(files, handed); }

}  // namespace elmcart

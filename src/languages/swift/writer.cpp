// Writes changes in Swift. Chapters are of The Swift Programming Language, Swift 5.9, Language Reference.
#include <algorithm>

#include "base/text.h"
#include "languages/shared/label_writer.h"
#include "languages/swift/swift.h"

namespace elmcart {
namespace {

class SwiftWriter final : public LabelWriter {
 public:
  using LabelWriter::LabelWriter;

  // "Initializer Declaration": a property's first value is worked out before an initializer runs.
  std::string whyNoObject(Spot place) override {
    TSNode node = tree(place).covering(place->span, {"property_declaration", "function_declaration", "init_declaration", "deinit_declaration", "class_body"});
    bool field = SyntaxTree::is(node, "property_declaration") && SyntaxTree::is(SyntaxTree::parent(node), "class_body");
    TSNode value = SyntaxTree::field(node, "value");
    bool lazy = tree(place).text(SyntaxTree::childOf(node, "modifiers")).find("lazy") != std::string_view::npos;
    return field && !lazy && !SyntaxTree::isNull(value) && spanOf(value).contains(place->span.begin) ? "a property's first value is worked out before the initializer has the object" : "";
  }
  // "Initializer Inheritance": a class that declares none has those of its base.
  bool inheritsConstructors() const override { return true; }

 protected:
  std::string_view label() const override { return ": "; }
  std::string_view orElse() const override { return " ?? "; }
  std::string fieldIn(const LoweredFile&) override { return "self." + handed_.word; }

  TSNode classAt(Spot spot) override {
    TSNode node = tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration", "protocol_declaration"});
    return tree(spot).text(SyntaxTree::field(node, "declaration_kind")) == "class" ? node : TSNode{};
  }
  TSNode functionAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"function_declaration"}); }
  std::string whyNotInFunction(Spot function, TSNode node) override {
    const SyntaxTree& syntax = tree(function);
    TSNode modifiers = SyntaxTree::childOf(node, "modifiers");
    if (!SyntaxTree::isNull(SyntaxTree::childOf(modifiers, "attribute"))) return "it is marked: what calls it may not be in this tree";
    if (syntax.text(modifiers).find("override") != std::string_view::npos) return "it is marked override: those of other classes must take the same";
    for (TSNode parameter : SyntaxTree::children(node))
      if (SyntaxTree::is(parameter, "parameter") && syntax.text(parameter).ends_with("...")) return "it takes any number of arguments";
    return "";
  }
  TSNode constructorAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"init_declaration"}); }
  TSNode argumentsOf(Spot call) override { return tree(call).within(call->span, {"value_arguments"}); }
  TSNode baseArgumentsOf(const Change& change) override {
    if (!change.at.known()) return {};
    const SyntaxTree& syntax = tree(change.at);
    TSNode found{};
    SyntaxTree::walk(SyntaxTree::field(constructorAt(change.at), "body"), [&](TSNode node) {
      bool base = SyntaxTree::is(node, "call_expression") && syntax.text(SyntaxTree::named(node, 0)) == "super.init";
      if (base && SyntaxTree::isNull(found)) found = SyntaxTree::childOf(SyntaxTree::childOf(node, "call_suffix"), "value_arguments");
      return SyntaxTree::isNull(found);
    });
    return found;
  }

  std::string whyNotTaken(const Change& change, TSNode constructor) override {
    const SyntaxTree& syntax = tree(change.at);
    TSNode modifiers = SyntaxTree::childOf(constructor, "modifiers");
    if (!SyntaxTree::isNull(SyntaxTree::childOf(modifiers, "attribute"))) return "this constructor is marked: what calls it may not be in this tree";
    for (TSNode modifier : SyntaxTree::children(modifiers)) {
      std::string_view word = syntax.text(modifier);
      if (word == "required" || word == "override") return "this constructor is marked " + std::string(word) + ": those of other classes must take the same";
    }
    for (TSNode parameter : SyntaxTree::children(constructor))
      if (SyntaxTree::is(parameter, "parameter") && syntax.text(parameter).ends_with("...")) return "this constructor takes any number of arguments";
    return SyntaxTree::isNull(SyntaxTree::field(constructor, "body")) ? "its constructor has no body of statements" : "";
  }
  std::string canGetConstructor(const ClassFacts& c) override {
    if (SyntaxTree::isNull(classAt(c.type))) return c.name + std::string(kNoClass);
    return c.hasBaseClass ? c.name + " has no constructor, and its base class may need arguments" : "";
  }
  // Chapter "Protocols": what makes it coded and decoded is written by the compiler, from all properties.
  std::string canKeep(const ClassFacts& c) override {
    for (const std::string& base : c.otherBases)
      if (std::string_view name = lastPart(base); name == "Codable" || name == "Decodable" || name == "Encodable" || name == "NSCoding" || name == "NSSecureCoding") return c.name + " can be serialised: a field would change its serialised form, or could not be written";
    return "";
  }
  // What is made with a closure behind the brackets can be given nothing behind that.
  std::string whyNotGiven(Spot call) override {
    TSNode suffix = SyntaxTree::parent(argumentsOf(call));
    return SyntaxTree::isNull(SyntaxTree::childOf(suffix, "lambda_literal")) ? "" : "it is made with a closure behind the brackets";
  }

  // A property that is declared by a value alone is told its type: that of the object which is made.
  std::string canMove(const Change& change) override {
    TSNode node = propertyAt(change.at), value = SyntaxTree::field(node, "value");
    if (SyntaxTree::isNull(value)) return "its first value could not be read";
    return SyntaxTree::isNull(SyntaxTree::childOf(node, "type_annotation")) && madeType(change.at, value).empty() ? "its type is not written: write it, so that the initializer can set it" : "";
  }
  FirstValue firstValueOf(Spot field) override {
    TSNode node = propertyAt(field), value = SyntaxTree::field(node, "value"), type = SyntaxTree::childOf(node, "type_annotation"), name = SyntaxTree::field(node, "name");
    bool typed = !SyntaxTree::isNull(type);
    return {std::string(tree(field).text(name)), spanOf(value), {ts_node_end_byte(typed ? type : name), ts_node_end_byte(value)}, typed ? "" : ": " + madeType(field, value)};
  }
  std::string setting(const std::string& name, const std::string& value) override { return "self." + name + " = " + value; }

  std::string setIn(Spot constructor, const std::vector<std::string>& first) override {
    TSNode node = constructorAt(constructor);
    if (SyntaxTree::isNull(delegation(constructor))) putFirst(*constructor.file, node, SyntaxTree::field(node, "body"), first);
    return "";
  }

  std::string keep(const Change& change) override {
    const LoweredFile& file = *change.of->type.file;
    TSNode node = classAt(change.of->type), body = SyntaxTree::field(node, "body"), last = lastProperty(body);
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node));
    std::string line = newline + indent + unitOf(file) + "private let " + handed_.word + ": " + nameIn(file) + (handed_.late ? "?" : "");
    if (!SyntaxTree::isNull(last)) return insert(file, behindRemark(file, ts_node_end_byte(last)), line), "";
    bool oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row, alone = SyntaxTree::children(body).empty();
    if (alone && change.of->constructors.empty()) return pending_ = line, "";  // with the constructor that is made
    return insert(file, ts_node_start_byte(body) + 1, line + (oneLine ? newline + indent : newline)), "";
  }
  std::string take(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode constructor = constructorAt(change.at);
    std::string item = parameter(file);
    if (item.empty()) return std::string(kCannotFetch);
    appendParameter(file, constructor, item);
    document(file, constructor);
    TSNode body = SyntaxTree::field(constructor, "body");
    std::vector<std::string> first = statements(change.of);
    if (!first.empty() && SyntaxTree::isNull(delegation(change.at))) putFirst(file, constructor, body, first);
    return "";
  }
  std::string takeInFunction(const Change& change) override {
    std::string item = parameter(*change.at.file);
    if (item.empty()) return std::string(kCannotFetch);
    appendParameter(*change.at.file, functionAt(change.at), item);
    document(*change.at.file, functionAt(change.at));
    return "";
  }
  std::string makeConstructor(const Change& change) override {
    const LoweredFile& file = *change.of->type.file;
    TSNode node = classAt(change.of->type), body = SyntaxTree::field(node, "body"), last = lastProperty(body);
    std::string item = parameter(file);
    if (item.empty()) return std::string(kCannotFetch);
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node));
    std::string lines;
    for (const std::string& statement : statements(change.of)) lines += "\n\t\t" + statement;
    std::string made = laidOut(file, "\n\t" + visibility(change.of->type, node) + "init(" + item + ") {" + lines + (lines.empty() ? "" : "\n\t") + "}", indent);
    bool alone = SyntaxTree::children(body).empty();
    bool oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row;
    if (!SyntaxTree::isNull(last)) return insert(file, behindRemark(file, ts_node_end_byte(last)), newline + made + gapBehind(file, ts_node_end_byte(last))), "";
    if (pending_.empty()) made = made.substr(newline.size());
    std::string lead = std::exchange(pending_, "") + newline;
    return insert(file, ts_node_start_byte(body) + 1, lead + made + (oneLine ? newline + indent : alone ? "" : newline)), "";
  }
  std::string open(const Change& change) override {
    // "Access Control": what says nothing is open to the module.
    TSNode node = tree(change.at).covering({change.at->nameBegin, change.at->nameBegin}, {"property_declaration"});
    reword(*change.at.file, node, change.at->nameBegin, "private", "");
    return "";
  }

  std::string whyNotDropped(const Change& change) override {
    if (handed_.late) return "what is fetched may be replaced, and it may be left out";
    return defaultOf(change).size() == 0 ? "it has no default" : "";
  }
  std::string drop(const Change& change) override { return put(*change.at.file, defaultOf(change), ""), ""; }

 private:
  // Behind the other parameters of a declaration, which stand in it one by one, each with its default behind it.
  void appendParameter(const LoweredFile& file, TSNode declaration, const std::string& item) {
    std::vector<Span> items;
    for (TSNode one : SyntaxTree::children(declaration)) {
      if (SyntaxTree::is(one, "parameter")) items.push_back(spanOf(one));
      else if (!items.empty() && ts_node_eq(one, SyntaxTree::field(declaration, "default_value"))) items.back().end = ts_node_end_byte(one);
    }
    // Each default stands behind its parameter.
    std::string_view source = text(file);
    uint32_t close = ts_node_start_byte(SyntaxTree::childOf(declaration, ")"));
    for (size_t i = 0; i < items.size(); ++i) {
      uint32_t limit = i + 1 < items.size() ? items[i + 1].begin : close;
      while (limit > items[i].end && (isBlank(source[limit - 1]) || source[limit - 1] == '\n' || source[limit - 1] == '\r' || source[limit - 1] == ',')) --limit;
      items[i].end = limit;
    }
    append(file, items, close, item);
  }
  // Stored properties of objects.
  TSNode lastProperty(TSNode body) {
    TSNode last{};
    for (TSNode member : SyntaxTree::children(body)) {
      if (!SyntaxTree::is(member, "property_declaration")) break;
      bool stored = SyntaxTree::isNull(SyntaxTree::field(member, "computed_value"));
      if (stored) last = member;
    }
    return last;
  }
  TSNode propertyAt(Spot field) { return tree(field).covering({field->nameBegin, field->nameBegin}, {"property_declaration"}); }
  // Boat(name: "c"): the name of the class; empty: no object of a class is made.
  std::string madeType(Spot field, TSNode value) {
    TSNode called = SyntaxTree::named(value, 0);
    if (!SyntaxTree::is(value, "call_expression") || !SyntaxTree::is(called, "simple_identifier")) return "";
    std::string_view name = tree(field).text(called);
    return std::isupper(static_cast<unsigned char>(name[0])) ? std::string(name) : "";
  }
  // self.init(…), to which a convenience initializer hands on.
  TSNode delegation(Spot constructor) {
    const SyntaxTree& syntax = tree(constructor);
    TSNode found{};
    SyntaxTree::walk(SyntaxTree::field(constructorAt(constructor), "body"), [&](TSNode node) {
      if (SyntaxTree::is(node, "call_expression") && syntax.text(SyntaxTree::named(node, 0)) == "self.init") found = node;
      return SyntaxTree::isNull(found);
    });
    return found;
  }
  // A class that is open to all is made by all.
  std::string visibility(Spot spot, TSNode type) {
    for (TSNode modifier : SyntaxTree::children(SyntaxTree::childOf(type, "modifiers")))
      if (std::string_view word = tree(spot).text(modifier); word == "public" || word == "open") return "public ";
    return "";
  }
  // What a constructor begins with.
  std::vector<std::string> statements(const ClassFacts* c) {
    std::vector<std::string> out;
    if (keepsNow(c)) out.push_back("self." + handed_.word + " = " + handed_.word);
    for (const std::string& one : moved(c)) out.push_back(one);
    return out;
  }
  std::string parameter(const LoweredFile& file) {
    if (handed_.late) return handed_.word + ": " + nameIn(file) + "? = nil";
    std::string fetch = fetchIn(file);
    return fetch.empty() ? "" : handed_.word + ": " + nameIn(file) + " = " + fetch;
  }
  // " = …" behind our parameter; empty: it has no default.
  Span defaultOf(const Change& change) {
    const SyntaxTree& syntax = tree(change.at);
    TSNode ours{};
    for (TSNode one : SyntaxTree::children(constructorAt(change.at))) {
      if (SyntaxTree::is(one, "parameter")) {
        ours = syntax.text(SyntaxTree::field(one, "name")) == handed_.word ? one : TSNode{};
        continue;
      }
      if (!SyntaxTree::isNull(ours) && !SyntaxTree::is(one, "function_body")) return {ts_node_end_byte(ours), ts_node_end_byte(one)};
    }
    return {};
  }
  // "/// - Parameter name: …" where the others are documented so.
  void document(const LoweredFile& file, TSNode constructor) {
    const SyntaxTree& syntax = files_.tree(file);
    TSNode last{};
    for (TSNode above = ts_node_prev_sibling(constructor); SyntaxTree::is(above, "comment") && syntax.text(above).starts_with("///") && SyntaxTree::isNull(last); above = ts_node_prev_sibling(above))
      if (syntax.text(above).find("- Parameter ") != std::string_view::npos) last = above;
    if (SyntaxTree::isNull(last)) return;
    std::string_view said = syntax.text(last);
    std::string line(newlineOf(file));
    line += indentAt(file, ts_node_start_byte(last)) + std::string(said.substr(0, said.find("- Parameter "))) + "- Parameter " + handed_.word + ": what to use instead of the shared one";
    insert(file, ts_node_end_byte(last), line);
  }
};

}  // namespace

std::unique_ptr<Writer> swiftWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<SwiftWriter>(files, handed); }

}  // namespace elmcart

// Writes changes in Go. Chapters are of the Go Programming Language Specification, Go 1.21.
#include "languages/writer.h"

#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/go/go.h"

namespace elmcart {
namespace {

// A struct takes the object in a field. Where every place that makes one fills the field, it is read as it is;
// else by a method that falls back on what was fetched before, for a struct may be there without being made.
class GoWriter final : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, false); }

  bool hands(Spot creation) override {
    if (TSNode literal = literalAt(creation); !SyntaxTree::isNull(literal)) {
      for (TSNode element : SyntaxTree::children(SyntaxTree::field(literal, "body")))
        if (tree(creation).text(element).starts_with(handed_.word + ":")) return true;
      return false;
    }
    // A call of the function beside it that takes the object.
    for (TSNode argument : SyntaxTree::children(SyntaxTree::field(tree(creation).within(creation->span, {"call_expression"}), "arguments")))
      if (tree(creation).text(argument) == handed_.word) return true;
    return false;
  }

  std::string whyNoObject(Spot place) override { return selfAt(place).empty() ? "its method has no name for its object" : ""; }
  bool takesByFields() const override { return true; }

 protected:
  // A struct has no constructors: who makes one fills the field.
  std::string canGetConstructor(const ClassFacts&) override { return ""; }
  std::string makeConstructor(const Change&) override { return ""; }
  std::string canRead(const Change& change) override { return change.from == From::Field && selfAt(change.at).empty() ? "its method has no name for its object" : ""; }

  void begin(std::span<const Change> changes) override {
    direct_.clear();
    twins_.clear();
    changes_ = changes;
    for (const Change& change : changes) {
      if (change.kind == ChangeKind::KeepInField && isAlwaysFilled(*change.of)) direct_.insert(change.of);
      if (change.kind == ChangeKind::TakeInFunction) twins_.insert(change.at);
    }
  }
  std::string read(const Change& change) override {
    if (!twins_.contains(change.in)) replace(change);
    return "";
  }
  std::string handOn(const Change& change) override {
    if (!twins_.contains(change.in) && !isLeftToReader(change)) fill(change);
    return "";
  }

  std::string fetchElsewhere(const LoweredFile& file) override {
    for (Spot access : handed_.accesses) {
      std::string written = textOf(access);
      if (folderOf(access.file->path) == folderOf(file.path)) {
        size_t dot = written.find('.');
        if (dot == std::string::npos || dot > written.find('(')) return written;
        std::string line = importOf(*access.file, written.substr(0, dot));
        if (line.empty()) continue;
        addImport(file, line);
        return written;
      }
    }
    return "";
  }

 private:
  // ----- reading

  static std::string_view folderOf(std::string_view path) { return path.substr(0, path.rfind('/') == std::string_view::npos ? 0 : path.rfind('/')); }
  TSNode functionAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"function_declaration", "method_declaration"}); }
  TSNode structAt(Spot type) {
    TSNode spec = tree(type).covering({type->nameBegin, type->nameBegin}, {"type_spec"});
    TSNode body = SyntaxTree::field(spec, "type");
    return SyntaxTree::is(body, "struct_type") ? body : TSNode{};
  }
  // What a method calls its object.
  std::string selfAt(Spot place) {
    const SyntaxTree& syntax = tree(place);
    TSNode method = syntax.covering(place->span, {"method_declaration"});
    std::vector<TSNode> receiver = SyntaxTree::children(SyntaxTree::field(method, "receiver"));
    TSNode name = receiver.empty() ? TSNode{} : SyntaxTree::field(receiver.front(), "name");
    return SyntaxTree::isNull(name) || syntax.text(name) == "_" ? "" : std::string(syntax.text(name));
  }
  TSNode literalAt(Spot creation) {
    TSNode literal = tree(creation).within(creation->span, {"composite_literal"});
    if (SyntaxTree::isNull(literal)) literal = tree(creation).covering(creation->span, {"composite_literal"});
    return literal;
  }
  // new(T), §Allocation; empty: it is none.
  std::string madeByNew(Spot creation) {
    const SyntaxTree& syntax = tree(creation);
    TSNode call = syntax.within(creation->span, {"call_expression"});
    if (SyntaxTree::isNull(call) || syntax.text(SyntaxTree::field(call, "function")) != "new") return "";
    TSNode type = SyntaxTree::named(SyntaxTree::field(call, "arguments"), 0);
    return SyntaxTree::isNull(type) ? "" : std::string(syntax.text(type));
  }
  // The object's type as it is handed in: a pointer to what the variable holds, or what the variable or accessor says.
  std::string typeIn(const LoweredFile& file) {
    std::string type;
    if (handed_.accessor.known()) {
      type = std::string(tree(handed_.accessor).text(SyntaxTree::field(functionAt(handed_.accessor), "result")));
    } else if (handed_.slot.known()) {
      TSNode spec = tree(handed_.slot).covering({handed_.slot->nameBegin, handed_.slot->nameBegin}, {"var_spec"});
      type = std::string(tree(handed_.slot).text(SyntaxTree::field(spec, "type")));
      if (type.empty()) type = isPointer() ? "*" + handed_.type : handed_.type;
      if (type[0] != '*' && holdsStruct()) type = "*" + type;
    }
    if (type.empty() || !handed_.home) return "";
    const LoweredFile& declared = handed_.accessor.known() ? *handed_.accessor.file : *handed_.slot.file;
    if (folderOf(declared.path) == folderOf(file.path)) return type;
    size_t begin = type.find_first_not_of("*[]");
    if (begin == std::string::npos || !std::isupper(static_cast<unsigned char>(type[begin])) || type.find('.') != std::string::npos) return "";
    std::string fetch = fetchIn(file);
    size_t dot = fetch.find('.');
    return dot == std::string::npos ? "" : type.substr(0, begin) + fetch.substr(0, dot + 1) + type.substr(begin);
  }
  // The value of the slot's declaration.
  TSNode slotValue() {
    TSNode spec = tree(handed_.slot).covering({handed_.slot->nameBegin, handed_.slot->nameBegin}, {"var_spec"});
    return SyntaxTree::named(SyntaxTree::field(spec, "value"), 0);
  }
  bool isPointer() { return SyntaxTree::is(slotValue(), "unary_expression"); }
  // Does the variable hold the object itself, and not where it is?
  bool holdsStruct() { return !handed_.accessor.known() && handed_.slot.known() && handed_.slotHoldsObject && !isPointer(); }
  std::string fetched(const LoweredFile& file) {
    std::string fetch = fetchIn(file);
    return fetch.empty() || !holdsStruct() ? fetch : "&" + fetch;
  }

  // ----- what cannot be done

  std::string canKeep(const ClassFacts& c) override {
    TSNode body = structAt(c.type);
    if (SyntaxTree::isNull(body)) return c.name + " is no struct: it can have no field";
    if (typeIn(*c.type.file).empty()) return "the class of the object cannot be named in this file: give it an exported name, or take an interface by hand";
    for (TSNode field : SyntaxTree::children(SyntaxTree::named(body, 0)))
      for (uint32_t i = 0; i < ts_node_named_child_count(field); ++i)
        if (tree(c.type).text(ts_node_named_child(field, i)) == handed_.word) return c.name + " has a field " + handed_.word + " already";
    return "";
  }
  std::string canTakeInFunction(const Change& change) override {
    Spot function = change.at;
    TSNode node = functionAt(function);
    if (!SyntaxTree::is(node, "function_declaration")) return "it is a method: its callers hold its object";
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(node, "parameters"))) {
      if (SyntaxTree::is(parameter, "variadic_parameter_declaration")) return "it takes any number of arguments";
      if (SyntaxTree::isNull(SyntaxTree::field(parameter, "name"))) return "one of its parameters has no name";
    }
    if (!SyntaxTree::isNull(SyntaxTree::field(node, "type_parameters"))) return "it has type parameters";
    return typeIn(*function.file).empty() ? "the class of the object cannot be named in this file: give it an exported name, or take an interface by hand" : "";
  }
  std::string canHandOn(const Change& change) override {
    TSNode literal = literalAt(change.at);
    if (SyntaxTree::isNull(literal)) {
      TSNode call = tree(change.at).within(change.at->span, {"call_expression"});
      if (SyntaxTree::isNull(call)) return "how it is made could not be read";
      return "";
    }
    for (TSNode element : SyntaxTree::children(SyntaxTree::field(literal, "body")))
      if (!SyntaxTree::is(element, "keyed_element")) return "its fields are given in their order, not by name";
    return "";
  }

  // Is the field filled wherever one is made, tests too? And is none there without being made?
  bool isAlwaysFilled(const ClassFacts& c) {
    return !c.existsUnmade && !c.creations.empty() && std::all_of(c.creations.begin(), c.creations.end(), [&](Spot creation) {
      return hands(creation) || std::any_of(changes_.begin(), changes_.end(), [&](const Change& change) { return change.kind == ChangeKind::HandOn && change.at == creation; });
    });
  }

  // ----- writing

  std::string reader() const {
    std::string name = handed_.word;
    name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
    return "the" + name;
  }
  std::string object(const Change& change) {
    if (change.from == From::Parameter) return handed_.word;
    std::string self = selfAt(change.at);
    return direct_.contains(change.of) || hasNoReader(*change.of) ? self + "." + handed_.word : self + "." + reader() + "()";
  }
  // Was it given the field by an earlier step, which always is filled?
  bool hasNoReader(const ClassFacts& c) { return !made_.contains(&c) && text(*c.type.file).find(") " + reader() + "() ") == std::string_view::npos; }

  // A pointer to the variable is what is handed in.
  void replace(const Change& change) {
    for (Span span : spansOf(change)) {
      if (holdsStruct() && span.begin > 0 && text(*change.at.file)[span.begin - 1] == '&') --span.begin;
      put(*change.at.file, span, object(change));
    }
  }
  // A literal that fetches the object for a struct that would fetch it itself.
  bool isLeftToReader(const Change& change) const {
    if (change.from != From::Fetched || change.of == nullptr) return false;
    return !direct_.contains(change.of) && keepsNow(change.of);
  }

  std::string source(const Change& change) {
    if (change.from == From::Parameter) return handed_.word;
    if (change.from == From::Fetched) return fetched(*change.at.file);
    return object(change);
  }

  std::string keep(const Change& change) override {
    const ClassFacts& c = *change.of;
    const LoweredFile& file = *c.type.file;
    TSNode list = SyntaxTree::named(structAt(c.type), 0);
    std::string type = typeIn(file), newline(newlineOf(file)), indent = indentAt(file, c.type->span.begin) + "\t";
    std::vector<TSNode> fields = SyntaxTree::children(list);
    if (fields.empty()) {
      bool apart = text(file)[ts_node_start_byte(list) - 1] == ' ';
      put(file, {ts_node_start_byte(list), ts_node_end_byte(list)}, std::string(apart ? "" : " ") + "{" + newline + indent + handed_.word + " " + type + newline + indentAt(file, c.type->span.begin) + "}");
    } else {
      uint32_t end = ts_node_end_byte(lastOnLine(fields.back()));
      while (text(file)[end - 1] == '\r') --end;
      insert(file, end, newline + aligned(file, fields, type, indent));
    }
    if (!direct_.contains(&c)) addReader(c, type);
    made_.insert(&c);
    return "";
  }
  // A comment that stands behind a field on its line belongs to it.
  TSNode lastOnLine(TSNode field) {
    TSNode next = ts_node_next_sibling(field);
    while (!SyntaxTree::isNull(next) && ts_node_start_point(next).row == ts_node_end_point(field).row && (SyntaxTree::isComment(next) || ts_node_child_count(next) == 0) && !SyntaxTree::is(next, "}")) {
      if (SyntaxTree::isComment(next)) return next;
      next = ts_node_next_sibling(next);
    }
    return field;
  }
  // In line with the fields above, where that moves none of them; else apart from them.
  std::string aligned(const LoweredFile& file, const std::vector<TSNode>& fields, const std::string& type, const std::string& indent) {
    TSNode last = fields.back(), name = SyntaxTree::field(last, "name"), of = SyntaxTree::field(last, "type");
    std::string line = handed_.word + " " + type;
    std::string apart = std::string(newlineOf(file)) + indent + line;
    if (SyntaxTree::isNull(name) || SyntaxTree::isNull(of)) return apart;
    size_t column = ts_node_start_byte(of) - ts_node_start_byte(name);
    bool alone = fields.size() == 1 && column == ts_node_end_byte(name) - ts_node_start_byte(name) + 1;
    if (handed_.word.size() < column && !alone) return indent + handed_.word + std::string(column - handed_.word.size(), ' ') + type;
    if (handed_.word.size() + 1 == column) return indent + line;
    // The names above are shorter: gofmt puts all types of neighbouring lines in line, which moves comments and tags.
    std::vector<TSNode> block;
    for (size_t i = fields.size(); i-- > 0;) {
      TSNode one = fields[i];
      if (!block.empty() && ts_node_end_point(one).row + 1 != ts_node_start_point(block.back()).row) break;
      if (SyntaxTree::isNull(SyntaxTree::field(one, "name")) || ts_node_named_child_count(one) != 2 || !ts_node_eq(lastOnLine(one), one)) return apart;
      block.push_back(one);
    }
    size_t widest = 0;
    for (TSNode one : block) widest = std::max<size_t>(widest, ts_node_end_byte(SyntaxTree::field(one, "name")) - ts_node_start_byte(one));
    size_t wanted = std::max(widest, handed_.word.size()) + 1;
    for (TSNode one : block) {
      uint32_t begin = ts_node_start_byte(one), nameEnd = ts_node_end_byte(SyntaxTree::field(one, "name")), at = ts_node_start_byte(SyntaxTree::field(one, "type"));
      put(file, {nameEnd, at}, std::string(wanted - (nameEnd - begin), ' '));
    }
    return indent + handed_.word + std::string(wanted - handed_.word.size(), ' ') + type;
  }
  void addReader(const ClassFacts& c, const std::string& type) {
    const LoweredFile& file = *c.type.file;
    TSNode declaration = tree(c.type).covering({c.type->nameBegin, c.type->nameBegin}, {"type_declaration"});
    std::string self(1, static_cast<char>(std::tolower(static_cast<unsigned char>(c.name[0]))));
    for (Spot method : c.methods)
      if (std::string word = selfAt(method); !word.empty()) {
        self = word;
        break;
      }
    std::string text = "\n\n// " + reader() + " is what was handed in, or else the shared one.\nfunc (" + self + " *" + c.name + ") " + reader() + "() " + type + " {\n\tif " + self + "." + handed_.word + " == nil {\n\t\treturn " + fetched(file) + "\n\t}\n\treturn " + self + "." + handed_.word + "\n}";
    std::string laid;
    for (char ch : text) laid += ch == '\n' ? std::string(newlineOf(file)) : std::string(1, ch);
    insert(file, ts_node_end_byte(declaration), laid);
  }

  // The function stays, and calls one beside it that takes the object.
  std::string takeInFunction(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode node = functionAt(change.at), list = SyntaxTree::field(node, "parameters"), body = SyntaxTree::field(node, "body"), result = SyntaxTree::field(node, "result");
    std::string name(syntax.text(SyntaxTree::field(node, "name"))), names, twin = twinOf(name), newline(newlineOf(file)), fetch = fetched(file);
    if (fetch.empty()) return std::string(kCannotFetch);
    for (TSNode parameter : SyntaxTree::children(list))
      for (uint32_t i = 0; i < ts_node_named_child_count(parameter); ++i)
        if (TSNode word = ts_node_named_child(parameter, i); SyntaxTree::is(word, "identifier")) names += std::string(syntax.text(word)) + ", ";
    // The old body, with what is read and handed on inside of it.
    uint32_t begin = ts_node_start_byte(body), end = ts_node_end_byte(body);
    std::string changed = changedInside(file, {begin, end}, [&] {
      for (const Change& c : changes_) {
        if (c.in != change.at) continue;
        if (c.kind == ChangeKind::Read) replace(c);
        if (c.kind == ChangeKind::HandOn) fill(c);
      }
    });
    if (changed.empty()) return "its body could not be rewritten";
    std::string parameters(syntax.text(list)), type = typeIn(file);
    bool none = SyntaxTree::children(list).empty();
    parameters.insert(parameters.size() - 1, (none ? "" : ", ") + handed_.word + " " + type);
    std::string results = SyntaxTree::isNull(result) ? "" : std::string(syntax.text(result)) + " ";
    put(file, {begin, end}, "{" + newline + "\t" + (SyntaxTree::isNull(result) ? "" : "return ") + twin + "(" + names + fetch + ")" + newline + "}" + newline + newline +
                                "// " + twin + " is " + name + " with the " + handed_.word + " handed in." + newline + "func " + twin + parameters + " " + results + changed);
    return "";
  }
  // An unexported name of its own: newMeter for NewMeter, newPilotWith for newPilot.
  static std::string twinOf(const std::string& name) {
    std::string out = name;
    out[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(out[0])));
    return out == name ? name + "With" : out;
  }

  void fill(const Change& change) {
    const LoweredFile& file = *change.at.file;
    TSNode literal = literalAt(change.at);
    std::string object = source(change);
    if (SyntaxTree::isNull(literal)) {
      TSNode call = tree(change.at).within(change.at->span, {"call_expression"});
      if (std::string type = madeByNew(change.at); !type.empty()) {
        std::string made = "&" + type + "{" + handed_.word + ": " + object + "}";
        bool inFront = SyntaxTree::is(SyntaxTree::parent(call), "selector_expression");
        return put(file, spanOf(call), inFront ? "(" + made + ")" : made);
      }
      TSNode name = SyntaxTree::field(call, "function");
      put(file, spanOf(name), twinOf(std::string(files_.tree(file).text(name))));
      append(file, SyntaxTree::field(call, "arguments"), object);
      return;
    }
    TSNode body = SyntaxTree::field(literal, "body");
    std::vector<TSNode> elements = SyntaxTree::children(body);
    std::string item = handed_.word + ": ";
    bool ownLines = !elements.empty() && ts_node_start_point(elements.back()).row != ts_node_start_point(body).row;
    if (ownLines) {
      // gofmt puts the values of neighbouring lines in line.
      TSNode key = SyntaxTree::named(elements.back(), 0), value = SyntaxTree::named(elements.back(), 1);
      size_t column = ts_node_start_byte(value) - ts_node_start_byte(key);
      if (item.size() < column) item += std::string(column - item.size(), ' ');
    }
    append(file, body, item + object);
  }

  // The line that brings a package, as a file writes it.
  std::string importOf(const LoweredFile& file, const std::string& package) {
    const SyntaxTree& syntax = files_.tree(file);
    std::string out;
    SyntaxTree::walk(syntax.root(), [&](TSNode node) {
      if (!SyntaxTree::is(node, "import_spec")) return !SyntaxTree::is(node, "function_declaration");
      std::string_view name = syntax.text(SyntaxTree::field(node, "name")), path = syntax.text(SyntaxTree::field(node, "path"));
      std::string_view inner = path.size() > 2 ? path.substr(1, path.size() - 2) : path;
      if (name == package || (name.empty() && inner.substr(inner.rfind('/') + 1) == package)) out = std::string(syntax.text(node));
      return false;
    });
    return out;
  }
  void addImport(const LoweredFile& file, const std::string& spec) {
    const SyntaxTree& syntax = files_.tree(file);
    if (!once(file, spec) || syntax.text().find(spec) != std::string_view::npos) return;
    TSNode package{}, list{};
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (SyntaxTree::is(node, "package_clause")) package = node;
      if (SyntaxTree::is(node, "import_declaration")) list = SyntaxTree::childOf(node, "import_spec_list");
    }
    std::string newline(newlineOf(file));
    if (SyntaxTree::isNull(list)) return insert(file, ts_node_end_byte(package), newline + newline + "import " + spec);
    TSNode last = SyntaxTree::children(list).back();
    insert(file, ts_node_end_byte(last), newline + "\t" + spec);
  }

  std::set<const ClassFacts*> direct_, made_;
  std::set<Spot> twins_;                // functions that get one beside them in this step
  std::span<const Change> changes_;     // of this step
};

}  // namespace

std::unique_ptr<Writer> goWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<GoWriter>(files, handed); }

}  // namespace elmcart

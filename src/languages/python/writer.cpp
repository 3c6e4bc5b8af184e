// Writes changes in Python. Chapters are of the Python Language Reference, 3.11.
#include "languages/writer.h"

#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/python/python.h"

namespace elmcart {
namespace {

class PythonWriter final : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, true); }
  std::string fieldFor(const std::string& word) const override { return "_" + word; }

  bool hands(Spot creation) override {
    for (TSNode argument : SyntaxTree::children(argumentsOf(creation)))
      if (SyntaxTree::is(argument, "keyword_argument") && tree(creation).text(SyntaxTree::field(argument, "name")) == handed_.word) return true;
    return false;
  }

  bool inheritsConstructors() const override { return true; }
  std::string whyNoObject(Spot place) override { return selfAt(place).empty() ? "there is no object here that could have it" : ""; }

  // def __init__(self, quay, **others): Boat.__init__(self, quay, **others)
  bool passesAnything(Spot constructor) override {
    const SyntaxTree& syntax = tree(constructor);
    std::vector<TSNode> parameters = SyntaxTree::children(SyntaxTree::field(functionAt(constructor), "parameters"));
    std::vector<TSNode> given = SyntaxTree::children(SyntaxTree::field(baseCallOf(constructor), "arguments"));
    return !parameters.empty() && !given.empty() && SyntaxTree::is(parameters.back(), "dictionary_splat_pattern") && SyntaxTree::is(given.back(), "dictionary_splat") &&
           syntax.text(parameters.back()) == syntax.text(given.back());
  }

 protected:
  bool breaksLists() const override { return true; }
  std::string canRead(const Change& change) override {
    TSNode node = tree(change.at).covering(change.at->span), above = SyntaxTree::parent(node);
    if (SyntaxTree::isOneOf(above, {"assignment", "augmented_assignment"}) && ts_node_eq(SyntaxTree::field(above, "left"), node)) return "here the slot itself is set";
    return fetchIn(*change.at.file).empty() ? std::string(kCannotFetch) : "";
  }
  // One underscore is a hint only ("Private name mangling", chapter 6.2.1).
  std::string canOpen(const Change&) override { return ""; }
  std::string open(const Change&) override { return ""; }
  std::string canHandOn(const Change& change) override { return SyntaxTree::isNull(argumentsOf(change.at)) ? "its arguments could not be read" : ""; }
  std::string canHandToBase(const Change& change) override { return SyntaxTree::isNull(baseCallOf(change.at)) ? "its constructor calls none of its base class" : ""; }

  void begin(std::span<const Change> changes) override {
    reads_.clear();
    for (const Change& change : changes)
      if (change.kind == ChangeKind::Read && change.from == From::Field) reads_[change.of] += isLong(change.at) ? 2 : 1;
  }
  std::string handToBase(const Change& change) override { return give(*change.at.file, SyntaxTree::field(baseCallOf(change.at), "arguments"), handed_.word), ""; }
  std::string end(std::span<const Change> changes) override {
    for (const Change& change : changes)
      if (const LoweredFile* file = change.kind == ChangeKind::KeepInField ? change.of->type.file : nullptr; file && isLate(*file) && reads_[change.of] > 1 && isBoundInFile(*file)) addReader(*change.of);
    return "";
  }

  // As another file fetches it, with the imports that it needs for that.
  std::string fetchElsewhere(const LoweredFile& file) override {
    for (Spot access : handed_.accesses) {
      const SyntaxTree& other = tree(access);
      std::string written = textOf(access), head = written.substr(0, written.find_first_of(".("));
      for (TSNode node : SyntaxTree::children(other.root())) {
        if (!SyntaxTree::isOneOf(node, {"import_statement", "import_from_statement"}) || other.text(node).find('\n') != std::string_view::npos) continue;
        if (other.text(node).find("import " + head) == std::string_view::npos) continue;
        if (folderOf(access.file->path) != folderOf(file.path) && !importsOf(file).contains(packageOf(other, node))) continue;
        addImport(file, std::string(other.text(node)));
        return written;
      }
    }
    return "";
  }

 private:
  // ----- reading

  TSNode functionAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"function_definition"}); }
  TSNode classAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_definition"}); }
  TSNode argumentsOf(Spot call) { return SyntaxTree::field(tree(call).within(call->span, {"call"}), "arguments"); }
  static std::string folderOf(std::string_view path) { return std::string(path.substr(0, path.rfind('/') == std::string_view::npos ? 0 : path.rfind('/'))); }

  // The package that an absolute import begins at ("import" in the language reference); empty: it is relative.
  static std::string packageOf(const SyntaxTree& syntax, TSNode import) {
    std::string name(syntax.text(SyntaxTree::is(import, "import_from_statement") ? SyntaxTree::field(import, "module_name") : SyntaxTree::field(import, "name")));
    return name.starts_with('.') ? "" : name.substr(0, name.find_first_of(". "));
  }
  // The packages that a file imports by their own names.
  std::set<std::string> importsOf(const LoweredFile& file) {
    std::set<std::string> out;
    for (TSNode node : SyntaxTree::children(files_.tree(file).root()))
      if (SyntaxTree::isOneOf(node, {"import_statement", "import_from_statement"})) out.insert(packageOf(files_.tree(file), node));
    out.erase("");
    return out;
  }

  // What a method or a lambda in a class calls its object: its first parameter.
  std::string selfAt(Spot place) {
    const SyntaxTree& syntax = tree(place);
    TSNode node = syntax.covering(place->span, {"function_definition", "lambda"}), member{};
    // The outermost of the functions inside of the class has the object.
    for (; !SyntaxTree::isNull(node) && !SyntaxTree::is(node, "class_definition"); node = SyntaxTree::parent(node))
      if (SyntaxTree::isOneOf(node, {"function_definition", "lambda"})) member = node;
    if (SyntaxTree::isNull(node) || SyntaxTree::isNull(member)) return "";
    TSNode above = SyntaxTree::parent(member);
    if (SyntaxTree::is(above, "decorated_definition"))
      for (TSNode mark : SyntaxTree::children(above))
        if (std::string_view said = syntax.text(mark); said == "@staticmethod" || said == "@classmethod") return "";
    std::vector<TSNode> parameters = SyntaxTree::children(SyntaxTree::field(member, "parameters"));
    return parameters.empty() || !SyntaxTree::is(parameters.front(), "identifier") ? "" : std::string(syntax.text(parameters.front()));
  }
  static bool isText(TSNode statement) { return SyntaxTree::is(statement, "expression_statement") && SyntaxTree::is(SyntaxTree::named(statement, 0), "string"); }
  // A call of a base's constructor as a statement of its own.
  bool isBaseCall(const SyntaxTree& syntax, TSNode statement) {
    TSNode call = SyntaxTree::named(statement, 0);
    return SyntaxTree::is(statement, "expression_statement") && SyntaxTree::is(call, "call") && syntax.text(SyntaxTree::field(call, "function")).ends_with(".__init__");
  }

  TSNode baseCallOf(Spot constructor) {
    const SyntaxTree& syntax = tree(constructor);
    TSNode found{};
    SyntaxTree::walk(SyntaxTree::field(functionAt(constructor), "body"), [&](TSNode node) {
      if (SyntaxTree::isNull(found) && SyntaxTree::is(node, "call") && syntax.text(SyntaxTree::field(node, "function")).ends_with(".__init__")) found = node;
      return SyntaxTree::isNull(found) && !SyntaxTree::isOneOf(node, {"function_definition", "class_definition", "lambda"});
    });
    return found;
  }
  // Would the line be too long with the choice written out?
  bool isLong(Spot access) {
    std::string_view source = text(*access.file);
    uint32_t begin = lineBegin(*access.file, access->span.begin);
    size_t end = std::min(source.find('\n', begin), source.size());
    return end - begin + std::string_view("( if self._ is None else self._)").size() + 2 * handed_.word.size() > 99;
  }

  // ----- what cannot be done

  std::string nameIn(const LoweredFile& file) override { return nameBeside(file, {"import_from_statement"}, {"import_from_statement"}) ? handed_.type : ""; }
  std::string canGetConstructor(const ClassFacts& c) override {
    static const std::set<std::string_view> kFixed = {"str", "int", "float", "tuple", "frozenset", "bytes", "bool", "complex", "Enum", "IntEnum", "Flag", "IntFlag", "StrEnum", "NamedTuple", "TypedDict", "Protocol", "Exception", "BaseException"};
    TSNode node = classAt(c.type);
    if (SyntaxTree::isNull(node)) return "the class could not be read";
    for (const std::string& base : c.otherBases) {
      std::string_view name = lastPart(base);
      if (kFixed.contains(name) || name.ends_with("Error") || name.ends_with("Exception")) return c.name + " is a " + std::string(name) + ", whose objects are made in a way of their own";
    }
    return isMarked(c);
  }
  std::string isMarked(const ClassFacts& c) {
    TSNode above = SyntaxTree::parent(classAt(c.type));
    if (SyntaxTree::is(above, "decorated_definition")) return c.name + " is marked " + std::string(tree(c.type).text(SyntaxTree::named(above, 0))) + ": what makes it may not be in this tree";
    return "";
  }

  std::string canTake(const Change& change) override {
    if (std::string reason = isMarked(*change.of); !reason.empty()) return reason;
    TSNode function = functionAt(change.at);
    if (SyntaxTree::isNull(function) || SyntaxTree::is(SyntaxTree::parent(function), "decorated_definition")) return "its constructor is marked: what calls it may not be in this tree";
    if (tree(change.at).text(SyntaxTree::field(function, "name")) != "__init__") return "its objects are made by " + std::string(tree(change.at).text(SyntaxTree::field(function, "name")));
    return "";
  }

  // A function, or a method that belongs to its class.
  std::string canTakeInFunction(const Change& change) override {
    TSNode function = functionAt(change.at), above = SyntaxTree::parent(function);
    if (SyntaxTree::isNull(function)) return "it could not be read";
    for (TSNode mark : SyntaxTree::children(above))
      if (std::string_view said = tree(change.at).text(mark); SyntaxTree::is(above, "decorated_definition") && SyntaxTree::is(mark, "decorator") && said != "@staticmethod" && said != "@classmethod") return "it is marked " + std::string(said) + ": what calls it may not be in this tree";
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(function, "parameters")))
      if (SyntaxTree::isOneOf(parameter, {"list_splat_pattern", "dictionary_splat_pattern"})) return "it takes any number of arguments";
    return "";
  }
  std::string takeInFunction(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode function = functionAt(change.at), body = SyntaxTree::field(function, "body");
    append(file, SyntaxTree::field(function, "parameters"), handed_.word + "=None");
    if (!isLate(file) && readsIn(change.at) > 1) insertFirst(file, body, "if " + handed_.word + " is None:\n\t" + handed_.word + " = " + fetchIn(file));
    document(file, body);
    return "";
  }

  // §3.3.2.4: with __slots__ an object has the fields that are listed. What copies or compares all fields meets one more.
  std::string canKeep(const ClassFacts& c) override {
    for (Spot type : c.lineage) {
      const SyntaxTree& syntax = tree(type);
      std::string reason;
      SyntaxTree::walk(SyntaxTree::field(classAt(type), "body"), [&](TSNode node) {
        if (SyntaxTree::is(node, "class_definition")) return false;
        if (!SyntaxTree::is(node, "identifier")) return true;
        std::string_view name = syntax.text(node);
        if (name == "__slots__") reason = c.name + " lists its fields in __slots__";
        if (name == "__setattr__") reason = c.name + " decides in __setattr__ which fields an object may have";
        if (name == "__dict__") reason = c.name + " treats all its fields alike by __dict__: one more would change that";
        if (name == "__getstate__" || name == "__reduce__" || name == "__reduce_ex__") reason = c.name + " says itself how it is serialised";
        return true;
      });
      if (!reason.empty()) return reason;
    }
    return "";
  }

  // ----- writing

  // Does the choice have the place to itself?
  std::string inBrackets(Spot access, const std::string& choice) {
    TSNode node = tree(access).covering(access->span);
    while (!SyntaxTree::isNull(SyntaxTree::parent(node)) && spanOf(SyntaxTree::parent(node)).size() == spanOf(node).size()) node = SyntaxTree::parent(node);
    bool alone = SyntaxTree::isOneOf(SyntaxTree::parent(node), {"argument_list", "return_statement", "expression_statement"}) || ts_node_eq(SyntaxTree::field(SyntaxTree::parent(node), "right"), node);
    return alone && !SyntaxTree::is(SyntaxTree::parent(node), "binary_operator") ? choice : "(" + choice + ")";
  }
  std::string fallback(const std::string& fetch, const std::string& holder) const { return fetch + " if " + holder + " is None else " + holder; }
  // Can what fetches the object be written anywhere in the file? Not where a function imports it for itself.
  bool isBoundInFile(const LoweredFile& file) {
    if (!handed_.made.empty()) return !nameIn(file).empty();
    auto [known, isNew] = bound_.try_emplace(file.path, true);
    if (!isNew) return known->second;
    std::string fetch = fetchIn(file), head = fetch.substr(0, fetch.find_first_of(".("));
    const SyntaxTree& syntax = files_.tree(file);
    bool found = false;
    SyntaxTree::walk(syntax.root(), [&](TSNode node) {
      if (SyntaxTree::isOneOf(node, {"function_definition", "class_definition"})) {
        found |= syntax.text(SyntaxTree::field(node, "name")) == head;
        return false;
      }
      found |= SyntaxTree::is(node, "identifier") && syntax.text(node) == head;
      return !found;
    });
    return known->second = found;
  }
  bool isLate(const LoweredFile& file) { return handed_.late || !isBoundInFile(file); }

  std::string assignment(const LoweredFile& file, const std::string& self, const std::string& fetch, bool passesOnly) {
    bool asGiven = passesOnly || isLate(file);
    return self + "." + fieldFor(handed_.word) + " = " + (asGiven ? handed_.word : fallback(fetch, handed_.word));
  }

  std::string take(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode function = functionAt(change.at), list = SyntaxTree::field(function, "parameters"), body = SyntaxTree::field(function, "body");
    std::vector<TSNode> parameters = SyntaxTree::children(list);
    if (parameters.empty()) return "its constructor has no name for its object";
    std::string self(syntax.text(parameters.front())), fetch = change.passesOnly ? "" : fetchIn(file);
    if (!change.passesOnly && fetch.empty()) return std::string(kCannotFetch);
    // §8.7: in front of the parameter that takes all other names.
    append(file, list, handed_.word + "=None", SyntaxTree::is(parameters.back(), "dictionary_splat_pattern") ? parameters.back() : TSNode{});
    std::string statement;
    if (keepsNow(change.of)) statement = assignment(file, self, fetch, change.passesOnly);
    else if (!isLate(file) && readsIn(change.at) > 1) statement = "if " + handed_.word + " is None:\n\t" + handed_.word + " = " + fetch;
    if (!statement.empty()) insertFirst(file, body, statement);
    document(file, body);
    return "";
  }

  // The first statement of a body, behind what documents it and a base's constructor that is called first.
  void insertFirst(const LoweredFile& file, TSNode body, const std::string& statement) {
    const SyntaxTree& syntax = files_.tree(file);
    std::vector<TSNode> statements = SyntaxTree::children(body);
    size_t at = !statements.empty() && isText(statements.front()) ? 1 : 0;
    if (at < statements.size() && isBaseCall(syntax, statements[at]) && !readsInside(statements[at], file)) ++at;
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(body));
    bool oneLine = ts_node_start_point(body).row == ts_node_start_point(SyntaxTree::parent(body)).row;
    if (oneLine) {  // def __init__(self): pass
      std::string inner = indentAt(file, ts_node_start_byte(body)) + unitOf(file);
      insert(file, ts_node_start_byte(body), newline + inner + laidOut(file, statement, inner) + newline + inner);
      return;
    }
    if (at < statements.size()) insert(file, ts_node_start_byte(statements[at]), laidOut(file, statement, indent) + newline + indent);
    else insert(file, ts_node_end_byte(statements.back()), newline + indent + laidOut(file, statement, indent));
  }
  // Does it read the object from the field, which must be there by then?
  bool readsInside(TSNode statement, const LoweredFile& file) {
    Span span = spanOf(statement);
    return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == &file && span.contains(access->span.begin); });
  }

  // ":param name: …" where the others are documented so.
  void document(const LoweredFile& file, TSNode body) {
    std::vector<TSNode> statements = SyntaxTree::children(body);
    if (statements.empty() || !isText(statements.front())) return;
    std::string_view said = files_.tree(file).text(statements.front());
    size_t last = said.rfind(":param ");
    if (last == std::string_view::npos) return;
    size_t end = said.find('\n', last);
    if (end == std::string_view::npos) return;
    // What is said of the last goes on in deeper lines.
    size_t begin = said.rfind('\n', last), column = last - (begin == std::string_view::npos ? 0 : begin + 1);
    for (size_t next = end; next != std::string_view::npos; next = said.find('\n', next + 1)) {
      size_t word = said.find_first_not_of(" \t", next + 1);
      if (word == std::string_view::npos || said[word] == '\n' || said[word] == '\r' || word - next - 1 <= column) break;
      end = std::min(said.find('\n', word), said.size());
    }
    if (said[end - 1] == '\r') --end;
    uint32_t at = ts_node_start_byte(statements.front()) + static_cast<uint32_t>(end);
    std::string indent = indentAt(file, ts_node_start_byte(statements.front()) + static_cast<uint32_t>(last));
    insert(file, at, std::string(newlineOf(file)) + indent + ":param " + handed_.word + ": the object to use instead of the shared one");
  }

  std::string makeConstructor(const Change& change) override {
    const ClassFacts& c = *change.of;
    const LoweredFile& file = *c.type.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode node = classAt(c.type), body = SyntaxTree::field(node, "body");
    std::string fetch = change.passesOnly ? "" : fetchIn(file);
    if (!change.passesOnly && fetch.empty()) return std::string(kCannotFetch);
    bool derived = c.lineage.size() > 1 || std::any_of(c.otherBases.begin(), c.otherBases.end(), [](const std::string& b) { return b != "object"; });
    std::string base = syntax.text().find("super()") == std::string_view::npos && syntax.text().find("super(") != std::string_view::npos ? "super(" + c.name + ", self)" : "super()";
    std::string text = derived ? "def __init__(self, *args, " + handed_.word + "=None, **kwargs):\n\t" + base + ".__init__(*args, **kwargs)\n\t" : "def __init__(self, " + handed_.word + "=None):\n\t";
    text += assignment(file, "self", fetch, change.passesOnly);
    // In front of the first method.
    std::vector<TSNode> members = SyntaxTree::children(body);
    std::string indent = indentAt(file, ts_node_start_byte(body)), newline(newlineOf(file));
    for (TSNode member : members)
      if (SyntaxTree::isOneOf(member, {"function_definition", "decorated_definition"})) {
        insert(file, ts_node_start_byte(member), laidOut(file, text, indent) + newline + newline + indent);
        return "";
      }
    insert(file, ts_node_end_byte(members.back()), newline + newline + indent + laidOut(file, text, indent));
    return "";
  }

  // Several reads of what may be replaced share one small member.
  std::string reader() const { return "_current_" + handed_.word; }
  void addReader(const ClassFacts& c) {
    const LoweredFile& file = *c.type.file;
    TSNode body = SyntaxTree::field(classAt(c.type), "body");
    std::vector<TSNode> members = SyntaxTree::children(body);
    std::string indent = indentAt(file, ts_node_start_byte(body)), newline(newlineOf(file));
    std::string text = laidOut(file, "def " + reader() + "(self):\n\treturn " + fallback(fetchIn(file), "self." + fieldFor(handed_.word)), indent);
    TSNode constructor{};
    if (!c.constructors.empty() && c.constructors.front().file == &file) constructor = functionAt(c.constructors.front());
    if (!SyntaxTree::isNull(constructor)) return insert(file, ts_node_end_byte(constructor), newline + newline + indent + text);
    insert(file, ts_node_end_byte(members.back()), newline + newline + indent + text);
  }

  std::string read(const Change& change) override {
    std::string fetch = fetchAt(change.at), text;
    // A constructor that keeps it has set the field by then.
    bool kept = change.from == From::Parameter && keepsNow(change.of) && !isLate(*change.at.file);
    if (change.from == From::Parameter && !kept) {
      bool settled = !isLate(*change.at.file) && readsIn(change.in) > 1;
      text = settled ? handed_.word : inBrackets(change.at, fallback(fetch, handed_.word));
    } else {
      std::string self = selfAt(change.at), field = self + "." + fieldFor(handed_.word);
      text = !isLate(*change.at.file) ? field : reads_[change.of] > 1 && keepsNow(change.of) && isBoundInFile(*change.at.file) ? self + "." + reader() + "()" : inBrackets(change.at, fallback(fetch, field));
    }
    for (Span span : spansOf(change)) put(*change.at.file, span, text);
    return "";
  }

  std::string handOn(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode arguments = argumentsOf(change.at);
    std::string object = change.from == From::Parameter ? handed_.word : change.from == From::Field ? selfAt(change.at) + "." + fieldFor(handed_.word) : fetchIn(file);
    if (object.empty()) return std::string(kCannotFetch);
    give(file, arguments, object);
    return "";
  }
  void give(const LoweredFile& file, TSNode arguments, const std::string& object) {
    std::vector<TSNode> given = SyntaxTree::children(arguments);
    append(file, arguments, handed_.word + "=" + object, !given.empty() && SyntaxTree::is(given.back(), "dictionary_splat") ? given.back() : TSNode{});
  }

  void addImport(const LoweredFile& file, const std::string& line) {
    const SyntaxTree& syntax = files_.tree(file);
    if (!once(file, line)) return;
    TSNode last{};
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (syntax.text(node) == line) return;
      if (SyntaxTree::isOneOf(node, {"import_statement", "import_from_statement", "future_import_statement"})) last = node;
    }
    std::string newline(newlineOf(file));
    if (!SyntaxTree::isNull(last)) return insert(file, ts_node_end_byte(last), newline + line);
    std::vector<TSNode> statements = SyntaxTree::children(syntax.root());
    uint32_t at = statements.empty() ? 0 : ts_node_start_byte(statements.front());
    if (!statements.empty() && isText(statements.front())) return insert(file, ts_node_end_byte(statements.front()), newline + newline + line);
    insert(file, at, line + newline + newline);
  }

  // ----- the default goes

  TSNode parameterOf(TSNode function, const SyntaxTree& syntax) {
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(function, "parameters")))
      if (SyntaxTree::is(parameter, "default_parameter") && syntax.text(SyntaxTree::field(parameter, "name")) == handed_.word) return parameter;
    return {};
  }
  // `<fetched> if word is None else word`, where it is put into the field.
  TSNode choiceOf(TSNode function, const SyntaxTree& syntax) {
    TSNode found{};
    SyntaxTree::walk(function, [&](TSNode node) {
      if (SyntaxTree::is(node, "conditional_expression") && syntax.text(node).ends_with(" if " + handed_.word + " is None else " + handed_.word)) found = node;
      return SyntaxTree::isNull(found);
    });
    return found;
  }
  std::string whyNotDropped(const Change& change) override {
    TSNode function = functionAt(change.at);
    std::vector<TSNode> parameters = SyntaxTree::children(SyntaxTree::field(function, "parameters"));
    TSNode own = parameterOf(function, tree(change.at));
    if (SyntaxTree::isNull(own)) return "it has no default";
    // §8.7: behind one with a default none without may stand, but for those that are given by name.
    for (TSNode parameter : parameters) {
      if (ts_node_start_byte(parameter) >= ts_node_start_byte(own)) break;
      if (SyntaxTree::isOneOf(parameter, {"list_splat_pattern", "keyword_separator"})) return "";
      if (SyntaxTree::isOneOf(parameter, {"default_parameter", "typed_default_parameter"})) return "parameters in front of it may be left out";
    }
    return "";
  }
  std::string drop(const Change& change) override {
    const SyntaxTree& syntax = tree(change.at);
    TSNode function = functionAt(change.at);
    put(*change.at.file, spanOf(parameterOf(function, syntax)), handed_.word);
    if (TSNode choice = choiceOf(function, syntax); !SyntaxTree::isNull(choice)) put(*change.at.file, spanOf(choice), handed_.word);
    return "";
  }

  std::map<std::string, bool> bound_;  // by file: can the object be fetched anywhere in it?
  std::map<const ClassFacts*, size_t> reads_;
};

}  // namespace

std::unique_ptr<Writer> pythonWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<PythonWriter>(files, handed); }

}  // namespace elmcart

// Writes changes in PHP. Pages are of the PHP manual.
#include "languages/writer.h"

#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/php/php.h"

namespace elmcart {
namespace {

class PhpWriter final : public Writer {
 public:
  using Writer::Writer;

  std::string wordFor(std::string_view name) const override { return objectWord(name, false); }

  bool hands(Spot creation) override {
    for (TSNode argument : SyntaxTree::children(argumentsOf(creation))) {
      std::string_view written = tree(creation).text(argument);
      if (written == variable() || written == field() || written.starts_with(handed_.word + ":")) return true;
      if (isFetched(creation, argument) || written == fetchFrom(*creation.file)) return true;
    }
    return false;
  }

  // Anonymous functions: a static one has no object.
  std::string whyNoObject(Spot place) override {
    const SyntaxTree& syntax = tree(place);
    for (TSNode node = syntax.covering(place->span); !SyntaxTree::isNull(node) && !SyntaxTree::is(node, "method_declaration"); node = SyntaxTree::parent(node)) {
      if (SyntaxTree::isOneOf(node, {"anonymous_function", "arrow_function", "anonymous_function_creation_expression"}) && syntax.text(node).starts_with("static")) return "a static function has no object";
      if (SyntaxTree::is(node, "class_declaration")) return "a field's first value must be a constant";
    }
    return "";
  }

  bool isInterface(const ClassFacts& c, std::string_view base) override { return headNames(c, classAt(c.type), "class_interface_clause", base); }
  bool inheritsConstructors() const override { return true; }

 protected:
  std::string canOpen(const Change&) override { return ""; }
  std::string open(const Change& change) override {
    reword(*change.at.file, tree(change.at).covering({change.at->nameBegin, change.at->nameBegin}, {"property_declaration", "property_promotion_parameter"}), change.at->nameBegin, "private", "protected");
    return "";
  }
  std::string canHandOn(const Change& change) override { return canHand(change, argumentsOf(change.at)); }
  std::string canHandToBase(const Change& change) override { return SyntaxTree::isNull(baseCallOf(change.at)) ? "its constructor calls none of its base class" : canHand(change, SyntaxTree::field(baseCallOf(change.at), "arguments")); }

  void begin(std::span<const Change>) override { putAt_.clear(); }
  std::string read(const Change& change) override {
    for (Span span : spansOf(change)) {
      putAt_.insert({change.at.file->path, span.begin});
      // Tides::height(): a member of an object is reached by another sign.
      bool ofClass = text(*change.at.file).substr(span.end, 2) == "::";
      if (ofClass) span.end += 2;
      put(*change.at.file, span, object(change) + (ofClass ? "->" : ""));
    }
    return "";
  }
  std::string handOn(const Change& change) override { return give(change, argumentsOf(change.at), change.from == From::Parameter ? variable() : change.from == From::Field ? field() : fetchAt(change.at)); }
  std::string handToBase(const Change& change) override { return give(change, SyntaxTree::field(baseCallOf(change.at), "arguments"), variable()); }
  std::string end(std::span<const Change> changes) override {
    for (const Change& change : changes)
      if (change.kind == ChangeKind::Read) unnameGlobal(change);
    return "";
  }

  std::string fetchElsewhere(const LoweredFile& file) override {
    for (Spot access : handed_.accesses) {
      std::string written = textOf(access);
      size_t name = written.find(handed_.type + "::");
      if (isBare(written)) return written;
      if (name != std::string::npos) return nameIn(file) + written.substr(name + handed_.type.size());
    }
    return "";
  }

 private:
  static bool isBare(std::string_view text) { return text.starts_with('$') && std::all_of(text.begin() + 1, text.end(), isWordByte); }
  // A global variable from any scope (page "Superglobals": $GLOBALS).
  std::string fetchFrom(const LoweredFile& file) {
    std::string fetch = fetchIn(file);
    return isBare(fetch) ? "$GLOBALS['" + fetch.substr(1) + "']" : fetch;
  }
  // What a file does outside of functions sees its own global by its name.
  std::string fetchAt(Spot spot) {
    TSNode function = tree(spot).covering(spot->span, {"method_declaration", "function_definition", "anonymous_function", "anonymous_function_creation_expression", "arrow_function"});
    bool own = SyntaxTree::isNull(function) && std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == spot.file; });
    if (!own) return fetchFrom(*spot.file);
    std::string fetch = fetchIn(*spot.file), from = "$GLOBALS['";
    return fetch.starts_with(from) && fetch.ends_with("']") ? "$" + fetch.substr(from.size(), fetch.size() - from.size() - 2) : fetch;
  }
  std::string variable() const { return "$" + handed_.word; }
  std::string field() const { return "$this->" + handed_.word; }

  // ----- reading

  TSNode functionAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"method_declaration", "function_definition"}); }
  TSNode classAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration"}); }
  TSNode argumentsOf(Spot call) {
    TSNode node = tree(call).within(call->span, {"object_creation_expression", "scoped_call_expression"});
    TSNode list = SyntaxTree::field(node, "arguments");
    return SyntaxTree::isNull(list) ? SyntaxTree::childOf(node, "arguments") : list;
  }
  // parent::__construct(…)
  TSNode baseCallOf(Spot constructor) {
    const SyntaxTree& syntax = tree(constructor);
    TSNode found{};
    SyntaxTree::walk(SyntaxTree::field(functionAt(constructor), "body"), [&](TSNode node) {
      if (SyntaxTree::isNull(found) && SyntaxTree::is(node, "scoped_call_expression") && syntax.text(node).starts_with("parent::__construct")) found = node;
      return SyntaxTree::isNull(found);
    });
    return found;
  }
  TSNode parameterOf(Spot constructor) {
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(functionAt(constructor), "parameters")))
      if (tree(constructor).text(SyntaxTree::field(parameter, "name")) == variable()) return parameter;
    return {};
  }

  // ----- what cannot be done

  std::string canGetConstructor(const ClassFacts& c) override {
    if (SyntaxTree::isNull(classAt(c.type))) return c.name + " is no ordinary class: nothing can be handed to a constructor of it";
    bool derived = c.lineage.size() > 1 || !c.otherBases.empty();
    return derived ? c.name + " has no constructor of its own, and what its base's takes stands elsewhere" : "";
  }
  std::string canTake(const Change& change) override {
    TSNode function = functionAt(change.at);
    if (SyntaxTree::isNull(function) || SyntaxTree::isNull(classAt(change.of->type))) return change.of->name + " is no ordinary class: nothing can be handed to a constructor of it";
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(function, "parameters")))
      if (SyntaxTree::is(parameter, "variadic_parameter")) return "its constructor takes any number of arguments";
    return "";
  }
  std::string canTakeInFunction(const Change& change) override {
    TSNode function = functionAt(change.at);
    if (SyntaxTree::isNull(function)) return "it could not be read";
    for (TSNode parameter : SyntaxTree::children(SyntaxTree::field(function, "parameters")))
      if (SyntaxTree::is(parameter, "variadic_parameter")) return "it takes any number of arguments";
    return "";
  }
  // Magic methods: what is serialised or cloned as a whole meets one more field.
  std::string canKeep(const ClassFacts& c) override {
    for (Spot type : c.lineage)
      for (NodeId member : children(*type.file, type.node)) {
        std::string_view name = type.file->name(member);
        if ((*type.file)[member].kind == Kind::Function && (name == "__serialize" || name == "__sleep" || name == "serialize" || name == "__set_state" || name == "__set")) return c.name + " says itself how its fields are kept, by " + std::string(name);
      }
    return "";
  }
  // Anonymous functions: what stands around is seen by those with `fn` only, or when it is named behind `use`.
  std::string canRead(const Change& change) override {
    if (change.from != From::Parameter) return "";
    const SyntaxTree& syntax = tree(change.at);
    TSNode node = syntax.covering(change.at->span, {"anonymous_function", "anonymous_function_creation_expression", "method_declaration", "function_definition"});
    return SyntaxTree::isOneOf(node, {"method_declaration", "function_definition"}) ? "" : "a function inside of it does not see its parameters";
  }
  std::string canHand(const Change& change, TSNode arguments) {
    if (SyntaxTree::isNull(arguments)) return "it is made without brackets";
    std::string reason;
    (void)leftOut(change, arguments, reason);
    return reason;
  }
  // What stands for parameters that are left out at a call.
  std::string leftOut(const Change& change, TSNode arguments, std::string& reason) {
    std::vector<TSNode> given = SyntaxTree::children(arguments);
    for (TSNode argument : given) {
      if (!SyntaxTree::isNull(SyntaxTree::field(argument, "name"))) return reason = "its arguments are given by name", "";
      if (SyntaxTree::is(SyntaxTree::named(argument, 0), "variadic_unpacking") || SyntaxTree::is(argument, "variadic_unpacking")) return reason = "any number of arguments may be given here", "";
    }
    if (!change.callee.known()) return change.position != kLast && given.size() < change.position ? (reason = "what its base takes by default is not known", "") : "";
    std::string out;
    std::vector<TSNode> parameters = SyntaxTree::children(SyntaxTree::field(functionAt(change.callee), "parameters"));
    for (size_t i = given.size(); i < parameters.size(); ++i) {
      if (tree(change.callee).text(SyntaxTree::field(parameters[i], "name")) == variable()) break;
      TSNode value = SyntaxTree::field(parameters[i], "default_value");
      if (SyntaxTree::isNull(value)) return reason = "what is left out here has no default", "";
      out += std::string(tree(change.callee).text(value)) + ", ";
    }
    return out;
  }

  // ----- writing

  std::string object(const Change& change) {
    std::string fetch = fetchAt(change.at);
    if (change.from == From::Field) return handed_.late ? "(" + field() + " ?? " + fetch + ")" : field();
    if (keepsNow(change.of) && !handed_.late) return field();  // which is set by then
    return !handed_.late && readsIn(change.in) > 1 ? variable() : "(" + variable() + " ?? " + fetch + ")";
  }
  // `global $x;` goes where nothing is left that reads it so: it would hide the parameter.
  void unnameGlobal(const Change& read) {
    const LoweredFile& file = *read.at.file;
    const SyntaxTree& syntax = files_.tree(file);
    std::string_view name = syntax.text(syntax.covering(read.at->span));
    TSNode function = syntax.covering(read.at->span, {"method_declaration", "function_definition", "anonymous_function", "anonymous_function_creation_expression"}), declared{};
    bool others = false;
    SyntaxTree::walk(SyntaxTree::field(function, "body"), [&](TSNode node) {
      if (!SyntaxTree::is(node, "variable_name") || syntax.text(node) != name) return true;
      if (SyntaxTree::is(SyntaxTree::parent(node), "global_declaration")) declared = node;
      else others |= !putAt_.contains({file.path, ts_node_start_byte(node)});
      return false;
    });
    if (others || SyntaxTree::isNull(declared) || !putAt_.insert({file.path, ts_node_start_byte(declared)}).second) return;
    TSNode statement = SyntaxTree::parent(declared);
    std::vector<TSNode> names = SyntaxTree::children(statement);
    Span gone = spanOf(declared);
    if (names.size() == 1) gone = wholeLines(file, spanOf(statement));
    else if (ts_node_eq(names.front(), declared)) gone.end = ts_node_start_byte(names[1]);
    else gone.begin = ts_node_end_byte(*std::prev(std::find_if(names.begin(), names.end(), [&](TSNode n) { return ts_node_eq(n, declared); })));
    put(file, gone, "");
  }
  std::string parameter(const LoweredFile& file) { return "?" + nameIn(file) + " " + variable() + " = null"; }
  std::string assignment(const std::string& fetch, bool passesOnly) const { return field() + " = " + variable() + (passesOnly || handed_.late ? ";" : " ?? " + fetch + ";"); }

  std::string take(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode function = functionAt(change.at), list = SyntaxTree::field(function, "parameters"), body = SyntaxTree::field(function, "body");
    std::string fetch = change.passesOnly ? "" : fetchFrom(file);
    if (fetch.empty() && !change.passesOnly) return std::string(kCannotFetch);
    append(file, list, parameter(file));
    document(file, function);
    std::string statement;
    if (keepsNow(change.of)) statement = assignment(fetch, change.passesOnly);
    else if (!handed_.late && readsIn(change.at) > 1) statement = variable() + " = " + variable() + " ?? " + fetch + ";";
    if (statement.empty()) return "";
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(function));
    bool oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row;
    insert(file, behindRemark(file, ts_node_start_byte(body) + 1), newline + indent + unitOf(file) + statement + (oneLine ? newline + indent : ""));
    return "";
  }

  std::string takeInFunction(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode function = functionAt(change.at), body = SyntaxTree::field(function, "body");
    std::string fetch = fetchFrom(file);
    if (fetch.empty()) return std::string(kCannotFetch);
    append(file, SyntaxTree::field(function, "parameters"), parameter(file));
    document(file, function);
    if (!handed_.late && readsIn(change.at) > 1) insert(file, behindRemark(file, ts_node_start_byte(body) + 1), std::string(newlineOf(file)) + indentAt(file, ts_node_start_byte(function)) + unitOf(file) + variable() + " = " + variable() + " ?? " + fetch + ";");
    return "";
  }

  // "@param T|null $word" where the others are documented so.
  void document(const LoweredFile& file, TSNode function) {
    TSNode comment = ts_node_prev_sibling(function);
    if (SyntaxTree::is(comment, "comment") && files_.tree(file).text(comment).find("* @param") != std::string_view::npos) documentBehind(file, comment, "* @param", "* @param " + nameIn(file) + "|null " + variable());
  }

  // Where the class writes the types of its properties it goes on so.
  std::string keep(const Change& change) override {
    const ClassFacts& c = *change.of;
    bool mayBeNone = change.passesOnly || handed_.late;
    const LoweredFile& file = *c.type.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode body = SyntaxTree::field(classAt(c.type), "body"), last{};
    bool typed = true, documented = false;
    for (TSNode member : SyntaxTree::children(body)) {
      if (!SyntaxTree::is(member, "property_declaration") || !SyntaxTree::isNull(SyntaxTree::childOf(member, "static_modifier"))) continue;
      last = member;
      typed = !SyntaxTree::isNull(SyntaxTree::field(member, "type"));
      TSNode above = ts_node_prev_sibling(member);
      documented = SyntaxTree::is(above, "comment") && syntax.text(above).starts_with("/**");
    }
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(body)) + unitOf(file);
    std::string line = "private " + (typed ? (mayBeNone ? "?" : "") + nameIn(file) + " " : "") + variable() + ";";
    if (documented) line = "/** @var " + nameIn(file) + (mayBeNone ? "|null" : "") + " */" + newline + indent + line;
    if (SyntaxTree::isNull(last)) insert(file, ts_node_start_byte(body) + 1, newline + indent + line + (c.constructors.empty() ? "" : newline));
    else insert(file, ts_node_end_byte(last), newline + (documented ? newline : "") + indent + line);
    return "";
  }

  std::string makeConstructor(const Change& change) override {
    const ClassFacts& c = *change.of;
    const LoweredFile& file = *c.type.file;
    std::string fetch = change.passesOnly ? "" : fetchFrom(file);
    if (fetch.empty() && !change.passesOnly) return std::string(kCannotFetch);
    TSNode body = SyntaxTree::field(classAt(c.type), "body"), last{};
    for (TSNode member : SyntaxTree::children(body))
      if (SyntaxTree::isOneOf(member, {"property_declaration", "const_declaration", "use_declaration"})) last = member;
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(body));
    std::string made = laidOut(file, "\n\tpublic function __construct(" + parameter(file) + ")\n\t{\n\t\t" + assignment(fetch, change.passesOnly) + "\n\t}", indent);
    bool alone = SyntaxTree::children(body).empty();
    // Behind the fields, of which ours stands last.
    if (SyntaxTree::isNull(last)) return insert(file, ts_node_start_byte(body) + 1, newline + made + (alone && ts_node_start_point(body).row == ts_node_end_point(body).row ? newline + indent : newline)), "";
    return insert(file, ts_node_end_byte(last), newline + made), "";
  }

  std::string give(const Change& change, TSNode arguments, const std::string& object) {
    std::string reason, before = leftOut(change, arguments, reason);
    if (object.empty()) return std::string(kCannotFetch);
    append(*change.at.file, arguments, before + object);
    return "";
  }

  // The class's name as a file may write it, with the line that it needs.
  std::string nameIn(const LoweredFile& file) override {
    const SyntaxTree& syntax = files_.tree(file);
    std::string full = qualifiedBy('\\');
    std::string space = full.size() > handed_.type.size() ? full.substr(0, full.size() - handed_.type.size() - 1) : "";
    TSNode declared{};
    std::vector<TSNode> lines;
    std::string line = "use " + full + ";";
    SyntaxTree::walk(syntax.root(), [&](TSNode node) {
      if (SyntaxTree::is(node, "namespace_definition")) declared = node;
      if (SyntaxTree::is(node, "namespace_use_declaration")) lines.push_back(node);
      return SyntaxTree::isOneOf(node, {"program", "namespace_definition", "compound_statement"});
    });
    std::string own = SyntaxTree::isNull(declared) ? "" : std::string(syntax.text(SyntaxTree::field(declared, "name")));
    if (own == space || &file == handed_.home) return handed_.type;
    if (space.empty()) return "\\" + handed_.type;
    std::string_view source = syntax.text();
    if (source.find(line) != std::string_view::npos) return handed_.type;
    // Under another name, or in a group: by its whole name.
    if (source.find("use " + full + " as") != std::string_view::npos || source.find("\\" + handed_.type + ";") != std::string_view::npos || source.find("use " + space + "\\{") != std::string_view::npos) return "\\" + full;
    if (!once(file, "import")) return handed_.type;
    std::string newline(newlineOf(file));
    if (putSorted(file, lines, line)) return handed_.type;
    if (!SyntaxTree::isNull(declared) && SyntaxTree::isNull(SyntaxTree::field(declared, "body"))) insert(file, ts_node_end_byte(declared), newline + newline + line);
    else return "\\" + full;
    return handed_.type;
  }

  // ----- the default goes

  std::string whyNotDropped(const Change& change) override {
    Spot constructor = change.at;
    TSNode parameter = parameterOf(constructor);
    if (SyntaxTree::isNull(SyntaxTree::field(parameter, "default_value"))) return "it has no default";
    for (TSNode other : SyntaxTree::children(SyntaxTree::field(functionAt(constructor), "parameters"))) {
      if (ts_node_eq(other, parameter)) break;
      if (!SyntaxTree::isNull(SyntaxTree::field(other, "default_value"))) return "parameters in front of it may be left out";
    }
    return "";
  }
  std::string drop(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    const SyntaxTree& syntax = files_.tree(file);
    put(file, spanOf(parameterOf(change.at)), nameIn(file) + " " + variable());
    SyntaxTree::walk(SyntaxTree::field(functionAt(change.at), "body"), [&](TSNode node) {
      bool choice = SyntaxTree::is(node, "binary_expression") && syntax.text(node).starts_with(variable() + " ?? ");
      if (choice) put(file, spanOf(node), variable());
      return !choice;
    });
    return "";
  }

  std::set<std::pair<std::string, uint32_t>> putAt_;  // what was written over
};

}  // namespace

std::unique_ptr<Writer> phpWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<PhpWriter>(files, handed); }

}  // namespace elmcart

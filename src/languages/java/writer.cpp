// Writes changes in Java. Chapters are of the Java Language Specification, Java SE 17.
#include "languages/writer.h"

#include <algorithm>
#include <set>

#include "base/text.h"
#include "languages/java/java.h"

namespace elmcart {
namespace {

class JavaWriter final : public Writer {
 public:
  using Writer::Writer;

  std::string can(const Change& change) override {
    switch (change.kind) {
      case ChangeKind::TakeInConstructor: return change.at.known() ? canTake(change) : canGetConstructor(*change.of);
      case ChangeKind::KeepInField: return canKeep(*change.of);
      case ChangeKind::Read: return "";
      case ChangeKind::MoveInitialiser: return canMove(change.at);
      case ChangeKind::HandOn: return SyntaxTree::isNull(argumentsOf(change.at)) ? "its arguments could not be read" : "";
      case ChangeKind::HandToBase: return SyntaxTree::isNull(invocationOf(constructorAt(change.at), "super")) ? "its constructor calls none of its base class" : "";
      case ChangeKind::DropDefault: return whyNotDropped(change);
      case ChangeKind::TakeInFunction: break;
    }
    return "it is not written yet in Java";
  }

  std::string wordFor(std::string_view name) const override {
    std::string out(name);
    for (size_t i = 0; i < out.size() && std::isupper(static_cast<unsigned char>(out[i])); ++i) {
      bool endsRun = i > 0 && i + 1 < out.size() && std::islower(static_cast<unsigned char>(out[i + 1]));
      if (endsRun) break;
      out[i] = static_cast<char>(std::tolower(static_cast<unsigned char>(out[i])));
    }
    return out;
  }

  bool hands(Spot creation) override {
    for (TSNode argument : SyntaxTree::children(argumentsOf(creation)))
      if (std::string_view written = tree(creation).text(argument); written == handed_.word || written == "this." + handed_.word || isFetched(creation, argument)) return true;
    return false;
  }

  // Members may be named without their object, in the bodies of inner classes too.
  // A field's first value is worked out before a constructor has set anything, §12.5.
  std::string whyNoObject(Spot place) override {
    TSNode node = tree(place).covering(place->span, {"field_declaration", "lambda_expression", "method_declaration", "constructor_declaration", "block"});
    return SyntaxTree::is(node, "field_declaration") ? "a field's first value is worked out before the constructor has the object" : "";
  }

 protected:
  std::string writeAll(std::span<const Change> changes) override {
    std::set<const ClassFacts*> kept;
    for (const Change& change : changes) {
      if (change.kind == ChangeKind::KeepInField) kept.insert(change.of);
      if (change.kind == ChangeKind::KeepInField && handed_.late) addReader(*change.of);
    }
    for (const Change& change : changes)
      if (change.kind == ChangeKind::MoveInitialiser) move(change, changes);
    for (const Change& change : changes) {
      std::string reason;
      if (isMoved(change.at)) continue;
      switch (change.kind) {
        case ChangeKind::TakeInConstructor: reason = change.at.known() ? takeBeside(change, kept.contains(change.of)) : makeConstructors(change, kept.contains(change.of)); break;
        case ChangeKind::KeepInField: addField(*change.of); break;
        case ChangeKind::Read:
          for (Span span : spansOf(change)) put(*change.at.file, span, source(change));
          break;
        case ChangeKind::HandOn: reason = handOn(change); break;
        case ChangeKind::MoveInitialiser: break;
        case ChangeKind::HandToBase: append(*change.at.file, SyntaxTree::field(invocationOf(constructorAt(change.at), "super"), "arguments"), handed_.word); break;
        case ChangeKind::DropDefault: dropTwin(change); break;
        case ChangeKind::TakeInFunction: break;
      }
      if (!reason.empty()) return reason;
    }
    return "";
  }

  std::string fetchElsewhere(const LoweredFile& file) override {
    for (Spot access : handed_.accesses) {
      std::string written = textOf(access);
      if (written.compare(0, handed_.type.size(), handed_.type) == 0 && (written.size() == handed_.type.size() || !isWordByte(written[handed_.type.size()]))) return nameIn(file) + written.substr(handed_.type.size());
    }
    return "";
  }

 private:
  static constexpr std::string_view kCannotFetch = "how the object is fetched could not be written here";

  // ----- reading

  TSNode constructorAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"constructor_declaration", "compact_constructor_declaration"}); }
  TSNode classAt(Spot spot) { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration", "record_declaration", "enum_declaration", "interface_declaration"}); }
  TSNode argumentsOf(Spot call) {
    TSNode node = tree(call).within(call->span, {"object_creation_expression", "explicit_constructor_invocation"});
    return SyntaxTree::field(node, "arguments");
  }
  bool isFetched(Spot place, TSNode argument) {
    Span span = spanOf(argument);
    return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == place.file && access->span.begin == span.begin && access->span.end == span.end; });
  }
  std::vector<TSNode> parametersOf(TSNode constructor) { return SyntaxTree::children(SyntaxTree::field(constructor, "parameters")); }
  // `this(…)` or `super(…)` that a constructor begins with, §8.8.7.1.
  TSNode invocationOf(TSNode constructor, std::string_view which) {
    TSNode first = SyntaxTree::named(SyntaxTree::field(constructor, "body"), 0);
    for (uint32_t i = 1; !SyntaxTree::isNull(first) && SyntaxTree::isComment(first); ++i) first = SyntaxTree::named(SyntaxTree::field(constructor, "body"), i);
    return SyntaxTree::is(first, "explicit_constructor_invocation") && SyntaxTree::is(SyntaxTree::field(first, "constructor"), which) ? first : TSNode{};
  }

  // ----- what cannot be done

  std::string canGetConstructor(const ClassFacts& c) {
    TSNode node = classAt(c.type);
    if (!SyntaxTree::is(node, "class_declaration")) return c.name + " is no ordinary class: nothing can be handed to a constructor of it";
    if (c.baseTakesArguments) return c.name + " has no constructor, and its base class needs arguments";
    return "";
  }

  std::string canTake(const Change& change) {
    TSNode constructor = constructorAt(change.at);
    if (!SyntaxTree::is(constructor, "constructor_declaration")) return "the constructors of a record or enumeration are fixed";
    if (!SyntaxTree::is(classAt(change.of->type), "class_declaration")) return change.of->name + " is no ordinary class: nothing can be handed to a constructor of it";
    const SyntaxTree& syntax = tree(change.at);
    TSNode modifiers = SyntaxTree::childOf(constructor, "modifiers");
    for (TSNode mark : SyntaxTree::children(modifiers))
      if (syntax.text(mark) != "@Deprecated" && !syntax.text(mark).starts_with("@SuppressWarnings")) return "this constructor is marked " + std::string(syntax.text(mark)) + ": what calls it may not be in this tree";
    for (TSNode parameter : parametersOf(constructor))
      if (SyntaxTree::is(parameter, "spread_parameter")) return "this constructor takes any number of arguments";
    return clash(change, constructor);
  }

  // Would a call that means another constructor now mean the new one, §15.12.2.5? Literal nulls of our own get a cast.
  std::string clash(const Change& change, TSNode constructor) {
    size_t arity = parametersOf(constructor).size() + 1;
    for (Spot other : change.of->constructors) {
      TSNode node = constructorAt(other);
      std::vector<TSNode> parameters = parametersOf(node);
      if (parameters.size() != arity || other == change.at) continue;
      std::string_view type = tree(other).text(SyntaxTree::field(parameters.back(), "type"));
      if (type == handed_.type) return change.of->name + " has a constructor with the same parameters already";
      if (type == "Object" || type.size() == 1) return "beside the constructor that takes any " + std::string(type) + " last, one that takes a " + handed_.type + " would catch calls that mean that one";
    }
    return "";
  }

  // §8.1.4: by what it extends and implements.
  std::string canKeep(const ClassFacts& c) {
    for (const std::string& base : c.otherBases) {
      std::string_view name = lastPart(base);
      if (name == "Serializable" || name == "Externalizable" || name.ends_with("Exception") || name.ends_with("Error") || name == "Throwable") return c.name + " can be serialised: a field would change its serialised form, or could not be written";
    }
    for (Spot type : c.lineage)
      for (NodeId member : children(*type.file, type.node))
        if ((*type.file)[member].kind == Kind::Function && type.file->name(member) == "hashCode") return "objects of " + c.name + " are compared by value: they get no field";
    return "";
  }

  TSNode declaratorAt(Spot field) { return tree(field).covering({field->nameBegin, field->nameBegin}, {"variable_declarator"}); }
  std::string canMove(Spot field) {
    TSNode declarator = declaratorAt(field), value = SyntaxTree::field(declarator, "value");
    if (SyntaxTree::isNull(value)) return "its first value could not be read";
    if (SyntaxTree::is(value, "array_initializer")) return "its first value can be written in its declaration only";
    return SyntaxTree::children(SyntaxTree::parent(declarator)).size() > 3 ? "several fields are declared in one line" : "";
  }

  // ----- writing

  // A field's first value goes into the constructors.
  void move(const Change& change, std::span<const Change> changes) {
    const LoweredFile& file = *change.at.file;
    TSNode declarator = declaratorAt(change.at), value = SyntaxTree::field(declarator, "value");
    std::string moved = changedInside(file, spanOf(value), [&] {
      for (const Change& c : changes) {
        if (c.at.file != &file || !spanOf(value).contains(c.at->span.begin)) continue;
        if (c.kind == ChangeKind::Read) put(file, c.at->span, source(c));
        if (c.kind == ChangeKind::HandOn) handOn(c);
      }
    });
    std::string_view name = files_.tree(file).text(SyntaxTree::field(declarator, "name"));
    moved_[change.of].push_back("this." + std::string(name) + " = " + moved + ";");
    movedSpans_.emplace_back(&file, spanOf(value));
    put(file, {ts_node_end_byte(SyntaxTree::field(declarator, "name")), ts_node_end_byte(value)}, "");
  }
  bool isMoved(Spot place) const {
    return place.known() && std::any_of(movedSpans_.begin(), movedSpans_.end(), [&](const auto& moved) { return moved.first == place.file && moved.second.contains(place->span.begin); });
  }

  std::string source(const Change& change) {
    if (change.from == From::Fetched) return fetchIn(*change.at.file);
    return change.from == From::Field && handed_.late ? reader() + "()" : handed_.word;
  }

  // Where the slot's content may be replaced, a class that was handed nothing reads it anew at each use.
  std::string reader() const {
    std::string name = handed_.word;
    name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
    return "current" + name;
  }
  void addReader(const ClassFacts& c) {
    const LoweredFile& file = *c.type.file;
    TSNode node = classAt(c.type), body = SyntaxTree::field(node, "body");
    std::string indent = indentAt(file, ts_node_start_byte(node)), newline(newlineOf(file));
    std::string text = laidOut(file, "\n\tprivate " + handed_.type + " " + reader() + "() {\n\t\treturn " + handed_.word + " != null ? " + handed_.word + " : " + fetchIn(file) + ";\n\t}\n", indent);
    uint32_t close = ts_node_end_byte(body) - 1;
    insert(file, lineBegin(file, close) > ts_node_start_byte(body) ? lineBegin(file, close) : close, text.substr(0, text.size() - indent.size()));
  }

  // The class's name as a file may write it, imported where that is needed.
  std::string nameIn(const LoweredFile& file) {
    const SyntaxTree& syntax = files_.tree(file);
    std::string package(scopePart(handed_.qualified)), dotted;
    for (size_t i = 0; i < handed_.qualified.size(); ++i) dotted += handed_.qualified[i] == ':' ? (i + 1 < handed_.qualified.size() && handed_.qualified[i + 1] == ':' ? ++i, '.' : ':') : handed_.qualified[i];
    if (&file == handed_.home || package.empty()) return handed_.type;
    std::string ownPackage = dotted.substr(0, dotted.size() - handed_.type.size() - 1);
    TSNode last{}, declared{}, next{};
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (SyntaxTree::is(node, "package_declaration")) {
        declared = node;
        if (std::string_view here = syntax.text(node); here.find(" " + ownPackage + ";") != std::string_view::npos) return handed_.type;
      }
      if (!SyntaxTree::is(node, "import_declaration")) continue;
      std::string_view line = syntax.text(node);
      if (line.find(" " + dotted + ";") != std::string_view::npos || line.find(" " + ownPackage + ".*;") != std::string_view::npos) return handed_.type;
      if (line.starts_with("import static")) continue;
      std::string ours = "import " + dotted + ";";
      if (line < ours) last = node;
      else if (SyntaxTree::isNull(next)) next = node;
    }
    if (!imported_.insert(file.path).second) return handed_.type;
    std::string line = "import " + dotted + ";", newline(newlineOf(file));
    if (!SyntaxTree::isNull(last)) insert(file, ts_node_end_byte(last), newline + line);
    else if (!SyntaxTree::isNull(next)) insert(file, ts_node_start_byte(next), line + newline);
    else if (!SyntaxTree::isNull(declared)) insert(file, ts_node_end_byte(declared), newline + newline + line);
    else insert(file, 0, line + newline + newline);
    return handed_.type;
  }

  std::string assignment(const ClassFacts&) const { return "this." + handed_.word + " = " + handed_.word + ";"; }

  // A second constructor that takes the object stands behind the first, which hands on to it what it fetches.
  std::string takeBeside(const Change& change, bool kept) {
    const LoweredFile& file = *change.at.file;
    const SyntaxTree& syntax = files_.tree(file);
    TSNode constructor = constructorAt(change.at), parameters = SyntaxTree::field(constructor, "parameters"), body = SyntaxTree::field(constructor, "body");
    std::string fetch = fetchIn(file);
    if (fetch.empty()) return std::string(kCannotFetch);
    if (kept && handed_.late) fetch = "(" + handed_.type + ") null";
    uint32_t begin = ts_node_start_byte(constructor);
    std::string head(syntax.text().substr(begin, ts_node_start_byte(body) - begin)), names, indent = indentAt(file, begin);
    for (TSNode parameter : SyntaxTree::children(parameters)) names += std::string(syntax.text(SyntaxTree::field(parameter, "name"))) + ", ";
    std::string first = laidOut(file, "{\n\tthis(" + names + fetch + ");\n}\n\n", indent);
    insert(file, begin, head + first + documentation(file, constructor, indent));
    (void)nameIn(file);
    append(file, parameters, handed_.type + " " + handed_.word);
    castNulls(change, constructor);
    std::vector<std::string> statements = kept ? std::vector<std::string>{assignment(*change.of)} : std::vector<std::string>{};
    statements.insert(statements.end(), moved_[change.of].begin(), moved_[change.of].end());
    if (!statements.empty() && SyntaxTree::isNull(invocationOf(constructor, "this"))) {
      TSNode super = invocationOf(constructor, "super");
      uint32_t at = SyntaxTree::isNull(super) ? ts_node_start_byte(body) + 1 : ts_node_end_byte(super);
      bool empty = SyntaxTree::children(body).empty();
      std::string line;
      for (const std::string& statement : statements) line += std::string(newlineOf(file)) + indent + unitOf(file) + statement;
      bool closesBelow = ts_node_start_point(body).row != ts_node_end_point(body).row;
      insert(file, at, line + (empty && !closesBelow ? std::string(newlineOf(file)) + indent : ""));
    }
    return "";
  }

  // What documents the constructor, for the one beside it, with its new parameter.
  std::string documentation(const LoweredFile& file, TSNode constructor, const std::string& indent) {
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

  static std::string spacedOut(std::string_view type) {
    std::string out;
    for (size_t i = 0; i < type.size(); ++i) {
      bool capital = std::isupper(static_cast<unsigned char>(type[i])), run = i + 1 < type.size() && std::isupper(static_cast<unsigned char>(type[i + 1]));
      if (capital && i > 0 && !std::isupper(static_cast<unsigned char>(type[i - 1]))) out += ' ';
      out += capital && !run ? static_cast<char>(std::tolower(static_cast<unsigned char>(type[i]))) : type[i];
    }
    return out;
  }

  // A literal null that means another constructor's last parameter says so.
  void castNulls(const Change& change, TSNode constructor) {
    size_t arity = parametersOf(constructor).size() + 1;
    for (size_t i = 0; i < change.of->constructors.size(); ++i) {
      std::vector<TSNode> parameters = parametersOf(constructorAt(change.of->constructors[i]));
      if (parameters.size() != arity || change.of->constructors[i] == change.at) continue;
      std::string type(tree(change.of->constructors[i]).text(SyntaxTree::field(parameters.back(), "type")));
      for (Spot call : change.of->calls[i]) {
        std::vector<TSNode> arguments = SyntaxTree::children(argumentsOf(call));
        if (arguments.size() == arity && SyntaxTree::is(arguments.back(), "null_literal")) insert(*call.file, ts_node_start_byte(arguments.back()), "(" + type + ") ");
      }
    }
  }

  std::string makeConstructors(const Change& change, bool kept) {
    const LoweredFile& file = *change.of->type.file;
    std::string fetch = fetchIn(file);
    if (fetch.empty()) return std::string(kCannotFetch);
    if (kept && handed_.late) fetch = "(" + handed_.type + ") null";
    TSNode node = classAt(change.of->type), body = SyntaxTree::field(node, "body");
    std::string indent = indentAt(file, ts_node_start_byte(node));
    std::string_view open = hasWord(node, "public") ? "public " : hasWord(node, "protected") ? "protected " : "";
    std::string head = std::string(open) + change.of->name;
    std::string inside = kept ? "\n\t\t" + assignment(*change.of) : "";
    for (const std::string& statement : moved_[change.of]) inside += "\n\t\t" + statement;
    std::string pattern = "\n\t" + head + "() {\n\t\tthis(" + fetch + ");\n\t}\n\n\t" + head + "(" + handed_.type + " " + handed_.word + ") {" + inside + "\n\t}";
    // Behind the fields; the field itself comes first.
    TSNode last = lastField(body);
    uint32_t at = SyntaxTree::isNull(last) ? ts_node_start_byte(body) + 1 : ts_node_end_byte(last);
    bool alone = SyntaxTree::children(body).empty(), ends = !alone && SyntaxTree::isNull(last);
    pending_ += std::string(newlineOf(file)) + laidOut(file, pattern, indent) + (ends ? std::string(newlineOf(file)) : "");
    flush(file, at, alone && ts_node_start_point(body).row == ts_node_end_point(body).row ? std::string(newlineOf(file)) + indent : "");
    return "";
  }
  // The field that was to stand at the same place goes first.
  void flush(const LoweredFile& file, uint32_t at, const std::string& end) {
    insert(file, at, pending_ + end);
    pending_.clear();
  }

  bool hasWord(TSNode declaration, std::string_view word) {
    TSNode modifiers = SyntaxTree::childOf(declaration, "modifiers");
    return !SyntaxTree::isNull(SyntaxTree::childOf(modifiers, word));
  }
  // The last of the fields of objects that stand before anything else than fields.
  TSNode lastField(TSNode body) {
    TSNode last{};
    for (TSNode member : SyntaxTree::children(body))
      if (SyntaxTree::is(member, "field_declaration") && !hasWord(member, "static")) last = member;
    if (!SyntaxTree::isNull(last)) return last;
    for (TSNode member : SyntaxTree::children(body)) {
      if (!SyntaxTree::is(member, "field_declaration")) break;
      last = member;
    }
    return last;
  }

  void addField(const ClassFacts& c) {
    const LoweredFile& file = *c.type.file;
    TSNode node = classAt(c.type), body = SyntaxTree::field(node, "body"), last = lastField(body);
    std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node)) + unitOf(file);
    std::string line = "private final " + nameIn(file) + " " + handed_.word + ";";
    // Documented where the others are.
    TSNode above = SyntaxTree::isNull(last) ? TSNode{} : ts_node_prev_sibling(last);
    if (SyntaxTree::is(above, "block_comment") && files_.tree(file).text(above).starts_with("/**")) line = "/** The " + spacedOut(handed_.type) + " in use. */" + newline + indent + line;
    bool made = c.constructors.empty();
    if (made) {
      pending_ = newline + indent + line + pending_;
      return;
    }
    if (!SyntaxTree::isNull(last)) return insert(file, ts_node_end_byte(last), newline + indent + line);
    insert(file, ts_node_start_byte(body) + 1, newline + indent + line + newline);
  }

  std::string handOn(const Change& change) {
    TSNode arguments = argumentsOf(change.at);
    std::string object = source(change);
    if (object.empty()) return std::string(kCannotFetch);
    append(*change.at.file, arguments, object);
    return "";
  }

  // ----- a constructor that fetches what it hands on to the one beside it

  std::string whyNotDropped(const Change& change) {
    TSNode constructor = constructorAt(change.at), handsOn = invocationOf(constructor, "this");
    std::vector<TSNode> arguments = SyntaxTree::children(SyntaxTree::field(handsOn, "arguments"));
    bool only = !SyntaxTree::isNull(handsOn) && SyntaxTree::children(SyntaxTree::field(constructor, "body")).size() == 1;
    return only && !arguments.empty() && isFetched(change.at, arguments.back()) ? "" : "it does more than fetch the object";
  }
  void dropTwin(const Change& change) {
    const LoweredFile& file = *change.at.file;
    TSNode constructor = constructorAt(change.at);
    uint32_t begin = ts_node_start_byte(constructor), end = ts_node_end_byte(constructor);
    std::string_view source = text(file);
    // What documents it documents the next.
    while (end < source.size() && isBlank(source[end])) ++end;
    put(file, {begin, end}, "");
  }

  std::map<const ClassFacts*, std::vector<std::string>> moved_;  // statements that set fields
  std::vector<std::pair<const LoweredFile*, Span>> movedSpans_;
  std::string pending_;
  std::set<std::string> imported_;
};

}  // namespace

std::unique_ptr<Writer> javaWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<JavaWriter>(files, handed); }

}  // namespace elmcart

// Writes changes in Kotlin. Chapters are of the Kotlin language specification, 1.9.
#include <algorithm>

#include "base/text.h"
#include "languages/kotlin/kotlin.h"
#include "languages/shared/label_writer.h"

namespace elmcart {
namespace {

// Chapter "Declarations", primary constructors: a parameter that is marked val is a field as well, and what fields are
// set to in their declarations may name any parameter.
class KotlinWriter final : public LabelWriter {
 public:
  using LabelWriter::LabelWriter;

  std::string whyNoObject(Spot place) override {
    TSNode node = tree(place).covering(place->span, {"property_declaration", "anonymous_initializer", "function_declaration", "secondary_constructor", "getter", "setter", "property_delegate", "class_body"});
    bool own = SyntaxTree::is(node, "anonymous_initializer") || (SyntaxTree::is(node, "property_declaration") && SyntaxTree::is(SyntaxTree::parent(node), "class_body"));
    return own ? "a field's first value is worked out by the constructor" : "";
  }
  bool firstValuesSeeParameters() const override { return true; }
  // A base that is called is a class.
  bool isInterface(const ClassFacts& c, std::string_view base) override {
    size_t cut = base.find_last_of(":.");
    if (cut != std::string_view::npos) base = base.substr(cut + 1);
    TSNode type = SyntaxTree::childOf(baseCallOf(c), "user_type");
    if (SyntaxTree::isNull(type)) return true;
    std::string_view named = tree(c.type).text(type);
    size_t dot = named.substr(0, named.find('<')).rfind('.');
    return !named.substr(dot == std::string_view::npos ? 0 : dot + 1).starts_with(base);
  }

 protected:
  std::string_view label() const override { return " = "; }
  std::string_view orElse() const override { return " ?: "; }

  TSNode classAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"class_declaration"}); }
  TSNode functionAt(Spot spot) override { return tree(spot).covering({spot->nameBegin, spot->nameBegin}, {"function_declaration"}); }
  std::string whyNotInFunction(Spot function, TSNode node) override {
    if (!SyntaxTree::isNull(SyntaxTree::childOf(SyntaxTree::childOf(node, "modifiers"), "annotation"))) return "it is marked: what calls it may not be in this tree";
    return whyNotInList(tree(function), SyntaxTree::childOf(node, "function_value_parameters"), "it takes any number of arguments");
  }
  // What must be true of a list that gets a parameter more at its end.
  static std::string whyNotInList(const SyntaxTree& syntax, TSNode list, const std::string& any) {
    std::vector<TSNode> parameters = SyntaxTree::children(list);
    for (TSNode parameter : parameters)
      if (syntax.text(parameter).find("vararg") != std::string_view::npos) return any;
    // Chapter "Expressions", trailing lambdas: they mean the last parameter.
    bool function = !parameters.empty() && !SyntaxTree::isNull(SyntaxTree::childOf(parameters.back(), "function_type"));
    return function ? "its last parameter takes a function, which calls may write behind the brackets" : "";
  }
  TSNode constructorAt(Spot spot) override {
    TSNode node = tree(spot).covering({spot->span.begin, spot->span.begin}, {"primary_constructor", "secondary_constructor", "class_declaration"});
    return SyntaxTree::is(node, "class_declaration") ? SyntaxTree::childOf(node, "primary_constructor") : node;
  }
  TSNode argumentsOf(Spot call) override { return tree(call).within(call->span, {"value_arguments"}); }
  TSNode baseArgumentsOf(const Change& change) override { return SyntaxTree::childOf(baseCallOf(*change.of), "value_arguments"); }
  // The base that is called in the head of a class: it has one base class at most.
  TSNode baseCallOf(const ClassFacts& c) {
    for (TSNode one : SyntaxTree::children(classAt(c.type)))
      if (TSNode invocation = SyntaxTree::childOf(one, "constructor_invocation"); SyntaxTree::is(one, "delegation_specifier") && !SyntaxTree::isNull(invocation)) return invocation;
    return {};
  }
  // What its parameters stand in.
  static TSNode listOf(TSNode constructor) { return SyntaxTree::is(constructor, "secondary_constructor") ? SyntaxTree::childOf(constructor, "function_value_parameters") : constructor; }

  std::string whyNotTaken(const Change& change, TSNode constructor) override {
    if (SyntaxTree::is(constructor, "secondary_constructor") && SyntaxTree::isNull(SyntaxTree::childOf(classAt(change.of->type), "primary_constructor"))) return "it has no constructor behind its name, only others";
    if (!SyntaxTree::isNull(SyntaxTree::childOf(SyntaxTree::childOf(constructor, "modifiers"), "annotation"))) return "this constructor is marked: what calls it may not be in this tree";
    // Java gives all parameters, for it knows nothing of what they are by default.
    if (std::any_of(change.of->creations.begin(), change.of->creations.end(), [](Spot made) { return made.file->language == "java"; })) return "Java code makes one, which must give all that its constructor takes";
    std::string reason = whyNotInList(tree(change.at), listOf(constructor), "this constructor takes any number of arguments");
    return reason.empty() ? canGetConstructor(*change.of) : reason;
  }
  std::string canGetConstructor(const ClassFacts& c) override {
    TSNode node = classAt(c.type);
    if (SyntaxTree::isNull(node) || !SyntaxTree::isNull(SyntaxTree::childOf(node, "interface")) || !SyntaxTree::isNull(SyntaxTree::childOf(node, "enum"))) return c.name + std::string(kNoClass);
    for (TSNode modifier : SyntaxTree::children(SyntaxTree::childOf(node, "modifiers"))) {
      std::string_view word = tree(c.type).text(modifier);
      if (word == "data" || word == "value" || word == "annotation" || word == "enum") return "what the constructor of a " + std::string(word) + " class takes is what its objects are: nothing can be handed in there";
    }
    return "";
  }
  std::string canKeep(const ClassFacts& c) override {
    for (const std::string& base : c.otherBases)
      if (lastPart(base) == "Serializable" || lastPart(base) == "Parcelable") return c.name + " can be serialised: a field would change its serialised form, or could not be written";
    if (declares(c, "hashCode")) return "objects of " + c.name + " are compared by value: they get no field";
    return canGetConstructor(c);
  }

  std::string take(const Change& change) override {
    const LoweredFile& file = *change.at.file;
    TSNode constructor = constructorAt(change.at);
    std::string item = parameter(file, SyntaxTree::is(constructor, "primary_constructor") && keepsNow(change.of));
    if (item.empty()) return std::string(kCannotFetch);
    append(file, listOf(constructor), item);
    return "";
  }
  std::string takeInFunction(const Change& change) override {
    std::string item = parameter(*change.at.file, false);
    if (item.empty()) return std::string(kCannotFetch);
    append(*change.at.file, SyntaxTree::childOf(functionAt(change.at), "function_value_parameters"), item);
    return "";
  }
  // Behind the class's name and its type parameters.
  std::string makeConstructor(const Change& change) override {
    const LoweredFile& file = *change.of->type.file;
    TSNode node = classAt(change.of->type), name = SyntaxTree::childOf(node, "type_parameters");
    if (SyntaxTree::isNull(name)) name = SyntaxTree::childOf(node, "type_identifier");
    std::string item = parameter(file, keepsNow(change.of));
    if (item.empty()) return std::string(kCannotFetch);
    insert(file, ts_node_end_byte(name), "(" + item + ")");
    return "";
  }
  std::string open(const Change& change) override {
    reword(*change.at.file, tree(change.at).covering({change.at->nameBegin, change.at->nameBegin}, {"class_parameter", "property_declaration"}), change.at->nameBegin, "private", "protected");
    return "";
  }

  std::string whyNotDropped(const Change& change) override {
    if (handed_.late) return "what is fetched may be replaced, and it may be left out";
    return SyntaxTree::isNull(typeOf(change)) ? "it has no default" : "";
  }
  std::string drop(const Change& change) override {
    TSNode type = typeOf(change);
    put(*change.at.file, {ts_node_end_byte(type), ts_node_end_byte(SyntaxTree::parent(type))}, "");
    return "";
  }

  std::string nameIn(const LoweredFile& file) override {
    const SyntaxTree& syntax = files_.tree(file);
    std::string full = qualifiedBy('.');
    if (&file == handed_.home || full.size() == handed_.type.size()) return handed_.type;
    std::string package = full.substr(0, full.size() - handed_.type.size() - 1), line = "import " + full;
    TSNode declared{};
    std::vector<TSNode> lines;
    for (TSNode node : SyntaxTree::children(syntax.root())) {
      if (SyntaxTree::is(node, "package_header")) declared = node;
      if (SyntaxTree::is(node, "import_list"))
        for (TSNode import : SyntaxTree::children(node)) lines.push_back(import);
    }
    if (!SyntaxTree::isNull(declared) && trim(syntax.text(declared)) == "package " + package) return handed_.type;
    for (TSNode import : lines)
      if (std::string_view said = trim(syntax.text(import)); said == line || said == "import " + package + ".*") return handed_.type;
    if (!once(file, "import") || putSorted(file, lines, line)) return handed_.type;
    std::string newline(newlineOf(file));
    if (!SyntaxTree::isNull(declared)) insert(file, ts_node_end_byte(declared), newline + newline + line);
    else insert(file, 0, line + newline + newline);
    return handed_.type;
  }

 private:
  // The type of our parameter where a default stands behind it; null: there is none.
  TSNode typeOf(const Change& change) {
    for (TSNode parameter : SyntaxTree::children(listOf(constructorAt(change.at)))) {
      if (tree(change.at).text(SyntaxTree::childOf(parameter, "simple_identifier")) != handed_.word) continue;
      TSNode type = SyntaxTree::childOf(parameter, "user_type");
      return SyntaxTree::isNull(SyntaxTree::childOf(parameter, "=")) ? TSNode{} : type;
    }
    return {};
  }
  std::string parameter(const LoweredFile& file, bool kept) {
    std::string head = (kept ? "private val " : "") + handed_.word + ": ";
    if (handed_.late) return head + nameIn(file) + "? = null";
    std::string fetch = fetchIn(file);
    return fetch.empty() ? "" : head + nameIn(file) + " = " + fetch;
  }
};

}  // namespace

std::unique_ptr<Writer> kotlinWriter(WriterFiles& files, const HandedIn& handed) { return std::make_unique<KotlinWriter>(files, handed); }

}  // namespace elmcart

#include "languages/shared/overload_writer.h"

#include <algorithm>

#include "base/text.h"

namespace elmcart {

std::string OverloadWriter::canTake(const Change& change) {
  TSNode constructor = constructorAt(change.at);
  if (SyntaxTree::isNull(constructor)) return "the constructors of a record or enumeration are fixed";
  if (!isPlainClass(classAt(change.of->type))) return change.of->name + " is no ordinary class: nothing can be handed to a constructor of it";
  std::string reason = whyNotTaken(change, constructor);
  return reason.empty() ? clash(change, constructor) : reason;
}

std::string OverloadWriter::canTakeInFunction(const Change& change) {
  TSNode method = methodAt(change.at);
  if (SyntaxTree::isNull(method) || SyntaxTree::isNull(SyntaxTree::field(method, "body"))) return "it could not be read";
  return whyNotInMethod(change.at, method);
}

// The method keeps what it takes, and calls one of its name that takes the object too.
std::string OverloadWriter::takeInFunction(const Change& change) {
  const LoweredFile& file = *change.at.file;
  const SyntaxTree& syntax = files_.tree(file);
  TSNode method = methodAt(change.at), body = SyntaxTree::field(method, "body");
  std::string fetch = fetchIn(file);
  if (fetch.empty()) return std::string(kCannotFetch);
  uint32_t begin = ts_node_start_byte(method);
  std::string head(syntax.text().substr(begin, ts_node_start_byte(body) - begin)), call = std::string(syntax.text(SyntaxTree::field(method, "name"))) + "(" + namesIn(file, method) + fetch + ");";
  std::string_view type = syntax.text(SyntaxTree::field(method, "type"));
  bool block = syntax.text(body).starts_with("{");
  std::string first = block ? "{\n\t" + std::string(type == "void" ? "" : "return ") + call + "\n}" : "=> " + call;
  putBeside(file, method, head + laidOut(file, first, indentAt(file, begin)));
  return "";
}

std::string OverloadWriter::namesIn(const LoweredFile& file, TSNode declaration) {
  std::string names;
  for (TSNode parameter : parametersOf(declaration)) names += std::string(files_.tree(file).text(SyntaxTree::field(parameter, "name"))) + ", ";
  return names;
}

// What keeps its parameters stands in front of what takes the object now, which is documented like it.
void OverloadWriter::putBeside(const LoweredFile& file, TSNode declaration, const std::string& first) {
  uint32_t begin = ts_node_start_byte(declaration);
  std::string newline(newlineOf(file)), indent = indentAt(file, begin);
  insert(file, begin, first + newline + newline + indent + documentation(file, declaration, indent));
  prepareSecond(file, declaration);
  append(file, SyntaxTree::field(declaration, "parameters"), nameIn(file) + " " + handed_.word);
}

std::string OverloadWriter::canHandOn(const Change& change) {
  std::string reason = "its arguments could not be read";
  if (!SyntaxTree::isNull(argumentsOf(change.at))) (void)leftOut(change, reason);
  return reason;
}

std::string OverloadWriter::canHandToBase(const Change& change) { return !change.at.known() ? "" : SyntaxTree::isNull(handsOn(constructorAt(change.at), true)) ? "its constructor calls none of its base class" : ""; }

bool OverloadWriter::hands(Spot creation) {
  for (TSNode argument : SyntaxTree::children(argumentsOf(creation)))
    if (std::string_view written = tree(creation).text(argument); isFieldNamed(written.starts_with("this.") ? written.substr(5) : written, handed_.word) || written == readerCall() || isFetched(creation, argument)) return true;
  return false;
}

void OverloadWriter::begin(std::span<const Change> changes) {
  for (const Change& change : changes) {
    if (change.kind == ChangeKind::KeepInField && handed_.late) addReader(*change.of);
  }
}

std::string OverloadWriter::read(const Change& change) {
  for (Span span : spansOf(change)) put(*change.at.file, span, source(change));
  return "";
}

std::string OverloadWriter::handToBase(const Change& change) { return !change.at.known() ? "" : (append(*change.at.file, SyntaxTree::childOf(handsOn(constructorAt(change.at), true), "argument_list"), handed_.word), ""); }

// Moved statements in a constructor that takes the object already; one that does not hands on to such a one.
std::string OverloadWriter::setIn(Spot constructor, const std::vector<std::string>& statements) {
  TSNode node = constructorAt(constructor);
  const LoweredFile& file = *constructor.file;
  std::vector<TSNode> parameters = parametersOf(node);
  bool takes = std::any_of(parameters.begin(), parameters.end(), [&](TSNode p) { return files_.tree(file).text(SyntaxTree::field(p, "name")) == handed_.word; });
  if (!takes || !SyntaxTree::isNull(handsOn(node, false))) return "";
  return putFirst(constructor, statements);
}

// As the first statements of a constructor's body.
std::string OverloadWriter::putFirst(Spot constructor, const std::vector<std::string>& statements) {
  const LoweredFile& file = *constructor.file;
  TSNode node = constructorAt(constructor), body = SyntaxTree::field(node, "body");
  uint32_t at = statementsBegin(node);
  if (at == 0) return "its constructor has no body of statements";
  std::string text, newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node));
  for (const std::string& statement : statements) text += newline + indent + unitOf(file) + statement;
  bool closesBelow = ts_node_start_point(body).row != ts_node_end_point(body).row;
  if (!closesBelow && !SyntaxTree::children(body).empty()) {
    // { rank = 1; } goes on so.
    for (text.clear(); const std::string& statement : statements) text += " " + statement;
    return insert(file, at, text), "";
  }
  insert(file, behindRemark(file, at), text + (SyntaxTree::children(body).empty() && !closesBelow ? newline + indent : ""));
  return "";
}

std::string OverloadWriter::spacedOut(std::string_view type) {
  std::string out;
  for (size_t i = 0; i < type.size(); ++i) {
    bool capital = std::isupper(static_cast<unsigned char>(type[i])), run = i + 1 < type.size() && std::isupper(static_cast<unsigned char>(type[i + 1]));
    if (capital && i > 0 && !std::isupper(static_cast<unsigned char>(type[i - 1]))) out += ' ';
    out += capital && !run ? static_cast<char>(std::tolower(static_cast<unsigned char>(type[i]))) : type[i];
  }
  return out;
}

std::string OverloadWriter::canGetConstructor(const ClassFacts& c) {
  TSNode node = classAt(c.type);
  if (!isPlainClass(node)) return c.name + " is no ordinary class: nothing can be handed to a constructor of it";
  if (c.baseTakesArguments) return c.name + " has no constructor, and its base class needs arguments";
  return "";
}

// Would a call that means another constructor now mean the new one, §15.12.2.5? Literal nulls of our own get a cast.
std::string OverloadWriter::clash(const Change& change, TSNode constructor) {
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

Writer::FirstValue OverloadWriter::firstValueOf(Spot field) {
  TSNode declarator = declaratorAt(field), value = valueOf(declarator), name = SyntaxTree::field(declarator, "name");
  return {std::string(tree(field).text(name)), spanOf(value), {ts_node_end_byte(name), ts_node_end_byte(value)}};
}

std::string OverloadWriter::source(const Change& change) {
  if (change.from == From::Fetched) return fetchIn(*change.at.file);
  if (change.from == From::Parameter) return handed_.late && change.kind == ChangeKind::Read ? "(" + chosen(handed_.word, fetchAt(change.at)) + ")" : handed_.word;
  return handed_.late ? readerCall() : fieldIn(change.of ? *change.of->type.file : *change.at.file);
}

void OverloadWriter::addReader(const ClassFacts& c) {
  const LoweredFile& file = *c.type.file;
  TSNode node = classAt(c.type), body = bodyOf(node);
  std::string indent = indentAt(file, ts_node_start_byte(node)), text = laidOut(file, "\n\t" + readerText(file) + "\n", indent);
  uint32_t close = ts_node_end_byte(body) - 1;
  insert(file, lineBegin(file, close) > ts_node_start_byte(body) ? lineBegin(file, close) : close, text.substr(0, text.size() - indent.size()));
}

// A second constructor that takes the object stands behind the first, which hands on to it what it fetches.
std::string OverloadWriter::take(const Change& change) {
  bool kept = keepsNow(change.of);
  const LoweredFile& file = *change.at.file;
  TSNode constructor = constructorAt(change.at);
  std::string fetch = fetchIn(file);
  if (fetch.empty()) return std::string(kCannotFetch);
  if (handed_.late) fetch = "(" + handed_.type + ") null";
  putBeside(file, constructor, first(file, constructor, namesIn(file, constructor) + fetch, indentAt(file, ts_node_start_byte(constructor))));
  castNulls(change, constructor);
  std::vector<std::string> statements = kept ? std::vector<std::string>{assignment(file)} : std::vector<std::string>{};
  for (const std::string& one : moved(change.of)) statements.push_back(one);
  if (!statements.empty() && SyntaxTree::isNull(handsOn(constructor, false))) return putFirst(change.at, statements);
  return "";
}

// A literal null that means another constructor's last parameter says so.
void OverloadWriter::castNulls(const Change& change, TSNode constructor) {
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

std::string OverloadWriter::makeConstructor(const Change& change) {
  bool kept = keepsNow(change.of);
  const LoweredFile& file = *change.of->type.file;
  std::string fetch = fetchIn(file), newline(newlineOf(file));
  if (fetch.empty()) return std::string(kCannotFetch);
  if (handed_.late) fetch = "(" + handed_.type + ") null";
  TSNode node = classAt(change.of->type), body = bodyOf(node);
  std::string indent = indentAt(file, ts_node_start_byte(node)), statements = kept ? "\n\t\t" + assignment(file) : "";
  for (const std::string& statement : moved(change.of)) statements += "\n\t\t" + statement;
  std::string pattern = both(*change.of, node, fetch, handsNew(change.of));
  pattern.replace(pattern.find("{statements}"), std::string_view("{statements}").size(), statements);
  // Behind the fields; the field itself comes first.
  TSNode last = lastField(body);
  uint32_t at = SyntaxTree::isNull(last) ? ts_node_start_byte(body) + 1 : ts_node_end_byte(last);
  bool alone = SyntaxTree::children(body).empty(), ends = !alone && SyntaxTree::isNull(last);
  // Without a field above, nothing has to keep them apart from the bracket.
  std::string made = laidOut(file, pattern, indent);
  if (pending_.empty() && SyntaxTree::isNull(last)) made = made.substr(newline.size());
  bool oneLine = alone && ts_node_start_point(body).row == ts_node_end_point(body).row;
  insert(file, at, pending_ + newline + made + (ends ? newline : "") + (oneLine ? newline + indent : ""));
  pending_.clear();
  return "";
}

// The last field of objects among those that stand before anything else than fields, or in the class, or else the last
// of those that stand so.
TSNode OverloadWriter::lastField(TSNode body) {
  TSNode last{};
  bool leading = true;
  for (TSNode member : SyntaxTree::children(body)) {
    if (isField(member, true)) last = member;
    leading = leading && isField(member, false);
    if (!leading && !SyntaxTree::isNull(last) && isField(SyntaxTree::named(body, 0), false)) return last;
  }
  if (!SyntaxTree::isNull(last)) return last;
  for (TSNode member : SyntaxTree::children(body)) {
    if (!isField(member, false)) break;
    last = member;
  }
  return last;
}

std::string OverloadWriter::keep(const Change& change) {
  const ClassFacts& c = *change.of;
  const LoweredFile& file = *c.type.file;
  TSNode node = classAt(c.type), body = bodyOf(node), last = lastField(body);
  std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(node)) + unitOf(file);
  std::string line = newline + indent + documentedField(file, last, fieldLine(file), newline + indent);
  if (c.constructors.empty()) pending_ = line;
  else if (!SyntaxTree::isNull(last)) insert(file, ts_node_end_byte(last), line);
  else insert(file, ts_node_start_byte(body) + 1, line + newline);
  return "";
}

std::string OverloadWriter::open(const Change& change) {
  const LoweredFile& file = *change.at.file;
  TSNode field = SyntaxTree::parent(declaratorAt(change.at));
  while (!SyntaxTree::isNull(field) && !isField(field, false)) field = SyntaxTree::parent(field);
  reword(file, field, change.at->nameBegin, "private", "protected");
  // What falls back on the shared one is named too.
  std::string reader = " " + readerCall();
  for (TSNode member : SyntaxTree::children(bodyOf(classAt(change.of->type))))
    if (size_t at = files_.tree(file).text(member).find(reader); handed_.late && at != std::string_view::npos && !isField(member, false)) reword(file, member, ts_node_start_byte(member) + static_cast<uint32_t>(at), "private", "protected");
  return "";
}

std::string OverloadWriter::handOn(const Change& change) {
  TSNode arguments = argumentsOf(change.at);
  std::string object = source(change);
  if (object.empty()) return std::string(kCannotFetch);
  std::string reason, before = leftOut(change, reason);
  append(*change.at.file, arguments, before + object);
  return reason;
}

std::string OverloadWriter::whyNotDropped(const Change& change) {
  TSNode constructor = constructorAt(change.at);
  std::vector<TSNode> arguments = SyntaxTree::children(SyntaxTree::childOf(handsOn(constructor, false), "argument_list"));
  return handsOnOnly(constructor) && !arguments.empty() && isFetched(change.at, arguments.back()) ? "" : "it does more than fetch the object";
}

std::string OverloadWriter::drop(const Change& change) {
  const LoweredFile& file = *change.at.file;
  TSNode constructor = constructorAt(change.at);
  uint32_t begin = ts_node_start_byte(constructor), end = ts_node_end_byte(constructor);
  std::string_view source = text(file);
  // What documents it documents the next.
  while (end < source.size() && isBlank(source[end])) ++end;
  return put(file, {begin, end}, ""), "";
}

}  // namespace elmcart

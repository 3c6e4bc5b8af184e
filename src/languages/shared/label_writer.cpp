#include "languages/shared/label_writer.h"

#include <algorithm>

#include "base/text.h"

namespace elmcart {

bool LabelWriter::hands(Spot creation) {
  std::vector<TSNode> arguments = SyntaxTree::children(argumentsOf(creation));
  std::string sign(trim(label()));
  return std::any_of(arguments.begin(), arguments.end(), [&](TSNode argument) {
    std::string_view written = tree(creation).text(argument);
    return written.starts_with(handed_.word) && trim(written.substr(handed_.word.size())).starts_with(sign);
  });
}

std::string LabelWriter::canTake(const Change& change) {
  TSNode constructor = constructorAt(change.at);
  if (SyntaxTree::isNull(constructor) || SyntaxTree::isNull(classAt(change.of->type))) return change.of->name + std::string(kNoClass);
  return whyNotTaken(change, constructor);
}

std::string LabelWriter::canTakeInFunction(const Change& change) {
  TSNode function = functionAt(change.at);
  return SyntaxTree::isNull(function) ? "it could not be read" : whyNotInFunction(change.at, function);
}

std::string LabelWriter::canHandOn(const Change& change) {
  if (SyntaxTree::isNull(argumentsOf(change.at))) return "its arguments could not be read";
  return whyNotGiven(change.at);
}

std::string LabelWriter::canHandToBase(const Change& change) { return SyntaxTree::isNull(baseArgumentsOf(change)) ? "its constructor calls none of its base class" : ""; }

std::string LabelWriter::objectAt(const Change& change) {
  if (change.from == From::Parameter) return handed_.word;
  return change.from == From::Field ? fieldIn(change.of ? *change.of->type.file : *change.at.file) : fetchIn(*change.at.file);
}

std::string LabelWriter::read(const Change& change) {
  bool mayBeNone = change.from == From::Parameter ? parameterMayBeNone() : handed_.late;
  std::string object = mayBeNone ? orFetched(objectAt(change), fetchAt(change.at)) : objectAt(change);
  if (mayBeNone && !standsAlone(change.at)) object = "(" + object + ")";
  for (Span span : spansOf(change)) put(*change.at.file, span, object);
  return "";
}

std::string LabelWriter::handOn(const Change& change) {
  std::string object = objectAt(change);
  if (object.empty()) return std::string(kCannotFetch);
  append(*change.at.file, argumentsOf(change.at), given(object));
  return "";
}

std::string LabelWriter::handToBase(const Change& change) {
  const LoweredFile& file = change.at.known() ? *change.at.file : *change.of->type.file;
  append(file, baseArgumentsOf(change), given(handed_.word));
  return "";
}

void LabelWriter::putFirst(const LoweredFile& file, TSNode around, TSNode body, const std::vector<std::string>& statements) {
  std::string newline(newlineOf(file)), indent = indentAt(file, ts_node_start_byte(around)), lines;
  for (const std::string& statement : statements) lines += newline + indent + unitOf(file) + statement;
  bool oneLine = ts_node_start_point(body).row == ts_node_end_point(body).row;
  std::string_view inside = trim(files_.tree(file).text(body));
  uint32_t open = ts_node_start_byte(body) + 1;
  if (!oneLine) return insert(file, behindRemark(file, open), lines);
  // { name = "" }: each on a line of its own.
  uint32_t close = ts_node_end_byte(body) - 1;
  std::string rest(trim(inside.substr(1, inside.size() - 2)));
  put(file, {open, close}, lines + (rest.empty() ? "" : newline + indent + unitOf(file) + rest) + newline + indent);
}

}  // namespace elmcart

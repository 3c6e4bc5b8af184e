#include "languages/harness.h"

#include <algorithm>

#include "base/text.h"

namespace elmcart {

std::vector<std::string> ProbePlan::declaring() const {
  std::vector<std::string> out{file};
  for (const ProbeFunction* function : {&call, &reach, &subscriber, &ends, &heard})
    for (Spot spot : {function->at, function->owner})
      if (spot.known() && std::find(out.begin(), out.end(), spot.file->path) == out.end()) out.push_back(spot.file->path);
  return out;
}

std::string HarnessWriter::inBrackets(const ProbeFunction& function, std::string& missing) const {
  std::string out;
  for (const ProbeParameter& parameter : function.parameters) {
    if (parameter.hasDefault) break;
    std::string value = madeUp(parameter);
    if (value.empty() && missing.empty()) missing = function.name + " needs " + (parameter.type.empty() ? "a parameter without a type" : parameter.type) + ", which cannot be made up";
    out += (out.empty() ? "" : ", ") + (value.empty() ? "FILL_IN" : value);
  }
  return function.isGetter ? "" : "(" + out + ")";
}

std::string HarnessWriter::callText(const ProbePlan& plan, std::string& missing, std::string& before) const {
  const ProbeFunction& function = plan.call;
  if (function.isFactory) return newObject(plan, function);
  std::string brackets = inBrackets(function, missing);
  if (!function.owner.known() || function.isStatic) return nameOf(plan, function) + brackets;
  std::string object = plan.reach.at.known() ? nameOf(plan, plan.reach) + inBrackets(plan.reach, missing) : plan.slot.empty() ? newObject(plan, function) : slotName(plan);
  before = keepObject(function, object);
  return (before.empty() ? object : std::string(kObject)) + std::string(memberMark()) + function.name + brackets;
}

std::string HarnessWriter::joined(std::string_view qualified, std::string_view separator) {
  std::string out;
  for (size_t i = 0; i < qualified.size(); ++i) {
    bool cut = qualified.compare(i, 2, "::") == 0;
    out += cut ? std::string(separator) : std::string(1, qualified[i]);
    i += cut;
  }
  return out;
}

bool HarnessWriter::atEndOf(Spot type, const std::string& member, std::vector<FileEdit>& edits) {
  std::string_view source = text(*type.file);
  uint32_t brace = type->span.end;
  while (brace > type->span.begin && source[brace - 1] != '}') --brace;
  if (brace == type->span.begin) return false;
  edits.push_back({type.file->path, {brace - 1, brace - 1}, member});
  return true;
}

std::string HarnessWriter::replaced(std::string text, std::string_view what, std::string_view by) {
  for (size_t at = text.find(what); at != std::string::npos; at = text.find(what, at + by.size())) text.replace(at, what.size(), by);
  return text;
}

void HarnessWriter::around(Spot expression, const std::string& before, const std::string& behind, std::vector<FileEdit>& edits) {
  Span span = expression->span;
  edits.push_back({expression.file->path, {span.begin, span.begin}, before});
  edits.push_back({expression.file->path, {span.end, span.end}, behind});
}

void HarnessWriter::widen(const ProbePlan& plan, std::vector<FileEdit>& edits) {
  for (Spot spot : plan.values) {
    const LoweredFile& file = *spot.file;
    std::string_view source = text(file);
    Span span = spot->span;
    bool changes = spot->kind == Kind::Update || spot->kind == Kind::Assign;
    if (!changes) {
      around(spot, gapCall(), ")", edits);
      continue;
    }
    std::string_view written = source.substr(span.begin, span.size());
    std::string_view target = source.substr(file[file.child(spot.node, Role::Target)].span.begin, file[file.child(spot.node, Role::Target)].span.size());
    size_t equals = written.find('=', target.size());
    std::string operation = written.find("--") == std::string_view::npos ? "+" : "-", operand = "1";
    if (equals != std::string_view::npos && written.starts_with(target)) {
      operation = trim(written.substr(target.size(), equals - target.size()));
      operand = "(" + std::string(trim(written.substr(equals + 1))) + ")";
    }
    while (operand.ends_with(";)")) operand.replace(operand.size() - 2, 2, ")");
    bool semicolon = written.ends_with(';');
    edits.push_back({file.path, span, std::string(target) + " = " + gapCall() + std::string(target) + " " + operation + " " + operand + ")" + (semicolon ? ";" : "")});
  }
}

void HarnessWriter::atBegin(Spot function, const std::string& statement, std::vector<FileEdit>& edits, std::initializer_list<std::string_view> behind) {
  const LoweredFile& file = *function.file;
  NodeId body = file.child(function.node, Role::Body);
  if (body == kNoNode) return;
  std::string_view source = text(file);
  Span span = file[body].span;
  NodeId first = file[body].firstChild;
  bool brackets = source[span.begin] == '{';
  uint32_t at = brackets ? span.begin + 1 : first == kNoNode ? span.begin : file[first].span.begin;
  if (first != kNoNode)
    for (std::string_view begins : behind)
      if (source.substr(file[first].span.begin).starts_with(begins)) {
        at = file[first].span.end;
        if (size_t semicolon = source.find(';', at); brackets && semicolon < file[first].span.end + 2) at = static_cast<uint32_t>(semicolon + 1);
      }
  if (brackets) return edits.push_back({file.path, {at, at}, " " + statement});
  // On a line of its own, where what follows stands on one.
  uint32_t line = at;
  while (line > 0 && source[line - 1] != '\n') --line;
  std::string_view indent = source.substr(line, at - line);
  bool ownLine = trim(indent).empty();
  edits.push_back({file.path, {at, at}, statement + (ownLine ? "\n" + std::string(indent) : "; ")});
}

}  // namespace elmcart

#include "rework/parameter.h"

#include "assess/facts.h"
#include "base/text.h"
#include "rework/writing.h"

namespace elmcart {

bool holdsWord(std::string_view text, std::string_view word) {
  for (size_t at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1))
    if ((at == 0 || !isWordByte(text[at - 1])) && (at + word.size() >= text.size() || !isWordByte(text[at + word.size()]))) return true;
  return false;
}

void appendParameter(const Program& p, SourceScan& scan, FileIndex file, uint32_t open, uint32_t close, const std::string& parameter, std::vector<FileEdit>& edits) {
  std::string_view source = scan.text(file), list = source.substr(open + 1, close - open - 2);
  uint32_t at = close - 1;
  while (at > open + 1 && (source[at - 1] == ' ' || source[at - 1] == '\n' || source[at - 1] == '\r' || source[at - 1] == '\t' || source[at - 1] == ',')) --at;
  // One a line, where they stand so.
  std::string apart = trim(list).empty() ? "" : ", ";
  if (!apart.empty() && list.find('\n') != std::string_view::npos) {
    uint32_t line = scan.lineBegin(file, at), word = line;
    while (source[word] == ' ' || source[word] == '\t') ++word;
    apart = "," + scan.newlineOf(file) + std::string(source.substr(line, word - line));
  }
  edits.push_back({p.files[file].path, {at, at}, apart + parameter});
}

std::string addOptionalParameter(const Program& p, SourceScan& scan, const Handing& h, FunctionIndex f, const std::string& name, const std::string& type, std::vector<FileEdit>& edits) {
  Place place = p.functions[f].definition;
  std::string_view source = scan.text(place.file);
  const Node& node = p.node(place);
  uint32_t above = scan.lineBegin(place.file, node.span.begin);
  if (above > 0 && trim(source.substr(scan.lineBegin(place.file, above - 1), above - scan.lineBegin(place.file, above - 1))).substr(0, 1) == "@") return functionText(p, f) + " is marked: what calls it may not be in this tree";
  std::string_view head = source.substr(node.span.begin, std::min(source.find('(', node.nameBegin), source.size()) - node.span.begin);
  if ((p.functions[f].modifiers & kOverride) || holdsWord(head, "override") || holdsWord(head, "required")) return functionText(p, f) + " stands for one of a base or an interface, whose parameters are not its own choice";
  uint32_t close = scan.parameterListEnd(place);
  size_t open = close == 0 ? std::string_view::npos : source.find('(', node.nameBegin);
  if (open == std::string_view::npos || open >= close) return "the parameters of " + functionText(p, f) + " could not be read";
  std::string_view list = source.substr(open + 1, close - open - 2);
  for (std::string_view rest : {"...", "*", "params ", "vararg "})
    if (list.find(rest) != std::string_view::npos) return functionText(p, f) + " takes any number of arguments";
  if (h.functionParameter[0] == '[' && list.find_first_of("[{") != std::string_view::npos) return functionText(p, f) + " has parameters that may be left out already";
  if (h.functionParameter.find("{type}") != std::string_view::npos && !holdsWord(source, type)) return "the file does not name the class " + type + ": import it first";
  appendParameter(p, scan, place.file, static_cast<uint32_t>(open), close, filled(h.functionParameter, {{"name", name}, {"type", type}}), edits);
  return "";
}

}  // namespace elmcart

#include "source/list_layout.h"

#include <algorithm>

#include "base/text.h"
#include "source/lines.h"

namespace elmcart {
namespace {

// Short lines tell nothing, and a few very long ones no more.
size_t fullLine(std::string_view source) {
  size_t longest = 0;
  for (size_t begin = 0; begin < source.size();) {
    size_t end = std::min(source.find('\n', begin), source.size());
    longest = std::max(longest, end - begin);
    begin = end + 1;
  }
  return longest < 72 ? 100 : std::clamp<size_t>(longest, 80, 120);
}

// A comma and blanks, with a line end among them.
bool isLineSeparator(std::string_view text) {
  return std::count(text.begin(), text.end(), ',') == 1 && text.find('\n') != std::string_view::npos && text.find_first_not_of(", \t\r\n") == std::string_view::npos;
}

std::string_view between(std::string_view source, const Span& a, const Span& b) { return source.substr(a.end, b.begin - a.end); }

bool isOneALine(std::string_view source, std::span<const Span> items) {
  if (items.size() < 2) return false;
  for (size_t i = 1; i < items.size(); ++i)
    if (!isLineSeparator(between(source, items[i - 1], items[i]))) return false;
  return true;
}

// In the column of an item: what its line begins with, and blanks in the place of all else.
std::string columnOf(std::string_view source, size_t at) {
  size_t begin = lineBeginOf(source, at);
  std::string out(source.substr(begin, at - begin));
  for (char& c : out)
    if (c != '\t') c = ' ';
  return out;
}

// The columns that a text takes up to `end`, from the beginning of its line.
size_t width(std::string_view source, size_t end) { return end - lineBeginOf(source, end); }

}  // namespace

std::string separatorBehind(std::string_view source, std::span<const Span> items, size_t length) {
  if (items.empty()) return "";
  const Span& last = items.back();
  if (isOneALine(source, items)) return std::string(between(source, items[items.size() - 2], last));
  size_t full = fullLine(source), behind = std::min(source.find_first_of(")}]\n", last.end), source.size()) + 1 - last.end;
  if (width(source, last.end) + 2 + length + behind <= full || width(source, std::min(source.find('\n', last.end), source.size())) > full) return ", ";
  // Where its lines go on already, there; else below its first item, or two steps in where that is too far to the right.
  std::string column;
  for (size_t i = 1; i < items.size() && column.empty(); ++i)
    if (trim(source.substr(lineBeginOf(source, items[i].begin), items[i].begin - lineBeginOf(source, items[i].begin))).empty()) column = columnOf(source, items[i].begin);
  if (column.empty()) column = columnOf(source, items.front().begin);
  if (column.size() + length + behind > full || column.find('\t') != std::string::npos) {
    std::string_view line = source.substr(lineBeginOf(source, items.front().begin));
    std::string indent(line.substr(0, std::min(line.find_first_not_of(" \t"), line.size())));
    column = indent + (indent.ends_with('\t') ? "\t\t" : "    ");
  }
  return "," + std::string(lineEndOf(source)) + column;
}

std::string separatorInFront(std::string_view source, std::span<const Span> items, size_t length) {
  if (items.empty()) return "";
  if (isOneALine(source, items)) return std::string(between(source, items[0], items[1]));
  const Span& first = items.front();
  size_t lineEnd = std::min(source.find('\n', first.begin), source.size());
  if (width(source, lineEnd) + 2 + length <= fullLine(source) || width(source, lineEnd) > fullLine(source)) return ", ";
  return "," + std::string(lineEndOf(source)) + columnOf(source, first.begin);
}

}  // namespace elmcart

#include "report/layout.h"

#include <fmt/format.h>

#include <algorithm>

#include "base/text.h"

namespace elmcart {
size_t columns(std::string_view text) {
  size_t count = 0;
  for (unsigned char c : text) count += (c & 0xC0) != 0x80;
  return count;
}

std::string cut(const std::string& text, size_t width) {
  size_t total = columns(text);
  if (total <= width) return text;
  size_t skip = total - width + 1, at = 0;
  while (at < text.size() && skip > 0) {
    ++at;
    while (at < text.size() && (static_cast<unsigned char>(text[at]) & 0xC0) == 0x80) ++at;
    --skip;
  }
  return "…" + text.substr(at);
}

std::string cutEnd(const std::string& text, size_t width) {
  if (columns(text) <= width) return text;
  size_t at = 0;
  for (size_t count = 0; at < text.size(); ++at)
    if ((static_cast<unsigned char>(text[at]) & 0xC0) != 0x80 && ++count == width) break;
  return text.substr(0, at) + "…";
}

std::string painted(const TextStyle& style, const char* code, std::string_view text) {
  return style.colour ? fmt::format("\x1b[{}m{}\x1b[0m", code, text) : std::string(text);
}
std::string strong(const TextStyle& style, std::string_view text) { return painted(style, "1", text); }
std::string faint(const TextStyle& style, std::string_view text) { return painted(style, "2", text); }
std::string riskPaint(const TextStyle& style, int risk, std::string_view text) { return painted(style, risk >= 50 ? "1;31" : risk >= 25 ? "33" : "36", text); }

std::string at(const Program& p, Place place) { return p.path(place) + ":" + std::to_string(p.line(place)); }

std::string wrapped(std::string_view text, size_t width, size_t indent) {
  std::string out;
  size_t column = indent;
  while (!text.empty()) {
    size_t space = text.find(' ');
    std::string_view word = text.substr(0, space);
    if (column > indent && column + 1 + columns(word) > width) {
      out += "\n" + std::string(indent, ' ');
      column = indent;
    } else if (column > indent) {
      out += ' ';
      ++column;
    }
    out += word;
    column += columns(word);
    text = space == std::string_view::npos ? std::string_view{} : text.substr(space + 1);
  }
  return out;
}

std::string tableText(const std::vector<std::vector<std::string>>& rows, const TextStyle& style, const std::vector<size_t>& flexible) {
  if (rows.empty()) return "";
  std::vector<size_t> widths(rows[0].size());
  for (const auto& row : rows)
    for (size_t i = 0; i < row.size(); ++i) widths[i] = std::max(widths[i], columns(row[i]));
  size_t total = 2 * (widths.size() - 1);
  for (size_t w : widths) total += w;
  while (style.cut && total > static_cast<size_t>(style.width)) {
    auto widest = std::max_element(flexible.begin(), flexible.end(), [&](size_t x, size_t y) { return widths[x] < widths[y]; });
    if (widest == flexible.end() || widths[*widest] <= 14) break;
    --widths[*widest];
    --total;
  }
  std::string out;
  for (size_t r = 0; r < rows.size(); ++r) {
    std::string line;
    for (size_t i = 0; i < rows[r].size(); ++i) {
      std::string cell = cut(rows[r][i], widths[i]);
      line += cell;
      if (i + 1 < rows[r].size()) line += std::string(widths[i] - columns(cell) + 2, ' ');
    }
    out += (r == 0 ? strong(style, line) : line) + "\n";
  }
  return out;
}

}  // namespace elmcart

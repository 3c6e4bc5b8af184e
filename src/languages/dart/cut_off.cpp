#include "languages/dart/cut_off.h"

#include <algorithm>
#include <vector>

#include "base/text.h"

namespace elmcart::dart {
namespace {

// What has to stand behind the end of a file that is cut off: the ends of its
// open strings, of the expressions in them (16.5) and of a comment.
std::string openEnds(std::string_view text) {
  struct Frame {
    std::string quote;  // empty: code, the whole file's or that of an expression in a string
    bool raw = false;
    int braces = 0;
  };
  std::vector<Frame> frames(1);
  auto at = [&](size_t i, std::string_view what) { return text.compare(i, what.size(), what) == 0; };
  for (size_t i = 0; i < text.size();) {
    Frame& frame = frames.back();
    if (!frame.quote.empty()) {
      if (!frame.raw && text[i] == '\\') {
        i += 2;
      } else if (!frame.raw && at(i, "${")) {
        frames.emplace_back();
        i += 2;
      } else if (at(i, frame.quote)) {
        i += frame.quote.size();
        frames.pop_back();
      } else {
        if (text[i] == '\n' && frame.quote.size() == 1) frames.pop_back();  // such a string ends with its line
        ++i;
      }
    } else if (at(i, "//")) {
      i = std::min(text.find('\n', i), text.size());
    } else if (at(i, "/*")) {
      size_t end = text.find("*/", i + 2);
      if (end == std::string_view::npos) return "*/";
      i = end + 2;
    } else if (text[i] == '\'' || text[i] == '"') {
      bool triple = i + 2 < text.size() && text[i + 1] == text[i] && text[i + 2] == text[i];
      bool raw = i > 0 && text[i - 1] == 'r' && (i == 1 || !isWordByte(text[i - 2]));
      frames.push_back({std::string(triple ? 3 : 1, text[i]), raw, 0});
      i += triple ? 3 : 1;
    } else {
      if (text[i] == '{') ++frame.braces;
      if (text[i] == '}' && --frame.braces < 0) {
        frame.braces = 0;
        if (frames.size() > 1) frames.pop_back();
      }
      ++i;
    }
    if (frames.size() > 200) break;
  }
  std::string out;
  for (size_t i = frames.size(); i-- > 1;) out += frames[i].quote.empty() ? "}" : frames[i].quote;
  return out;
}

}  // namespace

std::string missingEnd(std::string_view text) {
  std::string out = openEnds(text);
  if (!out.empty()) return out + "\n;";
  while (!text.empty()) {
    size_t start = text.rfind('\n') == std::string_view::npos ? 0 : text.rfind('\n') + 1;
    std::string_view line = text.substr(start);
    line = trim(line.substr(0, line.find("//")));
    if (!line.empty()) return line.back() != '}' && line.back() != ';' && line.back() != '/' ? "\n;" : "";
    text = text.substr(0, start == 0 ? 0 : start - 1);
  }
  return "";
}

void endAt(LoweredFile& file) {
  for (Node& node : file.nodes) {
    if (node.kind == Kind::Unread && node.span.end > file.textSize) file.unreadBytes -= std::min(file.unreadBytes, node.span.end - std::max(node.span.begin, file.textSize));
    node.span.begin = std::min(node.span.begin, file.textSize);
    node.span.end = std::min(node.span.end, file.textSize);
  }
}

}  // namespace elmcart::dart

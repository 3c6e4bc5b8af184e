#include "assess/excerpts.h"

#include <vector>

#include "assess/examples.h"
#include "base/text.h"
#include "program/load.h"

namespace elmcart {
namespace {

constexpr size_t kLongest = 70;   // lines: more is no example
constexpr size_t kShortest = 4;

// Where the comments of the line begin that state what is found there; npos: nowhere.
size_t marksBegin(std::string_view line) {
  size_t first = std::string_view::npos;
  for (std::string_view sign : {"//", "#"})
    for (size_t at = line.find(sign); at != std::string_view::npos; at = line.find(sign, at + 1)) {
      std::string_view rest = trim(line.substr(at + sign.size()));
      for (std::string_view word : {"finding:", "near:", "entity:", "harmless:"})
        if (rest.substr(0, word.size()) == word) first = std::min(first, at);
    }
  return first;
}

// Is the check among the words behind that mark?
bool states(std::string_view line, std::string_view mark, std::string_view check) {
  size_t from = marksBegin(line);
  for (size_t at = from == std::string_view::npos ? from : line.find(mark, from); at != std::string_view::npos; at = line.find(mark, at + 1)) {
    std::string_view words = line.substr(at + mark.size());
    words = words.substr(0, words.find_first_of("/#"));
    for (size_t found = words.find(check); found != std::string_view::npos; found = words.find(check, found + 1)) {
      size_t end = found + check.size();
      if (end == words.size() || words[end] == ' ' || words[end] == '\r') return true;
    }
  }
  return false;
}

std::string_view withoutMarks(std::string_view line) {
  size_t at = marksBegin(line);
  if (at == std::string_view::npos) return line;
  line = line.substr(0, at);
  while (!line.empty() && (line.back() == ' ' || line.back() == '\t')) line.remove_suffix(1);
  return line;
}

// The lines (0-based, the end excluded) of the declaration around a line that stands in
// no other but in a namespace.
std::pair<size_t, size_t> declarationAround(const LoweredFile& file, size_t line) {
  // Of several the smallest; a file's own code, which may lie around all of it, does not count.
  NodeId at = kNoNode;
  std::vector<NodeId> open = {0};
  for (size_t i = 0; i < open.size(); ++i)
    for (NodeId c : children(file, open[i])) {
      const Node& node = file[c];
      if (node.kind == Kind::Namespace) open.push_back(c);
      if (node.kind == Kind::Namespace || node.is(Kind::Function, FunctionForm::Initialiser) || node.span.size() == 0) continue;
      size_t first = file.lineOf(node.span.begin) - 1, last = file.lineOf(node.span.end - 1) - 1;
      if (line >= first && line <= last && (at == kNoNode || node.span.size() < file[at].span.size())) at = c;
    }
  if (at == kNoNode) return {line, line + 1};
  return {file.lineOf(file[at].span.begin) - 1, file.lineOf(file[at].span.end - 1)};
}

bool isComment(std::string_view line, bool hash) {
  line = trim(line);
  return hash ? line.substr(0, 1) == "#" : line.substr(0, 2) == "//" || line.substr(0, 3) == "/**" || line.substr(0, 1) == "*";
}

}  // namespace

std::optional<Excerpt> excerptOf(std::string_view check, std::string_view language, bool failing) {
  bool hash = language == "python";
  std::optional<Excerpt> best;
  // By how far it is from the lines that make a good example, then by its lines.
  std::pair<size_t, size_t> bestRank = {SIZE_MAX, SIZE_MAX};
  for (const SampleFile& sample : sampleFiles()) {
    if (sample.language != language || sample.text.find(check) == std::string_view::npos) continue;
    std::vector<std::string> lines = splitLines(sample.text);
    std::optional<LoweredFile> file;
    for (size_t i = 0; i < lines.size(); ++i) {
      if (!states(lines[i], failing ? "finding:" : "near:", check)) continue;
      if (!file) file = lowerText(sample.path, sample.text);
      auto [first, last] = declarationAround(*file, i);
      // From the comment on that begins the theme: what the declaration needs stands between.
      std::string_view indent = std::string_view(lines[first]).substr(0, lines[first].find_first_not_of(" \t"));
      for (size_t up = first; up > 0 && last - up <= kLongest; --up) {
        // What opens around them and is not closed again is no part of the theme.
        if (lines[up - 1].find_first_not_of(" \t") < indent.size() || lines[up - 1].rfind("namespace", 0) == 0) break;
        bool begins = isComment(lines[up - 1], hash) && lines[up - 1].find_first_not_of(" \t") == indent.size() && (up == 1 || trim(lines[up - 2]).empty() || isComment(lines[up - 2], hash));
        if (!begins) continue;
        first = up - 1;
        while (first > 0 && isComment(lines[first - 1], hash)) --first;
        break;
      }
      size_t count = last - first;
      std::pair<size_t, size_t> rank = {count < kShortest ? kShortest - count : count > kLongest ? count : 0, count};
      if (rank >= bestRank) continue;
      Excerpt out;
      out.path = sample.path;
      for (size_t k = first; k < last && k < lines.size(); ++k) {
        std::string_view line = withoutMarks(lines[k]);
        out.text += line.size() >= indent.size() && line.substr(0, indent.size()) == indent ? line.substr(indent.size()) : trim(line);
        if (k == i) out.text += std::string("  ") + (hash ? "#" : "//") + (failing ? " <- reported here" : " <- not reported");
        out.text += "\n";
      }
      best = std::move(out);
      bestRank = rank;
    }
  }
  return best;
}

}  // namespace elmcart

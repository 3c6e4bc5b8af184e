#include "rework/writing.h"

#include <algorithm>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/parameter.h"

namespace elmcart {

std::string filled(std::string_view pattern, const std::vector<std::pair<std::string_view, std::string>>& words) {
  std::string out;
  for (size_t at = 0; at < pattern.size();) {
    bool put = false;
    for (auto& [word, value] : words) {
      if (pattern.compare(at, word.size() + 2, "{" + std::string(word) + "}") != 0) continue;
      out += value;
      at += word.size() + 2;
      put = true;
      break;
    }
    if (!put) out += pattern[at++];
  }
  return out;
}

std::string laidOut(SourceScan& scan, const std::string& text, FileIndex file, const std::string& indent, const std::string& unit) {
  std::string out, line;
  auto end = [&] {
    if (!trim(line).empty()) out += line;
    line.clear();
  };
  for (char c : text) {
    if (c == '\r') continue;
    if (c == '\n') {
      end();
      out += scan.newlineOf(file);
      line = indent;
    } else if (c == '\t') {
      line += unit;
    } else {
      line += c;
    }
  }
  // What follows may go on in the last line.
  return out + line;
}

size_t behindDocumentingText(std::string_view source, size_t at) {
  std::string_view quote = source.substr(at, 3);
  if (quote != "\"\"\"" && quote != "'''") return at;
  size_t close = source.find(quote, at + 3);
  return close == std::string_view::npos ? close : close + 3;
}

std::string plainName(const Program& p, TypeIndex type) {
  std::string name(p.text(p.types[type].name));
  return name.substr(0, name.find('@'));
}

TypeIndex typeBeside(const Program& p, TypeIndex type, const std::string& name) {
  for (TypeIndex t = 0; t < p.types.size(); ++t)
    if (p.types[t].definition.known() && p.types[t].parent == p.types[type].parent && plainName(p, t) == name) return t;
  return kNone;
}

std::string fileBeside(const Program& p, Place other, const std::string& name) {
  const std::string& path = p.path(other);
  return path.substr(0, path.rfind('/') + 1) + name + path.substr(path.rfind('.'));
}

std::string memberIndent(const Program& p, SourceScan& scan, TypeIndex type) {
  Place definition = p.types[type].definition;
  std::string outer = scan.indentOf(definition);
  for (NodeId c : children(p.file(definition), definition.node)) {
    Kind kind = p.file(definition)[c].kind;
    if ((kind != Kind::Function && kind != Kind::Variable) || p.file(definition)[c].role != Role::Member) continue;
    std::string indent = scan.indentOf({definition.file, c});
    if (indent.size() > outer.size()) return indent;
  }
  for (FunctionIndex m : p.types[type].methods) {
    std::string indent = scan.indentOf(p.functions[m].declarations.front());
    if (indent.size() > outer.size()) return indent;
  }
  return outer + "    ";
}

std::string unitIndent(const Program& p, SourceScan& scan, TypeIndex type) {
  std::string inner = memberIndent(p, scan, type), outer = scan.indentOf(p.types[type].definition);
  return inner.size() > outer.size() ? inner.substr(outer.size()) : "    ";
}

void importLine(const Program& p, SourceScan& scan, FileIndex f, const std::string& line, std::vector<FileEdit>& edits) {
  std::string_view source = scan.text(f);
  size_t quoted = line.find('"');
  if (source.find(quoted == std::string::npos ? line : line.substr(quoted)) != std::string_view::npos) return;
  // Behind the last line that begins as such lines do, or behind the file's package.
  std::string word = line.substr(0, line.find(' ') + 1);
  size_t last = std::string_view::npos, home = std::string_view::npos, from = std::string_view::npos;
  size_t top = source.substr(0, 3) == "\xEF\xBB\xBF" ? 3 : 0;
  for (size_t begin = top; begin < source.size();) {
    size_t end = std::min(source.find('\n', begin), source.size());
    std::string_view text = source.substr(begin, end - begin);
    if (text.substr(0, word.size()) == word) {
      last = end;
      // An import in brackets ends with them.
      if (trim(text).size() > 0 && trim(text).back() == '(') last = std::min(source.find('\n', source.find(')', end)), source.size());
    }
    if (text.substr(0, 8) == "package ") home = end;
    if (text.substr(0, 5) == "from " && from == std::string_view::npos) from = begin;
    begin = end + 1;
  }
  std::string newline = scan.newlineOf(f);
  const std::string& path = p.files[f].path;
  auto put = [&](size_t at, const std::string& text) { edits.push_back({path, {static_cast<uint32_t>(at), static_cast<uint32_t>(at)}, text}); };
  auto back = [&](size_t end) { return end > 0 && source[end - 1] == '\r' ? end - 1 : end; };
  if (last != std::string_view::npos) put(back(last), newline + line);
  else if (from != std::string_view::npos) put(from, line + newline);
  else if (home != std::string_view::npos) put(back(home), newline + newline + line);
  else {
    // Behind a text that documents the file.
    size_t at = behindDocumentingText(source, top);
    if (at == std::string_view::npos) at = top;
    if (at > top) at = std::min(source.find('\n', at), source.size() - 1) + 1;
    put(at, at > top ? newline + line + newline : line + newline + newline);
  }
}

std::string nameBeside(const Program& p, SourceScan& scan, FileIndex f, const std::string& name, const std::string& other, std::vector<FileEdit>& edits) {
  std::string_view source = scan.text(f);
  for (size_t begin = 0; begin < source.size();) {
    size_t end = std::min(source.find('\n', begin), source.size());
    std::string_view line = source.substr(begin, end - begin);
    bool imports = trim(line).substr(0, 7) == "import " || trim(line).substr(0, 5) == "from ";
    if (imports && holdsWord(line, other)) return "";
    if (imports && holdsWord(line, name)) {
      size_t at = line.rfind(name);
      // "./tides/TideTable" names a file.
      if (size_t path = line.find_first_of("'\""); path != std::string_view::npos && at > path) at = line.substr(0, path).rfind(name);
      bool braces = at != std::string_view::npos && line.find('{') != std::string_view::npos && at > line.find('{');
      bool listed = at != std::string_view::npos && trim(line).substr(0, 5) == "from " && at > line.find(" import ");
      if (!braces && !listed) return p.files[f].path + " names the class in an import of its own: name " + other + " there too";
      uint32_t behind = static_cast<uint32_t>(begin + at + name.size());
      for (const FileEdit& edit : edits)
        if (edit.path == p.files[f].path && edit.span.begin == behind && edit.text == ", " + other) return "";
      edits.push_back({p.files[f].path, {behind, behind}, ", " + other});
      return "";
    }
    begin = end + 1;
  }
  return "";
}

std::string wordForObject(const Program& p, SourceScan& scan, Place function) {
  std::string out;
  forEachNode(p.file(function), function.node, [&](NodeId n) {
    const Node& node = p.file(function)[n];
    if (out.empty() && node.kind == Kind::This && node.span.size() > 0) out = scan.nodeText({function.file, n});
  });
  return out;
}

std::string objectNamedInFront(const Program& p, SourceScan& scan, Place function) {
  const Node& node = p.node(function);
  std::string_view head = scan.text(function.file).substr(node.span.begin, node.nameBegin - node.span.begin);
  size_t open = head.find('('), space = head.find(' ', open);
  if (open == std::string_view::npos || space == std::string_view::npos || head.find(')') < space) return "";
  return std::string(head.substr(open + 1, space - open - 1));
}

std::string unitOfFile(SourceScan& scan, FileIndex f) {
  std::string_view source = scan.text(f);
  size_t least = std::string_view::npos;
  for (size_t line = 0; line < source.size(); line = std::min(source.find('\n', line), source.size()) + 1) {
    if (source[line] == '\t') return "\t";
    size_t blanks = std::min(source.find_first_not_of(' ', line), source.size()) - line;
    // " * …" goes on with a comment, and one blank is nobody's unit.
    bool code = line + blanks < source.size() && source[line + blanks] != '*' && source[line + blanks] != '\n' && source[line + blanks] != '\r';
    if (blanks > 1 && code) least = std::min(least, blanks);
  }
  return std::string(least == std::string_view::npos ? 4 : least, ' ');
}

uint32_t bodyLinesBegin(const Program& p, SourceScan& scan, Place body) {
  std::string_view source = scan.text(body.file);
  uint32_t from = p.node(body).span.begin;
  if (source[from] == '{') {
    ++from;
    while (from < source.size() && (source[from] == ' ' || source[from] == '\t' || source[from] == '\r')) ++from;
    if (from < source.size() && source[from] == '\n') ++from;
  } else {
    from = scan.lineBegin(body.file, from);
  }
  // A documenting text stays in front.
  if (size_t first = source.find_first_not_of(" \t", from); first != std::string_view::npos)
    if (size_t behind = behindDocumentingText(source, first); behind != first && behind != std::string_view::npos) from = static_cast<uint32_t>(source.find('\n', behind) + 1);
  return from;
}

std::string insertFirst(const Program& p, SourceScan& scan, Place body, const std::string& statement, std::vector<FileEdit>& edits) {
  std::string_view source = scan.text(body.file);
  const Node& node = p.node(body);
  std::string_view whole = source.substr(node.span.begin, node.span.size());
  bool braces = source[node.span.begin] == '{';
  if (braces && whole.find('\n') == std::string_view::npos) {
    std::string_view inside = trim(whole.substr(1, whole.size() - 2));
    if (statement.find('\n') != std::string::npos) {
      // Several lines, so all of them stand on lines of their own.
      Place function = p.parent(body);
      std::string outer = scan.indentOf(function), unit = outer.empty() || outer[0] == '\t' ? unitOfFile(scan, body.file) : outer;
      if (TypeIndex owner = p.symbolAt(function).is(Symbol::Sort::Function) ? p.functions[p.symbolAt(function).index()].owner : kNone; owner != kNone && !outer.empty()) unit = unitIndent(p, scan, owner);
      std::string newline = scan.newlineOf(body.file), inner = outer + unit;
      edits.push_back({p.path(body), {node.span.begin + 1, node.span.end - 1}, newline + inner + laidOut(scan, statement, body.file, inner, unit) + (inside.empty() ? "" : newline + inner + std::string(inside)) + newline + outer});
      return "";
    }
    bool ended = statement.back() == ';' || statement.back() == '}';
    edits.push_back({p.path(body), {node.span.begin + 1, node.span.begin + 1}, " " + statement + (inside.empty() ? " " : ended ? "" : ";")});
    return "";
  }
  Place around = p.parent(body);
  std::string outer = scan.indentOf(around), inner, unit = unitOfFile(scan, body.file);
  for (NodeId c : children(p.file(body), body.node)) {
    inner = scan.indentOf({body.file, c});
    break;
  }
  if (inner.size() > outer.size()) unit = inner.substr(outer.size());
  else inner = outer + unit;
  uint32_t at = bodyLinesBegin(p, scan, body);
  if (!braces && at <= p.node(around).nameBegin) return "its body stands on one line";
  edits.push_back({p.path(body), {at, at}, inner + laidOut(scan, statement, body.file, inner, unit) + scan.newlineOf(body.file)});
  return "";
}

void wrapLines(SourceScan& scan, FileIndex f, Span lines, const std::string& indent, const std::string& unit, const std::string& head, std::string_view end, std::vector<FileEdit>& edits) {
  std::string newline = scan.newlineOf(f), shifted;
  std::vector<std::string> inside = splitLines(std::string(scan.text(f).substr(lines.begin, lines.size())));
  for (const std::string& line : inside) shifted += (trim(line).empty() ? "" : unit + std::string(line.substr(0, line.find_last_not_of("\r") + 1))) + newline;
  std::string tail = end.empty() ? "" : indent + std::string(end) + newline;
  edits.push_back({scan.pathOf(f), lines, indent + laidOut(scan, head, f, indent, unit) + newline + shifted + tail});
}

bool addMembers(const Program& p, SourceScan& scan, TypeIndex type, const std::string& field, const std::string& constructor, const std::string& indent, std::vector<FileEdit>& edits) {
  Place definition = p.types[type].definition;
  std::string newline = scan.newlineOf(definition.file);
  auto insert = [&](uint32_t at, const std::string& text) { edits.push_back({p.path(definition), {at, at}, text}); };
  uint32_t open = scan.bodyOpen(type);
  if (open >= p.node(definition).span.end) return false;
  // Among the fields that stand first; a constructor behind them.
  std::vector<std::pair<uint32_t, Place>> leading;
  uint32_t firstOther = p.node(definition).span.end;
  auto other = [&](Place place) {
    if (place.file == definition.file && p.node(definition).span.contains(p.node(place).span.begin)) firstOther = std::min(firstOther, p.node(place).span.begin);
  };
  for (FunctionIndex m : p.types[type].methods) other(p.functions[m].declarations.front());
  for (NodeId c : children(p.file(definition), definition.node))
    if (p.file(definition)[c].kind == Kind::Type) other({definition.file, c});
  for (const std::vector<VariableIndex>* list : {&p.types[type].fields, &p.types[type].statics})
    for (VariableIndex v : *list) {
      Place place = p.variables[v].declarations.front();
      if (place.file == definition.file && p.node(place).span.begin > open && p.node(place).span.begin < firstOther) leading.emplace_back(p.node(place).span.end, place);
    }
  std::sort(leading.begin(), leading.end(), [](const auto& x, const auto& y) { return x.first < y.first; });
  if (leading.empty()) {
    std::string text;
    if (!field.empty()) text += newline + indent + field + (constructor.empty() ? newline : newline + newline);
    else text += newline;
    if (!constructor.empty()) text += indent + constructor + newline;
    insert(open + 1, text);
    return true;
  }
  if (!field.empty()) insert(open + 1, newline + indent + field);
  if (!constructor.empty()) insert(scan.contentEnd(definition.file, leading.back().first), newline + newline + indent + constructor);
  return true;
}

void appendItem(const Program& p, SourceScan& scan, FileIndex file, Span list, const std::string& item, std::vector<FileEdit>& edits) {
  std::string_view source = scan.text(file), inside = source.substr(list.begin, list.size());
  std::string_view content = trim(inside);
  auto put = [&](uint32_t at, std::string text) { edits.push_back({p.files[file].path, {at, at}, std::move(text)}); };
  if (content.empty()) return put(list.begin, item);
  uint32_t end = list.begin + static_cast<uint32_t>(inside.find_last_not_of(" \t\r\n")) + 1;
  bool comma = content.back() == ',';
  if (inside.find('\n') == std::string_view::npos) return put(end, (comma ? " " : ", ") + item + (comma ? "," : ""));
  // One a line, as they stand.
  uint32_t begin = scan.lineBegin(file, end), word = begin;
  while (source[word] == ' ' || source[word] == '\t') ++word;
  put(end, (comma ? "" : ",") + scan.newlineOf(file) + std::string(source.substr(begin, word - begin)) + item + (comma ? "," : ""));
}

std::optional<Span> declarationLines(const Program& p, SourceScan& scan, Place place) {
  std::string_view source = scan.text(place.file);
  const Node& node = p.node(place);
  uint32_t begin = scan.lineBegin(place.file, node.span.begin), end = node.span.end;
  while (end < source.size() && source[end] != '\n') ++end;
  std::string_view line = trim(source.substr(begin, end - begin));
  // One declaration on its lines: one end of a statement, nothing of another.
  size_t statements = static_cast<size_t>(std::count(line.begin(), line.end(), ';'));
  if (statements > 1 || line.find('}') != std::string_view::npos) return std::nullopt;
  int depth = 0;
  for (char c : line) {
    if (c == '<' || c == '(' || c == '[' || c == '{') ++depth;
    if (c == '>' || c == ')' || c == ']' || c == '}') --depth;
    if (c == ',' && depth <= 0) return std::nullopt;
  }
  if (end < source.size()) ++end;
  // The comment that belongs to it, and of two blank lines that would meet one.
  begin = scan.withLinesAbove(place.file, begin, {"//", "/*", "*"});
  auto blankAt = [&](uint32_t at) {
    size_t stop = std::min(source.find('\n', at), source.size());
    return at < source.size() && trim(source.substr(at, stop - at)).empty();
  };
  std::string_view above = begin > 0 ? trim(source.substr(scan.lineBegin(place.file, begin - 1), begin - scan.lineBegin(place.file, begin - 1))) : std::string_view{};
  bool openAbove = begin > 0 && (above.empty() || above.back() == '{' || above.back() == ':');
  if (openAbove && blankAt(end)) end = static_cast<uint32_t>(std::min(source.find('\n', end) + 1, source.size()));
  return Span{begin, end};
}

}  // namespace elmcart

#include "rework/source_scan.h"

#include <algorithm>
#include <set>

#include "base/text.h"
#include "source/lines.h"
#include "source/walk.h"

namespace elmcart {

std::string_view SourceScan::text(FileIndex file) {
  auto found = texts_.find(file);
  if (found == texts_.end()) {
    auto read = readWhole(p_.root + "/" + p_.files[file].path);
    found = texts_.emplace(file, read ? std::move(*read) : std::string()).first;
  }
  return found->second;
}

std::string SourceScan::nodeText(Place place) { return std::string(text(place.file).substr(p_.node(place).span.begin, p_.node(place).span.size())); }

uint32_t SourceScan::withLinesAbove(FileIndex file, uint32_t begin, std::initializer_list<std::string_view> heads) {
  std::string_view source = text(file);
  while (begin > 0) {
    uint32_t above = lineBegin(file, begin - 1);
    std::string_view line = trim(source.substr(above, begin - above));
    if (std::none_of(heads.begin(), heads.end(), [&](std::string_view head) { return line.substr(0, head.size()) == head; })) break;
    begin = above;
  }
  return begin;
}

bool SourceScan::inComment(FileIndex file, uint32_t offset) const {
  for (Span span : p_.files[file].comments)
    if (span.contains(offset)) return true;
  return false;
}

uint32_t SourceScan::parameterListEnd(Place function) {
  std::string_view source = text(function.file);
  const LoweredFile& file = p_.file(function);
  const Node& node = file[function.node];
  uint32_t at = node.nameBegin + static_cast<uint32_t>(lastPart(file.name(function.node)).size());
  while (at < source.size() && source[at] != '(') ++at;
  int depth = 0;
  for (; at < source.size() && at < node.span.end; ++at) {
    if (inComment(function.file, at)) continue;
    char c = source[at];
    if (c == '"' || c == '\'') {
      for (++at; at < source.size() && source[at] != c; ++at)
        if (source[at] == '\\') ++at;
      continue;
    }
    if (c == '(') ++depth;
    if (c == ')' && --depth == 0) return at + 1;
  }
  return 0;
}

uint32_t SourceScan::lineBegin(FileIndex file, uint32_t offset) {
  return static_cast<uint32_t>(lineBeginOf(text(file), offset));
}

uint32_t SourceScan::lineEnd(FileIndex file, uint32_t offset) {
  size_t newline = text(file).find('\n', offset);
  return static_cast<uint32_t>(newline == std::string_view::npos ? text(file).size() : newline);
}

uint32_t SourceScan::contentEnd(FileIndex file, uint32_t offset) {
  uint32_t end = lineEnd(file, offset);
  return end > 0 && end < text(file).size() && text(file)[end - 1] == '\r' ? end - 1 : end;
}

std::string SourceScan::newlineOf(FileIndex file) {
  return std::string(lineEndOf(text(file)));
}

std::string SourceScan::indentOf(Place place) {
  std::string_view source = text(place.file);
  uint32_t from = lineBegin(place.file, p_.node(place).span.begin), to = from;
  while (to < source.size() && (source[to] == ' ' || source[to] == '\t')) ++to;
  return std::string(source.substr(from, to - from));
}

void SourceScan::insertLineBefore(Place place, const std::string& line, std::vector<FileEdit>& edits) {
  std::string_view source = text(place.file);
  // A comment right above belongs to the declaration: go above it too.
  uint32_t at = withLinesAbove(place.file, lineBegin(place.file, p_.node(place).span.begin), {"//"});
  // Something else stands on the same line before it (struct { int a; int b; }).
  if (!trim(source.substr(lineBegin(place.file, p_.node(place).span.begin), p_.node(place).span.begin - lineBegin(place.file, p_.node(place).span.begin))).empty()) {
    edits.push_back({p_.path(place), {p_.node(place).span.begin, p_.node(place).span.begin}, line + " "});
    return;
  }
  edits.push_back({p_.path(place), {at, at}, indentOf(place) + line + newlineOf(place.file)});
}

uint32_t SourceScan::bodyOpen(TypeIndex type) {
  Place definition = p_.types[type].definition;
  std::string_view source = text(definition.file);
  uint32_t at = p_.node(definition).nameBegin;
  while (at < p_.node(definition).span.end && (source[at] != '{' || inComment(definition.file, at))) ++at;
  return at;
}

std::string SourceScan::memberIndent(TypeIndex type) {
  Place definition = p_.types[type].definition;
  for (NodeId c : children(p_.file(definition), definition.node))
    if (Kind kind = p_.file(definition)[c].kind; kind == Kind::Function || kind == Kind::Variable) return indentOf({definition.file, c});
  return indentOf(definition) + "  ";
}

std::string SourceScan::labelIndent(TypeIndex type) {
  Place definition = p_.types[type].definition;
  std::string_view body = text(definition.file).substr(bodyOpen(type), p_.node(definition).span.end - bodyOpen(type));
  for (std::string_view word : {"\npublic:", "\nprivate:", "\nprotected:"})
    if (body.find(word) != std::string_view::npos) return "";
  return indentOf(definition) + " ";
}

void SourceScan::addPublicMember(TypeIndex type, const std::string& member, std::vector<FileEdit>& edits) {
  Place definition = p_.types[type].definition;
  std::string_view source = text(definition.file);
  const Node& node = p_.node(definition);
  std::string newline = newlineOf(definition.file);
  uint32_t open = bodyOpen(type);
  std::string indent = memberIndent(type), label = labelIndent(type);
  bool isStruct = p_.types[type].form != TypeForm::Class;
  uint32_t at = open + 1;
  if (!isStruct) {
    // Behind the first `public:` that belongs to this class.
    size_t colonAt = std::string_view::npos;
    for (size_t found = source.find("public", open); found != std::string_view::npos && found < node.span.end; found = source.find("public", found + 1)) {
      size_t colon = source.find_first_not_of(" \t", found + 6);
      if (inComment(definition.file, static_cast<uint32_t>(found)) || colon == std::string_view::npos || source[colon] != ':' || trim(source.substr(lineBegin(definition.file, static_cast<uint32_t>(found)), found - lineBegin(definition.file, static_cast<uint32_t>(found)))).size() > 0) continue;
      bool nested = false;
      for (NodeId c : children(p_.file(definition), definition.node)) nested |= p_.file(definition)[c].kind == Kind::Type && p_.file(definition)[c].span.contains(static_cast<uint32_t>(found));
      if (nested) continue;
      colonAt = colon;
      break;
    }
    if (colonAt == std::string_view::npos) {
      edits.push_back({p_.path(definition), {at, at}, newline + label + "public:" + newline + indent + member + newline + newline + label + "private:"});
      return;
    }
    at = static_cast<uint32_t>(colonAt) + 1;
  }
  bool oneLine = source.substr(open, node.span.end - open).find('\n') == std::string_view::npos;
  edits.push_back({p_.path(definition), {at, at}, oneLine ? " " + member : newline + indent + member});
}

void SourceScan::addPrivateMember(TypeIndex type, const std::string& member, std::vector<FileEdit>& edits) {
  Place definition = p_.types[type].definition;
  std::string_view source = text(definition.file);
  std::string newline = newlineOf(definition.file);
  uint32_t close = p_.node(definition).span.end - 1;
  bool oneLine = source.substr(p_.node(definition).span.begin, p_.node(definition).span.size()).find('\n') == std::string_view::npos;
  bool shared = !trim(source.substr(lineBegin(definition.file, close), close - lineBegin(definition.file, close))).empty();  // the bracket's line with something else
  if (oneLine || shared) {
    edits.push_back({p_.path(definition), {close, close}, (source[close - 1] == ' ' ? "private: " : " private: ") + member + " "});
    return;
  }
  uint32_t at = lineBegin(definition.file, close);
  edits.push_back({p_.path(definition), {at, at}, newline + labelIndent(type) + "private:" + newline + memberIndent(type) + member + newline});
}

void SourceScan::removeLines(Place place, std::vector<FileEdit>& edits) {
  std::string_view source = text(place.file);
  const Node& node = p_.node(place);
  uint32_t begin = lineBegin(place.file, node.span.begin);
  uint32_t end = lineEnd(place.file, node.span.end);
  bool alone = trim(source.substr(begin, node.span.begin - begin)).empty() && (trim(source.substr(node.span.end, end - node.span.end)).empty() || trim(source.substr(node.span.end, end - node.span.end)).substr(0, 2) == "//");
  if (!alone) {
    edits.push_back({p_.path(place), node.span, ""});
    return;
  }
  begin = withLinesAbove(place.file, begin, {"//"});
  if (end < source.size()) ++end;
  auto blank = [&](uint32_t from, uint32_t to) { return from < to && trim(source.substr(from, to - from)).empty(); };
  // Of two blank lines that would meet, one goes too.
  std::string_view above = begin > 0 ? trim(source.substr(lineBegin(place.file, begin - 1), begin - lineBegin(place.file, begin - 1))) : std::string_view{};
  bool blankAbove = begin > 0 && (above.empty() || above == "private:" || above == "protected:" || above == "public:");
  bool blankBelow = end < source.size() && blank(end, std::min<uint32_t>(lineEnd(place.file, end) + 1, static_cast<uint32_t>(source.size())));
  if (blankAbove && blankBelow) end = std::min<uint32_t>(lineEnd(place.file, end) + 1, static_cast<uint32_t>(source.size()));
  edits.push_back({p_.path(place), {begin, end}, ""});
}

void SourceScan::removeDeclaration(Place place, std::vector<FileEdit>& edits) {
  std::string_view source = text(place.file);
  const Node& node = p_.node(place);
  // A property's reader begins at its brackets, behind the property's name.
  uint32_t from = node.nameBegin ? std::min(node.span.begin, node.nameBegin) : node.span.begin;
  uint32_t begin = lineBegin(place.file, from), end = node.span.end;
  size_t opened = from < node.span.begin ? source.find('{', from) : std::string_view::npos;
  if (opened < node.span.begin) {
    int depth = 0;
    for (size_t at = opened; at < source.size(); ++at) {
      depth += source[at] == '{' ? 1 : source[at] == '}' ? -1 : 0;
      if (depth > 0) continue;
      end = static_cast<uint32_t>(at + 1);
      break;
    }
  }
  while (end < source.size() && (source[end] == ' ' || source[end] == ';')) ++end;
  std::string_view before = source.substr(begin, from - begin), behind = trim(source.substr(end, lineEnd(place.file, end) - end));
  if (before.find_first_of("{};") != std::string_view::npos || (!behind.empty() && behind.substr(0, 2) != "//" && behind[0] != '#')) {
    edits.push_back({p_.path(place), {node.span.begin, end}, ""});
    return;
  }
  begin = withLinesAbove(place.file, begin, {"//", "/*", "*", "@", "#[", "[", "# "});
  end = std::min<uint32_t>(lineEnd(place.file, end) + 1, static_cast<uint32_t>(source.size()));
  Span lines = withBlankLines(place.file, {begin, end});
  // A file that ends without a line end goes on doing so.
  if (lines.end >= source.size() && lines.begin > 0 && source.back() != '\n') lines.begin = contentEnd(place.file, lines.begin - 1);
  edits.push_back({p_.path(place), lines, ""});
}

Span SourceScan::withBlankLines(FileIndex file, Span lines) {
  std::string_view source = text(file);
  auto [begin, end] = lines;
  auto lineAt = [&](uint32_t at) { return trim(source.substr(at, lineEnd(file, at) - at)); };
  auto lineAbove = [&] { return begin == 0 ? std::string_view{} : trim(source.substr(lineBegin(file, begin - 1), begin - lineBegin(file, begin - 1))); };
  std::string_view above = lineAbove();
  bool opens = begin == 0 || (!above.empty() && (above.back() == '{' || above.back() == ':'));  // also: private:
  if (above.empty() || opens)
    while (end < source.size() && lineAt(end).empty()) end = std::min<uint32_t>(lineEnd(file, end) + 1, static_cast<uint32_t>(source.size()));
  if (end >= source.size() || lineAt(end).substr(0, 1) == "}")
    while (begin > 0 && lineAbove().empty()) begin = lineBegin(file, begin - 1);
  return {begin, end};
}

FileIndex SourceScan::resolveInclude(FileIndex from, std::string_view path) const {
  // The same folder first, then any file whose path ends so.
  const std::string& own = p_.files[from].path;
  std::string beside = own.substr(0, own.rfind('/') + 1) + std::string(path);
  FileIndex byEnd = kNone;
  for (FileIndex f = 0; f < p_.files.size(); ++f) {
    const std::string& other = p_.files[f].path;
    if (other == beside) return f;
    if (other == path || (other.size() > path.size() && other.compare(other.size() - path.size(), path.size(), path) == 0 && other[other.size() - path.size() - 1] == '/'))
      if (byEnd == kNone) byEnd = f;
  }
  return byEnd;
}

bool SourceScan::includes(FileIndex from, FileIndex to) const {
  std::vector<FileIndex> open = {from};
  std::set<FileIndex> seen = {from};
  for (size_t i = 0; i < open.size(); ++i) {
    const LoweredFile& file = p_.files[open[i]];
    for (NodeId c : children(file, 0)) {
      if (file[c].kind != Kind::Import) continue;
      FileIndex target = resolveInclude(open[i], file.name(c));
      if (target == to) return true;
      if (target != kNone && seen.insert(target).second) open.push_back(target);
    }
  }
  return false;
}

std::string SourceScan::spellingOf(FileIndex target, FileIndex from) const {
  // As others spell it; a file in the same folder first.
  const std::string& own = p_.files[from].path;
  std::string folder = own.substr(0, own.rfind('/') + 1), any;
  for (FileIndex f = 0; f < p_.files.size(); ++f) {
    const LoweredFile& file = p_.files[f];
    for (NodeId c : children(file, 0)) {
      if (file[c].kind != Kind::Import || resolveInclude(f, file.name(c)) != target) continue;
      if (file.path.substr(0, file.path.rfind('/') + 1) == folder) return std::string(file.name(c));
      if (any.empty()) any = file.name(c);
    }
  }
  if (!any.empty()) return any;
  const std::string& path = p_.files[target].path;
  return path.compare(0, folder.size(), folder) == 0 ? path.substr(folder.size()) : path;
}

void SourceScan::addInclude(FileIndex fileIndex, const std::string& line, std::vector<FileEdit>& edits) {
  const LoweredFile& file = p_.files[fileIndex];
  std::string_view source = text(fileIndex);
  std::string newline = newlineOf(fileIndex);
  NodeId lastOwn = kNoNode, lastAny = kNoNode, before = kNoNode;
  if (line.find('<') != std::string::npos) {
    // Among the libraries' own, in the order of their names.
    NodeId last = kNoNode;
    for (NodeId c : children(file, 0)) {
      if (file[c].kind != Kind::Import || !file[c].has(kExtern)) continue;
      if (last != kNoNode && file[c].span.begin > contentEnd(fileIndex, file[last].span.begin) + 2) break;
      if (before == kNoNode && trim(source.substr(file[c].span.begin, contentEnd(fileIndex, file[c].span.begin) - file[c].span.begin)) > line) before = c;
      last = c;
    }
    if (before != kNoNode) return edits.push_back({file.path, {file[before].span.begin, file[before].span.begin}, line + newline});
    if (last != kNoNode) {
      uint32_t at = contentEnd(fileIndex, file[last].span.begin);
      return edits.push_back({file.path, {at, at}, newline + line});
    }
    // Apart from the tree's own.
    for (NodeId c : children(file, 0))
      if (file[c].kind == Kind::Import) last = c;
    if (last != kNoNode) {
      uint32_t at = contentEnd(fileIndex, file[last].span.begin);
      return edits.push_back({file.path, {at, at}, newline + newline + line});
    }
  }
  for (NodeId c : children(file, 0)) {
    if (file[c].kind != Kind::Import) continue;
    lastAny = c;
    if (file[c].has(kExtern)) continue;
    // In sorted order among the own ones, except before a source's own header on top.
    std::string_view there = trim(source.substr(file[c].span.begin, file[c].span.size()));
    if (before == kNoNode && lastOwn != kNoNode && there > line) before = c;
    lastOwn = c;
  }
  if (before != kNoNode) {
    edits.push_back({file.path, {file[before].span.begin, file[before].span.begin}, line + newline});
  } else if (lastOwn != kNoNode) {
    // One only: it may be the source's own header; after it.
    uint32_t at = contentEnd(fileIndex, file[lastOwn].span.begin);
    edits.push_back({file.path, {at, at}, newline + line});
  } else if (lastAny != kNoNode) {
    uint32_t at = contentEnd(fileIndex, file[lastAny].span.begin);
    edits.push_back({file.path, {at, at}, newline + newline + line});
  } else {
    // Behind `#pragma once` or the guard; else at the top.
    size_t pragma = source.find("#pragma once");
    size_t guard = source.find("#define");
    size_t anchor = pragma != std::string_view::npos ? pragma : p_.isHeader(fileIndex) ? guard : std::string_view::npos;
    if (anchor != std::string_view::npos) {
      uint32_t at = contentEnd(fileIndex, static_cast<uint32_t>(anchor));
      edits.push_back({file.path, {at, at}, newline + newline + line});
    } else {
      edits.push_back({file.path, {0, 0}, line + newline + newline});
    }
  }
}

std::vector<std::pair<FileIndex, uint32_t>> SourceScan::mentions(const std::string& owner, const std::string& name) {
  std::vector<std::pair<FileIndex, uint32_t>> out;
  for (FileIndex f = 0; f < p_.files.size(); ++f) {
    std::string_view source = text(f);
    const std::string& first = owner.empty() ? name : owner;
    for (size_t at = source.find(first); at != std::string_view::npos; at = source.find(first, at + 1)) {
      if (at > 0 && isWordByte(source[at - 1])) continue;
      size_t end = at + first.size();
      if (end < source.size() && isWordByte(source[end])) continue;
      if (!owner.empty()) {
        size_t colon = source.find_first_not_of(" \t", end);
        if (colon == std::string_view::npos || source.compare(colon, 2, "::") != 0) continue;
        size_t word = source.find_first_not_of(" \t", colon + 2);
        if (word == std::string_view::npos || source.compare(word, name.size(), name) != 0) continue;
        if (word + name.size() < source.size() && isWordByte(source[word + name.size()])) continue;
      } else {
        size_t open = source.find_first_not_of(" \t", end);
        if (open == std::string_view::npos || source[open] != '(') continue;
        if (at > 0 && (source[at - 1] == '.' || (at > 1 && source.compare(at - 2, 2, "->") == 0))) continue;
      }
      if (!inComment(f, static_cast<uint32_t>(at))) out.emplace_back(f, static_cast<uint32_t>(at));
    }
  }
  return out;
}

bool SourceScan::sameStatement(FileIndex file, uint32_t begin, uint32_t offset) {
  std::string_view between = text(file).substr(begin, offset - begin);
  return between.find_first_of(";{}()") == std::string_view::npos;
}

}  // namespace elmcart

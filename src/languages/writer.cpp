#include "languages/writer.h"

#include <algorithm>

#include "base/object_name.h"
#include "base/text.h"
#include "languages/language.h"
#include "source/lines.h"
#include "source/list_layout.h"
#include "source/walk.h"

namespace elmcart {
namespace {

// In names of nodes that hold one thing as their last.
constexpr std::string_view kHolders[] = {"argument", "return", "assignment", "declarator", "property", "initializer", "control_transfer", "jump"};

}  // namespace

WriterFiles::One& WriterFiles::one(const LoweredFile& file) {
  auto [found, isNew] = files_.try_emplace(file.path);
  if (isNew)
    if (auto read = readWhole(root_ + "/" + file.path)) found->second.text = std::move(*read);
  return found->second;
}

std::string_view WriterFiles::text(const LoweredFile& file) { return one(file).text; }

const SyntaxTree& WriterFiles::tree(const LoweredFile& file) {
  One& found = one(file);
  if (found.tree) return *found.tree;
  const Language& language = *languageById(file.language);
  const TSLanguage* grammar = language.grammar();
  try {
    found.tree = language.forGrammar ? std::make_unique<SyntaxTree>(grammar, found.text, language.forGrammar(found.text)) : std::make_unique<SyntaxTree>(grammar, found.text);
  } catch (const LeftUnread&) {
    // As a file without any declaration: nothing can be written in it.
    found.tree = std::make_unique<SyntaxTree>(grammar, std::string_view());
  }
  return *found.tree;
}

std::string Writer::can(const Change& change) {
  switch (change.kind) {
    case ChangeKind::TakeInConstructor: return change.at.known() ? canTake(change) : canGetConstructor(*change.of);
    case ChangeKind::TakeInFunction: return canTakeInFunction(change);
    case ChangeKind::KeepInField: return canKeep(*change.of);
    case ChangeKind::OpenField: return canOpen(change);
    case ChangeKind::MoveInitialiser: return canMove(change);
    case ChangeKind::Read: return canRead(change);
    case ChangeKind::HandOn: return canHandOn(change);
    case ChangeKind::HandToBase: return canHandToBase(change);
    case ChangeKind::DropDefault: return whyNotDropped(change);
  }
  return std::string(kNotWritten);
}

std::string Writer::write(std::span<const Change> changes, std::vector<FileEdit>& edits) {
  out_ = &edits;
  written_.clear();
  once_.clear();
  pending_.clear();
  kept_.clear();
  handsNew_.clear();
  readsIn_.clear();
  moved_.clear();
  movedSpans_.clear();
  for (const Change& change : changes) {
    if (change.kind == ChangeKind::KeepInField) kept_.insert(change.of);
    if (change.kind == ChangeKind::HandToBase && !change.at.known()) handsNew_.insert(change.of);
    if (change.kind == ChangeKind::Read && change.from == From::Parameter) ++readsIn_[change.in];
  }
  begin(changes);
  for (const Change& change : changes)
    if (change.kind == ChangeKind::MoveInitialiser) move(change, changes);
  std::string reason;
  for (const Change& change : changes)
    if (reason.empty()) reason = writeOne(change);
  for (auto& [of, statements] : moved_)
    for (Spot constructor : of->constructors) {
      bool takesNow = std::any_of(changes.begin(), changes.end(), [&](const Change& c) { return c.kind == ChangeKind::TakeInConstructor && c.at == constructor; });
      if (reason.empty() && !takesNow) reason = setIn(constructor, statements);
    }
  if (reason.empty()) reason = end(changes);
  out_ = nullptr;
  return reason;
}

std::string Writer::writeOne(const Change& change) {
  switch (change.kind) {
    case ChangeKind::TakeInConstructor: return change.at.known() ? take(change) : makeConstructor(change);
    case ChangeKind::TakeInFunction: return takeInFunction(change);
    case ChangeKind::KeepInField: return keep(change);
    case ChangeKind::OpenField: return open(change);
    case ChangeKind::MoveInitialiser: return "";
    case ChangeKind::Read: return isMoved(change.at) ? "" : read(change);
    case ChangeKind::HandOn: return isMoved(change.at) ? "" : handOn(change);
    case ChangeKind::HandToBase: return handToBase(change);
    case ChangeKind::DropDefault: return drop(change);
  }
  return std::string(kNotWritten);
}

// A field's first value goes into the constructors.
void Writer::move(const Change& change, std::span<const Change> changes) {
  const LoweredFile& file = *change.at.file;
  FirstValue first = firstValueOf(change.at);
  Span span = first.value;
  std::string moved = changedInside(file, span, [&] {
    for (const Change& c : changes) {
      if (c.at.file != &file || !(c.at == change.at || span.contains(c.at->span.begin))) continue;
      if (c.kind == ChangeKind::Read) (void)read(c);
      if (c.kind == ChangeKind::HandOn) (void)handOn(c);
    }
  });
  moved_[change.of].push_back(setting(first.name, moved));
  movedSpans_.emplace_back(change.at, span);
  put(file, first.gone, first.instead);
}

bool Writer::isMoved(Spot place) const {
  return place.known() && std::any_of(movedSpans_.begin(), movedSpans_.end(), [&](const auto& moved) { return moved.first == place || (moved.first.file == place.file && moved.second.contains(place->span.begin)); });
}

bool Writer::declares(const ClassFacts& c, std::string_view method) {
  return std::any_of(c.lineage.begin(), c.lineage.end(), [&](Spot type) {
    for (NodeId member : children(*type.file, type.node))
      if ((*type.file)[member].kind == Kind::Function && type.file->name(member) == method) return true;
    return false;
  });
}

std::string Writer::objectWord(std::string_view name, bool snake) {
  while (!name.empty() && !std::isalnum(static_cast<unsigned char>(name.front()))) name.remove_prefix(1);
  return objectName(name, snake);
}

std::string Writer::qualifiedBy(char sign) const {
  std::string out;
  for (size_t i = 0; i < handed_.qualified.size(); ++i) {
    bool cut = handed_.qualified.compare(i, 2, "::") == 0;
    out += cut ? sign : handed_.qualified[i];
    i += cut;
  }
  return out;
}

bool Writer::isFieldNamed(std::string_view name, std::string_view word) {
  if (name.ends_with(word) && (name.size() == word.size() || name == "_" + std::string(word) || name == "m_" + std::string(word))) return true;
  if (name.size() == word.size() + 1 && name.starts_with(word) && name.back() == '_') return true;
  return name.size() == word.size() + 1 && name[0] == 'm' && std::toupper(static_cast<unsigned char>(word[0])) == name[1] && name.substr(2) == word.substr(1);
}

std::string Writer::fieldNamed(const LoweredFile& file, const std::string& word) {
  auto [found, isNew] = marks_.try_emplace(file.path);
  if (isNew) {
    std::map<std::string_view, size_t> counts;
    for (NodeId n = 1; n < file.nodes.size(); ++n) {
      if (file[n].kind != Kind::Variable || file[n].has(kStatic) || file[file.parents[n]].kind != Kind::Type || isFieldNamed(file.name(n), word)) continue;
      std::string_view name = file.name(n);
      bool capital = name.size() > 2 && name[0] == 'm' && std::isupper(static_cast<unsigned char>(name[1]));
      ++counts[name.starts_with("m_") ? "m_" : name.starts_with('_') ? "_" : capital ? "m" : ""];
    }
    size_t all = 0;
    for (auto& [mark, count] : counts) all += count;
    for (auto& [mark, count] : counts)
      if (2 * count > all) found->second = mark;
  }
  std::string out = word;
  if (found->second == "m") out[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[0])));
  return found->second + out;
}

bool Writer::isFetched(Spot place, TSNode node) {
  if (!handed_.made.empty()) {
    std::string made = handed_.made;
    return tree(place).text(node) == made.replace(made.find("{wrap}"), std::string_view("{wrap}").size(), handed_.type);
  }
  Span span = spanOf(node);
  return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == place.file && access->span.begin == span.begin && access->span.end == span.end; });
}

std::string Writer::textOf(Spot spot) {
  Span span = spot->span;
  return std::string(text(*spot.file).substr(span.begin, span.size()));
}

bool Writer::standsAlone(Spot place) {
  TSNode node = tree(place).covering(place->span);
  if (!(spanOf(node) == place->span)) return false;
  while (!SyntaxTree::isNull(SyntaxTree::parent(node)) && spanOf(SyntaxTree::parent(node)) == spanOf(node)) node = SyntaxTree::parent(node);
  TSNode above = SyntaxTree::parent(node);
  if (SyntaxTree::isNull(above) || !ts_node_eq(ts_node_named_child(above, ts_node_named_child_count(above) - 1), node)) return SyntaxTree::isOneOf(above, {"argument_list", "arguments", "value_arguments"});
  std::string_view type = ts_node_type(above);
  return std::any_of(std::begin(kHolders), std::end(kHolders), [&](std::string_view word) { return type.find(word) != std::string_view::npos; });
}

std::vector<Span> Writer::spansOf(const Change& read) {
  std::vector<Span> out;
  const LoweredFile& file = *read.at.file;
  if (written_.insert({file.path, read.at->span.begin}).second) out.push_back(read.at->span);
  if (!read.in.known()) return out;
  const SyntaxTree& syntax = files_.tree(file);
  TSNode access = syntax.covering(read.at->span), holder = SyntaxTree::parent(access);
  if (!(spanOf(access) == read.at->span)) return out;  // no node of its own
  // At the same place of the same form: what a member is asked of.
  auto isAlike = [&](TSNode node) { return !SyntaxTree::isNull(holder) && ts_node_symbol(SyntaxTree::parent(node)) == ts_node_symbol(holder) && ts_node_eq(ts_node_named_child(SyntaxTree::parent(node), 0), node); };
  SyntaxTree::walk(syntax.covering(read.in->span), [&](TSNode node) {
    Span span = spanOf(node);
    if (ts_node_symbol(node) != ts_node_symbol(access) || syntax.text(node) != syntax.text(access) || !isAlike(node)) return true;
    bool known = std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot other) { return other.file == &file && other->span.begin == span.begin; });
    if (!known && written_.insert({file.path, span.begin}).second) out.push_back(span);
    return true;
  });
  return out;
}

std::string Writer::fetchIn(const LoweredFile& file) {
  if (std::string made = handed_.made; !made.empty()) {
    std::string name = nameIn(file);
    return name.empty() ? "" : made.replace(made.find("{wrap}"), std::string_view("{wrap}").size(), name);
  }
  for (Spot access : handed_.accesses)
    if (access.file == &file) return textOf(access);
  return fetchElsewhere(file);
}

std::string Writer::fetchElsewhere(const LoweredFile& file) {
  for (Spot access : handed_.accesses) {
    std::string written = textOf(access);
    if (!written.starts_with(handed_.type) || (written.size() > handed_.type.size() && isWordByte(written[handed_.type.size()]))) continue;
    std::string name = nameIn(file);
    return name.empty() ? "" : name + written.substr(handed_.type.size());
  }
  return "";
}

std::string_view Writer::newlineOf(const LoweredFile& file) {
  return lineEndOf(text(file));
}

uint32_t Writer::lineBegin(const LoweredFile& file, uint32_t offset) {
  return static_cast<uint32_t>(lineBeginOf(text(file), offset));
}

Span Writer::wholeLines(const LoweredFile& file, Span span) {
  std::string_view source = text(file);
  uint32_t begin = lineBegin(file, span.begin);
  size_t end = source.find('\n', span.end);
  end = end == std::string_view::npos ? source.size() : end + 1;
  bool alone = trim(source.substr(begin, span.begin - begin)).empty() && trim(source.substr(span.end, end - span.end)).empty();
  return alone ? Span{begin, static_cast<uint32_t>(end)} : span;
}

uint32_t Writer::behindRemark(const LoweredFile& file, uint32_t offset) {
  std::string_view source = text(file), rest = source.substr(offset, source.find('\n', offset) - offset);
  if (rest.ends_with('\r')) rest.remove_suffix(1);
  std::string_view remark = trim(rest);
  bool alone = remark.starts_with("//") || remark.starts_with("# ") || (remark.starts_with("/*") && remark.find("*/") + 2 == remark.size());
  return alone ? offset + static_cast<uint32_t>(rest.size()) : offset;
}

std::string Writer::gapBehind(const LoweredFile& file, uint32_t offset) {
  std::string_view source = text(file);
  size_t begin = source.find('\n', offset);
  if (begin == std::string_view::npos) return "";
  std::string_view line = trim(source.substr(begin + 1, source.find('\n', begin + 1) - begin - 1));
  return line.empty() || line.starts_with('}') ? "" : std::string(newlineOf(file));
}

std::string Writer::indentAt(const LoweredFile& file, uint32_t offset) {
  std::string_view source = text(file);
  uint32_t begin = lineBegin(file, offset), end = begin;
  while (end < source.size() && (source[end] == ' ' || source[end] == '\t')) ++end;
  return std::string(source.substr(begin, end - begin));
}

std::string Writer::unitOf(const LoweredFile& file) {
  // The shallowest indentation of a line that is no comment's.
  std::string_view source = text(file), best;
  for (size_t begin = 0; begin < source.size();) {
    size_t end = std::min(source.find('\n', begin), source.size()), word = begin;
    while (word < end && (source[word] == ' ' || source[word] == '\t')) ++word;
    bool code = word > begin && word < end && source[word] != '\r' && source[word] != '*' && source.compare(word, 2, "//") != 0;
    if (code && (best.empty() || word - begin < best.size())) best = source.substr(begin, word - begin);
    begin = end + 1;
  }
  if (best.empty()) return "    ";
  return best[0] == '\t' ? "\t" : std::string(best);
}

std::string Writer::laidOut(const LoweredFile& file, std::string_view pattern, const std::string& indent) {
  std::string unit = unitOf(file), out;
  std::string_view newline = newlineOf(file);
  for (size_t i = 0; i < pattern.size(); ++i) {
    if (pattern[i] == '\t') out += unit;
    else if (pattern[i] != '\n') out += pattern[i];
    else out += newline, out += i + 1 < pattern.size() && pattern[i + 1] == '\n' ? "" : indent;
  }
  return out;
}

bool Writer::headNames(const ClassFacts& c, TSNode type, std::string_view part, std::string_view base) {
  const SyntaxTree& syntax = tree(c.type);
  size_t cut = base.rfind(':');
  std::string_view last = cut == std::string_view::npos ? base : base.substr(cut + 1);
  bool found = false;
  SyntaxTree::walk(SyntaxTree::childOf(type, part), [&](TSNode node) {
    found |= ts_node_named_child_count(node) == 0 && syntax.text(node) == last;
    return !found;
  });
  return found;
}

void Writer::append(const LoweredFile& file, TSNode list, const std::string& item, TSNode before) {
  if (!SyntaxTree::isNull(before)) return insert(file, ts_node_start_byte(before), item + ", ");
  std::vector<Span> items;
  for (TSNode node : SyntaxTree::children(list)) items.push_back(spanOf(node));
  append(file, items, ts_node_end_byte(list) - 1, item);
}

void Writer::append(const LoweredFile& file, const std::vector<Span>& items, uint32_t close, const std::string& item) {
  if (items.empty()) return insert(file, close, item);
  std::string_view source = text(file);
  uint32_t end = items.back().end, begin = items.back().begin;
  std::string_view rest = source.substr(end, close - end);
  bool comma = rest.find(',') != std::string_view::npos;
  // One a line, as they stand.
  bool ownLine = trim(source.substr(lineBegin(file, begin), begin - lineBegin(file, begin))).empty() && (items.size() == 1 || lineBegin(file, items[items.size() - 2].begin) != lineBegin(file, begin));
  std::string gap = ownLine ? std::string(newlineOf(file)) + indentAt(file, begin) : " ";
  if (comma) return insert(file, end + static_cast<uint32_t>(rest.find(',')) + 1, gap + item + ",");
  if (ownLine || !breaksLists()) return insert(file, end, "," + gap + item);
  insert(file, end, separatorBehind(source, items, item.size()) + item);
}

bool Writer::putSorted(const LoweredFile& file, const std::vector<TSNode>& lines, const std::string& line) {
  const SyntaxTree& syntax = files_.tree(file);
  TSNode last{}, next{};
  for (TSNode one : lines) {
    if (syntax.text(one) == line) return true;
    if (syntax.text(one) < line) last = one;
    else if (SyntaxTree::isNull(next)) next = one;
  }
  std::string newline(newlineOf(file));
  if (!SyntaxTree::isNull(last)) insert(file, ts_node_end_byte(last), newline + line);
  else if (!SyntaxTree::isNull(next)) insert(file, ts_node_start_byte(next), line + newline);
  return !lines.empty();
}

bool Writer::nameBeside(const LoweredFile& file, std::initializer_list<std::string_view> imports, std::initializer_list<std::string_view> lists) {
  const SyntaxTree& syntax = files_.tree(file);
  TSNode beside{};
  bool named = false;
  SyntaxTree::walk(syntax.root(), [&](TSNode node) {
    if (ts_node_named_child_count(node) > 0) return true;
    TSNode import = syntax.covering(spanOf(node), imports);
    if (SyntaxTree::isNull(import)) return true;
    named |= syntax.text(node) == handed_.type;
    if (syntax.text(node) == handed_.beside && !SyntaxTree::isNull(syntax.covering(spanOf(node), lists))) beside = node;
    return true;
  });
  if (named || &file == handed_.home) return true;
  if (SyntaxTree::isNull(beside)) return false;
  if (once(file, "beside")) insert(file, ts_node_end_byte(beside), ", " + handed_.type);
  return true;
}

bool Writer::reword(const LoweredFile& file, TSNode declaration, uint32_t name, std::string_view word, std::string_view other) {
  for (uint32_t i = 0; !SyntaxTree::isNull(declaration) && i < ts_node_child_count(declaration); ++i) {
    TSNode child = ts_node_child(declaration, i);
    if (ts_node_start_byte(child) >= name) break;
    if (files_.tree(file).text(child) == word) return put(file, {ts_node_start_byte(child), ts_node_end_byte(child) + (other.empty() ? 1 : 0)}, std::string(other)), true;
    if (ts_node_child_count(child) > 0 && reword(file, child, name, word, other)) return true;
  }
  return false;
}

void Writer::documentBehind(const LoweredFile& file, TSNode comment, std::string_view last, const std::string& line) {
  if (SyntaxTree::isNull(comment) || !SyntaxTree::isComment(comment)) return;
  std::string_view said = files_.tree(file).text(comment);
  size_t at = said.rfind(last), end = at == std::string_view::npos ? at : said.find('\n', at);
  if (!said.starts_with("/**") || end == std::string_view::npos) return;
  // What is said of the last may go on in the next lines.
  for (size_t next = said.find_first_not_of(" \t", end + 1); next != std::string_view::npos && said[next] == '*'; next = said.find_first_not_of(" \t", end + 1)) {
    size_t word = said.find_first_not_of("* \t", next), lineEnd = said.find('\n', next);
    if (word == std::string_view::npos || lineEnd == std::string_view::npos || word >= lineEnd || said[word] == '@' || said[word] == '/' || said[word] == '\r') break;
    end = lineEnd;
  }
  if (said[end - 1] == '\r') --end;
  uint32_t begin = ts_node_start_byte(comment);
  insert(file, begin + static_cast<uint32_t>(end), std::string(newlineOf(file)) + indentAt(file, begin + static_cast<uint32_t>(at)) + line);
}

}  // namespace elmcart

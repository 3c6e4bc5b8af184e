#include "languages/writer.h"

#include <algorithm>

#include "base/object_name.h"
#include "base/text.h"
#include "languages/language.h"
#include "source/lines.h"
#include "source/list_layout.h"
#include "source/walk.h"

namespace elmcart {

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
  const TSLanguage* grammar = languageById(file.language)->grammar();
  try {
    found.tree = std::make_unique<SyntaxTree>(grammar, found.text);
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
  kept_.clear();
  readsIn_.clear();
  for (const Change& change : changes) {
    if (change.kind == ChangeKind::KeepInField) kept_.insert(change.of);
    if (change.kind == ChangeKind::Read && change.from == From::Parameter) ++readsIn_[change.in];
  }
  begin(changes);
  std::string reason;
  for (const Change& change : changes)
    if (reason.empty()) reason = writeOne(change);
  if (reason.empty()) reason = end(changes);
  out_ = nullptr;
  return reason;
}

std::string Writer::writeOne(const Change& change) {
  switch (change.kind) {
    case ChangeKind::TakeInConstructor: return change.at.known() ? take(change) : makeConstructor(change);
    case ChangeKind::TakeInFunction: return takeInFunction(change);
    case ChangeKind::KeepInField: return keep(change);
    case ChangeKind::MoveInitialiser: return move(change);
    case ChangeKind::Read: return read(change);
    case ChangeKind::HandOn: return handOn(change);
    case ChangeKind::HandToBase: return handToBase(change);
    case ChangeKind::DropDefault: return drop(change);
  }
  return std::string(kNotWritten);
}

std::string Writer::objectWord(std::string_view name, bool snake) {
  while (!name.empty() && !std::isalnum(static_cast<unsigned char>(name.front()))) name.remove_prefix(1);
  return objectName(name, snake);
}

bool Writer::isFetched(Spot place, TSNode node) {
  Span span = spanOf(node);
  return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == place.file && access->span.begin == span.begin && access->span.end == span.end; });
}

std::string Writer::textOf(Spot spot) {
  Span span = spot->span;
  return std::string(text(*spot.file).substr(span.begin, span.size()));
}

std::vector<Span> Writer::spansOf(const Change& read) {
  std::vector<Span> out;
  const LoweredFile& file = *read.at.file;
  if (written_.insert({file.path, read.at->span.begin}).second) out.push_back(read.at->span);
  if (!read.in.known()) return out;
  const SyntaxTree& syntax = files_.tree(file);
  TSNode access = syntax.covering(read.at->span), holder = SyntaxTree::parent(access);
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
  for (Spot access : handed_.accesses)
    if (access.file == &file) return textOf(access);
  return fetchElsewhere(file);
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
  std::string_view source = text(file);
  if (!SyntaxTree::isNull(before)) return insert(file, ts_node_start_byte(before), item + ", ");
  std::vector<TSNode> items = SyntaxTree::children(list);
  uint32_t close = ts_node_end_byte(list) - 1;
  if (items.empty()) return insert(file, close, item);
  uint32_t end = ts_node_end_byte(items.back()), begin = ts_node_start_byte(items.back());
  std::string_view rest = source.substr(end, close - end);
  bool comma = rest.find(',') != std::string_view::npos;
  // One a line, as they stand.
  bool ownLine = trim(source.substr(lineBegin(file, begin), begin - lineBegin(file, begin))).empty() && (items.size() == 1 || ts_node_start_point(items[items.size() - 2]).row != ts_node_start_point(items.back()).row);
  std::string gap = ownLine ? std::string(newlineOf(file)) + indentAt(file, begin) : " ";
  if (comma) return insert(file, end + static_cast<uint32_t>(rest.find(',')) + 1, gap + item + ",");
  if (ownLine || !breaksLists()) return insert(file, end, "," + gap + item);
  std::vector<Span> spans;
  for (TSNode node : items) spans.push_back(spanOf(node));
  insert(file, end, separatorBehind(source, spans, item.size()) + item);
}

}  // namespace elmcart

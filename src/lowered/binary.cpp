#include "lowered/binary.h"

namespace elmcart {
namespace {

class Writer {
 public:
  explicit Writer(std::string& out) : out_(out) {}
  void number(uint64_t n) {
    while (n >= 0x80) {
      out_ += static_cast<char>(n | 0x80);
      n >>= 7;
    }
    out_ += static_cast<char>(n);
  }
  // A difference that may be negative: 0, -1, 1, -2 … as 0, 1, 2, 3 …
  void difference(int64_t n) { number((static_cast<uint64_t>(n) << 1) ^ static_cast<uint64_t>(n >> 63)); }
  void text(std::string_view word) {
    number(word.size());
    out_ += word;
  }

 private:
  std::string& out_;
};

class Reader {
 public:
  explicit Reader(std::string_view in) : at_(in.data()), end_(in.data() + in.size()) {}
  bool good() const { return good_; }
  bool atEnd() const { return at_ == end_; }
  size_t left() const { return static_cast<size_t>(end_ - at_); }

  uint64_t number() {
    uint64_t n = 0;
    for (int shift = 0; shift < 64; shift += 7) {
      if (at_ == end_) return fail();
      uint8_t byte = static_cast<uint8_t>(*at_++);
      n |= static_cast<uint64_t>(byte & 0x7f) << shift;
      if (!(byte & 0x80)) return n;
    }
    return fail();
  }
  // At most `most`, else the form is damaged.
  uint32_t below(uint64_t most) {
    uint64_t n = number();
    return static_cast<uint32_t>(n <= most ? n : fail());
  }
  int64_t difference() {
    uint64_t n = number();
    return static_cast<int64_t>(n >> 1) ^ -static_cast<int64_t>(n & 1);
  }
  std::string_view text() {
    uint64_t size = number();
    if (size > left()) return fail(), std::string_view{};
    std::string_view out(at_, size);
    at_ += size;
    return out;
  }
  uint64_t fail() {
    good_ = false;
    at_ = end_;
    return 0;
  }

 private:
  const char* at_;
  const char* end_;
  bool good_ = true;
};

void writeSpan(Writer& out, Span span, uint32_t& before) {
  out.difference(static_cast<int64_t>(span.begin) - before);
  out.number(span.end - span.begin);
  before = span.begin;
}

Span readSpan(Reader& in, uint32_t& before, uint32_t size) {
  int64_t begin = before + in.difference();
  if (begin < 0 || begin > size) return in.fail(), Span{};
  uint32_t length = in.below(size - static_cast<uint64_t>(begin));
  before = static_cast<uint32_t>(begin);
  return {before, before + length};
}

// What stands in the first byte of a node beside its kind.
enum : uint8_t { kNoModifiers = 0x40, kNextIsChild = 0x80 };

}  // namespace

std::string toBinary(const LoweredFile& file) {
  std::string bytes;
  bytes.reserve(file.nodes.size() * 10 + 256);
  Writer out(bytes);
  out.number(file.textSize);
  out.number(file.unreadBytes);
  out.text(file.problem);
  out.number(file.generated);
  out.number(file.names.size());
  for (NameId id = 1; id < file.names.size(); ++id) out.text(file.names.text(id));
  out.number(file.nodes.size());
  uint32_t before = 0;
  for (NodeId id = 0; id < file.nodes.size(); ++id) {
    const Node& node = file[id];
    bool next = node.firstChild == id + 1;
    out.number(static_cast<uint64_t>(node.kind) | (node.modifiers ? 0u : uint64_t{kNoModifiers}) << 1 | (next ? uint64_t{kNextIsChild} : 0u) << 1);
    out.number(static_cast<uint64_t>(node.role) | uint64_t{node.detail} << 5);
    if (node.modifiers) out.number(node.modifiers);
    writeSpan(out, node.span, before);
    out.number(node.name);
    if (node.name) out.difference(static_cast<int64_t>(node.nameBegin) - node.span.begin);
    else out.number(node.nameBegin);
    if (!next) out.number(node.firstChild == kNoNode ? 0 : node.firstChild - id);
    out.number(node.nextSibling == kNoNode ? 0 : node.nextSibling - id);
  }
  for (const std::vector<Span>* spans : {&file.comments, &file.otherBranches}) {
    before = 0;
    out.number(spans->size());
    for (Span span : *spans) writeSpan(out, span, before);
  }
  out.number(file.notes.size());
  for (const auto& [line, note] : file.notes) {
    out.number(line);
    out.text(note);
  }
  return bytes;
}

bool fromBinary(std::string_view bytes, LoweredFile& file) {
  Reader in(bytes);
  file.textSize = in.below(UINT32_MAX);
  file.unreadBytes = in.below(UINT32_MAX);
  file.problem = in.text();
  file.generated = in.below(1) != 0;
  uint64_t names = in.number();
  if (names == 0 || names > bytes.size()) return false;
  for (uint64_t id = 1; id < names && in.good(); ++id) file.names.add(in.text());
  uint64_t count = in.number();
  // A node takes seven bytes or more.
  if (!in.good() || count == 0 || count > bytes.size() / 6) return false;
  file.nodes.resize(count);
  uint32_t before = 0;
  for (NodeId id = 0; id < count && in.good(); ++id) {
    Node& node = file.nodes[id];
    uint64_t first = in.number(), second = in.number();
    uint64_t kind = first & 0x7f, role = second & 0x1f, detail = second >> 5;
    if (kind > static_cast<uint64_t>(Kind::Unread) || role > static_cast<uint64_t>(Role::Finally) || detail > 0xff || first > 0x1ff) return false;
    node.kind = static_cast<Kind>(kind);
    node.role = static_cast<Role>(role);
    node.detail = static_cast<uint8_t>(detail);
    if (!(first & (uint64_t{kNoModifiers} << 1))) node.modifiers = in.below(UINT32_MAX);
    node.span = readSpan(in, before, file.textSize);
    node.name = in.below(names - 1);
    if (node.name) {
      int64_t begin = node.span.begin + in.difference();
      if (begin < 0 || begin > UINT32_MAX) return false;
      node.nameBegin = static_cast<uint32_t>(begin);
    } else {
      node.nameBegin = in.below(UINT32_MAX);
    }
    // Children and later siblings always stand behind.
    uint32_t child = first & (uint64_t{kNextIsChild} << 1) ? 1 : in.below(count), sibling = in.below(count);
    if (uint64_t{id} + child >= count || uint64_t{id} + sibling >= count) return false;
    node.firstChild = child ? id + child : kNoNode;
    node.nextSibling = sibling ? id + sibling : kNoNode;
  }
  for (std::vector<Span>* spans : {&file.comments, &file.otherBranches}) {
    before = 0;
    uint64_t many = in.number();
    if (many > in.left()) return false;
    for (uint64_t i = 0; i < many && in.good(); ++i) spans->push_back(readSpan(in, before, file.textSize));
  }
  uint64_t notes = in.number();
  if (notes > in.left()) return false;
  for (uint64_t i = 0; i < notes && in.good(); ++i) {
    uint32_t line = in.below(UINT32_MAX);
    file.notes.emplace_back(line, std::string(in.text()));
  }
  return in.good() && in.atEnd();
}

}  // namespace elmcart

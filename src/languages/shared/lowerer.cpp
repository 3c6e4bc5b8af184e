#include "languages/shared/lowerer.h"

#include <algorithm>
#include <cstring>

#include "base/text.h"

namespace elmcart {
namespace {

// Beyond that depth of brackets a file is not even parsed.
constexpr size_t kBracketLimit = 5000;

// How many ( [ { there are: eight bytes at a time, those that are zero once the
// wanted one is taken off them counted by their highest bits.
size_t openingBrackets(std::string_view text) {
  constexpr uint64_t kEach = 0x0101010101010101u, kLow = 0x7f * kEach;
  auto zeroBytes = [](uint64_t bytes) { return static_cast<size_t>((~(((bytes & kLow) + kLow) | bytes | kLow) >> 7) * kEach >> 56); };
  size_t opened = 0, at = 0;
  for (; at + 8 <= text.size(); at += 8) {
    uint64_t bytes;
    std::memcpy(&bytes, text.data() + at, 8);
    // Of [ and { only the second has the bit 0x20.
    opened += zeroBytes(bytes ^ '(' * kEach) + zeroBytes((bytes | 0x20 * kEach) ^ '{' * kEach);
  }
  for (; at < text.size(); ++at) opened += text[at] == '(' || text[at] == '[' || text[at] == '{';
  return opened;
}

size_t bracketDepth(std::string_view text) {
  // Counting is quicker than following, and nearly always enough.
  if (size_t opened = openingBrackets(text); opened <= kBracketLimit) return opened;
  size_t depth = 0, most = 0;
  for (char c : text) {
    if (c == '(' || c == '[' || c == '{') most = std::max(most, ++depth);
    else if ((c == ')' || c == ']' || c == '}') && depth > 0) --depth;
  }
  return most;
}

bool contains(std::span<const std::string_view> list, std::string_view word) { return std::find(list.begin(), list.end(), word) != list.end(); }

}  // namespace

bool SharedLowerer::tooDeep() {
  build_[0].span = {0, static_cast<uint32_t>(text_.size())};
  if (bracketDepth(text_) <= kBracketLimit) return false;
  file_.problem = "left unread: brackets nested more than " + std::to_string(kBracketLimit) + " deep";
  file_.unreadBytes = file_.textSize;
  return true;
}

void SharedLowerer::run(std::string_view forGrammar) {
  if (tooDeep()) return;
  ParserHandle parser = makeParser(g_.language);
  TreeHandle tree = parseText(parser, forGrammar);
  runOn(ts_tree_root_node(tree.get()));
}

void SharedLowerer::runOn(TSNode root) {
  unit(root);
  // a?.b, a?->b: what stands between an object and its member tells.
  for (NodeId n = 1; n < file_.nodes.size(); ++n) {
    if (file_[n].kind != Kind::Member || file_[n].nameBegin == 0) continue;
    NodeId receiver = file_.child(n, Role::Receiver);
    if (receiver == kNoNode || file_[receiver].span.end >= file_[n].nameBegin) continue;
    std::string_view between = text_.substr(file_[receiver].span.end, std::min<size_t>(file_[n].nameBegin - file_[receiver].span.end, 8));
    if (between.find('?') != std::string_view::npos) build_[n].modifiers |= kIfThere;
  }
}

void parseOnlyWith(const SharedGrammar& grammar, std::string_view text) {
  parseAndDrop(grammar.language, text);
}

void SharedLowerer::unit(TSNode root) { visitChildren(root, 0); }

// ----- reading the grammar tree

SharedLowerer::~SharedLowerer() {
  if (cursor_.tree) ts_tree_cursor_delete(&cursor_);
}

SharedLowerer::Children& SharedLowerer::childrenOf(TSNode node) const {
  Children& known = known_[(reinterpret_cast<uintptr_t>(node.id) >> 3) % known_.size()];
  if (known.of != node.id) known = {node.id, {}, {}, false, false};
  return known;
}

NodeList SharedLowerer::keepGathered() const {
  TSNode* nodes = static_cast<TSNode*>(kept_.allocate(gathered_.size() * sizeof(TSNode), alignof(TSNode)));
  std::copy(gathered_.begin(), gathered_.end(), nodes);
  return NodeList(nodes, gathered_.size());
}

// Asking for a child by its number takes a step from the first on for each, and a
// step of a cursor costs several of those.
constexpr uint32_t kFewChildren = 8;

NodeList SharedLowerer::all(TSNode node) const {
  if (isNull(node)) return {};
  Children& known = childrenOf(node);
  if (known.hasAll) return known.all;
  known.hasAll = true;
  gathered_.clear();
  if (uint32_t count = ts_node_child_count(node); count <= kFewChildren) {
    for (uint32_t i = 0; i < count; ++i) gathered_.push_back(ts_node_child(node, i));
  } else {
    if (cursor_.tree) ts_tree_cursor_reset(&cursor_, node);
    else cursor_ = ts_tree_cursor_new(node);
    if (ts_tree_cursor_goto_first_child(&cursor_)) {
      do gathered_.push_back(ts_tree_cursor_current_node(&cursor_));
      while (ts_tree_cursor_goto_next_sibling(&cursor_));
    }
  }
  return known.all = keepGathered();
}

NodeList SharedLowerer::named(TSNode node) const {
  if (isNull(node)) return {};
  if (Children& known = childrenOf(node); known.hasNamed) return known.named;
  // Where the object itself is a bare token it is a value, unless a declaration is marked by it.
  std::string_view type = g_.spec.bareThis ? ts_node_type(node) : std::string_view{};
  bool values = g_.spec.bareThis && type != "constructor_initializer" && type.find("parameter") == std::string_view::npos && type != "indexer_declaration";
  uint32_t count = ts_node_named_child_count(node);
  if (!values && count <= kFewChildren / 2) {
    gathered_.clear();
    for (uint32_t i = 0; i < count; ++i) gathered_.push_back(ts_node_named_child(node, i));
  } else {
    NodeList everything = all(node);
    gathered_.assign(everything.begin(), everything.end());
    std::erase_if(gathered_, [&](TSNode child) { return !ts_node_is_named(child) && !(values && g_.shapeOf(child) == Shape::This); });
  }
  Children& known = childrenOf(node);
  known.hasNamed = true;
  return known.named = keepGathered();
}

TSNode SharedLowerer::childOfType(TSNode node, std::string_view type) const {
  for (TSNode child : g_.isNamed(type) ? named(node) : all(node))
    if (type == ts_node_type(child)) return child;
  return {};
}

TSNode SharedLowerer::firstNamed(TSNode node) const {
  for (TSNode child : named(node))
    if (g_.shapeOf(child) != Shape::Comment) return child;
  return {};
}

bool SharedLowerer::hasToken(TSNode node, std::string_view token) const {
  if (!isNull(node))
    for (TSNode child : all(node))
      if (text(child) == token) return true;
  return false;
}

std::string_view SharedLowerer::operatorOf(TSNode node) const {
  TSNode op = field(node, f_.op);
  if (!isNull(op)) return trim(text(op));
  for (TSNode child : all(node))
    if (!ts_node_is_named(child)) return text(child);
  return {};
}

bool SharedLowerer::isNothing(TSNode node) const {
  if (isNull(node)) return false;
  Shape shape = g_.shapeOf(node);
  if (shape == Shape::Null) return true;
  if (shape == Shape::Paren) return isNothing(firstNamed(node));
  return contains(g_.spec.nullWords, text(node));
}

// ----- building

std::string SharedLowerer::scoped(std::string_view written) {
  if (std::all_of(written.begin(), written.end(), [](char c) { return isWordByte(c); })) return std::string(written);
  std::string out;
  for (size_t i = 0; i < written.size(); ++i) {
    char c = written[i];
    if (c == '.' || c == '\\') {
      if (!out.empty() && (out.size() < 2 || out.compare(out.size() - 2, 2, "::") != 0)) out += "::";
    } else if (!isBlank(c)) {
      out += c;
    }
  }
  return out;
}

std::string SharedLowerer::moduleName(std::string_view collapse) const {
  std::string_view path = file_.path;
  std::string_view ending;
  if (size_t dot = path.rfind('.'); dot != std::string_view::npos && path.find('/', dot) == std::string_view::npos) {
    ending = keptEnding(path.substr(dot));
    path = path.substr(0, dot);
  }
  if (!collapse.empty()) {
    size_t slash = path.rfind('/');
    std::string_view last = slash == std::string_view::npos ? path : path.substr(slash + 1);
    if (last == collapse && slash != std::string_view::npos && ending.empty()) path = path.substr(0, slash);
  }
  std::string out;
  for (char c : path) {
    if (c == '/') out += "::";
    else out += c;
  }
  return out += ending;
}

// Files of these endings are named with them by who imports them, and may lie beside another of the same name
// (ECMAScript modules of Node.js, "Mandatory file extensions").
std::string_view SharedLowerer::keptEnding(std::string_view ending) {
  if (ending == ".mjs" || ending == ".mts") return ".mjs";
  if (ending == ".cjs" || ending == ".cts") return ".cjs";
  return {};
}

void SharedLowerer::annotate(TSNode node, NodeId declaration) {
  auto marks = [](TSNode one) {
    std::string_view kind = ts_node_type(one);
    return kind == "annotation" || kind == "marker_annotation" || kind == "attribute" || kind == "decorator";
  };
  auto note = [&](TSNode one) {
    std::string_view word = text(one);
    size_t from = word.find_first_not_of("@[ ");
    size_t end = from;
    while (end < word.size() && (isWordByte(word[end]) || word[end] == '.')) ++end;
    if (from >= end) return;
    NodeId id = add(declaration, Kind::Name, Role::Annotation, one);
    build_.setName(id, scoped(word.substr(from, end - from)), begin(one) + static_cast<uint32_t>(from));
  };
  for (TSNode before = ts_node_prev_named_sibling(node); !isNull(before) && marks(before); before = ts_node_prev_named_sibling(before)) note(before);
  for (TSNode child : named(node)) {
    if (marks(child)) note(child);
    bool list = is(child, "modifiers") || is(child, "attribute_list");
    if (list)
      for (TSNode one : named(child))
        if (marks(one)) note(one);
  }
}

std::vector<std::string> SharedLowerer::pathFromHere(std::string_view written) const {
  std::vector<std::string> parts;
  auto push = [&](std::string_view path) {
    while (!path.empty()) {
      size_t slash = path.find('/');
      std::string_view part = path.substr(0, slash);
      if (part == "..") {
        if (!parts.empty()) parts.pop_back();
      } else if (!part.empty() && part != ".") {
        parts.emplace_back(part);
      }
      if (slash == std::string_view::npos) break;
      path.remove_prefix(slash + 1);
    }
  };
  size_t slash = file_.path.rfind('/');
  push(slash == std::string::npos ? std::string_view{} : std::string_view(file_.path).substr(0, slash));
  push(written);
  return parts;
}

void SharedLowerer::unread(NodeId parent, TSNode node) {
  Span span = spanOf(node);
  if (span.empty()) return;
  build_.add(parent, Kind::Unread, Role::None, span);
  file_.unreadBytes += span.size();
}

NodeId SharedLowerer::typeRefNamed(std::string_view name, TSNode at, NodeId parent, Role role, bool reference) {
  NodeId id = add(parent, Kind::TypeRef, role, at);
  build_.setName(id, name, begin(at));
  if (reference && g_.spec.references) build_[id].modifiers |= kManaged;
  return id;
}

NodeId SharedLowerer::typeRef(TSNode node, NodeId parent, Role role) { return isNull(node) ? kNoNode : typeRef(spanOf(node), parent, role); }

NodeId SharedLowerer::typeRef(Span span, NodeId parent, Role role) {
  size_t before = file_.nodes.size();
  size_t end = typeText(span.begin, span.end, parent, role, 0);
  if (file_.nodes.size() == before) return kNoNode;
  // Desk | null, ?Desk, Desk?
  std::string_view written = text_.substr(span.begin, span.end - span.begin), rest = text_.substr(std::min<size_t>(end, span.end), span.end - std::min<size_t>(end, span.end));
  bool none = trim(written).ends_with("?") || trim(written.substr(std::min(written.find_first_not_of(": "), written.size()))).starts_with("?");
  for (std::string_view word : g_.spec.nullWords) none |= rest.find(word) != std::string_view::npos || trim(written).starts_with(word);
  if (none) build_[static_cast<NodeId>(before)].modifiers |= kMayBeNone;
  return static_cast<NodeId>(before);
}

// Behind the length of an array that is written before what it is of: [8]Berth. `at` where there is none.
size_t SharedLowerer::behindLength(size_t at, size_t end) const {
  if (at >= end || text_[at] != '[') return at;
  size_t close = text_.find_first_of("],([{", at + 1);
  bool length = close != std::string_view::npos && close + 1 < end && text_[close] == ']' && (isWordByte(text_[close + 1]) || text_[close + 1] == '*' || text_[close + 1] == '[');
  return length ? close + 1 : at;
}

// What stands before a type: pointers, empty brackets, lengths, annotations. Moves `at` behind it.
uint32_t SharedLowerer::typeMarks(size_t& at, size_t end) const {
  uint32_t bits = 0;
  for (;;) {
    while (at < end && isBlank(text_[at])) ++at;
    if (at < end && (text_[at] == '*' || text_[at] == '&')) {
      bits |= kPointer;
      ++at;
    } else if (at < end && (text_[at] == '?' || text_[at] == ':' || text_[at] == '|' || text_[at] == '"' || text_[at] == '\'')) {
      ++at;
    } else if (at + 1 < end && text_[at] == '[' && text_[at + 1] == ']') {
      bits |= kArray;
      at += 2;
    } else if (size_t behind = behindLength(at, end); behind > at) {
      bits |= kArray;
      at = behind;
    } else if (at < end && text_[at] == '@') {
      ++at;
      while (at < end && isWordByte(text_[at])) ++at;
    } else {
      return bits;
    }
  }
}

// And behind it.
uint32_t SharedLowerer::typeSuffix(size_t& at, size_t end) const {
  uint32_t bits = 0;
  for (;; ++at) {
    while (at < end && isBlank(text_[at])) ++at;
    if (at >= end) return bits;
    if (text_[at] == '[') {
      bits |= kArray;
      while (at < end && text_[at] != ']') ++at;
    } else if (text_[at] == '*') {
      bits |= kPointer;
    } else if (text_[at] != '?' && text_[at] != '!') {
      return bits;
    }
  }
}

// The arguments of a type, from behind the opening bracket; returns where the closing one ends.
size_t SharedLowerer::typeArguments(size_t at, size_t end, char close, NodeId type, int depth) {
  for (int i = 0; i < 20 && at < end && text_[at] != close; ++i) {
    // One argument: up to a comma or the closing bracket on this level.
    int inner = 0;
    size_t stop = at;
    for (; stop < end; ++stop) {
      char c = text_[stop];
      if (c == '<' || c == '[' || c == '(' || c == '{') ++inner;
      else if (c == '>' && stop > 0 && (text_[stop - 1] == '-' || text_[stop - 1] == '=')) continue;
      else if (c == '>' || c == ']' || c == ')' || c == '}') {
        if (inner == 0) break;
        --inner;
      } else if (c == ',' && inner == 0) {
        break;
      }
    }
    typeText(at, stop, type, Role::TypeArgument, depth + 1);
    at = stop;
    if (at < end && text_[at] == ',') ++at;
  }
  return at < end ? at + 1 : at;
}

// Reads one written type from text_[at, end) and returns where it stopped. The
// notations of the languages are near enough to each other to be read as one:
// Name, a.b.Name, Name<A, B> or Name[A], Name[], Name?, *Name, []Name,
// map[K]V, A | null; a function type is told as "(function)".
size_t SharedLowerer::typeText(size_t at, size_t end, NodeId parent, Role role, int depth) {
  auto space = [&] { while (at < end && isBlank(text_[at])) ++at; };
  if (depth > 40) return end;
  uint32_t bits = typeMarks(at, end);
  if (at >= end) return end;
  size_t start = at;
  if (text_[at] == '(' || text_[at] == '{' || text_[at] == '[' || text_[at] == '<') {
    // A function, tuple or object type.
    int open = 0;
    for (; at < end; ++at) {
      if (text_[at] == '(' || text_[at] == '{' || text_[at] == '[') ++open;
      if ((text_[at] == ')' || text_[at] == '}' || text_[at] == ']') && --open == 0) break;
    }
    NodeId id = build_.add(parent, Kind::TypeRef, role, {static_cast<uint32_t>(start), static_cast<uint32_t>(std::min(at + 1, end))});
    bool record = text_[start] == '{';
    build_.setName(id, record ? "(record)" : "(function)", static_cast<uint32_t>(start));
    build_[id].modifiers = bits | kPointer;
    return end;
  }
  auto word = [&] {
    size_t from = at;
    while (at < end && (isWordByte(text_[at]) || text_[at] == '.' || text_[at] == '\\' || text_[at] == '$' || static_cast<unsigned char>(text_[at]) >= 0x80)) ++at;
    return text_.substr(from, at - from);
  };
  std::string_view name = word();
  static constexpr std::string_view kWords[] = {"final", "const", "readonly", "in", "out", "ref", "var", "let", "inout", "some", "any", "chan", "unique", "keyof", "typeof", "borrowing", "__weak", "__strong", "static", "nonnull", "nullable", "late", "required"};
  while (at < end && isBlank(text_[at]) && contains(kWords, name)) {
    space();
    while (at < end && (text_[at] == '*' || text_[at] == '?')) ++at;
    start = at;
    name = word();
  }
  if (name.empty()) return end;
  if (contains(g_.spec.nullWords, name) || name == "null" || name == "void") {
    space();
    if (at < end && text_[at] == '|') return typeText(at + 1, end, parent, role, depth + 1);
    if (name != "void") return end;
  }
  NodeId id = build_.add(parent, Kind::TypeRef, role, {static_cast<uint32_t>(start), static_cast<uint32_t>(at)});
  if (name == "func" || name == "fn" || name == "Function" || name == "callable") {
    build_.setName(id, "(function)", static_cast<uint32_t>(start));
    build_[id].modifiers = bits | kPointer;
    return end;
  }
  bool value = g_.valueTypes.contains(name);
  build_.setName(id, scoped(name), static_cast<uint32_t>(start + (name.rfind('.') == std::string_view::npos ? 0 : name.rfind('.') + 1)));
  if (g_.spec.references && !value) bits |= kManaged;
  space();
  char open = g_.spec.typeArguments, close = open == '<' ? '>' : ']';
  if (name == "map") open = '[', close = ']';
  if (at < end && text_[at] == open && !(open == '[' && at + 1 < end && text_[at + 1] == ']')) {
    at = typeArguments(at + 1, end, close, id, depth);
    if (name == "map" && at < end) {
      typeText(at, end, id, Role::TypeArgument, depth + 1);
      at = end;
    }
  }
  build_[id].modifiers |= bits | typeSuffix(at, end);
  build_[id].span.end = static_cast<uint32_t>(std::max<size_t>(std::min(at, end), build_[id].span.end));
  return at;
}

NodeId SharedLowerer::function(TSNode node, NodeId parent, FunctionForm form, std::string_view name, uint32_t nameBegin, uint32_t modifiers) {
  NodeId id = add(parent, Kind::Function, Role::Member, node);
  build_[id].detail = static_cast<uint8_t>(form);
  build_[id].modifiers = modifiers;
  build_.setName(id, name, nameBegin);
  return id;
}

void SharedLowerer::parameters(TSNode list, NodeId fn) {
  if (isNull(list)) return;
  for (TSNode child : named(list))
    if (g_.shapeOf(child) != Shape::Comment) parameter(child, fn);
}

void SharedLowerer::parameter(TSNode node, NodeId fn) {
  NodeId id = add(fn, Kind::Parameter, Role::Parameter, node);
  TSNode name = firstField(node, f_.name, f_.pattern);
  if (isNull(name)) name = node;
  build_.setName(id, text(name), begin(name));
  typeRef(field(node, f_.type), id, Role::Type);
  TSNode value = firstField(node, f_.defaultValue, f_.value, f_.right);
  if (!isNull(value)) visit(value, id, Role::Initialiser);
}

NodeId SharedLowerer::variable(TSNode node, NodeId parent, Role role, TSNode name, uint32_t modifiers, TSNode type, TSNode value) {
  NodeId id = add(parent, Kind::Variable, role, node);
  build_.setName(id, text(name), begin(name));
  build_[id].modifiers = modifiers | kDefinition;
  typeRef(type, id, Role::Type);
  if (!isNull(value)) visit(value, id, Role::Initialiser);
  return id;
}

NodeId SharedLowerer::handler(TSNode clause, NodeId parent, Role role, TSNode name, TSNode type, TSNode body) {
  NodeId id = add(parent, Kind::Block, role, clause);
  if (!isNull(name)) variable(name, id, Role::None, name, 0, type, {});
  if (!isNull(body)) visitChildren(body, id);
  return id;
}

NodeId SharedLowerer::nullTest(TSNode node, NodeId parent, Role role, NullTestForm form, TSNode operand) {
  NodeId id = add(parent, Kind::NullTest, role, node);
  build_[id].detail = static_cast<uint8_t>(form);
  visit(operand, id, Role::Operand);
  return id;
}

void SharedLowerer::assignIfNothing(TSNode node, NodeId parent, Role role, TSNode target, TSNode value) {
  if (role != Role::None && role != Role::Then && role != Role::Else && role != Role::Body) {
    // As a value: the target when there is one, else what is now assigned to it.
    NodeId id = add(parent, Kind::Conditional, role, node);
    nullTest(target, id, Role::Condition, NullTestForm::IsNotNull, target);
    visit(target, id, Role::Then);
    NodeId assign = add(id, Kind::Assign, Role::Else, node);
    visit(target, assign, Role::Target);
    visit(value, assign, Role::Value);
    return;
  }
  NodeId branch = add(parent, Kind::If, role, node);
  nullTest(target, branch, Role::Condition, NullTestForm::IsNull, target);
  NodeId then = add(branch, Kind::Block, Role::Then, node);
  NodeId statement = add(then, Kind::ExpressionStatement, Role::None, node);
  NodeId assign = add(statement, Kind::Assign, Role::None, node);
  visit(target, assign, Role::Target);
  visit(value, assign, Role::Value);
}

NodeId SharedLowerer::guardOf(TSNode node, NodeId parent, Role role, TSNode lock, TSNode block) {
  NodeId id = add(parent, Kind::Guard, role, node);
  build_[id].detail = static_cast<uint8_t>(GuardForm::Scoped);
  if (!isNull(lock)) visit(lock, id, Role::Lock);
  if (!isNull(block)) visit(block, id, Role::Body);
  return id;
}

}  // namespace elmcart

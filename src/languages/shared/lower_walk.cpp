// The walk of the shared lowering: statements, expressions, and what each shape becomes.
#include <algorithm>

#include "base/text.h"
#include "languages/shared/lowerer.h"

namespace elmcart {
namespace {

// How deep a file may be nested before the rest of that spot stays unread.
constexpr int kDepthLimit = 500;

}  // namespace

void SharedLowerer::visitChildren(TSNode node, NodeId parent, Role role) {
  for (TSNode child : named(node)) visit(child, parent, role);
}

void SharedLowerer::statements(TSNode block, NodeId parent) {
  statements(block, named(block), parent);
}

void SharedLowerer::statements(TSNode block, NodeList kids, NodeId parent) {
  // The body of a guard that begins at a statement.
  auto guardFrom = [&](TSNode statement, TSNode taken, TSNode body) {
    NodeId guard = add(parent, Kind::Guard, Role::None, statement);
    build_[guard].detail = static_cast<uint8_t>(GuardForm::LockUnlock);
    visit(taken, guard, Role::Lock);
    return add(guard, Kind::Block, Role::Body, body);
  };
  for (size_t i = 0; i < kids.size(); ++i) {
    TSNode lock = lockOf(kids[i], true);
    if (isNull(lock)) {
      // if (lock.tryLock()) try { … } finally { lock.unlock(); }
      bool ends = isTry(kids[i]) && !named(kids[i]).empty() && handlerRole(named(kids[i]).back()) == Role::Finally;
      TSNode released = ends ? releasedLast(kids[i]) : TSNode{};
      bool guarded = !isNull(released) && !takesInside(kids[i], text(released));
      visit(kids[i], guarded ? guardFrom(kids[i], released, kids[i]) : parent, Role::None);
      continue;
    }
    // Given back by a later statement, or in the last part of a try.
    size_t end = i + 1;
    bool inside = false;
    for (; end < kids.size(); ++end) {
      TSNode released = lockOf(kids[end], false);
      if (!isNull(released) && text(released) == text(lock)) break;
      inside = isNull(released) && isTry(kids[end]) && !isNull(releasedLast(kids[end], text(lock)));
      if (inside) break;
    }
    NodeId inner = guardFrom(kids[i], lock, block);
    bool open = end >= kids.size() || isDeferred(kids[end]);
    std::vector<TSNode> held;  // other locks may be taken there
    for (size_t k = i + 1; k < (open ? kids.size() : end); ++k)
      if (k != end) held.push_back(kids[k]);
    statements(block, NodeList(held.data(), held.size()), inner);
    if (inside) visit(kids[end], inner, Role::None);
    if (open) return;  // to the end of the block
    i = end;
  }
}

// lock.lock(); and lock.unlock(); Monitor.Enter(lock); and Monitor.Exit(lock);
TSNode SharedLowerer::lockOf(TSNode statement, bool taking) const {
  if (!g_.spec.lockCalls) return {};
  static constexpr std::pair<std::string_view, std::string_view> kWords[] = {{"lock", "unlock"}, {"acquire", "release"}, {"EnterReadLock", "ExitReadLock"}, {"EnterUpgradeableReadLock", "ExitUpgradeableReadLock"}, {"EnterWriteLock", "ExitWriteLock"}, {"AcquireReaderLock", "ReleaseReaderLock"}, {"AcquireWriterLock", "ReleaseWriterLock"}, {"WaitOne", "ReleaseMutex"}};
  std::string_view written = trim(text(statement));
  if (!written.empty() && written.back() == ';') written = trim(written.substr(0, written.size() - 1));
  if (written.size() < 3 || written.size() > 120 || written.back() != ')' || written.find('\n') != std::string_view::npos) return {};
  // The node that stands for a stretch at the statement's beginning.
  auto leading = [&](TSNode from, std::string_view wanted) {
    for (TSNode at = from; !isNull(at); at = firstNamed(at))
      if (text(at) == wanted) return at;
    return TSNode{};
  };
  written.remove_suffix(1);
  std::string_view monitor = taking ? "Monitor.Enter" : "Monitor.Exit";
  if (size_t open = written.find('('); written.starts_with(monitor) && open != std::string_view::npos && trim(written.substr(monitor.size(), open - monitor.size())).empty()) {
    std::string_view wanted = trim(written.substr(open + 1));
    TSNode call = statement;
    while (!isNull(call) && isNull(field(call, f_.arguments))) call = firstNamed(call);
    return isNull(call) ? TSNode{} : leading(firstNamed(field(call, f_.arguments)), wanted);
  }
  size_t open = written.rfind('(');
  if (open == std::string_view::npos) return {};
  // How long to wait for it.
  bool waits = !trim(written.substr(open + 1)).empty();
  written = trim(written.substr(0, open));
  if (waits && !written.ends_with("AcquireReaderLock") && !written.ends_with("AcquireWriterLock")) return {};
  for (const auto& [take, give] : kWords) {
    std::string_view word = taking ? take : give;
    if (written.size() < word.size() + 2 || written.substr(written.size() - word.size()) != word || written[written.size() - word.size() - 1] != '.') continue;
    return leading(firstNamed(statement), written.substr(0, written.size() - word.size() - 1));
  }
  return {};
}

TSNode SharedLowerer::releasedLast(TSNode node, std::string_view lock) const {
  NodeList parts = named(node);
  for (int depth = 0; depth < 4 && !parts.empty(); ++depth) {
    TSNode last = parts.back();
    for (TSNode statement : named(last)) {
      TSNode released = lockOf(statement, false);
      if (!isNull(released) && (lock.empty() || text(released) == lock)) return released;
    }
    parts = named(last);
  }
  return {};
}

bool SharedLowerer::takesInside(TSNode node, std::string_view lock) const {
  for (TSNode part : named(node))
    for (TSNode statement : named(part)) {
      TSNode taken = lockOf(statement, true);
      if (!isNull(taken) && text(taken) == lock) return true;
      for (TSNode inner : named(statement))
        if (TSNode deep = lockOf(inner, true); !isNull(deep) && text(deep) == lock) return true;
    }
  return false;
}

NodeId SharedLowerer::blockOf(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Block, role, node);
  statements(node, id);
  return id;
}

void SharedLowerer::body(TSNode node, NodeId parent) {
  if (isNull(node)) return;
  Shape shape = g_.shapeOf(node);
  if (shape == Shape::Block || shape == Shape::Own) return visit(node, parent, Role::Body);
  NodeId block = add(parent, Kind::Block, Role::Body, node);
  bool statement = shape == Shape::Return || shape == Shape::Throw || shape == Shape::If || shape == Shape::Loop || shape == Shape::Statement || shape == Shape::Switch || shape == Shape::Try || shape == Shape::Jump;
  if (statement) return visit(node, block, Role::None);
  NodeId result = add(block, Kind::Return, Role::None, node);
  visit(node, result, Role::Value);
}

void SharedLowerer::arguments(TSNode list, NodeId call) {
  if (isNull(list)) return;
  for (TSNode child : named(list))
    if (g_.shapeOf(child) != Shape::Comment) visit(child, call, Role::Argument);
}

void SharedLowerer::condition(TSNode node, NodeId parent, Role role) {
  if (isNull(node)) return;
  Shape shape = g_.shapeOf(node);
  if (shape == Shape::Paren) return condition(firstNamed(node), parent, role);
  bool value = shape == Shape::Name || shape == Shape::Member || shape == Shape::Index;
  if (g_.spec.truthiness && value) {
    nullTest(node, parent, role, NullTestForm::IsNotNull, node);
    return;
  }
  visit(node, parent, role);
}

// As nearly all are written; asking for fields takes longer.
SharedLowerer::Sides SharedLowerer::sidesOf(TSNode node) const {
  if (ts_node_child_count(node) != 3) return {};
  NodeList kids = all(node);
  if (!ts_node_is_named(kids[0]) || ts_node_is_named(kids[1]) || !ts_node_is_named(kids[2])) return {};
  return {kids[0], kids[1], kids[2]};
}

void SharedLowerer::binary(TSNode node, NodeId parent, Role role) {
  auto [left, between, right] = sidesOf(node);
  if (isNull(between)) left = field(node, f_.left), right = field(node, f_.right);
  std::vector<TSNode> kids;
  if (isNull(left) || isNull(right)) {
    kids = named(node);
    std::erase_if(kids, [&](TSNode kid) { return g_.shapeOf(kid) == Shape::Comment; });
    if (kids.size() < 2) kids = all(node);  // a null that the grammar does not name
    if (kids.size() >= 2) {
      left = kids.front();
      right = kids.back();
    }
  }
  std::string_view op = isNull(between) ? operatorOf(node) : text(between);
  if (isNull(left) || isNull(right)) {
    NodeId id = add(parent, Kind::Other, role, node);
    visitChildren(node, id, Role::Operand);
    return;
  }
  if (trim(op) == "=") {  // an assignment that the grammar was told as something else, with the blank behind it
    NodeId id = add(parent, Kind::Assign, role, node);
    visit(left, id, Role::Target);
    visit(right, id, Role::Value);
    return;
  }
  bool equal = op == "==" || op == "===" || op == "is", unequal = op == "!=" || op == "!==" || op == "<>" || op == "is not";
  if (equal || unequal) {
    NullTestForm form = equal ? NullTestForm::IsNull : NullTestForm::IsNotNull;
    if (isNothing(right)) return (void)nullTest(node, parent, role, form, left);
    if (isNothing(left)) return (void)nullTest(node, parent, role, form, right);
  }
  Kind kind = equal || unequal || op == "<" || op == ">" || op == "<=" || op == ">=" || op == "in" || op == "not in" ? Kind::Compare : Kind::Other;
  bool logicAnd = op == "&&" || op == "and", logicOr = op == "||" || op == "or";
  if (logicAnd || logicOr) {
    NodeId id = add(parent, Kind::Logic, role, node);
    build_[id].detail = static_cast<uint8_t>(logicAnd ? LogicForm::And : LogicForm::Or);
    bool asCondition = role == Role::Condition || (role == Role::Operand && file_.nodes[parent].kind == Kind::Logic);
    for (TSNode side : {left, right}) {
      if (asCondition) condition(side, id, Role::Operand);
      else visit(side, id, Role::Operand);
    }
    return;
  }
  if (op == "?\?" || op == "?:") {  // left, or right when there is no left
    NodeId id = add(parent, Kind::Conditional, role, node);
    nullTest(left, id, Role::Condition, NullTestForm::IsNotNull, left);
    visit(left, id, Role::Then);
    visit(right, id, Role::Else);
    return;
  }
  NodeId id = add(parent, kind, role, node);
  if (kind == Kind::Other) build_.setName(id, op, begin(node));
  // a + b + c + …: thousands of them may stand in a row, so they are not descended into.
  std::vector<TSNode> behind = {right};
  while (kind == Kind::Other && g_.shapeOf(left) == Shape::Binary && operatorOf(left) == op) {
    TSNode inner = field(left, f_.left), last = field(left, f_.right);
    if (isNull(inner) || isNull(last)) break;
    behind.push_back(last);
    left = inner;
  }
  visit(left, id, Role::Operand);
  for (size_t i = behind.size(); i-- > 0;) visit(behind[i], id, Role::Operand);
}

void SharedLowerer::visit(TSNode node, NodeId parent, Role role) {
  if (isNull(node)) return;
  TSSymbol symbol = ts_node_symbol(node);
  if (symbol == static_cast<TSSymbol>(-1)) return unread(parent, node);
  if (++depth_ > kDepthLimit) {
    --depth_;
    return unread(parent, node);
  }
  switch (g_.shapeOf(symbol)) {
    case Shape::Skip: break;
    case Shape::Comment: file_.comments.push_back(spanOf(node)); break;
    case Shape::Pass: visitChildren(node, parent, role); break;
    case Shape::Paren: {
      TSNode inner = firstNamed(node);
      if (role == Role::Condition) condition(inner, parent, role);
      else visit(inner, parent, role);
      break;
    }
    case Shape::Block: blockOf(node, parent, role); break;
    case Shape::If: visitIf(node, parent, role); break;
    case Shape::Loop: visitLoop(node, parent, role); break;
    case Shape::Switch: {
      NodeId id = add(parent, Kind::Switch, role, node);
      visitChildren(node, id);
      break;
    }
    case Shape::Try: visitTry(node, parent, role); break;
    case Shape::Return: {
      NodeId id = add(parent, Kind::Return, role, node);
      visitChildren(node, id, Role::Value);
      break;
    }
    case Shape::Throw: {
      NodeId id = add(parent, Kind::Throw, role, node);
      visitChildren(node, id, Role::Value);
      break;
    }
    case Shape::Jump: add(parent, Kind::Jump, role, node); break;
    case Shape::Statement: {
      NodeId id = add(parent, Kind::ExpressionStatement, role, node);
      visitChildren(node, id);
      break;
    }
    case Shape::Name:
      if (!ownName(node, parent, role)) addName(parent, role, node);
      break;
    case Shape::This:
      if (!ownThis(node, parent, role)) add(parent, Kind::This, role, node);
      break;
    case Shape::Member: visitMember(node, parent, role); break;
    case Shape::Index: visitIndex(node, parent, role); break;
    case Shape::Call: visitCall(node, parent, role); break;
    case Shape::New: visitNew(node, parent, role); break;
    case Shape::Assign: visitAssign(node, parent, role); break;
    case Shape::Compound: visitCompound(node, parent, role); break;
    case Shape::Update: {
      NodeId id = add(parent, Kind::Update, role, node);
      TSNode target = firstField(node, f_.argument, f_.operand);
      visit(isNull(target) ? firstNamed(node) : target, id, Role::Target);
      break;
    }
    case Shape::Binary: binary(node, parent, role); break;
    case Shape::Unary: visitUnary(node, parent, role); break;
    case Shape::Conditional: visitConditional(node, parent, role); break;
    case Shape::Lambda: visitLambda(node, parent, role); break;
    case Shape::Null: case Shape::Boolean: case Shape::Number: case Shape::Text: visitNull(node, parent, role); break;
    case Shape::Cast: visitCast(node, parent, role); break;
    case Shape::Await: {
      NodeId id = add(parent, Kind::Await, role, node);
      visitChildren(node, id, Role::Operand);
      break;
    }
    case Shape::Collection: {
      NodeId id = add(parent, Kind::Collection, role, node);
      visitChildren(node, id, Role::Value);
      break;
    }
    case Shape::Own: own(node, g_.ownOf(symbol), parent, role); break;
    case Shape::Other: {
      NodeId id = add(parent, Kind::Other, role, node);
      visitChildren(node, id, Role::Operand);
      break;
    }
  }
  --depth_;
}

void SharedLowerer::visitIf(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::If, role, node);
  TSNode test = field(node, f_.condition);
  if (!isNull(test)) condition(test, id, Role::Condition);
  TSNode then = firstField(node, f_.consequence, f_.body);
  if (!isNull(then)) visit(then, id, Role::Then);
  // Several alternatives in a row (elif … else): each the else of the one before.
  NodeId at = id;
  for (TSNode child : g_.hasElseClauses ? named(node) : NodeList{}) {
    if (!isElseClause(child)) continue;
    visit(child, at, Role::Else);
    for (NodeId c : children(file_, at))
      if (file_[c].role == Role::Else && file_[c].kind == Kind::If) at = c;
  }
  TSNode otherwise = field(node, f_.alternative);
  if (!isNull(otherwise) && !isElseClause(otherwise)) visit(otherwise, id, Role::Else);
}

void SharedLowerer::visitLoop(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Loop, role, node);
  TSNode left = field(node, f_.left), right = field(node, f_.right);
  if (isNull(right)) right = field(node, f_.value);
  TSNode name = isNull(left) ? field(node, f_.name) : left;
  TSNode test = field(node, f_.condition);
  TSNode inner = field(node, f_.body), type = field(node, f_.type);
  bool each = !isNull(name) && !isNull(right);
  if (each) {
    NodeId item = add(id, Kind::Variable, Role::None, name);
    build_.setName(item, text(name), begin(name));
    typeRef(type, item, Role::Type);
    visit(right, id, Role::Operand);
  }
  // What begins it and what ends each turn, in the order of the text; in some languages what runs when it has come to its end.
  for (TSNode part : named(node)) {
    auto is = [&](TSNode other) { return !isNull(other) && ts_node_eq(part, other); };
    if (is(test)) condition(test, id, Role::Condition);
    else if (is(inner)) visit(inner, id, Role::Body);
    else if (!each || (!is(name) && !is(right) && !is(type))) visit(part, id, Role::None);
  }
}

void SharedLowerer::visitTry(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Try, role, node);
  TSNode inner = field(node, f_.body);
  for (TSNode child : named(node)) {
    bool main = !isNull(inner) && ts_node_eq(child, inner);
    visit(child, id, main ? Role::Body : handlerRole(child));
  }
}

void SharedLowerer::visitMember(TSNode node, NodeId parent, Role role) {
  if (ownMember(node, parent, role)) return;
  TSNode object = firstField(node, f_.object, f_.operand, f_.expression, f_.argument, f_.value, f_.scope);
  TSNode name = firstField(node, f_.property, f_.attribute, f_.field, f_.name);
  if (isNull(object) || isNull(name)) {
    NodeList kids = named(node);
    if (isNull(object) && !kids.empty()) object = kids.front();
    if (isNull(name) && kids.size() > 1) name = kids.back();
  }
  NodeId id = add(parent, Kind::Member, role, node);
  if (!isNull(object)) visit(object, id, Role::Receiver);
  if (!isNull(name)) build_.setName(id, text(name), begin(name));
}

void SharedLowerer::visitIndex(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Index, role, node);
  bool first = true;
  for (TSNode child : named(node)) {
    visit(child, id, first ? Role::Receiver : Role::Argument);
    first = false;
  }
}

void SharedLowerer::visitCall(TSNode node, NodeId parent, Role role) {
  if (ownCall(node, parent, role)) return;
  TSNode callee = field(node, f_.function);
  if (isNull(callee)) callee = firstNamed(node);
  NodeId id = add(parent, Kind::Call, role, node);
  if (!isNull(callee)) visit(callee, id, Role::Callee);
  arguments(field(node, f_.arguments), id);
}

void SharedLowerer::visitNew(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Create, role, node);
  build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
  TSNode type = firstField(node, f_.type, f_.name);
  if (NodeId ref = typeRef(type, id, Role::Type); ref != kNoNode) build_[ref].modifiers &= ~kManaged;
  arguments(field(node, f_.arguments), id);
  createBody(node, id);
}

void SharedLowerer::visitAssign(TSNode node, NodeId parent, Role role) {
  if (ownAssign(node, parent, role)) return;
  TSNode left, right;
  std::string_view op;
  if (Sides sides = sidesOf(node); f_.left != 0 && !isNull(sides.between) && text(sides.between).ends_with('=')) {
    left = sides.left, right = sides.right, op = text(sides.between);
  } else {
    left = firstField(node, f_.left, f_.name), right = firstField(node, f_.right, f_.value);
    op = operatorOf(node);
  }
  if (op == "?\?=" || op == "||=") {
    assignIfNothing(node, parent, role, left, right);
    return;
  }
  NodeId id = add(parent, Kind::Assign, role, node);
  build_[id].detail = static_cast<uint8_t>(op.size() > 1 && op != ":=" ? AssignForm::Compound : AssignForm::Plain);
  visit(left, id, Role::Target);
  visit(right, id, Role::Value);
}

void SharedLowerer::visitCompound(TSNode node, NodeId parent, Role role) {
  TSNode left = field(node, f_.left), right = field(node, f_.right);
  std::string_view op = operatorOf(node);
  if (op == "?\?=" || op == "||=") {
    assignIfNothing(node, parent, role, left, right);
    return;
  }
  NodeId id = add(parent, Kind::Assign, role, node);
  build_[id].detail = static_cast<uint8_t>(AssignForm::Compound);
  visit(left, id, Role::Target);
  visit(right, id, Role::Value);
}

void SharedLowerer::visitUnary(TSNode node, NodeId parent, Role role) {
  std::string_view op = operatorOf(node);
  TSNode operand = firstField(node, f_.operand, f_.argument);
  if (isNull(operand)) operand = firstNamed(node);
  if (isNull(operand)) {
    add(parent, Kind::Other, role, node);
    return;
  }
  if (op == "++" || op == "--") {
    NodeId id = add(parent, Kind::Update, role, node);
    visit(operand, id, Role::Target);
  } else if (op == "!" || op == "not") {
    TSNode inner = operand;
    while (g_.shapeOf(inner) == Shape::Paren && !isNull(firstNamed(inner))) inner = firstNamed(inner);
    Shape shape = g_.shapeOf(inner);
    if (g_.spec.truthiness && (shape == Shape::Name || shape == Shape::Member || shape == Shape::Index || shape == Shape::Assign)) {
      nullTest(node, parent, role, NullTestForm::IsNull, inner);
    } else {
      NodeId id = add(parent, Kind::Logic, role, node);
      build_[id].detail = static_cast<uint8_t>(LogicForm::Not);
      visit(inner, id, Role::Operand);
    }
  } else if (op == "&" || op == "*") {
    NodeId id = add(parent, op == "&" ? Kind::AddressOf : Kind::Dereference, role, node);
    visit(operand, id, Role::Operand);
  } else {
    NodeId id = add(parent, Kind::Other, role, node);
    visit(operand, id, Role::Operand);
  }
}

void SharedLowerer::visitConditional(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Conditional, role, node);
  TSNode test = field(node, f_.condition), then = firstField(node, f_.consequence, f_.body), otherwise = field(node, f_.alternative);
  if (NodeList kids = isNull(test) ? named(node) : NodeList{}; kids.size() == 3) {  // a if test else b
    then = kids[0];
    test = kids[1];
    otherwise = kids[2];
  }
  condition(test, id, Role::Condition);
  visit(then, id, Role::Then);
  visit(otherwise, id, Role::Else);
}

void SharedLowerer::visitLambda(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Lambda, role, node);
  TSNode list = field(node, f_.parameters);
  if (!isNull(list)) {
    if (g_.shapeOf(list) == Shape::Name) parameter(list, id);
    else parameters(list, id);
  }
  TSNode block = field(node, f_.body);
  if (isNull(block))  // delegate(Ship ship) { … }: a child without a field
    for (TSNode child : named(node))
      if (g_.shapeOf(child) == Shape::Block) block = child;
  body(block, id);
}

void SharedLowerer::visitNull(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Literal, role, node);
  Shape shape = g_.shapeOf(node);
  build_[id].detail = static_cast<uint8_t>(shape == Shape::Null ? LiteralForm::Null : shape == Shape::Boolean ? LiteralForm::Boolean : shape == Shape::Number ? LiteralForm::Number : LiteralForm::Text);
  if (shape == Shape::Text)  // what is put into it
    for (TSNode child : named(node))
      if (g_.shapeOf(child) != Shape::Other) visit(child, id, Role::Operand);
}

void SharedLowerer::visitCast(TSNode node, NodeId parent, Role role) {
  NodeId id = add(parent, Kind::Cast, role, node);
  TSNode type = field(node, f_.type);
  NodeList kids = named(node);
  if (isNull(type) && kids.size() == 2) type = kids.back();
  typeRef(type, id, Role::Type);
  for (TSNode kid : kids)
    if (isNull(type) || !ts_node_eq(kid, type)) visit(kid, id, Role::Operand);
}

}  // namespace elmcart

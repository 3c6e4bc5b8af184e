// Statements, and the guards that lock objects make of C++.
#include "languages/cpp/lowerer.h"

namespace elmcart::cpp {

void Lowerer::block(TSNode node, NodeId parent, Role role) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  NodeId id = build_.add(parent, Kind::Block, role, spanOf(node));
  Children kids(*this, node);
  statements(kids, 0, kids.size(), id);
}

void Lowerer::statements(const Children& kids, size_t from, size_t to, NodeId parent) {
  Deeper deeper(*this);
  for (size_t i = from; i < to; ++i) {
    if (kids[i].tag == Tag::None || kids[i].tag == Tag::Comment) continue;
    if (depth_ > kDepthLimit) {
      unread(parent, {begin(kids[i].node), ts_node_end_byte(kids[to - 1].node)});
      return;
    }
    // From a lock to the end of its block (or to the unlock): a guard.
    if (kids[i].tag == Tag::Declaration && isScopeLock(kids[i].node)) {
      NodeId guard = build_.add(parent, Kind::Guard, Role::None, {begin(kids[i].node), ts_node_end_byte(kids[to - 1].node)});
      build_[guard].detail = static_cast<uint8_t>(GuardForm::Scoped);
      scopeLockOperands(kids[i].node, guard);
      NodeId body = build_.add(guard, Kind::Block, Role::Body, build_[guard].span);
      statements(kids, i + 1, to, body);
      return;
    }
    if (size_t after = lockedByFunction(kids, i, to, parent); after > i) {
      i = after - 1;
      continue;
    }
    std::string_view locked = kids[i].tag == Tag::ExpressionStatement ? callOn(kids[i].node, "lock") : std::string_view{};
    if (!locked.empty()) {
      size_t end = i + 1;
      while (end < to && !(kids[end].tag == Tag::ExpressionStatement && callOn(kids[end].node, "unlock") == locked)) ++end;
      TSNode call = ts_node_named_child(kids[i].node, 0);
      TSNode function = fieldOf(call, grammar().function);
      guardBetween(kids, i, end, to, fieldOf(function, grammar().argument), parent);
      i = end;
      continue;
    }
    statement(kids[i], parent, Role::None);
  }
}

namespace {

// What gives back the lock that a function takes, by its name: pthread_mutex_lock and pthread_mutex_unlock,
// EnterCriticalSection and LeaveCriticalSection. Empty: it takes none.
std::string givesBack(std::string_view name) {
  struct Pair {
    std::string_view take, give;
    bool alone;  // the word says it, without another
  };
  static constexpr Pair kPairs[] = {{"wrlock", "unlock", true}, {"rdlock", "unlock", true}, {"lock", "unlock", true}, {"Lock", "Unlock", true}, {"Enter", "Leave", false}, {"acquire", "release", false}, {"Acquire", "Release", false}};
  std::string lower = lowerCase(name);
  bool aboutLocks = lower.find("lock") != std::string::npos || lower.find("mutex") != std::string::npos || lower.find("critical") != std::string::npos;
  if (lower.find("unlock") != std::string::npos || lower.find("try") != std::string::npos) return {};
  for (const Pair& pair : kPairs) {
    size_t at = name.rfind(pair.take);
    if (at == std::string_view::npos || (!pair.alone && !aboutLocks)) continue;
    bool begins = at == 0 || name[at - 1] == '_' || (pair.take[0] >= 'A' && pair.take[0] <= 'Z');
    size_t end = at + pair.take.size();
    bool ends = end == name.size() || name[end] == '_' || (name[end] >= 'A' && name[end] <= 'Z');
    if (begins && ends) return std::string(name.substr(0, at)) + std::string(pair.give) + std::string(name.substr(end));
  }
  return {};
}

}  // namespace

// The function's name and the text of its first argument, when the statement is `function(argument, …);`
std::pair<std::string_view, TSNode> Lowerer::plainCall(TSNode statementNode) const {
  TSNode call = ts_node_named_child_count(statementNode) == 0 ? TSNode{} : ts_node_named_child(statementNode, 0);
  if (isNull(call) || tagOf(call) != Tag::Call) return {};
  TSNode function = fieldOf(call, grammar().function), list = fieldOf(call, grammar().arguments);
  if (isNull(function) || tagOf(function) != Tag::Identifier || isNull(list) || ts_node_named_child_count(list) == 0) return {};
  return {textOfNode(function), ts_node_named_child(list, 0)};
}

// Makes a guard of the statements between a call that takes a lock by a plain function and the one that gives it back, which
// stands further down or in what does. Returns the position behind it, or `at`: that is no such call.
size_t Lowerer::lockedByFunction(const Children& kids, size_t at, size_t to, NodeId parent) {
  if (kids[at].tag != Tag::ExpressionStatement) return at;
  auto [name, lock] = plainCall(kids[at].node);
  std::string gives = name.empty() ? std::string{} : givesBack(name);
  if (gives.empty()) return at;
  std::string_view taken = textOfNode(lock);
  size_t end = at + 1;
  auto isGivenBack = [&](size_t k) {
    if (kids[k].tag != Tag::ExpressionStatement) return false;
    auto [other, given] = plainCall(kids[k].node);
    return other == gives && textOfNode(given) == taken;
  };
  while (end < to && !isGivenBack(end)) ++end;
  if (end == to) {
    std::string_view rest = text_.substr(ts_node_end_byte(kids[at].node), ts_node_end_byte(kids[to - 1].node) - ts_node_end_byte(kids[at].node));
    size_t call = rest.find(gives);
    if (call == std::string_view::npos || rest.find(taken, call) == std::string_view::npos) return at;
  }
  guardBetween(kids, at, end, to, lock, parent);
  return std::min(end + 1, to);
}

// The lock is taken at `at`, and given back at `end`, or not before `to`.
void Lowerer::guardBetween(const Children& kids, size_t at, size_t end, size_t to, TSNode lock, NodeId parent) {
  NodeId guard = build_.add(parent, Kind::Guard, Role::None, {begin(kids[at].node), ts_node_end_byte(kids[std::min(end, to - 1)].node)});
  build_[guard].detail = static_cast<uint8_t>(GuardForm::LockUnlock);
  expression(lock, guard, Role::Lock);
  NodeId body = build_.add(guard, Kind::Block, Role::Body, build_[guard].span);
  statements(kids, at + 1, end, body);
}

// The receiver's text when the statement is `receiver.method();`
std::string_view Lowerer::callOn(TSNode statementNode, std::string_view method) const {
  if (ts_node_named_child_count(statementNode) == 0) return {};
  TSNode call = ts_node_named_child(statementNode, 0);
  if (tagOf(call) != Tag::Call) return {};
  TSNode function = fieldOf(call, grammar().function);
  if (isNull(function) || tagOf(function) != Tag::FieldExpression) return {};
  TSNode field = fieldOf(function, grammar().field);
  if (isNull(field)) return {};
  std::string_view word = textOfNode(field);
  bool same = word == method || (method == "lock" && (word == "Lock" || word == "lock_shared")) ||
              (method == "unlock" && (word == "Unlock" || word == "unlock_shared"));
  return same ? textOfNode(fieldOf(function, grammar().argument)) : std::string_view{};
}

// `std::lock_guard<std::mutex> hold(m);` and other scope locks, by the type's
// last name: …lock, …guard, …locker with at least one argument.
bool Lowerer::isScopeLock(TSNode node) const {
  TSNode type = fieldOf(node, grammar().type);
  TSNode declarator = fieldOf(node, grammar().declarator);
  if (isNull(type) || isNull(declarator)) return false;
  Tag tag = tagOf(declarator);
  if (tag != Tag::InitDeclarator && tag != Tag::FunctionDeclarator) return false;
  std::string last = lowerCase(lastPart(plainName(type)));
  auto ends = [&](std::string_view suffix) { return last.size() >= suffix.size() && last.compare(last.size() - suffix.size(), suffix.size(), suffix) == 0; };
  bool named = ends("lock") || ends("locker") || last == "lock_guard" || last == "lockguard" || last == "mutexguard" || last == "scopedlock" || ends("lockholder");
  if (!named) return false;
  if (tag == Tag::FunctionDeclarator) {
    TSNode list = fieldOf(declarator, grammar().parameters);
    return !isNull(list) && ts_node_named_child_count(list) > 0;
  }
  TSNode value = fieldOf(declarator, grammar().value);
  if (isNull(value)) return false;
  Tag valueTag = tagOf(value);
  return (valueTag == Tag::ArgumentList || valueTag == Tag::InitList) && ts_node_named_child_count(value) > 0 &&
         textOfNode(value).find("defer_lock") == std::string_view::npos;
}

void Lowerer::scopeLockOperands(TSNode node, NodeId guard) {
  TSNode declarator = fieldOf(node, grammar().declarator);
  TSNode list = tagOf(declarator) == Tag::FunctionDeclarator ? fieldOf(declarator, grammar().parameters) : fieldOf(declarator, grammar().value);
  Children kids(*this, list);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::None || kids[i].tag == Tag::Comment) continue;
    if (kids[i].tag == Tag::ParameterDeclaration) {
      NodeId id = build_.add(guard, Kind::Name, Role::Lock, spanOf(kids[i].node));
      build_.setName(id, plainName(kids[i].node), begin(kids[i].node));
    } else {
      expression(kids[i].node, guard, Role::Lock);
    }
  }
}

void Lowerer::statement(Child kid, NodeId parent, Role role) {
  Deeper deeper(*this);
  TSNode node = kid.node;
  if (tooDeep(node, parent)) return;
  switch (kid.tag) {
    case Tag::Compound: block(node, parent, role == Role::None ? Role::Body : role); return;
    case Tag::Declaration: variables(node, parent, Place::FunctionBody, "", 0); return;
    case Tag::FunctionDefinition: case Tag::Class: case Tag::Struct: case Tag::Union: case Tag::Enum: case Tag::Alias:
    case Tag::Typedef: case Tag::Using: case Tag::NamespaceAlias: case Tag::Template:
      declaration(kid, parent, Place::FunctionBody, "", 0);
      return;
    case Tag::ExpressionStatement: statementExpressionStatement(node, parent, role); break;
    case Tag::If: statementIf(node, parent, role); break;
    case Tag::While: case Tag::Do: {
      NodeId id = build_.add(parent, Kind::Loop, role, spanOf(node));
      TSNode test = fieldOf(node, grammar().condition);
      if (!isNull(test)) conditionClause(test, id);
      branch(fieldOf(node, grammar().body), id, Role::Body);
      return;
    }
    case Tag::For: statementFor(node, parent, role); break;
    case Tag::RangeFor: statementRangeFor(node, parent, role); break;
    case Tag::Switch: statementSwitch(node, parent, role); break;
    case Tag::Case: case Tag::Labeled: statementCase(node, parent); break;
    case Tag::Try: statementTry(node, parent, role); break;
    case Tag::Return: case Tag::CoReturn: case Tag::CoYield: case Tag::Throw: statementReturn(kid, parent, role); break;
    case Tag::Break: case Tag::Continue: case Tag::Goto:
      build_.add(parent, Kind::Jump, role, spanOf(node));
      return;
    case Tag::Error: errorNode(node, parent, Place::FunctionBody, "", 0); return;
    case Tag::None: case Tag::Comment: statementNone(kid, parent, role); break;
    default: {
      NodeId id = build_.add(parent, Kind::ExpressionStatement, role, spanOf(node));
      expression(node, id, Role::Value);
    }
  }
}

void Lowerer::statementExpressionStatement(TSNode node, NodeId parent, Role role) {
  if (ts_node_named_child_count(node) == 0) return;
  TSNode inner = ts_node_named_child(node, 0);
  if (tagOf(inner) == Tag::Comment) return;
  if (onceCall(inner, parent)) return;
  NodeId id = build_.add(parent, Kind::ExpressionStatement, role, spanOf(node));
  expression(inner, id, Role::Value);
}

void Lowerer::statementIf(TSNode node, NodeId parent, Role role) {
  NodeId id = build_.add(parent, Kind::If, role, spanOf(node));
  TSNode test = fieldOf(node, grammar().condition);
  if (!isNull(test)) conditionClause(test, id);
  branch(fieldOf(node, grammar().consequence), id, Role::Then);
  TSNode alternative = fieldOf(node, grammar().alternative);
  if (!isNull(alternative)) {
    if (tagOf(alternative) == Tag::ElseClause && ts_node_named_child_count(alternative) > 0) {
      Children kids(*this, alternative);
      for (size_t i = 0; i < kids.size(); ++i)
        if (kids[i].tag != Tag::None && kids[i].tag != Tag::Comment) branch(kids[i].node, id, Role::Else);
    } else {
      branch(alternative, id, Role::Else);
    }
  }
}

void Lowerer::statementFor(TSNode node, NodeId parent, Role role) {
  NodeId id = build_.add(parent, Kind::Loop, role, spanOf(node));
  TSNode init = fieldOf(node, grammar().initializer);
  if (!isNull(init)) {
    if (tagOf(init) == Tag::Declaration) variables(init, id, Place::FunctionBody, "", 0);
    else expression(init, id, Role::Initialiser);
  }
  TSNode test = fieldOf(node, grammar().condition);
  if (!isNull(test)) condition(test, id, Role::Condition);
  TSNode update = fieldOf(node, grammar().update);
  if (!isNull(update)) expression(update, id, Role::Value);
  branch(fieldOf(node, grammar().body), id, Role::Body);
}

void Lowerer::statementRangeFor(TSNode node, NodeId parent, Role role) {
  NodeId id = build_.add(parent, Kind::Loop, role, spanOf(node));
  Children kids(*this, node);
  Specifiers specifiers = readSpecifiers(kids);
  TSNode right = fieldOf(node, grammar().right);
  TSNode declaratorNode = fieldOf(node, grammar().declarator);
  Declarator declarator;
  if (!isNull(declaratorNode)) readDeclarator(declaratorNode, declarator);
  if (!isNull(right)) expression(right, id, Role::Operand);
  if (!isNull(declarator.bindingNode)) {
    for (uint32_t i = 0; i < ts_node_named_child_count(declarator.bindingNode); ++i) {
      TSNode name = ts_node_named_child(declarator.bindingNode, i);
      NodeId variable = build_.add(id, Kind::Variable, Role::Member, spanOf(declaratorNode));
      build_.setName(variable, textOfNode(name), begin(name));
      build_[variable].modifiers |= kDefinition;
    }
  } else if (declarator.hasName) {
    NodeId variable = build_.add(id, Kind::Variable, Role::Member, spanOf(declaratorNode));
    build_.setName(variable, textOfNode(declarator.nameNode), begin(declarator.nameNode));
    build_[variable].modifiers |= kDefinition;
    typeRef(specifiers.type, specifiers.hasType, spanOf(node), variable, Role::Type, declarator, specifiers.constObject);
  }
  branch(fieldOf(node, grammar().body), id, Role::Body);
}

void Lowerer::statementSwitch(TSNode node, NodeId parent, Role role) {
  NodeId id = build_.add(parent, Kind::Switch, role, spanOf(node));
  TSNode test = fieldOf(node, grammar().condition);
  if (!isNull(test)) conditionClause(test, id);
  branch(fieldOf(node, grammar().body), id, Role::Body);
}

void Lowerer::statementCase(TSNode node, NodeId parent) {
  Children kids(*this, node);
  bool afterColon = false;
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::None) {
      afterColon |= textOfNode(kids[i].node) == ":";
      continue;
    }
    if (afterColon && kids[i].tag != Tag::Comment) statement(kids[i], parent, Role::None);
  }
}

void Lowerer::statementTry(TSNode node, NodeId parent, Role role) {
  NodeId id = build_.add(parent, Kind::Try, role, spanOf(node));
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::Compound) block(kids[i].node, id, Role::Body);
    if (kids[i].tag == Tag::FieldInits) fieldInits(kids[i].node, id);
    if (kids[i].tag == Tag::Catch) {
      TSNode body = fieldOf(kids[i].node, grammar().body), caught = fieldOf(kids[i].node, grammar().parameters);
      NodeId clause = build_.add(id, Kind::Block, Role::Handler, spanOf(kids[i].node));
      for (uint32_t c = 0; !isNull(caught) && c < ts_node_named_child_count(caught); ++c)
        if (TSNode one = ts_node_named_child(caught, c); !isNull(fieldOf(one, grammar().declarator))) variables(one, clause, Place::FunctionBody, "", 0);
      if (!isNull(body)) block(body, clause, Role::Body);
    }
  }
}

void Lowerer::statementReturn(Child kid, NodeId parent, Role role) {
  TSNode node = kid.node;
  NodeId id = build_.add(parent, kid.tag == Tag::Throw ? Kind::Throw : Kind::Return, role, spanOf(node));
  for (uint32_t i = 0; i < ts_node_named_child_count(node); ++i) {
    TSNode value = ts_node_named_child(node, i);
    if (tagOf(value) == Tag::Comment) continue;
    expression(value, id, Role::Value);
    break;
  }
}

void Lowerer::statementNone(Child kid, NodeId parent, Role role) {
  TSNode node = kid.node;
  // seh and other rare statements: keep what is inside.
  if (ts_node_is_named(node) && kid.tag == Tag::None) {
    NodeId id = build_.add(parent, Kind::Other, role, spanOf(node));
    Children kids(*this, node);
    for (size_t i = 0; i < kids.size(); ++i)
      if (kids[i].tag != Tag::None) statement(kids[i], id, Role::None);
  }
}

// A branch of an if or loop: always a block, so that walks need one case only.
void Lowerer::branch(TSNode node, NodeId parent, Role role) {
  if (isNull(node)) return;
  Tag tag = tagOf(node);
  if (tag == Tag::Compound) {
    block(node, parent, role);
    return;
  }
  NodeId id = build_.add(parent, Kind::Block, role, spanOf(node));
  statement({node, 0, tag}, id, Role::None);
}

void Lowerer::conditionClause(TSNode node, NodeId parent) {
  Tag tag = tagOf(node);
  if (tag != Tag::ConditionClause) {
    condition(node, parent, Role::Condition);
    return;
  }
  TSNode init = fieldOf(node, grammar().initializer);
  if (!isNull(init)) {
    for (uint32_t i = 0; i < ts_node_named_child_count(init); ++i) {
      TSNode inner = ts_node_named_child(init, i);
      if (tagOf(inner) == Tag::Declaration) variables(inner, parent, Place::FunctionBody, "", 0);
      else expression(inner, parent, Role::Initialiser);
    }
  }
  TSNode value = fieldOf(node, grammar().value);
  if (isNull(value)) return;
  if (tagOf(value) == Tag::Declaration) {  // if (auto* p = find())
    Children kids(*this, value);
    Specifiers specifiers = readSpecifiers(kids);
    TSNode declaratorNode = fieldOf(value, grammar().declarator);
    TSNode initial = fieldOf(value, grammar().value);
    Declarator declarator;
    if (!isNull(declaratorNode)) readDeclarator(declaratorNode, declarator);
    if (!declarator.hasName) return;
    NodeId variable = build_.add(parent, Kind::Variable, Role::Member, spanOf(value));
    build_.setName(variable, textOfNode(declarator.nameNode), begin(declarator.nameNode));
    build_[variable].modifiers |= kDefinition;
    typeRef(specifiers.type, specifiers.hasType, spanOf(value), variable, Role::Type, declarator, specifiers.constObject);
    if (!isNull(initial)) expression(initial, variable, Role::Initialiser);
    NodeId test = build_.add(parent, Kind::NullTest, Role::Condition, spanOf(value));
    build_[test].detail = static_cast<uint8_t>(NullTestForm::IsNotNull);
    NodeId name = build_.add(test, Kind::Name, Role::Operand, spanOf(declarator.nameNode));
    build_.setName(name, textOfNode(declarator.nameNode), begin(declarator.nameNode));
    return;
  }
  condition(value, parent, Role::Condition);
}

// std::call_once(flag, code)
bool Lowerer::onceCall(TSNode node, NodeId parent) {
  if (tagOf(node) != Tag::Call) return false;
  TSNode function = fieldOf(node, grammar().function);
  if (isNull(function)) return false;
  std::string_view last = lastPart(textOfNode(function));
  if (last != "call_once" && last != "pthread_once") return false;
  TSNode list = fieldOf(node, grammar().arguments);
  NodeId id = build_.add(parent, Kind::Once, Role::None, spanOf(node));
  Children kids(*this, list);
  bool first = true;
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::None || kids[i].tag == Tag::Comment) continue;
    if (first) {
      expression(kids[i].node, id, Role::Lock);
      first = false;
    } else if (kids[i].tag == Tag::Lambda) {
      expression(kids[i].node, id, Role::Body);
    } else {
      // A function by name: running it is calling it.
      NodeId call = build_.add(id, Kind::Call, Role::Body, spanOf(kids[i].node));
      TSNode target = kids[i].node;
      if (tagOf(target) == Tag::Pointer && !isNull(fieldOf(target, grammar().argument))) target = fieldOf(target, grammar().argument);
      expression(target, call, Role::Callee);
      break;
    }
  }
  return true;
}

}  // namespace elmcart::cpp

// Expressions of C++.
#include "languages/cpp/lowerer.h"

namespace elmcart::cpp {

NodeId Lowerer::literal(TSNode node, NodeId parent, Role role, LiteralForm form) {
  NodeId id = leaf(node, parent, role, Kind::Literal);
  build_[id].detail = static_cast<uint8_t>(form);
  return id;
}

void Lowerer::arguments(TSNode list, NodeId parent) {
  Deeper deeper(*this);
  if (tooDeep(list, parent)) return;
  Children kids(*this, list);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (kids[i].tag == Tag::Comment || (kids[i].tag == Tag::None && !ts_node_is_named(kids[i].node))) continue;
    expression(kids[i].node, parent, Role::Argument);
  }
}

bool Lowerer::isNullLiteral(TSNode node, std::string_view text) {
  Tag tag = tagOf(node);
  std::string_view word = textOf(text, node);
  return tag == Tag::Null || word == "NULL" || word == "nullptr" || (tag == Tag::Number && word == "0");
}

TSNode Lowerer::unwrap(TSNode node) const {
  for (int i = 0; i < 100 && tagOf(node) == Tag::Paren && ts_node_named_child_count(node) == 1; ++i) node = ts_node_named_child(node, 0);
  return node;
}

// An expression used as a truth value: a bare one becomes a null test.
void Lowerer::condition(TSNode node, NodeId parent, Role role) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return;
  node = unwrap(node);
  switch (tagOf(node)) {
    case Tag::Identifier: case Tag::Qualified: case Tag::FieldExpression: case Tag::Call: case Tag::Pointer:
    case Tag::Subscript: case Tag::Assignment: {
      NodeId id = build_.add(parent, Kind::NullTest, role, spanOf(node));
      build_[id].detail = static_cast<uint8_t>(NullTestForm::IsNotNull);
      expression(node, id, Role::Operand);
      return;
    }
    default: expression(node, parent, role);
  }
}

NodeId Lowerer::expression(TSNode node, NodeId parent, Role role) {
  Deeper deeper(*this);
  if (tooDeep(node, parent)) return kNoNode;
  const Grammar& g = grammar();
  switch (tagOf(node)) {
    case Tag::Identifier: case Tag::FieldIdentifier: case Tag::TypeIdentifier: case Tag::NamespaceIdentifier: {
      std::string_view word = textOfNode(node);
      if (word == "NULL") return literal(node, parent, role, LiteralForm::Null);
      return name(node, parent, role, word);
    }
    case Tag::Qualified: case Tag::TemplateFunction: case Tag::TemplateType: case Tag::DependentName: {
      NodeId id = leaf(node, parent, role, Kind::Name);
      build_.setName(id, plainName(node), begin(lastNameNode(node)));
      typeArguments(node, id);
      return id;
    }
    case Tag::This: return leaf(node, parent, role, Kind::This);
    case Tag::Null: return literal(node, parent, role, LiteralForm::Null);
    case Tag::True: case Tag::False: return literal(node, parent, role, LiteralForm::Boolean);
    case Tag::Number: return literal(node, parent, role, LiteralForm::Number);
    case Tag::String: case Tag::RawString: case Tag::Concatenated: return literal(node, parent, role, LiteralForm::Text);
    case Tag::Char: return literal(node, parent, role, LiteralForm::Character);
    case Tag::Paren: {
      TSNode inner = unwrap(node);
      if (tagOf(inner) != Tag::Paren) return expression(inner, parent, role);
      break;
    }
    case Tag::FieldExpression: return expressionFieldExpression(node, parent, role);
    case Tag::Call: return call(node, parent, role);
    case Tag::New: return expressionNew(node, parent, role);
    case Tag::CompoundLiteral: return compoundLiteral(node, parent, role);
    case Tag::Delete: {
      NodeId id = leaf(node, parent, role, Kind::Destroy);
      if (ts_node_named_child_count(node) > 0) expression(ts_node_named_child(node, ts_node_named_child_count(node) - 1), id, Role::Operand);
      return id;
    }
    case Tag::Assignment: return expressionAssignment(node, parent, role);
    case Tag::Update: {
      NodeId id = leaf(node, parent, role, Kind::Update);
      if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Target);
      return id;
    }
    case Tag::Unary: return unary(node, parent, role);
    case Tag::Pointer: {
      TSNode op = fieldOf(node, g.op);
      NodeId id = leaf(node, parent, role, !isNull(op) && textOfNode(op) == "&" ? Kind::AddressOf : Kind::Dereference);
      if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Operand);
      return id;
    }
    case Tag::Binary: return binary(node, parent, role);
    case Tag::Conditional: return conditional(node, parent, role);
    case Tag::Lambda: return lambda(node, parent, role);
    case Tag::Cast: {
      NodeId id = leaf(node, parent, role, Kind::Cast);
      if (TSNode type = fieldOf(node, g.type); !isNull(type)) typeDescriptor(type, id, Role::Type);
      if (TSNode value = fieldOf(node, g.value); !isNull(value)) expression(value, id, Role::Operand);
      return id;
    }
    case Tag::Subscript: {
      NodeId id = leaf(node, parent, role, Kind::Index);
      if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Receiver);
      if (TSNode indices = fieldOf(node, g.indices); !isNull(indices)) arguments(indices, id);
      return id;
    }
    case Tag::InitList: {
      NodeId id = leaf(node, parent, role, Kind::Collection);
      arguments(node, id);
      return id;
    }
    case Tag::CoAwait: {
      NodeId id = leaf(node, parent, role, Kind::Await);
      if (TSNode inner = fieldOf(node, g.argument); !isNull(inner)) expression(inner, id, Role::Operand);
      return id;
    }
    case Tag::Error: errorNode(node, parent, Place::FunctionBody, "", 0); return kNoNode;
    case Tag::Comment: return kNoNode;
    case Tag::TypeDescriptor: typeDescriptor(node, parent, Role::Type); return kNoNode;
    case Tag::Compound: block(node, parent, Role::Body); return kNoNode;
    case Tag::PackExpansion:
      if (ts_node_named_child_count(node) > 0) {
        NodeId id = expression(ts_node_named_child(node, 0), parent, role);
        if (id != kNoNode) build_[id].modifiers |= kPack;
        return id;
      }
      break;
    default: break;
  }
  return operandsOf(node, parent, role);
}

// A name, or the call that a macro of that name stands for.
NodeId Lowerer::name(TSNode node, NodeId parent, Role role, std::string_view word) {
  const MacroLore::Accessor* accessor = nullptr;
  if (lore_)
    if (auto macro = lore_->accessors.find(word); macro != lore_->accessors.end()) accessor = &macro->second;
  NodeId call = accessor && !accessor->writtenAsCall ? leaf(node, parent, role, Kind::Call) : kNoNode;
  NodeId id = call == kNoNode ? leaf(node, parent, role, Kind::Name) : leaf(node, call, Role::Callee, Kind::Name);
  build_.setName(id, accessor ? std::string_view(accessor->called) : word, begin(node));
  return call == kNoNode ? id : call;
}

// Foo{…}
NodeId Lowerer::compoundLiteral(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  NodeId id = leaf(node, parent, role, Kind::Create);
  build_[id].detail = static_cast<uint8_t>(CreateForm::Value);
  TSNode type = fieldOf(node, g.type);
  TSNode value = fieldOf(node, g.value);
  if (!isNull(type)) {
    if (tagOf(type) == Tag::TypeDescriptor) typeDescriptor(type, id, Role::Type);
    else typeRef(type, true, {}, id, Role::Type, Declarator{}, false);
  }
  if (!isNull(value)) arguments(value, id);
  return id;
}

NodeId Lowerer::conditional(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  NodeId id = leaf(node, parent, role, Kind::Conditional);
  condition(fieldOf(node, g.condition), id, Role::Condition);
  if (TSNode then = fieldOf(node, g.consequence); !isNull(then)) expression(then, id, Role::Then);
  if (TSNode other = fieldOf(node, g.alternative); !isNull(other)) expression(other, id, Role::Else);
  return id;
}

NodeId Lowerer::unary(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  TSNode op = fieldOf(node, g.op);
  TSNode inner = fieldOf(node, g.argument);
  if (isNull(inner)) return operandsOf(node, parent, role);
  std::string_view word = isNull(op) ? std::string_view{} : textOfNode(op);
  if (word == "!" || word == "not") {
    TSNode bare = unwrap(inner);
    Tag tag = tagOf(bare);
    if (tag == Tag::Binary || tag == Tag::Unary) {
      NodeId id = leaf(node, parent, role, Kind::Logic);
      build_[id].detail = static_cast<uint8_t>(LogicForm::Not);
      condition(bare, id, Role::Operand);
      return id;
    }
    NodeId id = leaf(node, parent, role, Kind::NullTest);
    build_[id].detail = static_cast<uint8_t>(NullTestForm::IsNull);
    expression(bare, id, Role::Operand);
    return id;
  }
  if (tagOf(inner) == Tag::Number) return literal(node, parent, role, LiteralForm::Number);
  return operandsOf(node, parent, role);
}

// Anything else keeps its named children as operands.
NodeId Lowerer::operandsOf(TSNode node, NodeId parent, Role role) {
  NodeId id = leaf(node, parent, role, Kind::Other);
  Children kids(*this, node);
  for (size_t i = 0; i < kids.size(); ++i) {
    if (!ts_node_is_named(kids[i].node) || kids[i].tag == Tag::Comment) continue;
    if (kids[i].tag == Tag::Declaration) variables(kids[i].node, id, Place::FunctionBody, "", 0);
    else if (isStatement(kids[i].tag)) statement(kids[i], id, Role::None);
    else expression(kids[i].node, id, Role::Operand);
  }
  return id;
}

NodeId Lowerer::expressionFieldExpression(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  NodeId id = leaf(node, parent, role, Kind::Member);
  TSNode field = fieldOf(node, g.field);
  TSNode receiver = fieldOf(node, g.argument);
  TSNode op = fieldOf(node, g.op);
  if (!isNull(op) ? textOfNode(op) == "->" : textOfNode(node).find("->") != std::string_view::npos) build_[id].modifiers |= kArrow;
  if (!isNull(receiver)) expression(receiver, id, Role::Receiver);
  if (!isNull(field)) {
    TSNode last = lastNameNode(field);
    build_.setName(id, lastPart(plainName(last)), begin(last));
    typeArguments(field, id);
  }
  return id;
}

NodeId Lowerer::expressionNew(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  NodeId id = leaf(node, parent, role, Kind::Create);
  build_[id].detail = static_cast<uint8_t>(CreateForm::Heap);
  TSNode type = fieldOf(node, g.type);
  Declarator declarator;
  if (TSNode shape = fieldOf(node, g.declarator); !isNull(shape)) declarator.array = true;
  if (!isNull(type)) typeRef(type, true, {}, id, Role::Type, declarator, false);
  TSNode placement = fieldOf(node, g.placement);
  if (!isNull(placement)) {
    NodeId place = build_.add(id, Kind::Other, Role::Placement, spanOf(placement));
    arguments(placement, place);
  }
  TSNode list = fieldOf(node, g.arguments);
  if (!isNull(list)) arguments(list, id);
  return id;
}

NodeId Lowerer::expressionAssignment(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  NodeId id = leaf(node, parent, role, Kind::Assign);
  TSNode op = fieldOf(node, g.op);
  if (!isNull(op) && textOfNode(op) != "=") build_[id].detail = static_cast<uint8_t>(AssignForm::Compound);
  expression(fieldOf(node, g.left), id, Role::Target);
  if (TSNode right = fieldOf(node, g.right); !isNull(right)) expression(right, id, Role::Value);
  return id;
}

NodeId Lowerer::binary(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  TSNode opNode = fieldOf(node, g.op);
  std::string_view op = isNull(opNode) ? std::string_view{} : textOfNode(opNode);
  TSNode left = fieldOf(node, g.left);
  TSNode right = fieldOf(node, g.right);
  if (isNull(left) || isNull(right)) {
    unread(parent, spanOf(node));
    return kNoNode;
  }
  if (op == "==" || op == "!=" || op == "not_eq") {
    bool leftNull = isNullLiteral(left, text_), rightNull = isNullLiteral(right, text_);
    if (leftNull != rightNull) {
      NodeId id = leaf(node, parent, role, Kind::NullTest);
      build_[id].detail = static_cast<uint8_t>(op == "==" ? NullTestForm::IsNull : NullTestForm::IsNotNull);
      expression(unwrap(leftNull ? right : left), id, Role::Operand);
      return id;
    }
  }
  if (op == "==" || op == "!=" || op == "<" || op == ">" || op == "<=" || op == ">=" || op == "<=>") {
    NodeId id = leaf(node, parent, role, Kind::Compare);
    expression(left, id, Role::Operand);
    expression(right, id, Role::Operand);
    return id;
  }
  bool isAnd = op == "&&" || op == "and", isOr = op == "||" || op == "or";
  // a + b + c + … nests to the left: read it flat, whatever its length.
  std::vector<TSNode> operands = {right};
  TSNode at = left;
  while (tagOf(at) == Tag::Binary) {
    TSNode innerOp = fieldOf(at, g.op);
    std::string_view innerWord = isNull(innerOp) ? std::string_view{} : textOfNode(innerOp);
    bool innerTest = innerWord == "==" || innerWord == "!=" || innerWord == "<" || innerWord == ">" || innerWord == "<=" || innerWord == ">=" || innerWord == "<=>";
    bool innerLogic = innerWord == "&&" || innerWord == "||" || innerWord == "and" || innerWord == "or";
    if (isAnd || isOr ? innerWord != op : innerTest || innerLogic) break;
    TSNode innerLeft = fieldOf(at, g.left), innerRight = fieldOf(at, g.right);
    if (isNull(innerLeft) || isNull(innerRight)) break;
    operands.push_back(innerRight);
    at = innerLeft;
  }
  operands.push_back(at);
  NodeId id = leaf(node, parent, role, isAnd || isOr ? Kind::Logic : Kind::Other);
  build_.setName(id, op, 0);
  if (isAnd || isOr) build_[id].detail = static_cast<uint8_t>(isAnd ? LogicForm::And : LogicForm::Or);
  for (auto it = operands.rbegin(); it != operands.rend(); ++it) {
    if (isAnd || isOr) condition(*it, id, Role::Operand);
    else expression(*it, id, Role::Operand);
  }
  return id;
}

NodeId Lowerer::call(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  TSNode function = fieldOf(node, g.function);
  TSNode list = fieldOf(node, g.arguments);
  if (isNull(function)) {
    return leaf(node, parent, role, Kind::Other);
  }
  Tag tag = tagOf(function);
  if (tag == Tag::Primitive || tag == Tag::Sized) {
    NodeId id = leaf(node, parent, role, Kind::Cast);
    typeRef(function, true, {}, id, Role::Type, Declarator{}, false);
    if (!isNull(list) && ts_node_named_child_count(list) > 0) expression(ts_node_named_child(list, 0), id, Role::Operand);
    return id;
  }
  bool templated = tag == Tag::TemplateFunction || (tag == Tag::Qualified && textOfNode(function).find('<') != std::string_view::npos);
  std::string plain = templated ? plainName(function) : "";
  std::string_view last = lastPart(plain);
  if (templated && (last == "static_cast" || last == "dynamic_cast" || last == "const_cast" || last == "reinterpret_cast")) {
    NodeId id = leaf(node, parent, role, Kind::Cast);
    typeArguments(function, id);
    for (NodeId c = build_[id].firstChild; c != kNoNode; c = build_[c].nextSibling) build_[c].role = Role::Type;
    if (!isNull(list) && ts_node_named_child_count(list) > 0) expression(ts_node_named_child(list, 0), id, Role::Operand);
    return id;
  }
  if (templated && (last == "make_unique" || last == "make_shared" || last == "make_optional" || last == "allocate_shared")) {
    NodeId id = leaf(node, parent, role, Kind::Create);
    build_[id].detail = static_cast<uint8_t>(last == "make_unique" ? CreateForm::Unique : last == "make_optional" ? CreateForm::InPlace : CreateForm::Shared);
    build_[id].nameBegin = begin(lastNameNode(function));
    typeArguments(function, id);
    bool first = true;
    for (NodeId c = build_[id].firstChild; c != kNoNode; c = build_[c].nextSibling) {
      if (first) build_[c].role = Role::Type;
      first = false;
    }
    if (!isNull(list)) arguments(list, id);
    return id;
  }
  NodeId id = leaf(node, parent, role, Kind::Call);
  expression(function, id, Role::Callee);
  if (!isNull(list)) arguments(list, id);
  return id;
}

NodeId Lowerer::lambda(TSNode node, NodeId parent, Role role) {
  const Grammar& g = grammar();
  NodeId id = leaf(node, parent, role, Kind::Lambda);
  TSNode captures = fieldOf(node, g.captures);
  if (!isNull(captures)) {
    Children kids(*this, captures);
    bool byReference = false;
    for (size_t i = 0; i < kids.size(); ++i) {
      std::string_view word = textOfNode(kids[i].node);
      if (kids[i].tag == Tag::None && word == "&" && !ts_node_is_named(kids[i].node)) {  // of the next name; else of all, which is a node
        byReference = true;
        continue;
      }
      if (kids[i].tag == Tag::None && (word == "[" || word == "]" || word == ",")) {
        byReference = byReference && word != ",";
        continue;
      }
      NodeId capture = build_.add(id, Kind::Capture, Role::Capture, spanOf(kids[i].node));
      size_t from = word.find_first_not_of("&* ");
      bool reference = byReference || (!word.empty() && word[0] == '&');
      if (from != std::string_view::npos) {
        size_t end = from;
        while (end < word.size() && isWordByte(word[end])) ++end;
        build_.setName(capture, word.substr(from, end - from), begin(kids[i].node) + static_cast<uint32_t>(from));
      }
      if (reference) build_[capture].modifiers |= kReference;
      byReference = false;
      if (kids[i].tag != Tag::Identifier && kids[i].tag != Tag::This) {
        TSNode right = fieldOf(kids[i].node, g.right);
        if (isNull(right)) right = fieldOf(kids[i].node, g.value);
        if (!isNull(right)) expression(right, capture, Role::Initialiser);
      }
    }
  }
  TSNode declarator = fieldOf(node, g.declarator);
  if (!isNull(declarator)) parameters(declarator, id);
  TSNode body = fieldOf(node, g.body);
  if (!isNull(body)) block(body, id, Role::Body);
  return id;
}

}  // namespace elmcart::cpp

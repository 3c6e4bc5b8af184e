#include "flow/control.h"

#include <algorithm>

namespace elmcart {
namespace {

// Is there such a statement inside, but for the functions and classes that stand in it?
template <typename Is>
bool anyStatement(const LoweredFile& file, NodeId n, Is is) {
  if (is(file[n].kind)) return true;
  if (file[n].kind == Kind::Lambda || file[n].kind == Kind::Function || file[n].kind == Kind::Type) return false;
  for (NodeId c : children(file, n))
    if (anyStatement(file, c, is)) return true;
  return false;
}

}  // namespace

Answer passes(const Program& p, Place statement, bool turnEnds) {
  const LoweredFile& file = p.file(statement);
  NodeId n = statement.node;
  auto inside = [&](NodeId c) { return c == kNoNode ? Answer::Yes : passes(p, {statement.file, c}, turnEnds); };
  switch (file[n].kind) {
    case Kind::Return:
    case Kind::Throw: return Answer::No;
    case Kind::Jump: return turnEnds ? Answer::No : Answer::NotKnown;
    case Kind::If: {
      NodeId other = file.child(n, Role::Else);
      return other == kNoNode ? Answer::Yes : std::max(inside(file.child(n, Role::Then)), inside(other));
    }
    case Kind::Loop: {
      NodeId condition = file.child(n, Role::Condition), body = file.child(n, Role::Body);
      bool literal = condition != kNoNode && file[condition].kind == Kind::Literal;
      bool endless = condition == kNoNode && file.child(n, Role::Operand) == kNoNode;
      if (!literal && !endless) return Answer::Yes;
      // while (true) and do … while (false) are told apart by a value.
      bool jumps = body != kNoNode && anyStatement(file, body, [](Kind k) { return k == Kind::Jump; });
      return jumps || (literal && inside(body) != Answer::No) ? Answer::NotKnown : Answer::No;
    }
    case Kind::Switch: return anyStatement(file, n, [](Kind k) { return k == Kind::Return || k == Kind::Throw; }) ? Answer::NotKnown : Answer::Yes;
    case Kind::Try: {
      Answer out = inside(file.child(n, Role::Body));
      for (NodeId c : children(file, n)) {
        if (file[c].role == Role::Handler) out = std::max(out, inside(c));
        if (file[c].role == Role::Finally && inside(c) == Answer::No) return Answer::No;
      }
      return out;
    }
    case Kind::Guard: return inside(file.child(n, Role::Body));
    case Kind::Block: {
      Answer out = Answer::Yes;
      for (NodeId c : children(file, n)) out = std::min(out, inside(c));
      return out;
    }
    case Kind::ExpressionStatement: return file[n].firstChild == kNoNode ? Answer::Yes : inside(file[n].firstChild);
    case Kind::Call: {
      NodeId callee = file.child(n, Role::Callee);
      uint32_t traits = callee == kNoNode || p.symbolAt(statement).known() ? 0 : p.guarantees(statement.file).callTraits(file.name(callee));
      if (traits & kThrows) return Answer::No;
      if (!(traits & kAborts)) return Answer::Yes;
      // What is handed a condition may find that it holds.
      NodeId given = file.child(n, Role::Argument);
      return given == kNoNode || file[given].kind == Kind::Literal ? Answer::No : Answer::NotKnown;
    }
    default: return Answer::Yes;
  }
}

Answer reachesEnd(const Program& p, FunctionIndex function) {
  Place definition = p.functions[function].definition;
  NodeId body = definition.known() ? p.file(definition).child(definition.node, Role::Body) : kNoNode;
  return body == kNoNode ? Answer::NotKnown : passes(p, {definition.file, body}, false);
}

Answer goesOn(const Program& p, Place from, Place to) {
  const LoweredFile& file = p.file(from);
  if (from.file != to.file) return Answer::NotKnown;
  auto holdsBoth = [&](NodeId n) { return n == to.node || p.isInside(to, n); };
  Answer out = Answer::Yes;
  int loops = 0;  // that hold the first alone, and are still around
  for (NodeId n = from.node; n != kNoNode && !holdsBoth(n); n = file.parents[n]) loops += file[n].kind == Kind::Loop;
  NodeId below = from.node;
  for (NodeId up = file.parents[below]; up != kNoNode && !holdsBoth(below); below = up, up = file.parents[up]) {
    if ((file[up].kind == Kind::If || file[up].kind == Kind::Conditional) && holdsBoth(up) && file[below].role != Role::Condition) return Answer::No;  // the other branch
    Kind kind = file[below].kind;
    if (kind == Kind::Lambda || kind == Kind::Function || kind == Kind::Type) return Answer::No;
    loops -= kind == Kind::Loop;
    if (file[up].kind == Kind::Block) {
      for (NodeId n = below; n != kNoNode && out != Answer::No && !holdsBoth(n); n = file[n].nextSibling) out = std::min(out, passes(p, {from.file, n}, loops == 0));
    } else {
      out = std::min(out, passes(p, {from.file, below}, loops == 0));
    }
    if (out == Answer::No) return out;
  }
  return out;
}

}  // namespace elmcart

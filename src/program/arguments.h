// What calls give: the arguments of one, the object that it is made on, and what it gives for a parameter.
#pragma once

#include <algorithm>
#include <vector>

#include "program/program.h"

namespace elmcart {

// The argument nodes of a call or creation, in order.
inline std::vector<NodeId> argumentsOf(const LoweredFile& file, NodeId call) {
  std::vector<NodeId> out;
  for (NodeId c : children(file, call))
    if (file[c].role == Role::Argument) out.push_back(c);
  return out;
}

// The object whose member is called; kNoNode: none is named.
inline NodeId receiverOf(const LoweredFile& file, NodeId call) {
  NodeId callee = file[call].kind == Kind::Call ? file.child(call, Role::Callee) : kNoNode;
  return callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
}

// What the call gives for that parameter of the function that it calls; its node is kNoNode where it gives nothing for it.
inline Place givenFor(const Program& p, Place call, FunctionIndex called, VariableIndex parameter) {
  const std::vector<VariableIndex>& parameters = p.functions[called].parameters;
  size_t position = static_cast<size_t>(std::find(parameters.begin(), parameters.end(), parameter) - parameters.begin());
  std::vector<NodeId> arguments = argumentsOf(p.file(call), call.node);
  return {call.file, position < parameters.size() && position < arguments.size() ? arguments[position] : kNoNode};
}

}  // namespace elmcart

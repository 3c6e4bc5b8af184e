#include "assess/threads.h"

#include <algorithm>

namespace elmcart {

Threads::Threads(const Program& program) : p_(program) {
  reachedFrom_.resize(p_.functions.size());
  std::vector<FunctionIndex> open;
  auto enter = [&](FunctionIndex function, Place start) {
    if (reachedFrom_[function].known()) return;
    reachedFrom_[function] = start;
    open.push_back(function);
  };
  auto enterCallsInside = [&](Place lambda, Place start) {
    forEachInside(p_, p_.calls, lambda, [&](const CallSite& call) { enter(call.callee, start); });
  };
  auto startFrom = [&](Place argument) {
    const LoweredFile& file = p_.file(argument);
    const Node& node = file[argument.node];
    starts_.push_back(argument);
    started_.insert(p_.language(argument.file).id);
    startedIn_.insert(std::string(folderOf(argument.file)));
    if (node.kind == Kind::Lambda) {
      enterCallsInside(argument, argument);
      return;
    }
    // A function by name, or by address of a member.
    NodeId at = argument.node;
    if (node.kind == Kind::AddressOf) at = file.child(at, Role::Operand);
    if (at == kNoNode) return;
    Symbol symbol = p_.symbolAt({argument.file, at});
    if (symbol.is(Symbol::Sort::Function)) enter(symbol.index(), argument);
    if (symbol.is(Symbol::Sort::Variable)) {  // a lambda kept in a variable
      Place definition = p_.variables[symbol.index()].definition;
      NodeId value = definition.known() ? p_.file(definition).child(definition.node, Role::Initialiser) : kNoNode;
      if (value != kNoNode && p_.file(definition)[value].kind == Kind::Lambda) enterCallsInside({definition.file, value}, argument);
    }
  };
  for (const ForeignCall& call : p_.foreignCalls) {
    const Guarantees& g = p_.guarantees(call.place.file);
    std::string_view name = p_.text(call.name);
    bool starts = (g.typeTraits(name) & kThreadType) || (g.callTraits(name) & (kStartsThread | kRunsLater));
    // threads.emplace_back(work): a collection of threads.
    const LoweredFile& file = p_.file(call.place);
    if (!starts && file[call.place.node].kind == Kind::Call && name.substr(0, 7) == "emplace") {
      NodeId callee = file.child(call.place.node, Role::Callee);
      NodeId receiver = callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
      if (receiver != kNoNode) {
        TypeUseId element = p_.argument(p_.use(p_.links[call.place.file].type[receiver]), 0);
        starts = element != 0 && (p_.traits(call.place.file, element) & kThreadType);
      }
    }
    if (!starts) continue;
    for (NodeId c : children(file, call.place.node))
      if (file[c].role == Role::Argument) startFrom({call.place.file, c});
  }
  for (size_t i = 0; i < open.size(); ++i)
    for (uint32_t c : p_.callsInFunction[open[i]]) enter(p_.calls[c].callee, reachedFrom_[open[i]]);
  for (const LoweredFile& file : p_.files)
    for (const Node& node : file.nodes)
      if (node.kind == Kind::Guard) locked_.insert(file.language);
}

std::string_view Threads::folderOf(FileIndex f) const {
  std::string_view path = p_.files[f].path;
  size_t slash = path.rfind('/');
  return slash == std::string_view::npos ? std::string_view{} : path.substr(0, slash);
}

bool Threads::startsAt(Place place, Place* start) const {
  for (Place s : starts_) {
    if (s.file != place.file || p_.node(s).kind != Kind::Lambda || !p_.isInside(place, s.node)) continue;
    if (start) *start = s;
    return true;
  }
  return false;
}

}  // namespace elmcart

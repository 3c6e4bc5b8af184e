#include "rework/access.h"

#include <algorithm>

namespace elmcart {

bool givesShared(const Program& p, const Entity& e, FunctionIndex f) {
  if (p.types[e.type].form != TypeForm::Object)  // its members are its doors
    for (const Door& door : e.doors)
      if (door.function == f && door.sort == Door::Sort::Accessor) return true;
  return p.classBehind(p.functions[f].declarations.front().file, p.functions[f].result) == e.type;
}

Place accessOf(const Program& p, const Entity& e, Place place) {
  const LoweredFile& file = p.file(place);
  NodeId node = place.node;
  if (p.types[e.type].form == TypeForm::Object) {
    for (int depth = 0; depth < 4 && node != kNoNode; ++depth) {
      Symbol symbol = p.symbolAt({place.file, node});
      if ((file[node].kind == Kind::Name || file[node].kind == Kind::Member) && symbol.is(Symbol::Sort::Type) && symbol.index() == e.type) return {place.file, node};
      node = file[node].kind == Kind::Call ? file.child(node, Role::Callee) : file.child(node, Role::Receiver);
    }
    return {};
  }
  if (file[node].kind != Kind::Call && file[node].kind != Kind::Member && file[node].kind != Kind::Name) return {};
  Symbol symbol = p.symbolAt(place);
  // The name of what is called stands for nothing without the call.
  if (file[node].role == Role::Callee && p.node(p.parent(place)).kind == Kind::Call) place = p.parent(place);
  if (symbol.is(Symbol::Sort::Function) && givesShared(p, e, symbol.index())) {
    // Not what an object of another class hands out, which keeps it for reasons of its own.
    const Function& fn = p.functions[symbol.index()];
    bool free = fn.owner == kNone || (fn.modifiers & kStatic);
    return fn.mostArguments == 0 && free ? place : Place{};
  }
  // What is put into the slot is no access of what is in it.
  if (!symbol.is(Symbol::Sort::Variable) || file[node].role == Role::Target) return {};
  bool slot = symbol.index() == e.slot || std::find(e.slots.begin(), e.slots.end(), symbol.index()) != e.slots.end();
  return slot ? place : Place{};
}

}  // namespace elmcart

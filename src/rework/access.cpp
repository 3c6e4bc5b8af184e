#include "rework/access.h"

#include <algorithm>
#include <map>

#include "base/text.h"
#include "program/arguments.h"

namespace elmcart {

bool givesShared(const Program& p, const Entity& e, FunctionIndex f) {
  bool isObject = e.type != kNone && p.types[e.type].form == TypeForm::Object;
  if (!isObject)  // its members are its access points
    for (const AccessPoint& accessPoint : e.accessPoints)
      if (accessPoint.function == f && accessPoint.sort == AccessPoint::Sort::Accessor) return true;
  return e.type != kNone && p.classBehind(p.functions[f].declarations.front().file, p.functions[f].result) == e.type;
}

Place accessOf(const Program& p, const Entity& e, Place place) {
  const LoweredFile& file = p.file(place);
  NodeId node = place.node;
  if (e.type != kNone && p.types[e.type].form == TypeForm::Object) {
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
    bool plain = fn.mostArguments == 0 || (fn.leastArguments == 0 && argumentsOf(file, place.node).empty());
    return plain && free ? place : Place{};
  }
  // What is put into the slot is no access of what is in it.
  if (!symbol.is(Symbol::Sort::Variable) || file[node].role == Role::Target) return {};
  bool slot = symbol.index() == e.slot || std::find(e.slots.begin(), e.slots.end(), symbol.index()) != e.slots.end();
  return slot ? place : Place{};
}

std::set<TypeIndex> madeBelow(const Program& p, const Globs& tests, std::vector<TypeIndex> makers) {
  std::set<TypeIndex> out;
  std::multimap<TypeIndex, TypeIndex> makes;
  for (const Creation& c : p.creations) {
    if (c.asBase || tests.match(p.path(c.place))) continue;
    // In its code, or as the first value of a field.
    bool field = c.in == kNone && c.inInitialiserOf != kNone && p.variables[c.inInitialiserOf].storage == Storage::Field;
    TypeIndex maker = field ? p.variables[c.inInitialiserOf].owner : c.in == kNone || p.functions[c.in].isStaticMember() ? kNone : p.functions[c.in].owner;
    if (maker != kNone) makes.emplace(maker, c.type);
  }
  while (!makers.empty()) {
    TypeIndex maker = makers.back();
    makers.pop_back();
    for (auto [at, end] = makes.equal_range(maker); at != end; ++at)
      if (out.insert(at->second).second) makers.push_back(at->second);
  }
  return out;
}

std::vector<FunctionIndex> constructorsOf(const Program& p, TypeIndex type) {
  std::vector<FunctionIndex> out;
  for (FunctionIndex m : p.types[type].methods)
    if (p.functions[m].form == FunctionForm::Constructor) out.push_back(m);
  return out;
}

FunctionIndex functionAround(const Program& p, Place place) {
  Place around = p.around(place, Kind::Function);
  return around.node != kNoNode && p.symbolAt(around).is(Symbol::Sort::Function) ? p.symbolAt(around).index() : kNone;
}

TypeIndex unitOf(const Program& p, FunctionIndex in) {
  constexpr int kDeepest = 8;
  for (int depth = 0; in != kNone && depth < kDeepest; ++depth) {
    const Function& fn = p.functions[in];
    if (fn.owner == kNone || (fn.modifiers & kStatic)) return kNone;
    Place definition = p.types[fn.owner].definition;
    bool nameless = definition.known() && p.node(p.parent(definition)).kind == Kind::Create;
    if (!nameless) return fn.owner;
    in = functionAround(p, definition);
  }
  return kNone;
}

std::string typeHandedOut(const Program& p, SourceScan& scan, Place access, FunctionIndex accessPoint) {
  const Function& fn = p.functions[accessPoint];
  Place home = fn.home();
  uint32_t from = scan.parameterListEnd(home);
  std::string_view source = scan.text(home.file);
  size_t brace = from == 0 ? std::string_view::npos : source.find('{', from);
  if (brace == std::string_view::npos) return "";
  std::string type(trim(source.substr(from, brace - from)));
  // Of another package: as the access names it.
  std::string written = scan.nodeText(access);
  size_t dot = written.find('.'), bracket = written.find('(');
  bool foreign = p.path(home).substr(0, p.path(home).rfind('/') + 1) != p.path(access).substr(0, p.path(access).rfind('/') + 1);
  if (!foreign) return type;
  size_t begin = type.find_first_not_of("*[] ");
  if (dot == std::string::npos || dot > bracket || begin == std::string::npos || !std::isupper(static_cast<unsigned char>(type[begin]))) return "";
  return type.substr(0, begin) + written.substr(0, dot + 1) + type.substr(begin);
}

}  // namespace elmcart

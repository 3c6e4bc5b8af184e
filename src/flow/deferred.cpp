#include "flow/deferred.h"

#include <algorithm>

#include "base/text.h"
#include "program/arguments.h"

namespace elmcart {
namespace {

constexpr int kDepth = 3;  // functions that hand it on

// What a library is given runs at once, or is kept: it cannot be seen.
enum class Library : uint8_t { Keeps, Runs };

bool isRun(const Program& p, Place value, Library library, int depth);
bool isInKept(const Program& p, Place place, Library library, int depth);

// Is it called, or handed to what may call it?
bool isCalled(const Program& p, VariableIndex v, Library library, int depth) {
  if (depth > kDepth) return true;
  return std::any_of(p.usesOfVariable[v].begin(), p.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    // Inside of another lambda it waits for that one.
    return use.access != Access::Write && isRun(p, use.place, library, depth + 1) && !isInKept(p, use.place, library, depth + 1);
  });
}

// The parameter of a function that takes what is given at that place, or kNone.
VariableIndex parameterFor(const Program& p, FunctionIndex f, Place call, NodeId argument) {
  std::vector<NodeId> given = argumentsOf(p.file(call), call.node);
  size_t position = static_cast<size_t>(std::find(given.begin(), given.end(), argument) - given.begin());
  const std::vector<VariableIndex>& parameters = p.functions[f].parameters;
  return position < parameters.size() ? parameters[position] : kNone;
}

bool isTakenAndRun(const Program& p, FunctionIndex f, Place call, NodeId argument, Library library, int depth) {
  if (!p.functions[f].definition.known()) return true;
  VariableIndex parameter = parameterFor(p, f, call, argument);
  return parameter == kNone || isCalled(p, parameter, library, depth);
}

// What is called there, as far as it is told.
Symbol calledAt(const Program& p, Place call) {
  NodeId callee = p.file(call).child(call.node, Role::Callee);
  Symbol called = p.symbolAt(call);
  return called.known() || callee == kNoNode ? called : p.symbolAt({call.file, callee});
}

bool isRunByCall(const Program& p, Place call, NodeId argument, Library library, int depth) {
  const LoweredFile& file = p.file(call);
  NodeId callee = file.child(call.node, Role::Callee);
  Symbol called = calledAt(p, call);
  if (called.is(Symbol::Sort::Function)) return isTakenAndRun(p, called.index(), call, argument, library, depth);
  // later = append(later, work)
  if (!called.known() && callee != kNoNode && file[callee].kind == Kind::Name && p.guarantees(call.file).collectionAct(file.name(callee)) == CollectionAct::Add) return false;
  if (called.known() || callee == kNoNode || file[callee].kind != Kind::Member) return true;
  // What a library's object is given, a framework's most of all, it keeps; a collection keeps what is added to it, and runs
  // what tells it the value of a key.
  std::string_view name = lastPart(file.name(callee));
  CollectionAct act = p.guarantees(call.file).collectionAct(name);
  if (library == Library::Runs) return act != CollectionAct::Add;
  bool asked = name.starts_with("compute") || name.starts_with("merge") || name.ends_with("IfAbsent") || name.ends_with("OrAdd");
  return act != CollectionAct::None && (act != CollectionAct::Add || asked);
}

// `value`: the lambda, or a name that stands for it.
bool isRun(const Program& p, Place value, Library library, int depth) {
  Place up = p.parent(value);
  const Node& node = p.node(up);
  Role role = p.node(value).role;
  switch (node.kind) {
    case Kind::Call: return role == Role::Callee || (role == Role::Argument && isRunByCall(p, up, value.node, library, depth));
    case Kind::Create: {
      bool known = false, run = false;
      forEachInside(p, p.creations, up, [&](const Creation& c) {
        if (c.place == up && c.constructor != kNone) known = true, run = isTakenAndRun(p, c.constructor, up, value.node, library, depth);
      });
      return !known || run;
    }
    case Kind::Cast: case Kind::Conditional: return isRun(p, up, library, depth);
    case Kind::Variable: {
      Symbol symbol = p.symbolAt(up);
      return role == Role::Initialiser && symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Local && isCalled(p, symbol.index(), library, depth + 1);
    }
    case Kind::Assign: {
      NodeId target = p.file(up).child(up.node, Role::Target);
      Symbol symbol = target == kNoNode ? Symbol{} : p.symbolAt({up.file, target});
      bool local = symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Local;
      return role == Role::Value && local && isCalled(p, symbol.index(), library, depth + 1);
    }
    case Kind::Return: case Kind::Collection: case Kind::FieldInit: case Kind::NullTest: case Kind::Compare: case Kind::Index: return false;
    case Kind::Member: return role == Role::Receiver && p.node(p.parent(up)).kind == Kind::Call && p.node(up).role == Role::Callee;  // f.apply(), f.invoke()
    default: return true;
  }
}

// Does the place stand in a lambda that is only kept?
bool isInKept(const Program& p, Place place, Library library, int depth) {
  const LoweredFile& file = p.file(place);
  for (NodeId up = file.parents[place.node]; up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Type; up = file.parents[up])
    if (file[up].kind == Kind::Lambda && !isRun(p, {place.file, up}, library, depth)) return true;
  return false;
}

// Is the address that stands there put away, without a look at what is behind it?
bool isPutAway(const Program& p, Place address, int depth) {
  if (depth > kDepth) return false;
  Place up = p.parent(address);
  const Node& node = p.node(up);
  // What a function has it in may be looked through later on.
  auto keptIn = [&](VariableIndex v) {
    const auto& uses = p.usesOfVariable[v];
    return std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return p.uses[u].access == Access::Write || isPutAway(p, p.uses[u].place, depth + 1); });
  };
  auto keptBySymbol = [&](Symbol symbol) { return !symbol.is(Symbol::Sort::Variable) || p.variables[symbol.index()].storage != Storage::Local || keptIn(symbol.index()); };
  auto keptBy = [&](FunctionIndex f) {
    VariableIndex parameter = p.functions[f].definition.known() ? parameterFor(p, f, up, address.node) : kNone;
    return parameter != kNone && keptIn(parameter);
  };
  switch (node.kind) {
    case Kind::Cast: return isPutAway(p, up, depth);
    case Kind::Assign: {
      NodeId target = p.file(up).child(up.node, Role::Target);
      return p.node(address).role == Role::Value && (target == kNoNode || keptBySymbol(p.symbolAt({up.file, target})));
    }
    case Kind::FieldInit: case Kind::Collection: case Kind::NullTest: return true;
    case Kind::Variable: {
      Symbol symbol = p.symbolAt(up);
      return p.node(address).role == Role::Initialiser && symbol.is(Symbol::Sort::Variable) && p.use(p.variables[symbol.index()].type).has(kPointer) && keptBySymbol(symbol);
    }
    case Kind::Call: {
      if (p.node(address).role != Role::Argument) return false;
      NodeId callee = p.file(up).child(up.node, Role::Callee);
      Symbol called = calledAt(p, up);
      if (called.is(Symbol::Sort::Function)) return keptBy(called.index());
      return !called.known() && callee != kNoNode && p.file(up)[callee].kind == Kind::Member && p.guarantees(up.file).collectionAct(lastPart(p.file(up).name(callee))) == CollectionAct::Add;
    }
    default: return false;
  }
}

}  // namespace

bool isOnlyAddressed(const Program& p, Place place) {
  Place up = p.parent(place);
  return p.node(up).kind == Kind::AddressOf && isPutAway(p, up, 0);
}

bool mayRunAtOnce(const Program& p, Place lambda) { return isRun(p, lambda, Library::Keeps, 0); }

bool isPutAsideInTree(const Program& p, Place lambda) { return !isRun(p, lambda, Library::Runs, 0); }

bool runsLater(const Program& p, Place place) { return isInKept(p, place, Library::Keeps, 0); }

}  // namespace elmcart

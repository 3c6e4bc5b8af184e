#include "assess/registrations.h"

#include <algorithm>

#include "assess/facts.h"
#include "base/text.h"

namespace elmcart {
namespace {

// Is the member called on an object of a class that is given the types of what it holds?
bool isGeneric(const Program& p, FileIndex f, NodeId member) {
  NodeId receiver = p.files[f].child(member, Role::Receiver);
  Symbol on = receiver == kNoNode ? Symbol{} : p.symbolAt({f, receiver});
  return on.is(Symbol::Sort::Variable) && p.use(p.variables[on.index()].type).argumentCount > 0;
}

// Where a function stores (or drops) the pointer it gets as a parameter.
struct Keeping {
  VariableIndex collection = kNone;
  Place place;
};

// The collection or field that `function` puts its parameter number `position` into.
Keeping keeps(const Program& p, FunctionIndex function, size_t position, int depth = 0) {
  const Function& fn = p.functions[function];
  if (!fn.definition.known() || position >= fn.parameters.size() || depth > 2) return {};
  const TypeUse& type = p.use(p.variables[fn.parameters[position]].type);
  // Where variables refer to objects, each collection holds references.
  bool interface = type.decl != kNone && p.types[type.decl].form == TypeForm::Interface;
  bool refers = !p.guarantees(fn.definition.file).implicitCopy.holds || (interface && !p.guarantees(fn.definition.file).freedByHand.holds);
  bool callable = (p.traits(fn.definition.file, p.variables[fn.parameters[position]].type) & kCallableType) != 0;
  if (!type.has(kPointer | kReference) && !refers && !callable) return {};
  const LoweredFile& file = p.file(fn.definition);
  for (uint32_t u : p.usesOfVariable[fn.parameters[position]]) {
    Place at = p.uses[u].place;
    Place up = p.parent(at);
    if (p.node(up).kind == Kind::AddressOf) up = p.parent(up);
    const Node& node = p.node(up);
    if (node.kind == Kind::Call) {
      NodeId callee = file.child(up.node, Role::Callee);
      if (callee == kNoNode) continue;
      // What a function of the tree does is told by its body, not by its name.
      bool ofTree = p.symbolAt(up).is(Symbol::Sort::Function) && p.functions[p.symbolAt(up).index()].definition.known();
      if ((!ofTree || isGeneric(p, up.file, callee)) && file[callee].kind == Kind::Member && p.guarantees(up.file).collectionAct(file.name(callee)) == CollectionAct::Add) {
        NodeId receiver = file.child(callee, Role::Receiver);
        Symbol into = receiver == kNoNode ? Symbol{} : p.symbolAt({up.file, receiver});
        if (into.is(Symbol::Sort::Variable)) {
          const Variable& variable = p.variables[into.index()];
          bool keepsPointers = variable.storage == Storage::Field || variable.lives();
          // The collection must hold pointers, not copies of what a reference names.
          const TypeUse& use = p.use(variable.type);
          bool pointers = false;
          for (uint32_t a = 0; a < use.argumentCount; ++a) pointers |= p.use(p.argument(use, a)).has(kPointer);
          if (keepsPointers && (pointers || refers || callable) && !keepsWeakly(p, into.index())) return {into.index(), up};
        }
      }
      // list = append(list, keeper)
      if (file[callee].kind == Kind::Name && p.node(at).role == Role::Argument && p.guarantees(up.file).collectionAct(file.name(callee)) == CollectionAct::Add) {
        std::vector<NodeId> arguments = argumentsOf(file, up.node);
        Symbol into = arguments.size() > 1 && arguments.front() != at.node ? p.symbolAt({up.file, arguments.front()}) : Symbol{};
        if (into.is(Symbol::Sort::Variable) && (p.variables[into.index()].storage == Storage::Field || p.variables[into.index()].lives())) return {into.index(), up};
      }
      // Handed on to another function of the program.
      Symbol target = p.symbolAt(up);
      if (target.is(Symbol::Sort::Function) && target.index() != function) {
        size_t index = 0;
        for (NodeId c : children(file, up.node)) {
          if (file[c].role != Role::Argument) continue;
          if (p.isInside(at, c)) {
            Keeping inner = keeps(p, target.index(), index, depth + 1);
            if (inner.collection != kNone) return inner;
          }
          ++index;
        }
      }
    }
    if (node.kind == Kind::Index && p.node(at).role == Role::Argument) {  // keepers_[keeper] = …
      NodeId receiver = file.child(up.node, Role::Receiver);
      Symbol into = receiver == kNoNode ? Symbol{} : p.symbolAt({up.file, receiver});
      bool assigned = p.node(p.parent(up)).kind == Kind::Assign && p.node(up).role == Role::Target;
      if (assigned && into.is(Symbol::Sort::Variable) && !keepsWeakly(p, into.index()) && p.use(p.variables[into.index()].type).argumentCount > 0 && p.use(p.argument(p.use(p.variables[into.index()].type), 0)).has(kPointer)) return {into.index(), up};
    }
    if (node.kind == Kind::Assign && p.node(at).role == Role::Value && (type.has(kPointer) || refers || callable)) {  // table_[key] = keeper
      NodeId target = file.child(up.node, Role::Target);
      if (target != kNoNode && file[target].kind == Kind::Index) {
        NodeId receiver = file.child(target, Role::Receiver);
        Symbol into = receiver == kNoNode ? Symbol{} : p.symbolAt({up.file, receiver});
        if (into.is(Symbol::Sort::Variable) && !keepsWeakly(p, into.index()) && (p.variables[into.index()].storage == Storage::Field || p.variables[into.index()].lives())) return {into.index(), up};
      }
    }
  }
  return {};
}

// Of what class is the object that the argument hands out as itself, or by a
// function of its own?
TypeIndex itselfAt(const Program& p, FileIndex f, NodeId argument, FunctionIndex in, bool& asFunction) {
  const LoweredFile& file = p.files[f];
  TypeIndex owner = p.functions[in].owner;
  if (owner == kNone || p.functions[in].isStaticMember()) return kNone;
  NodeId at = bareExpression(file, argument);
  if (file[at].kind == Kind::This) return owner;
  // A method of the object, or a function that uses it.
  asFunction = true;
  auto usesItself = [&](NodeId n) {
    if (file[n].kind == Kind::This) return true;
    Symbol symbol = p.links[f].symbol[n];
    if (symbol.is(Symbol::Sort::Variable)) return p.variables[symbol.index()].storage == Storage::Field && p.variables[symbol.index()].owner == owner && file[n].kind == Kind::Name;
    return symbol.is(Symbol::Sort::Function) && file[n].kind == Kind::Name && p.functions[symbol.index()].owner == owner && !p.functions[symbol.index()].isStaticMember();
  };
  if (file[at].kind == Kind::Lambda && anyNode(file, at, usesItself)) return owner;
  Symbol symbol = p.links[f].symbol[at];
  bool method = (file[at].kind == Kind::Member || file[at].kind == Kind::Name) && symbol.is(Symbol::Sort::Function) && p.functions[symbol.index()].form != FunctionForm::Getter && p.functions[symbol.index()].owner == owner && !p.functions[symbol.index()].isStaticMember();
  return method ? owner : kNone;
}

// Does the class make the object itself that the variable holds: one of its fields, or a local of its functions?
bool isMadeBy(const Program& p, VariableIndex v, TypeIndex subscriber) {
  const Variable& variable = p.variables[v];
  if (variable.storage != Storage::Local && (variable.storage != Storage::Field || variable.owner != subscriber)) return false;
  bool made = false;
  auto makes = [&](Place value) {
    value.node = bareExpression(p.file(value), value.node);
    if (p.node(value).is(Kind::Literal, LiteralForm::Null)) return true;
    made = true;
    return p.node(value).kind == Kind::Create;
  };
  if (Place first = initialiserOf(p, v); first.known() && !makes(first)) return false;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (use.access != Access::Write || use.inMember || use.throughPointer) continue;
    NodeId value = p.assignedAt(use.place);
    if (value != kNoNode && !makes({use.place.file, value})) return false;
  }
  return made;
}

bool resultIsUsed(const Program& p, Place call, FunctionIndex in) {
  Kind kind = p.node(p.parent(call)).kind;
  // A body of one expression is its value, where there is a result at all.
  if (kind == Kind::Return && p.functions[in].result == 0) return false;
  return kind == Kind::Assign || kind == Kind::Variable || kind == Kind::Call || kind == Kind::Member || kind == Kind::Return;
}

}  // namespace

std::vector<Registration> registrationsIn(const Subject& s) {
  const Program& p = s.program;
  std::vector<Registration> out;
  auto finish = [&](Registration r, NodeId receiver) {
    const Variable& collection = p.variables[r.collection];
    // A parent that keeps its own children is another matter: the list must outlive the subscriber.
    if (collection.owner != kNone && collection.owner == r.subscriber && collection.storage == Storage::Field) return;
    for (size_t i = 0; i < s.survey.entities.size() && r.entity == SIZE_MAX; ++i) {
      const Entity& e = s.survey.entities[i];
      if (e.slot == r.collection || (collection.owner != kNone && e.type != kNone && e.type == collection.owner && !e.harmless)) r.entity = i;
    }
    r.global = collection.lives() || (receiver != kNoNode && s.origins.of({r.place.file, receiver}) != kNone);
    bool handedIn = false;
    if (!r.global && receiver != kNoNode) {
      Symbol symbol = p.symbolAt({r.place.file, receiver});
      handedIn = symbol.is(Symbol::Sort::Variable) && !isMadeBy(p, symbol.index(), r.subscriber) && (p.use(p.variables[symbol.index()].type).has(kReference | kPointer) || !p.guarantees(r.place.file).implicitCopy.holds);
    }
    if (!r.global && !handedIn) return;
    r.resultUsed = resultIsUsed(p, r.place, r.in);
    out.push_back(r);
  };
  for (const CallSite& call : p.calls) {
    if (call.in == kNone || s.inTests(call.place)) continue;
    const LoweredFile& file = p.file(call.place);
    if (file[call.place.node].kind != Kind::Call) continue;
    size_t position = 0;
    for (NodeId c : children(file, call.place.node)) {
      if (file[c].role != Role::Argument) continue;
      size_t at = position++;
      Registration r{call.place, call.in, kNone, kNone, {}, call.callee};
      r.subscriber = itselfAt(p, call.place.file, c, call.in, r.asFunction);
      r.given = {call.place.file, c};
      if (r.subscriber == kNone) continue;
      Keeping kept = keeps(p, call.callee, at);
      if (kept.collection == kNone) continue;
      r.collection = kept.collection;
      r.kept = kept.place;
      finish(r, receiverOf(p.file(call.place), call.place.node));
    }
  }
  // Put into the collection directly.
  for (const ForeignCall& call : p.foreignCalls) {
    if (call.in == kNone || s.inTests(call.place) || p.node(call.place).kind != Kind::Call) continue;
    const LoweredFile& file = p.file(call.place);
    NodeId receiver = receiverOf(p.file(call.place), call.place.node);
    if (receiver == kNoNode || p.guarantees(call.place.file).collectionAct(lastPart(p.text(call.name))) != CollectionAct::Add) continue;
    Symbol into = p.symbolAt({call.place.file, receiver});
    if (!into.is(Symbol::Sort::Variable) || !(variableTraits(p, into.index()) & (kCollection | kKeyedCollection)) || keepsWeakly(p, into.index())) continue;
    if (!p.variables[into.index()].lives()) continue;
    for (NodeId c : children(file, call.place.node)) {
      if (file[c].role != Role::Argument) continue;
      Registration r{call.place, call.in, kNone, into.index(), call.place};
      r.subscriber = itselfAt(p, call.place.file, c, call.in, r.asFunction);
      r.given = {call.place.file, c};
      if (r.subscriber != kNone) finish(r, kNoNode);
    }
  }
  std::stable_sort(out.begin(), out.end(), [](const Registration& a, const Registration& b) { return before(a.place, b.place); });
  return out;
}

namespace {

// The local object whose address an argument is: &two.
VariableIndex localAt(const Program& p, Place argument) {
  const LoweredFile& file = p.file(argument);
  NodeId operand = file[argument.node].kind == Kind::AddressOf ? file.child(argument.node, Role::Operand) : kNoNode;
  Symbol symbol = operand == kNoNode ? Symbol{} : p.symbolAt({argument.file, operand});
  if (!symbol.is(Symbol::Sort::Variable)) return kNone;
  const Variable& v = p.variables[symbol.index()];
  const TypeUse& type = p.use(v.type);
  bool object = v.storage == Storage::Local && !(v.modifiers & kStatic) && type.decl != kNone && !type.has(kPointer | kReference | kArray);
  return object && v.definition.known() ? symbol.index() : kNone;
}

// Does the receiver outlive the object? Unknown where it does not; else where it is used once the object is gone, or
// the call itself where others reach it.
Place outlives(const Program& p, Place call, NodeId receiver, VariableIndex local, Place block) {
  if (receiver == kNoNode) return call;  // the object that the function was called on
  Symbol symbol = p.symbolAt({call.file, receiver});
  if (!symbol.is(Symbol::Sort::Variable)) return {};
  const Variable& owner = p.variables[symbol.index()];
  bool ownObject = owner.storage == Storage::Local && !p.use(owner.type).has(kPointer | kReference);
  bool reached = owner.lives() || owner.storage == Storage::Field || (owner.storage == Storage::Parameter && p.use(owner.type).has(kPointer | kReference));
  if (!ownObject) return reached ? call : Place{};
  if (!owner.definition.known() || !before(owner.definition, p.variables[local].definition) || p.isInside(owner.definition, block.node)) return {};
  for (uint32_t u : p.usesOfVariable[symbol.index()]) {
    Place at = p.uses[u].place;
    if (at.file == block.file && at.node > block.node && !p.isInside(at, block.node)) return at;
  }
  return {};
}

bool takesOutLater(const Program& p, FunctionIndex in, Place after, VariableIndex collection) {
  return std::any_of(p.callsInFunction[in].begin(), p.callsInFunction[in].end(), [&](uint32_t c) {
    std::set<FunctionIndex> seen;
    return before(after, p.calls[c].place) && removesFrom(p, p.calls[c].callee, collection, seen);
  });
}

}  // namespace

std::vector<LocalRegistration> localRegistrationsIn(const Subject& s) {
  const Program& p = s.program;
  std::vector<LocalRegistration> out;
  for (const CallSite& call : p.calls) {
    if (call.in == kNone || s.inTests(call.place) || p.node(call.place).kind != Kind::Call || !p.guarantees(call.place.file).freedByHand.holds) continue;
    const LoweredFile& file = p.file(call.place);
    NodeId callee = file.child(call.place.node, Role::Callee);
    NodeId receiver = callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
    if (receiver == kNoNode && p.functions[call.callee].owner == kNone) continue;
    std::vector<NodeId> given = argumentsOf(file, call.place.node);
    for (size_t position = 0; position < given.size(); ++position) {
      VariableIndex local = localAt(p, {call.place.file, given[position]});
      if (local == kNone) continue;
      Place block = p.around(p.variables[local].definition, Kind::Block);
      // What the program's own function holds lives as long as the program.
      bool whole = block.node != kNoNode && p.node(p.parent(block)).kind == Kind::Function;
      if (block.node == kNoNode || (whole && isMain(p, call.in)) || p.around(call.place, Kind::Lambda).node > block.node) continue;
      Place after = outlives(p, call.place, receiver, local, block);
      Keeping kept = after.known() ? keeps(p, call.callee, position) : Keeping{};
      if (kept.collection == kNone || p.variables[kept.collection].storage == Storage::Local) continue;
      if (takesOutLater(p, call.in, call.place, kept.collection) || endRemoves(p, p.use(p.variables[local].type).decl, kept.collection)) continue;
      out.push_back({call.place, call.in, local, kept.collection, kept.place, block, after == call.place ? Place{} : after});
    }
  }
  std::stable_sort(out.begin(), out.end(), [](const LocalRegistration& a, const LocalRegistration& b) { return before(a.place, b.place); });
  return out;
}

namespace {

// each->removeParent(this), of what could not be told: the members of that name in the class that keeps the collection.
std::vector<FunctionIndex> askedWithItself(const Program& p, FunctionIndex function, VariableIndex collection) {
  std::vector<FunctionIndex> out;
  Place body = p.functions[function].definition;
  TypeIndex keeper = p.variables[collection].owner;
  if (!body.known() || keeper == kNone) return out;
  const LoweredFile& file = p.file(body);
  forEachNode(file, body.node, [&](NodeId n) {
    if (file[n].kind != Kind::This || file[n].role != Role::Argument) return;
    NodeId callee = file.child(file.parents[n], Role::Callee);
    if (callee == kNoNode || file[callee].kind != Kind::Member || p.symbolAt({body.file, callee}).known()) return;
    for (FunctionIndex m : p.types[keeper].methods)
      if (p.text(p.functions[m].name) == file.name(callee)) out.push_back(m);
  });
  return out;
}

}  // namespace

bool removesFrom(const Program& p, FunctionIndex function, VariableIndex collection, std::set<FunctionIndex>& seen, int depth) {
  if (depth > 4 || !seen.insert(function).second) return false;
  for (uint32_t u : p.usesInFunction[function]) {
    const Use& use = p.uses[u];
    if (use.variable != collection) continue;
    Place up = p.parent(use.place);
    if (p.node(up).kind == Kind::Member && p.guarantees(up.file).collectionAct(p.nameOf(up)) == CollectionAct::Remove) return true;
    // delete(table, key)
    if (p.node(up).kind == Kind::Call && p.node(use.place).role == Role::Argument) {
      NodeId callee = p.file(up).child(up.node, Role::Callee);
      if (callee != kNoNode && p.file(up)[callee].kind == Kind::Name && p.guarantees(up.file).collectionAct(p.file(up).name(callee)) == CollectionAct::Remove) return true;
    }
    // Walked over and blanked, or filtered by an algorithm: an assignment to an element.
    if (use.access == Access::Write && use.inMember && p.node(up).kind != Kind::Member) {
      // list[] = keeper and table[key] = keeper put in.
      NodeId value = p.node(up).kind == Kind::Index && p.node(p.parent(up)).kind == Kind::Assign ? p.file(up).child(p.parent(up).node, Role::Value) : kNoNode;
      if (value == kNoNode || p.file(up)[value].is(Kind::Literal, LiteralForm::Null)) return true;
    }
    // list = list.filter(…), list = array_filter(list, …): what is left of itself.
    if (use.access == Access::Write && !use.inMember && !use.throughPointer && p.node(up).kind == Kind::Assign) {
      const LoweredFile& file = p.file(up);
      NodeId value = file.child(up.node, Role::Value);
      NodeId callee = value != kNoNode && file[value].kind == Kind::Call ? file.child(value, Role::Callee) : kNoNode;
      bool adds = callee == kNoNode || p.guarantees(up.file).collectionAct(lastPart(file.name(callee))) == CollectionAct::Add;
      if (!adds && namesInside(p, {up.file, value}, collection)) return true;
    }
    // list = append(list[:i], list[i+1:]...): put together anew from parts of itself.
    if (p.node(up).kind == Kind::Index && p.node(p.parent(up)).kind == Kind::Call && p.around(up, Kind::Assign).node != kNoNode) {
      Place assign = p.around(up, Kind::Assign);
      NodeId target = p.file(assign).child(assign.node, Role::Target);
      Symbol set = target == kNoNode ? Symbol{} : p.symbolAt({assign.file, target});
      if (set.is(Symbol::Sort::Variable) && set.index() == collection) return true;
    }
  }
  for (FunctionIndex asked : askedWithItself(p, function, collection))
    if (removesFrom(p, asked, collection, seen, depth + 1)) return true;
  for (uint32_t c : p.callsInFunction[function])
    if (removesFrom(p, p.calls[c].callee, collection, seen, depth + 1)) return true;
  return false;
}

bool handsItselfOn(const Program& p, FunctionIndex method, int depth) {
  Place body = p.functions[method].definition;
  if (!body.known() || depth > 2) return false;
  const LoweredFile& file = p.file(body);
  bool gives = anyNode(file, body.node, [&](NodeId n) { return file[n].kind == Kind::This && (file[n].role == Role::Argument || file[n].role == Role::Value); });
  return gives || std::any_of(p.callsInFunction[method].begin(), p.callsInFunction[method].end(), [&](uint32_t c) {
           FunctionIndex callee = p.calls[c].callee;
           return p.functions[callee].owner == p.functions[method].owner && handsItselfOn(p, callee, depth + 1);
         });
}

FunctionIndex destructorOf(const Program& p, TypeIndex type) {
  for (FunctionIndex m : p.types[type].methods)
    if (p.functions[m].form == FunctionForm::Destructor && p.functions[m].definition.known()) return m;
  return kNone;
}

FunctionIndex endOf(const Program& p, TypeIndex type) {
  if (FunctionIndex destructor = destructorOf(p, type); destructor != kNone) return destructor;
  for (FunctionIndex m : p.types[type].methods) {
    Place definition = p.functions[m].definition;
    if (definition.known() && isEndHook(p.guarantees(definition.file), p.text(p.functions[m].name))) return m;
  }
  return kNone;
}

bool endRemoves(const Program& p, TypeIndex type, VariableIndex collection) {
  std::vector<TypeIndex> open = {type};
  std::set<TypeIndex> asked = {type};
  auto alsoAsk = [&](TypeIndex other) {
    if (asked.size() < kMostRelatives && asked.insert(other).second) open.push_back(other);
    return false;
  };
  for (size_t i = 0; i < open.size(); ++i) {
    std::set<FunctionIndex> seen;
    if (FunctionIndex d = endOf(p, open[i]); d != kNone && removesFrom(p, d, collection, seen)) return true;
    p.anyBase(open[i], [&](TypeIndex base, const Base*) { return alsoAsk(base); });
    // A member whose destructor does it: a scope object.
    for (VariableIndex f : p.types[open[i]].fields)
      if (const TypeUse& use = p.use(p.variables[f].type); use.decl != kNone && !use.has(kPointer | kReference)) alsoAsk(use.decl);
  }
  return false;
}

bool onlyLivesForever(const Program& p, TypeIndex type) {
  bool any = false;
  for (uint32_t c : p.creationsOfType[type]) {
    const Creation& creation = p.creations[c];
    if (creation.delegated) continue;
    any = true;
    if (creation.asVariable == kNone || !p.variables[creation.asVariable].lives()) return false;
  }
  return any && p.types[type].derived.empty();
}

}  // namespace elmcart

#include "survey/origins.h"

#include <algorithm>

#include "base/parallel.h"

namespace elmcart {

// What a file's functions return, and what its variables are given.
Origins::Told Origins::scan(FileIndex f) const {
  Told told;
  const LoweredFile& file = p_.files[f];
  auto bind = [&](NodeId named, NodeId value) {
    Symbol symbol = named == kNoNode || value == kNoNode ? Symbol{} : p_.links[f].symbol[named];
    if (!symbol.is(Symbol::Sort::Variable)) return;
    // What can never bind or hand out an object is not looked at again.
    const Variable& variable = p_.variables[symbol.index()];
    if (variable.lives() || !keepsIdentity(f, variable.type)) return;
    // What is never a slot is looked at once: a field that is given it keeps other objects too.
    if (mayBeSlot({f, value})) told.bindings.emplace_back(symbol.index(), Place{f, value});
    else if (!file[value].is(Kind::Literal, LiteralForm::Null)) (isKept(symbol.index()) ? told.several : told.mixed).push_back(symbol.index());
  };
  for (NodeId n = 1; n < file.nodes.size(); ++n) {
    const Node& node = file[n];
    if (node.kind == Kind::Return) {
      NodeId value = file.child(n, Role::Value);
      if (value == kNoNode) continue;
      NodeId up = file.parents[n];
      while (up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Lambda) up = file.parents[up];
      Symbol owner = up == kNoNode ? Symbol{} : p_.links[f].symbol[up];
      if (file[up].kind == Kind::Function && owner.is(Symbol::Sort::Function)) told.returns.emplace_back(owner.index(), Place{f, value});
    } else if (node.kind == Kind::Variable) {
      bind(n, file.child(n, Role::Initialiser));
    } else if (node.kind == Kind::FieldInit) {
      NodeId value = file.child(n, Role::Argument);
      if (value != kNoNode && file[value].nextSibling == kNoNode) bind(n, value);
    } else if (node.kind == Kind::Assign && node.detail == static_cast<uint8_t>(AssignForm::Plain)) {
      // What is assigned to a reference is copied to where it refers to.
      NodeId target = file.child(n, Role::Target);
      Symbol assigned = target == kNoNode ? Symbol{} : p_.links[f].symbol[target];
      if (!assigned.is(Symbol::Sort::Variable) || !p_.use(p_.variables[assigned.index()].type).has(kReference)) bind(target, file.child(n, Role::Value));
    }
  }
  return told;
}

Origins::Origins(const Program& program, unsigned jobs) : p_(program) {
  returns_.resize(p_.functions.size());
  std::vector<Told> told(p_.files.size());
  p_.forEachFile(jobs, [&](FileIndex f) { told[f] = scan(f); });
  several_.assign(p_.variables.size(), false);
  mixed_.assign(p_.variables.size(), false);
  walks_.assign(p_.variables.size(), false);
  for (Told& file : told) {
    for (auto& [function, value] : file.returns) returns_[function].push_back(value);
    bindings_.insert(bindings_.end(), file.bindings.begin(), file.bindings.end());
    for (VariableIndex v : file.several) several_[v] = true;
    for (VariableIndex v : file.mixed) mixed_[v] = true;
  }
  std::erase_if(bindings_, [&](const auto& binding) { return several_[binding.first]; });
  for (const Binding& binding : bindings_)
    if (isStepOn(binding)) walks_[binding.first] = true;
  findOpen(jobs);
  leaveOutHopeless(jobs);
  leaveOutHopeless(jobs);  // what the first time has left out others may have hoped for
  do {
    accessPoint_.assign(p_.functions.size(), kNone);
    alias_.assign(p_.variables.size(), kNone);
    context_.assign(p_.variables.size(), kNone);
    waiting_.reset(bindings_.size() + open_.size(), p_.variables.size(), p_.functions.size());
    for (int i = 0; i < 8 && round(); ++i) {
    }
  } while (findSeveral());
  waiting_ = {};
  accessPointsTo_.resize(p_.variables.size());
  aliasesOf_.resize(p_.variables.size());
  for (FunctionIndex i = 0; i < accessPoint_.size(); ++i)
    if (accessPoint_[i] != kNone) accessPointsTo_[accessPoint_[i]].push_back(i);
  for (VariableIndex v = 0; v < alias_.size(); ++v)
    if (alias_[v] != kNone) aliasesOf_[alias_[v]].push_back(v);
  // A field counts as a context's service only when a function hands it out.
  for (VariableIndex v = 0; v < context_.size(); ++v)
    if (accessPointsTo_[v].empty()) context_[v] = kNone;
}

void Origins::findOpen(unsigned jobs) {
  constexpr size_t kEach = 4096;
  std::vector<std::vector<FunctionIndex>> open(returns_.size() / kEach + 1);
  forEachPiece(returns_.size(), kEach, jobs, [&](size_t from, size_t to) {
    for (FunctionIndex i = static_cast<FunctionIndex>(from); i < to; ++i)
      if (std::any_of(returns_[i].begin(), returns_[i].end(), [&](Place value) { return mayBeSlot(value); }) && mayHandOut(i)) open[from / kEach].push_back(i);
  });
  for (const auto& piece : open) open_.insert(open_.end(), piece.begin(), piece.end());
}

// What could not yield a slot even if all others did is not asked again.
void Origins::leaveOutHopeless(unsigned jobs) {
  VariableIndex any = 0;
  while (any < p_.variables.size() && !p_.variables[any].lives()) ++any;
  if (any == p_.variables.size()) any = kNone;
  accessPoint_.assign(p_.functions.size(), kNone);
  alias_.assign(p_.variables.size(), kNone);
  for (FunctionIndex i : open_) accessPoint_[i] = any;
  for (const Binding& binding : bindings_) alias_[binding.first] = any;
  std::vector<char> hopeless(bindings_.size() + open_.size());
  forEachPiece(hopeless.size(), 1024, jobs, [&](size_t from, size_t to) {
    auto yields = [&](Place value) { return of(value) != kNone; };
    for (size_t i = from; i < to; ++i) {
      if (i < bindings_.size()) {
        hopeless[i] = !yields(bindings_[i].second);
      } else {
        const std::vector<Place>& returns = returns_[open_[i - bindings_.size()]];
        hopeless[i] = std::none_of(returns.begin(), returns.end(), yields);
      }
    }
  });
  for (size_t i = 0; i < bindings_.size(); ++i)
    if (hopeless[i] && !walks_[bindings_[i].first]) (isKept(bindings_[i].first) ? several_ : mixed_)[bindings_[i].first] = true;
  size_t at = 0;
  size_t bindings = bindings_.size();
  std::erase_if(bindings_, [&](const Binding& binding) { return hopeless[at++] || several_[binding.first]; });
  at = bindings;
  std::erase_if(open_, [&](FunctionIndex) { return hopeless[at++] != 0; });
}

// May an expression of that kind yield a slot at all? As slotOf() has it.
bool Origins::mayBeSlot(Place value) const {
  switch (p_.node(value).kind) {
    case Kind::Name: case Kind::Member: case Kind::Call: case Kind::Dereference: case Kind::AddressOf: case Kind::Cast: case Kind::Conditional: case Kind::Assign: return true;
    default: return false;
  }
}

// Is the variable a field, one that outlives a function?
bool Origins::isKept(VariableIndex variable) const {
  Storage storage = p_.variables[variable].storage;
  return storage != Storage::Local && storage != Storage::Parameter;
}

// one = one->next: the next of a list that the first stands for.
bool Origins::isStepOn(const Binding& binding) const {
  const auto& [variable, value] = binding;
  for (NodeId node = value.node; node != kNoNode; node = p_.file(value).child(node, Role::Receiver)) {
    Symbol symbol = p_.symbolAt({value.file, node});
    if (node != value.node && symbol.is(Symbol::Sort::Variable) && symbol.index() == variable) return true;
  }
  return false;
}

// Is what a local holds put into the slot? Then another object that it holds becomes the shared one.
bool Origins::isPutInto(VariableIndex local, VariableIndex slot) const {
  return std::any_of(p_.usesOfVariable[local].begin(), p_.usesOfVariable[local].end(), [&](uint32_t u) {
    Place at = p_.uses[u].place, up = p_.parent(at);
    // Through casts, and slot = local = value.
    auto isThrough = [&] { return p_.node(up).kind == Kind::Cast || p_.node(up).kind == Kind::AddressOf || p_.node(up).kind == Kind::Dereference || (p_.node(up).kind == Kind::Assign && p_.node(at).role == Role::Target); };
    while (up.node != kNoNode && isThrough()) at = up, up = p_.parent(up);
    if (up.node == kNoNode) return false;
    // slot = local; slot.store(local), slot.reset(local)
    NodeId target = kNoNode;
    if (p_.node(up).kind == Kind::Assign && p_.node(at).role == Role::Value) target = p_.file(up).child(up.node, Role::Target);
    if (p_.node(up).kind == Kind::Call && p_.node(at).role == Role::Argument) target = p_.file(up).child(up.node, Role::Callee);
    for (; target != kNoNode; target = p_.file(up).child(target, Role::Receiver)) {
      Symbol symbol = p_.symbolAt({up.file, target});
      if (symbol.is(Symbol::Sort::Variable) && symbol.index() == slot) return true;
    }
    return false;
  });
}

// A variable that may keep another object as well stands for neither, nor does what
// is read from it. True when one is found that was taken for another name so far.
bool Origins::findSeveral() {
  bool found = false;
  auto tell = [&](VariableIndex variable) {
    if (several_[variable] || (!isKept(variable) && isPutInto(variable, alias_[variable]))) return;
    found = several_[variable] = true;
  };
  for (auto& [variable, value] : bindings_)
    if (alias_[variable] != kNone && !p_.node(value).is(Kind::Literal, LiteralForm::Null) && of(value) != alias_[variable] && !isStepOn({variable, value})) tell(variable);
  for (VariableIndex v = 0; v < mixed_.size(); ++v)
    if (mixed_[v] && alias_[v] != kNone) tell(v);
  return found;
}

// Does a variable of that type stand for the same object as its initialiser?
bool Origins::keepsIdentity(FileIndex f, TypeUseId type) const {
  const TypeUse& use = p_.use(type);
  if (use.has(kPointer | kReference)) return true;
  return (p_.traits(f, type) & (kOwningPointer | kPointerLike | kAtomicType)) != 0;
}

// Is it made where it is given, or by a function that is called there and makes what it gives?
bool Origins::isMadeThere(Place value, int depth) const {
  const LoweredFile& file = p_.file(value);
  NodeId n = value.node;
  while (n != kNoNode && (file[n].kind == Kind::AddressOf || file[n].kind == Kind::Cast)) n = file.child(n, Role::Operand);
  if (n == kNoNode || file[n].kind == Kind::Create) return n != kNoNode;
  Symbol made = file[n].kind == Kind::Call || file[n].kind == Kind::Name ? p_.links[value.file].symbol[n] : Symbol{};
  // Put nowhere meanwhile: it is still what its function alone has.
  if (made.is(Symbol::Sort::Variable)) {
    const Variable& local = p_.variables[made.index()];
    NodeId first = local.storage == Storage::Local && local.definition.file == value.file ? file.child(local.definition.node, Role::Initialiser) : kNoNode;
    auto isKeptElsewhere = [&](uint32_t u) {
      Role role = p_.node(p_.uses[u].place).role;
      return role == Role::Argument || (role == Role::Value && p_.node(p_.parent(p_.uses[u].place)).kind != Kind::Return);
    };
    const auto& uses = p_.usesOfVariable[made.index()];
    return first != kNoNode && depth < 2 && std::none_of(uses.begin(), uses.end(), isKeptElsewhere) && isMadeThere({value.file, first}, depth + 1);
  }
  if (!made.is(Symbol::Sort::Function) || depth > 1) return false;
  const std::vector<Place>& given = returns_[made.index()];
  return !given.empty() && std::all_of(given.begin(), given.end(), [&](Place one) { return isMadeThere(one, depth + 1); });
}

// return *i->second, return rows[n]: is it in a collection of the function's own object, looked up here or before?
bool Origins::isOwnElement(Place value) const {
  const LoweredFile& file = p_.file(value);
  bool inside = false;
  NodeId n = value.node;
  for (int depth = 0; n != kNoNode && depth < 16; ++depth) {
    switch (file[n].kind) {
      case Kind::Dereference: case Kind::AddressOf: case Kind::Cast: n = file.child(n, Role::Operand); continue;
      case Kind::Call: n = file.child(n, Role::Callee); continue;
      case Kind::Conditional:
        for (NodeId branch : children(file, n))
          if (file[branch].role != Role::Condition && isOwnElement({value.file, branch})) return true;
        return false;
      case Kind::Index: inside = true, n = file.child(n, Role::Receiver); continue;
      case Kind::Member: case Kind::Name: break;
      default: return false;
    }
    Symbol symbol = p_.links[value.file].symbol[n];
    if (!symbol.is(Symbol::Sort::Variable)) {
      inside = true, n = file.child(n, Role::Receiver);
      continue;
    }
    const Variable& variable = p_.variables[symbol.index()];
    if (variable.storage == Storage::Field) return inside && (p_.traits(value.file, variable.type) & (kCollection | kKeyedCollection));
    if (variable.storage != Storage::Local || variable.definition.file != value.file) return false;
    inside = true, n = file.child(variable.definition.node, Role::Initialiser);
  }
  return false;
}

// Handing out a slot means handing out its object: by pointer, reference or
// owner, or by value of a class of ours or of nothing told.
bool Origins::mayHandOut(FunctionIndex function) const {
  FileIndex f = returns_[function].front().file;
  TypeUseId result = p_.functions[function].result;
  // One that makes another in one of its ways, or gives an element of what its own object holds, hands out now the one, now the other.
  for (Place value : returns_[function])
    if (returns_[function].size() > 1 && (isMadeThere(value, 0) || isOwnElement(value))) return false;
  bool deduced = result != 0 && p_.text(p_.use(result).name) == "auto";
  return deduced || keepsIdentity(f, result) || (p_.traits(f, result) & kOptionalType);
}

// Does it promise no more than a base of the slot's class, or is it asked of one of its objects, and gives what is no slot at all on
// another way?
bool Origins::givesOthers(FunctionIndex function, VariableIndex slot) const {
  if (returns_[function].size() < 2) return false;
  TypeIndex promised = p_.classBehind(returns_[function].front().file, p_.functions[function].result), kept = p_.classBehind(p_.variables[slot].home().file, p_.variables[slot].type);
  if (promised == kNone || kept == kNone) return false;
  // Asked of an object of that very class: who has one wants another of its kind.
  bool ofItself = p_.functions[function].owner == kept && !(p_.functions[function].modifiers & kStatic);
  if (!ofItself && (promised == kept || !p_.derivesFrom(kept, promised))) return false;
  return std::any_of(returns_[function].begin(), returns_[function].end(), [&](Place value) {
    if (p_.node(value).is(Kind::Literal, LiteralForm::Null)) return false;
    VariableIndex other = of(value);
    return other != slot && (other == kNone || ofItself || p_.classBehind(p_.variables[other].home().file, p_.variables[other].type) != kept);
  });
}

void Origins::Waiting::reset(size_t items, size_t variables, size_t functions) {
  due.assign(items, true);
  waits.clear();
  forAlias.assign(variables, kNone);
  forAccessPoint.assign(functions, kNone);
}

void Origins::Waiting::wait(uint32_t& first) {
  waits.emplace_back(item, first);
  first = static_cast<uint32_t>(waits.size() - 1);
}

void Origins::Waiting::wake(uint32_t& first) {
  for (uint32_t i = first; i != kNone; i = waits[i].second) due[waits[i].first] = true;
  first = kNone;
}

// Asks, in their order, those that have not been asked yet and those that what
// they waited for became known to.
bool Origins::round() {
  bool changed = false;
  waiting_.item = 0;
  auto isDue = [&] {
    bool due = waiting_.due[waiting_.item];
    waiting_.due[waiting_.item] = false;
    return due;
  };
  for (auto& [variable, value] : bindings_) {
    if (isDue() && alias_[variable] == kNone && !several_[variable]) {
      VariableIndex slot = slotOf(value, waiting_);
      if (slot != kNone && slot != variable) {
        alias_[variable] = slot;
        waiting_.wake(waiting_.forAlias[variable]);
        changed = true;
      }
    }
    ++waiting_.item;
  }
  for (FunctionIndex i : open_) {
    if (isDue() && accessPoint_[i] == kNone) {
      FileIndex f = returns_[i].front().file;
      for (Place value : returns_[i]) {
        VariableIndex slot = slotOf(value, waiting_);
        if (slot == kNone) continue;
        // What walks along a list hands out one of it.
        if (Symbol walker = p_.symbolAt(value); walker.is(Symbol::Sort::Variable) && walks_[walker.index()]) continue;
        const Variable& v = p_.variables[slot];
        if (givesOthers(i, slot)) continue;
        if (!v.lives()) {
          // A member of a long-lived object: only free and class-level functions make it a global service.
          bool instanceMethod = p_.functions[i].owner != kNone && !(p_.functions[i].modifiers & kStatic);
          if (instanceMethod || p_.classBehind(f, v.type) == kNone) continue;
          // Now the one and now the other member: what it hands out is a part of the object that keeps them.
          bool other = std::any_of(returns_[i].begin(), returns_[i].end(), [&](Place value2) {
            VariableIndex also = of(value2);
            return also != kNone && also != slot;
          });
          if (other) break;
        }
        accessPoint_[i] = slot;
        waiting_.wake(waiting_.forAccessPoint[i]);
        changed = true;
        break;
      }
    }
    ++waiting_.item;
  }
  // Which fields of long-lived objects are reached: noted for the returns above.
  for (FunctionIndex i : open_)
    if (accessPoint_[i] != kNone && !p_.variables[accessPoint_[i]].lives()) context_[accessPoint_[i]] = accessPoint_[i];
  return changed;
}

VariableIndex Origins::of(Place place) const {
  struct {
    void alias(VariableIndex) {}
    void accessPoint(FunctionIndex) {}
  } nobody;
  return slotOf(place, nobody);
}

template <typename Unknown>
VariableIndex Origins::slotOf(Place place, Unknown& unknown, int depth) const {
  if (depth > 30) return kNone;
  auto aliasOfVariable = [&](VariableIndex v) {
    if (alias_[v] == kNone) unknown.alias(v);
    return alias_[v];
  };
  auto accessPointOfFunction = [&](FunctionIndex f) {
    if (accessPoint_[f] == kNone) unknown.accessPoint(f);
    return accessPoint_[f];
  };
  // Naming a getter calls it; naming another function does not.
  auto throughGetter = [&](FunctionIndex f) { return p_.functions[f].form == FunctionForm::Getter ? accessPointOfFunction(f) : kNone; };
  const LoweredFile& file = p_.file(place);
  const Node& node = file[place.node];
  auto child = [&](Role role) { return Place{place.file, file.child(place.node, role)}; };
  auto follow = [&](Role role) {
    Place c = child(role);
    return c.node == kNoNode ? kNone : slotOf(c, unknown, depth + 1);
  };
  switch (node.kind) {
    case Kind::Name: {
      Symbol symbol = p_.symbolAt(place);
      if (symbol.is(Symbol::Sort::Function)) return throughGetter(symbol.index());
      if (!symbol.is(Symbol::Sort::Variable)) return kNone;
      VariableIndex v = symbol.index();
      return p_.variables[v].lives() ? v : aliasOfVariable(v);
    }
    case Kind::Member: {
      Symbol symbol = p_.symbolAt(place);
      if (symbol.is(Symbol::Sort::Function)) return throughGetter(symbol.index());
      if (!symbol.known() && (file.name(node) == "Value" || file.name(node) == "value")) return follow(Role::Receiver);
      if (!symbol.is(Symbol::Sort::Variable)) return kNone;
      VariableIndex v = symbol.index();
      if (p_.variables[v].lives()) return v;
      if (VariableIndex known = aliasOfVariable(v); known != kNone) return known;
      // context->service
      VariableIndex outer = follow(Role::Receiver);
      return outer != kNone && p_.variables[outer].lives() && p_.classBehind(place.file, p_.variables[v].type) != kNone ? v : kNone;
    }
    case Kind::Call: {
      Symbol symbol = p_.symbolAt(place);
      if (symbol.is(Symbol::Sort::Function)) return accessPointOfFunction(symbol.index());
      Place callee = child(Role::Callee);
      if (callee.node == kNoNode) return kNone;
      std::string_view name = file.name(callee.node);
      if (file[callee.node].kind == Kind::Member) {
        if (name == "get" || name == "load" || name == "value" || name == "lock" || (p_.guarantees(place.file).callTraits(name) & kYieldsSame)) {
          NodeId receiver = file.child(callee.node, Role::Receiver);
          return receiver == kNoNode ? kNone : slotOf({place.file, receiver}, unknown, depth + 1);
        }
        return kNone;
      }
      if (file[callee.node].kind == Kind::Name && (p_.guarantees(place.file).callTraits(name) & kYieldsSame)) return follow(Role::Argument);
      return kNone;
    }
    case Kind::Dereference: case Kind::AddressOf: case Kind::Cast: return follow(Role::Operand);
    case Kind::Conditional: {
      VariableIndex then = follow(Role::Then);
      return then != kNone ? then : follow(Role::Else);
    }
    case Kind::Assign: {
      VariableIndex target = follow(Role::Target);
      return target != kNone ? target : follow(Role::Value);
    }
    case Kind::NullTest: return kNone;
    default: return kNone;
  }
}

VariableIndex Origins::keeperOf(VariableIndex field) const {
  for (FunctionIndex f : accessPointsTo_[field])
    for (Place value : returns_[f]) {
      const LoweredFile& file = p_.file(value);
      NodeId at = value.node;
      while (at != kNoNode && !(file[at].kind == Kind::Member && p_.links[value.file].symbol[at] == Symbol(Symbol::Sort::Variable, field))) {
        NodeId next = file.child(at, Role::Operand);
        if (next == kNoNode) next = file.child(at, Role::Callee);
        at = next != kNoNode ? next : file.child(at, Role::Receiver);
      }
      NodeId receiver = at == kNoNode ? kNoNode : file.child(at, Role::Receiver);
      VariableIndex keeper = receiver == kNoNode ? kNone : of({value.file, receiver});
      if (keeper != kNone && keeper != field && p_.variables[keeper].lives()) return keeper;
    }
  return kNone;
}

const std::vector<FunctionIndex>& Origins::accessPointsTo(VariableIndex slot) const { return accessPointsTo_[slot]; }
const std::vector<VariableIndex>& Origins::aliasesOf(VariableIndex slot) const { return aliasesOf_[slot]; }

}  // namespace elmcart

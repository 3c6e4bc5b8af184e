#include "survey/constancy.h"

#include "flow/control.h"
#include "program/arguments.h"

namespace elmcart {

bool Constancy::hasMutableField(TypeIndex type) const {
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    return std::any_of(p_.types[at].fields.begin(), p_.types[at].fields.end(), [&](VariableIndex f) {
      const Variable& field = p_.variables[f];
      return (field.modifiers & kMutable) && !(p_.traits(field.declarations.front().file, field.type) & (kLockType | kConditionType | kOnceFlagType));
    });
  });
}

bool Constancy::holdsState(TypeIndex type) const {
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    const TypeDecl& decl = p_.types[at];
    auto changes = [&](VariableIndex f) { return !(p_.variables[f].modifiers & (kConst | kConstant)) || (p_.variables[f].modifiers & kMutable); };
    return !decl.definition.known() || decl.hasUnknownBase || std::any_of(decl.fields.begin(), decl.fields.end(), changes);
  });
}

// May the method of a base be called on an object of class `type`, and not just on its other kinds?
bool Constancy::mayBeCalledOn(FunctionIndex method, TypeIndex type) const {
  // Its class puts another in its place.
  if (FunctionIndex body = bodyIn(method, type); body != kNone && body != method) {
    const auto& inside = p_.callsInFunction[body];
    return std::any_of(inside.begin(), inside.end(), [&](uint32_t c) { return p_.calls[c].callee == method; });
  }
  const auto& calls = p_.callsOfFunction[method];
  return calls.empty() || std::any_of(calls.begin(), calls.end(), [&](uint32_t c) {
    const auto& call = p_.calls[c];
    const LoweredFile& file = p_.file(call.place);
    NodeId receiver = receiverOf(file, call.place.node);
    if (receiver == kNoNode || file[receiver].kind == Kind::This) return true;
    TypeIndex on = p_.classBehind(call.place.file, p_.typeAt({call.place.file, receiver}));
    return on == kNone || p_.types[on].form == TypeForm::Interface || p_.derivesFrom(type, on) || p_.derivesFrom(on, type);
  });
}

// Is the method of a class that others cannot name, or one that they cannot call, only called while classes or files are loaded?
bool Constancy::calledOnlyWhileLoading(FunctionIndex method, int depth) const {
  const Function& fn = p_.functions[method];
  if (fn.form == FunctionForm::Initialiser) return fn.owner == kNone || (fn.modifiers & kStatic);
  bool open = (fn.modifiers & kPublic) && (fn.owner == kNone || (p_.types[fn.owner].modifiers & kPublic));
  const auto& calls = p_.callsOfFunction[method];
  return depth < 5 && !open && !calls.empty() && std::all_of(calls.begin(), calls.end(), [&](uint32_t c) {
    const auto& call = p_.calls[c];
    return call.in != kNone && call.in != method && p_.around(call.place, Kind::Lambda).node == kNoNode && calledOnlyWhileLoading(call.in, depth + 1);
  });
}

bool Constancy::fieldChanges(VariableIndex f, TypeIndex type, TypeIndex of, int depth) const {
  const Variable& field = p_.variables[f];
  uint32_t traits = p_.traits(field.declarations.front().file, field.type);
  if (traits & (kLockType | kConditionType | kOnceFlagType)) return false;
  if (traits & (kAtomicType | kThreadType | kFileResource)) return true;
  for (uint32_t u : p_.usesOfVariable[f]) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read || use.access == Access::Bind || constructs(use, type)) continue;
    if (use.access == Access::Call && !(traits & kCollection)) continue;  // told by the class that it is of
    if (of != type && use.in != kNone && p_.functions[use.in].owner == type && !mayBeCalledOn(use.in, of)) continue;
    if (use.in != kNone && calledOnlyWhileLoading(use.in, 0)) continue;
    if (!isRemembered(f, type)) return true;
    break;
  }
  const TypeUse& held = p_.use(field.type);
  return held.decl != kNone && held.decl != type && (held.modifiers & kManaged) == kManaged && p_.types[held.decl].form != TypeForm::Interface && changesLater(held.decl, false, held.decl, depth + 1);
}

bool Constancy::changesItself(TypeIndex type) const {
  auto known = changesItself_.find(type);
  if (known != changesItself_.end()) return known->second;
  const TypeDecl& decl = p_.types[type];
  bool out = !decl.definition.known() || std::any_of(decl.fields.begin(), decl.fields.end(), [&](VariableIndex f) { return fieldChanges(f, type, type, 0); }) || changesByClosures(type);
  return changesItself_[type] = out;
}

bool Constancy::changesLater(TypeIndex type, bool exact, TypeIndex of, int depth) const {
  if (depth > 8) return true;
  auto [entry, fresh] = changes_.emplace(std::make_tuple(type, exact, of), false);  // a class that holds its own kind changes only by its other fields
  if (!fresh) return entry->second;
  const TypeDecl& decl = p_.types[type];
  // Of what only promises, those that keep the promise tell.
  bool out = !decl.definition.known() || (decl.form == TypeForm::Interface && !exact && decl.derived.empty());
  out = out || std::any_of(decl.fields.begin(), decl.fields.end(), [&](VariableIndex f) { return fieldChanges(f, type, of, depth); }) || changesByClosures(type);
  for (const Base& base : decl.bases) {
    if (out) break;
    if (base.type != kNone && p_.types[base.type].form != TypeForm::Interface) out = changesLater(base.type, true, of, depth + 1);
    if (base.type == kNone && (p_.traits(decl.definition.file, base.use) & (kCollection | kThreadType | kAtomicType))) out = true;
  }
  if (!exact)
    for (TypeIndex d : decl.derived)
      if (!out) out = changesLater(d, false, d, depth + 1);
  changes_[{type, exact, of}] = out;
  return out;
}

// Functions that a constructor makes go on working with its variables: those are fields in all but name.
bool Constancy::changesByClosures(TypeIndex type) const {
  for (FunctionIndex m : p_.types[type].methods) {
    if (p_.functions[m].form != FunctionForm::Constructor) continue;
    for (uint32_t u : p_.usesInFunction[m]) {
      const Use& use = p_.uses[u];
      const Variable& variable = p_.variables[use.variable];
      bool changes = use.access == Access::Write || use.access == Access::Update;
      if (!changes || (variable.storage != Storage::Local && variable.storage != Storage::Parameter) || !variable.definition.known()) continue;
      Place lambda = p_.around(use.place, Kind::Lambda);
      if (lambda.node != kNoNode && !p_.isInside(variable.definition, lambda.node)) return true;
    }
  }
  return false;
}

// The function that runs when that method is called on an object of class `made`.
FunctionIndex Constancy::bodyIn(FunctionIndex method, TypeIndex made) const {
  const Function& called = p_.functions[method];
  FunctionIndex out = kNone;
  if (made == kNone) return out;
  p_.anyBase(made, [&](TypeIndex at, const Base*) {
    if (at != made && p_.types[at].form == TypeForm::Interface) return false;
    for (FunctionIndex m : p_.types[at].methods) {
      const Function& fn = p_.functions[m];
      if (m != method && (fn.name != called.name || fn.parameters.size() != called.parameters.size())) continue;
      out = fn.definition.known() && !(fn.modifiers & kAbstract) ? m : kNone;
      return true;
    }
    return false;
  });
  return out;
}

bool Constancy::changesByCalling(FunctionIndex method, TypeIndex made) const {
  std::set<FunctionIndex> seen;
  return changesByCalling(method, made, seen);
}

bool Constancy::changesByCalling(FunctionIndex method, TypeIndex made, std::set<FunctionIndex>& seen) const {
  FunctionIndex body = bodyIn(method, made);
  if (body == kNone || seen.size() > 40) return true;
  if (!seen.insert(body).second) return false;
  for (uint32_t u : p_.usesInFunction[body]) {
    const Use& use = p_.uses[u];
    const Variable& field = p_.variables[use.variable];
    if (field.storage != Storage::Field || field.owner == kNone || !p_.derivesFrom(made, field.owner) || use.access == Access::Read) continue;
    TypeIndex held = p_.classBehind(use.place.file, field.type);
    if (use.access != Access::Call || held == kNone || changesLater(held)) return true;
  }
  for (uint32_t c : p_.callsInFunction[body]) {
    const Function& callee = p_.functions[p_.calls[c].callee];
    bool own = callee.owner != kNone && callee.form == FunctionForm::Function && !callee.isStaticMember() && p_.derivesFrom(made, callee.owner);
    if (own && changesByCalling(p_.calls[c].callee, made, seen)) return true;
  }
  return false;
}

// Or written to an object that its own class has just made: a factory does so.
bool Constancy::constructs(const Use& use, TypeIndex type) const {
  if (constructs(use.in, type)) return true;
  const LoweredFile& file = p_.file(use.place);
  NodeId receiver = file[use.place.node].kind == Kind::Member ? file.child(use.place.node, Role::Receiver) : kNoNode;
  if (receiver == kNoNode || p_.functions[use.in].owner != type) return false;
  Symbol object = p_.links[use.place.file].symbol[receiver];
  if (!object.is(Symbol::Sort::Variable) || p_.variables[object.index()].storage != Storage::Local) return false;
  NodeId initial = initialiserOf(object.index());
  return initial != kNoNode && file[initial].kind == Kind::Create;
}

// Part of construction: a constructor of the class or of one derived from it,
// and what such alone call.
bool Constancy::constructs(FunctionIndex in, TypeIndex type, int depth) const {
  if (in == kNone) return true;
  const Function& fn = p_.functions[in];
  if (fn.owner == kNone) return false;
  bool own = fn.owner == type;
  // An object that is read back from storage is filled so.
  std::span<const std::string_view> hooks = fn.definition.known() ? p_.guarantees(fn.definition.file).beginHooks : std::span<const std::string_view>{};
  if (own && std::find(hooks.begin(), hooks.end(), p_.text(fn.name)) != hooks.end()) return true;
  if (fn.form == FunctionForm::Constructor || fn.form == FunctionForm::Destructor || fn.form == FunctionForm::Initialiser || fn.form == FunctionForm::Factory) return own || p_.derivesFrom(fn.owner, type);
  if (!own || depth > 3 || (fn.modifiers & kPublic) || p_.callsOfFunction[in].empty()) return false;
  auto [entry, fresh] = constructs_.emplace(std::make_pair(in, type), false);
  if (!fresh) return entry->second;
  bool out = true;
  for (uint32_t c : p_.callsOfFunction[in]) out = out && p_.calls[c].in != kNone && constructs(p_.calls[c].in, type, depth + 1);
  constructs_[{in, type}] = out;
  return out;
}

// Worked out when first asked for, and kept: a number, a text or one of an enum that is only ever
// set by the class itself, behind a test of whether it is there.
bool Constancy::isRemembered(VariableIndex f, TypeIndex type) const {
  const Variable& field = p_.variables[f];
  const TypeUse& use = p_.use(field.type);
  Place declared = field.declarations.front();
  bool choice = use.decl != kNone && p_.types[use.decl].form == TypeForm::Enum;
  uint32_t traits = p_.traits(declared.file, field.type);
  bool bare = use.has(kPointer) && (traits & ~uint32_t{kUnchanging}) == 0 && p_.language(declared.file).dotted;  // a library's object that is only remembered
  bool plain = use.name != 0 && (use.decl == kNone || choice) && (choice || bare || !use.has(kPointer)) && !use.has(kArray) && traits == (traits & (kTextType | kUnchanging));
  // One of its own class is as good as what it is worked out from.
  plain |= use.decl == type && p_.language(declared.file).dotted && (traits & ~uint32_t{kUnchanging}) == 0;
  if (!plain || (field.modifiers & kPublic)) return false;
  bool workedOut = false;
  for (uint32_t u : p_.usesOfVariable[f]) {
    const Use& one = p_.uses[u];
    if (one.access == Access::Read || one.access == Access::Call || constructs(one, type)) continue;
    if (one.access != Access::Write || one.inMember || one.throughPointer || one.in == kNone || p_.functions[one.in].owner != type) return false;
    Place assign = p_.parent(one.place);
    const LoweredFile& file = p_.file(assign);
    NodeId value = p_.assignedAt(one.place);
    if (value == kNoNode) return false;
    if (file[value].kind == Kind::Literal) {
      // Forgotten again: nothing, or zero.
      auto form = static_cast<LiteralForm>(file[value].detail);
      if (form != LiteralForm::Null && (form != LiteralForm::Number || file[value].span.size() != 1)) return false;
    } else {
      // What is handed in was not worked out.
      Symbol given = p_.links[assign.file].symbol[value];
      bool handedIn = given.is(Symbol::Sort::Variable) && p_.variables[given.index()].storage == Storage::Parameter;
      if (handedIn || names({assign.file, value}, f, false) || !testsFirst(one, f)) return false;
      workedOut = true;
    }
  }
  return workedOut;
}

bool Constancy::names(Place expression, VariableIndex variable, bool locals) const {
  const LoweredFile& file = p_.file(expression);
  const FileLinks& links = p_.links[expression.file];
  auto yields = [&](NodeId value) {
    Symbol symbol = links.symbol[value];
    if (symbol == Symbol(Symbol::Sort::Variable, variable)) return true;
    // What a function of the class that reads it gives back.
    if (!symbol.is(Symbol::Sort::Function) || file[value].kind != Kind::Call || p_.functions[symbol.index()].owner == kNone || p_.functions[symbol.index()].owner != p_.variables[variable].owner) return false;
    return std::any_of(p_.usesInFunction[symbol.index()].begin(), p_.usesInFunction[symbol.index()].end(), [&](uint32_t u) { return p_.uses[u].variable == variable; });
  };
  for (NodeId n = expression.node; n < file.nodes.size() && file[n].span.begin < file[expression.node].span.end; ++n) {
    Symbol symbol = links.symbol[n];
    if (!symbol.is(Symbol::Sort::Variable) || (n != expression.node && !p_.isInside({expression.file, n}, expression.node))) continue;
    if (symbol.index() == variable) return true;
    NodeId initial = locals ? initialiserOf(symbol.index()) : kNoNode;
    if (initial != kNoNode && p_.variables[symbol.index()].definition.file == expression.file && yields(initial)) return true;
  }
  return false;
}

// Does a branch that a write stands in ask for the field? Or one that its private function is called in?
bool Constancy::testsFirst(const Use& write, VariableIndex field) const {
  if (testsFirst(write.place, field)) return true;
  if (write.in == kNone || !(p_.functions[write.in].modifiers & kPrivate) || p_.callsOfFunction[write.in].empty()) return false;
  for (uint32_t c : p_.callsOfFunction[write.in])
    if (!testsFirst(p_.calls[c].place, field)) return false;
  return true;
}

bool Constancy::testsFirst(Place place, VariableIndex field) const {
  return forEachKnown(p_, place, [&](const Known& test) { return names({place.file, test.condition}, field, true) || isFilledWith(field, {place.file, test.condition}); });
}

// Is another variable of its class found empty there, and given its value in the same function: do the two stand for one answer?
bool Constancy::isFilledWith(VariableIndex field, Place test) const {
  const LoweredFile& file = p_.file(test);
  if (file[test.node].kind != Kind::NullTest) return false;
  Symbol tested = p_.symbolAt({test.file, file.child(test.node, Role::Operand)});
  if (!tested.is(Symbol::Sort::Variable)) return false;
  const Variable &other = p_.variables[tested.index()], &own = p_.variables[field];
  if (other.owner == kNone || other.owner != own.owner || other.storage != own.storage) return false;
  Place function = p_.around(test, Kind::Function);
  return std::any_of(p_.usesOfVariable[tested.index()].begin(), p_.usesOfVariable[tested.index()].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    return use.access == Access::Write && !use.inMember && use.place.file == test.file && p_.around(use.place, Kind::Function) == function;
  });
}

NodeId Constancy::initialiserOf(VariableIndex v) const {
  Place home = p_.variables[v].definition;
  return home.known() ? p_.file(home).child(home.node, Role::Initialiser) : kNoNode;
}

TypeIndex Constancy::madeFor(VariableIndex v) const {
  NodeId initial = initialiserOf(v);
  return initial == kNoNode ? kNone : madeBy({p_.variables[v].definition.file, initial}, 0);
}

TypeIndex Constancy::madeLaterFor(VariableIndex v) const {
  constexpr size_t kMost = 256;  // uses that are looked at
  if ((initialiserOf(v) != kNoNode && !holdsNothing(v)) || p_.usesOfVariable[v].size() > kMost) return kNone;
  TypeIndex out = kNone;
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || use.inMember || use.throughPointer) continue;
    NodeId value = p_.assignedAt(use.place);
    if (value == kNoNode) return kNone;
    if (p_.file(use.place)[value].is(Kind::Literal, LiteralForm::Null)) continue;
    TypeIndex one = madeBy({use.place.file, value}, 0);
    if (one == kNone || (out != kNone && out != one)) return kNone;
    out = one;
  }
  return out;
}

TypeIndex Constancy::madeBy(Place expression, int depth) const {
  const LoweredFile& file = p_.file(expression);
  const FileLinks& links = p_.links[expression.file];
  Symbol made = links.symbol[expression.node];
  if (file[expression.node].kind == Kind::Call) {
    NodeId callee = file.child(expression.node, Role::Callee);
    Symbol named = callee == kNoNode ? Symbol{} : links.symbol[callee];
    if (named.is(Symbol::Sort::Type)) made = named;
    // new Matrix().fromArray(…): what gives back the object that it was asked of.
    NodeId receiver = receiverOf(file, expression.node);
    if (made.is(Symbol::Sort::Function) && receiver != kNoNode && (file[receiver].kind == Kind::Create || file[receiver].kind == Kind::Call) && givesItself(made.index())) return depth < 3 ? madeBy({expression.file, receiver}, depth + 1) : kNone;
    if (made.is(Symbol::Sort::Function)) return depth < 3 ? returnedBy(made.index(), depth + 1) : kNone;
  } else if (file[expression.node].kind != Kind::Create) {
    return kNone;
  }
  // A class without a name stands inside its creation.
  for (NodeId c : children(file, expression.node))
    if (file[c].kind == Kind::Type && links.symbol[c].is(Symbol::Sort::Type)) return links.symbol[c].index();
  return made.is(Symbol::Sort::Type) && p_.types[made.index()].definition.known() ? made.index() : kNone;
}

// Does each of its returns give back the object that the function was called on?
bool Constancy::givesItself(FunctionIndex function) const {
  Place home = p_.functions[function].definition;
  if (!home.known() || p_.functions[function].owner == kNone) return false;
  const LoweredFile& file = p_.file(home);
  bool any = false;
  for (NodeId n = home.node + 1; n < file.nodes.size() && p_.isInside({home.file, n}, home.node); ++n) {
    if (file[n].kind != Kind::Return) continue;
    NodeId value = file.child(n, Role::Value);
    if (value == kNoNode || file[value].kind != Kind::This) return false;
    any = true;
  }
  return any;
}

// Is an object of class `made` but looked at through that parameter or local, wherever that is named?
bool Constancy::onlyLookedAt(VariableIndex v, TypeIndex made, int depth) const {
  constexpr size_t kMost = 64;  // uses that are looked at
  auto uses = p_.usesOfVariable[v];
  return uses.size() <= kMost && std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return looksOnly(p_.uses[u], made, depth); });
}

bool Constancy::looksOnly(const Use& use, TypeIndex made, int depth) const {
  if (use.access == Access::Write || use.access == Access::Update || use.access == Access::Bind || depth > 3) return false;
  Place up = p_.parent(use.place);
  const LoweredFile& file = p_.file(up);
  switch (file[up.node].kind) {
    case Kind::Compare: case Kind::NullTest: case Kind::Logic: case Kind::If: return true;
    case Kind::Call: {
      Symbol called = p_.symbolAt(up);
      if (file[use.place.node].role != Role::Argument || !called.is(Symbol::Sort::Function)) return false;
      for (VariableIndex parameter : p_.functions[called.index()].parameters)
        if (givenFor(p_, up, called.index(), parameter).node == use.place.node) return (p_.functions[called.index()].modifiers & kAbstract) == 0 && onlyLookedAt(parameter, made, depth + 1);
      return false;
    }
    case Kind::Member: {
      if (file[use.place.node].role != Role::Receiver) return false;
      Symbol member = p_.symbolAt(up);
      if (file[up.node].role == Role::Callee) return member.is(Symbol::Sort::Function) && made != kNone && !changesByCalling(member.index(), made);
      // const e = m.elements; e[0]
      Place over = p_.parent(up);
      if (file[over.node].kind == Kind::Variable) {
        Symbol local = p_.symbolAt(over);
        return local.is(Symbol::Sort::Variable) && onlyLookedAt(local.index(), kNone, depth + 1);
      }
      return file[up.node].role != Role::Target && file[over.node].kind != Kind::Update && file[over.node].kind != Kind::Call && file[over.node].kind != Kind::Return && (file[over.node].kind != Kind::Member || file[over.node].role != Role::Callee);
    }
    case Kind::Index: {  // an element is read
      Place over = p_.parent(up);
      return file[use.place.node].role == Role::Receiver && file[up.node].role != Role::Target && file[over.node].kind != Kind::Update && file[over.node].kind != Kind::Return;
    }
    default: return false;
  }
}

// The class of what a function returns, where it makes one in each of its returns.
TypeIndex Constancy::returnedBy(FunctionIndex function, int depth) const {
  Place home = p_.functions[function].definition;
  if (!home.known() || (p_.functions[function].modifiers & (kVirtual | kAbstract))) return kNone;
  const LoweredFile& file = p_.file(home);
  TypeIndex out = kNone;
  for (NodeId n = home.node + 1; n < file.nodes.size() && p_.isInside({home.file, n}, home.node); ++n) {
    if (file[n].kind != Kind::Return) continue;
    bool inner = false;
    for (NodeId up = file.parents[n]; up != home.node && up != kNoNode; up = file.parents[up]) inner |= file[up].kind == Kind::Lambda || file[up].kind == Kind::Function;
    if (inner) continue;
    NodeId value = file.child(n, Role::Value);
    TypeIndex one = value == kNoNode ? kNone : madeBy({home.file, value}, depth);
    if (one == kNone || (out != kNone && out != one)) return kNone;
    out = one;
  }
  return out;
}

bool Constancy::holdsFunction(VariableIndex v) const {
  NodeId initial = initialiserOf(v);
  return initial != kNoNode && p_.files[p_.variables[v].definition.file][initial].kind == Kind::Lambda;
}

// new Type[0], and an empty list that nobody writes to.
bool Constancy::holdsNoElement(VariableIndex v) const {
  NodeId initial = initialiserOf(v);
  if (initial == kNoNode || !p_.use(p_.variables[v].type).has(kArray)) return false;
  const LoweredFile& file = p_.files[p_.variables[v].definition.file];
  if (file[initial].kind != Kind::Collection || !(file[initial].has(kConst))) return false;
  return true;
}

// What a function elsewhere keeps under a name or for a class, asked for once by
// the only class that uses it: a logger, say. The state is where it is kept.
std::string Constancy::lookedUp(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  NodeId initial = initialiserOf(v);
  bool ofModule = variable.storage == Storage::Global && variable.owner == kNone;
  if (initial == kNoNode || (variable.owner == kNone && !ofModule)) return "";
  Place call{variable.definition.file, initial};
  const LoweredFile& file = p_.file(call);
  Symbol asked = p_.symbolAt(call);
  if (file[initial].kind != Kind::Call || !asked.is(Symbol::Sort::Function) || (p_.functions[asked.index()].owner == variable.owner && !ofModule) || p_.functions[asked.index()].parent == variable.parent || p_.functions[asked.index()].form == FunctionForm::Constructor) return "";
  NodeId key = file.child(initial, Role::Argument);
  if (key == kNoNode) return "";
  bool named = file[key].is(Kind::Literal, LiteralForm::Text) || p_.links[call.file].symbol[key].is(Symbol::Sort::Type);
  TypeIndex type = p_.classBehind(call.file, variable.type);
  // A class of its own that is made by the call, and handed to nobody else, is this class's state.
  if (!named || type == kNone || p_.types[type].form != TypeForm::Interface) return "";
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (ofModule && (use.access == Access::Write || use.access == Access::Update || use.access == Access::Bind)) return "";
    if (ofModule) continue;
    if (use.access == Access::Write && !constructs(use.in, variable.owner)) return "";
    TypeIndex by = use.in == kNone ? variable.owner : p_.functions[use.in].owner;
    for (int depth = 0; by != variable.owner && by != kNone && depth < 8; ++depth) {
      ScopeIndex around = p_.types[by].parent;
      while (around != kNone && p_.scopes[around].sort != Scope::Sort::Type) around = p_.scopes[around].parent;
      if (p_.derivesFrom(by, variable.owner)) by = variable.owner;
      else by = around != kNone ? p_.scopes[around].type : kNone;
    }
    if (by == kNone && use.in != kNone) return "";
  }
  return "it is set once, to what " + std::string(p_.text(p_.functions[asked.index()].qualified)) + " keeps";
}

bool Constancy::holdsNothing(VariableIndex v) const {
  NodeId initial = initialiserOf(v);
  return initial != kNoNode && p_.files[p_.variables[v].definition.file][initial].is(Kind::Literal, LiteralForm::Null);
}

}  // namespace elmcart

// Facts that several families of checks ask for.
#include "assess/facts.h"

#include <algorithm>

#include "base/text.h"
#include "survey/constancy.h"

namespace elmcart {

NodeId appendedTo(const LoweredFile& file, NodeId assignment) {
  NodeId target = file[assignment].kind == Kind::Assign ? file.child(assignment, Role::Target) : kNoNode;
  if (target == kNoNode || file[target].kind != Kind::Index || file.child(target, Role::Argument) != kNoNode) return kNoNode;
  return file.child(target, Role::Receiver);
}

bool isMain(const Program& p, FunctionIndex f) { return f != kNone && p.text(p.functions[f].name) == "main" && (p.functions[f].owner == kNone || (p.functions[f].modifiers & kStatic)); }

namespace {

// Is the call the last thing that the function around it does, but for what a handler does when it has failed?
bool isLastDone(const Program& p, const CallSite& call) {
  auto follows = [&](Place other) {
    if (other.file != call.place.file || p.node(other).span.begin < p.node(call.place).span.end) return false;
    Place tried = p.around(other, Kind::Try);
    bool handled = tried.node != kNoNode && p.isInside(call.place, tried.node) && p.file(tried).child(tried.node, Role::Body) != kNoNode && !p.isInside(other, p.file(tried).child(tried.node, Role::Body));
    return !handled;
  };
  return p.around(call.place, Kind::Loop).node == kNoNode && std::none_of(p.callsInFunction[call.in].begin(), p.callsInFunction[call.in].end(), [&](uint32_t o) { return follows(p.calls[o].place); }) &&
         std::none_of(p.foreignCallsInFunction[call.in].begin(), p.foreignCallsInFunction[call.in].end(), [&](uint32_t o) { return follows(p.foreignCalls[o].place); });
}

}  // namespace

bool endsWithProgram(const Program& p, FunctionIndex f, int depth) {
  if (f == kNone || isMain(p, f)) return f != kNone;
  if (depth > 6 || p.callsOfFunction[f].empty()) return false;
  return std::all_of(p.callsOfFunction[f].begin(), p.callsOfFunction[f].end(), [&](uint32_t c) {
    const CallSite& call = p.calls[c];
    return call.in != kNone && call.in != f && endsWithProgram(p, call.in, depth + 1) && isLastDone(p, call);
  });
}

bool mayEndWithProgram(const Program& p, FunctionIndex f, int depth) {
  if (f == kNone || isMain(p, f)) return f != kNone;
  return depth < 6 && std::any_of(p.callsOfFunction[f].begin(), p.callsOfFunction[f].end(), [&](uint32_t c) {
    const CallSite& call = p.calls[c];
    return call.in != kNone && call.in != f && isLastDone(p, call) && mayEndWithProgram(p, call.in, depth + 1);
  });
}

std::string partText(const Entity& e, const std::string& part) { return part == e.name ? e.shown : part + " of " + e.shown; }

TypeIndex classReaching(const Program& p, const Consumer& c) {
  if (c.in != kNone) return p.functions[c.in].owner;
  return c.inInitialiserOf == kNone ? kNone : p.variables[c.inInitialiserOf].owner;
}

bool isInOwnClass(const Program& p, const Entity& e, Place place) {
  if (e.type == kNone || !p.types[e.type].definition.known()) return false;
  Place own = p.types[e.type].definition;
  return own.file == place.file && p.isInside(place, own.node);
}

std::string unitText(const Subject& s, const Consumer& c) {
  TypeIndex owner = classReaching(s.program, c);
  return owner == kNone ? whereText(s.program, c) : std::string(s.program.text(s.program.types[owner].qualified));
}

// The member function of a collection that is called at a use, by what it does.
CollectionAct actAt(const Program& p, Place place) {
  Place up = p.parent(place);
  const Node& node = p.node(up);
  if (node.kind == Kind::Member && p.node(place).role == Role::Receiver) {
    Place call = p.parent(up);
    if (p.node(call).kind == Kind::Call && p.node(up).role == Role::Callee) return p.guarantees(up.file).collectionAct(p.nameOf(up));
    // list.length = 0
    if (p.node(call).kind == Kind::Assign && p.node(up).role == Role::Target) return CollectionAct::Change;
  }
  if (node.kind == Kind::Index && p.node(place).role == Role::Receiver) {
    Place outer = p.parent(up);
    if (p.node(outer).kind == Kind::Assign && p.node(up).role == Role::Target) {
      const LoweredFile& file = p.file(outer);
      NodeId key = file.child(up.node, Role::Argument), value = file.child(outer.node, Role::Value);
      // list[:] = []: a part of it is replaced by nothing.
      bool empties = key != kNoNode && file[key].kind == Kind::Other && value != kNoNode && file[value].kind == Kind::Collection && file[value].firstChild == kNoNode;
      return value == kNoNode || empties ? CollectionAct::Remove : CollectionAct::Add;
    }
    if (p.node(outer).kind == Kind::Update) return CollectionAct::Change;
    if (p.node(outer).kind == Kind::Destroy) return CollectionAct::Remove;
    return CollectionAct::Read;
  }
  // A function that is given the collection first: append(list, …), delete(table, key), len(table).
  if (node.kind == Kind::Call && p.node(place).role == Role::Argument) {
    NodeId callee = p.file(up).child(up.node, Role::Callee);
    if (callee == kNoNode || p.file(up)[callee].kind != Kind::Name) return CollectionAct::None;
    // What is given behind it is only read: append(all, list...).
    CollectionAct act = p.guarantees(up.file).collectionAct(p.file(up).name(callee));
    return act == CollectionAct::None || p.file(up).child(up.node, Role::Argument) == place.node ? act : CollectionAct::Read;
  }
  return CollectionAct::None;
}

bool isWorkedOut(const Program& p, VariableIndex v) {
  const Constancy constancy(p);
  const Variable& variable = p.variables[v];
  const TypeUse& type = p.use(variable.type);
  uint32_t traits = p.traits(variable.declarations.front().file, variable.type);
  bool plain = type.has(kArray) || (traits & (kTextType | kCollection | kKeyedCollection | kUnchanging)) || (type.decl == kNone && !type.has(kPointer)) || (type.decl != kNone && p.types[type.decl].form == TypeForm::Enum);
  // An object that stays as it was made is as good as another that was made in the same way, from nothing that is handed in.
  bool object = !plain && type.decl != kNone && !constancy.changesLater(type.decl);
  plain |= object;
  if (!plain || type.name == 0 || (variable.modifiers & kPublic)) return false;
  bool collection = (traits & (kCollection | kKeyedCollection)) != 0, out = false;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (use.access == Access::Read || (use.access == Access::Write && use.in == kNone)) continue;
    if (use.access == Access::Call && !collection) continue;
    if (use.access == Access::Call && actAt(p, use.place) == CollectionAct::Read) continue;
    if (use.access != Access::Write || use.inMember || use.throughPointer) return false;
    Place assign = p.parent(use.place);
    NodeId value = p.assignedAt(use.place);
    if (value == kNoNode) return false;
    if (p.file(assign)[value].is(Kind::Literal, LiteralForm::Null)) continue;  // forgotten again
    Symbol given = p.links[assign.file].symbol[value];
    bool local = given.is(Symbol::Sort::Variable) && p.variables[given.index()].storage == Storage::Local;
    auto isHandedIn = [&](NodeId n) {
      Symbol symbol = p.links[assign.file].symbol[n];
      return symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Parameter;
    };
    if (isHandedIn(value) || constancy.names({assign.file, value}, v, false) || !constancy.testsFirst(use, v)) return false;
    if (object && anyNode(p.file(assign), value, isHandedIn)) return false;
    // Nothing is added to it afterwards under its other name.
    auto changedLater = [&](uint32_t other) { return p.uses[other].place.file == assign.file && p.uses[other].place.node > value && p.uses[other].access != Access::Read; };
    if (local && (collection || type.has(kArray)) && std::any_of(p.usesOfVariable[given.index()].begin(), p.usesOfVariable[given.index()].end(), changedLater)) return false;
    out = true;
  }
  return out;
}

bool publishesAtOnce(const Program& p, VariableIndex v) { return (p.variables[v].modifiers & kVolatile) && p.guarantees(p.variables[v].declarations.front().file).volatilePublishes.holds; }

bool isMemo(const Program& p, VariableIndex v) {
  if (!(variableTraits(p, v) & kKeyedCollection) || (p.variables[v].modifiers & kPublic)) return false;
  const Constancy constancy(p);
  std::set<FunctionIndex> asks, puts;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (p.inTests(use.place) || isConstruction(p, use)) continue;
    CollectionAct act = actAt(p, use.place);
    if (act == CollectionAct::Read) asks.insert(use.in);
    if (act != CollectionAct::Add) continue;
    Place up = p.parent(use.place), outer = p.parent(up);
    const LoweredFile& file = p.file(outer);
    NodeId value = file[outer.node].kind == Kind::Assign ? file.child(outer.node, Role::Value) : kNoNode;
    if (std::vector<NodeId> given = file[outer.node].kind == Kind::Call ? argumentsOf(file, outer.node) : std::vector<NodeId>{}; given.size() > 1) value = given[1];
    if (value == kNoNode) return false;
    Symbol symbol = p.symbolAt({outer.file, value});
    bool handedIn = symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].storage == Storage::Parameter;
    TypeIndex type = p.classBehind(outer.file, p.typeAt({outer.file, value}));
    if (handedIn || use.in == kNone || (type != kNone && constancy.changesLater(type))) return false;
    puts.insert(use.in);
  }
  return !puts.empty() && std::includes(asks.begin(), asks.end(), puts.begin(), puts.end());
}

namespace {

// Is it given out by what the function keeps, and nothing made there?
bool handsOutKept(const Program& p, FunctionIndex f) {
  Place body = p.functions[f].definition;
  if (!body.known()) return false;
  const LoweredFile& file = p.file(body);
  bool makes = anyNode(file, body.node, [&](NodeId n) { return file[n].kind == Kind::Create || (file[n].kind == Kind::Call && creationAt(p, {body.file, n})); });
  return !makes && anyNode(file, body.node, [&](NodeId n) { return file[n].kind == Kind::Return && file[n].firstChild != kNoNode; });
}

// A library's function that is told by its first word to give what is there.
bool asksByName(const LoweredFile& file, NodeId call) {
  NodeId callee = file.child(call, Role::Callee);
  if (callee == kNoNode) return false;
  std::string name = lowerCase(lastPart(file.name(callee)));
  return name.starts_with("get") || name.starts_with("find") || name.starts_with("lookup") || name.starts_with("resolve");
}

}  // namespace

bool putsLookedUp(const Program& p, const Use& use) {
  if (use.access != Access::Write || use.in == kNone || use.inMember || use.throughPointer) return false;
  const LoweredFile& file = p.file(use.place);
  NodeId value = p.assignedAt(use.place);
  if (value != kNoNode) value = bareExpression(file, value);
  if (value == kNoNode || file[value].kind != Kind::Call || creationAt(p, {use.place.file, value}) || !Constancy(p).testsFirst(use, use.variable)) return false;
  std::vector<NodeId> arguments = argumentsOf(file, value);
  if (arguments.size() != 1) return false;
  NodeId key = bareExpression(file, arguments.front());
  Symbol named = p.symbolAt({use.place.file, key}), asked = p.symbolAt({use.place.file, value});
  bool byClass = named.is(Symbol::Sort::Type) || (file[key].kind == Kind::Name && !named.known());
  if (!file[key].is(Kind::Literal, LiteralForm::Text) && !byClass) return false;
  return asked.is(Symbol::Sort::Function) ? handsOutKept(p, asked.index()) : asksByName(file, value);
}

bool isFilledWhereMade(const Program& p, VariableIndex v) {
  const Constancy constancy(p);
  std::set<FunctionIndex> makers, fillers;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    if (p.inTests(use.place) || isConstruction(p, use)) continue;
    bool whole = use.access == Access::Write && !use.inMember && !use.throughPointer;
    if (whole && constancy.testsFirst(use, v)) makers.insert(use.in);
    else if (whole || changesState(p, use)) fillers.insert(use.in);
  }
  return !makers.empty() && std::includes(makers.begin(), makers.end(), fillers.begin(), fillers.end());
}

bool readsInside(const Program& p, Place root, VariableIndex variable) {
  const LoweredFile& file = p.file(root);
  auto names = [&](NodeId n) {
    Symbol symbol = p.links[root.file].symbol[n];
    return (file[n].kind == Kind::Name || file[n].kind == Kind::Member) && symbol.is(Symbol::Sort::Variable) && symbol.index() == variable;
  };
  return names(root.node) || anyNode(file, root.node, names);
}

bool isWalkedOver(const Program& p, Place place) {
  Place up = p.parent(place);
  if (p.node(up).kind == Kind::Member && p.node(place).role == Role::Receiver && p.nameOf(up) != "copy") place = p.parent(up), up = p.parent(place);
  return p.node(up).kind == Kind::Loop && p.node(place).role != Role::Body && p.node(place).role != Role::Condition;
}

bool changesState(const Program& p, const Use& use) {
  if (use.access == Access::Write || use.access == Access::Update) return true;
  if (use.access != Access::Call || use.throughPointer || !(variableTraits(p, use.variable) & (kCollection | kKeyedCollection))) return false;
  CollectionAct act = actAt(p, use.place);
  return act == CollectionAct::Add || act == CollectionAct::Remove || act == CollectionAct::Change;
}

bool isEndHook(const Guarantees& g, std::string_view name) { return std::find(g.endHooks.begin(), g.endHooks.end(), name) != g.endHooks.end(); }

bool isMadeOnce(const Entity& e) {
  if (e.creation.time == CreationTime::Elsewhere) return false;
  return !e.harmless || (e.type != kNone && (e.kind == EntityKind::Singleton || e.kind == EntityKind::SharedInstance));
}

bool threadsExist(const Subject& s, const Entity& e) {
  if (!s.program.guarantees(e.place.file).sharedMemoryThreads.holds) return false;
  return e.slot == kNone || (!(s.program.variables[e.slot].modifiers & kThreadLocal) && !(variableTraits(s.program, e.slot) & kPerThread));
}

std::vector<FunctionIndex> accessPointFunctions(const Entity& e) {
  std::vector<FunctionIndex> out;
  for (const AccessPoint& accessPoint : e.accessPoints)
    if (accessPoint.function != kNone) out.push_back(accessPoint.function);
  if (e.creation.in != kNone) out.push_back(e.creation.in);
  return out;
}

bool namesNumber(std::string_view type) {
  static constexpr std::string_view kNumbers[] = {"bool", "boolean", "byte", "char", "character", "decimal", "double", "float", "int", "integer", "long", "nsinteger", "nsuinteger", "number", "rune", "sbyte", "short", "size_t", "uint", "ulong", "unsigned", "ushort"};
  std::string name = lowerCase(lastPart(type));
  name.resize(std::min(name.find_first_of("0123456789 "), name.size()));
  return std::find(std::begin(kNumbers), std::end(kNumbers), name) != std::end(kNumbers);
}

bool isPlainValue(const Program& p, VariableIndex v) {
  const TypeUse& type = p.use(p.variables[v].type);
  if (type.decl == kNone && !type.has(kPointer | kArray) && type.argumentCount == 0 && namesNumber(p.text(type.name))) return true;
  FileIndex home = p.variables[v].declarations.front().file;
  uint32_t traits = p.traits(home, p.variables[v].type);
  if (traits & kTextType) return true;
  Place value = initialiserOf(p, v);
  return type.decl == kNone && type.name == 0 && value.known() && p.node(value).kind == Kind::Literal && !p.node(value).is(Kind::Literal, LiteralForm::Null);
}

bool isArithmetic(const Program& p, VariableIndex v) {
  const TypeUse& use = p.use(p.variables[v].type);
  if (use.decl != kNone || use.has(kPointer | kReference | kArray)) return false;
  uint32_t traits = p.traits(p.variables[v].declarations.front().file, p.variables[v].type);
  static constexpr std::string_view kTexts[] = {"string", "String", "str", "std::string", "NSString", "object", "Object"};
  if (std::find(std::begin(kTexts), std::end(kTexts), p.text(use.name)) != std::end(kTexts)) return false;
  return (traits & (kAtomicType | kCollection | kKeyedCollection | kTextType | kPointerLike)) == 0;
}

namespace {

// Does production code make more than one object of the class? One of a subclass is one of its class as well.
bool hasManyObjects(const Subject& s, TypeIndex type) {
  const Program& p = s.program;
  size_t made = 0;
  return p.anyDerived(type, [&](TypeIndex at) {
    for (uint32_t c : p.creationsOfType[at]) {
      const Creation& creation = p.creations[c];
      made += !creation.asBase && !creation.delegated && !s.inTests(creation.place);
    }
    return made > 1;
  });
}

// Does a call of the method on the object change the field: by itself, or by what it calls of the class and its bases?
bool leadsToChange(const Program& p, FunctionIndex method, const std::set<FunctionIndex>& changing, int depth) {
  if (method == kNone || depth > 3) return false;
  return changing.contains(method) || std::any_of(p.callsInFunction[method].begin(), p.callsInFunction[method].end(), [&](uint32_t c) {
           FunctionIndex callee = p.calls[c].callee;
           TypeIndex owner = p.functions[callee].owner, own = p.functions[method].owner;
           return owner != kNone && own != kNone && (p.derivesFrom(own, owner) || p.derivesFrom(owner, own)) && leadsToChange(p, callee, changing, depth + 1);
         });
}

// free_list = entry->next; what it refers to is one of a chain of such objects.
bool beginsChain(const Program& p, const Entity& e) {
  if (e.slot == kNone || e.type == kNone) return false;
  return std::any_of(p.usesOfVariable[e.slot].begin(), p.usesOfVariable[e.slot].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    NodeId value = use.access == Access::Write && !use.inMember && !use.throughPointer ? p.assignedAt(use.place) : kNoNode;
    if (value == kNoNode || p.file(use.place)[value].kind != Kind::Member) return false;
    Symbol next = p.symbolAt({use.place.file, value});
    return next.is(Symbol::Sort::Variable) && p.variables[next.index()].storage == Storage::Field && p.variables[next.index()].owner != kNone && p.types[p.variables[next.index()].owner].name == p.types[e.type].name;
  });
}

}  // namespace

bool oneOfMany(const Subject& s, const Entity& e) { return e.kind != EntityKind::Singleton && e.type != kNone && (beginsChain(s.program, e) || hasManyObjects(s, e.type)); }

namespace {

// object.field: the object, as far as it has a name.
Symbol objectOf(const Program& p, const Use& use) {
  const LoweredFile& file = p.file(use.place);
  NodeId receiver = file[use.place.node].kind == Kind::Member ? file.child(use.place.node, Role::Receiver) : kNoNode;
  return receiver == kNoNode ? Symbol{} : p.symbolAt({use.place.file, receiver});
}

// options.name, where options is a parameter of that very class?
bool isOfParameter(const Program& p, const Use& use, TypeIndex owner) {
  Symbol object = objectOf(p, use);
  if (!object.is(Symbol::Sort::Variable)) return false;
  const Variable& variable = p.variables[object.index()];
  return variable.storage == Storage::Parameter && p.use(variable.type).decl == owner;
}

}  // namespace

bool isOfMany(const Subject& s, const Entity& e, VariableIndex field) {
  const Program& p = s.program;
  const Variable& variable = p.variables[field];
  if (variable.storage != Storage::Field) return false;
  if (oneOfMany(s, e)) return true;
  if (e.type == kNone || variable.owner == kNone || variable.owner == e.type) return false;
  if (!hasManyObjects(s, variable.owner)) return false;
  // What is handed in somewhere as one of that base may be another.
  if (std::any_of(p.usesOfVariable[field].begin(), p.usesOfVariable[field].end(), [&](uint32_t u) { return isOfParameter(p, p.uses[u], variable.owner); })) return true;
  std::set<FunctionIndex> changing;
  for (uint32_t u : p.usesOfVariable[field])
    if (changesState(p, p.uses[u]) && !isConstruction(p, p.uses[u])) changing.insert(p.uses[u].in);
  // Changed from outside, by its name: whose it is, is not known.
  if (changing.contains(kNone)) return false;
  for (FunctionIndex f : changing)
    if (TypeIndex owner = p.functions[f].owner; owner == kNone || !p.derivesFrom(e.type, owner)) return false;
  auto changes = [&](FunctionIndex method) { return leadsToChange(p, method, changing, 0); };
  if (std::any_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) { return changes(c.method); })) return false;
  // By what its own class does with itself.
  const auto& methods = p.types[e.type].methods;
  return std::none_of(methods.begin(), methods.end(), [&](FunctionIndex m) { return p.functions[m].form == FunctionForm::Function && changes(m); });
}

bool isCalled(const Subject& s, FunctionIndex f) {
  return f == kNone || std::any_of(s.program.callsOfFunction[f].begin(), s.program.callsOfFunction[f].end(), [&](uint32_t c) { return !s.inTests(s.program.calls[c].place); });
}

bool onlyTestsCall(const Subject& s, FunctionIndex f) {
  return f != kNone && !s.program.callsOfFunction[f].empty() && !isCalled(s, f);
}

bool staysInside(const Program& p, FunctionIndex f) {
  const Function& fn = p.functions[f];
  if (!(fn.modifiers & kPrivate) || p.callsOfFunction[f].empty()) return false;
  return std::all_of(p.callsOfFunction[f].begin(), p.callsOfFunction[f].end(), [&](uint32_t c) { return p.calls[c].in != kNone && p.functions[p.calls[c].in].owner == fn.owner; });
}

bool namesInside(const Program& p, Place root, VariableIndex v) {
  return anyNode(p.file(root), root.node, [&](NodeId n) { return p.links[root.file].symbol[n] == Symbol(Symbol::Sort::Variable, v); });
}

bool standsFor(const Program& p, Place place, VariableIndex v) {
  return place.node != kNoNode && p.symbolAt({place.file, bareExpression(p.file(place), place.node)}) == Symbol(Symbol::Sort::Variable, v);
}

bool branchAsksFor(const Program& p, Place place, VariableIndex v) {
  Place branch = p.around(place, Kind::If);
  NodeId condition = branch.node == kNoNode ? kNoNode : p.file(branch).child(branch.node, Role::Condition);
  return condition != kNoNode && namesInside(p, {branch.file, condition}, v);
}

Place initialiserOf(const Program& p, VariableIndex v) {
  Place home = p.variables[v].definition;
  NodeId value = home.known() ? p.file(home).child(home.node, Role::Initialiser) : kNoNode;
  return value == kNoNode ? Place{} : Place{home.file, value};
}

bool keepsWeakly(const Program& p, VariableIndex collection) {
  const TypeUse& use = p.use(p.variables[collection].type);
  auto weak = [&](const TypeUse& one) { return p.text(one.name).find("Weak") != std::string_view::npos || p.text(one.name).find("weak") != std::string_view::npos; };
  if (weak(use)) return true;
  for (uint32_t a = 0; a < use.argumentCount; ++a)
    if (weak(p.use(p.argument(use, a)))) return true;
  // [NSHashTable weakObjectsHashTable], new MapMaker().weakKeys().makeMap()
  auto isMadeWeak = [&](Place made) {
    return anyNode(p.file(made), made.node, [&](NodeId n) {
      if ((p.file(made)[n].kind == Kind::Name || p.file(made)[n].kind == Kind::Member) && lowerCase(lastPart(p.file(made).name(n))) == "weak") return true;
      NodeId callee = p.file(made)[n].kind == Kind::Call ? p.file(made).child(n, Role::Callee) : kNoNode;
      return callee != kNoNode && lowerCase(lastPart(p.file(made).name(callee))).starts_with("weak");
    });
  };
  if (Place first = initialiserOf(p, collection); first.known() && isMadeWeak(p.parent(first))) return true;
  return std::any_of(p.usesOfVariable[collection].begin(), p.usesOfVariable[collection].end(), [&](uint32_t u) {
    NodeId made = p.uses[u].access == Access::Write ? p.assignedAt(p.uses[u].place) : kNoNode;
    return made != kNoNode && isMadeWeak(p.parent({p.uses[u].place.file, made}));
  });
}

const Creation* creationAt(const Program& p, Place place) {
  const Creation* out = nullptr;
  auto key = [](Place at) { return std::make_pair(at.file, at.node); };
  auto at = std::lower_bound(p.creations.begin(), p.creations.end(), place, [&](const Creation& creation, Place wanted) { return key(creation.place) < key(wanted); });
  for (; at != p.creations.end() && at->place == place; ++at)
    if (!out || at->constructor != kNone) out = &*at;
  return out;
}

VariableIndex parameterGiven(const Program& p, Place call, NodeId argument) {
  Symbol symbol = p.symbolAt(call);
  const Creation* creation = creationAt(p, call);
  FunctionIndex callee = creation && creation->constructor != kNone ? creation->constructor : symbol.is(Symbol::Sort::Function) ? symbol.index() : kNone;
  if (callee == kNone) return kNone;
  std::vector<NodeId> arguments = argumentsOf(p.file(call), call.node);
  size_t position = static_cast<size_t>(std::find(arguments.begin(), arguments.end(), argument) - arguments.begin());
  const std::vector<VariableIndex>& parameters = p.functions[callee].parameters;
  return position < parameters.size() ? parameters[position] : kNone;
}

bool putsItself(const Program& p, const Use& use) {
  NodeId value = use.access == Access::Write && !use.inMember ? p.assignedAt(use.place) : kNoNode;
  return value != kNoNode && p.file(use.place)[bareExpression(p.file(use.place), value)].kind == Kind::This;
}

bool isCalledByLibrary(const Program& p, FunctionIndex f) {
  return f != kNone && (p.functions[f].modifiers & kOverride) && p.functions[f].owner != kNone && p.types[p.functions[f].owner].hasUnknownBase && p.callsOfFunction[f].empty();
}

// one := &Roster{}; one.rows = …: nobody shares it yet.
bool isConstruction(const Program& p, const Use& use) {
  if (isConstruction(p, use.in)) return true;
  Symbol object = objectOf(p, use);
  if (!object.is(Symbol::Sort::Variable) || p.variables[object.index()].storage != Storage::Local || p.variables[object.index()].function != use.in) return false;
  Place made = initialiserOf(p, object.index());
  if (!made.known()) return false;
  made.node = bareExpression(p.file(made), made.node);
  if (p.node(made).kind == Kind::Create) return true;
  return p.node(made).kind == Kind::Call && p.symbolAt({made.file, p.file(made).child(made.node, Role::Callee)}).is(Symbol::Sort::Type);
}

namespace {

// made = new Desk(); made.open(): is it called on what a statement before it in the same block makes, and nobody has that yet? A slot
// that others look into holds it back only as long as the lock is held.
bool isCalledOnFresh(const Program& p, Place call) {
  const LoweredFile& file = p.file(call);
  NodeId callee = file.child(call.node, Role::Callee), receiver = callee == kNoNode ? kNoNode : file.child(callee, Role::Receiver);
  Symbol object = receiver == kNoNode ? Symbol{} : p.symbolAt({call.file, bareExpression(file, receiver)});
  if (!object.is(Symbol::Sort::Variable)) return false;
  const Variable& variable = p.variables[object.index()];
  if (variable.storage != Storage::Local && p.around(call, Kind::Guard).node == kNoNode) return false;
  NodeId statement = call.node;
  while (file.parents[statement] != kNoNode && file[file.parents[statement]].kind != Kind::Block) statement = file.parents[statement];
  if (file.parents[statement] == kNoNode) return false;
  for (NodeId before : children(file, file.parents[statement])) {
    if (before == statement) break;
    bool makes = anyNode(file, before, [&](NodeId n) {
      NodeId value = file[n].kind == Kind::Assign ? file.child(n, Role::Value) : file[n].kind == Kind::Variable ? file.child(n, Role::Initialiser) : kNoNode;
      if (value == kNoNode || file[bareExpression(file, value)].kind != Kind::Create) return false;
      NodeId target = file[n].kind == Kind::Assign ? file.child(n, Role::Target) : n;
      return target != kNoNode && p.symbolAt({call.file, bareExpression(file, target)}) == object;
    });
    if (makes) return true;
  }
  return false;
}

}  // namespace

bool isConstruction(const Program& p, FunctionIndex f, int depth) {
  if (f == kNone) return true;  // while its file or class is loaded
  const Function& fn = p.functions[f];
  std::span<const std::string_view> hooks = fn.definition.known() ? p.guarantees(fn.definition.file).beginHooks : std::span<const std::string_view>{};
  if (std::find(hooks.begin(), hooks.end(), p.text(fn.name)) != hooks.end()) return true;
  if (fn.form == FunctionForm::Constructor || fn.form == FunctionForm::Destructor || fn.form == FunctionForm::Initialiser || fn.form == FunctionForm::Factory) return true;
  // A helper that only constructors call, or who has just made the object.
  if (depth > 3 || fn.owner == kNone || fn.isStaticMember() || (fn.modifiers & kOverride) || std::all_of(p.callsOfFunction[f].begin(), p.callsOfFunction[f].end(), [&](uint32_t c) { return p.inTests(p.calls[c].place); })) return false;
  return std::all_of(p.callsOfFunction[f].begin(), p.callsOfFunction[f].end(), [&](uint32_t c) {
    const CallSite& call = p.calls[c];
    if (p.inTests(call.place)) return true;
    if (call.in == kNone) return false;
    TypeIndex caller = p.functions[call.in].owner;
    return isCalledOnFresh(p, call.place) || (caller != kNone && (caller == fn.owner || p.derivesFrom(caller, fn.owner)) && isConstruction(p, call.in, depth + 1));
  });
}

// Is what was caught handed to what is called there?
bool tellsError(const Program& p, Place handler, NodeId call) {
  const LoweredFile& file = p.file(handler);
  for (NodeId argument : argumentsOf(file, call)) {
    auto isCaught = [&](NodeId n) {
      Symbol symbol = p.links[handler.file].symbol[n];
      Place definition = symbol.is(Symbol::Sort::Variable) ? p.variables[symbol.index()].definition : Place{};
      return definition.known() && definition.file == handler.file && p.isInside(definition, handler.node);
    };
    if (isCaught(argument) || anyNode(file, argument, isCaught)) return true;
  }
  return false;
}

}  // namespace elmcart

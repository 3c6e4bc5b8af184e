// Who uses which variable, how, and the indices over all that was found in bodies.
#include <algorithm>
#include <functional>

#include "base/parallel.h"
#include "program/linker.h"

namespace elmcart {
namespace {

// A variable of one of the language's own number types: shifting it reads no stream (ISO C++ [basic.fundamental]).
bool isInteger(const Program& p, Place operand) {
  Symbol symbol = p.symbolAt(operand);
  if (!symbol.is(Symbol::Sort::Variable)) return false;
  const TypeUse& use = p.use(p.variables[symbol.index()].type);
  std::string_view name = p.text(use.name);
  constexpr std::string_view kEnds[] = {"int", "long", "short", "char", "unsigned", "signed", "_t"};
  return use.decl == kNone && !use.has(kPointer) && std::any_of(std::begin(kEnds), std::end(kEnds), [&](std::string_view end) { return name.ends_with(end); });
}


// Members of atomics that leave the value as it is, in any of the languages.
bool readsAtomic(std::string_view name) {
  constexpr std::string_view kReads[] = {"load", "get", "Load", "intValue", "longValue", "doubleValue", "floatValue", "sum", "getPlain", "getAcquire", "getOpaque"};
  return std::find(std::begin(kReads), std::end(kReads), name) != std::end(kReads);
}

// A member `up` of what is named at `at` is called.
void classifyCallOn(const Program& p, Use& use, Place at, NodeId up, bool pointer) {
  const LoweredFile& file = p.file(at);
  Symbol symbol = p.symbolAt({at.file, up});
  uint32_t traits = p.traits(at.file, p.typeAt(at));
  constexpr uint32_t kTold = kAtomicType | kLockType | kConditionType | kCollection | kTextType;
  if (symbol.is(Symbol::Sort::Function) && !(traits & kTold)) {
    (pointer ? use.throughPointer : use.inMember) = true;
    use.access = p.functions[symbol.index()].modifiers & kConst ? Access::Read : Access::Call;
    return;
  }
  std::string_view name = file.name(up);
  if (traits & kAtomicType) {
    use.access = readsAtomic(name) ? Access::Read : name == "store" || name == "set" || name == "lazySet" || name == "Store" ? Access::Write : Access::Update;
    return;
  }
  if (traits & (kLockType | kConditionType)) {
    use.access = Access::Read;
    return;
  }
  if ((traits & kPointerLike) && !file[up].has(kArrow)) {
    use.access = name == "reset" || name == "swap" || name == "emplace" || name == "release" ? Access::Write : Access::Read;
    return;
  }
  if ((traits & kTextType) && !(traits & kCollection) && p.language(at.file).dotted) {  // a text is a value: its members make others
    use.access = Access::Read;
    use.inMember = true;
    return;
  }
  CollectionAct act = p.guarantees(at.file).collectionAct(name);
  use.access = act == CollectionAct::Read ? Access::Read : act == CollectionAct::None ? Access::Call : Access::Write;
  // counter.Reset(): of a library's object behind a pointer nothing tells that it is a collection.
  const TypeUse& type = p.use(p.variables[use.variable].type);
  bool behind = pointer && !(traits & kCollection) && type.name != 0 && type.has(kPointer) && (type.modifiers & kManaged) != kManaged && file[at.node].kind != Kind::Index;
  if (behind) use.access = Access::Call, use.throughPointer = true;
  else use.inMember = true;
}

// Does the function take what is given at that position so that it may change it? Of an array only its address is handed on.
bool mayChangeGiven(const Program& p, FunctionIndex function, size_t position, VariableIndex given) {
  const Function& fn = p.functions[function];
  if (position >= fn.parameters.size()) return false;
  const TypeUse& parameter = p.use(p.variables[fn.parameters[position]].type);
  bool array = p.use(p.variables[given].type).has(kArray) && parameter.has(kPointer) && (parameter.modifiers & kManaged) != kManaged;
  return (parameter.has(kReference) || array) && !parameter.has(kPointeeConst);
}

// It is an argument of the call or creation `up`.
void classifyArgument(const Program& p, Use& use, Place at, NodeId up) {
  const LoweredFile& file = p.file(at);
  Symbol symbol = p.symbolAt({at.file, up});
  size_t position = 0, count = 0;
  for (NodeId c : children(file, up)) {
    if (c == at.node) position = count;
    count += file[c].role == Role::Argument;
  }
  // By a constructor, which may keep it.
  if (symbol.is(Symbol::Sort::Type) && p.use(p.variables[use.variable].type).has(kArray)) {
    auto takes = [&](FunctionIndex m) { return p.functions[m].form == FunctionForm::Constructor && p.functions[m].parameters.size() >= count && mayChangeGiven(p, m, position, use.variable); };
    const auto& methods = p.types[symbol.index()].methods;
    if (std::any_of(methods.begin(), methods.end(), takes)) use.access = Access::Bind;
    return;
  }
  if (!symbol.is(Symbol::Sort::Function)) {
    NodeId callee = file.child(up, Role::Callee);
    uint32_t traits = callee == kNoNode ? 0 : p.guarantees(at.file).callTraits(file.name(callee));
    bool changes = (traits & kChangesGiven) || ((traits & kChangesFirst) && file.child(up, Role::Argument) == at.node);
    if (!changes || (p.variables[use.variable].modifiers & kConst)) return;
    use.access = Access::Write;
    use.inMember = true;
    return;
  }
  if (mayChangeGiven(p, symbol.index(), position, use.variable)) use.access = Access::Bind;
}

// How the value named at `place` is touched, read off the nodes around it.
void classify(const Program& p, Use& use) {
  Place at = use.place;
  const LoweredFile& file = p.file(at);
  TypeUseId type = p.variables[use.variable].type;
  bool pointer = p.use(type).has(kPointer) || (p.traits(at.file, type) & (kOwningPointer | kPointerLike)) != 0;
  for (int i = 0; i < 200; ++i) {
    NodeId up = file.parents[at.node];
    if (up == kNoNode) return;
    const Node& parent = file[up];
    Role role = file[at.node].role;
    switch (parent.kind) {
      case Kind::Assign:
        if (role == Role::Target) use.access = parent.detail == static_cast<uint8_t>(AssignForm::Compound) ? Access::Update : Access::Write;
        else if (use.access != Access::Bind) use.access = Access::Read;
        return;
      case Kind::Update: use.access = Access::Update; return;
      // a, b.c = b.c, a
      case Kind::Collection: {
        while (file[up].role != Role::Target && file[file.parents[up]].kind == Kind::Collection) up = file.parents[up];
        if (file[up].role == Role::Target && file[file.parents[up]].kind == Kind::Assign) use.access = Access::Write;
        return;
      }
      case Kind::Member: {
        if (role != Role::Receiver) return;
        NodeId call = file.parents[up];
        bool called = call != kNoNode && file[call].kind == Kind::Call && file[up].role == Role::Callee;
        if (called) return classifyCallOn(p, use, at, up, pointer);
        if (p.use(p.typeAt(at)).has(kPointer) || parent.has(kArrow)) use.throughPointer = true;
        else use.inMember = true;
        break;
      }
      case Kind::Index:
        if (role != Role::Receiver) return;
        use.inMember = true;
        break;
      case Kind::Dereference: use.throughPointer = true; break;
      case Kind::AddressOf: use.access = Access::Bind; return;
      case Kind::Call: case Kind::Create: case Kind::FieldInit: {
        if (role == Role::Callee) {
          // A function that is kept there is read and run; an object with a call operator may change.
          use.access = p.use(p.typeAt(at)).decl == kNone ? Access::Read : Access::Call;
          return;
        }
        classifyArgument(p, use, at, up);
        return;
      }
      case Kind::Variable: {
        NodeId written = file.child(up, Role::Type);
        if (written != kNoNode && file[written].has(kReference) && !file[written].has(kPointeeConst)) use.access = Access::Bind;
        return;
      }
      case Kind::Capture: use.access = parent.has(kReference) ? Access::Bind : Access::Read; return;
      case Kind::Conditional: case Kind::Cast:
        if (role == Role::Condition) return;
        break;
      case Kind::Other:
        // stream << value, value << more: the first operand of a shift is called on. What follows `>>` is
        // written to, where a stream does that and the value may change.
        if (file.name(parent) == "<<" || file.name(parent) == ">>") {
          if (parent.firstChild == at.node) use.access = Access::Call;
          else if ((p.guarantees(at.file).callTraits(file.name(parent)) & kChangesGiven) && !(p.variables[use.variable].modifiers & kConst) && !isInteger(p, {at.file, parent.firstChild})) use.access = Access::Write;
        }
        return;
      default: return;
    }
    at.node = up;
  }
}

}  // namespace

// Where fields are made by assigning to them, an assignment through an object
// never touches the class-level field of that name.
bool Linker::makesField(FileIndex f, NodeId n, VariableIndex v) const {
  const Language& language = p_.language(f);
  if (!language.infersTypes || language.bareMembers || p_.variables[v].storage != Storage::StaticField || p_.files[f][n].kind != Kind::Member) return false;
  TypeIndex owner = p_.variables[v].owner;
  if (owner != kNone && p_.types[owner].form == TypeForm::Object) return false;  // it is the one object itself
  NodeId receiver = p_.files[f].child(n, Role::Receiver);
  return receiver != kNoNode && !p_.links[f].symbol[receiver].is(Symbol::Sort::Type);
}

// Does `n` stand on the left in an initialiser of its own variable, as in `a = exports.a = value`?
bool Linker::isPartOfItsDefinition(FileIndex f, NodeId n, VariableIndex v) const {
  const LoweredFile& file = p_.files[f];
  NodeId up = file.parents[n];
  if (file[up].kind != Kind::Assign) return false;
  while (file[up].kind == Kind::Assign) up = file.parents[up];
  return file[up].kind == Kind::Variable && p_.links[f].symbol[up] == Symbol(Symbol::Sort::Variable, v);
}

// Every node of a file that resolved to a variable, in order.
std::vector<Use> Linker::usesIn(FileIndex f, std::vector<VariableIndex>& setOnObjects) const {
  std::vector<Use> out;
  const LoweredFile& file = p_.files[f];
  for (NodeId n = 1; n < file.nodes.size(); ++n) {
    Kind kind = file[n].kind;
    if (kind != Kind::Name && kind != Kind::Member && kind != Kind::FieldInit && kind != Kind::Capture) continue;
    Symbol symbol = p_.links[f].symbol[n];
    if (!symbol.is(Symbol::Sort::Variable)) continue;
    Use use;
    use.variable = symbol.index();
    use.place = {f, n};
    if (kind == Kind::FieldInit) use.access = Access::Write;
    else classify(p_, use);
    bool sets = use.access == Access::Write && !use.inMember && !use.throughPointer;
    if (sets && isPartOfItsDefinition(f, n, use.variable)) continue;
    if (sets && makesField(f, n, use.variable)) {
      setOnObjects.push_back(use.variable);
      continue;
    }
    for (NodeId up = file.parents[n]; up != kNoNode; up = file.parents[up]) {
      Symbol around = p_.links[f].symbol[up];
      if (file[up].kind == Kind::Function && around.is(Symbol::Sort::Function)) {
        use.in = around.index();
        break;
      }
      if (file[up].kind == Kind::Variable && around.is(Symbol::Sort::Variable) && use.inInitialiserOf == kNone &&
          p_.variables[around.index()].storage != Storage::Local)
        use.inInitialiserOf = around.index();
    }
    if (use.in != kNone && use.inInitialiserOf != kNone && p_.variables[use.inInitialiserOf].storage != Storage::FunctionStatic) use.inInitialiserOf = kNone;
    out.push_back(use);
  }
  return out;
}

void Linker::index() {
  std::vector<std::vector<Use>> usesByFile(p_.files.size());
  std::vector<std::vector<VariableIndex>> setOnObjects(p_.files.size());
  p_.forEachFile(jobs_, [&](FileIndex f) { usesByFile[f] = usesIn(f, setOnObjects[f]); });
  for (const std::vector<VariableIndex>& variables : setOnObjects)
    for (VariableIndex v : variables) p_.variables[v].setOnObjects = true;
  std::vector<size_t> first = {0};  // by file
  for (const std::vector<Use>& uses : usesByFile) first.push_back(first.back() + uses.size());
  p_.uses.resize(first.back());
  p_.forEachFile(jobs_, [&](FileIndex f) {
    std::copy(usesByFile[f].begin(), usesByFile[f].end(), p_.uses.begin() + static_cast<std::ptrdiff_t>(first[f]));
    usesByFile[f] = {};
  });
  // Each list and its indices are the work of one thread.
  auto sortByPlace = [](auto& list) {
    std::stable_sort(list.begin(), list.end(), [](const auto& a, const auto& b) { return std::make_pair(a.place.file, a.place.node) < std::make_pair(b.place.file, b.place.node); });
  };
  size_t functions = p_.functions.size();
  const std::function<void()> work[] = {
      [&] { p_.usesOfVariable.fill(p_.variables.size(), p_.uses, [](const Use& u) { return u.variable; }); },
      [&] { p_.usesInFunction.fill(functions, p_.uses, [](const Use& u) { return u.in; }); },
      [&] {
        sortByPlace(p_.calls);
        p_.callsOfFunction.fill(functions, p_.calls, [](const CallSite& c) { return c.callee; });
        p_.callsInFunction.fill(functions, p_.calls, [](const CallSite& c) { return c.in; });
      },
      [&] {
        sortByPlace(p_.foreignCalls);
        p_.foreignCallsInFunction.fill(functions, p_.foreignCalls, [](const ForeignCall& c) { return c.in; });
      },
      [&] {
        sortByPlace(p_.creations);
        p_.creationsOfType.fill(p_.types.size(), p_.creations, [](const Creation& c) { return c.type; });
        p_.creationsInFunction.fill(functions, p_.creations, [](const Creation& c) { return c.in; });
      },
  };
  forEachLargestFirst({p_.uses.size(), p_.uses.size(), 2 * p_.calls.size(), p_.foreignCalls.size(), p_.creations.size()}, jobs_, [&](size_t i) { work[i](); });
}

}  // namespace elmcart

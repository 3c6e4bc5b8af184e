// Facts about functions and classes that recognisers and checks share.
#include <algorithm>
#include <set>

#include "base/text.h"
#include "survey/survey.h"

namespace elmcart {
namespace {

constexpr int kWeightDepth = 4;

std::string weightText(uint32_t traits, std::string_view name) {
  std::string by = " (" + std::string(name) + ")";
  if (traits & kNetwork) return "uses the network" + by;
  if (traits & kStartsProcess) return "starts a process" + by;
  if (traits & kStartsThread) return "starts a thread" + by;
  if (traits & kReadsFile) return "opens a file" + by;
  if (traits & kSleeps) return "sleeps" + by;
  return "allocates a large buffer" + by;
}

class Weigher {
 public:
  explicit Weigher(const Program& program) : p_(program) {}

  void function(FunctionIndex index, int depth) {
    if (depth > kWeightDepth || !visited_.insert(index).second) return;
    const Function& fn = p_.functions[index];
    if (fn.form == FunctionForm::Constructor && fn.owner != kNone)  // what stands in the class runs before its body
      for (FunctionIndex m : p_.types[fn.owner].methods)
        if (p_.functions[m].form == FunctionForm::Initialiser && !(p_.functions[m].modifiers & kStatic)) function(m, depth + 1);
    for (uint32_t i : p_.foreignCallsInFunction[index])
      if (!p_.inOtherBranch(p_.foreignCalls[i].place)) foreign(p_.foreignCalls[i]);
    for (uint32_t i : p_.callsInFunction[index])
      if (!p_.inOtherBranch(p_.calls[i].place)) function(p_.calls[i].callee, depth + 1);
    for (uint32_t i : p_.creationsInFunction[index]) {
      const Creation& creation = p_.creations[i];
      if (creation.constructor == kNone) fields(creation.type, depth + 1);
    }
  }

  void fields(TypeIndex type, int depth) {
    if (depth > kWeightDepth || !laidOut_.insert(type).second) return;
    for (VariableIndex v : p_.types[type].fields) initialiser(v, depth);
    // What a language's object keeps is set when the object is made.
    if (p_.types[type].form == TypeForm::Object)
      for (VariableIndex v : p_.types[type].statics) initialiser(v, depth);
    for (FunctionIndex m : p_.types[type].methods)
      if (runsWhenMade(p_, type, m)) function(m, depth + 1);
    for (VariableIndex v : p_.types[type].fields) {
      const TypeUse& use = p_.use(p_.variables[v].type);
      if (use.decl == kNone || use.has(kPointer | kReference)) continue;
      FunctionIndex constructor = kNone;
      for (FunctionIndex m : p_.types[use.decl].methods)
        if (p_.functions[m].form == FunctionForm::Constructor && p_.functions[m].leastArguments == 0) constructor = m;
      if (constructor != kNone) function(constructor, depth + 1);
    }
  }

  // What stands in an expression outside of functions, or in a field's own initialiser.
  void expression(Place place, int depth) {
    forEachInside(p_, p_.foreignCalls, place, [&](const ForeignCall& call) {
      if (p_.around(call.place, Kind::Lambda).node == kNoNode) foreign(call);
    });
    forEachInside(p_, p_.calls, place, [&](const CallSite& call) {
      if (p_.around(call.place, Kind::Lambda).node == kNoNode) function(call.callee, depth + 1);
    });
  }
  void initialiser(VariableIndex v, int depth) {
    Place home = p_.variables[v].definition;
    NodeId value = home.known() ? p_.file(home).child(home.node, Role::Initialiser) : kNoNode;
    if (value != kNoNode && p_.file(home)[value].kind != Kind::Literal) expression({home.file, value}, depth);
  }

  std::vector<Weight> take() { return std::move(out_); }

 private:
  // File("tides").readLines(): an object of a library's class, made to be called once.
  bool isMadeThere(FileIndex f, NodeId receiver) const {
    const LoweredFile& file = p_.files[f];
    if (receiver == kNoNode || !p_.language(f).dotted) return false;
    if (file[receiver].kind == Kind::Create) return p_.use(p_.links[f].type[receiver]).decl == kNone;
    NodeId callee = file[receiver].kind == Kind::Call ? file.child(receiver, Role::Callee) : kNoNode;
    if (callee == kNoNode || p_.links[f].symbol[callee].known()) return false;
    std::string_view made = lastPart(file.name(callee));
    return !made.empty() && made[0] >= 'A' && made[0] <= 'Z';
  }

  void foreign(const ForeignCall& call) {
    std::string_view name = p_.text(call.name);
    const Node& node = p_.node(call.place);
    const LoweredFile& file = p_.file(call.place);
    const Guarantees& g = p_.guarantees(call.place.file);
    uint32_t calls = g.callTraits(name) & kHeavyCall;
    uint32_t types = g.typeTraits(name);
    bool arguments = false;
    for (NodeId c : children(file, call.place.node)) arguments |= file[c].role == Role::Argument;
    // A stream or thread object does something only when it is given something.
    // A pointer to one makes none.
    Symbol field = node.kind == Kind::FieldInit ? p_.symbolAt(call.place) : Symbol{};
    if (field.is(Symbol::Sort::Variable) && p_.use(p_.variables[field.index()].type).has(kPointer | kReference)) return;
    bool given = (node.kind == Kind::Create || node.kind == Kind::FieldInit || node.kind == Kind::Call) && arguments;
    if ((types & kFileResource) && given) calls |= kReadsFile;
    if ((types & kThreadType) && given) calls |= kStartsThread;
    if (node.kind == Kind::Call) {
      // stream.open(path)
      NodeId callee = file.child(call.place.node, Role::Callee);
      if (callee != kNoNode && file[callee].kind == Kind::Member) {
        NodeId receiver = file.child(callee, Role::Receiver);
        TypeUseId type = receiver == kNoNode ? 0 : p_.links[call.place.file].type[receiver];
        // Of a module or class that is not in the tree the name tells; of an object it does not.
        bool ofScope = p_.language(call.place.file).dotted && name.find("::") != std::string_view::npos;
        if (!ofScope && !isMadeThere(call.place.file, receiver)) calls = 0;
        if (name == "open" && type && (p_.traits(call.place.file, type) & kFileResource)) calls = kReadsFile;
      }
    }
    if (calls) out_.push_back({weightText(calls, inNotation(p_, call.place.file, name)), call.place});
  }

  const Program& p_;
  std::set<FunctionIndex> visited_;
  std::set<TypeIndex> laidOut_;
  std::vector<Weight> out_;
};

}  // namespace

std::vector<Weight> weightsOf(const Program& program, FunctionIndex function) {
  Weigher weigher(program);
  weigher.function(function, 0);
  return weigher.take();
}

std::vector<Weight> weightsOfCreation(const Program& program, TypeIndex type, FunctionIndex constructor, Place made) {
  Weigher weigher(program);
  if (made.known() && program.node(made).kind == Kind::Call) weigher.expression(made, 0);
  if (constructor != kNone) weigher.function(constructor, 0);
  if (type != kNone) weigher.fields(type, 0);
  return weigher.take();
}

NodeId bareExpression(const LoweredFile& file, NodeId expression) {
  while (file[expression].kind == Kind::AddressOf || file[expression].kind == Kind::Dereference || file[expression].kind == Kind::Cast) {
    NodeId inner = file.child(expression, Role::Operand);
    if (inner == kNoNode) break;
    expression = inner;
  }
  return expression;
}

uint32_t variableTraits(const Program& program, VariableIndex variable) {
  const Variable& v = program.variables[variable];
  Place place = v.home();
  uint32_t declared = program.traits(place.file, v.type);
  if (program.use(v.type).has(kArray) && !program.guarantees(place.file).freedByHand.holds) declared = kCollection;
  const LoweredFile& file = program.file(place);
  NodeId value = file.child(place.node, Role::Initialiser);
  if (value == kNoNode) return declared;
  const Guarantees& g = program.guarantees(place.file);
  uint32_t made = 0;
  if (file[value].kind == Kind::Create) {
    if (NodeId type = file.child(value, Role::Type); type != kNoNode) made = g.typeTraits(g.byLastPart ? lastPart(file.name(type)) : file.name(type));
  } else if (file[value].kind == Kind::Call) {
    if (NodeId callee = file.child(value, Role::Callee); callee != kNoNode) made = g.typeTraits(lastPart(file.name(callee)));
    // newSetFromMap(new ConcurrentHashMap<>()): a view of what guards itself.
    NodeId given = made == 0 ? file.child(value, Role::Argument) : kNoNode;
    NodeId type = given != kNoNode && file[given].kind == Kind::Create ? file.child(given, Role::Type) : kNoNode;
    if (type != kNoNode && (declared & kCollection)) made = g.typeTraits(g.byLastPart ? lastPart(file.name(type)) : file.name(type)) & (kSafeToShare | kSteadyWalk);
  }
  // A collection that cannot be changed, for good.
  if ((made & kTextType) && (v.modifiers & kConst)) return (declared & ~(kCollection | kKeyedCollection)) | kTextType;
  return declared | (made & (kSafeToShare | kAtomicType | kCollection | kKeyedCollection | kNotSafeToShare | kKeepsState | kSteadyWalk | kUnchanging));
}

TypeIndex objectTypeOf(const Program& program, const Entity& entity) {
  TypeIndex made = entity.creation.made;
  bool declaredByInterface = entity.type != kNone && program.types[entity.type].form == TypeForm::Interface;
  return declaredByInterface && made != kNone && program.types[made].definition.known() ? made : entity.type;
}

TypeIndex outermost(const Program& program, TypeIndex type) {
  for (int depth = 0; type != kNone && depth < 20; ++depth) {
    ScopeIndex around = program.types[type].parent;
    if (around == kNone || program.scopes[around].sort != Scope::Sort::Type) break;
    type = program.scopes[around].type;
  }
  return type;
}

bool isAbstract(const Program& program, TypeIndex type) {
  for (FunctionIndex m : program.types[type].methods)
    if (program.functions[m].modifiers & kAbstract) return true;
  return false;
}

bool hasOpenConstructor(const Program& program, TypeIndex type, Place* where) {
  const TypeDecl& decl = program.types[type];
  // The constants of an enum are all the objects there are.
  if (decl.form == TypeForm::Enum || decl.form == TypeForm::Object) return false;
  bool any = false;
  for (FunctionIndex m : decl.methods) {
    const Function& fn = program.functions[m];
    if (fn.form == FunctionForm::Function && (fn.modifiers & kAbstract)) {
      // Nobody makes an object of an abstract class.
      return false;
    }
  }
  for (FunctionIndex m : decl.methods) {
    const Function& fn = program.functions[m];
    if (fn.form != FunctionForm::Constructor) continue;
    bool copyOrMove = fn.parameters.size() == 1 && program.use(program.variables[fn.parameters[0]].type).decl == type;
    if (copyOrMove) continue;
    any = true;
    if (fn.modifiers & (kPrivate | kProtected | kDeleted)) continue;
    // Written in a part of the class only, without a word on who may call it.
    if (!(fn.modifiers & kPublic) && program.node(program.parent(fn.declarations.front())).has(kPart)) continue;
    if (where) *where = fn.declarations.front();
    return true;
  }
  if (any || !decl.definition.known()) return false;
  // A copy constructor that is declared keeps the implicit one away: C++ [class.default.ctor]/1.
  for (FunctionIndex m : decl.methods)
    if (program.functions[m].form == FunctionForm::Constructor) return false;
  if (where) *where = decl.definition;
  // Of a class that its package keeps to itself nobody outside makes one.
  return !isOfItsPackage(program, type) && program.guarantees(decl.definition.file).implicitConstructor.holds;
}

bool isOfItsPackage(const Program& program, TypeIndex type) {
  const TypeDecl& decl = program.types[type];
  return (decl.modifiers & kPrivate) && decl.definition.known() && program.guarantees(decl.definition.file).privateClasses.holds;
}

bool runsWhenMade(const Program& program, TypeIndex type, FunctionIndex member) {
  const Function& fn = program.functions[member];
  return fn.form == FunctionForm::Initialiser && (program.types[type].form == TypeForm::Object || !(fn.modifiers & kStatic));
}

namespace {

// Does a function return what is kept?
bool returnsKept(const Program& program, FunctionIndex m) {
  for (uint32_t u : program.usesInFunction[m]) {
    const Use& use = program.uses[u];
    if (program.variables[use.variable].lives() && program.node(program.parent(use.place)).kind == Kind::Return) return true;
  }
  return false;
}

// A factory that gives what an accessor of the class gives, or that never comes to an end.
bool givesKept(const Program& program, FunctionIndex m) {
  Place home = program.functions[m].definition;
  const LoweredFile& file = program.file(home);
  bool makes = false, throws = false, kept = false;
  for (NodeId n = home.node + 1; n < file.nodes.size() && program.isInside({home.file, n}, home.node); ++n) {
    makes |= file[n].kind == Kind::Create;
    throws |= file[n].kind == Kind::Throw;
    if (file[n].kind != Kind::Call) continue;
    NodeId callee = file.child(n, Role::Callee);
    throws |= callee != kNoNode && (program.guarantees(home.file).callTraits(file.name(callee)) & (kThrows | kAborts));
    Symbol called = program.symbolAt({home.file, n});
    if (!called.is(Symbol::Sort::Function) || called.index() == m || !program.functions[called.index()].definition.known()) continue;
    bool returned = file[n].role == Role::Value && file[file.parents[n]].kind == Kind::Return;
    for (NodeId up = file.parents[n]; !returned && up != kNoNode && file[up].kind == Kind::Call; up = file.parents[up]) returned = file[file.parents[up]].kind == Kind::Return;
    kept |= returned && returnsKept(program, called.index());
  }
  return !makes && (throws || kept);
}

// Does this constructor refuse to make a second object, or hand out the old one?
bool refuses(const Program& program, TypeIndex type, FunctionIndex m) {
  // It returns what is kept instead of a new object.
  for (uint32_t u : program.usesInFunction[m]) {
    const Use& use = program.uses[u];
    if (!program.variables[use.variable].lives() || program.classBehind(use.place.file, program.variables[use.variable].type) == kNone) continue;
    if (program.node(program.parent(use.place)).kind == Kind::Return) return true;
  }
  // A test of a class-level field followed by a throw or an abort.
  for (uint32_t u : program.usesInFunction[m]) {
    const Use& use = program.uses[u];
    const Variable& tested = program.variables[use.variable];
    bool ownField = tested.storage == Storage::StaticField && (tested.owner == type || tested.owner == program.functions[m].owner);
    bool ownFile = tested.storage == Storage::Global && program.classBehind(use.place.file, tested.type) == type;
    // What never changes cannot tell the second from the first.
    if ((!ownField && !ownFile) || (tested.modifiers & (kConst | kConstant))) continue;
    Place branch = program.around(use.place, Kind::If);
    if (branch.node == kNoNode) {
      // assert(!instance);
      Place call = program.around(use.place, Kind::Call);
      if (call.node == kNoNode) continue;
      NodeId callee = program.file(call).child(call.node, Role::Callee);
      if (callee != kNoNode && (program.guarantees(call.file).callTraits(program.file(call).name(callee)) & kAborts)) return true;
      std::string_view name = callee == kNoNode ? std::string_view{} : program.file(call).name(callee);
      if (lowerCase(name).find("assert") != std::string::npos) return true;
      continue;
    }
    const LoweredFile& file = program.file(branch);
    for (NodeId n = branch.node + 1; n < file.nodes.size() && file[n].span.begin < file[branch.node].span.end; ++n) {
      if (file[n].kind == Kind::Throw) return true;
      if (file[n].kind == Kind::Call) {
        NodeId callee = file.child(n, Role::Callee);
        if (callee != kNoNode && (program.guarantees(branch.file).callTraits(file.name(callee)) & kAborts)) return true;
      }
    }
  }
  return false;
}

}  // namespace

bool refusesSecond(const Program& program, TypeIndex type) {
  // One that makes another without a look is a way past the others.
  bool any = false, own = true;
  for (FunctionIndex m : program.types[type].methods) {
    const Function& fn = program.functions[m];
    if (fn.form == FunctionForm::Factory && fn.definition.known() && (refuses(program, type, m) || givesKept(program, m))) return true;
    bool copies = fn.parameters.size() == 1 && program.use(program.variables[fn.parameters[0]].type).decl == type;
    if (fn.form != FunctionForm::Constructor || !fn.definition.known() || copies || (fn.modifiers & kDeleted)) continue;
    if (!refuses(program, type, m)) {
      own = false;
      continue;
    }
    any = true;
  }
  // Or does one of a base, which runs first, or the factory that a base has for all?
  auto isFactory = [&](FunctionIndex m) { return program.functions[m].form == FunctionForm::Factory; };
  bool ownFactory = std::any_of(program.types[type].methods.begin(), program.types[type].methods.end(), isFactory);
  return (any && own) || program.anyBase(type, [&](TypeIndex base, const Base* through) {
    return through && std::any_of(program.types[base].methods.begin(), program.types[base].methods.end(), [&](FunctionIndex m) {
      const Function& fn = program.functions[m];
      if (!fn.definition.known()) return false;
      if (isFactory(m)) return !ownFactory && (refuses(program, base, m) || givesKept(program, m));
      return fn.form == FunctionForm::Constructor && !(fn.modifiers & kDeleted) && refuses(program, base, m);
    });
  });
}

std::string inNotation(const Program& program, FileIndex file, std::string_view qualified) {
  std::string out(qualified);
  std::string_view separator = program.language(file).separator;
  for (size_t found = out.find("::"); found != std::string::npos && separator != "::"; found = out.find("::", found)) out.replace(found, 2, separator);
  return out;
}

std::string functionText(const Program& program, FunctionIndex function) {
  return function == kNone ? "" : std::string(program.text(program.functions[function].qualified));
}

namespace {

std::string memberName(const Program& program, Place home, TypeIndex owner, NameId name) {
  std::string own(program.text(name));
  return owner == kNone || !program.types[owner].name ? own : std::string(program.text(program.types[owner].name)) + std::string(program.language(home.file).separator) + own;
}

}  // namespace

std::string functionName(const Program& program, FunctionIndex function) {
  if (function == kNone) return "";
  const Function& fn = program.functions[function];
  return fn.name ? memberName(program, fn.home(), fn.owner, fn.name) : functionText(program, function);
}

std::string variableName(const Program& program, VariableIndex variable) {
  const Variable& v = program.variables[variable];
  return v.name ? memberName(program, v.home(), v.owner, v.name) : std::string(program.text(v.qualified));
}

std::string whereText(const Program& program, const Consumer& consumer) {
  if (consumer.in != kNone) return functionName(program, consumer.in);
  if (consumer.inInitialiserOf != kNone) return "initialiser of " + variableName(program, consumer.inInitialiserOf);
  return "file level";
}

// A class of the tree that is a lock, or a condition that is waited for: by the name that the language's own library gives one, or by
// what it does.
bool isLockClass(const Program& p, TypeIndex type) {
  const TypeDecl& decl = p.types[type];
  if (!decl.definition.known()) return false;
  if (p.guarantees(decl.definition.file).typeTraits(p.text(decl.name)) & kLockType) return true;
  // One that keeps more than its own lock guards something itself.
  for (VariableIndex f : decl.fields)
    if (p.traits(decl.definition.file, p.variables[f].type) & (kCollection | kThreadType | kFileResource)) return false;
  size_t methods = 0, about = 0, waiting = 0;
  bool takes = false, gives = false, waits = false, wakes = false;
  for (FunctionIndex m : decl.methods) {
    if (p.functions[m].form != FunctionForm::Function) continue;
    std::string name = lowerCase(p.text(p.functions[m].name));
    ++methods;
    bool takesHere = name == "lock" || name == "acquire", givesHere = name == "unlock" || name == "release";
    about += takesHere || givesHere || name.find("lock") != std::string::npos || name.find("acquire") != std::string::npos || name.find("release") != std::string::npos || name.find("enter") != std::string::npos || name.find("exit") != std::string::npos || name.find("owned") != std::string::npos;
    takes |= takesHere;
    gives |= givesHere;
    bool wait = name.starts_with("wait"), wake = name.starts_with("signal") || name.starts_with("notify") || name.starts_with("broadcast");
    waiting += wait || wake;
    waits |= wait;
    wakes |= wake;
  }
  return (takes && gives && methods <= about + 2) || (waits && wakes && methods == waiting);
}

bool isTakenAsLock(const Program& p, VariableIndex v) {
  if (p.guarantees(p.variables[v].home().file).objectsAreLocks.holds) return false;
  bool taken = false;
  for (uint32_t u : p.usesOfVariable[v]) {
    const Use& use = p.uses[u];
    Place at = use.place;
    if (p.node(p.parent(at)).kind == Kind::AddressOf) at = p.parent(at);
    if (p.node(at).role == Role::Lock) taken = true;
    else if (use.access == Access::Update || use.inMember || (use.access == Access::Call && p.node(at).role != Role::Argument)) return false;
  }
  return taken;
}

}  // namespace elmcart

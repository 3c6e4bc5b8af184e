#include "survey/harmless.h"

#include <algorithm>

#include "base/text.h"
#include "program/arguments.h"
#include "survey/survey.h"

namespace elmcart {

bool Harmless::onlyReadAfterCreation(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read) continue;
    if (use.access == Access::Write && p_.node(use.place).kind == Kind::FieldInit) continue;
    // While its class or file is loaded.
    if (use.access != Access::Bind && setsAtStart(use)) continue;
    if (use.access == Access::Call && isReadOnlyCall(use)) continue;
    return false;
  }
  return true;
}

bool Harmless::isReadOnlyCall(const Use& use) const {
  // A call through a function pointer or callable that nobody replaces.
  return p_.node(p_.parent(use.place)).kind == Kind::Call && p_.node(use.place).role == Role::Callee;
}

bool Harmless::inInitialiser(const Use& use) const { return runsAtLoad(use.in, use.place, 0); }

bool Harmless::isLoadingCode(FunctionIndex in) const {
  return in != kNone && p_.functions[in].form == FunctionForm::Initialiser && (p_.functions[in].owner == kNone || (p_.functions[in].modifiers & kStatic));
}

// Code of another module that writes while it is loaded wires the two: that is no definition.
bool Harmless::setsAtStart(const Use& use) const {
  const Variable& variable = p_.variables[use.variable];
  bool own = use.place.file == variable.home().file || (use.in != kNone && variable.storage == Storage::Global && p_.functions[use.in].parent == variable.parent);
  if (own && inInitialiser(use)) return true;
  // Under a once flag a number or a text is set for good; an object may be changed or made again.
  const TypeUse& type = p_.use(variable.type);
  bool value = type.decl == kNone && !type.has(kPointer | kArray) && type.name && !(variable.modifiers & kPublic);
  return own && value && runsOnce(use.in, use.place);
}

bool Harmless::runsOnce(FunctionIndex in, Place place) const {
  if (p_.around(place, Kind::Once).node != kNoNode) return true;
  if (in == kNone || p_.callsOfFunction[in].empty()) return false;
  return std::all_of(p_.callsOfFunction[in].begin(), p_.callsOfFunction[in].end(), [&](uint32_t c) {
    Place at = p_.calls[c].place;
    return p_.node(at).kind == Kind::Once || p_.around(at, Kind::Once).node != kNoNode;
  });
}

bool Harmless::runsAtLoad(FunctionIndex in, Place place, int depth) const {
  if (in == kNone) return false;
  const Function& fn = p_.functions[in];
  if (fn.form == FunctionForm::Initialiser) {
    // That of an object runs whenever one is made.
    if (fn.owner != kNone && !(fn.modifiers & kStatic) && p_.types[fn.owner].form != TypeForm::Object) return false;
  } else {
    // A private helper that only such code of its own file calls.
    bool helper = depth <= 3 && fn.form == FunctionForm::Function && (fn.modifiers & kPrivate) && !(fn.modifiers & kVirtual) && !p_.callsOfFunction[in].empty();
    if (!helper || !std::all_of(p_.callsOfFunction[in].begin(), p_.callsOfFunction[in].end(), [&](uint32_t c) {
          return p_.calls[c].place.file == place.file && runsAtLoad(p_.calls[c].in, p_.calls[c].place, depth + 1);
        }))
      return false;
  }
  // What a file's own code hands to others as a function runs later, unless it is called there or by a walk.
  for (Place lambda = p_.around(place, Kind::Lambda); lambda.node != kNoNode; lambda = p_.around(lambda, Kind::Lambda)) {
    Place call = p_.parent(lambda);
    if (p_.node(call).kind != Kind::Call) return false;
    NodeId callee = p_.file(call).child(call.node, Role::Callee);
    bool walks = callee != kNoNode && p_.file(call)[callee].kind == Kind::Member && p_.guarantees(call.file).collectionAct(p_.file(call).name(callee)) != CollectionAct::None;
    if (callee != lambda.node && !walks) return false;
  }
  return true;
}

bool Harmless::setOnlyAtStart(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write && use.access != Access::Update) continue;
    if (use.throughPointer || use.inMember) continue;
    if (!setsAtStart(use)) return false;
  }
  return true;
}

bool Harmless::changedThrough(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    bool changing = use.access == Access::Write || use.access == Access::Update;
    if (changing && (use.throughPointer || use.inMember) && !setsAtStart(use)) return true;
  }
  return false;
}

// Is the object at the place told to take something in, or to give it away, by a name that collections have for that?
bool Harmless::isToldThere(Place object) const {
  Place member = p_.parent(object);
  if (p_.node(member).kind != Kind::Member || p_.node(object).role != Role::Receiver) return false;
  CollectionAct act = p_.guarantees(member.file).collectionAct(p_.nameOf(member));
  return act == CollectionAct::Add || act == CollectionAct::Remove || act == CollectionAct::Change;
}

// Is the object that it keeps changed by what else holds it, or by whoever it is handed out to?
bool Harmless::changedByOthers(VariableIndex v) const {
  auto adds = [&](Place object) { return isToldThere(object) && p_.node(p_.parent(p_.parent(object))).kind == Kind::Call; };
  // object.member = value
  auto setsMember = [&](Place object) {
    Place member = p_.parent(object), assign = p_.parent(member);
    bool written = p_.node(assign).kind == Kind::Update || (p_.node(assign).kind == Kind::Assign && p_.node(member).role == Role::Target);
    return written && p_.node(member).kind == Kind::Member && p_.node(object).role == Role::Receiver;
  };
  for (VariableIndex alias : o_.aliasesOf(v)) {
    if (p_.use(p_.variables[alias].type).has(kPointeeConst)) continue;
    for (uint32_t u : p_.usesOfVariable[alias]) {
      const Use& use = p_.uses[u];
      if ((use.access == Access::Write && use.inMember) || (use.access == Access::Call && adds(use.place)) || setsMember(use.place)) return true;
    }
  }
  for (FunctionIndex f : o_.accessPointsTo(v))
    for (uint32_t c : p_.callsOfFunction[f])
      if (adds(p_.calls[c].place)) return true;
  return false;
}

bool Harmless::isToldToChange(VariableIndex v) const {
  auto uses = p_.usesOfVariable[v];
  return std::any_of(uses.begin(), uses.end(), [&](uint32_t u) {
    return p_.uses[u].access == Access::Call && !setsAtStart(p_.uses[u]) && isToldThere(p_.uses[u].place);
  });
}

// Does it but guard, mark or name the state of others?
std::string Harmless::servesOthers(VariableIndex v, TypeIndex type, uint32_t traits) const {
  if ((traits & (kLockType | kConditionType)) && setOnlyAtStart(v)) return "a lock: it guards other state and holds none";
  if (type != kNone && isDescriptor(type)) return "an accessor for fields of other objects: it holds no state itself";
  if ((type != kNone && isLockClass(p_, type)) || (isTakenAsLock(p_, v) && setOnlyAtStart(v))) return "a lock: it guards other state and holds none";
  if ((traits & kOnceFlagType) && setOnlyAtStart(v)) return "a once flag: it guards a creation and holds no other state";
  if (isKeyByAddress(v)) return "a key: nothing but its address is used";
  if (isDefaultOfFields(v)) return "what objects have that were given no value of their own";
  return (traits & kMemberHandle) || standsForFields(v) ? "an accessor for fields of other objects: it holds no state itself" : "";
}

std::string Harmless::reason(VariableIndex v, TypeIndex type) const {
  const Variable& variable = p_.variables[v];
  const TypeUse& use = p_.use(variable.type);
  uint32_t traits = p_.traits(p_.variables[v].home().file, p_.variables[v].type);
  if (std::string tool = servesOthers(v, type, traits); !tool.empty()) return tool;
  const Language& language = p_.language(p_.variables[v].home().file);
  bool managed = language.dotted;
  if (managed && (variable.modifiers & kConstant)) return "a compile-time constant";
  if ((traits & (kCollection | kKeyedCollection)) && (variable.modifiers & kConst) && (variableTraits(p_, v) & kTextType)) return "a collection that cannot be changed";
  if (managed && (p_.guarantees(p_.variables[v].home().file).typeTraits(p_.text(use.name)) & kTextType) && !use.has(kArray) && setOnlyAtStart(v) && !isOpenToChange(v)) return "a string that is set once";
  // Those who could set it are all read here.
  bool closedField = variable.storage == Storage::StaticField && !(variable.modifiers & (kPublic | kProtected));
  bool neverSetAgain = (variable.modifiers & kConst) || ((!language.bareMembers || (variable.modifiers & kPrivate) || closedField) && setOnlyAtStart(v));
  bool exported = variable.storage == Storage::Global && language.family == "script" && setOnlyAtStart(v);
  if (managed && (neverSetAgain || exported) && variable.definition.known()) {
    // const other = book;
    NodeId initial = constancy_.initialiserOf(v);
    // module.exports = exports = Berth;
    while (initial != kNoNode && p_.file(variable.definition)[initial].kind == Kind::Assign) initial = p_.file(variable.definition).child(initial, Role::Value);
    Symbol named = initial == kNoNode || (p_.file(variable.definition)[initial].kind != Kind::Name && p_.file(variable.definition)[initial].kind != Kind::Member)
                       ? Symbol{}
                       : p_.symbolAt({variable.definition.file, initial});
    if (named.is(Symbol::Sort::Function)) return "another name for " + functionName(p_, named.index());
    if (named.is(Symbol::Sort::Type) && (exported || p_.types[named.index()].form == TypeForm::Object)) return "another name for " + std::string(p_.text(p_.types[named.index()].qualified));
    if (named.is(Symbol::Sort::Variable) && p_.variables[named.index()].lives() && named.index() != v && !isCopied(v)) return "another name for " + std::string(p_.text(p_.variables[named.index()].qualified));
    VariableIndex fetched = initial != kNoNode && p_.file(variable.definition)[initial].kind == Kind::Call ? o_.of({variable.definition.file, initial}) : kNone;
    if (fetched != kNone && fetched != v && p_.variables[fetched].lives() && setOnlyAtStart(v)) return "another name for " + variableName(p_, fetched);
  }
  if (managed && (variable.modifiers & kConst) && use.decl != kNone && p_.types[use.decl].form == TypeForm::Interface && p_.types[use.decl].methods.empty() && p_.types[use.decl].fields.empty() && p_.types[use.decl].bases.empty() &&
      !p_.types[use.decl].hasUnknownBase && constancy_.madeFor(v) == kNone)
    return "it holds a function that is never replaced";
  if (managed && !(variable.modifiers & kThreadLocal) && setOnlyAtStart(v) && !changedThrough(v)) {
    bool waits = variable.definition.known() && constancy_.initialiserOf(v) == kNoNode && !(variable.modifiers & kConst);
    // What is really made there tells more than the type that is declared.
    TypeIndex made = constancy_.madeFor(v);
    TypeIndex object = made != kNone ? made : type;
    bool whole = made != kNone || (type != kNone && (p_.types[type].form == TypeForm::Enum || !p_.types[type].derived.empty() || (p_.types[type].form != TypeForm::Interface && !isAbstract(p_, type))));
    if (type != kNone && (use.decl != kNone || made != kNone) && !waits && whole && !constancy_.changesLater(object, made != kNone) && weightsOfCreation(p_, object, kNone).empty() &&
        (variable.storage == Storage::StaticField || variable.storage == Storage::Global))
      return "it is set once, and its class does not change after construction";
    if (isNamedValue(v, object)) return "one of the named values of its class, which changes none of them";
    if (isOneOfManyValues(v, object)) return "one of the many named values of its class, and no code here changes one by its name";
    // static readonly Size Zero; — whoever takes it has a copy.
    if (type != kNone && (variable.modifiers & kConst) && p_.types[type].form == TypeForm::Struct && isPlainData(type)) return "a constant value: whoever takes it has a copy";
    if (type != kNone && made == kNone && !waits && isRecordOfData(v, type)) return "a record that is never changed after its definition in this tree";
    if (made != kNone && neverSetAgain && isMadeOfNothing(v, made)) return "it is made without the parts that could change";
    if (object != kNone && neverSetAgain && onlyAsked(v, object)) return "it is only read once it is made, in this tree";
    if (type != kNone && constancy_.holdsFunction(v) && (variable.modifiers & kConst)) return "it holds a function that is never replaced";
    if (variable.definition.known() && constancy_.holdsNothing(v) && !isOpenToChange(v)) return "it is never set";
    if ((variable.modifiers & kConst) && constancy_.holdsNoElement(v)) return "an empty array";
    if (std::string why = constancy_.lookedUp(v); !why.empty()) return why;  // never set again, declared so or not
    // Where nothing can be declared constant, or nobody outside can set it, what is never set again is.
    bool ownField = variable.storage == Storage::StaticField && !(variable.modifiers & (kPublic | kProtected));
    bool changesInside = made != kNone && constancy_.changesLater(made, true);  // whatever library's type it is declared by
    bool fixed = (variable.modifiers & kConst) || ownField || (variable.storage == Storage::Global && variable.onlyIn != kNone) || (!language.bareMembers && variable.storage == Storage::Global && (isPlainValue(v) || !escapes(v)));
    uint32_t changing = traits & kFixed ? 0u : uint32_t{kCollection};
    if (type == kNone && fixed && !changesInside && !isOpenToChange(v) && !isToldToChange(v) && !changedByOthers(v) && !((traits | variableTraits(p_, v)) & (changing | kAtomicType | kPerThread | kThreadType | kFileResource | kNotSafeToShare | kKeepsState)))
      return "it is set once, and no code in this tree changes it";
  }
  bool pointerToMutable = use.has(kPointer) && !use.has(kPointeeConst) && type != kNone;
  if (variable.modifiers & kConstant) return pointerToMutable ? "" : "a compile-time constant";
  // Of what type it is may not be told; what is done to it tells that it changes.
  bool told = !managed || use.name != 0 || !changedThrough(v);
  // What an array holds may change, though it is always the same array.
  bool elementsChange = managed && use.has(kArray) && (changedThrough(v) || isToldToChange(v));
  if ((variable.modifiers & kConst) && told && !elementsChange && !use.has(kPointer | kReference)) {
    if (type != kNone && use.decl != kNone && constancy_.hasMutableField(type)) return "";
    if (type != kNone && use.decl == kNone) {
      // const unique_ptr<T>: the pointer is fixed, what it points to is not.
      const TypeUse& inner = p_.use(p_.argument(use, 0));
      if (!inner.has(kConst | kPointeeConst) && !(traits & kOptionalType)) return "";
    }
    return "immutable: built once and never changed";
  }
  if (use.has(kPointer | kReference) && use.has(kPointeeConst) && (type == kNone || !constancy_.hasMutableField(type))) {
    if ((variable.modifiers & kConst) || use.has(kReference) || onlyReadAfterCreation(v)) return "immutable: it refers to constant data and is never set again";
  }
  if (variable.storage == Storage::FunctionStatic && (variable.modifiers & kConst) && !pointerToMutable) return "immutable: built once and never changed";
  if (!managed && type != kNone && !use.has(kPointer | kReference) && !constancy_.hasMutableField(type) && isHandedOutAsConstant(v)) return "immutable: it is handed out as a constant and never changed";
  // static auto& names = Names::all;
  if (!managed && use.has(kReference) && variable.definition.known())
    if (NodeId initial = constancy_.initialiserOf(v); initial != kNoNode) {
      Symbol named = p_.symbolAt({variable.definition.file, initial});
      if (named.is(Symbol::Sort::Variable) && named.index() != v && p_.variables[named.index()].lives()) return "another name for " + std::string(p_.text(p_.variables[named.index()].qualified));
    }
  // std::ostream& out = std::cout;
  if (!managed && type == kNone && use.has(kReference) && namesLibraryObject(v))
    return "it always refers to the same object of a library";
  if (!managed && variable.lives() && staysAsMade(v, type)) return "it is set once, and its class does not change after construction";
  if (isOfItsScript(v)) return "only the script's own lines use it, and it ends with the request";
  if (isPutTogetherAtLoad(v)) return "it groups what its module is made of: nothing is put there once that is loaded";
  if (holdsModule(v)) return "a module that is loaded when it is first asked for";
  if (std::string why = workedOutOnce(v, type); !why.empty()) return why;
  if (isScratch(v)) return "a scratch value: it is filled before it is read, within one call";
  if (type == kNone && !use.has(kReference) && variable.lives() && !((traits | variableTraits(p_, v)) & (kPerThread | kKeepsState | kNotSafeToShare)) && onlyReadAfterCreation(v) && !escapes(v) && !isOpenToChange(v) && !changedByOthers(v)) {
    // Never written in the whole tree: as good as a constant.
    if (p_.usesOfVariable[v].empty()) return "it is never used after its definition";
    return "it is never changed after its definition in this tree";
  }
  if (type != kNone && use.decl != kNone && !use.has(kPointer | kReference) && !constancy_.holdsState(type) && p_.types[type].definition.known() && p_.types[type].fields.empty() &&
      p_.types[type].form != TypeForm::Interface && (setOnlyAtStart(v) || p_.types[type].methods.empty()) && weightsOfCreation(p_, type, kNone).empty() && o_.accessPointsTo(v).empty() && !hasConstructor(type)) return "its class holds no state";
  if (type != kNone && use.decl != kNone && !use.has(kPointer | kReference) && isPlainData(type) && onlyReadAfterCreation(v) && o_.accessPointsTo(v).empty() && !escapes(v))
    return "a record that is never changed after its definition in this tree";
  // Nobody here names it, others cannot, and nothing is made for it.
  bool closed = (variable.modifiers & kPrivate) || variable.onlyIn != kNone;
  if (managed && closed && variable.lives() && p_.usesOfVariable[v].empty() && constancy_.initialiserOf(v) == kNoNode && use.has(kPointer)) return "it is never used after its definition";
  return "";
}

// Is its value the name of something that is not in the tree?
bool Harmless::namesLibraryObject(VariableIndex v) const {
  Place definition = p_.variables[v].definition;
  NodeId initial = constancy_.initialiserOf(v);
  return initial != kNoNode && p_.file(definition)[initial].kind == Kind::Name && !p_.symbolAt({definition.file, initial}).known();
}

// Python Language Reference 3.3.2.2: an object of a class with one of these is what an attribute of others does.
bool Harmless::isDescriptor(TypeIndex type) const {
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    const TypeDecl& decl = p_.types[at];
    auto hooks = [&](FunctionIndex m) { return p_.text(p_.functions[m].name) == "__get__" || p_.text(p_.functions[m].name) == "__set__"; };
    auto property = [&](const Base& base) { return base.type == kNone && p_.text(p_.use(base.use).name) == "property"; };
    return std::any_of(decl.methods.begin(), decl.methods.end(), hooks) || std::any_of(decl.bases.begin(), decl.bases.end(), property);
  });
}

// title = Property(…) in a class: by it each object has one of its own.
bool Harmless::standsForFields(VariableIndex v) const {
  if (p_.variables[v].storage != Storage::StaticField) return false;
  Place home = p_.variables[v].home();
  const LoweredFile& file = p_.file(home);
  NodeId value = file.child(home.node, Role::Initialiser);
  NodeId callee = value != kNoNode && file[value].kind == Kind::Call ? file.child(value, Role::Callee) : kNoNode;
  return callee != kNoNode && !p_.links[home.file].symbol[callee].known() && (p_.guarantees(home.file).typeTraits(lastPart(file.name(callee))) & kMemberHandle);
}

// berths = None in a class, where a base or a subclass gives each object its own by self.berths = …: what objects have
// that were given none, and never changed itself.
bool Harmless::isDefaultOfFields(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  if (variable.storage != Storage::StaticField || variable.owner == kNone || !p_.guarantees(variable.home().file).classWritesAreOwn) return false;
  if (!setOnlyAtStart(v) || changedThrough(v) || isToldToChange(v)) return false;
  auto hasField = [&](TypeIndex type) {
    const auto& fields = p_.types[type].fields;
    return std::any_of(fields.begin(), fields.end(), [&](VariableIndex field) { return p_.variables[field].name == variable.name; });
  };
  return p_.anyBase(variable.owner, [&](TypeIndex at, const Base*) { return hasField(at); }) || p_.anyDerived(variable.owner, hasField);
}

// A file's own object that stands for its class, in a table of such, say: nobody writes its fields once it is made.
bool Harmless::staysAsMade(VariableIndex v, TypeIndex type) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  if (type == kNone || use.decl == kNone || use.has(kPointer | kReference | kArray) || p_.types[type].hasUnknownBase || p_.types[type].bases.empty() || p_.variables[v].onlyIn == kNone) return false;
  bool touched = std::any_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    return p_.uses[u].access == Access::Write || p_.uses[u].access == Access::Update || p_.uses[u].access == Access::Bind;
  });
  return !touched && !escapes(v) && !constancy_.changesLater(type, true) && weightsOfCreation(p_, type, kNone).empty() && !mayThrowWhenMade(type);
}

// Does a constructor of the class, or of a base, throw?
bool Harmless::mayThrowWhenMade(TypeIndex type) const {
  return p_.anyBase(type, [&](TypeIndex at, const Base*) {
    for (FunctionIndex m : p_.types[at].methods) {
      const Function& fn = p_.functions[m];
      if (fn.form != FunctionForm::Constructor || !fn.definition.known()) continue;
      const LoweredFile& file = p_.file(fn.definition);
      for (NodeId n = fn.definition.node + 1; n < file.nodes.size() && p_.isInside({fn.definition.file, n}, fn.definition.node); ++n)
        if (file[n].kind == Kind::Throw) return true;
    }
    return false;
  });
}

// Can code that is not read here set it, and is it meant to? It is not declared constant where
// constants are, everybody can name it, and code here reads it.
bool Harmless::isOpenToChange(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  Place home = variable.home();
  const Language& language = p_.language(home.file);
  std::string_view name = p_.text(variable.name);
  bool capitals = std::none_of(name.begin(), name.end(), [](char c) { return c >= 'a' && c <= 'z'; });
  if (!language.marksConstants || capitals || (variable.modifiers & (kConst | kConstant | kPrivate | kProtected | kThreadLocal)) || variable.onlyIn != kNone) return false;
  if (p_.usesOfVariable[v].empty() || variable.form == VariableForm::LazyUnguarded) return false;
  if (language.dotted) return (variable.modifiers & kPublic) && (variable.storage == Storage::StaticField || (variable.storage == Storage::Global && language.bareMembers));
  // A header tells others of it, and it is given no value here. What is called is a function, whose declaration a macro has torn.
  bool called = std::any_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) { return p_.node(p_.uses[u].place).role == Role::Callee; });
  if (called || !variable.definition.known()) return false;
  bool told = std::any_of(variable.declarations.begin(), variable.declarations.end(), [&](Place place) { return p_.isHeader(place.file); });
  bool empty = constancy_.initialiserOf(v) == kNoNode;
  return variable.storage == Storage::Global && told && empty;
}

// Where objects are values, the variable has one of its own.
bool Harmless::isCopied(VariableIndex v) const {
  const TypeUse& use = p_.use(p_.variables[v].type);
  return use.decl != kNone && !use.has(kPointer | kReference);
}

// A constant that is made, by a creation or a call, of constants alone.
bool Harmless::isMadeOfConstants(VariableIndex v) const {
  NodeId made = p_.variables[v].modifiers & kConst ? constancy_.initialiserOf(v) : kNoNode;
  if (made == kNoNode) return false;
  Place place{p_.variables[v].definition.file, made};
  Kind kind = p_.node(place).kind;
  return (kind == Kind::Create || kind == Kind::Call) && p_.file(place).child(made, Role::Argument) != kNoNode && isFromConstants(place, true, {});
}

// const TAB: Key = { code: 'Tab', n: 9 }; with an interface of data whose fields nobody writes.
bool Harmless::isNamedValue(VariableIndex v, TypeIndex type) const {
  if (type == kNone || p_.variables[v].owner != type) return false;
  auto isNamed = [&](VariableIndex one) {
    if (!isMadeOfConstants(one)) return false;
    Place place{p_.variables[one].definition.file, constancy_.initialiserOf(one)};
    return p_.classBehind(place.file, p_.typeAt(place)) == type || constancy_.madeFor(one) == type;
  };
  if (!isNamed(v) || constancy_.changesItself(type)) return false;
  const auto& all = p_.types[type].statics;
  return std::any_of(all.begin(), all.end(), [&](VariableIndex other) { return other != v && isNamed(other); });
}

// Type.SQL_DATE, Type.SQL_TIME and dozens more, made of constants while their class is loaded: whatever objects of the class
// others make for themselves and change, nobody changes these by their names.
bool Harmless::isOneOfManyValues(VariableIndex v, TypeIndex type) const {
  constexpr size_t kMany = 6;
  const Variable& variable = p_.variables[v];
  if (type == kNone || variable.storage != Storage::StaticField || variable.owner == kNone || !(variable.modifiers & kConst)) return false;
  auto isValue = [&](VariableIndex one) { return !(p_.variables[one].modifiers & kThreadLocal) && isMadeOfConstants(one); };
  auto isOfFamily = [&](VariableIndex one) {
    TypeIndex other = p_.classBehind(p_.variables[one].home().file, p_.variables[one].type);
    return other != kNone && (p_.derivesFrom(other, type) || p_.derivesFrom(type, other));
  };
  // Who gets it by another way may change it there.
  NodeId own = constancy_.initialiserOf(v);
  bool bare = own != kNoNode && p_.file(variable.definition)[own].kind == Kind::Create && p_.file(variable.definition).child(own, Role::Argument) == kNoNode && weightsOfCreation(p_, type, kNone).empty();
  if ((!isValue(v) && !bare) || !o_.accessPointsTo(v).empty() || !o_.aliasesOf(v).empty()) return false;
  size_t values = 0;
  const auto& all = p_.types[variable.owner].statics;
  if (std::none_of(all.begin(), all.end(), [&](VariableIndex one) { return isOfFamily(one) && isValue(one) && ++values == kMany; })) return false;
  return std::all_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read || (use.access == Access::Write && !use.inMember && setsAtStart(use))) return true;
    Place member = p_.parent(use.place);
    Symbol called = use.access == Access::Call && p_.node(member).kind == Kind::Member ? p_.symbolAt(member) : Symbol{};
    return called.is(Symbol::Sort::Function) && !constancy_.changesByCalling(called.index(), type);
  });
}

bool Harmless::isRecordOfData(VariableIndex v, TypeIndex type) const {
  Place definition = p_.variables[v].definition;
  NodeId initial = constancy_.initialiserOf(v);
  return initial != kNoNode && p_.file(definition)[initial].kind == Kind::Collection && p_.types[type].form == TypeForm::Interface && !constancy_.changesLater(type, true);
}

// A value that is worked out behind a test of whether it is there, from nothing that changes, and
// stays as it is: a text, a table, or an object of an open class that does not change.
std::string Harmless::workedOutOnce(VariableIndex v, TypeIndex type) const {
  const Variable& variable = p_.variables[v];
  bool own = variable.storage == Storage::FunctionStatic || (variable.modifiers & (kPrivate | kProtected)) || variable.onlyIn != kNone || (variable.storage == Storage::Global && p_.language(variable.home().file).family == "script");
  if (!own || (variable.modifiers & (kConst | kThreadLocal))) return "";
  auto looksOnly = [&](uint32_t u) { return p_.uses[u].access == Access::Write || constancy_.looksOnly(p_.uses[u], type); };
  bool lookedAt = type != kNone && std::all_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), looksOnly);
  if (type != kNone && ((constancy_.changesLater(type) && !lookedAt) || !hasOpenConstructor(p_, type))) return "";
  const TypeUse& declared = p_.use(variable.type);
  uint32_t traits = p_.traits(variable.home().file, variable.type);
  if (type == kNone && declared.name && declared.has(kPointer) && !declared.has(kArray) && !(traits & (kTextType | kCollection))) return "";  // a library's object
  // A table that is handed out may be filled by those who get it.
  if (type == kNone && !(traits & (kTextType | kFixed)) && !o_.accessPointsTo(v).empty()) return "";
  FunctionIndex in = kNone;
  Place branch;
  bool given = false;
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read || (use.access == Access::Call && (type != kNone || use.inMember))) continue;
    if (use.access != Access::Write || use.in == kNone || (in != kNone && in != use.in)) return "";
    in = use.in;
    Place test = decidingTest(use.place);
    if (!test.known() || (branch.known() && test != branch)) return "";
    branch = test;
    if (p_.node(test).kind == Kind::Once && type == kNone && !(traits & (kTextType | kCollection))) return "";
    if (use.inMember || use.throughPointer) continue;
    NodeId value = p_.assignedAt(use.place);
    if (value == kNoNode || !(keepsToItself({use.place.file, value}) || isFromConstants({use.place.file, value}, type != kNone, branch))) return "";
    given = true;
  }
  if (!given || !asksFor(branch, v)) return "";
  return "it is worked out once, when it is first asked for, and stays as it is";
}

// exports.quays = {}; exports.quays.open = function () {…}, or var quays = { open: open }: nothing but functions is put there,
// while the module is loaded. What the module has for itself may hold other things as well.
bool Harmless::isPutTogetherAtLoad(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  NodeId initial = constancy_.initialiserOf(v);
  if (variable.storage != Storage::Global || initial == kNoNode || p_.language(variable.home().file).family != "script") return false;
  const LoweredFile& file = p_.file(variable.definition);
  bool own = !(variable.modifiers & kPublic) && !escapes(v) && o_.aliasesOf(v).empty();
  auto mayStand = [&](Place value) { return own || p_.node(value).kind == Kind::Lambda || p_.node(value).kind == Kind::Function || p_.symbolAt(value).is(Symbol::Sort::Function); };
  if (file[initial].kind != Kind::Collection || file.name(initial) != "Object") return false;
  bool any = false;
  for (NodeId c : children(file, initial)) {
    if (file[c].role != Role::Value) continue;
    if (!mayStand({variable.definition.file, c})) return false;
    any = true;
  }
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    Place member = p_.parent(use.place);
    if (use.access == Access::Read) continue;
    // What is asked of a part may change that part.
    if (use.access == Access::Call && (!own || p_.node(member).role == Role::Callee)) continue;
    NodeId value = use.access == Access::Write && use.inMember && setsAtStart(use) ? p_.assignedAt(use.place) : kNoNode;
    if (value == kNoNode) value = p_.node(member).kind == Kind::Member && setsAtStart(use) ? p_.assignedAt(member) : kNoNode;
    if (value == kNoNode) return false;
    if (!mayStand({use.place.file, value})) return false;
    any = true;
  }
  return any && !isToldToChange(v);
}

// Is all that is done with it to look at it, and to return it by a reference or pointer to a constant ([dcl.type.cv])?
bool Harmless::isHandedOutAsConstant(VariableIndex v) const {
  bool handedOut = false;
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    Place up = p_.parent(use.place);
    if (p_.node(up).kind == Kind::AddressOf) up = p_.parent(up);
    if (p_.node(up).kind != Kind::Return) {
      if (use.access != Access::Read || p_.node(use.place).role == Role::Argument) return false;
      continue;
    }
    if (use.in == kNone || p_.around(use.place, Kind::Lambda).node != kNoNode) return false;
    const TypeUse& result = p_.use(p_.functions[use.in].result);
    if (!result.has(kPointer | kReference) || !(result.has(kPointeeConst) || result.has(kConst))) return false;
    handedOut = true;
  }
  return handedOut;
}

// A variable of a script that no function and no other file names (PHP Manual, Variable scope).
bool Harmless::isOfItsScript(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  Place home = variable.home();
  if (variable.storage != Storage::Global || !p_.guarantees(home.file).livesForOneRequest.holds || !variable.definition.known()) return false;
  return std::all_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    return use.place.file == home.file && (use.in == kNone || isLoadingCode(use.in)) && p_.around(use.place, Kind::Lambda).node == kNoNode;
  });
}

// Type = Type || require("./type"): it is only ever given a module.
bool Harmless::holdsModule(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  if (variable.storage != Storage::Global || p_.language(variable.home().file).family != "script" || (variable.modifiers & kPublic) || (constancy_.initialiserOf(v) != kNoNode && !constancy_.holdsNothing(v))) return false;
  bool any = false;
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read || use.access == Access::Call) continue;
    NodeId value = use.access == Access::Write && !use.inMember ? p_.assignedAt(use.place) : kNoNode;
    const LoweredFile& file = p_.file(use.place);
    if (value != kNoNode && file[value].kind == Kind::Logic)
      for (NodeId c : children(file, value)) value = c;
    while (value != kNoNode && file[value].kind == Kind::Member) value = file.child(value, Role::Receiver);
    NodeId callee = value != kNoNode && file[value].kind == Kind::Call ? file.child(value, Role::Callee) : kNoNode;
    if (callee == kNoNode || file[callee].kind != Kind::Name || file.name(callee) != "require") return false;
    any = true;
  }
  return any;
}

// The branch, the `a || (a = …)` or the once flag that decides whether the code at a place runs.
Place Harmless::decidingTest(Place place) const {
  const LoweredFile& file = p_.file(place);
  NodeId below = place.node;
  for (NodeId up = file.parents[place.node]; up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Lambda; below = up, up = file.parents[up]) {
    bool branch = (file[up].kind == Kind::If || file[up].kind == Kind::Conditional) && file[below].role != Role::Condition;
    bool logic = file[up].kind == Kind::Logic && file[up].firstChild != below;
    if (branch || logic || file[up].kind == Kind::Once) return {place.file, up};
  }
  return {};
}

// Does its condition name the variable, or a local that was read from it? A once flag asks for itself.
bool Harmless::asksFor(Place test, VariableIndex v) const {
  const LoweredFile& file = p_.file(test);
  if (file[test.node].kind == Kind::Once) return true;
  NodeId condition = file[test.node].kind == Kind::Logic ? file[test.node].firstChild : file.child(test.node, Role::Condition);
  return condition != kNoNode && constancy_.names({test.file, condition}, v, true);
}

// Is it a function, or one that a library's call binds, which uses nothing of the code around it?
bool Harmless::keepsToItself(Place expression) const {
  const LoweredFile& file = p_.file(expression);
  NodeId lambda = file[expression.node].kind == Kind::Lambda ? expression.node : kNoNode;
  if (file[expression.node].kind == Kind::Call && !p_.symbolAt(expression).known())
    for (NodeId c : argumentsOf(file, expression.node))
      if (file[c].kind == Kind::Lambda) lambda = c;
  if (lambda == kNoNode) return false;
  for (NodeId n = lambda + 1; n < file.nodes.size() && file[n].span.begin < file[lambda].span.end; ++n) {
    Symbol symbol = p_.links[expression.file].symbol[n];
    if (file[n].kind == Kind::This) return false;
    if (!symbol.is(Symbol::Sort::Variable)) continue;
    const Variable& named = p_.variables[symbol.index()];
    if (!named.lives() && named.storage != Storage::Field && named.definition.known() && !p_.isInside(named.definition, lambda)) return false;
  }
  return true;
}

// Does what an expression yields depend on nothing but constants, and is it cheap to have twice?
// `object`: of a class of the tree that does not change. Locals may be set in the same branch.
bool Harmless::isFromConstants(Place expression, bool object, Place branch) const {
  const LoweredFile& file = p_.file(expression);
  const FileLinks& links = p_.links[expression.file];
  const Node& whole = file[expression.node];
  if (whole.kind == Kind::Literal) return whole.is(Kind::Literal, LiteralForm::Text);  // a flag says that something was done
  if (Symbol local = links.symbol[expression.node]; whole.kind == Kind::Name && local.is(Symbol::Sort::Variable) && p_.variables[local.index()].storage == Storage::Local) {
    bool set = false;
    for (uint32_t u : p_.usesOfVariable[local.index()]) {
      const Use& use = p_.uses[u];
      NodeId value = use.access == Access::Write ? p_.assignedAt(use.place) : kNoNode;
      if (value == kNoNode || value == expression.node || !p_.isInside(use.place, branch.node)) continue;
      if (p_.file(use.place)[value].kind == Kind::Name || !isFromConstants({use.place.file, value}, object, branch)) return false;
      set = true;
    }
    if (set) return true;
    Place definition = p_.variables[local.index()].definition;
    NodeId initial = constancy_.initialiserOf(local.index());
    return initial != kNoNode && p_.isInside(definition, branch.node) && p_.file(definition)[initial].kind != Kind::Name && isFromConstants({definition.file, initial}, object, branch);
  }
  for (NodeId n = expression.node; n < file.nodes.size() && (n == expression.node || p_.isInside({expression.file, n}, expression.node)); ++n) {
    Kind kind = file[n].kind;
    Symbol symbol = links.symbol[n];
    if (kind == Kind::This || kind == Kind::Lambda || kind == Kind::Await) return false;
    uint32_t traits = kind == Kind::Create ? p_.traits(expression.file, links.type[n]) : 0;
    if (traits & (kNotSafeToShare | kKeepsState | kThreadType | kFileResource | kAtomicType)) return false;
    if (symbol.is(Symbol::Sort::Function) && (kind == Kind::Call || kind == Kind::Create) && !weightsOf(p_, symbol.index()).empty()) return false;
    if (n == expression.node && kind == Kind::Create && !object && !(traits & (kTextType | kCollection))) return false;
    // An object that is made of nothing is no value.
    if (n == expression.node && object && file.child(n, Role::Argument) == kNoNode) return false;
    if (!symbol.is(Symbol::Sort::Variable)) continue;
    const Variable& named = p_.variables[symbol.index()];
    if (!named.lives() || !(named.modifiers & (kConst | kConstant))) return false;
  }
  return true;
}

// Kept to save making one for each call: each function that uses it fills it first.
bool Harmless::isScratch(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  if (variable.storage != Storage::Global || p_.guarantees(variable.home().file).sharedMemoryThreads.holds || (variable.modifiers & kPublic) || !(variable.modifiers & kConst)) return false;
  NodeId initial = constancy_.initialiserOf(v);
  if (initial == kNoNode || p_.file(variable.definition)[initial].kind != Kind::Create || (p_.traits(variable.definition.file, variable.type) & kCollection)) return false;
  if (!o_.accessPointsTo(v).empty()) return false;
  // What is put into a list stays there.
  TypeIndex type = p_.use(variable.type).decl;
  auto takesMore = [&](VariableIndex f) { return (p_.traits(p_.variables[f].home().file, p_.variables[f].type) & kCollection) && isToldToChange(f); };
  if (type != kNone && std::any_of(p_.types[type].fields.begin(), p_.types[type].fields.end(), takesMore)) return false;
  FunctionIndex last = kNone;
  bool any = false, left = false;  // filled, and not looked at again in the same function
  for (uint32_t u : p_.usesOfVariable[v]) {  // in order of place
    const Use& use = p_.uses[u];
    if (use.in == kNone || p_.functions[use.in].form == FunctionForm::Initialiser) return false;
    bool first = use.in != last;
    if (first && left && !readBelow(v, last)) return false;
    last = use.in;
    left = false;
    if (!first) continue;
    Place up = p_.parent(use.place);
    const LoweredFile& file = p_.file(up);
    bool handed = file[up.node].kind == Kind::Call && file[use.place.node].role == Role::Argument;
    if (handed && isKeptBy(up, use.place.node)) return false;
    bool filled = use.access == Access::Write;
    if (use.access == Access::Call && file[up.node].kind == Kind::Member) {
      NodeId call = file.parents[up.node];
      left = call != kNoNode && file[file.parents[call]].kind == Kind::ExpressionStatement;
      bool given = call != kNoNode && file[call].kind == Kind::Call && file.child(call, Role::Argument) != kNoNode;
      Symbol method = p_.symbolAt(up);
      filled = given || (method.is(Symbol::Sort::Function) && constancy_.changesByCalling(method.index(), p_.functions[method.index()].owner));
    }
    if (!handed && !filled) return false;
    any = true;
  }
  return any && (!left || readBelow(v, last));
}

// Does the function that is called put what it is given there into an object, or give it back?
bool Harmless::isKeptBy(Place call, NodeId argument) const {
  Symbol called = p_.symbolAt(call);
  if (!called.is(Symbol::Sort::Function)) return false;
  const auto& parameters = p_.functions[called.index()].parameters;
  return std::any_of(parameters.begin(), parameters.end(), [&](VariableIndex parameter) {
    if (givenFor(p_, call, called.index(), parameter).node != argument) return false;
    return std::any_of(p_.usesOfVariable[parameter].begin(), p_.usesOfVariable[parameter].end(), [&](uint32_t u) {
      Place at = p_.uses[u].place, up = p_.parent(at);
      return p_.node(up).kind == Kind::Return || (p_.node(up).kind == Kind::Assign && p_.node(at).role == Role::Value);
    });
  });
}

// Does a function of the file that the function calls look at the variable?
bool Harmless::readBelow(VariableIndex v, FunctionIndex in) const {
  return in != kNone && std::any_of(p_.callsInFunction[in].begin(), p_.callsInFunction[in].end(), [&](uint32_t c) {
    FunctionIndex called = p_.calls[c].callee;
    return called != in && std::any_of(p_.usesInFunction[called].begin(), p_.usesInFunction[called].end(), [&](uint32_t u) { return p_.uses[u].variable == v; });
  });
}

bool Harmless::onlyAsked(VariableIndex v, TypeIndex made) const {
  if (!o_.accessPointsTo(v).empty() || !o_.aliasesOf(v).empty() || p_.types[made].form == TypeForm::Interface || p_.types[made].hasUnknownBase) return false;
  size_t filled = 0, asked = 0;
  bool all = std::all_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    bool kept = p_.around(use.place, Kind::Lambda).node != kNoNode;  // in a function that runs later
    bool loading = !kept && (use.in == kNone || isLoadingCode(use.in));
    ++(loading ? filled : asked);
    if (loading) return true;
    return constancy_.looksOnly(use, made);
  });
  // One that is never filled does not change at all, where nobody else can.
  bool own = !(p_.variables[v].modifiers & kPublic) && weightsOfCreation(p_, made, kNone).empty();
  return all && asked > 0 && (filled > 0 || own);
}

// new Visited(null): the fields of its class are set once, from what its constructor is given, and each that could change
// inside was given nothing.
bool Harmless::isMadeOfNothing(VariableIndex v, TypeIndex made) const {
  const TypeDecl& decl = p_.types[made];
  NodeId initial = constancy_.initialiserOf(v);
  auto keeps = [&](const Base& base) { return base.type != kNone ? p_.types[base.type].form != TypeForm::Interface : p_.traits(decl.definition.file, base.use) != 0; };
  if (initial == kNoNode || decl.fields.empty() || std::any_of(decl.bases.begin(), decl.bases.end(), keeps)) return false;
  Place creation{p_.variables[v].definition.file, initial};
  return std::all_of(decl.fields.begin(), decl.fields.end(), [&](VariableIndex field) {
    if (!(p_.variables[field].modifiers & kConst)) return false;
    return std::any_of(p_.usesOfVariable[field].begin(), p_.usesOfVariable[field].end(), [&](uint32_t u) {
      const Use& use = p_.uses[u];
      NodeId value = use.access == Access::Write && !use.inMember && use.in != kNone && p_.functions[use.in].form == FunctionForm::Constructor ? p_.assignedAt(use.place) : kNoNode;
      Symbol from = value == kNoNode ? Symbol{} : p_.symbolAt({use.place.file, value});
      if (!from.is(Symbol::Sort::Variable) || p_.variables[from.index()].storage != Storage::Parameter) return false;
      Place given = givenFor(p_, creation, use.in, from.index());
      return given.node != kNoNode && p_.node(given).is(Kind::Literal, LiteralForm::Null);
    });
  });
}

bool Harmless::hasConstructor(TypeIndex type) const {
  for (FunctionIndex m : p_.types[type].methods)
    if (p_.functions[m].form == FunctionForm::Constructor && (p_.functions[m].modifiers & kDefinition)) return true;
  return false;
}

bool Harmless::isPlainData(TypeIndex type) const {
  for (FunctionIndex m : p_.types[type].methods) {
    FunctionForm form = p_.functions[m].form;
    if (form == FunctionForm::Function) return false;
  }
  return p_.types[type].definition.known();
}

// static char key; of which only the address is handed to functions of a library.
bool Harmless::isKeyByAddress(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  const TypeUse& use = p_.use(variable.type);
  std::string_view name = p_.text(use.name);
  auto uses = p_.usesOfVariable[v];
  if ((name != "char" && name != "void") || use.has(kArray) || uses.empty()) return false;
  return std::all_of(uses.begin(), uses.end(), [&](uint32_t u) {
    Place up = p_.parent(p_.uses[u].place);
    if (p_.node(up).kind != Kind::AddressOf) return false;
    if (p_.uses[u].inInitialiserOf == v) return true;  // static void *key = &key;
    Place call = p_.parent(up);
    return p_.node(up).role == Role::Argument && p_.node(call).kind == Kind::Call && !p_.symbolAt(call).known();
  });
}

// Made as a number or a text, which stays what it is whoever gets it?
bool Harmless::isPlainValue(VariableIndex v) const {
  NodeId initial = constancy_.initialiserOf(v);
  if (initial == kNoNode) return false;
  const Node& value = p_.file(p_.variables[v].definition)[initial];
  return value.is(Kind::Literal, LiteralForm::Number) || value.is(Kind::Literal, LiteralForm::Text);
}

bool Harmless::escapes(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v])
    if (p_.uses[u].access == Access::Bind) return true;
  if (!o_.accessPointsTo(v).empty()) {
    const TypeUse& use = p_.use(p_.variables[v].type);
    for (FunctionIndex d : o_.accessPointsTo(v)) {
      const TypeUse& result = p_.use(p_.functions[d].result);
      if (result.has(kReference | kPointer) && !result.has(kPointeeConst) && !use.has(kPointer)) return true;
    }
  }
  return false;
}

}  // namespace elmcart

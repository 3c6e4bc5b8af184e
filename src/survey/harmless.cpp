#include "survey/harmless.h"

#include <algorithm>

#include "survey/survey.h"

namespace elmcart {

bool Harmless::onlyReadAfterCreation(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    if (use.access == Access::Read) continue;
    if (use.access == Access::Write && p_.node(use.place).kind == Kind::FieldInit) continue;
    // While its class or file is loaded.
    if (use.access != Access::Bind && inInitialiser(use) && use.place.file == p_.variables[v].home().file) continue;
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

bool Harmless::runsAtLoad(FunctionIndex in, Place place, int depth) const {
  if (in == kNone) return false;
  const Function& fn = p_.functions[in];
  if (fn.form == FunctionForm::Initialiser) {
    if (fn.owner != kNone) return true;
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
    if (!inInitialiser(use)) return false;
  }
  return true;
}

bool Harmless::changedThrough(VariableIndex v) const {
  for (uint32_t u : p_.usesOfVariable[v]) {
    const Use& use = p_.uses[u];
    bool changing = use.access == Access::Write || use.access == Access::Update;
    if (changing && (use.throughPointer || use.inMember) && !inInitialiser(use)) return true;
  }
  return false;
}

std::string Harmless::reason(VariableIndex v, TypeIndex type) const {
  const Variable& variable = p_.variables[v];
  const TypeUse& use = p_.use(variable.type);
  uint32_t traits = p_.traits(p_.variables[v].home().file, p_.variables[v].type);
  if (traits & (kLockType | kConditionType)) return "a lock: it guards other state and holds none";
  if (traits & kOnceFlagType) return "a once flag: it guards a creation and holds no other state";
  if (traits & kMemberHandle) return "an accessor for fields of other objects: it holds no state itself";
  const Language& language = p_.language(p_.variables[v].home().file);
  bool managed = language.dotted;
  if (managed && (variable.modifiers & kConstant)) return "a compile-time constant";
  if (managed && (p_.guarantees(p_.variables[v].home().file).typeTraits(p_.text(use.name)) & kTextType) && setOnlyAtStart(v)) return "a string that is set once";
  bool neverSetAgain = (variable.modifiers & kConst) || (!language.bareMembers && setOnlyAtStart(v));
  if (managed && neverSetAgain && variable.definition.known()) {
    // const other = book;
    NodeId initial = p_.file(variable.definition).child(variable.definition.node, Role::Initialiser);
    Symbol named = initial == kNoNode || (p_.file(variable.definition)[initial].kind != Kind::Name && p_.file(variable.definition)[initial].kind != Kind::Member)
                       ? Symbol{}
                       : p_.symbolAt({variable.definition.file, initial});
    if (named.is(Symbol::Sort::Type) && p_.types[named.index()].form == TypeForm::Object) return "another name for " + std::string(p_.text(p_.types[named.index()].qualified));
    if (named.is(Symbol::Sort::Variable) && p_.variables[named.index()].lives() && named.index() != v) return "another name for " + std::string(p_.text(p_.variables[named.index()].qualified));
  }
  if (managed && (variable.modifiers & kConst) && use.decl != kNone && p_.types[use.decl].form == TypeForm::Interface && p_.types[use.decl].methods.empty() && p_.types[use.decl].fields.empty())
    return "it holds a function that is never replaced";
  if (managed && !(variable.modifiers & kThreadLocal) && setOnlyAtStart(v) && !changedThrough(v)) {
    bool waits = variable.definition.known() && p_.file(variable.definition).child(variable.definition.node, Role::Initialiser) == kNoNode && !(variable.modifiers & kConst);
    // What is really made there tells more than the type that is declared.
    TypeIndex made = use.decl == kNone ? kNone : constancy_.madeFor(v);
    TypeIndex object = made != kNone ? made : type;
    bool whole = made != kNone || (type != kNone && (p_.types[type].form == TypeForm::Enum || !p_.types[type].derived.empty() || (p_.types[type].form != TypeForm::Interface && !isAbstract(p_, type))));
    if (type != kNone && use.decl != kNone && !waits && whole && !constancy_.changesLater(object, made != kNone) && weightsOfCreation(p_, object, kNone).empty() &&
        (variable.storage == Storage::StaticField || variable.storage == Storage::Global))
      return "it is set once, and its class does not change after construction";
    if (object != kNone && (variable.modifiers & kConst) && onlyAsked(v, object)) return "it is filled where it is made, and only read afterwards in this tree";
    if (type != kNone && constancy_.holdsFunction(v) && (variable.modifiers & kConst)) return "it holds a function that is never replaced";
    if (variable.definition.known() && constancy_.holdsNothing(v)) return "it is never set";
    if ((variable.modifiers & kConst) && constancy_.holdsNoElement(v)) return "an empty array";
    if (std::string why = constancy_.lookedUp(v); !why.empty()) return why;  // never set again, declared so or not
    // Where nothing can be declared constant, or nobody outside can set it, what is never set again is.
    bool ownField = variable.storage == Storage::StaticField && !(variable.modifiers & (kPublic | kProtected));
    bool fixed = (variable.modifiers & kConst) || ownField || (!language.bareMembers && variable.storage == Storage::Global && !escapes(v));
    if (type == kNone && fixed && !(traits & (kCollection | kAtomicType | kPerThread | kThreadType | kFileResource | kNotSafeToShare)))
      return "it is set once, and no code in this tree changes it";
  }
  bool pointerToMutable = use.has(kPointer) && !use.has(kPointeeConst) && type != kNone;
  if (variable.modifiers & kConstant) return pointerToMutable ? "" : "a compile-time constant";
  // Of what type it is may not be told; what is done to it tells that it changes.
  bool told = !managed || use.name != 0 || !changedThrough(v);
  if ((variable.modifiers & kConst) && told && !use.has(kPointer | kReference)) {
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
  if (type == kNone && !use.has(kReference) && variable.lives() && !(traits & kPerThread) && onlyReadAfterCreation(v) && !escapes(v)) {
    // Never written in the whole tree: as good as a constant.
    if (p_.usesOfVariable[v].empty()) return "it is never used after its definition";
    return "it is never changed after its definition in this tree";
  }
  if (type != kNone && use.decl != kNone && !use.has(kPointer | kReference) && !constancy_.holdsState(type) && !p_.types[type].methods.empty() && p_.types[type].fields.empty() &&
      weightsOfCreation(p_, type, kNone).empty() && o_.accessPointsTo(v).empty() && !hasConstructor(type)) return "its class holds no state";
  if (type != kNone && use.decl != kNone && !use.has(kPointer | kReference) && isPlainData(type) && onlyReadAfterCreation(v) && o_.accessPointsTo(v).empty() && !escapes(v))
    return "a record that is never changed after its definition in this tree";
  return "";
}

bool Harmless::onlyAsked(VariableIndex v, TypeIndex made) const {
  if (!o_.accessPointsTo(v).empty() || !o_.aliasesOf(v).empty() || p_.types[made].form == TypeForm::Interface || p_.types[made].hasUnknownBase) return false;
  size_t filled = 0, asked = 0;
  bool all = std::all_of(p_.usesOfVariable[v].begin(), p_.usesOfVariable[v].end(), [&](uint32_t u) {
    const Use& use = p_.uses[u];
    bool kept = p_.around(use.place, Kind::Lambda).node != kNoNode;  // in a function that runs later
    bool loading = !kept && (use.in == kNone || (p_.functions[use.in].form == FunctionForm::Initialiser && (p_.functions[use.in].modifiers & kStatic)));
    ++(loading ? filled : asked);
    if (loading) return true;
    Place up = p_.parent(use.place);
    Symbol called = p_.node(up).kind == Kind::Member && p_.node(use.place).role == Role::Receiver ? p_.symbolAt(up) : Symbol{};
    return called.is(Symbol::Sort::Function) && !constancy_.changesByCalling(called.index(), made);
  });
  return all && filled > 0 && asked > 0;
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

#include "rework/inject_reading.h"

#include <algorithm>

#include "assess/facts.h"
#include "base/object_name.h"
#include "base/text.h"

namespace elmcart {

InjectReading::InjectReading(const Analysis& analysis, size_t entity) : a_(analysis), p_(analysis.program), e_(analysis.survey.entities[entity]) {
  for (const AccessPoint& accessPoint : e_.accessPoints)
    if (accessPoint.function != kNone) accessPointFunctions_.insert(accessPoint.function);
  for (const AccessPoint& accessPoint : e_.accessPoints)
    if (accessPoint.sort == AccessPoint::Sort::Accessor && accessPoint.function != kNone && accessPoint_ == kNone) accessPoint_ = accessPoint.function;
  made_ = e_.type;
  if (made_ != kNone) objectName_ = chooseName();
}

Place InjectReading::firstDeclaration(const Function& fn) const {
  Place found = fn.declarations.front();
  int best = kNoRank;
  for (Place place : fn.declarations) {
    int rank = p_.isHeader(place.file) ? place == fn.definition ? 1 : 0 : 2;
    if (rank < best) best = rank, found = place;
  }
  return found;
}

bool InjectReading::resultIsPointer() const { return p_.use(p_.functions[accessPoint_].result).has(kPointer) || (p_.traits(p_.functions[accessPoint_].declarations.front().file, p_.functions[accessPoint_].result) & kPointerLike); }

bool InjectReading::resultIsConst() const {
  const TypeUse& result = p_.use(p_.functions[accessPoint_].result);
  return result.has(kPointeeConst);
}

std::string InjectReading::nameIn(ScopeIndex scope, Place at, NameId qualified, ScopeIndex parent) const {
  std::string_view whole = p_.text(qualified);
  for (ScopeIndex up = scope; up != kNone; up = p_.scopes[up].parent)
    if (up == parent) return std::string(lastPart(whole));
  return std::string(isNamedShort(at, whole) ? lastPart(whole) : whole);
}

bool InjectReading::isNamedShort(Place at, std::string_view qualified) const {
  const LoweredFile& file = p_.file(at);
  Span here = file[at.node].span;
  if (std::count_if(p_.types.begin(), p_.types.end(), [&](const TypeDecl& t) { return p_.text(t.name) == lastPart(qualified); }) > 1) return false;
  for (NodeId n = 1; n < file.nodes.size(); ++n) {
    if (file[n].kind != Kind::Using || file[n].span.end > here.begin) continue;
    NodeId around = file.parents[n];
    bool sees = around == kNoNode || file.parents[around] == kNoNode || (file[around].span.begin <= here.begin && here.end <= file[around].span.end);
    if (sees && file.name(n) == (file[n].has(kWholeScope) ? scopePart(qualified) : qualified)) return true;
  }
  return false;
}

std::string InjectReading::typeName(ScopeIndex scope, Place at, UnitKey unit) const {
  std::string name = nameIn(scope, at, p_.types[made_].qualified, p_.types[made_].parent);
  return resultIsConst() || constant_.contains(unit) ? "const " + name : name;
}

std::string InjectReading::accessText(ScopeIndex scope, Place at) const {
  const Function& accessPoint = p_.functions[accessPoint_];
  std::string call;
  if (accessPoint.owner != kNone) call = nameIn(scope, at, p_.types[accessPoint.owner].qualified, p_.types[accessPoint.owner].parent) + "::" + std::string(p_.text(accessPoint.name)) + "()";
  else call = nameIn(scope, at, accessPoint.qualified, accessPoint.parent) + "()";
  return resultIsPointer() ? "*" + call : call;
}

std::string InjectReading::chooseName() const {
  std::string_view type = p_.text(p_.types[made_].name);
  bool snake = writesUnderscores();
  std::string base = objectName(type, snake), shared = objectName("Shared" + std::string(type), snake);
  for (const std::string& name : {base, shared, shared + "_", shared + "__"})
    if (!isTaken(name)) return name;
  return base;
}

bool InjectReading::isTaken(const std::string& name) const {
  NameId id = p_.names.find(name);
  if (!id) return false;
  return std::any_of(p_.variables.begin(), p_.variables.end(), [&](const Variable& v) { return v.name == id && p_.use(v.type).decl != made_; }) ||
         std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& f) { return f.name == id; });
}

bool InjectReading::writesUnderscores() const {
  size_t underscores = 0, capitals = 0;
  for (const Variable& v : p_.variables) {
    std::string_view name = p_.text(v.name);
    if ((v.storage != Storage::Local && v.storage != Storage::Parameter) || name.size() < 3 || !std::islower(static_cast<unsigned char>(name[0]))) continue;
    bool capital = std::any_of(name.begin(), name.end(), [](unsigned char c) { return std::isupper(c); });
    capitals += capital;
    underscores += !capital && name.substr(1, name.size() - 2).find('_') != std::string_view::npos;
  }
  return underscores > capitals;
}

std::string InjectReading::nameInside(FunctionIndex f) const {
  NameId id = p_.names.find(objectName_);
  bool meansOther = id && std::any_of(p_.variables.begin(), p_.variables.end(), [&](const Variable& v) { return v.name == id && v.function == f && !p_.use(v.type).has(kReference); });
  return meansOther ? objectName("Shared" + std::string(p_.text(p_.types[made_].name)), writesUnderscores()) : objectName_;
}

std::string InjectReading::fieldName(TypeIndex type) const {
  int trailing = 0, prefix = 0, plain = 0;
  auto count = [&](VariableIndex v) {
    std::string_view name = p_.text(p_.variables[v].name);
    if (name.size() > 1 && name.back() == '_') ++trailing;
    else if (name.substr(0, 2) == "m_") ++prefix;
    else ++plain;
  };
  for (VariableIndex v : p_.types[type].fields) count(v);
  if (trailing + prefix + plain == 0)
    for (const TypeDecl& other : p_.types)
      if (other.definition.known())
        for (VariableIndex v : other.fields) count(v);
  if (trailing >= prefix && trailing >= plain && trailing > 0) return objectName_ + "_";
  if (prefix > plain) return "m_" + objectName_;
  return objectName_;
}

VariableIndex InjectReading::holderOf(TypeIndex type) const {
  for (VariableIndex v : p_.types[type].fields) {
    const TypeUse& use = p_.use(p_.variables[v].type);
    if (use.decl == made_ && (use.has(kReference) || isSetFromParameter(type, v))) return v;
  }
  return kNone;
}

bool InjectReading::isSetFromParameter(TypeIndex type, VariableIndex field) const {
  if (!p_.use(p_.variables[field].type).has(kPointer)) return false;
  for (FunctionIndex c : constructorsOf(type)) {
    Place place = p_.functions[c].definition;
    if (!place.known() || injectedParameter(c) < 0) continue;
    const LoweredFile& file = p_.file(place);
    for (NodeId n : children(file, place.node)) {
      if (file[n].kind != Kind::FieldInit || !(p_.symbolAt({place.file, n}) == Symbol(Symbol::Sort::Variable, field))) continue;
      for (NodeId a : argumentsOf(file, n)) {
        NodeId named = file[a].kind == Kind::AddressOf ? file.child(a, Role::Operand) : kNoNode;
        if (named != kNoNode && p_.symbolAt({place.file, named}) == Symbol(Symbol::Sort::Variable, p_.functions[c].parameters[static_cast<size_t>(injectedParameter(c))])) return true;
      }
    }
  }
  return false;
}

std::string InjectReading::objectIn(const std::string& field, bool byPointer) const { return byPointer ? "*" + field : field; }

bool InjectReading::byPointer(VariableIndex holder) const { return holder != kNone && !p_.use(p_.variables[holder].type).has(kReference); }

int InjectReading::injectedParameter(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  if (fn.form == FunctionForm::Constructor && fn.owner == made_) return -1;
  for (size_t i = 0; i < fn.parameters.size(); ++i) {
    const TypeUse& use = p_.use(p_.variables[fn.parameters[i]].type);
    if (use.decl != made_ || !use.has(kReference)) continue;
    // Only one that defaults to the access, or a constructor's: others were handed something before.
    if (defaultOf(f, i).node != kNoNode || (fn.form == FunctionForm::Constructor)) return static_cast<int>(i);
  }
  return -1;
}

Place InjectReading::parameterNode(Place declaration, size_t index) const {
  const LoweredFile& file = p_.file(declaration);
  size_t i = 0;
  for (NodeId c : children(file, declaration.node)) {
    if (file[c].kind != Kind::Parameter) continue;
    if (i++ == index) return {declaration.file, c};
  }
  return {declaration.file, kNoNode};
}

Place InjectReading::defaultOf(FunctionIndex f, size_t index) const {
  for (Place declaration : p_.functions[f].declarations) {
    Place parameter = parameterNode(declaration, index);
    if (parameter.node == kNoNode) continue;
    NodeId value = p_.file(parameter).child(parameter.node, Role::Initialiser);
    if (value != kNoNode) return {parameter.file, value};
  }
  return {0, kNoNode};
}

bool InjectReading::copiesOrMoves(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  if (fn.parameters.size() != 1) return false;
  const TypeUse& use = p_.use(p_.variables[fn.parameters[0]].type);
  return use.decl == fn.owner && fn.owner != kNone && !use.has(kPointer);
}

std::vector<FunctionIndex> InjectReading::constructorsOf(TypeIndex type) const {
  std::vector<FunctionIndex> out;
  for (FunctionIndex m : p_.types[type].methods)
    if (p_.functions[m].form == FunctionForm::Constructor && !copiesOrMoves(m) && !(p_.functions[m].modifiers & kDeleted)) out.push_back(m);
  return out;
}

bool InjectReading::isInjected(TypeIndex type) const {
  for (FunctionIndex c : constructorsOf(type))
    if (injectedParameter(c) >= 0) return true;
  return false;
}

bool InjectReading::isFrameworkMade(TypeIndex type) const {
  if (!p_.types[type].hasUnknownBase) return false;
  for (uint32_t c : p_.creationsOfType[type])
    if (!p_.creations[c].asBase && !p_.creations[c].delegated) return false;
  return true;
}

bool InjectReading::isComposing(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  if (fn.owner != kNone) return false;
  if (p_.text(fn.qualified) == "main") return true;
  return (fn.modifiers & kInMacro) && p_.text(fn.name).find('(') != std::string_view::npos;
}

bool InjectReading::isDefaultArgument(Place place) const {
  const LoweredFile& file = p_.file(place);
  for (NodeId up = place.node; up != kNoNode; up = file.parents[up]) {
    if (file[up].kind == Kind::Parameter) return true;
    if (file[up].kind == Kind::Block || file[up].kind == Kind::Function || file[up].kind == Kind::Variable) return false;
  }
  return false;
}

Place InjectReading::wholeAccess(Place call) const {
  Place up = p_.parent(call);
  return p_.node(up).kind == Kind::Dereference ? up : call;
}

bool InjectReading::isHolding(Place call) const {
  Place whole = wholeAccess(call);
  Place up = p_.parent(whole);
  if (p_.node(up).kind != Kind::Variable || p_.node(whole).role != Role::Initialiser) return false;
  Symbol symbol = p_.symbolAt(up);
  if (!symbol.is(Symbol::Sort::Variable)) return false;
  const Variable& v = p_.variables[symbol.index()];
  const TypeUse& use = p_.use(v.type);
  return use.decl == made_ && use.has(kReference) && p_.text(v.name).substr(0, objectName_.size()) == objectName_;
}

bool InjectReading::holdsConstant(TypeIndex type) const {
  VariableIndex holder = type == kNone ? kNone : holderOf(type);
  return holder != kNone && p_.use(p_.variables[holder].type).has(kPointeeConst);
}

bool InjectReading::looksOnly(Place call) const {
  Place whole = wholeAccess(call), up = p_.parent(whole);
  Symbol symbol = p_.symbolAt(up);
  if (p_.node(up).kind == Kind::Member) {
    if (!symbol.is(Symbol::Sort::Function)) symbol = p_.symbolAt(p_.parent(up));
    return symbol.is(Symbol::Sort::Function) && (p_.functions[symbol.index()].modifiers & kConst);
  }
  bool kept = (p_.node(up).kind == Kind::Variable || p_.node(up).kind == Kind::FieldInit) && symbol.is(Symbol::Sort::Variable);
  return kept && p_.use(p_.variables[symbol.index()].type).has(kPointeeConst);
}

}  // namespace elmcart

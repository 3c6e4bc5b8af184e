#include "rework/moves/handing_plan.h"

#include <algorithm>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {

HandingPlan::HandingPlan(const Analysis& a, const Entity& entity, const Given* given, PlanMemory& memory)
    : a_(a), p_(a.program), e_(entity), given_(given), memory_(memory),
      // elmcart: accept coupling.fixed-collaborator because each step looks at the files as they are by then; tests give it folders
      around_(a.program), files_(a.program.root, &around_), writer_(p_.language(e_.place.file).writer(files_, handed_)), object_(declaredClass()) {}

TypeIndex HandingPlan::declaredClass() const {
  for (const AccessPoint& accessPoint : e_.accessPoints) {
    FunctionIndex f = accessPoint.function;
    if (f == kNone || accessPoint.sort != AccessPoint::Sort::Accessor || !givesShared(p_, e_, f) || !isFreeOrStatic(f)) continue;
    TypeIndex result = p_.classBehind(p_.functions[f].home().file, p_.functions[f].result);
    return result == kNone || e_.type == kNone || !p_.derivesFrom(e_.type, result) || !p_.types[result].definition.known() ? e_.type : result;
  }
  TypeIndex held = e_.slot == kNone ? kNone : p_.classBehind(p_.variables[e_.slot].home().file, p_.variables[e_.slot].type);
  return held != kNone && e_.type != kNone && p_.derivesFrom(e_.type, held) && p_.types[held].definition.known() ? held : e_.type;
}

void HandingPlan::leave(Place place, std::string reason, bool left, bool blocks) {
  for (const ByHand& b : out_.byHand)
    if (b.file == p_.path(place) && b.line == p_.line(place)) return;
  for (const ByHand& b : out_.byHand)
    if (b.file == p_.path(place) && b.reason == reason && functionAround(p_, place) == functionAround_[&b - out_.byHand.data()]) return;
  out_.byHand.push_back({p_.path(place), p_.line(place), std::move(reason), blocks, left});
  functionAround_.push_back(functionAround(p_, place));
}

void HandingPlan::describe() {
  const TypeDecl& decl = p_.types[object_];
  handed_.type = plainName(p_, object_);
  handed_.qualified = p_.text(decl.qualified);
  handed_.home = &p_.files[decl.definition.file];
  if (e_.slot != kNone) {
    handed_.slot = spot(p_.variables[e_.slot].home());
    handed_.fetched = p_.text(p_.variables[e_.slot].qualified);
  }
  handed_.slotHoldsObject = e_.slot != kNone && p_.guarantees(e_.place.file).implicitCopy.holds && p_.use(p_.variables[e_.slot].type).decl == e_.type && !p_.use(p_.variables[e_.slot].type).has(kPointer | kReference);
  if (given_) {
    handed_.made = given_->value;
    handed_.beside = plainName(p_, given_->beside);
  }
  // A slot among its own class's members says nothing that its class does not: shared, instance.
  bool byName = e_.slot != kNone && p_.variables[e_.slot].owner != e_.type;
  for (const AccessPoint& accessPoint : e_.accessPoints) {
    if (accessPoint.function == kNone || accessPoint.sort != AccessPoint::Sort::Accessor || !givesShared(p_, e_, accessPoint.function) || isReader(accessPoint.function) || !isFreeOrStatic(accessPoint.function)) continue;
    byName = false;
    if (handed_.accessor.known()) continue;
    handed_.accessor = spot(p_.functions[accessPoint.function].home());
    handed_.fetched = p_.text(p_.functions[accessPoint.function].qualified);
  }
  handed_.late = !given_ && (isReplaced() || (e_.creation.time == CreationTime::Lazy && !e_.creation.weights.empty()));
  std::set<std::pair<FileIndex, uint32_t>> seen;
  for (bool tests : {false, true})
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || inTests(c.place) != tests || !sameLanguage(c.place)) continue;
      Place access = accessAt(c);
      if (!access.known() || !seen.insert({access.file, p_.node(access).span.begin}).second) continue;
      handed_.accesses.push_back(spot(access));
    }
  // What a member that a step put in falls back on fetches it too.
  for (const AccessPoint& accessPoint : e_.accessPoints) {
    if (accessPoint.function == kNone || isReader(accessPoint.function)) continue;
    for (uint32_t c : p_.callsOfFunction[accessPoint.function])
      if (const CallSite& call = p_.calls[c]; call.in != kNone && isReader(call.in) && seen.insert({call.place.file, p_.node(call.place).span.begin}).second) handed_.accesses.push_back(spot(call.place));
  }
  if (!memory_.onlyLooked) memory_.onlyLooked = writer_->holdsByReference() && std::all_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) {
    Place place = placeOf(access);
    FunctionIndex in = functionAround(p_, place);
    return inTests(place) || (in != kNone && isOwn(p_.functions[in].owner)) || looksOnly(place);
  });
  handed_.onlyLooked = *memory_.onlyLooked;
  if (memory_.word.empty()) {
    std::string slot = e_.slot == kNone ? "" : std::string(p_.text(p_.variables[e_.slot].name));
    if (slot.size() > 4 && slot[1] == '_' && (slot[0] == 'g' || slot[0] == 's')) slot.erase(0, 2);  // what marks it as global or static
    std::string name = byName && slot.size() > 3 ? slot : handed_.type;
    std::string capital = name.substr(name.find_first_not_of('_') == std::string::npos ? 0 : name.find_first_not_of('_'));
    capital[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(capital[0])));
    for (const std::string& candidate : {name, "Shared" + capital, "Handed" + capital})
      if (memory_.word.empty() && !isTaken(writer_->wordFor(candidate))) memory_.word = writer_->wordFor(candidate);
    if (memory_.word.empty()) memory_.word = writer_->wordFor("Shared" + capital) + "_";
  }
  handed_.word = memory_.word;
  shown_ = byName && e_.slot != kNone ? std::string(p_.text(p_.variables[e_.slot].name)) : handed_.type;
}

bool HandingPlan::isReplaced() const {
  if (e_.reset.known()) return true;
  if (e_.slot == kNone) return false;
  size_t elsewhere = 0;
  for (uint32_t u : p_.usesOfVariable[e_.slot]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || use.throughPointer || use.inMember) continue;
    bool first = use.in == kNone || use.in == e_.creation.in || p_.functions[use.in].form == FunctionForm::Initialiser;
    elsewhere += !first;
  }
  return elsewhere > 0;
}

std::string_view HandingPlan::headOf(Spot access) {
  const LoweredFile& file = *access.file;
  for (NodeId node = access.node; node != kNoNode;) {
    if (file[node].kind == Kind::Name) return file.name(node);
    node = file.child(node, file[node].kind == Kind::Call ? Role::Callee : Role::Receiver);
  }
  return {};
}

bool HandingPlan::isTaken(const std::string& word) const {
  if (!writer_->namesBeside())
    for (Spot access : handed_.accesses)
      if (headOf(access) == word) return true;
  NameId id = p_.names.find(word), field = p_.names.find(writer_->fieldFor(word));
  if (!id && !field) return false;
  std::set<TypeIndex> users;
  std::set<FunctionIndex> functions;
  for (const Consumer& c : e_.consumers)
    if (c.in != kNone && p_.functions[c.in].owner != kNone) users.insert(p_.functions[c.in].owner);
    else if (c.in != kNone) functions.insert(c.in);
  auto concerned = [&](TypeIndex type) { return type != kNone && users.contains(type); };
  for (const Variable& v : p_.variables) {
    if ((v.name != id && v.name != field) || v.name == 0) continue;
    bool own = p_.use(v.type).decl == object_ && v.storage != Storage::Local;
    // A local that refers to the object goes with the step, and a method reads it from its field.
    if (writer_->namesBeside() && writer_->holdsByReference() && v.storage == Storage::Local && p_.use(v.type).decl == object_)
      own = (p_.use(v.type).has(kReference | kPointer) && isSteady(static_cast<VariableIndex>(&v - p_.variables.data()))) || (v.function != kNone && unitOf(p_, v.function) != kNone && p_.functions[v.function].form != FunctionForm::Constructor);
    TypeIndex owner = v.owner != kNone ? v.owner : v.function != kNone ? p_.functions[v.function].owner : kNone;
    if (!own && (concerned(owner) || (v.function != kNone && functions.contains(v.function)))) return true;
  }
  return std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& f) { return f.name != 0 && f.name == field && concerned(f.owner); });
}

// [class.copy.ctor] of C++'s standard: the same where such objects are values.
bool HandingPlan::copies(FunctionIndex constructor) const {
  const Function& fn = p_.functions[constructor];
  if (fn.parameters.size() != 1 || fn.owner == kNone || !p_.guarantees(fn.home().file).implicitCopy.holds) return false;
  const TypeUse& use = p_.use(p_.variables[fn.parameters[0]].type);
  return use.decl == fn.owner && use.has(kReference) && !use.has(kPointer);
}

std::vector<FunctionIndex> HandingPlan::makersOf(TypeIndex type) const {
  std::vector<FunctionIndex> all = constructorsOf(p_, type);
  std::erase_if(all, [&](FunctionIndex c) { return copies(c) || (p_.functions[c].modifiers & kDeleted); });
  return all;
}

VariableIndex HandingPlan::heldIn(TypeIndex type) const {
  for (VariableIndex v : p_.types[type].fields) {
    if (isOurField(p_.text(p_.variables[v].name)) && isTaker(type)) return v;
    const TypeUse& use = p_.use(p_.variables[v].type);
    if (writer_->holdsByReference() && use.decl == object_ && use.has(kReference) && isSetFromObject(type, v)) return v;
  }
  return kNone;
}

// In every constructor, by what fetches it or by what it was handed in as.
bool HandingPlan::isSetFromObject(TypeIndex type, VariableIndex field) const {
  std::vector<FunctionIndex> all = makersOf(type);
  return !all.empty() && std::all_of(all.begin(), all.end(), [&](FunctionIndex c) {
    Place home = p_.functions[c].home();
    const LoweredFile& file = p_.file(home);
    for (NodeId n : children(file, home.node)) {
      if (file[n].kind != Kind::FieldInit || !(p_.symbolAt({home.file, n}) == Symbol(Symbol::Sort::Variable, field))) continue;
      for (NodeId a : argumentsOf(file, n)) {
        if (file[a].kind == Kind::Name && file.name(a) == handed_.word) return true;
        if (std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) { return access.file == &file && p_.isInside({home.file, access.node}, a); })) return true;
      }
    }
    return false;
  });
}

std::set<TypeIndex> HandingPlan::assignedTypes() const {
  std::set<TypeIndex> out;
  auto assignsFrom = [&](TypeIndex type, TypeIndex from) {
    return std::any_of(p_.types[type].methods.begin(), p_.types[type].methods.end(), [&](FunctionIndex m) {
      const Function& fn = p_.functions[m];
      return fn.form == FunctionForm::Operator && p_.text(fn.name).ends_with('=') && fn.parameters.size() == 1 && p_.use(p_.variables[fn.parameters[0]].type).decl == from;
    });
  };
  for (FileIndex f = 0; f < p_.files.size(); ++f) {
    const LoweredFile& file = p_.files[f];
    for (NodeId n = 1; n < file.nodes.size(); ++n) {
      NodeId target = file[n].kind == Kind::Assign ? file.child(n, Role::Target) : kNoNode;
      if (target == kNoNode) continue;
      const TypeUse& use = p_.use(p_.links[f].type[target]);
      if (use.decl == kNone || use.has(kPointer) || out.contains(use.decl)) continue;
      // What the class assigns from another class by an operator of its own, a reference does not forbid.
      NodeId value = file.child(n, Role::Value);
      TypeIndex from = value == kNoNode ? kNone : p_.use(p_.links[f].type[value]).decl;
      if (from == kNone || from == use.decl || p_.derivesFrom(from, use.decl) || !assignsFrom(use.decl, from)) out.insert(use.decl);
    }
  }
  return out;
}

const ClassFacts& HandingPlan::factsOf(TypeIndex type) {
  auto [found, isNew] = facts_.try_emplace(type);
  ClassFacts& out = found->second;
  if (!isNew) return out;
  const TypeDecl& decl = p_.types[type];
  out.type = spot(decl.definition);
  // A class in several parts: that with its constructors.
  if (std::vector<FunctionIndex> all = makersOf(type); !all.empty())
    if (Place part = p_.around(p_.functions[all.front()].home(), Kind::Type); part.node != kNoNode && p_.file(part).name(part.node) == p_.file(decl.definition).name(decl.definition.node)) out.type = spot(part);
  out.name = plainName(p_, type);
  eachOfLineage(type, [&](TypeIndex t) {
    if (p_.types[t].definition.known()) out.lineage.push_back(spot(p_.types[t].definition));
    for (const Base& base : p_.types[t].bases)
      if (base.type == kNone) out.otherBases.emplace_back(p_.text(p_.use(base.use).name));
    out.hasBaseClass |= t != type && p_.types[t].form != TypeForm::Interface;
    if (std::vector<FunctionIndex> all = makersOf(t); t != type && p_.types[t].form == TypeForm::Class && !all.empty())
      out.baseTakesArguments |= std::all_of(all.begin(), all.end(), [&](FunctionIndex c) { return p_.functions[c].leastArguments > 0; });
  });
  out.hasBaseClass |= std::any_of(out.otherBases.begin(), out.otherBases.end(), [&](const std::string& base) { return !writer_->isInterface(out, base); });
  for (FunctionIndex c : makersOf(type)) {
    out.constructors.push_back(spot(p_.functions[c].home()));
    std::vector<Spot>& calls = out.calls.emplace_back();
    for (uint32_t k : p_.creationsOfType[type])
      if (p_.creations[k].constructor == c) calls.push_back(spot(p_.creations[k].place));
  }
  for (uint32_t c : p_.creationsOfType[type])
    if (!p_.creations[c].asBase && !p_.creations[c].delegated && !(p_.creations[c].copy && writer_->holdsByReference())) out.creations.push_back(spot(p_.creations[c].place));
  for (FunctionIndex m : decl.methods)
    if (p_.functions[m].definition.known()) out.methods.push_back(spot(p_.functions[m].definition));
  for (FunctionIndex c : constructorsOf(p_, type))
    if (const Function& fn = p_.functions[c]; copies(c) && fn.definition.known() && !(fn.modifiers & kDeleted) && !p_.node(fn.definition).has(kDefaulted)) out.copies.push_back(spot(fn.definition));
  if (writer_->holdsByReference()) {
    if (!assigned_) assigned_ = assignedTypes();
    out.isAssigned = assigned_->contains(type);
  }
  if (VariableIndex held = heldIn(type); held != kNone) out.keptIn = spot(p_.variables[held].home());
  if (writer_->takesByFields()) out.existsUnmade = existsUnmade(type);
  return out;
}

bool HandingPlan::existsUnmade(TypeIndex type) const {
  for (FileIndex f = 0; f < p_.files.size(); ++f) {
    const LoweredFile& file = p_.files[f];
    if (!sameLanguage({f, 0})) continue;
    for (NodeId n = 1; n < file.nodes.size(); ++n)
      if (file[n].kind == Kind::TypeRef && !file[n].has(kPointer) && p_.use(p_.links[f].type[n]).decl == type && file[file.parents[n]].kind != Kind::Create && file[file.parents[n]].kind != Kind::Function) return true;
  }
  return false;
}

bool HandingPlan::keeps(TypeIndex type) const {
  bool found = false;
  eachOfLineage(type, [&](TypeIndex t) {
    if (t == type || !writer_->keepsBesideBase()) found |= heldIn(t) != kNone;
  });
  return found;
}

VariableIndex HandingPlan::keptInBase(TypeIndex type) const {
  VariableIndex found = kNone;
  eachOfLineage(type, [&](TypeIndex t) {
    if (t != type && isTaker(t))
      for (VariableIndex v : p_.types[t].fields)
        if (found == kNone && isOurField(p_.text(p_.variables[v].name))) found = v;
  });
  return found;
}

bool HandingPlan::takesByBase(TypeIndex type) const {
  const std::vector<Base>& bases = p_.types[type].bases;
  if (bases.empty() || bases.front().type == kNone) return false;
  std::vector<FunctionIndex> all = makersOf(bases.front().type);
  return std::any_of(all.begin(), all.end(), [&](FunctionIndex c) { return takes(c) >= 0; });
}

std::string HandingPlan::whyNotInFunction(FunctionIndex f, const std::vector<Place>& accesses) {
  const Function& fn = p_.functions[f];
  bool whole = fn.definition.known() && !(fn.modifiers & kInMacro) && std::all_of(accesses.begin(), accesses.end(), [&](Place access) { return access.file == fn.definition.file; });
  if (!whole) return functionText(p_, f) + " could not be read";
  if (std::any_of(accesses.begin(), accesses.end(), [&](Place access) { return isAssigned(access); })) return "here the slot itself is set";
  if (fn.modifiers & kOverride) return functionText(p_, f) + " stands for one of a base or an interface, whose parameters are not its own choice";
  if (std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& o) { return &o != &fn && o.name == fn.name && o.parent == fn.parent && o.owner == fn.owner && o.parameters.size() == fn.parameters.size() + 1; })) return "there is a " + std::string(p_.text(fn.name)) + " with one parameter more already";
  for (const TypeDecl& type : p_.types)
    if (std::find(type.friends.begin(), type.friends.end(), fn.name) != type.friends.end()) return std::string(p_.text(type.qualified)) + " names " + functionText(p_, f) + " as its friend, with what it takes today";
  return isGivenAway(f) ? functionText(p_, f) + " is given to others, who call it with what it takes today" : "";
}

bool HandingPlan::isGivenAway(FunctionIndex f) {
  if (!lookedAtAll_) {
    lookedAtAll_ = true;
    for (FileIndex i = 0; i < p_.files.size(); ++i) {
      const LoweredFile& file = p_.files[i];
      for (NodeId n = 1; n < file.nodes.size(); ++n) {
        if ((file[n].kind != Kind::Name && file[n].kind != Kind::Member) || file[n].role == Role::Callee) continue;
        if (Symbol symbol = p_.links[i].symbol[n]; symbol.is(Symbol::Sort::Function)) givenAway_.insert(symbol.index());
      }
    }
  }
  return givenAway_.contains(f);
}

bool HandingPlan::isGiven(Place call) {
  if (writer_->hands(spot(call))) return true;
  for (NodeId a : argumentsOf(p_.file(call), call.node)) {
    Symbol symbol = p_.symbolAt({call.file, a});
    if (symbol.is(Symbol::Sort::Variable) && p_.variables[symbol.index()].owner != kNone && heldIn(p_.variables[symbol.index()].owner) == symbol.index()) return true;
  }
  return false;
}

bool HandingPlan::takesAsFunction(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  return std::any_of(fn.parameters.begin(), fn.parameters.end(), [&](VariableIndex v) { return p_.text(p_.variables[v].name) == handed_.word && p_.use(p_.variables[v].type).decl == object_; });
}

// [dcl.type.cv] of C++'s standard; what marks no member as constant may change the object with each.
bool HandingPlan::looksOnly(Place access) const {
  Place up = p_.parent(access);
  if (p_.node(up).kind == Kind::Dereference) up = p_.parent(up);
  Symbol symbol = p_.symbolAt(up);
  if (p_.node(up).kind == Kind::Member) {
    if (!symbol.is(Symbol::Sort::Function)) symbol = p_.symbolAt(p_.parent(up));
    return symbol.is(Symbol::Sort::Function) && (p_.functions[symbol.index()].modifiers & kConst);
  }
  Kind kind = p_.node(up).kind;
  bool kept = (kind == Kind::Variable || kind == Kind::FieldInit || kind == Kind::Parameter) && symbol.is(Symbol::Sort::Variable);
  if (!kept || p_.use(p_.variables[symbol.index()].type).has(kPointeeConst)) return kept;
  // A local that goes with the step, of the parameter's name.
  const Variable& v = p_.variables[symbol.index()];
  if (v.storage != Storage::Local || p_.text(v.name) != handed_.word || !isSteady(symbol.index())) return false;
  const auto& uses = p_.usesOfVariable[symbol.index()];
  return std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return p_.parent(p_.uses[u].place) == up || p_.uses[u].place == up || looksOnly(p_.uses[u].place); });
}

bool HandingPlan::isSteady(VariableIndex local) const {
  const Variable& v = p_.variables[local];
  Place home = v.home();
  NodeId initial = p_.file(home).child(home.node, Role::Initialiser);
  bool fetched = initial != kNoNode && std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot a) { return a.file == &p_.files[home.file] && p_.isInside({home.file, a.node}, initial); });
  size_t alike = static_cast<size_t>(std::count_if(p_.variables.begin(), p_.variables.end(), [&](const Variable& o) { return o.name == v.name && o.function == v.function; }));
  const auto& uses = p_.usesOfVariable[local];
  return fetched && alike == 1 && std::none_of(uses.begin(), uses.end(), [&](uint32_t u) { return (p_.uses[u].access == Access::Write || p_.uses[u].access == Access::Update) && !p_.uses[u].throughPointer && !p_.uses[u].inMember && !(p_.uses[u].place == home); });
}

int HandingPlan::takes(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  if (fn.owner == kNone || !isTaker(fn.owner)) return -1;
  for (size_t i = 0; i < fn.parameters.size(); ++i)
    if (p_.text(p_.variables[fn.parameters[i]].name) == handed_.word) return static_cast<int>(i);
  return -1;
}

bool HandingPlan::accepts(FunctionIndex f) const {
  for (int depth = 0; f != kNone && depth < 32; ++depth) {
    if (takes(f) >= 0) return true;
    TypeIndex owner = p_.functions[f].owner;
    if (owner == kNone || !writer_->passesAnything(spot(p_.functions[f].home()))) return false;
    f = kNone;
    for (TypeIndex t = owner; f == kNone && !p_.types[t].bases.empty() && p_.types[t].bases.front().type != kNone;) {
      t = p_.types[t].bases.front().type;
      if (std::vector<FunctionIndex> all = makersOf(t); !all.empty()) f = all.front();
    }
  }
  return false;
}

uint32_t HandingPlan::positionIn(FunctionIndex f) const {
  int at = f == kNone ? -1 : takes(f);
  return at < 0 || static_cast<size_t>(at) + 1 < p_.functions[f].parameters.size() ? kLast : static_cast<uint32_t>(at);
}

bool HandingPlan::isTaker(TypeIndex type) const {
  if (memory_.takers.contains(p_.text(p_.types[type].qualified))) return true;
  // One that an earlier run left so.
  if (writer_->takesByFields())
    return std::any_of(p_.types[type].fields.begin(), p_.types[type].fields.end(), [&](VariableIndex v) { return isOurField(p_.text(p_.variables[v].name)) && p_.use(p_.variables[v].type).decl == object_; });
  for (FunctionIndex c : makersOf(type))
    for (VariableIndex v : p_.functions[c].parameters)
      if (p_.text(p_.variables[v].name) == handed_.word && (p_.use(p_.variables[v].type).decl == object_ || hasFallback(c))) return true;
  return false;
}

bool HandingPlan::hasFallback(FunctionIndex constructor) const {
  return std::any_of(e_.consumers.begin(), e_.consumers.end(), [&](const Consumer& c) { return c.in == constructor && isFallback(c.place); });
}

bool HandingPlan::isFallback(Place access) const {
  const LoweredFile& file = p_.file(access);
  auto isGiven = [&](NodeId node) {
    Symbol symbol = p_.symbolAt({access.file, node});
    if (!symbol.known()) return (file[node].kind == Kind::Member && isOurField(file.name(node))) || (file[node].kind == Kind::Name && file.name(node) == handed_.word);
    if (!symbol.is(Symbol::Sort::Variable)) return false;
    const Variable& v = p_.variables[symbol.index()];
    return v.storage == Storage::Parameter || (v.storage == Storage::Field && isOurField(p_.text(v.name)));
  };
  for (Place at = access, up = p_.parent(access); up.node != kNoNode && p_.node(up).kind != Kind::Function; at = up, up = p_.parent(up)) {
    const Node& node = p_.node(up);
    if (node.kind == Kind::Parameter && p_.nameOf(up) == handed_.word) return true;  // what it is when it is left out
    NodeId condition = node.kind == Kind::If || node.kind == Kind::Conditional ? file.child(up.node, Role::Condition) : kNoNode;
    if (condition != kNoNode && condition != at.node && file[condition].kind == Kind::NullTest && isGiven(file[condition].firstChild)) {
      bool none = file[condition].detail == static_cast<uint8_t>(NullTestForm::IsNull);
      if (p_.node(at).role == (none ? Role::Then : Role::Else)) return true;
    }
    if (node.kind == Kind::Logic && node.detail == static_cast<uint8_t>(LogicForm::Or) && node.firstChild != at.node && isGiven(node.firstChild)) return true;
  }
  return false;
}

bool HandingPlan::holdsFallback(Place place) const {
  return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) {
    Place at{place.file, access.node};
    return access.file == &p_.files[place.file] && p_.isInside(at, place.node) && isFallback(at);
  });
}

bool HandingPlan::isHandedVariable(const Variable& v) const {
  if (v.storage == Storage::Field) return v.owner != kNone && isTaker(v.owner) && isOurField(p_.text(v.name));
  return v.storage == Storage::Parameter && p_.text(v.name) == handed_.word && v.function != kNone && p_.functions[v.function].owner != kNone && isTaker(p_.functions[v.function].owner);
}

bool HandingPlan::asksReader(Place place) const {
  const LoweredFile& file = p_.file(place);
  NodeId node = place.node;
  for (int depth = 0; depth < 6 && node != kNoNode; ++depth) {
    Symbol symbol = p_.symbolAt({place.file, node});
    if (symbol.is(Symbol::Sort::Function) && isReader(symbol.index())) return true;
    if (symbol.is(Symbol::Sort::Variable) && isHandedVariable(p_.variables[symbol.index()])) return true;
    NodeId callee = file.child(node, Role::Callee);
    node = callee != kNoNode ? callee : file.child(node, Role::Receiver);
  }
  return false;
}

bool HandingPlan::isDefault(Place access) const {
  FunctionIndex in = functionAround(p_, access);
  if (in == kNone || p_.functions[in].owner == kNone || !isTaker(p_.functions[in].owner) || takes(in) >= 0) return false;
  const auto& made = p_.creationsInFunction[in];
  return std::any_of(made.begin(), made.end(), [&](uint32_t c) { return p_.creations[c].delegated; });
}

std::string HandingPlan::whyNotMadeHere(TypeIndex type) {
  const TypeDecl& decl = p_.types[type];
  std::string name = plainName(p_, type);
  if (!decl.definition.known()) return name + " is not defined in this tree";
  if (decl.form != TypeForm::Class && !(decl.form == TypeForm::Struct && writer_->constructsStructs())) return name + " is no ordinary class: nothing can be handed to a constructor of it";
  for (NodeId c : children(p_.file(decl.definition), decl.definition.node)) {
    if (p_.file(decl.definition)[c].role != Role::Annotation) continue;
    std::string_view mark = lastPart(p_.file(decl.definition).name(c));
    if (mark != "Deprecated" && mark != "SuppressWarnings") return name + " is marked " + std::string(mark) + ": what makes it may not be in this tree";
  }
  bool made = !decl.derived.empty() || std::any_of(p_.creationsOfType[type].begin(), p_.creationsOfType[type].end(), [&](uint32_t c) { return !p_.creations[c].asBase; });
  if (made || !decl.hasUnknownBase) return "";
  for (const Base& base : decl.bases)
    if (base.type == kNone && p_.text(p_.use(base.use).name) != "object" && !writer_->isInterface(factsOf(type), p_.text(p_.use(base.use).name))) return name + " derives from a class that is not in this tree, and nobody here makes one: a framework does";
  return "";
}

std::tuple<size_t, std::string, uint32_t> HandingPlan::orderOf(TypeIndex type) const {
  size_t depth = 0;
  for (TypeIndex t = type; depth < 32 && !p_.types[t].bases.empty() && p_.types[t].bases.front().type != kNone; ++depth) t = p_.types[t].bases.front().type;
  return {depth, p_.path(p_.types[type].home()), p_.line(p_.types[type].home())};
}

std::string HandingPlan::take(Step step, const std::vector<Change>& changes, std::initializer_list<TypeIndex> takers) {
  if (memory_.refused.contains(step.key())) return std::string(kTakenBack);
  if ((step.kind == StepKind::Seam || step.kind == StepKind::InjectParameter) && memory_.made.contains(step.key())) return "a step that was made for it left this place as it was";
  for (const Change& change : changes)
    if (std::string reason = writer_->can(change); !reason.empty()) return reason;
  if (std::string reason = writer_->write(changes, step.edits); !reason.empty()) return reason;
  for (TypeIndex type : takers) memory_.takers.insert(std::string(p_.text(p_.types[type].qualified)));
  out_.found = true;
  out_.step = std::move(step);
  return "";
}

Step HandingPlan::stepOf(StepKind kind, TypeIndex type, std::string what) const {
  Step step;
  step.kind = kind;
  step.subject = std::string(p_.text(p_.types[type].qualified));
  step.inTests = inTests(p_.types[type].definition);
  step.title = plainName(p_, type) + " " + std::move(what);
  return step;
}

Spot HandingPlan::around(Place access) const {
  Place function = p_.around(access, Kind::Function);
  return function.node == kNoNode ? Spot{} : spot(function);
}

}  // namespace elmcart

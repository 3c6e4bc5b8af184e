#include "rework/inject_work.h"

#include "assess/facts.h"
#include "rework/access.h"
#include "source/ignore.h"

namespace elmcart {

void InjectWork::byHand(Place place, std::string reason, bool blocks) {
  for (const ByHand& b : byHand_)
    if (b.file == p_.path(place) && b.line == p_.line(place) && b.reason == reason) return;
  byHand_.push_back({p_.path(place), p_.line(place), std::move(reason), blocks});
}

bool InjectWork::isLeft(const InjectTask& w) {
  if (w.composing || inTests(placeOf(w)) || !memory_.isChosen(p_.path(placeOf(w)))) return true;
  if (!w.accesses.empty()) return false;
  if (w.function != kNone) return injectedParameter(w.function) < 0;
  return !isInjected(w.type) && !isBelowInjected(w.type);
}

bool InjectWork::isBelowInjected(TypeIndex type) {
  if (!below_) {
    std::vector<TypeIndex> makers;
    for (TypeIndex t = 0; t < p_.types.size(); ++t)
      if (isInjected(t)) makers.push_back(t);
    below_ = madeBelow(p_, a_.config.tests, std::move(makers));
  }
  return below_->contains(type);
}

InjectTask& InjectWork::workFor(TypeIndex type, FunctionIndex function) {
  for (InjectTask& w : work_)
    if (w.type == type && w.function == function) return w;
  InjectTask& w = work_.emplace_back();
  w.type = type;
  w.function = function;
  w.composing = type != kNone ? isFrameworkMade(type) : isComposing(function);
  return w;
}

InjectTask* InjectWork::unitOf(Place place, FunctionIndex in, VariableIndex inInitialiserOf) {
  if (in == kNone) {
    if (inInitialiserOf != kNone && p_.variables[inInitialiserOf].storage == Storage::Field) return &workFor(p_.variables[inInitialiserOf].owner, kNone);
    byHand(place, "it stands in the initialiser of a variable with static lifetime, where nothing can be handed in");
    return nullptr;
  }
  const Function& fn = p_.functions[in];
  if (fn.fixture != kNone) return &workFor(fn.fixture, kNone);
  if (fn.owner == made_ && fn.owner != kNone) {
    byHand(place, "the class itself reaches its accessor here");
    return nullptr;
  }
  if (fn.owner != kNone && !(fn.modifiers & kStatic)) return &workFor(fn.owner, kNone);
  return &workFor(kNone, in);
}

void InjectWork::collectWork() {
  std::vector<Place> places;
  for (FunctionIndex accessPoint : accessPointFunctions_) {
    for (uint32_t c : p_.callsOfFunction[accessPoint]) {
      const CallSite& call = p_.calls[c];
      if (p_.node(call.place).kind != Kind::Call) {
        byHand(call.place, "the accessor is not called in the plain way here");
        continue;
      }
      seen_.insert({call.place.file, p_.node(call.place).span.begin});
      if (call.in != kNone && accessPointFunctions_.count(call.in)) continue;
      if (isDefaultArgument(call.place)) continue;
      InjectTask* w = unitOf(call.place, call.in, call.inInitialiserOf);
      if (!w) continue;
      if (w->composing && isHolding(call.place)) continue;
      w->accesses.push_back(call.place);
    }
  }
  // Creations and calls that let the parameter default.
  for (const Creation& creation : p_.creations) {
    if (creation.constructor == kNone || creation.copy) continue;
    pass(creation.constructor, creation.place, creation.in, creation.inInitialiserOf);
  }
  for (const CallSite& call : p_.calls)
    if (p_.functions[call.callee].form == FunctionForm::Function) pass(call.callee, call.place, call.in, call.inInitialiserOf);
  // Fields and bases that a constructor makes without a word.
  for (TypeIndex t = 0; t < p_.types.size(); ++t) {
    const TypeDecl& decl = p_.types[t];
    if (!decl.definition.known()) continue;
    for (VariableIndex v : decl.fields) {
      const TypeUse& use = p_.use(p_.variables[v].type);
      if (use.decl == kNone || use.has(kPointer | kReference | kArray) || !isInjected(use.decl)) continue;
      Place place = p_.variables[v].declarations.front();
      if (p_.file(place).child(place.node, Role::Initialiser) != kNoNode) continue;  // told by its creation
      implicit(t, use.decl, v, kNone, place);
    }
    for (const Base& base : decl.bases)
      if (base.type != kNone && isInjected(base.type)) implicit(t, base.type, kNone, base.type, decl.definition);
  }
  for (InjectTask& w : work_) {
    auto key = [&](Place x) { return std::make_tuple(p_.path(x), x.node); };
    std::sort(w.accesses.begin(), w.accesses.end(), [&](Place x, Place y) { return key(x) < key(y); });
  }
  work_.erase(std::remove_if(work_.begin(), work_.end(), [](const InjectTask& w) { return w.accesses.empty() && w.passes.empty(); }), work_.end());
  findConstant();
}

UnitKey InjectWork::keyOf(FunctionIndex in, VariableIndex inInitialiserOf) const {
  if (in == kNone) return {inInitialiserOf == kNone ? kNone : p_.variables[inInitialiserOf].owner, kNone};
  const Function& fn = p_.functions[in];
  if (fn.owner != kNone && !(fn.modifiers & kStatic)) return {fn.owner, kNone};
  return {kNone, in};
}

UnitKey InjectWork::takerOf(FunctionIndex callee) const {
  const Function& fn = p_.functions[callee];
  return fn.form == FunctionForm::Constructor ? UnitKey{fn.owner, kNone} : UnitKey{kNone, callee};
}

void InjectWork::findConstant() {
  std::map<UnitKey, std::set<UnitKey>> handsTo;
  auto edge = [&](FunctionIndex callee, FunctionIndex in, VariableIndex inInitialiserOf) {
    UnitKey to = callee == kNone ? UnitKey{kNone, kNone} : takerOf(callee);
    bool takes = std::any_of(work_.begin(), work_.end(), [&](const InjectTask& w) { return UnitKey{w.type, w.function} == to; }) || (callee != kNone && injectedParameter(callee) >= 0);
    if (takes) handsTo[keyOf(in, inInitialiserOf)].insert(to);
  };
  std::vector<UnitKey> open;
  for (TypeIndex t = 0; t < p_.types.size(); ++t)
    if (t != made_ && holdsConstant(t)) open.push_back({t, kNone});
  if (open.empty()) return;
  for (const Creation& c : p_.creations) edge(c.constructor, c.in, c.inInitialiserOf);
  for (const CallSite& c : p_.calls)
    if (p_.functions[c.callee].form == FunctionForm::Function) edge(c.callee, c.in, c.inInitialiserOf);
  std::set<UnitKey> changing;  // those that may change it, and who hands it to them
  for (const InjectTask& w : work_)
    if (!std::all_of(w.accesses.begin(), w.accesses.end(), [&](Place place) { return looksOnly(place); })) changing.insert({w.type, w.function});
  for (bool more = true; more;) {
    more = false;
    for (auto& [from, all] : handsTo)
      if (std::any_of(all.begin(), all.end(), [&](UnitKey to) { return changing.contains(to); })) more |= changing.insert(from).second;
  }
  const size_t holders = open.size();
  for (size_t i = 0; i < open.size(); ++i)
    if ((i < holders || !changing.contains(open[i])) && constant_.insert(open[i]).second)
      for (UnitKey to : handsTo[open[i]]) open.push_back(to);
}

std::string InjectWork::whyNotHanded(const InjectTask& w) const {
  if (!constant_.contains({w.type, w.function}) || resultIsConst()) return "";
  for (const InjectTask::Pass& pass : w.passes) {
    int position = injectedParameter(pass.callee);
    if (position < 0 || !p_.use(p_.variables[p_.functions[pass.callee].parameters[static_cast<size_t>(position)]].type).has(kPointeeConst)) return functionText(p_, pass.callee) + " may change the object, which is held as a constant here";
  }
  return "";
}

void InjectWork::pass(FunctionIndex callee, Place place, FunctionIndex in, VariableIndex inInitialiserOf) {
  int position = injectedParameter(callee);
  if (position < 0) return;
  const LoweredFile& file = p_.file(place);
  size_t given = 0;
  for (NodeId c : children(file, place.node)) given += file[c].role == Role::Argument;
  Kind kind = file[place.node].kind;
  if (kind == Kind::Variable) {
    // A local, field or global without arguments.
    Symbol symbol = p_.symbolAt(place);
    if (symbol.is(Symbol::Sort::Variable) && p_.variables[symbol.index()].storage == Storage::Field) return;  // told by implicit()
  }
  if (kind == Kind::Call && p_.functions[callee].form == FunctionForm::Constructor) {
    NodeId callNode = file.child(place.node, Role::Callee);
    // emplace(key, …): the first argument is the container's.
    if (callNode != kNoNode && file[callNode].kind == Kind::Member && given > 0) {
      std::string_view name = file.name(callNode);
      NodeId receiver = file.child(callNode, Role::Receiver);
      TypeUseId type = receiver == kNoNode ? 0 : p_.links[place.file].type[receiver];
      if (type && (p_.traits(place.file, type) & kKeyedCollection) && name != "emplace_back") --given;
    }
  }
  if (given > static_cast<size_t>(position)) return;
  InjectTask* w = unitOf(place, in, inInitialiserOf);
  if (!w) return;
  InjectTask::Pass entry;
  entry.callee = callee;
  entry.place = place;
  entry.in = in;
  w->passes.push_back(entry);
}

void InjectWork::implicit(TypeIndex owner, TypeIndex made, VariableIndex field, TypeIndex base, Place place) {
  FunctionIndex callee = kNone;
  for (FunctionIndex c : constructorsOf(made))
    if (injectedParameter(c) >= 0 && p_.functions[c].leastArguments == 0) callee = c;
  if (callee == kNone) return;
  std::vector<FunctionIndex> constructors = constructorsOf(owner);
  auto entry = [&](FunctionIndex in) {
    InjectTask::Pass p;
    p.callee = callee;
    p.place = place;
    p.field = field;
    p.base = base;
    p.in = in;
    workFor(owner, kNone).passes.push_back(p);
  };
  if (constructors.empty()) {
    entry(kNone);
    return;
  }
  for (FunctionIndex c : constructors) {
    const Function& fn = p_.functions[c];
    bool told = false;
    Place home = fn.home();
    const LoweredFile& file = p_.file(home);
    for (NodeId n : children(file, home.node)) {
      if (file[n].kind != Kind::FieldInit) continue;
      std::string_view name = lastPart(file.name(n));
      if (name == p_.text(p_.types[owner].name)) told = true;  // delegates
      if (field != kNone && name == p_.text(p_.variables[field].name)) told = true;
      if (base != kNone && name == p_.text(p_.types[base].name)) told = true;
    }
    if (!told) entry(c);
  }
}

void InjectWork::scanMentions() {
  const Function& accessPoint = p_.functions[accessPoint_];
  std::string name(p_.text(accessPoint.name));
  std::string owner = accessPoint.owner == kNone ? "" : std::string(p_.text(p_.types[accessPoint.owner].name));
  for (auto [file, offset] : scan_.mentions(owner, name)) {
    bool known = false;
    for (auto& [f, begin] : seen_) known |= f == file && offset >= begin && offset < begin + 200 && scan_.sameStatement(f, begin, offset);
    for (Place declaration : accessPoint.declarations) known |= declaration.file == file && p_.node(declaration).span.contains(offset);
    if (known) continue;
    byHand_.push_back({p_.files[file].path, p_.files[file].lineOf(offset), "the accessor is named where no plain call could be read: in a macro or in a branch that is not built", true});
  }
}

std::tuple<int, std::string, uint32_t> InjectWork::rank(const InjectTask& w) const {
  int kind = w.composing ? 3 : !w.accesses.empty() ? (w.type != kNone ? 0 : 1) : 2;
  Place place = w.type != kNone ? p_.types[w.type].definition : p_.functions[w.function].declarations.front();
  return {kind, p_.path(place), p_.line(place)};
}

}  // namespace elmcart

// Family "single": is it really one?
#include <algorithm>

#include "assess/facts.h"
#include "assess/families.h"
#include "flow/control.h"

namespace elmcart {
namespace {

// Without anything that changes, a second one does no harm.
bool holdsNothing(const Subject& s, const Entity& e) {
  if (!e.creation.weights.empty()) return false;
  constexpr uint32_t kHolds = kThreadType | kKeepsState | kNotSafeToShare | kFileResource;
  if (e.stateless && std::none_of(e.state.begin(), e.state.end(), [&](const StateField& field) { return variableTraits(s.program, field.variable) & kHolds; })) return true;
  const TypeDecl& type = s.program.types[objectTypeOf(s.program, e)];
  bool known = std::all_of(type.bases.begin(), type.bases.end(), [](const Base& base) { return base.type != kNone; });
  return known && std::all_of(e.state.begin(), e.state.end(), [&](const StateField& field) { return field.variable == e.slot; }) && type.definition.known();
}

// Is it a constant of its class, reached by its name alone, that stays as it was made? Another one is as good.
bool isConstantOfItsKind(const Subject& s, const Entity& e) {
  constexpr uint32_t kMoves = kThreadType | kKeepsState | kNotSafeToShare | kFileResource | kCollection | kKeyedCollection;
  if (!e.creation.weights.empty() || !std::all_of(e.accessPoints.begin(), e.accessPoints.end(), [](const AccessPoint& one) { return one.sort == AccessPoint::Sort::Slot; })) return false;
  return std::all_of(e.state.begin(), e.state.end(), [&](const StateField& field) { return field.variable == e.slot || (!(variableTraits(s.program, field.variable) & kMoves) && (!field.changes || isOfMany(s, e, field.variable))); });
}

// Does the class itself keep the object, or hand it out? Or is it a function beside it that does?
bool isOneByItsClass(const Subject& s, const Entity& e) {
  const Program& p = s.program;
  auto related = [&](TypeIndex owner) { return owner != kNone && (p.derivesFrom(e.type, owner) || p.derivesFrom(owner, e.type)); };
  if (e.slot != kNone && (related(p.variables[e.slot].owner) || p.guarantees(e.place.file).noConstructors.holds)) return true;  // a package stands for it
  return std::any_of(e.accessPoints.begin(), e.accessPoints.end(), [&](const AccessPoint& one) { return one.function != kNone && related(p.functions[one.function].owner); });
}

// A base that is neither defined in the tree nor in the language's own library may forbid copying.
bool hasForeignBase(const Program& p, TypeIndex type) {
  return p.anyBase(type, [&](TypeIndex at, const Base* through) {
    const TypeDecl& decl = p.types[at];
    auto isForeign = [&](const Base& base) { return base.type == kNone && !p.text(p.use(base.use).name).starts_with("std::"); };
    return (through && !decl.definition.known()) || std::any_of(decl.bases.begin(), decl.bases.end(), isForeign);
  });
}

// Do tests make objects of their own? Then it is meant to be made by others, too.
bool isMadeByTests(const Subject& s, TypeIndex type) {
  auto made = s.program.creationsOfType[type];
  return std::any_of(made.begin(), made.end(), [&](uint32_t c) {
    const Creation& creation = s.program.creations[c];
    return !creation.asBase && !creation.delegated && !creation.copy && s.inTests(creation.place);
  });
}

// Does a framework make its objects, because the class derives from one of its own and no code here makes any?
bool isMadeByFramework(const Program& p, TypeIndex type) {
  auto made = p.creationsOfType[type];
  return hasForeignBase(p, type) && std::all_of(made.begin(), made.end(), [&](uint32_t c) { return p.creations[c].asBase || p.creations[c].delegated; });
}

// A source file has the class for itself, with all ways to its object: no other code can name it.
bool isOfOneFile(const Program& p, const Entity& e, TypeIndex type) {
  Place home = p.types[type].definition;
  if (!home.known() || p.isHeader(home.file)) return false;
  // A slot in such a class can be named no more than the class, nor can a function of one that stands in another.
  bool apart = !p.language(home.file).dotted, nested = outermost(p, type) != type;
  auto inside = [&](const AccessPoint& one) {
    if (one.function == kNone) return p.variables[e.slot].onlyIn != kNone || (apart && p.variables[e.slot].owner == type);
    return p.functions[one.function].onlyIn != kNone || (apart && nested && p.functions[one.function].owner == type);
  };
  return std::all_of(e.accessPoints.begin(), e.accessPoints.end(), inside);
}

// Do two or more constructors that say they are open to all take what an object is to be made from? Then the shared one is a default beside others.
bool offersOthers(const Program& p, TypeIndex type) {
  const auto& methods = p.types[type].methods;
  return std::count_if(methods.begin(), methods.end(), [&](FunctionIndex m) {
           const Function& fn = p.functions[m];
           bool copies = fn.parameters.size() == 1 && p.use(p.variables[fn.parameters.front()].type).decl == type;
           return fn.form == FunctionForm::Constructor && (fn.modifiers & kPublic) && !(fn.modifiers & (kPrivate | kProtected | kDeleted)) && !fn.parameters.empty() && !copies;
         }) > 1;
}

}  // namespace

void checkOpenConstructor(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    Place where;
    TypeIndex type = objectTypeOf(s.program, e);
    if (e.harmless || e.kind != EntityKind::Singleton || type == kNone || e.accessPoints.empty() || !hasOpenConstructor(s.program, type, &where) || refusesSecond(s.program, type) || e.madeByAsking || holdsNothing(s, e) || isOfOneFile(s.program, e, type) || isMadeByFramework(s.program, type) || isMadeByTests(s, type) || offersOthers(s.program, type) || isConstantOfItsKind(s, e)) continue;
    // Where no constructor can be closed, only a class that says so is meant to be one.
    bool cannotClose = s.program.guarantees(where.file).openConstructors.holds, saysSo = isOneByItsClass(s, e);
    if (cannotClose && !saysSo) continue;
    Finding f = makeFinding(s, infoOf("single.open-constructor"), i, cannotClose || !saysSo ? Sureness::Possible : Sureness::Certain);
    f.place = where;
    bool implicit = s.program.node(where).kind == Kind::Type;
    f.message = e.accessPoints.front().name + " returns one shared " + e.shown + ", but the class has " + (implicit ? "an implicit public constructor" : "a public constructor") + ": any code can make another instance.";
    f.evidence.push_back({where, implicit ? "no constructor is declared, so the class has a public one" : "this constructor can be called from anywhere"});
    f.evidence.push_back({e.accessPoints.front().place, "this access point returns the shared instance"});
    f.advice = Advice::Enforce;
    out.push_back(std::move(f));
  }
}

void checkCopyable(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.kind != EntityKind::Singleton || e.type == kNone || !s.program.types[e.type].definition.known()) continue;
    Place definition = s.program.types[e.type].definition;
    if (!s.program.guarantees(definition.file).implicitCopy.holds || !s.program.isCopyable(e.type, definition.file)) continue;
    if (isAbstract(s.program, e.type) || holdsNothing(s, e) || !isOneByItsClass(s, e)) continue;
    if (hasForeignBase(s.program, e.type)) continue;
    // Only who gets at the object by value, reference or dereference can copy it: every access point lets them.
    FunctionIndex accessor = e.accessPoints.empty() ? kNone : e.accessPoints.front().function;
    TypeUseId result = accessor == kNone ? TypeUseId{} : s.program.functions[accessor].result;
    bool byPointer = accessor == kNone || s.program.use(result).has(kPointer) || (s.program.traits(definition.file, result) & (kOwningPointer | kPointerLike));
    // Who is given a pointer copies the object only when asked to.
    bool copied = std::any_of(s.program.creationsOfType[e.type].begin(), s.program.creationsOfType[e.type].end(), [&](uint32_t c) { return s.program.creations[c].copy; });
    Finding f = makeFinding(s, infoOf("single.copyable"), i, byPointer && !copied ? Sureness::Possible : Sureness::Certain);
    f.place = definition;
    f.message = e.shown + " is meant to have one instance, but it can be copied: a variable that takes `" + (byPointer ? "*" : "") + (e.accessPoints.empty() ? e.shown : e.accessPoints.front().name + "()") + "` by value is a second instance with its own state.";
    f.evidence.push_back({definition, "the copy constructor is not deleted, and no member forbids copying"});
    for (uint32_t c : s.program.creationsOfType[e.type])
      if (s.program.creations[c].copy) f.evidence.push_back({s.program.creations[c].place, "a copy is made here"});
    f.advice = Advice::Enforce;
    out.push_back(std::move(f));
  }
}

namespace {

bool madeTwiceInOne(const Program& p, const std::vector<Evidence>& sites) {
  std::set<std::pair<FileIndex, NodeId>> functions;
  return std::any_of(sites.begin(), sites.end(), [&](const Evidence& site) {
    Place function = p.around(site.place, Kind::Function);
    return function.node != kNoNode && !functions.insert({function.file, function.node}).second;
  });
}

}  // namespace

void checkSecondCreation(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.kind != EntityKind::Singleton || e.type == kNone || e.madeByAsking || s.program.types[e.type].form == TypeForm::Enum || s.inTests(e.place) || holdsNothing(s, e)) continue;
    // A class of the tree that makes this class decides what making an object of it means.
    bool madeByClass = false;
    if (Place definition = s.program.types[e.type].definition; definition.known())
      for (NodeId c : children(s.program.file(definition), definition.node))
        madeByClass |= s.program.file(definition)[c].role == Role::Annotation && s.program.symbolAt({definition.file, c}).is(Symbol::Sort::Type);
    if (madeByClass && s.program.guarantees(e.place.file).constructorAfterFactory.holds) continue;
    std::vector<Evidence> sites;
    bool production = false, open = hasOpenConstructor(s.program, e.type);
    // One that enters itself is made where a program begins: several mains are several programs.
    auto isEntered = [](const Entity& one) { return one.creation.time == CreationTime::Elsewhere && !one.creation.place.known(); };
    bool entersItself = isEntered(e) || refusesSecond(s.program, e.type) ||
                        std::any_of(s.entitiesOfType[e.type].begin(), s.entitiesOfType[e.type].end(), [&](size_t k) { return s.survey.entities[k].kind == EntityKind::Singleton && isEntered(s.survey.entities[k]); });
    auto madeWithBody = [&](Place place) {
      const LoweredFile& file = s.program.file(place);
      for (NodeId c : children(file, place.node))
        if (file[c].kind == Kind::Type) return true;
      return false;
    };
    std::set<FunctionIndex> factories;
    if (e.creation.place.known() && e.creation.in != kNone)
      for (uint32_t c : s.program.callsInFunction[e.creation.in]) {
        const CallSite& call = s.program.calls[c];
        if (call.place == e.creation.place || s.program.isInside(call.place, s.program.parent(e.creation.place).node)) factories.insert(call.callee);
      }
    for (uint32_t c : s.program.creationsOfType[e.creation.made != kNone ? e.creation.made : e.type]) {
      const Creation& creation = s.program.creations[c];
      if (creation.asBase || creation.delegated || creation.place == e.creation.place) continue;
      // Of a class without a name that derives from this one: an object of another class.
      if (madeWithBody(creation.place) || (e.creation.place.known() && madeWithBody(e.creation.place))) continue;
      // By what makes the shared one.
      if (creation.in != kNone && factories.count(creation.in)) continue;
      if (creation.asVariable == e.slot || (e.slot != kNone && creation.inInitialiserOf == e.slot)) continue;
      // What is put there comes from the same code, by way of a local.
      Place around = e.creation.place.known() && s.program.node(e.creation.place).kind != Kind::Create ? s.program.around(e.creation.place, Kind::Function) : Place{};
      if (around.known() && around.node != kNoNode && around.file == creation.place.file && s.program.isInside(creation.place, around.node)) continue;
      // The slot's own alternatives: several branches that fill the same slot.
      if (creation.in != kNone && creation.in == e.creation.in && e.creation.place.known() && creation.place.file == e.creation.place.file) continue;
      if (entersItself && creation.in != kNone && s.program.text(s.program.functions[creation.in].qualified) == "main") continue;
      bool ownAccessPoint = false;
      for (const AccessPoint& accessPoint : e.accessPoints) ownAccessPoint |= accessPoint.function != kNone && (accessPoint.function == creation.in || accessPoint.function == creation.constructor);
      if (ownAccessPoint) continue;
      // By the class itself or one derived from it, to hand out values of its own (a sum, a copy): its own business.
      TypeIndex by = creation.in == kNone ? kNone : s.program.functions[creation.in].owner;
      if (by != kNone && s.program.derivesFrom(by, e.type)) continue;
      sites.push_back({creation.place, creation.copy ? "a copy is made here" : "another instance is made here"});
      production |= !s.inTests(creation.place);
      open |= creation.constructor != kNone && (s.program.functions[creation.constructor].modifiers & kPublic);
    }
    // Who enters itself is made by whoever begins: each such place is the first, unless one function has two of them.
    if (entersItself && !madeTwiceInOne(s.program, sites)) continue;
    // A class that is made in many places was never meant to be one.
    if (sites.empty() || sites.size() > 5) continue;
    // Who leaves the constructor open may mean one to share, and others beside it.
    Finding f = makeFinding(s, infoOf("single.second-creation"), i, production && !open ? Sureness::Certain : Sureness::Possible);
    f.place = sites.front().place;
    f.message = e.shown + " is meant to have one instance, but " + counted(sites.size(), "place makes", "places make") + " another" + (production ? "." : ", in tests only.");
    f.evidence.push_back({e.creation.place.known() ? e.creation.place : e.place, "the shared instance is made here"});
    f.evidence.insert(f.evidence.end(), sites.begin(), sites.end());
    f.advice = production ? Advice::Inject : Advice::Keep;
    out.push_back(std::move(f));
  }
}

namespace {

bool isShared(const Entity& e) { return !e.harmless && e.type != kNone && (e.kind == EntityKind::Singleton || e.kind == EntityKind::SharedInstance); }

FunctionIndex methodNamed(const Program& p, TypeIndex type, std::string_view name) {
  for (FunctionIndex m : p.types[type].methods)
    if (p.text(p.functions[m].name) == name) return m;
  return kNone;
}

}  // namespace

void checkReinitialised(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || !p.guarantees(e.place.file).constructorAfterFactory.holds) continue;
    FunctionIndex factory = kNone;
    for (const AccessPoint& accessPoint : e.accessPoints)
      if (accessPoint.function != kNone && p.functions[accessPoint.function].form == FunctionForm::Factory) factory = accessPoint.function;
    if (factory == kNone) continue;
    // A field that the constructor sets whatever it held before.
    Place resets;
    VariableIndex field = kNone;
    for (FunctionIndex m : p.types[e.type].methods) {
      if (p.functions[m].form != FunctionForm::Constructor) continue;
      bool guarded = false;
      for (uint32_t u : p.usesInFunction[m]) {
        const Use& use = p.uses[u];
        Place branch = p.around(use.place, Kind::If);
        // A test of what the base gives says nothing of what the object held.
        NodeId condition = branch.node == kNoNode ? kNoNode : p.file(branch).child(branch.node, Role::Condition);
        bool looks = condition != kNoNode && std::any_of(p.usesInFunction[m].begin(), p.usesInFunction[m].end(), [&](uint32_t other) { return p.uses[other].place.file == branch.file && (p.uses[other].place.node == condition || p.isInside(p.uses[other].place, condition)); });
        if (use.access == Access::Read && p.node(p.parent(use.place)).kind == Kind::NullTest) guarded = true;
        if (use.access != Access::Write || use.inMember || looks || p.variables[use.variable].storage != Storage::Field || resets.known() || guarded) continue;
        resets = use.place;
        field = use.variable;
      }
    }
    if (!resets.known()) continue;
    std::vector<Evidence> again;
    for (uint32_t c : p.callsOfFunction[factory])
      if (p.calls[c].in == kNone || p.functions[p.calls[c].in].owner != e.type) again.push_back({p.calls[c].place, "the constructor runs again on the existing object"});
    Finding f = makeFinding(s, infoOf("single.reinitialised"), i, again.size() > 1 ? Sureness::Certain : Sureness::Likely);
    f.place = resets;
    f.message = "Each call of " + e.shown + "(…) returns the existing object and runs its constructor on it again, which resets " + std::string(p.text(p.variables[field].name)) + ".";
    f.evidence.push_back({p.functions[factory].declarations.front(), "returns the existing object"});
    f.evidence.push_back({resets, std::string(p.text(p.variables[field].name)) + " is set here, whatever value it had"});
    f.evidence.insert(f.evidence.end(), again.begin(), again.begin() + static_cast<std::ptrdiff_t>(std::min<size_t>(again.size(), 6)));
    f.advice = Advice::SafeInit;
    out.push_back(std::move(f));
  }
}

namespace {

// slot = this, in a constructor that anybody may call, whatever stood there: the last one that is made is found.
void checkNewestIsFound(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  if (e.accessPoints.empty() || !hasOpenConstructor(p, e.type) || refusesSecond(p, e.type)) return;
  size_t made = 0;
  for (uint32_t c : p.creationsOfType[e.type]) made += !p.creations[c].asBase && !p.creations[c].delegated && !s.inTests(p.creations[c].place);
  for (uint32_t u : p.usesOfVariable[e.slot]) {
    const Use& use = p.uses[u];
    if (use.in == kNone || p.functions[use.in].form != FunctionForm::Constructor || !putsItself(p, use) || s.inTests(use.place)) continue;
    if (forEachKnown(p, use.place, [&](const Known& test) { return namesInside(p, {use.place.file, test.condition}, e.slot); })) continue;
    Finding f = makeFinding(s, infoOf("single.replaceable"), i, made > 1 ? Sureness::Likely : Sureness::Possible);
    f.place = use.place;
    f.message = "Each " + std::string(p.text(p.types[e.type].name)) + " that is made takes the place of the one before in " + std::string(p.text(p.variables[e.slot].name)) + ": who asks later gets another object than who asked before.";
    f.evidence.push_back({use.place, "the constructor puts its object there, and does not ask whether there is one"});
    f.evidence.push_back({e.accessPoints.front().place, "it is fetched here"});
    f.advice = Advice::Inject;
    out.push_back(std::move(f));
    return;
  }
}

// A slot of the class that is public and no constant, where others can be made so.
void checkOpenSlot(const Subject& s, size_t i, std::vector<Finding>& out) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[i];
  const Variable& slot = p.variables[e.slot];
  bool open = slot.storage == Storage::StaticField && (slot.modifiers & kPublic) && !(slot.modifiers & (kConst | kConstant)) && p.use(slot.type).has(kPointer);
  // What stands in one file of a language with headers, other files cannot name.
  bool seen = p.language(e.place.file).dotted || p.isHeader(p.types[slot.owner == kNone ? e.type : slot.owner].home().file);
  if (!open || !seen || !e.creation.place.known() || p.guarantees(e.place.file).openConstructors.holds || s.inTests(e.place)) return;
  Finding f = makeFinding(s, infoOf("single.replaceable"), i, Sureness::Possible);
  f.place = slot.home();
  f.message = std::string(p.text(slot.name)) + " is public and no constant: any code can put another object in the place of " + e.shown + ".";
  f.evidence.push_back({e.creation.place, "the instance is made here"});
  f.evidence.push_back({slot.home(), "anybody can set it"});
  f.advice = Advice::Enforce;
  out.push_back(std::move(f));
}

}  // namespace

void checkReplaceable(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || e.slot == kNone) continue;
    const size_t before = out.size();
    checkNewestIsFound(s, i, out);
    // An object of the language has no slot: what it keeps is its state.
    if (!e.creation.place.known() || out.size() != before) continue;
    for (uint32_t u : p.usesOfVariable[e.slot]) {
      const Use& use = p.uses[u];
      if (use.access != Access::Write || use.throughPointer || use.inMember || use.in == kNone || s.inTests(use.place)) continue;
      if (use.in == e.creation.in || p.functions[use.in].form == FunctionForm::Initialiser || p.functions[use.in].form == FunctionForm::Constructor) continue;
      NodeId value = p.file(use.place).child(p.parent(use.place).node, Role::Value);
      // Taken away rather than replaced, or set by a function that only tests call.
      if (value == kNoNode || p.file(use.place)[value].is(Kind::Literal, LiteralForm::Null)) continue;
      // Begun anew; one of another class is another object.
      TypeIndex anew = p.file(use.place)[value].kind == Kind::Create ? p.classBehind(use.place.file, p.typeAt({use.place.file, value})) : kNone;
      if (p.file(use.place)[value].kind == Kind::Create && (anew == kNone || e.creation.made == kNone || anew == e.creation.made)) continue;
      // Made where there is none yet.
      if (branchAsksFor(p, use.place, e.slot)) continue;
      bool outside = p.functions[use.in].owner == kNone || p.functions[use.in].owner != p.variables[e.slot].owner;
      for (uint32_t c : p.callsOfFunction[use.in]) outside |= !s.inTests(p.calls[c].place);
      if (!outside) continue;
      // Whether it is exchanged while the program runs, a caller decides; who keeps what was fetched has the old one then.
      bool kept = std::any_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) { return c.alias != kNone && !s.inTests(c.place) && p.variables[c.alias].storage != Storage::Local && p.variables[c.alias].storage != Storage::Parameter; });
      Finding f = makeFinding(s, infoOf("single.replaceable"), i, kept && isCalled(s, use.in) ? Sureness::Likely : Sureness::Possible);
      f.place = use.place;
      f.message = functionName(p, use.in) + " replaces the shared instance of " + e.shown + ": code that fetched it earlier goes on with the old one, later code gets the new one.";
      f.evidence.push_back({e.creation.place, "the first instance is made here"});
      f.evidence.push_back({use.place, "the instance is replaced here"});
      f.advice = Advice::Inject;
      out.push_back(std::move(f));
      break;
    }
    if (out.size() == before && !e.stateless) checkOpenSlot(s, i, out);
  }
}

void checkCloneable(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || e.kind != EntityKind::Singleton || e.accessPoints.empty() || !p.types[e.type].definition.known() || !isOneByItsClass(s, e)) continue;
    Place definition = p.types[e.type].definition;
    const Guarantees& g = p.guarantees(definition.file);
    if (!g.clonesByDefault.holds || methodNamed(p, e.type, g.cloneHook) != kNone) continue;
    Finding f = makeFinding(s, infoOf("single.cloneable"), i, Sureness::Likely);
    f.place = definition;
    f.message = e.shown + " is meant to have one instance, but it can be cloned: its class has no " + std::string(g.cloneHook) + " that forbids cloning.";
    f.evidence.push_back({e.accessPoints.front().place, "this access point returns the shared instance"});
    f.evidence.push_back({definition, "cloning is allowed (" + std::string(g.clonesByDefault.source) + ")"});
    f.advice = Advice::Enforce;
    out.push_back(std::move(f));
  }
}

namespace {

// Is the instance compared with another by what it is, and not by what it holds?
bool isComparedByIdentity(const Program& p, const Entity& e) {
  return std::any_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& c) {
    Place at = c.place;
    if (p.node(p.parent(at)).kind == Kind::Call && p.node(at).role == Role::Callee) at = p.parent(at);
    return p.node(p.parent(at)).kind == Kind::Compare;
  });
}

}  // namespace

void checkRevivable(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || e.kind != EntityKind::Singleton || p.types[e.type].form != TypeForm::Class || !p.types[e.type].definition.known()) continue;
    Place definition = p.types[e.type].definition;
    const Guarantees& g = p.guarantees(definition.file);
    if (g.revivableBase.empty() || methodNamed(p, e.type, g.reviveHook) != kNone) continue;
    bool revivable = false;
    for (const Base& base : p.types[e.type].bases) revivable |= lastPart(p.text(p.use(base.use).name)) == g.revivableBase;
    // Two objects in which nothing changes are as good as one, unless somebody asks which of them it is.
    if (!revivable || (e.stateless && !isComparedByIdentity(p, e))) continue;
    Finding f = makeFinding(s, infoOf("single.revivable"), i, Sureness::Certain);
    f.place = definition;
    f.message = e.shown + " is meant to have one instance, but deserialisation makes another: it has no " + std::string(g.reviveHook) + " that returns the existing one.";
    f.evidence.push_back({definition, "the class can be serialised and deserialised (" + std::string(g.revivalSource) + ")"});
    f.advice = Advice::Enforce;
    out.push_back(std::move(f));
  }
}

void checkSlotShared(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || !e.creation.place.known()) continue;
    TypeIndex owner = p.variables[e.slot].owner;
    if (owner == kNone && p.variables[e.slot].function != kNone) owner = p.functions[p.variables[e.slot].function].owner;
    // A file's slot, filled by a method of the class that it was called on.
    if (owner == kNone && e.creation.in != kNone && p.node(e.creation.place).has(kVirtual)) owner = p.functions[e.creation.in].owner;
    if (owner == kNone || p.types[owner].derived.empty()) continue;
    // Each class that fills in the type parameter has a slot of its own.
    if (p.use(p.variables[e.slot].type).parameter) continue;
    // cls.slot = … stores in the class that is asked: who makes one without a look at what a base keeps has a slot of its own.
    bool looks = e.creation.innerTest.known() || e.creation.outerTest.known();
    if (p.guarantees(e.creation.place.file).classWritesAreOwn && !looks && p.node(e.creation.place).has(kVirtual)) continue;
    // Made of the class that is asked; or a subclass fills the slot with an object of its own.
    Place filled;
    if (!p.node(e.creation.place).has(kVirtual)) {
      for (uint32_t u : p.usesOfVariable[e.slot]) {
        const Use& use = p.uses[u];
        if (use.access != Access::Write || use.in == kNone || use.inMember || s.inTests(use.place)) continue;
        TypeIndex in = p.functions[use.in].owner;
        if (in == kNone || in == owner || !p.derivesFrom(in, owner)) continue;
        for (uint32_t c : p.creationsOfType[in])
          if (p.isInside(p.creations[c].place, p.parent(use.place).node) && p.creations[c].place.file == use.place.file) filled = p.creations[c].place;
      }
      if (!filled.known()) continue;
    }
    // A subclass with a slot of its own is out of it.
    std::vector<Evidence> sharing;
    for (TypeIndex d : p.types[owner].derived) {
      bool own = false;
      for (VariableIndex v : p.types[d].statics) own |= p.variables[v].name == p.variables[e.slot].name;
      if (!own && p.types[d].definition.known()) sharing.push_back({p.types[d].definition, std::string(p.text(p.types[d].name)) + " has no slot of its own and shares this one"});
    }
    // Where all ask its one subclass for it, and nobody the base, that is what the base is there for.
    bool base = false, subclass = false;
    for (const Consumer& c : e.consumers) {
      NodeId asked = receiverOf(p.file(c.place), c.place.node);
      Symbol type = asked == kNoNode || s.inTests(c.place) ? Symbol{} : p.symbolAt({c.place.file, asked});
      if (!type.is(Symbol::Sort::Type)) continue;
      base |= type.index() == owner;
      subclass |= type.index() != owner && p.derivesFrom(type.index(), owner);
    }
    if (sharing.size() < 2 && !filled.known() && subclass && !base) continue;
    // Where each class writes a slot of its own, one class finds what another stored only where that is its base.
    auto isBaseOfOthers = [&](TypeIndex d) { return !p.types[d].derived.empty(); };
    bool apart = p.guarantees(e.creation.place.file).classWritesAreOwn && p.node(e.creation.place).has(kVirtual);
    if (apart && subclass && !base && std::none_of(p.types[owner].derived.begin(), p.types[owner].derived.end(), isBaseOfOthers)) continue;
    Finding f = makeFinding(s, infoOf("single.slot-shared-by-subclasses"), i, Sureness::Certain);
    f.place = e.creation.place;
    f.message = e.shown + " and " + counted(sharing.size(), "subclass share", "subclasses share") + " one slot: the first caller decides which class of object all of them get.";
    f.evidence.push_back({p.variables[e.slot].declarations.front(), "the shared slot"});
    if (filled.known()) f.evidence.push_back({filled, "a subclass fills it with an object of its own"});
    f.evidence.insert(f.evidence.end(), sharing.begin(), sharing.end());
    f.advice = Advice::ByHand;
    out.push_back(std::move(f));
  }
}

void checkSubclassable(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.kind != EntityKind::Singleton || e.type == kNone || e.accessPoints.empty() || !p.types[e.type].definition.known()) continue;
    const TypeDecl& type = p.types[e.type];
    // An access point that makes the class it was called on means to be inherited.
    if ((type.modifiers & (kFinal | kAbstract)) || isAbstract(p, e.type) || (e.creation.made != kNone && e.creation.made != e.type)) continue;
    if (e.creation.place.known() && p.node(e.creation.place).has(kVirtual)) continue;
    Place shielded;
    bool open = false;
    for (FunctionIndex m : type.methods) {
      const Function& fn = p.functions[m];
      if (fn.form != FunctionForm::Constructor || (fn.modifiers & kDeleted)) continue;
      bool copies = fn.parameters.size() == 1 && p.use(p.variables[fn.parameters[0]].type).decl == e.type;
      if (copies) continue;
      if (fn.modifiers & kProtected) shielded = fn.declarations.front();
      else if (!(fn.modifiers & kPrivate)) open = true;
    }
    if (!shielded.known() || open || refusesSecond(p, e.type)) continue;
    std::vector<Evidence> made;
    for (TypeIndex d : type.derived) {
      for (uint32_t c : p.creationsOfType[d])
        if (!p.creations[c].asBase) made.push_back({p.creations[c].place, "makes " + std::string(p.text(p.types[d].name)) + ", a second instance"});
    }
    Finding f = makeFinding(s, infoOf("single.subclassable"), i, made.empty() ? Sureness::Likely : Sureness::Certain);
    f.place = shielded;
    f.message = e.shown + " is meant to have one instance, but a subclass can make another: its constructor is protected and the class is not final.";
    f.evidence.push_back({e.accessPoints.front().place, "this access point returns the shared instance"});
    f.evidence.push_back({shielded, "a subclass may call this constructor"});
    f.evidence.insert(f.evidence.end(), made.begin(), made.end());
    f.advice = Advice::Enforce;
    out.push_back(std::move(f));
  }
}

namespace {

// The value that a return hands out when it is a literal for nothing, or the
// slot itself as it is.
struct Handed {
  Place nothing, slot;
  bool fallsOff = false;  // `nothing` is the function, whose end can be reached
  bool byArgument = false;  // what it was given decides that nothing is returned
  bool others = false;  // it also hands out what other functions give it
};

// Is the end reached only after a failure that was told of? try { … return slot; } catch (error) { show(error); }
bool endsWithTelling(const Program& p, FunctionIndex function) {
  Place body = p.functions[function].definition;
  const LoweredFile& file = p.file(body);
  auto lastOf = [&](NodeId block) {
    NodeId last = kNoNode;
    for (NodeId c : children(file, block)) last = c;
    return last;
  };
  NodeId block = file.child(body.node, Role::Body), attempt = block == kNoNode ? kNoNode : lastOf(block);
  if (attempt == kNoNode || file[attempt].kind != Kind::Try) return false;
  NodeId tried = file.child(attempt, Role::Body), end = tried == kNoNode ? kNoNode : lastOf(tried);
  if (end == kNoNode || file[end].kind != Kind::Return) return false;
  for (NodeId c : children(file, attempt)) {
    auto tells = [&](NodeId n) { return file[n].kind == Kind::Call && tellsError(p, {body.file, c}, n); };
    if (file[c].role == Role::Handler && !anyNode(file, c, tells)) return false;
  }
  return true;
}

// Is it the function that the statement returns from, not a lambda or a class's method in it?
bool returnsFrom(const Program& p, Place statement, Place function) {
  const LoweredFile& file = p.file(statement);
  NodeId up = file.parents[statement.node];
  while (up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Lambda) up = file.parents[up];
  return up == function.node;
}

// if (U_FAILURE(status)) return nullptr; who calls it knows what it hands in.
bool isByArgument(const Program& p, Place nothing, FunctionIndex function) {
  const LoweredFile& file = p.file(nothing);
  return forEachKnown(p, nothing, [&](const Known& test) {
    return anyNode(file, test.condition, [&](NodeId n) {
      Symbol asked = p.symbolAt({nothing.file, n});
      return asked.is(Symbol::Sort::Variable) && p.variables[asked.index()].storage == Storage::Parameter && p.variables[asked.index()].function == function;
    });
  });
}

Handed handedOut(const Program& p, FunctionIndex function, VariableIndex slot) {
  Handed out;
  Place body = p.functions[function].definition;
  if (!body.known()) return out;
  const LoweredFile& file = p.file(body);
  size_t calls = 0;
  Symbol local;  // a variable that is returned and is not the slot
  for (NodeId n = body.node + 1; n < file.nodes.size() && file[n].span.begin < file[body.node].span.end; ++n) {
    if (file[n].kind != Kind::Return || !returnsFrom(p, {body.file, n}, body)) continue;
    NodeId value = file.child(n, Role::Value);
    if (value == kNoNode) continue;
    // return nil, err: who asks is told why.
    NodeId last = value;
    for (NodeId c : children(file, n))
      if (file[c].role == Role::Value) last = c;
    if (last != value && !file[last].is(Kind::Literal, LiteralForm::Null)) continue;
    while (file[value].kind == Kind::Dereference || file[value].kind == Kind::Cast) {
      NodeId inner = file.child(value, Role::Operand);
      if (inner == kNoNode) break;
      value = inner;
    }
    Symbol symbol = p.links[body.file].symbol[value];
    // What is looked for and not found is nothing: who looks knows.
    bool looksFor = !p.functions[function].parameters.empty() && anyNode(file, body.node, [&](NodeId c) { return file[c].kind == Kind::Loop; });
    if (file[value].is(Kind::Literal, LiteralForm::Null) && !looksFor) out.nothing = {body.file, n}, out.byArgument = isByArgument(p, out.nothing, function);
    else if (symbol.is(Symbol::Sort::Variable) && symbol.index() == slot) out.slot = {body.file, n};
    else if (file[value].kind == Kind::Call && ++calls > 1) out.others = true;
    else if (symbol.is(Symbol::Sort::Variable) && local.is(Symbol::Sort::Variable) && !(local == symbol)) out.others = true;
    else if (symbol.is(Symbol::Sort::Variable)) local = symbol;
  }
  // A constructor that does not say which object is meant gives the new one.
  if (!out.nothing.known() && out.slot.known() && p.functions[function].form != FunctionForm::Constructor && reachesEnd(p, function) == Answer::Yes && !endsWithTelling(p, function)) {
    out.fallsOff = true;
    out.nothing = body;
  }
  return out;
}

// Does the function, or one that it calls, set the slot, or stop when it is empty?
bool seesTo(const Program& p, FunctionIndex function, VariableIndex slot, int depth = 0) {
  if (function == kNone || depth > 4) return false;
  for (uint32_t u : p.usesInFunction[function]) {
    const Use& use = p.uses[u];
    if (use.variable != slot) continue;
    if ((use.access == Access::Write || use.access == Access::Update) && !use.inMember) return true;
    if (p.around(use.place, Kind::NullTest).node != kNoNode) return true;
  }
  const Function& fn = p.functions[function];
  if (fn.definition.known()) {
    const LoweredFile& file = p.file(fn.definition);
    for (NodeId n = fn.definition.node; n < file.nodes.size() && file[n].span.begin < file[fn.definition.node].span.end; ++n)
      if (file[n].kind == Kind::Throw) return true;
  }
  for (uint32_t c : p.foreignCallsInFunction[function])
    if (p.guarantees(p.foreignCalls[c].place.file).callTraits(p.text(p.foreignCalls[c].name)) & kAborts) return true;
  for (uint32_t c : p.callsInFunction[function])
    if (seesTo(p, p.calls[c].callee, slot, depth + 1)) return true;
  return false;
}

}  // namespace

namespace {

// Does its signature say that there may be none? Then who calls it is told.
bool saysMayBeNone(const Program& p, FunctionIndex function) {
  for (Place place : p.functions[function].declarations) {
    NodeId type = p.file(place).child(place.node, Role::Type);
    if (type == kNoNode) continue;
    std::string_view name = lastPart(p.file(place).name(type));
    if (p.file(place)[type].has(kMayBeNone) || name == "Optional" || name == "optional") return true;
  }
  return false;
}

// Is it asked for something at once, or by the name that it is given, so that nothing there fails?
bool isUsedAtOnce(const Program& p, Place call) {
  Place up = p.parent(call);
  while (p.node(up).kind == Kind::Cast || p.node(up).kind == Kind::Await) call = up, up = p.parent(up);
  if (p.node(call).role == Role::Receiver || p.node(up).kind == Kind::Dereference) return true;
  return p.node(up).kind == Kind::Variable || p.node(up).kind == Kind::Assign;
}

// Does who calls it look at what comes back, or want nothing of it?
bool bearsNothing(const Program& p, Place call) {
  const LoweredFile& file = p.file(call);
  for (NodeId below = call.node, up = file.parents[below]; up != kNoNode; below = up, up = file.parents[up]) {
    const Node& node = file[up];
    if (node.kind == Kind::Block || node.kind == Kind::ExpressionStatement || node.kind == Kind::NullTest) return true;
    if (node.kind == Kind::Cast || node.kind == Kind::Await) continue;
    if (node.kind == Kind::Member) return node.has(kIfThere);
    if (file[below].role == Role::Condition || node.kind == Kind::Logic) return true;
    NodeId target = node.kind == Kind::Variable ? up : node.kind == Kind::Assign ? file.child(up, Role::Target) : kNoNode;
    Symbol local = target == kNoNode ? Symbol{} : p.symbolAt({call.file, target});
    if (!local.is(Symbol::Sort::Variable) || p.variables[local.index()].storage != Storage::Local) return false;
    // if (desk) desk.note(): the first thing that is done with the local is to ask for it.
    for (uint32_t u : p.usesOfVariable[local.index()]) {
      const Use& use = p.uses[u];
      if (use.place.file != call.file || use.place.node < call.node) continue;
      Place parent = p.parent(use.place);
      return p.around(use.place, Kind::NullTest).node != kNoNode || p.node(use.place).role == Role::Condition || p.node(parent).kind == Kind::Logic;
    }
    return true;
  }
  return false;
}

}  // namespace

void checkMayReturnNothing(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || e.slot == kNone || !e.creation.place.known() || e.creation.time != CreationTime::Lazy) continue;
    if (p.variables[e.slot].storage == Storage::Field) continue;  // made with the object that it is a member of
    const TypeUse& held = p.use(p.variables[e.slot].type);
    if (held.decl != kNone && p.types[held.decl].form == TypeForm::Enum) continue;  // one of several values
    for (const AccessPoint& accessPoint : e.accessPoints) {
      if (accessPoint.function == kNone || s.inTests(accessPoint.place) || saysMayBeNone(p, accessPoint.function)) continue;
      Handed handed = handedOut(p, accessPoint.function, e.slot);
      FunctionForm form = e.creation.in == kNone ? FunctionForm::Initialiser : p.functions[e.creation.in].form;
      bool elsewhere = e.creation.in != accessPoint.function && form != FunctionForm::Initialiser && form != FunctionForm::Constructor && p.variables[e.slot].form == VariableForm::Plain && p.variables[e.slot].storage != Storage::FunctionStatic;
      bool empty = handed.slot.known() && elsewhere && !seesTo(p, accessPoint.function, e.slot);
      if ((!handed.nothing.known() && !empty) || handed.others) continue;
      std::vector<Evidence> callers;
      size_t calls = 0;
      bool fails = false;
      for (uint32_t c : p.callsOfFunction[accessPoint.function]) {
        if (s.inTests(p.calls[c].place)) continue;
        ++calls;
        if (bearsNothing(p, p.calls[c].place)) continue;
        bool asked = isUsedAtOnce(p, p.calls[c].place);
        // Best told of are those that fail.
        callers.insert(asked && !fails ? callers.begin() : callers.end(), {p.calls[c].place, asked ? "used here without a test" : "handed on here without a test"});
        fails |= asked;
      }
      if (calls > 0 && callers.empty()) continue;
      if (callers.size() > 4) callers.resize(4);
      // Most programs set such a slot first of all: whether all do, no text tells; nor what those do who are not read here.
      Finding f = makeFinding(s, infoOf("single.may-return-nothing"), i, handed.nothing.known() && fails && !handed.byArgument ? Sureness::Certain : Sureness::Possible);
      f.place = handed.nothing.known() ? handed.nothing : handed.slot;
      std::string what = functionName(p, accessPoint.function);
      if (handed.nothing.known()) {
        f.message = what + " returns " + e.shown + ", but one of its paths returns nothing: a caller that does not test the result fails.";
        f.evidence.push_back({handed.nothing, handed.fallsOff ? "its end is reached without a return" : "nothing is returned here"});
      } else {
        f.message = what + " returns " + std::string(p.text(p.variables[e.slot].name)) + " without a test: before " + (e.creation.in == kNone ? std::string("it is set") : functionName(p, e.creation.in) + " has run") + " that is nothing.";
        f.evidence.push_back({handed.slot, "returned without a test"});
        f.evidence.push_back({e.creation.place, "set here, by another function"});
      }
      f.evidence.insert(f.evidence.end(), callers.begin(), callers.end());
      f.advice = Advice::SafeInit;
      out.push_back(std::move(f));
      break;
    }
  }
}

}  // namespace elmcart

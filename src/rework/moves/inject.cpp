#include "rework/moves/inject.h"

#include <algorithm>
#include <map>
#include <optional>

#include "assess/facts.h"
#include "base/text.h"
#include "rework/moves/handing_plan.h"
#include "rework/retire.h"
#include "rework/writing.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

// The places of one class that a step changes.
struct Unit {
  TypeIndex type = kNone;
  std::vector<Place> inMembers;                              // accesses outside of constructors
  std::map<FunctionIndex, std::vector<Place>> inConstructors;
  std::vector<std::pair<VariableIndex, Place>> firstValues;  // accesses in what fields are set to in their declarations
  size_t count() const {
    size_t n = inMembers.size() + firstValues.size();
    for (auto& [function, places] : inConstructors) n += places.size();
    return n;
  }
};

class InjectPlan : private HandingPlan {
 public:
  InjectPlan(const Analysis& a, size_t entity, PlanMemory& memory) : InjectPlan(a, a.survey.entities[entity], nullptr, memory) { entity_ = entity; }
  InjectPlan(const Analysis& a, const Entity& entity, const Given* given, PlanMemory& memory) : HandingPlan(a, entity, given, memory) {}

  std::string refusal() const {
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (e_.kind == EntityKind::StaticHolder || e_.kind == EntityKind::ThreadLocal) return "inject hands in one object, and this is a " + std::string(kindText(e_.kind));
    if (e_.slot != kNone && p_.use(p_.variables[e_.slot].type).decl != kNone && p_.use(p_.variables[e_.slot].type).has(kArray)) return "its slot holds many objects, not one";
    // By an accessor, or by the slot's name.
    bool plain = false, function = false;
    for (const AccessPoint& accessPoint : e_.accessPoints) {
      if (accessPoint.function == kNone || !isFreeOrStatic(accessPoint.function)) continue;
      function = true;
      plain |= givesShared(p_, e_, accessPoint.function) && p_.functions[accessPoint.function].leastArguments == 0;
    }
    plain |= !function && e_.slot != kNone;
    for (const Consumer& c : e_.consumers) {
      bool own = c.in != kNone && isAccessPoint(c.in);
      plain |= !own && c.alias == kNone && accessAt(c).known();
    }
    if (!plain) return "its accessor takes arguments";
    if (e_.madeByAsking) return "it is reached by making it: give it an accessor first";
    return "";
  }

  NextStep run() {
    describe();
    collect();
    if (!seam() && !lift() && !inFunctions() && !callsInClasses() && memory_.retire && !compose() && !dropDefault()) retire();
    if (!out_.found)
      for (const Creation& c : p_.creations)
        if (isMakersOwn(c) && lacksIt(c))
          leave(c.place, "what takes the " + shown_ + " is made here without it: by default it is fetched as before", true, false);
    out_.finished = !out_.found && std::none_of(out_.byHand.begin(), out_.byHand.end(), [](const ByHand& b) { return b.blocksRetire; });
    return std::move(out_);
  }

 private:
  // ----- what there is to do

  void collect() {
    std::set<std::pair<FileIndex, uint32_t>> seen;
    std::map<TypeIndex, Unit> units;
    for (const Consumer& c : e_.consumers) {
      if (c.alias != kNone || !sameLanguage(c.place) || inTests(c.place)) continue;
      Place access = accessAt(c);
      if (!access.known()) {
        if (c.access == Access::Write && !c.reach) continue;
        if (c.reach && !asksReader(c.place) && !holdsFallback(c.place)) leave(c.place, "the way by which it is reached here is not written as its accessor or its name", false, true);
        continue;
      }
      if (!seen.insert({access.file, p_.node(access).span.begin}).second || isFallback(access) || isDefault(access)) continue;
      if (!memory_.isChosen(p_.path(access))) {
        leave(access, "its file was not chosen (--only)", true, false);
        continue;
      }
      TypeIndex unit = c.in != kNone ? unitOf(p_, c.in) : ownerOfInitialiser(c.inInitialiserOf);
      if (isOwn(unit) && c.in != kNone) continue;
      if (unit == kNone) {
        leaveOutside(c, access);
        continue;
      }
      if (isAssigned(access)) {
        leave(access, "here the slot itself is set", true, false);
        continue;
      }
      if (isUnused(access)) {
        leave(access, "nothing is done with it here: it is only seen to that the object is there", true, false);
        continue;
      }
      bool field = c.in == kNone || (writer_->firstValuesSeeParameters() && p_.functions[c.in].form == FunctionForm::Initialiser);
      std::string noObject = writer_->whyNoObject(spot(access));
      bool constructor = !field && p_.functions[c.in].form == FunctionForm::Constructor && p_.functions[c.in].owner == unit;
      // A closure in a constructor may see the object only.
      if (constructor && noObject.empty() && !writer_->can({.kind = ChangeKind::Read, .at = spot(access), .in = around(access), .looksOnly = looksOnly(access)}).empty()) constructor = !writer_->holdsByReference();
      if (!field && !constructor && !noObject.empty()) {
        leave(access, noObject, false, true);
        continue;
      }
      bool first = field && !noObject.empty();
      if (std::string reason = first ? whyNotMoved(c.inInitialiserOf) : ""; !reason.empty()) {
        leave(access, "a field's first value is worked out before the constructor has the object, and " + reason, false, true);
        continue;
      }
      Unit& u = units[unit];
      u.type = unit;
      if (first) {
        u.firstValues.emplace_back(c.inInitialiserOf, access);
        continue;
      }
      if (constructor) u.inConstructors[c.in].push_back(access);
      else u.inMembers.push_back(access);
    }
    if (writer_->hasMacros()) leaveMentions();
    for (auto& [type, unit] : units) {
      std::sort(unit.inMembers.begin(), unit.inMembers.end(), [&](Place x, Place y) { return std::make_pair(p_.path(x), p_.node(x).span.begin) < std::make_pair(p_.path(y), p_.node(y).span.begin); });
      units_.push_back(std::move(unit));
    }
    std::sort(units_.begin(), units_.end(), [&](const Unit& x, const Unit& y) { return orderOf(x.type) < orderOf(y.type); });
  }
  // Why a field cannot get its first value in the constructors instead; empty: it can.
  std::string whyNotMoved(VariableIndex field) {
    if (writer_->firstValuesSeeParameters()) return "";
    if (p_.variables[field].storage != Storage::Field) return "it belongs to no object";
    for (uint32_t u : p_.usesOfVariable[field])
      if (p_.uses[u].in == kNone || p_.functions[p_.uses[u].in].form == FunctionForm::Initialiser) return "another value is worked out from it before the constructor runs";
    return writer_->can({ChangeKind::MoveInitialiser, spot(p_.variables[field].home()), &factsOf(p_.variables[field].owner), From::Parameter, {}});
  }
  void moveFirst(VariableIndex field, const ClassFacts& facts, std::vector<Change>& changes) const {
    if (!writer_->firstValuesSeeParameters()) changes.push_back({ChangeKind::MoveInitialiser, spot(p_.variables[field].home()), &facts, From::Parameter, {}});
  }
  TypeIndex ownerOfInitialiser(VariableIndex v) const { return v == kNone ? kNone : p_.variables[v].owner; }

  void leaveOutside(const Consumer& c, Place access) {
    if (c.in == kNone) {  // where the program is put together
      bool early = writer_->injectsFunctions() && c.inInitialiserOf != kNone;
      if (early) leave(access, "it stands in the initialiser of a variable with static lifetime, where nothing can be handed in", false, memory_.retire);
      return;
    }
    if (writer_->takesByFields() && memory_.takers.contains(functionText(p_, c.in))) return;  // what it hands on to the one beside it
    if (writer_->takesByFields() && p_.functions[c.in].form == FunctionForm::Function) functions_[c.in].push_back(access);
    const Function& in = p_.functions[c.in];
    bool own = isOwn(in.owner) || isAccessPoint(c.in);
    if (own || in.form == FunctionForm::Initialiser || lowerCase(p_.text(in.name)) == "main" || isHandedIn(access)) return;
    bool property = in.form == FunctionForm::Getter || in.form == FunctionForm::Setter;
    if (writer_->injectsFunctions()) {
      if (!takesAsFunction(c.in)) functions_[c.in].push_back(access);
      return;
    }
    leave(access, functionText(p_, c.in) + (property ? " belongs to no object, and takes no parameters" : " belongs to no object: the move inject-parameter gives it a parameter"), property, false);
  }
  // Where it is named though no call was read: in macros, in branches that are not built.
  void leaveMentions() {
    for (const AccessPoint& accessPoint : e_.accessPoints) {
      if (accessPoint.function == kNone || accessPoint.sort != AccessPoint::Sort::Accessor) continue;
      const Function& fn = p_.functions[accessPoint.function];
      for (auto [file, offset] : around_.mentions(fn.owner == kNone ? "" : std::string(p_.text(p_.types[fn.owner].name)), std::string(p_.text(fn.name)))) {
        if (!sameLanguage({file, 0}) || inTests({file, 0})) continue;
        auto holds = [&, f = file, o = offset](Place place) { return place.file == f && p_.node(place).span.contains(o); };
        const auto& calls = p_.callsOfFunction[accessPoint.function];
        bool known = std::any_of(fn.declarations.begin(), fn.declarations.end(), holds);
        for (uint32_t c : calls) {
          uint32_t begin = p_.node(p_.calls[c].place).span.begin;
          known |= p_.calls[c].place.file == file && offset >= begin && offset < begin + kLongestAccess && around_.sameStatement(file, begin, offset);
        }
        if (!known) out_.byHand.push_back({p_.files[file].path, p_.files[file].lineOf(offset), "the accessor is named where no plain call could be read: in a macro or in a branch that is not built", true, false}), functionAround_.push_back(kNone);
      }
    }
  }
  static constexpr uint32_t kLongestAccess = 200;  // bytes

  bool isHandedIn(Place access) const {
    return std::any_of(p_.creations.begin(), p_.creations.end(), [&](const Creation& c) { return c.place.file == access.file && isTaker(c.type) && p_.isInside(access, c.place.node); });
  }

  // ----- steps

  // Who in a constructor is called in its stead or for a base, and takes the object by now or in this step.
  void handOnInside(FunctionIndex constructor, const std::set<FunctionIndex>& taking, const ClassFacts& facts, std::vector<Change>& changes) {
    Spot in = spot(p_.functions[constructor].home());
    bool base = false, knownBase = false;
    uint32_t position = kLast;
    for (uint32_t k : p_.creationsInFunction[constructor]) {
      const Creation& c = p_.creations[k];
      bool taken = c.constructor != kNone && (taking.contains(c.constructor) || accepts(twinOf(c)));
      if (c.delegated && taken) changes.push_back({ChangeKind::HandOn, spot(c.place), &facts, From::Parameter, in, positionIn(twinOf(c)), calledBy(c)});
      if (c.asBase && taken) position = positionIn(twinOf(c));
      knownBase |= c.asBase && c.constructor != kNone;
      base |= c.asBase && taken && !isGiven(c.place);
    }
    // A base is called by its constructor's name, or by a word for it.
    if (!knownBase) eachOfLineage(p_.functions[constructor].owner, [&](TypeIndex t) { base |= t != p_.functions[constructor].owner && isTaker(t); });
    if (base && !delegates(constructor) && !writer_->passesAnything(in)) changes.push_back({ChangeKind::HandToBase, in, &facts, From::Parameter, in, position});
  }

  bool delegates(FunctionIndex constructor) const {
    const auto& made = p_.creationsInFunction[constructor];
    return std::any_of(made.begin(), made.end(), [&](uint32_t c) { return p_.creations[c].delegated; });
  }

  // The class takes the object in these constructors, and keeps it if asked to. A text: why not.
  // `everywhere`: in all that make one, whether they keep it or not.
  std::string takeIn(TypeIndex type, bool keep, const std::set<FunctionIndex>& wanted, bool passesOnly, std::vector<Change>& changes, bool everywhere = false) {
    const ClassFacts& facts = factsOf(type);
    if (std::string reason = whyNotMadeHere(type); !reason.empty()) return reason;
    std::vector<FunctionIndex> all = makersOf(type);
    std::set<FunctionIndex> taking = wanted;
    if (keep || everywhere)
      for (FunctionIndex c : all)
        if (!delegates(c)) taking.insert(c);
    // One that hands on to one of these takes it to hand it on.
    for (bool more = true; more;) {
      more = false;
      for (uint32_t k : p_.creationsOfType[type])
        if (const Creation& c = p_.creations[k]; c.delegated && c.in != kNone && taking.contains(c.in) && c.constructor != kNone && !accepts(twinOf(c))) more |= taking.insert(c.constructor).second;
    }
    bool inherits = keep && keeps(type);
    if (VariableIndex field = inherits ? keptInBase(type) : kNone; field != kNone && p_.variables[field].modifiers & kPrivate) changes.push_back({ChangeKind::OpenField, spot(p_.variables[field].home()), &factsOf(p_.variables[field].owner), From::Parameter, {}});
    if (keep && !inherits) changes.push_back({ChangeKind::KeepInField, facts.type, &facts, From::Parameter, {}, kLast, {}, passesOnly});
    for (FunctionIndex c : all)
      if (taking.contains(c) && takes(c) < 0) {
        changes.push_back({ChangeKind::TakeInConstructor, spot(p_.functions[c].home()), &facts, From::Parameter, {}, kLast, {}, passesOnly || inherits});
        handOnInside(c, taking, facts, changes);
      }
    bool byBase = inherits && takesByBase(type);
    if (all.empty() && ((keep && !inherits) || everywhere || (byBase && !writer_->inheritsConstructors()))) {
      changes.push_back({ChangeKind::TakeInConstructor, {}, &facts, From::Parameter, {}, kLast, {}, passesOnly});
      if (takesByBase(type)) changes.push_back({ChangeKind::HandToBase, {}, &facts, From::Parameter, {}});
    }
    return "";
  }

  bool seam() {
    for (const Unit& unit : units_) {
      const ClassFacts& facts = factsOf(unit.type);
      std::vector<Change> changes;
      std::set<FunctionIndex> wanted;
      for (auto& [constructor, places] : unit.inConstructors) wanted.insert(constructor);
      bool keep = !unit.inMembers.empty();
      for (auto& [field, access] : unit.firstValues) moveFirst(field, facts, changes);
      std::string reason = takeIn(unit.type, keep, wanted, false, changes, !unit.firstValues.empty());
      for (auto& [field, access] : unit.firstValues) changes.push_back({ChangeKind::Read, spot(access), &facts, From::Parameter, {}});
      for (Place access : unit.inMembers) changes.push_back({.kind = ChangeKind::Read, .at = spot(access), .of = &facts, .from = From::Field, .in = around(access), .looksOnly = looksOnly(access)});
      for (auto& [constructor, places] : unit.inConstructors)
        for (Place access : places) changes.push_back({.kind = ChangeKind::Read, .at = spot(access), .of = &facts, .in = spot(p_.functions[constructor].home()), .looksOnly = looksOnly(access)});
      Step step = stepOf(StepKind::Seam, unit.type, writer_->takesByFields() ? "has a field for the " + shown_ + "; where nobody fills it, it is fetched as before" : keep ? "takes the " + shown_ + " in its constructor; by default it " + (given_ ? "makes one" : "fetches it as before") : "takes the " + shown_ + " in the constructors that use it; by default it is fetched as before");
      step.callSites = unit.count();
      if (writer_->takesByFields() && !keeps(unit.type)) fillAll(facts, unit.type, changes);
      if (reason.empty()) reason = take(std::move(step), changes, {unit.type});
      if (reason.empty()) return true;
      leaveUnit(unit, reason);
    }
    return false;
  }
  // Where the field can be filled wherever one is made, it is, with what was fetched before.
  void fillAll(const ClassFacts& facts, TypeIndex type, std::vector<Change>& changes) {
    std::vector<Change> fills;
    for (uint32_t c : p_.creationsOfType[type]) {
      const Creation& creation = p_.creations[c];
      Change fill{ChangeKind::HandOn, spot(creation.place), &facts, From::Fetched, around(creation.place)};
      if (inTests(creation.place) || !writer_->can(fill).empty()) return;
      fills.push_back(fill);
    }
    changes.insert(changes.end(), fills.begin(), fills.end());
  }
  void leaveUnit(const Unit& unit, const std::string& reason) {
    for (Place access : unit.inMembers) leave(access, reason, false, true);
    for (auto& [field, access] : unit.firstValues) leave(access, reason, false, true);
    for (auto& [constructor, places] : unit.inConstructors)
      for (Place access : places) leave(access, reason, false, true);
  }

  // ----- who makes what takes it

  // The constructor that would take the object at this creation; kNone: none does.
  FunctionIndex twinOf(const Creation& creation) const {
    if (creation.constructor != kNone && accepts(creation.constructor)) return creation.constructor;
    FunctionIndex found = kNone;
    eachOfLineage(creation.type, [&](TypeIndex t) {
      std::vector<FunctionIndex> all = makersOf(t);
      if (found != kNone || (t != creation.type && (!writer_->inheritsConstructors() || !makersOf(creation.type).empty()))) return;
      for (FunctionIndex c : all) {
        bool beside = creation.constructor != kNone && takes(c) >= 0 && isBeside(creation.constructor, c);
        if (beside || (creation.constructor == kNone && accepts(c))) found = c;
      }
    });
    return found;
  }
  // Does the second take what the first takes, and the object behind that?
  bool isBeside(FunctionIndex first, FunctionIndex second) const {
    const std::vector<VariableIndex>&a = p_.functions[first].parameters, &b = p_.functions[second].parameters;
    if (b.size() != a.size() + 1) return false;
    for (size_t i = 0; i < a.size(); ++i)
      if (!(p_.use(p_.variables[a[i]].type) == p_.use(p_.variables[b[i]].type))) return false;
    return true;
  }
  bool canBeGiven(const Creation& creation) const { return writer_->takesByFields() ? isTaker(creation.type) && keeps(creation.type) : twinOf(creation) != kNone; }
  // Where tests take what they need as the program does: when the accessor is to go.
  bool testsCompose() const { return memory_.retire && writer_->injectsFunctions(); }
  // An object of its own that production code makes, and not the shared one.
  // What a parameter is where nothing is given is made without the object at hand.
  bool isMakersOwn(const Creation& c) const { return !c.asBase && !(c.copy && writer_->holdsByReference()) && p_.around(c.place, Kind::Parameter).node == kNoNode && !c.delegated && c.type != e_.type && sameLanguage(c.place) && (testsCompose() || !inTests(c.place)); }
  bool lacksIt(const Creation& c) { return canBeGiven(c) && !isGiven(c.place); }
  // Made by a constructor that calls one of a base or of its own class that takes the object, and has nothing to hand it.
  bool couldPass(const Creation& creation) {
    TypeIndex type = creation.type;
    if (FunctionIndex own = creation.constructor; own != kNone && isTaker(type) && !accepts(twinOf(creation)))
      for (uint32_t k : p_.creationsInFunction[own])
        if (const Creation& c = p_.creations[k]; c.delegated && accepts(twinOf(c)) && !isGiven(c.place)) return true;
    bool base = false;
    eachOfLineage(type, [&](TypeIndex t) { base |= t != type && isTaker(t); });
    std::vector<FunctionIndex> own = makersOf(type);
    bool bare = own.empty() && takesByBase(type) && !writer_->inheritsConstructors();
    return base && !isTaker(type) && (bare || std::any_of(own.begin(), own.end(), [&](FunctionIndex c) { return !accepts(c); }));
  }

  bool lift() {
    for (bool passing : {true, false})
      for (const Creation& creation : p_.creations) {
        if (!isMakersOwn(creation) || !memory_.isChosen(p_.path(creation.place))) continue;
        TypeIndex maker = inTests(creation.place) ? kNone : makerOf(creation);
        if (maker == kNone || isOwn(maker) || !isGivenOn(creation, maker)) continue;
        if (passing ? couldPass(creation) && pass(creation) : lacksIt(creation) && liftTo(maker)) return true;
      }
    return false;
  }

  // The class whose code makes it, in a function or as a field's first value.
  TypeIndex makerOf(const Creation& c) const { return c.in != kNone ? unitOf(p_, c.in) : firstOf(c) != kNone ? p_.variables[c.inInitialiserOf].owner : kNone; }
  // The field of each object that it is the first value of, or kNone.
  VariableIndex firstOf(const Creation& c) const { return c.in == kNone && c.inInitialiserOf != kNone && p_.variables[c.inInitialiserOf].storage == Storage::Field ? c.inInitialiserOf : kNone; }
  bool isGivenOn(const Creation& c, TypeIndex maker) { return memory_.retire || hasIt(maker, c.in) || isBelowKeepers(maker); }

  // Has code of such a class the object at hand by now?
  bool hasIt(TypeIndex maker, FunctionIndex in) const {
    if (in != kNone) return takes(in) >= 0 || keeps(maker);
    std::vector<FunctionIndex> own = makersOf(maker);
    return keeps(maker) || std::any_of(own.begin(), own.end(), [&](FunctionIndex c) { return takes(c) >= 0; });
  }
  // Is an object of the class made, in however many steps, by one that keeps the shared object? Then what is made
  // in it would be left with the shared one while its maker has another.
  bool isBelowKeepers(TypeIndex type) {
    if (!below_) {
      std::vector<TypeIndex> makers;
      for (TypeIndex t = 0; t < p_.types.size(); ++t)
        if (isTaker(t) && keeps(t)) makers.push_back(t);
      below_ = madeBelow(p_, a_.config.tests, std::move(makers));
    }
    return below_->contains(type);
  }

  // A derived class takes the object for its base.
  bool pass(const Creation& creation) {
    TypeIndex type = creation.type;
    if (!passedBy_.insert(creation.constructor == kNone ? kNone - 1 - type : creation.constructor).second) return false;
    std::vector<Change> changes;
    std::set<FunctionIndex> wanted;
    for (FunctionIndex c : makersOf(type))
      if (creation.constructor == c || (creation.constructor == kNone && makersOf(type).size() == 1)) wanted.insert(c);
    bool bare = makersOf(type).empty() && takesByBase(type);
    if (wanted.empty() && !bare) return false;  // which of them is called is not known
    std::string reason = bare ? whyNotMadeHere(type) : takeIn(type, false, wanted, true, changes);
    if (bare) changes = {{ChangeKind::TakeInConstructor, {}, &factsOf(type), From::Parameter, {}, kLast, {}, true}, {ChangeKind::HandToBase, {}, &factsOf(type), From::Parameter, {}}};
    bool hands = std::any_of(changes.begin(), changes.end(), [](const Change& c) { return c.kind == ChangeKind::HandOn || c.kind == ChangeKind::HandToBase; });
    if (!hands) return false;
    bool base = std::any_of(changes.begin(), changes.end(), [](const Change& c) { return c.kind == ChangeKind::HandToBase; });
    Step step = stepOf(StepKind::Lift, type, base ? "takes the " + shown_ + " for its base class" : "takes the " + shown_ + " in one more constructor");
    if (!base && !bare) step.subject += " " + std::to_string(p_.functions[creation.constructor].parameters.size());
    step.passesOnly = true;
    if (reason.empty()) reason = take(std::move(step), changes, {type});
    if (!reason.empty()) leave(creation.place, reason + "; by default it is fetched as before", true, false);
    return reason.empty();
  }

  bool liftTo(TypeIndex maker) {
    if (!passed_.insert(maker).second) return false;
    const ClassFacts& facts = factsOf(maker);
    std::vector<const Creation*> made;
    std::set<FunctionIndex> wanted;
    std::set<VariableIndex> firsts;
    bool keep = false;
    for (const Creation& c : p_.creations) {
      if (!isMakersOwn(c) || makerOf(c) != maker || !lacksIt(c) || !isGivenOn(c, maker)) continue;
      if (VariableIndex field = firstOf(c); field != kNone) {
        if (std::string reason = whyNotMoved(field); !reason.empty()) {
          leave(c.place, reason + "; by default it is fetched as before", true, false);
          continue;
        }
        firsts.insert(field);
        made.push_back(&c);
        continue;
      }
      made.push_back(&c);
      bool constructor = p_.functions[c.in].form == FunctionForm::Constructor && p_.functions[c.in].owner == maker;
      if (constructor) wanted.insert(c.in);
      else keep = true;
    }
    if (made.empty()) return false;
    std::vector<Change> changes;
    for (VariableIndex field : firsts) moveFirst(field, facts, changes);
    std::string reason = keep && keeps(maker) && wanted.empty() && firsts.empty() ? "" : takeIn(maker, keep, wanted, true, changes, !firsts.empty());
    for (const Creation* c : made) {
      bool parameter = c->in == kNone || wanted.contains(c->in);
      changes.push_back({ChangeKind::HandOn, spot(c->place), &facts, parameter ? From::Parameter : From::Field, c->in == kNone ? Spot{} : spot(p_.functions[c->in].home()), positionIn(twinOf(*c)), calledBy(*c)});
    }
    if (writer_->takesByFields() && !keeps(maker)) fillAll(facts, maker, changes);
    Step step = stepOf(StepKind::Lift, maker, isTaker(maker) ? "passes what it has on to what it makes" : "takes the " + shown_ + " and passes it on to what it makes");
    step.passesOnly = std::none_of(units_.begin(), units_.end(), [&](const Unit& u) { return u.type == maker; });
    step.creationSites = made.size();
    if (reason.empty()) reason = take(std::move(step), changes, {maker});
    if (reason.empty()) return true;
    for (const Creation* c : made) leave(c->place, reason + "; by default it is fetched as before", true, false);
    return false;
  }

  // ----- functions that make what takes it, where there are no constructors

  bool isStart(FunctionIndex f) const { return p_.text(p_.functions[f].name) == "main" || p_.text(p_.functions[f].name) == "init"; }
  bool makesTakers(FunctionIndex f) const {
    for (uint32_t c : p_.creationsInFunction[f])
      if (isTaker(p_.creations[c].type)) return true;
    return false;
  }
  bool inFunctions() {
    if (writer_->injectsFunctions()) return functionsTake();
    for (auto& [function, places] : functions_) {
      if (isStart(function) || inTests(p_.functions[function].home())) continue;
      bool makes = makesTakers(function);
      for (uint32_t c : p_.callsInFunction[function]) makes |= makesTakers(p_.calls[c].callee) || memory_.takers.contains(functionText(p_, p_.calls[c].callee));
      bool own = std::any_of(places.begin(), places.end(), [&](Place place) { return !isHandedIn(place); });
      if (makes && own && takeInFunction(function, 0)) return true;
    }
    return false;
  }
  bool takeInFunction(FunctionIndex function, int depth) {
    // First those that it calls, so that nothing is left with the shared object.
    std::vector<Change> changes{{ChangeKind::TakeInFunction, spot(p_.functions[function].home()), nullptr, From::Parameter, {}}};
    Spot in = changes.front().at;
    for (uint32_t c : p_.callsInFunction[function]) {
      FunctionIndex callee = p_.calls[c].callee;
      bool taking = memory_.takers.contains(functionText(p_, callee));
      if (!taking && makesTakers(callee) && functions_.contains(callee) && depth < 8 && takeInFunction(callee, depth + 1)) return true;
      if (taking) changes.push_back({ChangeKind::HandOn, spot(p_.calls[c].place), nullptr, From::Parameter, in});
    }
    for (Place place : functions_[function]) changes.push_back({ChangeKind::Read, spot(place), nullptr, From::Parameter, in});
    Step step;
    step.kind = StepKind::InjectParameter;
    step.subject = functionText(p_, function);
    step.title = step.subject + " hands the " + shown_ + " to a function of its own that takes it";
    step.callSites = functions_[function].size();
    std::string reason = take(std::move(step), changes, {});
    if (reason.empty()) memory_.takers.insert(functionText(p_, function));
    else leave(p_.functions[function].home(), reason + "; by default it is fetched as before", true, false);
    return reason.empty();
  }

  // ----- functions that take it as classes do

  // A call of a function that takes the object, and is not handed it.
  bool lacksIt(const CallSite& call) {
    if (call.callee == kNone || p_.functions[call.callee].form != FunctionForm::Function || !takesAsFunction(call.callee) || !sameLanguage(call.place) || (!testsCompose() && inTests(call.place))) return false;
    return !isGiven(call.place) && memory_.isChosen(p_.path(call.place));
  }
  Change handTo(const CallSite& call, const ClassFacts* of, From from) const { return {ChangeKind::HandOn, spot(call.place), of, from, call.in == kNone ? Spot{} : spot(p_.functions[call.in].home()), kLast, spot(p_.functions[call.callee].home())}; }

  // What a function makes or calls that takes the object, and is not handed it.
  std::vector<Change> neededIn(FunctionIndex function, From from) {
    std::vector<Change> out;
    for (uint32_t k : p_.creationsInFunction[function])
      if (const Creation& c = p_.creations[k]; isMakersOwn(c) && lacksIt(c)) out.push_back({ChangeKind::HandOn, spot(c.place), nullptr, from, spot(p_.functions[function].home()), positionIn(twinOf(c)), calledBy(c)});
    for (uint32_t k : p_.callsInFunction[function])
      if (const CallSite& call = p_.calls[k]; lacksIt(call)) out.push_back(handTo(call, nullptr, from));
    return out;
  }
  bool isFree(FunctionIndex f) const { return p_.functions[f].definition.known() && unitOf(p_, f) == kNone && !isOwn(p_.functions[f].owner) && !isAccessPoint(f) && p_.functions[f].form == FunctionForm::Function && lowerCase(p_.text(p_.functions[f].name)) != "main" && !inTests(p_.functions[f].home()) && memory_.isChosen(p_.path(p_.functions[f].home())); }

  bool functionsTake() {
    for (auto& [function, places] : functions_)
      if (isFree(function) && takeAsFunction(function, 0)) return true;
    // Those that have it by now hand it on; and, where that is asked for, those take it that need to hand it on.
    for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
      bool has = takesAsFunction(f);
      if ((!has && !memory_.retire) || !isFree(f) || failed_.contains(f)) continue;
      std::vector<Change> changes = neededIn(f, From::Parameter);
      if (changes.empty()) continue;
      if (!has) {
        if (takeAsFunction(f, 0)) return true;
        continue;
      }
      Step step;
      step.kind = StepKind::Lift;
      step.subject = functionText(p_, f);
      step.title = step.subject + " passes what it has on to what it makes or calls";
      step.creationSites = changes.size();
      if (std::string reason = take(std::move(step), changes, {}); reason.empty()) return true;
      else failed_.insert(f), leave(p_.functions[f].home(), reason + "; by default it is fetched as before", true, false);
    }
    return false;
  }
  bool takeAsFunction(FunctionIndex function, int depth) {
    if (failed_.contains(function)) return false;
    // First those that it calls, so that nothing is left with the shared object.
    constexpr int kDeepest = 8;
    for (uint32_t c : p_.callsInFunction[function])
      if (FunctionIndex callee = p_.calls[c].callee; callee != function && depth < kDeepest && functions_.contains(callee) && isFree(callee) && takeAsFunction(callee, depth + 1)) return true;
    Spot in = spot(p_.functions[function].home());
    std::vector<Place> places = functions_.contains(function) ? functions_.at(function) : std::vector<Place>{};
    std::vector<Change> changes = neededIn(function, From::Parameter);
    changes.insert(changes.begin(), {ChangeKind::TakeInFunction, in, nullptr, From::Parameter, {}});
    for (Place place : places) changes.push_back({.kind = ChangeKind::Read, .at = spot(place), .in = in, .looksOnly = looksOnly(place)});
    Step step;
    step.kind = places.empty() ? StepKind::Lift : StepKind::InjectParameter;
    step.subject = functionText(p_, function);
    step.title = step.subject + " takes the " + shown_ + " as a parameter" + (places.empty() ? " and passes it on" : "; by default it fetches it as before");
    step.passesOnly = places.empty();
    step.callSites = places.size();
    bool called = std::any_of(p_.callsOfFunction[function].begin(), p_.callsOfFunction[function].end(), [&](uint32_t c) { return p_.calls[c].in != function; });
    std::string reason = called ? whyNotInFunction(function, places) : step.subject + " is not called in this tree: who would hand the object in?";
    if (reason.empty()) reason = take(std::move(step), changes, {});
    if (reason.empty()) return true;
    failed_.insert(function);
    if (places.empty()) leave(p_.functions[function].home(), reason + "; by default it is fetched as before", true, false);
    for (Place place : places) leave(place, reason, false, true);
    return false;
  }

  // A class that has it hands it to the functions that it calls, and takes it for them where that is asked for.
  bool callsInClasses() {
    if (!writer_->injectsFunctions()) return false;
    for (const CallSite& call : p_.calls) {
      TypeIndex maker = call.in == kNone ? kNone : unitOf(p_, call.in);
      if (maker == kNone || isOwn(maker) || !lacksIt(call) || !(memory_.retire || hasIt(maker, call.in)) || !passed_.insert(maker).second) continue;
      const ClassFacts& facts = factsOf(maker);
      std::set<FunctionIndex> wanted;
      bool keep = false;
      std::vector<Change> changes, calls;
      for (const CallSite& other : p_.calls) {
        if (other.in == kNone || unitOf(p_, other.in) != maker || !lacksIt(other)) continue;
        bool constructor = p_.functions[other.in].form == FunctionForm::Constructor && p_.functions[other.in].owner == maker;
        if (constructor) wanted.insert(other.in);
        else keep = true;
        calls.push_back(handTo(other, &facts, constructor ? From::Parameter : From::Field));
      }
      std::string reason = keep && keeps(maker) && wanted.empty() ? "" : takeIn(maker, keep, wanted, true, changes);
      changes.insert(changes.end(), calls.begin(), calls.end());
      Step step = stepOf(StepKind::Lift, maker, isTaker(maker) ? "passes what it has on to what it calls" : "takes the " + shown_ + " and passes it on to what it calls");
      step.creationSites = calls.size();
      if (reason.empty()) reason = take(std::move(step), changes, {maker});
      if (reason.empty()) return true;
      for (const Change& handed : calls) leave(placeOf(handed.at), reason + "; by default it is fetched as before", true, false);
    }
    return false;
  }

  // ----- only when asked for

  // Is it made where the program is put together?
  bool isComposing(const Creation& c) {
    if (!isMakersOwn(c)) return false;
    if (inTests(c.place)) return true;
    if (c.in != kNone && unitOf(p_, c.in) != kNone) return false;
    if (c.in == kNone && ownerOfInitialiser(c.inInitialiserOf) != kNone) return false;
    return c.in == kNone || !writer_->injectsFunctions() || !isFree(c.in);
  }
  bool compose() {
    for (const Creation& creation : p_.creations)
      if (isComposing(creation) && couldPass(creation) && pass(creation)) return true;
    for (const Creation& creation : p_.creations) {
      if (!isComposing(creation) || !lacksIt(creation)) continue;
      std::vector<Change> changes;
      for (const Creation& c : p_.creations)
        if ((c.in == creation.in || (inTests(c.place) && isComposing(c))) && c.place.file == creation.place.file && isMakersOwn(c) && lacksIt(c)) changes.push_back({ChangeKind::HandOn, spot(c.place), nullptr, From::Fetched, {}, positionIn(twinOf(c)), calledBy(c)});
      Step step;
      step.kind = StepKind::Compose;
      step.subject = creation.in != kNone && !inTests(creation.place) ? functionText(p_, creation.in) : p_.path(creation.place);
      step.title = inTests(creation.place) ? "the tests of " + step.subject + " hand in the " + shown_ : step.subject + " hands in the " + shown_ + " where the program is put together";
      step.creationSites = changes.size();
      if ((step.inTests = inTests(creation.place))) {
        std::set<std::pair<FunctionIndex, NodeId>> units;  // tests, and fixtures
        for (const Change& c : changes) {
          Place place{creation.place.file, c.at.node};
          units.emplace(functionAround(p_, place), functionAround(p_, place) == kNone ? p_.around(place, Kind::Type).node : kNoNode);
        }
        step.units = units.size();
      }
      if (memory_.refused.contains(step.key()) || !composed_.insert(step.subject).second) continue;
      std::string reason = take(std::move(step), changes, {});
      if (reason.empty()) return true;
      leave(creation.place, reason + "; by default it is fetched as before", true, false);
    }
    return writer_->injectsFunctions() && composeCalls();
  }
  // The program's first function hands it to the functions that it calls.
  bool composeCalls() {
    for (const CallSite& call : p_.calls) {
      if (call.in == kNone || unitOf(p_, call.in) != kNone || isFree(call.in) || isAccessPoint(call.in) || !lacksIt(call)) continue;
      std::vector<Change> changes = neededIn(call.in, From::Fetched);
      Step step;
      step.kind = StepKind::Compose;
      step.subject = functionText(p_, call.in);
      step.title = step.subject + " hands in the " + shown_ + " where the program is put together";
      step.creationSites = changes.size();
      if (!composed_.insert(step.subject).second) continue;
      std::string reason = take(std::move(step), changes, {});
      if (reason.empty()) return true;
      leave(call.place, reason + "; by default it is fetched as before", true, false);
    }
    return false;
  }

  // A class that all who make one hand the object to: those that only pass it on first.
  bool dropDefault() {
    std::vector<TypeIndex> takers;
    std::vector<std::string> names;
    std::vector<Change> together;
    for (TypeIndex t = 0; t < p_.types.size(); ++t)
      if (Place home = p_.types[t].definition; home.known() && t != e_.type && sameLanguage(home) && isTaker(t)) takers.push_back(t);
    std::sort(takers.begin(), takers.end(), [&](TypeIndex x, TypeIndex y) { return orderOf(x) < orderOf(y); });
    for (bool passers : {true, false})
      for (TypeIndex type : takers) {
        bool uses = false;
        for (FunctionIndex c : makersOf(type)) uses |= hasFallback(c);
        if (passers == uses || !isAlwaysGiven(type)) continue;
        std::vector<Change> changes = dropsOf(type);
        if (writer_->injectsFunctions() && !changes.empty()) {
          together.insert(together.end(), changes.begin(), changes.end());
          names.push_back(plainName(p_, type));
          continue;
        }
        Step step = stepOf(StepKind::Retire, type, "needs to be given the " + shown_ + ": all that make one do, and its default goes");
        step.creationSites = p_.creationsOfType[type].size();
        if (!changes.empty() && take(std::move(step), changes, {}).empty()) return true;
      }
    return writer_->injectsFunctions() && dropTogether(std::move(names), std::move(together));
  }
  std::vector<Change> dropsOf(TypeIndex type) {
    std::vector<Change> changes;
    const ClassFacts& facts = factsOf(type);
    std::vector<FunctionIndex> all = makersOf(type);
    for (size_t i = 0; i < all.size(); ++i) {
      Change change{ChangeKind::DropDefault, facts.constructors[i], &facts, From::Parameter, {}};
      bool unused = takes(all[i]) >= 0 || facts.calls[i].empty();
      if (unused && writer_->can(change).empty()) changes.push_back(change);
    }
    return changes;
  }
  // Where each hands on what it was given none has to wait for another.
  bool dropTogether(std::vector<std::string> names, std::vector<Change> changes) {
    for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
      const auto& calls = p_.callsOfFunction[f];
      bool given = p_.functions[f].form == FunctionForm::Function && takesAsFunction(f) && calls.size() > 0 && std::all_of(calls.begin(), calls.end(), [&](uint32_t c) { return isGiven(p_.calls[c].place); });
      Change change{ChangeKind::DropDefault, spot(p_.functions[f].home()), nullptr, From::Parameter, {}};
      if (!given || isGivenAway(f) || !writer_->can(change).empty()) continue;
      changes.push_back(change);
      names.push_back(functionText(p_, f));
    }
    if (changes.empty()) return false;
    Step step;
    step.kind = StepKind::Retire;
    step.subject = names.front();
    std::string others = names.size() == 1 ? "" : names.size() == 2 ? " and " + names[1] : ", " + names[1] + " and " + std::to_string(names.size() - 2) + " more";
    step.title = names.front() + others + (names.size() == 1 ? " needs" : " need") + " to be given the " + shown_ + ": all that make or call " + (names.size() == 1 ? "it do, and its default goes" : "them do, and their defaults go");
    return take(std::move(step), changes, {}).empty();
  }
  bool isAlwaysGiven(TypeIndex type) {
    const TypeDecl& decl = p_.types[type];
    bool derived = std::any_of(decl.derived.begin(), decl.derived.end(), [&](TypeIndex t) { return !writer_->keepsBesideBase() || makersOf(t).empty() || !isTaker(t); });
    if (derived || decl.hasUnknownBase || p_.creationsOfType[type].empty()) return false;
    for (uint32_t c : p_.creationsOfType[type]) {
      const Creation& creation = p_.creations[c];
      if (creation.delegated) continue;
      if (creation.copy && writer_->holdsByReference()) continue;
      if ((creation.asBase && !writer_->keepsBesideBase()) || !isGiven(creation.place)) return false;
      // One that may have nothing to hand on is to be closed first.
      TypeIndex maker = creation.in == kNone ? kNone : unitOf(p_, creation.in);
      if (maker != kNone && isTaker(maker) && !inTests(creation.place))
        for (FunctionIndex k : makersOf(maker)) {
          Change change{ChangeKind::DropDefault, spot(p_.functions[k].home()), &factsOf(maker), From::Parameter, {}};
          if (takes(k) >= 0 && !hasFallback(k) && writer_->can(change).empty()) return false;
        }
    }
    return true;
  }

  void retire() {
    if (given_ || object_ != e_.type) return;
    LocalObject local{handed_.word, [&](Place place) { return writer_->typeAt(spot(place)); }, [&](TypeIndex type) { return writer_->fieldOf(factsOf(type)); }, {}};
    if (writer_->injectsFunctions())
      local.read = [&](std::span<const Place> places, const std::string& name, std::vector<FileEdit>& edits) {
        std::vector<Change> changes;
        for (Place place : places) changes.push_back({.kind = ChangeKind::Read, .at = spot(place), .in = around(place)});
        std::string word = std::exchange(handed_.word, name);
        (void)writer_->write(changes, edits);
        handed_.word = word;
      };
    RetireStep last = planRetirement(a_, entity_, local);
    if (!last.found || memory_.refused.contains(last.step.key())) return;
    out_.found = true;
    out_.step = std::move(last.step);
  }

  size_t entity_ = 0;
  std::vector<Unit> units_;
  std::map<FunctionIndex, std::vector<Place>> functions_;  // accesses outside of classes
  std::set<TypeIndex> passed_;
  std::set<FunctionIndex> passedBy_;
  std::optional<std::set<TypeIndex>> below_;  // classes that are made below those that keep the object
  std::set<std::string> composed_;
  std::set<FunctionIndex> failed_;  // functions that cannot take it, or cannot hand it on
};

}  // namespace

std::string injectRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return InjectPlan(analysis, entity, memory).refusal();
}

NextStep nextInjectOf(const Analysis& analysis, const Given& given, PlanMemory& memory) {
  Entity entity = entityOf(analysis, given);
  return InjectPlan(analysis, entity, &given, memory).run();
}

NextStep nextInjectStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return InjectPlan(analysis, entity, memory).run(); }

}  // namespace elmcart

#include "rework/moves/inject.h"

#include <algorithm>
#include <map>
#include <optional>

#include "assess/facts.h"
#include "base/text.h"
#include "languages/writer.h"
#include "rework/access.h"
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

class InjectPlan {
 public:
  InjectPlan(const Analysis& a, size_t entity, PlanMemory& memory) : InjectPlan(a, a.survey.entities[entity], nullptr, memory) { entity_ = entity; }
  // `given`: what is handed in though it is no shared state; null: the entity's object.
  InjectPlan(const Analysis& a, const Entity& entity, const Given* given, PlanMemory& memory)
      : a_(a), p_(a.program), e_(entity), given_(given), memory_(memory), files_(a.program.root), writer_(p_.language(e_.place.file).writer(files_, handed_)) {}

  std::string refusal() const {
    if (e_.type == kNone || !p_.types[e_.type].definition.known()) return "its class is not defined in this tree";
    if (e_.kind == EntityKind::StaticHolder || e_.kind == EntityKind::ThreadLocal) return "inject hands in one object, and this is a " + std::string(kindText(e_.kind));
    if (e_.slot != kNone && p_.use(p_.variables[e_.slot].type).decl != kNone && p_.use(p_.variables[e_.slot].type).has(kArray)) return "its slot holds many objects, not one";
    // By an accessor, or by the slot's name.
    bool plain = false, function = false;
    for (const AccessPoint& accessPoint : e_.accessPoints) {
      function |= accessPoint.function != kNone;
      plain |= accessPoint.function != kNone && givesShared(p_, e_, accessPoint.function) && p_.functions[accessPoint.function].mostArguments == 0;
    }
    plain |= !function && e_.slot != kNone;
    for (const Consumer& c : e_.consumers) {
      bool own = c.in != kNone && std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& a) { return a.function == c.in; });
      plain |= !own && c.alias == kNone && accessAt(c).known();
    }
    if (!plain) return "its accessor takes arguments";
    if (e_.madeByAsking) return "it is reached by making it: give it an accessor first";
    return "";
  }

  NextStep run() {
    describe();
    collect();
    if (!seam() && !lift() && !inFunctions() && memory_.retire && !compose() && !dropDefault()) retire();
    if (!out_.found)
      for (const Creation& c : p_.creations)
        if (isMakersOwn(c) && lacksIt(c))
          leave(c.place, "what takes the " + shown_ + " is made here without it: by default it is fetched as before", true, false);
    out_.finished = !out_.found && std::none_of(out_.byHand.begin(), out_.byHand.end(), [](const ByHand& b) { return b.blocksRetire; });
    return std::move(out_);
  }

 private:
  Spot spot(Place place) const { return place.known() ? Spot{&p_.files[place.file], place.node} : Spot{}; }
  bool inTests(Place place) const { return a_.config.tests.match(p_.path(place)); }
  bool sameLanguage(Place place) const { return p_.language(place.file).writer == p_.language(e_.place.file).writer; }

  // One line for several places of one function with the same reason.
  void leave(Place place, std::string reason, bool left, bool blocks) {
    for (const ByHand& b : out_.byHand)
      if (b.file == p_.path(place) && b.line == p_.line(place)) return;
    for (const ByHand& b : out_.byHand)
      if (b.file == p_.path(place) && b.reason == reason && functionAround(p_, place) == functionAround_[&b - out_.byHand.data()]) return;
    out_.byHand.push_back({p_.path(place), p_.line(place), std::move(reason), blocks, left});
    functionAround_.push_back(functionAround(p_, place));
  }

  Place accessAt(const Consumer& c) const { return given_ ? c.place : accessOf(p_, e_, c.place); }

  // ----- the object and its name

  void describe() {
    const TypeDecl& decl = p_.types[e_.type];
    handed_.type = plainName(p_, e_.type);
    handed_.qualified = p_.text(decl.qualified);
    handed_.home = &p_.files[decl.definition.file];
    if (e_.slot != kNone) handed_.slot = spot(p_.variables[e_.slot].home());
    handed_.slotHoldsObject = e_.slot != kNone && p_.guarantees(e_.place.file).implicitCopy.holds && p_.use(p_.variables[e_.slot].type).decl == e_.type && !p_.use(p_.variables[e_.slot].type).has(kPointer | kReference);
    if (given_) {
      handed_.made = given_->value;
      handed_.beside = plainName(p_, given_->beside);
    }
    // A slot among its own class's members says nothing that its class does not: shared, instance.
    bool byName = e_.slot != kNone && p_.variables[e_.slot].owner != e_.type;
    for (const AccessPoint& accessPoint : e_.accessPoints) {
      if (accessPoint.function == kNone || accessPoint.sort != AccessPoint::Sort::Accessor || !givesShared(p_, e_, accessPoint.function) || isReader(accessPoint.function)) continue;
      byName = false;
      if (!handed_.accessor.known()) handed_.accessor = spot(p_.functions[accessPoint.function].home());
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
    if (memory_.word.empty()) {
      std::string slot = e_.slot == kNone ? "" : std::string(p_.text(p_.variables[e_.slot].name));
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

  // Does anything put another object into the slot, once it is filled?
  bool isReplaced() const {
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

  // The name that what fetches the object begins with: a variable's, or a function's that is called.
  static std::string_view headOf(Spot access) {
    const LoweredFile& file = *access.file;
    for (NodeId node = access.node; node != kNoNode;) {
      if (file[node].kind == Kind::Name) return file.name(node);
      node = file.child(node, file[node].kind == Kind::Call ? Role::Callee : Role::Receiver);
    }
    return {};
  }
  // Does a class that uses the object mean something else by that name?
  bool isTaken(const std::string& word) const {
    if (!writer_->takesByFields())
      for (Spot access : handed_.accesses)
        if (headOf(access) == word) return true;
    NameId id = p_.names.find(word), field = p_.names.find(writer_->fieldFor(word));
    if (!id && !field) return false;
    std::set<TypeIndex> users;
    for (const Consumer& c : e_.consumers)
      if (c.in != kNone && p_.functions[c.in].owner != kNone) users.insert(p_.functions[c.in].owner);
    auto concerned = [&](TypeIndex type) { return type != kNone && users.contains(type); };
    for (const Variable& v : p_.variables) {
      if ((v.name != id && v.name != field) || v.name == 0) continue;
      bool own = p_.use(v.type).decl == e_.type && v.storage != Storage::Local;
      TypeIndex owner = v.owner != kNone ? v.owner : v.function != kNone ? p_.functions[v.function].owner : kNone;
      if (!own && concerned(owner)) return true;
    }
    return std::any_of(p_.functions.begin(), p_.functions.end(), [&](const Function& f) { return f.name != 0 && f.name == field && concerned(f.owner); });
  }

  // ----- classes

  template <typename Visit>
  void eachOfLineage(TypeIndex type, Visit visit) const {
    std::vector<TypeIndex> open{type};
    for (size_t i = 0; i < open.size() && i < 64; ++i) {
      visit(open[i]);
      for (const Base& base : p_.types[open[i]].bases)
        if (base.type != kNone && std::find(open.begin(), open.end(), base.type) == open.end()) open.push_back(base.type);
    }
  }

  const ClassFacts& factsOf(TypeIndex type) {
    auto [found, isNew] = facts_.try_emplace(type);
    ClassFacts& out = found->second;
    if (!isNew) return out;
    const TypeDecl& decl = p_.types[type];
    out.type = spot(decl.definition);
    out.name = plainName(p_, type);
    eachOfLineage(type, [&](TypeIndex t) {
      if (p_.types[t].definition.known()) out.lineage.push_back(spot(p_.types[t].definition));
      for (const Base& base : p_.types[t].bases)
        if (base.type == kNone) out.otherBases.emplace_back(p_.text(p_.use(base.use).name));
      out.hasBaseClass |= t != type && p_.types[t].form != TypeForm::Interface;
      if (std::vector<FunctionIndex> all = constructorsOf(p_, t); t != type && p_.types[t].form == TypeForm::Class && !all.empty())
        out.baseTakesArguments |= std::all_of(all.begin(), all.end(), [&](FunctionIndex c) { return p_.functions[c].leastArguments > 0; });
    });
    out.hasBaseClass |= std::any_of(out.otherBases.begin(), out.otherBases.end(), [&](const std::string& base) { return !writer_->isInterface(out, base); });
    for (FunctionIndex c : constructorsOf(p_, type)) {
      out.constructors.push_back(spot(p_.functions[c].home()));
      std::vector<Spot>& calls = out.calls.emplace_back();
      for (uint32_t k : p_.creationsOfType[type])
        if (p_.creations[k].constructor == c) calls.push_back(spot(p_.creations[k].place));
    }
    for (uint32_t c : p_.creationsOfType[type])
      if (!p_.creations[c].asBase && !p_.creations[c].delegated) out.creations.push_back(spot(p_.creations[c].place));
    for (FunctionIndex m : decl.methods)
      if (p_.functions[m].definition.known()) out.methods.push_back(spot(p_.functions[m].definition));
    if (writer_->takesByFields()) out.existsUnmade = existsUnmade(type);
    return out;
  }

  // Is it named somewhere as a value, which is there without anybody making it?
  bool existsUnmade(TypeIndex type) const {
    for (FileIndex f = 0; f < p_.files.size(); ++f) {
      const LoweredFile& file = p_.files[f];
      if (!sameLanguage({f, 0})) continue;
      for (NodeId n = 1; n < file.nodes.size(); ++n)
        if (file[n].kind == Kind::TypeRef && !file[n].has(kPointer) && p_.use(p_.links[f].type[n]).decl == type && file[file.parents[n]].kind != Kind::Create && file[file.parents[n]].kind != Kind::Function) return true;
    }
    return false;
  }

  // A file may mark its fields, and another not.
  bool isOurField(std::string_view name) const { return name == writer_->fieldFor(handed_.word) || (name.size() == handed_.word.size() + 1 && name[0] == '_' && name.substr(1) == handed_.word); }
  bool keeps(TypeIndex type) const {
    bool found = false;
    eachOfLineage(type, [&](TypeIndex t) {
      for (VariableIndex v : p_.types[t].fields) found |= isOurField(p_.text(p_.variables[v].name)) && isTaker(t);
    });
    return found;
  }
  // The field of a base class that keeps it; kNone: none does.
  VariableIndex keptInBase(TypeIndex type) const {
    VariableIndex found = kNone;
    eachOfLineage(type, [&](TypeIndex t) {
      if (t != type && isTaker(t))
        for (VariableIndex v : p_.types[t].fields)
          if (found == kNone && isOurField(p_.text(p_.variables[v].name))) found = v;
    });
    return found;
  }
  // Does a constructor of its base take the object?
  bool takesByBase(TypeIndex type) const {
    const std::vector<Base>& bases = p_.types[type].bases;
    if (bases.empty() || bases.front().type == kNone) return false;
    std::vector<FunctionIndex> all = constructorsOf(p_, bases.front().type);
    return std::any_of(all.begin(), all.end(), [&](FunctionIndex c) { return takes(c) >= 0; });
  }
  // The position of the parameter that takes the object, or -1.
  int takes(FunctionIndex f) const {
    const Function& fn = p_.functions[f];
    if (fn.owner == kNone || !isTaker(fn.owner)) return -1;
    for (size_t i = 0; i < fn.parameters.size(); ++i)
      if (p_.text(p_.variables[fn.parameters[i]].name) == handed_.word) return static_cast<int>(i);
    return -1;
  }
  // The same for one that hands on to its base's whatever it is given by name.
  bool accepts(FunctionIndex f) const {
    for (int depth = 0; f != kNone && depth < 32; ++depth) {
      if (takes(f) >= 0) return true;
      TypeIndex owner = p_.functions[f].owner;
      if (owner == kNone || !writer_->passesAnything(spot(p_.functions[f].home()))) return false;
      f = kNone;
      for (TypeIndex t = owner; f == kNone && !p_.types[t].bases.empty() && p_.types[t].bases.front().type != kNone;) {
        t = p_.types[t].bases.front().type;
        if (std::vector<FunctionIndex> all = constructorsOf(p_, t); !all.empty()) f = all.front();
      }
    }
    return false;
  }
  Spot calledBy(const Creation& c) const { return c.constructor == kNone ? Spot{} : spot(p_.functions[c.constructor].home()); }
  uint32_t positionIn(FunctionIndex f) const {
    int at = f == kNone ? -1 : takes(f);
    return at < 0 || static_cast<size_t>(at) + 1 < p_.functions[f].parameters.size() ? kLast : static_cast<uint32_t>(at);
  }
  bool isTaker(TypeIndex type) const {
    if (memory_.takers.contains(p_.text(p_.types[type].qualified))) return true;
    // One that an earlier run left so.
    if (writer_->takesByFields())
      return std::any_of(p_.types[type].fields.begin(), p_.types[type].fields.end(), [&](VariableIndex v) { return isOurField(p_.text(p_.variables[v].name)) && p_.use(p_.variables[v].type).decl == e_.type; });
    for (FunctionIndex c : constructorsOf(p_, type))
      for (VariableIndex v : p_.functions[c].parameters)
        if (p_.text(p_.variables[v].name) == handed_.word && (p_.use(p_.variables[v].type).decl == e_.type || hasFallback(c))) return true;
    return false;
  }
  bool hasFallback(FunctionIndex constructor) const {
    return std::any_of(e_.consumers.begin(), e_.consumers.end(), [&](const Consumer& c) { return c.in == constructor && isFallback(c.place); });
  }

  // `book if given is None else given`, `given ?? book`, `if (given == null) given = book`: it is fetched for those who hand
  // nothing in, where `given` is a parameter or the field that keeps it.
  bool isFallback(Place access) const {
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
  // Is it reached through what a class was handed, or else fetched?
  bool holdsFallback(Place place) const {
    return std::any_of(handed_.accesses.begin(), handed_.accesses.end(), [&](Spot access) {
      Place at{place.file, access.node};
      return access.file == &p_.files[place.file] && p_.isInside(at, place.node) && isFallback(at);
    });
  }

  // What a step put into a class hands the object out too, and is no accessor of it.
  bool isReader(FunctionIndex f) const { return p_.functions[f].owner != kNone && p_.functions[f].owner != e_.type && !p_.functions[f].isStaticMember() && memory_.takers.contains(p_.text(p_.types[p_.functions[f].owner].qualified)); }
  // What the object is called where it was handed in.
  bool isHandedVariable(const Variable& v) const {
    if (v.storage == Storage::Field) return v.owner != kNone && isTaker(v.owner) && isOurField(p_.text(v.name));
    return v.storage == Storage::Parameter && p_.text(v.name) == handed_.word && v.function != kNone && p_.functions[v.function].owner != kNone && isTaker(p_.functions[v.function].owner);
  }
  // The same by a member that chooses, or by what keeps it.
  bool asksReader(Place place) const {
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

  // What a constructor that is called as before hands on to the one that takes the object.
  bool isDefault(Place access) const {
    FunctionIndex in = functionAround(p_, access);
    if (in == kNone || p_.functions[in].owner == kNone || !isTaker(p_.functions[in].owner) || takes(in) >= 0) return false;
    const auto& made = p_.creationsInFunction[in];
    return std::any_of(made.begin(), made.end(), [&](uint32_t c) { return p_.creations[c].delegated; });
  }

  // Why nothing can be handed to objects of that class by those who make them; empty: it can.
  std::string whyNotMadeHere(TypeIndex type) {
    const TypeDecl& decl = p_.types[type];
    std::string name = plainName(p_, type);
    if (!decl.definition.known()) return name + " is not defined in this tree";
    if (decl.form != TypeForm::Class && !(decl.form == TypeForm::Struct && writer_->takesByFields())) return name + " is no ordinary class: nothing can be handed to a constructor of it";
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
      if (unit == e_.type && c.in != kNone) continue;
      if (unit == kNone) {
        leaveOutside(c, access);
        continue;
      }
      if (isAssigned(access)) {
        leave(access, "here the slot itself is set", true, false);
        continue;
      }
      bool field = c.in == kNone || (writer_->firstValuesSeeParameters() && p_.functions[c.in].form == FunctionForm::Initialiser);
      std::string noObject = writer_->whyNoObject(spot(access));
      bool constructor = !field && p_.functions[c.in].form == FunctionForm::Constructor && p_.functions[c.in].owner == unit;
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
  bool isAssigned(Place access) const { return p_.node(access).role == Role::Target && p_.node(p_.parent(access)).kind == Kind::Assign; }
  TypeIndex ownerOfInitialiser(VariableIndex v) const { return v == kNone ? kNone : p_.variables[v].owner; }
  // Base classes first, then as the text stands.
  std::tuple<size_t, std::string, uint32_t> orderOf(TypeIndex type) const {
    size_t depth = 0;
    for (TypeIndex t = type; depth < 32 && !p_.types[t].bases.empty() && p_.types[t].bases.front().type != kNone; ++depth) t = p_.types[t].bases.front().type;
    return {depth, p_.path(p_.types[type].home()), p_.line(p_.types[type].home())};
  }

  void leaveOutside(const Consumer& c, Place access) {
    if (c.in == kNone) return;  // where the program is put together
    if (writer_->takesByFields() && memory_.takers.contains(functionText(p_, c.in))) return;  // what it hands on to the one beside it
    if (writer_->takesByFields() && p_.functions[c.in].form == FunctionForm::Function) functions_[c.in].push_back(access);
    const Function& in = p_.functions[c.in];
    bool own = in.owner == e_.type || std::any_of(e_.accessPoints.begin(), e_.accessPoints.end(), [&](const AccessPoint& d) { return d.function == c.in; });
    if (own || in.form == FunctionForm::Initialiser || lowerCase(p_.text(in.name)) == "main" || isHandedIn(access)) return;
    leave(access, functionText(p_, c.in) + " belongs to no object: the move inject-parameter gives it a parameter", false, false);
  }
  bool isHandedIn(Place access) const {
    return std::any_of(p_.creations.begin(), p_.creations.end(), [&](const Creation& c) { return c.place.file == access.file && isTaker(c.type) && p_.isInside(access, c.place.node); });
  }

  // ----- steps

  // Takes the step if all of its changes can be written. A text: why not.
  std::string take(Step step, const std::vector<Change>& changes, std::initializer_list<TypeIndex> takers) {
    if (memory_.refused.contains(step.key())) return std::string(kTakenBack);
    if (step.kind == StepKind::Seam && memory_.made.contains(step.key())) return "a step that was made for it left this place as it was";
    for (const Change& change : changes)
      if (std::string reason = writer_->can(change); !reason.empty()) return reason;
    if (std::string reason = writer_->write(changes, step.edits); !reason.empty()) return reason;
    for (TypeIndex type : takers) memory_.takers.insert(std::string(p_.text(p_.types[type].qualified)));
    out_.found = true;
    out_.step = std::move(step);
    return "";
  }

  Step stepOf(StepKind kind, TypeIndex type, std::string what) const {
    Step step;
    step.kind = kind;
    step.subject = std::string(p_.text(p_.types[type].qualified));
    step.inTests = inTests(p_.types[type].definition);
    step.title = plainName(p_, type) + " " + std::move(what);
    return step;
  }

  // Who in a constructor is called in its stead or for a base, and takes the object by now or in this step.
  void handOnInside(FunctionIndex constructor, const std::set<FunctionIndex>& taking, const ClassFacts& facts, std::vector<Change>& changes) const {
    Spot in = spot(p_.functions[constructor].home());
    bool base = false, knownBase = false;
    uint32_t position = kLast;
    for (uint32_t k : p_.creationsInFunction[constructor]) {
      const Creation& c = p_.creations[k];
      bool taken = c.constructor != kNone && (taking.contains(c.constructor) || accepts(twinOf(c)));
      if (c.delegated && taken) changes.push_back({ChangeKind::HandOn, spot(c.place), &facts, From::Parameter, in, positionIn(twinOf(c)), calledBy(c)});
      if (c.asBase && taken) position = positionIn(twinOf(c));
      knownBase |= c.asBase && c.constructor != kNone;
      base |= c.asBase && taken && !writer_->hands(spot(c.place));
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
    std::vector<FunctionIndex> all = constructorsOf(p_, type);
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
      for (Place access : unit.inMembers) changes.push_back({ChangeKind::Read, spot(access), &facts, From::Field, around(access)});
      for (auto& [constructor, places] : unit.inConstructors)
        for (Place access : places) changes.push_back({ChangeKind::Read, spot(access), &facts, From::Parameter, spot(p_.functions[constructor].home())});
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
  Spot around(Place access) const {
    Place function = p_.around(access, Kind::Function);
    return function.node == kNoNode ? Spot{} : spot(function);
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
      std::vector<FunctionIndex> all = constructorsOf(p_, t);
      if (found != kNone || (t != creation.type && !constructorsOf(p_, creation.type).empty())) return;
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
  // An object of its own that production code makes, and not the shared one.
  bool isMakersOwn(const Creation& c) const { return !c.asBase && !c.delegated && c.type != e_.type && sameLanguage(c.place) && !inTests(c.place); }
  bool lacksIt(const Creation& c) { return canBeGiven(c) && !writer_->hands(spot(c.place)); }
  // Made by a constructor that calls one of a base or of its own class that takes the object, and has nothing to hand it.
  bool couldPass(const Creation& creation) {
    TypeIndex type = creation.type;
    if (FunctionIndex own = creation.constructor; own != kNone && isTaker(type) && !accepts(twinOf(creation)))
      for (uint32_t k : p_.creationsInFunction[own])
        if (const Creation& c = p_.creations[k]; c.delegated && accepts(twinOf(c)) && !writer_->hands(spot(c.place))) return true;
    bool base = false;
    eachOfLineage(type, [&](TypeIndex t) { base |= t != type && isTaker(t); });
    std::vector<FunctionIndex> own = constructorsOf(p_, type);
    return base && !isTaker(type) && std::any_of(own.begin(), own.end(), [&](FunctionIndex c) { return !accepts(c); });
  }

  bool lift() {
    for (bool passing : {true, false})
      for (const Creation& creation : p_.creations) {
        if (!isMakersOwn(creation) || !memory_.isChosen(p_.path(creation.place))) continue;
        TypeIndex maker = makerOf(creation);
        if (maker == kNone || maker == e_.type || !isGivenOn(creation, maker)) continue;
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
    std::vector<FunctionIndex> own = constructorsOf(p_, maker);
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
    for (FunctionIndex c : constructorsOf(p_, type))
      if (creation.constructor == c || (creation.constructor == kNone && constructorsOf(p_, type).size() == 1)) wanted.insert(c);
    if (wanted.empty()) return false;  // which of them is called is not known
    std::string reason = takeIn(type, false, wanted, true, changes);
    bool hands = std::any_of(changes.begin(), changes.end(), [](const Change& c) { return c.kind == ChangeKind::HandOn || c.kind == ChangeKind::HandToBase; });
    if (!hands) return false;
    bool base = std::any_of(changes.begin(), changes.end(), [](const Change& c) { return c.kind == ChangeKind::HandToBase; });
    Step step = stepOf(StepKind::Lift, type, base ? "takes the " + shown_ + " for its base class" : "takes the " + shown_ + " in one more constructor");
    if (!base) step.subject += " " + std::to_string(p_.functions[creation.constructor].parameters.size());
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

  // ----- only when asked for

  bool compose() {
    for (const Creation& creation : p_.creations) {
      if (!isMakersOwn(creation)) continue;
      if (creation.in != kNone && unitOf(p_, creation.in) != kNone) continue;
      if (creation.in == kNone && ownerOfInitialiser(creation.inInitialiserOf) != kNone) continue;
      if (couldPass(creation) && pass(creation)) return true;
      if (!lacksIt(creation)) continue;
      std::vector<Change> changes;
      for (const Creation& c : p_.creations)
        if (c.in == creation.in && c.place.file == creation.place.file && isMakersOwn(c) && lacksIt(c)) changes.push_back({ChangeKind::HandOn, spot(c.place), nullptr, From::Fetched, {}, positionIn(twinOf(c)), calledBy(c)});
      Step step;
      step.kind = StepKind::Compose;
      step.subject = creation.in != kNone ? functionText(p_, creation.in) : p_.path(creation.place);
      step.title = step.subject + " hands in the " + shown_ + " where the program is put together";
      step.creationSites = changes.size();
      if (memory_.refused.contains(step.key()) || !composed_.insert(step.subject).second) continue;
      std::string reason = take(std::move(step), changes, {});
      if (reason.empty()) return true;
      leave(creation.place, reason + "; by default it is fetched as before", true, false);
    }
    return false;
  }

  // A class that all who make one hand the object to: those that only pass it on first.
  bool dropDefault() {
    std::vector<TypeIndex> takers;
    for (TypeIndex t = 0; t < p_.types.size(); ++t)
      if (Place home = p_.types[t].definition; home.known() && t != e_.type && sameLanguage(home) && isTaker(t)) takers.push_back(t);
    std::sort(takers.begin(), takers.end(), [&](TypeIndex x, TypeIndex y) { return orderOf(x) < orderOf(y); });
    for (bool passers : {true, false})
      for (TypeIndex type : takers) {
        bool uses = false;
        for (FunctionIndex c : constructorsOf(p_, type)) uses |= hasFallback(c);
        if (passers == uses || !isAlwaysGiven(type)) continue;
        std::vector<Change> changes;
        const ClassFacts& facts = factsOf(type);
        std::vector<FunctionIndex> all = constructorsOf(p_, type);
        for (size_t i = 0; i < all.size(); ++i) {
          Change change{ChangeKind::DropDefault, facts.constructors[i], &facts, From::Parameter, {}};
          bool unused = takes(all[i]) >= 0 || facts.calls[i].empty();
          if (unused && writer_->can(change).empty()) changes.push_back(change);
        }
        Step step = stepOf(StepKind::Retire, type, "needs to be given the " + shown_ + ": all that make one do, and its default goes");
        step.creationSites = p_.creationsOfType[type].size();
        if (!changes.empty() && take(std::move(step), changes, {}).empty()) return true;
      }
    return false;
  }
  bool isAlwaysGiven(TypeIndex type) {
    const TypeDecl& decl = p_.types[type];
    if (!decl.derived.empty() || decl.hasUnknownBase || p_.creationsOfType[type].empty()) return false;
    for (uint32_t c : p_.creationsOfType[type]) {
      const Creation& creation = p_.creations[c];
      if (creation.delegated) continue;
      if (creation.asBase || !writer_->hands(spot(creation.place))) return false;
      // One that may have nothing to hand on is to be closed first.
      TypeIndex maker = creation.in == kNone ? kNone : unitOf(p_, creation.in);
      if (maker != kNone && isTaker(maker) && !inTests(creation.place))
        for (FunctionIndex k : constructorsOf(p_, maker)) {
          Change change{ChangeKind::DropDefault, spot(p_.functions[k].home()), &factsOf(maker), From::Parameter, {}};
          if (takes(k) >= 0 && !hasFallback(k) && writer_->can(change).empty()) return false;
        }
    }
    return true;
  }

  void retire() {
    if (given_) return;
    RetireStep last = planRetirement(a_, entity_, handed_.word);
    if (!last.found || memory_.refused.contains(last.step.key())) return;
    out_.found = true;
    out_.step = std::move(last.step);
  }

  const Analysis& a_;
  const Program& p_;
  size_t entity_ = 0;
  const Entity& e_;
  const Given* given_;
  PlanMemory& memory_;
  WriterFiles files_;
  HandedIn handed_;
  std::string shown_;
  std::unique_ptr<Writer> writer_;
  std::vector<Unit> units_;
  std::map<FunctionIndex, std::vector<Place>> functions_;  // accesses outside of classes
  std::map<TypeIndex, ClassFacts> facts_;
  std::set<TypeIndex> passed_;
  std::set<FunctionIndex> passedBy_;
  std::optional<std::set<TypeIndex>> below_;  // classes that are made below those that keep the object
  std::set<std::string> composed_;
  std::vector<FunctionIndex> functionAround_;
  NextStep out_;
};

}  // namespace

std::string injectByWriterRefusal(const Analysis& analysis, size_t entity) {
  PlanMemory memory;
  return InjectPlan(analysis, entity, memory).refusal();
}

NextStep nextInjectByWriterOf(const Analysis& analysis, const Given& given, PlanMemory& memory) {
  Entity entity = entityOf(analysis, given);
  return InjectPlan(analysis, entity, &given, memory).run();
}

NextStep nextInjectByWriterStep(const Analysis& analysis, size_t entity, PlanMemory& memory) { return InjectPlan(analysis, entity, memory).run(); }

}  // namespace elmcart

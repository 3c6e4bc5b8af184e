// Family "single": is it really one?
#include "assess/families.h"

namespace elmcart {

void checkOpenConstructor(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    Place where;
    if (e.harmless || e.kind != EntityKind::Singleton || e.type == kNone || e.doors.empty() || !hasOpenConstructor(s.program, e.type, &where) || refusesSecond(s.program, e.type)) continue;
    Finding f = makeFinding(s, infoOf("single.open-constructor"), i, Sureness::Certain);
    f.place = where;
    bool implicit = s.program.node(where).kind == Kind::Type;
    f.message = e.name + " is handed out as one instance by " + e.doors.front().name + ", but its " + (implicit ? "implicit constructor" : "constructor") + " is open: anyone can make another.";
    f.evidence.push_back({where, implicit ? "no constructor is declared, so the public one exists" : "the constructor is accessible from everywhere"});
    f.evidence.push_back({e.doors.front().place, "the door that promises the one instance"});
    f.advice = Advice::Seal;
    out.push_back(std::move(f));
  }
}

void checkCopyable(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.kind != EntityKind::Singleton || e.type == kNone || !s.program.types[e.type].definition.known()) continue;
    Place definition = s.program.types[e.type].definition;
    if (!s.program.guarantees(definition.file).implicitCopy.holds || !s.program.isCopyable(e.type, definition.file)) continue;
    if (isAbstract(s.program, e.type)) continue;
    // Only who gets at the object by value, reference or dereference can copy it: every door lets them.
    Finding f = makeFinding(s, infoOf("single.copyable"), i, Sureness::Certain);
    f.place = definition;
    f.message = e.name + " is meant to be one, but it can be copied: `auto second = *" + (e.doors.empty() ? e.name : e.doors.front().name + "()") + "` makes another with state of its own.";
    if (!e.doors.empty() && e.doors.front().function != kNone && !s.program.use(s.program.functions[e.doors.front().function].result).has(kPointer))
      f.message = e.name + " is meant to be one, but it can be copied: `auto second = " + e.doors.front().name + "()` makes another with state of its own.";
    f.evidence.push_back({definition, "copying is neither deleted nor ruled out by a member"});
    for (uint32_t c : s.program.creationsOfType[e.type])
      if (s.program.creations[c].copy) f.evidence.push_back({s.program.creations[c].place, "a copy is made here"});
    f.advice = Advice::Seal;
    out.push_back(std::move(f));
  }
}

void checkSecondCreation(const Subject& s, std::vector<Finding>& out) {
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.kind != EntityKind::Singleton || e.type == kNone) continue;
    std::vector<Evidence> sites;
    bool production = false;
    // One that enters itself is made where a program begins: several mains are several programs.
    bool entersItself = e.creation.time == CreationTime::None || refusesSecond(s.program, e.type);
    for (uint32_t c : s.program.creationsOfType[e.type]) {
      const Creation& creation = s.program.creations[c];
      if (creation.asBase || creation.delegated || creation.place == e.creation.place) continue;
      if (creation.asVariable == e.slot || (e.slot != kNone && creation.inInitialiserOf == e.slot)) continue;
      // The slot's own alternatives: several branches that fill the same slot.
      if (creation.in != kNone && creation.in == e.creation.in && e.creation.place.known() && creation.place.file == e.creation.place.file) continue;
      if (entersItself && creation.in != kNone && s.program.text(s.program.functions[creation.in].qualified) == "main") continue;
      bool ownDoor = false;
      for (const Door& door : e.doors) ownDoor |= door.function != kNone && (door.function == creation.in || door.function == creation.constructor);
      if (ownDoor) continue;
      // By the class itself, to hand out values of its own (a sum, a copy): its own business.
      if (creation.in != kNone && s.program.functions[creation.in].owner == e.type) continue;
      sites.push_back({creation.place, creation.copy ? "a copy is made here" : "another one is made here"});
      production |= !s.inTests(creation.place);
    }
    if (sites.empty()) continue;
    Finding f = makeFinding(s, infoOf("single.second-creation"), i, production ? Sureness::Certain : Sureness::Possible);
    f.place = sites.front().place;
    f.message = e.name + " is handed out as one instance, but " + counted(sites.size(), "place makes", "places make") + " another" + (production ? "." : ", in tests only.");
    f.evidence.push_back({e.creation.place.known() ? e.creation.place : e.place, "the instance that everyone shares"});
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
    for (const Door& door : e.doors)
      if (door.function != kNone && p.functions[door.function].form == FunctionForm::Factory) factory = door.function;
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
        if (use.access == Access::Read && p.node(p.parent(use.place)).kind == Kind::NullTest) guarded = true;
        if (use.access != Access::Write || use.inMember || branch.node != kNoNode || p.variables[use.variable].storage != Storage::Field || resets.known() || guarded) continue;
        resets = use.place;
        field = use.variable;
      }
    }
    if (!resets.known()) continue;
    std::vector<Evidence> again;
    for (uint32_t c : p.callsOfFunction[factory])
      if (p.calls[c].in == kNone || p.functions[p.calls[c].in].owner != e.type) again.push_back({p.calls[c].place, "runs the constructor on the one object again"});
    Finding f = makeFinding(s, infoOf("single.reinitialised"), i, again.size() > 1 ? Sureness::Certain : Sureness::Likely);
    f.place = resets;
    f.message = "Each " + e.name + "(…) runs the constructor again on the one object and sets " + std::string(p.text(p.variables[field].name)) + " back.";
    f.evidence.push_back({p.functions[factory].declarations.front(), "hands out the object that is there"});
    f.evidence.push_back({resets, std::string(p.text(p.variables[field].name)) + " is set whatever it held"});
    f.evidence.insert(f.evidence.end(), again.begin(), again.begin() + static_cast<std::ptrdiff_t>(std::min<size_t>(again.size(), 6)));
    f.advice = Advice::Steady;
    out.push_back(std::move(f));
  }
}

void checkReplaceable(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    // An object of the language has no slot: what it keeps is its state.
    if (!isShared(e) || !e.creation.place.known()) continue;
    for (uint32_t u : p.usesOfVariable[e.slot]) {
      const Use& use = p.uses[u];
      if (use.access != Access::Write || use.throughPointer || use.inMember || use.in == kNone || s.inTests(use.place)) continue;
      if (use.in == e.creation.in || p.functions[use.in].form == FunctionForm::Initialiser || p.functions[use.in].form == FunctionForm::Constructor) continue;
      NodeId value = p.file(use.place).child(p.parent(use.place).node, Role::Value);
      // Taken away rather than replaced, or set by a function that only tests call.
      if (value == kNoNode || p.file(use.place)[value].is(Kind::Literal, LiteralForm::Null) || p.file(use.place)[value].kind == Kind::Create) continue;
      bool outside = p.functions[use.in].owner == kNone || p.functions[use.in].owner != p.variables[e.slot].owner;
      for (uint32_t c : p.callsOfFunction[use.in]) outside |= !s.inTests(p.calls[c].place);
      if (!outside) continue;
      Finding f = makeFinding(s, infoOf("single.replaceable"), i, Sureness::Certain);
      f.place = use.place;
      f.message = functionText(p, use.in) + " puts another object in the place of " + e.name + ": who fetched it before and who fetches it after work on two.";
      f.evidence.push_back({e.creation.place, "the instance that is handed out at first"});
      f.evidence.push_back({use.place, "replaced here"});
      f.advice = Advice::Inject;
      out.push_back(std::move(f));
      break;
    }
  }
}

void checkCloneable(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || e.kind != EntityKind::Singleton || e.doors.empty() || !p.types[e.type].definition.known()) continue;
    Place definition = p.types[e.type].definition;
    const Guarantees& g = p.guarantees(definition.file);
    if (!g.clonesByDefault.holds || methodNamed(p, e.type, g.cloneHook) != kNone) continue;
    Finding f = makeFinding(s, infoOf("single.cloneable"), i, Sureness::Likely);
    f.place = definition;
    f.message = e.name + " is meant to be one, but whoever holds it can clone it: its class has no " + std::string(g.cloneHook) + " that forbids it.";
    f.evidence.push_back({e.doors.front().place, "the door that promises the one instance"});
    f.evidence.push_back({definition, "cloning is left open (" + std::string(g.clonesByDefault.source) + ")"});
    f.advice = Advice::Seal;
    out.push_back(std::move(f));
  }
}

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
    if (!revivable) continue;
    Finding f = makeFinding(s, infoOf("single.revivable"), i, Sureness::Certain);
    f.place = definition;
    f.message = e.name + " is meant to be one, but reading it back from stored bytes makes another: there is no " + std::string(g.reviveHook) + " that hands out the one that is there.";
    f.evidence.push_back({definition, "can be stored and read back (" + std::string(g.revivalSource) + ")"});
    f.advice = Advice::Seal;
    out.push_back(std::move(f));
  }
}

void checkSlotShared(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!isShared(e) || !e.creation.place.known() || !p.node(e.creation.place).has(kVirtual)) continue;
    TypeIndex owner = p.variables[e.slot].owner;
    if (owner == kNone || p.types[owner].derived.empty()) continue;
    // A subclass with a slot of its own is out of it.
    std::vector<Evidence> sharing;
    for (TypeIndex d : p.types[owner].derived) {
      bool own = false;
      for (VariableIndex v : p.types[d].statics) own |= p.variables[v].name == p.variables[e.slot].name;
      if (!own && p.types[d].definition.known()) sharing.push_back({p.types[d].definition, std::string(p.text(p.types[d].name)) + " has no slot of its own"});
    }
    if (sharing.empty()) continue;
    Finding f = makeFinding(s, infoOf("single.slot-shared-by-subclasses"), i, Sureness::Certain);
    f.place = e.creation.place;
    f.message = e.name + " and " + counted(sharing.size(), "subclass share", "subclasses share") + " one slot: who asks first decides what class of object all of them get.";
    f.evidence.push_back({p.variables[e.slot].declarations.front(), "the one slot"});
    f.evidence.insert(f.evidence.end(), sharing.begin(), sharing.end());
    f.advice = Advice::Steady;
    out.push_back(std::move(f));
  }
}

}  // namespace elmcart

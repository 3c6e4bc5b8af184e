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

}  // namespace elmcart

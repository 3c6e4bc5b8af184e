// Family "life": do object lifetimes hold?
#include <algorithm>
#include <set>

#include "assess/families.h"

namespace elmcart {
namespace {

// Where a function stores (or drops) the pointer it gets as a parameter.
struct Keeping {
  VariableIndex collection = kNone;
  Place place;
};

// The collection or field that `function` puts its parameter number `position` into.
Keeping keeps(const Program& p, FunctionIndex function, size_t position, int depth = 0) {
  const Function& fn = p.functions[function];
  if (!fn.definition.known() || position >= fn.parameters.size() || depth > 2) return {};
  const TypeUse& type = p.use(p.variables[fn.parameters[position]].type);
  if (!type.has(kPointer | kReference)) return {};
  const LoweredFile& file = p.file(fn.definition);
  for (uint32_t u : p.usesOfVariable[fn.parameters[position]]) {
    Place at = p.uses[u].place;
    Place up = p.parent(at);
    if (p.node(up).kind == Kind::AddressOf) up = p.parent(up);
    const Node& node = p.node(up);
    if (node.kind == Kind::Call) {
      NodeId callee = file.child(up.node, Role::Callee);
      if (callee == kNoNode) continue;
      if (file[callee].kind == Kind::Member && p.guarantees(up.file).collectionAct(file.name(callee)) == CollectionAct::Add) {
        NodeId receiver = file.child(callee, Role::Receiver);
        Symbol into = receiver == kNoNode ? Symbol{} : p.symbolAt({up.file, receiver});
        if (into.is(Symbol::Sort::Variable)) {
          const Variable& variable = p.variables[into.index()];
          bool keepsPointers = variable.storage == Storage::Field || variable.lives();
          // The collection must hold pointers, not copies of what a reference names.
          const TypeUse& use = p.use(variable.type);
          bool pointers = false;
          for (uint32_t a = 0; a < use.argumentCount; ++a) pointers |= p.use(p.argument(use, a)).has(kPointer);
          if (keepsPointers && pointers) return {into.index(), up};
        }
      }
      // Handed on to another function of the program.
      Symbol target = p.symbolAt(up);
      if (target.is(Symbol::Sort::Function) && target.index() != function) {
        size_t index = 0;
        for (NodeId c : children(file, up.node)) {
          if (file[c].role != Role::Argument) continue;
          if (p.isInside(at, c)) {
            Keeping inner = keeps(p, target.index(), index, depth + 1);
            if (inner.collection != kNone) return inner;
          }
          ++index;
        }
      }
    }
    if (node.kind == Kind::Index && p.node(at).role == Role::Argument) {  // keepers_[keeper] = …
      NodeId receiver = file.child(up.node, Role::Receiver);
      Symbol into = receiver == kNoNode ? Symbol{} : p.symbolAt({up.file, receiver});
      bool assigned = p.node(p.parent(up)).kind == Kind::Assign && p.node(up).role == Role::Target;
      if (assigned && into.is(Symbol::Sort::Variable) && p.use(p.variables[into.index()].type).argumentCount > 0 && p.use(p.argument(p.use(p.variables[into.index()].type), 0)).has(kPointer)) return {into.index(), up};
    }
    if (node.kind == Kind::Assign && p.node(at).role == Role::Value && type.has(kPointer)) {  // table_[key] = keeper
      NodeId target = file.child(up.node, Role::Target);
      if (target != kNoNode && file[target].kind == Kind::Index) {
        NodeId receiver = file.child(target, Role::Receiver);
        Symbol into = receiver == kNoNode ? Symbol{} : p.symbolAt({up.file, receiver});
        if (into.is(Symbol::Sort::Variable) && (p.variables[into.index()].storage == Storage::Field || p.variables[into.index()].lives())) return {into.index(), up};
      }
    }
  }
  return {};
}

// Does the function (or what it calls) take something out of the collection?
bool removesFrom(const Program& p, FunctionIndex function, VariableIndex collection, std::set<FunctionIndex>& seen, int depth = 0) {
  if (depth > 4 || !seen.insert(function).second) return false;
  for (uint32_t u : p.usesInFunction[function]) {
    const Use& use = p.uses[u];
    if (use.variable != collection) continue;
    Place up = p.parent(use.place);
    if (p.node(up).kind == Kind::Member && p.guarantees(up.file).collectionAct(p.nameOf(up)) == CollectionAct::Remove) return true;
    // Walked over and blanked, or filtered by an algorithm: an assignment to an element.
    if (use.access == Access::Write && use.inMember) return true;
  }
  for (uint32_t c : p.callsInFunction[function])
    if (removesFrom(p, p.calls[c].callee, collection, seen, depth + 1)) return true;
  return false;
}

FunctionIndex destructorOf(const Program& p, TypeIndex type) {
  for (FunctionIndex m : p.types[type].methods)
    if (p.functions[m].form == FunctionForm::Destructor && p.functions[m].definition.known()) return m;
  return kNone;
}

bool destructorRemoves(const Program& p, TypeIndex type, VariableIndex collection, int depth = 0) {
  if (depth > 10) return false;
  std::set<FunctionIndex> seen;
  if (FunctionIndex d = destructorOf(p, type); d != kNone && removesFrom(p, d, collection, seen)) return true;
  for (const Base& base : p.types[type].bases)
    if (base.type != kNone && destructorRemoves(p, base.type, collection, depth + 1)) return true;
  // A member whose destructor does it: a scope object.
  for (VariableIndex f : p.types[type].fields) {
    const TypeUse& use = p.use(p.variables[f].type);
    if (use.decl != kNone && use.decl != type && !use.has(kPointer | kReference) && destructorRemoves(p, use.decl, collection, depth + 1)) return true;
  }
  return false;
}

// Every object of the class that the program makes lives as long as the process.
bool onlyLivesForever(const Program& p, TypeIndex type) {
  bool any = false;
  for (uint32_t c : p.creationsOfType[type]) {
    const Creation& creation = p.creations[c];
    if (creation.delegated) continue;
    any = true;
    if (creation.asVariable == kNone || !p.variables[creation.asVariable].lives()) return false;
  }
  return any && p.types[type].derived.empty();
}

}  // namespace

void checkDanglingSubscriber(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<std::pair<TypeIndex, VariableIndex>> told;
  for (const CallSite& call : p.calls) {
    if (call.in == kNone || s.inTests(call.place)) continue;
    const LoweredFile& file = p.file(call.place);
    if (file[call.place.node].kind != Kind::Call) continue;
    size_t position = 0;
    for (NodeId c : children(file, call.place.node)) {
      if (file[c].role != Role::Argument) continue;
      size_t at = position++;
      TypeIndex subscriber = kNone;
      if (file[c].kind == Kind::This || (file[c].kind == Kind::Dereference && file.child(c, Role::Operand) != kNoNode && file[file.child(c, Role::Operand)].kind == Kind::This))
        subscriber = p.functions[call.in].owner;
      if (subscriber == kNone) continue;
      Keeping kept = keeps(p, call.callee, at);
      if (kept.collection == kNone) continue;
      const Variable& collection = p.variables[kept.collection];
      // A parent that keeps its own children is another matter: the list must outlive the subscriber.
      TypeIndex subject = collection.owner;
      if (subject == subscriber) continue;
      size_t entity = SIZE_MAX;
      for (size_t i = 0; i < s.survey.entities.size(); ++i) {
        const Entity& e = s.survey.entities[i];
        if (e.slot == kept.collection || (subject != kNone && e.type != kNone && e.type == subject && !e.harmless)) {
          entity = i;
          break;
        }
      }
      // Which object is it registered with? One that is reached globally outlives it.
      NodeId callee = file.child(call.place.node, Role::Callee);
      NodeId receiver = callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
      bool global = collection.lives() || (receiver != kNoNode && s.origins.of({call.place.file, receiver}) != kNone);
      bool injected = false;
      if (!global && receiver != kNoNode) {
        Symbol symbol = p.symbolAt({call.place.file, receiver});
        injected = symbol.is(Symbol::Sort::Variable) && p.use(p.variables[symbol.index()].type).has(kReference | kPointer);
      }
      if (!global && !injected) continue;
      if (destructorRemoves(p, subscriber, kept.collection) || onlyLivesForever(p, subscriber)) continue;
      // An entity of its own lives as long as the subject.
      bool subscriberIsEntity = false;
      for (const Entity& e : s.survey.entities) subscriberIsEntity |= e.type == subscriber && (e.kind == EntityKind::Singleton);
      if (subscriberIsEntity || !told.insert({subscriber, kept.collection}).second) continue;
      // Does any function of the subscriber take it out at all?
      bool removesSomewhere = false;
      for (FunctionIndex m : p.types[subscriber].methods) {
        std::set<FunctionIndex> seen;
        if (m != call.in && removesFrom(p, m, kept.collection, seen)) removesSomewhere = true;
      }
      // A destructor that does work, in a class that knows how to take itself out: no.
      FunctionIndex dies = destructorOf(p, subscriber);
      if (removesSomewhere && dies != kNone && (!p.callsInFunction[dies].empty() || !p.foreignCallsInFunction[dies].empty())) continue;
      // Who makes the subscribers itself knows when they end.
      bool madeBySubject = false;
      for (uint32_t k : p.creationsOfType[subscriber]) {
        FunctionIndex in = p.creations[k].in;
        madeBySubject |= subject != kNone && in != kNone && p.functions[in].owner == subject;
      }
      if (madeBySubject) continue;
      Sureness sureness = global && !removesSomewhere ? Sureness::Certain : removesSomewhere ? Sureness::Possible : Sureness::Likely;
      Finding f = makeFinding(s, infoOf("life.dangling-subscriber"), entity, sureness);
      std::string name(p.text(p.types[subscriber].name));
      std::string list(p.text(collection.qualified));
      f.subject = p.text(p.types[subscriber].qualified);
      f.place = call.place;
      f.message = name + " puts itself into " + list + " and its destructor does not take it out: after it dies the list still points at it.";
      f.evidence.push_back({call.place, "registered: " + name + " hands out its own address"});
      f.evidence.push_back({kept.place, "kept: the address is stored in " + list});
      FunctionIndex destructor = destructorOf(p, subscriber);
      if (destructor != kNone) f.evidence.push_back({p.functions[destructor].definition, "dies: the destructor leaves the list as it is"});
      else f.evidence.push_back({p.types[subscriber].definition, "dies: there is no destructor that would take it out"});
      for (uint32_t u : p.usesOfVariable[kept.collection]) {
        const Use& use = p.uses[u];
        if (use.in == kNone || use.place == kept.place) continue;
        if (p.node(p.parent(use.place)).kind == Kind::Loop) {
          f.evidence.push_back({use.place, "still listed: the walk over " + list + " calls it"});
          break;
        }
      }
      f.advice = Advice::Seal;
      f.reasonsFor.push_back("a destructor that takes it out mends every place where a " + name + " is made");
      f.reasonsAgainst.push_back("copies and moves must be forbidden too, or they go unlisted");
      out.push_back(std::move(f));
    }
  }
}

void checkNeverReleased(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless) continue;
    std::vector<VariableIndex> candidates;
    if (e.type != kNone && e.creation.time != CreationTime::None)
      for (const StateField& field : e.state) candidates.push_back(field.variable);
    else if (e.type == kNone) candidates.push_back(e.slot);
    bool leaked = e.end.rfind("nobody", 0) == 0 && e.kind != EntityKind::StaticHolder;
    for (VariableIndex v : candidates) {
      const Variable& variable = p.variables[v];
      Place home = variable.declarations.front();
      uint32_t traits = p.traits(home.file, variable.type);
      const TypeUse& use = p.use(variable.type);
      Place taken;
      std::string what, reason;
      // A handle that is released by hand, or by nobody.
      bool released = false;
      for (uint32_t u : p.usesOfVariable[v]) {
        const Use& site = p.uses[u];
        Place up = p.parent(site.place);
        Place value;
        if (p.node(up).kind == Kind::Assign && p.node(site.place).role == Role::Target) value = {up.file, p.file(up).child(up.node, Role::Value)};
        if (p.node(site.place).kind == Kind::FieldInit) value = {site.place.file, p.file(site.place).child(site.place.node, Role::Argument)};
        if (value.known() && value.node != kNoNode && p.node(value).kind == Kind::Call) {
          NodeId callee = p.file(value).child(value.node, Role::Callee);
          std::string_view name = callee == kNoNode ? std::string_view{} : p.file(value).name(callee);
          if (p.guarantees(value.file).callTraits(name) & kTakesResource) {
            taken = value;
            what = std::string(name);
          }
        }
        Place call = p.around(site.place, Kind::Call);
        if (call.node != kNoNode) {
          NodeId callee = p.file(call).child(call.node, Role::Callee);
          std::string_view name = callee == kNoNode ? std::string_view{} : p.file(call).name(callee);
          if (p.guarantees(call.file).callTraits(name) & kReleasesResource) released = true;
        }
        // It may be handed to somebody who releases it.
        if (p.node(up).kind == Kind::Return || p.node(up).kind == Kind::Create) released = true;
      }
      NodeId initial = p.file(home).child(home.node, Role::Initialiser);
      if (initial != kNoNode && p.file(home)[initial].kind == Kind::Call) {
        NodeId callee = p.file(home).child(initial, Role::Callee);
        std::string_view name = callee == kNoNode ? std::string_view{} : p.file(home).name(callee);
        if (p.guarantees(home.file).callTraits(name) & kTakesResource) taken = {home.file, initial}, what = std::string(name);
      }
      if (taken.known() && !released && (use.has(kPointer) || use.decl == kNone)) {
        reason = std::string(p.text(variable.name)) + " is taken with " + what + " and no path gives it back";
      } else if (leaked && !use.has(kPointer | kReference) && (traits & (kFileResource | kThreadType)) && !taken.known()) {
        // Its destructor would release it, but the object is never destroyed.
        bool closed = false;
        for (uint32_t u : p.usesOfVariable[v]) {
          Place up = p.parent(p.uses[u].place);
          if (p.node(up).kind == Kind::Member && (p.nameOf(up) == "close" || p.nameOf(up) == "join" || p.nameOf(up) == "detach")) closed = true;
        }
        if (closed) continue;
        taken = home;
        reason = std::string(p.text(variable.name)) + " would be released by the destructor of " + e.name + ", which never runs";
      } else {
        continue;
      }
      Finding f = makeFinding(s, infoOf("life.never-released"), i, Sureness::Likely);
      f.place = taken;
      f.message = e.name + " owns a resource that is never released: " + reason + ".";
      f.evidence.push_back({home, "owned here"});
      if (!(taken == home)) f.evidence.push_back({taken, "taken here"});
      f.evidence.push_back({e.creation.place.known() ? e.creation.place : e.place, "the owner is created here; its end: " + e.end});
      f.advice = Advice::Steady;
      out.push_back(std::move(f));
    }
  }
}

}  // namespace elmcart

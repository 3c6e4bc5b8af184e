// Family "life": what lives longer than what it holds, and what is used after its end.
#include <algorithm>
#include <optional>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"
#include "flow/control.h"

namespace elmcart {
namespace {

// The variable that an expression names, through & and *.
VariableIndex namedBy(const Program& p, Place place) {
  const LoweredFile& file = p.file(place);
  NodeId at = bareExpression(file, place.node);
  Symbol symbol = p.links[place.file].symbol[at];
  return symbol.is(Symbol::Sort::Variable) && file[at].kind == Kind::Name ? symbol.index() : kNone;
}

// Does the variable only refer to an object: by pointer or reference, or as an object of a class that is used like a pointer?
bool isHandle(const Program& p, const Variable& v) {
  const TypeUse& use = p.use(v.type);
  if (use.has(kPointer | kReference)) return true;
  return use.decl != kNone && std::any_of(p.types[use.decl].methods.begin(), p.types[use.decl].methods.end(), [&](FunctionIndex m) { return p.text(p.functions[m].name).starts_with("operator") && p.text(p.functions[m].name).ends_with("->"); });
}

}  // namespace

namespace {

// Does the destructor only do again what the program does by hand before it ends? The way leads through a member that others call.
bool endedByHand(const Subject& s, TypeIndex type, const std::vector<Evidence>& chain) {
  const Program& p = s.program;
  for (const Evidence& step : chain) {
    Symbol called = p.symbolAt(step.place);
    if (!called.is(Symbol::Sort::Function) || p.functions[called.index()].owner != type) continue;
    auto calls = p.callsOfFunction[called.index()];
    return std::any_of(calls.begin(), calls.end(), [&](uint32_t c) { return p.calls[c].in != kNone && p.functions[p.calls[c].in].owner != type && !s.inTests(p.calls[c].place); });
  }
  return false;
}

}  // namespace

void checkExitOrder(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  auto diesAtExit = [&](size_t i) {
    const Entity& e = s.survey.entities[i];
    if (e.slot == kNone || e.type == kNone || !p.variables[e.slot].lives() || !p.guarantees(e.place.file).staticsDestroyedAtExit.holds) return false;
    const TypeUse& use = p.use(p.variables[e.slot].type);
    if (!p.guarantees(e.place.file).freedByHand.holds) return true;
    return !use.has(kPointer | kReference) && !e.neverDestroyed;
  };
  Wanted others{[&](VariableIndex v) { return s.entityOfVariable[v] != SIZE_MAX; }, [&](FunctionIndex f) { return s.entityOfAccessPoint[f] != SIZE_MAX; }, 0};
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (!diesAtExit(i)) continue;
    TypeIndex type = e.creation.made != kNone ? e.creation.made : e.type;
    FunctionIndex destructor = destructorOf(p, type);
    if (destructor == kNone) continue;
    // What stood before it was made is destroyed after it.
    std::set<size_t> before;
    auto target = [&](const Reached& reached) { return reached.function != kNone ? s.entityOfAccessPoint[reached.function] : s.entityOfVariable[reached.variable]; };
    for (const Reached& reached : s.reaching.fromCreation(e, others)) before.insert(target(reached));
    std::set<size_t> told;
    std::vector<std::string> more;
    size_t first = out.size();
    for (Reached& reached : s.reaching.fromFunction(destructor, others)) {
      size_t other = target(reached);
      if (other == i || before.count(other) || !diesAtExit(other) || !told.insert(other).second) continue;
      const Entity& o = s.survey.entities[other];
      const Variable& mine = p.variables[e.slot];
      const Variable& theirs = p.variables[o.slot];
      // Of one file what stands first is made first, and goes last.
      bool sameFile = p.guarantees(e.place.file).textualOrder.holds && mine.definition.known() && theirs.definition.known() && mine.definition.file == theirs.definition.file && mine.storage != Storage::FunctionStatic && theirs.storage != Storage::FunctionStatic;
      if (sameFile && p.node(theirs.definition).span.begin < p.node(mine.definition).span.begin) continue;
      if (out.size() > first) {
        more.push_back(o.shown);
        continue;
      }
      Sureness sureness = endedByHand(s, type, reached.chain) ? Sureness::Possible : sameFile ? Sureness::Certain : Sureness::Likely;
      Finding f = makeFinding(s, infoOf("lifetime.exit-order"), i, sureness);
      f.place = reached.chain.back().place;
      f.message = "At exit the destructor of " + e.shown + " uses " + o.shown + ", which may already be destroyed.";
      f.evidence.push_back({p.functions[destructor].definition, "runs at exit"});
      f.evidence.insert(f.evidence.end(), reached.chain.begin(), reached.chain.end());
      f.evidence.push_back({theirs.declarations.front(), o.shown + " is destroyed at exit too, possibly earlier than " + e.shown});
      f.advice = Advice::SafeInit;
      out.push_back(std::move(f));
    }
    if (!more.empty()) {
      out[first].message.pop_back();
      out[first].message += "; so it is with " + joinWith(more, ", ") + ".";
    }
  }
}

void checkSubjectFirst(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (TypeIndex t = 0; t < p.types.size(); ++t) {
    const TypeDecl& type = p.types[t];
    if (!type.definition.known() || !p.guarantees(type.definition.file).freedByHand.holds) continue;
    FunctionIndex destructor = destructorOf(p, t);
    if (destructor == kNone) continue;
    // The fields through which its destructor works on somebody else.
    std::set<VariableIndex> subjects;
    Place used;
    for (uint32_t u : p.usesInFunction[destructor]) {
      const Use& use = p.uses[u];
      const Variable& field = p.variables[use.variable];
      if (field.storage != Storage::Field || field.owner != t || !p.use(field.type).has(kPointer | kReference)) continue;
      if (p.node(p.parent(use.place)).kind == Kind::Destroy) continue;
      subjects.insert(use.variable);
      if (!used.known()) used = use.place;
    }
    if (subjects.empty()) continue;
    // Which parameter of a constructor or method each is set from, and what is given for it.
    for (VariableIndex field : subjects)
      for (uint32_t u : p.usesOfVariable[field]) {
        const Use& use = p.uses[u];
        if (use.access != Access::Write && use.access != Access::Bind) continue;
        const LoweredFile& file = p.file(use.place);
        NodeId value = p.node(use.place).kind == Kind::FieldInit ? file.child(use.place.node, Role::Argument) : p.node(p.parent(use.place)).kind == Kind::Assign ? file.child(p.parent(use.place).node, Role::Value) : kNoNode;
        if (value == kNoNode || use.in == kNone) continue;
        VariableIndex parameter = namedBy(p, {use.place.file, value});
        const Function& fn = p.functions[use.in];
        auto position = std::find(fn.parameters.begin(), fn.parameters.end(), parameter);
        if (parameter == kNone || position == fn.parameters.end()) continue;
        size_t at = static_cast<size_t>(position - fn.parameters.begin());
        for (uint32_t c : p.callsOfFunction[use.in]) {
          const CallSite& call = p.calls[c];
          std::vector<NodeId> arguments = argumentsOf(p.file(call.place), call.place.node);
          if (at >= arguments.size()) continue;
          VariableIndex subject = namedBy(p, {call.place.file, arguments[at]});
          // Which object of the class is it: a variable that is made so, or one that the method is called on?
          VariableIndex subscriber = kNone;
          for (uint32_t k : p.creationsOfType[t])
            if (p.creations[k].place == call.place) subscriber = p.creations[k].asVariable;
          NodeId callee = p.file(call.place).child(call.place.node, Role::Callee);
          if (subscriber == kNone && callee != kNoNode && p.file(call.place)[callee].kind == Kind::Member) subscriber = namedBy(p, {call.place.file, p.file(call.place).child(callee, Role::Receiver)});
          if (p.node(call.place).kind == Kind::FieldInit) {
            Symbol symbol = p.symbolAt(call.place);
            if (symbol.is(Symbol::Sort::Variable)) subscriber = symbol.index();
          }
          if (subject == kNone || subscriber == kNone || subject == subscriber) continue;
          const Variable& a = p.variables[subscriber];
          const Variable& b = p.variables[subject];
          if (isHandle(p, b) || isHandle(p, a) || !a.definition.known() || !b.definition.known()) continue;
          bool shorter = a.lives() && b.storage == Storage::Local && !isMain(p, b.function);
          bool sameBlock = a.storage == Storage::Local && b.storage == Storage::Local && a.function == b.function && p.parent(a.definition) == p.parent(b.definition) && p.node(b.definition).span.begin > p.node(a.definition).span.begin;
          bool sameClass = a.storage == Storage::Field && b.storage == Storage::Field && a.owner == b.owner && p.node(b.definition).span.begin > p.node(a.definition).span.begin;
          if (!shorter && !sameBlock && !sameClass) continue;
          size_t entity = s.entityOfVariable[subscriber];
          Finding f = makeFinding(s, infoOf("lifetime.subject-first"), entity, Sureness::Certain);
          std::string name(p.text(a.name)), other(p.text(b.name));
          if (entity == SIZE_MAX) f.subject = p.text(type.qualified);
          f.place = call.place;
          f.message = other + " is destroyed before " + name + ", whose destructor still uses it.";
          f.evidence.push_back({a.definition, shorter ? name + " lives as long as the process" : name + " is declared first, so it is destroyed last"});
          f.evidence.push_back({call.place, "it is given " + other});
          f.evidence.push_back({b.definition, shorter ? other + " is destroyed at the end of its block" : other + " is declared later, so it is destroyed first"});
          f.evidence.push_back({used, "the destructor uses it after it was destroyed"});
          f.advice = Advice::Enforce;
          f.reasonsFor.push_back("swapping the two declarations mends it where they are adjacent");
          f.reasonsAgainst.push_back("a later edit can swap them back; one owner for both cannot be broken so");
          out.push_back(std::move(f));
        }
      }
  }
}

namespace {

// object->setOwner(all): is somebody else given the object by what is called on it there? A member that is not in the tree
// may do so with what it is given.
bool isGivenOnByCall(const Program& p, const Use& use) {
  Place member = p.parent(use.place), call = p.parent(member);
  if (p.node(member).kind != Kind::Member || p.node(use.place).role != Role::Receiver || p.node(call).kind != Kind::Call) return false;
  Symbol called = p.symbolAt(member);
  return called.is(Symbol::Sort::Function) ? handsItselfOn(p, called.index()) : p.file(call).child(call.node, Role::Argument) != kNoNode;
}

}  // namespace

namespace {

// delete this: an object that decides itself when it ends.
bool deletesItself(const Program& p, TypeIndex type) {
  return type != kNone && p.anyBase(type, [&](TypeIndex at, const Base*) {
    return std::any_of(p.types[at].methods.begin(), p.types[at].methods.end(), [&](FunctionIndex m) {
      Place body = p.functions[m].definition;
      return body.known() && anyNode(p.file(body), body.node, [&](NodeId n) {
        NodeId ended = p.file(body)[n].kind == Kind::Destroy ? p.file(body).child(n, Role::Operand) : kNoNode;
        return ended != kNoNode && p.file(body)[ended].kind == Kind::This;
      });
    });
  });
}

}  // namespace

void checkRawOwner(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (FunctionIndex m = 0; m < p.functions.size(); ++m) {
    const Function& fn = p.functions[m];
    if (!fn.definition.known() || fn.form != FunctionForm::Function || !p.guarantees(fn.definition.file).freedByHand.holds || s.inTests(fn.definition)) continue;
    const TypeUse& result = p.use(fn.result);
    if (!result.has(kPointer) || result.has(kReference)) continue;
    // Each return hands out what was made here, and nobody else keeps it.
    Place made;
    bool only = !s.origins.returnsOf(m).empty();
    for (Place value : s.origins.returnsOf(m)) {
      VariableIndex local = namedBy(p, value);
      Place creation = value;
      if (local != kNone && p.variables[local].storage == Storage::Local && p.variables[local].definition.known()) {
        NodeId initial = p.file(p.variables[local].definition).child(p.variables[local].definition.node, Role::Initialiser);
        if (initial != kNoNode) creation = {p.variables[local].definition.file, initial};
        for (uint32_t u : p.usesOfVariable[local]) {
          Place up = p.parent(p.uses[u].place);
          bool kept = p.node(p.uses[u].place).role == Role::Argument || (p.node(up).kind == Kind::Assign && p.node(p.uses[u].place).role == Role::Value);
          only &= !kept && !isGivenOnByCall(p, p.uses[u]);
        }
      }
      if (p.node(creation).is(Kind::Create, CreateForm::Heap)) made = creation;
      else if (!p.node(creation).is(Kind::Literal, LiteralForm::Null)) only = false;
    }
    if (!only || !made.known() || p.use(p.typeAt(made)).parameter || deletesItself(p, p.use(p.typeAt(made)).decl)) continue;
    std::vector<Evidence> drops;
    for (uint32_t c : p.callsOfFunction[m]) {
      const CallSite& call = p.calls[c];
      if (s.inTests(call.place)) continue;
      Place up = p.parent(call.place);
      if (p.node(up).kind == Kind::ExpressionStatement) {
        drops.push_back({call.place, "the result is dropped"});
        continue;
      }
      if (p.node(up).kind != Kind::Variable) {
        // factory()->work(): used once, and nobody can free it any more.
        if (p.node(up).kind == Kind::Member && p.node(call.place).role == Role::Receiver) drops.push_back({call.place, "used once, then lost"});
        continue;
      }
      Symbol symbol = p.symbolAt(up);
      if (!symbol.is(Symbol::Sort::Variable)) continue;
      const Variable& local = p.variables[symbol.index()];
      if (local.storage != Storage::Local || !(p.use(local.type).has(kPointer)) || (variableTraits(p, symbol.index()) & (kOwningPointer | kPointerLike))) continue;
      bool settled = false;
      for (uint32_t u : p.usesOfVariable[symbol.index()]) {
        Place at = p.uses[u].place;
        while (p.node(p.parent(at)).kind == Kind::Cast) at = p.parent(at);
        Kind around = p.node(p.parent(at)).kind;
        if (around == Kind::Destroy || around == Kind::Return || around == Kind::Create || p.node(at).role == Role::Argument || (around == Kind::Assign && p.node(at).role == Role::Value) || around == Kind::Collection || around == Kind::Capture || around == Kind::Variable || isGivenOnByCall(p, p.uses[u])) settled = true;
      }
      if (!settled) drops.push_back({call.place, "kept in " + std::string(p.text(local.name)) + ", which ends with its block; the object is never deleted"});
    }
    if (drops.empty()) continue;
    Finding f = makeFinding(s, infoOf("lifetime.raw-owner"), SIZE_MAX, Sureness::Likely);
    f.subject = functionText(p, m);
    f.risk.setSites(drops.size());
    f.place = made;
    f.message = functionName(p, m) + " returns an owning raw pointer, and " + counted(drops.size(), "caller never deletes it", "callers never delete it") + ": the object leaks.";
    f.evidence.push_back({made, "made here, without an owner"});
    f.evidence.insert(f.evidence.end(), drops.begin(), drops.begin() + static_cast<std::ptrdiff_t>(std::min<size_t>(drops.size(), 6)));
    f.advice = Advice::Own;
    f.reasonsFor.push_back("an owning pointer as the result shows who deletes it, and deletes it");
    f.reasonsAgainst.push_back("callers that delete it by hand have to change");
    out.push_back(std::move(f));
  }
}

namespace {

// before = current; or Type before = current;
bool isSavedIn(const Program& p, VariableIndex kept, VariableIndex local) {
  const Symbol wanted(Symbol::Sort::Variable, kept);
  Place initial = initialiserOf(p, local);
  if (initial.known() && p.symbolAt(initial) == wanted) return true;
  auto uses = p.usesOfVariable[local];
  return std::any_of(uses.begin(), uses.end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    NodeId value = use.access == Access::Write ? p.assignedAt(use.place) : kNoNode;
    return value != kNoNode && p.symbolAt({use.place.file, value}) == wanted;
  });
}

// Does the function that stores an address there also blank it again, itself or by what it calls, or give back what it held before?
bool isTakenBack(const Program& p, VariableIndex target, FunctionIndex in) {
  auto callsIt = [&](FunctionIndex f) { return f != kNone && std::any_of(p.callsInFunction[in].begin(), p.callsInFunction[in].end(), [&](uint32_t c) { return p.calls[c].callee == f; }); };
  return std::any_of(p.usesOfVariable[target].begin(), p.usesOfVariable[target].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    NodeId value = use.access == Access::Write ? p.assignedAt(use.place) : kNoNode;
    if (value == kNoNode) return false;
    if (p.file(use.place)[value].is(Kind::Literal, LiteralForm::Null) && (use.in == in || callsIt(use.in))) return true;
    if (use.in != in) return false;
    Symbol before = p.symbolAt({use.place.file, value});
    return before.is(Symbol::Sort::Variable) && p.variables[before.index()].storage == Storage::Local && isSavedIn(p, target, before.index());
  });
}

// Do tests alone use it? What is there when one is through, the next one sets for itself.
bool isOfTests(const Subject& s, VariableIndex v) {
  const auto& uses = s.program.usesOfVariable[v];
  return s.inTests(s.program.variables[v].home()) && std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return s.inTests(s.program.uses[u].place); });
}

}  // namespace

void checkLocalAddressStored(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  // Which parameters of a function end up in what lives longer: set directly.
  auto keptIn = [&](FunctionIndex f, size_t position) -> VariableIndex {
    const Function& fn = p.functions[f];
    if (position >= fn.parameters.size() || !p.use(p.variables[fn.parameters[position]].type).has(kPointer | kReference)) return kNone;
    for (uint32_t u : p.usesOfVariable[fn.parameters[position]]) {
      Place at = p.uses[u].place;
      Place up = p.parent(at);
      if (p.node(up).kind == Kind::AddressOf) at = up, up = p.parent(up);
      if (p.node(up).kind != Kind::Assign || p.node(at).role != Role::Value) continue;
      VariableIndex target = kNone;
      NodeId left = p.file(up).child(up.node, Role::Target);
      if (left != kNoNode) {
        Symbol symbol = p.symbolAt({up.file, left});
        if (symbol.is(Symbol::Sort::Variable)) target = symbol.index();
      }
      if (target == kNone || !p.use(p.variables[target].type).has(kPointer)) continue;
      if (isTakenBack(p, target, f)) continue;
      if (p.variables[target].lives()) return target;
      if (p.variables[target].storage == Storage::Field && p.variables[target].owner != kNone)
        for (size_t i : s.entitiesOfType[p.variables[target].owner])
          if (!s.survey.entities[i].harmless && s.survey.entities[i].kind == EntityKind::Singleton) return target;
    }
    return kNone;
  };
  auto isShort = [&](VariableIndex v) {
    if (v == kNone) return false;
    const Variable& local = p.variables[v];
    return local.storage == Storage::Local && !(local.modifiers & kStatic) && !p.use(local.type).has(kPointer | kReference) && local.definition.known() && p.guarantees(local.definition.file).freedByHand.holds;
  };
  std::set<std::pair<VariableIndex, FunctionIndex>> throughCall;  // what a function keeps of what it is given is told once
  auto tell = [&](VariableIndex local, VariableIndex target, Place place, FunctionIndex in, FunctionIndex keeper) {
    if (keeper != kNone && throughCall.count({target, keeper})) return;
    if (isTakenBack(p, target, in) || endsWithProgram(p, p.variables[local].function) || isOfTests(s, target)) return;
    size_t entity = s.entityOfVariable[target];
    if (TypeIndex owner = p.variables[target].owner; owner != kNone)
      for (size_t i : s.entitiesOfType[owner])
        if (entity == SIZE_MAX && !s.survey.entities[i].harmless) entity = i;
    if (keeper != kNone) throughCall.insert({target, keeper});
    // Whether it is looked at once more after the call is not known.
    Finding f = makeFinding(s, infoOf("lifetime.local-address-stored"), entity, mayEndWithProgram(p, p.variables[local].function) ? Sureness::Possible : keeper == kNone ? Sureness::Certain : Sureness::Likely);
    std::string name(p.text(p.variables[local].name)), kept = variableName(p, target);
    if (entity == SIZE_MAX) f.subject = p.text(p.variables[target].qualified);
    f.place = place;
    f.message = "The address of the local " + name + " of " + functionName(p, in) + " is stored in " + kept + ", which lives longer: it dangles when the function returns.";
    f.evidence.push_back({p.variables[local].definition, "a local object"});
    f.evidence.push_back({place, "its address is stored here"});
    f.evidence.push_back({p.variables[target].declarations.front(), "still points there after the object was destroyed"});
    f.advice = Advice::ByHand;
    if (entity == SIZE_MAX) {
      f.reasonsFor.push_back("an object that the longer-lived one owns is not destroyed too early");
      f.reasonsAgainst.push_back("it then lives longer than needed");
    }
    out.push_back(std::move(f));
  };
  for (const Use& use : p.uses) {
    if (use.in == kNone || s.inTests(use.place) || !isShort(use.variable)) continue;
    Place at = use.place;
    Place up = p.parent(at);
    bool address = p.node(up).kind == Kind::AddressOf;
    if (address) at = up, up = p.parent(up);
    if (address && p.node(up).kind == Kind::Assign && p.node(at).role == Role::Value) {
      NodeId left = p.file(up).child(up.node, Role::Target);
      Symbol symbol = left == kNoNode ? Symbol{} : p.symbolAt({up.file, left});
      if (symbol.is(Symbol::Sort::Variable) && p.variables[symbol.index()].lives()) tell(use.variable, symbol.index(), up, use.in, kNone);
      continue;
    }
    if (p.node(up).kind != Kind::Call || p.node(at).role != Role::Argument) continue;
    Symbol callee = p.symbolAt(up);
    if (!callee.is(Symbol::Sort::Function)) continue;
    std::vector<NodeId> arguments = argumentsOf(p.file(up), up.node);
    size_t position = static_cast<size_t>(std::find(arguments.begin(), arguments.end(), at.node) - arguments.begin());
    VariableIndex target = keptIn(callee.index(), position);
    if (target != kNone && (address || p.use(p.variables[p.functions[callee.index()].parameters[position]].type).has(kReference))) tell(use.variable, target, up, use.in, callee.index());
  }
}

namespace {

// reference.get(): the class of what a weak reference leads to.
TypeIndex heldWeakly(const Program& p, Place value) {
  const LoweredFile& file = p.file(value);
  NodeId receiver = file[value.node].kind == Kind::Call ? receiverOf(file, value.node) : kNoNode;
  Symbol symbol = receiver == kNoNode ? Symbol{} : p.symbolAt({value.file, receiver});
  if (!symbol.is(Symbol::Sort::Variable)) return kNone;
  const TypeUse& use = p.use(p.variables[symbol.index()].type);
  bool weak = use.decl == kNone && lowerCase(lastPart(p.text(use.name))).starts_with("weak");
  return weak && use.argumentCount == 1 ? p.use(p.argument(use, 0)).decl : kNone;
}

// The class of what a call passes on: the object that it stands in, or one that a local was made for.
TypeIndex classOfGiven(const Program& p, const CallSite& call, NodeId argument) {
  if (p.file(call.place)[argument].kind == Kind::This) return p.functions[call.in].owner;
  VariableIndex local = namedBy(p, {call.place.file, argument});
  if (local == kNone || p.variables[local].storage != Storage::Local || !p.variables[local].definition.known()) return kNone;
  Place definition = p.variables[local].definition;
  NodeId initial = p.file(definition).child(definition.node, Role::Initialiser);
  if (initial == kNoNode || p.file(definition)[initial].kind != Kind::Create) return kNone;
  for (uint32_t k : p.creationsInFunction[call.in])
    if (p.creations[k].place == Place{definition.file, initial}) return p.creations[k].type;
  return kNone;
}

// before = slot; slot = mine; …; slot = before: is what the slot held earlier in the function put back there?
bool putsBack(const Program& p, Place value, const Use& write) {
  Symbol kept = p.symbolAt({value.file, bareExpression(p.file(value), value.node)});
  if (!kept.is(Symbol::Sort::Variable) || kept.index() == write.variable) return false;
  return std::any_of(p.usesOfVariable[kept.index()].begin(), p.usesOfVariable[kept.index()].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    NodeId given = use.in == write.in && use.access == Access::Write && !use.inMember ? p.assignedAt(use.place) : kNoNode;
    return given != kNoNode && standsFor(p, {use.place.file, given}, write.variable);
  });
}

}  // namespace

void checkCapturedShortLived(const Subject& s, std::vector<Finding>& out) {
  checkListenersLeft(s, out);
  const Program& p = s.program;
  std::set<VariableIndex> told;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || p.guarantees(e.place.file).freedByHand.holds || s.inTests(e.place)) continue;
    std::vector<VariableIndex> holders;
    for (const StateField& field : e.state) holders.push_back(field.variable);
    if (e.slot != kNone) holders.push_back(e.slot);
    for (VariableIndex v : holders) {
      const Variable& holder = p.variables[v];
      bool shared = holder.lives() || (holder.storage == Storage::Field && holder.owner == e.type && (e.kind == EntityKind::Singleton || (e.kind == EntityKind::SharedInstance && !oneOfMany(s, e))));
      if (!shared || told.count(v) || (holder.modifiers & kThreadLocal)) continue;
      Place stored, given;
      TypeIndex what = kNone;
      bool cleared = false, weak = false;
      auto isShortLived = [&](TypeIndex type, FunctionIndex in) {
        if (type == kNone || type == e.type || p.derivesFrom(type, e.type == kNone ? type : e.type) || in == kNone || isMain(p, in)) return false;
        bool inCalls = false;
        for (uint32_t c : p.creationsOfType[type]) {
          const Creation& creation = p.creations[c];
          if (creation.asVariable != kNone && p.variables[creation.asVariable].lives()) return false;
          inCalls |= creation.in != kNone && !isMain(p, creation.in) && !s.inTests(creation.place) && !isConstruction(p, creation.in);
        }
        return inCalls && !s.isSingleton(type);
      };
      for (uint32_t u : p.usesOfVariable[v]) {
        const Use& use = p.uses[u];
        if (use.access != Access::Write || use.inMember || s.inTests(use.place)) continue;
        Place up = p.parent(use.place);
        if (p.node(up).kind != Kind::Assign) continue;
        NodeId value = p.file(up).child(up.node, Role::Value);
        if (value == kNoNode || use.in == kNone) continue;
        const bool emptied = p.file(up)[value].is(Kind::Literal, LiteralForm::Null);
        cleared |= emptied ? !isConstruction(p, use) : putsBack(p, {up.file, value}, use);
        if (emptied || stored.known() || use.in == e.creation.in) continue;
        TypeIndex owner = p.functions[use.in].owner;
        if (p.file(up)[value].kind == Kind::This) {
          if (isShortLived(owner, use.in)) stored = given = up, what = owner;
          continue;
        }
        VariableIndex parameter = namedBy(p, {up.file, value});
        const Function& fn = p.functions[use.in];
        auto position = std::find(fn.parameters.begin(), fn.parameters.end(), parameter);
        if (parameter == kNone || position == fn.parameters.end() || isConstruction(p, use)) continue;
        size_t at = static_cast<size_t>(position - fn.parameters.begin());
        for (uint32_t c : p.callsOfFunction[use.in]) {
          const CallSite& call = p.calls[c];
          if (call.in == kNone || s.inTests(call.place)) continue;
          std::vector<NodeId> arguments = argumentsOf(p.file(call.place), call.place.node);
          if (p.node(call.place).kind == Kind::Assign) arguments = {p.file(call.place).child(call.place.node, Role::Value)};
          if (at >= arguments.size() || arguments[at] == kNoNode) continue;
          const LoweredFile& file = p.file(call.place);
          cleared |= file[arguments[at]].is(Kind::Literal, LiteralForm::Null);
          TypeIndex type = heldWeakly(p, {call.place.file, arguments[at]});
          if (type != kNone) {
            stored = up, given = call.place, what = type, weak = true;
            continue;
          }
          if (stored.known()) continue;
          type = classOfGiven(p, call, arguments[at]);
          if (!isShortLived(type, call.in)) continue;
          stored = up;
          given = call.place;
          what = type;
        }
      }
      if (!stored.known() || cleared) continue;
      told.insert(v);
      Finding f = makeFinding(s, infoOf("lifetime.captured-short-lived"), i, Sureness::Likely);
      std::string name(p.text(p.types[what].name)), kept(p.text(holder.name));
      f.place = given;
      f.message = kept + (holder.storage == Storage::Field ? " of " + e.shown : std::string()) + " keeps an object of " + name + (weak ? " to which its giver refers weakly, so as not to keep it: it stays in memory, and is used after its end." : " that is made per call: it stays in memory, and later calls use it.");
      for (uint32_t c : p.creationsOfType[what])
        if (!weak && p.creations[c].in != kNone && f.evidence.empty()) f.evidence.push_back({p.creations[c].place, "made here, once for each call of " + functionName(p, p.creations[c].in)});
      f.evidence.push_back({given, "passed on here"});
      f.evidence.push_back({stored, "stored in an object that lives as long as the process"});
      f.evidence.push_back({holder.declarations.front(), "no code clears it afterwards"});
      f.advice = Advice::ByHand;
      out.push_back(std::move(f));
    }
  }
}

namespace {

// current = nullptr; … current = next; does the same function put another there?
bool isFilledAgain(const Program& p, const Use& blanked) {
  return blanked.in != kNone && std::any_of(p.usesInFunction[blanked.in].begin(), p.usesInFunction[blanked.in].end(), [&](uint32_t u) {
    const Use& use = p.uses[u];
    NodeId value = use.variable == blanked.variable && use.access == Access::Write && !use.inMember && use.place.node > blanked.place.node ? p.assignedAt(use.place) : kNoNode;
    return value != kNoNode && !p.file(use.place)[value].is(Kind::Literal, LiteralForm::Null);
  });
}

// A function after which the entity must not be used: it destroys or blanks the
// slot and nobody makes a new one, or it is a method that ends the object.
bool tearsDown(const Subject& s, const Entity& e, FunctionIndex f, bool& blanks) {
  const Program& p = s.program;
  // Each member of a language's object is an access point to it.
  bool object = e.type != kNone && p.types[e.type].form == TypeForm::Object;
  if (f == kNone || (s.entityOfAccessPoint[f] != SIZE_MAX && !object)) return false;
  for (uint32_t u : p.usesInFunction[f]) {
    const Use& use = p.uses[u];
    if (use.variable != e.slot || object) continue;
    Place up = p.parent(use.place);
    if (p.node(up).kind == Kind::Destroy) return blanks = true;
    // owner.reset(): C++20 [unique.ptr.single.modifiers]/3, [util.smartptr.shared.mod]/2.
    bool owns = (p.traits(use.place.file, p.variables[e.slot].type) & kOwningPointer) && p.node(up).kind == Kind::Member && p.nameOf(up) == "reset";
    if (owns && p.node(p.parent(up)).kind == Kind::Call && argumentsOf(p.file(up), p.parent(up).node).empty()) return blanks = true;
    NodeId value = p.node(up).kind == Kind::Assign && p.node(use.place).role == Role::Target ? p.file(up).child(up.node, Role::Value) : kNoNode;
    if (value != kNoNode && p.file(up)[value].is(Kind::Literal, LiteralForm::Null) && !use.inMember && !isFilledAgain(p, use)) return blanks = true;
  }
  const Function& fn = p.functions[f];
  if (e.type == kNone || fn.owner != e.type || !fn.definition.known() || !fn.parameters.empty()) return false;
  return isEndHook(p.guarantees(fn.definition.file), p.text(fn.name));
}

// The fields (and the slot) to which a function gives a new value.
std::set<VariableIndex> setBy(const Program& p, FunctionIndex f) {
  std::set<VariableIndex> out;
  for (uint32_t u : p.usesInFunction[f])
    if (p.uses[u].access == Access::Write && !p.uses[u].inMember && !p.uses[u].throughPointer) out.insert(p.uses[u].variable);
  return out;
}

// The first use of the entity behind a call that ends it, in the same block,
// unless it is made or begun anew before.
const Consumer* usedAfter(const Subject& s, size_t entity, const CallSite& end, FunctionIndex ends, bool blanks) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[entity];
  Place statement = end.place;
  while (p.parent(statement).node != kNoNode && p.node(p.parent(statement)).kind != Kind::Block && p.node(statement).kind != Kind::Function) statement = p.parent(statement);
  bool alone = p.node(statement).kind == Kind::ExpressionStatement || statement == end.place;
  if (!alone || p.around(statement, Kind::Loop).node != kNoNode) return nullptr;
  Place block = p.parent(statement);
  const std::set<VariableIndex> ended = setBy(p, ends);
  // What begins it anew: its creation, and what sets again what the end has set.
  auto begins = [&](FunctionIndex f) {
    if (f == kNone || f == ends) return false;
    if (f == e.creation.in && s.entityOfAccessPoint[f] != entity) return true;
    bool object = e.type != kNone && p.types[e.type].form == TypeForm::Object;
    if (s.entityOfAccessPoint[f] == entity && !object) return false;
    std::set<VariableIndex> set = setBy(p, f);
    return std::any_of(set.begin(), set.end(), [&](VariableIndex v) { return ended.count(v) > 0; });
  };
  uint32_t begun = 0xFFFFFFFFu;
  for (uint32_t c : p.callsInFunction[end.in]) {
    uint32_t at = p.node(p.calls[c].place).span.begin;
    if (p.calls[c].place.file == end.place.file && at >= p.node(statement).span.end && begins(p.calls[c].callee)) begun = std::min(begun, at);
  }
  bool accessPointMakes = e.creation.in != kNone && s.entityOfAccessPoint[e.creation.in] == entity;
  for (const Consumer& later : e.consumers) {
    uint32_t at = p.node(later.place).span.begin;
    if (later.in != end.in || later.place.file != end.place.file || at < p.node(statement).span.end || at >= begun || !p.isInside(later.place, block.node)) continue;
    if (later.method == kNone && later.field == kNone) {
      if (later.access == Access::Write) return nullptr;
      continue;
    }
    bool again = false;
    if (later.method != kNone && tearsDown(s, e, later.method, again)) continue;
    if (blanks && accessPointMakes && later.alias == kNone) return nullptr;
    if (blanks) return &later;
    // An ended object may be asked how it ended: what matters is what works with it.
    if (later.method == kNone) continue;
    for (uint32_t u : p.usesInFunction[later.method])
      if (p.uses[u].access != Access::Read && p.variables[p.uses[u].variable].owner == e.type) return &later;
  }
  return nullptr;
}

}  // namespace

void checkUsedAfterTeardown(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    if (e.harmless || e.slot == kNone || (e.kind != EntityKind::Singleton && e.kind != EntityKind::SharedInstance && e.kind != EntityKind::Ambient && e.kind != EntityKind::GlobalVariable && e.kind != EntityKind::StaticField)) continue;
    std::set<FunctionIndex> ending;
    if (e.type != kNone) ending.insert(p.types[e.type].methods.begin(), p.types[e.type].methods.end());
    for (uint32_t u : p.usesOfVariable[e.slot])
      if (p.uses[u].in != kNone) ending.insert(p.uses[u].in);
    std::vector<Finding> found;
    for (FunctionIndex ends : ending) {
      bool blanks = false;
      if (!tearsDown(s, e, ends, blanks)) continue;
      for (uint32_t site : p.callsOfFunction[ends]) {
        const CallSite& c = p.calls[site];
        if (c.in == kNone || c.in == ends || s.inTests(c.place)) continue;
        bool onIt = blanks || std::any_of(e.consumers.begin(), e.consumers.end(), [&](const Consumer& k) { return k.method == ends && k.place.file == c.place.file && (k.place == c.place || p.isInside(k.place, c.place.node)); });
        const Consumer* later = onIt ? usedAfter(s, i, c, ends, blanks) : nullptr;
        if (!later) continue;
        Finding f = makeFinding(s, infoOf("lifetime.used-after-teardown"), i, blanks ? Sureness::Certain : Sureness::Likely);
        f.place = later->place;
        f.message = functionName(p, c.in) + " uses " + e.shown + " after it has called " + functionName(p, ends) + ", which ends it.";
        f.evidence.push_back({c.place, "torn down here"});
        f.evidence.push_back({p.functions[ends].definition, blanks ? "the slot is cleared here" : "this tears the object down"});
        f.evidence.push_back({later->place, "used here afterwards"});
        f.advice = Advice::Inject;
        found.push_back(std::move(f));
      }
    }
    if (!found.empty()) out.push_back(std::move(found.front()));
  }
}

}  // namespace elmcart

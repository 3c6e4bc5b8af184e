// Family "life": what is added to for ever.
#include <algorithm>
#include <optional>
#include <set>

#include "assess/facts.h"
#include "assess/families.h"
#include "base/text.h"
#include "flow/control.h"
#include "flow/deferred.h"

namespace elmcart {
namespace {

// list = append(list, …)
bool addsToItself(const Program& p, const Use& use) {
  Place up = p.parent(use.place);
  const LoweredFile& file = p.file(use.place);
  NodeId value = p.assignedAt(use.place);
  NodeId callee = value != kNoNode && file[value].kind == Kind::Call ? file.child(value, Role::Callee) : kNoNode;
  if (callee == kNoNode || file[callee].kind != Kind::Name || p.guarantees(up.file).collectionAct(file.name(callee)) != CollectionAct::Add) return false;
  std::vector<NodeId> given = argumentsOf(file, value);
  return !given.empty() && p.links[up.file].symbol[given.front()] == Symbol(Symbol::Sort::Variable, use.variable);
}

// Is a local given the collection there, or what walks over it, that takes something out of it, or passes it on?
bool emptiesThroughLocal(const Program& p, const Use& use) {
  Place up = p.parent(use.place);
  // var it = list.iterator(); it.remove();
  if (p.node(up).kind == Kind::Member && p.node(use.place).role == Role::Receiver && lowerCase(p.nameOf(up)).ends_with("iterator")) {
    Place call = p.parent(up), walk = p.parent(call);
    Symbol steps = p.node(call).kind == Kind::Call && p.node(walk).kind == Kind::Variable ? p.symbolAt(walk) : Symbol{};
    return steps.is(Symbol::Sort::Variable) && std::any_of(p.usesOfVariable[steps.index()].begin(), p.usesOfVariable[steps.index()].end(), [&](uint32_t u) {
      Place at = p.parent(p.uses[u].place);
      return p.node(at).kind == Kind::Member && lowerCase(p.nameOf(at)) == "remove";
    });
  }
  Symbol local = p.node(up).kind == Kind::Variable && p.node(use.place).role == Role::Initialiser ? p.symbolAt(up) : Symbol{};
  if (!local.is(Symbol::Sort::Variable) || p.variables[local.index()].storage != Storage::Local) return false;
  return std::any_of(p.usesOfVariable[local.index()].begin(), p.usesOfVariable[local.index()].end(), [&](uint32_t u) {
    Place at = p.parent(p.uses[u].place);
    if (p.node(at).kind == Kind::Member) {
      CollectionAct act = p.guarantees(at.file).collectionAct(p.nameOf(at));
      return act == CollectionAct::Remove || act == CollectionAct::Change;
    }
    return p.node(at).kind == Kind::Call || p.node(at).kind == Kind::Create || p.node(at).kind == Kind::Destroy || p.node(at).kind == Kind::Return;
  });
}

// Is the function called only where a flag says that it has not run yet, one that
// it sets itself? if (!filled) fill();
bool runsOnceByFlag(const Program& p, FunctionIndex function, int depth = 0) {
  std::set<VariableIndex> sets;
  for (uint32_t u : p.usesInFunction[function])
    if (const Use& use = p.uses[u]; use.access == Access::Write && !use.throughPointer && p.variables[use.variable].storage != Storage::Local) sets.insert(use.variable);
  if (p.callsOfFunction[function].empty()) return false;
  return std::all_of(p.callsOfFunction[function].begin(), p.callsOfFunction[function].end(), [&](uint32_t c) {
    // A helper of such a function.
    if (FunctionIndex caller = p.calls[c].in; caller != kNone && caller != function && depth < 3 && runsOnceByFlag(p, caller, depth + 1)) return true;
    return std::any_of(sets.begin(), sets.end(), [&](VariableIndex flag) { return branchAsksFor(p, p.calls[c].place, flag); });
  });
}

// Does a member function that adds take all that is in another collection?
bool copiesAll(std::string_view member) {
  static constexpr std::string_view kNames[] = {"update", "extend", "addAll", "putAll", "AddRange", "UnionWith", "addObjectsFromArray:", "addEntriesFromDictionary:", "formUnion"};
  return std::find(std::begin(kNames), std::end(kNames), member) != std::end(kNames);
}

// Does the condition ask whether the collection is empty? Then true for "is it?" and
// false for "is there anything in it?".
std::optional<bool> asksWhetherEmpty(const Program& p, Place condition, VariableIndex v) {
  const LoweredFile& file = p.file(condition);
  const Node& node = file[condition.node];
  auto of = [&](NodeId n) { return standsFor(p, {condition.file, n}, v); };
  if (node.kind == Kind::NullTest && of(file.child(condition.node, Role::Operand))) return node.detail == static_cast<uint8_t>(NullTestForm::IsNull);
  if (node.is(Kind::Logic, LogicForm::Not)) {
    NodeId inner = file.child(condition.node, Role::Operand);
    std::optional<bool> asked = inner == kNoNode ? std::nullopt : asksWhetherEmpty(p, {condition.file, inner}, v);
    return asked ? std::optional(!*asked) : std::nullopt;
  }
  NodeId member = node.kind == Kind::Call ? file.child(condition.node, Role::Callee) : condition.node;
  if (member == kNoNode || file[member].kind != Kind::Member || !of(file.child(member, Role::Receiver))) return std::nullopt;
  std::string name = lowerCase(file.name(member));
  if (name == "isempty" || name == "empty" || name == "is_empty") return true;
  if (name == "isnotempty") return false;
  return std::nullopt;
}

// if (list.size() < 100) list.add(…);  if (len(list) < 100): list.append(…)
bool measures(const Program& p, Place condition, VariableIndex v) {
  const LoweredFile& file = p.file(condition);
  auto of = [&](NodeId n) { return standsFor(p, {condition.file, n}, v); };
  auto compares = [&](NodeId n) {
    if (file[n].kind != Kind::Compare) return false;
    return anyNode(file, n, [&](NodeId m) {
      if (file[m].kind != Kind::Member && file[m].kind != Kind::Call) return false;
      NodeId callee = file[m].kind == Kind::Call ? file.child(m, Role::Callee) : kNoNode;
      bool member = file[m].kind == Kind::Member && of(file.child(m, Role::Receiver));
      bool given = callee != kNoNode && file[callee].kind == Kind::Name && of(file.child(m, Role::Argument));
      std::string name = lowerCase(member ? file.name(m) : given ? file.name(callee) : std::string_view{});
      return name == "size" || name == "length" || name == "count" || name == "len";
    });
  };
  return compares(condition.node) || anyNode(file, condition.node, compares);
}

// if (list.isEmpty()) list.add(…);  if (list) return; list.add(…);
bool onlyWhileFew(const Program& p, const Use& use) {
  return forEachKnown(p, use.place, [&](const Known& test) {
    Place condition{use.place.file, test.condition};
    return asksWhetherEmpty(p, condition, use.variable) == test.holds || (test.around && p.file(condition)[test.branch].kind == Kind::If && measures(p, condition, use.variable));
  });
}

// A literal, or what is a literal for ever.
bool isConstantKey(const Program& p, Place key) {
  if (p.node(key).kind == Kind::Literal) return true;
  Symbol symbol = p.symbolAt(key);
  if (!symbol.is(Symbol::Sort::Variable) || !p.variables[symbol.index()].lives()) return false;
  Place value = initialiserOf(p, symbol.index());
  auto uses = p.usesOfVariable[symbol.index()];
  return value.known() && p.node(value).kind == Kind::Literal && std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return p.uses[u].access == Access::Read; });
}

// Does the name of its type, or of the one that is made for it, end so?
bool isOfTypeEnding(const Program& p, VariableIndex v, std::string_view ending) {
  auto ends = [&](std::string_view type) { return lowerCase(lastPart(type)).ends_with(ending); };
  Place value = initialiserOf(p, v);
  NodeId made = value.known() && (p.node(value).kind == Kind::Create || p.node(value).kind == Kind::Call) ? p.file(value).child(value.node, p.node(value).kind == Kind::Create ? Role::Type : Role::Callee) : kNoNode;
  return ends(p.text(p.use(p.variables[v].type).name)) || (made != kNoNode && ends(p.file(value).name(made)));
}
// Does it keep each value once?
bool isSet(const Program& p, VariableIndex v) { return isOfTypeEnding(p, v, "set"); }

// Is the key another one each time: what a call gives that is not handed what its function was handed, or a number that is counted up?
bool isNewEachTime(const Program& p, Place key) {
  const LoweredFile& file = p.file(key);
  Symbol symbol = file[key.node].kind == Kind::Name || file[key.node].kind == Kind::Member ? p.symbolAt(key) : Symbol{};
  if (symbol.is(Symbol::Sort::Variable)) {
    const Variable& named = p.variables[symbol.index()];
    if (named.storage != Storage::Local && named.storage != Storage::Parameter) return std::any_of(p.usesOfVariable[symbol.index()].begin(), p.usesOfVariable[symbol.index()].end(), [&](uint32_t u) { return p.uses[u].access == Access::Update; });
    NodeId first = named.definition.known() ? p.file(named.definition).child(named.definition.node, Role::Initialiser) : kNoNode;
    if (first != kNoNode && p.file(named.definition)[first].kind != Kind::Name && isNewEachTime(p, {named.definition.file, first})) return true;
    return std::any_of(p.usesOfVariable[symbol.index()].begin(), p.usesOfVariable[symbol.index()].end(), [&](uint32_t u) {
      NodeId value = p.uses[u].access == Access::Write ? p.assignedAt(p.uses[u].place) : kNoNode;
      return value != kNoNode && p.file(p.uses[u].place)[value].kind != Kind::Name && isNewEachTime(p, {p.uses[u].place.file, value});
    });
  }
  if (file[key.node].kind == Kind::Update) return true;
  if (file[key.node].kind != Kind::Call) return false;
  return !anyNode(file, key.node, [&](NodeId n) {
    Symbol inside = p.links[key.file].symbol[n];
    return inside.is(Symbol::Sort::Variable) && (p.variables[inside.index()].storage == Storage::Parameter || p.variables[inside.index()].storage == Storage::Local);
  });
}

// table[key].append(…): a list in it grows.
bool addsToElement(const Program& p, const Use& use) {
  Place element = p.parent(use.place), member = p.parent(element);
  if (p.node(element).kind != Kind::Index || p.node(use.place).role != Role::Receiver || p.node(member).kind != Kind::Member || p.node(element).role != Role::Receiver) return false;
  return p.node(p.parent(member)).kind == Kind::Call && p.guarantees(member.file).collectionAct(p.nameOf(member)) == CollectionAct::Add;
}

// Does it walk over a collection that is written there and stays as it is?
bool isFixedList(const Program& p, Place list) {
  if (p.node(list).kind == Kind::Collection) return true;
  Symbol symbol = p.symbolAt(list);
  if (!symbol.is(Symbol::Sort::Variable)) return false;
  Place value = initialiserOf(p, symbol.index());
  auto uses = p.usesOfVariable[symbol.index()];
  return value.known() && p.node(value).kind == Kind::Collection && std::all_of(uses.begin(), uses.end(), [&](uint32_t u) { return p.uses[u].access == Access::Read || actAt(p, p.uses[u].place) == CollectionAct::Read || isConstruction(p, p.uses[u]); });
}

// Are there only a few keys: values of an enumeration, elements of a list that is written down, constants that all callers give?
bool isOneOfFew(const Program& p, Place key) {
  Symbol symbol = p.symbolAt(key);
  if (!symbol.is(Symbol::Sort::Variable)) return false;
  const Variable& named = p.variables[symbol.index()];
  if (const TypeUse& type = p.use(named.type); type.decl != kNone && p.types[type.decl].form == TypeForm::Enum) return true;
  if (!named.definition.known()) return false;
  // for (key of list), list.forEach(key => …)
  Place around = p.parent(named.definition);
  const LoweredFile& file = p.file(around);
  if (p.node(around).kind == Kind::Loop) {
    for (NodeId c : children(file, around.node))
      if (file[c].role != Role::Body && isFixedList(p, {around.file, c})) return true;
    return false;
  }
  if (p.node(around).kind == Kind::Lambda && p.node(p.parent(around)).kind == Kind::Call) {
    NodeId list = receiverOf(file, p.parent(around).node);
    return list != kNoNode && isFixedList(p, {around.file, list});
  }
  if (named.storage != Storage::Parameter || named.function == kNone) return false;
  auto calls = p.callsOfFunction[named.function];
  return !calls.empty() && std::all_of(calls.begin(), calls.end(), [&](uint32_t c) {
    Place given = givenFor(p, p.calls[c].place, named.function, symbol.index());
    return given.node != kNoNode && isConstantKey(p, given);
  });
}

// Is the key an object of a class, and no name or number?
bool isObject(const Program& p, Place key) {
  TypeUseId type = p.typeAt(key);
  return type != 0 && p.use(type).decl != kNone && p.types[p.use(type).decl].form != TypeForm::Enum;
}

// Does somebody who uses the code from outside choose the key, a name or number? No code here calls it, and no library, and no list of handlers.
bool isForOthersToAdd(const Subject& s, const Use& add, Place key) {
  const Program& p = s.program;
  if (key.node != kNoNode && isObject(p, key)) return false;
  if (add.in == kNone || isCalled(s, add.in)) return false;
  const Function& fn = p.functions[add.in];
  bool forLibrary = fn.owner != kNone && p.types[fn.owner].hasUnknownBase;
  return !forLibrary && s.threads.sideOf(add.place, add.in).roots[0] == kNone && p.around(add.place, Kind::Lambda).node == kNoNode;
}

// In a function that a module only keeps under a name, for others to call.
bool isOfHook(const Program& p, const Use& add) { return add.in == kNone && runsLater(p, add.place); }

// Does it run again and again as long as the program does: on a thread, or as what a library calls back?
bool runsAgain(const Subject& s, const Use& use) {
  const Program& p = s.program;
  if (use.in == kNone) return false;
  if (s.threads.sideOf(use.place, use.in).roots[0] != kNone) return true;
  Place lambda = p.around(use.place, Kind::Lambda);
  if (lambda.node != kNoNode && p.node(lambda).role == Role::Argument) {
    // What a walk over a collection runs, it runs at once.
    Place call = p.parent(lambda);
    NodeId callee = p.node(call).kind == Kind::Call ? p.file(call).child(call.node, Role::Callee) : kNoNode;
    bool walks = callee != kNoNode && (p.symbolAt(call).known() || p.guarantees(call.file).collectionAct(lastPart(p.file(call).name(callee))) != CollectionAct::None);
    if (!walks) return true;
  }
  return isCalledByLibrary(p, use.in);
}

// Is it filled by the function that has begun it anew, or by one that is written inside that?
bool isBegunFor(const Program& p, const Use& begins, const Use& adds) {
  if (begins.in != adds.in || begins.place.file != adds.place.file || !before(begins.place, adds.place)) return false;
  NodeId lambda = p.around(begins.place, Kind::Lambda).node;
  if (lambda != kNoNode) return p.isInside(adds.place, lambda);
  return p.functions[begins.in].form == FunctionForm::Function && p.around(adds.place, Kind::Lambda).node == kNoNode;
}

// Is it only filled while the program is put together?
bool isFilledAtStart(const Subject& s, const std::vector<const Use*>& adds) {
  const Program& p = s.program;
  return std::all_of(adds.begin(), adds.end(), [&](const Use* use) {
    if (use->in == kNone || p.callsOfFunction[use->in].empty()) return false;
    if (runsOnceByFlag(p, use->in)) return true;
    return std::all_of(p.callsOfFunction[use->in].begin(), p.callsOfFunction[use->in].end(), [&](uint32_t c) {
      return p.around(p.calls[c].place, Kind::Once).node != kNoNode || (isMain(p, p.calls[c].in) && p.around(p.calls[c].place, Kind::Loop).node == kNoNode) || isConstruction(p, p.calls[c].in) || s.inTests(p.calls[c].place);
    });
  });
}

Finding growth(const Subject& s, size_t entity, VariableIndex v, const std::vector<const Use*>& adds, bool keyed, Sureness sureness) {
  const Program& p = s.program;
  const Entity& e = s.survey.entities[entity];
  const Variable& variable = p.variables[v];
  Finding f = makeFinding(s, infoOf("lifetime.grows-forever"), entity, sureness);
  f.place = adds.front()->place;
  f.message = (variable.storage == Storage::Field ? partText(e, std::string(p.text(variable.name))) : e.shown) + " only ever grows" + (keyed ? ": it keeps one entry for each key that it ever sees." : ": no code that was read removes an entry.");
  f.evidence.push_back({variable.declarations.front(), "lives as long as the process"});
  for (const Use* use : adds)
    if (f.evidence.size() < 6) f.evidence.push_back({use->place, functionName(p, use->in) + " adds an entry"});
  f.evidence.push_back({variable.declarations.front(), "no code that was read removes an entry"});
  f.advice = Advice::ByHand;
  return f;
}

}  // namespace

void checkGrowsForever(const Subject& s, std::vector<Finding>& out) {
  const Program& p = s.program;
  std::set<VariableIndex> told;
  for (size_t i = 0; i < s.survey.entities.size(); ++i) {
    const Entity& e = s.survey.entities[i];
    // A table of named instances has one entry for each name there is.
    if (e.harmless || e.kind == EntityKind::Registry || e.kind == EntityKind::ThreadLocal || s.inTests(e.place) || p.guarantees(e.place.file).livesForOneRequest.holds) continue;
    for (const StateField& field : e.state) {
      const Variable& variable = p.variables[field.variable];
      uint32_t traits = variableTraits(p, field.variable);
      if (!(traits & (kCollection | kKeyedCollection)) || (traits & kTextType) || isOfMany(s, e, field.variable) || !told.insert(field.variable).second) continue;
      if (keepsWeakly(p, field.variable) || (variable.modifiers & kThreadLocal)) continue;
      std::vector<const Use*> adds;
      std::vector<const Use*> begun;  // where it is begun anew
      bool bounded = false, renewed = false, ofObjects = false, grows = false, keyed = (traits & kKeyedCollection) != 0 || isSet(p, field.variable);
      for (uint32_t u : p.usesOfVariable[field.variable]) {
        const Use& use = p.uses[u];
        if (s.inTests(use.place)) continue;
        if (use.in != kNone && use.access == Access::Write && !use.inMember && !use.throughPointer && !addsToItself(p, use)) begun.push_back(&use);
        Place up = p.parent(use.place);
        const LoweredFile& file = p.file(use.place);
        CollectionAct act = CollectionAct::None;
        NodeId call = kNoNode, key = kNoNode;
        if (p.node(up).kind == Kind::Member && p.node(use.place).role == Role::Receiver) {
          call = p.parent(up).node;
          act = p.node({up.file, call}).kind == Kind::Call ? p.guarantees(up.file).collectionAct(p.nameOf(up)) : actAt(p, use.place);
        } else if (p.node(up).kind == Kind::Index && p.node(use.place).role == Role::Receiver) {
          Place outer = p.parent(up);
          key = file.child(up.node, Role::Argument);
          if (p.node(outer).kind == Kind::Assign && p.node(up).role == Role::Target) act = file.child(outer.node, Role::Value) == kNoNode ? CollectionAct::Remove : CollectionAct::Add;
          else if (p.node(outer).kind == Kind::Destroy) act = CollectionAct::Remove;
          // An element of a list is replaced, not added.
          if (act == CollectionAct::Add && !(traits & kKeyedCollection)) act = CollectionAct::None;
        } else if (use.access == Access::Bind || (use.access == Access::Write && !use.inMember && !isConstruction(p, use) && !addsToItself(p, use)) || p.node(up).kind == Kind::Return || p.node(up).kind == Kind::Destroy) {
          // Handed to somebody who may empty it, or begun anew.
          bounded = true;
        } else if (p.node(up).kind == Kind::Call && p.node(use.place).role == Role::Argument) {
          // list = append(list, …) and delete(table, key): what is called says.
          NodeId callee = file.child(up.node, Role::Callee);
          std::string_view name = callee == kNoNode ? std::string_view{} : file.name(callee);
          CollectionAct given = p.guarantees(up.file).collectionAct(name);
          // other.update(list) adds to the other one what is in it.
          if (given == CollectionAct::Add && file[callee].kind == Kind::Member && copiesAll(name)) continue;
          if (given == CollectionAct::Add && file[callee].kind == Kind::Name) act = given, call = up.node;
          else if (given != CollectionAct::Read && !(name == "len" || name == "count" || name == "size")) bounded = true;
        }
        if (act == CollectionAct::Remove || act == CollectionAct::Change || emptiesThroughLocal(p, use)) bounded = true;
        // What is got from a queue is no longer in it.
        bool taken = call != kNoNode && act == CollectionAct::Read && lastPart(p.nameOf(up)) == "get" && isOfTypeEnding(p, field.variable, "queue");
        bounded |= taken;
        grows |= addsToElement(p, use);
        // What is written where the program is put together runs then, but for functions that are kept for later.
        bool later = p.around(use.place, Kind::Lambda).node != kNoNode;
        if (act != CollectionAct::Add || (!later && (isConstruction(p, use) || isMain(p, use.in)))) continue;
        // What a class of the tree gives back for it may undo it.
        Role result = call == kNoNode ? Role::None : file[call].role;
        if (p.symbolAt(up).is(Symbol::Sort::Function) && (result == Role::Initialiser || result == Role::Value || result == Role::Argument)) bounded = true;
        if (call != kNoNode)
          if (std::vector<NodeId> given = argumentsOf(file, call); !given.empty()) key = given.front();
        if (onlyWhileFew(p, use)) continue;
        // One entry for each constant key.
        if (keyed && key != kNoNode && isConstantKey(p, {up.file, key})) continue;
        if (keyed && key != kNoNode && isOneOfFew(p, {up.file, key})) continue;
        renewed |= key != kNoNode && isNewEachTime(p, {up.file, key});
        ofObjects |= key != kNoNode && isObject(p, {up.file, key});
        if (keyed && !renewed && !grows && isForOthersToAdd(s, use, {up.file, key})) continue;
        adds.push_back(&use);
      }
      std::erase_if(adds, [&](const Use* add) { return std::any_of(begun.begin(), begun.end(), [&](const Use* use) { return isBegunFor(p, *use, *add); }); });
      if (bounded || adds.empty() || isFilledAtStart(s, adds)) continue;
      // One entry a key is a limit, but for keys that go on coming.
      if (keyed && !renewed && !ofObjects && !grows && std::none_of(adds.begin(), adds.end(), [&](const Use* add) { return runsAgain(s, *add); })) continue;
      // Who is to add an entry is not in this tree, and may do so once.
      bool forOthers = !grows && std::all_of(adds.begin(), adds.end(), [&](const Use* add) { return isForOthersToAdd(s, *add, {add->place.file, kNoNode}) || isOfHook(p, *add); });
      // What is filled while the program is put together comes to an end: what goes on is seen to go on.
      bool goesOn = std::any_of(adds.begin(), adds.end(), [&](const Use* add) { return runsAgain(s, *add); });
      out.push_back(growth(s, i, field.variable, adds, keyed, (keyed && !renewed) || forOthers || !goesOn ? Sureness::Possible : Sureness::Likely));
    }
  }
}

}  // namespace elmcart

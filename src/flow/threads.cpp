#include "flow/threads.h"

#include <algorithm>

#include "base/text.h"
#include "flow/deferred.h"
#include "program/arguments.h"

namespace elmcart {
namespace {

std::string_view lastName(std::string_view name) {
  size_t at = name.find_last_of(":.");
  return at == std::string_view::npos ? name : name.substr(at + 1);
}

bool isAmong(std::span<const std::string_view> names, std::string_view name) { return std::find(names.begin(), names.end(), name) != names.end(); }

}  // namespace

Threads::Threads(const Program& program, std::vector<bool> testFile) : p_(program), testFile_(std::move(testFile)) {
  size_t count = p_.functions.size();
  sides_.resize(count);
  steps_.resize(count);
  starts_.assign(count, 0);
  primed_.assign(count, 0);
  isBody_.assign(count, 0);
  findOnMainThread();
  for (const LoweredFile& file : p_.files)
    locks_.push_back(static_cast<char>(std::any_of(file.nodes.begin(), file.nodes.end(), [](const Node& node) { return node.kind == Kind::Guard; })));
  startsThreads_.assign(p_.files.size(), 0);
  indexOverriders();
  indexStructuralOverriders();
  findRoots();
  findEnds();
  followRoots();
  findStarters();
  findEntries();
  followStartUp();
  followOutside();
  followPrograms();
  findRepeated();
  findLate();
  whiles_.resize(roots_.size());
  whilesOnce_ = std::vector<std::once_flag>(roots_.size());
  leading_.resize(roots_.size());
  leadingOnce_ = std::vector<std::once_flag>(roots_.size());
}

// ----- roots

void Threads::addRoot(Place start, Place call, FunctionIndex in, Meeting many, FunctionIndex body) {
  if (!startedIn(start.file)) startedIn_.push_back(p_.languageOf[start.file]);
  rootsIn_[in].push_back(static_cast<uint32_t>(roots_.size()));
  startsThreads_[call.file] = 1;
  Root root;
  root.start = start;
  root.call = call;
  root.in = in;
  root.many = many;
  roots_.push_back(root);
  bodies_.emplace_back();
  if (body == kNone) return;
  bodies_.back().push_back(body);
  isBody_[body] = 1;
}

// An object that is handed to a thread, or is one: which of its methods run there?
void Threads::startObject(TypeIndex type, Place place, Place call, FunctionIndex in, Meeting many) {
  if (type == kNone || !p_.types[type].definition.known()) return;
  std::span<const std::string_view> names = p_.guarantees(p_.types[type].definition.file).threadBodies;
  for (FunctionIndex m : p_.types[type].methods)
    if (isAmong(names, p_.text(p_.functions[m].name))) addRoot(place, call, in, many, m);
}

void Threads::startFrom(Place argument, Place call, FunctionIndex in, Meeting many) {
  const LoweredFile& file = p_.file(argument);
  const Node& node = file[argument.node];
  if (node.kind == Kind::Lambda) {
    lambdas_.emplace_back(argument, static_cast<uint32_t>(roots_.size()));
    addRoot(argument, call, in, many, kNone);
    return;
  }
  if (node.kind == Kind::Create) {
    startObject(typeMadeAt(argument), argument, call, in, many);
    for (NodeId c : children(file, argument.node))
      if (file[c].role == Role::Argument) startFrom({argument.file, c}, call, in, many);
    return;
  }
  // The object itself, as what runs.
  if (node.kind == Kind::This && in != kNone && p_.functions[in].owner != kNone) {
    startObject(p_.functions[in].owner, argument, call, in, many);
    return;
  }
  // A function by name, or by address of a member.
  NodeId at = argument.node;
  if (node.kind == Kind::AddressOf) at = file.child(at, Role::Operand);
  if (at == kNoNode) return;
  Symbol symbol = p_.symbolAt({argument.file, at});
  // What is called there runs before the thread does; where classes are called, an object is made.
  if (node.kind == Kind::Call) {
    NodeId callee = file.child(at, Role::Callee);
    Symbol made = callee == kNoNode ? Symbol{} : p_.symbolAt({argument.file, callee});
    if (made.is(Symbol::Sort::Type)) startObject(made.index(), argument, call, in, many);
    // A function with some of its arguments; the same handed on.
    bool passesOn = callee != kNoNode && !made.known() && (p_.guarantees(argument.file).callTraits(file.name(callee)) & (kBindsFirst | kYieldsSame));
    if (NodeId first = passesOn ? file.child(at, Role::Argument) : kNoNode; first != kNoNode) startFrom({argument.file, first}, call, in, many);
    return;
  }
  if (symbol.is(Symbol::Sort::Function)) addRoot(argument, call, in, many, symbol.index());
  if (!symbol.is(Symbol::Sort::Variable)) return;
  const Variable& variable = p_.variables[symbol.index()];
  Place definition = variable.definition;
  NodeId value = definition.known() ? p_.file(definition).child(definition.node, Role::Initialiser) : kNoNode;
  if (value != kNoNode && p_.file(definition)[value].kind == Kind::Lambda) {  // a lambda kept in a variable
    // Where it is handed over twice, the places in it belong to the first root.
    auto [first, fresh] = keptLambdas_.try_emplace({definition.file, value}, static_cast<uint32_t>(roots_.size()));
    if (fresh) lambdas_.emplace_back(Place{definition.file, value}, first->second);
    else twins_.emplace_back(first->second, static_cast<uint32_t>(roots_.size()));
    addRoot(argument, call, in, many, kNone);
    return;
  }
  bool made = value != kNoNode && p_.file(definition)[value].kind == Kind::Create;
  startObject(made ? typeMadeAt({definition.file, value}) : p_.classBehind(argument.file, variable.type), argument, call, in, many);
}

// new Runnable() { … }: the class that is written there, where one is.
TypeIndex Threads::typeMadeAt(Place create) const {
  const LoweredFile& file = p_.file(create);
  for (NodeId c : children(file, create.node))
    if (Symbol own = p_.symbolAt({create.file, c}); file[c].kind == Kind::Type && own.is(Symbol::Sort::Type)) return own.index();
  return p_.classBehind(create.file, p_.typeAt(create));
}

// Does a declaration or lambda say that it runs on the main thread?
bool Threads::isMarkedMain(Place declared) const {
  std::span<const std::string_view> names = declared.known() ? p_.guarantees(declared.file).mainThread : std::span<const std::string_view>{};
  if (names.empty()) return false;
  const LoweredFile& file = p_.file(declared);
  for (NodeId c : children(file, declared.node))
    if (file[c].role == Role::Annotation && isAmong(names, lastName(file.name(c)))) return true;
  return false;
}

void Threads::findOnMainThread() {
  std::vector<char> types(p_.types.size(), 0);
  for (TypeIndex t = 0; t < p_.types.size(); ++t) {
    Place home = p_.types[t].definition;
    if (!home.known()) continue;
    std::span<const std::string_view> windows = p_.guarantees(home.file).mainThreadTypes;
    bool window = !windows.empty() && p_.anyBase(t, [&](TypeIndex at, const Base*) {
      return std::any_of(p_.types[at].bases.begin(), p_.types[at].bases.end(), [&](const Base& base) { return base.type == kNone && isAmong(windows, lastName(p_.text(p_.use(base.use).name))); });
    });
    // Locks in it tell that other threads come, too.
    const LoweredFile& file = p_.file(home);
    for (NodeId n = home.node; window && n < file.nodes.size() && file[n].span.begin < file[home.node].span.end; ++n) {
      if (file[n].kind != Kind::Guard) continue;
      NodeId around = file.parents[n];
      while (around != kNoNode && file[around].kind != Kind::Type) around = file.parents[around];
      window = around != home.node;  // one in a class inside it is that one's
    }
    types[t] = static_cast<char>(window || isMarkedMain(home));
  }
  onMain_.assign(p_.functions.size(), 0);
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    const Function& fn = p_.functions[f];
    onMain_[f] = static_cast<char>(isMarkedMain(fn.definition) || (fn.owner != kNone && types[fn.owner]));
  }
}

// Is the code handed to the one thread that runs the events, or the main one?
bool Threads::handsToMainThread(Place call) const {
  std::span<const std::string_view> names = p_.guarantees(call.file).mainThread;
  if (names.empty()) return false;
  const LoweredFile& file = p_.file(call);
  auto named = [&](NodeId n) {
    return (file[n].kind == Kind::Name || file[n].kind == Kind::Member) && isAmong(names, lastName(file.name(n)));
  };
  for (NodeId c : children(file, call.node)) {
    if (file[c].kind == Kind::Lambda) {
      if (isMarkedMain({call.file, c})) return true;
      continue;
    }
    if (named(c)) return true;
    for (NodeId n = c + 1; n < file.nodes.size() && file[n].span.begin < file[c].span.end && file[n].kind != Kind::Lambda; ++n)
      if (named(n)) return true;
  }
  return false;
}

// What is given there runs on the main thread: of a parameter, what the callers give for it; of a task
// that was made of a parameter (new FutureTask<>(code)), the same.
void Threads::handOnToMainThread(Place given, int depth) {
  const LoweredFile& file = p_.file(given);
  if (file[given.node].kind == Kind::Lambda) lambdas_.emplace_back(given, kMainThread);
  Symbol symbol = file[given.node].kind == Kind::Name ? p_.symbolAt(given) : Symbol{};
  if (!symbol.is(Symbol::Sort::Variable) || depth > 3) return;
  const Variable& variable = p_.variables[symbol.index()];
  if (variable.storage == Storage::Local && variable.definition.known()) {
    const LoweredFile& home = p_.file(variable.definition);
    NodeId made = home.child(variable.definition.node, Role::Initialiser);
    if (made == kNoNode || home[made].kind != Kind::Create) return;
    for (NodeId c : children(home, made))
      if (home[c].role == Role::Argument) handOnToMainThread({variable.definition.file, c}, depth + 1);
    return;
  }
  if (variable.storage != Storage::Parameter || variable.function == kNone) return;
  for (uint32_t c : p_.callsOfFunction[variable.function])
    if (Place argument = givenFor(p_, p_.calls[c].place, variable.function, symbol.index()); argument.node != kNoNode) handOnToMainThread(argument, depth + 1);
}

void Threads::findRoots() {
  for (const ForeignCall& site : p_.foreignCalls) {
    if (inTests(site.place) || p_.inOtherBranch(site.place)) continue;
    const Guarantees& g = p_.guarantees(site.place.file);
    if (!g.sharedMemoryThreads.holds) continue;
    std::string_view name = p_.text(site.name);
    uint32_t calls = g.callTraits(name);
    bool starts = (g.typeTraits(name) & (kThreadType | kGivenTasks)) == kThreadType || (calls & (kStartsThread | kRunsLater | kRunsForEach));
    const LoweredFile& file = p_.file(site.place);
    NodeId callee = file[site.place.node].kind == Kind::Call ? file.child(site.place.node, Role::Callee) : kNoNode;
    // threads.emplace_back(work): a collection of threads.
    if (!starts && name.substr(0, 7) == "emplace") {
      NodeId receiver = callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
      TypeUseId element = receiver == kNoNode ? 0 : p_.argument(p_.use(p_.links[site.place.file].type[receiver]), 0);
      starts = element != 0 && (p_.traits(site.place.file, element) & kThreadType);
    }
    bool byName = isAmong(g.mainThread, lastName(name));
    if (!starts && !byName) continue;
    if (byName || handsToMainThread(site.place)) {
      for (NodeId c : children(file, site.place.node)) handOnToMainThread({site.place.file, c}, 0);
      continue;
    }
    Meeting many = (calls & kRunsForEach) || p_.around(site.place, Kind::Loop).node != kNoNode ? Meeting::Certain : Meeting::Never;
    // go work(): the call itself is what runs there.
    for (NodeId c : children(file, site.place.node)) {
      if (file[c].role != Role::Argument) continue;
      Place argument{site.place.file, c};
      Symbol body = file[c].kind == Kind::Call && (calls & kStartsThread) ? p_.symbolAt(argument) : Symbol{};
      if (body.is(Symbol::Sort::Function)) {
        startedCalls_.emplace(std::make_pair(argument.file, argument.node), static_cast<uint32_t>(roots_.size()));
        addRoot(argument, site.place, site.in, many, body.index());
      } else {
        startFrom(argument, site.place, site.in, many);
      }
    }
  }
  // class Watch(Thread): each one that is made is a thread.
  for (const Creation& creation : p_.creations) {
    if (creation.asBase || creation.delegated || creation.copy || inTests(creation.place) || p_.inOtherBranch(creation.place)) continue;
    bool isThread = p_.anyBase(creation.type, [&](TypeIndex at, const Base*) {
      return std::any_of(p_.types[at].bases.begin(), p_.types[at].bases.end(), [&](const Base& base) { return base.type == kNone && (p_.traits(p_.types[at].home().file, base.use) & kThreadType); });
    });
    if (isThread) startObject(creation.type, creation.place, creation.place, creation.in, p_.around(creation.place, Kind::Loop).node != kNoNode ? Meeting::Certain : Meeting::Never);
  }
  std::sort(lambdas_.begin(), lambdas_.end(), [](const auto& a, const auto& b) { return before(a.first, b.first); });
}

uint32_t Threads::rootAround(Place place) const {
  if (auto started = startedCalls_.find(std::make_pair(place.file, place.node)); started != startedCalls_.end()) return started->second;
  // The last one that begins at or before the place, and those around it.
  auto at = std::upper_bound(lambdas_.begin(), lambdas_.end(), place, [](Place wanted, const auto& lambda) { return before(wanted, lambda.first); });
  for (int looked = 0; at != lambdas_.begin() && looked < 64; ++looked) {
    --at;
    if (at->first.file != place.file) break;
    if (p_.isInside(place, at->first.node)) return at->second;
  }
  return kNone;
}

// ----- following calls

void Threads::indexOverriders() {
  overriders_.resize(p_.functions.size());
  absl::flat_hash_map<std::pair<TypeIndex, NameId>, std::vector<FunctionIndex>> byName;
  auto canOverride = [&](FunctionIndex f) {
    const Function& fn = p_.functions[f];
    return fn.owner != kNone && !(fn.modifiers & kStatic) && fn.form == FunctionForm::Function;
  };
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f)
    if (canOverride(f)) byName[{p_.functions[f].owner, p_.functions[f].name}].push_back(f);
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    if (!canOverride(f) || p_.types[p_.functions[f].owner].bases.empty()) continue;
    p_.anyBase(p_.functions[f].owner, [&](TypeIndex base, const Base* through) {
      auto found = through ? byName.find({base, p_.functions[f].name}) : byName.end();
      if (found != byName.end())
        for (FunctionIndex overridden : found->second)
          if (p_.functions[overridden].parameters.size() == p_.functions[f].parameters.size()) overriders_[overridden].push_back(f);
      return false;
    });
  }
}

// Where classes do not say which interfaces they have, those with all of its methods have it.
void Threads::indexStructuralOverriders() {
  constexpr size_t kMostTypes = 40;  // that have a method of one name: more tell nothing
  absl::flat_hash_map<NameId, std::vector<FunctionIndex>> byName;
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    const Function& fn = p_.functions[f];
    if (fn.owner != kNone && fn.definition.known() && p_.guarantees(fn.definition.file).noSubclasses.holds && p_.types[fn.owner].form != TypeForm::Interface) byName[fn.name].push_back(f);
  }
  auto methodOf = [&](TypeIndex type, FunctionIndex wanted) {
    for (FunctionIndex m : p_.types[type].methods)
      if (p_.functions[m].name == p_.functions[wanted].name && p_.functions[m].parameters.size() == p_.functions[wanted].parameters.size()) return m;
    return FunctionIndex{kNone};
  };
  for (const TypeDecl& type : p_.types) {
    if (type.form != TypeForm::Interface || !type.definition.known() || !p_.guarantees(type.definition.file).noSubclasses.holds || type.methods.empty()) continue;
    const std::vector<FunctionIndex>* fewest = nullptr;
    bool any = true;
    for (FunctionIndex m : type.methods) {
      auto found = byName.find(p_.functions[m].name);
      any &= found != byName.end();
      if (any && (!fewest || found->second.size() < fewest->size())) fewest = &found->second;
    }
    if (!any || !fewest || fewest->size() > kMostTypes) continue;
    for (FunctionIndex candidate : *fewest) {
      TypeIndex owner = p_.functions[candidate].owner;
      if (std::any_of(type.methods.begin(), type.methods.end(), [&](FunctionIndex m) { return methodOf(owner, m) == kNone; })) continue;
      for (FunctionIndex m : type.methods) overriders_[m].push_back(methodOf(owner, m));
    }
  }
}

// queue_.post([] { … }): what a queue of the tree is given runs on the thread that empties it, not on this one.
bool Threads::isPutAside(Place place) {
  const LoweredFile& file = p_.file(place);
  for (NodeId up = file.parents[place.node]; up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Type; up = file.parents[up]) {
    if (file[up].kind != Kind::Lambda) continue;
    auto [known, fresh] = putAside_.try_emplace({place.file, up}, false);
    if (fresh) known->second = isPutAsideInTree(p_, {place.file, up});
    if (known->second) return true;
  }
  return false;
}

void Threads::followRoots() {
  std::vector<std::pair<FunctionIndex, uint32_t>> open;
  auto enter = [&](FunctionIndex f, uint32_t root, uint32_t call) {
    Side& side = sides_[f];
    if (onMain_[f] || (p_.functions[f].definition.known() && inTests(p_.functions[f].definition)) || side.roots[0] == root || side.roots[1] == root || side.roots[1] != kNone) return;
    size_t k = side.roots[0] == kNone ? 0 : 1;
    side.roots[k] = root;
    steps_[f].call[k] = call;
    open.emplace_back(f, root);
  };
  for (uint32_t r = 0; r < roots_.size(); ++r)
    for (FunctionIndex body : bodies_[r]) enter(body, r, kNone);
  for (auto& [lambda, root] : lambdas_) {
    uint32_t of = root;
    if (of == kMainThread) continue;
    forEachInside(p_, p_.calls, lambda, [&](const CallSite& call) {
      if (rootAround(call.place) != of) return;
      forEachCallee(static_cast<uint32_t>(&call - p_.calls.data()), [&](FunctionIndex f) { enter(f, of, static_cast<uint32_t>(&call - p_.calls.data())); });
    });
  }
  for (size_t i = 0; i < open.size(); ++i) {
    auto [f, root] = open[i];
    for (uint32_t c : p_.callsInFunction[f])
      if (rootAround(p_.calls[c].place) == kNone && !isPutAside(p_.calls[c].place)) forEachCallee(c, [&](FunctionIndex callee) { enter(callee, root, c); });
  }
}

void Threads::findStarters() {
  std::vector<FunctionIndex> open;
  auto enter = [&](FunctionIndex f) {
    if (f == kNone || starts_[f]) return;
    starts_[f] = 1;
    open.push_back(f);
  };
  for (const Root& root : roots_) enter(root.in);
  // An overridden method starts what its overriders start.
  std::vector<std::vector<FunctionIndex>> overridden(p_.functions.size());
  for (FunctionIndex f = 0; f < overriders_.size(); ++f)
    for (FunctionIndex o : overriders_[f]) overridden[o].push_back(f);
  for (size_t i = 0; i < open.size(); ++i) {
    for (uint32_t c : p_.callsOfFunction[open[i]]) enter(p_.calls[c].in);
    for (FunctionIndex f : overridden[open[i]]) enter(f);
  }
}

// Does control get there whenever it gets into the function? Asking whether a file is run as a program is no condition.
bool Threads::isSurelyRun(Place place) const {
  const LoweredFile& file = p_.file(place);
  for (Place up = p_.around(place, Kind::If); up.node != kNoNode; up = p_.around(up, Kind::If)) {
    NodeId condition = file.child(up.node, Role::Condition);
    bool asksName = false;
    for (NodeId n = condition; condition != kNoNode && n < file.nodes.size() && file[n].span.begin < file[condition].span.end; ++n) asksName |= file[n].kind == Kind::Name && file.name(n) == "__name__";
    bool inCondition = condition != kNoNode && (place.node == condition || p_.isInside(place, condition));
    if (!asksName && !inCondition) return false;
  }
  return p_.around(place, Kind::Switch).node == kNoNode && p_.around(place, Kind::Loop).node == kNoNode;
}

// The variables that hold the thread, or a collection with it in it.
std::vector<VariableIndex> Threads::keepersOf(Place call) const {
  std::vector<VariableIndex> out;
  const LoweredFile& file = p_.file(call);
  auto climb = [&](NodeId from) {
    for (NodeId up = from; up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Block; up = file.parents[up]) {
      NodeId target = kNoNode;
      if (file[up].kind == Kind::Variable || file[up].kind == Kind::FieldInit) target = up;
      if (file[up].kind == Kind::Assign) target = file.child(up, Role::Target);
      NodeId callee = file[up].kind == Kind::Call ? file.child(up, Role::Callee) : kNoNode;
      if (callee != kNoNode && file[callee].kind == Kind::Member) target = file.child(callee, Role::Receiver);
      Symbol symbol = target == kNoNode ? Symbol{} : p_.symbolAt({call.file, target});
      if (symbol.is(Symbol::Sort::Variable) && std::find(out.begin(), out.end(), symbol.index()) == out.end()) out.push_back(symbol.index());
    }
  };
  climb(call.node);
  // all.push_back(thread)
  for (size_t i = 0; i < out.size() && i < 4; ++i)
    for (uint32_t u : p_.usesOfVariable[out[i]])
      if (const Use& use = p_.uses[u]; use.place.file == call.file && use.place.node > call.node && p_.node(use.place).role == Role::Argument) climb(use.place.node);
  return out;
}

// The last call in the function that waits for the thread: on a variable that holds it, on each of a
// collection, or on what the thread itself tells that it is done.
Place Threads::endOf(const Root& root) const {
  std::span<const std::string_view> names = p_.guarantees(root.call.file).joins;
  Place out;
  if (names.empty() || root.in == kNone) return out;
  const LoweredFile& file = p_.file(root.call);
  auto isJoin = [&](NodeId call) {
    NodeId callee = file[call].kind == Kind::Call ? file.child(call, Role::Callee) : kNoNode;
    return callee != kNoNode && isAmong(names, lastName(file.name(callee)));
  };
  if (isJoin(root.call.node)) return root.call;  // Parallel.For(…) returns when all is done
  std::vector<VariableIndex> keepers;
  bool known = false;
  auto holds = [&](NodeId node) {
    Symbol symbol = p_.symbolAt({root.call.file, node});
    if (!symbol.is(Symbol::Sort::Variable)) return false;
    if (!known) keepers = keepersOf(root.call), known = true;
    if (std::find(keepers.begin(), keepers.end(), symbol.index()) != keepers.end()) return true;
    for (uint32_t u : p_.usesOfVariable[symbol.index()])
      if (p_.uses[u].place.file == root.call.file && p_.isInside(p_.uses[u].place, root.call.node)) return true;
    return false;
  };
  Place function = p_.functions[root.in].definition;
  if (function.file != root.call.file) return out;
  for (NodeId n = root.call.node + 1; n < file.nodes.size() && file[n].span.begin < file[function.node].span.end; ++n) {
    if (!isJoin(n)) continue;
    NodeId callee = file.child(n, Role::Callee);
    Place at{root.call.file, n};
    if (p_.around(at, Kind::If).node != p_.around(root.call, Kind::If).node && !isSurelyRun(at) && p_.around(at, Kind::Loop).node == kNoNode) continue;
    if (p_.around(at, Kind::Lambda).node != p_.around(root.call, Kind::Lambda).node) continue;
    NodeId receiver = file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
    bool waits = receiver != kNoNode && holds(receiver);
    for (NodeId c : children(file, n)) waits |= file[c].role == Role::Argument && holds(file[c].kind == Kind::AddressOf ? file.child(c, Role::Operand) : c);
    // for each of a collection: what the loop walks over
    Place loop = p_.around(at, Kind::Loop);
    if (!waits && loop.node != kNoNode && p_.functions[root.in].definition.node < loop.node)
      for (NodeId c : children(file, loop.node))
        if (file[c].role != Role::Body && file[c].kind != Kind::Block)
          for (NodeId inner = c; inner < file.nodes.size() && file[inner].span.begin < file[c].span.end; ++inner) waits |= file[inner].kind == Kind::Name && holds(inner);
    // Behind the loop that waits, unless the start stands in it too.
    if (waits) out = loop.node != kNoNode && !p_.isInside(root.call, loop.node) ? loop : at;
  }
  return out;
}

// The one lasting variable that a function returns, on each way.
Symbol Threads::handedOutBy(FunctionIndex function) const {
  Place body = p_.functions[function].definition;
  if (!body.known()) return {};
  const LoweredFile& file = p_.file(body);
  Symbol out;
  for (NodeId n = body.node + 1; n < file.nodes.size() && file[n].span.begin < file[body.node].span.end; ++n) {
    NodeId value = file[n].kind == Kind::Return ? file.child(n, Role::Value) : kNoNode;
    if (value == kNoNode || p_.around({body.file, n}, Kind::Lambda).node != kNoNode) continue;
    Symbol given = p_.symbolAt({body.file, value});
    bool lasting = given.is(Symbol::Sort::Variable) && p_.variables[given.index()].lives();
    if (!lasting || (out.known() && !(out == given))) return {};
    out = given;
  }
  return out;
}

// What runs the task, where that was made to run one after the other.
VariableIndex Threads::serialExecutorOf(Place call) const {
  std::span<const std::string_view> names = p_.guarantees(call.file).serialExecutors;
  const LoweredFile& file = p_.file(call);
  NodeId callee = names.empty() || file[call.node].kind != Kind::Call ? kNoNode : file.child(call.node, Role::Callee);
  NodeId executor = callee != kNoNode && file[callee].kind == Kind::Member ? file.child(callee, Role::Receiver) : kNoNode;
  // dispatch_async(queue, …)
  if (executor == kNoNode && callee != kNoNode) executor = file.child(call.node, Role::Argument);
  Symbol symbol = executor == kNoNode ? Symbol{} : p_.symbolAt({call.file, executor});
  // dispatch_async(queueOfTheDesk(), …)
  if (executor != kNoNode && file[executor].kind == Kind::Call && symbol.is(Symbol::Sort::Function)) symbol = handedOutBy(symbol.index());
  if (!symbol.is(Symbol::Sort::Variable)) return kNone;
  return isSerial(symbol.index(), 0) ? symbol.index() : kNone;
}

// Is every executor that the variable is given one that runs its tasks one after the other? A parameter is what its callers give.
bool Threads::isSerial(VariableIndex executor, int depth) const {
  const Variable& variable = p_.variables[executor];
  bool serial = false;
  auto add = [&](Place value) {
    if (p_.node(value).is(Kind::Literal, LiteralForm::Null)) return true;
    serial = true;
    return isSerialValue(value, depth);
  };
  if (variable.storage == Storage::Parameter && variable.function != kNone) {
    for (uint32_t c : p_.callsOfFunction[variable.function])
      if (Place given = givenFor(p_, p_.calls[c].place, variable.function, executor); given.node == kNoNode || !add(given)) return false;
    return serial;
  }
  NodeId first = variable.definition.known() ? p_.file(variable.definition).child(variable.definition.node, Role::Initialiser) : kNoNode;
  if (first != kNoNode && !add({variable.definition.file, first})) return false;
  for (uint32_t u : p_.usesOfVariable[executor]) {
    const Use& use = p_.uses[u];
    if (use.access != Access::Write || use.throughPointer || use.inMember || p_.node(p_.parent(use.place)).kind != Kind::Assign) continue;
    NodeId given = p_.file(use.place).child(p_.parent(use.place).node, Role::Value);
    if (given != kNoNode && !add({use.place.file, given})) return false;
  }
  return serial;
}

bool Threads::isSerialValue(Place value, int depth) const {
  const LoweredFile& in = p_.file(value);
  if (Symbol kept = p_.symbolAt(value); depth < 3 && kept.is(Symbol::Sort::Variable)) return isSerial(kept.index(), depth + 1);
  std::span<const std::string_view> names = p_.guarantees(value.file).serialExecutors;
  bool made = false;
  for (NodeId n = value.node; n < in.nodes.size() && in[n].span.begin < in[value.node].span.end; ++n) {
    std::string_view name = lastName(in.name(n));
    if (name == "concurrent" || name == "DISPATCH_QUEUE_CONCURRENT") return false;
    made |= isAmong(names, name);
  }
  return made;
}

void Threads::findEnds() {
  for (Root& root : roots_) {
    root.end = endOf(root);
    root.serial = serialExecutorOf(root.call);
    // Started and waited for in one turn of a loop.
    Place loop = root.end.known() && root.end != root.call ? p_.around(root.call, Kind::Loop) : Place{};
    if (loop.known() && loop.node != kNoNode && p_.isInside(root.end, loop.node)) root.many = Meeting::Never;
    if (root.serial != kNone) root.many = Meeting::Never;
  }
  for (auto [first, second] : twins_)
    if (!areApart(first, second)) roots_[first].many = Meeting::Certain;
}

// Is the thread put where the program finds it again? Then there is one for each such place.
bool Threads::isKept(Place call) const {
  const LoweredFile& file = p_.file(call);
  for (NodeId up = call.node; up != kNoNode && file[up].kind != Kind::Function && file[up].kind != Kind::Block; up = file.parents[up]) {
    NodeId target = file[up].kind == Kind::Assign ? file.child(up, Role::Target) : kNoNode;
    Symbol symbol = target == kNoNode ? Symbol{} : p_.symbolAt({call.file, target});
    if (symbol.is(Symbol::Sort::Variable) && p_.variables[symbol.index()].storage != Storage::Local) return true;
    if (file[up].kind == Kind::FieldInit) return true;
  }
  return false;
}

// while (true) { … }: what serves as long as the program runs.
bool Threads::runsWithoutEnd(Place code) const {
  const LoweredFile& file = p_.file(code);
  for (NodeId n = code.node + 1; n < file.nodes.size() && file[n].span.begin < file[code.node].span.end; ++n) {
    if (file[n].kind != Kind::Loop) continue;
    NodeId condition = file.child(n, Role::Condition);
    bool walks = false;
    for (NodeId c : children(file, n)) walks |= file[c].kind == Kind::Variable || (file[c].role != Role::Body && file[c].kind != Kind::Block && c != condition);
    if (condition == kNoNode ? !walks : file[condition].kind == Kind::Literal || file[condition].kind == Kind::Name || file[condition].kind == Kind::Logic || file[condition].kind == Kind::Member) return true;
  }
  return false;
}

// A thread that another one starts comes as late as that.
void Threads::findLate() {
  for (Root& root : roots_) root.late = root.in != kNone;
  for (bool changed = true; changed;) {
    changed = false;
    for (Root& root : roots_) {
      if (!root.late) continue;
      bool early = fromEntry_[root.in] || std::any_of(sides_[root.in].roots.begin(), sides_[root.in].roots.end(), [&](uint32_t of) { return of != kNone && !roots_[of].late; });
      if (!early) continue;
      root.late = false;
      changed = true;
    }
  }
}

// What anybody may call, and what runs on several threads itself, may start its thread again.
void Threads::findRepeated() {
  for (size_t r = 0; r < roots_.size(); ++r) {
    Root& root = roots_[r];
    if (root.many != Meeting::Never || root.in == kNone || root.serial != kNone) continue;
    const Side& starter = sides_[root.in];
    bool again = starter.outside == Outside::Anybody || std::any_of(starter.roots.begin(), starter.roots.end(), [&](uint32_t of) { return of != kNone && of != r && roots_[of].many != Meeting::Never; });
    if (!again || p_.functions[root.in].form == FunctionForm::Constructor || isKept(root.call)) continue;
    bool endless = bodies_[r].empty() && runsWithoutEnd(root.start);
    for (FunctionIndex body : bodies_[r]) endless |= p_.functions[body].definition.known() && runsWithoutEnd(p_.functions[body].definition);
    if (!endless) root.many = Meeting::Likely;
  }
}

// ----- answers

Threads::Side Threads::sideOf(Place place, FunctionIndex in) const {
  uint32_t root = rootAround(place);
  if (root == kMainThread) return {{kNone, kNone}, Outside::Entry};
  if (root != kNone) return {{root, kNone}, Outside::Nobody};
  return sideOf(in);
}

// Is the call made on an object that is a local of the caller?
bool Threads::isOnLocal(const CallSite& call) const {
  NodeId receiver = receiverOf(p_.file(call.place), call.place.node);
  Symbol symbol = receiver == kNoNode ? Symbol{} : p_.symbolAt({call.place.file, receiver});
  if (!symbol.is(Symbol::Sort::Variable) || p_.variables[symbol.index()].storage != Storage::Local) return false;
  const Variable& local = p_.variables[symbol.index()];
  const TypeUse& use = p_.use(local.type);
  if (use.decl != kNone && !use.has(kPointer | kReference)) return true;
  NodeId initial = local.definition.known() ? p_.file(local.definition).child(local.definition.node, Role::Initialiser) : kNoNode;
  return initial != kNoNode && p_.file(local.definition)[initial].kind == Kind::Create;
}

Threads::Side Threads::sideOnShared(Place place, FunctionIndex in) const {
  Side whole = sideOf(place, in);
  if (in == kNone || p_.functions[in].owner == kNone || p_.functions[in].isStaticMember() || rootAround(place) != kNone) return whole;
  std::vector<uint32_t> calls = productionCallsOf(in);
  size_t all = calls.size();
  std::erase_if(calls, [&](uint32_t c) { return isOnLocal(p_.calls[c]); });
  if (calls.empty() || calls.size() == all) return whole;
  Side out;
  for (uint32_t c : calls) {
    const CallSite& call = p_.calls[c];
    bool entry = call.in != kNone && isEntry_[call.in] != 0;
    Side side = sideOf(call.place, call.in);
    if (entry && side.roots[0] == kNone) side.outside = std::find(entryCalls_.begin(), entryCalls_.end(), c) != entryCalls_.end() ? Outside::Entry : Outside::StartUp;
    out.outside = std::max(out.outside, side.outside);
    for (uint32_t root : side.roots)
      if (root != kNone && root != out.roots[0] && root != out.roots[1]) (out.roots[0] == kNone ? out.roots[0] : out.roots[1]) = root;
  }
  return out;
}

std::vector<uint32_t> Threads::productionCallsOf(FunctionIndex function) const {
  std::vector<uint32_t> out;
  for (uint32_t c : p_.callsOfFunction[function])
    if (!inTests(p_.calls[c].place)) out.push_back(c);
  return out;
}

// In the function, or else in all that call it, before the place is reached.
bool Threads::surelyCalledBefore(FunctionIndex in, Place place, const absl::flat_hash_set<FunctionIndex>& wanted, int depth) const {
  if (in == kNone) return false;
  for (uint32_t c : p_.callsInFunction[in]) {
    const CallSite& call = p_.calls[c];
    if (call.place.file == place.file && call.place.node < place.node && wanted.count(call.callee) && isSurelyRun(call.place) && rootAround(call.place) == kNone) return true;
  }
  // What each constructor of the object does was done before.
  const Function& fn = p_.functions[in];
  bool ofObject = fn.owner != kNone && !fn.isStaticMember() && fn.form != FunctionForm::Constructor && fn.form != FunctionForm::Initialiser;
  if (ofObject) {
    size_t constructors = 0, callers = 0;
    for (FunctionIndex m : p_.types[fn.owner].methods)
      if (p_.functions[m].form == FunctionForm::Constructor) ++constructors, callers += wanted.count(m);
    if (constructors > 0 && constructors == callers) return true;
  }
  std::vector<uint32_t> calls = depth < 5 ? productionCallsOf(in) : std::vector<uint32_t>();
  if (calls.empty() || calls.size() > 20) return false;
  return std::all_of(calls.begin(), calls.end(), [&](uint32_t c) { return surelyCalledBefore(p_.calls[c].in, p_.calls[c].place, wanted, depth + 1); });
}

bool Threads::calledBefore(FunctionIndex function, uint32_t root) const {
  // What calls it on every way does as well.
  constexpr size_t kMost = 200;
  absl::flat_hash_set<FunctionIndex> wanted = {function};
  std::vector<FunctionIndex> open = {function};
  for (size_t i = 0; i < open.size() && open.size() < kMost; ++i)
    for (uint32_t c : productionCallsOf(open[i])) {
      const CallSite& call = p_.calls[c];
      if (call.in != kNone && isSurelyRun(call.place) && rootAround(call.place) == kNone && wanted.insert(call.in).second) open.push_back(call.in);
    }
  return surelyCalledBefore(roots_[root].in, roots_[root].call, wanted, 0) || entriesCallFirst(wanted, root);
}

// The functions that lead to the start, each with where in it the thread may run.
void Threads::followCallers(FunctionIndex in, While span, int depth, Whiles& out) const {
  if (in == kNone || out.size() > 100 || !out.emplace(in, span).second || depth > 5) return;
  // Who calls a function that waits for the end goes on when that has come.
  for (uint32_t c : productionCallsOf(in)) followCallers(p_.calls[c].in, {p_.calls[c].place, span.end.known() ? p_.calls[c].place : Place{}}, depth + 1, out);
}

const Threads::Whiles& Threads::whilesOf(uint32_t root) const {
  std::call_once(whilesOnce_[root], [&] { followCallers(roots_[root].in, {roots_[root].call, roots_[root].end}, 0, whiles_[root]); });
  return whiles_[root];
}

bool Threads::isApart(Place place, FunctionIndex in, const While& span) const {
  if (place.file != span.begin.file) return false;
  if (span.end.known()) return place.node < span.begin.node || (place.node > span.end.node && !p_.isInside(place, span.end.node));
  return (place.node < span.begin.node || areAlternatives(place, span.begin, in)) && p_.around(place, Kind::Loop).node == kNoNode;
}

// In two branches of one condition, in a function that runs once.
bool Threads::areAlternatives(Place a, Place b, FunctionIndex in) const {
  if (in == kNone || !isEntry_[in]) return false;
  const LoweredFile& file = p_.file(a);
  for (Place choice = p_.around(a, Kind::If); choice.node != kNoNode; choice = p_.around(choice, Kind::If)) {
    if (!p_.isInside(b, choice.node)) continue;
    NodeId then = file.child(choice.node, Role::Then), otherwise = file.child(choice.node, Role::Else);
    auto inside = [&](Place place, NodeId branch) { return branch != kNoNode && (place.node == branch || p_.isInside(place, branch)); };
    return (inside(a, then) && inside(b, otherwise)) || (inside(b, then) && inside(a, otherwise));
  }
  return false;
}

// Are all ways to the function from outside those where the thread runs? The callers are asked, and theirs.
bool Threads::isApart(FunctionIndex function, const Whiles& whiles, uint32_t root) const {
  constexpr size_t kMostCallers = 60;
  std::vector<FunctionIndex> open = {function};
  for (size_t i = 0; i < open.size(); ++i) {
    std::vector<uint32_t> calls = productionCallsOf(open[i]);
    if (calls.empty() || calls.size() > 20 || open.size() > kMostCallers || whiles.contains(open[i])) return false;
    for (uint32_t c : calls) {
      const CallSite& call = p_.calls[c];
      uint32_t around = rootAround(call.place);
      if (around == root) continue;
      if (around != kNone || call.in == kNone) return false;
      if (auto span = whiles.find(call.in); span != whiles.end()) {
        if (!isApart(call.place, call.in, span->second)) return false;
        continue;
      }
      // What the thread itself runs, and nobody else, is no other piece.
      const Side& side = sides_[call.in];
      if (side.outside == Outside::Nobody && side.roots[0] == root && side.roots[1] == kNone) continue;
      if (std::find(open.begin(), open.end(), call.in) == open.end()) open.push_back(call.in);
    }
  }
  return true;
}

bool Threads::isApart(const Piece& piece, uint32_t root) const {
  if (piece.in == kNone) return false;
  const std::array<uint32_t, 2>& own = sides_[piece.in].roots;
  if (own[0] != kNone && (own[0] != root || own[1] != kNone)) return false;
  const Whiles& whiles = whilesOf(root);
  auto span = whiles.find(piece.in);
  if (span != whiles.end()) return piece.place.known() && rootAround(piece.place) == kNone && isApart(piece.place, piece.in, span->second);
  return isApart(piece.in, whiles, root);
}

// One of the two is over, or not begun yet, whenever the other runs.
bool Threads::areApart(uint32_t a, uint32_t b) const {
  const Root &one = roots_[a], &other = roots_[b];
  if (one.serial != kNone && one.serial == other.serial) return true;
  auto endsBefore = [&](const Root& first, const Root& second) {
    return first.in == second.in && first.end.known() && first.end.file == second.call.file && first.end.node < second.call.node && p_.around(first.call, Kind::Loop).node == kNoNode;
  };
  return a != b && (endsBefore(one, other) || endsBefore(other, one));
}

Meeting Threads::meeting(const Piece& a, const Piece& b) const {
  Meeting out = Meeting::Never;
  auto raise = [&](Meeting to) { out = std::max(out, to); };
  for (uint32_t ra : a.side.roots)
    for (uint32_t rb : b.side.roots)
      if (ra != kNone && rb != kNone && !areApart(ra, rb) && !areOfTwoPrograms(roots_[ra].in, roots_[rb].in)) raise(ra != rb ? Meeting::Certain : roots_[ra].many);
  auto besides = [&](const Side& on, const Piece& other) {
    for (uint32_t root : on.roots) {
      // What an entry runs does not meet a thread that no entry of the tree comes to start.
      bool apart = root != kNone && (roots_[root].late || (roots_[root].in != kNone && !fromEntry_[roots_[root].in]));
      Meeting to = other.side.outside != Outside::Entry ? Meeting::Likely : apart ? Meeting::NotKnown : Meeting::Certain;
      if (root != kNone && other.side.outside >= Outside::Entry && to > out && !areOfTwoPrograms(roots_[root].in, other.in) && !isApart(other, root)) raise(to);
    }
  };
  besides(a.side, b);
  besides(b.side, a);
  // What is only run while the program or its modules are loaded is over before anybody calls.
  if ((a.side.outside == Outside::Anybody && !b.side.startsUp()) || (b.side.outside == Outside::Anybody && !a.side.startsUp())) raise(Meeting::NotKnown);
  return out;
}

std::vector<uint32_t> Threads::callsTo(FunctionIndex function, uint32_t root) const {
  std::vector<uint32_t> out;
  for (FunctionIndex f = function; f != kNone && out.size() < 64;) {
    size_t k = sides_[f].roots[0] == root ? 0 : 1;
    if (sides_[f].roots[k] != root || steps_[f].call[k] == kNone) break;
    out.push_back(steps_[f].call[k]);
    const CallSite& call = p_.calls[out.back()];
    f = rootAround(call.place) == root ? kNone : call.in;
  }
  std::reverse(out.begin(), out.end());
  return out;
}

std::vector<Place> Threads::wayTo(FunctionIndex function, uint32_t root) const {
  std::vector<Place> out;
  for (uint32_t call : callsTo(function, root)) out.push_back(p_.calls[call].place);
  return out;
}

// if (loop.inEventLoop()) run(task); else loop.execute(…)
bool Threads::isBehindThreadTest(Place place) const {
  const LoweredFile& file = p_.file(place);
  auto asks = [&](NodeId condition) {
    for (NodeId n = condition; n < file.nodes.size() && (n == condition || p_.isInside({place.file, n}, condition)); ++n) {
      if (file[n].kind != Kind::Name && file[n].kind != Kind::Member) continue;
      std::string name = lowerCase(lastName(file.name(n)));
      if (name.find("thread") != std::string::npos || name == "ineventloop") return true;
    }
    return false;
  };
  // assert inEventLoop(): what follows runs there, or nowhere.
  auto asserts = [&](NodeId statement) {
    NodeId call = file[statement].kind == Kind::ExpressionStatement ? statement + 1 : statement;
    NodeId callee = call < file.nodes.size() && file[call].kind == Kind::Call ? file.child(call, Role::Callee) : kNoNode;
    return callee != kNoNode && file[callee].kind == Kind::Name && (p_.guarantees(place.file).callTraits(file.name(callee)) & kAborts) && asks(call);
  };
  for (NodeId below = place.node, up = file.parents[below]; up != kNoNode && file[up].kind != Kind::Function; below = up, up = file.parents[up]) {
    NodeId condition = file[up].kind == Kind::If || file[up].kind == Kind::Conditional ? file.child(up, Role::Condition) : kNoNode;
    if (condition != kNoNode && !p_.isInside(place, condition) && asks(condition)) return true;
    if (file[up].kind != Kind::Block) continue;
    for (NodeId before : children(file, up)) {
      if (before == below) break;
      if (asserts(before)) return true;
    }
  }
  return false;
}

bool Threads::isAlwaysBehindThreadTest(FunctionIndex function, int depth) const {
  std::vector<uint32_t> calls = function == kNone || depth > 2 ? std::vector<uint32_t>() : productionCallsOf(function);
  return !calls.empty() && std::all_of(calls.begin(), calls.end(), [&](uint32_t c) { return isBehindThreadTest(p_.calls[c].place) || isAlwaysBehindThreadTest(p_.calls[c].in, depth + 1); });
}

size_t Threads::guessesOnWay(FunctionIndex function, uint32_t root) const {
  constexpr size_t kMostAnswers = 8, kBig = 4;
  size_t out = 0;
  for (uint32_t c : callsTo(function, root)) {
    const CallSite& call = p_.calls[c];
    size_t answers = overriders_[call.callee].size();
    out += answers > kMostAnswers || isBehindThreadTest(call.place) ? kBig : size_t{!isSurelyRun(call.place)} + size_t{answers > 1};
  }
  return out;
}

}  // namespace elmcart

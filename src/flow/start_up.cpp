// Starting up: what the entries of the program run, before the first thread and after it, and what anybody may call.
#include <algorithm>

#include "flow/threads.h"

namespace elmcart {
namespace {

bool isEntry(const Program& p, FunctionIndex f) {
  const Function& fn = p.functions[f];
  std::string_view name = p.text(fn.name);
  return (name == "main" || name == "Main") && (fn.owner == kNone || (fn.modifiers & kStatic) || p.types[fn.owner].form == TypeForm::Object);
}

// The types of what stands in an argument: a variable, its address, a new object.
void typesIn(const Program& p, Place argument, std::vector<TypeIndex>& out) {
  const LoweredFile& file = p.file(argument);
  if (file[argument.node].kind == Kind::AddressOf) argument.node = file.child(argument.node, Role::Operand);
  Symbol symbol = argument.node == kNoNode ? Symbol{} : p.symbolAt(argument);
  if (symbol.is(Symbol::Sort::Variable)) out.push_back(p.use(p.variables[symbol.index()].type).decl);
  if (argument.node != kNoNode)
    forEachInside(p, p.creations, argument, [&](const Creation& made) {
      if (made.place == argument) out.push_back(made.type);
    });
}

}  // namespace

// main(), and the commands of a program: where main hands an object to a library that reads the command line, that
// calls the methods of the object, and of the objects in it, while main waits. A method with parameters may be called
// for each request that comes in instead, and is none.
void Threads::findEntries() {
  constexpr size_t kMostTypes = 500;
  isEntry_.assign(p_.functions.size(), 0);
  programs_.assign(p_.functions.size(), kNone);
  std::vector<std::pair<TypeIndex, uint32_t>> handed;  // with the program
  absl::flat_hash_set<TypeIndex> seen = {kNone};
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    if (!isEntry(p_, f) || !p_.functions[f].definition.known() || inTests(p_.functions[f].definition)) continue;
    isEntry_[f] = 1;
    programs_[f] = f;
    std::vector<TypeIndex> given;
    for (uint32_t c : p_.foreignCallsInFunction[f]) {
      const Place& call = p_.foreignCalls[c].place;
      const LoweredFile& file = p_.file(call);
      for (NodeId child : children(file, call.node))
        if (file[child].role == Role::Argument && rootAround(call) == kNone) typesIn(p_, {call.file, child}, given);
    }
    for (TypeIndex type : given)
      if (seen.insert(type).second) handed.emplace_back(type, f);
  }
  for (size_t i = 0; i < handed.size() && i < kMostTypes; ++i) {
    auto [at, program] = handed[i];
    const TypeDecl& type = p_.types[at];
    for (VariableIndex field : type.fields)
      if (TypeIndex inner = p_.use(p_.variables[field].type).decl; seen.insert(inner).second) handed.emplace_back(inner, program);
    for (FunctionIndex m : type.methods) {
      const Function& method = p_.functions[m];
      bool command = method.definition.known() && method.parameters.empty() && method.form == FunctionForm::Function && !isBody_[m];
      if (command && !method.isStaticMember() && p_.callsOfFunction[m].empty()) isEntry_[m] = 1, programs_[m] = program;
    }
  }
}

// All that the call leads to is run before threads are.
void Threads::markStartUp(uint32_t call, bool surely) {
  std::vector<std::pair<FunctionIndex, bool>> open;
  auto enter = [&](FunctionIndex f, bool sure) {
    bool fresh = sides_[f].outside == Outside::Nobody;
    if (!fresh && (primed_[f] || !sure)) return;
    if (fresh) sides_[f].outside = Outside::StartUp;
    primed_[f] = static_cast<char>(primed_[f] || sure);
    open.emplace_back(f, sure);
  };
  // Which of several overriders runs is not told.
  auto enterAll = [&](uint32_t c, bool sure) { forEachCallee(c, [&](FunctionIndex f) { enter(f, sure && f == p_.calls[c].callee); }); };
  enterAll(call, surely);
  for (size_t i = 0; i < open.size(); ++i) {
    auto [f, sure] = open[i];
    for (uint32_t c : p_.callsInFunction[f])
      if (rootAround(p_.calls[c].place) == kNone) enterAll(c, sure && isSurelyRun(p_.calls[c].place));
  }
}

// The calls of a function (or of a file's own code) in the order of the text, up to the one that starts the first thread.
void Threads::startUpOf(FunctionIndex function, std::vector<uint32_t> calls, bool surely, std::vector<char>& walked) {
  std::sort(calls.begin(), calls.end(), [&](uint32_t a, uint32_t b) { return before(p_.calls[a].place, p_.calls[b].place); });
  Place first;  // where the first thread is started
  auto starts = [&](Place at) {
    if (Place loop = p_.around(at, Kind::Loop); loop.node != kNoNode) at = loop;
    if (!first.known() || before(at, first)) first = at;
  };
  // Of a file's own code those that stand in that file.
  if (auto own = rootsIn_.find(function); own != rootsIn_.end())
    for (uint32_t r : own->second)
      if (function != kNone || (!calls.empty() && roots_[r].call.file == p_.calls[calls.front()].place.file)) starts(roots_[r].call);
  for (uint32_t c : calls) {
    if (first.known() && before(first, p_.calls[c].place)) break;
    bool any = false;
    forEachCallee(c, [&](FunctionIndex f) { any |= starts_[f] != 0; });
    if (any) starts(p_.calls[c].place);
  }
  for (uint32_t c : calls) {
    const CallSite& call = p_.calls[c];
    if (rootAround(call.place) != kNone) continue;
    bool sure = surely && isSurelyRun(call.place);
    if (!first.known() || before(call.place, first)) {
      markStartUp(c, sure);
    } else if (call.place == first && !walked[call.callee]) {
      // It starts the thread somewhere inside: what it does before is still starting up.
      walked[call.callee] = 1;
      if (sure) primed_[call.callee] = 1;
      if (sides_[call.callee].outside == Outside::Nobody) sides_[call.callee].outside = Outside::StartUp;
      auto inside = p_.callsInFunction[call.callee];
      startUpOf(call.callee, {inside.begin(), inside.end()}, sure, walked);
      for (FunctionIndex f : overriders_[call.callee]) {
        auto within = p_.callsInFunction[f];
        entryCalls_.insert(entryCalls_.end(), within.begin(), within.end());
      }
    } else {
      entryCalls_.push_back(c);
    }
  }
}

// func init(), static { … }: as the code of the file itself.
bool Threads::runsAtLoad(FunctionIndex f) const {
  const Function& fn = p_.functions[f];
  return fn.form == FunctionForm::Initialiser && (fn.owner == kNone || (fn.modifiers & kStatic));
}

void Threads::followStartUp() {
  std::vector<char> walked(p_.functions.size(), 0);
  std::vector<uint32_t> loaded;  // calls of the files' own code
  auto flush = [&] {
    if (!loaded.empty()) startUpOf(kNone, std::move(loaded), true, walked);
    loaded.clear();
  };
  for (uint32_t c = 0; c < p_.calls.size(); ++c) {
    if (p_.calls[c].in != kNone || inTests(p_.calls[c].place)) continue;
    if (!loaded.empty() && p_.calls[loaded.back()].place.file != p_.calls[c].place.file) flush();
    loaded.push_back(c);
  }
  flush();
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    if ((!isEntry_[f] && !runsAtLoad(f)) || !p_.functions[f].definition.known() || inTests(p_.functions[f].definition)) continue;
    auto inside = p_.callsInFunction[f];
    walked[f] = 1;
    sides_[f].outside = Outside::StartUp;
    startUpOf(f, {inside.begin(), inside.end()}, true, walked);
  }
}

// Only tests call it, while the program itself uses its class: it is there for them. So is what its name says is.
bool Threads::isForTests(FunctionIndex f) const {
  std::string_view name = p_.text(p_.functions[f].name);
  if (name.find("ForTest") != std::string_view::npos || name.find("_for_test") != std::string_view::npos || name.find("forTest") != std::string_view::npos) return true;
  TypeIndex owner = p_.functions[f].owner;
  if (owner == kNone || p_.callsOfFunction[f].empty()) return false;
  const auto& methods = p_.types[owner].methods;
  return std::any_of(methods.begin(), methods.end(), [&](FunctionIndex m) { return fromEntry_[m] != 0; });
}

// What the entries run once threads may be there, and what anybody may call.
void Threads::followOutside() {
  std::vector<FunctionIndex> open;
  auto enter = [&](FunctionIndex f, Outside outside) {
    if (sides_[f].outside >= outside || (outside == Outside::Anybody && (onMain_[f] || saysOneThread(p_, f)))) return;
    sides_[f].outside = outside;
    open.push_back(f);
  };
  auto follow = [&](Outside outside) {
    for (size_t i = 0; i < open.size(); ++i)
      for (uint32_t c : p_.callsInFunction[open[i]])
        if (rootAround(p_.calls[c].place) == kNone) forEachCallee(c, [&](FunctionIndex f) { enter(f, outside); });
    open.clear();
  };
  for (uint32_t c : entryCalls_) forEachCallee(c, [&](FunctionIndex f) { enter(f, Outside::Entry); });
  for (auto& [lambda, root] : lambdas_)
    if (root == kMainThread)
      forEachInside(p_, p_.calls, lambda, [&](const CallSite& call) {
        if (rootAround(call.place) == kMainThread) forEachCallee(static_cast<uint32_t>(&call - p_.calls.data()), [&](FunctionIndex f) { enter(f, Outside::Entry); });
      });
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f)
    if (onMain_[f]) enter(f, Outside::Entry);
  follow(Outside::Entry);
  fromEntry_.assign(p_.functions.size(), 0);
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) fromEntry_[f] = sides_[f].outside != Outside::Nobody;
  std::vector<char> overrides(p_.functions.size(), 0);
  for (FunctionIndex f = 0; f < overriders_.size(); ++f)
    if (!overriders_[f].empty() && !productionCallsOf(f).empty())
      for (FunctionIndex o : overriders_[f]) overrides[o] = 1;
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    if (!p_.functions[f].definition.known() || inTests(p_.functions[f].definition) || isEntry_[f] || runsAtLoad(f) || isBody_[f] || overrides[f]) continue;
    if (productionCallsOf(f).empty() && !isForTests(f)) enter(f, Outside::Anybody);
  }
  follow(Outside::Anybody);
}

// Which program of the tree runs a function, threads that it starts included: what two programs run does not meet.
void Threads::followPrograms() {
  std::vector<FunctionIndex> open;
  auto enter = [&](FunctionIndex f, uint32_t program) {
    if (programs_[f] == program || programs_[f] == kSeveral) return;
    programs_[f] = programs_[f] == kNone ? program : kSeveral;
    open.push_back(f);
  };
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    if (programs_[f] != kNone) open.push_back(f);
    else if (sides_[f].outside == Outside::Anybody || runsAtLoad(f) || onMain_[f]) enter(f, kSeveral);
  }
  auto enterCallees = [&](uint32_t c, uint32_t program) { forEachCallee(c, [&](FunctionIndex f) { enter(f, program); }); };
  for (uint32_t c = 0; c < p_.calls.size(); ++c)
    if (p_.calls[c].in == kNone) enterCallees(c, kSeveral);
  for (size_t i = 0; i < open.size(); ++i) {
    FunctionIndex f = open[i];
    uint32_t program = programs_[f];
    for (uint32_t c : p_.callsInFunction[f]) enterCallees(c, program);
    if (auto own = rootsIn_.find(f); own != rootsIn_.end())
      for (uint32_t r : own->second)
        for (FunctionIndex body : bodies_[r]) enter(body, program);
  }
}

bool Threads::areOfTwoPrograms(FunctionIndex a, FunctionIndex b) const {
  if (a == kNone || b == kNone || programs_[a] == programs_[b]) return false;
  auto isOne = [&](FunctionIndex f) { return programs_[f] != kNone && programs_[f] != kSeveral; };
  return isOne(a) && isOne(b);
}

// ----- what the entry has called before it can come to a thread

const absl::flat_hash_set<FunctionIndex>& Threads::leadingTo(uint32_t root) const {
  std::call_once(leadingOnce_[root], [&] {
    absl::flat_hash_map<FunctionIndex, std::vector<FunctionIndex>> before;  // what a method overrides, and who starts a thread's code
    for (FunctionIndex f = 0; f < overriders_.size(); ++f)
      for (FunctionIndex o : overriders_[f]) before[o].push_back(f);
    for (uint32_t r = 0; r < roots_.size(); ++r)
      for (FunctionIndex body : bodies_[r]) before[body].push_back(roots_[r].in);
    absl::flat_hash_set<FunctionIndex>& out = leading_[root];
    std::vector<FunctionIndex> open;
    auto enter = [&](FunctionIndex f) {
      if (f != kNone && out.insert(f).second) open.push_back(f);
    };
    enter(roots_[root].in);
    for (size_t i = 0; i < open.size(); ++i) {
      FunctionIndex f = open[i];
      for (uint32_t c : productionCallsOf(f)) enter(p_.calls[c].in);
      if (auto more = before.find(f); more != before.end())
        for (FunctionIndex other : more->second) enter(other);
    }
  });
  return leading_[root];
}

Threads::Order Threads::callsFirst(FunctionIndex function, const absl::flat_hash_set<FunctionIndex>& wanted, uint32_t root, int depth) const {
  constexpr int kMost = 4;
  const absl::flat_hash_set<FunctionIndex>& leading = leadingTo(root);
  std::vector<uint32_t> calls(p_.callsInFunction[function].begin(), p_.callsInFunction[function].end());
  std::sort(calls.begin(), calls.end(), [&](uint32_t a, uint32_t b) { return before(p_.calls[a].place, p_.calls[b].place); });
  for (uint32_t c : calls) {
    const CallSite& call = p_.calls[c];
    if (roots_[root].in == function && before(roots_[root].call, call.place)) return Order::No;
    bool sure = isSurelyRun(call.place) && rootAround(call.place) == kNone;
    if (sure && wanted.contains(call.callee)) return Order::Yes;
    bool leads = false, overridden = false;
    forEachCallee(c, [&](FunctionIndex f) { (f == call.callee ? leads : overridden) |= leading.contains(f); });
    if (overridden) return Order::No;
    if (!leads) continue;
    Order inside = sure && depth < kMost ? callsFirst(call.callee, wanted, root, depth + 1) : Order::No;
    if (inside != Order::NotReached) return inside;
  }
  return roots_[root].in == function ? Order::No : Order::NotReached;
}

bool Threads::entriesCallFirst(const absl::flat_hash_set<FunctionIndex>& wanted, uint32_t root) const {
  bool any = false;
  for (FunctionIndex f = 0; f < isEntry_.size(); ++f) {
    if (!isEntry_[f] || !leadingTo(root).contains(f)) continue;
    if (callsFirst(f, wanted, root, 0) != Order::Yes) return false;
    any = true;
  }
  return any;
}

}  // namespace elmcart

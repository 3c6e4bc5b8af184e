#include "survey/locks.h"

#include <algorithm>
#include <iterator>

#include "base/text.h"
#include "lowered/notes.h"
#include "survey/survey.h"

namespace elmcart {
namespace {

constexpr int kCallerDepth = 3;

// The lock is the last thing named: mutex_, this->mutex_, other.mutex_, &mutex_.
LockId lockAt(const Program& p, Place place, NodeId function) {
  const LoweredFile& file = p.file(place);
  NodeId at = bareExpression(file, place.node);
  Symbol symbol = p.links[place.file].symbol[at];
  if (symbol.is(Symbol::Sort::Variable)) return {LockId::Sort::Variable, symbol.index()};
  if (symbol.is(Symbol::Sort::Type)) return {LockId::Sort::Class, symbol.index()};
  if (file[at].kind == Kind::This && function != kNoNode) {
    Symbol of = p.links[place.file].symbol[function];
    if (of.is(Symbol::Sort::Function) && p.functions[of.index()].owner != kNone) return {LockId::Sort::Object, p.functions[of.index()].owner};
  }
  // One that the tree does not tell of is known by how it is written.
  std::string_view written = file.name(at);
  return written.empty() ? LockId{} : LockId{LockId::Sort::Foreign, static_cast<uint32_t>(stableHash(written))};
}

// What a note says, word by word, each with a space before it.
template <typename Each>
void forEachWord(std::string_view words, Each each) {
  for (size_t begin = 0, end; begin < words.size(); begin = end + 1) {
    end = std::min(words.find(' ', begin), words.size());
    if (end > begin) each(words.substr(begin, end - begin));
  }
}

LockSet withAll(const LockSet& a, const LockSet& b) {
  LockSet out;
  std::set_union(a.begin(), a.end(), b.begin(), b.end(), std::back_inserter(out));
  return out;
}

}  // namespace

LockSet inBoth(const LockSet& a, const LockSet& b) {
  LockSet out;
  std::set_intersection(a.begin(), a.end(), b.begin(), b.end(), std::back_inserter(out));
  return out;
}

LockSet Locks::heldByBoth(const LockSet& a, const LockSet& b) const {
  LockSet out;
  // The class whose objects' own lock it is; a field that nobody has written stands for it in methods that take it.
  auto ownerOf = [&](LockId lock) {
    if (lock.sort == LockId::Sort::Object) return lock.index;
    if (lock.sort != LockId::Sort::Variable) return kNone;
    const Variable& field = p_.variables[lock.index];
    // Desk desk = office; synchronized (desk) { … }: the object that a local stands for.
    if (field.storage == Storage::Local && p_.guarantees(field.home().file).objectsAreLocks.holds) return p_.use(field.type).decl;
    bool unwritten = field.storage == Storage::Field && field.owner != kNone && field.definition.known() && field.definition == p_.types[field.owner].definition;
    return unwritten ? field.owner : kNone;
  };
  auto same = [&](LockId one, LockId other) {
    if (one == other) return true;
    TypeIndex ours = ownerOf(one), theirs = ownerOf(other);
    return ours != kNone && theirs != kNone && (ours == theirs || p_.derivesFrom(ours, theirs) || p_.derivesFrom(theirs, ours));
  };
  for (LockId one : a)
    if (std::any_of(b.begin(), b.end(), [&](LockId other) { return same(one, other); })) out.push_back(one);
  return out;
}

std::string lockText(const Program& p, LockId lock) {
  switch (lock.sort) {
    case LockId::Sort::Variable: return std::string(p.text(p.variables[lock.index].name));
    case LockId::Sort::Object: return "its own object";
    case LockId::Sort::Class: return "the class " + std::string(p.text(p.types[lock.index].name));
    case LockId::Sort::Foreign: return "a lock";
    case LockId::Sort::None: break;
  }
  return "";
}

Locks::Locks(const Program& program, std::vector<bool> testFile, const std::vector<std::vector<FunctionIndex>>& overriders) : p_(program), testFile_(std::move(testFile)) {
  for (FunctionIndex f = 0; f < overriders.size(); ++f)
    if (!p_.callsOfFunction[f].empty())
      for (FunctionIndex o : overriders[f]) overridden_[o].push_back(f);
  // lock.isHeldByCurrentThread(), Thread.holdsLock(lock)
  for (const ForeignCall& call : p_.foreignCalls) {
    std::span<const std::string_view> names = p_.guarantees(call.place.file).assertsLock;
    if (call.in == kNone || std::find(names.begin(), names.end(), lastPart(p_.text(call.name))) == names.end()) continue;
    const LoweredFile& file = p_.file(call.place);
    NodeId callee = file.child(call.place.node, Role::Callee), lock = file.child(call.place.node, Role::Argument);
    if (lock == kNoNode && callee != kNoNode && file[callee].kind == Kind::Member) lock = file.child(callee, Role::Receiver);
    LockId id = lock == kNoNode ? LockId{} : lockAt(p_, {call.place.file, lock}, p_.functions[call.in].definition.node);
    if (id.known()) asserted_[call.in] = withAll(asserted_[call.in], {id});
  }
  findAccessorLocks();
  // Its comment says that the callers hold the lock: by its name, or as the only one of the class.
  bool said = false;
  absl::flat_hash_set<std::string_view> required;  // words of signatures: of a type that the tree does not tell, they are locks
  for (const LoweredFile& file : p_.files)
    for (const auto& [line, text] : file.notes) {
      said |= text.starts_with(kLockHeld) || text.starts_with(kLockRequired);
      if (text.starts_with(kLockRequired)) forEachWord(std::string_view(text).substr(kLockRequired.size()), [&](std::string_view word) { required.insert(word); });
    }
  if (!said) return;
  absl::flat_hash_map<std::string_view, std::vector<VariableIndex>> named;
  for (VariableIndex v = 0; v < p_.variables.size(); ++v)
    if (std::string_view name = p_.text(p_.variables[v].name); isLock(v) || (required.contains(name) && isLasting(v))) {
      named[name].push_back(v);
      if (required.contains(name)) required_.insert(v);
    }
  for (FunctionIndex f = 0; f < p_.functions.size() && !named.empty(); ++f)
    if (LockId id = heldByComment(f, named); id.known()) asserted_[f] = withAll(asserted_[f], {id});
}

// What runs when a property is read or set, where it is written beside the property: Kotlin specification 4.2.2.
void Locks::findAccessorLocks() {
  for (FunctionIndex f = 0; f < p_.functions.size(); ++f) {
    const Function& accessor = p_.functions[f];
    std::string_view name = p_.text(accessor.name);
    bool sets = name.starts_with("set ");
    if ((!sets && !name.starts_with("get ")) || accessor.form != FunctionForm::Function || accessor.owner == kNone) continue;
    for (uint32_t u : p_.usesInFunction[f]) {
      const Use& use = p_.uses[u];
      if (p_.text(p_.variables[use.variable].name) != name.substr(4) || p_.variables[use.variable].owner != accessor.owner) continue;
      if (LockSet held = around(use.place); !held.empty()) accessorLocks_[{use.variable, sets}] = held;
    }
  }
}

std::vector<uint32_t> Locks::callsTo(FunctionIndex function) const {
  auto direct = p_.callsOfFunction[function];
  std::vector<uint32_t> out(direct.begin(), direct.end());
  if (auto bases = overridden_.find(function); bases != overridden_.end())
    for (FunctionIndex base : bases->second) out.insert(out.end(), p_.callsOfFunction[base].begin(), p_.callsOfFunction[base].end());
  return out;
}

bool Locks::isLasting(VariableIndex v) const { return p_.variables[v].storage != Storage::Local && p_.variables[v].storage != Storage::Parameter; }

bool Locks::isLock(VariableIndex v) const {
  const Variable& variable = p_.variables[v];
  return isLasting(v) && (p_.traits(variable.declarations.front().file, variable.type) & kLockType) != 0;
}

LockId Locks::heldByComment(FunctionIndex f, const absl::flat_hash_map<std::string_view, std::vector<VariableIndex>>& named) const {
  const Function& function = p_.functions[f];
  for (Place place : function.declarations) {
    const auto* required = noteAbove(p_.file(place), place.node, kLockRequired);
    const auto* note = required ? required : noteAbove(p_.file(place), place.node, kLockHeld);
    if (!note) continue;
    VariableIndex found = kNone;
    std::string_view words = std::string_view(note->second).substr(note->second.find(':') + 1);
    forEachWord(words, [&](std::string_view word) {
      auto same = named.find(word);
      if (same == named.end()) return;
      for (VariableIndex v : same->second)
        if (p_.variables[v].owner != kNone ? p_.variables[v].owner == function.owner : p_.variables[v].declarations.front().file == place.file) found = v;
      // REQUIRES(&Office::mutex_): of another class, which the signature names.
      auto isNamed = [&](VariableIndex v) { return p_.variables[v].owner != kNone && (std::string(words) + " ").find(" " + std::string(p_.text(p_.types[p_.variables[v].owner].name)) + " ") != std::string::npos; };
      if (auto of = std::find_if(same->second.begin(), same->second.end(), isNamed); required && found == kNone && of != same->second.end()) found = *of;
    });
    if (found == kNone && !required && function.owner != kNone) {
      const std::vector<VariableIndex>& fields = p_.types[function.owner].fields;
      auto first = std::find_if(fields.begin(), fields.end(), [&](VariableIndex v) { return isLock(v); });
      if (first != fields.end() && std::none_of(first + 1, fields.end(), [&](VariableIndex v) { return isLock(v); })) found = *first;
    }
    if (found != kNone) return {LockId::Sort::Variable, found};
  }
  return {};
}

LockSet Locks::around(Place place) const {
  LockSet out;
  const LoweredFile& file = p_.file(place);
  std::vector<NodeId> locks;
  NodeId up = file.parents[place.node];
  for (; up != kNoNode && file[up].kind != Kind::Function; up = file.parents[up]) {
    if (file[up].kind != Kind::Guard) continue;
    for (NodeId c : children(file, up))
      if (file[c].role == Role::Lock) locks.push_back(c);
  }
  for (NodeId lock : locks)
    if (LockId id = lockAt(p_, {place.file, lock}, up); id.known()) out.push_back(id);
  std::sort(out.begin(), out.end());
  out.erase(std::unique(out.begin(), out.end()), out.end());
  return out;
}

LockSet Locks::at(Place place, FunctionIndex in) const {
  LockSet out = around(place);
  if (in == kNone) return out;
  // Outside of its accessors a property is read and set by them.
  if (Symbol symbol = accessorLocks_.empty() ? Symbol{} : p_.symbolAt(place); symbol.is(Symbol::Sort::Variable)) {
    Place up = p_.parent(place);
    if (p_.node(up).kind == Kind::Member && p_.symbolAt(up) == symbol) place = up, up = p_.parent(up);
    bool sets = p_.node(up).kind == Kind::Assign && p_.node(place).role == Role::Target;
    if (auto held = accessorLocks_.find({symbol.index(), sets}); held != accessorLocks_.end()) out = withAll(out, held->second);
  }
  return withAll(out, atEntry(in));
}

LockSet Locks::atEntry(FunctionIndex function) const {
  Path path;
  LockSet callers = atEntry(function, path).value_or(LockSet{});
  auto asserted = asserted_.find(function);
  return asserted == asserted_.end() ? callers : withAll(callers, asserted->second);
}

std::optional<LockSet> Locks::atEntry(FunctionIndex function, Path& path) const {
  // The callers that were read are taken for all.
  const Function& entered = p_.functions[function];
  Place home = entered.definition.known() ? entered.definition : entered.declarations.front();
  bool open = entered.owner != kNone && (entered.modifiers & kPublic) && p_.types[entered.owner].onlyIn == kNone && !saysOneThread(p_, function);
  int depth = static_cast<int>(path.functions.size());
  std::vector<uint32_t> calls = depth > kCallerDepth ? std::vector<uint32_t>{} : callsTo(function);
  if (calls.empty()) return LockSet{};
  if (auto known = entry_.find({function, depth}); known != entry_.end()) return known->second;
  path.functions.push_back(function);
  std::optional<LockSet> common;
  size_t turnedBack = path.turnedBack;
  for (uint32_t c : calls) {
    const CallSite& call = p_.calls[c];
    if (!testFile_.empty() && testFile_[call.place.file] && !testFile_[home.file]) continue;
    std::optional<LockSet> held = around(call.place);
    // Of a public method the callers that hold a lock of their own show that it is meant to be called so.
    if (open && held->empty()) {
      common = LockSet{};
      break;
    }
    if (held->empty() && call.in != kNone) {
      FunctionForm form = p_.functions[call.in].form;
      if (form == FunctionForm::Constructor || form == FunctionForm::Destructor) continue;
      // A function that calls itself, by others too, was entered by somebody else first.
      if (std::find(path.functions.begin(), path.functions.end(), call.in) != path.functions.end()) {
        ++path.turnedBack;
        continue;
      }
      held = atEntry(call.in, path);
    }
    if (held) common = common ? heldByBoth(*common, *held) : *held;
    if (common && common->empty()) break;
  }
  path.functions.pop_back();
  // What was cut off because of the way that led here does not hold on another.
  if (turnedBack == path.turnedBack) entry_[{function, depth}] = common;
  return common;
}

}  // namespace elmcart

#include "assess/meetings.h"

#include <algorithm>

#include "assess/facts.h"

namespace elmcart {
namespace {

// Where a thread is started, and the calls by which it gets to the function.
void addWay(const Subject& s, const Threads::Side& side, FunctionIndex function, std::string_view which, std::vector<Evidence>& out) {
  constexpr size_t kShownCalls = 3;
  uint32_t root = side.roots[0];
  if (root == kNone) return;
  std::string reaches = function == kNone ? std::string() : " and reaches " + functionName(s.program, function);
  out.push_back({s.threads.roots()[root].start, std::string(which) + " thread is started here" + reaches});
  std::vector<Place> way = function == kNone ? std::vector<Place>() : s.threads.wayTo(function, root);
  if (way.size() > kShownCalls) way.erase(way.begin(), way.end() - kShownCalls);
  for (Place call : way) {
    Symbol called = s.program.symbolAt(call);
    out.push_back({call, called.is(Symbol::Sort::Function) ? "it calls " + functionName(s.program, called.index()) : "it goes on here"});
  }
}

std::vector<Evidence> waysOf(const Subject& s, const Threads::Side& a, FunctionIndex inA, const Threads::Side& b, FunctionIndex inB) {
  std::vector<Evidence> out;
  addWay(s, b, inB, "a second", out);
  // Where each has a thread of its own, both are shown.
  if (a.roots[0] != kNone && a.roots[0] != b.roots[0]) addWay(s, a, inA, out.empty() ? "a second" : "another", out);
  return out;
}

}  // namespace

Threads::Side Meetings::sideOf(const Use& use) const {
  bool field = s_.program.variables[use.variable].storage == Storage::Field;
  return field ? s_.threads.sideOnShared(use.place, use.in) : s_.threads.sideOf(use.place, use.in);
}

Threads::Side Meetings::withoutHolders(Threads::Side side, FunctionIndex in, const LockSet& locks) const {
  for (uint32_t& root : side.roots) {
    if (root == kNone || in == kNone) continue;
    std::vector<Place> way = s_.threads.wayTo(in, root);
    if (std::any_of(way.begin(), way.end(), [&](Place call) { return !s_.locks.heldByBoth(s_.locks.around(call), locks).empty(); })) root = kNone;
  }
  if (side.roots[0] == kNone) std::swap(side.roots[0], side.roots[1]);
  return side;
}

void Meetings::add(const Use& use, bool changes, const LockSet& held) {
  Threads::Side side = sideOf(use);
  // Of one side a few are kept: what comes before a thread is started meets less than what comes after.
  constexpr int kKept = 6;
  int same = 0;
  for (const Entry& entry : entries_)
    if (entry.changes == changes && entry.side == side && entry.held == held && (++same == kKept || (entry.use->in == use.in && !s_.threads.startsIn(use.place.file)))) return;
  entries_.push_back({&use, side, changes, held});
}

void Meetings::addOther(const Use& use) {
  wanted_ = &use;
  entries_.push_back({&use, sideOf(use), false, {}});
}

Meetings::Pair Meetings::best() const {
  Pair out;
  for (const Entry& change : entries_) {
    if (!change.changes) continue;
    for (const Entry& other : entries_) {
      if ((wanted_ && other.use != wanted_) || (withReaders_ && other.changes)) continue;
      if (!s_.locks.heldByBoth(change.held, other.held).empty()) continue;
      Threads::Side changeSide = other.held.empty() ? change.side : withoutHolders(change.side, change.use->in, other.held);
      Threads::Side otherSide = change.held.empty() ? other.side : withoutHolders(other.side, other.use->in, change.held);
      Meeting meeting = s_.threads.meeting({changeSide, change.use->in, change.use->place}, {otherSide, other.use->in, other.use->place});
      // Best at another place than where it is changed, on a thread that is seen.
      auto rank = [&](Meeting m, const Use* a, const Use* b, const Threads::Side& side) { return std::make_tuple(m, side.roots[0] != kNone, a != b); };
      if (meeting == Meeting::Never) continue;
      if (!out.change || rank(meeting, change.use, other.use, otherSide) > rank(out.meeting, out.change, out.other, out.otherSide)) out = {meeting, change.use, other.use, changeSide, otherSide};
    }
  }
  return out;
}

namespace {

bool isFar(const Subject& s, const Threads::Side& side, FunctionIndex in) {
  constexpr size_t kMost = 3;
  return in != kNone && ((side.roots[0] != kNone && s.threads.guessesOnWay(in, side.roots[0]) > kMost) || s.threads.isAlwaysBehindThreadTest(in));
}

bool isGuessed(const Subject& s, const Threads::Side& side, FunctionIndex in) { return in != kNone && side.roots[0] != kNone && s.threads.guessesOnWay(in, side.roots[0]) > 0; }

}  // namespace

bool Meetings::isFarFetched(const Pair& pair) const { return isFar(s_, pair.changeSide, pair.change->in) || isFar(s_, pair.otherSide, pair.other->in); }

std::vector<Evidence> Meetings::ways(const Pair& pair) const {
  return waysOf(s_, pair.changeSide, pair.change->in, pair.otherSide, pair.other->in);
}

OwnThreads::OwnThreads(const Subject& subject, VariableIndex field) : s_(subject) {
  TypeIndex owner = s_.program.variables[field].owner;
  if (owner == kNone) return;
  for (FunctionIndex m : s_.program.types[owner].methods) {
    std::span<const uint32_t> started = s_.threads.rootsStartedBy(m);
    roots_.insert(roots_.end(), started.begin(), started.end());
  }
}

bool OwnThreads::areApartFrom(const Use& use) const {
  Threads::Side side = s_.threads.sideOf(use.place, use.in);
  return !roots_.empty() && side.roots[0] == kNone && std::all_of(roots_.begin(), roots_.end(), [&](uint32_t root) { return s_.threads.isApart({side, use.in, use.place}, root); });
}

namespace {

bool isMadeForThreads(const Program& p, VariableIndex v) {
  return (p.variables[v].modifiers & kVolatile) || (variableTraits(p, v) & (kLockType | kAtomicType | kOnceFlagType | kConditionType));
}
bool hasMembersForThreads(const Program& p, TypeIndex type) {
  auto shared = [&](VariableIndex v) { return isMadeForThreads(p, v); };
  const TypeDecl& decl = p.types[type];
  return std::any_of(decl.fields.begin(), decl.fields.end(), shared) || std::any_of(decl.statics.begin(), decl.statics.end(), shared);
}

}  // namespace

bool reckonsWithThreads(const Subject& s, const Entity& e) {
  const Program& p = s.program;
  auto reckons = [&](FileIndex f) { return s.threads.locksIn(f) || s.threads.startsIn(f); };
  if (reckons(e.place.file)) return true;
  if (e.slot != kNone && isMadeForThreads(p, e.slot)) return true;
  if (e.type == kNone) return false;
  return (p.types[e.type].definition.known() && reckons(p.types[e.type].definition.file)) || hasMembersForThreads(p, e.type);
}

bool classReckonsWithThreads(const Subject& s, TypeIndex type) {
  const Program& p = s.program;
  if (type == kNone || !p.types[type].definition.known()) return false;
  Place definition = p.types[type].definition;
  if (hasMembersForThreads(p, type)) return true;
  return s.threads.locksIn(definition.file) && anyNode(p.file(definition), definition.node, [&](NodeId n) { return p.file(definition)[n].kind == Kind::Guard; });
}

std::optional<Sureness> surenessOf(const Subject& s, const Entity& e, Meeting meeting, bool guarded) {
  if (meeting == Meeting::Certain) return Sureness::Certain;
  if (meeting == Meeting::Likely) return Sureness::Likely;
  // Threads that are started where we do not look: locks are there for somebody.
  bool untold = !s.threads.startedIn(e.place.file) && reckonsWithThreads(s, e);
  if (meeting == Meeting::Never && !untold) return std::nullopt;
  // A program that starts threads would start the second one where it can be seen; of a library the callers' are not.
  return reckonsWithThreads(s, e) && (guarded || !s.threads.startedIn(e.place.file)) ? Sureness::Likely : Sureness::Possible;
}

std::optional<Sureness> sureByThreads(const Subject& s, const Entity& e, const std::vector<FunctionIndex>& functions, std::vector<Evidence>* way, bool made) {
  Meeting best = Meeting::Never;
  bool far = false, guessed = false;
  std::vector<Evidence> shown;
  // A thread that is started after one of them was called finds what that call left.
  auto sideOf = [&](FunctionIndex f) {
    Threads::Side side = s.threads.sideOf(f);
    for (uint32_t& root : side.roots)
      if (made && root != kNone && std::any_of(functions.begin(), functions.end(), [&](FunctionIndex first) { return s.threads.calledBefore(first, root); })) root = kNone;
    if (side.roots[0] == kNone) std::swap(side.roots[0], side.roots[1]);
    return side;
  };
  struct At {
    Threads::Side side;
    FunctionIndex in = kNone;
    Place place;
  };
  std::vector<At> pieces;
  // One slot in the text, one for each class that derives from it: who asks for this one counts, not all who call the function.
  if (e.slot != kNone && s.entitiesOfSlot[e.slot] > 1) {
    constexpr size_t kMost = 64;
    for (const Consumer& c : e.consumers)
      if (!s.inTests(c.place) && pieces.size() < kMost) pieces.push_back({s.threads.sideOf(c.place, c.in), c.in, c.place});
  } else {
    for (FunctionIndex f : functions) pieces.push_back({sideOf(f), f, {}});
  }
  for (size_t a = 0; a < pieces.size() && best != Meeting::Certain; ++a)
    for (size_t b = a; b < pieces.size(); ++b) {
      const At &one = pieces[a], &other = pieces[b];
      Meeting meeting = s.threads.meeting({one.side, one.in, one.place}, {other.side, other.in, other.place});
      if (meeting <= best) continue;
      best = meeting;
      far = isFar(s, one.side, one.in) || isFar(s, other.side, other.in);
      guessed = isGuessed(s, one.side, one.in) || isGuessed(s, other.side, other.in);
      shown = waysOf(s, one.side, one.in, other.side, other.in);
    }
  // What belongs to the one thread of the events is not made for others, whatever locks its neighbours take.
  if (best == Meeting::Never && !functions.empty() && std::all_of(functions.begin(), functions.end(), [&](FunctionIndex f) { return s.threads.isOnMainThread(f); })) return std::nullopt;
  if (way && best >= Meeting::Likely) way->insert(way->end(), shown.begin(), shown.end());
  std::optional<Sureness> out = surenessOf(s, e, best);
  // A way with a condition on it may never be taken.
  if (out == Sureness::Certain && guessed) out = Sureness::Likely;
  // Of what makes it, the class or file that keeps it tells whether threads are reckoned with, not the class of what is made.
  if (made && e.slot != kNone && best < Meeting::Likely) {
    TypeIndex keeper = s.program.variables[e.slot].owner;
    FileIndex home = e.place.file;
    far |= keeper != kNone ? !classReckonsWithThreads(s, keeper) : !s.threads.locksIn(home) && !s.threads.startsIn(home) && !isMadeForThreads(s.program, e.slot);
  }
  return far && out ? Sureness::Possible : out;
}

}  // namespace elmcart

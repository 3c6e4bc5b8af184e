#include "assess/reaching.h"

#include <algorithm>

#include "flow/deferred.h"
#include "survey/survey.h"

namespace elmcart {
namespace {

constexpr int kDepth = 6;  // calls that are followed

std::vector<Evidence> with(std::vector<Evidence> chain, Evidence next) {
  chain.push_back(std::move(next));
  return chain;
}

// Is the variable not looked at by then?
bool isIdle(const Program& p, const Use& use) { return runsLater(p, use.place) || isOnlyAddressed(p, use.place); }

}  // namespace

Reaching::Reaching(const Program& program) : p_(program) {
  // What stands in initialisers outside functions, by the variable initialised.
  for (const Use& use : p_.uses)
    if (use.inInitialiserOf != kNone && use.in == kNone) uses_[use.inInitialiserOf].push_back(&use);
  for (const CallSite& call : p_.calls)
    if (call.inInitialiserOf != kNone && call.in == kNone) calls_[call.inInitialiserOf].push_back(&call);
  for (const ForeignCall& call : p_.foreignCalls)
    if (call.inInitialiserOf != kNone && call.in == kNone) foreign_[call.inInitialiserOf].push_back(&call);
}

std::vector<Reached> Reaching::fromInitialiser(VariableIndex v, const std::string& name, const Wanted& wanted) const {
  Walk walk{wanted, {}, {}};
  initialiser(v, name, {}, 0, walk);
  return std::move(walk.out);
}

std::vector<Reached> Reaching::fromFunction(FunctionIndex f, const Wanted& wanted) const {
  Walk walk{wanted, {}, {}};
  function(f, {}, 0, walk);
  return std::move(walk.out);
}

std::vector<Reached> Reaching::fromCreation(const Entity& e, const Wanted& wanted) const {
  Walk walk{wanted, {}, {}};
  if (e.slot != kNone && (e.creation.in == kNone || e.creation.time == CreationTime::Eager)) initialiser(e.slot, e.shown, {}, 0, walk);
  if (e.creation.place.known()) {
    // What stands in members of a class without a name that is made here runs later, if at all.
    FunctionIndex in = e.creation.in;
    forEachInside(p_, p_.calls, e.creation.place, [&](const CallSite& site) {
      if (site.in == in) call(site, "making " + e.shown + " runs ", {}, 0, walk);
    });
    forEachInside(p_, p_.foreignCalls, e.creation.place, [&](const ForeignCall& site) {
      if (site.in == in) foreign(site, "making " + e.shown + " calls ", {}, walk);
    });
    forEachInside(p_, p_.uses, e.creation.place, [&](const Use& use) {
      if (use.in == in && use.variable != e.slot && wanted.variable && wanted.variable(use.variable) && !isIdle(p_, use)) walk.out.push_back({use.variable, kNone, nullptr, {{use.place, "making " + e.shown + " uses " + std::string(p_.text(p_.variables[use.variable].name))}}});
    });
  }
  TypeIndex made = e.creation.made != kNone ? e.creation.made : e.type;
  if (e.creation.constructor != kNone) function(e.creation.constructor, {{e.creation.place.known() ? e.creation.place : e.place, "making " + e.shown + " runs " + functionName(p_, e.creation.constructor)}}, 0, walk);
  else if (made != kNone && e.creation.time != CreationTime::Elsewhere) fields(made, {}, 0, walk);
  return std::move(walk.out);
}

void Reaching::initialiser(VariableIndex v, const std::string& name, const Chain& chain, int depth, Walk& walk) const {
  if (auto found = uses_.find(v); found != uses_.end() && walk.wanted.variable)
    for (const Use* use : found->second) {
      if (use->variable == v || !walk.wanted.variable(use->variable) || isIdle(p_, *use)) continue;
      walk.out.push_back({use->variable, kNone, nullptr, with(chain, {use->place, "the initialiser of " + name + " uses " + variableName(p_, use->variable)})});
    }
  if (auto found = calls_.find(v); found != calls_.end())
    for (const CallSite* site : found->second) call(*site, "creating " + name + " runs ", chain, depth, walk);
  if (auto found = foreign_.find(v); found != foreign_.end())
    for (const ForeignCall* site : found->second) foreign(*site, "creating " + name + " calls ", chain, walk);
}

void Reaching::fields(TypeIndex type, const Chain& chain, int depth, Walk& walk) const {
  if (depth > kDepth) return;
  for (VariableIndex field : p_.types[type].fields) initialiser(field, std::string(p_.text(p_.variables[field].name)), chain, depth + 1, walk);
  for (FunctionIndex m : p_.types[type].methods)
    if (p_.functions[m].form == FunctionForm::Initialiser && !(p_.functions[m].modifiers & kStatic)) function(m, chain, depth + 1, walk);
}

void Reaching::foreign(const ForeignCall& site, const std::string& who, const Chain& chain, Walk& walk) const {
  if (!(p_.guarantees(site.place.file).callTraits(p_.text(site.name)) & walk.wanted.foreign) || runsLater(p_, site.place)) return;
  walk.out.push_back({kNone, kNone, &site, with(chain, {site.place, who + inNotation(p_, site.place.file, p_.text(site.name))})});
}

void Reaching::call(const CallSite& site, const std::string& who, const Chain& chain, int depth, Walk& walk) const {
  if (site.callee == kNone || runsLater(p_, site.place)) return;
  Chain longer = with(chain, {site.place, who + functionName(p_, site.callee)});
  if (walk.wanted.function && walk.wanted.function(site.callee)) walk.out.push_back({kNone, site.callee, nullptr, std::move(longer)});
  else function(site.callee, longer, depth, walk);
}

void Reaching::function(FunctionIndex f, const Chain& chain, int depth, Walk& walk) const {
  if (f == kNone || depth > kDepth || !walk.seen.insert(f).second) return;
  const Function& fn = p_.functions[f];
  // Before its body a constructor sets the fields and runs what stands in the class.
  if (fn.form == FunctionForm::Constructor && fn.owner != kNone) fields(fn.owner, chain, depth, walk);
  if (walk.wanted.variable)
    for (uint32_t u : p_.usesInFunction[f]) {
      const Use& use = p_.uses[u];
      if (walk.wanted.variable(use.variable) && !isIdle(p_, use)) walk.out.push_back({use.variable, kNone, nullptr, with(chain, {use.place, functionName(p_, f) + " uses " + variableName(p_, use.variable)})});
    }
  if (walk.wanted.foreign)
    for (uint32_t c : p_.foreignCallsInFunction[f]) foreign(p_.foreignCalls[c], functionName(p_, f) + " calls ", chain, walk);
  for (uint32_t c : p_.callsInFunction[f]) call(p_.calls[c], functionName(p_, f) + " calls ", chain, depth + 1, walk);
}

}  // namespace elmcart

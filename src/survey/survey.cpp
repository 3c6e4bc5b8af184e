#include "survey/survey.h"

#include <absl/container/flat_hash_set.h>

#include <algorithm>
#include <map>
#include <numeric>
#include <set>

#include "base/parallel.h"
#include "base/sorting.h"
#include "base/text.h"
#include "languages/parse_guard.h"
#include "survey/declared.h"
#include "survey/harmless.h"
#include "survey/naming.h"
#include "survey/recogniser.h"

namespace elmcart {

std::string_view kindText(EntityKind kind) {
  static constexpr std::string_view kTexts[] = {"singleton", "shared-instance", "static-holder", "static-field", "global-variable",
                                                "function-static", "registry", "ambient", "thread-local", "container-managed"};
  return kTexts[static_cast<size_t>(kind)];
}

std::string_view kindMeaning(EntityKind kind) {
  static constexpr std::string_view kTexts[] = {
      "a class meant to have one instance, with a global way to reach it",
      "a ready instance reachable globally, while its class can be constructed freely",
      "a class of only static members that keeps mutable static state",
      "one mutable class-level field in an otherwise ordinary class",
      "a mutable variable at namespace or file scope",
      "a mutable variable inside a function that lives as long as the process",
      "a keyed table of shared instances",
      "a \"current …\" accessor over a slot that is set from elsewhere",
      "state that every thread has its own copy of, reachable globally",
      "one instance by declaration to a container: shared, but handed in"};
  return kTexts[static_cast<size_t>(kind)];
}

std::string_view creationText(CreationTime time) {
  return time == CreationTime::Eager ? "eager" : time == CreationTime::Lazy ? "lazy" : "elsewhere";
}

std::string_view guardText(GuardSort guard) {
  static constexpr std::string_view kTexts[] = {"none", "language", "lock", "double-check", "double-check-unsound", "once", "atomic", "single-threaded"};
  return kTexts[static_cast<size_t>(guard)];
}

std::string_view accessText(const Consumer& consumer) {
  if (consumer.method != kNone || consumer.access == Access::Call) return "call";
  if (consumer.reach) return "reach";
  if (consumer.access == Access::Write || consumer.access == Access::Update) return "write";
  return consumer.access == Access::Bind ? "reach" : "read";
}

Survey Recogniser::run(unsigned jobs) {
  Survey out;
  std::vector<VariableIndex> slots;
  for (VariableIndex v = 0; v < p_.variables.size(); ++v)
    if (isSlot(v)) slots.push_back(v);
  std::vector<OfSlot> found(slots.size());
  // Each piece has a recogniser that remembers for itself what it has worked out.
  forEachPiece(slots.size(), 1024, jobs, [&](size_t from, size_t to) {
    Recogniser own(*this);
    for (size_t i = from; i < to; ++i) {
      WorkingOn now("surveying", p_.path(p_.variables[slots[i]].home()));
      if (own.holderOf(slots[i]) == kNone || !own.isMutableState(slots[i])) found[i] = own.ofSlot(slots[i]);
    }
  });
  std::set<TypeIndex> holdersDone;
  absl::flat_hash_set<std::string> ids;
  out.entities.reserve(std::accumulate(found.begin(), found.end(), staticHolders_.size(), [](size_t sum, const OfSlot& of) { return sum + of.entities.size(); }));
  auto add = [&](Entity&& entity) {
    ids.insert(idKey(entity));
    out.entities.push_back(std::move(entity));
  };
  for (size_t i = 0; i < slots.size(); ++i) {
    if (TypeIndex holder = holderOf(slots[i]); holder != kNone && holdersDone.insert(holder).second) add(staticHolder(holder));
    for (Entity& entity : found[i].entities) {
      // Two slots of one class (one per key, say) would bear one name: the second goes by its slot.
      if (found[i].bearsClassName && ids.count(idKey(entity))) nameBySlot(entity);
      add(std::move(entity));
    }
  }
  addKeptByMark(p_, out.entities);
  addSharingState(p_, out.entities);
  foldOtherNames(out.entities);
  out.managed = containerManaged(p_);
  sortEntities(p_, out.entities);
  // Two entities must not share an id: later ones bear their file and line.
  absl::flat_hash_set<std::string> seen;
  for (Entity& entity : out.entities)
    if (!seen.insert(entity.id).second) {
      entity.id += "@" + p_.path(entity.place) + ":" + std::to_string(p_.line(entity.place));
      seen.insert(entity.id);
    }
  nameShortly(p_, out.entities);
  nameShortly(p_, out.managed);
  return out;
}

Survey surveyProgram(const Program& program, const Origins& origins, unsigned jobs, const Globs& tests) { return Recogniser(program, origins, tests).run(jobs); }

}  // namespace elmcart

#include "survey/naming.h"

#include <absl/container/flat_hash_map.h>

namespace elmcart {
namespace {

// The last `parts` of a qualified name. What tells two of one name apart ("name@file:line") is left
// out: wherever the name is shown, its place is.
std::string lastParts(const std::string& id, std::string_view separator, size_t parts) {
  std::string whole = id.substr(0, id.find('@'));
  size_t at = whole.size();
  for (size_t i = 0; i < parts; ++i) {
    size_t before = at == 0 ? std::string::npos : whole.rfind(separator, at - 1);
    if (before == std::string::npos) return whole;
    at = before;
  }
  return whole.substr(at + separator.size());
}

// A member or a function's own variable means little without its class or function.
size_t leastParts(const Program& p, const Entity& e) {
  if (e.slot == kNone || e.name != p.text(p.variables[e.slot].name)) return 1;
  return p.variables[e.slot].owner != kNone || p.variables[e.slot].function != kNone ? 2 : 1;
}

}  // namespace

void nameShortly(const Program& p, std::vector<Entity>& entities) {
  constexpr size_t kMostParts = 6;
  std::vector<size_t> parts(entities.size());
  for (size_t i = 0; i < entities.size(); ++i) parts[i] = leastParts(p, entities[i]);
  for (size_t round = 0; round < kMostParts; ++round) {
    absl::flat_hash_map<std::string, size_t> count;
    for (size_t i = 0; i < entities.size(); ++i) {
      Entity& e = entities[i];
      std::string_view separator = p.language(e.place.file).separator;
      e.shown = lastParts(e.id, separator, parts[i]);
      // What can do no harm is named in lists only, beside its place.
      if (!e.harmless) ++count[e.shown];
    }
    bool again = false;
    for (size_t i = 0; i < entities.size(); ++i)
      if (auto known = count.find(entities[i].shown); known != count.end() && known->second > 1 && entities[i].shown != entities[i].id.substr(0, entities[i].id.find('@'))) {
        ++parts[i];
        again = true;
      }
    if (!again) return;
  }
}

}  // namespace elmcart

// What probes saw, for people and for programs.
#pragma once

#include <nlohmann/json.hpp>

#include "probe/cost.h"
#include "probe/race.h"
#include "probe/watch.h"
#include "report/text.h"

namespace elmcart {

std::string racesText(const std::vector<RaceResult>& races, const RaceOptions& options, const TextStyle& style);
nlohmann::ordered_json racesJson(const std::string& entity, const std::vector<RaceResult>& races, const RaceOptions& options);

std::string costsText(const CostResult& cost, const TextStyle& style);
nlohmann::ordered_json costsJson(const CostResult& cost);
std::string watchText(const WatchResult& watched, const TextStyle& style);
nlohmann::ordered_json watchJson(const WatchResult& watched);

}  // namespace elmcart

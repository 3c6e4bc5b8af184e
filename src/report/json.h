// JSON and CSV outputs; their schemas are in docs/schemas/.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

#include "assess/analysis.h"
#include "report/reach_ways.h"

namespace elmcart {

nlohmann::ordered_json surveyJson(const Analysis& analysis, bool all);
nlohmann::ordered_json assessJson(const Analysis& analysis, bool withAccepted);
nlohmann::ordered_json reachJson(const Analysis& analysis, size_t entity);
nlohmann::ordered_json reachWaysJson(const Analysis& analysis, size_t entity, const ReachWays& ways);
std::string surveyCsv(const Analysis& analysis, bool all);
// JSON text in which bytes that are no UTF-8 are replaced, not refused.
std::string jsonText(const nlohmann::ordered_json& json);

}  // namespace elmcart

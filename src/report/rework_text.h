// What propose, rework and confirm say, as text and JSON.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

#include "report/text.h"
#include "rework/rework.h"

namespace elmcart {

std::string proposalText(const ReworkResult& result, const TextStyle& style, bool diffs);
std::string reworkSummaryText(const ReworkResult& result, const TextStyle& style);
std::string costText(const ReworkResult& result, const TextStyle& style);
std::string stepsText(const ReworkResult& result, const TextStyle& style);
std::string byHandText(const ReworkResult& result, const TextStyle& style);
std::string figuresText(const ReworkResult& result, const TextStyle& style);
std::string differencesText(const std::vector<Difference>& differences, const TextStyle& style);
std::string diffText(const std::string& patch, const TextStyle& style);
nlohmann::ordered_json reworkJson(const ReworkResult& result);
std::string confirmText(const Baseline& a, const Observation& b, const Comparison& comparison, const OrderReport* orders, bool all, const TextStyle& style);
nlohmann::ordered_json confirmJson(const Baseline& a, const Observation& b, const Comparison& comparison, const OrderReport* orders);

}  // namespace elmcart

// What each way of reworking an entity would cost, in classes, files and signatures.
#pragma once

#include <vector>

#include "rework/rework.h"

namespace elmcart {

// `a` is the tree before the first step, `entity` its index there. The move that was planned
// comes first; for inject the other ways follow, and the recommended one comes first.
std::vector<Cost> costsOf(const Analysis& a, size_t entity, const ReworkResult& result);

}  // namespace elmcart

// The move "enforce": what an assessment found open in a class that is meant to be one is closed.
// One step for each opening, so that each can be kept or taken back by itself.
#pragma once

#include "rework/step.h"

namespace elmcart {

std::string enforceRefusal(const Analysis& analysis, size_t entity);
NextStep nextEnforceStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

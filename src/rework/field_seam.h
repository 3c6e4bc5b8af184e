// The move "inject" in languages whose objects are made without constructors
// that could take one more parameter: a class gets a field for the shared
// object and a member that hands out what is in it, or else what was fetched
// before. Nothing changes until somebody, a test say, fills the field.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string fieldSeamRefusal(const Analysis& analysis, size_t entity);

NextStep nextFieldSeamStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

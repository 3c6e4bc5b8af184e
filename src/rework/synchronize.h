// The move "synchronize": state that several threads touch is touched under one lock.
// The lock is the one that guards it in places already, or a new one; each
// member that touches the state without it takes it first.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string synchronizeRefusal(const Analysis& analysis, size_t entity);

NextStep nextSynchronizeStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

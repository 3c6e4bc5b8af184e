// The move "make-local": what one class alone uses becomes a part of that class. The
// first step moves it there; where an accessor and a slot are left over that
// nobody asks any more, the second takes them away.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string makeLocalRefusal(const Analysis& analysis, size_t entity);

NextStep nextMakeLocalStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

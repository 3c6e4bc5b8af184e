// The move "wrap": an API of static members only gets a class with objects in front
// of it, whose members are those in use and hand on to it; that class is handed in.
// The API itself stays as it is.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this class at all? An empty text: yes.
std::string wrapRefusal(const Analysis& analysis, size_t type);

NextStep nextWrapStep(const Analysis& analysis, size_t type, PlanMemory& memory);

}  // namespace elmcart

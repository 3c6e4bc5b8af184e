// The move "extract-interface": an interface with the members of a class that others really
// use, and those others name it instead of the class. The first step writes it,
// each further one is a class or function that depends on it from then on.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this class at all? An empty text: yes.
std::string extractInterfaceRefusal(const Analysis& analysis, size_t type);

NextStep nextExtractInterfaceStep(const Analysis& analysis, size_t type, PlanMemory& memory);

}  // namespace elmcart

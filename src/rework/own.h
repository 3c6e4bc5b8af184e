// The move "own": objects on the heap that are freed by hand get an owner. For a
// class: its fields whose objects its destructor deletes. For a function: the object
// that it hands out by a bare pointer, through to the callers who free it.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this class or function at all? An empty text: yes.
std::string ownFieldsRefusal(const Analysis& analysis, size_t type);
NextStep nextOwnFieldsStep(const Analysis& analysis, size_t type, PlanMemory& memory);

std::string ownResultRefusal(const Analysis& analysis, size_t function);
NextStep nextOwnResultStep(const Analysis& analysis, size_t function, PlanMemory& memory);

}  // namespace elmcart

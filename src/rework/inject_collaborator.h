// The move "inject-collaborator": a class that makes for itself what it works with takes it
// through its constructor. Whoever leaves it out gets one made as before, so that
// nothing else changes, and a test can hand in a double.
//
// The target is the class that makes it; each step mends one field of it.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this class (a TypeIndex) at all? An empty text: yes.
std::string injectCollaboratorRefusal(const Analysis& analysis, size_t type);

NextStep nextInjectCollaboratorStep(const Analysis& analysis, size_t type, PlanMemory& memory);

}  // namespace elmcart

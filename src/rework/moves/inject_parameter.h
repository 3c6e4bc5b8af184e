// The move "inject-parameter": functions that belong to no object take the shared object
// as an optional parameter, and fetch it as before where nobody hands it in.
// One step a function; no call has to change.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string injectParameterRefusal(const Analysis& analysis, size_t entity);

NextStep nextInjectParameterStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

// The move "unregister": who puts itself into a list that outlives it takes itself
// out again when it ends.
//
//   open    the list's owner gets a function that takes one out, where it has none
//   tether  the subscriber's destructor (or the method that tells it its end)
//           calls it; copies, which would be listed by nobody, are closed
//
// The entity is the one whose list it is; each step mends one class of subscribers.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string unregisterRefusal(const Analysis& analysis, size_t entity);

NextStep nextUnregisterStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

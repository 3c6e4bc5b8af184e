// The move "safe-init": a lazy creation that is unsound, or locked at each access, becomes the
// form in which the language creates an object once. One step: the accessor's body,
// its slot, and the lock that served it.
#pragma once

#include "rework/step.h"

namespace elmcart {

std::string safeInitRefusal(const Analysis& analysis, size_t entity);
NextStep nextSafeInitStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

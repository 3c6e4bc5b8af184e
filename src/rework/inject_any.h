// The move "inject" in the way that goes with a language: with values and references (inject.h),
// where all objects are references (hand_over.h), where objects are made without
// constructors that could take one more parameter (field_seam.h).
#pragma once

#include "rework/given.h"
#include "rework/step.h"

namespace elmcart {

std::string injectAnyRefusal(const Analysis& analysis, size_t entity);
NextStep nextInjectAnyStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

// The same for an object that is no shared state; not in languages with values and references.
NextStep nextInjectOf(const Analysis& analysis, const Given& given, PlanMemory& memory);

}  // namespace elmcart

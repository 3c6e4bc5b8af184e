// The move "inject": planned in changes (moves/inject.h), or, where a language has no writer yet, with values and
// references (inject.h).
#pragma once

#include "rework/given.h"
#include "rework/step.h"

namespace elmcart {

// Is it reached by an accessor in a language with values and references?
bool isByReference(const Analysis& analysis, const Entity& entity);
std::string injectAnyRefusal(const Analysis& analysis, size_t entity);
NextStep nextInjectAnyStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

// The same for an object that is no shared state; in languages with a writer.
NextStep nextInjectOf(const Analysis& analysis, const Given& given, PlanMemory& memory);

}  // namespace elmcart

// The move "inject" in languages whose objects are made without constructors
// that could take one more parameter: a class gets a field for the shared
// object and a member that hands out what is in it, or else what was fetched
// before. Then who makes such an object fills the field, with what it has itself or with what it
// fetches; when all do, the default goes.
#pragma once

#include "rework/given.h"
#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string fieldSeamRefusal(const Analysis& analysis, size_t entity);

NextStep nextFieldSeamStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

// The same for an object that is no shared state.
NextStep nextFieldSeamOf(const Analysis& analysis, const Given& given, PlanMemory& memory);

}  // namespace elmcart

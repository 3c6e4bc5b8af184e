// The move "inject" in languages whose objects are handed by reference: accesses
// of a shared object inside a class become a constructor parameter and a field.
// How that is written is told by the language's Handing.
//
//   seam     a class takes the object as a parameter that defaults to the old
//            access; nothing else changes, and a test can hand in a double
//   lift     whoever makes such an object takes the shared one too, and passes it on
//   compose  where the program is put together (functions outside of classes,
//            static ones) the object is handed in, fetched there
//
// One call plans one step from the program as it stands.
#pragma once

#include "rework/given.h"
#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string handOverRefusal(const Analysis& analysis, size_t entity);

NextStep nextHandOverStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

// The same for an object that is no shared state.
NextStep nextHandOverOf(const Analysis& analysis, const Given& given, PlanMemory& memory);

}  // namespace elmcart

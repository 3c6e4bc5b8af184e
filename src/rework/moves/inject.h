// The move "inject": a class that fetches a shared object takes it as a constructor parameter
// instead, and keeps it where a use stands outside its constructors. Planned in changes, which
// the language's writer writes.
//
//   seam     a class takes the object; for those who make one as before it is fetched, so nothing else changes
//   lift     whoever makes such an object inside of an object takes the shared one too, and passes it on
//   compose  where the program is put together the object is handed in, fetched there
//   retire   only when asked for: a default that nobody needs goes, and in the end the accessor with its slot
//
// One call plans one step from the program as it stands.
#pragma once

#include "rework/given.h"
#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string injectRefusal(const Analysis& analysis, size_t entity);

NextStep nextInjectStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

// The same for an object that is no shared state.
NextStep nextInjectOf(const Analysis& analysis, const Given& given, PlanMemory& memory);

}  // namespace elmcart

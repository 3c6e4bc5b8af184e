// The move "inject": accessor calls become a constructor parameter and a field.
//
//   seam    a class takes the object as a parameter that defaults to the old
//           access; nothing else changes, and a test can hand in a double
//   hand-in the same for a free or static function
//   lift    whoever makes such an object, or calls such a function, passes the
//           shared object on
//   compose where the program is put together (main, a test, a test fixture)
//           the object is fetched once and passed on from there
//   retire  default, accessor and slot go; the composing places make their own
//
// One call plans one step from the program as it stands; after the step is
// made the program is read anew and the next one planned.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this entity at all? An empty text: yes.
std::string injectRefusal(const Analysis& analysis, size_t entity);

NextStep nextInjectStep(const Analysis& analysis, size_t entity, PlanMemory& memory);

}  // namespace elmcart

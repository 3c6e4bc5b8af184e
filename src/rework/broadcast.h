// The move "broadcast": a function that starts one service after another, line by
// line, announces the start instead to those who listen, one for each service, in
// the order of those lines.
#pragma once

#include "rework/step.h"

namespace elmcart {

// Can the move be made for this function at all? An empty text: yes.
std::string broadcastRefusal(const Analysis& analysis, size_t function);

NextStep nextBroadcastStep(const Analysis& analysis, size_t function, PlanMemory& memory);

}  // namespace elmcart

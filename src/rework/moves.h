// The table of moves: what each is for, when it cannot be made, and how its
// next step is planned from the program as it stands.
#pragma once

#include <span>
#include <string_view>

#include "rework/step.h"

namespace elmcart {

struct Move {
  std::string_view id;    // "inject"
  std::string_view what;  // one clause
  // Can it be made for this entity at all? An empty text: yes.
  std::string (*refusal)(const Analysis& analysis, size_t entity);
  NextStep (*next)(const Analysis& analysis, size_t entity, PlanMemory& memory);
};

std::span<const Move> moves();
const Move* moveById(std::string_view id);

}  // namespace elmcart

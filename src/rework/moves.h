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
  // What is it made for: a piece of shared state (its place in the survey), or a
  // class (its TypeIndex)?
  bool ofClass = false;
  // Why it is never made in that language. An empty text: it is.
  std::string (*notIn)(const Language& language) = nullptr;
  // Can it be made for that target, in a language in which it is made? An empty text: yes.
  std::string (*refusal)(const Analysis& analysis, size_t target) = nullptr;
  NextStep (*next)(const Analysis& analysis, size_t target, PlanMemory& memory) = nullptr;
};

// Can the move be made for that target at all? An empty text: yes.
std::string refusalOf(const Move& move, const Analysis& analysis, size_t target);

std::span<const Move> moves();
const Move* moveById(std::string_view id);

// The target of that exact name, an entity's id or a class's qualified name; SIZE_MAX: there is none.
size_t targetOf(const Analysis& analysis, const Move& move, std::string_view name);
// The qualified names of the classes that are called so, in full or by their last part.
std::vector<std::string> classesNamed(const Analysis& analysis, std::string_view name);

}  // namespace elmcart

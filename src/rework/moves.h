// The table of moves: what each is for, when it cannot be made, and how its
// next step is planned from the program as it stands.
#pragma once

#include <span>
#include <string_view>

#include "rework/step.h"

namespace elmcart {

// What a move is made for: a piece of shared state (its place in the survey), a
// class (its TypeIndex) or a function (its FunctionIndex).
enum class MoveTarget : uint8_t { State, Class, Function };

struct Move {
  std::string_view id;    // "inject"
  std::string_view what;  // one clause
  MoveTarget of = MoveTarget::State;
  // Why it is never made in that language. An empty text: it is.
  std::string (*notIn)(const Language& language) = nullptr;
  // Can it be made for that target, in a language in which it is made? An empty text: yes.
  std::string (*refusal)(const Analysis& analysis, size_t target) = nullptr;
  NextStep (*next)(const Analysis& analysis, size_t target, PlanMemory& memory) = nullptr;
};

// Can the move be made for that target at all? An empty text: yes.
std::string refusalOf(const Move& move, const Analysis& analysis, size_t target);

std::span<const Move> moves();
// A move may be made for several sorts of targets: that for `of`, or else the first.
const Move* moveById(std::string_view id, MoveTarget of = MoveTarget::State);

// The target of that exact name, an entity's id or the qualified name of a class or function; SIZE_MAX: there is none.
size_t targetOf(const Analysis& analysis, const Move& move, std::string_view name);
// The qualified names of the classes that are called so, in full or by their last part.
std::vector<std::string> classesNamed(const Analysis& analysis, std::string_view name);
std::vector<std::string> functionsNamed(const Analysis& analysis, std::string_view name);

}  // namespace elmcart

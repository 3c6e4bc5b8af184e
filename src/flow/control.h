// Where control goes inside one function, as its statements tell it: what a statement lets run after it,
// and which tests have been made, and how they came out, before a place is reached.
//
// Sources: what ends a way through a statement is in ISO C++ [stmt.jump] and [stmt.select]; JLS 14.21 and
// 14.22 (unreachable statements) say the same of Java. Calls that end the program or throw are those that
// the language's guarantees name. Each answer is read off the statements alone, without values: a
// condition may come out either way, unless it is a literal. Time: linear in the statements looked at.
#pragma once

#include <cstdint>

#include "program/program.h"

namespace elmcart {

// NotKnown: only values tell (a switch, a loop that is left by a jump).
enum class Answer : uint8_t { No, NotKnown, Yes };

// Is there a way through the statement to what follows it? No: every way returns, throws, ends the program
// or runs for ever. With `turnEnds`, what follows is meant within one turn of the loop around, which
// `break` and `continue` end as well.
Answer passes(const Program& p, Place statement, bool turnEnds);

// Is there a way to the end of the function's body, where no value is returned? NotKnown without a body.
Answer reachesEnd(const Program& p, FunctionIndex function);

// Can control go from one place to another that stands further down in the same function, lambda or accessor? No: each way
// from the first returns, throws, or ends the turn of the loop that holds both, before the second; or the first is run at
// another time, in a function that is only written there.
Answer goesOn(const Program& p, Place from, Place to);

// A test that was made before a place is reached, in the same function, lambda or accessor.
struct Known {
  NodeId branch = kNoNode;     // the If, Conditional or Loop
  NodeId condition = kNoNode;  // its condition
  bool holds = false;          // how it came out
  bool around = false;         // the place is inside the branch; false: the branch came before, and left
  NodeId level = kNoNode;      // what holds the branch and the place: further out is smaller
};

// From the inside out; `each(const Known&)` returns true to stop. Was it stopped?
template <typename Each>
bool forEachKnown(const Program& p, Place place, Each each) {
  const LoweredFile& file = p.file(place);
  for (NodeId below = place.node, up = file.parents[below]; up != kNoNode && file[below].kind != Kind::Function && file[below].kind != Kind::Lambda; below = up, up = file.parents[up]) {
    Kind kind = file[up].kind;
    if (kind == Kind::If || kind == Kind::Conditional || kind == Kind::Loop) {
      NodeId condition = file.child(up, Role::Condition);
      bool inside = file[below].role == Role::Then || file[below].role == Role::Else || (kind == Kind::Loop && file[below].role == Role::Body);
      if (condition != kNoNode && inside && each(Known{up, condition, file[below].role != Role::Else, true, up})) return true;
    }
    if (kind != Kind::Block && kind != Kind::Function) continue;
    for (NodeId before : children(file, up)) {
      if (before == below) break;
      if (file[before].kind != Kind::If) continue;
      NodeId condition = file.child(before, Role::Condition), then = file.child(before, Role::Then), other = file.child(before, Role::Else);
      if (condition == kNoNode) continue;
      bool thenLeaves = then != kNoNode && passes(p, {place.file, then}, true) == Answer::No;
      bool otherLeaves = other != kNoNode && passes(p, {place.file, other}, true) == Answer::No;
      if (thenLeaves != otherLeaves && each(Known{before, condition, otherLeaves, false, up})) return true;
    }
  }
  return false;
}

}  // namespace elmcart

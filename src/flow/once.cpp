#include "flow/once.h"

#include <algorithm>

#include "flow/control.h"

namespace elmcart {
namespace {

constexpr int kCallersOfCallers = 6;
constexpr size_t kCallersOfOne = 8;

// The lasting flag that is known to be unset there, by that test; kNone: it asks for something else.
VariableIndex unsetBy(const Program& p, FileIndex f, const Known& test) {
  NodeId condition = test.condition;
  bool holds = test.holds;
  const LoweredFile& file = p.file({f, condition});
  for (; file[condition].is(Kind::Logic, LogicForm::Not); holds = !holds) {
    NodeId inner = file.child(condition, Role::Operand);
    if (inner == kNoNode) return kNone;
    condition = inner;
  }
  Symbol asked = holds ? Symbol{} : p.symbolAt({f, condition});
  bool lasting = asked.is(Symbol::Sort::Variable) && p.variables[asked.index()].storage != Storage::Local && p.variables[asked.index()].storage != Storage::Parameter;
  return lasting ? asked.index() : kNone;
}

bool isUnsetAt(const Program& p, Place place, VariableIndex flag) {
  return forEachKnown(p, place, [&](const Known& test) { return unsetBy(p, place.file, test) == flag; });
}

// Is it set, to a fixed value, in that function alone, and only where it was found unset?
bool isSetForGood(const Program& p, VariableIndex flag, FunctionIndex in) {
  bool set = false;
  for (uint32_t u : p.usesOfVariable[flag]) {
    const Use& use = p.uses[u];
    if (use.access == Access::Read || use.access == Access::Call || p.inOtherBranch(use.place)) continue;
    NodeId value = use.access == Access::Write && use.in == in ? p.assignedAt(use.place) : kNoNode;
    if (value == kNoNode || p.file(use.place)[value].kind != Kind::Literal || !isUnsetAt(p, use.place, flag)) return false;
    set = true;
  }
  return set;
}

bool isBehindFlag(const Program& p, Place place, FunctionIndex in) {
  if (p.around(place, Kind::Once).node != kNoNode) return true;
  if (in == kNone || p.around(place, Kind::Guard).node == kNoNode) return false;
  return forEachKnown(p, place, [&](const Known& test) {
    VariableIndex flag = unsetBy(p, place.file, test);
    return flag != kNone && isSetForGood(p, flag, in);
  });
}

bool runs(const Program& p, Place place, FunctionIndex in, int depth) {
  if (isBehindFlag(p, place, in)) return true;
  auto calls = in == kNone || depth >= kCallersOfCallers ? std::span<const uint32_t>() : p.callsOfFunction[in];
  return !calls.empty() && calls.size() <= kCallersOfOne && std::all_of(calls.begin(), calls.end(), [&](uint32_t c) { return runs(p, p.calls[c].place, p.calls[c].in, depth + 1); });
}

}  // namespace

bool runsOnce(const Program& p, Place place, FunctionIndex in) { return runs(p, place, in, 0); }

}  // namespace elmcart

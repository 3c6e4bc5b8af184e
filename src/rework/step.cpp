#include "rework/step.h"

namespace elmcart {

std::span<const std::string_view> stepKindTexts() {
  static constexpr std::string_view kTexts[] = {"seam", "inject-parameter", "lift", "compose", "retire", "safe-init", "enforce", "open", "unregister", "synchronize", "inject-collaborator", "extract-interface", "make-local", "wrap", "own", "broadcast"};
  return kTexts;
}
std::string_view stepKindText(StepKind kind) { return stepKindTexts()[static_cast<size_t>(kind)]; }

NextStep firstOf(size_t attempts, const PlanMemory& memory, const std::function<Attempt(size_t)>& attempt) {
  NextStep out;
  for (size_t i = 0; i < attempts; ++i) {
    Attempt one = attempt(i);
    if (one.reason.empty() && memory.refused.count(one.step.key())) one.reason = kTakenBack;
    if (!one.reason.empty()) {
      out.byHand.push_back({one.file, one.line, one.reason, true});
      continue;
    }
    out.found = true;
    out.step = std::move(one.step);
    return out;
  }
  out.finished = out.byHand.empty();
  return out;
}

}  // namespace elmcart

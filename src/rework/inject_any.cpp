#include "rework/inject_any.h"

#include <algorithm>
#include <cstdlib>

#include "rework/inject.h"
#include "rework/moves/inject.h"

namespace elmcart {
namespace {

bool isByReference(const Analysis& a, size_t entity) { return elmcart::isByReference(a, a.survey.entities[entity]); }

}  // namespace

bool isByReference(const Analysis& a, const Entity& e) {
  if (std::getenv("OLD")) return a.program.language(e.place.file).phrases && std::any_of(e.accessPoints.begin(), e.accessPoints.end(), [](const AccessPoint& one) { return one.function != kNone; });
  return false;
}

std::string injectAnyRefusal(const Analysis& a, size_t entity) {
  return isByReference(a, entity) ? injectRefusal(a, entity) : injectByWriterRefusal(a, entity);
}

NextStep nextInjectAnyStep(const Analysis& a, size_t entity, PlanMemory& memory) {
  return isByReference(a, entity) ? nextInjectStep(a, entity, memory) : nextInjectByWriterStep(a, entity, memory);
}

NextStep nextInjectOf(const Analysis& a, const Given& given, PlanMemory& memory) { return nextInjectByWriterOf(a, given, memory); }

}  // namespace elmcart

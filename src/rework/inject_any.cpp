#include "rework/inject_any.h"

#include "rework/inject.h"
#include "rework/moves/inject.h"

namespace elmcart {
namespace {

const Language& languageOf(const Analysis& a, size_t entity) { return a.program.language(a.survey.entities[entity].place.file); }

}  // namespace

std::string injectAnyRefusal(const Analysis& a, size_t entity) {
  const Language& language = languageOf(a, entity);
  if (language.phrases) return injectRefusal(a, entity);
  return injectByWriterRefusal(a, entity);
}

NextStep nextInjectAnyStep(const Analysis& a, size_t entity, PlanMemory& memory) {
  const Language& language = languageOf(a, entity);
  return language.phrases ? nextInjectStep(a, entity, memory) : nextInjectByWriterStep(a, entity, memory);
}

NextStep nextInjectOf(const Analysis& a, const Given& given, PlanMemory& memory) { return nextInjectByWriterOf(a, given, memory); }

}  // namespace elmcart

#include "rework/inject_any.h"

#include "rework/field_seam.h"
#include "rework/hand_over.h"
#include "rework/inject.h"
#include "rework/moves/inject.h"

namespace elmcart {
namespace {

const Language& languageOf(const Analysis& a, size_t entity) { return a.program.language(a.survey.entities[entity].place.file); }

}  // namespace

std::string injectAnyRefusal(const Analysis& a, size_t entity) {
  const Language& language = languageOf(a, entity);
  if (language.phrases) return injectRefusal(a, entity);
  if (language.writer) return injectByWriterRefusal(a, entity);
  if (language.handing) return handOverRefusal(a, entity);
  return fieldSeamRefusal(a, entity);
}

NextStep nextInjectAnyStep(const Analysis& a, size_t entity, PlanMemory& memory) {
  const Language& language = languageOf(a, entity);
  return language.phrases ? nextInjectStep(a, entity, memory) : language.writer ? nextInjectByWriterStep(a, entity, memory) : language.handing ? nextHandOverStep(a, entity, memory) : nextFieldSeamStep(a, entity, memory);
}

NextStep nextInjectOf(const Analysis& a, const Given& given, PlanMemory& memory) {
  const Language& language = a.program.language(a.program.types[given.type].definition.file);
  return language.handing ? nextHandOverOf(a, given, memory) : nextFieldSeamOf(a, given, memory);
}

}  // namespace elmcart

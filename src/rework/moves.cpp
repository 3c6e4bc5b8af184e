#include "rework/moves.h"

#include <array>

#include "rework/broadcast.h"
#include "rework/extract_interface.h"
#include "rework/synchronize.h"
#include "rework/moves/inject_parameter.h"
#include "rework/moves/inject.h"
#include "rework/own.h"
#include "rework/enforce.h"
#include "rework/make_local.h"
#include "rework/safe_init.h"
#include "rework/inject_collaborator.h"
#include "rework/unregister.h"
#include "rework/wrap.h"

namespace elmcart {
namespace {

const Language& languageOfEntity(const Analysis& a, size_t entity) { return a.program.language(a.survey.entities[entity].place.file); }

// ----- in which languages a move makes no sense, or is not written

std::string injectNotIn(const Language& l) { return l.owning || l.writer ? "" : "it is not written yet"; }
std::string injectParameterNotIn(const Language& l) {
  return l.writer ? "" : "neither a parameter that may be left out nor a second function can be written";
}
std::string safeInitNotIn(const Language& l) {
  if (!l.guarantees->sharedMemoryThreads.holds) return "no two threads share memory, so lazy creation is sound as it is";
  return l.sound && l.sound->createsOnce() ? "" : "it is not written yet";
}
std::string enforceNotIn(const Language& l) { return l.sound && l.sound->closes() ? "" : "no way to close a class that all makers must honour, or none is written yet"; }
std::string synchronizeNotIn(const Language& l) {
  if (!l.guarantees->sharedMemoryThreads.holds) return "no two threads share memory: there is nothing to guard";
  return l.mending && l.mending->guards() ? "" : "it is not written yet";
}
std::string unregisterNotIn(const Language& l) { return l.mending && !l.mending->takeOut.empty() ? "" : "it is not written yet"; }
std::string injectCollaboratorNotIn(const Language& l) {
  bool can = l.owning || (l.handing && (!l.handing->functionParameter.empty() || !l.handing->overload.empty()));
  return can ? "" : "a parameter that may be left out cannot be written: give the constructor one, and hand it in at each call";
}

std::string makeLocalNotIn(const Language& l) { return l.settling ? "" : "it is not written yet"; }
std::string extractInterfaceNotIn(const Language& l) { return l.facing && !l.facing->face.empty() ? "" : "it has no interfaces: what has the same members will do"; }

std::string wrapNotIn(const Language& l) {
  if (l.guarantees->noStaticMembers.holds) return "functions belong to packages, not to classes: hand in a struct of functions";
  return l.facing && !l.facing->wrapper.empty() && (l.writer || !l.facing->wrapperAccessPoint.empty()) ? "" : "it is not written yet";
}

std::string ownNotIn(const Language& l) {
  if (!l.guarantees->freedByHand.holds) return "the language frees objects itself";
  return l.owning ? "" : "it is not written yet";
}
std::string broadcastNotIn(const Language& l) { return l.announcing ? "" : "it is not written yet"; }

constexpr std::array kMoves = std::to_array<Move>({
    {"inject", "accessor calls inside classes become a constructor parameter and a field", MoveTarget::State, injectNotIn, injectRefusal, nextInjectStep},
    {"inject-parameter", "free functions take it as an optional parameter", MoveTarget::State, injectParameterNotIn, injectParameterRefusal, nextInjectParameterStep},
    {"safe-init", "unsound or needlessly slow creation becomes the language's sound form", MoveTarget::State, safeInitNotIn, safeInitRefusal, nextSafeInitStep},
    {"enforce", "a second instance is forbidden: private constructor, no copies, subclasses, clones or deserialised ones", MoveTarget::State, enforceNotIn, enforceRefusal, nextEnforceStep},
    {"synchronize", "state that several threads use is protected by one lock", MoveTarget::State, synchronizeNotIn, synchronizeRefusal, nextSynchronizeStep},
    {"unregister", "a subscriber removes itself from the list when it ends", MoveTarget::State, unregisterNotIn, unregisterRefusal, nextUnregisterStep},
    {"make-local", "state that one class alone uses becomes a member of that class", MoveTarget::State, makeLocalNotIn, makeLocalRefusal, nextMakeLocalStep},
    {"inject-collaborator", "a class takes the collaborator that it made for itself as a constructor parameter, with the present one as the default", MoveTarget::Class, injectCollaboratorNotIn, injectCollaboratorRefusal, nextInjectCollaboratorStep},
    {"extract-interface", "users of the class depend on an interface with the members that they use", MoveTarget::Class, extractInterfaceNotIn, extractInterfaceRefusal, nextExtractInterfaceStep},
    {"wrap", "a static-only API gets an instance class in front of it, and that is injected", MoveTarget::Class, wrapNotIn, wrapRefusal, nextWrapStep},
    {"own", "owning raw pointers, as members and as results, become smart pointers", MoveTarget::Class, ownNotIn, ownFieldsRefusal, nextOwnFieldsStep},
    {"own", "owning raw pointers, as members and as results, become smart pointers", MoveTarget::Function, ownNotIn, ownResultRefusal, nextOwnResultStep},
    {"broadcast", "a start-up function broadcasts the start to an ordered list of listeners", MoveTarget::Function, broadcastNotIn, broadcastRefusal, nextBroadcastStep},
});

}  // namespace

std::string refusalOf(const Move& move, const Analysis& a, size_t target) {
  const Program& p = a.program;
  const Language& language = move.of == MoveTarget::Class ? p.language(p.types[target].definition.file) : move.of == MoveTarget::Function ? p.language(p.functions[target].declarations.front().file) : languageOfEntity(a, target);
  std::string reason = move.notIn(language);
  return reason.empty() ? move.refusal(a, target) : "in " + std::string(language.name) + ": " + reason;
}

std::span<const Move> moves() { return kMoves; }

const Move* moveById(std::string_view id, MoveTarget of) {
  const Move* any = nullptr;
  for (const Move& move : kMoves) {
    if (move.id != id) continue;
    if (move.of == of) return &move;
    if (!any) any = &move;
  }
  return any;
}

size_t targetOf(const Analysis& a, const Move& move, std::string_view name) {
  const Program& p = a.program;
  if (move.of == MoveTarget::Class) {
    for (TypeIndex t = 0; t < p.types.size(); ++t)
      if (p.types[t].definition.known() && p.text(p.types[t].qualified) == name) return t;
    return SIZE_MAX;
  }
  if (move.of == MoveTarget::Function) {
    for (FunctionIndex f = 0; f < p.functions.size(); ++f)
      if (p.functions[f].definition.known() && functionText(p, f) == name) return f;
    return SIZE_MAX;
  }
  for (size_t i = 0; i < a.survey.entities.size(); ++i)
    if (a.survey.entities[i].id == name) return i;
  return SIZE_MAX;
}

std::vector<std::string> classesNamed(const Analysis& a, std::string_view name) {
  std::vector<std::string> exact, byEnd;
  for (const TypeDecl& type : a.program.types) {
    if (!type.definition.known() || !type.name) continue;
    std::string qualified(a.program.text(type.qualified));
    if (qualified == name) exact.push_back(qualified);
    if (a.program.text(type.name) == name) byEnd.push_back(qualified);
  }
  return exact.empty() ? byEnd : exact;
}

std::vector<std::string> functionsNamed(const Analysis& a, std::string_view name) {
  std::vector<std::string> exact, byEnd;
  for (FunctionIndex f = 0; f < a.program.functions.size(); ++f) {
    const Function& fn = a.program.functions[f];
    if (!fn.definition.known() || !fn.name) continue;
    std::string text = functionText(a.program, f);
    if (text == name) exact.push_back(text);
    if (a.program.text(fn.name) == name) byEnd.push_back(text);
  }
  return exact.empty() ? byEnd : exact;
}

}  // namespace elmcart

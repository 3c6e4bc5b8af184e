#include "rework/costs.h"

#include <algorithm>
#include <set>

#include "base/text.h"
#include "rework/moves.h"

namespace elmcart {
namespace {

Cost costOfMove(const ReworkResult& result) {
  Cost own;
  own.way = result.move;
  std::set<std::string> files;
  for (const StepRecord& r : result.steps) {
    files.insert(r.files.begin(), r.files.end());
    own.classesChanged += r.step.units;
    own.creationSites += r.step.creationSites;
    own.signatures += r.step.kind == StepKind::InjectCollaborator || r.step.kind == StepKind::InjectParameter;
  }
  own.files = files.size();
  own.byHand = result.byHand.size();
  own.note = moveById(result.move)->what;
  return own;
}

// How many classes deep the makers of makers go.
size_t depthOf(const Program& p, const ReworkResult& result) {
  std::map<std::string, size_t> level;
  for (const StepRecord& r : result.steps) level[r.step.subject] = 1;
  for (int round = 0; round < 20; ++round) {
    for (const Creation& c : p.creations) {
      if (c.in == kNone && c.inInitialiserOf == kNone) continue;
      TypeIndex owner = c.in != kNone ? p.functions[c.in].owner : p.variables[c.inInitialiserOf].owner;
      if (owner == kNone || owner == c.type) continue;
      std::string made(p.text(p.types[c.type].qualified)), maker(p.text(p.types[owner].qualified));
      if (level.count(made) && level.count(maker)) level[maker] = std::max(level[maker], level[made] + 1);
    }
  }
  size_t out = 0;
  for (auto& [name, l] : level) out = std::max(out, std::min<size_t>(l, 20));
  return out;
}

// The classes that use the object, and those that only pass it on.
struct Classes {
  std::set<std::string> users, passers;

  explicit Classes(const ReworkResult& result) {
    for (const StepRecord& r : result.steps)
      if (r.step.kind == StepKind::Seam || r.step.kind == StepKind::InjectParameter) users.insert(r.step.subject);
    // A class that has both its seam and its lift uses the object and passes it on: it is one class.
    for (const StepRecord& r : result.steps)
      if (r.step.kind == StepKind::Lift && !users.count(r.step.subject)) passers.insert(r.step.subject);
  }
};

// All steps of inject; and, second, those that let a test pass a test double.
std::pair<Cost, Cost> costsOfInject(const Program& p, const ReworkResult& result, const Classes& classes) {
  Cost inject, seams;
  inject.way = "inject";
  seams.way = "seams only";
  std::set<std::string> files, seamFiles;
  for (const StepRecord& r : result.steps) {
    files.insert(r.files.begin(), r.files.end());
    inject.callSites += r.step.kind == StepKind::Retire ? 0 : r.step.callSites;
    inject.creationSites += r.step.creationSites;
    if (r.step.kind == StepKind::Seam || r.step.kind == StepKind::InjectParameter) {
      ++inject.classesChanged;
      ++seams.classesChanged;
      seams.callSites += r.step.callSites;
      seamFiles.insert(r.files.begin(), r.files.end());
    } else if (r.step.kind == StepKind::Compose) {
      inject.tests += r.step.inTests ? r.step.units : 0;
    }
  }
  inject.classesPassing = classes.passers.size();
  inject.signatures = classes.users.size() + classes.passers.size();
  seams.signatures = classes.users.size();
  inject.files = files.size();
  seams.files = seamFiles.size();
  inject.byHand = result.byHand.size();
  inject.depth = depthOf(p, result);
  seams.depth = 1;
  auto left = result.after.find("places that fetch it");
  bool stays = !result.retired && left != result.after.end();
  inject.note = result.finished && stays ? "those that need it take it as a parameter; by default it is fetched as before (`--retire` goes on to where the program is put together)"
                : result.finished        ? "the accessor goes; classes that need the object take it as a parameter" : "the accessor stays until the rest is done by hand";
  seams.note = "a test can pass a test double at once; callers and the accessor stay as they are";
  return {inject, seams};
}

// Handing the object to each function that uses it, up to where the program is put together.
Cost costOfParameters(const Analysis& a, const Entity& e) {
  const Program& p = a.program;
  Cost out;
  out.way = "inject-parameter";
  std::set<FunctionIndex> functions;
  std::vector<FunctionIndex> open;
  std::set<std::string> files;
  for (const Consumer& c : e.consumers)
    if (c.reach && c.in != kNone && functions.insert(c.in).second) open.push_back(c.in);
  std::set<FunctionIndex> own = functions;
  for (size_t i = 0; i < open.size(); ++i)
    for (uint32_t c : p.callsOfFunction[open[i]])
      if (FunctionIndex in = p.calls[c].in; in != kNone && functions.insert(in).second) open.push_back(in);
  for (FunctionIndex f : functions) {
    Place place = p.functions[f].declarations.front();
    files.insert(p.path(place));
    if (a.config.tests.match(p.path(place))) ++out.tests;
    else if (own.count(f)) ++out.classesChanged;
    else ++out.classesPassing;
  }
  out.signatures = out.classesChanged + out.classesPassing;
  out.files = files.size();
  out.note = "each function on the way gets a parameter: no class gets a field, but every call changes";
  return out;
}

}  // namespace

std::vector<Cost> costsOf(const Analysis& a, size_t entity, const ReworkResult& result) {
  if (result.move != "inject") return {costOfMove(result)};
  const Program& p = a.program;
  const Entity& e = a.survey.entities[entity];
  Classes classes(result);
  auto [inject, seams] = costsOfInject(p, result, classes);
  Cost parameters = costOfParameters(a, e);
  parameters.callSites = inject.callSites;

  std::set<std::string> members;
  for (const Consumer& c : e.consumers)
    if (c.method != kNone) members.insert(std::string(p.text(p.functions[c.method].name)));
  Cost face = inject;
  face.way = "inject an interface";
  face.files += 1;
  face.note = "as inject, through an interface of the " + counted(members.size(), "member", "members") + " in use: test doubles need not derive from the class";

  Cost steady;
  steady.way = "safe-init";
  steady.files = 1;
  steady.note = e.creation.guard == GuardSort::None || e.creation.guard == GuardSort::DoubleCheckUnsound ? "mends only its creation; its users still hide that they depend on it" : "its creation is sound already";

  // Where many would only pass it on to few, the access points for tests are worth more than the way up.
  size_t users = classes.users.size(), passers = classes.passers.size();
  bool seamsFirst = users > 0 && passers > 2 * users;
  if (seamsFirst) seams.note = "recommended, for " + std::to_string(passers) + " classes would only pass it on to the " + std::to_string(users) + " that use it (`--steps seam,hand-in` makes these steps alone): " + seams.note;
  std::vector<Cost> out = {inject, seams};
  if (seamsFirst) std::swap(out[0], out[1]);
  out.insert(out.end(), {parameters, face, steady});
  return out;
}

}  // namespace elmcart

#include "report/json.h"

#include "report/exchange.h"
#include "report/reach.h"

namespace elmcart {
using Json = nlohmann::ordered_json;
namespace {

Json placeJson(const Program& p, Place place) { return {{"file", p.path(place)}, {"line", p.line(place)}}; }

}  // namespace

std::string jsonText(const Json& json) { return json.dump(2, ' ', false, Json::error_handler_t::replace) + "\n"; }

Json surveyJson(const Analysis& a, bool all) {
  const Program& p = a.program;
  Json entities = Json::array();
  auto add = [&](const Entity& e) {
    Json accessPoints = Json::array(), consumers = Json::array(), state = Json::array(), weights = Json::array();
    for (const AccessPoint& accessPoint : e.accessPoints) {
      Json row = {{"name", accessPoint.name}, {"sort", accessPoint.sort == AccessPoint::Sort::Accessor ? "accessor" : accessPoint.sort == AccessPoint::Sort::Slot ? "slot" : "helper"}};
      row.update(placeJson(p, accessPoint.place));
      accessPoints.push_back(row);
    }
    for (const Consumer& c : e.consumers) {
      Json row = placeJson(p, c.place);
      row["function"] = c.in == kNone ? whereText(p, c) : functionText(p, c.in);
      row["access"] = accessText(c);
      if (p.inOtherBranch(c.place)) row["otherBranch"] = true;
      if (c.whileLoading) row["whileLoading"] = true;
      if (a.config.tests.match(p.path(c.place))) row["tests"] = true;
      if (c.method != kNone) row["member"] = p.text(p.functions[c.method].name);
      else if (c.field != kNone) row["member"] = p.text(p.variables[c.field].name);
      consumers.push_back(row);
    }
    for (const StateField& f : e.state)
      state.push_back({{"name", p.text(p.variables[f.variable].name)}, {"type", p.typeText(p.variables[f.variable].type)}, {"changes", f.changes},
                       {"lock", f.lock.known() ? Json(lockText(p, f.lock)) : Json(nullptr)}});
    for (const Weight& w : e.creation.weights) {
      Json row = placeJson(p, w.place);
      row["what"] = w.what;
      weights.push_back(row);
    }
    Json row = {{"id", e.id}, {"name", e.name}, {"kind", kindText(e.toldKind())}, {"language", e.language}};
    row.update(placeJson(p, e.place));
    row["type"] = e.typeText;
    row["slot"] = e.slot == kNone ? Json(nullptr) : Json(p.text(p.variables[e.slot].qualified));
    row["creation"] = creationText(e.creation.time);
    row["guard"] = guardText(e.creation.guard);
    if (e.creation.place.known()) row["created"] = placeJson(p, e.creation.place);
    row["weights"] = weights;
    row["enforced"] = e.enforced < 0 ? Json(nullptr) : Json(e.enforced == 1);
    row["openings"] = e.openings;
    row["harmless"] = e.harmless;
    if (e.harmless) row["because"] = e.harmlessBecause;
    row["stateless"] = e.stateless;
    row["end"] = e.end;
    row["state"] = state;
    row["accessPoints"] = accessPoints;
    row["consumers"] = consumers;
    entities.push_back(row);
  };
  for (const Entity& e : a.survey.entities)
    if (all || !e.harmless) add(e);
  for (const Entity& e : a.survey.managed) add(e);
  Json problems = Json::array(), unread = Json::array();
  for (const UnreadFile& file : a.unread) unread.push_back({{"file", file.path}, {"line", file.line}, {"bytes", file.bytes}, {"text", file.text}});
  for (const Error& problem : a.problems) problems.push_back({{"file", problem.subject}, {"reason", problem.reason}});
  return {{"schema", "elmcart.survey/1"}, {"root", p.root}, {"entities", entities}, {"unread", {{"files", a.unreadFiles}, {"bytes", a.unreadBytes}, {"list", unread}}}, {"problems", problems}};
}

Json assessJson(const Analysis& a, bool withAccepted) {
  const Program& p = a.program;
  Json findings = Json::array();
  for (const Finding& f : a.assessment.findings) {
    if (!f.acceptedBecause.empty() && !withAccepted) continue;
    Json evidence = Json::array();
    for (const Evidence& e : f.evidence) {
      Json row = placeJson(p, e.place);
      row["note"] = e.note;
      evidence.push_back(row);
    }
    Json row = {{"id", f.id}, {"check", f.check}, {"entity", f.subject}};
    row.update(placeJson(p, f.place));
    row["risk"] = f.risk.value();
    row["terms"] = {{"bad", f.risk.bad}, {"sure", f.risk.sure}, {"reach", f.risk.reach}, {"sites", f.risk.sites}};
    row["sureness"] = surenessText(f.sureness);
    row["message"] = f.message;
    row["evidence"] = evidence;
    if (!f.members.empty()) row["members"] = f.members;
    row["advice"] = adviceText(f.advice);
    row["fingerprint"] = f.fingerprint;
    row["for"] = f.reasonsFor;
    row["against"] = f.reasonsAgainst;
    if (const Seen& s = f.seen; s.runs > 0) {
      row["seen"] = {{"race", s.race}, {"runs", s.runs}, {"happened", s.happened}, {"threads", s.threads}, {"old", s.old}};
      if (s.soundRuns > 0) row["seen"]["sound"] = {{"move", s.move}, {"runs", s.soundRuns}, {"happened", s.soundHappened}};
    }
    if (!f.acceptedBecause.empty()) row["accepted"] = f.acceptedBecause;
    findings.push_back(row);
  }
  Json stale = Json::array();
  for (const StaleAcceptance& s : a.assessment.stale) stale.push_back({{"where", s.where}, {"check", s.check}, {"reason", s.reason}});
  Json advice = Json::array();
  for (size_t i = 0; i < a.survey.entities.size(); ++i)
    if (!a.survey.entities[i].harmless)
      advice.push_back({{"entity", a.survey.entities[i].id}, {"advice", adviceText(a.assessment.judgements[i].advice)}, {"for", a.assessment.judgements[i].reasonsFor}, {"against", a.assessment.judgements[i].reasonsAgainst}});
  Json order = Json::array();
  for (const WorkItem& item : orderOfWork(a.assessment)) order.push_back({{"subject", item.subject}, {"weight", item.weight}, {"findings", item.findings}, {"advice", adviceText(item.advice)}, {"why", item.why}});
  return {{"schema", "elmcart.assess/1"}, {"root", p.root}, {"findings", findings}, {"order", order}, {"entities", advice}, {"staleAcceptances", stale}};
}

Json reachJson(const Analysis& a, size_t entity) {
  const Program& p = a.program;
  Reach reach = reachOf(a, entity);
  Json units = Json::array(), edges = Json::array();
  for (const ReachUnit& unit : reach.units) {
    Json functions = Json::array();
    for (const ReachFunction& fn : unit.functions) {
      Json row = {{"name", fn.name}};
      row.update(placeJson(p, fn.place));
      row["what"] = fn.what;
      row["callers"] = fn.callers;
      row["testCallers"] = fn.testCallers;
      functions.push_back(row);
    }
    units.push_back({{"name", unit.name}, {"distance", unit.distance}, {"tests", unit.tests}, {"sites", unit.sites}, {"functions", functions}});
  }
  for (const ReachEdge& edge : reach.edges)
    edges.push_back({{"from", reach.units[edge.from].name}, {"to", edge.to == SIZE_MAX ? a.survey.entities[entity].id : reach.units[edge.to].name}, {"count", edge.count}, {"writes", edge.writes}});
  return {{"schema", "elmcart.reach/1"}, {"entity", a.survey.entities[entity].id}, {"units", units}, {"edges", edges}};
}

Json reachWaysJson(const Analysis& a, size_t entity, const ReachWays& ways) {
  const Program& p = a.program;
  Json rows = Json::array();
  for (const ReachWay& way : ways.ways) {
    Json calls = Json::array();
    for (const ReachWay::Step& step : way.steps) {
      Json row = {{"function", functionText(p, step.function)}};
      row.update(placeJson(p, step.call));
      row["byBase"] = step.asOverrider;
      calls.push_back(row);
    }
    Json use = placeJson(p, way.use->place);
    use["access"] = accessText(*way.use);
    rows.push_back({{"from", functionText(p, way.begin)}, {"calls", calls}, {"use", use}});
  }
  return {{"schema", "elmcart.reach-ways/1"}, {"entity", a.survey.entities[entity].id}, {"ways", rows}};
}

std::string surveyCsv(const Analysis& a, bool all) {
  std::string out = "id,name,kind,language,file,line,type,creation,guard,enforced,harmless,access points,sites\n";
  auto add = [&](const Entity& e) {
    out += csvCell(e.id) + "," + csvCell(e.name) + "," + std::string(kindText(e.toldKind())) + "," + e.language + "," + csvCell(a.program.path(e.place)) + "," +
           std::to_string(a.program.line(e.place)) + "," + csvCell(e.typeText) + "," + std::string(creationText(e.creation.time)) + "," + std::string(guardText(e.creation.guard)) + "," +
           (e.enforced < 0 ? "" : e.enforced ? "yes" : "no") + "," + (e.harmless ? "yes" : "no") + "," + std::to_string(e.accessPoints.size()) + "," + std::to_string(e.consumers.size()) + "\n";
  };
  for (const Entity& e : a.survey.entities)
    if (all || !e.harmless) add(e);
  for (const Entity& e : a.survey.managed) add(e);
  return out;
}

}  // namespace elmcart

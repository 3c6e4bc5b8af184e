#include "report/exchange.h"

#include <fmt/format.h>

#include <map>

#include "base/text.h"

namespace elmcart {
using Json = nlohmann::ordered_json;
namespace {

// SARIF 2.1.0, 3.27.10: levels by the risk that the text output colours by.
std::string_view levelOf(const Finding& f) { return f.risk.value() >= 50 ? "error" : f.risk.value() >= 25 ? "warning" : "note"; }

// A path as a relative URI (RFC 3986, 3.3): what may not stand there is escaped.
std::string uriOf(std::string_view path) {
  std::string out;
  for (unsigned char c : path) {
    if (isWordByte(static_cast<char>(c)) || c == '/' || c == '.' || c == '-' || c == '~') out += static_cast<char>(c);
    else out += fmt::format("%{:02X}", c);
  }
  return out;
}

Json locationJson(const Program& p, Place place, const std::string& note) {
  Json out = {{"physicalLocation", {{"artifactLocation", {{"uri", uriOf(p.path(place))}, {"uriBaseId", "ROOT"}}}, {"region", {{"startLine", p.line(place)}}}}}};
  if (!note.empty()) out["message"] = {{"text", note}};
  return out;
}

Json flowJson(const Program& p, const std::vector<const Evidence*>& steps, std::string_view id) {
  Json locations = Json::array();
  size_t order = 0;
  for (const Evidence* e : steps) locations.push_back({{"location", locationJson(p, e->place, e->note)}, {"executionOrder", ++order}});
  Json out = {{"locations", locations}};
  if (!id.empty()) out["id"] = id;
  return out;
}

// Text in a Markdown table or heading: what would be taken for markup is escaped.
std::string plain(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (std::string_view("\\`*_{}[]<>#|").find(c) != std::string_view::npos) out += '\\';
    out += c == '\n' ? ' ' : c;
  }
  return out;
}

}  // namespace

std::string csvCell(const std::string& text) {
  if (text.find_first_of(",\"\n\r") == std::string::npos) return text;
  std::string out = "\"";
  for (char c : text) out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

Json assessSarif(const Analysis& a, std::string_view version) {
  const Program& p = a.program;
  Json rules = Json::array();
  std::map<std::string, size_t> indexOf;
  for (const Check& check : checks()) {
    const CheckInfo& info = check.info;
    indexOf[std::string(info.id)] = rules.size();
    rules.push_back({{"id", info.id},
                     {"name", info.title},
                     {"shortDescription", {{"text", info.what}}},
                     {"fullDescription", {{"text", std::string(info.what) + " " + std::string(info.why)}}},
                     {"help", {{"text", std::string(info.why) + " " + std::string(info.keepWhen) + " The move: " + moveText(info)}}},
                     {"defaultConfiguration", {{"level", info.bad >= 50 ? "error" : info.bad >= 25 ? "warning" : "note"}}}});
  }
  Json results = Json::array();
  for (const Finding& f : a.assessment.findings) {
    Json row = {{"ruleId", f.check}, {"ruleIndex", indexOf[f.check]}, {"level", levelOf(f)}, {"message", {{"text", f.message}}}, {"locations", Json::array({locationJson(p, f.place, "")})}};
    // The evidence as flows: one for each thread where the steps are told by thread, else one.
    std::vector<const Evidence*> before, lanes[2];
    for (const Evidence& e : f.evidence) {
      int lane = laneOf(e.note);
      if (lane == 0) before.push_back(&e);
      else lanes[lane - 1].push_back(&e);
    }
    Json flows = Json::array();
    if (!before.empty()) flows.push_back(flowJson(p, before, lanes[0].empty() ? "" : "before"));
    if (!lanes[0].empty()) flows.push_back(flowJson(p, lanes[0], "thread 1"));
    if (!lanes[1].empty()) flows.push_back(flowJson(p, lanes[1], "thread 2"));
    if (!flows.empty()) row["codeFlows"] = Json::array({{{"threadFlows", flows}}});
    row["partialFingerprints"] = {{"elmcart/1", f.fingerprint}};
    row["rank"] = f.risk.value();
    if (!f.acceptedBecause.empty()) row["suppressions"] = Json::array({{{"kind", "external"}, {"justification", f.acceptedBecause}}});
    row["properties"] = {{"entity", f.subject}, {"sureness", surenessText(f.sureness)}, {"advice", adviceText(f.advice)}};
    if (f.seen.runs > 0) row["properties"]["seen"] = seenText(f.seen);
    results.push_back(row);
  }
  Json notes = Json::array();
  for (const Error& problem : a.problems)
    notes.push_back({{"level", "warning"}, {"message", {{"text", problem.reason}}}, {"locations", Json::array({{{"physicalLocation", {{"artifactLocation", {{"uri", uriOf(problem.subject)}, {"uriBaseId", "ROOT"}}}}}}})}});
  Json run = {{"tool", {{"driver", {{"name", "elmcart"}, {"version", version}, {"rules", rules}}}}},
              {"originalUriBaseIds", {{"ROOT", {{"description", {{"text", "The folder that was assessed."}}}}}}},
              {"invocations", Json::array({{{"executionSuccessful", true}, {"toolExecutionNotifications", notes}}})},
              {"results", results}};
  return {{"$schema", "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json"}, {"version", "2.1.0"}, {"runs", Json::array({run})}};
}

std::string assessCsv(const Analysis& a, bool withAccepted) {
  std::string out = "risk,check,entity,file,line,sureness,advice,message,accepted,fingerprint\r\n";
  for (const Finding& f : a.assessment.findings) {
    if (!f.acceptedBecause.empty() && !withAccepted) continue;
    out += std::to_string(f.risk.value()) + "," + f.check + "," + csvCell(f.subject) + "," + csvCell(a.program.path(f.place)) + "," + std::to_string(a.program.line(f.place)) + "," +
           std::string(surenessText(f.sureness)) + "," + std::string(adviceText(f.advice)) + "," + csvCell(f.message) + "," + csvCell(f.acceptedBecause) + "," + f.fingerprint + "\r\n";
  }
  return out;
}

std::string assessLedger(const Analysis& a, const std::string& because) {
  // A TOML basic string (TOML 1.0.0, String).
  auto quoted = [](const std::string& text) {
    std::string out = "\"";
    for (char c : text) {
      if (c == '"' || c == '\\') out += '\\';
      if (static_cast<unsigned char>(c) < 0x20) out += fmt::format("\\u{:04X}", static_cast<unsigned>(c));
      else out += c;
    }
    return out + "\"";
  };
  std::string out = "# Findings that are accepted as they are. Each row names one; take it out when it is mended.\n";
  for (const Finding& f : a.assessment.findings) {
    out += "\n[[accept]]\ncheck = " + quoted(f.check) + "\nentity = " + quoted(f.subject) + "\nfingerprint = " + quoted(f.fingerprint) + "\nbecause = " + quoted(f.acceptedBecause.empty() ? because : f.acceptedBecause) + "\n";
  }
  return out;
}

std::string assessMarkdown(const Analysis& a, bool withAccepted) {
  const Program& p = a.program;
  std::string table, details;
  size_t shown = 0;
  for (const Finding& f : a.assessment.findings) {
    if (!f.acceptedBecause.empty() && !withAccepted) continue;
    ++shown;
    std::string where = p.path(f.place) + ":" + std::to_string(p.line(f.place));
    table += fmt::format("| {} | {} | {} | {} | {} |\n", shown, f.risk.value(), f.check, plain(f.subject), plain(where));
    details += fmt::format("\n## {}. {}: {}\n\n{}\n\n", shown, f.check, plain(f.subject), plain(f.message));
    for (const Evidence& e : f.evidence) details += fmt::format("1. {}: {}\n", plain(p.path(e.place) + ":" + std::to_string(p.line(e.place))), plain(e.note));
    details += fmt::format("\nRisk {} ({}; {} sites). Advice: {}. {}\n", f.risk.value(), surenessText(f.sureness), f.risk.sites, adviceText(f.advice), plain("The move: " + moveText(infoOf(f.check), &p.guarantees(f.place.file))));
    if (f.seen.runs > 0) details += "\n" + plain(seenText(f.seen)) + "\n";
    if (!f.acceptedBecause.empty()) details += "\nAccepted because " + plain(f.acceptedBecause) + "\n";
  }
  if (shown == 0) return "# Shared state: no findings\n";
  return fmt::format("# Shared state: {}\n\n| | risk | check | entity | place |\n|---|---|---|---|---|\n", counted(shown, "finding", "findings")) + table + details;
}

}  // namespace elmcart

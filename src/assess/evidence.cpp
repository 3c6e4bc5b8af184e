#include "assess/evidence.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <set>

#include "base/text.h"
#include "source/walk.h"

namespace elmcart {

using Json = nlohmann::ordered_json;

Result<std::vector<Seen>> readEvidence(const std::string& path) {
  std::vector<Seen> out;
  std::error_code error;
  if (!std::filesystem::exists(path, error)) return out;
  auto text = readWhole(path);
  if (!text) return text.error();
  Json all = Json::parse(*text, nullptr, false);
  if (all.is_discarded() || !all.is_object() || all.value("schema", "") != "elmcart.evidence/1" || !all.contains("seen") || !all["seen"].is_array()) return Error{path, "is no evidence of a probe: left out"};
  try {
    for (const Json& row : all["seen"]) {
      Seen seen;
      seen.fingerprint = row.at("fingerprint");
      seen.check = row.at("check");
      seen.entity = row.at("entity");
      seen.race = row.at("race");
      seen.code = row.at("code");
      seen.runs = row.at("runs");
      seen.happened = row.at("happened");
      seen.threads = row.at("threads");
      seen.gap = row.at("gapMilliseconds");
      if (row.contains("sound")) {
        seen.move = row["sound"].at("move");
        seen.soundRuns = row["sound"].at("runs");
        seen.soundHappened = row["sound"].at("happened");
      }
      out.push_back(std::move(seen));
    }
  } catch (const Json::exception&) {
    return Error{path, "is no evidence of a probe: left out"};
  }
  return out;
}

Result<Done> addEvidence(const std::string& path, const std::vector<Seen>& seen) {
  // What cannot be understood is not written over.
  auto before = readEvidence(path);
  if (!before) return before.error();
  std::vector<Seen> all = seen;
  for (Seen& old : *before)
    if (std::none_of(seen.begin(), seen.end(), [&](const Seen& s) { return s.fingerprint == old.fingerprint; })) all.push_back(std::move(old));
  std::sort(all.begin(), all.end(), [](const Seen& x, const Seen& y) { return std::tie(x.check, x.entity, x.fingerprint) < std::tie(y.check, y.entity, y.fingerprint); });
  Json rows = Json::array();
  for (const Seen& s : all) {
    Json row = {{"fingerprint", s.fingerprint}, {"check", s.check}, {"entity", s.entity}, {"race", s.race}, {"code", s.code}, {"runs", s.runs}, {"happened", s.happened}, {"threads", s.threads}, {"gapMilliseconds", s.gap}};
    if (!s.move.empty()) row["sound"] = {{"move", s.move}, {"runs", s.soundRuns}, {"happened", s.soundHappened}};
    rows.push_back(row);
  }
  std::string beside = path + ".new";
  std::ofstream out(beside, std::ios::binary);
  out << Json{{"schema", "elmcart.evidence/1"}, {"seen", rows}}.dump(2, ' ', false, Json::error_handler_t::replace) << "\n";
  out.close();
  std::error_code error;
  if (out) std::filesystem::rename(beside, path, error);
  if (!out || error) {
    std::filesystem::remove(beside, error);
    return Error{path, "could not be written"};
  }
  return Done{};
}

std::string codeNumber(const Program& p, const std::vector<FunctionIndex>& functions) {
  std::set<std::string> texts;
  for (FunctionIndex f : functions) {
    if (!p.functions[f].definition.known()) continue;
    Place place = p.functions[f].definition;
    auto text = readWhole(p.root + "/" + p.path(place));
    Span span = p.node(place).span;
    if (text && span.end <= text->size()) texts.insert(text->substr(span.begin, span.size()));
  }
  uint64_t sum = stableHash("");
  for (const std::string& text : texts) sum = stableHash(text, sum);
  return fmt::format("{:016x}", sum);
}

std::vector<FunctionIndex> codeOf(const Program& p, const Finding& f) {
  std::set<FunctionIndex> out;
  auto add = [&](Place place) {
    if (!place.known()) return;
    Place around = p.node(place).kind == Kind::Function ? place : p.around(place, Kind::Function);
    if (around.node != kNoNode && p.symbolAt(around).is(Symbol::Sort::Function)) out.insert(p.symbolAt(around).index());
  };
  add(f.place);
  // Only what happens in the two threads: who starts them is not run by a harness.
  for (const Evidence& e : f.evidence)
    if (laneOf(e.note) != 0) add(e.place);
  return {out.begin(), out.end()};
}

std::string seenText(const Seen& s) {
  std::string runs = counted(static_cast<size_t>(s.runs), "run", "runs"), out;
  if (s.happened > 0) out = fmt::format("Seen when it was run: {}, in {} of {}", s.race, s.happened, runs);
  else out = fmt::format("Not seen when it was run: {}, in {} with {} ms between reading and writing", s.race, runs, s.gap);
  if (!s.move.empty() && s.soundRuns > 0) out += fmt::format("; with {}: {} of {}", s.move, s.soundHappened, s.soundRuns);
  return s.old ? out + ". The code has changed since, so this says nothing of it any more." : out + ".";
}

void applyEvidence(const Program& p, const std::vector<Seen>& seen, std::vector<Finding>& findings) {
  for (Finding& f : findings)
    for (const Seen& s : seen) {
      if (s.fingerprint != f.fingerprint) continue;
      f.seen = s;
      f.seen.old = s.code != codeNumber(p, codeOf(p, f));
      if (f.seen.old) continue;
      // What is only possible stays so: a harness shows what happens where two threads meet, not that they do.
      if (s.happened > 0 && f.sureness == Sureness::Likely) f.setSureness(Sureness::Certain);
      // Never to nothing: another machine, or another order, may show it.
      else if (s.happened == 0) f.setSureness(f.sureness == Sureness::Certain ? Sureness::Likely : Sureness::Possible);
    }
}

}  // namespace elmcart

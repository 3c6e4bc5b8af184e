#include "report/rework_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "base/text.h"
#include "report/layout.h"

namespace elmcart {
using Json = nlohmann::ordered_json;
namespace {

std::string indented(const std::string& text, const std::string& by) {
  std::string out;
  for (const std::string& line : splitLines(text)) out += by + line + "\n";
  return out;
}

std::string statusOf(const TestTable& table, const std::string& name) {
  auto found = table.find(name);
  return found == table.end() ? "absent" : std::string(testStatusText(found->second.status));
}

}  // namespace

std::string costText(const ReworkResult& r, const TextStyle& style) {
  std::vector<std::vector<std::string>> rows = {{"WAY", "CHANGED", "PASS ON", "DEPTH", "CALLS", "CREATIONS", "SIGNATURES", "FILES", "TESTS", "BY HAND"}};
  for (const Cost& c : r.costs)
    rows.push_back({c.way, std::to_string(c.classesChanged), std::to_string(c.classesPassing), std::to_string(c.depth), std::to_string(c.callSites), std::to_string(c.creationSites),
                    std::to_string(c.signatures), std::to_string(c.files), std::to_string(c.tests), std::to_string(c.byHand)});
  std::string out = tableText(rows, style, {0}) + "\n";
  for (const Cost& c : r.costs) out += fmt::format("  {:<20} {}\n", c.way, wrapped(c.note, static_cast<size_t>(style.width), 23));
  constexpr std::string_view kColumns =
      "CHANGED: classes and functions that use the object themselves. PASS ON: those that would only hand it further. "
      "CALLS: accessor calls that go. CREATIONS: places that would hand the object in. TESTS: tests and fixtures touched.";
  return out + "\n" + wrapped(kColumns, static_cast<size_t>(style.width), 0) + "\n";
}

std::string stepsText(const ReworkResult& r, const TextStyle& style) {
  std::string out;
  size_t kind = 0;
  for (const StepRecord& s : r.steps) kind = std::max(kind, stepKindText(s.step.kind).size());
  for (const StepRecord& s : r.steps) {
    std::string mark = s.outcome == "planned" ? "·" : s.kept ? painted(style, "32", "kept") : painted(style, "1;31", "back");
    out += fmt::format("{:>3}  {}  {:<{}}  {}\n", s.number, mark, stepKindText(s.step.kind), kind, wrapped(s.step.title, static_cast<size_t>(style.width), kind + (s.outcome == "planned" ? 10 : 13)));
    if (s.outcome != "planned")
      out += fmt::format("     {}; build {:.1f} s, tests {:.1f} s, own {:.2f} s\n", s.outcome, s.buildSeconds, s.testSeconds, s.ownSeconds);
    if (!s.differences.empty()) out += indented(differencesText(s.differences, style), "     ");
  }
  return out;
}

std::string byHandText(const ReworkResult& r, const TextStyle& style) {
  std::string out;
  if (!r.byHand.empty()) out += "\nBy hand:\n";
  for (const ByHand& b : r.byHand) out += fmt::format("  {:<32} {}\n", b.file + ":" + std::to_string(b.line), wrapped(b.reason, static_cast<size_t>(style.width), 35));
  // What rightly stays is told once a reason, with some of its places.
  std::vector<std::pair<std::string, std::vector<std::string>>> left;
  for (const ByHand& b : r.left) {
    auto known = std::find_if(left.begin(), left.end(), [&](const auto& l) { return l.first == b.reason; });
    if (known == left.end()) known = left.insert(left.end(), {b.reason, {}});
    known->second.push_back(b.file + ":" + std::to_string(b.line));
  }
  if (!left.empty()) out += "\nLeft as it is:\n";
  constexpr size_t kShown = 3;
  for (auto& [reason, places] : left) {
    std::string where = joinWith({places.begin(), places.begin() + static_cast<std::ptrdiff_t>(std::min(places.size(), kShown))}, ", ");
    if (places.size() > kShown) where += fmt::format(" and {} more", places.size() - kShown);
    out += "  " + wrapped(reason + " (" + where + ")", static_cast<size_t>(style.width), 2) + "\n";
  }
  return out;
}

std::string figuresText(const ReworkResult& r, const TextStyle& style) {
  std::vector<std::vector<std::string>> rows = {{"", "BEFORE", "AFTER"}};
  for (auto& [name, value] : r.before) {
    auto after = r.after.find(name);
    rows.push_back({name, std::to_string(value), after == r.after.end() ? "-" : std::to_string(after->second)});
  }
  std::string out = tableText(rows, style, {0});
  for (const std::string& id : r.findingsGone) out += "  gone: " + id + "\n";
  for (const std::string& id : r.findingsCome) out += "  new:  " + id + "\n";
  return out;
}

std::string differencesText(const std::vector<Difference>& differences, const TextStyle& style) {
  std::string out;
  for (const Difference& d : differences) {
    out += painted(style, "1", d.what + (d.name.empty() ? "" : " " + d.name)) + ": " + d.before + " → " + d.after + "\n";
    if (!d.detail.empty()) out += indented(d.detail, "  ");
  }
  return out;
}

std::string diffText(const std::string& patch, const TextStyle& style) {
  if (!style.colour) return patch;
  std::string out;
  for (const std::string& line : splitLines(patch)) {
    const char* code = line.rfind("@@", 0) == 0 ? "36" : line.rfind("+++", 0) == 0 || line.rfind("---", 0) == 0 || line.rfind("diff", 0) == 0 ? "1" : line[0] == '+' ? "32" : line[0] == '-' ? "31" : nullptr;
    out += (code && !line.empty() ? painted(style, code, line) : line) + "\n";
  }
  return out;
}

Json reworkJson(const ReworkResult& r) {
  Json steps = Json::array(), hand = Json::array(), left = Json::array(), costs = Json::array();
  for (const StepRecord& s : r.steps) {
    Json differences = Json::array();
    for (const Difference& d : s.differences) differences.push_back({{"what", d.what}, {"name", d.name}, {"before", d.before}, {"after", d.after}, {"detail", d.detail}});
    steps.push_back({{"number", s.number}, {"kind", stepKindText(s.step.kind)}, {"subject", s.step.subject}, {"title", s.step.title}, {"kept", s.kept}, {"confirmed", s.kept && !s.unbuilt && s.outcome != "planned"}, {"outcome", s.outcome}, {"files", s.files},
                     {"buildSeconds", s.buildSeconds}, {"testSeconds", s.testSeconds}, {"ownSeconds", s.ownSeconds}, {"differences", differences}, {"patch", s.patch}, {"sample", s.step.sample}});
  }
  auto placeJson = [](const ByHand& b) { return Json{{"file", b.file}, {"line", b.line}, {"reason", b.reason}}; };
  for (const ByHand& b : r.byHand) hand.push_back(placeJson(b));
  for (const ByHand& b : r.left) left.push_back(placeJson(b));
  for (const Cost& c : r.costs)
    costs.push_back({{"way", c.way}, {"changed", c.classesChanged}, {"passOn", c.classesPassing}, {"depth", c.depth}, {"calls", c.callSites}, {"creations", c.creationSites}, {"signatures", c.signatures},
                     {"files", c.files}, {"tests", c.tests}, {"byHand", c.byHand}, {"note", c.note}});
  return {{"schema", "elmcart.rework/1"}, {"entity", r.entity}, {"move", r.move}, {"finished", r.finished}, {"costs", costs}, {"steps", steps}, {"byHand", hand}, {"left", left},
          {"before", r.before}, {"after", r.after}, {"findingsGone", r.findingsGone}, {"findingsCome", r.findingsCome}, {"seconds", r.seconds}};
}

namespace {

std::string ordersText(const OrderReport& orders) {
  std::string out;
  auto tell = [&](const OrderCheck& check, const char* which) {
    std::vector<std::string> runs;
    if (check.orders > 0) runs.push_back(counted(check.orders, "other order", "other orders"));
    if (check.alone > 0) runs.push_back(counted(check.alone, "run", "runs") + " of one test each");
    if (runs.empty()) return;
    if (check.dependent.empty()) {
      out += fmt::format("{}: no test depends on what runs before it, in {}.\n", which, joinWith(runs, " and "));
      return;
    }
    out += fmt::format("{}: {} on what runs before, in {}:\n", which, counted(check.dependent.size(), "test depends", "tests depend"), joinWith(runs, " and "));
    for (auto& [name, how] : check.dependent) {
      auto shares = orders.shares.find(name);
      out += "  " + name + ": " + how + (shares == orders.shares.end() || shares->second.empty() ? std::string() : "; it shares " + joinWith(shares->second, ", ")) + "\n";
    }
  };
  tell(orders.before, "Before");
  tell(orders.after, "After");
  return out;
}

Json ordersJson(const OrderCheck& check, const OrderReport& orders) {
  Json dependent = Json::array();
  for (auto& [name, how] : check.dependent) {
    auto shares = orders.shares.find(name);
    dependent.push_back({{"name", name}, {"how", how}, {"shares", shares == orders.shares.end() ? std::vector<std::string>{} : shares->second}});
  }
  return {{"orders", check.orders}, {"alone", check.alone}, {"dependent", dependent}};
}

}  // namespace

std::string confirmText(const Baseline& a, const Observation& b, const Comparison& c, const OrderReport* orders, bool all, const TextStyle& style) {
  std::vector<std::vector<std::string>> rows = {{"TEST", "BEFORE", "AFTER", "SECONDS"}};
  std::set<std::string> names;
  for (auto& [name, result] : a.observation.tests) names.insert(name);
  for (auto& [name, result] : b.tests) names.insert(name);
  for (const std::string& name : names) {
    std::string was = statusOf(a.observation.tests, name), is = statusOf(b.tests, name);
    if (was == is && !all) continue;
    auto before = a.observation.tests.find(name);
    auto after = b.tests.find(name);
    std::string times = (before == a.observation.tests.end() ? "-" : fmt::format("{:.3f}", before->second.seconds)) + " → " + (after == b.tests.end() ? "-" : fmt::format("{:.3f}", after->second.seconds));
    rows.push_back({name + (a.flakyTests.count(name) ? " (flaky)" : ""), was, is, times});
  }
  std::string out;
  if (rows.size() > 1) out += tableText(rows, style, {0}) + "\n";
  if (!c.differences.empty()) out += differencesText(c.differences, style) + "\n";
  out += (c.same() ? "Alike: " : "Not alike: ") + c.summary() + ".\n";
  if (c.testsCompared == 0) out += "No test results were compared: nothing can be said about unchanged behaviour beyond what the witnesses show.\n";
  if (c.same() && c.coverage.asked && c.coverage.changed > 0 && c.coverage.executed == 0) out += "No test executes what was changed: that it behaves as before is not shown.\n";
  if (orders) out += ordersText(*orders);
  if (!a.flakyTests.empty()) out += counted(a.flakyTests.size(), "test was", "tests were") + " set aside as flaky: " + joinWith({a.flakyTests.begin(), a.flakyTests.end()}, ", ") + "\n";
  return out;
}

Json confirmJson(const Baseline& a, const Observation& b, const Comparison& c, const OrderReport* orders) {
  Json tests = Json::array(), differences = Json::array();
  std::set<std::string> names;
  for (auto& [name, result] : a.observation.tests) names.insert(name);
  for (auto& [name, result] : b.tests) names.insert(name);
  for (const std::string& name : names) tests.push_back({{"name", name}, {"before", statusOf(a.observation.tests, name)}, {"after", statusOf(b.tests, name)}, {"flaky", a.flakyTests.count(name) > 0}});
  for (const Difference& d : c.differences) differences.push_back({{"what", d.what}, {"name", d.name}, {"before", d.before}, {"after", d.after}, {"detail", d.detail}});
  Json out = {{"schema", "elmcart.confirm/1"}, {"alike", c.same()}, {"testsCompared", c.testsCompared}, {"witnessesCompared", c.witnessesCompared}, {"tests", tests}, {"differences", differences}};
  if (c.coverage.asked) {
    Json missed = Json::array();
    for (auto& [path, line] : c.coverage.missed) missed.push_back({{"file", path}, {"line", line}});
    out["coverage"] = {{"changed", c.coverage.changed}, {"executed", c.coverage.executed}, {"missed", missed}, {"untold", c.coverage.untold}};
  }
  if (orders) out["orders"] = {{"before", ordersJson(orders->before, *orders)}, {"after", ordersJson(orders->after, *orders)}};
  return out;
}

std::string proposalText(const ReworkResult& r, const TextStyle& style, bool diffs) {
  std::string out = "Ways for " + r.entity + ", the recommended first:\n\n" + costText(r, style);
  out += "\nSteps of " + r.move + ":\n" + stepsText(r, style) + byHandText(r, style);
  if (diffs)
    for (const StepRecord& s : r.steps) {
      out += fmt::format("\n──── step {}: {}\n", s.number, s.step.title) + diffText(s.patch, style);
      if (!s.step.sample.empty()) out += "\n──── a double to begin tests from\n" + s.step.sample + "\n";
    }
  return out;
}

namespace {

// What became of the accessor.
std::string accessPointText(const ReworkResult& r) {
  if (r.move != "inject") return r.finished && r.byHand.empty() ? "nothing is left to do" : "some is left by hand";
  auto left = r.after.find("places that fetch it");
  size_t places = left == r.after.end() ? 0 : static_cast<size_t>(left->second);
  if (r.retired) return "the accessor is gone";
  if (!r.finished) return "some is left by hand, and the object is still fetched in " + counted(places, "place", "places");
  return "the object is still fetched in " + counted(places, "place", "places") + ", by default or where the program is put together";
}

}  // namespace

std::string reworkSummaryText(const ReworkResult& r, const TextStyle& style) {
  size_t kept = 0;
  for (const StepRecord& s : r.steps) kept += s.kept;
  std::string out = "Rework of " + r.entity + " (" + r.move + ")\n\n" + costText(r, style) + "\nSteps:\n" + stepsText(r, style) + byHandText(r, style) + "\n" + figuresText(r, style) + "\n";
  size_t unbuilt = static_cast<size_t>(std::count_if(r.steps.begin(), r.steps.end(), [](const StepRecord& s) { return s.unbuilt; }));
  if (unbuilt > 0) out += counted(unbuilt, "step is", "steps are") + " not confirmed: their files are not built or loaded here.\n";
  out += fmt::format("{} of {} kept; {}; {:.0f} s.\n", kept, counted(r.steps.size(), "step", "steps"), accessPointText(r), r.seconds);
  if (r.baseline.runs > 0 && r.baseline.observation.tests.empty() && !r.baseline.observation.totals.told)
    out += r.baseline.observation.witnesses.empty() ? "No test and no witness ran: nothing is said about unchanged behaviour.\n" : "No test results were read: only the witnesses speak for unchanged behaviour.\n";
  return out;
}

}  // namespace elmcart

#include "report/page/page.h"

#include <fmt/format.h>
#include <xxhash.h>

#include <algorithm>
#include <kainjow/mustache.hpp>
#include <map>
#include <set>

#include "base/text.h"
#include "report/drawing.h"
#include "report/figure.h"
#include "report/layout.h"
#include "report/page/parts.h"
#include "source/walk.h"

namespace elmcart {
namespace {

using kainjow::mustache::data;
using kainjow::mustache::list;
using kainjow::mustache::object;

constexpr std::string_view kNonce = "nonce-of-this-page";

data listOf(const std::vector<std::string>& texts) {
  list out;
  for (const std::string& text : texts) out.emplace_back(text);
  return out;
}

std::string_view levelOf(int risk) { return risk >= 50 ? "high" : risk >= 25 ? "mid" : "low"; }
std::string_view levelText(int risk) { return risk >= 50 ? "50 or more" : risk >= 25 ? "25 to 49" : "below 25"; }
int riskRank(std::string_view text) { return text == levelText(50) ? 0 : text == levelText(25) ? 1 : 2; }
std::string familyOf(const Finding& f) { return f.check.substr(0, f.check.find('.')); }

// Places by folder, as deep as a dozen of names goes.
class Folders {
 public:
  explicit Folders(const Program& p) {
    constexpr size_t kMost = 12;
    for (; depth_ < 8; ++depth_) {
      std::set<std::string> names;
      for (const auto& file : p.files) names.insert(cut(file.path, depth_ + 1));
      if (names.size() > kMost) break;
    }
  }
  std::string of(const std::string& path) const { return cut(path, depth_); }

 private:
  static std::string cut(const std::string& path, size_t depth) {
    size_t end = 0;
    for (size_t n = 0; n < depth; ++n) {
      size_t slash = path.find('/', end == 0 ? 0 : end + 1);
      if (slash == std::string::npos) break;
      end = slash;
    }
    return end == 0 ? "." : path.substr(0, end);
  }
  size_t depth_ = 1;
};

class Page {
 public:
  Page(const Analysis& a, const HtmlOptions& o) : a_(a), p_(a.program), o_(o), folders_(a.program) {
    for (const Finding& f : a.assessment.findings)
      if (f.acceptedBecause.empty()) shown_.push_back(&f);
  }

  std::string run() {
    object page{{"title", o_.title}, {"css", std::string(page::kStyle)}, {"js", std::string(page::kScript)}, {"nonce", std::string(kNonce)}, {"reworked", !o_.reworks.empty()}};
    page["cards"] = cards();
    page["charts"] = charts();
    findings(page);
    inventory(page);
    page["figures"] = figures();
    list reworks;
    for (const ReworkResult* r : o_.reworks) reworks.emplace_back(rework(*r));
    page["reworks"] = reworks;
    notes(page);
    kainjow::mustache::mustache made{std::string(page::kTemplate)};
    std::string out = made.render(data(page));
    // Scripts run with this number only, and no source text can know it: it follows from all of the page.
    XXH128_hash_t hash = XXH3_128bits(out.data(), out.size());
    std::string number = fmt::format("{:016x}{:016x}", hash.high64, hash.low64);
    out.replace(out.rfind(kNonce), kNonce.size(), number);
    // The two in the head stand in front of all text of the sources.
    for (int head = 0; head < 2; ++head) out.replace(out.find(kNonce), kNonce.size(), number);
    return out;
  }

 private:
  const std::vector<std::string>& lines(FileIndex file) {
    auto found = lines_.find(file);
    if (found == lines_.end()) {
      auto text = readWhole(p_.root + "/" + p_.files[file].path);
      found = lines_.emplace(file, text ? splitLines(*text) : std::vector<std::string>{}).first;
    }
    return found->second;
  }

  // The line, with one above and one below.
  data excerpt(Place place) {
    const std::vector<std::string>& text = lines(place.file);
    int hit = static_cast<int>(p_.line(place));
    list shown;
    for (int n = std::max(1, hit - 1); n <= hit + 1 && n <= static_cast<int>(text.size()); ++n) {
      std::string line = text[static_cast<size_t>(n - 1)].substr(0, 160);
      shown.emplace_back(object{{"hit", n == hit}, {"number", std::to_string(n)}, {"text", line}});
    }
    return object{{"lines", shown}};
  }

  list cards() {
    size_t real = 0, high = 0, keep = 0;
    for (size_t i = 0; i < a_.survey.entities.size(); ++i) {
      if (a_.survey.entities[i].harmless) continue;
      ++real;
      keep += a_.assessment.judgements[i].isSink && a_.assessment.judgements[i].advice == Advice::Keep;
    }
    for (const Finding* f : shown_) high += f->risk.value() >= 50;
    list out;
    auto card = [&](size_t n, const char* what) { out.emplace_back(object{{"n", std::to_string(n)}, {"what", what}}); };
    card(p_.files.size(), "files read");
    card(real, "pieces of shared state");
    card(shown_.size(), "findings");
    card(high, "of risk 50 or more");
    card(keep, "right to keep");
    return out;
  }

  // At most ten bars.
  static data chart(const char* name, const char* of, const char* facet, const std::map<std::string, size_t>& counts) {
    constexpr size_t kMost = 10;
    std::vector<std::pair<std::string, size_t>> order(counts.begin(), counts.end());
    // Most first; risks as they are, from above.
    auto before = [&](auto& x, auto& y) { return std::string_view(facet) == "level" ? riskRank(x.first) < riskRank(y.first) : x.second > y.second; };
    std::stable_sort(order.begin(), order.end(), before);
    size_t most = 1;
    for (auto& [value, n] : order) most = std::max(most, n);
    list bars;
    for (size_t i = 0; i < order.size() && i < kMost; ++i) {
      auto& [value, n] = order[i];
      std::string_view level = value == levelText(50) ? "high" : value == levelText(25) ? "mid" : "";
      bars.emplace_back(object{{"of", of}, {"facet", facet}, {"value", value}, {"n", std::to_string(n)}, {"level", std::string(level)}, {"percent", fmt::format("{:.1f}", 100.0 * static_cast<double>(n) / static_cast<double>(most))}});
    }
    return object{{"name", name}, {"bars", bars}, {"left", order.size() > kMost ? data(fmt::format("and {} more", order.size() - kMost)) : data(false)}};
  }

  list charts() {
    std::map<std::string, size_t> risks, families, findingFolders, kinds;
    for (const Finding* f : shown_) {
      ++risks[std::string(levelText(f->risk.value()))];
      ++families[familyOf(*f)];
      ++findingFolders[folders_.of(p_.path(f->place))];
    }
    for (const Entity& e : a_.survey.entities)
      if (!e.harmless) ++kinds[std::string(kindText(e.toldKind()))];
    list out;
    out.emplace_back(chart("Findings by risk", "findings", "level", risks));
    out.emplace_back(chart("Findings by family", "findings", "family", families));
    out.emplace_back(chart("Findings by folder", "findings", "folder", findingFolders));
    out.emplace_back(chart("Shared state by kind", "inventory", "kind", kinds));
    return out;
  }

  list evidence(const Finding& f) {
    list out;
    std::string last;
    for (const Evidence& e : f.evidence) {
      std::string place = at(p_, e.place);
      out.emplace_back(object{{"note", e.note}, {"place", place}, {"code", place != last ? excerpt(e.place) : data(false)}});
      last = place;
    }
    return out;
  }

  static data seen(const Seen& s) {
    if (s.runs == 0) return false;
    constexpr int kMost = 50;  // squares
    list runs;
    for (int run = 0; run < std::min(s.runs, kMost); ++run) runs.emplace_back(object{{"hit", run * s.runs < s.happened * std::min(s.runs, kMost)}});
    return object{{"runs", runs}, {"text", seenText(s)}};
  }

  std::string termsOf(const Finding& f) const {
    return fmt::format("Risk {} = {} (how bad) × {} (how sure) × {:.2f} (reach: {}).", f.risk.value(), f.risk.bad, f.risk.sure, f.risk.reach, counted(f.risk.sites, "site", "sites"));
  }
  std::string moveOf(const Finding& f) const { return moveText(infoOf(f.check), &p_.guarantees(f.place.file)); }

  void addDetails(const Finding& f, const std::string& anchor, object& row) {
    std::string drawing = findingDrawing(p_, f);
    row["plain"] = false;
    row["anchor"] = anchor;
    row["drawing"] = drawing.empty() ? data(false) : data(drawing);
    row["evidence"] = evidence(f);
    row["seen"] = seen(f.seen);
    row["terms"] = termsOf(f);
    row["advice"] = std::string(adviceText(f.advice));
    row["move"] = moveOf(f);
    row["for"] = listOf(f.reasonsFor);
    row["against"] = listOf(f.reasonsAgainst);
  }

  // The same as one text: a browser takes long for many small parts.
  std::string plainDetails(const Finding& f) const {
    std::string out;
    size_t number = 0;
    for (const Evidence& e : f.evidence) out += fmt::format("{}. {} {}\n", ++number, e.note, at(p_, e.place));
    if (f.seen.runs > 0) out += seenText(f.seen) + "\n";
    out += fmt::format("How sure: {}. {}\nAdvice: {}. {}\n", surenessText(f.sureness), termsOf(f), adviceText(f.advice), moveOf(f));
    for (const std::string& reason : f.reasonsFor) out += "+ " + reason + "\n";
    for (const std::string& reason : f.reasonsAgainst) out += "- " + reason + "\n";
    return out;
  }

  void findings(object& page) {
    list out;
    std::set<std::string> anchors;
    for (const Finding* f : shown_) {
      int risk = f->risk.value();
      std::string anchor = "finding-" + f->fingerprint;
      for (size_t n = 2; !anchors.insert(anchor).second; ++n) anchor = fmt::format("finding-{}-{}", f->fingerprint, n);
      object row{{"anchor", anchor}, {"open", out.size() < 2}, {"risk", std::to_string(risk)}, {"level", std::string(levelOf(risk))}, {"levelText", std::string(levelText(risk))}, {"family", familyOf(*f)}, {"check", f->check},
                 {"sure", std::string(surenessText(f->sureness))}, {"folder", folders_.of(p_.path(f->place))}, {"subject", f->subject}, {"place", at(p_, f->place)}, {"message", f->message}};
      if (out.size() < o_.detailed) addDetails(*f, anchor, row);
      else row["plain"] = plainDetails(*f);
      out.emplace_back(std::move(row));
    }
    page["codeLeftOut"] = o_.detailed < shown_.size();
    page["codeShown"] = std::to_string(o_.detailed);
    page["findings"] = out;
  }

  data inventoryRow(const Entity& e, const Judgement& j) {
    constexpr size_t kPoints = 2;
    std::vector<std::string> points;
    for (size_t d = 0; d < e.accessPoints.size() && d < kPoints; ++d) points.emplace_back(e.accessPoints[d].name);
    std::string more = e.accessPoints.size() > kPoints ? fmt::format("and {} more", e.accessPoints.size() - kPoints) : points.empty() ? "-" : "";
    return object{{"kind", std::string(kindText(e.toldKind()))}, {"name", e.id}, {"place", at(p_, e.place)}, {"creation", std::string(creationText(e.creation.time))},
                  {"guard", e.creation.time == CreationTime::Elsewhere ? "-" : std::string(guardText(e.creation.guard))}, {"language", std::string(p_.language(e.place.file).name)}, {"enforced", e.enforced < 0 ? "-" : e.enforced ? "yes" : "no"},
                  {"accessPoints", listOf(points)}, {"morePoints", more}, {"sites", std::to_string(e.consumers.size())}, {"advice", std::string(adviceText(j.advice))}, {"why", j.reasonsFor.empty() ? "" : j.reasonsFor.front()}, {"folder", folders_.of(p_.path(e.place))}};
  }

  void inventory(object& page) {
    list rows, harmless;
    for (size_t i = 0; i < a_.survey.entities.size(); ++i) {
      const Entity& e = a_.survey.entities[i];
      if (e.harmless) harmless.emplace_back(object{{"name", e.id}, {"place", at(p_, e.place)}, {"because", e.harmlessBecause}});
      else rows.emplace_back(inventoryRow(e, a_.assessment.judgements[i]));
    }
    page["inventory"] = rows;
    page["harmlessCount"] = harmless.empty() ? data(false) : data(std::to_string(harmless.size()));
    page["harmless"] = harmless;
  }

  list figures() {
    std::vector<size_t> order;
    std::set<size_t> seen;
    for (const Finding* f : shown_)
      if (f->entity != SIZE_MAX && seen.insert(f->entity).second) order.push_back(f->entity);
    // Those with the most users first: a figure of one arrow tells little.
    std::stable_sort(order.begin(), order.end(), [&](size_t x, size_t y) { return a_.survey.entities[x].consumers.size() > a_.survey.entities[y].consumers.size(); });
    list out;
    for (size_t i : order) {
      if (out.size() == o_.figures) break;
      if (reachOf(a_, i).units.empty()) continue;
      auto svg = renderDot(reachDot(a_, i, false), "svg");
      if (!svg) continue;
      size_t from = svg->find("<svg");
      out.emplace_back(object{{"name", a_.survey.entities[i].shown}, {"svg", from == std::string::npos ? *svg : svg->substr(from)}});
    }
    return out;
  }

  static data step(const StepRecord& s) {
    list differences, patch;
    for (const Difference& d : s.differences) differences.emplace_back(object{{"what", d.what + " " + d.name}, {"before", d.before}, {"after", d.after}, {"detail", d.detail}});
    for (const std::string& line : splitLines(s.patch)) {
      const char* css = line.rfind("@@", 0) == 0 || line.rfind("diff", 0) == 0 || line.rfind("index", 0) == 0 ? "hunk" : !line.empty() && line[0] == '+' ? "add" : !line.empty() && line[0] == '-' ? "del" : "";
      patch.emplace_back(object{{"css", css}, {"text", line}});
    }
    std::string seconds = s.buildSeconds + s.testSeconds > 0 ? fmt::format(" (build {:.1f} s, tests {:.1f} s)", s.buildSeconds, s.testSeconds) : "";
    return object{{"kind", std::string(stepKindText(s.step.kind))}, {"number", std::to_string(s.number)}, {"title", s.step.title}, {"css", s.kept ? "kept" : "back"}, {"state", s.kept ? "kept" : "taken back"},
                  {"outcome", s.outcome + seconds}, {"differences", differences}, {"patch", patch}};
  }

  static data rework(const ReworkResult& r) {
    size_t kept = 0;
    for (const StepRecord& s : r.steps) kept += s.kept;
    std::string baseline = r.baseline.runs ? fmt::format(", against a baseline of {} runs with {}", r.baseline.runs, counted(r.baseline.observation.tests.size(), "test", "tests")) : "";
    list costs, measures, steps, byHand;
    for (const Cost& c : r.costs) {
      std::vector<std::string> numbers;
      for (auto n : {c.classesChanged, c.classesPassing, c.depth, c.callSites, c.creationSites, c.signatures, c.files, c.tests, c.byHand}) numbers.push_back(std::to_string(n));
      costs.emplace_back(object{{"way", c.way}, {"note", c.note}, {"numbers", listOf(numbers)}});
    }
    for (auto& [name, value] : r.before) {
      auto after = r.after.find(name);
      measures.emplace_back(object{{"name", name}, {"before", fmt::format("{}", value)}, {"after", after == r.after.end() ? "-" : std::to_string(after->second)}});
    }
    for (const StepRecord& s : r.steps) steps.emplace_back(step(s));
    for (const ByHand& b : r.byHand) byHand.emplace_back(object{{"place", b.file + ":" + std::to_string(b.line)}, {"reason", b.reason}});
    return object{{"entity", r.entity},
                  {"lead", fmt::format("Move: {}. {} of {} kept; {}. Each step was built and tested by itself{}.", r.move, kept, counted(r.steps.size(), "step", "steps"), r.retired ? "the accessor is gone" : "the accessor is still there", baseline)},
                  {"costs", costs}, {"measures", measures}, {"gone", listOf(r.findingsGone)}, {"come", listOf(r.findingsCome)}, {"steps", steps}, {"byHandCount", !byHand.empty()}, {"byHand", byHand}};
  }

  void notes(object& page) {
    std::set<std::string_view> used;
    for (const Finding& f : a_.assessment.findings) used.insert(f.check);
    list known, advices, accepted, unread, problems;
    for (const Check& c : checks())
      if (used.count(c.info.id))
        known.emplace_back(object{{"id", std::string(c.info.id)}, {"bad", fmt::format("{}", c.info.bad)}, {"what", std::string(c.info.what)}, {"why", std::string(c.info.why)}, {"keepWhen", std::string(c.info.keepWhen)}});
    for (Advice advice : {Advice::Keep, Advice::SafeInit, Advice::Enforce, Advice::Inject, Advice::Wrap, Advice::MakeLocal, Advice::Synchronize, Advice::Unregister, Advice::InjectCollaborator, Advice::Own, Advice::ByHand})
      advices.emplace_back(object{{"name", std::string(adviceText(advice))}, {"meaning", std::string(adviceMeaning(advice))}});
    for (const Finding& f : a_.assessment.findings)
      if (!f.acceptedBecause.empty()) accepted.emplace_back(object{{"check", f.check}, {"subject", f.subject}, {"because", f.acceptedBecause}});
    for (const UnreadFile& file : a_.unread) unread.emplace_back(object{{"place", file.path + ":" + std::to_string(file.line)}, {"bytes", std::to_string(file.bytes)}, {"text", file.text}});
    for (const Error& e : a_.problems) problems.emplace_back(e.line());
    page["checks"] = known;
    page["advices"] = advices;
    page["acceptedCount"] = !accepted.empty();
    page["accepted"] = accepted;
    page["unreadCount"] = !unread.empty();
    page["unread"] = unread;
    page["problemCount"] = !problems.empty();
    page["problems"] = problems;
  }

  const Analysis& a_;
  const Program& p_;
  const HtmlOptions& o_;
  Folders folders_;
  std::vector<const Finding*> shown_;
  std::map<FileIndex, std::vector<std::string>> lines_;
};

}  // namespace

std::string htmlReport(const Analysis& analysis, const HtmlOptions& options) { return Page(analysis, options).run(); }

}  // namespace elmcart

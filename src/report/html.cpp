#include "report/html.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "base/text.h"
#include "report/figure.h"
#include "source/walk.h"

namespace elmcart {
namespace {

std::string escaped(std::string_view text) {
  std::string out;
  for (char c : text) {
    switch (c) {
      case '&': out += "&amp;"; break;
      case '<': out += "&lt;"; break;
      case '>': out += "&gt;"; break;
      case '"': out += "&quot;"; break;
      default: out += c;
    }
  }
  return out;
}

constexpr std::string_view kStyle = R"css(
:root { --ink:#1d2830; --soft:#5b6b7a; --line:#d9e0e5; --paper:#fff; --wash:#f4f7f9; --red:#b53a20; --amber:#a86a00; --blue:#2a6f97; --green:#2e7d4f; }
* { box-sizing:border-box; }
body { margin:0; font:15px/1.5 "DejaVu Sans",system-ui,sans-serif; color:var(--ink); background:var(--wash); }
header { background:#17323f; color:#fff; padding:26px 40px 22px; }
header h1 { margin:0 0 4px; font-size:26px; font-weight:600; }
header p { margin:0; color:#bcd0da; }
nav { position:sticky; top:0; background:#fff; border-bottom:1px solid var(--line); padding:8px 40px; z-index:2; }
nav a { margin-right:22px; color:var(--blue); text-decoration:none; font-weight:600; }
main { max-width:1180px; margin:0 auto; padding:20px 40px 60px; }
section { background:var(--paper); border:1px solid var(--line); border-radius:8px; padding:20px 26px; margin:18px 0; scroll-margin-top:56px; }
h2 { margin:0 0 6px; font-size:20px; }
h3 { margin:18px 0 6px; font-size:16px; }
p.lead { margin:0 0 14px; color:var(--soft); }
.cards { display:flex; gap:14px; flex-wrap:wrap; margin-top:18px; }
.card { background:#20485a; border-radius:8px; padding:10px 18px; min-width:120px; }
.card b { display:block; font-size:24px; font-weight:600; }
.card span { color:#bcd0da; font-size:13px; }
table { border-collapse:collapse; width:100%; font-size:13.5px; }
#inventory td:nth-child(2), #inventory td:nth-child(6) { overflow-wrap:anywhere; min-width:190px; }
th { text-align:left; color:var(--soft); font-weight:600; border-bottom:2px solid var(--line); padding:6px 8px; }
td { border-bottom:1px solid var(--line); padding:6px 8px; vertical-align:top; }
td.n { text-align:right; font-variant-numeric:tabular-nums; }
code,pre { font-family:"DejaVu Sans Mono",monospace; font-size:12.5px; }
.place { color:var(--soft); font-family:"DejaVu Sans Mono",monospace; font-size:12px; overflow-wrap:anywhere; }
.risk { display:inline-block; min-width:34px; text-align:center; border-radius:5px; color:#fff; font-weight:700; padding:1px 6px; font-variant-numeric:tabular-nums; }
.high { background:var(--red); } .mid { background:var(--amber); } .low { background:var(--blue); }
.pill { display:inline-block; border:1px solid var(--line); border-radius:10px; padding:0 8px; font-size:12px; color:var(--soft); background:var(--wash); white-space:nowrap; }
details.finding { border:1px solid var(--line); border-radius:7px; margin:10px 0; padding:0 14px 0 30px; }
details.finding[open] { padding-bottom:12px; }
details.finding > summary { cursor:pointer; padding:10px 0; list-style-position:outside; }
details.finding > summary b { margin:0 8px; }
.message { margin:4px 0 10px; }
.seen { margin:6px 0; font-weight:600; }
.seen .runs i { display:inline-block; width:8px; height:12px; margin-right:2px; background:var(--line); }
.seen .runs i.hit { background:var(--red); }
ol.evidence { margin:6px 0 6px; padding-left:24px; }
ol.evidence li { margin:7px 0; }
ol.evidence li.lane1, ol.evidence li.lane2 { width:calc(50% - 34px); padding:2px 10px; border-left:3px solid var(--blue); }
ol.evidence li.lane2 { margin-left:50%; border-left-color:var(--amber); }
ol.evidence li .who { font-size:12px; color:var(--soft); }
pre.code { background:var(--wash); border:1px solid var(--line); border-radius:5px; padding:6px 0; margin:4px 0 2px; overflow-x:auto; }
pre.code span { display:block; padding:0 12px; }
pre.code .hit { background:#fde8df; }
pre.code i { color:#93a2ae; font-style:normal; display:inline-block; width:44px; user-select:none; }
.reasons { margin:6px 0 0; padding-left:18px; }
.pro::marker { content:"+ "; color:var(--green); } .con::marker { content:"- "; color:var(--red); }
.figure { overflow-x:auto; border:1px solid var(--line); border-radius:6px; padding:10px; margin:8px 0 16px; text-align:center; }
.figure svg { max-width:100%; height:auto; }
pre.diff { background:var(--wash); border:1px solid var(--line); border-radius:5px; padding:8px 12px; overflow-x:auto; margin:6px 0 12px; }
.add { color:var(--green); } .del { color:var(--red); } .hunk { color:var(--blue); }
.kept { color:var(--green); font-weight:600; } .back { color:var(--red); font-weight:600; }
footer { text-align:center; color:var(--soft); font-size:12.5px; padding-bottom:30px; }
)css";

class Page {
 public:
  Page(const Analysis& a, const HtmlOptions& o) : a_(a), p_(a.program), o_(o) {}

  std::string run() {
    head();
    findings();
    inventory();
    figures();
    for (const ReworkResult* r : o_.reworks) rework(*r);
    notes();
    out_ += "</main><footer>Made by Elm Cart. The page is complete in itself: nothing is loaded from elsewhere.</footer></body></html>\n";
    return std::move(out_);
  }

 private:
  std::string place(Place at) const { return "<span class=\"place\">" + escaped(p_.path(at)) + ":" + std::to_string(p_.line(at)) + "</span>"; }

  const std::vector<std::string>& lines(FileIndex file) {
    auto found = lines_.find(file);
    if (found == lines_.end()) {
      auto text = readWhole(p_.root + "/" + p_.files[file].path);
      found = lines_.emplace(file, text ? splitLines(*text) : std::vector<std::string>{}).first;
    }
    return found->second;
  }

  std::string excerpt(Place at, int around) {
    const std::vector<std::string>& text = lines(at.file);
    int hit = static_cast<int>(p_.line(at));
    std::string out = "<pre class=\"code\">";
    for (int n = std::max(1, hit - around); n <= hit + around && n <= static_cast<int>(text.size()); ++n) {
      std::string line = text[static_cast<size_t>(n - 1)].substr(0, 160);
      out += fmt::format("<span{}><i>{}</i>{}</span>", n == hit ? " class=\"hit\"" : "", n, escaped(line));
    }
    return out + "</pre>";
  }

  void head() {
    size_t real = 0, high = 0, keep = 0, shown = 0;
    for (size_t i = 0; i < a_.survey.entities.size(); ++i) {
      if (a_.survey.entities[i].harmless) continue;
      ++real;
      keep += a_.assessment.judgements[i].isSink && a_.assessment.judgements[i].advice == Advice::Keep;
    }
    for (const Finding& f : a_.assessment.findings) {
      if (!f.acceptedBecause.empty()) continue;
      ++shown;
      high += f.risk.value() >= 50;
    }
    out_ += "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>" + escaped(o_.title) + "</title><style>" + std::string(kStyle) + "</style></head><body>\n";
    out_ += "<header><h1>" + escaped(o_.title) + "</h1><p>What lives as long as the program and is reached without being passed in: where it is, what is risky about it, who depends on it, and how to mend it.</p><div class=\"cards\">";
    auto card = [&](size_t n, std::string_view what) { out_ += fmt::format("<div class=\"card\"><b>{}</b><span>{}</span></div>", n, what); };
    card(p_.files.size(), "files read");
    card(real, "pieces of shared state");
    card(shown, "findings");
    card(high, "of risk 50 or more");
    card(keep, "right to keep");
    out_ += "</div></header>\n<nav><a href=\"#findings\">Findings</a><a href=\"#inventory\">Inventory</a><a href=\"#reach\">Who reaches what</a>";
    if (!o_.reworks.empty()) out_ += "<a href=\"#rework\">Rework</a>";
    out_ += "<a href=\"#notes\">How to read this</a></nav><main>\n";
  }

  void findings() {
    out_ += "<section id=\"findings\"><h2>Findings, riskiest first</h2><p class=\"lead\">Each can be opened: the evidence stands in order, with the code. Risk runs from 0 to 100; what is only possible stands last.</p>\n";
    size_t n = 0;
    for (const Finding& f : a_.assessment.findings) {
      if (!f.acceptedBecause.empty()) continue;
      int risk = f.risk.value();
      out_ += fmt::format("<details class=\"finding\"{}><summary><span class=\"risk {}\">{}</span><b>{}</b><span class=\"pill\">{}</span> {}<div class=\"message\">{}</div></summary>\n", n < 2 ? " open" : "",
                          risk >= 50 ? "high" : risk >= 25 ? "mid" : "low", risk, escaped(f.subject), f.check, place(f.place), escaped(f.message));
      out_ += "<ol class=\"evidence\">";
      Place last;
      for (const Evidence& e : f.evidence) {
        // Steps of two threads at once stand side by side, in their order from above.
        std::string_view step = e.note;
        int lane = laneOf(e.note, &step);
        if (lane == 0) out_ += "<li>" + escaped(e.note) + " " + place(e.place);
        else out_ += fmt::format("<li class=\"lane{}\"><span class=\"who\">{}</span> {} {}", lane, escaped(std::string(e.note.substr(0, e.note.find(':')))), escaped(std::string(step)), place(e.place));
        if (!(e.place == last)) out_ += excerpt(e.place, 1);
        last = e.place;
        out_ += "</li>";
      }
      out_ += "</ol>";
      if (const Seen& s = f.seen; s.runs > 0) {
        // A square a run, of at most fifty.
        out_ += "<div class=\"seen\"><span class=\"runs\">";
        for (int run = 0; run < std::min(s.runs, 50); ++run) out_ += run * s.runs < s.happened * std::min(s.runs, 50) ? "<i class=\"hit\"></i>" : "<i></i>";
        out_ += "</span> " + escaped(seenText(s)) + "</div>";
      }
      out_ += fmt::format("<div>How sure: <b>{}</b>. Risk {} = {} (how bad) × {} (how sure) × {:.2f} (reach: {}).</div>", surenessText(f.sureness), risk, f.risk.bad, f.risk.sure, f.risk.reach, counted(f.risk.sites, "site", "sites"));
      out_ += fmt::format("<div>Advice: <b>{}</b>. {}</div><ul class=\"reasons\">", adviceText(f.advice), escaped(moveText(infoOf(f.check), &p_.guarantees(f.place.file))));
      for (const std::string& r : f.reasonsFor) out_ += "<li class=\"pro\">" + escaped(r) + "</li>";
      for (const std::string& r : f.reasonsAgainst) out_ += "<li class=\"con\">" + escaped(r) + "</li>";
      out_ += "</ul></details>\n";
      ++n;
    }
    if (n == 0) out_ += "<p>None.</p>";
    out_ += "</section>\n";
  }

  void inventory() {
    out_ += "<section id=\"inventory\"><h2>Inventory</h2><p class=\"lead\">Every piece of shared state that can do harm, with how it comes into being and who may get at it.</p><table><tr><th>Kind</th><th>Name</th><th>Creation</th><th>Guard</th><th>Enforced</th><th>Access points</th><th>Sites</th><th>Advice</th></tr>\n";
    size_t harmless = 0;
    for (size_t i = 0; i < a_.survey.entities.size(); ++i) {
      const Entity& e = a_.survey.entities[i];
      if (e.harmless) {
        ++harmless;
        continue;
      }
      const Judgement& j = a_.assessment.judgements[i];
      std::string accessPoints;
      for (size_t d = 0; d < e.accessPoints.size() && d < 2; ++d) accessPoints += (d ? "<br>" : "") + std::string("<code>") + escaped(e.accessPoints[d].name) + "</code>";
      if (e.accessPoints.size() > 2) accessPoints += fmt::format("<br>and {} more", e.accessPoints.size() - 2);
      out_ += fmt::format("<tr><td><span class=\"pill\">{}</span></td><td><b>{}</b><br>{}</td><td>{}</td><td>{}</td><td>{}</td><td>{}</td><td class=\"n\">{}</td><td title=\"{}\">{}</td></tr>\n", kindText(e.toldKind()), escaped(e.id),
                          place(e.place), creationText(e.creation.time), e.creation.time == CreationTime::Elsewhere ? "-" : guardText(e.creation.guard), e.enforced < 0 ? "-" : e.enforced ? "yes" : "no", accessPoints.empty() ? "-" : accessPoints,
                          e.consumers.size(), escaped(j.reasonsFor.empty() ? "" : j.reasonsFor.front()), adviceText(j.advice));
    }
    out_ += "</table>";
    if (harmless > 0) {
      out_ += fmt::format("<details><summary>{} more can do no harm</summary><table>", harmless);
      for (const Entity& e : a_.survey.entities)
        if (e.harmless) out_ += "<tr><td>" + escaped(e.id) + "</td><td>" + place(e.place) + "</td><td>" + escaped(e.harmlessBecause) + "</td></tr>";
      out_ += "</table></details>";
    }
    out_ += "</section>\n";
  }

  void figures() {
    out_ += "<section id=\"reach\"><h2>Who reaches what</h2><p class=\"lead\">Solid arrows reach the object itself (red where they change it), dashed ones call those that do. Shaded boxes depend on it directly.</p>\n";
    std::vector<size_t> order;
    std::set<size_t> seen;
    for (const Finding& f : a_.assessment.findings)
      if (f.entity != SIZE_MAX && f.acceptedBecause.empty() && seen.insert(f.entity).second) order.push_back(f.entity);
    // Those with the most users first: a figure of one arrow tells little.
    std::stable_sort(order.begin(), order.end(), [&](size_t x, size_t y) { return a_.survey.entities[x].consumers.size() > a_.survey.entities[y].consumers.size(); });
    size_t drawn = 0;
    for (size_t i : order) {
      if (drawn == o_.figures) break;
      if (reachOf(a_, i).units.empty()) continue;
      auto svg = renderDot(reachDot(a_, i, false), "svg");
      if (!svg) continue;
      ++drawn;
      size_t from = svg->find("<svg");
      out_ += "<h3>" + escaped(a_.survey.entities[i].shown) + "</h3><div class=\"figure\">" + (from == std::string::npos ? *svg : svg->substr(from)) + "</div>\n";
    }
    if (drawn == 0) out_ += "<p>Nothing to draw.</p>";
    out_ += "</section>\n";
  }

  void rework(const ReworkResult& r) {
    out_ += "<section id=\"rework\"><h2>Rework of " + escaped(r.entity) + "</h2>";
    size_t kept = 0;
    for (const StepRecord& s : r.steps) kept += s.kept;
    out_ += fmt::format("<p class=\"lead\">Move: {}. {} of {} kept; {}. Each step was built and tested by itself{}.</p>", r.move, kept, counted(r.steps.size(), "step", "steps"), r.retired ? "the accessor is gone" : "the accessor is still there",
                        r.baseline.runs ? fmt::format(", against a baseline of {} runs with {}", r.baseline.runs, counted(r.baseline.observation.tests.size(), "test", "tests")) : "");
    out_ += "<h3>What it costs, beside the other ways</h3><table><tr><th>Way</th><th>Changed</th><th>Pass on</th><th>Depth</th><th>Calls</th><th>Creations</th><th>Signatures</th><th>Files</th><th>Tests</th><th>By hand</th></tr>";
    for (const Cost& c : r.costs)
      out_ += fmt::format("<tr><td><b>{}</b><br>{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td></tr>", c.way,
                          escaped(c.note), c.classesChanged, c.classesPassing, c.depth, c.callSites, c.creationSites, c.signatures, c.files, c.tests, c.byHand);
    out_ += "</table><h3>Before and after</h3><table><tr><th></th><th>Before</th><th>After</th></tr>";
    for (auto& [name, value] : r.before) {
      auto after = r.after.find(name);
      out_ += fmt::format("<tr><td>{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td></tr>", name, value, after == r.after.end() ? "-" : std::to_string(after->second));
    }
    out_ += "</table>";
    for (const std::string& id : r.findingsGone) out_ += "<div><span class=\"kept\">gone</span> " + escaped(id) + "</div>";
    for (const std::string& id : r.findingsCome) out_ += "<div><span class=\"back\">new</span> " + escaped(id) + "</div>";
    out_ += "<h3>Steps</h3>";
    for (const StepRecord& s : r.steps) {
      out_ += fmt::format("<details class=\"finding\"><summary><span class=\"pill\">{}</span><b>{}</b>{}<div class=\"message\"><span class=\"{}\">{}</span> {}{}</div></summary>", stepKindText(s.step.kind), s.number, escaped(s.step.title),
                          s.kept ? "kept" : "back", s.kept ? "kept" : "taken back", escaped(s.outcome),
                          s.buildSeconds + s.testSeconds > 0 ? fmt::format(" (build {:.1f} s, tests {:.1f} s)", s.buildSeconds, s.testSeconds) : "");
      for (const Difference& d : s.differences) out_ += "<div><b>" + escaped(d.what + " " + d.name) + "</b>: " + escaped(d.before) + " → " + escaped(d.after) + "<pre class=\"diff\">" + escaped(d.detail) + "</pre></div>";
      out_ += "<pre class=\"diff\">";
      for (const std::string& line : splitLines(s.patch)) {
        const char* css = line.rfind("@@", 0) == 0 || line.rfind("diff", 0) == 0 || line.rfind("index", 0) == 0 ? "hunk" : !line.empty() && line[0] == '+' ? "add" : !line.empty() && line[0] == '-' ? "del" : "";
        out_ += fmt::format("<span class=\"{}\">{}</span>\n", css, escaped(line));
      }
      out_ += "</pre></details>";
    }
    if (!r.byHand.empty()) {
      out_ += "<h3>By hand</h3><ul>";
      for (const ByHand& b : r.byHand) out_ += "<li><span class=\"place\">" + escaped(b.file) + ":" + std::to_string(b.line) + "</span> " + escaped(b.reason) + "</li>";
      out_ += "</ul>";
    }
    out_ += "</section>\n";
  }

  void notes() {
    out_ += "<section id=\"notes\"><h2>How to read this</h2><p>Risk = how bad × how sure × reach. How bad is fixed for a check; how sure is 1 when certain, 0.8 when likely, 0.25 when possible; reach grows from 0.5 to 1 with the number of sites outside tests.</p><table><tr><th>Check</th><th>Bad</th><th>What it means</th><th>When to keep it</th></tr>";
    std::set<std::string_view> used;
    for (const Finding& f : a_.assessment.findings) used.insert(f.check);
    for (const Check& c : checks())
      if (used.count(c.info.id)) out_ += fmt::format("<tr><td><code>{}</code></td><td class=\"n\">{}</td><td>{} {}</td><td>{}</td></tr>", c.info.id, c.info.bad, escaped(c.info.what), escaped(c.info.why), escaped(c.info.keepWhen));
    out_ += "</table><h3>Advice</h3><table>";
    for (Advice advice : {Advice::Keep, Advice::SafeInit, Advice::Enforce, Advice::Inject, Advice::Wrap, Advice::MakeLocal, Advice::Synchronize, Advice::Unregister, Advice::InjectCollaborator, Advice::Own})
      out_ += fmt::format("<tr><td><b>{}</b></td><td>{}</td></tr>", adviceText(advice), adviceMeaning(advice));
    out_ += "</table>";
    size_t accepted = 0;
    for (const Finding& f : a_.assessment.findings) accepted += !f.acceptedBecause.empty();
    if (accepted > 0) {
      out_ += "<h3>Accepted, with a reason</h3><ul>";
      for (const Finding& f : a_.assessment.findings)
        if (!f.acceptedBecause.empty()) out_ += "<li><code>" + escaped(f.check) + "</code> " + escaped(f.subject) + ": " + escaped(f.acceptedBecause) + "</li>";
      out_ += "</ul>";
    }
    if (!a_.unread.empty()) {
      out_ += "<h3>Files of which a part could not be read</h3><table><tr><th>Place</th><th>Bytes</th><th>From this line on</th></tr>";
      for (const UnreadFile& file : a_.unread) out_ += fmt::format("<tr><td><span class=\"place\">{}:{}</span></td><td class=\"n\">{}</td><td><code>{}</code></td></tr>", escaped(file.path), file.line, file.bytes, escaped(file.text));
      out_ += "</table>";
    }
    if (!a_.problems.empty()) {
      out_ += "<h3>Files that could not be used</h3><ul>";
      for (const Error& e : a_.problems) out_ += "<li>" + escaped(e.line()) + "</li>";
      out_ += "</ul>";
    }
    out_ += "</section>\n";
  }

  const Analysis& a_;
  const Program& p_;
  const HtmlOptions& o_;
  std::map<FileIndex, std::vector<std::string>> lines_;
  std::string out_;
};

}  // namespace

std::string htmlReport(const Analysis& analysis, const HtmlOptions& options) { return Page(analysis, options).run(); }

}  // namespace elmcart

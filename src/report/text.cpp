#include "report/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "assess/examples.h"
#include "assess/excerpts.h"
#include "base/text.h"
#include "report/reach.h"

namespace elmcart {
namespace {

// How many columns a UTF-8 text takes: every text of ours is made of single-width characters.
size_t columns(std::string_view text) {
  size_t count = 0;
  for (unsigned char c : text) count += (c & 0xC0) != 0x80;
  return count;
}

// The end of a name or path tells more than its beginning.
std::string cut(const std::string& text, size_t width) {
  size_t total = columns(text);
  if (total <= width) return text;
  size_t skip = total - width + 1, at = 0;
  while (at < text.size() && skip > 0) {
    ++at;
    while (at < text.size() && (static_cast<unsigned char>(text[at]) & 0xC0) == 0x80) ++at;
    --skip;
  }
  return "…" + text.substr(at);
}

std::string paint(const TextStyle& style, const char* code, std::string_view text) {
  return style.colour ? fmt::format("\x1b[{}m{}\x1b[0m", code, text) : std::string(text);
}
std::string strong(const TextStyle& style, std::string_view text) { return paint(style, "1", text); }
std::string faint(const TextStyle& style, std::string_view text) { return paint(style, "2", text); }
std::string riskPaint(const TextStyle& style, int risk, std::string_view text) { return paint(style, risk >= 50 ? "1;31" : risk >= 25 ? "33" : "36", text); }

std::string at(const Program& p, Place place) { return p.path(place) + ":" + std::to_string(p.line(place)); }

size_t sitesOutside(const Entity& e) { return e.consumers.size(); }

}  // namespace

std::string wrapped(std::string_view text, size_t width, size_t indent) {
  std::string out;
  size_t column = indent;
  while (!text.empty()) {
    size_t space = text.find(' ');
    std::string_view word = text.substr(0, space);
    if (column > indent && column + 1 + columns(word) > width) {
      out += "\n" + std::string(indent, ' ');
      column = indent;
    } else if (column > indent) {
      out += ' ';
      ++column;
    }
    out += word;
    column += columns(word);
    text = space == std::string_view::npos ? std::string_view{} : text.substr(space + 1);
  }
  return out;
}

std::string tableText(const std::vector<std::vector<std::string>>& rows, const TextStyle& style, const std::vector<size_t>& flexible) {
  if (rows.empty()) return "";
  std::vector<size_t> widths(rows[0].size());
  for (const auto& row : rows)
    for (size_t i = 0; i < row.size(); ++i) widths[i] = std::max(widths[i], columns(row[i]));
  size_t total = 2 * (widths.size() - 1);
  for (size_t w : widths) total += w;
  while (style.cut && total > static_cast<size_t>(style.width)) {
    auto widest = std::max_element(flexible.begin(), flexible.end(), [&](size_t x, size_t y) { return widths[x] < widths[y]; });
    if (widest == flexible.end() || widths[*widest] <= 14) break;
    --widths[*widest];
    --total;
  }
  std::string out;
  for (size_t r = 0; r < rows.size(); ++r) {
    std::string line;
    for (size_t i = 0; i < rows[r].size(); ++i) {
      std::string cell = cut(rows[r][i], widths[i]);
      line += cell;
      if (i + 1 < rows[r].size()) line += std::string(widths[i] - columns(cell) + 2, ' ');
    }
    out += (r == 0 ? strong(style, line) : line) + "\n";
  }
  return out;
}

std::string surveyText(const Analysis& a, bool all, const TextStyle& style) {
  std::vector<std::vector<std::string>> rows = {{"KIND", "NAME", "PLACE", "CREATION", "GUARD", "ONE ONLY", "DOORS", "SITES"}};
  std::vector<std::string> harmless;
  std::map<std::string_view, size_t> kinds;
  std::set<std::string_view> languagesSeen;
  for (const Language* language : a.program.languageOf) languagesSeen.insert(language->name);
  bool mixed = languagesSeen.size() > 1;
  if (mixed) rows.front().insert(rows.front().begin() + 1, "LANGUAGE");
  for (const Entity& e : a.survey.entities) {
    if (e.harmless) {
      harmless.push_back(fmt::format("  {:<28} {:<36} {}", e.name, at(a.program, e.place), e.harmlessBecause));
      continue;
    }
    ++kinds[kindText(e.kind)];
    bool creation = e.type != kNone || e.kind == EntityKind::FunctionStatic;
    rows.push_back({std::string(kindText(e.kind)), e.id, at(a.program, e.place), creation ? std::string(creationText(e.creation.time)) : "-",
                    e.creation.time == CreationTime::None ? "-" : std::string(guardText(e.creation.guard)), e.enforced < 0 ? "-" : e.enforced ? "yes" : "no",
                    std::to_string(e.doors.size()), std::to_string(sitesOutside(e))});
    if (mixed) rows.back().insert(rows.back().begin() + 1, std::string(a.program.language(e.place.file).name));
  }
  std::string out;
  if (rows.size() > 1) out += tableText(rows, style, mixed ? std::vector<size_t>{2, 3} : std::vector<size_t>{1, 2}) + "\n";
  std::vector<std::string> counts;
  for (auto& [kind, count] : kinds) counts.push_back(std::to_string(count) + " " + std::string(kind));
  std::string summary = counts.empty() ? "No shared state found" : counted(rows.size() - 1, "piece", "pieces") + " of shared state: " + joinWith(counts, ", ");
  summary += fmt::format(", in {}.", counted(a.program.files.size(), "file", "files") + (mixed ? " of " + counted(languagesSeen.size(), "language", "languages") : ""));
  if (!harmless.empty()) summary += fmt::format(" {} more can do no harm{}", harmless.size(), all ? ":" : " (--all lists them).");
  out += strong(style, wrapped(summary, static_cast<size_t>(style.width), 0)) + "\n";
  if (all)
    for (const std::string& line : harmless) out += line + "\n";
  if (!a.survey.managed.empty()) {
    out += "\n" + strong(style, "One by declaration, made and handed in by a container:") + "\n";
    for (const Entity& e : a.survey.managed)
      out += fmt::format("  {:<28} {:<36} {}, {}\n", e.name, at(a.program, e.place), e.doors.front().name, e.consumers.empty() ? std::string("handed to nobody here") : "handed in at " + counted(e.consumers.size(), "place", "places"));
  }
  return out;
}

std::string surveyNumbers(const Analysis& a) {
  size_t nodes = 0;
  for (const LoweredFile& file : a.program.files) nodes += file.nodes.size();
  double files = a.program.files.empty() ? 0 : 100.0 * static_cast<double>(a.unreadFiles) / static_cast<double>(a.program.files.size());
  double bytes = a.bytes == 0 ? 0 : 100.0 * static_cast<double>(a.unreadBytes) / static_cast<double>(a.bytes);
  return fmt::format(
      "read {} files, {} bytes; unread in {} files ({:.2f} %), {} bytes ({:.3f} %)\n"
      "{} nodes, {} classes, {} functions, {} uses\n"
      "time: read and parse {:.2f} s, link {:.2f} s, survey {:.2f} s, assess {:.2f} s\n",
      a.program.files.size(), a.bytes, a.unreadFiles, files, a.unreadBytes, bytes, nodes, a.program.types.size(), a.program.functions.size(), a.program.uses.size(),
      a.loadSeconds, a.linkSeconds, a.surveySeconds, a.assessSeconds);
}

namespace {

// The evidence as numbered places; steps of two threads at once stand in two columns.
std::string evidenceText(const Program& p, const Finding& f, size_t width) {
  std::string out;
  size_t number = 0, column = (std::max<size_t>(width, 100) - 44) / 2;
  bool headed = false;
  for (const Evidence& e : f.evidence) {
    std::string_view step;
    int lane = laneOf(e.note, &step);
    std::string place = fmt::format("     {:>2}. {:<30} ", ++number, at(p, e.place));
    if (lane == 0) {
      out += place + wrapped(e.note, width, 40) + "\n";
      continue;
    }
    std::string who = std::string(e.note.substr(0, e.note.find(' ')));
    if (!headed) out += fmt::format("{:<{}}{:<{}}| {}\n", "", columns(place), who + " 1", column, who + " 2");
    headed = true;
    // Each line of the step in its column.
    std::vector<std::string> lines = splitLines(wrapped(step, column - 1, 0));
    for (size_t k = 0; k < lines.size(); ++k) {
      std::string left = lane == 1 ? lines[k] : "", right = lane == 2 ? " " + lines[k] : "";
      std::string begin = k == 0 ? place : std::string(columns(place), ' ');
      out += begin + left + std::string(column > columns(left) ? column - columns(left) : 0, ' ') + "|" + right + "\n";
    }
  }
  return out;
}

}  // namespace

std::string assessText(const Analysis& a, bool withAccepted, const TextStyle& style) {
  std::string out;
  size_t shown = 0, accepted = 0;
  size_t width = static_cast<size_t>(style.width);
  for (const Finding& f : a.assessment.findings) {
    if (!f.acceptedBecause.empty()) {
      ++accepted;
      if (!withAccepted) continue;
    }
    ++shown;
    out += riskPaint(style, f.risk.value(), fmt::format("{:>3}", f.risk.value())) + "  " + strong(style, f.check) + "  " + f.subject + "  " + faint(style, at(a.program, f.place)) + "\n";
    out += "     " + wrapped(f.message, width, 5) + "\n";
    out += evidenceText(a.program, f, width);
    out += "     " + std::string(surenessText(f.sureness)) + "; advice: " + strong(style, adviceText(f.advice)) + ".\n     " + wrapped("The move: " + moveText(infoOf(f.check), &a.program.guarantees(f.place.file)), width, 5) + "\n";
    for (const std::string& reason : f.reasonsFor) out += "       + " + wrapped(reason, width, 9) + "\n";
    for (const std::string& reason : f.reasonsAgainst) out += "       - " + wrapped(reason, width, 9) + "\n";
    if (!f.acceptedBecause.empty()) out += "     accepted: " + wrapped(f.acceptedBecause, width, 15) + "\n";
    out += "\n";
  }
  out += strong(style, shown == 0 ? std::string("No findings") : counted(shown, "finding", "findings"));
  if (shown > 0) {
    size_t high = 0, middle = 0;
    for (const Finding& f : a.assessment.findings) {
      if (!withAccepted && !f.acceptedBecause.empty()) continue;
      high += f.risk.value() >= 50;
      middle += f.risk.value() >= 25 && f.risk.value() < 50;
    }
    out += fmt::format(": {} of risk 50 or more, {} from 25 to 49, {} below", high, middle, shown - high - middle);
  }
  out += ".";
  if (accepted > 0 && !withAccepted) out += fmt::format(" {} accepted with a reason (--accepted shows them).", accepted);
  out += "\n";
  if (std::vector<WorkItem> work = orderOfWork(a.assessment); work.size() > 2) {
    out += strong(style, "Fix these first:") + "\n";
    for (size_t i = 0; i < work.size() && i < 5; ++i) out += fmt::format("  {}. {:<24} {:<7} {}\n", i + 1, work[i].subject, adviceText(work[i].advice), wrapped(work[i].why, width, 38));
  }
  std::vector<std::string> keep;
  size_t quiet = 0;
  for (size_t i = 0; i < a.survey.entities.size(); ++i) {
    const Judgement& j = a.assessment.judgements[i];
    if (a.survey.entities[i].harmless || j.advice != Advice::Keep || j.reasonsFor.empty()) continue;
    if (j.isSink) keep.push_back(a.survey.entities[i].id + " (" + j.reasonsFor.front() + ")");
    else ++quiet;
  }
  if (!keep.empty()) out += wrapped("Right to keep: " + joinWith(keep, "; ") + ".", width, 2) + "\n";
  if (quiet > 0) out += counted(quiet, "more piece of shared state has", "more pieces of shared state have") + " no finding.\n";
  for (const StaleAcceptance& s : a.assessment.stale) out += fmt::format("acceptance of {} at {}: {}\n", s.check, s.where, s.reason);
  return out;
}

std::string reachText(const Analysis& a, size_t entity, const TextStyle& style) {
  const Entity& e = a.survey.entities[entity];
  const Program& p = a.program;
  Reach reach = reachOf(a, entity);
  std::string out = strong(style, e.id) + "  " + std::string(kindText(e.kind)) + "  " + faint(style, at(p, e.place)) + "\n";
  std::vector<std::string> doors;
  for (const Door& door : e.doors) doors.push_back(door.name);
  if (!doors.empty()) out += "doors: " + wrapped(joinWith(doors, ", "), static_cast<size_t>(style.width), 7) + "\n";
  out += "\n";
  for (const ReachUnit& unit : reach.units) {
    if (unit.distance > 0) continue;
    out += strong(style, unit.name) + faint(style, unit.tests ? "  (tests)" : "") + "  " + counted(unit.sites, "site", "sites") + "\n";
    for (size_t n = 0; n < unit.functions.size(); ++n) {
      const ReachFunction& fn = unit.functions[n];
      bool last = n + 1 == unit.functions.size();
      out += (last ? "└─ " : "├─ ") + fn.name + "  " + faint(style, at(p, fn.place)) + "  " + joinWith(fn.what, ", ") + "\n";
      std::string rail = last ? "     ← " : "│    ← ";
      for (size_t i = 0; i < fn.callers.size() && i < 5; ++i) out += rail + fn.callers[i] + "\n";
      if (fn.callers.size() > 5) out += rail + "… " + std::to_string(fn.callers.size() - 5) + " more\n";
      if (fn.testCallers > 0) out += rail + faint(style, counted(fn.testCallers, "test", "tests")) + "\n";
    }
  }
  std::vector<std::string> indirect;
  for (const ReachUnit& unit : reach.units)
    if (unit.distance > 0 && !unit.tests) indirect.push_back(unit.name);
  out += "\n" + fmt::format("{} directly, {} through others; {} in all.", counted(reach.direct, "class or file reaches it", "classes or files reach it"), indirect.size(), counted(e.consumers.size(), "site", "sites")) + "\n";
  if (!indirect.empty()) out += "through others: " + wrapped(joinWith(indirect, ", "), static_cast<size_t>(style.width), 16) + "\n";
  return out;
}

namespace {

// A sample's lines, indented; of several files each under its name.
std::string sampleText(const CheckInfo& info, std::string_view language, bool failing, const TextStyle& style) {
  std::string out;
  for (const Example& e : examples()) {
    if (e.check != info.id || e.language != language || e.failing != failing) continue;
    if (!e.file.empty()) out += "  " + faint(style, e.file) + "\n";
    for (const std::string& line : splitLines(e.text)) out += trim(line).empty() ? "\n" : "  " + line + "\n";
  }
  return out;
}

// In the order of the table of languages.
std::vector<std::string_view> exampleLanguages(const CheckInfo& info) {
  std::vector<std::string_view> out;
  for (const Language& language : languages())
    for (const Example& e : examples())
      if (e.check == info.id && e.language == language.id && (out.empty() || out.back() != language.id)) out.push_back(language.id);
  return out;
}

}  // namespace

std::string explainCheckText(const CheckInfo& info, std::string_view language, const TextStyle& style) {
  size_t width = static_cast<size_t>(style.width);
  std::string out = strong(style, info.id) + "  " + std::string(info.title) + fmt::format("  (bad: {} of 100)\n\n", info.bad);
  auto part = [&](std::string_view head, std::string_view text) { out += fmt::format("{:<14}", head) + wrapped(text, width, 14) + "\n"; };
  part("what", info.what);
  part("why", info.why);
  part("when to keep", info.keepWhen);
  part("the move", moveText(info));
  part("risk", "bad x sure x reach: bad is fixed for the check; sure is 1 when certain, 0.8 when likely, 0.5 when possible; reach is 0.5 + 0.5 x min(1, log2(1 + sites) / 6).");
  part("to accept", "write `elmcart: accept " + std::string(info.id) + " because <reason>` in a comment at the place, or a row in the ledger.");
  std::vector<std::string_view> shown = exampleLanguages(info);
  if (shown.empty() && language.empty()) return out;
  if (language.empty()) language = shown.front();
  std::string_view name = languageById(language)->name;
  if (std::find(shown.begin(), shown.end(), language) == shown.end()) {
    std::string_view why = whyNot(info, *languageById(language)->guarantees);
    std::optional<Excerpt> failing = excerptOf(info.id, language, true), sound = excerptOf(info.id, language, false);
    if (why.empty() && failing && sound) {
      for (auto& [head, excerpt] : {std::pair{"Reported", &*failing}, std::pair{"Not reported", &*sound}}) {
        out += "\n" + strong(style, fmt::format("{}, in {}", head, name)) + "\n";
        for (const std::string& line : splitLines(excerpt->text)) out += trim(line).empty() ? "\n" : "  " + line + "\n";
      }
      return out;
    }
    out += "\n" + wrapped(why.empty() ? fmt::format("There is no sample in {} yet; samples are in: {}.", name, joinWith({shown.begin(), shown.end()}, ", ")) : fmt::format("In {} the check says nothing: {}.", name, why), width, 0) + "\n";
    return out;
  }
  out += fmt::format("\n{}\n\n{}\n{}\n\n{}", strong(style, fmt::format("Reported, in {}", name)), sampleText(info, language, true, style), strong(style, fmt::format("Sound, in {}", name)), sampleText(info, language, false, style));
  std::string others;
  for (std::string_view other : shown)
    if (other != language) others += (others.empty() ? "" : ", ") + std::string(other);
  if (!others.empty()) out += "\n" + faint(style, "also shown with --language " + others) + "\n";
  return out;
}

std::string explainLanguageText(const Language& language, const TextStyle& style) {
  const Guarantees& g = *language.guarantees;
  std::string out = strong(style, language.name) + "  what it promises about shared state\n\n";
  size_t width = static_cast<size_t>(style.width);
  auto row = [&](std::string_view what, const Promise& promise) {
    out += fmt::format("{:<4}", promise.holds ? "yes" : "no") + wrapped(what, width, 4) + "\n";
    if (!promise.source.empty()) out += "    " + faint(style, wrapped(promise.source, width, 4)) + "\n";
  };
  row("threads that share memory exist", g.sharedMemoryThreads);
  row("what a function or holder makes on first use is made once, under a guard", g.guardedLocalStatic);
  row("initialisers of different files run in a defined order", g.orderedAcrossFiles);
  row("initialisers of one class or file run in the order of the text", g.textualOrder);
  row("a plain slot may be read without a lock while another thread sets it", g.plainPointerPublishes);
  row("a volatile slot may be", g.volatilePublishes);
  row("a class without constructors can be made by anyone", g.implicitConstructor);
  row("an object is copied by assigning or passing it", g.implicitCopy);
  row("any object can be cloned unless its class forbids it", g.clonesByDefault);
  row("the constructor runs again on an object that is handed out instead of a new one", g.constructorAfterFactory);
  row("objects that live as long as the program are destroyed when it ends", g.staticsDestroyedAtExit);
  if (!g.revivableBase.empty()) row("reading stored bytes back makes another object of a class with the base " + std::string(g.revivableBase) + ", unless " + std::string(g.reviveHook) + " hands out the one that is there", {true, g.revivalSource});
  if (!g.soundCreation.empty()) out += "\n" + wrapped("The form in which it creates a shared object once: " + std::string(g.soundCreation) + ".", width, 0) + "\n";
  return out;
}

std::string languagesText(const TextStyle& style) {
  std::vector<std::vector<std::string>> rows = {{"LANGUAGE", "NAME HERE", "FILES", "SCRIPTS RUN BY"}};
  for (const Language& language : languages()) {
    std::vector<std::string> extensions(language.extensions.begin(), language.extensions.end()), interpreters(language.interpreters.begin(), language.interpreters.end());
    rows.push_back({std::string(language.name), std::string(language.id), joinWith(extensions, " "), joinWith(interpreters, " ")});
  }
  return tableText(rows, style, {2}) + "\n" + wrapped("A header (.h) is Objective-C when its text says so, else C++. `elmcart explain` with a name of the second column tells what that language promises.", static_cast<size_t>(style.width), 0) + "\n";
}

std::string explainEntityText(const Analysis& a, size_t entity, const TextStyle& style) {
  const Entity& e = a.survey.entities[entity];
  const Program& p = a.program;
  size_t width = static_cast<size_t>(style.width);
  std::string out = strong(style, e.id) + "  " + std::string(kindText(e.kind)) + ": " + std::string(kindMeaning(e.kind)) + "\n" + faint(style, at(p, e.place)) + "\n\n";
  auto part = [&](std::string_view head, const std::string& text) { out += fmt::format("{:<11}", head) + wrapped(text, width, 11) + "\n"; };
  if (e.slot != kNone) part("slot", std::string(p.text(p.variables[e.slot].qualified)) + " (" + p.typeText(p.variables[e.slot].type) + ")");
  std::vector<std::string> doors;
  for (const Door& door : e.doors) doors.push_back(door.name + " at " + at(p, door.place));
  part("doors", doors.empty() ? "none" : joinWith(doors, "; "));
  std::string creation(creationText(e.creation.time));
  if (e.creation.place.known()) creation += ", at " + at(p, e.creation.place) + ", guard: " + std::string(guardText(e.creation.guard));
  part("creation", creation);
  for (const Weight& w : e.creation.weights) part("", "it " + w.what + " at " + at(p, w.place));
  if (e.enforced >= 0) part("one only", e.enforced ? "yes" : "no: " + joinWith(e.openings, ", "));
  std::vector<std::string> state;
  for (const StateField& f : e.state)
    state.push_back(std::string(p.text(p.variables[f.variable].name)) + (f.changes ? f.lock.known() ? " (changes, under " + lockText(p, f.lock) + ")" : " (changes)" : " (fixed)"));
  if (!state.empty()) part("state", joinWith(state, ", "));
  part("end", e.end);
  part("reached", counted(e.consumers.size(), "site", "sites"));
  if (e.harmless) part("harmless", e.harmlessBecause);
  if (!a.assessment.judgements.empty()) {
    const Judgement& j = a.assessment.judgements[entity];
    part("advice", std::string(adviceText(j.advice)) + ": " + std::string(adviceMeaning(j.advice)));
    for (const std::string& r : j.reasonsFor) part("", "+ " + r);
    for (const std::string& r : j.reasonsAgainst) part("", "- " + r);
  }
  bool any = false;
  for (const Finding& f : a.assessment.findings) {
    if (f.entity != entity) continue;
    if (!any) out += "\nfindings, with risk = bad x sure x reach:\n";
    any = true;
    out += fmt::format("  {:>3} = {} x {} ({}) x {:.2f} ({})  {}\n", f.risk.value(), f.risk.bad, f.risk.sure, surenessText(f.sureness), f.risk.reach, counted(f.risk.sites, "site", "sites"), f.check);
  }
  return out;
}

}  // namespace elmcart

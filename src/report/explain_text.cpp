#include <fmt/format.h>

#include <algorithm>

#include "assess/examples.h"
#include "base/text.h"
#include "report/layout.h"

namespace elmcart {
namespace {

// A sample's lines, indented; of several files each under its name.
std::string sampleText(const CheckInfo& info, std::string_view language, bool failing) {
  std::string out;
  for (const Example& e : examples()) {
    if (e.check != info.id || e.language != language || e.failing != failing) continue;
    if (!e.file.empty()) out += "  " + std::string(e.file) + ":\n";
    for (const std::string& line : splitLines(e.text)) out += trim(line).empty() ? "\n" : "  " + line + "\n";
  }
  return out;
}

std::string samplesText(const CheckInfo& info, std::string_view language, const TextStyle& style) {
  std::string_view name = languageById(language)->name;
  return fmt::format("\n{}\n\n{}\n{}\n\n{}", strong(style, fmt::format("Reported, in {}", name)), sampleText(info, language, true), strong(style, fmt::format("Sound, in {}", name)), sampleText(info, language, false));
}

// Of the languages that have a sample, the one whose code looks most like that in `language`.
std::string_view nearestExample(const std::vector<std::string_view>& shown, std::string_view language) {
  constexpr std::string_view kAlike[][4] = {
      {"cpp", "objc", "csharp", "java"}, {"objc", "cpp", "java", "csharp"}, {"java", "csharp", "kotlin", "cpp"}, {"kotlin", "java", "csharp", "swift"},
      {"csharp", "java", "kotlin", "cpp"}, {"swift", "kotlin", "java", "csharp"}, {"go", "java", "cpp", "csharp"}, {"python", "php", "javascript", "java"},
      {"php", "javascript", "python", "java"}, {"javascript", "typescript", "python", "java"}, {"typescript", "javascript", "java", "csharp"}, {"tsx", "typescript", "javascript", "java"}, {"dart", "javascript", "typescript", "java"}};
  for (const auto& row : kAlike)
    if (row[0] == language)
      for (std::string_view other : row)
        if (std::find(shown.begin(), shown.end(), other) != shown.end()) return other;
  return shown.front();
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
  std::string out = strong(style, info.id) + "  " + std::string(info.title) + fmt::format("  (how bad: {} of 100)\n\n", info.bad);
  auto part = [&](std::string_view head, std::string_view text) { out += fmt::format("{:<14}", head) + wrapped(text, width, 14) + "\n"; };
  part("what", info.what);
  part("why", info.why);
  part("when to keep", info.keepWhen);
  part("advice", moveText(info));
  part("risk", "how bad x how sure x reach: how bad is fixed for the check; how sure is 1 when certain, 0.8 when likely, 0.25 when possible; reach is 0.5 + 0.5 x min(1, log2(1 + sites) / 6).");
  part("to accept", "write `elmcart: accept " + std::string(info.id) + " because <reason>` in a comment at the place, or a row in the ledger.");
  std::vector<std::string_view> shown = exampleLanguages(info);
  if (shown.empty() && language.empty()) return out;
  if (language.empty()) language = shown.front();
  std::string_view name = languageById(language)->name;
  if (std::find(shown.begin(), shown.end(), language) == shown.end()) {
    std::string_view why = whyNot(info, *languageById(language)->guarantees);
    if (why.empty() && !shown.empty()) {
      std::string_view nearest = nearestExample(shown, language);
      out += "\n" + wrapped(fmt::format("There is no sample in {}; this one is in {}, where the same holds.", name, languageById(nearest)->name), width, 0) + "\n";
      return out + samplesText(info, nearest, style);
    }
    out += "\n" + wrapped(why.empty() ? fmt::format("There is no sample of it.") : fmt::format("The check does not apply to {}: {}.", name, why), width, 0) + "\n";
    return out;
  }
  out += samplesText(info, language, style);
  std::string others;
  for (std::string_view other : shown)
    if (other != language) others += (others.empty() ? "" : ", ") + std::string(other);
  if (!others.empty()) out += "\n" + faint(style, "also shown with --language " + others) + "\n";
  return out;
}

std::string explainLanguageText(const Language& language, const TextStyle& style) {
  const Guarantees& g = *language.guarantees;
  std::string out = strong(style, language.name) + "  what the language guarantees about shared state\n\n";
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

std::string explainEntityText(const Analysis& a, const Entity& e, const TextStyle& style) {
  // One that a container manages is in no list that findings point into.
  bool judged = !a.assessment.judgements.empty() && &e >= a.survey.entities.data() && &e < a.survey.entities.data() + a.survey.entities.size();
  size_t entity = judged ? static_cast<size_t>(&e - a.survey.entities.data()) : SIZE_MAX - 1;
  const Program& p = a.program;
  size_t width = static_cast<size_t>(style.width);
  std::string out = strong(style, e.id) + "  " + std::string(kindText(e.toldKind())) + ": " + std::string(kindMeaning(e.toldKind())) + "\n" + faint(style, at(p, e.place)) + "\n\n";
  auto part = [&](std::string_view head, const std::string& text) { out += fmt::format("{:<15}", head) + wrapped(text, width, 15) + "\n"; };
  if (e.slot != kNone) part("slot", std::string(p.text(p.variables[e.slot].qualified)) + " (" + p.typeText(p.variables[e.slot].type) + ")");
  std::vector<std::string> accessPoints;
  for (const AccessPoint& accessPoint : e.accessPoints) accessPoints.push_back(accessPoint.name + " at " + at(p, accessPoint.place));
  part("access points", accessPoints.empty() ? "none" : joinWith(accessPoints, "; "));
  std::string creation(creationText(e.creation.time));
  if (e.creation.place.known()) creation += ", at " + at(p, e.creation.place) + ", guard: " + std::string(guardText(e.creation.guard));
  part("creation", creation);
  for (const Weight& w : e.creation.weights) part("", "it " + w.what + " at " + at(p, w.place));
  if (e.enforced >= 0) part("enforced", e.enforced ? "yes" : "no: " + joinWith(e.openings, ", "));
  std::vector<std::string> state;
  for (const StateField& f : e.state)
    state.push_back(std::string(p.text(p.variables[f.variable].name)) + (f.changes ? f.lock.known() ? " (changes, under " + lockText(p, f.lock) + ")" : " (changes)" : " (fixed)"));
  if (!state.empty()) part("state", joinWith(state, ", "));
  part("end", e.end);
  part("reached", counted(e.consumers.size(), "site", "sites"));
  if (e.harmless) part("harmless", e.harmlessBecause);
  if (judged) {
    const Judgement& j = a.assessment.judgements[entity];
    part("advice", std::string(adviceText(j.advice)) + ": " + std::string(adviceMeaning(j.advice)));
    for (const std::string& r : j.reasonsFor) part("", "+ " + r);
    for (const std::string& r : j.reasonsAgainst) part("", "- " + r);
  }
  bool any = false;
  for (const Finding& f : a.assessment.findings) {
    if (f.entity != entity) continue;
    if (!any) out += "\nfindings, with risk = how bad x how sure x reach:\n";
    any = true;
    out += fmt::format("  {:>3} = {} x {} ({}) x {:.2f} ({})  {}\n", f.risk.value(), f.risk.bad, f.risk.sure, surenessText(f.sureness), f.risk.reach, counted(f.risk.sites, "site", "sites"), f.check);
    if (f.seen.runs > 0) out += "        " + wrapped(seenText(f.seen), static_cast<size_t>(style.width), 8) + "\n";
  }
  return out;
}

}  // namespace elmcart

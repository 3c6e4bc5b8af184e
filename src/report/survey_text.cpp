#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "base/text.h"
#include "report/layout.h"

namespace elmcart {
namespace {

std::vector<std::string> rowOf(const Program& p, const Entity& e, bool mixed) {
  bool creation = e.type != kNone || e.kind == EntityKind::FunctionStatic || e.kind == EntityKind::SharedInstance;
  std::vector<std::string> row = {std::string(kindText(e.toldKind())) + (e.stateless ? ", stateless" : ""), e.shown, at(p, e.place), creation ? std::string(creationText(e.creation.time)) : "-",
                                  e.creation.time == CreationTime::Elsewhere ? "-" : std::string(guardText(e.creation.guard)), e.enforced < 0 ? "-" : e.enforced ? "yes" : "no",
                                  std::to_string(e.accessPoints.size()), std::to_string(e.consumers.size())};
  if (mixed) row.insert(row.begin() + 1, std::string(p.language(e.place.file).name));
  return row;
}

std::string managedText(const Analysis& a) {
  std::string out;
  for (const Entity& e : a.survey.managed)
    out += fmt::format("  {:<28} {:<36} {}, {}\n", e.shown, at(a.program, e.place), e.accessPoints.front().name, e.consumers.empty() ? std::string("handed to nobody here") : "handed in at " + counted(e.consumers.size(), "place", "places"));
  return out;
}

}  // namespace

std::string surveyText(const Analysis& a, bool all, const TextStyle& style) {
  const Program& p = a.program;
  std::set<std::string_view> languagesSeen;
  for (const Language* language : p.languageOf) languagesSeen.insert(language->name);
  bool mixed = languagesSeen.size() > 1;
  std::map<std::string_view, size_t> kinds;
  std::vector<const Entity*> shown, harmless;
  for (const Entity& e : a.survey.entities) {
    (e.harmless ? harmless : shown).push_back(&e);
    if (!e.harmless) ++kinds[kindText(e.toldKind())];
  }
  std::vector<std::string> counts;
  for (auto& [kind, count] : kinds) counts.push_back(std::to_string(count) + " " + std::string(kind));
  std::string summary = counts.empty() ? "No shared state found" : counted(shown.size(), "piece", "pieces") + " of shared state: " + joinWith(counts, ", ");
  summary += fmt::format(", in {}.", counted(p.files.size(), "file", "files") + (mixed ? " of " + counted(languagesSeen.size(), "language", "languages") : ""));
  if (!harmless.empty()) summary += fmt::format(" {} more can do no harm{}", harmless.size(), all ? ", listed below." : " (--all lists them).");
  if (a.unreadFiles > 0) summary += fmt::format(" A part of {} could not be read (--verbose names them).", counted(a.unreadFiles, "file", "files"));
  std::string out = strong(style, wrapped(summary, static_cast<size_t>(style.width), 0)) + "\n";

  size_t left = 0;
  if (style.limit > 0 && shown.size() > style.limit) {
    left = shown.size() - style.limit;
    std::stable_sort(shown.begin(), shown.end(), [](const Entity* x, const Entity* y) { return x->consumers.size() > y->consumers.size(); });
    shown.resize(style.limit);
    out += "\n" + strong(style, fmt::format("The {} that most places reach:", shown.size())) + "\n";
  } else if (!shown.empty()) {
    out += "\n";
  }
  std::vector<std::vector<std::string>> rows = {{"KIND", "NAME", "PLACE", "CREATION", "GUARD", "ENFORCED", "ACCESS POINTS", "SITES"}};
  if (mixed) rows.front().insert(rows.front().begin() + 1, "LANGUAGE");
  for (const Entity* e : shown) rows.push_back(rowOf(p, *e, mixed));
  if (rows.size() > 1) out += tableText(rows, style, mixed ? std::vector<size_t>{2, 3} : std::vector<size_t>{1, 2});
  if (left > 0) out += faint(style, fmt::format("{} more: --all lists everything, --limit N so many; `elmcart explain NAME` tells all of one.", left)) + "\n";
  if (all && !harmless.empty()) {
    out += "\n" + strong(style, "Can do no harm:") + "\n";
    for (const Entity* e : harmless) out += fmt::format("  {:<28} {:<36} {}\n", e->shown, at(p, e->place), e->harmlessBecause);
  }
  if (!a.survey.managed.empty()) {
    out += "\n" + strong(style, "One by declaration, made and handed in by a container:");
    out += style.limit > 0 && a.survey.managed.size() > style.limit ? " " + std::to_string(a.survey.managed.size()) + " (--all lists them)\n" : "\n" + managedText(a);
  }
  return out;
}

std::string surveyNumbers(const Analysis& a) {
  size_t nodes = 0;
  for (const LoweredFile& file : a.program.files) nodes += file.nodes.size();
  double files = a.program.files.empty() ? 0 : 100.0 * static_cast<double>(a.unreadFiles) / static_cast<double>(a.program.files.size());
  double bytes = a.bytes == 0 ? 0 : 100.0 * static_cast<double>(a.unreadBytes) / static_cast<double>(a.bytes);
  std::string out = fmt::format(
      "read {} files, {} bytes; unread in {} files ({:.2f} %), {} bytes ({:.3f} %)\n"
      "{} nodes, {} classes, {} functions, {} uses\n"
      "time: read and parse {:.2f} s, link {:.2f} s, survey {:.2f} s, assess {:.2f} s\n",
      a.program.files.size(), a.bytes, a.unreadFiles, files, a.unreadBytes, bytes, nodes, a.program.types.size(), a.program.functions.size(), a.program.uses.size(),
      a.loadSeconds, a.linkSeconds, a.surveySeconds, a.assessSeconds);
  for (const UnreadFile& file : a.unread) out += fmt::format("unread: {}:{}: {}, from: {}\n", file.path, file.line, counted(file.bytes, "byte", "bytes"), file.text);
  return out;
}

}  // namespace elmcart

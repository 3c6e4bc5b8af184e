#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>

#include "base/text.h"
#include "report/layout.h"

namespace elmcart {
namespace {

// The evidence as numbered places; steps of two threads at once stand in two columns. Of a long path in the finding's own file
// the name alone is told; where another file's is long, what happens there stands on the next line.
std::string evidenceText(const Program& p, const Finding& f, size_t width) {
  auto named = [&](const Evidence& e) {
    std::string place = at(p, e.place);
    return columns(place) > 30 && e.place.known() && f.place.known() && e.place.file == f.place.file ? place.substr(place.rfind('/') + 1) : place;
  };
  // As wide as the longest place that leaves room.
  size_t widest = 30;
  for (const Evidence& e : f.evidence)
    if (size_t wide = columns(named(e)); wide <= 44) widest = std::max(widest, wide);
  std::string out;
  const size_t note = widest + 10;
  size_t number = 0, column = (std::max<size_t>(width, note + 60) - note - 4) / 2;
  bool headed = false;
  for (const Evidence& e : f.evidence) {
    std::string_view step;
    int lane = laneOf(e.note, &step);
    std::string place = fmt::format("     {:>2}. {:<{}} ", ++number, named(e), widest);
    std::string who = std::string(e.note.substr(0, e.note.find(' ')));
    if (lane != 0 && !headed) out += fmt::format("{:<{}}{:<{}}| {}\n", "", note, who + " 1", column, who + " 2");
    headed |= lane != 0;
    if (columns(place) > note) out += place.substr(0, place.size() - 1) + "\n", place = std::string(note, ' ');
    if (lane == 0) {
      out += place + wrapped(e.note, width, note) + "\n";
      continue;
    }
    // Each line of the step in its column.
    std::vector<std::string> lines = splitLines(wrapped(step, column - 1, 0));
    for (size_t k = 0; k < lines.size(); ++k) {
      std::string left = lane == 1 ? lines[k] : "", right = lane == 2 ? " " + lines[k] : "";
      std::string begin = k == 0 ? place : std::string(note, ' ');
      out += begin + left + std::string(column > columns(left) ? column - columns(left) : 0, ' ') + "|" + right + "\n";
    }
  }
  return out;
}

// What findings are about, the one with the riskiest first; its findings keep their order.
struct Group {
  std::vector<const Finding*> findings;
  std::string name;
};

// A finding of an entity's state may be about another class: who registers, say.
std::string nameOf(const Analysis& a, const Finding& f) {
  if (f.entity != SIZE_MAX && f.subject == a.survey.entities[f.entity].id) return a.survey.entities[f.entity].shown;
  std::string_view separator = a.program.language(f.place.file).separator;
  size_t last = f.subject.rfind(separator);
  return last == std::string::npos || f.subject.find('(') != std::string::npos ? f.subject : f.subject.substr(last + separator.size());
}

std::vector<Group> grouped(const Analysis& a, const std::vector<const Finding*>& shown) {
  std::vector<Group> out;
  std::map<std::string, size_t> position;
  for (const Finding* f : shown) {
    auto [entry, fresh] = position.emplace(f->subject, out.size());
    if (fresh) out.push_back({{}, nameOf(a, *f)});
    out[entry->second].findings.push_back(f);
  }
  return out;
}

std::string countsText(const Analysis& a, const std::vector<const Finding*>& shown, size_t groups) {
  std::array<size_t, 3> risks{}, sureness{};
  std::map<std::string_view, size_t> families;
  for (const Finding* f : shown) {
    ++risks[f->risk.value() >= 50 ? 0 : f->risk.value() >= 25 ? 1 : 2];
    ++sureness[static_cast<size_t>(f->sureness)];
    ++families[std::string_view(f->check).substr(0, f->check.find('.'))];
  }
  std::vector<std::string> byFamily;
  for (auto& [family, count] : families) byFamily.push_back(std::string(family) + " " + std::to_string(count));
  return fmt::format("{} on {}, in {}. Risk 50 or more: {}; 25 to 49: {}; below: {}. {} certain, {} likely, {} possible. By family: {}.", counted(shown.size(), "finding", "findings"), counted(groups, "piece of code", "pieces of code"),
                     counted(a.program.files.size(), "file", "files"), risks[0], risks[1], risks[2], sureness[0], sureness[1], sureness[2], joinWith(byFamily, ", "));
}

// One line for each thing to mend, heaviest first.
std::string fixFirstText(const Analysis& a, const std::vector<Group>& groups, const TextStyle& style) {
  constexpr size_t kMost = 10;
  std::map<std::string, const Group*> bySubject;
  for (const Group& group : groups) bySubject[group.findings.front()->subject] = &group;
  std::vector<std::vector<std::string>> rows = {{"RISK", "WHERE", "PLACE", "ADVICE", "WHY"}};
  size_t most = style.limit > 0 ? style.limit : kMost;
  for (const WorkItem& item : orderOfWork(a.assessment)) {
    auto found = bySubject.find(item.subject);
    if (found == bySubject.end() || rows.size() > most) continue;
    const Finding& first = *found->second->findings.front();
    rows.push_back({std::to_string(first.risk.value()), found->second->name, at(a.program, first.place), std::string(adviceText(item.advice)), item.why});
  }
  // The reason takes what is left of the line.
  if (style.cut) {
    size_t taken = 8;
    for (size_t column = 0; column < 4; ++column) {
      size_t widest = 0;
      for (const auto& row : rows) widest = std::max(widest, columns(row[column]));
      taken += std::min<size_t>(widest, column == 1 || column == 2 ? 30 : widest);
    }
    size_t left = static_cast<size_t>(style.width) > taken + 24 ? static_cast<size_t>(style.width) - taken : 24;
    for (auto& row : rows) row[4] = cutEnd(row[4], left);
  }
  return strong(style, "Fix these first:") + "\n" + tableText(rows, style, {1, 2});
}

std::string findingText(const Analysis& a, const Finding& f, const TextStyle& style) {
  size_t width = static_cast<size_t>(style.width);
  std::string out = riskPaint(style, f.risk.value(), fmt::format("{:>3}", f.risk.value())) + "  " + strong(style, f.check) + "  " + std::string(surenessText(f.sureness)) + "  " + faint(style, at(a.program, f.place)) + "\n";
  out += "     " + wrapped(f.message, width, 5) + "\n" + evidenceText(a.program, f, width);
  if (f.seen.runs > 0) out += "     " + wrapped(seenText(f.seen), width, 5) + "\n";
  if (!f.acceptedBecause.empty()) out += "     accepted: " + wrapped(f.acceptedBecause, width, 15) + "\n";
  return out;
}

// Advice that several findings of a group share is told once, behind the last of them.
std::string adviceOf(const Analysis& a, const Finding& f, const TextStyle& style) {
  size_t width = static_cast<size_t>(style.width);
  std::string out = "     " + wrapped("Advice: " + std::string(adviceText(f.advice)) + ". " + moveText(infoOf(f.check), &a.program.guarantees(f.place.file)), width, 5) + "\n";
  for (const std::string& reason : f.reasonsFor) out += "       + " + wrapped(reason, width, 9) + "\n";
  for (const std::string& reason : f.reasonsAgainst) out += "       - " + wrapped(reason, width, 9) + "\n";
  return out;
}

std::string groupText(const Analysis& a, const Group& group, const TextStyle& style) {
  const Finding& first = *group.findings.front();
  std::string out = strong(style, group.name);
  if (first.entity != SIZE_MAX && first.subject == a.survey.entities[first.entity].id) {
    const Entity& e = a.survey.entities[first.entity];
    out += "  " + std::string(kindText(e.toldKind())) + "  " + faint(style, at(a.program, e.place));
  }
  out += "\n";
  for (size_t i = 0; i < group.findings.size(); ++i) {
    out += findingText(a, *group.findings[i], style);
    bool last = i + 1 == group.findings.size() || group.findings[i + 1]->advice != group.findings[i]->advice;
    if (last) out += adviceOf(a, *group.findings[i], style);
  }
  return out + "\n";
}

std::string keepText(const Analysis& a, size_t width) {
  std::vector<std::string> keep;
  size_t quiet = 0;
  for (size_t i = 0; i < a.survey.entities.size(); ++i) {
    const Judgement& j = a.assessment.judgements[i];
    if (a.survey.entities[i].harmless || j.advice != Advice::Keep || j.reasonsFor.empty()) continue;
    if (j.isSink) keep.push_back(a.survey.entities[i].shown + " (" + j.reasonsFor.front() + ")");
    else ++quiet;
  }
  std::string out;
  if (!keep.empty()) out += wrapped("Right to keep: " + joinWith(keep, "; ") + ".", width, 2) + "\n";
  if (quiet > 0) out += counted(quiet, "more piece of shared state has", "more pieces of shared state have") + " no finding.\n";
  return out;
}

}  // namespace

std::string assessText(const Analysis& a, bool withAccepted, const TextStyle& style) {
  size_t width = static_cast<size_t>(style.width), accepted = 0;
  std::vector<const Finding*> shown;
  for (const Finding& f : a.assessment.findings) {
    accepted += !f.acceptedBecause.empty();
    if (withAccepted || f.acceptedBecause.empty()) shown.push_back(&f);
  }
  std::vector<Group> groups = grouped(a, shown);
  std::string out = strong(style, wrapped(shown.empty() ? std::string("No findings.") : countsText(a, shown, groups.size()), width, 0)) + "\n";
  if (accepted > 0 && !withAccepted) out += fmt::format("{} accepted with a reason (--accepted shows them).\n", accepted);
  if (groups.size() > 2 || (style.limit > 0 && !groups.empty())) out += "\n" + fixFirstText(a, groups, style);
  if (style.limit == 0) {
    if (!groups.empty()) out += "\n";
    for (const Group& group : groups) out += groupText(a, group, style);
  }
  if (std::string keep = keepText(a, width); !keep.empty() && style.limit == 0) out += keep;
  for (const StaleAcceptance& s : a.assessment.stale) out += fmt::format("acceptance of {} at {}: {}\n", s.check, s.where, s.reason);
  if (style.limit > 0 && !groups.empty())
    out += "\n" + faint(style, "The evidence: --all, --check CHECK, --path GLOB, or `elmcart explain NAME`; more lines: --limit N.") + "\n";
  return out;
}

std::string explainFindingText(const Analysis& a, const Finding& f, const TextStyle& style) {
  return strong(style, nameOf(a, f)) + "\n" + findingText(a, f, style) + adviceOf(a, f, style) +
         fmt::format("     risk {} = {} (how bad) x {} ({}) x {:.2f} (reach: {})\n", f.risk.value(), f.risk.bad, f.risk.sure, surenessText(f.sureness), f.risk.reach, counted(f.risk.sites, "site", "sites"));
}

}  // namespace elmcart

#include <fmt/format.h>

#include <map>
#include <pugixml.hpp>
#include <sstream>

#include "base/text.h"
#include "report/exchange.h"
#include "report/layout.h"

namespace elmcart {
namespace {

// XML 1.0, 2.2: control characters other than tab, newline and carriage return cannot be written at all.
std::string writable(std::string_view text) {
  std::string out;
  for (char c : text) out += static_cast<unsigned char>(c) < 0x20 && c != '\t' && c != '\n' && c != '\r' ? '?' : c;
  return out;
}

std::string told(const Program& p, const Finding& f) {
  std::string out = f.message + "\n";
  size_t number = 0;
  for (const Evidence& e : f.evidence) out += fmt::format("  {}. {} {}\n", ++number, at(p, e.place), e.note);
  if (f.seen.runs > 0) out += seenText(f.seen) + "\n";
  return out + "Advice: " + std::string(adviceText(f.advice)) + ". " + moveText(infoOf(f.check), &p.guarantees(f.place.file)) + "\n";
}

// A piece of shared state, or what a finding is about where that is none.
struct Case {
  Place place;
  std::vector<const Finding*> failed, noted;
};

void addCase(pugi::xml_node suite, const Program& p, const std::string& name, const Case& one) {
  pugi::xml_node out = suite.append_child("testcase");
  out.append_attribute("name") = writable(name).c_str();
  out.append_attribute("classname") = writable(p.path(one.place)).c_str();
  out.append_attribute("file") = writable(p.path(one.place)).c_str();
  out.append_attribute("line") = p.line(one.place);
  out.append_attribute("time") = "0";
  if (!one.failed.empty()) {
    // One failure a case: what readers of this form count on.
    std::string message, text;
    for (const Finding* f : one.failed) {
      message += fmt::format("{}{} (risk {})", message.empty() ? "" : ", ", f->check, f->risk.value());
      text += fmt::format("{} risk {}, {}, {}\n", f->check, f->risk.value(), surenessText(f->sureness), at(p, f->place)) + told(p, *f);
    }
    pugi::xml_node failure = out.append_child("failure");
    failure.append_attribute("message") = writable(message).c_str();
    failure.append_attribute("type") = one.failed.front()->check.c_str();
    failure.text() = writable(text).c_str();
  }
  std::string noted;
  for (const Finding* f : one.noted) {
    noted += fmt::format("{} risk {}, {}: {}\n", f->check, f->risk.value(), at(p, f->place), f->message);
    if (!f->acceptedBecause.empty()) noted += "  accepted: " + f->acceptedBecause + "\n";
  }
  if (!noted.empty()) out.append_child("system-out").text() = writable(noted).c_str();
}

}  // namespace

std::string assessJunit(const Analysis& a, int gate) {
  const Program& p = a.program;
  std::map<std::string, Case> cases;  // by name
  for (const Entity& e : a.survey.entities)
    if (!e.harmless) cases.emplace(e.id, Case{e.place, {}, {}});
  for (const Finding& f : a.assessment.findings) {
    Case& one = cases.emplace(f.subject, Case{f.place, {}, {}}).first->second;
    bool fails = f.acceptedBecause.empty() && f.risk.value() >= gate;
    (fails ? one.failed : one.noted).push_back(&f);
  }
  size_t failures = 0;
  for (auto& [name, one] : cases) failures += !one.failed.empty();
  pugi::xml_document document;
  pugi::xml_node suites = document.append_child("testsuites");
  pugi::xml_node suite = suites.append_child("testsuite");
  for (pugi::xml_node node : {suites, suite}) {
    node.append_attribute("name") = "shared state";
    node.append_attribute("tests") = cases.size() + a.problems.size();
    node.append_attribute("failures") = failures;
    node.append_attribute("errors") = a.problems.size();
    node.append_attribute("time") = "0";
  }
  for (auto& [name, one] : cases) addCase(suite, p, name, one);
  // A file that could not be used is no passed test.
  for (const Error& problem : a.problems) {
    pugi::xml_node out = suite.append_child("testcase");
    out.append_attribute("name") = "can be read";
    out.append_attribute("classname") = writable(problem.subject).c_str();
    out.append_attribute("time") = "0";
    out.append_child("error").append_attribute("message") = writable(problem.line()).c_str();
  }
  std::ostringstream out;
  document.save(out, "  ");
  return out.str();
}

}  // namespace elmcart

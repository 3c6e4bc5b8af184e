#include "confirm/results.h"

#include <re2/re2.h>

#include <pugixml.hpp>

#include "base/text.h"

namespace elmcart {
namespace {

void readSuite(const pugi::xml_node& suite, const std::string& prefix, TestTable& out) {
  for (pugi::xml_node child : suite.children()) {
    std::string_view name = child.name();
    if (name == "testsuite") {
      readSuite(child, prefix, out);
    } else if (name == "testcase") {
      std::string group = child.attribute("classname").as_string();
      std::string test = child.attribute("name").as_string();
      // CTest repeats the name as the group.
      std::string key = group.empty() || group == test ? test : group + "." + test;
      TestResult result;
      result.seconds = child.attribute("time").as_double();
      std::string_view status = child.attribute("status").as_string();
      if (pugi::xml_node failure = child.child("failure")) {
        result.status = TestStatus::Failed;
        result.message = failure.attribute("message").as_string();
        if (result.message.empty()) result.message = std::string(trim(failure.text().as_string()));
        if (pugi::xml_node output = child.child("system-out")) result.message += "\n" + lastLines(std::string(trim(output.text().as_string())), 12);
      } else if (pugi::xml_node error = child.child("error")) {
        result.status = TestStatus::Failed;
        result.message = error.attribute("message").as_string();
      } else if (child.child("skipped") || status == "notrun" || status == "disabled") {
        result.status = TestStatus::Skipped;
      }
      out[key] = result;
    }
  }
}

// Of a line that names a test; the library's patterns use the stack byte by byte.

double number(const std::string& text) { return text.empty() ? 0 : std::strtod(text.c_str(), nullptr); }

}  // namespace

std::string_view testStatusText(TestStatus status) {
  return status == TestStatus::Passed ? "passed" : status == TestStatus::Failed ? "failed" : "skipped";
}

Result<TestTable> readJUnit(const std::string& text, const std::string& path) {
  pugi::xml_document document;
  pugi::xml_parse_result parsed = document.load_buffer(text.data(), text.size());
  if (!parsed) return Error{path, std::string("no result file: ") + parsed.description()};
  TestTable out;
  pugi::xml_node root = document.document_element();
  std::string_view name = root.name();
  if (name != "testsuites" && name != "testsuite") return Error{path, "no result file: its root is <" + std::string(name) + ">"};
  readSuite(root, "", out);
  return out;
}

TestTable readTap(const std::string& text) {
  // "ok 1 - name # SKIP reason"; subtests stand four blanks deeper, under the name above them.
  static const re2::RE2 kLine(R"(^( *)(not )?ok\b *(\d+)?(?: *-)? *([^#]*)(?:#\s*(.*))?$)");
  TestTable out;
  size_t unnamed = 0;
  std::vector<std::string> groups;
  static const re2::RE2 kGroup(R"(^( *)# Subtest: (.*)$)");
  for (const std::string& line : splitLines(text)) {
    std::string indent, group, failed, number, name, directive;
    if (re2::RE2::FullMatch(line, kGroup, &indent, &group)) {
      groups.resize(indent.size() / 4);
      groups.push_back(group);
      continue;
    }
    if (!re2::RE2::FullMatch(line, kLine, &indent, &failed, &number, &name, &directive)) continue;
    size_t depth = indent.size() / 4;
    name = trim(name);
    directive = lowerCase(directive);
    if (name.empty()) name = "test " + (number.empty() ? std::to_string(++unnamed) : number);
    std::string key;
    for (size_t i = 0; i < depth && i < groups.size(); ++i) key += groups[i] + " > ";
    TestResult result;
    if (directive.rfind("skip", 0) == 0) result.status = TestStatus::Skipped;
    else if (!failed.empty() && directive.rfind("todo", 0) != 0) result.status = TestStatus::Failed;
    out[key + name] = result;
  }
  return out;
}

Result<TestTable> readResults(const std::string& text, const std::string& path) {
  if (trim(text).substr(0, 1) == "<") return readJUnit(text, path);
  TestTable table = readTap(text);
  if (table.empty()) return Error{path, "no result file: neither JUnit's XML form nor TAP"};
  return table;
}

TestTable readRunnerOutput(const std::string& text) {
  TestTable out;
  auto put = [&](const std::string& name, TestStatus status, double seconds = 0) {
    TestResult result;
    result.status = status;
    result.seconds = seconds;
    out[name] = result;
  };
  static const re2::RE2 kGo(R"(^ *--- (PASS|FAIL|SKIP): (\S+) \(([0-9.]+)s\)$)");
  static const re2::RE2 kUnittest(R"(^(\w+) \(([\w.]+)\)(?: .*)? ?\.\.\. (ok|FAIL|ERROR|skipped.*|expected failure|unexpected success)$)");
  static const re2::RE2 kCTest(R"(^ *\d+/\d+ +Test +#\d+: +(\S+) \.*\** *(Passed|Failed|Skipped|Not Run|Timeout|\*\*\*\S+) +([0-9.]+) sec *$)");
  std::string pending;
  bool plan = false;
  static const re2::RE2 kPending(R"(^(\w+) \(([\w.]+)\)$)");  // a documented test: its result stands on the next line
  for (const std::string& line : splitLines(text)) {
    auto pythonName = [](const std::string& test, const std::string& group) {
      bool whole = group.size() > test.size() && group.compare(group.size() - test.size(), test.size(), test) == 0;  // since 3.11
      return whole ? group : group + "." + test;
    };
    auto pythonStatus = [](const std::string& word) { return word == "ok" || word == "expected failure" ? TestStatus::Passed : word.rfind("skipped", 0) == 0 ? TestStatus::Skipped : TestStatus::Failed; };
    std::string_view words = trim(line);
    plan |= line.rfind("TAP version", 0) == 0 || (words.substr(0, 3) == "1.." && words.size() > 3 && std::isdigit(static_cast<unsigned char>(words[3])));
    // Most lines are no results.
    bool go = line.find("--- ") != std::string::npos, ctest = line.find("Test ") != std::string::npos;
    bool python = !pending.empty() || line.find(" (") != std::string::npos;
    if (!go && !ctest && !python) continue;
    std::string first, second, third;
    if (re2::RE2::FullMatch(line, kGo, &first, &second, &third)) put(second, first == "PASS" ? TestStatus::Passed : first == "SKIP" ? TestStatus::Skipped : TestStatus::Failed, number(third));
    else if (re2::RE2::FullMatch(line, kUnittest, &first, &second, &third)) put(pythonName(first, second), pythonStatus(third));
    else if (re2::RE2::FullMatch(line, kPending, &first, &second)) pending = pythonName(first, second);
    else if (size_t at = line.rfind(" ... "); !pending.empty() && at != std::string::npos) put(pending, pythonStatus(line.substr(at + 5))), pending.clear();
    else if (re2::RE2::FullMatch(line, kCTest, &first, &second, &third)) put(first, second == "Passed" ? TestStatus::Passed : second == "Skipped" || second == "Not Run" ? TestStatus::Skipped : TestStatus::Failed, number(third));
  }
  // TAP says how many tests it has; a lone "ok" may be anything.
  if (out.empty() && plan) out = readTap(text);
  return out;
}

}  // namespace elmcart

#include "confirm/results.h"

#include <re2/re2.h>

#include <nlohmann/json.hpp>
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

}  // namespace

std::string_view testStatusText(TestStatus status) {
  return status == TestStatus::Passed ? "passed" : status == TestStatus::Failed ? "failed" : "skipped";
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

namespace {

void put(TestTable& out, const std::string& name, TestStatus status, double seconds = 0, std::string message = {}) { out[name] = {status, seconds, std::move(message)}; }

TestStatus statusOf(std::string_view word) {
  std::string lower = lowerCase(word);
  bool failed = lower.starts_with("fail") || lower == "error" || lower == "errored" || lower == "broken" || lower == "timeout" || lower == "false";
  bool passed = lower.starts_with("pass") || lower.starts_with("success") || lower == "ok" || lower == "true";
  return failed ? TestStatus::Failed : passed ? TestStatus::Passed : TestStatus::Skipped;
}

// <test-case fullname=… result=…>, at any depth: the XML forms of the .NET runners.
void readCases(const pugi::xml_node& node, TestTable& out) {
  for (pugi::xml_node child : node.children()) {
    std::string_view name = child.name();
    if (name == "test-case" || name == "test") {
      std::string test = child.attribute("fullname").as_string(child.attribute("name").as_string());
      // <test name= type= method= result="Pass">; an older form says executed="False" of one that was left out.
      std::string result = child.attribute("result").as_string(child.attribute("success").as_string("Skipped"));
      if (std::string_view(child.attribute("executed").as_string("True")) == "False") result = "Skipped";
      std::string message = child.child("failure").child("message").text().as_string();
      double seconds = child.attribute("duration").as_double(child.attribute("time").as_double());
      if (!test.empty()) put(out, test, statusOf(result), seconds, std::string(trim(message)));
    } else {
      readCases(child, out);
    }
  }
}

// <TestCase name=…><OverallResult success="true" durationInSeconds=…/>.
void readOverallResults(const pugi::xml_node& node, TestTable& out) {
  for (pugi::xml_node child : node.children()) {
    pugi::xml_node overall = child.child("OverallResult");
    if (std::string_view(child.name()) != "TestCase" || !overall) {
      readOverallResults(child, out);
      continue;
    }
    bool skipped = overall.attribute("skips").as_int() > 0 && overall.attribute("success").as_bool();
    put(out, child.attribute("name").as_string(), skipped ? TestStatus::Skipped : overall.attribute("success").as_bool() ? TestStatus::Passed : TestStatus::Failed, overall.attribute("durationInSeconds").as_double());
  }
}

// <test-method name= signature= status="PASS">, inside of <class name=…>.
void readMethods(const pugi::xml_node& node, const std::string& owner, TestTable& out) {
  for (pugi::xml_node child : node.children()) {
    std::string_view name = child.name();
    if (name == "test-method") {
      if (!child.attribute("is-config").as_bool()) put(out, owner + "." + child.attribute("name").as_string(), statusOf(child.attribute("status").as_string()), child.attribute("duration-ms").as_double() / 1000);
    } else {
      readMethods(child, name == "class" ? child.attribute("name").as_string() : owner, out);
    }
  }
}

// One object with all results: {"testResults": [{"assertionResults": [{"fullName", "status"}]}]}, or
// {"tests": [{"fullTitle", "err"}], "pending": […]}.
void readJsonWhole(const nlohmann::json& all, TestTable& out) {
  for (const auto& file : all.value("testResults", nlohmann::json::array()))
    for (const auto& one : file.value("assertionResults", nlohmann::json::array())) {
      std::string message = one.contains("failureMessages") && !one["failureMessages"].empty() && one["failureMessages"][0].is_string() ? one["failureMessages"][0].get<std::string>() : "";
      put(out, one.value("fullName", one.value("title", "")), statusOf(one.value("status", "")), one.contains("duration") && one["duration"].is_number() ? one["duration"].get<double>() / 1000 : 0, message);
    }
  if (!all.contains("tests") || !all["tests"].is_array()) return;
  for (const auto& one : all["tests"]) {
    bool failed = one.contains("err") && one["err"].is_object() && !one["err"].empty();
    put(out, one.value("fullTitle", one.value("title", "")), failed ? TestStatus::Failed : TestStatus::Passed, 0, failed ? one["err"].value("message", "") : "");
  }
  for (const auto& one : all.value("pending", nlohmann::json::array())) put(out, one.value("fullTitle", one.value("title", "")), TestStatus::Skipped);
}

// An event a line: {"type": "testDone", "testID", "result"}, or {"Action": "pass", "Package", "Test"}.
void readJsonLine(const nlohmann::json& event, std::map<int, std::string>& names, TestTable& out) {
  if (event.value("type", "") == "testStart") names[event["test"].value("id", 0)] = event["test"].value("name", "");
  if (event.value("type", "") == "testDone" && !event.value("hidden", false)) put(out, names[event.value("testID", 0)], event.value("skipped", false) ? TestStatus::Skipped : statusOf(event.value("result", "")));
  std::string action = event.value("Action", "");
  if (event.contains("Test") && (action == "pass" || action == "fail" || action == "skip")) put(out, event.value("Package", "") + "." + event.value("Test", ""), statusOf(action), event.value("Elapsed", 0.0));
}

}  // namespace

TestTable readJsonResults(const std::string& text) {
  TestTable out;
  try {
    nlohmann::json whole = nlohmann::json::parse(text, nullptr, false);
    if (whole.is_object() && (whole.contains("testResults") || whole.contains("tests"))) {
      readJsonWhole(whole, out);
      return out;
    }
    std::map<int, std::string> names;
    for (const std::string& line : splitLines(text)) {
      if (line.empty() || line[0] != '{') continue;
      if (nlohmann::json event = nlohmann::json::parse(line, nullptr, false); event.is_object()) readJsonLine(event, names, out);
    }
  } catch (const nlohmann::json::exception&) {
    // Another form: what was read until then is no result of a test.
    out.clear();
  }
  return out;
}

Result<TestTable> readXml(const std::string& text, const std::string& path) {
  pugi::xml_document document;
  pugi::xml_parse_result parsed = document.load_buffer(text.data(), text.size());
  if (!parsed) return Error{path, std::string("no result file: ") + parsed.description()};
  TestTable out;
  pugi::xml_node root = document.document_element();
  std::string_view name = root.name();
  if (name == "testsuites" || name == "testsuite") readSuite(root, "", out);
  else if (name == "test-run" || name == "test-results" || name == "assemblies" || name == "assembly") readCases(root, out);
  else if (name == "Catch" || name == "Catch2TestRun") readOverallResults(root, out);
  else if (name == "testng-results") readMethods(root, "", out);
  else return Error{path, "no result file that is understood: its root is <" + std::string(name) + ">"};
  return out;
}

Result<TestTable> readResults(const std::string& text, const std::string& path) {
  std::string_view head = trim(text);
  if (head.substr(0, 1) == "<") return readXml(text, path);
  TestTable table = head.substr(0, 1) == "{" ? readJsonResults(text) : readTap(text);
  if (table.empty()) return Error{path, "no result file that is understood: neither an XML form of a test runner, nor TAP, nor a runner's JSON"};
  return table;
}

}  // namespace elmcart

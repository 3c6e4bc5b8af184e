// What test runners say of each test: result files, and the lines that common
// runners print when they are asked to name their tests.
#pragma once

#include <map>
#include <string>

#include "base/result.h"

namespace elmcart {

enum class TestStatus : uint8_t { Passed, Failed, Skipped };
std::string_view testStatusText(TestStatus status);

struct TestResult {
  TestStatus status = TestStatus::Passed;
  double seconds = 0;
  std::string message;  // of a failure
};
using TestTable = std::map<std::string, TestResult>;

// How many tests a runner says it ran, beside their names.
struct RunnerTotals {
  bool told = false;
  size_t run = 0, failed = 0, skipped = 0;  // `run` holds the other two

  bool operator==(const RunnerTotals&) const = default;
};

// Reads one result file: the XML forms of the usual runners (roots testsuites, test-run, test-results, assemblies,
// Catch, testng-results), TAP (versions 12 to 14), or a runner's JSON. Fails when it is none of these.
Result<TestTable> readResults(const std::string& text, const std::string& path);
Result<TestTable> readXml(const std::string& text, const std::string& path);
TestTable readTap(const std::string& text);
// Whole objects, and an event a line. Empty: it is neither.
TestTable readJsonResults(const std::string& text);

// What a runner printed for people or for programs: the tests that it names, and its own count.
struct RunnerOutput {
  TestTable tests;
  RunnerTotals totals;
};
RunnerOutput readRunnerOutput(const std::string& text);

}  // namespace elmcart

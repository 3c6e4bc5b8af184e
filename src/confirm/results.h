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

// Reads one result file: JUnit's XML form, or TAP (versions 12 to 14). Fails when it is neither.
Result<TestTable> readResults(const std::string& text, const std::string& path);
Result<TestTable> readJUnit(const std::string& text, const std::string& path);
TestTable readTap(const std::string& text);

// The tests named in what a runner printed: TAP; the verbose lines of Python's
// unittest, of `go test` and of CTest. Empty when it names none.
TestTable readRunnerOutput(const std::string& text);

}  // namespace elmcart

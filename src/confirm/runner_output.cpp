// Reads what test runners print. Each reader sees every line; those that name tests and those that count them are told
// apart, for a runner may count what it does not name.
#include <re2/re2.h>

#include "base/text.h"
#include "confirm/results.h"

namespace elmcart {
namespace {

using re2::RE2;

double number(const std::string& text) { return text.empty() ? 0 : std::strtod(text.c_str(), nullptr); }
size_t count(const std::string& text) { return text.empty() ? 0 : std::strtoul(text.c_str(), nullptr, 10); }

// Colours and cursor moves are no part of what is said.
std::string withoutEscapes(const std::string& line) {
  if (line.find('\x1b') == std::string::npos) return line;
  static const RE2 kEscape("\x1b\\[[0-9;?]*[A-Za-z]");
  std::string out = line;
  RE2::GlobalReplace(&out, kEscape, "");
  return out;
}

class Reader {
 public:
  void read(const std::string& raw) {
    std::string line = withoutEscapes(raw);
    while (!line.empty() && (line.back() == '\r' || line.back() == ' ')) line.pop_back();
    if (line.empty()) return;
    named(line) || unittest(line) || nested(line);
    totals(line);
  }
  RunnerOutput take() {
    if (perClass_.told && !out_.totals.told) out_.totals = perClass_;
    return std::move(out_);
  }

 private:
  void put(const std::string& name, TestStatus status, double seconds = 0) { out_.tests[name] = {status, seconds, ""}; }
  void total(size_t run, size_t failed, size_t skipped) {
    out_.totals.told = true;
    out_.totals.run += run;
    out_.totals.failed += failed;
    out_.totals.skipped += skipped;
  }

  // Lines that name a test and say what came of it.
  bool named(const std::string& line) {
    static const RE2 kGo(R"( *--- (PASS|FAIL|SKIP): (\S+) \(([0-9.]+)s\))");
    static const RE2 kCTest(R"( *\d+/\d+ +Test +#\d+: +(\S+) \.*\** *(Passed|Failed|Skipped|Not Run|Timeout|\*\*\*\S+) +([0-9.]+) sec)");
    static const RE2 kGoogleTest(R"(\[ +(OK|FAILED|SKIPPED) +\] ([^\s,]+\.[^\s,]+)(?:, where .*)? \((\d+) ms\))");
    static const RE2 kPytest(R"((\S+::.+?) (PASSED|FAILED|ERROR|SKIPPED|XFAIL|XPASS)(?: .*)?)");
    static const RE2 kPytestSummary(R"((PASSED|FAILED|ERROR|SKIPPED|XFAIL|XPASS) (\S+::[^\s].*?)(?: - .*)?)");
    static const RE2 kXCTest(R"(Test Case '(?:-\[)?([^'\]]+)\]?' (passed|failed|skipped) \(([0-9.]+) seconds\)\.?)");
    static const RE2 kGradle(R"((\S+) > (.+) (PASSED|FAILED|SKIPPED))");
    static const RE2 kDotnet(R"( *(Passed|Failed|Skipped) (\S.*?) \[[<0-9., ]+m?s\])");
    static const RE2 kJUnitConsole(R"(\d+\) (\w+)\(([\w.$]+)\))");
    std::string first, second, third;
    if (line.find("--- ") != std::string::npos && RE2::FullMatch(line, kGo, &first, &second, &third)) return put(second, first == "PASS" ? TestStatus::Passed : first == "SKIP" ? TestStatus::Skipped : TestStatus::Failed, number(third)), true;
    if (line.find("Test ") != std::string::npos && RE2::FullMatch(line, kCTest, &first, &second, &third)) return put(first, second == "Passed" ? TestStatus::Passed : second == "Skipped" || second == "Not Run" ? TestStatus::Skipped : TestStatus::Failed, number(third)), true;
    if (line[0] == '[' && RE2::FullMatch(line, kGoogleTest, &first, &second, &third)) return put(second, word(first), number(third) / 1000), true;
    if (line.find("::") != std::string::npos && (RE2::FullMatch(line, kPytest, &first, &second) || RE2::FullMatch(line, kPytestSummary, &second, &first))) return put(first, word(second)), true;
    if (line.starts_with("Test Case ") && RE2::FullMatch(line, kXCTest, &first, &second, &third)) return put(first, word(second), number(third)), true;
    if (line.find(" > ") != std::string::npos && RE2::FullMatch(line, kGradle, &first, &second, &third)) return put(first + " > " + second, word(third)), true;
    if (line.find(" [") != std::string::npos && RE2::FullMatch(line, kDotnet, &first, &second)) return put(second, word(first)), true;
    if (std::isdigit(static_cast<unsigned char>(line[0])) && RE2::FullMatch(line, kJUnitConsole, &first, &second)) return put(second + "." + first, TestStatus::Failed), true;
    return false;
  }
  static TestStatus word(const std::string& said) {
    std::string lower = lowerCase(said);
    return lower == "ok" || lower == "pass" || lower == "passed" || lower == "xfail" || lower == "xpass" ? TestStatus::Passed : lower.starts_with("skip") ? TestStatus::Skipped : TestStatus::Failed;
  }

  // test_a (module.Class.test_a) ... ok; the result of one that is documented, or prints, stands on a later line.
  bool unittest(const std::string& line) {
    static const RE2 kOneLine(R"((\w[\w\-\[\] ]*?) \(([\w.<>\-]+)\)(?: .*)? ?\.\.\. ?(ok|FAIL|ERROR|skipped.*|expected failure|unexpected success))");
    static const RE2 kPending(R"((\w[\w\-]*) \(([\w.<>\-]+)\)(?: \.\.\. ?.*)?)");
    static const RE2 kSummary(R"((ERROR|FAIL|UNEXPECTED SUCCESS): (\w[\w\-]*) \(([\w.<>\-]+)\)(?: .*)?)");
    static const RE2 kEnd(R"((?:.* \.\.\. ?)?(ok|FAIL|ERROR|skipped.*|expected failure|unexpected success))");
    std::string test, group, result;
    if (line.find(" (") != std::string::npos) {
      if (RE2::FullMatch(line, kOneLine, &test, &group, &result)) return put(pythonName(test, group), pythonStatus(result)), pending_.clear(), true;
      if (RE2::FullMatch(line, kSummary, &result, &test, &group)) return put(pythonName(test, group), TestStatus::Failed), true;
      if (RE2::FullMatch(line, kPending, &test, &group)) return pending_ = pythonName(test, group), true;
    }
    if (!pending_.empty() && RE2::FullMatch(line, kEnd, &result)) return put(pending_, pythonStatus(result)), pending_.clear(), true;
    return false;
  }
  static std::string pythonName(const std::string& test, const std::string& group) {
    bool whole = group.size() > test.size() && group.compare(group.size() - test.size(), test.size(), test) == 0;  // since 3.11
    return whole ? group : group + "." + test;
  }
  static TestStatus pythonStatus(const std::string& said) { return said == "ok" || said == "expected failure" ? TestStatus::Passed : said.starts_with("skipped") ? TestStatus::Skipped : TestStatus::Failed; }

  // "    ✔ waits for water (3ms)" below the names of the groups that it stands in.
  bool nested(const std::string& line) {
    static const RE2 kMark(R"(( *)(✔|✓|√|✖|✗|✕|×|✘|﹣|○|↓|- |\d+\)) ?(.+?)(?: \(?(?:[0-9.]+ ?m?s)\)?)?(?: # SKIP)?)");
    std::string indent, mark, name;
    if (!RE2::FullMatch(line, kMark, &indent, &mark, &name)) {
      size_t depth = line.find_first_not_of(' ');
      // What stands less deep than a mark may name its group.
      while (!groups_.empty() && groups_.back().first >= depth) groups_.pop_back();
      if (depth > 0 && depth < 40 && std::isalnum(static_cast<unsigned char>(line[depth]))) groups_.emplace_back(depth, line.substr(depth));
      else if (depth == 0) groups_.clear();
      return false;
    }
    bool failed = mark == "✖" || mark == "✗" || mark == "✕" || mark == "×" || mark == "✘" || std::isdigit(static_cast<unsigned char>(mark[0]));
    bool skipped = mark == "﹣" || mark == "○" || mark == "↓" || mark == "- ";
    // A number or a dash may begin any list.
    if ((mark == "- " || std::isdigit(static_cast<unsigned char>(mark[0]))) && (indent.size() < 2 || groups_.empty())) return false;
    std::string whole;
    for (auto& [depth, group] : groups_)
      if (depth < indent.size()) whole += group + " > ";
    put(whole + name, failed ? TestStatus::Failed : skipped ? TestStatus::Skipped : TestStatus::Passed);
    return true;
  }

  // What a runner counts itself.
  void totals(const std::string& line) {
    static const RE2 kRan(R"(Ran (\d+) tests? in [0-9.]+s)");
    static const RE2 kRanBad(R"((?:OK|FAILED) \((.*)\))");
    static const RE2 kPart(R"((failures|errors|skipped)=(\d+))");
    static const RE2 kJUnitOk(R"(OK \((\d+) tests?\))"), kPhpOk(R"(OK \((\d+) tests?, \d+ assertions?\))");
    static const RE2 kTestsRun(R"((?:\[\w+\] +)?(?:Total )?[Tt]ests(?: run)?: *(\d+), (?:Assertions: \d+, )?(.*))");
    static const RE2 kWordCount(R"((Failures|Errors|Skipped|Skips|Incomplete|Risky): *(\d+))");
    static const RE2 kPytest(R"(=* ?((?:\d+ (?:passed|failed|errors?|skipped|xfailed|xpassed|deselected|warnings?|subtests passed)(?:, )?)+) in [0-9.]+.*)");
    static const RE2 kCountWord(R"((\d+) (passed|failed|errors?|skipped|xfailed|xpassed|todo|pending|total))");
    static const RE2 kJest(R"(Tests: +((?:\d+ (?:failed|passed|skipped|todo|total)(?:, )?)+))");
    static const RE2 kMocha(R"( +(\d+) (passing|failing|pending)(?: \(.*\))?)");
    static const RE2 kNode(R"((?:#|ℹ) (tests|fail|skipped|cancelled) (\d+))");
    static const RE2 kNUnit(R"( *Test Count: (\d+), Passed: \d+, Failed: (\d+),.* Skipped: (\d+).*)");
    static const RE2 kDotnet(R"((?:Passed|Failed)! +- Failed: +(\d+), Passed: +\d+, Skipped: +(\d+), Total: +(\d+).*)");
    static const RE2 kXCTest(R"(\s*Executed (\d+) tests?, with (?:(\d+) tests? skipped and )?(\d+) failures? .*)");
    static const RE2 kCTest(R"(\d+% tests passed, (\d+) tests? failed out of (\d+))");
    static const RE2 kGoogle(R"(\[==========\] (\d+) tests? from \d+ test (?:suites?|cases?) ran\..*)"), kGoogleFailed(R"( *(\d+) FAILED TESTS?)");
    std::string a, b, c;
    if (RE2::FullMatch(line, kRan, &a)) total(count(a), 0, 0), afterRan_ = true;
    else if (afterRan_ && RE2::FullMatch(line, kRanBad, &a)) parts(a, kPart), afterRan_ = false;
    else if (RE2::FullMatch(line, kJUnitOk, &a) || RE2::FullMatch(line, kPhpOk, &a)) total(count(a), 0, 0);
    else if (RE2::FullMatch(line, kPytest, &a) || RE2::FullMatch(line, kJest, &a)) words(a, kCountWord);
    else if (RE2::FullMatch(line, kTestsRun, &a, &b)) testsRun(line, count(a), b, kWordCount);
    else if (RE2::FullMatch(line, kMocha, &a, &b)) total(count(a), b == "failing" ? count(a) : 0, b == "pending" ? count(a) : 0);
    else if (RE2::FullMatch(line, kNode, &a, &b)) total(a == "tests" ? count(b) : 0, a == "fail" || a == "cancelled" ? count(b) : 0, a == "skipped" ? count(b) : 0);
    else if (RE2::FullMatch(line, kNUnit, &a, &b, &c)) total(count(a), count(b), count(c));
    else if (RE2::FullMatch(line, kDotnet, &a, &b, &c)) total(count(c), count(a), count(b));
    else if (RE2::FullMatch(line, kXCTest, &a, &b, &c)) perClass_ = {true, count(a), count(c), count(b)};  // the last is of all
    else if (RE2::FullMatch(line, kCTest, &a, &b)) total(count(b), count(a), 0);
    else if (RE2::FullMatch(line, kGoogle, &a)) total(count(a), 0, 0);
    else if (RE2::FullMatch(line, kGoogleFailed, &a)) out_.totals.failed += count(a);
  }
  void parts(const std::string& said, const RE2& part) {
    re2::StringPiece rest(said);
    for (std::string what, n; RE2::FindAndConsume(&rest, part, &what, &n);) (what == "skipped" ? out_.totals.skipped : out_.totals.failed) += count(n);
  }
  void words(const std::string& said, const RE2& one) {
    re2::StringPiece rest(said);
    size_t run = 0, failed = 0, skipped = 0, whole = 0;
    for (std::string n, what; RE2::FindAndConsume(&rest, one, &n, &what);) {
      if (what == "total") whole = count(n);
      else run += count(n);
      if (what == "failed" || what.starts_with("error")) failed += count(n);
      if (what == "skipped" || what == "todo") skipped += count(n);
    }
    total(whole > 0 ? whole : run, failed, skipped);
  }
  // A line a class, and one of all at the end, which repeats them.
  void testsRun(const std::string& line, size_t run, const std::string& said, const RE2& one) {
    re2::StringPiece rest(said);
    RunnerTotals totals{true, run, 0, 0};
    for (std::string what, n; RE2::FindAndConsume(&rest, one, &what, &n);) (what.starts_with("Skip") || what == "Incomplete" ? totals.skipped : what == "Risky" ? ignored_ : totals.failed) += count(n);
    if (line.find("Time elapsed") != std::string::npos) {
      perClass_.told = true;
      perClass_.run += totals.run, perClass_.failed += totals.failed, perClass_.skipped += totals.skipped;
      return;
    }
    total(totals.run, totals.failed, totals.skipped);
  }

  RunnerOutput out_;
  RunnerTotals perClass_;
  std::string pending_;
  bool afterRan_ = false;
  size_t ignored_ = 0;
  std::vector<std::pair<size_t, std::string>> groups_;  // how deep each stands
};

}  // namespace

RunnerOutput readRunnerOutput(const std::string& text) {
  Reader reader;
  bool plan = false;
  for (const std::string& line : splitLines(text)) {
    std::string_view words = trim(line);
    plan |= line.starts_with("TAP version") || (words.starts_with("1..") && words.size() > 3 && std::isdigit(static_cast<unsigned char>(words[3])));
    reader.read(line);
  }
  RunnerOutput out = reader.take();
  // TAP says how many tests it has; a lone "ok" may be anything.
  if (plan) {
    if (TestTable tap = readTap(text); tap.size() > out.tests.size()) out.tests = std::move(tap);
  }
  if (out.tests.empty()) out.tests = readJsonResults(text);
  return out;
}

}  // namespace elmcart

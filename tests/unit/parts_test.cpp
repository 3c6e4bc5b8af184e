// Small parts: ignore patterns, edits, the pass over macros, result files, masks.
#include <gtest/gtest.h>

#include <csignal>
#include <thread>

#include "assess/assess.h"
#include "confirm/confirm.h"
#include "languages/cpp/braces.h"
#include "languages/cpp/prepare.h"
#include "languages/parse_guard.h"
#include "program/load.h"
#include "source/edit.h"
#include "source/ignore.h"

namespace elmcart {
namespace {

// What is left of a torn method is no declaration of the file.
TEST(Objc, ATornClassKeepsTheMembersThatWereRead) {
  LoweredFile file = lowerText("sheet.mm", "@implementation Sheet {\n  Mark *_first;\n}\n- (void)first:(NSArray *)all {\n  _first = all[0];\n}\n- (void)each:(NSArray *)all {\n  for (id one :\n       all) {\n    [self first:@[ one ]];\n  }\n}\n@end\n");
  std::vector<std::string> members, outside;
  for (NodeId n = 1; n < file.nodes.size(); ++n) {
    if (file[n].kind != Kind::Variable && file[n].kind != Kind::Function) continue;
    (file.parents[n] != kNoNode && file[file.parents[n]].kind == Kind::Type ? members : outside).emplace_back(file.name(n));
  }
  EXPECT_EQ(members, (std::vector<std::string>{"_first", "first:"}));
  EXPECT_TRUE(outside.empty());
  EXPECT_GT(file.unreadBytes, 0u);
}

// A macro with a body of its own tears the function for the grammar: its locals are no variables of the file.
TEST(Cpp, ATornFunctionLeavesNoLocalsInTheFile) {
  std::string known = "  for (;;) {\n    IF_KNOWN(next, at) {\n      ++depth;\n    } else {\n      break;\n    }\n  }\n";
  LoweredFile file = lowerText("sheet.cpp", "namespace sheets {\nint moored = 0;\nint berthsOf(const char* at) {\n  int depth = 0;\n" + known + "  std::vector<int> rows = all(depth);\n" + known + "  return rows[0];\n}\n}  // don't { read this\n");
  std::vector<std::string> outside;
  for (NodeId n = 1; n < file.nodes.size(); ++n)
    if (file[n].kind == Kind::Variable && file[file.parents[n]].kind != Kind::Block && file[file.parents[n]].kind != Kind::Function) outside.emplace_back(file.name(n));
  EXPECT_EQ(outside, std::vector<std::string>{"moored"});
  EXPECT_GT(file.unreadBytes, 0u);
}

TEST(Cpp, BracketsTellWhatStandsInABody) {
  const std::string text = "extern \"C\" {\nnamespace a {\nint x;\nclass B { int y; };\nint f() { if (x) { int z; } return '{'; }\nint v = 1'000;\nconst char* r = R\"k({)k\"; /* { */ int w;\n}\n}\n";
  const cpp::Braces braces(text);
  for (const char* free : {"int x", "class B", "int f", "int v", "int w"}) EXPECT_FALSE(braces.insideBody(static_cast<uint32_t>(text.find(free)))) << free;
  for (const char* inside : {"int y", "if (x)", "int z", "return"}) EXPECT_TRUE(braces.insideBody(static_cast<uint32_t>(text.find(inside)))) << inside;
}

TEST(ParseGuard, KeepsAFaultToTheCallAndTheThread) {
  auto faults = [](void*) { std::raise(SIGSEGV); };
  auto counts = [](void* at) { ++*static_cast<int*>(at); };
  int done = 0;
  EXPECT_FALSE(endsWithoutFault(faults, nullptr));
  EXPECT_TRUE(endsWithoutFault(counts, &done));
  EXPECT_FALSE(endsWithoutFault(faults, nullptr)) << "a second time too";
  bool inside = true, other = true;
  // One inside the other, and one on another thread meanwhile.
  struct Nested {
    bool* inside;
    bool* other;
    int* done;
  } nested{&inside, &other, &done};
  EXPECT_TRUE(endsWithoutFault([](void* at) {
    Nested& n = *static_cast<Nested*>(at);
    *n.inside = endsWithoutFault([](void*) { std::raise(SIGSEGV); }, nullptr);
    std::thread([&] { *n.other = endsWithoutFault([](void*) { std::raise(SIGBUS); }, nullptr); }).join();
    ++*n.done;
  }, &nested));
  EXPECT_FALSE(inside);
  EXPECT_FALSE(other);
  EXPECT_EQ(done, 2);
}

TEST(ParseGuardDeathTest, LeavesFaultsElsewhereToWhoeverHadThem) {
  ASSERT_TRUE(endsWithoutFault([](void*) {}, nullptr));
  EXPECT_DEATH(std::raise(SIGSEGV), "");
}

// Who reports a crash can say over which file it was.
TEST(ParseGuardDeathTest, TellsWhatWasWorkedOn) {
  EXPECT_DEATH(
      {
        WorkingOn outer("reading", "quay.cpp");
        { WorkingOn inner("linking", "mast.cpp"); }
        std::raise(SIGSEGV);
      },
      "SIGSEGV while reading quay.cpp");
  EXPECT_DEATH(
      {
        WorkingOn now("linking", "mast.cpp");
        std::abort();
      },
      "SIGABRT while linking mast.cpp");
}

TEST(Ignore, MatchesGlobs) {
  EXPECT_TRUE(Globs({"*.cpp"}).match("a.cpp"));
  EXPECT_FALSE(Globs({"*.cpp"}).match("a/b.cpp"));
  EXPECT_TRUE(Globs({"**/*.cpp"}).match("a/b/c.cpp"));
  EXPECT_TRUE(Globs({"**/*.cpp"}).match("c.cpp"));
  EXPECT_TRUE(Globs({"src/**"}).match("src/a/b"));
  EXPECT_TRUE(Globs({"a/**/z"}).match("a/z"));
  EXPECT_TRUE(Globs({"a/**/z"}).match("a/b/c/z"));
  EXPECT_FALSE(Globs({"a/**/z"}).match("b/z"));
  EXPECT_TRUE(Globs({"[a-c]?.h"}).match("bx.h"));
  EXPECT_FALSE(Globs({"[!a-c]?.h"}).match("bx.h"));
  // No pattern may cost more than it should.
  EXPECT_FALSE(Globs({"*a*a*a*a*a*a*a*a*a*a*b"}).match(std::string(3000, 'a')));
}

TEST(Ignore, FollowsTheRulesOfTheFileForm) {
  IgnoreRules rules;
  rules.add("# comment\nbuild/\n*.o\n!keep.o\n/top.txt\nsub/only\n", "");
  rules.add("deep.cpp\n", "lib");
  EXPECT_TRUE(rules.ignored("build", true));
  EXPECT_FALSE(rules.ignored("build", false));
  EXPECT_TRUE(rules.ignored("x/y.o", false));
  EXPECT_FALSE(rules.ignored("x/keep.o", false));
  EXPECT_TRUE(rules.ignored("top.txt", false));
  EXPECT_FALSE(rules.ignored("x/top.txt", false));
  EXPECT_TRUE(rules.ignored("sub/only", false));
  EXPECT_TRUE(rules.ignored("lib/x/deep.cpp", false));
  EXPECT_FALSE(rules.ignored("src/deep.cpp", false));
}

TEST(Edits, ReplaceInsertAndRefuseOverlaps) {
  auto text = applyEdits("abcdef", {{"", {4, 5}, "E"}, {"", {1, 1}, "x"}, {"", {1, 1}, "y"}, {"", {2, 3}, ""}});
  ASSERT_TRUE(text.ok());
  EXPECT_EQ(*text, "axybdEf");
  EXPECT_FALSE(applyEdits("abcdef", {{"", {1, 4}, ""}, {"", {3, 5}, ""}}).ok());
  EXPECT_FALSE(applyEdits("abc", {{"", {2, 9}, ""}}).ok());
}

std::string prepared(std::string_view text) {
  auto lore = learnMacros(std::vector<std::string_view>{text});
  return prepareCpp(text, static_cast<MacroLore*>(lore.get())).text;
}

TEST(Prepare, KeepsEveryOffset) {
  for (std::string_view text : {"#if 0\nint a;\n#else\nint b;\n#endif\nint c;", "#define API __attribute__((visibility(\"default\")))\nclass API Quay {};\n", "#ifdef _WIN32\nint w;\n#else\nint u;\n#endif\n",
                                "const char* r = R\"(#if 0)\"; // #else\nint x = 1'000;\n", "#define NOTHING(x)\nint a NOTHING(b(c)) = 1;\n", "#if defined(__cplusplus) && !defined(SWIG)\nextern \"C\" {\n#endif\n"}) {
    std::string out = prepared(text);
    ASSERT_EQ(out.size(), text.size());
    for (size_t i = 0; i < text.size(); ++i) EXPECT_TRUE(out[i] == text[i] || out[i] == ' ') << text << " at " << i;
  }
}

TEST(Prepare, TakesTheBranchThatIsBuilt) {
  std::string out = prepared("#if 0\nint a;\n#else\nint b;\n#endif\n#ifdef _WIN32\nint w;\n#elif 1\nint u;\n#endif\n#if UNKNOWN > 3\nint first;\n#else\nint second;\n#endif\n");
  EXPECT_EQ(out.find("int a"), std::string::npos);
  EXPECT_NE(out.find("int b"), std::string::npos);
  EXPECT_EQ(out.find("int w"), std::string::npos);
  EXPECT_NE(out.find("int u"), std::string::npos);
  EXPECT_NE(out.find("int first"), std::string::npos);
  EXPECT_EQ(out.find("int second"), std::string::npos);
}

TEST(Prepare, ExportMacrosThatWereNotReadAreNoNames) {
  EXPECT_EQ(prepared("class Office_API Berth final : public Quay {};"), "class            Berth final : public Quay {};");
  EXPECT_EQ(prepared("struct BERTH_EXPORT Berth {};"), "struct              Berth {};");
  for (std::string_view text : {"class Berth final {};", "class Berth : Quay {};", "struct Berth berth {1};", "template <class T, class U> void moor();", "enum class Side : int { left };", "friend class Berth;", "class Office::Berth {};"})
    EXPECT_EQ(prepared(text), text);
}

TEST(Prepare, KeywordsAreNoMacros) {
  std::string text = "#define const\n#define volatile\nconst int limit = 3;\n";
  EXPECT_NE(prepared(text).find("const int limit"), std::string::npos);
}

TEST(Prepare, AMacroMayBeAnotherNameForAnOperator) {
  EXPECT_NE(prepared("#define OFFICE_DROP  delete \nvoid f(int* p) { OFFICE_DROP p; }\n").find("{ delete      p; }"), std::string::npos);
}

TEST(Prepare, MacrosOfMacrosAreLearnt) {
  std::string out = prepared("#define ATTR(x) __attribute__((x))\n#define GUARDED_BY(m) ATTR(guarded_by(m))\nint a GUARDED_BY(lock_);\n#define LOG(x) write(x)\n#define LOG2(x)\nvoid f() { LOG(1); LOG2(2); }\n");
  EXPECT_EQ(out.find("int a GUARDED"), std::string::npos);
  EXPECT_NE(out.find("LOG(1);"), std::string::npos);
}

TEST(Lower, ReadsWhatMacrosWouldSpoil) {
  LoweredFile file = lowerText("a.cpp", "#define EXPORT\n#define BEGIN namespace port {\n#define END }\nBEGIN\nclass EXPORT Quay { int n_; };\nEND\nint last;\n");
  EXPECT_EQ(file.unreadBytes, 0u) << printTree(file);
  EXPECT_NE(printTree(file).find("type 'Quay'"), std::string::npos);
}

TEST(Lower, MakesNullTestsOfEverySpelling) {
  LoweredFile file = lowerText("a.cpp", "struct Q {}; Q* q; void f() { if (!q) {} if (q == nullptr) {} if (NULL == q) {} if (q) {} if (q != 0 && f) {} while (q) {} int x = q ? 1 : 2; }\n");
  size_t tests = 0;
  for (const Node& node : file.nodes) tests += node.kind == Kind::NullTest;
  EXPECT_EQ(tests, 8u) << printTree(file);
}

TEST(Results, OfTap) {
  TestTable table = readTap("TAP version 13\n# Subtest: pilots\n    ok 1 - a deep ship waits\n    not ok 2 - a small one sails\n    1..2\nnot ok 1 - pilots\nok 2 - ferry # SKIP no water\nok 3 # TODO\n1..3\n");
  ASSERT_EQ(table.size(), 5u);
  EXPECT_EQ(table["pilots > a deep ship waits"].status, TestStatus::Passed);
  EXPECT_EQ(table["pilots > a small one sails"].status, TestStatus::Failed);
  EXPECT_EQ(table["ferry"].status, TestStatus::Skipped);
  EXPECT_TRUE(table.count("test 3"));
  EXPECT_FALSE(readResults("all is well\n", "log.txt").ok());
}

// What a runner prints, the tests that it names with what came of them, and what it counts: run/failed/skipped.
struct Printed {
  const char* runner;
  const char* text;
  const char* tests;
  const char* totals;
};
void PrintTo(const Printed& printed, std::ostream* out) { *out << printed.runner; }
class RunnersPrint : public testing::TestWithParam<Printed> {};

TEST_P(RunnersPrint, NamesAndCounts) {
  RunnerOutput read = readRunnerOutput(GetParam().text);
  std::string tests;
  for (auto& [name, result] : read.tests) tests += name + "=" + std::string(testStatusText(result.status)) + "\n";
  EXPECT_EQ(tests, GetParam().tests);
  EXPECT_EQ(read.totals.told ? std::to_string(read.totals.run) + "/" + std::to_string(read.totals.failed) + "/" + std::to_string(read.totals.skipped) : "", GetParam().totals);
}

INSTANTIATE_TEST_SUITE_P(Results, RunnersPrint, testing::Values(
    Printed{"unittest", "test_waits (test_office.PilotTest.test_waits) ... ok\ntest_sails (test_office.PilotTest)\nSails at high water. ... FAIL\ntest_fog (test_office.PilotTest) ... skipped 'no fog'\ntest_low-water (test_office.PilotTest) ... a word\nok\n\nRan 4 tests in 0.01s\n\nFAILED (failures=1, skipped=1)\n",
            "test_office.PilotTest.test_fog=skipped\ntest_office.PilotTest.test_low-water=passed\ntest_office.PilotTest.test_sails=failed\ntest_office.PilotTest.test_waits=passed\n", "4/1/1"},
    Printed{"unittest_dots", "..F\n======\nFAIL: test_kill (office.test_kill)\n-----\nRan 512 tests in 46.018s\n\nFAILED (failures=1, errors=1, skipped=15)\n", "office.test_kill=failed\n", "512/2/15"},
    Printed{"pytest", "tests/test_a.py::TestQuay::test_moors PASSED [ 50%]\ntests/test_a.py::test_leaves[low tide] FAILED [100%]\nFAILED tests/test_a.py::test_leaves[low tide] - assert 1\n=== 1 failed, 1 passed, 2 warnings in 0.03s ===\n",
            "tests/test_a.py::TestQuay::test_moors=passed\ntests/test_a.py::test_leaves[low tide]=failed\n", "2/1/0"},
    Printed{"go", "=== RUN   TestPilot\n    --- PASS: TestPilot/deep (0.01s)\n--- FAIL: TestPilot (0.25s)\nFAIL\n", "TestPilot=failed\nTestPilot/deep=passed\n", ""},
    Printed{"ctest", " 1/2 Test #1: Pilot.Waits ......................   Passed    0.02 sec\n 2/2 Test #2: Pilot.Sails ......................***Failed    0.10 sec\n50% tests passed, 1 tests failed out of 2\n", "Pilot.Sails=failed\nPilot.Waits=passed\n", "2/1/0"},
    Printed{"googletest", "[ RUN      ] Mast.Raises\n[       OK ] Mast.Raises (2 ms)\n[  FAILED  ] Mast.Lowers, where GetParam() = 3 (0 ms)\n[==========] 2 tests from 1 test suite ran. (2 ms total)\n[  FAILED  ] 1 test, listed below:\n 1 FAILED TEST\n", "Mast.Lowers=failed\nMast.Raises=passed\n", "2/1/0"},
    Printed{"junit_console", "JUnit version 4.13\n.......\nTime: 5.1\n\nOK (4239 tests)\n", "", "4239/0/0"},
    Printed{"junit_failure", "There was 1 failure:\n1) testMoors(harbour.QuayTest)\njava.lang.AssertionError\n\nTests run: 12,  Failures: 1\n", "harbour.QuayTest.testMoors=failed\n", "12/1/0"},
    Printed{"surefire", "[INFO] Tests run: 3, Failures: 0, Errors: 0, Skipped: 1, Time elapsed: 0.1 s - in A\n[INFO] Tests run: 2, Failures: 1, Errors: 0, Skipped: 0, Time elapsed: 0.1 s - in B\n[INFO] Tests run: 5, Failures: 1, Errors: 0, Skipped: 1\n", "", "5/1/1"},
    Printed{"phpunit", "OK (5 tests, 10 assertions)\n", "", "5/0/0"},
    Printed{"phpunit_failure", "Tests: 5, Assertions: 10, Failures: 1, Skipped: 1.\n", "", "5/1/1"},
    Printed{"mocha", "  Pilot\n    \xE2\x9C\x94 waits for water (3ms)\n    1) sails\n    - rests\n\n  1 passing (8ms)\n  1 pending\n  1 failing\n", "Pilot > rests=skipped\nPilot > sails=failed\nPilot > waits for water=passed\n", "3/1/1"},
    Printed{"jest", "PASS ./quay.test.js\n  Quay\n    \xE2\x9C\x93 moors (2 ms)\n    \xE2\x9C\x95 leaves\nTests:       1 failed, 1 passed, 2 total\n", "Quay > leaves=failed\nQuay > moors=passed\n", "2/1/0"},
    Printed{"node", "\xE2\x96\xB6 Quay\n  \xE2\x9C\x94 moors (0.5ms)\n\xE2\x84\xB9 tests 1\n\xE2\x84\xB9 pass 1\n\xE2\x84\xB9 fail 0\n", "moors=passed\n", "1/0/0"},
    Printed{"nunit", "  Test Count: 12, Passed: 10, Failed: 1, Warnings: 0, Inconclusive: 0, Skipped: 1\n", "", "12/1/1"},
    Printed{"dotnet", "  Passed Harbour.QuayTest.Moors [1 ms]\nPassed!  - Failed:     0, Passed:     1, Skipped:     0, Total:     1, Duration: 3 ms\n", "Harbour.QuayTest.Moors=passed\n", "1/0/0"},
    Printed{"xctest", "Test Case '-[HarbourTests.QuayTest testMoors]' passed (0.001 seconds).\nTest Case 'QuayTest.testLeaves' failed (0.1 seconds)\n\t Executed 2 tests, with 1 failure (0 unexpected) in 0.101 (0.102) seconds\n", "HarbourTests.QuayTest testMoors=passed\nQuayTest.testLeaves=failed\n", "2/1/0"},
    Printed{"dart", "{\"type\":\"testStart\",\"test\":{\"id\":3,\"name\":\"moors\"}}\n{\"type\":\"testDone\",\"testID\":3,\"result\":\"success\",\"skipped\":false,\"hidden\":false}\n", "moors=passed\n", ""},
    Printed{"vitest", "{\"testResults\":[{\"assertionResults\":[{\"fullName\":\"quay moors\",\"status\":\"passed\"},{\"fullName\":\"quay leaves\",\"status\":\"failed\"}]}]}", "quay leaves=failed\nquay moors=passed\n", ""},
    Printed{"none", "ok then\nwrote 3 files\n - a list\n1) of things\n", "", ""}),
    [](const auto& info) { return std::string(info.param.runner); });

TEST(Results, OfTheOtherXmlForms) {
  auto sharp = readResults("<test-run><test-suite><test-case fullname='Harbour.Quay.Moors' result='Passed' duration='0.5'/><test-case fullname='Harbour.Quay.Leaves' result='Failed'><failure><message>no</message></failure></test-case></test-suite></test-run>", "r.xml");
  ASSERT_TRUE(sharp.ok());
  EXPECT_EQ(sharp->at("Harbour.Quay.Leaves").message, "no");
  auto old = readResults("<assemblies><assembly><collection><test name='Moors' result='Pass'/><test name='Rests' result='Skip'/></collection></assembly></assemblies>", "r.xml");
  ASSERT_TRUE(old.ok());
  EXPECT_EQ(old->at("Moors").status, TestStatus::Passed);
  EXPECT_EQ(old->at("Rests").status, TestStatus::Skipped);
  auto sections = readResults("<Catch2TestRun><TestCase name='moors'><OverallResult success='false' durationInSeconds='0.2'/></TestCase></Catch2TestRun>", "r.xml");
  ASSERT_TRUE(sections.ok());
  EXPECT_EQ(sections->at("moors").status, TestStatus::Failed);
  auto suites = readResults("<testng-results><suite><test><class name='Quay'><test-method name='moors' status='PASS'/><test-method name='setUp' is-config='true' status='PASS'/></class></test></suite></testng-results>", "r.xml");
  ASSERT_TRUE(suites.ok());
  EXPECT_EQ(suites->size(), 1u);
}

TEST(Results, AreReadFromJUnitFiles) {
  auto table = readXml("<?xml version='1.0'?><testsuites><testsuite name='a'><testcase classname='Quay' name='Moors' time='0.5'/><testcase classname='Quay' name='Leaves'><failure message='no'/></testcase>"
                         "<testcase name='Rests' status='notrun'/><testcase name='x' classname='x'><skipped/></testcase></testsuite></testsuites>", "r.xml");
  ASSERT_TRUE(table.ok());
  EXPECT_EQ(table->at("Quay.Moors").status, TestStatus::Passed);
  EXPECT_EQ(table->at("Quay.Leaves").status, TestStatus::Failed);
  EXPECT_EQ(table->at("Rests").status, TestStatus::Skipped);
  EXPECT_EQ(table->at("x").status, TestStatus::Skipped);
  EXPECT_FALSE(readXml("<html/>", "r.xml").ok());
  EXPECT_FALSE(readXml("nothing", "r.xml").ok());
}

TEST(Results, MasksHideWhatMayDiffer) {
  EXPECT_EQ(*masked("at 0x7ffe12 in 3 ms", {"0x[0-9a-f]+", "[0-9]+ ms"}), "at * in *");
  EXPECT_FALSE(masked("x", {"("}).ok());
}

TEST(Results, FlakyTestsAreNotBlamedOnAStep) {
  Baseline before;
  before.observation.built = true;
  before.observation.tests["steady"] = {};
  before.observation.tests["flaky"] = {};
  before.flakyTests = {"flaky"};
  Observation after = before.observation;
  after.tests["flaky"].status = TestStatus::Failed;
  EXPECT_TRUE(compare(before, after).same());
  after.tests["steady"].status = TestStatus::Failed;
  EXPECT_FALSE(compare(before, after).same());
  after.tests.erase("steady");
  EXPECT_FALSE(compare(before, after).same());
}

TEST(OrderOfWork, AddsUpWhatIsSaidOfOneThing) {
  auto finding = [](const char* subject, const char* check, int bad, Advice advice, const char* accepted = "") {
    Finding f;
    f.subject = subject;
    f.check = check;
    f.risk.bad = bad;
    f.risk.reach = 1;
    f.advice = advice;
    f.acceptedBecause = accepted;
    return f;
  };
  Assessment a;
  a.findings = {finding("Mast", "lifetime.dangling-subscriber", 60, Advice::Unregister), finding("Book", "thread.unguarded-creation", 50, Advice::SafeInit), finding("Book", "thread.lost-update", 40, Advice::Synchronize),
                finding("Book", "coupling.wide-reach", 40, Advice::Inject), finding("Log", "coupling.cycle", 90, Advice::Inject, "it is a log")};
  std::vector<WorkItem> work = orderOfWork(a);
  ASSERT_EQ(work.size(), 2u);
  EXPECT_EQ(work[0].subject, "Mast") << "the highest risk comes first, not the largest sum";
  EXPECT_EQ(work[1].subject, "Book");
  EXPECT_EQ(work[1].weight, 70);
  EXPECT_EQ(work[1].advice, Advice::SafeInit);
  EXPECT_EQ(work[1].why, "Unguarded lazy creation (50), Lost update (40) and 1 more");
  EXPECT_EQ(work[0].why, "Dangling subscriber (60)");
}

}  // namespace
}  // namespace elmcart

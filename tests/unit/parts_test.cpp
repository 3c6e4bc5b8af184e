// Small parts: ignore patterns, edits, the pass over macros, result files, masks.
#include <gtest/gtest.h>

#include <csignal>
#include <thread>

#include "assess/assess.h"
#include "confirm/confirm.h"
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

TEST(Results, OfWhatRunnersPrint) {
  TestTable python = readRunnerOutput("test_waits (test_office.PilotTest.test_waits) ... ok\ntest_sails (test_office.PilotTest)\nSails at high water. ... FAIL\ntest_fog (test_office.PilotTest) ... skipped 'no fog'\n\nRan 3 tests\n");
  ASSERT_EQ(python.size(), 3u);
  EXPECT_EQ(python["test_office.PilotTest.test_waits"].status, TestStatus::Passed);
  EXPECT_EQ(python["test_office.PilotTest.test_sails"].status, TestStatus::Failed);
  EXPECT_EQ(python["test_office.PilotTest.test_fog"].status, TestStatus::Skipped);
  TestTable go = readRunnerOutput("=== RUN   TestPilot\n    --- PASS: TestPilot/deep (0.01s)\n--- FAIL: TestPilot (0.25s)\nFAIL\n");
  EXPECT_EQ(go["TestPilot/deep"].status, TestStatus::Passed);
  EXPECT_EQ(go["TestPilot"].status, TestStatus::Failed);
  EXPECT_DOUBLE_EQ(go["TestPilot"].seconds, 0.25);
  TestTable ctest = readRunnerOutput(" 1/2 Test #1: Pilot.Waits ......................   Passed    0.02 sec\n 2/2 Test #2: Pilot.Sails ......................***Failed    0.10 sec\n");
  EXPECT_EQ(ctest["Pilot.Waits"].status, TestStatus::Passed);
  EXPECT_EQ(ctest["Pilot.Sails"].status, TestStatus::Failed);
  EXPECT_TRUE(readRunnerOutput("ok then\nwrote 3 files\n").empty());
}

TEST(Results, AreReadFromJUnitFiles) {
  auto table = readJUnit("<?xml version='1.0'?><testsuites><testsuite name='a'><testcase classname='Quay' name='Moors' time='0.5'/><testcase classname='Quay' name='Leaves'><failure message='no'/></testcase>"
                         "<testcase name='Rests' status='notrun'/><testcase name='x' classname='x'><skipped/></testcase></testsuite></testsuites>", "r.xml");
  ASSERT_TRUE(table.ok());
  EXPECT_EQ(table->at("Quay.Moors").status, TestStatus::Passed);
  EXPECT_EQ(table->at("Quay.Leaves").status, TestStatus::Failed);
  EXPECT_EQ(table->at("Rests").status, TestStatus::Skipped);
  EXPECT_EQ(table->at("x").status, TestStatus::Skipped);
  EXPECT_FALSE(readJUnit("<html/>", "r.xml").ok());
  EXPECT_FALSE(readJUnit("nothing", "r.xml").ok());
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

// Coverage files, and what they tell of a change.
#include <gtest/gtest.h>

#include "confirm/coverage.h"

namespace elmcart {
namespace {

LineCounts read(const std::string& text) {
  auto counts = readCoverage(text, "lines");
  EXPECT_TRUE(counts.ok()) << (counts ? "" : counts.error().line());
  return counts ? *counts : LineCounts{};
}

TEST(Coverage, ReadsTracefiles) {
  LineCounts counts = read("TN:\nSF:src/desk.py\nDA:1,1\nDA:2,0\nDA:bad\nend_of_record\nSF:src/quay.py\nDA:7,3,checksum\nend_of_record\n");
  EXPECT_EQ(counts["src/desk.py"], (std::map<uint32_t, uint64_t>{{1, 1}, {2, 0}}));
  EXPECT_EQ(counts["src/quay.py"], (std::map<uint32_t, uint64_t>{{7, 3}}));
}

TEST(Coverage, ReadsTheXmlForms) {
  LineCounts classes = read("<?xml version=\"1.0\"?><coverage><packages><package name=\"p\"><classes><class name=\"Desk\" filename=\"src/desk.py\"><lines>"
                            "<line number=\"1\" hits=\"2\"/><line number=\"3\" hits=\"0\"/></lines></class></classes></package></packages></coverage>");
  EXPECT_EQ(classes["src/desk.py"], (std::map<uint32_t, uint64_t>{{1, 2}, {3, 0}}));
  LineCounts sources = read("<report name=\"r\"><group name=\"g\"><package name=\"harbour/desk\"><class name=\"harbour/desk/Desk\"/><sourcefile name=\"Desk.java\">"
                            "<line nr=\"4\" mi=\"0\" ci=\"3\"/><line nr=\"5\" mi=\"2\" ci=\"0\"/></sourcefile></package></group></report>");
  EXPECT_EQ(sources["harbour/desk/Desk.java"], (std::map<uint32_t, uint64_t>{{4, 3}, {5, 0}}));
}

TEST(Coverage, ReadsGoProfiles) {
  LineCounts counts = read("mode: set\nharbour/desk/desk.go:3.14,5.2 1 1\nharbour/desk/desk.go:7.14,7.30 1 0\nno line\n");
  EXPECT_EQ(counts["harbour/desk/desk.go"], (std::map<uint32_t, uint64_t>{{3, 1}, {4, 1}, {5, 1}, {7, 0}}));
}

TEST(Coverage, RefusesWhatItDoesNotKnow) {
  EXPECT_FALSE(readCoverage("tides and berths\n", "lines").ok());
  EXPECT_FALSE(readCoverage("<coverage", "lines").ok());
  EXPECT_FALSE(readCoverage("<html><body/></html>", "lines").ok());
  auto empty = readCoverage("", "lines.info");
  ASSERT_FALSE(empty.ok());
  EXPECT_EQ(empty.error().line(), "lines.info: no coverage file of a form that is known");
}

TEST(Coverage, KnowsWhichLinesChanged) {
  EXPECT_EQ(changedLines("a\nb\nc\n", "a\nB\nc\nd\n"), (std::vector<uint32_t>{2, 4}));
  EXPECT_EQ(changedLines("", "a\nb\n"), (std::vector<uint32_t>{1, 2}));
  EXPECT_TRUE(changedLines("a\nb\n", "a\n").empty()) << "what is only taken away leaves no line";
  EXPECT_TRUE(changedLines("a\n", "a\n").empty());
}

TEST(Coverage, TellsHowFarAChangeIsExecuted) {
  LineCounts counts = {{"/scratch/b/src/desk.py", {{1, 4}, {2, 0}, {3, 0}}}};
  auto summary = [&](const std::string& path, const std::string& before, const std::string& after) { return coverageOf(counts, true, {{path, {before, after}}}).summary(); };
  EXPECT_EQ(summary("src/desk.py", "x\nb\n", "a\nB\n"), "1 of 2 changed lines are executed by the tests; not src/desk.py:2");
  EXPECT_EQ(summary("src/desk.py", "x\nb\n", "a\nb\n"), "1 of 1 changed line is executed by the tests");
  EXPECT_EQ(summary("src/desk.py", "a\nb\nc\n", "a\nB\nC\n"), "no changed line is executed by the tests; not src/desk.py:2, 3");
  EXPECT_EQ(summary("src/desk.py", "a\nb\nc\n", "a\nb\nc\n# said\n"), "no changed line runs code");
  EXPECT_EQ(summary("src/quay.py", "a\n", "b\n"), "the coverage does not tell of src/quay.py");
  EXPECT_EQ(summary("otherdesk.py", "a\n", "b\n"), "the coverage does not tell of otherdesk.py") << "an end of a name is no file";
  EXPECT_EQ(coverageOf(counts, false, {{"src/desk.py", {"x", "a"}}}).summary(), "") << "nobody asked";
}

}  // namespace
}  // namespace elmcart

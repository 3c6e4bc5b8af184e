// Does B behave as A did? Builds and tests a tree, looks at its witnesses, and
// compares two such observations test by test.
#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "base/result.h"
#include "config/config.h"
#include "confirm/coverage.h"
#include "confirm/process.h"
#include "confirm/results.h"

namespace elmcart {

struct WitnessResult {
  int exitCode = 0;
  bool timedOut = false;
  std::string out, err;                       // masked
  std::map<std::string, std::string> files;   // masked; a file that was not written is missing
};

struct Observation {
  bool built = false;
  std::string buildOutput;      // of the command that failed, its end
  int testExit = 0;
  bool testsTimedOut = false;
  std::string testOutput;       // its end
  TestTable tests;
  RunnerTotals totals;          // what the runners counted themselves
  std::map<std::string, WitnessResult> witnesses;
  LineCounts coverage;
  bool coverageTold = false;            // was there any coverage file that could be read?
  std::vector<std::string> problems;    // one line each: result and coverage files that could not be read
  double buildSeconds = 0, testSeconds = 0;
};

// Builds the tree at `folder` and, when that works, tests it and runs the witnesses.
Observation observe(const std::string& folder, const Config& config);

// What A does, from several runs: tests and witnesses that differ among them are set aside.
struct Baseline {
  Observation observation;
  std::set<std::string> flakyTests;
  bool flakyTotals = false;     // the runners' counts differ from run to run
  std::set<std::string> unsteadyWitnesses;
  size_t runs = 0;
};
Baseline learnBaseline(const std::string& folder, const Config& config);

struct Difference {
  std::string what;    // "build", "test", "witness"
  std::string name;    // of the test or witness
  std::string before, after;
  std::string detail;  // a failure's message, or a diff
};

struct Comparison {
  std::vector<Difference> differences;
  size_t testsCompared = 0, witnessesCompared = 0;
  size_t testsCounted = 0;   // by the runners' own count, where they name fewer
  ChangeCoverage coverage;   // of what differs between the two
  bool same() const { return differences.empty(); }
  // A word about what it rests on: "31 tests and 1 witness as before".
  std::string summary() const;
};
// `change`: what differs between the two trees, by path the texts before and after.
Comparison compare(const Baseline& before, const Observation& after, const std::map<std::string, std::pair<std::string, std::string>>& change = {});

// Tests whose outcome depends on what runs before them. Each order is a run of
// its own, by a number that the usual runners shuffle by.
struct OrderCheck {
  size_t orders = 0;                                    // that were run
  size_t alone = 0;                                     // tests that were run on their own
  std::map<std::string, std::string> dependent;         // test: "passed in the given order, failed in order 3"
};
// The same for two trees, and what shared state each such test touches.
struct OrderReport {
  OrderCheck before, after;
  std::map<std::string, std::vector<std::string>> shares;
};
// `folder` holds a tree that `seen` was observed of. Order k is asked for by
// GTEST_SHUFFLE and GTEST_RANDOM_SEED, by GOFLAGS=-shuffle=k, and by ELMCART_ORDER=k
// for commands that see to it themselves.
void checkOrders(const std::string& folder, const Config& config, const Baseline& seen, size_t orders, OrderCheck& out);
// Each test of `seen` that was not skipped, in a run of its own by the command
// Config::testAlone, which finds the test's name in ELMCART_TEST.
void checkAlone(const std::string& folder, const Config& config, const Baseline& seen, OrderCheck& out);

// A text with everything that one of the regular expressions matches replaced by "*".
Result<std::string> masked(const std::string& text, const std::vector<std::string>& masks);

}  // namespace elmcart
